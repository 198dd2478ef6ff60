"""Legs that lie in a trench are the trench's: written anew with it, and refused where an edit would change them."""

from __future__ import annotations

import itertools
import json
import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelrun.core.edits import apply_raw
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.trench.line import PLACES, pieces_of
from levelrun.core.trench.yard import long_in, yard_of
from levelrun.core.ways.laid import laid_legs
from levelrun.exchange.job_file import JobFileError, read_job, write_job
from levelrun.exchange.text import read_text, write_text
from levelrun.samples import sample
from tests.conftest import edited, found
from tests.core.trench.yard import FEED, changed, in_air, said, yard


def laid(job: Job) -> list[Any]:
    """The legs in its trench."""
    way = job.ways[0]
    return [way.legs[index] for index in laid_legs(way, job.trenches[0].id)]


def test_a_feed_is_walked_through_its_trench_from_nothing() -> None:
    """60 ft from wall to wall. The panel's foot stands 48 over the floor, the floor 18 over grade, the pipe 18 under
    it: 84 down; in the shop 48 + 6 + 18 = 72 up. Three No. 6 and a No. 10 ground fill 0.1732 in²: 1 in schedule 80
    holds 0.275 at 40 %, 3/4 in 0.164."""
    job = yard(*FEED)
    legs = job.ways[0].legs
    assert [(leg.go, leg.length_in, leg.method, leg.size) for leg in legs] == [
        ("over", 12, "PVC80", "1"), ("down", 84, "PVC80", "1"), ("over", 720, "PVC40", "1"), ("up", 72, "PVC80", "1"),
        ("over", 12, "PVC80", "1"),
    ]  # fmt: skip
    assert job.circuits[0].chain[0].path == (job.ways[0].id,) and job.circuits[0].method == "raceway"
    assert not [f.code for f in plan(job).findings if f.severity == "stop"]


def test_what_lies_above_cuts_the_legs_and_goes_again() -> None:
    job = yard(*FEED, "street south 60'", "drive 12' wide from street to 30' east 5' north")
    assert [(leg.length_in, leg.place) for leg in laid(job)] == [
        (144, "trench"), (144, "driveway_trench"), (432, "trench"),
    ]  # fmt: skip
    gone = edited(job, {"op": "drop", "kind": "yard", "id": job.yard[-1].id})
    assert [leg.length_in for leg in laid(gone)] == [720] and gone.ways[0].legs[2].depth_in == 18


def test_a_corner_bends_the_pipe_and_a_moved_end_lengthens_it() -> None:
    job = yard(*FEED)
    (x0, y0), (x1, y1) = job.trenches[0].points
    bent = changed(job, "trench", points=[(x0, y0), (x0 + 360, y0 + 360), (x1, y1)])
    assert [leg.bends_deg for leg in laid(bent)] == [(), (90.0,)]
    assert sum(leg.length_in for leg in laid(bent)) == pytest.approx(2 * math.hypot(360, 360), abs=1 / 8)
    assert bent.ways[0].legs[2].method == "PVC40" and bent.ways[0].legs[-1].end.node == job.panels[1].id


def test_a_way_back_goes_through_the_trench_the_other_way() -> None:
    lines = [*FEED[:2], "trench shop west to house east", FEED[3]]
    job = said(yard(*lines, "street south 60'"), "drive 12' wide from street to 30' east 5' north")
    job = said(changed(job, "trench", points=[(864.0, 60.0), (144.0, 60.0)]), "lay S feeder in Shop to House")
    assert [(leg.length_in, leg.place) for leg in laid(job)] == [
        (144, "trench"), (144, "driveway_trench"), (432, "trench"),
    ]  # fmt: skip
    read = said(job, "read 10\" at 50'", "read 20\" at 58'")
    # 50 ft from the shop lies 10 ft from the house: in the first leg
    assert [leg.depth_in for leg in laid(read)] == [10, 10, 10]
    assert found(read, "cover-short")[0].stage == "trench"


@pytest.mark.parametrize(
    "edit",
    [
        {"op": "set_leg", "leg": 2, "set": {"length_in": 100.0}},
        {"op": "set_leg", "leg": 2, "set": {"place": "attic"}},
        {"op": "drop_leg", "leg": 3},
        {"op": "add_leg", "at": 3, "leg": {"go": "over", "length_in": 9.0, "place": "trench", "method": "PVC40",
                                           "along": "t1"}},
    ],
)  # fmt: skip
def test_what_the_trench_decides_is_not_changed_beside_it(edit: dict[str, Any]) -> None:
    job = yard(*FEED, "street south 60'", "drive 12' wide from street to 30' east 5' north")
    with pytest.raises(EditError, match="lies in House to Shop"):
        edited(job, {**edit, "way": job.ways[0].id})


def test_nothing_stands_in_the_middle_of_a_trench() -> None:
    job = yard(*FEED, "street south 60'", "drive 12' wide from street to 30' east 5' north")
    with pytest.raises(EditError, match="ends within House to Shop"):
        edited(job, {"op": "end_leg", "way": job.ways[0].id, "leg": 3, "to": "J-5"})
    assert edited(job, {"op": "end_leg", "way": job.ways[0].id, "leg": 4, "to": "body"}).ways[0].legs[4].end.kind


