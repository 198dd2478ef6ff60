"""The frame of one building as a graph: stations along its walls, a grid in its joists, what joins them.

Stations are where something can happen along a wall: its ends, corners, the bays beside an opening or a pipe.
Between two stations a cable goes through the studs at the hole line, over a header or under a sill. From a station it
rises to the joists over it or drops to those under it. Shortest ways are found by rustworkx (Dijkstra).
"""

from __future__ import annotations

import threading
from bisect import bisect_right
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import get_args

import rustworkx as rx

from levelrun.core.job import Box, Level, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.part import School
from levelrun.core.site.geometry import Point, walls_round
from levelrun.core.ways.frame.lines import Line
from levelrun.core.ways.frame.planes import Plane, around, flat
from levelrun.core.ways.frame.prices import Prices, Work

SCHOOLS: tuple[str, ...] = get_args(School)
UNWILLING = 200.0  # dollars that a way costs more in the eyes of another school, so that it is taken last
AVOIDED = 100.0  # dollars for a wall that is to be left alone
SIXTEENTH = 1 / 16
CLEAR_IN = 1.5  # from the middle of a hole to what it passes over or under
Weights = tuple[float, float, float, float]


@dataclass(frozen=True)
class FrameRoom:
    """What a frame knows of a room: where it is; its closed sides by number, with the room's name and how each faces,
    to open them."""

    id: str
    level: str
    corners: tuple[Point, ...]
    closed: tuple[tuple[int, str, str], ...]


@dataclass(frozen=True, kw_only=True)
class FrameParts:
    """What a frame is made from: nothing of a job that no cable asks of, so that the frame stays as it is while a
    room is called otherwise or a bed is moved."""

    levels: tuple[Level, ...]
    rooms: tuple[FrameRoom, ...]
    lines: tuple[Line, ...]
    planes: tuple[Plane, ...]
    hole_line_in: float
    prices: Prices

    __hash__ = kept_hash


@dataclass(frozen=True)
class Node:
    """A place of the graph: on a line at t, or in a plane; over the main floor."""

    x: float
    y: float
    z: float
    line: int = -1
    t: float = 0.0
    plane: str = ""


@dataclass(frozen=True)
class Span:
    """Between two stations of a line: the height at which a cable goes, None where it does not; why not."""

    from_in: float
    to_in: float
    z_in: float | None
    over: bool
    why: str


@dataclass(frozen=True, eq=False)
class Frame:
    """The graph of one building. `stations` and `spans` of each line, left to right."""

    parts: FrameParts
    lines: tuple[Line, ...]
    planes: dict[str, Plane]
    graph: rx.PyGraph[int, Weights]
    nodes: list[Node]
    stations: list[list[tuple[float, int]]]
    spans: list[list[Span]]
    grid: dict[str, dict[tuple[int, int], int]]
    corners: set[tuple[int, int]]
    above: dict[str, str]
    under: dict[str, str]
    lock: threading.Lock = field(default_factory=threading.Lock)

    @cached_property
    def faces(self) -> dict[tuple[str, int], int]:
        """The line of each wall of a room."""
        return {(m.room, m.side): index for index, line in enumerate(self.lines) for m in line.members}

    @cached_property
    def numbers(self) -> dict[Line, int]:
        """The number of each line."""
        return {line: index for index, line in enumerate(self.lines)}

    @cached_property
    def walls_of(self) -> dict[str, frozenset[int]]:
        """The lines that stand round each room."""
        found: dict[str, set[int]] = {}
        for (room, _), index in self.faces.items():
            found.setdefault(room, set()).add(index)
        return {room: frozenset(own) for room, own in found.items()}

    @cached_property
    def heights(self) -> dict[int, Plane]:
        """The planes by their height, in sixteenths over the main floor."""
        return {round(plane.z_in / SIXTEENTH): plane for plane in self.planes.values()}

    @cached_property
    def highest_hole_in(self) -> float:
        """The highest of its hole lines, over the main floor."""
        return max((self.hole_in(line) for line in self.lines), default=0.0)

    @cached_property
    def rooms(self) -> dict[str, FrameRoom]:
        """The rooms of the building, by id."""
        return {room.id: room for room in self.parts.rooms}

    def open_spot(self, node: Box | Panel) -> Point:
        """Where something stands that is in no framed wall."""
        room = self.rooms[node.room or ""]
        if node.side is not None and node.at_in is not None:
            return walls_round(room.id, room.corners)[node.side].at(node.at_in)
        return (node.x_in or 0.0, node.y_in or 0.0)

    def planes_at(self, level: str) -> list[tuple[str, Plane]]:
        """The joists over and under the rooms of a level."""
        found = (("over", self.above.get(level)), ("under", self.under.get(level)))
        return [(rise, self.planes[plane]) for rise, plane in found if plane is not None]

    def beside(self, plane: Plane, at: Point) -> list[int]:
        """The nodes of a plane's grid that a cable gets to straight from a point."""
        return beside(plane, self.grid[plane.level.id], at)

    def beyond(self, plane: Plane, rise: str, at: Point) -> tuple[int, Line, Plane] | None:
        """The wall in line with a point on the other side of a plane, by its number, and the plane beyond it."""
        for index, line, further in self._further[plane.level.id, rise]:
            off = at[0] * line.across[0] + at[1] * line.across[1] - line.centre
            if abs(off) < line.depth_in / 2 + 1 and line.from_in < line.place(at) < line.to_in:
                return index, line, further
        return None

    @cached_property
    def _further(self) -> dict[tuple[str, str], list[tuple[int, Line, Plane]]]:
        """The framed walls beyond each plane, over and under, each with the plane beyond it."""
        return {(plane, rise): self._beyond(plane, rise) for plane in self.planes for rise in ("over", "under")}

    def _beyond(self, plane: str, rise: str) -> list[tuple[int, Line, Plane]]:
        own, there = (self.under, self.above) if rise == "over" else (self.above, self.under)
        return [
            (index, line, self.planes[further])
            for index, line in enumerate(self.lines)
            if line.studded and own.get(line.level.id) == plane and (further := there.get(line.level.id)) is not None
        ]

    def plane_dollars(self, plane: Plane, a: Point, b: Point) -> float:
        """What a piece in the joists costs, square from a to b."""
        return plane_dollars(plane, self.parts.prices, a, b)

    def hole_in(self, line: Line) -> float:
        """The hole line of a line, over the main floor."""
        return line.level.floor_in + self.parts.hole_line_in

    def span_at(self, line: int, t: float) -> int:
        """The number of the span in which a place of a line lies; the outer ones go on beyond the ends."""
        marks = [mark for mark, _ in self.stations[line]]
        return min(max(bisect_right(marks, t) - 1, 0), len(marks) - 2)


