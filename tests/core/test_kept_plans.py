"""What is kept from plan to plan is what would be planned afresh, whatever was changed in between."""

from __future__ import annotations

import sys
from dataclasses import asdict, replace
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelrun.core.circuits.loads import all_loads
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job, job_book
from levelrun.core.kept import Lasting
from levelrun.core.plan import Plan, plan
from levelrun.core.trench.planned import Outside, ground_plan, span_plan, trench_plan
from levelrun.core.trench.yard import yard_of
from levelrun.core.ways.contexts import weave
from levelrun.core.ways.drawing import DrawnWays
from levelrun.core.ways.frame.found import frames_of
from levelrun.samples import sample
from levelrun.store import Database, Jobs
from tests.conftest import LONG, edited

DEMO = sample("quince-hollow")
WALL_BOXES = [box.id for box in DEMO.boxes if box.side is not None]
LEGS = [(run.id, index) for run in DEMO.ways for index in range(len(run.legs))]


NONE = DrawnWays({}, {}, {}, [])
NOTHING = Outside(trenches={}, spans={}, grounds={}, said={})


def forget() -> int:
    """Empties whatever the core keeps; how many of its functions keep something."""
    kept = {
        id(item): item
        for name, module in list(sys.modules.items())
        if name.startswith("levelrun.core") and module is not None
        for item in vars(module).values()
        if not isinstance(item, type) and callable(getattr(item, "cache_clear", None))
    }
    for item in kept.values():
        if not item.__module__.startswith("levelrun.core.codebook"):  # tables of files: they cannot go stale
            item.cache_clear()
    return len(kept)


def edits() -> st.SearchStrategy[dict[str, Any]]:
    """Any small change of the demo."""
    sides = [(room.id, side) for room in DEMO.rooms for side in range(len(room.sides))]
    circuits = [circuit.id for circuit in DEMO.circuits]
    hops = [(circuit.id, hop.box) for circuit in DEMO.circuits for hop in circuit.chain if not hop.path]
    return st.one_of(
        st.builds(
            lambda leg, inches: {"op": "set_leg", "way": leg[0], "leg": leg[1], "set": {"length_in": inches}},
            st.sampled_from(LEGS), st.sampled_from([12.0, 60.5, 240.0]),
        ),
        st.builds(
            lambda box, at, out: {"op": "set", "kind": "box", "id": box, "set": {"at_in": at, "set_out_in": out}},
            st.sampled_from(WALL_BOXES), st.sampled_from([17.625, 30.0, 66.0]), st.sampled_from([0.0, 0.5, 0.75]),
        ),
        st.builds(
            lambda side, finish, stud: {
                "op": "set_side", "room": side[0], "side": side[1], "set": {"finish": finish, "stud": stud},
            },
            st.sampled_from(sides), st.sampled_from(["boards", "drywall"]), st.sampled_from(["2x4", "2x6"]),
        ),
        st.builds(
            lambda room, change: {"op": "set", "kind": "room", "id": room, "set": change},
            st.sampled_from([room.id for room in DEMO.rooms]),
            st.sampled_from([{"name": "Nook"}, {"closed": True}, {"moisture": "damp"}, {"use": "bedroom"}]),
        ),
        st.builds(
            lambda thing, at: {"op": "set", "kind": thing[0], "id": thing[1], "set": {"at_in": at}},
            st.sampled_from([("opening", o.id) for o in DEMO.openings] + [("fixture", f.id) for f in DEMO.fixtures]),
            st.sampled_from([24.0, 48.0, 61.5]),
        ),
        st.builds(
            lambda side, by: {"op": "move_wall", "room": side[0], "side": side[1], "by_in": by},
            st.sampled_from(sides), st.sampled_from([-6.0, 6.0, 12.0]),
        ),
        st.builds(
            lambda circuit, change: {"op": "set", "kind": "circuit", "id": circuit, "set": change},
            st.sampled_from(circuits),
            st.sampled_from([{"protection": "dual"}, {"wire_size": "10"}, {"breaker_a": 15}]),
        ),
        st.builds(
            lambda hop, school: {"op": "bend", "circuit": hop[0], "box": hop[1], "school": school},
            st.sampled_from(hops), st.sampled_from(["", "studs", "over", "under"]),
        ),
        st.builds(
            lambda hop, x, y: {
                "op": "bend", "circuit": hop[0], "box": hop[1],
                "via": [{"level": "house-floor", "x_in": x, "y_in": y, "at": "wall"}],
            },
            st.sampled_from(hops), st.sampled_from([0.0, 120.0, 240.0]), st.sampled_from([0.0, 72.0]),
        ),
        st.builds(lambda hop: {"op": "keep", "circuit": hop[0], "box": hop[1]}, st.sampled_from(hops)),
        st.builds(
            lambda hop, cut: {"op": "pulled", "circuit": hop[0], "box": hop[1], "length_in": cut},
            st.sampled_from(hops), st.sampled_from([None, 240.0]),
        ),
        st.builds(
            lambda side, said: {"op": "set_side", "room": side[0], "side": side[1], "set": {said: True}},
            st.sampled_from(sides), st.sampled_from(["closed", "avoid"]),
        ),
        st.builds(lambda c, n: {"op": "put", "circuit": c, "space": n}, st.sampled_from(circuits), st.integers(1, 9)),
        st.builds(lambda box: {"op": "unchain", "boxes": [box]}, st.sampled_from(WALL_BOXES)),
        st.builds(lambda rules: {"op": "set_job", "set": {"rules": rules}}, st.sampled_from(["us-2020", "ca-2021"])),
        st.builds(
            lambda waste: {"op": "set_job", "set": {"habits": {**DEMO.habits.model_dump(), "waste_percent": waste}}},
            st.sampled_from([0, 10]),
        ),
    )  # fmt: skip


