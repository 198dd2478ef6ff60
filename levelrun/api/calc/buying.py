"""Small calculations of buying: cuts into coils."""

from __future__ import annotations

from time import monotonic
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.calc.base import Answer, Question
from levelrun.core.trade.coils import Coil, planned

router = APIRouter(prefix="/api/calc", tags=["calc"])
Feet = Annotated[float, Field(strict=True, gt=0, le=10_000, allow_inf_nan=False)]
Price = Annotated[float, Field(strict=True, ge=0, le=100_000, allow_inf_nan=False)]
SECONDS = 1.5


class CoilIn(BaseModel):
    """A coil as it is sold."""

    model_config = ConfigDict(extra="forbid")
    length_ft: Feet
    price: Price


class CoilsQuestion(Question):
    """Cuts, coils to choose from, the price of a foot where it is sold so, what is on the truck."""

    cuts_ft: list[Feet] = Field(min_length=1, max_length=1000)
    coils: list[CoilIn] = Field(default=[], max_length=40)
    foot_price: Price | None = None
    have_ft: list[Feet] = Field(default=[], max_length=100)


class CoilOut(BaseModel):
    """A coil with its cuts, longest first; have: it is on the truck."""

    length_ft: float
    cuts_ft: list[float]
    left_ft: float
    have: bool


class CoilsAnswer(Answer):
    """The cheapest coils; bound: no plan costs less."""

    plan: list[CoilOut]
    by_foot_ft: float
    cost: float
    proven: bool
    bound: float
    note: str


@router.post("/coils")
def calc_coils(q: CoilsQuestion) -> CoilsAnswer:
    """Which cut comes from which coil, at the least money; a cut is never pieced together."""
    started = monotonic()
    found = planned(
        q.cuts_ft, [Coil(item.length_ft, item.price) for item in q.coils], q.foot_price, q.have_ft,
        over=lambda: monotonic() - started > SECONDS,
    )  # fmt: skip
    return CoilsAnswer(
        plan=[
            CoilOut(
                length_ft=coil.length_ft, cuts_ft=[q.cuts_ft[i] for i in coil.cuts], left_ft=coil.left_ft,
                have=coil.have,
            )
            for coil in found.coils
        ],
        by_foot_ft=sum(q.cuts_ft[i] for i in found.by_foot),
        cost=found.cost,
        proven=found.proven,
        bound=found.bound,
        note="" if found.proven else "not proven the cheapest: no plan costs less than the bound",
        rule="common practice, no source",
        basis="practice",
    )  # fmt: skip
