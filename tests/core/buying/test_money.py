"""Hours and money by hand; parts that add up to the whole; the quote; one circuit more."""

from __future__ import annotations

import pytest

from levelrun.core.buying.budget import (
    QUOTE_FOOT,
    by_circuit,
    by_room,
    by_stage,
    by_structure,
    money_of,
    one_more,
    quote_of,
    shares,
)
from levelrun.core.buying.labour import Task, tasks_of
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.samples import sample
from tests.conftest import edited
from tests.core.buying.test_take_off import den


def worked(job: Job) -> list[Task]:
    buying = plan(job).buying
    return tasks_of(job, buying.book, buying.found, buying.orders)


def test_the_hours_of_a_room_by_hand() -> None:
    """Five boxes at 10 minutes set and 8 made up, three receptacles and a switch at 8, a light at 25, two circuits at
    8: by the habits that ship."""
    spent: dict[str, float] = {}
    for task in worked(den()):
        spent[task.what] = spent.get(task.what, 0.0) + task.minutes
    assert spent["boxes set"] == 5 * 10 and spent["devices set"] == 4 * 8 and spent["circuits landed"] == 2 * 8
    assert spent["lights and alarms hung"] == 25
    assert spent["boxes made up"] == 4 * 8, "R-3 has nothing to join"


def test_a_habit_changes_the_hours() -> None:
    job = den()
    habits = job.habits.model_dump()
    habits["labour"]["box_minutes"] = 20.0
    slow = edited(job, {"op": "set_job", "set": {"habits": habits}})
    more = sum(t.minutes for t in worked(slow)) - sum(t.minutes for t in worked(job))
    assert more == pytest.approx(5 * 10)


@pytest.mark.parametrize("key", ["quince-hollow", "house", "shed"])
def test_parts_add_up_to_the_whole(key: str) -> None:
    job = sample(key)
    orders, tasks = plan(job).buying.orders, worked(job)
    whole = money_of(job.habits, orders, tasks)
    for by in (by_stage, by_structure, by_room, by_circuit(job)):
        parts = shares(orders, tasks, by)
        assert sum(part.material for part in parts) == pytest.approx(whole.material)
        assert sum(part.hours for part in parts) == pytest.approx(whole.hours)


def test_the_whole_by_hand() -> None:
    """Tax on material; labour at the shop's rate, twice where two are needed; margin on both, not on the tax."""
    job = sample("quince-hollow")
    money = money_of(job.habits, plan(job).buying.orders, worked(job))
    assert money.tax == pytest.approx(0.06 * money.material)
    assert money.labour == pytest.approx(65 * (money.hours + money.two_hours))
    assert money.margin == pytest.approx(0.20 * (money.material + money.labour))
    assert money.total == pytest.approx(money.material + money.tax + money.labour + money.margin)
    assert money.two_hours > 0, "a span, and a trench by machine"


def test_a_circuit_more_costs_more_once_the_walls_are_shut() -> None:
    job = sample("house")
    parts = shares(plan(job).buying.orders, worked(job), by_circuit(job))
    more = one_more(job, parts)
    assert more is not None and more.after > more.now > 0
    assert one_more(Job(name="Empty"), []) is None


def test_the_quote_adds_up_and_promises_nothing() -> None:
    job = sample("quince-hollow")
    orders, tasks = plan(job).buying.orders, worked(job)
    money = money_of(job.habits, orders, [task for task in tasks if not task.two])
    lines = quote_of(job.habits, shares(orders, [t for t in tasks if not t.two], by_stage))
    assert sum(line.dollars for line in lines) == pytest.approx(money.total - money.tax)
    assert "no promise" in QUOTE_FOOT and not any("$" in line.text for line in lines)
