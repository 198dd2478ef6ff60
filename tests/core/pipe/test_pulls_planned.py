"""A pull planned: pieces, marks, cut list, ladder, how it is pulled; numbers worked by hand."""

from __future__ import annotations

import math

import pytest

from levelrun.core.job import Job, job_book
from levelrun.core.pipe.cut_rows import cut_rows
from levelrun.core.pipe.facts import PipeView, piped
from levelrun.core.pipe.marks import marks_of
from levelrun.core.pipe.planned import PullPlan, plan_pull
from levelrun.core.plan import plan, way_contexts
from levelrun.core.ways.forces import force_of
from levelrun.core.ways.points import bent_deg, pull_points
from tests.conftest import edited, one_way

FEEDER = {"wire_size": "6", "breaker_a": 60, "conductors": 4, "load_a": 30, "volts": 240, "poles": 2}


def view(job: Job) -> PipeView:
    book = job_book(job)
    return piped(book, next(item for item in way_contexts(job, book) if item.way.id == "w"))


def pull(job: Job, index: int = 0) -> PullPlan:
    book = job_book(job)
    context = next(item for item in way_contexts(job, book) if item.way.id == "w")
    return plan_pull(book, context, index, tuple(plan(job).findings))


def test_a_stub_is_marked_by_its_take_up() -> None:
    """3/4 thin wall, 12 in up to the middle of the level pipe: outside 0.922, take-up 6 off the back of the bend. So
    12 + 0.461 − 6 = 6.461 from where it was taped, and 0.1 less at the connector: 6 3/8."""
    laid = view(one_way("up 12\" block wall in emt 3/4; over 5' to C-1"))
    pull_, layout = laid.laid[0]
    mark = marks_of(laid.view, layout, layout.pieces[0])[0]
    assert (mark.sign, mark.faces) == ("arrow", "left")
    assert mark.at_in == pytest.approx(12 + 0.922 / 2 - 6 - 0.1, abs=1e-6)
    assert mark.at_text == "6 3/8″"
    # 12 + 60 taped, less the gain 2R − πR/2 of a 5.42 shoe, less 0.1 at each connector
    assert layout.pieces[0].length_in == pytest.approx(72 - 5.42 * (2 - math.pi / 2) - 0.2, abs=1e-6)
    assert pull_.total.total_deg == 90


@pytest.mark.parametrize(("radius", "elbows"), [(7, 0), (8, 0), (9, 1), (24, 1)])
def test_a_sweep_wider_than_its_shoe_is_bought_and_not_bent(radius: int, elbows: int) -> None:
    """3/4 thin wall on a shoe of 5.42: to 8.1 it is taken as bent by hand, over that it is a factory sweep. Of 24 it
    has no mark and no take-up; the pipe gains 2R − πR/2 of that radius, and is cut for its two ends."""
    job = one_way(f'up 40" block wall in emt 3/4; over 5\' sweep {radius}" to C-1')
    laid = view(job)
    layout = laid.laid[0][1]
    assert len(layout.elbows) == elbows
    marks = [mark for piece in layout.pieces for mark in marks_of(laid.view, layout, piece)]
    assert bool(marks) is not bool(elbows)
    if elbows:
        elbow = layout.elbows[0]
        assert elbow.to_in - elbow.from_in == pytest.approx(math.pi / 2 * radius + 2 * 1.5)
        assert layout.line.length_in == pytest.approx(100 - radius * (2 - math.pi / 2))


def test_back_to_back_goes_on_the_star() -> None:
    """The second of two right angles is marked where its back will stand: 12 + 30 less the gain of the first, half an
    outside more."""
    laid = view(one_way('up 12" block wall in emt 1/2; over 30"; down 12" to C-1'))
    marks = marks_of(laid.view, laid.laid[0][1], laid.laid[0][1].pieces[0])
    assert [mark.sign for mark in marks] == ["arrow", "star"]
    gain = 4.47 * (2 - math.pi / 2)
    assert marks[1].at_in == pytest.approx(12 + 30 - gain + 0.706 / 2 - 0.1, abs=1e-6)
    assert marks[1].text == "down, same way as the bend before"


