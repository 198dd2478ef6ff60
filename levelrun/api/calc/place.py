"""Cover, supports, drop, methods by place: questions about where a run lies."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import BaseModel, Field, StrictBool

from levelrun.api.calc.base import Answer, Key, NotNegative, Part, Positive, Question, basis_of, told
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import check_wire, method, raceway
from levelrun.core.errors import LevelRunError
from levelrun.core.trade.cover import cover
from levelrun.core.trade.drop import drop
from levelrun.core.trade.methods.facts import CHANGEABLE, facts_of
from levelrun.core.trade.methods.verdicts import ranked, work_of
from levelrun.core.trade.supports import supports
from levelrun.core.ways.parts import AboveKey, PlaceKey

router = APIRouter(prefix="/api/calc", tags=["calc"])


class CoverQuestion(Question):
    """What is buried under what."""

    method: Key
    above: Key
    volts: Positive = 120
    amps: Positive = 20
    gfci: StrictBool = False


class CoverAnswer(Answer):
    """Least cover."""

    cover_in: float
    column: str
    note: str


@router.post("/cover")
def calc_cover(q: CoverQuestion) -> CoverAnswer:
    """Least burial cover over the top of a pipe or cable."""
    book = q.book()
    answer = cover(book, q.method, q.above, q.volts, q.amps, q.gfci)
    return CoverAnswer(**told(book, answer), basis=basis_of(book, "300-5-cover"))


class SupportsQuestion(Question):
    """One straight of pipe or cable between two ends."""

    method: Key
    size: Key | None = Field("", description="Trade size of a pipe; of a cable none")
    length_in: Annotated[float, Field(strict=True, gt=0, le=120_000)]
    start: Literal["box_clamped", "box_no_clamp", "panel", "none"] = "box_clamped"
    end: Literal["box_clamped", "box_no_clamp", "panel", "none"] = "box_clamped"


class SupportsAnswer(Answer):
    """Where the straps go."""

    first_max_in: float
    spacing_max_in: float
    positions_in: list[float]
    count: int
    note: str


@router.post("/supports")
def calc_supports(q: SupportsQuestion) -> SupportsAnswer:
    """Support positions along a straight."""
    book = q.book()
    if q.size and method(book, q.method).kind == "raceway":
        raceway(book, q.method, q.size)
    answer = supports(book, q.method, q.size or "", q.length_in, q.start, q.end)
    return SupportsAnswer(**told(book, answer), count=answer.count, basis=basis_of(book, "supports"))


class DropQuestion(Question):
    """A load at the end of a length of wire."""

    volts: Positive
    amps: NotNegative
    length_ft: Annotated[float, Field(strict=True, ge=0, le=100_000)]
    size: Key
    material: Key = "cu"
    raceway: Key = ""
    power_factor: Annotated[float, Field(strict=True, gt=0, le=1)] = 1.0


class DropAnswer(Answer):
    """What is lost on the way."""

    drop_v: float
    drop_percent: float
    ohm_per_kft: float


@router.post("/drop")
def calc_drop(q: DropQuestion) -> DropAnswer:
    """Voltage drop of a single-phase circuit, out and back."""
    book = q.book()
    check_wire(book, q.size, q.material)
    if q.raceway:
        method(book, q.raceway)
    answer = drop(book, q.volts, q.amps, q.length_ft, q.size, q.material, q.raceway, q.power_factor)
    return DropAnswer(**told(book, answer), basis=basis_of(book, "ch9-table8"))


class Circuit(Part):
    """The circuit that a method would carry."""

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


class MethodsAnswer(Answer):
    """Every method, best first."""

    methods: list[MethodOut]
    ranked: list[str]


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
                because=[ReasonOut(rule=book.told(r.rule), text=r.text) for r in verdict.because],
                needs=list(verdict.needs),
                cover_in=_cover_or_none(book, verdict.method, facts.above, q.circuit) if facts.above else None,
                dollar_per_ft=work.dollar_per_ft,
                minutes_per_ft=work.minutes_per_ft,
            )
        )
    return MethodsAnswer(
        methods=out,
        ranked=[item.method for item in out if item.verdict != "no"],
        rule=book.told("articles 225, 300, 320 to 362"),
        basis=basis_of(book, "method-conditions"),
    )


def _cover_or_none(book: Codebook, key: str, above: str, circuit: Circuit) -> float | None:
    try:
        return cover(book, key, above, circuit.volts, circuit.amps, circuit.gfci).cover_in
    except LevelRunError:
        return None
