"""Sentences that build rooms: by their two lengths, or wall after wall."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.job import Job, Room, Side, Structure
from levelrun.core.site.building_words import (
    LEVELS,
    UP,
    UPPER_IN,
    a_level,
    east_north,
    level_of,
    level_set,
    level_there,
    usual_level,
)
from levelrun.core.site.called import BUILDINGS, USE_WORDS, USES, use_of
from levelrun.core.site.framing import depth_of
from levelrun.core.site.geometry import STEPS, Point, close_chain, rectangle, walls_of
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.site.sharing import mates

OVER = ("under", "over", "above", "below")
BESIDE = ("east of", "west of", "north of", "south of")
WAYS = {"n": "north", "e": "east", "s": "south", "w": "west"} | {way: way for way in STEPS}
UNDER_OR_OVER = tuple(word for word in LEVELS if word != "floor")
STAIRS = ("upstairs", "downstairs")
UNDER_HOUSE = ("basement", "crawl", "attic")
# Beside the words that say what a room is for, of what names of rooms are made.
ABOUT_ROOMS = (
    "room", "master", "main", "guest", "spare", "kids", "front", "back", "upper", "lower", "half", "floor",
    "first", "second", "third", "addition", "area", *("upstairs", "downstairs"),
)  # fmt: skip
_NAME_AND_SIZE = re.compile(
    r"""(?:the\s+|a\s+)?(?P<name>[A-Za-z][\w -]*?),?\s+(?=\d+(?:\.\d+)?\s*(?:'|ft\b|"|m\b))""", re.IGNORECASE
)
_SIDE = re.compile(
    r"\s*(?:(?:on|at)\s+the\s+)?(?P<way>north|south|east|west)(?:\s+(?:side|end))?\s+of\s+(?:the\s+)?", re.IGNORECASE
)
OUTER_IN = 3.5  # the wall between a deck and the house
_PLACED = re.compile(r"\d")
_SIZE = re.compile(r"""(?=\s\d+(?:\.\d+)?(?:\s*(?:'|"|ft\b|in\b|mm\b|cm\b|m\b)|-\d)[\d\s'"./-]*(?:x|by)\b)""")


def room(reader: SceneReader) -> Said:
    """room NAME WIDTH x DEPTH [east of NAME [offset LENGTH]] [in BUILDING] [as USE]: inside the studs, east-west by
    north-south. It goes where the room beside it is, or to the building said; one that is called as a building is in
    which nothing is drawn yet, goes there."""
    on, house = a_level(reader)
    sized = size(reader) if reader.sees_length() else None
    reader.phrase(("called", "named"))
    if sized is not None:
        name = reader.name((*BESIDE, *OVER, "in", "as", "at"))
    else:
        name = reader.name(("as", "in")) if not _PLACED.search(reader.text, reader.pos) else _room_name(reader)
    width, depth = sized or size(reader)
    name = name[:1].upper() + name[1:] if name.islower() else name
    buildings = reader.buildings()
    said, corner, use = _namesake(reader, name), None, use_of(name)
    if (
        said is None
        and use in UNDER_HOUSE
        and name.casefold() in UNDER_OR_OVER
        and not reader.sees(("in", "under", "over"))
    ):
        on, more = _on_level(reader, on, house, name.casefold())  # a basement is under the house without saying so
        house = [*house, *more]
    if said is None and (kind := next((k for k in UNDER_OR_OVER if name.casefold().startswith(f"{k} ")), None)):
        on, more = _on_level(reader, on, house, kind)  # an upstairs bath
        house = [*house, *more]
    told = [f"{name} is drawn in the building of its name, {said.name}"] if said is not None else []
    high: float | None = None
    while not reader.over():
        reader.phrase(["with"])
        if reader.sees_length():  # 8' ceilings
            high = reader.length()
            reader.need(("ceilings", "ceiling", "high ceilings", "high ceiling", "high", "tall"), "ceilings or high")
            continue
        if (kind := reader.phrase(STAIRS)) is not None:
            on, more = _on_level(reader, on, house, kind)
            house = [*house, *more]
            continue
        kind = reader.phrase(OVER)
        if kind is not None and reader.sees(_not_buildings(reader)):
            other = reader.room_named()
            corner = (min(x for x, _ in other.corners), min(y for _, y in other.corners))
            on, more = _on_level(reader, other.level, house, _next_to(reader, other, kind in ("over", "above"), use))
            house = [*house, *more]
            continue
        if kind is not None:
            kind = "over" if kind in ("over", "above") else "under"
            _whose(reader, buildings)
            kind = "attic" if kind == "over" else "crawl space" if use == "crawl" else "basement"
            on, more = _on_level(reader, on, house, kind)
            house = [*house, *more]
            continue
        if (way := _side_of(reader)) is not None:
            corner, on = way(width, depth)
            said, told = None, []
            continue
        word = reader.need(
            (*BESIDE, "in", "on", "as", "at", *STAIRS),
            "east of a room, at a place, in a building, upstairs, or as a use",
        )
        if word == "as":
            use = reader.need(USE_WORDS, "a use of rooms")
        elif word == "at":
            corner = east_north(reader)
        elif word in ("in", "on") and (kind := reader.phrase(UNDER_OR_OVER)) is not None:
            on, more = _on_level(reader, on, house, kind)
            house = [*house, *more]
        elif word == "on":
            reader.expect(UNDER_OR_OVER)
            raise reader.fail("a level: second floor, basement, attic")
        elif word == "in":
            said, told = buildings[reader.need(buildings, "a building by its name")], []
        else:
            other = reader.room_named()
            corner = _beside(reader, other, word.partition(" ")[0], width, depth)
            said, told, on = None, [], other.level
    own = reader.scene.job.structure_of(on).name if not house else "House"
    if said is None and name.casefold() in BUILDINGS and name.casefold() != own.casefold():
        told.append(f"{name} is a room of {own}; say `detached {name.lower()}` where it stands apart")
    if said is not None:
        floor = next((level for level in said.levels if level.kind == "floor"), None)
        if floor is None:
            raise reader.refuse(f"{said.name} has no floor yet: look at it and say `level floor`")
        on = floor.id
    whole = one_room(reader.scene.job, on)
    if whole is not None and corner is None:
        house = [*house, {"op": "clear_room", "room": whole.id}]
        told = [*told, f"{whole.name} was one room; it is drawn room by room now"]
    if corner is None:
        corner = _free_corner(reader, on, whole)
    if high is not None:
        house = [*house, *_heightened(reader, on, house, high)]
    return made_room(reader, name, use, rectangle(*corner, width, depth), on, house, told)


def _side_of(reader: SceneReader) -> Callable[[float, float], tuple[Point, str]] | None:
    """On the north side of the house, north of the house: outside of all its rooms, in its middle. None where no such
    side of a building with rooms is said here."""
    start = reader.pos
    if (side := reader.take(_SIDE)) is None:
        return None
    buildings, rooms = reader.buildings(), reader.scene.rooms()
    word = None if reader.sees(rooms) else reader.phrase(buildings)
    floor = next((lv.id for lv in buildings[word].levels if lv.kind == "floor"), "") if word is not None else ""
    corners = [point for room in reader.scene.job.rooms if room.level == floor for point in room.corners]
    if not corners:
        reader.pos = start
        return None
    xs, ys, way = [x for x, _ in corners], [y for _, y in corners], side["way"].lower()

    def placed(width: float, depth: float) -> tuple[Point, str]:
        x, y = (min(xs) + max(xs) - width) / 2, (min(ys) + max(ys) - depth) / 2
        at = {
            "north": (x, max(ys) + OUTER_IN), "south": (x, min(ys) - OUTER_IN - depth),
            "east": (max(xs) + OUTER_IN, y), "west": (min(xs) - OUTER_IN - width, y),
        }  # fmt: skip
        return at[way], floor

    return placed


def _heightened(reader: SceneReader, on: str, house: list[dict[str, Any]], high: float) -> list[dict[str, Any]]:
    """The edits that make the rooms of a level so high; a building that this sentence puts up is made so."""
    for level in _levels_said(house):
        if level["id"] == on:
            level["height_in"] = high
            return []
    return [level_set(reader.scene.job.structure_of(on), on, {"height_in": high})]


def _levels_said(house: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The levels of the building that these edits put up or change, as plain data of theirs; none where none does."""
    found = ((edit.get("item") or edit.get("set") or {}).get("levels") for edit in house)
    return next((levels for levels in found if levels), [])


def one_room(job: Job, level_id: str) -> Room | None:
    """The one room that a building is as long as its rooms are not drawn: of its name, with nothing in it."""
    here = [room for room in job.rooms if room.level == level_id]
    if len(here) != 1 or here[0].name != job.structure_of(level_id).name:
        return None
    inside = (*job.openings, *job.fixtures, *job.nodes)
    return None if any(item.room == here[0].id for item in inside) else here[0]


def sized_name(reader: SceneReader) -> Said | None:
    """Laundry room 8' x 10': a room by its name and size alone, of a name that is made of words for rooms. None where
    a sentence begins otherwise."""
    found = _NAME_AND_SIZE.match(reader.text, reader.pos)
    words = found["name"].lower().split() if found is not None else []
    known = {*USES, *ABOUT_ROOMS}
    called = len(words) > 1 and words[-1] == "room"  # a rec room, whatever that is
    if not words or words[0] == "room" or not (called or all(word in known or word.isdigit() for word in words)):
        return None
    start = reader.pos
    reader.pos = found.end() if found is not None else start
    reader.length()
    sized = reader.phrase(("x", "by")) is not None
    reader.pos = start
    reader.phrase(("the", "a"))
    return room(reader) if sized else None


def _on_level(
    reader: SceneReader, on: str, house: list[dict[str, Any]], kind: str
) -> tuple[str, list[dict[str, Any]]]:
    """The basement, attic or crawl space of the building looked at; one that is not there yet with its edits."""
    job = reader.scene.job
    levels = _levels_said(house)
    if levels:  # the building, or a level of it, is put up by this sentence
        same = level_there(levels, kind)
        if same is not None:
            return str(same["id"]), []
        ident = next_id(job, "v")
        usual = {"id": ident if levels[0]["id"] != ident else "v2", **usual_level(kind, levels)}
        levels.append(usual)
        levels.sort(key=lambda level: float(level.get("floor_in", 0)))
        return usual["id"], []
    owner = job.structure_of(on)
    said = level_of(reader, owner, kind, bare=True)
    return said.level or on, said.edits


def _not_buildings(reader: SceneReader) -> list[str]:
    """The rooms by their names, but those that a building is called as."""
    buildings = {name.casefold() for name in reader.buildings()}
    return [name for name in reader.scene.rooms() if name.casefold() not in buildings]


def _next_to(reader: SceneReader, other: Room, over: bool, use: str) -> str:
    """The level over or under that of a room, by its word."""
    owner = reader.scene.job.structure_of(other.level)
    here = next(level for level in owner.levels if level.id == other.level)
    if over:
        return "attic" if use == "attic" else "floor" if here.floor_in < 0 else UP[here.floor_in >= UPPER_IN]
    return "crawl space" if use == "crawl" else "basement" if here.floor_in < UPPER_IN else "floor"


def size(reader: SceneReader) -> Point:
    """East-west by north-south."""
    width = reader.length()
    reader.need(("x", "by"), "x and the depth")
    return width, reader.length()


def _whose(reader: SceneReader, buildings: dict[str, Structure]) -> None:
    """The building whose level it is, taken: by its name, or as the house that this sentence puts up."""
    kinds = {item.kind for item in reader.scene.job.structures}
    known = [word for word, kind in BUILDINGS.items() if not kinds or kind in kinds]
    if reader.phrase(buildings) is None and reader.phrase(known) is None:
        reader.expect(buildings)
        raise reader.fail("a building by its name")


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
    return said.removesuffix(" is").strip(" ,")


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


def _free_corner(reader: SceneReader, level_id: str, gone: Room | None = None) -> Point:
    """East of everything on the level but a room that goes; the origin where nothing stands there yet."""
    here = [room for room in reader.scene.job.rooms if room.level == level_id and room is not gone]
    if not here:
        return (0.0, 0.0)
    return max(x for room in here for x, _ in room.corners) + 3.5, min(y for room in here for _, y in room.corners)


def made_room(
    reader: SceneReader,
    name: str,
    use: str,
    corners: tuple[Point, ...],
    level_id: str,
    house: list[dict[str, Any]],
    told: list[str],
) -> Said:
    """The edits of a room by its corners, after those of the house that it stands in."""
    gone = {edit["room"] for edit in house if edit["op"] == "clear_room"}
    here = tuple(item for item in reader.scene.job.rooms if item.level == level_id and item.id not in gone)
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
    return made_room(reader, name, use_of(name), closed.corners, on, house, [])


VERBS = {"room": room, "wall": wall}
