"""Other ways of the same job: each a whole re-plan, its figures those of the plan after its edits."""

from __future__ import annotations

import pytest

from levelrun.core.buying.budget import money_of
from levelrun.core.buying.labour import tasks_of
from levelrun.core.codebook import load
from levelrun.core.edits import apply_raw
from levelrun.core.job import Job
from levelrun.core.others.kinds import Other, others_of
from levelrun.core.others.weighed import Weighed, weighed, weighing
from levelrun.core.plan import plan
from levelrun.samples import sample
from tests.conftest import edited
from tests.core.trench.yard import FEED, yard


@pytest.fixture(scope="module")
def ways() -> list[Weighed]:
    return [way for _, way in weighing(sample("quince-hollow"))]


def test_at_least_six_are_planned_by_themselves(ways: list[Weighed]) -> None:
    allowed = [way for way in ways if way.key and not way.stops]
    assert ways[0].key == "" and len(allowed) >= 6
    assert {"aluminum", "copper", "overhead-t2", "trench-n1", "school-over", "wire-12", "mc-shop"} <= {
        way.key for way in ways
    }  # fmt: skip
    assert min(way.total for way in allowed) < ways[0].total, "one of them saves"


def test_the_figures_of_each_are_those_of_the_plan_after_its_edits(ways: list[Weighed]) -> None:
    job = sample("quince-hollow")
    before = plan(job).stops
    for way in ways:
        after = apply_raw(job, way.edits)
        own = plan(after)
        buying = own.buying
        money = money_of(after.habits, buying.orders, tasks_of(after, buying.book, buying.found, buying.orders))
        assert (way.material, way.hours, way.total) == pytest.approx((money.material, money.hours, money.total)), (
            way.key
        )
        if way.key and not way.stops:
            assert own.stops <= before, f"{way.key} brings a stop"


def test_what_breaks_a_rule_says_which_and_cannot_be_called_allowed(ways: list[Weighed]) -> None:
    stopped = {way.key: way.stops for way in ways if way.stops}
    assert "one-up" in stopped, "4-3 quadplex walked on a feeder of 3"


def test_aluminum_takes_what_its_breaker_asks_and_lands_on_what_is_listed(ways: list[Weighed]) -> None:
    """60 A on aluminum at 75 °C: No. 4 carries 65 (table 310.16)."""
    job = apply_raw(sample("quince-hollow"), next(way for way in ways if way.key == "aluminum").edits)
    feeder = next(circuit for circuit in job.circuits if circuit.id == "ch1")
    assert (feeder.material, feeder.wire_size) == ("al", "4")
    assert plan(job).buying.taken.rows["antioxidant, ends"].amount > 6


def test_over_the_air_takes_the_trench_away_and_buys_heads() -> None:
    job = yard(*FEED)
    (over,) = [way for way in others_of(job, load()) if way.key.startswith("overhead")]
    found = weighed(job, plan(job), over)
    assert found is not None
    after = apply_raw(job, found.edits)
    rows = plan(after).buying.taken.rows
    assert not after.trenches and after.spans and found.wait_days == 0
    assert any("weatherhead" in key for key in rows) and "warning ribbon" not in rows
    assert "call for utility marks" in plan(job).buying.taken.rows


def test_the_other_metal_is_offered_only_where_something_is_large() -> None:
    small = Job(name="Small")
    assert [way.key for way in others_of(small, load()) if way.key in ("aluminum", "copper")] == []


def test_what_cannot_be_made_is_left_out() -> None:
    job = sample("shed")
    wrong = Other(key="x", label="x", takes="", later="", edits=[{"op": "drop", "kind": "panel", "id": "nobody"}])
    assert weighed(job, plan(job), wrong) is None


def test_two_in_one_pipe_may_share_a_neutral_and_be_parted_again() -> None:
    """Spaces 1 and 3 stand on both legs; handles are tied (210.4(B))."""
    chain = [{"box": "c1", "path": ["w"]}]
    job = edited(
        Job.model_validate({
            "name": "Two", "structures": [{"id": "h", "name": "House", "levels": []}],
            "panels": [{"id": "p", "name": "P", "structure": "h"}],
            "boxes": [{"id": "c1", "name": "J-1", "structure": "h"}, {"id": "c2", "name": "J-2", "structure": "h"}],
            "ways": [{"id": "w", "name": "Way", "start": "p"}],
            "circuits": [
                {"id": f"k{n}", "name": f"K{n}", "panel": "p", "space": n, "method": "raceway", "chain": chain}
                for n in (1, 3)
            ],
        }),
        {"op": "walk", "way": "w", "text": "over 20' outside in emt 1/2 to J-1"},
    )  # fmt: skip
    shared = next(way for way in others_of(job, load()) if way.key == "multiwire")
    after = apply_raw(job, shared.edits)
    assert after.circuits[0].partner == "k3" and after.circuits[1].tied
    before, now = (plan(one).buying.taken.rows for one in (job, after))
    assert now["12 THWN-2 white"].amount == before["12 THWN-2 white"].amount / 2, "one neutral for both"
    assert "handle tie" in now and "handle tie" not in before
    apart = next(way for way in others_of(after, load()) if way.key == "single")
    assert apply_raw(after, apart.edits).circuits == job.circuits
