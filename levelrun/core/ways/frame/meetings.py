"""Where framed walls meet, by the corners of rooms."""

from __future__ import annotations

from collections.abc import Sequence

from levelrun.core.ways.frame.graph import FrameRoom
from levelrun.core.ways.frame.lines import Line


def meetings(rooms: Sequence[FrameRoom], lines: Sequence[Line]) -> list[tuple[int, float, int, float]]:
    """Where two walls meet, by the corners of rooms: line, place on it, line, place on it."""
    home = {(m.room, m.side): index for index, line in enumerate(lines) for m in line.members}
    found: dict[tuple[int, int, int], tuple[int, float, int, float]] = {}
    for room in rooms:
        count = len(room.corners)
        for side in range(count):
            a, b = home.get((room.id, side)), home.get((room.id, (side + 1) % count))
            if a is None or b is None or a == b:
                continue
            met = _crossing(lines[a], lines[b])
            if met is not None:
                low, high = sorted((a, b))
                ta, tb = met if a < b else met[::-1]
                found[low, high, round(ta / 12)] = (low, ta, high, tb)
    return list(found.values())


def _crossing(a: Line, b: Line) -> tuple[float, float] | None:
    """The place where the middles of two walls cross, on each of them."""
    turn = a.along[0] * b.along[1] - a.along[1] * b.along[0]
    if abs(turn) < 0.05:
        return None
    p, q = a.point(0.0), b.point(0.0)
    dx, dy = q[0] - p[0], q[1] - p[1]
    return (dx * b.along[1] - dy * b.along[0]) / turn, (dx * a.along[1] - dy * a.along[0]) / turn
