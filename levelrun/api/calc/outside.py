"""Sag, ground rods, clearance of spans: questions about what lies between buildings."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter
from pydantic import Field

from levelrun.api.calc.base import Answer, NotNegative, Positive, Question, basis_of
from levelrun.core.trade.clearance import clearance
from levelrun.core.trade.ground_rods import MOST_RODS, rods
from levelrun.core.trade.span import sag

router = APIRouter(prefix="/api/calc", tags=["calc"])


class SagQuestion(Question):
    """A wire between level supports. `tension_lb`: horizontal."""

    span_ft: Annotated[float, Field(strict=True, gt=0, le=5000)]
    weight_lb_ft: Annotated[float, Field(strict=True, ge=1e-4, le=1000)]
    tension_lb: Positive


class SagAnswer(Answer):
    """Sag under the line between its ends, and length of the wire."""

    sag_ft: float
    length_ft: float


@router.post("/sag")
def calc_sag(q: SagQuestion) -> SagAnswer:
    """Sag and length of a catenary between level supports."""
    found = sag(q.span_ft, q.weight_lb_ft, q.tension_lb)
    return SagAnswer(
        sag_ft=found.sag_ft, length_ft=found.length_ft, rule="statics of the catenary", basis="published"
    )


class RodsQuestion(Question):
    """Upright rods in one row."""

    length_ft: Annotated[float, Field(strict=True, ge=0.5, le=200)]
    diameter_in: Annotated[float, Field(strict=True, ge=0.05, le=24)]
    soil_ohm_m: Annotated[float, Field(strict=True, ge=0.01, le=1e6)]
    count: Annotated[int, Field(strict=True, ge=1, le=MOST_RODS)] = 1
    apart_ft: Annotated[float, Field(strict=True, ge=0, le=10_000)] = 0


class RodsAnswer(Answer):
    """Ohms of one alone and of all together."""

    ohms_one: float
    ohms_all: float


@router.post("/rods")
def calc_rods(q: RodsQuestion) -> RodsAnswer:
    """What ground rods resist, in uniform soil."""
    found = rods(q.length_ft, q.diameter_in, q.soil_ohm_m, q.count, q.apart_ft)
    return RodsAnswer(ohms_one=found.ohms_one, ohms_all=found.ohms_all, rule="IEEE 142 (Dwight)", basis="published")


class ClearanceQuestion(Question):
    """What a span hangs over. `volts` between conductors; `run_over_roof_ft`: over the eave of its own roof."""

    over: Literal["walk", "drive", "street", "roof"]
    volts: Positive = 240
    slope_in_12: Annotated[float, Field(strict=True, ge=0, le=60)] | None = None
    run_over_roof_ft: NotNegative | None = None
    window_distance_ft: NotNegative | None = None


class ClearanceAnswer(Answer):
    """Least height, and from windows that open; `window_ok` null where no distance was given."""

    least_ft: float
    section: str
    window_ft: float
    window_ok: bool | None
    note: str


@router.post("/clearance")
def calc_clearance(q: ClearanceQuestion) -> ClearanceAnswer:
    """How high a span between buildings hangs at least."""
    book = q.book()
    found = clearance(
        book, q.over, q.volts, slope_in_12=q.slope_in_12, run_over_roof_ft=q.run_over_roof_ft,
        window_distance_ft=q.window_distance_ft,
    )  # fmt: skip
    section = book.told(found.rule)
    return ClearanceAnswer(
        least_ft=found.least_ft, section=section, window_ft=found.window_ft, window_ok=found.window_ok,
        note=found.note,
        rule=section, basis=basis_of(book, "overhead"),
    )  # fmt: skip
