"""Edits of boxes and panels: how they come to stand where they do, rooms filled with boxes and cleared."""

from __future__ import annotations

from typing import Any, Literal

from levelrun.core.boxes.catalogue import box_models
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.parts import OVERHEAD, Box, Panel
from levelrun.core.boxes.placing import fill
from levelrun.core.boxes.pole import hung
from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, add_part, made, next_name, users_of, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Room
from levelrun.core.measure import show
from levelrun.core.part import Id
from levelrun.core.site.edits import room_of
from levelrun.core.site.framing import finish_in
from levelrun.core.site.geometry import is_inside

LETTERS = {
    "receptacle": "R", "switch": "S", "light": "L", "fan": "F", "smoke": "SM", "junction": "J", "device": "D",
    "equipment": "E", "disconnect": "DS", "tail": "T",
}  # fmt: skip
PLACING = {"room", "side", "at_in", "kind", "gangs", "model", "fixed", "outdoors", "serves"}


class FillRoom(EditBase):
    """Place the boxes that a room still lacks."""

    op: Literal["fill_room"]
    room: Id

    def title(self) -> str:
        return "fill the room with boxes"

    def apply(self, job: Job, book: Codebook) -> Job:
        return fill_room(job, self, book)


class ClearRoom(EditBase):
    """Remove a room with its openings, fixtures and boxes; refused while a run or circuit uses one of them."""

    op: Literal["clear_room"]
    room: Id

    def title(self) -> str:
        return "remove room"

    def apply(self, job: Job, book: Codebook) -> Job:
        return clear_room(job, self)


def _in_its_room(job: Job, values: dict[str, Any]) -> dict[str, Any]:
    """The structure of its room, where it is not said."""
    room = next((item for item in job.rooms if item.id == values.get("room")), None)
    if room is not None and "structure" not in values:
        return {**values, "structure": job.structure_of(room.level).id}
    return values


def _refuse_outside(room: Room, x_in: Any, y_in: Any) -> None:
    """Raises EditError for a place of the plan that is not in the room."""
    known = isinstance(x_in, int | float) and isinstance(y_in, int | float)
    if known and not is_inside(room.corners, (x_in, y_in)):
        xs, ys = [x for x, _ in room.corners], [y for _, y in room.corners]
        sizes = f"{show(max(xs) - min(xs))} by {show(max(ys) - min(ys))}"
        raise EditError(f"x_in {x_in:g}, y_in {y_in:g} is not inside {room.name}, {sizes}", key="x_in", value=x_in)


def stand_panel(job: Job, book: Codebook, values: dict[str, Any]) -> dict[str, Any]:
    """A new panel with the structure of its room and a name where it has none."""
    return {"name": next_name(job, "P"), **_in_its_room(job, values)}


def stand_box(job: Job, book: Codebook, values: dict[str, Any]) -> dict[str, Any]:
    """A new box with what is not said: name, set-out by the finish of its wall, height by the story pole."""
    letter = LETTERS.get(str(values.get("kind")), "J")
    values = {"name": next_name(job, letter), **_in_its_room(job, values)}
    room = next((item for item in job.rooms if item.id == values.get("room")), None)
    if room is None:
        return values
    _refuse_outside(room, values.get("x_in"), values.get("y_in"))
    side = values.get("side")
    if isinstance(side, int) and 0 <= side < len(room.sides):
        siding = job.structure_of(room.level).siding_in or 0.0
        values.setdefault("set_out_in", siding if values.get("outdoors") else finish_in(room.sides[side]))
    elif room.ceiling_out_in is not None:
        values.setdefault("set_out_in", room.ceiling_out_in)
    if "height_in" in values:
        return {"fixed": True, **values}
    level = next(item for item in job.structure_of(room.level).levels if item.id == room.level)
    on_ceiling = values.get("kind") in OVERHEAD or values.get("serves") == "opener"
    up = level.height_in if on_ceiling and side is None else 24.0
    return {**values, "height_in": _hung(job, book, made(Box, {**values, "height_in": level.floor_in + up}, "item"))}


def settle_box(job: Job, book: Codebook, box_id: str, keys: set[str]) -> Job:
    """A box whose height is typed keeps it; one that is placed anew hangs by the pole."""
    box = next(item for item in job.boxes if item.id == box_id)
    if box.room and keys & {"room", "x_in", "y_in"}:
        _refuse_outside(job.room(box.room), box.x_in, box.y_in)
    if "height_in" in keys and box.room and "fixed" not in keys:
        fixed = box.model_copy(update={"fixed": True})
        job = with_parts(job, boxes=tuple(fixed if item is box else item for item in job.boxes))
    return rehung(job, book, {box_id}) if keys & PLACING else job


def _hung(job: Job, book: Codebook, box: Box) -> float:
    """The height of a box by the story pole, or the one it has."""
    if box.room is None or box.fixed or (box.model and box.model not in box_models(book)):
        return box.height_in
    room = job.room(box.room)
    level = next(item for item in job.structure_of(room.level).levels if item.id == room.level)
    own = [item for item in job.fixtures if item.room == room.id]
    found = hung(book, job.habits.pole, box, room, level, own)
    return box.height_in if found is None else found


def rehung(job: Job, book: Codebook, only: set[str] | None = None) -> Job:
    """Every box that is not fixed at the height that the story pole gives it now."""
    boxes = []
    for box in job.boxes:
        height = box.height_in if only is not None and box.id not in only else _hung(job, book, box)
        boxes.append(box if height == box.height_in else box.model_copy(update={"height_in": height}))
    same = all(now is before for now, before in zip(boxes, job.boxes, strict=True))
    return job if same else job.model_copy(update={"boxes": tuple(boxes)})


LINKS = frozenset({"id", "name", "structure", "room", "side"})
PANEL = PartKind(name="panel", field="panels", model=Panel, letter="p", stand=stand_panel, links=LINKS)
BOX = PartKind(name="box", field="boxes", model=Box, letter="b", stand=stand_box, settle=settle_box, links=LINKS)
KINDS = (PANEL, BOX)
EDITS = (FillRoom, ClearRoom)


def fill_room(job: Job, edit: FillRoom, book: Codebook) -> Job:
    """The room with the boxes that it still lacked. Raises EditError where it lacks none."""
    room = room_of(job, edit.room)
    placed = fill(room_view(job, book, room.id))
    if not placed:
        raise EditError(f"{room.name} lacks no box by the rules of its use", key="room", value=room.name)
    for item in placed:
        job = add_part(job, book, BOX, item.item(room.id, job.structure_of(room.level).id))
    return job


def clear_room(job: Job, edit: ClearRoom) -> Job:
    """The job without a room and what is in it. Raises EditError that names what uses its boxes."""
    room = room_of(job, edit.room)
    inside = [node for node in job.nodes if node.room == room.id]
    users = [f"{node.name} ({user})" for node in inside for user in users_of(job, node.id)]
    if users:
        raise EditError(
            f"{room.name} holds boxes in use: {', '.join(users[:4])}; take those off first",
            key="room",
            value=room.name,
        )
    gone = {node.id for node in inside}
    return with_parts(
        job,
        rooms=tuple(item for item in job.rooms if item.id != room.id),
        openings=tuple(item for item in job.openings if item.room != room.id),
        fixtures=tuple(item for item in job.fixtures if item.room != room.id),
        boxes=tuple(item for item in job.boxes if item.id not in gone),
        panels=tuple(item for item in job.panels if item.id not in gone),
    )
