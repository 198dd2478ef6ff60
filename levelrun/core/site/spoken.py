"""Sentences about rooms and walls that begin with them: how they are framed, how wet they are, how high."""

from __future__ import annotations

from typing import Any

from levelrun.core.errors import TextError
from levelrun.core.job import Level, Room, Structure
from levelrun.core.site.building_words import level_set
from levelrun.core.site.frame_words import STUDS, framed
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.local_notes import local_note
from levelrun.core.site.marking import stands
from levelrun.core.site.naming import COMPASS
from levelrun.core.site.opening_spoken import ADD, gone, opening, opening_is
from levelrun.core.site.room_words import room, sized_name
from levelrun.core.site.scene import IS, Said, SceneReader, walls_by_name
from levelrun.core.site.structure_words import building, with_level
from levelrun.core.site.words import OPENINGS, placed_in, size_of


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
    """Bath is damp; the kitchen is laid out; Kitchen is 15' x 12', make Kitchen 15' x 12'."""
    rooms = reader.scene.rooms()
    reader.phrase(("make", "resize"))
    word = reader.phrase(rooms)
    if word is None:
        return None
    reader.phrase(IS)
    about = rooms[word]
    if reader.phrase(["laid out"]):
        return Said([{"op": "set", "kind": "room", "id": about.id, "set": {"laid_out": True}}], room=about.id)
    if reader.sees_length():
        return _resized(reader, about)
    return placed_in(reader, about) if reader.sees(("dry", "damp", "wet", "hit", "guarded")) else None


def _resized(reader: SceneReader, about: Room) -> Said | None:
    """East-west by north-south anew: its east and north walls move, with the other face of each."""
    start = reader.pos
    wide, deep = size_of(reader)
    if deep is None or not reader.over():
        return None
    sides = {wall.name: wall for wall in walls_of(about)}
    if set(sides) != {"north", "east", "south", "west"}:
        raise reader.refuse(f"{about.name} has {len(sides)} walls: move them one by one", start)
    by = {"east": wide - sides["north"].length_in, "north": deep - sides["east"].length_in}
    edits = [
        {"op": "move_wall", "room": about.id, "side": sides[name].index, "by_in": inches}
        for name, inches in by.items()
        if abs(inches) > 1e-6
    ]
    if not edits:
        raise reader.refuse(f"{about.name} is so large already", start)
    moved = " and ".join(name for name, inches in by.items() if abs(inches) > 1e-6)
    return Said(edits, room=about.id, told=[f"its {moved} wall{'s' * (len(edits) > 1)} moved"])


def walls(reader: SceneReader) -> Said | None:
    """The north wall of Kitchen is 2x6; kitchen walls are 2x4 at 16" on center; all walls 2x6."""
    rooms = reader.scene.rooms()
    start = reader.pos
    if reader.phrase(STUDS) is not None and reader.phrase(("walls", "studs")) is not None and reader.over():
        reader.pos = start  # concrete walls, of the room looked at
        return framed(reader, reader.room(), None)
    reader.pos = start
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
        said = framed(reader, about, side)
        # a wall of which only that is said is closed at rough-in, which has its own record
        return None if said.edits[0]["set"].keys() == {"closed"} else said
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
    edit = level_set(owner, level.id, values)
    room = reader.scene.room
    return Said([edit], level=level.id, room=room.id if room is not None and room.level == level.id else None)


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


def heading(reader: SceneReader) -> Said | None:
    """In the bedroom; Bedroom: what follows is about that room. House: about that building."""
    led = reader.phrase(["in"]) is not None
    start, buildings = reader.pos, reader.buildings()
    if (word := reader.phrase(buildings)) is not None and _ended(reader) and buildings[word].levels:
        levels = buildings[word].levels
        floor = next((level for level in levels if level.kind == "floor"), levels[0])
        return Said([], level=floor.id, told=[f"what follows is about {buildings[word].name}"])
    reader.pos = start
    rooms = reader.scene.rooms()
    word = reader.phrase(rooms)
    if word is None or not (_ended(reader) or (led and reader.over())):
        return None
    return Said([], room=rooms[word].id, told=[f"what follows is about {rooms[word].name}"])


def _ended(reader: SceneReader) -> bool:
    """A colon behind which nothing stands, taken."""
    reader.skip()
    if not reader.text.startswith(":", reader.pos):
        return False
    reader.pos += 1
    return reader.over()


SPOKEN = (
    heading,
    local_note,
    gone,
    opening_is,
    opening,
    building,
    with_level,
    sized_room,
    like,
    walls,
    joists,
    sized_name,
    stands,
)