def test_out_of_the_trench_its_legs_are_free_again() -> None:
    job = yard(*FEED)
    way, trench = job.ways[0].id, job.trenches[0].id
    free = edited(job, {"op": "lift_out", "along": trench, "way": way})
    assert (
        edited(free, {"op": "set_leg", "way": way, "leg": 2, "set": {"length_in": 100.0}}).ways[0].legs[2].length_in
    )
    assert all(leg.along is None for leg in free.ways[0].legs)
    gone = edited(job, {"op": "drop", "kind": "trench", "id": trench})
    assert not gone.trenches and gone.ways[0].legs[2].length_in == 720


def test_a_depth_that_is_set_goes_before_what_was_read() -> None:
    read = yard(*FEED, "read 17\" at 12'", "read 16\" at 24'", "read 20\" at 40'")
    assert laid(read)[0].depth_in == 16
    by_leg = edited(read, {"op": "set_leg", "way": read.ways[0].id, "leg": 2, "set": {"depth_in": 18.0}})
    assert not by_leg.trenches[0].readings and laid(by_leg)[0].depth_in == 18 and not found(by_leg, "cover-short")
    dug = edited(read, {"op": "dig", "trench": read.trenches[0].id, "depth_in": 18.0})
    assert not dug.trenches[0].readings and laid(dug)[0].depth_in == 18


def test_a_span_gives_its_leg_its_length_and_its_clearance() -> None:
    """18 and 16 ft at the ends, 40 ft apart at least: sag 3 % of it, and what a day of 120 °F adds."""
    job = in_air()
    leg = job.ways[0].legs[1]
    assert leg.length_in == pytest.approx(600) and leg.place == "overhead" and leg.facts.beneath == "walk"
    higher = changed(job, "span", start_end={"height_in": 240.0}, end_end={"height_in": 240.0})
    assert higher.ways[0].legs[1].facts.clear_in > leg.facts.clear_in + 20  # type: ignore[operator]


def test_a_file_is_read_with_its_legs_as_its_trench_has_them() -> None:
    """A file whose leg says 50 ft in a trench of 60 is brought right; one that lies in two pieces is refused."""
    job = yard(*FEED, "street south 60'", "drive 12' wide from street to 30' east 5' north")
    raw = json.loads(write_job(job))
    raw["ways"][0]["legs"][2:5] = [{**raw["ways"][0]["legs"][2], "length_in": 600.0}]
    assert read_job(json.dumps(raw)) == job
    torn = json.loads(write_job(job))
    torn["ways"][0]["legs"][3]["along"] = None
    with pytest.raises(JobFileError, match="in one piece"):
        read_job(json.dumps(torn))
    lines = write_text(job).splitlines()
    bent = [line.replace("length 144 in", "length 99 in") if line.startswith("part way") else line for line in lines]
    assert bent != lines and read_text("\n".join(bent)) == job


spot = st.tuples(st.floats(-900, 900), st.floats(-900, 900))


@settings(max_examples=40)
@given(st.lists(spot, min_size=1, max_size=4), st.floats(40, 400), st.floats(-300, 300))
def test_pieces_are_the_whole_line_and_legs_are_the_pieces(
    corners: list[tuple[float, float]], width: float, at: float
) -> None:
    job = yard(*FEED)
    points = [(152.0, 60.0), *((round(x * 16) / 16, round(y * 16) / 16) for x, y in corners), (864.0, 60.0)]
    if any(math.dist(a, b) < 12 for a, b in itertools.pairwise(points)):
        return
    drive = {"name": "D", "kind": "drive", "points": [(at, -2000.0), (at + 50, 2000.0)], "width_in": width}
    job = edited(changed(job, "trench", points=points), {"op": "add", "kind": "yard", "item": drive})
    trench = job.trenches[0]
    pieces = pieces_of(yard_of(job), trench)
    assert pieces[0].start_in == 0 and pieces[-1].end_in == pytest.approx(long_in(trench.points))
    assert all(a.end_in == b.start_in for a, b in itertools.pairwise(pieces))
    assert all(piece.end_in > piece.start_in for piece in pieces)
    legs = laid(job)
    assert [leg.length_in for leg in legs] == [max(piece.length_in, 0.0625) for piece in pieces]
    assert [leg.place for leg in legs] == [PLACES[piece.above] for piece in pieces]
    assert read_text(write_text(job)) == job
    plan(job)


def test_after_any_edit_of_the_demo_its_laid_legs_are_those_of_their_trenches() -> None:
    job = sample("quince-hollow")
    moved = [{"op": "set", "kind": "structure", "id": "shed", "set": {"x_in": -440.0}},
             {"op": "set", "kind": "trench", "id": "t1", "set": {"concrete": True}},
             {"op": "add", "kind": "yard", "item": {"name": "S", "kind": "slab",
                                                    "points": [(-90, 0), (-90, 90), (-20, 90), (-20, 0)]}},
             {"op": "set", "kind": "trench", "id": "t1", "set": {"rock": True}}]  # fmt: skip
    for edit in moved:
        job = apply_raw(job, [edit])
        again = apply_raw(job, [{"op": "set", "kind": "structure", "id": "house", "set": {"siding_in": 1.0}}])
        assert again.ways == job.ways
    legs = [leg for leg in job.way("h14").legs if leg.along]
    assert {leg.place for leg in legs} == {"trench", "under_slab"} and all(leg.facts.rock for leg in legs)
    assert sum(leg.length_in for leg in legs) == pytest.approx(516, abs=0.2)
