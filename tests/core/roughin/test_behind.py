"""The x-ray against the frame it is drawn from, and the question what is behind a spot, before and after a wall is
closed; as built wins over planned."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.roughin.asked import asked_xray, whats_behind
from levelrun.core.roughin.behind import Behind
from levelrun.core.roughin.xray import XRay
from levelrun.exchange.text import read_text, write_text
from levelrun.samples import sample
from tests.conftest import built, edited
from tests.core.roughin.test_box_cards import room


def shown(job: Job, surface: str = "2") -> XRay:
    found = plan(job).record.xray(job.rooms[0].id, surface)
    assert found is not None
    return found


def there(job: Job, at: float, height: float, surface: str = "2") -> Behind:
    record = plan(job).record
    return whats_behind(job, record.book, job.rooms[0].id, surface, at, height)


def test_the_wall_by_hand() -> None:
    """A wall of 12 ft in studs at 16: R-1 at 3 ft, R-2 at 8 ft, set beside a stud; one cable between them at the
    height of the hole line or of the boxes, with a hole in each stud that it passes."""
    wall = shown(room())
    assert (wall.wide_in, wall.tall_in) == (144, 96)
    assert [box.name for box in wall.boxes] == ["R-1", "R-2"]
    between = next(c for c in wall.cables if c.letter == "1·2")
    xs = [x for x, _ in between.points]
    assert min(xs) == pytest.approx(36, abs=3) and max(xs) == pytest.approx(96, abs=3)
    passed = [s for s in wall.framing if min(xs) + 1 < s.x0 and s.x1 < max(xs) - 1]
    bored = {round(hole.x, 2) for hole in wall.holes if min(xs) < hole.x < max(xs)}
    assert len(bored) == len(passed) >= 3


def test_every_cable_in_a_wall_of_the_demo_stays_within_it() -> None:
    job = sample("quince-hollow")
    record = plan(job).record
    seen = 0
    for row in record.surfaces:
        wall = record.xray(row.room, row.surface)
        assert wall is not None
        for cable in wall.cables:
            seen += 1
            assert all(-0.1 <= x <= wall.wide_in + 0.1 and -0.1 <= y <= wall.tall_in + 0.1 for x, y in cable.points)
            placed = next(c for c in job.circuits if c.id == cable.circuit).space is not None
            assert ("?" in cable.letter) is not placed
        assert {box.name for box in wall.boxes} >= set()
        assert row.boxes <= len(wall.boxes)
    assert seen > 50


def test_the_same_x_ray_is_seen_without_the_plan() -> None:
    job = sample("quince-hollow")
    record = plan(job).record
    for surface in ("0", "1", "ceiling"):
        assert asked_xray(job, record.book, "m2", surface) == record.xray("m2", surface)


def test_no_screw_where_a_cable_lies_and_wood_between_is_told() -> None:
    job = room()
    cable = next(c for c in shown(job).cables if c.letter == "1·2")
    (ax, ay), (bx, by) = next((a, b) for a, b in zip(cable.points, cable.points[1:], strict=False) if a[1] == b[1])
    on_it = there(job, (ax + bx) / 2, ay)
    assert on_it.verdict == "stop" and "is right behind it" in on_it.text
    near = there(job, (ax + bx) / 2, ay + 1.5)
    assert near.verdict == "stop" and "1 1/2″ off" in near.text
    stud = next(s for s in shown(job).framing if s.x0 > 60)
    wood = there(job, (stud.x0 + stud.x1) / 2, 80)
    assert wood.verdict == "fine" and wood.text.startswith("Wood behind it")
    between = there(job, stud.x1 + 5, 80)
    assert between.verdict == "check" and "between the framing" in between.text
    assert by == ay


def test_the_question_is_answered_after_the_wall_is_closed_and_from_a_door() -> None:
    job = room("door in Den south 2'8 at 9'")
    job = edited(job, {"op": "close_wall", "room": job.rooms[0].id, "surface": "2", "why": "done"})
    told = said_on(job, "behind south 1' from the door to the left at 80\"", Looked(room=job.rooms[0].id))[1].told
    from_left = said_on(job, "behind south 8' at 80\"", Looked(room=job.rooms[0].id))[1].told
    assert told == from_left and told[0].startswith("8′ from the left, 80″ over the floor:")
    with pytest.raises(LevelRunError, match="lies outside Den, south wall; allowed: 0 to 12′"):
        said_on(job, "behind south 13' at 40\"", Looked(room=job.rooms[0].id))


def test_a_cable_that_went_elsewhere_is_found_where_it_went() -> None:
    job = room()
    circuit, box = job.circuits[0], job.circuits[0].chain[1].box
    place = {"circuit": circuit.id, "box": box, "room": job.rooms[0].id, "surface": "2"}
    moved = edited(job, {"op": "built_cable", **place, "points": [[36, 70], [96, 70]], "on": "2026-05-08"})
    assert there(moved, 60, 70).verdict == "stop" and "as it was built" in there(moved, 60, 70).text
    planned = next(c for c in shown(job).cables if c.letter == "1·2")
    level = next(a for a, b in zip(planned.points, planned.points[1:], strict=False) if a[1] == b[1])
    assert there(job, 60, level[1]).verdict == "stop"
    assert not any(item.name.startswith("cable 1·2") and item.off_in < 5 for item in there(moved, 60, level[1]).near)
    again = edited(moved, {"op": "built_cable", **place, "points": [[36, 60], [96, 60]]})
    assert len(again.built) == 1


def test_a_box_that_was_built_elsewhere_moves_the_plan_and_keeps_what_was_planned() -> None:
    job = room()
    box = next(b for b in job.boxes if b.name == "R-1")
    moved = built("built R-1 4' at 20\" on 2026-05-08", job)
    now = next(b for b in moved.boxes if b.name == "R-1")
    assert (now.at_in, now.height_in, now.fixed) == (48, 20, True)
    assert moved.built[0].was == (box.at_in, box.height_in)
    again = built("built R-1 4'1 at 20\"", moved)
    assert len(again.built) == 1 and again.built[0].was == (box.at_in, box.height_in)
    assert next(b for b in shown(again).boxes if b.name == "R-1").moved


def test_what_was_left_out_is_not_waited_for_and_what_hangs_on_it_is_told() -> None:
    job = built("left out R-1 because no stud there", room())
    said = [f for f in plan(job).findings if f.code == "left-out-live"]
    assert len(said) == 1 and "R-2 hangs on it" in said[0].title
    last = built("left out R-2", room())
    assert not [f for f in plan(last).findings if f.code == "left-out-live"]
    assert next(b for b in shown(last).boxes if b.name == "R-2").state == "left_out"
    assert built("set after all R-2", last).built == ()


def test_a_light_is_marked_on_the_floor_by_two_readings() -> None:
    job = sample("quince-hollow")
    found = plan(job).record.xray("m2", "ceiling")
    assert found is not None and any(mark.startswith("L-4: 7′ from the west wall") for mark in found.marks)


@pytest.mark.parametrize(
    "lines",
    [
        ["made up R-1 on 2026-05-08", "tick R-2 jacket, free"],
        ["torque Main 1 36 label 40 on 2026-05-08", "torque Main main 250"],
        ["built R-1 4' at 20\"", "built Den to R-2 in Den south: 3' at 60\" to 8' at 60\""],
        ["extra water in Den south: 2' at 10\" to 2' at 96\" on 2026-05-08 called cold water"],
        ["left out R-2 because no stud", "shut Den south on 2026-05-20 because the board came"],
        ["visit drywall on 2026-05-12 9:00 by county", 'failed drywall: "no plate" at R-1 by 300.4(A)(1)'],
        ["visit final on 2026-06-12", "lift power by county on 2026-06-13"],
    ],
)
def test_every_sentence_survives_the_text_of_a_job(lines: list[str]) -> None:
    job = room()
    for line in lines:
        job = built(line, job)
    assert read_text(write_text(job)) == job
