"""Sentences that build: rooms, chains of walls, openings, framing, what stands along walls."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.job import Room, Side, Structure
from levelrun.core.site import building_words
from levelrun.core.site.building_words import a_level, east_north
from levelrun.core.site.framing import FINISHES, depth_of
from levelrun.core.site.geometry import STEPS, Point, close_chain, rectangle, walls_of
from levelrun.core.site.scene import SHORT, Said, SceneReader
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
FIXTURES: dict[str, tuple[float, float, float]] = {
    "counter": (48, 25, 36), "sink": (30, 22, 36), "basin": (24, 20, 34), "tub": (60, 30, 20),
    "shower": (36, 36, 80), "shower valve": (10, 4, 48), "toilet": (20, 28, 30), "range": (30, 26, 36),
    "refrigerator": (36, 30, 70), "dishwasher": (24, 24, 34), "cabinet": (36, 24, 84), "fireplace": (48, 20, 48),
    "furniture": (72, 24, 36), "water heater": (24, 24, 60), "heater": (36, 4, 10), "stairs": (36, 120, 60),
    "island": (60, 36, 36), "peninsula": (36, 60, 36), "pipe": (3.5, 3.5, 96), "duct": (14, 3.5, 96),
    "clean out": (5, 3.5, 20), "flue": (8, 8, 96), "nail": (0.5, 3.5, 26), "return air": (14.5, 3.5, 96),
}  # fmt: skip
FEET = {"clean out": 12.0, "nail": 22.0}  # where these begin over the floor, unless said
MARKED = ("at", "deep", "high", "from", "off", "all", "in")
OPENED = ("at", "sill", "hinge", "out", "in")
ISLANDS = ("island", "peninsula")
ISLAND_OFF_IN = 67.0  # a counter 25 deep and 42 to walk between
STUDS = ("2x3", "2x4", "2x6", "2x8", "furring", "metal", "log", "block", "open")
BESIDE = ("east of", "west of", "north of", "south of")
WAYS = {"n": "north", "e": "east", "s": "south", "w": "west"} | {way: way for way in STEPS}
COMPASS_WORDS: list[str] = [*SHORT, *SHORT.values()]
COMPASS_WORDS += [f"{way} {n}" for way in SHORT.values() for n in (2, 3, 4)]
_PLACED = re.compile(r"\d")
_SIZE = re.compile(r"""(?=\s\d+(?:\.\d+)?(?:\s*(?:'|"|ft\b|in\b|mm\b|cm\b|m\b)|-\d)[\d\s'"./-]*(?:x|by)\b)""")


def use_of(name: str) -> str:
    """What a room is for, from the words of its name; a common room where no word says."""
    for word in re.split(r"[\s\d-]+", name.lower()):
        if word in USES:
            return USES[word]
    return "common"


def room(reader: SceneReader) -> Said:
    """room NAME WIDTH x DEPTH [east of NAME [offset LENGTH]] [in BUILDING] [as USE]: inside the studs, east-west by
    north-south. It goes where the room beside it is, or to the building said; one that is called as a building is in
    which nothing is drawn yet, goes there."""
    on, house = a_level(reader)
    name = reader.name(("as", "in")) if not _PLACED.search(reader.text, reader.pos) else _room_name(reader)
    width = reader.length()
    reader.need(("x", "by"), "x and the depth")
    depth = reader.length()
    buildings = reader.buildings()
    said, corner, use = _namesake(reader, name), None, use_of(name)
    told = [f"{name} is drawn in the building of its name, {said.name}"] if said is not None else []
    while not reader.over():
        word = reader.need((*BESIDE, "in", "as", "at"), "east of a room, at a place, in a building, or as a use")
        if word == "as":
            use = reader.need(USE_WORDS, "a use of rooms")
        elif word == "at":
            corner = east_north(reader)
        elif word == "in":
            said, told = buildings[reader.need(buildings, "a building by its name")], []
        else:
            other = reader.room_named()
            corner = _beside(reader, other, word.partition(" ")[0], width, depth)
            said, told, on = None, [], other.level
    if said is not None:
        floor = next((level for level in said.levels if level.kind == "floor"), None)
        if floor is None:
            raise reader.refuse(f"{said.name} has no floor yet: look at it and say `level floor`")
        on = floor.id
    if corner is None:
        corner = _free_corner(reader, on)
    return _room(reader, name, use, rectangle(*corner, width, depth), on, house, told)


def _namesake(reader: SceneReader, name: str) -> Structure | None:
    """A building of this name in which nothing is drawn yet, where another one is looked at."""
    job, now = reader.scene.job, reader.scene.level
    drawn = {room.level for room in job.rooms}
    for item in job.structures:
        own = {level.id for level in item.levels}
        if item.name.casefold() == name.casefold() and own and not own & drawn and (now is None or now.id not in own):
            return item
    return None


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


def _beside(reader: SceneReader, other: Room, way: str, width: float, depth: float) -> Point:
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


def _room(
    reader: SceneReader,
    name: str,
    use: str,
    corners: tuple[Point, ...],
    level_id: str,
    house: list[dict[str, Any]],
    told: list[str],
) -> Said:
    here = tuple(item for item in reader.scene.job.rooms if item.level == level_id)
    if any(item.name.casefold() == name.casefold() for item in here):
        raise reader.refuse(f"there is a room {name!r} on this level already")
    ident = next_id(reader.scene.job, "m")
    sides = _sides(ident, corners, here, use)
    item = {"id": ident, "level": level_id, "name": name, "use": use, "corners": corners, "sides": sides}
    return Said([*house, {"op": "add", "kind": "room", "item": item}], room=ident, level=level_id, told=told)


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
    on, house = a_level(reader)
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
        closed = close_chain(legs, _free_corner(reader, on))
    except ValueError as error:
        raise reader.refuse(str(error), at=start) from None
    taken = {item.name.casefold() for item in reader.scene.job.rooms}
    name = name or next(f"Room {n}" for n in range(1, 999) if f"room {n}" not in taken)
    return _room(reader, name, use_of(name), closed.corners, on, house, [])


def _opening(kind: str) -> Callable[[SceneReader], Said]:
    def read(reader: SceneReader) -> Said:
        """KIND WALL WIDTH [x HEIGHT] at PLACE [sill LENGTH] [hinge left|right] [out] [in ROOM]"""
        about = reader.room()
        face = reader.wall(about)
        item: dict[str, Any] = {"kind": kind, "room": about.id, "side": face.index, "width_in": reader.length()}
        height: float | None = None
        if reader.phrase(["x", "by"]):
            height = reader.length()
        sill = 36.0 if kind == "window" else 0.0
        at = None
        reader.phrase(["wide"])
        while not reader.over():
            reader.expect(OPENED)
            if reader.sees_along():
                at = reader.along(face, item["width_in"])
                continue
            word = reader.need(OPENED, "at, sill, hinge or out")
            if word == "at":
                at = reader.along(face, item["width_in"])
            elif word == "in" and reader.sees(reader.scene.rooms()):
                reader.again(about)
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
    """mark KIND WALL [LENGTH] at PLACE [deep LENGTH] [high LENGTH] [from LENGTH] [off LENGTH]: a counter, a basin, a
    shower valve along a wall; an island so far off it, a peninsula at it; a pipe, duct, flue, clean out or nail in
    it, from a height up."""
    kind = reader.need(FIXTURES, "what stands there")
    about = reader.room()
    face = reader.wall(about)
    width, depth, height = FIXTURES[kind]
    at, off, foot = 0.0, ISLAND_OFF_IN if kind == "island" else 0.0, FEET.get(kind, 0.0)
    if not reader.over() and not reader.sees(MARKED):
        width = reader.length()
    while not reader.over():
        word = reader.need(MARKED, "at, deep, high, from, off or all")
        if word == "at":
            at = reader.along(face, width)
        elif word == "in":
            reader.again(about)
        elif word == "off":
            off = reader.length()
        elif word == "from":
            foot = reader.position()
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
            "at_in": at, "width_in": width, "depth_in": depth, "height_in": height, "off_in": off,
            "foot_in": foot}  # fmt: skip
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


def _shutting(field: str, value: bool) -> Callable[[SceneReader], Said]:
    def read(reader: SceneReader) -> Said:
        """close WALL [wall] [in] ROOM, or ROOM: it is not drilled; open up takes that back. avoid WALL: it is left
        alone; use WALL takes that back."""
        rooms = reader.scene.rooms()
        whole = reader.phrase(rooms) if field == "closed" else None
        if whole is not None:
            edit = {"op": "set", "kind": "room", "id": rooms[whole].id, "set": {field: value}}
            return Said([edit], room=rooms[whole].id)
        start, way = reader.pos, reader.need(COMPASS_WORDS, "a wall by the way it faces")
        reader.phrase(["in", "of"])
        named = reader.phrase(rooms)
        about = rooms[named] if named is not None else reader.room()
        walls = {wall.name: wall.index for wall in walls_of(about)}
        side = walls.get(SHORT.get(way, way))
        if side is None:
            raise reader.refuse(f"{about.name} has no wall {way}", start, list(walls))
        return Said([{"op": "set_side", "room": about.id, "side": side, "set": {field: value}}], room=about.id)

    return read


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
    "close": _shutting("closed", True),
    "open up": _shutting("closed", False),
    "avoid": _shutting("avoid", True),
    "use": _shutting("avoid", False),
    **building_words.VERBS,
}
