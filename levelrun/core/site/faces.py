"""Every wall of a level with all that is known of it: sharing, framing, openings seen from both sides."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

from levelrun.core.job import Fixture, Job, Level, Opening, Room, Side
from levelrun.core.kept import Standing, kept_hash
from levelrun.core.site.framing import Gap, Stud, depth_of, studs
from levelrun.core.site.geometry import Wall, walls_of
from levelrun.core.site.sharing import Mate, mates

FLOOR_BREAKS = ("door", "opening", "garage_door", "glass_door")


@dataclass(frozen=True, kw_only=True)
class Seen:
    """An opening as it looks from one room: `at_in` from that room's left corner; `own` on the room that holds it."""

    id: str
    kind: str
    at_in: float
    width_in: float
    sill_in: float
    head_in: float
    hinge: str
    swings_in: bool
    own: bool
    to_room: str

    @property
    def to_in(self) -> float:
        """Right edge."""
        return self.at_in + self.width_in

    @property
    def passage(self) -> tuple[float, float]:
        """From where to where one walks through at floor level: of a sliding glass door the half that moves."""
        half = (self.at_in + self.to_in) / 2
        if self.kind != "glass_door":
            return self.at_in, self.to_in
        return (self.at_in, half) if self.hinge == "left" else (half, self.to_in)

    @property
    def latch(self) -> str:
        """The side of the opening at which a hand reaches for a switch."""
        return "right" if self.hinge == "left" else "left"


@dataclass(frozen=True, kw_only=True)
class Face:
    """One wall of a room from inside. `outside`: no room of this level stands behind it."""

    wall: Wall
    side: Side
    mates: tuple[Mate, ...]
    openings: tuple[Seen, ...]
    fixtures: tuple[Fixture, ...]
    studs: tuple[Stud, ...]
    height_in: float

    __hash__ = kept_hash

    @property
    def outside(self) -> bool:
        """Whether less than half of it backs onto another room."""
        return sum(mate.to_in - mate.from_in for mate in self.mates) < self.wall.length_in / 2

    @property
    def wall_out(self) -> float:
        """From this stud face to the other: the gap where shared, else the framing's depth."""
        return self.mates[0].gap_in if self.mates else depth_of(self.side)

    @cached_property
    def full_studs(self) -> tuple[Stud, ...]:
        """Studs that stand on the floor plate and reach box height: all but cripples over an opening."""
        return tuple(stud for stud in self.studs if stud.foot_in == 0)


@dataclass(frozen=True)
class LevelParts:
    """One level with what stands on it, as one hashable thing."""

    level: Level
    rooms: tuple[Room, ...]
    openings: tuple[Opening, ...]
    fixtures: tuple[Fixture, ...]

    __hash__ = kept_hash


_parts = Standing[dict[str, LevelParts]](4)


def level_parts(job: Job) -> dict[str, LevelParts]:
    """The parts of each level of a job, by level id. The same ones while none of them changes."""
    return _parts.get(None, (job.structures, job.rooms, job.openings, job.fixtures), lambda: _level_parts(job))


def _level_parts(job: Job) -> dict[str, LevelParts]:
    rooms: dict[str, list[Room]] = {}
    at: dict[str, str] = {}
    for room in job.rooms:
        rooms.setdefault(room.level, []).append(room)
        at[room.id] = room.level
    openings: dict[str, list[Opening]] = {}
    for opening in job.openings:
        openings.setdefault(at[opening.room], []).append(opening)
    fixtures: dict[str, list[Fixture]] = {}
    for fixture in job.fixtures:
        fixtures.setdefault(at[fixture.room], []).append(fixture)
    levels = (level for structure in job.structures for level in structure.levels)
    return {
        level.id: LevelParts(
            level,
            tuple(rooms.get(level.id, ())),
            tuple(openings.get(level.id, ())),
            tuple(fixtures.get(level.id, ())),
        )
        for level in levels
    }


@lru_cache(maxsize=128)
def faces(parts: LevelParts) -> dict[str, tuple[Face, ...]]:
    """The walls of every room of a level, by room id."""
    backing = mates(parts.rooms)
    walls = {(wall.room, wall.index): wall for room in parts.rooms for wall in walls_of(room)}
    seen = _seen(parts.openings, walls, backing)
    found: dict[str, tuple[Face, ...]] = {}
    for room in parts.rooms:
        found[room.id] = tuple(
            _face(parts, walls[room.id, index], side, backing[room.id, index], seen.get((room.id, index), ()), walls)
            for index, side in enumerate(room.sides)
        )
    return found


def _face(
    parts: LevelParts,
    wall: Wall,
    side: Side,
    backing: tuple[Mate, ...],
    seen: Sequence[Seen],
    walls: dict[tuple[str, int], Wall],
) -> Face:
    height = parts.level.height_in
    gaps = [Gap(item.at_in, item.to_in, item.sill_in, item.head_in) for item in seen]
    fixtures = tuple(f for f in parts.fixtures if f.room == wall.room and f.side == wall.index)
    origin = _origin(wall, backing, walls, side.spacing_in)
    return Face(
        wall=wall,
        side=side,
        mates=backing,
        openings=tuple(sorted(seen, key=lambda item: item.at_in)),
        fixtures=tuple(sorted(fixtures, key=lambda item: item.at_in)),
        studs=studs(side, wall.length_in, height, origin, gaps),
        height_in=height,
    )


def _origin(wall: Wall, backing: tuple[Mate, ...], walls: dict[tuple[str, int], Wall], spacing: float) -> float:
    """Where the layout of the framed wall starts, so that both rooms of a shared wall see the same studs: at its
    west or south end."""
    ends = [0.0, wall.length_in]
    for mate in backing:
        other = walls[mate.room, mate.side]
        ends += [wall.distance((other.x0, other.y0)), wall.distance((other.x1, other.y1))]
    rising = wall.along[0] > 1e-9 or (abs(wall.along[0]) <= 1e-9 and wall.along[1] > 0)
    if rising:
        return min(ends)
    return max(ends) - math.ceil(max(ends) / spacing) * spacing


def _seen(
    openings: Sequence[Opening],
    walls: dict[tuple[str, int], Wall],
    backing: dict[tuple[str, int], tuple[Mate, ...]],
) -> dict[tuple[str, int], list[Seen]]:
    found: dict[tuple[str, int], list[Seen]] = {}
    for item in openings:
        wall = walls[item.room, item.side]
        behind = [mate for mate in backing[item.room, item.side] if _over(mate, item)]
        to_room = behind[0].room if behind else ""
        found.setdefault((item.room, item.side), []).append(_as_seen(item, item.at_in, item.hinge, True, to_room))
        for mate in behind:
            other = walls[mate.room, mate.side]
            at = other.distance(wall.at(item.at_in + item.width_in))
            mirrored = "right" if item.hinge == "left" else "left"
            found.setdefault((mate.room, mate.side), []).append(_as_seen(item, at, mirrored, False, item.room))
    return found


def _over(mate: Mate, item: Opening) -> bool:
    middle = item.at_in + item.width_in / 2
    return mate.from_in <= middle <= mate.to_in


def _as_seen(item: Opening, at: float, hinge: str, own: bool, to_room: str) -> Seen:
    swings = item.swings_in if own else not item.swings_in
    return Seen(
        id=item.id,
        kind=item.kind,
        at_in=at,
        width_in=item.width_in,
        sill_in=item.sill_in,
        head_in=item.head_in,
        hinge=hinge,
        swings_in=swings,
        own=own,
        to_room=to_room,
    )
