"""Edits of what is remembered of the work: steps ticked, torque, walls closed, where things went, visits, holds."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool

from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, made, next_id, set_part, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Box, Built, Card, Closing, Job, Panel, Photo, Tick, Torque
from levelrun.core.measure import show, show_inches
from levelrun.core.part import Id, Text
from levelrun.core.roughin import visit_edits
from levelrun.core.roughin.parts import Day, Surface, Thing
from levelrun.core.roughin.steps import MAYBE, needed_steps
from levelrun.core.roughin.surfaces import level_of, place_name, readings_of, surface_of, surface_sizes
from levelrun.core.roughin.waits import named, waits_of

ASKS = (
    "ask_connector", "ask_through", "ask_ring", "ask_strap", "ask_pull", "ask_line", "ask_lugs", "ask_prove",
    "ask_bond", "ask_short",
)  # fmt: skip
EDGE_IN = 0.07  # a reading to the sixteenth may lie so far over the edge


class DoCard(EditBase):
    """Tick steps of a box or panel, or questions asked there; or take the ticks off."""

    op: Literal["do_card"]
    node: Id
    steps: Annotated[tuple[Annotated[str, Field(max_length=20)], ...], Field(min_length=1, max_length=30)]
    done: StrictBool = True
    on: Day = ""

    def title(self) -> str:
        steps = ", ".join(step.removeprefix("ask_").replace("_", " ") for step in self.steps)
        return f"{steps} {'done' if self.done else 'not done'}"

    def apply(self, job: Job, book: Codebook) -> Job:
        node = node_of(job, self.node)
        allowed = (*needed_steps(node), *MAYBE, *ASKS)
        for step in self.steps:
            if step not in allowed:
                raise EditError(
                    f"{step!r} is no step of {node.name}; allowed: {', '.join(allowed)}", key="steps", value=step,
                    allowed=list(allowed),
                )  # fmt: skip
        card = _card(job, self.node)
        kept = tuple(tick for tick in card.done if tick.step not in self.steps)
        ticks = tuple(Tick(step=step, on=self.on) for step in dict.fromkeys(self.steps)) if self.done else ()
        return _with_card(job, card.model_copy(update={"done": (*kept, *ticks)}))


class SayTorque(EditBase):
    """Say to what a terminal was torqued, in pound-inches, and what its label asks; 0 takes the reading off."""

    op: Literal["torque"]
    node: Id
    at: Annotated[str, Field(min_length=1, max_length=20)]
    lb_in: Annotated[float, Field(ge=0, le=1000)]
    label_lb_in: Annotated[float, Field(gt=0, le=1000)] | None = None
    on: Day = ""

    def title(self) -> str:
        return f"torque of {self.at}"

    def apply(self, job: Job, book: Codebook) -> Job:
        node_of(job, self.node)
        card = _card(job, self.node)
        kept = tuple(read for read in card.torque if read.at != self.at)
        if self.lb_in:
            values = {"at": self.at, "lb_in": self.lb_in, "label_lb_in": self.label_lb_in, "on": self.on}
            kept = (*kept, made(Torque, values, "torque"))
        return _with_card(job, card.model_copy(update={"torque": kept}))


class CloseWall(EditBase):
    """Close a wall, ceiling or floor. While something in it waits only with a reason, which stays with it."""

    op: Literal["close_wall"]
    room: Id
    surface: Surface
    on: Day = ""
    why: Text = ""

    def title(self) -> str:
        return "close the wall" if self.surface.isdigit() else f"close the {self.surface}"

    def apply(self, job: Job, book: Codebook) -> Job:
        place = _place(job, self.room, self.surface)
        waits = [wait.text for wait in waits_of(job, self.room, self.surface)]
        if waits and not self.why.strip():
            raise EditError(
                f"{place} waits: {named(waits)}. Do that, or say why it is closed without", key="why", value="",
                allowed=["a reason"],
            )  # fmt: skip
        kept = tuple(item for item in job.closings if (item.room, item.surface) != (self.room, self.surface))
        closing = Closing(
            id=next_id(job, "z"), room=self.room, surface=self.surface, on=self.on, why=self.why if waits else ""
        )
        return with_parts(job, closings=(*kept, closing))


class OpenWall(EditBase):
    """Take a wall open again."""

    op: Literal["open_wall"]
    room: Id
    surface: Surface

    def title(self) -> str:
        return "open the wall"

    def apply(self, job: Job, book: Codebook) -> Job:
        kept = tuple(item for item in job.closings if (item.room, item.surface) != (self.room, self.surface))
        if len(kept) == len(job.closings):
            place = _place(job, self.room, self.surface)
            raise EditError(f"{place} is not closed", key="surface", value=self.surface)
        return with_parts(job, closings=kept)


class MoveBuilt(EditBase):
    """Say where a box really went, by its two readings: the plan follows it, and what was planned stays written
    beside."""

    op: Literal["built_box"]
    node: Id
    at_in: float
    height_in: float
    on: Day = ""
    remarks: Text = ""

    def title(self) -> str:
        return "where it was built"

    def apply(self, job: Job, book: Codebook) -> Job:
        node = node_of(job, self.node)
        if node.room is None:
            raise EditError(f"{node.name} stands in no drawn room: it has no readings", key="node", value=self.node)
        room = job.room(node.room)
        level, surface = level_of(job, room), surface_of(node, level_of(job, room))
        within(job, node.room, surface, ((self.at_in, self.height_in),))
        was = readings_of(node, room, level)
        known = next((b for b in job.built if b.node == node.id and b.circuit is None and b.state == "moved"), None)
        values: dict[str, Any]
        if node.side is not None:
            values = {"at_in": self.at_in, "height_in": self.height_in + level.floor_in}
        else:
            west, south = min(x for x, _ in room.corners), min(y for _, y in room.corners)
            values = {"x_in": west + self.at_in, "y_in": south + self.height_in}
        if isinstance(node, Box):
            values["fixed"] = True
        kind = "panels" if isinstance(node, Panel) else "boxes"
        moved = made(type(node), {**node.model_dump(), **values}, "built")
        parts = tuple(moved if item.id == node.id else item for item in getattr(job, kind))
        built = made(
            Built,
            {
                "id": known.id if known else next_id(job, "j"), "state": "moved", "what": "box", "node": node.id,
                "room": node.room, "surface": surface, "points": ((self.at_in, self.height_in),),
                "was": known.was if known else was, "on": self.on, "remarks": self.remarks,
            },
            "built",
        )  # fmt: skip
        others = tuple(item for item in job.built if known is None or item.id != known.id)
        return with_parts(job, **{kind: parts, "built": (*others, built)})


class MoveCable(EditBase):
    """Say where a cable really lies in a wall, corner by corner."""

    op: Literal["built_cable"]
    circuit: Id
    box: Id
    room: Id
    surface: Surface
    points: Annotated[tuple[tuple[float, float], ...], Field(min_length=2, max_length=40)]
    on: Day = ""
    remarks: Text = ""

    def title(self) -> str:
        return "where the cable lies"

    def apply(self, job: Job, book: Codebook) -> Job:
        hop_of(job, self.circuit, self.box)
        within(job, self.room, self.surface, self.points)
        spot = (self.circuit, self.box, self.room, self.surface)
        others = tuple(b for b in job.built if b.state != "moved" or (b.circuit, b.node, b.room, b.surface) != spot)
        built = made(
            Built,
            {
                "id": next_id(job, "j"), "state": "moved", "what": "cable", "node": self.box, "circuit": self.circuit,
                "room": self.room, "surface": self.surface, "points": self.points, "on": self.on,
                "remarks": self.remarks,
            },
            "built",
        )  # fmt: skip
        return with_parts(job, built=(*others, built))


class LeaveOut(EditBase):
    """Say that a box, or the cable of a hop, was left out; or that it is there after all."""

    op: Literal["left_out"]
    node: Id
    circuit: Id | None = None
    out: StrictBool = True
    on: Day = ""
    why: Text = ""

    def title(self) -> str:
        return "left out" if self.out else "there after all"

    def apply(self, job: Job, book: Codebook) -> Job:
        node_of(job, self.node)
        if self.circuit is not None:
            hop_of(job, self.circuit, self.node)
        spot = ("left_out", self.circuit, self.node)
        others = tuple(item for item in job.built if (item.state, item.circuit, item.node) != spot)
        if not self.out:
            return with_parts(job, built=others)
        built = Built(
            id=next_id(job, "j"), state="left_out", what="cable" if self.circuit else "box", node=self.node,
            circuit=self.circuit, on=self.on, remarks=self.why,
        )  # fmt: skip
        return with_parts(job, built=(*others, built))


class Extra(EditBase):
    """Say that something is in a wall that nobody planned: what, and where, one spot or corner by corner."""

    op: Literal["extra"]
    room: Id
    surface: Surface
    what: Thing = "other"
    points: Annotated[tuple[tuple[float, float], ...], Field(min_length=1, max_length=40)]
    on: Day = ""
    remarks: Text = ""

    def title(self) -> str:
        return f"{self.what} in the wall"

    def apply(self, job: Job, book: Codebook) -> Job:
        within(job, self.room, self.surface, self.points)
        values = {**self.model_dump(exclude={"op"}), "id": next_id(job, "j"), "state": "extra"}
        return with_parts(job, built=(*job.built, made(Built, values, "extra")))


class PinPhoto(EditBase):
    """Pin a photo to a spot of a surface by its two readings, along a trench, or to a box in no drawn room."""

    op: Literal["pin_photo"]
    photo: Id
    room: Id | None = None
    surface: Surface = "0"
    trench: Id | None = None
    node: Id | None = None
    at_in: float = 0
    height_in: float = 0

    def title(self) -> str:
        return "pin the photo"

    def apply(self, job: Job, book: Codebook) -> Job:
        if self.room is not None:
            within(job, self.room, self.surface, ((self.at_in, self.height_in),))
        values = self.model_dump(exclude={"op", "photo"})
        return set_part(job, book, PHOTO, self.photo, values)


def node_of(job: Job, ident: str) -> Box | Panel:
    """A box or panel. Raises EditError."""
    try:
        return job.node(ident)
    except KeyError:
        raise EditError(f"no box or panel {ident!r} in this job", key="node", value=ident) from None


def hop_of(job: Job, circuit: str, box: str) -> None:
    """Refuses where a circuit has no cable to a box. Raises EditError."""
    own = next((item for item in job.circuits if item.id == circuit), None)
    if own is None or all(hop.box != box for hop in own.chain):
        raise EditError(f"no cable of {circuit!r} goes to {box!r}", key="box", value=box)


def _place(job: Job, room: str, surface: str) -> str:
    own = next((item for item in job.rooms if item.id == room), None)
    if own is None:
        raise EditError(f"no room {room!r} in this job", key="room", value=room)
    if surface.isdigit() and int(surface) >= len(own.corners):
        raise EditError(
            f"{own.name} has walls 0 to {len(own.corners) - 1}; {surface} is none", key="surface", value=surface
        )
    return place_name(job, room, surface)


def within(job: Job, room_id: str, surface: str, points: tuple[tuple[float, float], ...]) -> None:
    """Refuses a reading that lies outside of its surface. Raises EditError that names it and what is allowed."""
    place = _place(job, room_id, surface)
    room = job.room(room_id)
    wide, tall = surface_sizes(room, level_of(job, room), surface)
    for at, height in points:
        for key, value, most, told in (("at_in", at, wide, "along"), ("height_in", height, tall, "high")):
            if not -EDGE_IN <= value <= most + EDGE_IN:
                shown = show(value) if key == "at_in" else show_inches(value)
                edge = show(most) if key == "at_in" else show_inches(most)
                raise EditError(
                    f"{shown} {told} lies outside {place}; allowed: 0 to {edge}", key=key, value=value,
                    allowed=[f"0 to {edge}"],
                )  # fmt: skip


def _card(job: Job, node: str) -> Card:
    return next((card for card in job.cards if card.node == node), None) or Card(id=next_id(job, "d"), node=node)


def _with_card(job: Job, card: Card) -> Job:
    others = tuple(item for item in job.cards if item.node != card.node)
    return with_parts(job, cards=others if not card.done and not card.torque else (*others, card))


PHOTO = PartKind(name="photo", field="photos", model=Photo, letter="i")
KINDS = (
    PartKind(name="card", field="cards", model=Card, letter="d"),
    PartKind(name="built", field="built", model=Built, letter="j"),
    PartKind(name="closing", field="closings", model=Closing, letter="z"),
    PHOTO,
    visit_edits.VISIT,
    visit_edits.FAULT,
)
EDITS = (
    DoCard, SayTorque, CloseWall, OpenWall, MoveBuilt, MoveCable, LeaveOut, Extra, PinPhoto, *visit_edits.EDITS,
)  # fmt: skip
