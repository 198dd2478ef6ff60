"""Where each box stands, for protection: its room, what the room is for, water near it."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from levelrun.core.boxes.facts import RoomContext, RoomView
from levelrun.core.boxes.placing import near_water
from levelrun.core.circuits.facts import BoxPlace
from levelrun.core.codebook import Codebook

SINK_IN = 72.0
TUB_IN = 72.0


def box_places(book: Codebook, rooms: Sequence[RoomContext]) -> dict[str, BoxPlace]:
    """Every box that stands in a room, by id. A sink or basin is near within 6 ft of its edge (210.8(A)(8)), a tub
    or shower within 6 ft of its outside edge (210.8(A)(10))."""
    return {box: place for context in rooms for box, place in _of_room(book, context).items()}


@lru_cache(maxsize=1024)
def _of_room(book: Codebook, context: RoomContext) -> dict[str, BoxPlace]:
    found: dict[str, BoxPlace] = {}
    view = RoomView(book, context)
    sinks = [(f, i) for f in view.faces for i in f.fixtures if i.kind in ("sink", "basin")]
    wet = any(i.kind in ("tub", "shower") for f in view.faces for i in f.fixtures)
    for box in context.boxes:
        spot = view.spot(box)
        sink = spot is not None and any(
            (f.wall.at(i.at_in + i.width_in / 2)[0] - spot[0]) ** 2
            + (f.wall.at(i.at_in + i.width_in / 2)[1] - spot[1]) ** 2
            <= (SINK_IN + i.width_in / 2) ** 2
            for f, i in sinks
        )
        tub = bool(wet and spot is not None and near_water(view, spot, TUB_IN))
        found[box.id] = BoxPlace(
            room=context.room.id,
            room_name=context.room.name,
            use=context.room.use,
            structure=context.structure.id,
            structure_kind=context.structure.kind,
            level=context.level.id,
            level_kind=context.level.kind,
            damp=context.room.moisture in ("damp", "wet"),
            sink_near=sink,
            tub_near=tub,
        )
    return found
