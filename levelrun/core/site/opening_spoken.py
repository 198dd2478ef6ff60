"""Sentences about doors and windows that begin with them, or with the verb of everyday."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.job import Opening, Room
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import IS, Said, SceneReader, walls_by_name
from levelrun.core.site.words import OPENINGS, opening_in, size_of
from levelrun.core.words import COUNTS

NUMBERS = {**COUNTS, **{str(n): n for n in COUNTS.values()}}
_DOORS = "|".join(sorted(OPENINGS, key=len, reverse=True))
_SEVERAL = re.compile(
    rf"(?P<n>{'|'.join(NUMBERS)})\s+(?=(?:[\d'\"./]+\s*(?:ft|in|foot|feet)?\s*(?:(?:x|by|wide)\s*)*)*(?:{_DOORS})s?\b)",
    re.IGNORECASE,
)  # two windows, 2 9' doors
ADD = ("add", "make", "build", "put")
TURNS = ("swings", "opens", "swinging", "hinged", "hinge", "hinges", "on the", "to", "at", "and")


def opening(reader: SceneReader) -> Said | None:
    """Put a door in the kitchen south wall, 3' wide; a 4' x 3' window on the north wall, centered; two 9' doors on
    the south wall."""
    said = reader.phrase((*ADD, "cut", "install")) is not None
    reader.phrase(("a", "an"))
    several = reader.take(_SEVERAL)
    count = NUMBERS[several["n"].lower()] if several is not None else 1
    size = size_of(reader) if reader.sees_length() else None
    kinds = OPENINGS if several is None else {**OPENINGS, **{f"{word}s": kind for word, kind in OPENINGS.items()}}
    kind = reader.phrase(kinds)
    if kind is None or not (said or size or several):
        return None
    return opening_in(reader, kinds[kind], size, count)


def _only(reader: SceneReader, about: Room, kind: str, side: int | None, at: int | None = None) -> Opening:
    """The one opening of a kind in a room, on this wall where one is said. Refuses none, and several."""
    own = [
        item for item in reader.scene.job.openings
        if item.room == about.id and item.kind == OPENINGS[kind] and side in (None, item.side)
    ]  # fmt: skip
    if len(own) != 1:
        many = f"{len(own) or 'no'} such {kind}{'s' if len(own) > 1 else ''}"
        raise reader.refuse(f"{about.name} has {many}: say its wall", at)
    return own[0]


def gone(reader: SceneReader) -> Said | None:
    """Remove the door in Bath; delete the window in the north wall of Kitchen."""
    if reader.phrase(("remove", "delete", "take out")) is None or (kind := reader.phrase(OPENINGS)) is None:
        return None
    about = reader.room()
    walls = walls_by_name(about)
    reader.phrase(("in", "on"))
    side = walls[word].index if (word := reader.phrase(walls)) is not None else None
    if reader.phrase(("in", "of")) is not None:
        reader.again(about)
    found = _only(reader, about, kind, side)
    return Said([{"op": "drop", "kind": "opening", "id": found.id}], room=about.id)


def opening_is(reader: SceneReader) -> Said | None:
    """The walk door swings out; the south door in Den is hinged right, 32" wide, at 3'; move the window 1' left."""
    moved = reader.phrase(["move"]) is not None
    about = reader.room_ahead() or reader.scene.room
    if about is None:
        return None
    walls = walls_by_name(about)
    wall = reader.phrase(walls)
    kind = reader.phrase(OPENINGS)
    if kind is None:
        return None
    if reader.phrase(("in", "on", "of")) is not None:
        if wall is None and reader.sees(walls):
            wall = reader.phrase(walls)
        else:
            reader.again(about)
    linked = reader.phrase((*IS, "swings", "opens", "goes")) is not None
    if not (moved or linked):
        return None
    side = walls[wall].index if wall is not None else None
    found = _only(reader, about, kind, side, reader.pos)
    values, face = dict[str, Any](), walls_of(about)[found.side]
    while not reader.over():
        word = reader.phrase(
            ("swings", "opens", "swinging", "hinged", "hinge", "hinges", "on the", "to", "at", "and")
        )
        if (turn := reader.phrase(("in", "out", "inward", "outward"))) is not None:
            values["swings_in"] = turn.startswith("in")
        elif reader.sees_length():
            place = reader.place_along()
            way = reader.phrase(("wide", "left", "right"))
            width = values.get("width_in", found.width_in)
            if way == "wide":
                values["width_in"] = place.inches
            elif way is not None:
                values["at_in"] = found.at_in + place.inches * (1 if way == "right" else -1)
            else:
                values["at_in"] = reader.along_at(face, place, width)
        elif (hand := reader.phrase(("left", "right"))) is not None:
            values["hinge"] = hand
        elif word is None:
            return None
    if not values:
        return None
    at, wide = values.get("at_in", found.at_in), values.get("width_in", found.width_in)
    if at < 0 or at + wide > face.length_in + 1e-6:
        raise reader.refuse(
            f"from {at:g} to {at + wide:g} in does not fit the {face.name} wall of {face.length_in:g} in"
        )
    return Said([{"op": "set", "kind": "opening", "id": found.id, "set": values}], room=about.id)
