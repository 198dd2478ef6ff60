"""Framed walls of a level: faces that back onto each other, or go on behind a partition, as one line of studs."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import rustworkx as rx

from levelrun.core.job import Fixture, Level, Room
from levelrun.core.kept import kept_hash
from levelrun.core.site.faces import Face, LevelParts, faces
from levelrun.core.site.framing import HEADER_IN, STUD_IN, STUDDED, Stud, depth_of
from levelrun.core.site.geometry import Point
from levelrun.core.site.parts import IN_WALL
from levelrun.core.site.sharing import MOST_GAP_IN

PLATES_IN = 3.0  # the double plate on top of a wall; one plate at its foot
SILL_IN = 1.5
BESIDE_IN = 2 * STUD_IN + 0.5  # king and trimmer at each side of an opening, and the edge of a cable beside them
WET_TO_IN = 84.0  # a shower's wall is left alone up to where its arm comes out, common practice, no source
VALVE_IN = 6.0  # so far round the valve of a shower nothing is drilled, common practice, no source
HOT_IN = 6.0  # so far beside a hot flue no cable lies, common practice, no source: the flue's own label decides
ROOM_IN = 1.5  # of a wall's depth that a cable needs beside what stands in it


@dataclass(frozen=True)
class Stop:
    """What stands in the way in a wall: from where to where along it and up it, inches; what it is called.
    `upright_only`: cable crosses it square and does not go along it, as a bay that takes return air (300.22(C))."""

    from_in: float
    to_in: float
    foot_in: float
    top_in: float
    what: str
    upright_only: bool = False

    def at(self, t: float, z: float) -> bool:
        """Whether it is in the way at a place in the wall."""
        return self.from_in < t < self.to_in and self.foot_in < z < self.top_in


@dataclass(frozen=True)
class Shut:
    """A stretch of a wall that is said to be closed (cable is only fished), foamed and closed (nothing goes in), or
    to be left alone (cables go round it where they can): `how` is closed, foamed or avoided; `why` in words."""

    from_in: float
    to_in: float
    how: str
    why: str


@dataclass(frozen=True)
class Member:
    """A face of the line: wall `side` of a room, over `from_in` to `to_in` of the line; `turned`: it reads the other
    way round."""

    room: str
    side: int
    from_in: float
    to_in: float
    turned: bool
    depth_in: float


@dataclass(frozen=True, kw_only=True)
class Line:
    """One framed wall. `t` along `along`, inches from the foot of the plan's origin; `centre` is its middle, out
    along `across`. Heights are over the level's floor. `shut`: spans of it that are closed or to be left alone."""

    level: Level
    along: Point
    across: Point
    centre: float
    from_in: float
    to_in: float
    stud: str
    depth_in: float
    bearing: bool
    members: tuple[Member, ...]
    studs: tuple[Stud, ...]
    stops: tuple[Stop, ...]
    shut: tuple[Shut, ...]

    __hash__ = kept_hash

    @property
    def studded(self) -> bool:
        """Whether it is framed, so that cable lies in it; block and log are walked on their surface."""
        return self.stud in STUDDED

    def point(self, t: float) -> Point:
        """A place along its middle, in the structure's plan."""
        return (
            self.along[0] * t + self.across[0] * self.centre,
            self.along[1] * t + self.across[1] * self.centre,
        )

    def place(self, point: Point) -> float:
        """How far along it a point of the plan lies."""
        return point[0] * self.along[0] + point[1] * self.along[1]

    def bored(self, t0: float, t1: float, z: float) -> list[Stud]:
        """The studs that a level cable at height z goes through between two places."""
        if not self.studded:
            return []
        low, high = (t0, t1) if t0 <= t1 else (t1, t0)
        between = self.studs[bisect_right(self._marks, low) : bisect_left(self._marks, high)]
        return [stud for stud in between if stud.foot_in < z < stud.top_in]

    @cached_property
    def _marks(self) -> list[float]:
        """Where its studs stand, as they are sorted."""
        return [stud.at_in for stud in self.studs]

    def shut_between(self, t0: float, t1: float) -> str:
        """How a stretch is shut: foamed, closed or avoided, the hardest first; empty where it is open."""
        low, high = min(t0, t1), max(t0, t1)
        said = {item.how for item in self.shut if item.from_in < high - 1 and low + 1 < item.to_in}
        return next((how for how in ("foamed", "closed", "avoided") if how in said), "")

    def stopped_upright(self, t: float, z0: float, z1: float) -> Stop | None:
        """What stands in the way of an upright cable at t between two heights."""
        low, high = min(z0, z1), max(z0, z1)
        return next(
            (s for s in self.stops if s.from_in < t < s.to_in and s.foot_in < high - 0.01 and low + 0.01 < s.top_in),
            None,
        )

    def depth_at(self, t: float) -> float:
        """The depth of its framing at a place, inches: the least of its faces there."""
        near = [m.depth_in for m in self.members if m.from_in - 6 <= t <= m.to_in + 6]
        return min(near, default=self.depth_in)

    @cached_property
    def across_stops(self) -> tuple[Stop, ...]:
        """What stands in the way of a level cable."""
        return tuple(stop for stop in self.stops if not stop.upright_only)

    @cached_property
    def plate_in(self) -> float:
        """Underside of its top plates."""
        return self.level.height_in - PLATES_IN

    def member_of(self, room: str, side: int) -> Member:
        """The face that a room sees of it. Raises StopIteration."""
        return next(item for item in self.members if (item.room, item.side) == (room, side))