def changed_demo(changes: list[dict[str, Any]]) -> Job:
    """The demo after changes; those that it refuses are passed over."""
    job = DEMO
    for change in changes:
        try:
            job = edited(job, change)
        except (LevelRunError, ValueError):
            continue
    return job


@settings(max_examples=LONG or 8, suppress_health_check=list(HealthCheck))
@given(st.lists(edits(), min_size=1, max_size=7))
def test_kept_plans_are_fresh_ones(changes: list[dict[str, Any]]) -> None:
    job: Job = DEMO
    plan(job)
    kept: Plan = plan(job)
    proved(kept)
    for change in changes:
        try:
            job = edited(job, change)
        except (LevelRunError, ValueError):
            continue
        kept = plan(job)
        proved(kept)
    assert forget() > 10
    fresh = plan(Job.model_validate(job.model_dump()))
    assert whole(kept) == whole(fresh)
    assert bought(kept) == bought(fresh)
    assert drawn(kept) == drawn(fresh)
    assert outside(kept) == outside(fresh)
    assert proved(kept) == proved(fresh)


def whole(planned: Plan) -> dict[str, Any]:
    """Ways, rooms, circuits, panels and findings, ways and rooms as they are looked at."""
    bare = {"drawn": NONE, "outside": NOTHING, "buying": None, "record": None, "testing": None}
    looked = {"ways": [way.whole for way in planned.ways], "rooms": [room.whole for room in planned.rooms]}
    return asdict(replace(planned, **bare, **looked))


def bought(planned: Plan) -> list[Any]:
    """What is bought, line by line, and what it costs."""
    return [(order.row.item, order.row.lines, order.bought, order.dollars) for order in planned.buying.orders]


def proved(planned: Plan) -> dict[str, Any]:
    """The order of proof of every circuit and panel."""
    job = planned.testing.job
    return {item.id: planned.testing.steps(item.id) for item in (*job.circuits, *job.panels)}


def outside(planned: Plan) -> list[Any]:
    """What lies between buildings, each whole."""
    own, said = planned.outside, planned.findings
    found: list[Any] = [own.said]
    found += [trench_plan(own, ident, said) for ident in own.trenches]
    found += [span_plan(own, ident) for ident in own.spans]
    return found + [ground_plan(own, ident) for ident in own.grounds]


def drawn(planned: Plan) -> dict[str, Any]:
    """The ways that drew themselves, as legs, cuts and findings."""
    return {key: (item.context, item.cuts, item.findings) for key, item in planned.drawn.ways.items()}


@pytest.mark.parametrize("change", [{"rules": "ca-2021"}, {"habits": {"waste_percent": 10}}])
def test_a_change_for_the_whole_job_reaches_every_plan(change: dict[str, Any]) -> None:
    job = edited(DEMO, {"op": "set_job", "set": change})
    before, after = plan(DEMO), plan(job)
    assert replace(before, drawn=NONE) != replace(after, drawn=NONE)
    again = plan(DEMO)
    assert replace(again, drawn=NONE) == replace(before, drawn=NONE) and drawn(again) == drawn(before)


