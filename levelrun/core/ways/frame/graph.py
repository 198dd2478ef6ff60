"""The frame of one building as a graph: stations along its walls, a grid in its joists, what joins them.

Stations are where something can happen along a wall: its ends, corners, the bays beside an opening or a pipe.
Between two stations a cable goes through the studs at the hole line, over a header or under a sill. From a station it
rises to the joists over it or drops to those under it. Shortest ways are found by rustworkx (Dijkstra).
"""

from __future__ import annotations

import threading
from bisect import bisect_right
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import pairwise
from typing import get_args

import rustworkx as rx

from levelrun.core.job import Box, Level, Panel, Room
from levelrun.core.kept import kept_hash
from levelrun.core.part import School
from levelrun.core.site.faces import LevelParts
from levelrun.core.site.geometry import Point, walls_of
from levelrun.core.ways.frame.lines import BESIDE_IN, Line, Stop, lines_of
from levelrun.core.ways.frame.meetings import meetings
from levelrun.core.ways.frame.planes import Plane, around, below, flat, planes_of
from levelrun.core.ways.frame.prices import Prices, Work

SCHOOLS: tuple[str, ...] = get_args(School)
UNWILLING = 200.0  # dollars that a way costs more in the eyes of another school, so that it is taken last
AVOIDED = 100.0  # dollars for a wall that is to be left alone
CLEAR_IN = 1.5  # from the middle of a hole to what it passes over or under
NEAR_IN = 24.0  # two planes no farther apart than this are passed from one to the other
Weights = tuple[float, float, float, float]


@dataclass(frozen=True, kw_only=True)
class FrameParts:
    """What a frame is made from."""

    levels: tuple[LevelParts, ...]
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
    def highest_hole_in(self) -> float:
        """The highest of its hole lines, over the main floor."""
        return max((self.hole_in(line) for line in self.lines), default=0.0)

    @cached_property
    def rooms(self) -> dict[str, Room]:
        """The rooms of the building, by id."""
        return {room.id: room for parts in self.parts.levels for room in parts.rooms}

    def open_spot(self, node: Box | Panel) -> Point:
        """Where something stands that is in no framed wall."""
        room = self.rooms[node.room or ""]
        if node.side is not None and node.at_in is not None:
            return walls_of(room)[node.side].at(node.at_in)
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
        own = self.under if rise == "over" else self.above
        there = (self.above if rise == "over" else self.under).get
        for index, line in enumerate(self.lines):
            if own.get(line.level.id) != plane.level.id or not line.studded:
                continue
            off = at[0] * line.across[0] + at[1] * line.across[1] - line.centre
            further = there(line.level.id)
            if (
                abs(off) < line.depth_in / 2 + 1
                and line.from_in < line.place(at) < line.to_in
                and further is not None
            ):
                return index, line, self.planes[further]
        return None

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


def frame_of(parts: FrameParts) -> Frame:
    """The graph of a building, without its boxes."""
    return _Builder(parts).built()


def weights(dollars: float, rise: str = "", wall: bool = False) -> Weights:
    """What a piece costs in the eyes of each school. rise: over or under, for a piece that leaves the wall."""
    return (
        dollars,
        dollars + (UNWILLING if rise else 0.0),
        dollars * (4 if wall else 1) + (UNWILLING if rise == "under" else 0.0),
        dollars * (4 if wall else 1) + (UNWILLING if rise == "over" else 0.0),
    )


