"""Sentences that build: rooms, chains of walls, openings, framing, what stands along walls."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.job import Room
from levelrun.core.measure import show, show_inches
from levelrun.core.site import building_words, frame_words, marking, room_words, structure_words
from levelrun.core.site.geometry import Wall, walls_of
from levelrun.core.site.naming import SHORT
from levelrun.core.site.scene import Along, Said, SceneReader, walls_by_name
from levelrun.core.site.sharing import mates

OPENINGS = {
    "door": "door", "window": "window", "windows": "window", "opening": "opening", "garage door": "garage_door",
    "glass door": "glass_door", "walk door": "door", "entry door": "door", "front door": "door", "back door": "door",
    "outside door": "door", "exterior door": "door", "interior door": "door", "man door": "door",
    "overhead door": "garage_door", "roll-up door": "garage_door", "sliding door": "glass_door",
    "bay door": "garage_door", "big door": "garage_door", "rollup door": "garage_door", "roll up door": "garage_door",
    **{f"{kind} window": "window" for kind in ("egress", "basement", "picture", "bay", "casement", "double hung")},
    "side door": "door", "patio door": "glass_door", "doorway": "opening", "cased opening": "opening",
}  # fmt: skip
# A pattern of the words for doors, the longest first.
DOORS = "|".join(sorted((word for word, kind in OPENINGS.items() if kind != "window"), key=len, reverse=True))
# How wide they are taken to be where nobody says, which is told: common practice, no source.
USUAL_IN = {"door": 36.0, "window": 36.0, "glass_door": 72.0, "opening": 36.0}
CENTRED = (
    "in the middle of",
    "in the center of",
    "in the centre of",
    "centered on",
    "centered in",
    "in the middle on",
)
LEAVES = {"door": (18.0, 42.0), "garage_door": (84.0, 240.0)}  # how wide they are made, common practice, no source
# Doors are spoken of in inches, places along a wall in feet: 2' 30" is a door of 30 in.
_IN_INCHES, _IN_FEET = re.compile(r"^\s*\d+(?:\.\d+)?\s*(?:\"|in\b)"), re.compile(r"\d\s*(?:'|ft\b)\s*$")
TALL = (72.0, 108.0)  # and how tall
BESIDE_IN = 6.0  # so far aside an opening is tried where another one is in the way
ON_WALL = ("on", "in", "along")
_EACH = ("each wall", "every wall", "each of the walls", "all walls", "all the walls", "all four walls", "each side")
EACH_WALL = tuple(f"{on} {each}" for on in ON_WALL for each in _EACH)
OPENED = ("at", "sill", "hinge", "out", "in", "of")
COMPASS_WORDS: list[str] = [*SHORT, *SHORT.values()]
COMPASS_WORDS += [f"{way} {n}" for way in SHORT.values() for n in (2, 3, 4)]


def _opening(kind: str) -> Callable[[SceneReader], Said]:
    def read(reader: SceneReader) -> Said:
        """KIND WALL WIDTH [x HEIGHT] at PLACE [sill LENGTH] [hinge left|right] [out] [in ROOM]"""
        return opening_in(reader, kind, None)

    return read


def size_of(reader: SceneReader) -> tuple[float, float | None]:
    """How wide an opening is, and how high where that is said: 3', 3' wide, 4' x 3', 4' wide, 3' tall."""
    wide = reader.length()
    if reader.phrase(["x", "by"]):
        return wide, reader.length()
    start = reader.pos
    if reader.phrase(["wide"]) is None or not reader.sees_length():
        return wide, None
    height = reader.length()
    if reader.phrase(("tall", "high")) is not None:
        return wide, height
    reader.pos = start
    return wide, None


def opening_in(reader: SceneReader, kind: str, size: tuple[float, float | None] | None, count: int = 1) -> Said:
    """What follows a door or window: its wall, its size unless that was said before, where it is along the wall;
    `count`: so many of them on each wall that is said."""
    begin = reader.pos
    size = size_of(reader) if size is None and reader.sees_length() else size
    reader.phrase(CENTRED)  # as it is where no place is said
    between = _between(reader) or _over_a_thing(reader)
    about = reader.room() if between is None else between[0]
    faces = [between[1]] if between is not None else _walls_said(reader, about)
    face = faces[0]
    item: dict[str, Any] = {"kind": kind, "room": about.id, "side": face.index}
    wide, height = (
        size
        if size is not None or reader.over() or reader.sees(OPENED) or reader.sees_along() or not reader.sees_length()
        else size_of(reader)
    ) or (None, None)
    sill = 36.0 if kind == "window" else 0.0
    place: Along | None = None
    more = list[Along]()  # the places of several, but the first
    first, told = reader.text[begin : reader.pos], list[str]()
    while not reader.over():
        reader.expect(OPENED)
        if count > 1 and place is not None and reader.phrase(["and"]) is not None:
            more.append(reader.place_along())
            continue
        if reader.sees_along():
            place = reader.place_along()
            continue
        if reader.sees_length():  # 3' wide, 4' tall; from 4' to 7'
            inches, start = reader.length(), reader.expected[0]
            by_inches = _IN_INCHES.search(reader.text[start : reader.pos]) is not None
            word = reader.phrase(("tall", "high", "wide", "to"))
            if word == "to" and place is None:
                place, wide = _span(reader, inches, start)
            elif word == "wide" and place is None and reader.sees_length():  # 8' wide 32": the width stands behind it
                place, wide = Along(inches), reader.length()
            elif word == "wide" and place is None and wide is not None:  # 4' 36" wide: its place was said first
                place, wide = Along(wide), inches
            elif word == "wide" or (word is None and wide is None):
                wide = inches
            elif word is None and place is None and wide is not None and _a_leaf(kind, inches, wide):
                place, wide = Along(wide), inches
            elif word is None and place is None and wide is not None and _a_leaf(kind, wide, inches):
                place = Along(inches)
            elif word is None and place is None and kind == "door" and by_inches and _IN_FEET.search(first) and (
                LEAVES["door"][0] <= inches <= LEAVES["door"][1]
            ):  # fmt: skip
                place, wide = Along(wide or 0.0), inches
                told.append(f"{show_inches(inches)} wide, {show(place.inches)} from the left; say `wide` otherwise")
            elif word is None or word == "to" or height is not None:
                raise reader.refuse(f"{show(inches)}: say `at` before its place, tall after its height", start)
            else:
                height = inches
            continue
        if place is None and wide is not None and reader.phrase(["to"]) is not None:  # 4' to 7'
            place, wide = _span(reader, wide, reader.pos)
            continue
        if reader.phrase(["wide"]) is not None:  # 8' wide 32": the width stands behind it
            if wide is not None and place is None and not reader.sees_along() and reader.sees_length():
                start = reader.pos
                inches = reader.length()
                if _a_leaf(kind, inches, wide, bare=False):
                    place, wide = Along(wide), inches
                else:
                    reader.pos = start
            continue
        if reader.phrase(["from"]) is not None:
            continue
        word = reader.need(OPENED, "at, sill, hinge or out")
        if word == "at":
            place = reader.place_along()
        elif word == "of" or (word == "in" and reader.sees(reader.scene.rooms())):
            reader.again(about)
        elif word == "sill":
            sill = reader.length()
        elif word == "hinge":
            item["hinge"] = reader.need(("left", "right"), "left or right")
        else:
            item["swings_in"] = word == "in"
    if wide is None and kind in USUAL_IN:
        wide = USUAL_IN[kind]
        told.append(f"{show_inches(wide)} wide, as nobody said; say `wide` and how wide where it is not")
    if wide is None:
        reader.expect(["3' wide"])
        raise reader.fail("how wide it is")
    item["width_in"] = wide
    head = sill + (height if height is not None else 82.0 if kind != "window" else 46.0)
    item |= {"sill_in": sill, "head_in": head}
    if kind == "door" and wide >= LEAVES["garage_door"][0]:
        item["kind"] = "garage_door"
        told.append(f"{show(wide)} wide: taken as a garage door")
    if place is not None and len(more) != count - 1:
        places = f"{1 + len(more)} place{'s' * bool(more)}"
        raise reader.refuse(f"{count} of them at {places}: say a place for each, as `at 3' and 8'`")
    edits = []
    for one in faces:
        said = [reader.along_at(one, own, wide) for own in (place, *more)] if place is not None else []
        if between is not None and place is None:
            said = [between[2] - wide / 2]
        for at in said or _free_of(reader, about, one, wide, count):
            if at < 0 or at + wide > one.length_in + 1e-6:
                raise reader.refuse(
                    f"a {kind.replace('_', ' ')} from {max(at, 0):g} to {at + wide:g} in does not fit the "
                    f"{one.name} wall of {one.length_in:g} in"
                )
            edits.append({"op": "add", "kind": "opening", "item": {**item, "side": one.index, "at_in": max(at, 0.0)}})
    return Said(edits, room=about.id, told=told)


def _free_of(reader: SceneReader, about: Room, face: Wall, wide: float, count: int) -> list[float]:
    """Where so many openings of which nobody said where begin along a wall: evenly, one in its middle; beside what is
    in the way where there is room. Refuses more than it has room for."""
    if count * wide > face.length_in:
        raise reader.refuse(
            f"{count * wide:g} in of openings do not fit the {face.name} wall of {face.length_in:g} in"
        )
    taken = [
        (o.at_in, o.at_in + o.width_in)
        for o in reader.scene.job.openings
        if o.room == about.id and o.side == face.index
    ]
    begins = [face.length_in * (number + 0.5) / count - wide / 2 for number in range(count)]
    steps = [way * BESIDE_IN * n for n in range(int(face.length_in // BESIDE_IN) + 1) for way in (1, -1)]
    for off in steps:
        moved = [at + off for at in begins]
        inside = moved[0] >= 0 and moved[-1] + wide <= face.length_in
        if inside and not any(low < at + wide and at < high for at in moved for low, high in taken):
            return moved
    return begins


def _walls_said(reader: SceneReader, about: Room) -> list[Wall]:
    """The walls that get the same: one, several with `and`, each of the room."""
    start = reader.pos
    if reader.phrase(EACH_WALL) is not None:
        if reader.phrase(("of", "in")) is not None:
            reader.again(about)
        return list(walls_of(about))
    reader.pos = start
    return [reader.wall(about), *_more_walls(reader, about)]


def _more_walls(reader: SceneReader, about: Room) -> list[Wall]:
    """More walls that get the same: windows north and south."""
    found: list[Wall] = []
    while True:
        start = reader.pos
        if reader.phrase(["and"]) is None or not reader.sees(walls_by_name(about)):
            reader.pos = start
            return found
        found.append(reader.wall(about))


def _span(reader: SceneReader, begin: float, start: int) -> tuple[Along, float]:
    """Where it begins, and how wide it is by where it ends. Refuses an end before its beginning."""
    end = reader.length()
    if end <= begin:
        raise reader.refuse(f"{show(begin)} to {show(end)}: the lower one first", start)
    return Along(begin, reader.corner()), end - begin


def _a_leaf(kind: str, inches: float, other: float, bare: bool = True) -> bool:
    """Whether of two lengths the first can only be the width of a door, and the other only its place; bare: it may be
    its height too."""
    low, high = LEAVES.get(kind, (0.0, 0.0))
    return low <= inches <= high and not (low <= other <= high or (bare and TALL[0] <= other <= TALL[1]))


def _over_a_thing(reader: SceneReader) -> tuple[Room, Wall, float] | None:
    """Over the sink, and its wall where that is said too: the middle of what is marked, or of that wall as long as
    none is."""
    start = reader.pos
    if reader.phrase(("over", "above", "behind")) is None or (word := reader.phrase(marking.NAMED)) is None:
        reader.pos = start
        return None
    about, kind = reader.room(), marking.NAMED[word]
    walls = walls_of(about)
    face = reader.wall(about) if reader.sees((*ON_WALL, *walls_by_name(about))) else None
    own = [
        item for item in reader.scene.job.fixtures
        if item.room == about.id and item.kind == kind.replace(" ", "_") and face in (None, walls[item.side])
    ]  # fmt: skip
    if len(own) == 1:
        return about, walls[own[0].side], own[0].at_in + own[0].width_in / 2
    if face is None or own:
        many = f"{len(own)} of them are" if own else "none is"
        raise reader.refuse(f"{word}: {many} marked in {about.name}; say the wall and how far along", start)
    return about, face, face.length_in / 2


def _between(reader: SceneReader) -> tuple[Room, Wall, float] | None:
    """Between Kitchen and Hall: the wall that the first shares with the second, and the middle of what they share of
    it. Refuses two rooms that share none."""
    start = reader.pos
    if reader.phrase(["between"]) is None:
        return None
    one = reader.room_named()
    reader.need(("and",), "and a room")
    two = reader.room_named()
    shared = [
        (mate.to_in - mate.from_in, mate, side)
        for (room, side), own in mates(tuple(r for r in reader.scene.job.rooms if r.level == one.level)).items()
        for mate in own
        if room == one.id and mate.room == two.id
    ]
    if not shared:
        raise reader.refuse(f"{one.name} and {two.name} share no wall", start)
    _, mate, side = max(shared, key=lambda item: item[0])
    return one, walls_of(one)[side], (mate.from_in + mate.to_in) / 2


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
    **marking.VERBS,
    **frame_words.VERBS,
    "place": place,
    "move": move,
    "laid out": laid_out,
    "close": _shutting("closed", True),
    "open up": _shutting("closed", False),
    "avoid": _shutting("avoid", True),
    "use": _shutting("avoid", False),
    **structure_words.VERBS,
    **building_words.VERBS,
}
