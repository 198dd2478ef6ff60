"""Findings about circuits and panels, one file a theme; each lists its rules at its end."""
