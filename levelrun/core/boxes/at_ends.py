"""Boxes in the corners of rooms, and at the ends of stairs and halls: a switch at the bottom and at the top, so that
nobody walks back in the dark (210.70(A)(2))."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.boxes.catalogue import usual_model
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.placing import on_studs, tape
from levelrun.core.job import Room
from levelrun.core.site.faces import Face
from levelrun.core.site.scene import SceneReader, walls_by_name

Spot = dict[str, Any]
IN_IN = 12.0  # from an end of the wall: common practice, no source
_ENDS = re.compile(
    r"(?:(?:by|at|near|on)\s+)?(?:the\s+)?(?P<ends>both\s+ends|each\s+end|either\s+end|(?P<one>top|bottom|foot|head)"
    r"(?:\s+(?:and|&)\s+(?:(?:at|by)\s+)?(?:the\s+)?(?P<other>top|bottom|foot|head))?)\b"
    r"(?:\s+of\s+(?:the\s+)?(?P<what>(?:basement\s+|cellar\s+)?(?:stairs|steps|staircase|stairway|stairwell)|hall(?:way)?"
    r"|corridor|it)\b)?",
    re.IGNORECASE,
)
CORNER_IN = 24.0  # from a corner: common practice, no source
_CORNER = re.compile(
    r"(?:in|at|into)\s+(?:the\s+|a\s+)?(?:(?P<ns>north|south)[\s-]?(?P<ew>east|west)(?:ern)?\s+)?corner\b",
    re.IGNORECASE,
)
UP = ("top", "head")


def at_ends(reader: SceneReader, about: Room, item: dict[str, Any]) -> list[Spot]:
    """At the bottom of the stairs, at the top and bottom, at both ends of the hall: on the longest wall near its
    ends; at the top of stairs as high over the floor that is there. Empty where none is named."""
    reader.skip()
    found = _ENDS.match(reader.text, reader.pos)
    if found is None or item["kind"] not in ("switch", "light", "receptacle"):
        return []
    start, reader.pos = reader.pos, found.end()
    stairs = about.use == "stairs"
    ends = [found["one"], found["other"]] if found["one"] else ["bottom", "top"]
    if not stairs and found["one"] and (beside := _beside_stairs(reader, about, item)):
        return beside
    if not stairs and found["one"]:
        raise reader.refuse(f"{about.name} is no stairs: say `in` and the room with the stairs", start)
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    face = max(view.faces, key=lambda face: face.wall.length_in)
    low, high = _low_end(view, face), face.wall.length_in
    wide = usual_model(view.book, item["kind"], 1).wide_in
    studs = [at for at, _ in on_studs(view, face, 0.0, high, wide) if min(at, high - at) > wide]
    rise = _rise(reader, about) if stairs else 0.0
    if rise is None and any(end in UP for end in ends if end):
        raise reader.refuse(f"no floor is over {about.name}: say `level upstairs` first", start)
    spots: list[Spot] = []
    for end in filter(None, ends):
        up = end in UP
        at = IN_IN if (low == 0.0) != up else high - IN_IN
        at = min(studs, key=lambda stud: abs(stud - at), default=at)
        spots.append({"side": face.wall.index, "at_in": tape(at), **({"over_in": rise} if up and rise else {})})
    if len(spots) > 1 and item["kind"] == "switch" and item.get("ways", 2) == 2:
        spots = [{**spot, "ways": 3} for spot in spots]
    return spots


def _beside_stairs(reader: SceneReader, about: Room, item: dict[str, Any]) -> list[Spot]:
    """Beside the stairs that are drawn along a wall of a room: on the nearest stud. Empty where none are, or two."""
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    drawn = [(face, thing) for face in view.faces for thing in face.fixtures if thing.kind == "stairs"]
    if len(drawn) != 1:
        return []
    ((face, thing),) = drawn
    low, high, wide = thing.at_in, thing.at_in + thing.width_in, usual_model(view.book, item["kind"], 1).wide_in
    studs = [at for at, _ in on_studs(view, face, 0.0, face.wall.length_in, wide) if not low < at < high]
    at = min(studs, key=lambda stud: min(abs(stud - low), abs(stud - high)), default=None)
    return [] if at is None else [{"side": face.wall.index, "at_in": tape(at)}]


def in_corner(reader: SceneReader, about: Room, hung: bool) -> list[Spot]:
    """In the northeast corner: on the north wall two feet from there; what hangs, as far from both walls. Empty where
    no corner is named. Refuses one of which nobody said which, and one that the room has not."""
    reader.skip()
    found = _CORNER.match(reader.text, reader.pos)
    if found is None:
        return []
    walls = walls_by_name(about)
    known = [f"in the {a}{b} corner" for a in ("north", "south") for b in ("east", "west")]
    if not found["ns"]:
        raise reader.refuse("say which corner, as `in the northeast corner`", reader.pos, known)
    ns, ew = found["ns"].lower(), found["ew"].lower()
    if ns not in walls:
        raise reader.refuse(f"{about.name} has no one {ns} wall: say a wall and how far along", reader.pos)
    reader.pos = found.end()
    if hung:
        xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
        x = max(xs) - CORNER_IN if ew == "east" else min(xs) + CORNER_IN
        return [{"x_in": tape(x), "y_in": tape(max(ys) - CORNER_IN if ns == "north" else min(ys) + CORNER_IN)}]
    return [{"side": walls[ns].index, "at_in": tape(reader.from_left(walls[ns], CORNER_IN, ew))}]


def _low_end(view: RoomView, face: Face) -> float:
    """The end of a wall at which stairs begin: nearest to a door of their room; the left one where it has none."""
    ends = [face.wall.at(at, 0.0) for at in (0.0, face.wall.length_in)]
    doors = [own.wall.at((door.at_in + door.to_in) / 2, 0.0) for own, door in view.doors]
    if not doors:
        return 0.0
    off = [min((x - p) ** 2 + (y - q) ** 2 for p, q in doors) for x, y in ends]
    return 0.0 if off[0] <= off[1] else face.wall.length_in


def _rise(reader: SceneReader, about: Room) -> float | None:
    """From the floor of a room to the next one over it, inches; None where there is none."""
    levels = reader.scene.job.structure_of(about.level).levels
    here = next(level.floor_in for level in levels if level.id == about.level)
    over = [level.floor_in for level in levels if level.floor_in > here and level.kind != "attic"]
    return min(over) - here if over else None
