"""Where a smoke alarm hangs: away from the stove and from the steam of a bath (IRC R314.3.3)."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import lru_cache

from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.parts import OVERHEAD
from levelrun.core.site.geometry import Point, is_inside

COOKING_IN, BATH_DOOR_IN = 120.0, 36.0
APART_IN = 18.0  # from a light or fan on the same ceiling: common practice, no source
AWAY_IN = 24.0  # from the middle, where the light hangs: common practice, no source


def near_steam(view: RoomView, spot: Point) -> Iterator[tuple[str, float, float]]:
    """What a place under the ceiling is too near to, how far it is off, and how far it has to be, inches."""
    for face in view.faces:
        for item in face.fixtures:
            off = math.dist(spot, face.wall.at(item.at_in + item.width_in / 2, -item.depth_in / 2))
            if item.kind == "range" and off < COOKING_IN - 1e-6:
                yield "range", off, COOKING_IN
        for door in face.openings:
            wet = door.kind == "door" and view.uses.get(door.to_room) == "bath"
            off = math.dist(spot, face.wall.at((door.at_in + door.to_in) / 2)) - door.width_in / 2
            if wet and off < BATH_DOOR_IN - 1e-6:
                yield "bath door", max(off, 0.0), BATH_DOOR_IN


@lru_cache(maxsize=1024)
def alarm_spot(view: RoomView) -> Point:
    """The first of some places about the middle of a room that is near no steam and beside nothing that hangs there;
    else the one that is least too near."""
    xs, ys = [x for x, _ in view.room.corners], [y for _, y in view.room.corners]
    x, y, wide, deep = (min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2, max(xs) - min(xs), max(ys) - min(ys)
    steps = [(-AWAY_IN, 0.0), (AWAY_IN, 0.0), (0.0, -AWAY_IN), (0.0, AWAY_IN)]
    steps += [(wide * part, deep * other) for part in (-0.25, 0.25) for other in (-0.25, 0.25)]
    steps += [(wide * part, deep * other) for part in (-0.4, 0.4) for other in (-0.4, 0.4)]
    hung = [(box.x_in, box.y_in) for box in view.boxes if box.kind in OVERHEAD and box.x_in is not None]

    def too_near(spot: Point) -> float:
        beside = [APART_IN - math.dist(spot, (bx, by or 0.0)) for bx, by in hung if bx is not None]
        return max([*(limit - off for _, off, limit in near_steam(view, spot)), *beside, 0.0])

    spots = [(x + dx, y + dy) for dx, dy in steps if is_inside(view.room.corners, (x + dx, y + dy))]
    return min(spots, key=too_near, default=(x, y))
