"""The box schedule: every box with its wall, its tape reading, its stud and its heights."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomContext, RoomView, viewed
from levelrun.core.boxes.room_plan import stud_text
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box
from levelrun.core.measure import show, show_inches, shown_in


@dataclass(frozen=True, kw_only=True)
class ScheduleRow:
    """One box as it is set. Lengths as read aloud; of a ceiling box `from_left_corner` has two readings."""

    id: str
    structure: str
    level: str
    room: str
    box: str
    kind: str
    wall: str
    from_left_corner: str
    nailed_to: str
    bottom: str
    middle: str
    top: str
    box_model: str
    gangs: int
    depth: str
    set_out: str
    circuit: str
    marked: str


def box_schedule(book: Codebook, contexts: Sequence[RoomContext], circuits: Mapping[str, str]) -> list[ScheduleRow]:
    """All boxes that stand in rooms, room by room, clockwise; `circuits` names each box's circuit."""
    with shown_in(book.units):
        return [
            _row(viewed(book, context), box, circuits)
            for context in contexts
            for box in sorted(context.boxes, key=lambda item: (item.side is None, item.side, item.at_in))
        ]


def _row(view: RoomView, box: Box, circuits: Mapping[str, str]) -> ScheduleRow:
    context, model = view.context, view.model(box)
    up, tall = view.over_floor(box), view.model(box).tall_in / 2
    wall, reading = "ceiling", ""
    if box.side is not None and box.at_in is not None:
        wall, reading = view.faces[box.side].wall.name, show(box.at_in)
        wall += ", outer face" if box.outdoors else ""
    elif box.x_in is not None and box.y_in is not None:
        west, south = min(x for x, _ in view.room.corners), min(y for _, y in view.room.corners)
        reading = f"{show(box.x_in - west)} from west, {show(box.y_in - south)} from south"
    return ScheduleRow(
        id=box.id,
        structure=context.structure.name,
        level=context.level.name,
        room=view.room.name,
        box=box.name,
        kind=f"{box.kind}{f', {box.ways}-way' if box.ways > 2 else ''}",
        wall=wall,
        from_left_corner=reading,
        nailed_to=stud_text(view, box),
        bottom=show_inches(up - tall),
        middle=show_inches(up),
        top=show_inches(up + tall),
        box_model=model.name,
        gangs=box.gangs,
        depth=show_inches(model.depth_in),
        set_out=show_inches(box.set_out_in),
        circuit=circuits.get(box.id, ""),
        marked="yes" if box.marked else "",
    )
