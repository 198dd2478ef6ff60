"""What is said on site of boxes, walls, inspections and readings: the same as in the words of the guide."""

from __future__ import annotations

import pytest

from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.samples import sample
from tests.conftest import built

DEMO = sample("quince-hollow")
READY = built("made up all in Kitchen on 2026-05-11; mended on 2026-05-12 by M. Ash", DEMO)


def done(text: str, job: Job = DEMO) -> Job:
    return built(text, job)


# What is spoken: the same as the guide has it.
SAID = {
    "R-10 is made up on 2026-05-08": "made up R-10 on 2026-05-08",
    "make up R-10": "made up R-10",
    "the box R-10 has been made up": "made up R-10",
    "R-10 and R-11 are made up on 2026-05-08": "made up R-10 on 2026-05-08; made up R-11 on 2026-05-08",
    "R-10, R-11 done": "made up R-10; made up R-11",
    "R-10 is roughed in": "made up R-10",
    "torque Panel H 250 in-lb": "torque Panel H main 250",
    "main lugs of Panel H torqued to 250 in-lb": "torque Panel H main 250",
    "R-10 jacket and free done on 2026-05-08": "tick R-10 jacket, free on 2026-05-08",
    "make up the kitchen": "made up all in Kitchen",
    "made up everything in the Kitchen on 2026-05-08": "made up all in Kitchen on 2026-05-08",
    "everything in the kitchen is made up": "made up all in Kitchen",
    "Kitchen is all made up": "made up all in Kitchen",
    "torque H 9 to 20 inch pounds": "torque Panel H 9 20",
    "Panel H 9 torqued to 20 in-lb label 25 on 2026-05-08": "torque Panel H 9 20 label 25 on 2026-05-08",
    "panel H main was torqued at 250": "torque Panel H main 250",
    "R-11 was left out because no stud": "left out R-11 because no stud",
    "R-11 not set": "left out R-11",
    "R-10 was built at 4' up 44\" on 2026-05-08": "built R-10 4' at 44\" on 2026-05-08",
    "R-10 sits 4' and 44\"": "built R-10 4' at 44\"",
    "R-13 is fixed on 2026-06-03 by county": "mended R-13 on 2026-06-03 by county",
    "drywall inspection of the House on 2026-06-02 at 10:30": "visit drywall House on 2026-06-02 10:30",
    "final inspection at Bunk cabin on 2026-06-20": "visit final Bunk cabin on 2026-06-20",
    "House failed drywall: no plate at R-13 by 300.4": 'failed drywall House: "no plate" at R-13 by 300.4',
    "the drywall inspection of House failed: staple 14\" from the box at R-10": (
        "failed drywall House: staple 14\" from the box at R-10"
    ),
}  # fmt: skip


@pytest.mark.parametrize("spoken", SAID)
def test_the_record_is_kept_as_it_is_spoken(spoken: str) -> None:
    found = done(spoken)
    assert found == done(SAID[spoken])
    assert found != DEMO


@pytest.mark.parametrize(
    ("spoken", "short"),
    [
        ("the north wall of the Kitchen is closed on 2026-05-20", "shut Kitchen north on 2026-05-20"),
        ("shut the north wall of the Kitchen", "shut Kitchen north"),
        ("Kitchen north wall was boarded on 2026-05-20", "shut Kitchen north on 2026-05-20"),
        ("Kitchen ceiling is closed because seen", "shut Kitchen ceiling because seen"),
        ("House passed the drywall inspection", "passed drywall House"),
        (
            "drywall inspection at House passed by county on 2026-06-02",
            "passed drywall House by county on 2026-06-02",
        ),
    ],
)
def test_what_waits_no_more_is_closed_and_passed(spoken: str, short: str) -> None:
    found = done(spoken, READY)
    assert found == done(short, READY)
    assert found != READY


def test_a_wall_is_opened_again() -> None:
    shut = done("Kitchen north is shut", READY)
    assert done("the north wall of Kitchen was opened up", shut) == done("reopen Kitchen north", shut)


@pytest.mark.parametrize(
    "asked", ["what is behind Kitchen north at 4' up 40\"", "what's behind the Kitchen north 4' at 40\""]
)
def test_what_is_behind_a_wall_is_asked_and_changes_nothing(asked: str) -> None:
    assert done(asked) == DEMO


# What was read.
READ = {
    "14 hot to neutral 121.5 on 2026-06-11 by M. Ash": "measure 14 line neutral 121.5 on 2026-06-11 by M. Ash",
    "circuit 14 reads hot ground 121": "measure 14 line ground 121",
    "breaker 14 dead 0.2 low": "measure 14 dead 0.2 low",
    "panel H legs 247": "measure Panel H legs 247",
    "Panel H leg to leg measured 247 V": "measure Panel H legs 247",
    "H leg a 123.6": "measure Panel H leg a 123.6",
    "14 ground 0.4 ohms": "measure 14 ground 0.4",
    "the gfci at C-1 trips": "measure 14 gfci C-1 trips",
    "C-1 gfci tripped": "measure 14 gfci C-1 trips",
    "gfci at C-1 does not trip": "measure 14 gfci C-1 no",
    "14 afci does not": "measure 14 afci no",
}  # fmt: skip


@pytest.mark.parametrize("spoken", READ)
def test_readings_are_taken_as_they_are_called_out(spoken: str) -> None:
    found = done(spoken)
    assert found == done(READ[spoken])
    assert len(found.measured) == len(DEMO.measured) + 1


@pytest.mark.parametrize(
    ("spoken", "told"),
    [
        ("R-10 120", "R-10 is on 7: say what was read"),
        ("R-10 reads 121", "say what was read"),
        ("14 is dead", "expected a number"),
        ("inspection failed at House: no plate", "which inspection: insulation, drywall"),
        ("rough-in inspection House on 2026-06-02", "before insulation, or before drywall"),
        ("R-13 mended", "on and the day"),
        ("the north wall of the kitchen is closed", "R-10 is not made up"),
        ("House passed drywall", "not mended"),
        ("R-10 is blue", "expected a sentence"),
        ("Kitchen is nice", "expected a sentence"),
    ],
)
def test_what_is_left_unsaid_is_asked_for(spoken: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        done(spoken)


def test_a_verb_that_reads_on_to_nothing_is_told_as_its_own() -> None:
    """The first word is a verb and no box: what is wrong is told of its sentence."""
    with pytest.raises(TextError, match="amperes, spaces, taken") as refused:
        done("panel H 247")
    assert refused.value.at == len("panel H ")
