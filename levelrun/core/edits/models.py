"""The edits, as plain data. Mends, the entry line, gestures and forms all come as a list of these."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from levelrun.core.job import Frozen, Id, Leg, Name

Kind = Literal["structure", "room", "opening", "fixture", "panel", "box", "run", "circuit"]
LegNumber = Annotated[int, Field(ge=0, le=200)]
SideNumber = Annotated[int, Field(ge=0, le=39)]
Changes = Annotated[dict[str, Any], Field(max_length=60)]
Said = Annotated[str, Field(max_length=20_000)]


class SetJob(Frozen):
    """Change the job itself: name, rules, remarks, habits (whole)."""

    op: Literal["set_job"]
    set: Changes


class Add(Frozen):
    """Add a part. Its id, and the name and height of a box, come where they are not given."""

    op: Literal["add"]
    kind: Kind
    item: Changes


class Set(Frozen):
    """Change fields of a part."""

    op: Literal["set"]
    kind: Kind
    id: Id
    set: Changes


class Drop(Frozen):
    """Remove a part that nothing uses."""

    op: Literal["drop"]
    kind: Kind
    id: Id


class AddLeg(Frozen):
    """Insert a leg before position `at`; at the end where `at` is null."""

    op: Literal["add_leg"]
    run: Id
    at: LegNumber | None = None
    leg: Leg


class SetLeg(Frozen):
    """Change fields of one leg."""

    op: Literal["set_leg"]
    run: Id
    leg: LegNumber
    set: Changes


class DropLeg(Frozen):
    """Remove one leg."""

    op: Literal["drop_leg"]
    run: Id
    leg: LegNumber


class PutBox(Frozen):
    """Put a junction box at the end of a leg: `name`, or the next free J-n."""

    op: Literal["put_box"]
    run: Id
    leg: LegNumber
    name: Name | None = None


class EndLeg(Frozen):
    """Say what stands at the end of a leg: LB, body, coupling, nothing (empty), or a box by name."""

    op: Literal["end_leg"]
    run: Id
    leg: LegNumber
    to: Annotated[str, Field(max_length=60)]


class Walk(Frozen):
    """Add legs from walk text. `at` inserts before that leg; `replace` empties the run first."""

    op: Literal["walk"]
    run: Id
    text: Said
    at: LegNumber | None = None
    replace: bool = False


class Say(Frozen):
    """Do what a typed line says about building, boxes or circuits. `room`, `level` and `panel` are what it is about
    where the line names none; `verb` opens a sentence that has no verb of its own."""

    op: Literal["say"]
    text: Said
    room: Id | None = None
    level: Id | None = None
    panel: Id | None = None
    verb: Annotated[str, Field(max_length=20)] = ""


class MoveWall(Frozen):
    """Move a wall of a room outward by `by_in` (inward if negative); the other face of a shared wall goes along."""

    op: Literal["move_wall"]
    room: Id
    side: SideNumber
    by_in: Annotated[float, Field(ge=-1200, le=1200, allow_inf_nan=False)]


class SetSide(Frozen):
    """Change how a wall is framed, finished or insulated. Framing holds for both faces of a shared wall."""

    op: Literal["set_side"]
    room: Id
    side: SideNumber | None = None
    set: Changes


class FillRoom(Frozen):
    """Place the boxes that a room still lacks."""

    op: Literal["fill_room"]
    room: Id


class ClearRoom(Frozen):
    """Remove a room with its openings, fixtures and boxes; refused while a run or circuit uses one of them."""

    op: Literal["clear_room"]
    room: Id


class Chain(Frozen):
    """Put boxes on a circuit one after another, from the panel or from the box `after`; they leave their old one."""

    op: Literal["chain"]
    circuit: Id
    boxes: Annotated[tuple[Id, ...], Field(min_length=1, max_length=200)]
    after: Id | None = None


class Unchain(Frozen):
    """Take boxes off their circuits; what hung on one hangs on what it hung on."""

    op: Literal["unchain"]
    boxes: Annotated[tuple[Id, ...], Field(min_length=1, max_length=400)]


class Put(Frozen):
    """Put a circuit's breaker on a space of its panel, or of another."""

    op: Literal["put"]
    circuit: Id
    space: Annotated[int, Field(ge=1, le=84)] | None
    half: Literal["", "a", "b"] = ""
    panel: Id | None = None


Edit = Annotated[
    SetJob
    | Add
    | Set
    | Drop
    | AddLeg
    | SetLeg
    | DropLeg
    | PutBox
    | EndLeg
    | Walk
    | Say
    | MoveWall
    | SetSide
    | FillRoom
    | ClearRoom
    | Chain
    | Unchain
    | Put,
    Field(discriminator="op"),
]


class EditList(BaseModel):
    """Several edits that stand or fall together."""

    edits: list[Edit] = Field(min_length=1, max_length=500)
