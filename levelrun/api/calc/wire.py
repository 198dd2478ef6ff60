"""Ampacity, wire for a load, box fill, bored holes: questions about wire and wood."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field, StrictBool

from levelrun.api.calc.base import Answer, Few, Key, Part, Positive, Question, basis_of, told
from levelrun.core.boxes.volume import Counted, box_volume
from levelrun.core.trade.conductors.ampacity import ampacity
from levelrun.core.trade.conductors.sizing import Demand, choose
from levelrun.core.trade.holes import bored_hole

router = APIRouter(prefix="/api/calc", tags=["calc"])

Ambient = Annotated[float, Field(strict=True, ge=-40, le=90)]
Carrying = Annotated[int, Field(strict=True, ge=1, le=200)]


class AmpacityQuestion(Question):
    """A wire and its surroundings."""

    size: Key
    material: Key = "cu"
    column_c: Annotated[int, Field(strict=True)] = 75
    ambient_c: Ambient = 30.0
    current_carrying: Carrying = 3


class AmpacityAnswer(Answer):
    """What it carries."""

    base_a: float
    ambient_factor: float
    adjustment_factor: float
    ampacity_a: float


@router.post("/ampacity")
def calc_ampacity(q: AmpacityQuestion) -> AmpacityAnswer:
    """Ampacity with its corrections."""
    answer = ampacity(q.book(), q.size, q.material, q.column_c, q.ambient_c, q.current_carrying)
    return AmpacityAnswer(**told(q.book(), answer), basis=basis_of(q.book(), "310-16-ampacity"))


class ConductorQuestion(Question):
    """A load and how it is wired."""

    load_a: Annotated[float, Field(strict=True, gt=0, le=1000)]
    continuous: StrictBool = False
    breaker_a: Annotated[float, Field(strict=True, gt=0, le=1000)] | None = None
    volts: Positive = 120.0
    material: Key = "cu"
    wiring: Key = "raceway"
    insulation: Literal["THWN-2", "XHHW-2"] = "THWN-2"
    termination_c: Annotated[int, Field(strict=True)] | None = None
    minimum_ampacity_a: Annotated[float, Field(strict=True, gt=0, le=1000)] | None = None
    maximum_breaker_a: Annotated[float, Field(strict=True, gt=0, le=1000)] | None = None
    ambient_c: Ambient = 30.0
    current_carrying: Carrying = 2
    length_ft: Annotated[float, Field(strict=True, ge=0, le=100_000)] = 0.0
    drop_limit_percent: Annotated[float, Field(strict=True, gt=0, le=100)] | None = None


class ConductorAnswer(Answer):
    """The wire and what decided it."""

    breaker_a: float
    size: str
    ground_size: str
    ampacity_a: float
    drop_percent: float
    decided_by: str
    runner_up: str
    by_rule: dict[str, str]
    note: str


@router.post("/conductor")
def calc_conductor(q: ConductorQuestion) -> ConductorAnswer:
    """Smallest wire for a load, with breaker and ground."""
    asked = {name: getattr(q, name) for name in Demand.__dataclass_fields__ if name in ConductorQuestion.model_fields}
    answer = choose(q.book(), Demand(**asked))
    return ConductorAnswer(**told(q.book(), answer), basis=basis_of(q.book(), "310-16-ampacity"))


class WireCount(Part):
    """Equal wires in a box."""

    size: Key
    count: Few


class Device(Part):
    """A device by its straps and the wire on it."""

    size: Key
    straps: Few = 1


class BoxFillQuestion(Question):
    """What goes into a box."""

    conductors: list[WireCount] = Field(default=[], max_length=60)
    devices: list[Device] = Field(default=[], max_length=20)
    grounds: WireCount | None = None
    clamps: StrictBool = False
    fittings: Few = 0


class VolumePart(BaseModel):
    """One line of the sum."""

    name: str
    count: float
    each_in3: float
    in3: float


class BoxFillAnswer(Answer):
    """Volume the box needs."""

    needed_in3: float
    parts: list[VolumePart]


@router.post("/box-fill")
def calc_box_fill(q: BoxFillQuestion) -> BoxFillAnswer:
    """Box volume by 314.16(B)."""
    answer = box_volume(
        q.book(),
        [Counted(w.size, w.count) for w in q.conductors],
        [Counted(d.size, d.straps) for d in q.devices],
        Counted(q.grounds.size, q.grounds.count) if q.grounds else None,
        q.clamps,
        q.fittings,
    )
    return BoxFillAnswer(
        needed_in3=answer.needed_in3,
        parts=[VolumePart(**part.__dict__) for part in answer.parts],
        rule=q.book().told(answer.rule),
        basis=basis_of(q.book(), "314-16-allowance"),
    )


class BoredHoleQuestion(Question):
    """A hole in a stud or joist."""

    member: Key
    depth_in: Annotated[float, Field(strict=True, gt=0, le=60)]
    hole_in: Annotated[float, Field(strict=True, gt=0, le=60)]
    centred: StrictBool = True
    edge_in: Annotated[float, Field(strict=True, ge=0, le=60)] | None = None


class BoredHoleAnswer(Answer):
    """Whether it may be."""

    max_hole_in: float | None
    allowed: bool | None
    plate_needed: bool
    edge_in: float
    note: str


@router.post("/bored-hole")
def calc_bored_hole(q: BoredHoleQuestion) -> BoredHoleAnswer:
    """Largest bored hole, and whether a plate goes over it."""
    answer = bored_hole(q.book(), q.member, q.depth_in, q.hole_in, q.centred, q.edge_in)
    return BoredHoleAnswer(**told(q.book(), answer), basis=basis_of(q.book(), "bored-holes"))
