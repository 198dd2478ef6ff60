"""What is remembered of the work: ticks, torque, where things really went, photos, closed walls, visits, holds."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from levelrun.core.part import Frozen, Height, Id, Inches, Text, plain

LONG_MONTHS, SHORT_MONTHS = (1, 3, 5, 7, 8, 10, 12), (4, 6, 9, 11)


def _real_day(text: str) -> str:
    """A day that the calendar has."""
    if not text:
        return text
    year, month, day = (int(part) for part in text.split("-"))
    leap = year % 4 == 0 and (year % 100 != 0 or year % 400 == 0)
    most = 31 if month in LONG_MONTHS else 30 if month in SHORT_MONTHS else (29 if leap else 28) if month == 2 else 0
    if not 1 <= day <= most or not 1900 <= year <= 2200:
        raise ValueError(f"{text} is no day of the calendar; allowed: a day such as 2026-05-12")
    return text


Day = Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2})?$"), AfterValidator(_real_day)]
Hour = Annotated[str, StringConstraints(pattern=r"^(([01]\d|2[0-3]):[0-5]\d)?$")]
Who = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Surface = Annotated[str, StringConstraints(pattern=r"^(\d{1,2}|ceiling|floor)$")]
Section = Annotated[str, StringConstraints(strip_whitespace=True, max_length=40), AfterValidator(plain)]
HoldKind = Literal["insulation", "drywall", "backfill", "power"]
VisitKind = Literal["insulation", "drywall", "backfill", "power", "final"]
Thing = Literal["cable", "pipe", "box", "duct", "water", "wood", "other"]
Reach = tuple[Inches, Inches]


class Tick(Frozen):
    """A step of work that is done: on which day, and why, where it was done out of turn."""

    step: Annotated[str, StringConstraints(pattern=r"^[a-z_]{1,20}$")]
    on: Day = ""
    why: Text = ""


class Hold(Frozen):
    """What is kept open until it is seen: its kind, the part that it holds (a trench, else a building), and who
    lifted it on which day. While `lifted_by` is empty it holds."""

    id: Id
    kind: HoldKind = "backfill"
    place: Id
    lifted_by: Who = ""
    lifted_on: Day = ""
    remarks: Text = ""


class Torque(Frozen):
    """A terminal that was torqued: which, to how many pound-inches, what its label asks, on which day."""

    at: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=20), AfterValidator(plain)]
    lb_in: Annotated[float, Field(strict=True, gt=0, le=1000, allow_inf_nan=False)]
    label_lb_in: Annotated[float, Field(strict=True, gt=0, le=1000, allow_inf_nan=False)] | None = Field(
        None, description="What its label asks; null: not typed"
    )
    on: Day = ""


class Card(Frozen):
    """What was done at a box or panel: its steps ticked, its terminals torqued."""

    id: Id
    node: Id
    done: tuple[Tick, ...] = Field((), max_length=40)
    torque: tuple[Torque, ...] = Field((), max_length=100)


class Built(Frozen):
    """Where something really went, against the plan: moved, more than was planned, or left out. A box by `node`; the
    cable of a hop by `circuit` and `node`, with its corners in one wall; anything else by what it is. Readings are
    inches from the left corner of the surface and over its floor."""

    id: Id
    state: Literal["moved", "extra", "left_out"]
    what: Thing = "box"
    node: Id | None = None
    circuit: Id | None = None
    room: Id | None = None
    surface: Surface = "0"
    points: tuple[Reach, ...] = Field((), max_length=40)
    was: Reach | None = Field(None, description="Of a moved box: the readings that were planned")
    on: Day = ""
    remarks: Text = ""

    @model_validator(mode="after")
    def _is_somewhere(self) -> Built:
        if self.state != "left_out" and (self.room is None or not self.points):
            raise ValueError("points: say where it went, two readings at least")
        if self.state != "extra" and self.node is None:
            raise ValueError("node: say which box, or which cable by the box that it goes to")
        if self.circuit is not None and self.state == "moved" and len(self.points) < 2:
            raise ValueError("points: a cable in a wall goes from one place to another")
        return self


class Photo(Frozen):
    """A photo and where it was taken: its file by what is in it, pinned to a spot of a surface, along a trench, or
    to a box in no drawn room. Readings: from the left corner (of a trench: from its start), and over the floor."""

    id: Id
    file: Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")] = Field(description="SHA-256 of what is kept")
    wide: Annotated[int, Field(strict=True, ge=1, le=20_000)]
    tall: Annotated[int, Field(strict=True, ge=1, le=20_000)]
    room: Id | None = None
    surface: Surface = "0"
    trench: Id | None = None
    node: Id | None = Field(None, description="The box or panel that it shows, where no room is drawn")
    at_in: Inches = 0
    height_in: Height = 0
    on: Day = ""
    hour: Hour = ""
    who: Who = ""
    remarks: Text = ""


class Closing(Frozen):
    """A wall, ceiling or floor that is closed: on which day; why, where something was still waiting."""

    id: Id
    room: Id
    surface: Surface
    on: Day = ""
    why: Text = ""


class Visit(Frozen):
    """An inspection: what it looks at, of which building or trench, when, who came, and how it ended."""

    id: Id
    kind: VisitKind
    place: Id
    on: Day = ""
    hour: Hour = ""
    who: Who = ""
    result: Literal["", "passed", "failed"] = ""
    ticket: Annotated[str, StringConstraints(strip_whitespace=True, max_length=30), AfterValidator(plain)] = ""
    remarks: Text = ""


class Fault(Frozen):
    """What a visit found: in words, with the section, at a box or a spot; mended on a day, and seen again on one."""

    id: Id
    visit: Id
    text: Annotated[
        str, StringConstraints(strip_whitespace=True, min_length=1, max_length=300), AfterValidator(plain)
    ]
    section: Section = ""
    node: Id | None = None
    mended_on: Day = ""
    mended_by: Who = ""
    seen_on: Day = ""

    @model_validator(mode="after")
    def _in_order(self) -> Fault:
        if self.seen_on and not self.mended_on:
            raise ValueError("seen_on: it is mended before it is seen again")
        if self.seen_on and self.seen_on < self.mended_on:
            raise ValueError(f"seen_on {self.seen_on}: it was mended on {self.mended_on}")
        return self
