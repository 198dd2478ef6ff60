"""Level Run: plans each run of cable or pipe before the first hole is drilled."""

__version__ = "0.2.0"
