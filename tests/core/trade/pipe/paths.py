"""Pipes at right angles through space, for tests."""

from __future__ import annotations

Points = list[tuple[float, float, float]]
Step = tuple[int, int, float]  # which of the two other axes, which way, how far


def path(steps: list[Step], first: float = 60.0) -> Points:
    """Corners of a pipe that starts along x and turns at a right angle before each step."""
    points: Points = [(0.0, 0.0, 0.0), (first, 0.0, 0.0)]
    last = 0
    for axis, sign, long in steps:
        last = (last + 1 + axis % 2) % 3
        point = list(points[-1])
        point[last] += sign * long
        points.append((point[0], point[1], point[2]))
    return points
