"""Sentences that put up buildings and their levels."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.site.edits import main_floor
from levelrun.core.site.geometry import STEPS, Point
from levelrun.core.site.scene import Said, SceneReader

STRUCTURES = ("house", "shop", "cabin", "shed")
LEVELS: dict[str, tuple[str, float, float]] = {
    "floor": ("floor", 0.0, 96.0),
    "crawl": ("crawl", -44.0, 32.0),
    "basement": ("basement", -102.0, 90.0),
    "loft": ("loft", 108.0, 84.0),
    "attic": ("attic", 108.0, 60.0),
}
GRADES = {"house": -18.0, "shop": -6.0, "cabin": -20.0, "shed": -4.0}
ABOUT_STRUCTURE = ("grade", "at", "existing", "dwelling", "not dwelling")


def structure(reader: SceneReader) -> Said:
    """structure KIND [NAME] [at X east Y north] [existing] [dwelling|not dwelling]: a building with a main floor;
    `grade 18"` below it."""
    kind = reader.need(STRUCTURES, "house, shop, cabin or shed")
    name, item = "", dict[str, Any]()
    if not reader.over() and not reader.sees(ABOUT_STRUCTURE):
        name = reader.name(ABOUT_STRUCTURE)
    while not reader.over():
        word = reader.need(ABOUT_STRUCTURE, "grade, at, existing or dwelling")
        if word == "grade":
            item["grade_in"] = -reader.length()
        elif word == "existing":
            item["existing"] = True
        elif word in ("dwelling", "not dwelling"):
            item["dwelling"] = word == "dwelling"
        else:
            item["x_in"], item["y_in"] = east_north(reader)
    taken = {part.name.casefold() for part in reader.scene.job.structures}
    name = name or next(n for n in (kind.capitalize(), *(f"{kind.capitalize()} {i}" for i in range(2, 99)))
                        if n.casefold() not in taken)  # fmt: skip
    _, level_id, made = new_building(reader, kind, name, item)
    return Said(made, level=level_id)


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
    key, floor, height = LEVELS[kind]
    job = reader.scene.job
    if not job.structures:
        raise reader.refuse("there is no structure yet: say `structure` and its kind first")
    now = reader.scene.level
    owner = next(
        (s for s in job.structures if now and any(part.id == now.id for part in s.levels)), job.structures[0]
    )
    values: dict[str, Any] = {"kind": key, "floor_in": floor, "height_in": height}
    while not reader.over():
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
    same = next((part for part in owner.levels if part.kind == key and part.floor_in == values["floor_in"]), None)
    if same is None and key == "floor" and values["floor_in"] == 0 and owner.levels:
        same = next((part for part in owner.levels if part.kind == "floor"), None)
    name = {"floor": "Main floor", "crawl": "Crawl space"}.get(kind, kind.capitalize())
    ident = same.id if same else next_id(reader.scene.job, "v")
    item = {"id": ident, "name": same.name if same else name, **values}
    kept = [part.model_dump() for part in owner.levels if part.id != ident]
    ordered = sorted([*kept, item], key=lambda part: float(part["floor_in"]))
    edit = {"op": "set", "kind": "structure", "id": owner.id, "set": {"levels": ordered}}
    return Said([edit], level=ident)


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


VERBS: dict[str, Callable[[SceneReader], Said]] = {"structure": structure, "level": level}
