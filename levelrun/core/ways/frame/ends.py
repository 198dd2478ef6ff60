"""Where a cable leaves a box or panel into the frame: the stations and joists that it gets to, and how."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from levelrun.core.job import Box, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.site.geometry import Point
from levelrun.core.ways.frame.graph import CLEAR_IN, Frame, Weights, riser_work, span_dollars, weights
from levelrun.core.ways.frame.lines import BESIDE_IN, Line, on_line
from levelrun.core.ways.frame.planes import Plane
from levelrun.core.ways.frame.prices import Work

CEILING_IN = 14.0  # what hangs no lower than this under the ceiling, on no wall, is fed from its joists
IN_THE_OPEN = 20.0  # dollars for a cable that drops through the open of a room, where a wall would guard it
Corner = tuple[float, float, float, int]  # x, y, z, and the line in which the piece up to here lies; -1: in none


@dataclass(frozen=True, kw_only=True)
class End:
    """A box or panel in the frame. `low_in` and `high_in`: where it is entered, over the main floor;
    `school`: of a place that a way is drawn through, how it is gone to."""

    node: str
    name: str
    level: str
    x: float
    y: float
    low_in: float
    high_in: float
    line: int
    t: float
    open: bool
    school: str = ""

    __hash__ = kept_hash

    def entered(self, z: float) -> float:
        """The height at which it is entered from a height."""
        return min(max(z, self.low_in), self.high_in)

    @property
    def at(self) -> Point:
        """Its place in the plan."""
        return (self.x, self.y)


@dataclass(frozen=True)
class Reach:
    """A node that an end gets to: what it costs, the corners on the way there, the end itself first."""

    node: int
    cost: Weights
    corners: tuple[Corner, ...]


def end_of(frame: Frame, node: Box | Panel) -> End:
    """A box or panel in the frame; what stands on no wall, or on an open side, stands in the open of its room."""
    tall = node.tall_in if isinstance(node, Panel) else 0.0
    level = frame.rooms[node.room or ""].level
    home = frame.faces.get((node.room or "", node.side if node.side is not None else -1))
    if home is not None and node.at_in is not None:
        line = frame.lines[home]
        t = on_line(line, node.room or "", node.side or 0, node.at_in)
        x, y = line.point(t)
        return End(
            node=node.id, name=node.name, level=level, x=x, y=y, low_in=node.height_in,
            high_in=node.height_in + tall, line=home, t=t, open=False,
        )  # fmt: skip
    x, y = frame.open_spot(node)
    return End(
        node=node.id, name=node.name, level=level, x=x, y=y, low_in=node.height_in, high_in=node.height_in + tall,
        line=-1, t=0.0, open=True,
    )  # fmt: skip


@lru_cache(maxsize=8192)
def reaches(frame: Frame, end: End) -> list[Reach]:
    """All that an end gets to."""
    along = [] if end.open else _along(frame, end, frame.lines[end.line])
    return [*along, *_upright(frame, end)]


def turning(line: Line, t: float, z: float, to: float) -> list[float]:
    """Where along its wall an upright piece from height z to height `to` stands: at t; beside what stands in the way
    there, left and right."""
    stop = line.stopped_upright(t, z - line.level.floor_in, to - line.level.floor_in)
    if stop is None:
        return [t]
    found = (stop.from_in - BESIDE_IN, stop.to_in + BESIDE_IN)
    return [
        s
        for s in found
        if line.from_in < s < line.to_in
        and line.stopped_upright(s, z - line.level.floor_in, to - line.level.floor_in) is None
    ]


def _along(frame: Frame, end: End, line: Line) -> list[Reach]:
    """Along the wall to the stations on both sides."""
    number = frame.span_at(end.line, end.t)
    span, own = frame.spans[end.line][number], frame.stations[end.line]
    if span.z_in is None:
        return []
    found: list[Reach] = []
    hole, prices = frame.hole_in(line), frame.parts.prices
    z = end.entered(span.z_in)
    for aside in turning(line, end.t, z, span.z_in):
        for t, node in (own[number], own[number + 1]):
            dollars = span_dollars(line, span, prices, aside, t, span.z_in)
            if dollars is None:
                continue
            climb = abs(span.z_in - z) + abs(span.z_in - hole) + abs(aside - end.t)
            extra = prices.dollars(Work(length_in=climb))
            corners = ((end.t, z), (aside, z), (aside, span.z_in), (t, span.z_in), (t, hole))
            found.append(
                Reach(
                    node,
                    weights(dollars + extra, wall=True),
                    tuple((*line.point(s), h, end.line) for s, h in corners),
                )
            )
    return found


@dataclass(frozen=True)
class Climb:
    """The way upright from an end to the joists of a plane, through the walls that stand over or under its own."""

    rise: str
    plane: Plane
    work: Work
    corners: tuple[Corner, ...]


@lru_cache(maxsize=8192)
def climbs(frame: Frame, end: End) -> tuple[Climb, ...]:
    """Every plane of joists that an end gets to straight up or down; from a wall on through those in line with it."""
    found: list[Climb] = []
    for rise, plane in frame.planes_at(end.level):
        z = end.entered(plane.z_in)
        line = None if end.open else frame.lines[end.line]
        work = riser_work(plane, line, end.t, z)
        corners: tuple[Corner, ...] = ((*end.at, z, end.line), (*end.at, plane.z_in, end.line))
        while work is not None:
            found.append(Climb(rise, plane, work, corners))
            beyond = None if end.open else frame.beyond(plane, rise, end.at)
            if beyond is None:
                break
            index, line, further = beyond
            more = riser_work(further, line, line.place(end.at), plane.z_in)
            if more is None:
                break
            work = Work(
                length_in=work.length_in + more.length_in, plates=work.plates + 2, trips=work.trips + more.trips,
                fished=work.fished + more.fished, surface_in=work.surface_in + more.surface_in,
            )  # fmt: skip
            plane, corners = further, (*corners, (*end.at, further.z_in, index))
    return tuple(found)


def _upright(frame: Frame, end: End) -> list[Reach]:
    """Up or down in its own bay to the joists, and from them to the nodes of their grid beside it."""
    found: list[Reach] = []
    for climb in climbs(frame, end):
        plane = climb.plane
        hung = end.open and _hung(plane, end)
        dollars = frame.parts.prices.dollars(climb.work) + (IN_THE_OPEN if end.open and not hung else 0.0)
        for node in frame.beside(plane, end.at):
            there = (frame.nodes[node].x, frame.nodes[node].y)
            cost = weights(dollars + frame.plane_dollars(plane, end.at, there), rise="" if hung else climb.rise)
            found.append(Reach(node, cost, (*climb.corners, *_square(plane, end.at, there))))
    return found


def _square(plane: Plane, a: Point, b: Point) -> tuple[Corner, ...]:
    return ((b[0], a[1], plane.z_in, -1), (b[0], b[1], plane.z_in, -1))


def straight(frame: Frame, a: End, b: End) -> list[tuple[Weights, tuple[Corner, ...]]]:
    """Ways from one end to the other that need no station between: along one wall, or by one plane of joists."""
    return [*_in_one_wall(frame, a, b), *_by_one_plane(frame, a, b)]


def _in_one_wall(frame: Frame, a: End, b: End) -> list[tuple[Weights, tuple[Corner, ...]]]:
    if a.open or b.open or a.line != b.line:
        return []
    line = frame.lines[a.line]
    number = frame.span_at(a.line, a.t)
    if number != frame.span_at(b.line, b.t):
        return []
    span = frame.spans[a.line][number]
    if span.z_in is None:
        return []
    found = []
    level = span.z_in
    za, zb = a.entered(level), b.entered(level)
    if not line.bored(a.t, b.t, (za + zb) / 2 - line.level.floor_in):
        level = za  # in one bay: straight from one to the other
    elif not span.over and min(za, zb) > level:
        level = min(za, zb) if clear_at(line, a.t, b.t, min(za, zb)) else level
    for ta in turning(line, a.t, za, level):
        for tb in turning(line, b.t, zb, level):
            dollars = span_dollars(line, span, frame.parts.prices, ta, tb, span.z_in)
            climb = abs(za - level) + abs(zb - level) + abs(ta - a.t) + abs(tb - b.t)
            extra = frame.parts.prices.dollars(Work(length_in=climb))
            places = ((a.t, za), (ta, za), (ta, level), (tb, level), (tb, zb), (b.t, zb))
            found.append(
                (weights((dollars or 0.0) + extra, wall=True), tuple((*line.point(s), h, a.line) for s, h in places))
            )
    return found


def clear_at(line: Line, t0: float, t1: float, z: float) -> bool:
    """Whether a wall may be bored level at a height over the main floor, from one place to another."""
    low, high, over = min(t0, t1), max(t0, t1), z - line.level.floor_in
    return (
        line.studded
        and over < line.plate_in - CLEAR_IN
        and not any(
            s.foot_in - CLEAR_IN < over < s.top_in + CLEAR_IN and s.from_in < high and low < s.to_in
            for s in line.across_stops
        )
    )


def _by_one_plane(frame: Frame, a: End, b: End) -> list[tuple[Weights, tuple[Corner, ...]]]:
    found: list[tuple[Weights, tuple[Corner, ...]]] = []
    for here in climbs(frame, a):
        for there in climbs(frame, b):
            plane = here.plane
            corners = square_in(plane, a.at, b.at) if there.plane is plane else None
            if corners is None:
                continue
            hung = any(end.open and _hung(plane, end) for end in (a, b))
            dollars = sum(frame.parts.prices.dollars(climb.work) for climb in (here, there))
            dollars += sum(IN_THE_OPEN for end in (a, b) if end.open and not _hung(plane, end))
            for p, q in pairwise((a.at, *corners, b.at)):
                dollars += frame.plane_dollars(plane, p, q)
            rise = here.rise if here.rise == there.rise and not hung else ""
            level = [(*p, plane.z_in, -1) for p in (*corners, b.at)]
            found.append((weights(dollars, rise=rise), (*here.corners, *level, *back(there.corners))))
    return found


def back(corners: tuple[Corner, ...]) -> tuple[Corner, ...]:
    """Corners walked the other way, the first of them left out: each piece keeps the wall that it lies in."""
    return tuple((*corners[i][:3], corners[i + 1][3]) for i in range(len(corners) - 2, -1, -1))


def _hung(plane: Plane, end: End) -> bool:
    """Whether an end hangs from these joists, so that any school goes by them."""
    return abs(plane.z_in - end.high_in) <= CEILING_IN + plane.level.joist_depth_in


def square_in(plane: Plane, a: Point, b: Point) -> list[Point] | None:
    """The corner of the way square across a plane from a to b, along its joists first where that may be; none where
    it is straight. None where what is closed, or joists that may not be crossed, stand in the way."""
    if min(abs(a[0] - b[0]), abs(a[1] - b[1])) < 0.05:
        return [] if plane.may(a, b) else None
    corners = [(a[0], b[1]), (b[0], a[1])]
    if plane.level.joists == "x":
        corners.reverse()
    for corner in corners:
        if plane.may(a, corner) and plane.may(corner, b):
            return [corner]
    return None
