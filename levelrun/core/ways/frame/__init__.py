"""The frame of a building as a graph: where a cable can be, what it costs to go there, and the way it takes."""
