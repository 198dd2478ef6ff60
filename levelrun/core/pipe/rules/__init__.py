"""Rules about pipe, one file a theme."""
