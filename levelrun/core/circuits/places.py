"""Where each box stands, for protection: its room, what the room is for, water near it."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from levelrun.core.boxes.facts import RoomContext, viewed
from levelrun.core.boxes.parts import GEAR
from levelrun.core.boxes.wet import near_water
from levelrun.core.circuits.facts import BoxPlace
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Job
from levelrun.core.site.lived import dwellings

OUTBUILDINGS = {"shop": "shop", "shed": "storage"}
SERVICED = ("utility", "attic", "storage", "closet")
SINK_IN = 72.0
TUB_IN = 72.0


def box_places(book: Codebook, rooms: Sequence[RoomContext], job: Job) -> dict[str, BoxPlace]:
    """Every box that stands in a room, in a place whose use is said, or that serves an appliance, by id. A sink or
    basin is near within 6 ft of its edge (210.8(A)(8)), a tub or shower within 6 ft of its outside edge
    (210.8(A)(10))."""
    found = {box: place for context in rooms for box, place in _of_room(book, context).items()}
    kinds, lived = {item.id: item.kind for item in job.structures}, dwellings(job)
    for box in job.boxes:
        if box.room is None and (box.use or box.outdoors or box.serves or kinds[box.structure] in OUTBUILDINGS):
            found[box.id] = place_in_words(box, kinds[box.structure], lived[box.structure] is not False)
    return found


@lru_cache(maxsize=1024)
def place_in_words(box: Box, structure_kind: str, dwelling: bool) -> BoxPlace:
    """Where a box stands that is in no drawn room: by the use that was said. What only a drawing shows (a sink within
    6 ft) is not known."""
    use = box.use or ("porch" if box.outdoors else OUTBUILDINGS.get(structure_kind, ""))
    return BoxPlace(
        room="",
        room_name=box.where or ("outdoors" if box.outdoors else use),
        use=use,
        structure=box.structure,
        structure_kind=structure_kind,
        dwelling=dwelling,
        level="",
        level_kind="basement" if box.use == "basement" else "crawl" if box.use == "crawl" else "floor",
        damp=False,
        sink_near=False,
        tub_near=False,
    )


@lru_cache(maxsize=1024)
def _of_room(book: Codebook, context: RoomContext) -> dict[str, BoxPlace]:
    found: dict[str, BoxPlace] = {}
    view = viewed(book, context)
    sinks = [(f, i) for f in view.faces for i in f.fixtures if i.kind in ("sink", "basin")]
    wet = any(i.kind in ("tub", "shower") for f in view.faces for i in f.fixtures)
    gear = context.room.use in SERVICED and any(box.serves in GEAR for box in context.boxes)
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
            dwelling=view.dwelling,
            level=context.level.id,
            level_kind=context.level.kind,
            damp=context.room.moisture in ("damp", "wet"),
            sink_near=sink,
            tub_near=tub,
            by_gear=gear,
        )
    return found
