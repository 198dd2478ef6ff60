"""Sentences that build: structures, levels, rooms, chains of walls, openings, framing, what stands along walls."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.job import Room, Side
from levelrun.core.site.edits import main_floor
from levelrun.core.site.framing import FINISHES, depth_of
from levelrun.core.site.geometry import STEPS, Point, close_chain, rectangle, walls_of
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.site.sharing import mates

USES = {
    "living": "common", "common": "common", "great": "common", "family": "common", "den": "common",
    "kitchen": "kitchen", "dining": "dining", "bed": "bedroom", "bunk": "bedroom", "bedroom": "bedroom",
    "bath": "bath", "toilet": "bath", "washroom": "bath", "hall": "hall", "entry": "hall", "stair": "stairs",
    "stairs": "stairs", "closet": "closet", "pantry": "storage", "laundry": "laundry", "mud": "laundry",
    "utility": "utility", "mechanical": "utility", "garage": "garage", "carport": "garage", "shop": "shop",
    "kiln": "shop", "throwing": "shop", "store": "storage", "storage": "storage", "shed": "storage",
    "cold": "storage", "porch": "porch", "deck": "porch", "crawl": "crawl", "basement": "basement",
    "attic": "attic", "loft": "bedroom", "pump": "pump", "office": "bedroom",
}  # fmt: skip
USE_WORDS = ("common", "kitchen", "dining", "bedroom", "bath", "hall", "stairs", "closet", "laundry", "utility",
             "garage", "shop", "storage", "porch", "crawl", "basement", "attic", "pump")  # fmt: skip
STRUCTURES = ("house", "shop", "cabin", "shed")
LEVELS: dict[str, tuple[str, float, float]] = {
    "floor": ("floor", 0.0, 96.0),
    "crawl": ("crawl", -44.0, 32.0),
    "basement": ("basement", -102.0, 90.0),
    "loft": ("loft", 108.0, 84.0),
    "attic": ("attic", 108.0, 60.0),
}
GRADES = {"house": -18.0, "shop": -6.0, "cabin": -20.0, "shed": -4.0}
FIXTURES: dict[str, tuple[float, float, float]] = {
    "counter": (48, 25, 36), "sink": (30, 22, 36), "basin": (24, 20, 34), "tub": (60, 30, 20),
    "shower": (36, 36, 80), "shower valve": (10, 4, 48), "toilet": (20, 28, 30), "range": (30, 26, 36),
    "refrigerator": (36, 30, 70), "dishwasher": (24, 24, 34), "cabinet": (36, 24, 84), "fireplace": (48, 20, 48),
    "furniture": (72, 24, 36), "water heater": (24, 24, 60), "heater": (36, 4, 10), "stairs": (36, 120, 60),
    "island": (60, 36, 36), "peninsula": (36, 60, 36),
}  # fmt: skip
ISLANDS = ("island", "peninsula")
ISLAND_OFF_IN = 67.0  # a counter 25 deep and 42 to walk between
STUDS = ("2x3", "2x4", "2x6", "2x8", "furring", "metal", "log", "block", "open")
ABOUT_STRUCTURE = ("grade", "at", "existing", "dwelling", "not dwelling")
BESIDE = ("east of", "west of", "north of", "south of")
WAYS = {"n": "north", "e": "east", "s": "south", "w": "west"} | {way: way for way in STEPS}
_PLACED = re.compile(r"\d")
_SIZE = re.compile(r"""(?=\s\d+(?:\.\d+)?(?:\s*(?:'|"|ft\b|in\b|mm\b|cm\b|m\b)|-\d)[\d\s'"./-]*(?:x|by)\b)""")


def use_of(name: str) -> str:
    """What a room is for, from the words of its name; a common room where no word says."""
    for word in re.split(r"[\s\d-]+", name.lower()):
        if word in USES:
            return USES[word]
    return "common"


def structure(reader: SceneReader) -> Said:
    """structure KIND [NAME] [at X east Y north] [existing] [dwelling|not dwelling]: a building with a main floor;
    `grade 18"` below it."""
    kind = reader.need(STRUCTURES, "house, shop, cabin or shed")
    name, item = "", {"kind": kind, "grade_in": GRADES[kind]}
    if not reader.over() and not _ahead(reader, ABOUT_STRUCTURE):
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
            item["x_in"], item["y_in"] = _east_north(reader)
    taken = {part.name.casefold() for part in reader.scene.job.structures}
    name = name or next(n for n in (kind.capitalize(), *(f"{kind.capitalize()} {i}" for i in range(2, 99)))
                        if n.casefold() not in taken)  # fmt: skip
    ident = next_id(reader.scene.job, "s")
    floor = main_floor(ident)
    edit = {"op": "add", "kind": "structure", "item": {"id": ident, "name": name, **item, "levels": [floor]}}
    return Said([edit], level=floor["id"])


def _ahead(reader: SceneReader, words: tuple[str, ...]) -> bool:
    start = reader.pos
    found = reader.phrase(words) is not None
    reader.pos = start
    return found


def _east_north(reader: SceneReader) -> Point:
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
    """level KIND [below|above LENGTH] [height LENGTH] [joists ew|ns]: a level of the structure looked at."""
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
        word = reader.need(("below", "above", "height", "joists"), "below, above, height or joists")
        if word in ("below", "above"):
            values["floor_in"] = reader.length() * (-1 if word == "below" else 1)
        elif word == "height":
            values["height_in"] = reader.length()
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


def room(reader: SceneReader) -> Said:
    """room NAME WIDTH x DEPTH [east of NAME [offset LENGTH]] [as USE]: inside the studs, east-west by north-south."""
    on = reader.level()
    name = reader.name(("as",)) if not _PLACED.search(reader.text, reader.pos) else _room_name(reader)
    width = reader.length()
    reader.need(("x", "by"), "x and the depth")
    depth = reader.length()
    corner, use = None, use_of(name)
    while not reader.over():
        word = reader.need((*BESIDE, "as", "at"), "east of a room, at a place, or as a use")
        if word == "as":
            use = reader.need(USE_WORDS, "a use of rooms")
        elif word == "at":
            corner = _east_north(reader)
        else:
            corner = _beside(reader, word.partition(" ")[0], width, depth)
    if corner is None:
        corner = _free_corner(reader, on.id)
    return _room(reader, name, use, rectangle(*corner, width, depth), on.id)


def _room_name(reader: SceneReader) -> str:
    """Everything before the first length that is followed by x: a name may hold numbers, such as bed 1."""
    match = _SIZE.search(reader.text, reader.pos)
    if match is None:
        return reader.name(("as",))
    said = reader.text[reader.pos : match.start()].strip()
    reader.expect(["a name"])
    if not said:
        raise reader.fail("a name")
    reader.pos = match.start()
    return said


def _beside(reader: SceneReader, way: str, width: float, depth: float) -> Point:
    other = reader.room_named()
    offset = 0.0
    if reader.phrase(["offset"]):
        offset = -reader.length() if reader.phrase(["south", "west", "back"]) else reader.length()
    xs, ys = [x for x, _ in other.corners], [y for _, y in other.corners]
    facing = next((w for w in walls_of(other) if w.name == way), None)
    gap = depth_of(other.sides[facing.index]) if facing else 3.5
    return {
        "east": (max(xs) + gap, min(ys) + offset),
        "west": (min(xs) - gap - width, min(ys) + offset),
        "north": (min(xs) + offset, max(ys) + gap),
        "south": (min(xs) + offset, min(ys) - gap - depth),
    }[way]


def _free_corner(reader: SceneReader, level_id: str) -> Point:
    """East of everything on the level; the origin where nothing stands there yet."""
    here = [room for room in reader.scene.job.rooms if room.level == level_id]
    if not here:
        return (0.0, 0.0)
    return max(x for room in here for x, _ in room.corners) + 3.5, min(y for room in here for _, y in room.corners)


def _room(reader: SceneReader, name: str, use: str, corners: tuple[Point, ...], level_id: str) -> Said:
    here = tuple(item for item in reader.scene.job.rooms if item.level == level_id)
    if any(item.name.casefold() == name.casefold() for item in here):
        raise reader.refuse(f"there is a room {name!r} on this level already")
    ident = next_id(reader.scene.job, "m")
    sides = _sides(ident, corners, here, use)
    item = {"id": ident, "level": level_id, "name": name, "use": use, "corners": corners, "sides": sides}
    return Said([{"op": "add", "kind": "room", "item": item}], room=ident, level=level_id)


def _sides(ident: str, corners: tuple[Point, ...], here: tuple[Room, ...], use: str) -> list[dict[str, Any]]:
    """Sides of a new room: framed as the faces that they back onto; without finish under the house."""
    usual: dict[str, Any] = {"finish": "none"} if use in ("crawl", "basement", "attic", "porch", "pump") else {}
    trial = Room(id=ident, level="x", name="x", corners=corners, sides=tuple(Side() for _ in corners))
    shared = mates((trial, *here))
    rooms = {item.id: item for item in here}
    sides = []
    for index in range(len(corners)):
        own = dict(usual)
        if backing := shared[ident, index]:
            other = rooms[backing[0].room].sides[backing[0].side].model_dump()
            own |= {key: other[key] for key in ("stud", "spacing_in", "first_stud_in", "bearing", "insulation")}
        sides.append(own)
    return sides


def wall(reader: SceneReader) -> Said:
    """wall n 24' e 16' s 24' w 16' [as NAME]: a room of any shape from tape readings; the error is shared out."""
    on = reader.level()
    start = reader.pos
    legs: list[tuple[str, float]] = []
    name = ""
    while not reader.over():
        word = reader.need((*WAYS, "as"), "n, e, s, w and a length, or as and a name")
        if word == "as":
            name = reader.name()
        else:
            legs.append((WAYS[word], reader.length()))
    if len(legs) < 3:
        reader.expect(WAYS)
        raise reader.fail("three walls at least, that come back to the start")
    try:
        closed = close_chain(legs, _free_corner(reader, on.id))
    except ValueError as error:
        raise reader.refuse(str(error), at=start) from None
    taken = {item.name.casefold() for item in reader.scene.job.rooms}
    name = name or next(f"Room {n}" for n in range(1, 999) if f"room {n}" not in taken)
    return _room(reader, name, use_of(name), closed.corners, on.id)


def _opening(kind: str) -> Callable[[SceneReader], Said]:
    def read(reader: SceneReader) -> Said:
        """KIND WALL WIDTH [x HEIGHT] at PLACE [sill LENGTH] [hinge left|right] [out]"""
        about = reader.room()
        face = reader.wall(about)
        item: dict[str, Any] = {"kind": kind, "room": about.id, "side": face.index, "width_in": reader.length()}
        height: float | None = None
        if reader.phrase(["x", "by"]):
            height = reader.length()
        sill = 36.0 if kind == "window" else 0.0
        at = None
        while not reader.over():
            word = reader.need(("at", "sill", "hinge", "out", "in"), "at, sill, hinge or out")
            if word == "at":
                at = reader.length()
            elif word == "sill":
                sill = reader.length()
            elif word == "hinge":
                item["hinge"] = reader.need(("left", "right"), "left or right")
            else:
                item["swings_in"] = word == "in"
        if at is None:
            at = (face.length_in - item["width_in"]) / 2
        head = sill + (height if height is not None else 82.0 if kind != "window" else 46.0)
        item |= {"at_in": max(at, 0.0), "sill_in": sill, "head_in": head}
        if at < 0 or at + item["width_in"] > face.length_in + 1e-6:
            raise reader.refuse(
                f"a {kind.replace('_', ' ')} from {max(at, 0):g} to {at + item['width_in']:g} in does not fit the "
                f"{face.name} wall of {face.length_in:g} in"
            )
        return Said([{"op": "add", "kind": "opening", "item": item}], room=about.id)

    return read


def mark(reader: SceneReader) -> Said:
    """mark KIND WALL [LENGTH] at PLACE [deep LENGTH] [high LENGTH] [off LENGTH]: a counter, a basin, a shower valve
    along a wall; an island so far off it, a peninsula at it."""
    kind = reader.need(FIXTURES, "what stands there")
    about = reader.room()
    face = reader.wall(about)
    width, depth, height = FIXTURES[kind]
    at, off = 0.0, ISLAND_OFF_IN if kind == "island" else 0.0
    if not reader.over() and not _ahead(reader, ("at", "deep", "high", "off", "all")):
        width = reader.length()
    while not reader.over():
        word = reader.need(("at", "deep", "high", "off", "all"), "at, deep, high, off or all")
        if word == "at":
            at = reader.length()
        elif word == "off":
            off = reader.length()
        elif word == "deep":
            depth = reader.length()
        elif word == "high":
            height = reader.length()
        else:
            at, width = 0.0, face.length_in
    if at + width > face.length_in + 1e-6:
        raise reader.refuse(f"it would end at {at + width:g} in; the {face.name} wall is {face.length_in:g} in")
    if off and kind not in ISLANDS:
        raise reader.refuse(f"a {kind} stands at its wall; off it stand {' and '.join(ISLANDS)}")
    item = {"kind": "island" if kind in ISLANDS else kind.replace(" ", "_"), "room": about.id, "side": face.index,
            "at_in": at, "width_in": width, "depth_in": depth, "height_in": height, "off_in": off}  # fmt: skip
    return Said([{"op": "add", "kind": "fixture", "item": item}], room=about.id)


def frame(reader: SceneReader) -> Said:
    """frame WALL|all [2x6] [at 16"] [bearing] [boards] [batts|foam] [first LENGTH]: how a wall is built."""
    about = reader.room()
    every = reader.phrase(["all"])
    side = None if every else reader.wall(about).index
    finishes = [*FINISHES, "no finish"]
    values: dict[str, Any] = {}
    while not reader.over():
        word = reader.need(
            (*STUDS, "at", "first", "bearing", "partition", "batts", "foam", "no insulation", *finishes),
            "studs, a spacing, a finish or insulation",
        )
        if word in STUDS:
            values["stud"] = word
        elif word == "at":
            values["spacing_in"] = reader.length()
        elif word == "first":
            values["first_stud_in"] = reader.length()
        elif word in ("bearing", "partition"):
            values["bearing"] = word == "bearing"
        elif word in ("batts", "foam", "no insulation"):
            values["insulation"] = "none" if word == "no insulation" else word
        else:
            values["finish"] = "none" if word == "no finish" else word
    if not values:
        reader.expect(STUDS)
        raise reader.fail("what the wall is made of")
    return Said([{"op": "set_side", "room": about.id, "side": side, "set": values}], room=about.id)


def place(reader: SceneReader) -> Said:
    """place [dry|damp|wet] [hit|guarded] [30 C] [N bays]: what the room is like for wiring."""
    about = reader.room()
    values: dict[str, Any] = {}
    while not reader.over():
        word = reader.phrase(("dry", "damp", "wet", "hit", "guarded"))
        if word in ("dry", "damp", "wet"):
            values["moisture"] = word
        elif word:
            values["damage"] = word == "hit"
        else:
            number = reader.number("degrees Celsius, or bays", -40, 90)
            if reader.need(("c", "bays", "bay"), "C or bays") == "c":
                values["ambient_c"] = number
            else:
                values["bays"] = int(number)
    return Said([{"op": "set", "kind": "room", "id": about.id, "set": values}], room=about.id)


def move(reader: SceneReader) -> Said:
    """move WALL out|in LENGTH: a wall, with the other face of it."""
    about = reader.room()
    face = reader.wall(about)
    way = reader.need(("out", "in"), "out or in")
    by = reader.length() * (1 if way == "out" else -1)
    return Said([{"op": "move_wall", "room": about.id, "side": face.index, "by_in": by}], room=about.id)


def laid_out(reader: SceneReader) -> Said:
    """laid out [ROOM|STRUCTURE|all]: its boxes are laid out, so what is missing is missing."""
    job = reader.scene.job
    named: dict[str, tuple[str, str]] = {item.name: ("structure", item.id) for item in job.structures}
    named |= {name: ("room", room.id) for name, room in reader.scene.rooms().items()}
    if reader.over():
        found = [("room", reader.room().id)]
    else:
        word = reader.need(("all", *named), "a room or building by its name, or all")
        found = [("structure", item.id) for item in job.structures] if word == "all" else [named[word]]
    return Said([{"op": "set", "kind": kind, "id": ident, "set": {"laid_out": True}} for kind, ident in found])


VERBS: dict[str, Callable[[SceneReader], Said]] = {
    "room": room,
    "wall": wall,
    "door": _opening("door"),
    "window": _opening("window"),
    "opening": _opening("opening"),
    "garage door": _opening("garage_door"),
    "glass door": _opening("glass_door"),
    "mark": mark,
    "frame": frame,
    "place": place,
    "move": move,
    "laid out": laid_out,
    "structure": structure,
    "level": level,
}