def weights(dollars: float, rise: str = "", wall: bool = False) -> Weights:
    """What a piece costs in the eyes of each school. rise: over or under, for a piece that leaves the wall."""
    return (
        dollars,
        dollars + (UNWILLING if rise else 0.0),
        dollars * (4 if wall else 1) + (UNWILLING if rise == "under" else 0.0),
        dollars * (4 if wall else 1) + (UNWILLING if rise == "over" else 0.0),
    )


def span_dollars(line: Line, span: Span, prices: Prices, a: float, b: float, z: float) -> float | None:
    """What a level piece within a span costs, from a to b at the span's height, with the climb from z and back."""
    if span.z_in is None:
        return None
    length = abs(b - a) + 2 * abs(span.z_in - z)
    work = Work(
        length_in=length,
        surface_in=0.0 if line.studded else length,
        studs=len(line.bored(a, b, span.z_in - line.level.floor_in)),
        headers=int(span.over),
    )
    return prices.dollars(work) + (AVOIDED if span.why else 0.0)


def plane_dollars(plane: Plane, prices: Prices, a: Point, b: Point) -> float:
    """What a piece in the joists costs, square from a to b."""
    return prices.bored(flat(a, b), plane.joists(a, b)) + (5 * UNWILLING if plane.damp else 0.0)


def riser_work(plane: Plane, line: Line | None, t: float, z: float) -> Work | None:
    """What it takes from a height in a wall, or in the open of a room, to the joists; None where something stands in
    the way."""
    work = Work(length_in=abs(plane.z_in - z), trips=0.5 if plane.place != "ceiling_joists" else 0.0)
    if line is None:
        return work
    floor = line.level.floor_in
    work.surface_in = 0.0 if line.studded else work.length_in
    foot, top = sorted((z - floor, min(max(plane.z_in - floor, 0.0), line.level.height_in)))
    if line.stopped_upright(t, foot, top) is not None:
        return None
    work.plates = 1
    shut = line.shut_between(t - 1, t + 1)
    if shut == "foamed":
        return None
    work.fished = int(shut == "closed")
    return work


def beside(plane: Plane, grid: Mapping[tuple[int, int], int], at: Point) -> list[int]:
    """The nodes of a plane's grid round a point that a cable gets to straight from it, first east or west."""
    found: list[int] = []
    for i in around(plane.xs, at[0]):
        for j in around(plane.ys, at[1]):
            there = (plane.xs[i], plane.ys[j])
            if plane.may(at, (there[0], at[1])) and plane.may((there[0], at[1]), there):
                found.append(grid[i, j])
    return found
