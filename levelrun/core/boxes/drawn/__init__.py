"""Drawing models of rooms: plain coordinates."""