def lines_of(parts: LevelParts) -> tuple[Line, ...]:
    """Every framed wall of a level, by the face that comes first in it. Open sides are no walls."""
    found = [face for room in parts.rooms for face in faces(parts)[room.id] if face.side.stud != "open"]
    rooms = {room.id: room for room in parts.rooms}
    return tuple(_line(parts.level, group, rooms) for group in _groups(found))


def _groups(found: Sequence[Face]) -> list[list[Face]]:
    """Faces in one wall: those that back onto each other, and those that go on in one line behind a partition."""
    graph: rx.PyGraph[int, None] = rx.PyGraph()
    graph.add_nodes_from(range(len(found)))
    index = {(face.wall.room, face.wall.index): i for i, face in enumerate(found)}
    for i, face in enumerate(found):
        for mate in face.mates:
            if (mate.room, mate.side) in index:
                graph.add_edge(i, index[mate.room, mate.side], None)
    by_plane: dict[tuple[int, int, int], list[int]] = {}
    for i, face in enumerate(found):
        off = face.wall.x0 * face.wall.out[0] + face.wall.y0 * face.wall.out[1]
        by_plane.setdefault((round(face.wall.out[0] * 100), round(face.wall.out[1] * 100), round(off)), []).append(i)
    for same in by_plane.values():
        same.sort(key=lambda i: _span(found[i])[0])
        for before, after in pairwise(same):
            if _span(found[after])[0] - _span(found[before])[1] <= MOST_GAP_IN:
                graph.add_edge(before, after, None)
    return [[found[i] for i in group] for group in sorted(sorted(same) for same in rx.connected_components(graph))]


def _along(face: Face) -> tuple[Point, bool]:
    """The direction in which a line is read, west to east or south to north, and whether the face is read so too."""
    a = face.wall.along
    turned = a[0] < -1e-9 or (abs(a[0]) <= 1e-9 and a[1] < 0)
    return ((-a[0], -a[1]) if turned else a), turned


def _span(face: Face) -> tuple[float, float]:
    u, _ = _along(face)
    w = face.wall
    ends = (w.x0 * u[0] + w.y0 * u[1], w.x1 * u[0] + w.y1 * u[1])
    return min(ends), max(ends)


