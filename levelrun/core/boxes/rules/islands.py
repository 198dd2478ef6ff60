"""Rules about islands and peninsulas: their outlets, or the provision for one (210.52(C)(2))."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.spacing import COUNTERED
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box, Fixture
from levelrun.core.measure import show_area
from levelrun.core.rulebook import Rule
from levelrun.core.site.faces import Face

OVER_IN, UNDER_IN, EDGE_IN = 20.0, 12.0, 1.0
PROVIDES = ("receptacle", "junction", "tail")


def island_rule(view: RoomView) -> Iterator[Finding]:
    """An island or a peninsula. 2020: an outlet for its first 9 ft² and for each 18 beyond, or a part of them. 2023:
    an outlet, or provision for one."""
    if not view.dwelling or view.room.use not in COUNTERED:
        return
    first, each = view.book.scalar("island_first_ft2"), view.book.number("island_each_ft2")
    for face, island in ((f, item) for f in view.faces for item in f.fixtures if item.kind == "island"):
        within = [box for box in view.boxes if _over(view, face, island, box)]
        area = island.width_in * island.depth_in / 144
        what = "island" if island.off_in else "peninsula"
        outlets = sum(box.kind == "receptacle" and _reached(view, island, box) for box in within)
        wanted = 1 + math.ceil(max(area - first.value, 0) / each - 1e-9) if first.value else 0
        if outlets < wanted:
            yield finding(
                "island-no-receptacle", view.room.id, None, f"The {what} has {outlets} of {wanted} receptacles",
                f"{show_area(area)}: one for the first {first.value:g} ft², one for each {each:g} ft² beyond, within "
                "20 in over its top or 12 in under it.", first.section, about="room", room=view.room.id,
                measured=str(outlets), limit=str(wanted), mends=[_outlets(view, face, island, wanted - outlets)],
            )  # fmt: skip
        elif not wanted and not any(box.kind in PROVIDES for box in within):
            yield finding(
                "island-provision", view.room.id, None, f"The {what} has no outlet, and no provision for one",
                "An outlet in its top or within 20 in over it, or a cable that waits there for one.", first.section,
                about="room", room=view.room.id, measured="none", limit="one",
                mends=[_outlets(view, face, island, 1), _tail(view, face, island)],
            )  # fmt: skip


def _over(view: RoomView, face: Face, island: Fixture, box: Box) -> bool:
    """Whether a box stands within the outline of an island."""
    spot = view.spot(box)
    if box.side is not None or spot is None:
        return False
    along = face.wall.distance(spot)
    away = (face.wall.x0 - spot[0]) * face.wall.out[0] + (face.wall.y0 - spot[1]) * face.wall.out[1]
    inside = island.at_in - EDGE_IN <= along <= island.at_in + island.width_in + EDGE_IN
    return inside and island.off_in - EDGE_IN <= away <= island.off_in + island.depth_in + EDGE_IN


def _reached(view: RoomView, island: Fixture, box: Box) -> bool:
    return -UNDER_IN - 1e-6 <= view.over_floor(box) - island.height_in <= OVER_IN + 1e-6


def _outlets(view: RoomView, face: Face, island: Fixture, count: int) -> Mend:
    """So many receptacles in the top of an island, side by side along it."""
    edits = [
        _at(view, face, island, (number + 0.5) / count, kind="receptacle", serves="counter", up=island.height_in)
        for number in range(count)
    ]
    return Mend("An outlet in its top" if count == 1 else f"{count} outlets in its top", edits)


def _tail(view: RoomView, face: Face, island: Fixture) -> Mend:
    return Mend("A cable left for one", [_at(view, face, island, 0.5, kind="tail", serves="counter", up=0.0)])


def _at(view: RoomView, face: Face, island: Fixture, share: float, up: float, **item: Any) -> dict[str, Any]:
    x, y = face.wall.at(island.at_in + share * island.width_in, -island.off_in - island.depth_in / 2)
    where = {"room": view.room.id, "structure": view.context.structure.id, "x_in": _tape(x), "y_in": _tape(y)}
    return {"op": "add", "kind": "box", "item": {**item, **where, "height_in": view.context.level.floor_in + up}}


def _tape(inches: float) -> float:
    return round(inches * 16) / 16


RULES: tuple[Rule[RoomView], ...] = (island_rule,)
