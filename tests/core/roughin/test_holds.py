"""Walls and holds: what each waits for, closed too early, lifted, visits that fail and pass; readings and days that
are refused."""

from __future__ import annotations

import pytest

from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.roughin.steps import needed_steps
from levelrun.core.roughin.waits import HoldRow, holds, waits_of
from levelrun.samples import sample
from tests.conftest import built, codes, edited
from tests.core.roughin.test_box_cards import room

PHOTO = {"file": "0" * 64, "wide": 800, "tall": 600}


def waits(job: Job, surface: str = "2") -> list[str]:
    return [wait.text for wait in waits_of(job, job.rooms[0].id, surface)]


def hold(job: Job, kind: str) -> HoldRow:
    return next(row for row in plan(job).record.holds if row.kind == kind)


def made(job: Job, *names: str) -> Job:
    for name in names:
        job = built(f"made up {name} on 2026-05-08", job)
    return job


def photographed(job: Job, surface: str = "2") -> Job:
    item = {**PHOTO, "room": job.rooms[0].id, "surface": surface, "at_in": 40, "height_in": 30}
    return edited(job, {"op": "add", "kind": "photo", "item": item})


def test_a_wall_waits_for_every_box_and_a_photo() -> None:
    job = room()
    assert waits(job) == ["R-1 is not made up", "R-2 is not made up", "no photo shows what is in it"]
    assert waits(made(job, "R-1")) == ["R-2 is not made up", "no photo shows what is in it"]
    assert waits(photographed(made(job, "R-1", "R-2"))) == []
    habits = job.habits.model_dump()
    habits["roughin"] = {**habits["roughin"], "photos": False}
    assert waits(edited(made(job, "R-1", "R-2"), {"op": "set_job", "set": {"habits": habits}})) == []


def test_a_box_with_one_step_open_is_not_made_up() -> None:
    """Each needed step, left out alone, keeps the wall."""
    job = photographed(made(room(), "R-1", "R-2"))
    box = next(b for b in job.boxes if b.name == "R-1")
    for step in needed_steps(box):
        one_less = edited(job, {"op": "do_card", "node": box.id, "steps": [step], "done": False})
        assert waits(one_less) == ["R-1 is not made up"], step


def test_a_box_on_no_circuit_is_not_waited_for() -> None:
    job = room("set receptacle in Den south 5' as R-3")
    assert "R-3 is not made up" not in waits(job)


def test_a_wall_is_closed_when_nothing_waits_and_else_only_with_a_reason() -> None:
    job = room()
    place = {"room": job.rooms[0].id, "surface": "2"}
    with pytest.raises(EditError, match="R-1 is not made up, R-2 is not made up") as refused:
        edited(job, {"op": "close_wall", **place})
    assert refused.value.key == "why"
    early = edited(job, {"op": "close_wall", **place, "why": "the board came"})
    said = next(f for f in plan(early).findings if f.code == "closed-early")
    assert said.severity == "stop" and "the board came" in said.text and said.measured == "0 of 2 boxes made up"
    opened = edited(early, *said.mends[0].edits)
    assert "closed-early" not in codes(plan(opened)) and opened.closings == ()
    right = edited(photographed(made(job, "R-1", "R-2")), {"op": "close_wall", **place, "on": "2026-05-20"})
    assert "closed-early" not in codes(plan(right)) and right.closings[0].why == ""


def test_what_was_closed_too_early_is_a_stop_until_it_is_done() -> None:
    job = room()
    early = edited(job, {"op": "close_wall", "room": job.rooms[0].id, "surface": "2", "why": "in a hurry"})
    done = photographed(made(early, "R-1", "R-2"))
    assert "closed-early" not in codes(plan(done)), "made up and photographed after all"


def test_a_visit_fails_its_finding_is_mended_and_the_next_lifts_the_hold() -> None:
    job = photographed(made(room(), "R-1", "R-2"))
    job = built("visit drywall on 2026-05-12 9:00 by county", job)
    job = built('failed drywall: "staple too far" at R-1 by 334.30', job)
    fault = job.faults[0]
    assert job.visits[0].result == "failed" and (fault.section, fault.mended_on) == ("334.30", "")
    assert "fault-open" in codes(plan(job)) and hold(job, "drywall").failed
    assert waits(job) == ["found by the inspector at R-1: staple too far"]
    with pytest.raises(EditError, match="until that is mended and seen again"):
        built("lift drywall by me", job)
    job = built("visit drywall on 2026-05-15", job)
    with pytest.raises(EditError, match="not mended, so it cannot have passed"):
        built("passed drywall by county", job)
    job = built("mended R-1 on 2026-05-13 by M. Ash", job)
    assert "fault-open" not in codes(plan(job)) and waits(job) != [], "mended, and not seen yet"
    job = built("passed drywall by county", job)
    assert job.faults[0].seen_on == "2026-05-15" and hold(job, "drywall").lifted and waits(job) == []
    assert hold(job, "drywall").lifted_text == "by county, 2026-05-15"


