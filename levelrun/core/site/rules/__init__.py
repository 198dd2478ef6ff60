"""Findings about the building as drawn."""
