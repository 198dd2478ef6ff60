"""Climbs that nobody walked: a leg lies where its place is, heights by hand; nothing is bought or stopped by it."""

from __future__ import annotations

import itertools

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelrun.core.codebook import load
from levelrun.core.codebook.lookups import places
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.ways.planned import PlannedWay
from levelrun.core.ways.unsaid import EARTH
from tests.conftest import built, edited

# The panel's lower edge is 48 in over the floor, its top 78; the ceiling 96, the ground 18 under the floor.
HOUSE = built("panel H 200a 40 spaces")


def line(text: str) -> Job:
    return built(f"from H {text}", HOUSE)


def way_of(text: str) -> PlannedWay:
    return plan(line(text)).ways[0]


@pytest.mark.parametrize(
    ("text", "heights", "climbs"),
    [
        ("35' attic, 8' down to steam shower", [(96, 96), (96, 0)], ["1′ 6″"]),
        ("35' ceiling, 7' down to outlet", [(96, 96), (96, 12)], ["1′ 6″"]),
        ("35' crawl, 3' up to outlet", [(0, 0), (0, 36)], ["4′"]),
        ("up 2' stud wall, 35' attic, 6' down to outlet", [(78, 102), (102, 102), (102, 30)], []),  # walked
        ("35' attic to outlet", [(96, 96)], ["1′ 6″", "4′"]),  # to the outlet at 48 in
        ("35' basement to outlet", [(48, 48)], []),  # along its joists, of a height that nobody said
        ("10' stud wall to outlet", [(48, 48)], []),
        ("60' trench 24\" deep in uf to outlet outside", [(-42, -42)], ["7′ 6″", "7′ 6″"]),  # -18 - 24
        ("down 8' outside wall, 60' trench 24\" deep in pvc, up 5' outside wall to outlet",
         [(48, -48), (-48, -48), (-48, 12)], []),
        ("12' stud wall, 30' attic, 6' down to outlet", [(48, 48), (96, 96), (96, 24)], ["4′"]),
        ("30' attic, 5' stud wall to outlet", [(96, 96), (78, 78)], ["1′ 6″", "1′ 6″"]),  # down again, as it came
    ],
)  # fmt: skip
def test_a_leg_lies_where_its_place_is(text: str, heights: list[tuple[float, float]], climbs: list[str]) -> None:
    strip = way_of(text).strip
    assert [(round(leg.y0, 6), round(leg.y1, 6)) for leg in strip.legs] == heights
    assert [climb.text for climb in strip.unsaid] == climbs


@pytest.mark.parametrize(
    ("text", "height"),
    [
        ("35' attic, 8' down to outlet", 0),
        ("35' crawl, 3' up to outlet", 36),
        ("30' attic to closet light", 96),  # it hangs there
        ("30' attic to outlet", 48),  # as high as where it began: nobody said
        ("30' stud wall to light", 48),
        ("6' up, 40' attic, 8' down to outlet", 54),  # 78 + 72 - 96
    ],
)
def test_what_stands_at_the_end_is_as_high_as_the_way_brings_it(text: str, height: float) -> None:
    assert line(text).boxes[-1].height_in == pytest.approx(height)


def test_over_an_upper_floor_the_ceiling_is_its_own() -> None:
    upper = built("structure house\nlevel upstairs\nroom Den 12' x 12'\npanel U 100a 12 spaces south 4'")
    made = built("from U 20' attic, 4' down to outlet", upper)
    panel, (leg, _) = made.panels[0], plan(made).ways[0].strip.legs
    assert leg.y0 == 108 + 96 > panel.height_in + panel.tall_in + 12


@pytest.mark.parametrize(
    "text", ["35' attic, 8' down to steam shower", "60' trench 24\" deep in pvc to shed S 60a", "30' crawl to outlet"]
)
def test_it_buys_nothing_and_stops_nothing(text: str) -> None:
    """What is not walked is asked, not cut: the lengths are those of the legs."""
    job = line(text)
    planned = plan(job).ways[0]
    walked = sum(leg.length_in for leg in job.ways[0].legs)
    assert all(cut.cut_in - walked < 16 * 12 for cut in planned.cuts)
    assert planned.strip.length_in == pytest.approx(sum(g.length_in for g in job.ways[0].legs if g.go != "down"))
    assert not [item for item in plan(job).findings if item.severity == "stop" or item.code == "height-closure"]


LEGS = ["30' attic", "up 3' stud wall", "down 4' stud wall", "20' crawl", "12' stud wall",
        "40' trench 18\" deep in pvc", "8' outside wall in pvc80", "left 9' ceiling",
        "down 3' outside wall in pvc80"]  # fmt: skip


@given(st.lists(st.sampled_from(LEGS), min_size=1, max_size=6), st.sampled_from(["outlet", "light", "dryer"]))
@settings(max_examples=80, deadline=None)
def test_nothing_is_between_two_legs_but_what_is_told(legs: list[str], end: str) -> None:
    """A drawing has no gap: each leg begins where the one before ends, or by a climb that is drawn."""
    strip = way_of(f"{', '.join(legs)} to {end}").strip
    climbs = {(climb.leg, climb.x): (climb.y0, climb.y1) for climb in strip.unsaid}
    for before, after in itertools.pairwise(strip.legs):
        gap = [(before.x1, before.y1), (after.x0, after.y0)]
        steps = [c for c in strip.unsaid if c.x == before.x1 and c.leg in (before.index, after.index)]
        assert gap[0][0] == pytest.approx(gap[1][0])
        assert sum(c.y1 - c.y0 for c in steps) == pytest.approx(gap[1][1] - gap[0][1])
    for _, y0, y1 in ((key, *value) for key, value in climbs.items()):
        assert strip.low_in <= min(y0, y1) and max(y0, y1) <= strip.high_in


def test_a_box_put_along_the_way_stands_where_the_leg_lies() -> None:
    """Over the ceiling with the cable: what comes down behind it ends where it did, and no height is missed."""
    job = line("35' attic in emt, 8' down to outlet")
    boxed = edited(job, {"op": "put_box", "way": job.ways[0].id, "leg": 0})
    assert boxed.boxes[-1].height_in == 96
    assert [leg.y1 for leg in plan(boxed).ways[0].strip.legs] == [leg.y1 for leg in plan(job).ways[0].strip.legs]
    assert "height-closure" not in {item.code for item in plan(boxed).findings}


def test_what_is_called_earth_is_what_the_table_of_places_buries() -> None:
    book = load("us-2023")
    assert {key for key, item in places(book).items() if item.above} == set(EARTH)
