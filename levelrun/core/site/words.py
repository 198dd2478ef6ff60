"""Sentences that build: rooms, chains of walls, openings, framing, what stands along walls."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from levelrun.core.job import Room
from levelrun.core.site import building_words, room_words
from levelrun.core.site.framing import FINISHES
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import SHORT, Said, SceneReader

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
OPENINGS = {
    "door": "door", "window": "window", "opening": "opening", "garage door": "garage_door",
    "glass door": "glass_door",
}  # fmt: skip
OPENED = ("at", "sill", "hinge", "out", "in")
ISLANDS = ("island", "peninsula")
ISLAND_OFF_IN = 67.0  # a counter 25 deep and 42 to walk between
STUDS = ("2x3", "2x4", "2x6", "2x8", "furring", "metal", "log", "block", "open")
CENTRES = ("on center", "on centre", "on centers", "oc", "o.c.", "apart")
INSULATED = {
    "batts": "batts", "foam": "foam", "no insulation": "none", "insulated": "batts", "foamed": "foam",
    "spray foam": "foam", "not insulated": "none",
}  # fmt: skip
COMPASS_WORDS: list[str] = [*SHORT, *SHORT.values()]
COMPASS_WORDS += [f"{way} {n}" for way in SHORT.values() for n in (2, 3, 4)]


def _opening(kind: str) -> Callable[[SceneReader], Said]:
    def read(reader: SceneReader) -> Said:
        """KIND WALL WIDTH [x HEIGHT] at PLACE [sill LENGTH] [hinge left|right] [out] [in ROOM]"""
        return opening_in(reader, kind, None)

    return read


def size_of(reader: SceneReader) -> tuple[float, float | None]:
    """How wide an opening is, and how high where that is said: 3', 3' wide, 4' x 3'."""
    wide = reader.length()
    if reader.phrase(["x", "by"]):
        return wide, reader.length()
    reader.phrase(["wide"])
    return wide, None


def opening_in(reader: SceneReader, kind: str, size: tuple[float, float | None] | None) -> Said:
    """What follows a door or window: its wall, its size unless that was said before, where it is along the wall."""
    size = size_of(reader) if size is None and reader.sees_length() else size
    about = reader.room()
    face = reader.wall(about)
    wide, height = size or size_of(reader)
    item: dict[str, Any] = {"kind": kind, "room": about.id, "side": face.index, "width_in": wide}
    sill = 36.0 if kind == "window" else 0.0
    at = None
    while not reader.over():
        reader.expect(OPENED)
        if reader.sees_along():
            at = reader.along(face, item["width_in"])
            continue
        if height is None and reader.sees_length():  # 3' wide, 4' tall
            height = reader.length()
            reader.need(("tall", "high"), "tall after a height")
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
    return framed(reader, about, None if every else reader.wall(about).index)


def framed(reader: SceneReader, about: Room, side: int | None) -> Said:
    """What follows a wall, or all of a room: studs, spacing, finish, insulation."""
    finishes = [*FINISHES, "no finish"]
    values: dict[str, Any] = {}
    while not reader.over():
        reader.phrase(["and"])
        if reader.phrase(("in", "of")) is not None:
            reader.again(about)
            continue
        if not reader.sees(STUDS) and reader.sees_length():
            values["spacing_in"] = reader.length()
            reader.phrase(CENTRES)
            continue
        word = reader.need(
            (*STUDS, "at", "first", "bearing", "partition", *INSULATED, *finishes),
            "studs, a spacing, a finish or insulation",
        )
        if word in STUDS:
            values["stud"] = word
            reader.phrase(["studs"])
        elif word == "at":
            values["spacing_in"] = reader.length()
            reader.phrase(CENTRES)
        elif word == "first":
            values["first_stud_in"] = reader.length()
        elif word in ("bearing", "partition"):
            values["bearing"] = word == "bearing"
        elif word in INSULATED:
            values["insulation"] = INSULATED[word]
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
    return placed_in(reader, reader.room())


def placed_in(reader: SceneReader, about: Room) -> Said:
    """What follows a room: how wet, whether hit, how hot, its bays."""
    values: dict[str, Any] = {}
    while not reader.over():
        reader.phrase(["and"])
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
    """move WALL out|in LENGTH: a wall, with the other face of it; the length may stand first."""
    about = reader.room()
    face = reader.wall(about)
    if reader.phrase(("of", "in")) is not None:
        reader.phrase([about.name])
    by = reader.length() if reader.sees_length() else None
    way = reader.need(("out", "in"), "out or in")
    by = (reader.length() if by is None else by) * (1 if way == "out" else -1)
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
    **room_words.VERBS,
    **{word: _opening(kind) for word, kind in OPENINGS.items()},
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
