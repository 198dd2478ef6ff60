"""Lights over doors, and openers for them: over the garage doors, over the south door, for each garage door."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.boxes.beside import door_text
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.parts import LAMPS
from levelrun.core.boxes.placing import tape
from levelrun.core.job import Room
from levelrun.core.measure import show
from levelrun.core.site.geometry import is_inside
from levelrun.core.site.scene import SceneReader
from levelrun.core.site.words import DOORS, OPENINGS

Spot = dict[str, Any]
OVER_IN = 10.0  # from the head of a door to the middle of the light over it: common practice, no source
_OVER = re.compile(
    rf"(?:over|above)\s+(?:(?P<all>each|every|both|all)\s+(?:of\s+)?)?(?:the\s+)?"
    rf"(?:(?P<wall>north|south|east|west)\s+)?(?P<kind>{DOORS})(?P<several>s)?\b"
    r"(?:\s+on\s+(?:the\s+)?(?P<on>north|south|east|west)(?:\s+wall)?\b)?",
    re.IGNORECASE,
)


_FOR = re.compile(
    rf"(?:(?:on|in)\s+the\s+ceiling\s+)?for\s+(?:(?P<all>each|every|both|all)\s+(?:of\s+)?)?(?:the\s+)?"
    rf"(?:(?P<wall>north|south|east|west)\s+)?(?:{DOORS})(?P<several>s)?\b",
    re.IGNORECASE,
)


def opener_for(reader: SceneReader, about: Room, item: dict[str, Any], told: list[str]) -> list[Spot]:
    """For each garage door, for the only one where none is named: under the ceiling so far in as is the habit. Empty
    where an opener is not meant or there is no such door. Refuses where several could be meant."""
    reader.skip()
    if item.get("serves") != "opener":
        return []
    start, found = reader.pos, _FOR.match(reader.text, reader.pos)
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    if found is None and not (reader.over() and any(door.kind == "garage_door" for _, door in view.doors)):
        return []
    reader.pos = found.end() if found is not None else start
    way = (found["wall"] or "").lower() if found is not None else ""
    doors = [
        (face, door) for face, door in view.doors
        if door.kind == "garage_door" and (not way or face.wall.name.split()[0] == way)
    ]  # fmt: skip
    if not doors or (len(doors) > 1 and not (found is not None and (found["all"] or found["several"]))):
        raise reader.refuse(f"{about.name} has {len(doors) or 'no'} such doors: say which, or `each`", start)
    off = reader.scene.job.habits.opener_from_door_in
    told.append(f"{show(off)} in from the door, as is the habit; say how far otherwise")
    spots = [face.wall.at((door.at_in + door.to_in) / 2, -off) for face, door in doors]
    if not all(is_inside(about.corners, spot) for spot in spots):
        raise reader.refuse(f"{show(off)} in from that door is out of {about.name}", start)
    return [{"x_in": tape(x), "y_in": tape(y)} for x, y in spots]


def over_door(
    reader: SceneReader, about: Room, item: dict[str, Any], count: int | None, told: list[str]
) -> list[Spot]:
    """Over the door: one light over each that is meant, several over one shared out along it; outside where it leads
    there, which is told. Empty where no door is named. Refuses where several could be meant."""
    reader.skip()
    found = _OVER.match(reader.text, reader.pos)
    if found is None or item["kind"] not in LAMPS:
        return []
    start, reader.pos = reader.pos, found.end()
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    word, way = found["kind"].lower(), (found["wall"] or found["on"] or "").lower()
    kind = None if word == "door" else OPENINGS[word]
    doors = [
        (face, door) for face, door in view.doors
        if kind in (None, door.kind) and (not way or face.wall.name.split()[0] == way)
    ]  # fmt: skip
    named = [door_text(view, *pair) for pair in doors]
    if not doors:
        raise reader.refuse(f"{about.name} has no such door", start)
    several = bool(found["several"] or found["all"] or count in (-1, len(doors)))
    if len(doors) > 1 and not several:
        raise reader.refuse(f"{about.name} has {len(doors)} such doors: say which", start, named)
    if all(view.beside(door) == "outdoors" for _, door in doors) and not item.get("outdoors"):
        item["outdoors"] = True
        told.append("outside, over the door; say `in the middle of the ceiling` for one inside")
    each = max(count or 1, 1) if len(doors) == 1 else 1
    floor = next(lv.floor_in for s in reader.scene.job.structures for lv in s.levels if lv.id == about.level)
    return [
        {
            "side": face.wall.index,
            "at_in": tape(door.at_in + (door.to_in - door.at_in) * (number + 0.5) / each),
            "height_in": floor + door.head_in + OVER_IN,
        }
        for face, door in doors
        for number in range(each)
    ]