@pytest.mark.parametrize("remembered", [0, 32])
@settings(max_examples=LONG or 5, suppress_health_check=list(HealthCheck))
@given(changes=st.lists(edits(), min_size=1, max_size=6))
def test_undo_in_memory_is_what_the_file_holds(
    remembered: int, changes: list[dict[str, Any]], tmp_path_factory: Any
) -> None:
    path = tmp_path_factory.mktemp("undo") / "jobs.sqlite3"
    jobs = Jobs(Database(path))
    record = jobs.create(DEMO)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("levelrun.store.jobs.MOST_SIDES", remembered)
        for change in changes:
            try:
                record = jobs.change(record.id, record.revision, "test", lambda job, c=change: edited(job, c))
            except (LevelRunError, ValueError):
                continue
        steps = record.revision - 1
        for _ in range(steps):
            record = jobs.undo(record.id, record.revision)
            assert Jobs(Database(path)).get(record.id).job == record.job
        assert record.job == DEMO
        for _ in range(steps):
            record = jobs.redo(record.id, record.revision)
            assert Jobs(Database(path)).get(record.id).job == record.job


# A wall moved leaves what it does not touch the very same, so that nothing of that is planned anew.
def test_a_moved_wall_leaves_the_ways_that_it_does_not_turn_as_they_were() -> None:
    before = weave(DEMO, job_book(DEMO), all_loads(DEMO, job_book(DEMO)))
    moved = edited(DEMO, {"op": "move_wall", "room": "m2", "side": 1, "by_in": 3.0})
    after = weave(moved, job_book(moved), all_loads(moved, job_book(moved)))
    old = {item.way.id: item for own in before.drawn.values() for item in own}
    new = {item.way.id: item for own in after.drawn.values() for item in own}
    assert old.keys() == new.keys()
    equal = [name for name in old if old[name] == new[name]]
    assert len(equal) > len(old) / 2 and all(old[name] is new[name] for name in equal)
    forget()
    fresh = weave(moved, job_book(moved), all_loads(moved, job_book(moved)))
    assert {item.way.id: item for own in fresh.drawn.values() for item in own} == new


@pytest.mark.parametrize(
    ("change", "stays"),
    [
        ({"op": "set", "kind": "room", "id": "m2", "set": {"name": "Nook"}}, True),
        ({"op": "set", "kind": "room", "id": "m2", "set": {"use": "bedroom"}}, True),
        ({"op": "set", "kind": "room", "id": "m2", "set": {"closed": True}}, False),
        ({"op": "set_side", "room": "m2", "side": 0, "set": {"closed": True}}, False),
        ({"op": "move_wall", "room": "m2", "side": 1, "by_in": 3.0}, False),
        ({"op": "set_job", "set": {"habits": {**DEMO.habits.model_dump(), "dollars_per_hour": 200}}}, False),
    ],
)
def test_the_frame_stays_while_nothing_changes_that_a_cable_asks_of(change: dict[str, Any], stays: bool) -> None:
    after = edited(DEMO, change)
    was, now = (frames_of(job, job_book(job)) for job in (DEMO, after))
    assert (was["house"] is now["house"]) is stays


def test_a_wall_that_is_shut_is_called_as_its_room_is_called_now() -> None:
    shut = edited(DEMO, {"op": "set_side", "room": "m2", "side": 0, "set": {"closed": True}})
    frames_of(shut, job_book(shut))
    called = edited(shut, {"op": "set", "kind": "room", "id": "m2", "set": {"name": "Nook"}})
    frame = next(item for item in frames_of(called, job_book(called)).values() if "m2" in item.rooms)
    assert [room for _, room, _ in frame.rooms["m2"].closed] == ["Nook"]
    assert [item.why for line in frame.lines for item in line.shut if "Nook" in item.why]


def test_the_yard_is_the_same_while_no_outline_changes() -> None:
    inner = edited(DEMO, {"op": "set_side", "room": "m2", "side": 0, "set": {"finish": "boards"}})
    outer = edited(DEMO, {"op": "move_wall", "room": "m11", "side": 1, "by_in": 24.0})
    own = yard_of(DEMO)
    assert yard_of(inner) is own is yard_of(DEMO)
    wider = yard_of(outer).building("shed")
    assert wider is not None and wider != own.building("shed")
    assert yard_of(DEMO).building("shed") == own.building("shed")


def test_an_equal_value_is_the_one_before_and_another_is_not() -> None:
    kept = Lasting[tuple[int, ...]](2)
    one = (*range(3),)
    assert kept.same("a", one) is one is kept.same("a", (*range(3),))
    assert kept.same("a", (1,)) == (1,) and kept.same("b", one) is one
    for key in "cde":
        kept.same(key, one)
    assert kept.same("b", (*range(3),)) is not one  # more keys than it keeps: forgotten, and still right