def _line(level: Level, group: Sequence[Face], rooms: dict[str, Room]) -> Line:
    u, _ = _along(group[0])
    n = (-u[1], u[0])
    members: list[Member] = []
    studs: list[Stud] = []
    stops: list[Stop] = []
    shut: list[Shut] = []
    centres: list[float] = []
    for face in group:
        w = face.wall
        low, high = _span(face)
        _, turned = _along(face)
        member = Member(w.room, w.index, low, high, turned, depth_of(face.side))
        members.append(member)
        middle = w.at(0.0, face.wall_out / 2)
        centres.append(middle[0] * n[0] + middle[1] * n[1])
        studs += [Stud(_place(member, s.at_in), s.kind, s.foot_in, s.top_in) for s in face.studs]
        stops += _stops(face, member)
        shut += _shut(face, member, rooms[w.room])
    return Line(
        level=level,
        along=u,
        across=n,
        centre=sum(centres) / len(centres),
        from_in=min(m.from_in for m in members),
        to_in=max(m.to_in for m in members),
        stud=group[0].side.stud,
        depth_in=max(depth_of(face.side) for face in group),
        bearing=any(face.side.bearing for face in group) or any(face.outside for face in group),
        members=tuple(members),
        studs=tuple(_once(studs)),
        stops=tuple(dict.fromkeys(stops)),
        shut=tuple(dict.fromkeys(shut)),
    )


def _place(member: Member, at_in: float) -> float:
    """A place on a face, from its left corner as faced, along the line."""
    return member.to_in - at_in if member.turned else member.from_in + at_in


def on_face(member: Member, t: float) -> float:
    """A place along the line as it is read on a face, from its left corner."""
    return member.to_in - t if member.turned else t - member.from_in


def on_line(line: Line, room: str, side: int, at_in: float) -> float:
    """A place on a face along its line."""
    return _place(line.member_of(room, side), at_in)


def _once(found: Sequence[Stud]) -> list[Stud]:
    """Studs seen from both sides once: those within an inch of each other with the same foot are one."""
    kept: list[Stud] = []
    for stud in sorted(found, key=lambda s: (s.at_in, s.foot_in)):
        twin = next(
            (k for k in reversed(kept[-3:]) if abs(k.at_in - stud.at_in) < 1 and k.foot_in == stud.foot_in), None
        )
        if twin is None:
            kept.append(stud)
    return kept


def _stops(face: Face, member: Member) -> Iterator[Stop]:
    for item in face.openings:
        a, b = sorted((_place(member, item.at_in), _place(member, item.to_in)))
        yield Stop(
            a, b, item.sill_in - SILL_IN if item.sill_in > SILL_IN else 0.0, item.head_in + HEADER_IN, item.kind
        )
    for thing in face.fixtures:
        said = _in_the_way(thing, face)
        if said is not None:
            a, b = sorted((_place(member, said[0]), _place(member, said[1])))
            yield Stop(a, b, said[2], said[3], thing.kind, thing.kind == "return_air")


def _in_the_way(item: Fixture, face: Face) -> tuple[float, float, float, float] | None:
    """From where to where, along and up, a thing keeps cable out of the wall that it stands at or in."""
    left, right = item.at_in, item.at_in + item.width_in
    if item.kind in ("tub", "shower"):
        return left, right, 0.0, WET_TO_IN
    if item.kind == "shower_valve":
        middle = (left + right) / 2
        return middle - VALVE_IN, middle + VALVE_IN, item.height_in - VALVE_IN, item.height_in + VALVE_IN
    if item.kind == "fireplace":
        return left, right, 0.0, face.height_in
    if item.kind == "return_air":
        return left, right, item.foot_in, item.height_in
    if item.kind == "flue":
        return left - HOT_IN, right + HOT_IN, item.foot_in, item.height_in
    if item.kind in IN_WALL and depth_of(face.side) - item.depth_in < ROOM_IN:
        return left, right, item.foot_in, item.height_in
    return None


def _shut(face: Face, member: Member, room: Room) -> Iterator[Shut]:
    wall = f"the {face.wall.name} wall of {room.name}"
    if face.side.closed or room.closed:
        how = "foamed" if face.side.insulation == "foam" else "closed"
        words = "is closed over foam" if how == "foamed" else "is closed"
        yield Shut(member.from_in, member.to_in, how, f"{wall} {words}")
    elif face.side.avoid:
        yield Shut(member.from_in, member.to_in, "avoided", f"{wall} is to be left alone")
