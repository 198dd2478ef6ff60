"""The yard as shapes: buildings as they stand, what covers the ground, services, and how high the ground lies."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from shapely import LineString, MultiPolygon, Polygon, box, unary_union
from shapely import Point as Shape
from shapely.affinity import translate

from levelrun.core.job import Job, Room, Structure, YardPart
from levelrun.core.kept import Lasting, Standing
from levelrun.core.site.building_words import UNDRAWN_IN
from levelrun.core.site.geometry import Point
from levelrun.core.trench.parts import AREAS

WALL_IN = 4.0  # stud and sheathing, outside of the stud faces of rooms
OUTSIDE_ROOMS = ("porch",)
UNDER = ("crawl", "basement", "loft", "attic")
COVERS = {"street": "street", "drive": "driveway", "slab": "slab_4in"}
STREET_IN, DRIVE_IN, PATH_IN = 288.0, 144.0, 48.0  # as wide as these usually are
NEAR_IN = 180.0  # a height of the ground counts for a line within so much of it


@dataclass(frozen=True)
class Footprint:
    """A building on the yard. `drawn` False: no room of it is drawn, and its outline is a stand-in."""

    structure: Structure
    shape: Polygon | MultiPolygon
    drawn: bool


@dataclass(frozen=True, eq=False)
class Yard:
    """All that lies on the ground of a job."""

    buildings: tuple[Footprint, ...]
    parts: tuple[YardPart, ...]
    covers: tuple[tuple[str, YardPart | Footprint, Polygon | MultiPolygon], ...]

    def building(self, structure: str | None) -> Footprint | None:
        """The building with this id."""
        return next((item for item in self.buildings if item.structure.id == structure), None)

    def spots(self) -> list[YardPart]:
        """Heights of the ground that were taken."""
        return [part for part in self.parts if part.kind == "spot"]


_yards = Standing[Yard](4)
_shown = Standing[Yard](4)
_outlines = Lasting[Footprint](256)


def yard_of(job: Job) -> Yard:
    """The yard of a job; the same one while no outline of a building and no thing of the yard changes, as when a wall
    within a house is moved."""
    return _yards.get("yard", (job.structures, job.rooms, job.yard), lambda: _yard(job))


def _yard(job: Job) -> Yard:
    buildings = _buildings(job)
    return _shown.get("yard", (job.yard, *buildings), lambda: _covered(job.yard, buildings))


def _covered(parts: tuple[YardPart, ...], buildings: tuple[Footprint, ...]) -> Yard:
    covers = [("under_building", item, item.shape) for item in buildings]
    covers += [(COVERS[part.kind], part, shape_of(part)) for part in parts if part.kind in COVERS]  # type: ignore[misc]
    return Yard(buildings, parts, tuple(covers))


def _buildings(job: Job) -> tuple[Footprint, ...]:
    of_level = {level.id: item.id for item in job.structures for level in item.levels}
    kinds = {level.id: level.kind for item in job.structures for level in item.levels}
    own: dict[str, list[Room]] = {}
    for room in job.rooms:
        if kinds[room.level] not in UNDER and room.use not in OUTSIDE_ROOMS:
            own.setdefault(of_level[room.level], []).append(room)
    found = [(item, tuple(own.get(item.id, ()))) for item in job.structures if item.kind != "yard"]
    return tuple(_outlines.same(item.id, standing(item, rooms)) for item, rooms in found)


@lru_cache(maxsize=256)
def standing(structure: Structure, rooms: tuple[Room, ...]) -> Footprint:
    """The outline of a building on the site, by its rooms; of one that is not drawn a stand-in."""
    sound = [Polygon(room.corners).buffer(WALL_IN, join_style="mitre") for room in rooms]
    shape = unary_union([item for item in sound if item.is_valid]) if sound else box(0, 0, *UNDRAWN_IN)
    return Footprint(structure, translate(shape, structure.x_in, structure.y_in), bool(sound))


@lru_cache(maxsize=512)
def shape_of(part: YardPart) -> Polygon:
    """What a thing of the yard covers: its area, or its line with its width."""
    if part.kind in ("tree", "spot"):
        return Shape(part.points[0]).buffer(max(part.width_in / 2, 1.0))
    if part.kind in AREAS:
        return Polygon(part.points).buffer(0)
    return LineString(part.points).buffer(max(part.width_in / 2, 1.0), cap_style="flat", join_style="mitre")


def ground_along(
    yard: Yard, points: Sequence[Point], start: str | None, end: str | None
) -> list[tuple[float, float]]:
    """How high the ground lies along a line: (inches along, inches over the site's zero), straight between the ground
    at the buildings of its ends and every height that was taken near it."""
    line = LineString(points)
    ends = [yard.building(start), yard.building(end)]
    first, last = [item.structure.ground_in if item else None for item in ends]
    taken = [
        (line.project(Shape(part.points[0])), part.height_in)
        for part in yard.spots()
        if line.distance(Shape(part.points[0])) <= NEAR_IN
    ]
    known = [(0.0, first)] if first is not None else []
    known += sorted((at, height) for at, height in taken if 1 < at < line.length - 1)
    known += [(line.length, last)] if last is not None else []
    if not known:
        known = sorted(taken)[:1] or [(0.0, 0.0)]
    if known[0][0] > 0:
        known.insert(0, (0.0, known[0][1]))
    if known[-1][0] < line.length:
        known.append((line.length, known[-1][1]))
    return [(float(at), float(height)) for at, height in known]


def along(points: Sequence[Point], at: float) -> Point:
    """The place so many inches along a line."""
    found = LineString(points).interpolate(at)
    return (found.x, found.y)


def face_middle(shape: Polygon | MultiPolygon, face: str) -> Point:
    """The middle of the side of a building that faces north, east, south or west: of its outermost wall there."""
    left, low, right, high = shape.bounds
    if face in ("north", "south"):
        y = high if face == "north" else low
        cut = shape.intersection(box(left - 1, y - 2, right + 1, y + 2)).bounds
        return ((cut[0] + cut[2]) / 2, y)
    x = right if face == "east" else left
    cut = shape.intersection(box(x - 2, low - 1, x + 2, high + 1)).bounds
    return (x, (cut[1] + cut[3]) / 2)


def nearest_face(shape: Polygon | MultiPolygon, to: Point) -> str:
    """The side of a building that looks toward a point most."""
    left, low, right, high = shape.bounds
    gaps = {"north": to[1] - high, "south": low - to[1], "east": to[0] - right, "west": left - to[0]}
    return max(gaps, key=lambda face: gaps[face])


def long_in(points: Sequence[Point]) -> float:
    """Inches along a line."""
    return sum(math.dist(a, b) for a, b in itertools.pairwise(points))
