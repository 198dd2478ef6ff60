"""What a building is, and what is asked of it: lived in or not, laid out or not yet, existing and not this job's."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.site.lived import WANTED, dwellings
from tests.conftest import built, found

ALL = "room Bed 12' x 12'; room Kitchen 12' x 10' east of Bed; room Bath 8' x 10' east of Kitchen"


@pytest.mark.parametrize(
    ("text", "lived"),
    [
        ("structure house House", True),
        ("structure house Barn not dwelling", False),
        ("structure cabin Cabin", None),
        ("structure cabin Cabin; room Bunk 12' x 12' as bedroom", None),
        (f"structure cabin Cabin; {ALL}", True),
        (
            "structure cabin Cabin; room One 20' x 20' as bedroom; mark range north 30\"; "
            "room Bath 8' x 8' east of One",
            True,
        ),
        ("structure cabin Cabin dwelling", True),
        ("structure shop Shop", False),
        ("structure shop Shop; room Office 12' x 12' as bedroom", False),
        (f"structure shop Shop; {ALL}", None),
        ("structure shed Shed dwelling", True),
    ],
)
def test_lived_in_is_said_or_follows_from_sleeping_cooking_and_washing(text: str, lived: bool | None) -> None:
    job = built(text, Job(name="One"))
    assert list(dwellings(job).values()) == [lived]
    assert bool(found(job, "dwelling-unsaid")) is (lived is None and bool(job.rooms))


def severities(job: Job, code: str) -> set[str]:
    return {item.severity for item in found(job, code)}


def test_what_is_missing_is_asked_until_the_room_is_laid_out_and_is_missing_then() -> None:
    job = built("room Den 14' x 12'; door south 3'")
    assert severities(job, "wall-no-receptacle") == {"check"} == severities(job, "room-no-light")
    assert "Not laid out yet?" in found(job, "room-no-light")[0].text
    laid = built("laid out Den", job)
    assert severities(laid, "wall-no-receptacle") == {"stop"} == severities(laid, "room-no-light")
    assert severities(laid, "outdoor-receptacles") == {"check"}, "the building is not"
    whole = built("laid out all", job)
    assert severities(whole, "outdoor-receptacles") == {"stop"} == severities(whole, "room-no-light")
    assert not whole.rooms[0].laid_out and whole.structures[0].laid_out


def test_of_a_building_nobody_called_lived_in_nothing_missing_is_a_stop() -> None:
    job = built("structure cabin Cabin; room Bunk 12' x 12'; laid out all", Job(name="One"))
    assert severities(job, "wall-no-receptacle") == {"check"}
    assert severities(built("change Cabin: dwelling yes", job), "wall-no-receptacle") == {"stop"}
    none = built("change Cabin: dwelling no", job)
    assert not found(none, "wall-no-receptacle") and not found(none, "smoke-missing")


def test_an_existing_building_is_judged_only_where_the_job_touches_it() -> None:
    job = built(
        "room Kitchen 12' x 12'; mark counter north 10' at 1'; room Bed 10' x 10' east of Kitchen; "
        "panel in Kitchen west 4' spaces 20 main 60a as P; set receptacle in Bed north 5' as R-1; "
        "circuit in P 1 20a afci as Bed: R-1; laid out all"
    )
    new = {item.code for item in plan(job).findings}
    assert {"wall-no-receptacle", "counter-no-receptacle", "smoke-missing", "circuits-wanted", "service-small"} <= new
    old = {item.code for item in plan(built("change House: existing yes", job)).findings}
    assert not old & WANTED
    wrong = built('change Bed: use bath; change House: existing yes; change "Bed" : name "Bath"', job)
    assert found(wrong, "gfci-missing"), "what this job puts there is judged"
