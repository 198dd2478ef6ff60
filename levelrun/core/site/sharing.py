"""Which walls two rooms share: faces that look at each other a stud's depth apart."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.job import Room
from levelrun.core.site.geometry import Wall, walls_of

MOST_GAP_IN = 14.0
LEAST_OVERLAP_IN = 2.0


@dataclass(frozen=True)
class Mate:
    """The other face of a shared wall, over `from_in` to `to_in` of this one; `gap_in`: between the stud faces."""

    room: str
    side: int
    from_in: float
    to_in: float
    gap_in: float


@lru_cache(maxsize=64)
def mates(rooms: tuple[Room, ...]) -> dict[tuple[str, int], tuple[Mate, ...]]:
    """For each wall of rooms on one level the walls that back onto it, left to right."""
    walls = [wall for room in rooms for wall in walls_of(room)]
    by_way: dict[tuple[int, int], list[Wall]] = {}
    for wall in walls:
        by_way.setdefault(_way(wall.out), []).append(wall)
    found: dict[tuple[str, int], tuple[Mate, ...]] = {}
    for wall in walls:
        facing = by_way.get(_way((-wall.out[0], -wall.out[1])), [])
        found[wall.room, wall.index] = tuple(sorted(_backing(wall, facing), key=lambda mate: mate.from_in))
    return found


def _way(out: tuple[float, float]) -> tuple[int, int]:
    return (round(out[0] * 100), round(out[1] * 100))


def _backing(wall: Wall, facing: Sequence[Wall]) -> list[Mate]:
    found: list[Mate] = []
    for other in facing:
        if other.room == wall.room:
            continue
        gap = (other.x0 - wall.x0) * wall.out[0] + (other.y0 - wall.y0) * wall.out[1]
        if not -0.01 <= gap <= MOST_GAP_IN:
            continue
        low = max(0.0, wall.distance((other.x1, other.y1)))
        high = min(wall.length_in, wall.distance((other.x0, other.y0)))
        if high - low >= LEAST_OVERLAP_IN:
            found.append(Mate(other.room, other.index, low, high, gap))
    return found
