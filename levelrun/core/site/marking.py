"""Sentences about what stands along walls: a counter, a basin, a pipe in the wall."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.job import Fixture, Room
from levelrun.core.site.geometry import Wall, walls_of
from levelrun.core.site.naming import COMPASS
from levelrun.core.site.room_words import size
from levelrun.core.site.scene import Along, Said, SceneReader, walls_by_name

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
ISLANDS = ("island", "peninsula")
ISLAND_DEEP_IN = 36.0  # an island of which only the length is said: common practice, no source
ISLAND_OFF_IN = 67.0  # a counter 25 deep and 42 to walk between
# Other words for them.
ALIKE = {
    "fridge": "refrigerator", "freezer": "refrigerator", "stove": "range", "vanity": "basin", "lavatory": "basin",
    "wash basin": "basin", "bathtub": "tub", "bath tub": "tub", "countertop": "counter", "counters": "counter",
    "countertops": "counter", "base cabinets": "counter", "cabinets": "cabinet", "kitchen sink": "sink",
    **dict.fromkeys(("utility sink", "laundry sink", "slop sink", "bar sink", "prep sink", "deep sink"), "sink"),
    "shower stall": "shower", "kitchen counter": "counter", "kitchen counters": "counter", "bar counter": "counter",
    "kitchen island": "island", "wood stove": "fireplace", "woodstove": "fireplace", "hearth": "fireplace",
}  # fmt: skip
NAMED = {**{word: word for word in FIXTURES}, **ALIKE}
WHOLE = ("counter", "cabinet")  # along a wall they take all of it
MIDDLE = ("in the middle", "in the center", "in the centre", "centered", "centred")
LED = ("on", "along", "in", "at", "against")
PLUGGED_IN = ("range", "refrigerator", "dishwasher")
PLUGGED = ("outlet", "outlets", "receptacle", "receptacles", "plug", "plugs", "light", "circuit", "is", "draws")
_WINDOW = re.compile(
    r"(?:under|below|at|by)\s+(?:the\s+)?(?:(?P<wall>north|south|east|west)\s+)?window\b"
    r"(?:\s+(?:on|in)\s+(?:the\s+)?(?P<on>north|south|east|west)(?:\s+wall)?\b)?",
    re.IGNORECASE,
)
_THING = "|".join(sorted(NAMED, key=len, reverse=True))
_BESIDE = re.compile(
    r"(?:next to|beside|by|(?:to\s+)?(?:the\s+)?(?P<side>left|right)(?:\s+hand)?(?:\s+side)?\s+of)\s+(?:the\s+)?"
    rf"(?P<kind>{_THING})\b"
    r"(?:,?\s+on\s+(?:the\s+|its\s+)?(?P<hand>left|right)(?:\s+side)?)?",
    re.IGNORECASE,
)
_BETWEEN = re.compile(
    rf"between\s+(?:the\s+)?(?P<one>{_THING})\s+and\s+(?:the\s+)?(?P<two>{_THING})\b", re.IGNORECASE
)
# At an end of a wall, or of the counter along all of it.
_END = re.compile(
    r"(?:at|on|in)\s+(?:the\s+)?(?P<way>north|south|east|west|left|right)(?:ern)?(?:\s+hand)?\s+end\s+of\s+(?:the\s+)?"
    r"(?P<wall>north|south|east|west|n|e|s|w)(?:\s+(?:wall|counters?|run))?\b",
    re.IGNORECASE,
)
_CORNER = re.compile(
    r"(?:in|at)\s+(?:the\s+)?(?P<wall>north|south)[\s-]?(?P<way>east|west)(?:ern)?\s+corner\b", re.IGNORECASE
)
ONE_WIDTH = ("sink", "tub", "shower", "range", "refrigerator", "dishwasher", "fireplace")
SOLD_BY_WIDTH = ("basin",)  # a vanity is called by its inches
ONE_WIDTH_IN = 6.0  # so much they differ from maker to maker: common practice, no source
_SIZE = re.compile(r"\s*\d[^a-wyz]*?\s*(?:x|by)\s*\d", re.IGNORECASE)
NEARLY = (0.6, 2.0)  # a length of so many times the usual width may be the width of a thing


def mark(reader: SceneReader) -> Said:
    """mark KIND WALL [LENGTH] at PLACE [deep LENGTH] [high LENGTH] [from LENGTH] [off LENGTH]: a counter, a basin, a
    shower valve along a wall; an island so far off it, a peninsula at it; a pipe, duct, flue, clean out or nail in
    it, from a height up."""
    kind = NAMED[reader.need(NAMED, "what stands there")]
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
    _refuse_past(reader, face, at, width)
    if off and kind not in ISLANDS:
        raise reader.refuse(f"a {kind} stands at its wall; off it stand {' and '.join(ISLANDS)}")
    return Said([_fixture(about, face, kind, at, width, depth, height, off, foot)], room=about.id)


def _refuse_past(reader: SceneReader, face: Wall, at: float, wide: float) -> None:
    if at + wide > face.length_in + 1e-6:
        raise reader.refuse(f"it would end at {at + wide:g} in; the {face.name} wall is {face.length_in:g} in")


def stands(reader: SceneReader) -> Said | None:
    """A tub along the north wall; vanity 30" wide on the west wall, 2' from the south corner; sink under the window;
    dishwasher next to the sink; counters along the south and west walls. None where no such thing begins here."""
    reader.phrase(("add", "put", "place"))
    reader.phrase(("a", "an"))
    if (island := _island(reader)) is not None:
        return island
    width = reader.length() if reader.sees_length() else None
    word = reader.phrase([name for name in NAMED if NAMED[name] not in IN_WALLS])
    if not reader.scene.job.rooms:
        return None
    if word is None or reader.sees(PLUGGED) or reader.text.startswith(":", reader.pos):
        return None
    if reader.over():
        kitchen = any(room.use == "kitchen" for room in reader.scene.job.rooms)
        if reader.scene.verb == "from" or (NAMED[word] in PLUGGED_IN and kitchen):
            return None  # an outlet for it, behind it or where a wall of the kitchen is free
        raise reader.refuse(
            f"say where the {word} stands, as `{word} on the north wall` or `{word} under the window`"
        )
    kind = NAMED[word]
    if width is None and reader.sees_length():
        width = reader.length()
        reader.phrase(("wide", "long"))
    about = reader.room()
    if (beside := _beside(reader, about, kind, width)) is not None:
        return beside
    reader.skip()
    end = _END.match(reader.text, reader.pos) or _CORNER.match(reader.text, reader.pos)
    if end is not None:
        return _at_end(reader, about, kind, width, end)
    start = reader.pos
    middle = reader.phrase(MIDDLE) is not None
    if middle and reader.over():
        return _in_counter(reader, about, kind, width)
    reader.phrase((*LED, "of"))
    if not reader.sees(COMPASS):
        reader.pos = start
        return None
    edits = [_along_wall(reader, about, kind, width)]
    while reader.phrase(["and"]) is not None:
        reader.phrase(LED)
        edits.append(_along_wall(reader, about, kind, width))
    return Said(edits, room=about.id)


def _in_counter(reader: SceneReader, about: Room, kind: str, width: float | None) -> Said:
    """In the middle of the one counter of its room, of which no wall is said."""
    counters = [item for item in reader.scene.job.fixtures if item.room == about.id and item.kind == "counter"]
    if len(counters) != 1:
        there = f"{about.name} has {len(counters) or 'no'} counters"
        raise reader.refuse(f"{there}: say a wall, as `{kind} in the middle of the north wall`")
    usual, depth, height = FIXTURES[kind]
    face, wide = walls_of(about)[counters[0].side], width or usual
    at = counters[0].at_in + (counters[0].width_in - wide) / 2
    _refuse_past(reader, face, at, wide)
    return Said([_fixture(about, face, kind, at, wide, depth, height, 0.0)], room=about.id)


def _island(reader: SceneReader) -> Said | None:
    """An island 3' x 6' in the middle, an island 6' long: by east-west and north-south, off the south wall of the
    room. None where none is said so."""
    start = reader.pos
    sized = _size(reader)
    found = reader.phrase(("island", "kitchen island")) is not None
    sized = sized or (_size(reader) if found else None)
    alone = found and sized is None and reader.sees_length()
    if alone:
        sized = (reader.length(), ISLAND_DEEP_IN)
        if reader.phrase(["long"]) is None:
            reader.pos = start
            return None
    middle = (alone or sized is not None) and found and reader.over()
    middle |= reader.phrase(MIDDLE) is not None
    if not found or sized is None or not middle:
        reader.pos = start
        return None
    about = reader.room()
    if reader.phrase(("of", "in")) is not None and reader.phrase(("room", "it")) is None:
        reader.again(about)
    face = walls_by_name(about).get("south")
    if face is None:
        raise reader.refuse(f"{about.name} has no one south wall: say a wall, and `off` how far", start)
    deep = max(y for _, y in about.corners) - min(y for _, y in about.corners)
    wide, long = sized
    if wide > face.length_in or long > deep:
        raise reader.refuse(f"{wide:g} by {long:g} in do not fit {about.name}", start)
    at, off = (face.length_in - wide) / 2, (deep - long) / 2
    return Said([_fixture(about, face, "island", at, wide, long, FIXTURES["island"][2], off)], room=about.id)


def _size(reader: SceneReader) -> tuple[float, float] | None:
    """Two lengths with x between them, taken; None where none stand here."""
    return size(reader) if _SIZE.match(reader.text, reader.pos) is not None else None


def _along_wall(reader: SceneReader, about: Room, kind: str, width: float | None) -> dict[str, Any]:
    """A wall, where along it, how wide and deep; all of it where a counter's place is not said, else its middle."""
    walls = walls_by_name(about)
    face = walls[reader.need(walls, f"a wall of {about.name}")]
    reader.phrase(("walls", "wall"))
    usual, depth, height = FIXTURES[kind]
    place = None
    while not reader.over() and not reader.sees(["and"]):
        if reader.phrase(MIDDLE) is not None:
            pass  # as it is where no place is said
        elif reader.phrase(("in", "of")) is not None:
            reader.again(about)
        elif reader.phrase(["at"]) is not None or reader.sees_along():
            place = reader.place_along()
        elif reader.phrase(["all"]) is not None:
            width = face.length_in
        elif reader.phrase(["from"]) is None:
            begin, inches = reader.pos, reader.length()
            said = reader.text[begin : reader.pos]
            word = reader.phrase(("wide", "long", "deep", "to"))
            if word == "to":  # from 4' to 8'
                place, width = Along(inches), reader.length() - inches
            elif word == "deep":
                depth = inches
            elif word is not None:
                width = inches
            elif place is None and kind in SOLD_BY_WIDTH and said.rstrip().endswith(('"', "in")):
                width = inches  # a vanity of 30"
            elif place is None and kind not in WHOLE and (kind == "toilet" or _no_width(kind, inches, said)):
                place = Along(inches)
            else:
                reader.expect(("wide", "long", "deep"))
                raise reader.fail("wide or deep after a length, or `at` before a place")
    whole = kind in WHOLE and place is None
    wide = width if width is not None else face.length_in if whole else min(usual, face.length_in)
    if wide <= 0:
        raise reader.refuse("it ends before it begins: the lower one first")
    at = (face.length_in - wide) / 2 if place is None else reader.along_at(face, place, wide)
    _refuse_past(reader, face, at, wide)
    off = ISLAND_OFF_IN if kind == "island" else 0.0
    return _fixture(about, face, kind, at, wide, depth, height, off)


