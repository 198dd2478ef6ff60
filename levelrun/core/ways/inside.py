"""What lies behind the finish of a room: cables, the holes that they go through, the staples that hold them."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomContext, viewed
from levelrun.core.codebook import Codebook
from levelrun.core.kept import Standing
from levelrun.core.site.geometry import Point
from levelrun.core.ways.drawing import DrawnWays
from levelrun.core.ways.frame.drawn import RoundCable, RoundHole, round_cables, round_holes, round_staples
from levelrun.core.ways.holding import stapled


@dataclass(frozen=True, kw_only=True)
class InTheWalls:
    """What lies behind the finish of a room, on its unrolled walls: cables, the holes that they go through, the
    staples that hold them."""

    cables: list[RoundCable]
    holes: list[RoundHole]
    staples: list[Point]


_inside = Standing[InTheWalls](1024)


def in_the_walls(book: Codebook, drawn: DrawnWays, context: RoomContext) -> InTheWalls:
    """What lies in the walls of a room. The same while the ways and the walls are."""
    found = [one for one in drawn.every if one.frame is not None]
    frame = next((one.frame for one in found if one.frame and context.room.id in one.frame.rooms), None)
    if frame is None:
        return InTheWalls(cables=[], holes=[], staples=[])
    starts = viewed(book, context).starts

    def made() -> InTheWalls:
        cables = round_cables(found, frame, context.room.id, starts)
        here = [drawn.ways[way] for way in dict.fromkeys(cable.way for cable in cables) if way in drawn.ways]
        return InTheWalls(
            cables=cables,
            holes=round_holes(drawn.walls, frame, context.room.id, starts),
            staples=[
                spot
                for way in here
                for spot in round_staples(way.found, stapled(book, way.context), frame, context.room.id, starts)
            ],
        )

    return _inside.get(context.room.id, (frame, *found), made)
