"""Holds: what may not be closed before it is seen."""