class _Builder:
    def __init__(self, parts: FrameParts) -> None:
        self.parts, self.prices = parts, parts.prices
        self.levels: list[Level] = [item.level for item in parts.levels]
        self.lines = tuple(line for item in parts.levels for line in lines_of(item))
        rooms = [room for item in parts.levels for room in item.rooms]
        self.planes = planes_of(self.levels, rooms, self.lines)
        self.graph: rx.PyGraph[int, Weights] = rx.PyGraph(multigraph=True)
        self.nodes: list[Node] = []
        self.edges: list[tuple[int, int, Weights]] = []
        self.stations: list[list[tuple[float, int]]] = []
        self.spans: list[list[Span]] = []
        self.grid: dict[str, dict[tuple[int, int], int]] = {}
        self.corners: set[tuple[int, int]] = set()
        self.above = {level.id: level.id for level in self.levels if level.id in self.planes}
        self.under = {
            level.id: carried.id
            for level in self.levels
            if (carried := below(level, self.levels)) is not None and carried.id in self.planes
        }

    def built(self) -> Frame:
        for plane in self.planes.values():
            self._grid(plane)
        self._between_planes()
        meets = meetings(self.parts.levels, self.lines)
        for index, line in enumerate(self.lines):
            self._stations(
                index, line, [t for a, t, _, _ in meets if a == index] + [t for _, _, b, t in meets if b == index]
            )
        for a, at, b, bt in meets:
            self._corner(a, at, b, bt)
        self.graph.add_nodes_from(range(len(self.nodes)))
        self.graph.add_edges_from(self.edges)
        return Frame(
            parts=self.parts, lines=self.lines, planes=self.planes, graph=self.graph, nodes=self.nodes,
            stations=self.stations, spans=self.spans, grid=self.grid, corners=self.corners, above=self.above,
            under=self.under,
        )  # fmt: skip

    def _node(self, node: Node) -> int:
        self.nodes.append(node)
        return len(self.nodes) - 1

    def _grid(self, plane: Plane) -> None:
        own = {
            (i, j): self._node(Node(x, y, plane.z_in, plane=plane.level.id))
            for i, x in enumerate(plane.xs)
            for j, y in enumerate(plane.ys)
        }
        self.grid[plane.level.id] = own
        for (i, j), node in own.items():
            for other in (own.get((i + 1, j)), own.get((i, j + 1))):
                if other is not None:
                    a, b = self.nodes[node], self.nodes[other]
                    if plane.may((a.x, a.y), (b.x, b.y)):
                        self.edges.append(
                            (node, other, weights(plane_dollars(plane, self.prices, (a.x, a.y), (b.x, b.y))))
                        )

    def _between_planes(self) -> None:
        """Ceilings at nearly one height, as of a house and the garage beside it, go over into each other."""
        names = list(self.planes)
        for n, first in enumerate(names):
            for second in names[n + 1 :]:
                if abs(self.planes[first].z_in - self.planes[second].z_in) > NEAR_IN:
                    continue
                for a in self.grid[first].values():
                    near = min(self.grid[second].values(), key=lambda b: self._gap(a, b), default=None)
                    if near is not None and self._gap(a, near) <= NEAR_IN:
                        work = Work(
                            length_in=self._gap(a, near) + abs(self.nodes[a].z - self.nodes[near].z), plates=1
                        )
                        self.edges.append((a, near, weights(self.prices.dollars(work))))

    def _gap(self, a: int, b: int) -> float:
        return flat((self.nodes[a].x, self.nodes[a].y), (self.nodes[b].x, self.nodes[b].y))

    def _stations(self, index: int, line: Line, meets: Sequence[float]) -> None:
        hole = self.parts.hole_line_in
        marks = [line.from_in, line.to_in, *meets]
        blocked = _merged([s for s in line.across_stops if s.foot_in - CLEAR_IN < hole < s.top_in + CLEAR_IN])
        for stop in blocked:
            marks += [stop.from_in - BESIDE_IN, stop.to_in + BESIDE_IN]
        low, high = min(line.from_in, *meets, line.from_in), max(line.to_in, *meets, line.to_in)
        for shut in line.shut:
            marks += [shut.from_in, shut.to_in]
        kept: list[float] = sorted(set(meets))  # where two walls meet is a station as it is, to the sixteenth
        for mark in sorted(min(max(mark, low), high) for mark in marks):
            if all(abs(mark - other) > CLEAR_IN for other in kept):
                kept.append(mark)
        kept.sort()
        if len(kept) == 1:
            kept.append(kept[0] + CLEAR_IN)
        own: list[tuple[float, int]] = []
        floor = line.level.floor_in
        for t in kept:
            x, y = line.point(t)
            own.append((t, self._node(Node(x, y, floor + hole, line=index, t=t))))
            self._risers(line, t, own[-1][1])
        self.stations.append(own)
        spans: list[Span] = []
        for (a, first), (b, second) in pairwise(own):
            span = _span(line, a, b, hole, blocked)
            spans.append(span)
            dollars = span_dollars(line, span, self.prices, a, b, floor + hole)
            if dollars is not None:
                self.edges.append((first, second, weights(dollars, wall=True)))
        self.spans.append(spans)

    def _risers(self, line: Line, t: float, node: int) -> None:
        at = line.point(t)
        for rise, name in (("over", self.above.get(line.level.id)), ("under", self.under.get(line.level.id))):
            if name is None:
                continue
            plane = self.planes[name]
            work = riser_work(plane, line, t, self.nodes[node].z)
            if work is None:
                continue
            up = self.prices.dollars(work)
            for target in beside(plane, self.grid[name], at):
                there = (self.nodes[target].x, self.nodes[target].y)
                cost = weights(up + plane_dollars(plane, self.prices, at, there), rise=rise)
                self.edges.append((node, target, cost))

    def _corner(self, a: int, at: float, b: int, bt: float) -> None:
        first = min(self.stations[a], key=lambda s: abs(s[0] - at))[1]
        second = min(self.stations[b], key=lambda s: abs(s[0] - bt))[1]
        if (first, second) in self.corners:
            return
        self.corners |= {(first, second), (second, first)}
        self.edges.append((first, second, weights(self.prices.dollars(Work(corners=1)), wall=True)))


