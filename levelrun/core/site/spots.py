"""Where boxes and panels stand on the site."""

from __future__ import annotations

from levelrun.core.job import Job
from levelrun.core.site.geometry import Point, walls_of


def spots(job: Job) -> dict[str, Point]:
    """Inches east and north on the site of every box and panel that stands in a room, at its stud face."""
    rooms = {room.id: room for room in job.rooms}
    origin = {item.id: (item.x_in, item.y_in) for item in job.structures}
    found: dict[str, Point] = {}
    for node in job.nodes:
        room = rooms.get(node.room or "")
        if room is None:
            continue
        if node.side is not None and node.at_in is not None:
            x, y = walls_of(room)[node.side].at(node.at_in)
        else:
            x, y = node.x_in or 0.0, node.y_in or 0.0
        found[node.id] = (x + origin[node.structure][0], y + origin[node.structure][1])
    return found
