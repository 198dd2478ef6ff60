"""Rules about what lies between buildings, one file a theme."""
