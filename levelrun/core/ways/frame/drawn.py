"""Ways through the frame as they are drawn: on the plan of a level, and on the unrolled walls of a room."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.site.geometry import Point
from levelrun.core.ways.drilling import Drilled
from levelrun.core.ways.frame.found import Found
from levelrun.core.ways.frame.graph import Frame
from levelrun.core.ways.frame.lines import Line, Member, on_face
from levelrun.core.ways.frame.route import Piece

LANE_IN = 3.0  # cables that lie in one wall or one bay are drawn so far apart, so that three read as three
NEAR_IN = 4.0
Lanes = dict[tuple[str, bool, float], list[tuple[float, float, int]]]  # from, to, and the lane that is taken


@dataclass(frozen=True, kw_only=True)
class PlanCable:
    """A stretch of a derived way on the plan of a level; `at` is wall, over (in the joists over it) or under."""

    way: str
    circuit: str
    box: str
    wire: str
    at: str
    points: tuple[Point, ...]


@dataclass(frozen=True, kw_only=True)
class RoundCable:
    """A stretch of a derived way on the unrolled walls of a room: x along them, y over the floor."""

    way: str
    circuit: str
    box: str
    wire: str
    name: str
    points: tuple[Point, ...]


@dataclass(frozen=True, kw_only=True)
class RoundHole:
    """A hole in a stud of the unrolled walls, with the cables through it."""

    x: float
    y: float
    bit_in: float
    count: int
    plate: bool


def plan_cables(found: Iterable[Found], level: str) -> list[PlanCable]:
    """Every derived way on one level, those that lie side by side drawn side by side."""
    lanes: Lanes = {}
    made: list[PlanCable] = []
    for one in found:
        if one.frame is None or one.route is None:
            continue
        made += _stretches(one, one.frame, level, lanes)
    return made


def _stretches(one: Found, frame: Frame, level: str, lanes: Lanes) -> Iterator[PlanCable]:
    assert one.route is not None
    points: list[Point] = []
    kind = ""
    for piece in one.route.pieces:
        at = _at(frame, piece, level)
        if piece.upright:
            continue
        if at != kind and points:
            yield _on_plan(one, kind, points)
            points = []
        kind = at
        if not at:
            continue
        a, b = _laned(piece, at, lanes)
        points += [a, b] if not points or points[-1] != a else [b]
    if points and kind:
        yield _on_plan(one, kind, points)


def _on_plan(one: Found, at: str, points: Sequence[Point]) -> PlanCable:
    return PlanCable(way=one.ident, circuit=one.circuit, box=one.box, wire=one.wire, at=at, points=tuple(points))


def _at(frame: Frame, piece: Piece, level: str) -> str:
    """Where a piece shows on the plan of a level: in its walls, over it, under it, or not."""
    if piece.line >= 0:
        return "wall" if frame.lines[piece.line].level.id == level else ""
    if piece.plane:
        return "over" if piece.plane == level else "under" if frame.under.get(level) == piece.plane else ""
    return ""


def _laned(piece: Piece, at: str, lanes: Lanes) -> tuple[Point, Point]:
    """A piece moved aside so far that it lies on none that was drawn before."""
    (ax, ay, _), (bx, by, _) = piece.a, piece.b
    flat = abs(bx - ax) >= abs(by - ay)
    low, high = sorted((ax, bx) if flat else (ay, by))
    key = (at, flat, round((ay if flat else ax) / NEAR_IN))
    taken = lanes.setdefault(key, [])
    lane = 0
    while any(number == lane and a < high - 1 and low + 1 < b for a, b, number in taken):
        lane += 1
    taken.append((low, high, lane))
    off = LANE_IN * ((lane + 1) // 2) * (1 if lane % 2 else -1)
    return ((ax, ay + off), (bx, by + off)) if flat else ((ax + off, ay), (bx + off, by))


def round_cables(found: Iterable[Found], frame: Frame, room: str, starts: Sequence[float]) -> list[RoundCable]:
    """Every derived way in the walls of a room, unrolled. `starts`: where each wall begins."""
    made: list[RoundCable] = []
    here, faces = frame.walls_of.get(room, frozenset()), _faces(frame, room)
    for one in found:
        if one.frame is not frame or one.route is None or here.isdisjoint(one.route.lines):
            continue
        points: list[Point] = []
        side = -1
        for piece in one.route.pieces:
            member = _member(frame, piece, faces)
            if member is None or member.side != side:
                if len(points) > 1:
                    made.append(_round(one, points))
                points, side = [], member.side if member else -1
            if member is None:
                continue
            line = frame.lines[piece.line]
            ends = [_unrolled(line, member, spot, starts[member.side]) for spot in (piece.a, piece.b)]
            points += ends if not points else [ends[1]]
        if len(points) > 1:
            made.append(_round(one, points))
    return made


def _round(one: Found, points: Sequence[Point]) -> RoundCable:
    name = one.way.name if one.way is not None else one.circuit
    return RoundCable(way=one.ident, circuit=one.circuit, box=one.box, wire=one.wire, name=name, points=tuple(points))


def _faces(frame: Frame, room: str) -> dict[int, list[Member]]:
    """The faces that a room sees of the walls round it, by line."""
    lines = sorted(frame.walls_of.get(room, frozenset()))
    return {index: [m for m in frame.lines[index].members if m.room == room] for index in lines}


def _member(frame: Frame, piece: Piece, faces: Mapping[int, Sequence[Member]]) -> Member | None:
    """Of the faces of a room the one behind which a piece lies."""
    own = faces.get(piece.line)
    if own is None:
        return None
    line = frame.lines[piece.line]
    t = (line.place(piece.a[:2]) + line.place(piece.b[:2])) / 2
    return next((m for m in own if m.from_in - 6 <= t <= m.to_in + 6), None)


def _unrolled(line: Line, member: Member, spot: tuple[float, float, float], start: float) -> Point:
    t = min(max(line.place(spot[:2]), member.from_in), member.to_in)
    over = min(max(spot[2] - line.level.floor_in, 0.0), line.level.height_in)
    return start + on_face(member, t), over


def round_staples(
    one: Found, held: Sequence[Sequence[float]], frame: Frame, room: str, starts: Sequence[float]
) -> list[Point]:
    """Where a way is stapled in the walls of a room, unrolled. `held`: for each of its legs, inches along it."""
    made: list[Point] = []
    if one.frame is not frame or one.route is None:
        return made
    faces = _faces(frame, room)
    for own, spots in zip(one.pieces, held, strict=True):
        walked = 0.0
        for index in own:
            piece = one.route.pieces[index]
            member = _member(frame, piece, faces)
            for at in spots:
                part = (at - walked) / piece.length_in
                if member is not None and 0 <= part < 1 + 1e-9:
                    spot = tuple(a + (b - a) * part for a, b in zip(piece.a, piece.b, strict=True))
                    line = frame.lines[piece.line]
                    made.append(_unrolled(line, member, (spot[0], spot[1], spot[2]), starts[member.side]))
            walked += piece.length_in
    return made


def round_holes(walls: Mapping[Line, Drilled], frame: Frame, room: str, starts: Sequence[float]) -> list[RoundHole]:
    """The holes in the walls of a room, unrolled."""
    made: list[RoundHole] = []
    for line in frame.lines:
        wall = walls.get(line)
        for member in line.members if wall is not None else ():
            if member.room != room:
                continue
            at: dict[tuple[float, float], list[tuple[float, int, bool]]] = {}
            for hole in wall.holes if wall is not None else ():
                if member.from_in - 1 <= hole.stud.at_in <= member.to_in + 1:
                    key = (hole.stud.at_in, hole.height_in)
                    at.setdefault(key, []).append((hole.bit_in, len(hole.hops), hole.limits.plate_needed))
            for (t, height), holes in at.items():
                for nth, (bit, count, plate) in enumerate(holes):
                    made.append(
                        RoundHole(
                            x=starts[member.side] + on_face(member, t), y=height + 2 * nth * bit, bit_in=bit,
                            count=count, plate=plate,
                        )
                    )  # fmt: skip
    return made
