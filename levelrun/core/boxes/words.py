"""Sentences about boxes and panels: rooms filled, panels on a wall or in words."""

from __future__ import annotations

from collections.abc import Callable

from levelrun.core.boxes.panel_words import panel
from levelrun.core.boxes.setting import set_box
from levelrun.core.site.scene import Said, SceneReader


def fill(reader: SceneReader) -> Said:
    """fill [in ROOM|every room]: the boxes that a room still lacks."""
    if reader.phrase(["every room", "all"]):
        level = reader.level()
        rooms = [room for room in reader.scene.job.rooms if room.level == level.id]
    else:
        rooms = [reader.room_named() if not reader.over() and not reader.sees(["in"]) else reader.room()]
    return Said([{"op": "fill_room", "room": room.id} for room in rooms], room=rooms[0].id if rooms else None)


VERBS: dict[str, Callable[[SceneReader], Said]] = {"set": set_box, "fill": fill, "panel": panel}
