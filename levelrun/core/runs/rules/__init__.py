"""Findings about runs, one file a theme; each lists its rules at its end."""
