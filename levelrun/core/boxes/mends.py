"""One-tap repairs of boxes, as plain edits."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.placing import Placement
from levelrun.core.findings import Mend
from levelrun.core.job import Box
from levelrun.core.measure import show

Edit = dict[str, Any]


def set_box(box: Box, **values: Any) -> Edit:
    """Edit that changes fields of one box."""
    return {"op": "set", "kind": "box", "id": box.id, "set": values}


def set_side(view: RoomView, side: int, **values: Any) -> Edit:
    """Edit that changes how one wall is framed or finished."""
    return {"op": "set_side", "room": view.room.id, "side": side, "set": values}


def add(view: RoomView, placed: Placement) -> Edit:
    """Edit that adds a box."""
    return {"op": "add", "kind": "box", "item": placed.item(view.room.id, view.context.structure.id)}


def add_all(view: RoomView, placed: Sequence[Placement], what: str = "a receptacle") -> list[Mend]:
    """A mend that adds boxes; none where there are none."""
    if not placed:
        return []
    if len(placed) == 1:
        return [Mend(f"Add {what} {where(view, placed[0])}", [add(view, placed[0])])]
    spots = ", ".join(where(view, item) for item in placed)
    return [Mend(f"Add {len(placed)} receptacles: {spots}", [add(view, item) for item in placed])]


def where(view: RoomView, placed: Placement) -> str:
    """A place as read aloud: south at 10′ 4″."""
    if placed.side is None or placed.at_in is None:
        return "in the middle of the ceiling" if placed.kind == "light" else "on the ceiling"
    return f"{view.faces[placed.side].wall.name} at {show(placed.at_in)}"
