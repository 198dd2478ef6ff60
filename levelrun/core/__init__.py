"""The trade, pure: no web, no database, no clock, no network."""
