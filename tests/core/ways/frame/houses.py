"""Small houses to route cable through: a hand-taped one, and many by chance."""

from __future__ import annotations

import random
from typing import Any

from levelrun.core.job import Box, Circuit, Fixture, Hop, Job, Level, Opening, Panel, Room, Side, Structure, job_book
from levelrun.core.site.geometry import rectangle
from levelrun.core.ways.frame.ends import End, end_of
from levelrun.core.ways.frame.found import Found, frames_of
from levelrun.core.ways.frame.graph import Frame
from levelrun.core.ways.frame.route import Route, route

LEVELS = (
    Level(id="f", name="Main floor", height_in=97.125),
    Level(id="c", name="Crawl space", kind="crawl", floor_in=-46, height_in=36),
)


def two_rooms(**more: Any) -> Job:
    """Two rooms 12 ft by 10 side by side, a 2x4 wall between them with a door, over a crawl space.

    West room x 0 to 144, east room x 147.5 to 291.5, both y 0 to 120. The door is in the wall between, y 40 to 72.
    """
    rooms = (
        Room(id="w", level="f", name="West", corners=rectangle(0, 0, 144, 120), sides=(Side(),) * 4),
        Room(id="e", level="f", name="East", corners=rectangle(147.5, 0, 144, 120), sides=(Side(),) * 4),
    )
    values: dict[str, Any] = {
        "name": "Two rooms",
        "structures": (Structure(id="h", name="House", levels=LEVELS),),
        "rooms": rooms,
        "openings": (Opening(id="d", room="w", side=1, at_in=48, width_in=32, head_in=82),),
        "panels": (Panel(id="p", name="P", structure="h", room="w", side=3, at_in=60, height_in=50),),
        **more,
    }
    return Job(**values)


def with_boxes(job: Job, *places: tuple[str, int, float, float]) -> Job:
    """The job with receptacles B-1, B-2 ... at room, side, inches from the left corner, inches over the floor, on one
    circuit in that order."""
    boxes = tuple(
        Box(id=f"b{n}", name=f"B-{n}", structure="h", room=room, side=side, at_in=at, height_in=z, kind="receptacle")
        for n, (room, side, at, z) in enumerate(places, 1)
    )
    chain = tuple(Hop(box=box.id, after=boxes[n - 1].id if n else None) for n, box in enumerate(boxes))
    circuit = Circuit(id="k", name="Outlets", panel="p", space=1, wire_size="12", chain=chain)
    return job.model_copy(update={"boxes": boxes, "circuits": (circuit,)}).checked()


def frame_and_ends(job: Job, *ids: str) -> tuple[Frame, list[End]]:
    """The frame of the house and where some of its boxes stand in it."""
    frame = frames_of(job, job_book(job))["h"]
    nodes = {node.id: node for node in job.nodes}
    return frame, [end_of(frame, nodes[ident]) for ident in ids]


def taken(job: Job, a: str, b: str, school: str = "cheapest") -> Route | None:
    """The way from one box to another by a school."""
    frame, (start, end) = frame_and_ends(job, a, b)
    return route(frame, start, end, school)


def corners_of(found: Route) -> list[tuple[float, float, float]]:
    """The corners of a way in order."""
    return [found.pieces[0].a, *(piece.b for piece in found.pieces)]


def by_chance(seed: int) -> Job:
    """A house of two or three rows of rooms with doors, a panel, and receptacles, lights and switches by chance."""
    dice = random.Random(seed)
    rooms: list[Room] = []
    openings: list[Opening] = []
    y = 0.0
    for row in range(dice.choice((2, 2, 3))):
        deep, x = 12.0 * dice.randint(9, 13), 0.0
        for column in range(dice.choice((2, 3))):
            wide = 12.0 * dice.randint(9, 16)
            ident = f"r{row}{column}"
            corners = rectangle(x, y, wide, deep)
            rooms.append(Room(id=ident, level="f", name=ident.upper(), corners=corners, sides=(Side(),) * 4))
            side = dice.randrange(4)
            long = wide if side % 2 == 0 else deep
            at = float(dice.randint(6, int(long) - 44))
            openings.append(Opening(id=f"o{ident}", room=ident, side=side, at_in=at, width_in=32))
            x += wide + 3.5
        y += deep + 3.5
    boxes = [_box(dice, rooms, n) for n in range(dice.randint(18, 30))]
    boxes = [box for box in boxes if not _in_a_door(box, openings)]
    chains: list[list[Box]] = [boxes[i : i + 7] for i in range(0, len(boxes), 7)]
    circuits = tuple(
        Circuit(
            id=f"k{n}", name=f"K {n}", panel="p", space=n + 1,
            chain=tuple(Hop(box=b.id, after=own[i - 1].id if i else None) for i, b in enumerate(own)),
        )
        for n, own in enumerate(chains)
    )  # fmt: skip
    panel = Panel(id="p", name="P", structure="h", room=rooms[0].id, side=3, at_in=30, height_in=50)
    return Job(
        name="By chance", structures=(Structure(id="h", name="House", levels=LEVELS),), rooms=tuple(rooms),
        openings=tuple(openings), panels=(panel,), boxes=tuple(boxes), circuits=circuits,
    )  # fmt: skip


def _box(dice: random.Random, rooms: list[Room], number: int) -> Box:
    """A box in the rooms from left to right, as a chain goes."""
    room = rooms[number * len(rooms) // 30]
    (x0, _), (x1, y1) = room.corners[0], room.corners[2]
    wide, deep = x1 - x0, room.corners[0][1] - y1
    kind = dice.choice(("receptacle", "receptacle", "receptacle", "switch", "light"))
    base: dict[str, Any] = {
        "id": f"b{number}",
        "name": f"B-{number}",
        "structure": "h",
        "room": room.id,
        "kind": kind,
    }
    if kind == "light":
        return Box(**base, x_in=x0 + wide / 2, y_in=y1 + deep / 2, height_in=97.125)
    side = dice.randrange(4)
    long = wide if side % 2 == 0 else deep
    height = 14.125 if kind == "receptacle" else 46.125
    return Box(**base, side=side, at_in=float(dice.randint(6, int(long) - 6)), height_in=height)


def _in_a_door(box: Box, openings: list[Opening]) -> bool:
    return any(
        o.room == box.room and o.side == box.side and o.at_in - 4 < (box.at_in or 0) < o.at_in + o.width_in + 4
        for o in openings
    )


def found_in(job: Job) -> dict[str, Found]:
    """The ways that a job's hops were given, by the box that each goes to."""
    from levelrun.core.plan import plan

    return {box: one for own in plan(job).drawn.found.values() for box, one in own.items()}


def fixture(**values: Any) -> Fixture:
    return Fixture(id=f"x{values['kind']}", room="w", **values)
