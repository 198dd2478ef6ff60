"""How far the boxes of a circuit lie apart: along the ways that its cables take, else square across."""

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


@dataclass(frozen=True, kw_only=True)
class Stand:
    """Where a box or panel stands: on the site, its height, its ceiling."""

    structure: str
    x: float
    y: float
    height_in: float
    ceiling_in: float

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
    found: dict[str, Stand] = {}
    for node in nodes:
        spot: Point | None = view.spot(node)
        if spot is None:
            continue
        found[node.id] = Stand(
            structure=node.structure,
            x=spot[0] + origin[0],
            y=spot[1] + origin[1],
            height_in=node.height_in,
            ceiling_in=context.level.floor_in + context.level.height_in,
        )
    return found


def square(a: Stand, b: Stand) -> float:
    """Inches from one to the other square to the walls, by the ceiling of one of them: what is told where nothing is
    known of the frame between them, as from one building to another."""
    climb = min(abs(a.height_in - over) + abs(b.height_in - over) for over in (a.ceiling_in, b.ceiling_in))
    return climb + abs(a.x - b.x) + abs(a.y - b.y)


def apart(a: Stand, b: Stand) -> float:
    """Inches in a straight line: what no cable is shorter than."""
    return math.dist((a.x, a.y, a.height_in), (b.x, b.y, b.height_in))


def hop_lengths(
    circuit: Circuit, where: Mapping[str, Stand], laid: Mapping[str, Laid]
) -> dict[tuple[str | None, str], float]:
    """The inches of each hop of a circuit: along the way that it takes; to another building square across. A hop
    whose way does not get to its box has no length. `laid`: its hops as they lie, by box."""
    found: dict[tuple[str | None, str], float] = {}
    for hop in circuit.chain:
        start = hop.after or circuit.panel
        lies = laid.get(hop.box)
        if lies is not None and lies.length_in is not None:
            found[hop.after, hop.box] = lies.length_in
        elif hop.path or start not in where or hop.box not in where:
            continue
        elif where[start].structure != where[hop.box].structure:
            found[hop.after, hop.box] = square(where[start], where[hop.box])
    return found
