"""Findings about rooms and boxes, one file a theme; each lists its rules at its end."""
