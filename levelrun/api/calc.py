"""The stateless calculations of /api/calc: the same code as the plan."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field, StrictBool, model_validator

from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import check_wire, method, raceway
from levelrun.core.cover import cover
from levelrun.core.drop import drop
from levelrun.core.errors import LevelRunError
from levelrun.core.job import AboveKey, PlaceKey
from levelrun.core.methods.facts import CHANGEABLE, facts_of
from levelrun.core.methods.verdicts import ranked, work_of
from levelrun.core.pipe.bends import bends
from levelrun.core.pipe.fill import CableIn, Wires, fill, max_count
from levelrun.core.supports import supports

router = APIRouter(prefix="/api/calc", tags=["calc"])

Positive = Annotated[float, Field(strict=True, gt=0, le=1e6)]
NotNegative = Annotated[float, Field(strict=True, ge=0, le=1e6)]
Count = Annotated[int, Field(strict=True, ge=1, le=500)]
Key = Annotated[str, Field(max_length=20)]


class Question(BaseModel):
    """Base of every question: unknown keys, NaN and infinities are refused."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    rules: Key = "us-2023"

    def book(self) -> Codebook:
        """The rule set asked for."""
        return load(self.rules)


class WiresIn(BaseModel):
    """Equal single wires."""

    model_config = ConfigDict(extra="forbid")
    insulation: Key
    size: Key
    count: Count


class CablesIn(BaseModel):
    """Equal cables, by their wide side."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    wide_in: Annotated[float, Field(strict=True, gt=0, le=12)]
    count: Count


class FillQuestion(Question):
    """What lies in a pipe."""

    raceway: Key
    size: Key
    conductors: list[WiresIn] = Field(default=[], max_length=100)
    cables: list[CablesIn] = Field(default=[], max_length=100)
    nipple: StrictBool = False
    sleeve: StrictBool = False

    @model_validator(mode="after")
    def _few(self) -> FillQuestion:
        if sum(w.count for w in self.conductors) + sum(c.count for c in self.cables) > 500:
            raise ValueError("count: more than 500 wires in one pipe; allowed: up to 500")
        return self


class FillAnswer(BaseModel):
    """How full it is."""

    total_in2: float
    used_in2: float
    percent: float
    limit_percent: float | None
    fits: bool
    jam_ratio: float | None
    jam_risk: bool
    smallest_size: str | None
    rule: str
    basis: str


@router.post("/fill")
def calc_fill(q: FillQuestion) -> FillAnswer:
    """Conduit fill of any mix of wires and cables."""
    book = q.book()
    wires = [Wires(w.insulation, w.size, w.count) for w in q.conductors]
    cables = [CableIn(c.wide_in, c.count) for c in q.cables]
    answer = fill(book, q.raceway, q.size, wires, cables, q.nipple, q.sleeve)
    return FillAnswer(**answer.__dict__, basis=_basis(book, f"ch9-table4-{q.raceway.lower()}"))


class MaxCountQuestion(Question):
    """One kind of wire in one pipe."""

    raceway: Key
    size: Key
    insulation: Key
    conductor_size: Key


class MaxCountAnswer(BaseModel):
    """How many go in."""

    count: int
    rule: str
    basis: str


@router.post("/max-count")
def calc_max_count(q: MaxCountQuestion) -> MaxCountAnswer:
    """Most same-size wires in a pipe, as annex C counts them."""
    book = q.book()
    count = max_count(book, q.raceway, q.size, q.insulation, q.conductor_size)
    return MaxCountAnswer(
        count=count, rule="ch. 9 table 1, note 7", basis=_basis(book, f"ch9-table4-{q.raceway.lower()}")
    )


class CoverQuestion(Question):
    """What is buried under what."""

    method: Key
    above: Key
    volts: Positive = 120
    amps: Positive = 20
    gfci: StrictBool = False


class CoverAnswer(BaseModel):
    """Least cover."""

    cover_in: float
    column: str
    note: str
    rule: str
    basis: str


@router.post("/cover")
def calc_cover(q: CoverQuestion) -> CoverAnswer:
    """Least burial cover over the top of a pipe or cable."""
    book = q.book()
    answer = cover(book, q.method, q.above, q.volts, q.amps, q.gfci)
    return CoverAnswer(**answer.__dict__, basis=_basis(book, "300-5-cover"))


class SupportsQuestion(Question):
    """One straight of pipe or cable between two ends."""

    method: Key
    size: Key = ""
    length_in: Annotated[float, Field(strict=True, gt=0, le=120_000)]
    start: Literal["box_clamped", "box_no_clamp", "panel", "none"] = "box_clamped"
    end: Literal["box_clamped", "box_no_clamp", "panel", "none"] = "box_clamped"


class SupportsAnswer(BaseModel):
    """Where the straps go."""

    first_max_in: float
    spacing_max_in: float
    positions_in: list[float]
    count: int
    note: str
    rule: str
    basis: str


@router.post("/supports")
def calc_supports(q: SupportsQuestion) -> SupportsAnswer:
    """Support positions along a straight."""
    book = q.book()
    if q.size and method(book, q.method).kind == "raceway":
        raceway(book, q.method, q.size)
    answer = supports(book, q.method, q.size, q.length_in, q.start, q.end)
    return SupportsAnswer(**answer.__dict__, count=answer.count, basis=_basis(book, "supports"))


class BendsQuestion(Question):
    """Bends between two pull points."""

    bends_deg: list[Annotated[float, Field(strict=True, ge=0, le=360)]] = Field(max_length=100)


class BendsAnswer(BaseModel):
    """Their sum."""

    total_deg: float
    limit_deg: float
    ok: bool
    rule: str
    basis: str


@router.post("/bends")
def calc_bends(q: BendsQuestion) -> BendsAnswer:
    """Bend total between pull points."""
    answer = bends(q.book(), q.bends_deg)
    return BendsAnswer(**answer.__dict__, basis=q.book().scalar("bend_limit_deg").basis)


class DropQuestion(Question):
    """A load at the end of a length of wire."""

    volts: Positive
    amps: NotNegative
    length_ft: Annotated[float, Field(strict=True, ge=0, le=100_000)]
    size: Key
    material: Key = "cu"
    raceway: Key = ""
    power_factor: Annotated[float, Field(strict=True, gt=0, le=1)] = 1.0


class DropAnswer(BaseModel):
    """What is lost on the way."""

    drop_v: float
    drop_percent: float
    ohm_per_kft: float
    rule: str
    basis: str


@router.post("/drop")
def calc_drop(q: DropQuestion) -> DropAnswer:
    """Voltage drop of a single-phase circuit, out and back."""
    book = q.book()
    check_wire(book, q.size, q.material)
    if q.raceway:
        method(book, q.raceway)
    answer = drop(book, q.volts, q.amps, q.length_ft, q.size, q.material, q.raceway, q.power_factor)
    return DropAnswer(**answer.__dict__, basis=_basis(book, "ch9-table8"))


class Circuit(BaseModel):
    """The circuit that a method would carry."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    volts: Positive = 120
    amps: Positive = 20
    gfci: StrictBool = False
    conductors: Annotated[int, Field(strict=True, ge=1, le=50)] = 2