def _no_width(kind: str, inches: float, said: str) -> bool:
    """Whether a length without a word cannot be how wide a thing is: of what is made in one width or so, what is said
    in feet and is not that; else what is far from it."""
    usual, (low, high) = FIXTURES[kind][0], NEARLY
    if kind in ONE_WIDTH and "'" in said:
        return abs(inches - usual) > ONE_WIDTH_IN
    return not low * usual <= inches < high * usual


def _at_end(reader: SceneReader, about: Room, kind: str, width: float | None, end: re.Match[str]) -> Said:
    """At the west end of the north wall."""
    walls = walls_by_name(about)
    face = walls.get(end["wall"].lower())
    if face is None:
        raise reader.refuse(f"{about.name} has no wall {end['wall']}", end.start("wall"), list(walls))
    usual, depth, height = FIXTURES[kind]
    wide = min(width or usual, face.length_in)
    reader.pos = end.end()
    at = reader.from_left(face, 0.0, end["way"].lower(), wide)
    return Said([_fixture(about, face, kind, at, wide, depth, height, 0.0)], room=about.id)


def _fixture(
    about: Room,
    face: Wall,
    kind: str,
    at: float,
    wide: float,
    depth: float,
    height: float,
    off: float,
    foot: float = 0.0,
) -> dict[str, Any]:
    item = {
        "kind": "island" if kind in ISLANDS else kind.replace(" ", "_"), "room": about.id, "side": face.index,
        "at_in": at, "width_in": wide, "depth_in": depth, "height_in": height, "off_in": off, "foot_in": foot,
    }  # fmt: skip
    return {"op": "add", "kind": "fixture", "item": item}


