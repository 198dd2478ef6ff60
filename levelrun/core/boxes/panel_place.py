"""Where a panel stands that is said by what is there: a building, the door of its wall."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.working_space import WIDE_IN
from levelrun.core.job import Room
from levelrun.core.site.building_words import new_building
from levelrun.core.site.called import BUILDINGS
from levelrun.core.site.geometry import Wall
from levelrun.core.site.scene import SceneReader
from levelrun.core.site.words import DOORS, OPENINGS

_BY_A_DOOR = re.compile(
    rf"(?:just\s+)?(?:inside\s+)?(?:of\s+)?(?:by|beside|next\s+to|near|inside)\s+(?:of\s+)?(?:the\s+|its\s+)?"
    rf"(?:(?P<wall>north|south|east|west)\s+)?(?P<kind>{DOORS})\b",
    re.IGNORECASE,
)
CASING_IN = 6.0  # a jamb's casing and a little more: common practice, no source


def beside_door(reader: SceneReader, room: Room, face: Wall) -> float:
    """Where along its wall a panel stands beside the door there, on the side that has room. Refuses no door, several
    of them, and one beside which there is none."""
    view = room_view(reader.scene.job, reader.scene.book, room.id)
    doors = [door for own, door in view.doors if own.wall.index == face.index]
    walked = [door for door in doors if door.kind != "garage_door"]
    doors = walked if len(walked) == 1 else doors
    if len(doors) != 1:
        raise reader.refuse(f"{len(doors) or 'no'} door is in the {face.name} wall: say how far from a corner")
    (door,), off, half = doors, WIDE_IN / 2 + CASING_IN, WIDE_IN / 2
    spots = [at for at in (door.to_in + off, door.at_in - off) if half <= at <= face.length_in - half]
    if not spots:
        raise reader.refuse(f"there is no room beside the {face.name} door: say another wall")
    return spots[0]


def by_the_door(reader: SceneReader, room: Room, face: Wall | None = None) -> Wall | None:
    """Inside next to the man door: the wall of the one door that is meant, with the words taken up to `door`, which
    `beside_door` then places it by. `face`: of that wall. None where no such door is named here. Refuses several."""
    reader.skip()
    found = _BY_A_DOOR.match(reader.text, reader.pos)
    if found is None:
        return None
    view = room_view(reader.scene.job, reader.scene.book, room.id)
    word, way = found["kind"].lower(), (found["wall"] or "").lower()
    doors = [
        (own, door) for own, door in view.doors
        if face is None or own.wall.index == face.index
        if (word == "door" or door.kind == OPENINGS[word]) and (not way or own.wall.name.split()[0] == way)
    ]  # fmt: skip
    if word == "door" and any(door.kind != "garage_door" for _, door in doors):
        doors = [pair for pair in doors if pair[1].kind != "garage_door"]
    if len(doors) != 1:
        named = [f"{own.wall.name} {door.kind.replace('_', ' ')}" for own, door in view.doors]
        where = f" in the {face.name} wall" if face is not None else ""
        raise reader.refuse(f"{room.name} has {len(doors) or 'no'} such doors{where}: say which", reader.pos, named)
    reader.pos = found.end()
    return doors[0][0].wall


def structure_in_words(reader: SceneReader) -> tuple[str, list[dict[str, Any]]]:
    """A structure by its name, or by its kind: the one there is, else a new one."""
    named = {name: item.id for name, item in reader.buildings().items()}
    known = {name.lower() for name in named}
    word = reader.need([*named, *(kind for kind in BUILDINGS if kind not in known)], "a building")
    if word in named:
        return named[word], []
    ident, _, made = new_building(reader, BUILDINGS[word], word.capitalize())
    return ident, made
