"""Boxes: volume."""
