"""The frame of one building put together: its lines, its planes, the stations and the grid that become its graph."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

import rustworkx as rx

from levelrun.core.job import Room
from levelrun.core.site.faces import LevelParts
from levelrun.core.site.geometry import walls_of
from levelrun.core.ways.frame.graph import (
    CLEAR_IN,
    Frame,
    FrameParts,
    FrameRoom,
    Node,
    Span,
    Weights,
    beside,
    plane_dollars,
    riser_work,
    span_dollars,
    weights,
)  # fmt: skip
from levelrun.core.ways.frame.lines import BESIDE_IN, Line, Stop, lines_of
from levelrun.core.ways.frame.meetings import meetings
from levelrun.core.ways.frame.planes import Plane, below, flat, planes_of
from levelrun.core.ways.frame.prices import Prices, Work

NEAR_IN = 24.0  # two planes no farther apart than this are passed from one to the other


def parts_of(levels: Sequence[LevelParts], hole_line_in: float, prices: Prices) -> FrameParts:
    """What the frame of a building is made from, by its levels with all that stands on them."""
    lines = tuple(line for item in levels for line in lines_of(item))
    rooms = [room for item in levels for room in item.rooms]
    own = tuple(item.level for item in levels)
    return FrameParts(
        levels=own,
        rooms=tuple(FrameRoom(room.id, room.level, room.corners, _closed(room)) for room in rooms),
        lines=lines,
        planes=tuple(planes_of(own, rooms, lines).values()),
        hole_line_in=hole_line_in,
        prices=prices,
    )


def _closed(room: Room) -> tuple[tuple[int, str, str], ...]:
    walls = walls_of(room)
    return tuple((side, room.name, walls[side].name) for side, own in enumerate(room.sides) if own.closed)


def frame_of(parts: FrameParts) -> Frame:
    """The graph of a building, without its boxes."""
    return _Builder(parts).built()


class _Builder:
    def __init__(self, parts: FrameParts) -> None:
        self.parts, self.prices = parts, parts.prices
        self.levels, self.lines = parts.levels, parts.lines
        self.planes = {plane.level.id: plane for plane in parts.planes}
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
        meets = meetings(self.parts.rooms, self.lines)
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
