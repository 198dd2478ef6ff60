"""Pictures do not lie: what is drawn has the sizes that were taped, in every sample and in random rooms."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelrun.core.boxes.drawn.floor import DrawnRoom
from levelrun.core.boxes.drawn.round import WalkRound
from levelrun.core.boxes.facts import RoomContext, RoomView
from levelrun.core.boxes.planned import draw_room, draw_round
from levelrun.core.circuits.spaces import leg_of
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan, plan_whole
from levelrun.core.site.geometry import area_ft2
from levelrun.samples import SAMPLES, sample
from tests.conftest import built, one_way

Point = tuple[float, float]


def drawn(job: Job) -> list[tuple[RoomContext, DrawnRoom, WalkRound]]:
    book = job_book(job)
    found = plan_whole(job, book)[1]
    return [(one, draw_room(book, one), draw_round(book, one)) for one in found.contexts]


ROOMS = [(key, *one) for key in SAMPLES for one in drawn(sample(key))]
NAMES = [f"{key} {context.room.name}" for key, context, _, _ in ROOMS]


def area(points: tuple[Point, ...]) -> float:
    """Square feet by the shoelace formula (general mathematics)."""
    pairs = zip(points, (*points[1:], points[0]), strict=True)
    return abs(sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in pairs)) / 2 / 144


@pytest.mark.parametrize(("key", "context", "room", "round_"), ROOMS, ids=NAMES)
def test_a_room_is_drawn_as_it_is(key: str, context: RoomContext, room: DrawnRoom, round_: WalkRound) -> None:
    assert len(room.walls) == len(context.room.corners) == len(round_.walls)
    assert area(room.corners) == pytest.approx(room.area_ft2) == pytest.approx(area_ft2(context.room.corners))
    for (x0, y0), (x1, y1), wall in zip(
        room.corners, (*room.corners[1:], room.corners[0]), sorted(round_.walls, key=lambda w: w.side), strict=True
    ):
        assert wall.x1 - wall.x0 == pytest.approx(math.hypot(x1 - x0, y1 - y0))


@pytest.mark.parametrize(("key", "context", "room", "round_"), ROOMS, ids=NAMES)
def test_the_walk_round_is_one_strip_without_gaps(
    key: str, context: RoomContext, room: DrawnRoom, round_: WalkRound
) -> None:
    starts, ends = [w.x0 for w in round_.walls], [w.x1 for w in round_.walls]
    assert [*starts, round_.length_in] == pytest.approx([0.0, *ends])
    over = [box for box in round_.boxes if box.y1 > context.level.height_in]
    assert round_.height_in == context.level.height_in or over
    assert all(box.y1 <= round_.height_in for box in round_.boxes), "one that hangs over the ceiling is seen too"
    for rect in (*round_.studs, *round_.openings, *round_.fixtures, *round_.boxes):
        wall = next(w for w in round_.walls if w.side == rect.side)
        assert wall.x0 - 4 <= rect.x0 <= rect.x1 <= wall.x1 + 4, (rect, wall)
        assert rect.y0 <= rect.y1


@pytest.mark.parametrize(("key", "context", "room", "round_"), ROOMS, ids=NAMES)
def test_a_box_is_drawn_where_it_was_set(key: str, context: RoomContext, room: DrawnRoom, round_: WalkRound) -> None:
    at = {box.id: box for box in room.boxes}
    unrolled = {box.id: box for box in round_.boxes}
    starts = {wall.side: wall.x0 for wall in round_.walls}
    for box in context.boxes:
        assert box.id in at
        if box.side is None:
            assert (at[box.id].x, at[box.id].y) == (box.x_in, box.y_in)
            continue
        there = unrolled[box.id]
        assert (there.x0 + there.x1) / 2 - starts[box.side] == pytest.approx(box.at_in)
        assert (there.y0 + there.y1) / 2 == pytest.approx(box.height_in - context.level.floor_in)


@pytest.mark.parametrize(("key", "context", "room", "round_"), ROOMS, ids=NAMES)
def test_openings_and_fixtures_have_their_width(
    key: str, context: RoomContext, room: DrawnRoom, round_: WalkRound
) -> None:
    view = RoomView(job_book(sample(key)), context)
    widths = {item.id: item.width_in for face in view.faces for item in (*face.openings, *face.fixtures)}
    for rect in (*round_.openings, *round_.fixtures):
        if rect.id in widths:
            assert rect.x1 - rect.x0 == pytest.approx(widths[rect.id])
    for opening in room.openings:
        (x0, y0), (x1, y1) = opening.quad[0], opening.quad[1]
        assert math.hypot(x1 - x0, y1 - y0) == pytest.approx(opening.width_in)


@given(st.integers(60, 400), st.integers(60, 400), st.sampled_from(["north", "east", "south", "west"]), st.data())
@settings(max_examples=40, deadline=None)
def test_any_room_and_box(wide: int, deep: int, wall: str, data: st.DataObject) -> None:
    long = wide if wall in ("north", "south") else deep
    at = data.draw(st.integers(6, long - 6))
    job = built(f'room R {wide}" x {deep}"; set receptacle {wall} {at}" exactly as A')
    (_, room, round_), *_ = drawn(job)
    box = job.boxes[0]
    spot = next(item for item in room.boxes if item.id == box.id)
    face = next(w for w in round_.walls if w.name.startswith(wall))
    assert face.x1 - face.x0 == pytest.approx(long)
    reached = next(b for b in round_.boxes if b.id == box.id)
    assert (reached.x0 + reached.x1) / 2 - face.x0 == pytest.approx(at)
    on_edge = min(abs(spot.x - x) for x in (0, wide)) < 1e-6 or min(abs(spot.y - y) for y in (0, deep)) < 1e-6
    assert on_edge and room.area_ft2 == pytest.approx(wide * deep / 144)


PANELS = [(key, panel) for key in SAMPLES for panel in plan(sample(key)).panels]


@pytest.mark.parametrize(("key", "panel"), PANELS, ids=[f"{key} {panel.name}" for key, panel in PANELS])
def test_a_panel_is_drawn_space_by_space(key: str, panel: object) -> None:
    """Odd left, even right, legs in turn down each side: as panels are made (common practice)."""
    shown = panel.drawing  # type: ignore[attr-defined]
    assert len(shown.spaces) == 2 * shown.rows
    for space in shown.spaces:
        assert space.side == ("left" if space.space % 2 else "right")
        assert space.row == (space.space - 1) // 2
        assert space.leg == leg_of(space.space) == "AB"[space.row % 2]
    taken = set()
    for breaker in shown.breakers:
        own = {breaker.space + 2 * row for row in range(breaker.rows)}
        assert breaker.row == (breaker.space - 1) // 2
        assert breaker.half or not own & taken, breaker
        taken |= own
    assert {s.space for s in shown.spaces if s.free} == {s.space for s in shown.spaces} - taken
    assert shown.free == sum(space.free for space in shown.spaces)


RUNS = [(key, index) for key in SAMPLES for index in range(len(sample(key).ways))]


@pytest.mark.parametrize(("key", "index"), RUNS, ids=[f"{key} {sample(key).ways[index].name}" for key, index in RUNS])
def test_a_strip_is_as_long_as_its_legs(key: str, index: int) -> None:
    job = sample(key)
    run, planned = job.ways[index], plan(job).ways[index]
    strip = planned.strip
    level = [leg.length_in for leg in run.legs if leg.go not in ("up", "down")]
    assert strip.length_in >= sum(level) - 1e-6
    for leg, laid in zip(strip.legs, run.legs, strict=True):
        across, up = leg.x1 - leg.x0, leg.y1 - leg.y0
        assert math.hypot(across, up) == pytest.approx(laid.length_in), leg
        assert (up > 0) is (laid.go == "up") or across > 0
        assert strip.low_in - 1e-6 <= min(leg.y0, leg.y1) and max(leg.y0, leg.y1) <= strip.high_in + 1e-6
    for before, after in itertools.pairwise(strip.legs):
        assert (before.x1, before.y1) == pytest.approx((after.x0, after.y0))
    assert [(span.x0 <= span.x1) for span in strip.pulls] == [True] * len(planned.pulls)
    for depth in strip.depths:
        assert depth.grade_y >= depth.pipe_y


@given(st.lists(st.sampled_from(["up 3'", "down 2'", "over 7' 3\"", "left 4'", 'right 30"']), min_size=1, max_size=8))
@settings(max_examples=40, deadline=None)
def test_the_run_from_above_goes_as_far_as_it_was_walked(turns: list[str]) -> None:
    first, *rest = turns
    text = "; ".join([f"{first} attic in emt 3/4", *rest])
    job = one_way(f"{text} to C-1")
    strip = plan(job).ways[0].strip
    flat = sum(math.dist((a.x, a.y), (b.x, b.y)) for a, b in itertools.pairwise(strip.plan))
    walked = sum(leg.length_in for leg in job.ways[0].legs if leg.go not in ("up", "down"))
    assert flat == pytest.approx(walked)