def _merged(stops: Sequence[Stop]) -> list[Stop]:
    """What stands in the way at the hole line, left to right; what leaves no bay between it is one."""
    found: list[Stop] = []
    for stop in sorted(stops, key=lambda s: s.from_in):
        last = found[-1] if found else None
        if last is not None and stop.from_in - last.to_in < 2 * (BESIDE_IN + CLEAR_IN):
            found[-1] = Stop(
                last.from_in, max(last.to_in, stop.to_in), min(last.foot_in, stop.foot_in),
                max(last.top_in, stop.top_in), last.what,
            )  # fmt: skip
        else:
            found.append(stop)
    return found


def _span(line: Line, a: float, b: float, hole: float, blocked: Sequence[Stop]) -> Span:
    """How a cable goes from one station to the next: at the hole line, over what stands there, under it, or not."""
    floor = line.level.floor_in
    shut = line.shut_between(a, b)
    if shut in ("closed", "foamed"):
        return Span(a, b, None, False, shut)
    stop = next((s for s in blocked if s.from_in < b - 0.01 and a + 0.01 < s.to_in), None)
    if stop is None:
        return Span(a, b, floor + hole, False, shut)
    over, under = stop.top_in + CLEAR_IN, stop.foot_in - CLEAR_IN - 1
    heights = [z for z in (over, under) if 3 <= z <= line.plate_in - 0.75]
    clear = [
        z
        for z in heights
        if not any(s.foot_in < z < s.top_in and s.from_in < b and a < s.to_in for s in line.across_stops)
    ]
    if not clear:
        return Span(a, b, None, False, f"{stop.what.replace('_', ' ')} without room over it")
    return Span(a, b, floor + min(clear, key=lambda z: abs(z - hole)), True, shut)


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
    work = Work(length_in=flat(a, b), joists=plane.joists(a, b))
    return prices.dollars(work) + (5 * UNWILLING if plane.damp else 0.0)


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