def test_an_offset_by_both_schools() -> None:
    """4 in at 30°: corners 8 in apart, less the gain of one bend along the pipe; 8 by the chart (multiplier 2)."""
    job = one_way('over 8\' block wall in emt 3/4 with offset 4" at 30 after 60" to C-1')
    row = pull(job).bends[0]
    gain = 2 * 5.42 * (math.tan(math.radians(15)) - math.radians(15))
    assert row.between_in == pytest.approx(8 - gain, abs=1e-9) and row.chart_in == pytest.approx(8.0)
    assert row.shrink_in == pytest.approx(4 * math.tan(math.radians(15)))
    laid = view(job)
    exact = [mark.at_in for mark in marks_of(laid.view, laid.laid[0][1], laid.laid[0][1].pieces[0])]
    chart = edited(job, {"op": "set_job", "set": {"habits": {"piping": {"offsets": "chart"}}}})
    laid = view(chart)
    by_chart = [mark.at_in for mark in marks_of(laid.view, laid.laid[0][1], laid.laid[0][1].pieces[0])]
    assert exact[1] - exact[0] == pytest.approx(8 - gain) and by_chart[1] - by_chart[0] == pytest.approx(8.0)


def test_a_wall_of_four_pieces_with_box_offset_saddle_and_kick() -> None:
    """Thin wall round a wall: every piece within a stick, no joint in a bend, the pieces together the whole pipe."""
    job = one_way(
        "up 4' block wall in emt 3/4 with box offset; over 24' with saddle 2\" after 14'; "
        "down 5' with kick 3\" at 15; over 10' with box offset to C-1"
    )
    laid = view(job)
    layout = laid.laid[0][1]
    assert len(layout.pieces) == 5 and layout.couplings == 4
    assert all(piece.length_in <= 120 + 1e-6 for piece in layout.pieces)
    total = sum(piece.length_in for piece in layout.pieces)
    assert total == pytest.approx(layout.line.length_in - 0.2)
    for piece in layout.pieces[:-1]:
        assert not any(made.bend.begins_in < piece.to_in < made.bend.ends_in for made in layout.bends)
    assert bent_deg(laid.view, 0, 3) == pytest.approx(20 + 90 + 90 + 90 + 15 + 90 + 20)
    assert [row.title.split(" ")[0] for row in pull(job).bends] == [
        "box",
        "90°",
        "three-bend",
        "90°",
        "kick",
        "90°",
        "box",
    ]


def test_plastic_sticks_have_a_bell_and_elbows() -> None:
    """3/4 PVC, 30 ft between two elbows: a stick lays 120 − 1.5, an elbow takes 4.5 and 1.5 of straight each side and
    0.719 of the pipe goes into its bell."""
    text = "down 3' outside in pvc80 3/4; over 30' trench 24\" deep in pvc40 3/4; up 3' outside in pvc80 3/4 to C-1"
    layout = view(one_way(text)).laid[0][1]
    trench = [piece for piece in layout.pieces if piece.method == "PVC40"]
    assert [piece.bell for piece in trench] == [True, True, False]
    assert trench[0].length_in == 120 and trench[0].to_in - trench[0].from_in == pytest.approx(118.5)
    arc = 4.5 * math.pi / 2
    between = 360 - 2 * 4.5 - 2 * 1.5 + 2 * 0.719
    assert trench[2].length_in == pytest.approx(between - 2 * 118.5)
    assert len(layout.elbows) == 2
    fills = pull(one_way(text)).fills  # 3 x 0.0133 of 0.508 and of 0.409 in² (tables 4 and 5)
    assert [round(row.percent, 1) for row in fills] == [round(3.99 / 0.409, 1), round(3.99 / 0.508, 1)]
    assert layout.elbows[0].to_in - layout.elbows[0].from_in == pytest.approx(arc + 3)


def test_the_cut_list_holds_every_piece_once() -> None:
    job = one_way("up 4' block wall in rigid 3/4; over 24'; down 5' to J-1; over 9' to C-1")
    book = job_book(job)
    context = next(item for item in way_contexts(job, book) if item.way.id == "w")
    rows = cut_rows(book, context)
    pieces = [piece for _, layout in piped(book, context).laid for piece in layout.pieces]
    assert sorted(row.length_in for row in rows) == sorted(round(piece.length_in, 4) for piece in pieces)
    assert [row.stick for row in rows] == sorted(row.stick for row in rows)
    assert pull(job).proven


def test_the_kind_end_is_the_one_with_the_bends() -> None:
    """Bends at the pulled end multiply all that comes before: sixty feet, then three right angles. Fed at the
    start the straight's pull goes round all of them."""
    job = one_way("over 60' attic in emt 1-1/4; left 6'; right 4'; up 4' to C-1", **FEEDER)
    how = pull(job).how
    assert how is not None and how.feed == "end"
    start, end = (next(band for band in how.bands if band.fed == fed) for fed in ("start", "end"))
    assert start.usual_lb > 4 * end.usual_lb
    for band in how.bands:
        assert band.low_lb < band.usual_lb < band.high_lb
        assert all(point.low_lb <= point.usual_lb + 1e-9 for point in band.points)
    assert start.points[0].at_in == 0 and end.points[0].at_in == pytest.approx(0, abs=1e-6)
    assert end.points[0].usual_lb == pytest.approx(end.usual_lb)
    assert [limit.key for limit in how.limits if not limit.within] == []


