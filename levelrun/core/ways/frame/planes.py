"""The planes that joists make: over each level, between a ceiling and the floor on it, over a crawl space."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.job import Level, Room
from levelrun.core.kept import kept_hash
from levelrun.core.site.geometry import Point
from levelrun.core.site.sharing import MOST_GAP_IN
from levelrun.core.ways.frame.lines import Line

LOW_IN = 2.375  # the middle of a ¾ hole that leaves 2 in of joist at its side (IRC R502.8)
Box = tuple[float, float, float, float]
AROUND_IN = MOST_GAP_IN / 2 + 0.5  # half of the thickest wall between two rooms
SAME_IN = 6.0  # lines of the grid nearer than this are one
PLACES = {"crawl": "crawl_space", "basement": "basement"}


@dataclass(frozen=True, kw_only=True)
class Plane:
    """The joists over one level: the height of their holes over the main floor, the lines of its grid, what is
    closed.

    `through`: whether cable may go across them; `bored`: whether that takes holes. `floors`: the rooms under and over
    them, with half a wall round each: beyond these there are no joists. `damp`: where building cable may not lie.
    """

    level: Level
    z_in: float
    place: str
    xs: tuple[float, ...]
    ys: tuple[float, ...]
    closed: tuple[Box, ...]
    floors: tuple[Box, ...]
    damp: bool

    __hash__ = kept_hash

    @property
    def through(self) -> bool:
        """Whether a cable may go across the joists."""
        return self.level.joist_kind != "laminated"

    @property
    def bored(self) -> bool:
        """Whether going across takes holes: a truss is open, and over joists too thin to bore a cable lies on top."""
        return self.level.joist_kind != "truss" and not too_thin(self.level)

    def across(self, a: Point, b: Point) -> float:
        """Inches from a to b square to the joists."""
        return abs(a[0] - b[0]) if self.level.joists == "y" else abs(a[1] - b[1])

    def joists(self, a: Point, b: Point) -> int:
        """Joists that are bored on a straight piece from a to b: those whose line it crosses, counted by spacing."""
        return round(self.across(a, b) / self.level.joist_spacing_in) if self.bored else 0

    def may(self, a: Point, b: Point) -> bool:
        """Whether a straight piece may go: across only where joists may be crossed, never through what is closed."""
        if not self.through and self.across(a, b) > self.level.joist_spacing_in / 2:
            return False
        return not any(_meets(box, a, b) for box in self.closed) and self._over_rooms(a, b)

    def _over_rooms(self, a: Point, b: Point) -> bool:
        """Whether a straight piece, square to the walls, lies over or under rooms all along."""
        along = 0 if abs(a[0] - b[0]) >= abs(a[1] - b[1]) else 1
        at, end = (a[along], b[along]) if a[along] <= b[along] else (b[along], a[along])
        if at == end:
            return True
        fixed, edges = a[1 - along], self._edges[1 - along]
        row = (along, bisect_left(edges, fixed), bisect_right(edges, fixed))
        spans = self._rows.get(row)
        if spans is None:
            spans = self._rows[row] = self._row(along, fixed)
        return any(low <= at and end <= high for low, high in spans)

    @cached_property
    def _edges(self) -> tuple[list[float], list[float]]:
        """Where rooms begin and end, along each axis: between two of these, rows are alike."""
        east, north = [sorted({box[axis] for box in self.floors} | {box[axis + 2] for box in self.floors})
                       for axis in (0, 1)]  # fmt: skip
        return east, north

    @cached_property
    def _rows(self) -> dict[tuple[int, int, int], list[tuple[float, float]]]:
        """What `_row` found, by axis and by what lies before and after the row: asked of again and again."""
        return {}

    def _row(self, along: int, fixed: float) -> list[tuple[float, float]]:
        """The stretches of a straight line that lie over or under rooms; those that meet are one."""
        found: list[tuple[float, float]] = []
        across = 1 - along
        for low, high in sorted((b[along], b[along + 2]) for b in self.floors if b[across] <= fixed <= b[across + 2]):
            if found and low <= found[-1][1]:
                found[-1] = (found[-1][0], max(found[-1][1], high))
            else:
                found.append((low, high))
        return found


def _meets(box: Box, a: Point, b: Point) -> bool:
    """Whether a level piece, square to the axes, passes through a rectangle."""
    x0, y0, x1, y1 = box
    return (
        max(a[0], b[0]) > x0 + 1
        and min(a[0], b[0]) < x1 - 1
        and max(a[1], b[1]) > y0 + 1
        and min(a[1], b[1]) < y1 - 1
    )


def too_thin(level: Level) -> bool:
    """Whether a ¾ hole is too large for the joists of a level: over a third of their depth, or not 2 in from both
    sides (IRC R502.8)."""
    return level.joist_kind == "solid" and level.joist_depth_in < 2 * LOW_IN


def below(level: Level, levels: Sequence[Level]) -> Level | None:
    """The level whose joists carry this one: the highest that ends under its floor."""
    under = [x for x in levels if x.id != level.id and x.floor_in + x.height_in <= level.floor_in + 1e-6]
    return max(under, key=lambda x: x.floor_in + x.height_in, default=None)


def planes_of(levels: Sequence[Level], rooms: Sequence[Room], lines: Sequence[Line]) -> dict[str, Plane]:
    """The plane over each level that has walls on it, or walls of another over it; by level."""
    found: dict[str, Plane] = {}
    for level in levels:
        if level.kind == "attic":
            continue
        touching = {level.id, *(x.id for x in levels if below(x, levels) is level)}
        own = [line for line in lines if line.level.id in touching]
        if not own:
            continue
        inside = [room for room in rooms if room.level == level.id]
        found[level.id] = Plane(
            level=level,
            z_in=level.floor_in + level.height_in + _hole_in(level),
            place=PLACES.get(level.kind, "attic" if too_thin(level) else "ceiling_joists"),
            xs=_grid(own, 0),
            ys=_grid(own, 1),
            closed=tuple(_box(room) for room in inside if room.closed),
            floors=tuple(_box(room, AROUND_IN) for room in rooms if room.level in touching),
            damp=level.kind in PLACES and any(room.moisture in ("damp", "wet") for room in inside),
        )
    return found


def _hole_in(level: Level) -> float:
    """How high in the joists a hole is bored: as near the side from which cables come as may be."""
    if too_thin(level):
        return level.joist_depth_in
    near = min(LOW_IN, level.joist_depth_in / 2)
    return level.joist_depth_in - near if level.kind in PLACES else near


def _grid(lines: Sequence[Line], axis: int) -> tuple[float, ...]:
    """The coordinates of walls, and of the ends of walls that run the other way."""
    marks: list[float] = []
    for line in lines:
        for t in (line.from_in, line.to_in):
            marks.append(line.point(t)[axis])
    kept: list[float] = []
    for mark in sorted(marks):
        if not kept or mark - kept[-1] > SAME_IN:
            kept.append(mark)
    return tuple(kept)


def _box(room: Room, around: float = 0.0) -> Box:
    xs, ys = [x for x, _ in room.corners], [y for _, y in room.corners]
    return min(xs) - around, min(ys) - around, max(xs) + around, max(ys) + around


def around(marks: Sequence[float], value: float) -> list[int]:
    """The lines of a grid beside a value: one where it lies on it, else the two that it lies between."""
    if not marks:
        return []
    at = next((i for i, mark in enumerate(marks) if mark >= value - SAME_IN), len(marks) - 1)
    if abs(marks[at] - value) <= SAME_IN or at == 0 or marks[at] < value:
        return [at]
    return [at - 1, at]


def flat(a: Point, b: Point) -> float:
    """Inches from a to b square to the walls."""
    return abs(a[0] - b[0]) + abs(a[1] - b[1])
