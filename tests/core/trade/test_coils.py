"""Cuts into coils against exhaustive search, against the solver's own bound, and by what must always hold."""

from __future__ import annotations

import math
import random
from itertools import combinations_with_replacement

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelrun.core.errors import LevelRunError
from levelrun.core.trade.coils import Coil, CoilPlan, coil_plan, planned, remember
from levelrun.core.trade.coils.problem import Problem

SOLD = (Coil(25, 21.0), Coil(50, 38.0), Coil(100, 67.0), Coil(250, 139.0))
REELS = (*SOLD, Coil(500, 260.0), Coil(1000, 505.0))


def holds(cuts: list[int], rooms: list[int]) -> bool:
    """Whether coils hold all cuts: every way to lay them in is tried."""
    if not cuts:
        return True
    tried = set()
    for j, room in enumerate(rooms):
        if room >= cuts[0] and room not in tried:
            tried.add(room)
            if holds(cuts[1:], [*rooms[:j], room - cuts[0], *rooms[j + 1 :]]):
                return True
    return False


def exhaustive(cuts: list[int], coils: tuple[Coil, ...], foot: float | None, have: list[int]) -> float:
    """The least money by trying every set of coils with every set of cuts by the foot."""
    best = math.inf
    for mask in range(1 << len(cuts)):
        by_foot = [cut for i, cut in enumerate(cuts) if mask >> i & 1]
        if by_foot and foot is None:
            continue
        rest = sorted((cut for i, cut in enumerate(cuts) if not mask >> i & 1), reverse=True)
        spent = sum(by_foot) * (foot or 0.0)
        for many in range(len(rest) + 1):
            for taken in combinations_with_replacement(coils, many):
                cost = spent + sum(coil.price for coil in taken)
                rooms = [*have, *(int(coil.length_ft) for coil in taken)]
                if cost < best - 1e-9 and sum(rooms) >= sum(rest) and holds(rest, rooms):
                    best = cost
    return best


def sound(plan: CoilPlan, cuts: list[float], have: list[float]) -> None:
    """What every plan must be: each cut once, in a coil that holds it; what is had as often as it is."""
    laid = [i for coil in plan.coils for i in coil.cuts] + list(plan.by_foot)
    assert sorted(laid) == list(range(len(cuts)))
    for coil in plan.coils:
        assert sum(cuts[i] for i in coil.cuts) + coil.left_ft == pytest.approx(coil.length_ft)
        assert coil.left_ft >= -1e-9 and list(coil.cuts) == sorted(coil.cuts, key=lambda i: (-cuts[i], i))
    used = [coil.length_ft for coil in plan.coils if coil.have]
    assert all(used.count(length) <= have.count(length) for length in used)
    assert plan.bound <= plan.cost + 1e-9


@settings(max_examples=60, deadline=None)
@given(
    st.lists(st.integers(3, 60), min_size=1, max_size=6),
    st.sampled_from([None, 0.6, 1.1]),
    st.lists(st.integers(10, 70), max_size=2),
)
def test_small_ones_are_the_cheapest_of_all(cuts: list[int], foot: float | None, have: list[int]) -> None:
    coils = (Coil(25, 21.0), Coil(60, 41.0), Coil(100, 67.0))
    plan = planned([float(c) for c in cuts], coils, foot, [float(h) for h in have])
    sound(plan, [float(c) for c in cuts], [float(h) for h in have])
    assert plan.proven and plan.cost == pytest.approx(exhaustive(cuts, coils, foot, have))


def test_one_coil_short_is_three_coils() -> None:
    """443 ft in twelve cuts: 250 + 100 + 100. Money alone says so: 250 + 250 is 278 $, 250 + 100 + 50 + 50 is 282."""
    cuts = [46.0, 14, 13, 58, 16, 62, 41, 74, 21, 33, 39, 26]
    plan = coil_plan(tuple(cuts), SOLD, 0.95)
    sound(plan, cuts, [])
    assert [coil.length_ft for coil in plan.coils] == [250, 100, 100] and plan.cost == 273 and plan.proven


def test_what_is_on_the_truck_is_used_before_anything_is_bought() -> None:
    plan = coil_plan((40.0, 30.0, 20.0), SOLD, None, (92.0,))
    assert plan.cost == 0 and [coil.have for coil in plan.coils] == [True] and plan.coils[0].left_ft == 2


def test_a_leftover_that_no_cut_fits_in_is_left() -> None:
    """Near miss: 19 ft on the truck serve no cut of 20."""
    plan = coil_plan((20.0,), SOLD, 0.95, (19.0,))
    assert plan.by_foot == (0,) and plan.cost == pytest.approx(19.0) and plan.proven


