"""Where a cable meets something else, a box; where that lies in the earth, its riser too: one tap, no new stop."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import job_book, plan, way_contexts
from levelrun.core.ways.facts import viewed
from tests.conftest import built, edited

HOUSE = built("panel H 150a 24 spaces taken 1-16 18")


def line(text: str) -> Job:
    return built(f"from {text}", HOUSE)


def stops(job: Job) -> set[str]:
    return {item.code for item in plan(job).findings if item.severity == "stop"}


# By hand: H hangs 48 in over the floor, the floor at grade; 48 + 24 = 72 in or 48 + 18 = 66; H is fed at 48 to 84 in,
# the way leaves it where it is told to, so the riser is at least so long.
@pytest.mark.parametrize(
    ("text", "go", "method", "size", "sleeve", "least_in"),
    [
        ("12' wall in nm-b then 60' trench 24\" deep in uf to an outdoor outlet", "down", "PVC80", "1/2", True, 72),
        (
            "12' wall in nm-b then 60' trench 18\" deep in pvc40 to an outdoor outlet",
            "down",
            "PVC80",
            "1/2",
            False,
            66,
        ),
        ("60' trench 24\" deep in uf then 12' wall in nm-b to outlet in bedroom", "up", "PVC80", "1/2", True, 72),
    ],
)
def test_a_box_beside_the_earth_comes_with_its_riser(
    text: str, go: str, method: str, size: str, sleeve: bool, least_in: float
) -> None:
    job = line(text)
    assert stops(job) == {"box-needed"}
    (needed,) = (item for item in plan(job).findings if item.code == "box-needed")
    (mend,) = needed.mends
    assert "with a riser of" in mend.label
    mended = edited(job, *mend.edits)
    assert stops(mended) == set()
    riser = mended.ways[0].legs[1]
    assert (riser.go, riser.method, riser.size, riser.sleeve) == (go, method, size, sleeve)
    assert least_in <= riser.length_in <= least_in + 36
    box = next(item for item in mended.boxes if item.kind == "junction")
    above = mended.ways[0].legs[0 if go == "down" else 1]
    assert above.end.node == box.id, "the box stands over ground"


def test_a_box_in_a_wall_comes_alone() -> None:
    job = line("12' wall in nm-b then 20' stud wall in emt to outlet in bedroom")
    (needed,) = (item for item in plan(job).findings if item.code == "box-needed")
    assert [edit["op"] for edit in needed.mends[0].edits] == ["put_box"] and "riser" not in needed.mends[0].label
    assert stops(edited(job, *needed.mends[0].edits)) == set()


def test_underground_cable_gets_a_riser_too() -> None:
    """300.5(D)(1): a guard from 18 in under ground to 8 ft over it."""
    job = line("50' trench 24\" deep in uf to an outdoor outlet")
    missing = [item for item in plan(job).findings if item.code == "riser-missing"]
    assert len(missing) == 2 and all(item.mends for item in missing)
    mended = edited(job, *missing[0].mends[0].edits)
    assert len([item for item in plan(mended).findings if item.code == "riser-missing"]) == 1
    assert stops(mended) == set()


def test_a_sleeve_guards_the_cable_on_its_own_side_of_a_box() -> None:
    job = line("12' wall in nm-b then 60' trench 24\" deep in uf to an outdoor outlet")
    (needed,) = (item for item in plan(job).findings if item.code == "box-needed")
    mended = edited(job, *needed.mends[0].edits)
    (context,) = way_contexts(mended, job_book(mended))
    view = viewed(job_book(mended), context)
    assert view.guarded(1) == ("UF-B", "12-2")


# By hand: H hangs with its lower edge at 48 in and is 30 in tall, so 18 in of wall are over it under a ceiling of 96;
# an outlet of a line stands as high as where the line begins, 48 under the ceiling and over the floor.
@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("12' of attic, 8' down the wall to a bath outlet", "Are 1′ 6″ up at H in the 12′?"),
        ("40' crawl to a range", "Are 4′ down at H and 4′ up at R-1 in the 40′?"),
        ("30' attic to a bedroom outlet", "Are 1′ 6″ up at H and 4′ down at R-1 in the 30′?"),
        ("30' attic to a ceiling fan", "Are 1′ 6″ up at H in the 30′?"),
    ],
)
def test_feet_up_and_down_that_nobody_walked_are_told(text: str, told: str) -> None:
    found = [item for item in plan(line(text)).findings if item.code == "climb-unsaid"]
    assert [(item.title, item.severity) for item in found] == [(told, "note")]
    assert found[0].section == "common practice, no source"


@pytest.mark.parametrize(
    "text",
    [
        "up 2' stud wall then 12' attic then down 8' stud wall to a bath outlet", "30' basement to a bedroom outlet",
        "30' stud wall to a bedroom outlet", "down 4' stud wall then 40' crawl then up 4' stud wall to a range",
    ],
)  # fmt: skip
def test_where_the_climb_was_walked_or_there_is_none_nothing_is_told(text: str) -> None:
    assert "climb-unsaid" not in {item.code for item in plan(line(text)).findings}
