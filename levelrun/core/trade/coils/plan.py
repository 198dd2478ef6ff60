"""Coils: which cut comes from which coil, at the least money.

A cutting-stock problem with several lengths of stock, each at its price. Sets of coils are gone through in the order
of what they cost (A*, with the least that the feet still lacking can cost as estimate): the first that holds every
cut is the cheapest, and that is a proof where each set before it was shown not to hold them, by an integer programme.
Beside it stands the linear programme over all ways to fill a coil, by column generation (Gilmore and Gomory 1961,
1963): the cuts are priced by HiGHS, the next filling is a bounded knapsack. Its dual, made safe (Farley 1990), is a
bound under which no plan can be, and its fillings rounded to whole coils are a plan where cuts are long.
"""

from __future__ import annotations

from collections.abc import Hashable, Sequence
from functools import lru_cache

from levelrun.core.errors import LevelRunError
from levelrun.core.trade.coils.problem import Problem
from levelrun.core.trade.coils.stock import Coil, CoilPlan, Over, Told, in_places

SETS, QUICK = 400, 25  # sets of coils gone through, at leisure and at once
MOST_CUTS, MOST_LENGTH = 2000, 10_000.0


_better: dict[Hashable, CoilPlan] = {}
MOST_KEPT = 256


def remember(
    cuts_ft: tuple[float, ...], coils: tuple[Coil, ...], foot_price: float | None, have_ft: tuple[float, ...],
    plan: CoilPlan,
) -> None:  # fmt: skip
    """Keeps a plan that was searched for at leisure: `coil_plan` gives it from then on."""
    if len(_better) >= MOST_KEPT:
        _better.clear()
    _better[cuts_ft, coils, foot_price, have_ft] = plan


def coil_plan(
    cuts_ft: tuple[float, ...],
    coils: tuple[Coil, ...],
    foot_price: float | None = None,
    have_ft: tuple[float, ...] = (),
    most_sets: int = QUICK,
) -> CoilPlan:
    """The cheapest coils for some cuts; of equal ones those with the fewest feet. A cut is never pieced together.

    cuts_ft, have_ft: feet, rounded to the inch to the safe side; `have_ft` is free, each piece once. Raises
    LevelRunError that names the first cut which no coil holds.
    """
    known = _better.get((cuts_ft, coils, foot_price, have_ft))
    return known or _at_once(cuts_ft, coils, foot_price, have_ft, most_sets)


@lru_cache(maxsize=512)
def _at_once(
    cuts_ft: tuple[float, ...], coils: tuple[Coil, ...], foot_price: float | None, have_ft: tuple[float, ...],
    most_sets: int,
) -> CoilPlan:  # fmt: skip
    return planned(cuts_ft, coils, foot_price, have_ft, most_sets)


def planned(
    cuts_ft: Sequence[float],
    coils: Sequence[Coil],
    foot_price: float | None,
    have_ft: Sequence[float],
    most_sets: int = SETS,
    over: Over | None = None,
    told: Told | None = None,
) -> CoilPlan:
    """As `coil_plan`, not kept. over: asked now and then whether the time is over; told: hears how far it is (0 to
    1), and may raise to stop it."""
    _fits(cuts_ft, coils, foot_price, have_ft)
    if not cuts_ft:
        return CoilPlan(coils=(), by_foot=(), cost=0.0, proven=True, bound=0.0)
    problem = Problem(cuts_ft, coils, foot_price, have_ft)
    return problem.plan(most_sets, over or (lambda: False), told or (lambda share, text: None))


def _fits(
    cuts: Sequence[float], coils: Sequence[Coil], foot_price: float | None, have: Sequence[float]
) -> None:  # fmt: skip
    if len(cuts) > MOST_CUTS:
        raise LevelRunError(f"cuts_ft: {len(cuts)} cuts; allowed: up to {MOST_CUTS}", key="cuts_ft", value=len(cuts))
    for key, lengths in (("cuts_ft", cuts), ("coils", [c.length_ft for c in coils]), ("have_ft", have)):
        for number, length in enumerate(lengths):
            if not 0 < length <= MOST_LENGTH:
                raise LevelRunError(
                    f"{key}.{number} of {length:g} ft; allowed: over 0, up to {MOST_LENGTH:g}",
                    key=f"{key}.{number}", value=length, allowed=[f"over 0, up to {MOST_LENGTH:g}"],
                )  # fmt: skip
    longest = max([c.length_ft for c in coils] + list(have), default=0.0)
    for number, cut in enumerate(cuts):
        if foot_price is None and in_places(cut, up=True) > in_places(longest, up=False):
            raise LevelRunError(
                f"cut {number + 1} of {cut:g} ft is longer than the longest coil of {longest:g} ft; allowed: up to "
                f"{longest:g}, or by the foot",
                key=f"cuts_ft.{number}", value=cut, allowed=[f"up to {longest:g}"],
            )  # fmt: skip
