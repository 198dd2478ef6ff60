"""A trench as a line over the yard: its pieces by what lies above them, its corners, the services that it meets."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from shapely import GeometryCollection, LineString
from shapely import Point as Shape
from shapely.geometry.base import BaseGeometry

from levelrun.core.job import Trench, YardPart
from levelrun.core.site.geometry import Point
from levelrun.core.trench.parts import SERVICES
from levelrun.core.trench.yard import Footprint, Yard, long_in

ORDER = ("street", "under_building", "driveway", "slab_4in")
PLACES = {
    "open_ground": "trench", "concrete_2in": "trench", "driveway": "driveway_trench", "street": "trench",
    "slab_4in": "under_slab", "under_building": "under_building",
}  # fmt: skip
LEAST_IN = 3.0
AT_WALL_IN = 14.0  # as much of a line may lie within the outline of the building that it ends at
TURN_DEG = 3.0


@dataclass(frozen=True, kw_only=True)
class Piece:
    """A straight of a trench under one thing. `turn_deg`: the corner at its beginning."""

    start_in: float
    end_in: float
    above: str
    under: str
    turn_deg: float

    @property
    def length_in(self) -> float:
        """Its length, to a sixteenth."""
        return round((self.end_in - self.start_in) * 16) / 16


@dataclass(frozen=True, kw_only=True)
class Crossing:
    """Where a trench meets a service: so far along, at what angle; `beside_in`: how near they run side by side, None
    where they cross."""

    part: YardPart
    at_in: float
    beside_in: float | None = None
    over_in: float = 0.0


def corners_of(points: Sequence[Point]) -> list[tuple[float, float]]:
    """The corners of a line: how far along, and the turn in degrees."""
    found, at = [], 0.0
    for before, here, after in zip(points, points[1:], points[2:], strict=False):
        at += math.dist(before, here)
        one = math.atan2(here[1] - before[1], here[0] - before[0])
        two = math.atan2(after[1] - here[1], after[0] - here[0])
        turn = abs(math.degrees((two - one + math.pi) % (2 * math.pi) - math.pi))
        if turn >= TURN_DEG:
            found.append((at, round(turn, 1)))
    return found


@lru_cache(maxsize=128)
def pieces_of(yard: Yard, trench: Trench) -> tuple[Piece, ...]:
    """The pieces of a trench: cut at its corners and where what lies above changes; what covers most counts. Once for
    laying, rules and drawing."""
    long = long_in(trench.points)
    covers = _covers(yard, trench)
    corners = dict(corners_of(trench.points))
    cuts = {0.0, long, *corners, *(at for _, _, first, last in covers for at in (first, last))}
    ordered = _thinned(sorted(cuts), set(corners) | {0.0, long})
    found: list[Piece] = []
    for first, last in pairwise(ordered):
        middle = (first + last) / 2
        here = [(kind, name) for kind, name, a, b in covers if a <= middle <= b]
        kind, name = min(here, key=lambda item: ORDER.index(item[0]), default=("open_ground", ""))
        if kind == "open_ground" and trench.concrete:
            kind = "concrete_2in"
        turn = next((t for at, t in corners.items() if abs(at - first) < 1e-6), 0.0)
        before = found[-1] if found else None
        if before is not None and (before.above, before.under) == (kind, name) and not turn:
            found[-1] = Piece(
                start_in=before.start_in, end_in=last, above=kind, under=name, turn_deg=before.turn_deg
            )  # fmt: skip
        else:
            found.append(Piece(start_in=first, end_in=last, above=kind, under=name, turn_deg=turn))
    return tuple(found)


def _covers(yard: Yard, trench: Trench) -> list[tuple[str, str, float, float]]:
    """What lies over the line: kind, name, from and to along it. The walls that it comes out of do not count."""
    line, long = LineString(trench.points), long_in(trench.points)
    found: list[tuple[str, str, float, float]] = []
    for kind, thing, shape in yard.covers:
        if not line.intersects(shape):
            continue
        name = thing.structure.name if isinstance(thing, Footprint) else thing.name
        for first, last in _stretches(line, trench.points, shape):
            at_end = (thing.structure.id == trench.start and first < 1) or (
                thing.structure.id == trench.end and last > long - 1
            ) if isinstance(thing, Footprint) else False  # fmt: skip
            if last - first >= LEAST_IN and not (at_end and last - first <= AT_WALL_IN):
                found.append((kind, name, first, last))
    return found


def _stretches(line: LineString, points: Sequence[Point], shape: BaseGeometry) -> list[tuple[float, float]]:
    """From and to along a line, where it lies in a shape."""
    found: list[tuple[float, float]] = []
    at = 0.0
    for a, b in pairwise(points):
        part = LineString((a, b)).intersection(shape)
        for piece in getattr(part, "geoms", [part]):
            if not piece.is_empty and piece.length > 0:
                ends = sorted(math.dist(a, xy) for xy in (piece.coords[0], piece.coords[-1]))
                if found and abs(found[-1][1] - (at + ends[0])) < 1e-6:
                    found[-1] = (found[-1][0], at + ends[1])
                else:
                    found.append((at + ends[0], at + ends[1]))
        at += math.dist(a, b)
    return found


def _thinned(cuts: list[float], fixed: set[float]) -> list[float]:
    """Cuts without those that lie within inches of another; corners and ends stay."""
    kept: list[float] = []
    for cut in cuts:
        if kept and cut - kept[-1] < LEAST_IN:
            if cut in fixed and kept[-1] not in fixed:
                kept[-1] = cut
            elif cut in fixed:
                kept.append(cut)
            continue
        kept.append(cut)
    return kept


def crossings(yard: Yard, trench: Trench, beside_in: float) -> list[Crossing]:
    """Where a trench crosses a service of the yard, in order along it, and where it runs beside one nearer than
    `beside_in` for 3 ft and more."""
    line, found = LineString(trench.points), list[Crossing]()
    for part in yard.parts:
        if part.kind not in SERVICES:
            continue
        other = LineString(part.points)
        meets = line.intersection(other)
        points = [
            item for item in getattr(meets, "geoms", [meets]) if item.geom_type == "Point" and not item.is_empty
        ]
        found += [Crossing(part=part, at_in=line.project(Shape(item.x, item.y))) for item in points]
        near = line.intersection(other.buffer(beside_in, cap_style="flat"))
        far = near.difference(GeometryCollection([point.buffer(3 * beside_in) for point in points]).buffer(0))
        if far.length >= 36:
            gap = far.distance(other) if points else line.distance(other)
            at = line.project(Shape(far.interpolate(0.5, normalized=True)) if far.geom_type == "LineString" else
                              Shape(far.centroid))  # fmt: skip
            found.append(Crossing(part=part, at_in=at, beside_in=gap, over_in=far.length))
    return sorted(found, key=lambda item: item.at_in)


def crosses_itself(points: Sequence[Point]) -> bool:
    """Whether a line crosses itself."""
    return not LineString(points).is_simple
