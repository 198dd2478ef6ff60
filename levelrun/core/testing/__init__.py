"""Proof: what is tested in which order, the window each reading must fall in, where a fault may be, and
learning it."""
