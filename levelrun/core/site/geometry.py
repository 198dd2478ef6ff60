"""Rooms as loops of corners: their walls with names and directions, area, chains of tape readings."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from shapely import Polygon, contains_xy, prepare

from levelrun.core.errors import LevelRunError
from levelrun.core.job import Room

Point = tuple[float, float]
COMPASS = ("north", "northeast", "east", "southeast", "south", "southwest", "west", "northwest")
STEPS: dict[str, Point] = {"north": (0, 1), "east": (1, 0), "south": (0, -1), "west": (-1, 0)}
CLOSING_PERCENT = 1.0
CLOSING_LEAST_IN = 1.0


@dataclass(frozen=True, kw_only=True)
class Wall:
    """One wall of a room, left to right as faced from inside. `out`: unit vector away from the room."""

    room: str
    index: int
    name: str
    x0: float
    y0: float
    x1: float
    y1: float
    length_in: float
    along: Point
    out: Point

    def at(self, distance: float, away: float = 0.0) -> Point:
        """The point `distance` from the left corner, `away` out of the room (negative: into it)."""
        return (
            self.x0 + self.along[0] * distance + self.out[0] * away,
            self.y0 + self.along[1] * distance + self.out[1] * away,
        )

    def into(self, point: Point) -> float:
        """How far into the room a point stands off the wall."""
        return (self.x0 - point[0]) * self.out[0] + (self.y0 - point[1]) * self.out[1]

    def distance(self, point: Point) -> float:
        """How far along the wall a point lies, from the left corner."""
        return (point[0] - self.x0) * self.along[0] + (point[1] - self.y0) * self.along[1]


@lru_cache(maxsize=4096)
def walls_of(room: Room) -> tuple[Wall, ...]:
    """The walls of a room in clockwise order, named by the way they face: "south", a second one "south 2"."""
    return walls_round(room.id, room.corners)


def walls_round(room: str, corners: Sequence[Point]) -> tuple[Wall, ...]:
    """The walls round a loop of corners, of the room with this id; as `walls_of`, and not kept."""
    found: list[Wall] = []
    used: dict[str, int] = {}
    count = len(corners)
    for index, (x0, y0) in enumerate(corners):
        x1, y1 = corners[(index + 1) % count]
        length = math.hypot(x1 - x0, y1 - y0)
        along = ((x1 - x0) / length, (y1 - y0) / length) if length else (1.0, 0.0)
        out = (-along[1], along[0])
        name = compass(out)
        used[name] = used.get(name, 0) + 1
        named = name if used[name] == 1 else f"{name} {used[name]}"
        found.append(
            Wall(
                room=room,
                index=index,
                name=named,
                x0=x0,
                y0=y0,
                x1=x1,
                y1=y1,
                length_in=length,
                along=along,
                out=out,
            )
        )
    return tuple(found)


def compass(out: Point) -> str:
    """The nearest of eight directions."""
    turn = math.degrees(math.atan2(out[0], out[1])) % 360
    return COMPASS[round(turn / 45) % 8]


def signed_area(corners: Sequence[Point]) -> float:
    """Square inches by the shoelace; negative for clockwise corners."""
    pairs = zip(corners, (*corners[1:], corners[0]), strict=True)
    return sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in pairs) / 2


def area_ft2(corners: Sequence[Point]) -> float:
    """Square feet of a room between its stud faces."""
    return abs(signed_area(corners)) / 144


def is_inside(corners: Sequence[Point], point: Point) -> bool:
    """Whether a point lies in a room or on its stud faces."""
    return bool(contains_xy(_with_faces(tuple(corners)), *point))


@lru_cache(maxsize=1024)
def _with_faces(corners: tuple[Point, ...]) -> Polygon:
    """A room with its stud faces, ready to be asked often: its index is made at the first question, so that is put
    here, before threads share it."""
    shape = Polygon(corners).buffer(1e-6)
    prepare(shape)
    contains_xy(shape, *corners[0])
    return shape


def middle_of(corners: Sequence[Point]) -> Point:
    """A point well inside a room: the middle where that is in it, to a sixteenth of an inch."""
    shape = Polygon(corners)
    middle = shape.centroid if shape.contains(shape.centroid) else shape.representative_point()
    return _sixteenth(middle.x), _sixteenth(middle.y)


def clockwise(corners: Sequence[Point]) -> tuple[Point, ...]:
    """The same loop, clockwise as seen from above, from the same corner on."""
    if signed_area(corners) < 0:
        return tuple(corners)
    return (corners[0], *reversed(corners[1:]))


def rectangle(x: float, y: float, width: float, depth: float) -> tuple[Point, ...]:
    """A room `width` east and west, `depth` north and south, its south-west corner at x, y."""
    return ((x, y + depth), (x + width, y + depth), (x + width, y), (x, y))


@dataclass(frozen=True)
class Closing:
    """A chain of readings closed. `error_in`: by how far it missed; `corners` with the error shared out."""

    corners: tuple[Point, ...]
    error_in: float
    allowed_in: float
    length_in: float


def close_chain(legs: Sequence[tuple[str, float]], start: Point = (0.0, 0.0)) -> Closing:
    """Tape readings (direction, inches) as a closed loop from `start`.

    The closing error is shared out in proportion to the legs (compass rule, as surveyors adjust a traverse) where
    it is within 1 % of the whole length, an inch at least. Raises LevelRunError over that, or where fewer than
    three corners or no area are left.
    """
    points = [start]
    for direction, inches in legs:
        dx, dy = STEPS[direction]
        x, y = points[-1]
        points.append((x + dx * inches, y + dy * inches))
    length = sum(inches for _, inches in legs)
    miss = (points[-1][0] - start[0], points[-1][1] - start[1])
    error = math.hypot(*miss)
    allowed = max(CLOSING_LEAST_IN, length * CLOSING_PERCENT / 100)
    if error > allowed:
        raise LevelRunError(
            f"the chain misses its start by {error:.1f} in over {length / 12:.1f} ft; allowed: {allowed:.1f} in. "
            "One reading is wrong: tape it again",
            key="text",
            value=f"{error:.2f}",
            allowed=[f"a closing error up to {allowed:.1f} in"],
        )
    shared, walked = [], 0.0
    for (x, y), (_, inches) in zip(points, (*legs, ("", 0.0)), strict=True):
        part = walked / length if length else 0.0
        shared.append((_sixteenth(x - miss[0] * part), _sixteenth(y - miss[1] * part)))
        walked += inches
    corners = _without_repeats(shared[:-1])
    if len(corners) < 3 or abs(signed_area(corners)) < 144:
        raise LevelRunError("these walls enclose no room; say at least three that come back", key="text")
    return Closing(clockwise(corners), error, allowed, length)


def _sixteenth(inches: float) -> float:
    return round(inches * 16) / 16


def _without_repeats(points: Sequence[Point]) -> list[Point]:
    """Corners with no zero wall and no corner in the middle of a straight wall."""
    kept = [p for i, p in enumerate(points) if p != points[i - 1]]
    found: list[Point] = []
    for i, (x, y) in enumerate(kept):
        (ax, ay), (bx, by) = kept[i - 1], kept[(i + 1) % len(kept)]
        if abs((x - ax) * (by - y) - (y - ay) * (bx - x)) > 1e-6:
            found.append((x, y))
    return found
