"""Pipe: sticks, bends as they are made, and pulls that hands can do."""
