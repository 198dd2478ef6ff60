"""How far cable goes between two boxes: round the hole line of a room, up and over, or along the ways it takes."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.boxes.facts import RoomContext, viewed
from levelrun.core.circuits.loads import Laid
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.site.geometry import Point

OVER_HEADER_IN = 12.0


@dataclass(frozen=True, kw_only=True)
class Stand:
    """Where a box or panel stands: on the site, its height, its ceiling, and its place round the room's walls."""

    room: str
    structure: str
    x: float
    y: float
    height_in: float
    floor_in: float
    ceiling_in: float
    around_in: float
    at_in: float | None
    doors: tuple[tuple[float, float, float], ...]
    hole_in: float

    __hash__ = kept_hash


def stands(job: Job, book: Codebook, contexts: Sequence[RoomContext]) -> dict[str, Stand]:
    """Every box and panel that stands in a room, by id."""
    origin = {item.id: (item.x_in, item.y_in) for item in job.structures}
    return {
        node: stand
        for context in contexts
        for node, stand in _of_room(book, context, origin[context.structure.id]).items()
    }


@lru_cache(maxsize=1024)
def _of_room(book: Codebook, context: RoomContext, origin: Point) -> dict[str, Stand]:
    view = viewed(book, context)
    nodes: list[Box | Panel] = [*context.boxes, *context.panels]
    doors = tuple(
        (start + o.at_in, start + o.to_in, o.head_in)
        for face, start in zip(view.faces, view.starts, strict=True)
        for o in face.openings
        if o.sill_in < context.habits.pole.hole_line_in
    )
    found: dict[str, Stand] = {}
    for node in nodes:
        spot: Point | None = view.spot(node)
        if spot is None:
            continue
        found[node.id] = Stand(
            room=context.room.id,
            structure=node.structure,
            x=spot[0] + origin[0],
            y=spot[1] + origin[1],
            height_in=node.height_in,
            floor_in=context.level.floor_in,
            ceiling_in=context.level.floor_in + context.level.height_in,
            around_in=view.around_in,
            at_in=view.unrolled(node),
            doors=doors,
            hole_in=context.level.floor_in + context.habits.pole.hole_line_in,
        )
    return found


@lru_cache(maxsize=65536)
def cable_length(a: Stand, b: Stand) -> float:
    """Inches of cable along the way it is drilled, the shorter of the two ways; without make-up, loop and waste.

    In one room: down or up to the hole line, round the walls, over every door header on the way. Else: to the ceiling
    of one of the two, square across, and on: never shorter than across and up.
    """
    climb = min(abs(a.height_in - over) + abs(b.height_in - over) for over in (a.ceiling_in, b.ceiling_in))
    over = climb + abs(a.x - b.x) + abs(a.y - b.y)
    if a.room != b.room or a.at_in is None or b.at_in is None:
        return over
    return min(over, _round(a, b, a.at_in, b.at_in))


def _round(a: Stand, b: Stand, start: float, end: float) -> float:
    low, high = sorted((start, end))
    inside = sum(_detour(a, d) for d in a.doors if low < (d[0] + d[1]) / 2 < high)
    outside = sum(_detour(a, d) for d in a.doors if not low < (d[0] + d[1]) / 2 < high)
    ways = (high - low + inside, a.around_in - (high - low) + outside)
    return abs(a.height_in - a.hole_in) + abs(b.height_in - b.hole_in) + min(ways)


def _detour(stand: Stand, door: tuple[float, float, float]) -> float:
    return 2 * max(stand.floor_in + door[2] + OVER_HEADER_IN - stand.hole_in, 0.0)


def apart(a: Stand, b: Stand) -> float:
    """Inches in a straight line: what no cable is shorter than."""
    return math.dist((a.x, a.y, a.height_in), (b.x, b.y, b.height_in))


def hop_lengths(
    circuit: Circuit, where: Mapping[str, Stand], laid: Mapping[str, Laid]
) -> dict[tuple[str | None, str], float]:
    """The inches of each hop of a circuit: along the ways that it takes, else as the boxes stand. A hop whose ways do
    not get to its box has no length. `laid`: its hops as they lie, by box."""
    found: dict[tuple[str | None, str], float] = {}
    for hop in circuit.chain:
        start = hop.after or circuit.panel
        if hop.path:
            lies = laid.get(hop.box)
            if lies is not None and lies.length_in is not None:
                found[hop.after, hop.box] = lies.length_in
        elif start in where and hop.box in where:
            found[hop.after, hop.box] = cable_length(where[start], where[hop.box])
    return found
