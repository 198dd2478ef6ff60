"""Surfaces of a room: its walls by number, its ceiling, its floor; which box stands in which."""

from __future__ import annotations

from levelrun.core.job import Box, Job, Level, Panel, Room
from levelrun.core.site.geometry import walls_of

CEILING, FLOOR = "ceiling", "floor"
HIGH = 0.5  # what stands on no wall and over this share of the room's height is in its ceiling


def surface_of(node: Box | Panel, level: Level) -> str:
    """The surface that a box of a room stands in."""
    if node.side is not None:
        return str(node.side)
    return CEILING if node.height_in - level.floor_in >= HIGH * level.height_in else FLOOR


def surface_name(room: Room, surface: str) -> str:
    """north wall, ceiling, floor."""
    if not surface.isdigit():
        return surface
    walls = walls_of(room)
    return f"{walls[int(surface)].name} wall" if int(surface) < len(walls) else f"wall {surface}"


def place_name(job: Job, room_id: str, surface: str) -> str:
    """A surface with its room: Kitchen, north wall."""
    room = job.room(room_id)
    return f"{room.name}, {surface_name(room, surface)}"


def surface_sizes(room: Room, level: Level, surface: str) -> tuple[float, float]:
    """How wide and how tall a surface is, inches: of a ceiling or floor east and north."""
    if surface.isdigit():
        return walls_of(room)[int(surface)].length_in, level.height_in
    xs, ys = [x for x, _ in room.corners], [y for _, y in room.corners]
    return max(xs) - min(xs), max(ys) - min(ys)


def readings_of(node: Box | Panel, room: Room, level: Level) -> tuple[float, float] | None:
    """The two readings of a box: along its wall and over the floor; in a ceiling or floor from the room's west and
    south. None where it stands in no room."""
    if node.at_in is not None:
        return node.at_in, node.height_in - level.floor_in
    if node.x_in is None or node.y_in is None:
        return None
    return node.x_in - min(x for x, _ in room.corners), node.y_in - min(y for _, y in room.corners)


def level_of(job: Job, room: Room) -> Level:
    """The level of a room. Raises KeyError."""
    for structure in job.structures:
        for level in structure.levels:
            if level.id == room.level:
                return level
    raise KeyError(room.level)


def nodes_on(job: Job) -> dict[tuple[str, str], list[Box | Panel]]:
    """Boxes and panels by room and surface."""
    levels = {level.id: level for item in job.structures for level in item.levels}
    rooms = {room.id: levels[room.level] for room in job.rooms}
    found: dict[tuple[str, str], list[Box | Panel]] = {}
    for node in job.nodes:
        if node.room is not None:
            found.setdefault((node.room, surface_of(node, rooms[node.room])), []).append(node)
    return found