@pytest.mark.parametrize("count", [60, 200, 600])
def test_many_cuts_are_within_one_per_cent_of_a_bound_that_holds(count: int) -> None:
    """The bound of the linear programme is the solver's dual, made safe; the plan is within 1 % of the greater."""
    dice = random.Random(count)
    cuts = [float(dice.randint(9, 90)) for _ in range(count)]
    plan = planned(cuts, REELS, 0.95, [60.0, 35.0])
    sound(plan, cuts, [60.0, 35.0])
    problem = Problem(cuts, REELS, 0.95, [60.0, 35.0])
    problem.start()
    dual = problem._generated(lambda: False, lambda share, text: None)
    assert dual <= plan.cost + 1e-6
    assert plan.proven or plan.cost <= 1.01 * plan.bound


@settings(max_examples=25, deadline=None)
@given(st.lists(st.integers(51, 99), min_size=2, max_size=14), st.sampled_from([1, 2]))
def test_long_cuts_are_bounded_by_how_many_coils_they_take(cuts: list[int], per: int) -> None:
    """Cuts over half a coil: one a coil, a fact that needs no solver."""
    plan = planned([float(c) for c in cuts], [Coil(100.0, 50.0 * per)], None, [])
    assert plan.cost == pytest.approx(50.0 * per * len(cuts)) and plan.proven


def test_lengths_that_are_no_whole_feet_are_rounded_to_the_safe_side() -> None:
    """4 ft 2.4 in counts as 4 ft 3 in, a coil of 12 ft 8.9 in as 12 ft 8 in: two go in, three do not."""
    plan = planned([4.2, 4.2, 4.2], [Coil(12.74, 10.0)], None, [])
    assert [len(coil.cuts) for coil in plan.coils] == [2, 1] and plan.cost == 20


def test_a_cut_longer_than_every_coil_is_refused_by_name() -> None:
    with pytest.raises(LevelRunError, match=r"cut 2 of 1200 ft is longer than the longest coil of 250 ft") as caught:
        planned([40.0, 1200.0], SOLD, None, [])
    assert caught.value.key == "cuts_ft.1"
    with pytest.raises(LevelRunError, match="longest coil of 0 ft"):
        planned([5e-324], [], None, [])
    assert planned([40.0, 1200.0], SOLD, 1.0, []).proven, "near miss: by the foot it is cut to length"


def test_cuts_that_fit_in_nothing_are_told() -> None:
    """Two of 40 ft, one piece of 60 on the truck, and nothing sold."""
    with pytest.raises(LevelRunError, match="2 of 2 cuts fit in nothing"):
        planned([40.0, 40.0], [], None, [60.0])


def test_without_any_time_each_cut_still_has_a_coil() -> None:
    plan = planned([40.0, 90.0], SOLD, None, [], most_sets=0, over=lambda: True)
    sound(plan, [40.0, 90.0], [])


@pytest.mark.parametrize("cut", [0.0, -3.0, math.inf, math.nan, 20_000.0])
def test_senseless_lengths_are_refused(cut: float) -> None:
    with pytest.raises(LevelRunError, match=r"cuts_ft\.0"):
        planned([cut], SOLD, None, [])


def test_it_can_be_stopped_and_what_was_found_at_leisure_is_kept() -> None:
    class StoppedError(Exception):
        pass

    def told(share: float, text: str) -> None:
        raise StoppedError

    with pytest.raises(StoppedError):
        planned([30.0, 40.0], SOLD, None, [], told=told)
    question = ((31.5, 44.25), SOLD, None, ())
    better = CoilPlan(coils=(), by_foot=(), cost=1.0, proven=True, bound=1.0)
    remember(*question, better)
    assert coil_plan(*question) is better


def test_an_hour_that_is_over_still_answers_with_a_plan() -> None:
    cuts = [float(x) for x in range(9, 69)]
    plan = planned(cuts, REELS, 0.95, [], over=lambda: True)
    sound(plan, cuts, [])


def test_of_equal_money_the_fewest_feet_are_bought_and_what_is_left_is_in_one_piece() -> None:
    plan = planned([95.0], [Coil(110.0, 50.0), Coil(100.0, 50.0)], None, [])
    assert [coil.length_ft for coil in plan.coils] == [100]
    two = planned([40.0, 40.0, 20.0], [Coil(80.0, 40.0)], None, [])
    assert sorted(coil.left_ft for coil in two.coils) == [0, 60]
