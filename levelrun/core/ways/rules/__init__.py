"""Findings about ways, one file a theme; each lists its rules at its end."""
