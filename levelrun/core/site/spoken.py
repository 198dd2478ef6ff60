"""Sentences about rooms and walls that begin with them: how they are framed, how wet they are, how high."""

from __future__ import annotations

from typing import Any

from levelrun.core.errors import TextError
from levelrun.core.job import Level, Room, Structure
from levelrun.core.site.room_words import room
from levelrun.core.site.scene import COMPASS, IS, Said, SceneReader, walls_by_name
from levelrun.core.site.words import OPENINGS, framed, opening_in, placed_in, size_of

ADD = ("add", "make", "build", "put")


def sized_room(reader: SceneReader) -> Said | None:
    """A 12' x 10' den east of the kitchen; add a room 12' x 10' called Den."""
    added = reader.phrase(ADD) is not None
    reader.phrase(("a", "an"))
    if not reader.sees_length():
        return room(reader) if added and reader.phrase(["room"]) and reader.sees_length() else None
    start = reader.pos
    _, depth = size_of(reader)
    if depth is None or reader.sees(OPENINGS):
        return None
    reader.pos = start
    return room(reader)


def like(reader: SceneReader) -> Said | None:
    """Bath is damp; the kitchen is laid out."""
    rooms = reader.scene.rooms()
    word = reader.phrase(rooms)
    if word is None:
        return None
    reader.phrase(IS)
    about = rooms[word]
    if reader.phrase(["laid out"]):
        return Said([{"op": "set", "kind": "room", "id": about.id, "set": {"laid_out": True}}], room=about.id)
    return placed_in(reader, about) if reader.sees(("dry", "damp", "wet", "hit", "guarded")) else None


def walls(reader: SceneReader) -> Said | None:
    """The north wall of Kitchen is 2x6; kitchen walls are 2x4 at 16" on center; all walls 2x6."""
    rooms = reader.scene.rooms()
    word = reader.phrase(rooms)
    about: Room | None = rooms[word] if word is not None else reader.room_ahead() or reader.scene.room
    if about is None:
        return None
    side: int | None = None
    if reader.phrase(("walls", "all walls", "every wall", "studs", "framing")) is None:
        if not reader.sees(COMPASS):
            return None
        face = reader.phrase(walls_by_name(about))
        if face is None:
            return None
        side = walls_by_name(about)[face].index
    if reader.phrase(["of"]) is not None:
        reader.again(about)
    reader.phrase(IS)
    start = reader.pos
    try:
        return framed(reader, about, side)
    except TextError:
        if reader.pos == start:
            return None
        raise


def joists(reader: SceneReader) -> Said | None:
    """Joists run north south; House ceiling is 9'; the ceiling is 8'6."""
    names = reader.buildings()
    word = reader.phrase(names)
    what = reader.phrase(("joists", "ceiling height", "ceiling"))
    if what is None:
        return None
    if word is None and reader.phrase(["of"]):
        word = names[reader.need(names, "a building")].name
    reader.phrase(IS)
    values: dict[str, Any]
    if what == "joists":
        reader.phrase(("run", "runs"))
        way = reader.phrase(("ew", "ns", "east west", "north south", "east-west", "north-south"))
        if way is None:
            return None
        values = {"joists": "x" if way[0] == "e" else "y"}
    else:
        if not reader.sees_length():
            return None
        values = {"height_in": reader.length()}
        reader.phrase(["high"])
    owner, level = _level(reader, names[word] if word is not None else None)
    levels = [{**item.model_dump(), **(values if item.id == level.id else {})} for item in owner.levels]
    return Said([{"op": "set", "kind": "structure", "id": owner.id, "set": {"levels": levels}}], level=level.id)


def _level(reader: SceneReader, owner: Structure | None) -> tuple[Structure, Level]:
    """The level looked at; of a building that is named its main floor."""
    level = reader.level()
    if owner is None or any(item.id == level.id for item in owner.levels):
        found = next(s for s in reader.scene.job.structures if any(item.id == level.id for item in s.levels))
        return found, level
    floor = next((item for item in owner.levels if item.kind == "floor"), None)
    if floor is None:
        raise reader.refuse(f"{owner.name} has no floor yet")
    return owner, floor


def opening(reader: SceneReader) -> Said | None:
    """Put a door in the kitchen south wall, 3' wide; a 4' x 3' window on the north wall, centered."""
    said = reader.phrase((*ADD, "cut", "install")) is not None
    reader.phrase(("a", "an"))
    size = size_of(reader) if reader.sees_length() else None
    kind = reader.phrase(OPENINGS)
    if kind is None or not (said or size):
        return None
    return opening_in(reader, OPENINGS[kind], size)


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
    own = [
        item for item in reader.scene.job.openings
        if item.room == about.id and item.kind == OPENINGS[kind] and side in (None, item.side)
    ]  # fmt: skip
    if len(own) != 1:
        raise reader.refuse(
            f"{about.name} has {len(own) or 'no'} such {kind}{'s' if len(own) > 1 else ''}: say its wall"
        )
    return Said([{"op": "drop", "kind": "opening", "id": own[0].id}], room=about.id)


SPOKEN = (gone, opening, sized_room, like, walls, joists)
