"""A large house for figures: 72 rooms, 400 boxes, 88 circuits, 73 ways, the demo among them."""

from __future__ import annotations

from levelrun.core.job import Box, Circuit, Hop, Job, Level, Opening, Panel, Room, Side, Structure, Way
from levelrun.core.site.geometry import rectangle
from levelrun.samples import sample

USES = ("common", "bedroom", "bath", "hall", "kitchen", "utility")


def large_house() -> Job:
    """60 rooms on three levels beside the demo: 30 circuits of rooms, and 30 that take two of 60 ways each."""
    demo = sample("quince-hollow")
    levels = tuple(Level(id=f"lv{n}", name=f"Level {n}", floor_in=108.0 * n) for n in range(3))
    rooms = tuple(_room(index) for index in range(60))
    openings = tuple(
        Opening(id=f"big-o{i}", room=room.id, side=2, at_in=20, width_in=32) for i, room in enumerate(rooms)
    )
    boxes = tuple(_box(index, rooms[index % 60]) for index in range(400 - len(demo.boxes)))
    panel = Panel(id="big-p", name="Panel Z", structure="big", room="big-r3", side=0, at_in=80.0, spaces=84)
    circuits = tuple(
        Circuit(
            id=f"big-c{i}", name=f"Circuit {i}", panel="big-p", space=i + 1, protection="dual",
            chain=tuple(
                Hop(box=b.id, after=boxes[at - 30].id if at >= 30 else None)
                for at, b in enumerate(boxes)
                if at % 30 == i
            ),
        )
        for i in range(30)
    )  # fmt: skip
    own = [way for way in demo.ways if way.start == "ph"]
    legs = [[leg.model_copy(update={"along": None}).model_dump() for leg in way.legs] for way in own]
    ways = tuple(
        Way.model_validate(
            {**own[i % len(own)].model_dump(), "id": f"big{i}", "name": f"Way {i}", "legs": legs[i % len(own)]}
        )
        for i in range(60)
    )
    carriers = tuple(_carrier(demo, ways[i : i + 2], i // 2) for i in range(0, 60, 2))
    return Job(
        name="Large house",
        structures=(*demo.structures, Structure(id="big", name="Large house", levels=levels)),
        rooms=(*demo.rooms, *rooms),
        openings=(*demo.openings, *openings),
        fixtures=demo.fixtures,
        panels=(*demo.panels, panel),
        boxes=(*demo.boxes, *boxes),
        yard=demo.yard,
        trenches=demo.trenches,
        spans=demo.spans,
        ways=(*demo.ways, *ways),
        circuits=(*demo.circuits, *circuits, *carriers),
        electrodes=demo.electrodes,
        services=demo.services,
        cards=demo.cards,
        built=demo.built,
        closings=demo.closings,
        photos=demo.photos,
        visits=demo.visits,
        faults=demo.faults,
        measured=demo.measured,
    )


def _carrier(demo: Job, ways: tuple[Way, ...], index: int) -> Circuit:
    """A circuit of 120 V that takes ways of the demo to their ends, box by box, each box once."""
    panels = {panel.id for panel in demo.panels}
    chain: list[Hop] = []
    for way in ways:
        nodes = dict.fromkeys(leg.end.node for leg in way.legs if leg.end.node)
        boxes = [node for node in nodes if node not in panels and node not in {hop.box for hop in chain}]
        chain += [
            Hop(box=box, after=before, path=(way.id,)) for before, box in zip((None, *boxes), boxes, strict=False)
        ]
    name, load = f"By way {index}", index % 16
    return Circuit(id=f"way{index}", name=name, panel=ways[0].start, load_a=load, chain=tuple(chain))


def _room(index: int) -> Room:
    level, place = divmod(index, 20)
    column, row = place % 5, place // 5
    corners = rectangle(column * 171.5, row * 147.5, 168, 144)
    return Room(
        id=f"big-r{index}", level=f"lv{level}", name=f"Room {index}", use=USES[index % 6], corners=corners,
        sides=tuple(Side() for _ in corners),
    )  # fmt: skip


def _box(index: int, room: Room) -> Box:
    round_ = index // 60
    return Box(
        id=f"x{index}", name=f"X-{index}", structure="big", room=room.id, side=round_ % 4,
        at_in=17.625 + 48 * (round_ // 4), kind="receptacle",
        height_in=108.0 * int(room.level[2:]) + 14.125,
    )  # fmt: skip