def test_power_waits_for_drywall_and_the_panel() -> None:
    job = room()
    assert [wait.kind for wait in hold(job, "power").waits] == ["hold", "panel"]
    lifted = edited(
        made(job, "Main"),
        {"op": "lift_building", "kind": "drywall", "structure": job.structures[0].id, "by": "county"},
    )
    assert hold(lifted, "power").waits == [] and hold(lifted, "power").waits_text == "the inspection alone"


def test_a_building_without_insulation_has_no_hold_for_it() -> None:
    job = room()
    kinds = {row.kind for row in plan(job).record.holds}
    assert kinds == {"drywall", "power"}
    batts = edited(
        job,
        {
            "op": "set", "kind": "room", "id": job.rooms[0].id,
            "set": {"sides": [{**side.model_dump(), "insulation": "batts"} for side in job.rooms[0].sides]},
        },
    )  # fmt: skip
    assert "insulation" in {row.kind for row in plan(batts).record.holds}


def test_the_stops_of_the_plan_keep_its_walls_open() -> None:
    """The planted stops of the demo stand at the building that they are in, those of buying at none."""
    job = sample("quince-hollow")
    record = plan(job).record
    assert sum(record.stops.values()) <= 15 - 2
    house = next(row for row in record.holds if (row.kind, row.where) == ("drywall", "House"))
    assert any(wait.kind == "stop" and f"{record.stops['house']} stops" in wait.text for wait in house.waits)
    assert holds(job, {})[0].waits[0].kind != "stop"


def test_a_trench_waits_for_its_photo_and_its_depth() -> None:
    job = sample("quince-hollow")
    waiting = {row.where: row.waits_text for row in plan(job).record.holds if row.kind == "backfill"}
    assert waiting["House to shed"] == "the inspection alone"
    bare = edited(job, {"op": "drop", "kind": "photo", "id": "i3"})
    assert {row.where: row.waits_text for row in holds(bare, {})}["House to shed"] == "1 photo missing"


def test_what_is_about_a_box_goes_with_it_and_photos_stay() -> None:
    job = photographed(made(room(), "R-1", "R-2"))
    assert len(job.cards) == 2
    chain = job.circuits[0].chain
    job = edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"chain": [chain[0]]}})
    gone = edited(job, {"op": "drop", "kind": "box", "id": chain[1].box})
    assert [card.node for card in gone.cards] == [chain[0].box] and len(gone.photos) == 1


@pytest.mark.parametrize(
    ("edit", "told"),
    [
        ({"op": "do_card", "node": "nobody", "steps": ["free"]}, "no box or panel"),
        ({"op": "do_card", "node": "R-1", "steps": ["paint"]}, "'paint' is no step of R-1; allowed: jacket"),
        ({"op": "built_box", "node": "R-1", "at_in": 200, "height_in": 16}, "16′ 8″ along lies outside Den, south"),
        ({"op": "built_box", "node": "R-1", "at_in": 20, "height_in": -5}, "allowed: 0 to 96″"),
        ({"op": "torque", "node": "R-1", "at": "7", "lb_in": 1e9}, "1000"),
        ({"op": "mend_fault", "fault": "g1"}, "say the day"),
        ({"op": "end_visit", "visit": "o9", "result": "passed"}, "no inspection"),
        ({"op": "close_wall", "room": "ROOM", "surface": "9"}, "walls 0 to 3"),
        ({"op": "open_wall", "room": "ROOM", "surface": "2"}, "is not closed"),
        ({"op": "add", "kind": "visit", "item": {"kind": "final", "place": "HOUSE", "on": "2026-02-30"}}, "calendar"),
        ({"op": "add", "kind": "visit", "item": {"kind": "drywall", "place": "nowhere"}}, "nowhere"),
    ],
)  # fmt: skip
def test_what_is_not_there_is_refused_in_words(edit: dict[str, object], told: str) -> None:
    job = room()
    names = {box.name: box.id for box in job.boxes} | {"ROOM": job.rooms[0].id, "HOUSE": job.structures[0].id}

    def named(value: object) -> object:
        if isinstance(value, dict):
            return {key: named(item) for key, item in value.items()}
        return names.get(value, value) if isinstance(value, str) else value

    with pytest.raises((LevelRunError, ValueError), match=told):
        edited(job, named(edit))  # type: ignore[arg-type]
