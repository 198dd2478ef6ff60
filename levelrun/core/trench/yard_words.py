"""Sentences about the yard: what covers the ground and lies under it, how high it lies; places as they are said."""

from __future__ import annotations

import math
import re
from typing import Any

from shapely import Point as Shape
from shapely import box

from levelrun.core.job import Structure
from levelrun.core.site.building_words import UNDRAWN_IN
from levelrun.core.site.geometry import STEPS, Point
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.trench.parts import AREAS, SERVICES
from levelrun.core.trench.yard import (
    DRIVE_IN,
    PATH_IN,
    STREET_IN,
    face_middle,
    nearest_face,
    shape_of,
    yard_of,
)  # fmt: skip

FACES = ("north", "east", "south", "west")
STREET_HALF_IN, CROWN_IN = 1800.0, 144.0
WIDTHS = {"street": STREET_IN, "drive": DRIVE_IN, "path": PATH_IN}
MEASURE = re.compile(r"\s*\d")


def face_said(reader: SceneReader) -> str:
    return reader.phrase(FACES) or ""


def rounded(point: Point) -> Point:
    return (round(point[0] * 16) / 16, round(point[1] * 16) / 16)


def place_said(reader: SceneReader, toward: Point | None = None) -> Point:
    """A place of the yard: a building with or without a face, the street, or feet east and north of a building."""
    job = reader.scene.job
    yard = yard_of(job)
    outlines = {item.structure.id: item for item in yard.buildings}
    names = {word: outlines[item.id] for word, item in reader.buildings().items() if item.id in outlines}
    streets = {part.name.lower(): part for part in job.yard if part.kind == "street"}
    reader.expect([*names, "street", "12' east"])
    if word := reader.phrase(names):
        shape = names[word].shape
        face = face_said(reader)
        if not face and toward is not None:
            face = nearest_face(shape, toward)
        return face_middle(shape, face) if face else (shape.centroid.x, shape.centroid.y)
    if word := reader.phrase(["street", *streets]):
        part = streets.get(word) or next((p for p in job.yard if p.kind == "street"), None)
        if part is None:
            raise reader.refuse("there is no street yet: say `street south 60'`", allowed=["street south 60'"])
        shape = shape_of(part)
        near = shape.exterior.interpolate(shape.exterior.project(Shape(toward or (0.0, 0.0))))
        return (near.x, near.y)
    x = y = 0.0
    for _ in range(2):
        if not MEASURE.match(reader.text, reader.pos):
            break
        inches = reader.length()
        dx, dy = STEPS[reader.need(FACES, "east, west, north or south")]
        x, y = x + dx * inches, y + dy * inches
    if reader.phrase(["of"]):
        own = names[reader.need(names, "a building")]
        centre = own.shape.centroid
        return (centre.x + x, centre.y + y)
    return (x, y)


def _add(reader: SceneReader, kind: str, item: dict[str, Any]) -> Said:
    job = reader.scene.job
    name = kind.capitalize()
    taken = {part.name for part in job.yard}
    name = next(n for n in (name, *(f"{name} {i}" for i in range(2, 200))) if n not in taken)
    return Said([{"op": "add", "kind": "yard", "item": {"kind": kind, "name": name, **item}}])


def long(kind: str) -> Any:
    """The reader of what goes from a place to a place: a drive, a street, a service."""

    def read(reader: SceneReader) -> Said:
        item: dict[str, Any] = {}
        points: list[Point] = []
        start_at = 0
        while not reader.over():
            if MEASURE.match(reader.text, reader.pos):
                inches = reader.length()
                word = reader.need(("wide", "deep"), "wide or deep")
                item["width_in" if word == "wide" else "depth_in"] = inches
                continue
            options = ["from", "private", "12' wide" if kind in WIDTHS else '24" deep']
            options += FACES if kind == "street" else []
            word = reader.need(options, "from a place to a place")
            if word == "private":
                item["private"] = True
            elif word in FACES:
                points = _street(reader, word)
            elif word == "from":
                start_at = reader.pos
                first = place_said(reader)
                reader.need(("to",), "to and a place")
                last = place_said(reader, first)
                end_at = reader.pos
                reader.pos = start_at
                points = [place_said(reader, last), last]
                reader.pos = end_at
        if not points:
            raise reader.fail("from a place to a place")
        if math.dist(points[0], points[-1]) < 6:
            raise reader.refuse(f"the {kind} would have no length", start_at)
        if kind in WIDTHS:
            item.setdefault("width_in", WIDTHS[kind])
        return _add(reader, kind, {"points": [rounded(point) for point in points], **item})

    read.__doc__ = f"{kind} [12' wide|24\" deep] from PLACE to PLACE [private]."
    return read


def _street(reader: SceneReader, side: str) -> list[Point]:
    """A street on one side of everything, so far off the first building."""
    yard = yard_of(reader.scene.job)
    off = reader.length()
    first = yard.buildings[0].shape if yard.buildings else box(0, 0, *UNDRAWN_IN)
    x, y = face_middle(first, side)
    dx, dy = STEPS[side]
    x, y = x + dx * (off + STREET_IN / 2), y + dy * (off + STREET_IN / 2)
    return [(x - abs(dy) * STREET_HALF_IN, y - abs(dx) * STREET_HALF_IN),
            (x + abs(dy) * STREET_HALF_IN, y + abs(dx) * STREET_HALF_IN)]  # fmt: skip


def _area(kind: str) -> Any:
    def read(reader: SceneReader) -> Said:
        wide = reader.length()
        reader.need(("x", "by"), "x and the depth")
        deep = reader.length()
        reader.need(("at",), "at and a place")
        x, y = place_said(reader)
        ring = [(x - wide / 2, y - deep / 2), (x - wide / 2, y + deep / 2), (x + wide / 2, y + deep / 2),
                (x + wide / 2, y - deep / 2)]  # fmt: skip
        return _add(reader, kind, {"points": [rounded(point) for point in ring]})

    read.__doc__ = f"{kind} W x D at PLACE: its middle."
    return read


def tree(reader: SceneReader) -> Said:
    """tree at PLACE [crown 12']."""
    reader.need(("at",), "at and a place")
    spot = rounded(place_said(reader))
    crown = reader.length() if reader.phrase(["crown"]) else CROWN_IN
    return _add(reader, "tree", {"points": [spot], "width_in": crown})


def _signed(reader: SceneReader) -> float:
    reader.skip()
    sign = 1.0
    if reader.text[reader.pos : reader.pos + 1] in "+-" and reader.pos < len(reader.text):
        sign = -1.0 if reader.text[reader.pos] == "-" else 1.0
        reader.pos += 1
    return sign * reader.length()


def grade(reader: SceneReader) -> Said:
    """grade BUILDING -14": the ground at it, over the ground of the site's zero."""
    names = reader.buildings()
    return grade_of(reader, names[reader.need(names, "a building")])


def grade_of(reader: SceneReader, item: Structure) -> Said:
    """What follows a building: how high the ground lies at it."""
    return Said([{"op": "set", "kind": "structure", "id": item.id, "set": {"ground_in": _signed(reader)}}])


def spot(reader: SceneReader) -> Said:
    """spot -8" at PLACE: how high the ground lies there."""
    height = _signed(reader)
    reader.need(("at",), "at and a place")
    return _add(reader, "spot", {"points": [rounded(place_said(reader))], "height_in": height})


VERBS = {
    "grade": grade, "spot": spot, "tree": tree,
    **{kind: long(kind) for kind in ("drive", "street", "path", *SERVICES)},
    **{kind: _area(kind) for kind in AREAS},
}  # fmt: skip
