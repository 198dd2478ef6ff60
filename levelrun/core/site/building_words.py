"""A building and its levels, as sentences put them up."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.job import Structure
from levelrun.core.site.edits import main_floor
from levelrun.core.site.geometry import STEPS, Point
from levelrun.core.site.scene import Said, SceneReader

LEVELS: dict[str, tuple[str, float, float]] = {
    **dict.fromkeys(("floor", "main floor", "ground floor", "first floor", "downstairs"), ("floor", 0.0, 96.0)),
    "crawl": ("crawl", -44.0, 32.0),
    "crawl space": ("crawl", -44.0, 32.0),
    "basement": ("basement", -102.0, 90.0),
    "loft": ("loft", 108.0, 84.0),
    "attic": ("attic", 108.0, 60.0),
    **dict.fromkeys(("second floor", "upper floor", "upper level", "upstairs"), ("floor", 108.0, 96.0)),
    "third floor": ("floor", 216.0, 96.0),
}
ROOFED = ("attic", "loft")
UP = ("second floor", "third floor")  # over the main one, from below
NAMED = {
    "crawl": "Crawl space", **dict.fromkeys(("upper floor", "upper level", "upstairs"), "Second floor"),
    **dict.fromkeys(("floor", "ground floor", "first floor", "downstairs"), "Main floor"),
}  # fmt: skip
BETWEEN_IN = 12.0  # from a ceiling to the floor over it: common practice, no source
UPPER_IN = 48.0  # a floor so far over the main one is an upper one
UNDRAWN_IN = (144.0, 120.0)  # how wide and deep a building is taken to be as long as it is not drawn
GRADES = {"house": -18.0, "shop": -6.0, "cabin": -20.0, "shed": -4.0}
JOISTS = {"i-joists": "i_joist", "trusses": "truss", "laminated": "laminated", "solid joists": "solid"}


def east_north(reader: SceneReader) -> Point:
    """A place by one or two readings: 60' east 14' north."""
    x, y = 0.0, 0.0
    for _ in range(2):
        if reader.over():
            break
        inches = reader.length()
        way = reader.need(("east", "west", "north", "south"), "east, west, north or south")
        dx, dy = STEPS[way]
        x, y = x + dx * inches, y + dy * inches
    return x, y


def level(reader: SceneReader) -> Said:
    """level KIND [below|above LENGTH] [height LENGTH] [joists ew|ns] [i-joists|trusses|laminated]:
    a level of the structure looked at."""
    kind = reader.need(LEVELS, "floor, crawl, basement, loft or attic")
    job = reader.scene.job
    if not job.structures:
        raise reader.refuse("there is no structure yet: say `structure` and its kind first")
    now = reader.scene.level
    owner = next(
        (s for s in job.structures if now and any(part.id == now.id for part in s.levels)), job.structures[0]
    )
    return level_of(reader, owner, kind)


def level_there(levels: Sequence[Mapping[str, Any]], kind: str) -> Mapping[str, Any] | None:
    """The level of a building, as plain data, that a word means: of its floors the main one, or the first or second
    over it."""
    key, floor, _ = LEVELS[kind]
    alike = sorted((level for level in levels if level["kind"] == key), key=_foot)
    if key == "floor" and alike:
        upper = [level for level in alike if _foot(level) >= UPPER_IN]
        main = next((level for level in alike if level not in upper), alike[0])
        alike = [main] if not floor else upper[UP.index(_storey(kind)) :]
    return next(iter(alike), None)


def _storey(kind: str) -> str:
    return kind if kind in UP else UP[0]


def _foot(level: Mapping[str, Any]) -> float:
    return float(level.get("floor_in", 0))


def usual_level(kind: str, levels: Sequence[Mapping[str, Any]] = ()) -> dict[str, Any]:
    """What a level is called, how far its floor is over the main one and how high it is, as long as nobody says; over
    the ceiling of the floors that are there, `levels`."""
    key, floor, height = LEVELS[kind]
    tops = [_foot(level) + float(level.get("height_in", 96)) for level in levels if level["kind"] == "floor"]
    if floor > 0 and tops:
        floor = max(tops) + BETWEEN_IN
    return {"kind": key, "name": NAMED.get(kind, kind.capitalize()), "floor_in": floor, "height_in": height}


def level_of(reader: SceneReader, owner: Structure, kind: str, bare: bool = False) -> Said:
    """What follows a level of a building: how far below or above its main floor, how high, its joists; bare: nothing
    does, it is as usual."""
    levels = [part.model_dump() for part in owner.levels]
    same, values = level_there(levels, kind), dict[str, Any]()
    while not bare and not reader.over():
        if reader.sees_length():  # 7' high
            values["height_in"] = reader.length()
            reader.need(("high", "tall"), "high after a height")
            continue
        word = reader.need(
            ("below", "above", "height", "joists", *JOISTS), "below, above, height, joists or their kind"
        )
        if word in ("below", "above"):
            values["floor_in"] = reader.length() * (-1 if word == "below" else 1)
        elif word == "height":
            values["height_in"] = reader.length()
        elif word in JOISTS:
            values["joist_kind"] = JOISTS[word]
        else:
            way = reader.need(("ew", "ns", "east west", "north south"), "ew or ns")
            values["joists"] = "x" if way in ("ew", "east west") else "y"
    if same is not None and kind == "floor" and values.get("floor_in", _foot(same)) != _foot(same):
        same = None  # another floor, by how far over the main one it is
    if same is not None and not values:
        return Said([], level=same["id"])
    item = {"id": next_id(reader.scene.job, "v"), **usual_level(kind, levels)} if same is None else dict(same)
    item |= values
    if same is None and kind == "floor" and _foot(item) >= UPPER_IN:
        item["name"] = UP[any(_foot(part) >= UPPER_IN and part["kind"] == "floor" for part in levels)].capitalize()
    over = [part for part in levels if part["kind"] in ROOFED and same is None and item["kind"] == "floor"]
    for part in over:  # an attic is over the floor that comes under it
        part["floor_in"] = max(_foot(part), _foot(item) + item["height_in"] + BETWEEN_IN)
    kept = [part for part in levels if part["id"] != item["id"]]
    edit = {"op": "set", "kind": "structure", "id": owner.id, "set": {"levels": sorted([*kept, item], key=_foot)}}
    return Said([edit], level=item["id"])


def level_set(owner: Structure, level: str, values: dict[str, Any]) -> dict[str, Any]:
    """The edit that changes fields of one level of a building."""
    levels = [{**item.model_dump(), **(values if item.id == level else {})} for item in owner.levels]
    return {"op": "set", "kind": "structure", "id": owner.id, "set": {"levels": levels}}


def new_building(
    reader: SceneReader, kind: str, name: str, said: dict[str, Any] | None = None
) -> tuple[str, str, list[dict[str, Any]]]:
    """A building with a main floor, and what is said of it: its id, its floor, and the edits that make it."""
    ident = next_id(reader.scene.job, "s")
    floor = main_floor(ident)
    item = {"id": ident, "kind": kind, "name": name, "grade_in": GRADES[kind], "levels": [floor], **(said or {})}
    return ident, floor["id"], [{"op": "add", "kind": "structure", "item": item}]


def a_level(reader: SceneReader) -> tuple[str, list[dict[str, Any]]]:
    """The level looked at, by id. On a blank page that of a house, with the edits that make it."""
    if reader.scene.job.structures:
        return reader.level().id, []
    _, level_id, made = new_building(reader, "house", "House")
    return level_id, made


VERBS = {"level": level}
