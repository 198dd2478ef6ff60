"""Calculations that need no job."""
