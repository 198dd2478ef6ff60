"""What a first line walks through the earth or the air, put on the yard with one tap."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.trench.walked import walked_out
from levelrun.core.trench.yard import yard_of
from tests.conftest import built

HOUSE = built("panel H 200a 30 spaces taken 1-14")
TRENCHED = "cabin 90a down 5' outside wall in pvc80, 150' trench 24\" in urd, up 5' outside wall in pvc80"


def line(text: str, job: Job = HOUSE) -> Job:
    return built(text, job, verb="from")


@pytest.mark.parametrize(
    ("text", "feet"),
    [(TRENCHED, 150), ("shop 60a 40' crawl then 62' trench 24\" in pvc", 62), ("shop 60a 55' overhead", 55)],
)
def test_a_new_building_stands_as_far_off_as_was_said(text: str, feet: int) -> None:
    """Both stood in one place, one drawn over the other."""
    one, two = yard_of(line(text)).buildings
    assert one.shape.distance(two.shape) == pytest.approx(feet * 12)


def test_of_no_length_outdoors_it_still_stands_apart() -> None:
    one, two = yard_of(line("shed 60a 30' crawl in ser")).buildings
    assert one.shape.distance(two.shape) == 120


def test_one_tap_puts_it_on_the_yard_as_it_was_walked() -> None:
    job = line(TRENCHED)
    (found,) = walked_out(job)
    assert (found.name, found.long_text) == ("Cabin feeder", "150′")
    after = built(found.text, job, verb="trench")
    (trench,) = after.trenches
    leg = after.ways[-1].legs[1]
    assert (leg.along, leg.length_in, leg.depth_in) == (trench.id, 150 * 12, 24)
    assert [x.length_in for x in after.ways[-1].legs] == [x.length_in for x in job.ways[-1].legs]
    assert not list(walked_out(after)) and not [f for f in plan(after).findings if f.severity == "stop"]
    cuts = [[(cut.item, cut.cut_in) for cut in plan(one).ways[-1].cuts] for one in (job, after)]
    assert cuts[0] == cuts[1]  # the same is bought


def test_a_second_way_goes_in_the_trench_that_is_there() -> None:
    job = built(next(iter(walked_out(line(TRENCHED)))).text, line(TRENCHED), verb="trench")
    panel = job.panels[-1].name
    more = line("from H 150' trench 18\" in pvc to sub-panel T 60a in Cabin", job)
    assert more.panels[-1].structure == job.panels[-1].structure and panel
    (found,) = walked_out(more)
    assert found.text == "lay T feeder in House to Cabin"
    assert len(built(found.text, more, verb="trench").trenches) == 1


def test_what_stays_in_one_building_is_not_offered() -> None:
    assert not list(walked_out(line("well pump mca 10 max 20 70' trench 24\" in uf")))


def test_a_taped_trench_takes_a_building_that_is_not_drawn_with_it() -> None:
    job = built("trench House north to Cabin 80'", line(TRENCHED), verb="trench")
    one, two = yard_of(job).buildings
    assert one.shape.distance(two.shape) == pytest.approx(80 * 12)
    assert two.shape.centroid.y > one.shape.centroid.y
    again = built("trench House east to Cabin 30'", job, verb="trench")  # a trench ends at it now: it stays
    assert yard_of(again).buildings[1].shape.equals(two.shape)
