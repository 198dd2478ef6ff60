"""The building: its geometry, which walls are shared, how they are framed."""