class MethodsQuestion(Question):
    """A place, what differs there from such a place, and the circuit."""

    place: PlaceKey
    moisture: Literal["dry", "damp", "wet"] | None = None
    exposed: StrictBool | None = None
    damage: StrictBool | None = None
    sunlight: StrictBool | None = None
    ambient_c: Annotated[float, Field(strict=True, ge=-40, le=90)] | None = None
    insulation: StrictBool | None = None
    above: AboveKey | None = None
    circuit: Circuit = Circuit()


class ReasonOut(BaseModel):
    """One row of the method table that holds here."""

    rule: str
    text: str


class MethodOut(BaseModel):
    """One method."""

    method: str
    name: str
    verdict: Literal["yes", "if", "no"]
    because: list[ReasonOut]
    needs: list[str]
    cover_in: float | None
    dollar_per_ft: float
    minutes_per_ft: float


class MethodsAnswer(BaseModel):
    """Every method, best first."""

    methods: list[MethodOut]
    ranked: list[str]
    rule: str
    basis: str


@router.post("/methods")
def calc_methods(q: MethodsQuestion) -> MethodsAnswer:
    """Every wiring method in a place: yes, if or no, ranked by material, minutes and ease of later change."""
    book = q.book()
    facts = facts_of(book, q.place, {key: getattr(q, key) for key in CHANGEABLE})
    out = []
    for verdict in ranked(book, facts):
        work = work_of(book, verdict.method)
        out.append(
            MethodOut(
                method=verdict.method,
                name=verdict.name,
                verdict=verdict.verdict,
                because=[ReasonOut(rule=r.rule, text=r.text) for r in verdict.because],
                needs=list(verdict.needs),
                cover_in=_cover_or_none(book, verdict.method, facts.above, q.circuit) if facts.above else None,
                dollar_per_ft=work.dollar_per_ft,
                minutes_per_ft=work.minutes_per_ft,
            )
        )
    return MethodsAnswer(
        methods=out,
        ranked=[item.method for item in out if item.verdict != "no"],
        rule="articles 225, 300, 320 to 362",
        basis=_basis(book, "method-conditions"),
    )


def _cover_or_none(book: Codebook, key: str, above: str, circuit: Circuit) -> float | None:
    try:
        return cover(book, key, above, circuit.volts, circuit.amps, circuit.gfci).cover_in
    except LevelRunError:
        return None


def _basis(book: Codebook, table: str) -> str:
    return book.table(table).head.basis