def _beside(reader: SceneReader, about: Room, kind: str, width: float | None) -> Said | None:
    """Under the window; next to the sink: on its right where there is room, else on its left. None where neither is
    said."""
    start = reader.pos
    job, walls = reader.scene.job, walls_of(about)
    usual, depth, height = FIXTURES[kind]
    wide = width or usual
    if (match := _WINDOW.match(reader.text, reader.pos)) is not None:
        wanted = match["wall"] or match["on"]
        found = [
            item for item in job.openings
            if item.room == about.id and item.kind == "window"
            and (wanted is None or walls[item.side].name.split()[0] == wanted.lower())
        ]  # fmt: skip
        if len(found) != 1:
            raise reader.refuse(f"{about.name} has {len(found) or 'no'} such window: say a wall and a place", start)
        face, at = walls[found[0].side], found[0].at_in + found[0].width_in / 2 - wide / 2
    elif (match := _BESIDE.match(reader.text, reader.pos)) is not None:
        thing = _one_marked(reader, about, match["kind"], start)
        face = walls[thing.side]
        right, left = thing.at_in + thing.width_in, thing.at_in - wide
        hand = (match["hand"] or match["side"] or "").lower()
        at = left if hand == "left" or (not hand and right + wide > face.length_in and left >= 0) else right
    elif (match := _BETWEEN.match(reader.text, reader.pos)) is not None:
        first, last = (_one_marked(reader, about, match[key], start) for key in ("one", "two"))
        face = walls[first.side]
        if first.side != last.side:
            raise reader.refuse(f"{match['one']} and {match['two']} stand on two walls: say a wall", start)
        first, last = sorted((first, last), key=lambda item: item.at_in)
        at = (first.at_in + first.width_in + last.at_in - wide) / 2
    else:
        return None
    reader.pos = match.end()
    if reader.phrase(("in", "of")) is not None:
        reader.again(about)
    if not -1e-6 <= at <= face.length_in - wide + 1e-6:
        raise reader.refuse(f"there is no room for {wide:g} in there on the {face.name} wall", start)
    return Said([_fixture(about, face, kind, max(at, 0.0), wide, depth, height, 0.0)], room=about.id)


def _one_marked(reader: SceneReader, about: Room, word: str, start: int) -> Fixture:
    """The one thing of a kind that is marked in a room. Refuses none and several."""
    kind = NAMED[word.lower()].replace(" ", "_")
    there = [item for item in reader.scene.job.fixtures if item.room == about.id and item.kind == kind]
    if len(there) != 1:
        raise reader.refuse(f"{len(there) or 'no'} such thing is marked in {about.name}: say a wall", start)
    return there[0]


IN_WALLS = ("pipe", "duct", "clean out", "flue", "nail", "return air", "heater", "water heater")
VERBS = {"mark": mark}
