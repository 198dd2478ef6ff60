"""Panels, circuits, their chains of boxes, loads and protection."""
