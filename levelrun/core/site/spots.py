"""Where boxes and panels stand on the site."""

from __future__ import annotations

from collections.abc import Collection
from functools import lru_cache

from levelrun.core.job import Box, Job, Panel, Room
from levelrun.core.site.geometry import Point, walls_of


def spots(job: Job, wanted: Collection[str]) -> dict[str, Point]:
    """Inches east and north on the site of boxes and panels, by id, where they stand in a room, at its stud face."""
    rooms = {room.id: room for room in job.rooms}
    origin = {item.id: (item.x_in, item.y_in) for item in job.structures}
    found: dict[str, Point] = {}
    for node in job.nodes:
        if node.id not in wanted:
            continue
        room = rooms.get(node.room or "")
        if room is None:
            continue
        found[node.id] = _spot(node, room, origin[node.structure])
    return found


@lru_cache(maxsize=4096)
def _spot(node: Panel | Box, room: Room, origin: Point) -> Point:
    if node.side is not None and node.at_in is not None:
        x, y = walls_of(room)[node.side].at(node.at_in)
    else:
        x, y = node.x_in or 0.0, node.y_in or 0.0
    return (x + origin[0], y + origin[1])