def test_said_beats_easier() -> None:
    job = one_way("over 60' attic in emt 1-1/4 fed at start; left 6'; right 4'; up 4' to C-1", **FEEDER)
    laid = view(job).view
    force = force_of(laid, 0, 3)
    assert force is not None and (force.feed, force.easier) == ("start", "end")
    assert plan(job).ways[0].pulls[0].feed == "start"
    assert plan(job).ways[0].pulls[0].hand_lb == pytest.approx(force.start.lb)


def test_the_fewest_pull_points_that_will_do() -> None:
    """A pull of five right angles: one point makes it two that are legal and light; none is proposed where it is."""
    job = one_way("over 30' attic in emt 1-1/4; left 20'; right 20'; left 20'; right 20'; left 20' to C-1", **FEEDER)
    laid = view(job).view
    found = pull_points(laid, 0, 5, 90.0)
    assert found is not None and len(found.legs) == 1 and found.hardest_lb <= 90
    one = pull_points(laid, 0, 1, 90.0)
    assert one is not None and one.legs == ()
    tight = pull_points(laid, 0, 5, 8.0)
    assert tight is None or len(tight.legs) > 1


@pytest.mark.parametrize(
    ("text", "circuit", "push"),
    [
        ("over 27' attic in emt 3/4; up 2' to C-1", {}, True),
        ("over 31' attic in emt 3/4 to C-1", {}, False),
        ("over 9' attic in emt 3/4; up 2'; over 2'; left 2' to C-1", {}, False),
        ("over 9' attic in emt 1-1/4 to C-1", FEEDER, False),
    ],
)
def test_what_the_fish_tape_does_alone(text: str, circuit: dict[str, object], push: bool) -> None:
    """Short, to 180°, a few small wires: common practice, no source."""
    how = pull(one_way(text, **circuit)).how  # type: ignore[arg-type]
    assert how is not None and how.push is push


def test_the_ladder_says_what_a_size_buys() -> None:
    """Four No. 6 and a No. 10 ground: 0.2239 in² (table 5). 3/4 EMT of 0.533 is 42 %; 1 in of 0.864 26 %."""
    plan_ = pull(one_way("over 60' attic in emt 1; left 6'; right 4'; up 4' to C-1", **FEEDER))
    rungs = {rung.size: rung for rung in plan_.ladder}
    assert not rungs["3/4"].fits and rungs["3/4"].percent == pytest.approx(100 * 0.2239 / 0.533, abs=0.1)
    assert rungs["1"].percent == pytest.approx(100 * 0.2239 / 0.864, abs=0.1)
    assert rungs["1"].here and "legal" in rungs["1"].buys and {"smallest", "cheapest"} <= set(rungs["1"].first)
    pulls = [rung.lb for rung in plan_.ladder if rung.lb is not None]
    assert pulls[0] == max(pulls)
    assert "room for one more circuit" in rungs["1-1/4"].buys
    mend = rungs["1-1/4"].mend
    assert mend is not None and [edit["set"] for edit in mend.edits] == [{"size": "1-1/4"}] * 4


def test_an_expansion_fitting_is_opened_by_the_day() -> None:
    """20 ft of PVC: 3.38e-5 · 240 in · 100 °F = 0.811 in a year (table 352.44: 4.06 in per 100 ft and 100 °F).
    At 50 °F it will still grow over 70 °F to the hottest, 120: 0.568."""
    job = one_way("up 20' outside in pvc80 3/4 expansion fitting to C-1")
    found = pull(job).expansions[0]
    assert found.moves_in == pytest.approx(4.06 * 0.2, abs=0.002) and found.count == 1
    assert [opening.day_f for opening in found.openings] == [20, 40, 60, 80, 100]
    said = edited(job, {"op": "set", "kind": "way", "id": "w", "set": {"day_f": 50.0}})
    openings = pull(said).expansions[0].openings
    assert [round(opening.open_in, 3) for opening in openings] == [0.568]
    hot = edited(job, {"op": "set", "kind": "way", "id": "w", "set": {"day_f": 130.0}})
    assert pull(hot).expansions[0].openings[0].open_in == 0


def test_flexible_pipe_has_a_pull_and_no_sticks() -> None:
    found = pull(one_way("over 5' tail in lfnc 1/2 to C-1"))
    assert found.drawing is None and found.order == [] and found.how is not None
