"""A building and its levels, as sentences put them up."""

from __future__ import annotations

from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.job import Structure
from levelrun.core.site.edits import main_floor
from levelrun.core.site.geometry import STEPS, Point
from levelrun.core.site.scene import Said, SceneReader

# Buildings as they are called, and of which kind they are.
BUILDINGS = {
    "house": "house", "building": "shed", "outbuilding": "shed", "shed": "shed", "studio": "shed",
    "greenhouse": "shed", "pump house": "shed", "well house": "shed", "shop": "shop", "workshop": "shop",
    "garage": "shop",
    "detached garage": "shop", "barn": "shop", "cabin": "cabin", "guest house": "cabin",
}  # fmt: skip
LEVELS: dict[str, tuple[str, float, float]] = {
    "floor": ("floor", 0.0, 96.0),
    "crawl": ("crawl", -44.0, 32.0),
    "crawl space": ("crawl", -44.0, 32.0),
    "basement": ("basement", -102.0, 90.0),
    "loft": ("loft", 108.0, 84.0),
    "attic": ("attic", 108.0, 60.0),
    "second floor": ("floor", 108.0, 96.0),
    "upstairs": ("floor", 108.0, 96.0),
}
NAMED = {"floor": "Main floor", "crawl": "Crawl space", "upstairs": "Second floor"}
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


def usual_level(kind: str) -> dict[str, Any]:
    """What a level is called, how far its floor is over the main one and how high it is, as long as nobody says."""
    key, floor, height = LEVELS[kind]
    return {"kind": key, "name": NAMED.get(kind, kind.capitalize()), "floor_in": floor, "height_in": height}


def level_of(reader: SceneReader, owner: Structure, kind: str, bare: bool = False) -> Said:
    """What follows a level of a building: how far below or above its main floor, how high, its joists; bare: nothing
    does, it is as usual."""
    values = usual_level(kind)
    key, name = values["kind"], values.pop("name")
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
    same = next((part for part in owner.levels if part.kind == key and part.floor_in == values["floor_in"]), None)
    if same is None and key == "floor" and values["floor_in"] == 0 and owner.levels:
        same = next((part for part in owner.levels if part.kind == "floor"), None)
    ident = same.id if same else next_id(reader.scene.job, "v")
    item = {"id": ident, "name": same.name if same else name, **values}
    kept = [part.model_dump() for part in owner.levels if part.id != ident]
    ordered = sorted([*kept, item], key=lambda part: float(part["floor_in"]))
    edit = {"op": "set", "kind": "structure", "id": owner.id, "set": {"levels": ordered}}
    return Said([edit], level=ident)


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
