"""Marks against geometry: a straight stick is bent at its marks, in space, and where it ends is measured.

The stick is bent by turning a frame about its own axes (scipy's rotations), which shares nothing with the code that
set the marks. Multipliers of the bender's chart: common practice, no source.
"""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.spatial.transform import Rotation

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError
from levelrun.core.trade.pipe.centreline import BendOn, OnStick, on_stick
from levelrun.core.trade.pipe.hand_bend import hand_bend
from levelrun.core.trade.pipe.shapes import ShapeIn, check_shape, corners, grouped, parallel_shift_in
from tests.core.trade.pipe.paths import path

AHEAD = np.array([1.0, 0, 0])


def bent(laid: OnStick, first_axis: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """Where a stick ends, and which way it looks there, once it is bent at the marks of `laid`: each bend an arc of
    its radius about its own axis, the pipe rolled before it. The start lies at 0 and looks along x."""
    place, ahead, axis, at = np.zeros(3), AHEAD.copy(), first_axis.astype(float), 0.0
    for bend in laid.bends:
        place = place + ahead * (bend.begins_in - at)
        axis = Rotation.from_rotvec(ahead * math.radians(bend.roll_deg)).apply(axis)
        inward = np.cross(axis, ahead)
        middle = place + inward * bend.radius_in
        turn = Rotation.from_rotvec(axis * math.radians(bend.angle_deg))
        place, ahead, at = middle + turn.apply(place - middle), turn.apply(ahead), bend.ends_in
    return place + ahead * (laid.length_in - at), ahead


def shape_line(shape: ShapeIn, leg_in: float) -> list[tuple[float, float, float]]:
    """The corners of a shape in a leg along x: aside is y, the other way aside is z."""
    spots = [(s.along_in, s.rise_in, s.roll_in) for s in corners(shape)]
    end = (leg_in, 0.0, 0.0) if shape.kind.startswith("saddle") else (leg_in, shape.rise_in, shape.roll_in)
    return [(0.0, 0.0, 0.0), *spots, end]


SHAPES = [
    ShapeIn(kind="offset", at_in=60, rise_in=8, angle_deg=30),
    ShapeIn(kind="offset", at_in=52, rise_in=3.5, angle_deg=22.5),
    ShapeIn(kind="box_offset", at_in=108, rise_in=0.434, angle_deg=10),
    ShapeIn(kind="saddle3", at_in=60, rise_in=2, angle_deg=45),
    ShapeIn(kind="saddle4", at_in=50, rise_in=4, angle_deg=30, width_in=12),
    ShapeIn(kind="rolling", at_in=70, rise_in=6, angle_deg=45, roll_in=8),
]


@pytest.mark.parametrize("shape", SHAPES, ids=lambda s: f"{s.kind} {s.angle_deg:g}")
def test_a_stick_bent_at_its_marks_ends_where_it_should(shape: ShapeIn) -> None:
    line = shape_line(shape, 120)
    laid = on_stick(line, [4.5] * len(line))
    way = np.array(line[2]) - np.array(line[1])
    end, ahead = bent(laid, np.cross(AHEAD, way) / np.linalg.norm(np.cross(AHEAD, way)))
    assert end == pytest.approx(np.array(line[-1]), abs=1e-6)
    assert ahead == pytest.approx(AHEAD, abs=1e-9)


def test_a_rolling_offset_by_hand() -> None:
    """Rise 6, roll 8: true offset √(36 + 64) = 10; at 45° the pieces between corners are 10 / sin 45° = 14.142."""
    shape = SHAPES[-1]
    assert shape.true_in == 10
    line = shape_line(shape, 120)
    assert math.dist(line[1], line[2]) == pytest.approx(14.1421, abs=1e-4)
    laid = on_stick(line, [0.0] * 4)
    assert laid.bends[1].begins_in - laid.bends[0].begins_in == pytest.approx(14.1421, abs=1e-4)
    assert abs(laid.bends[1].roll_deg) == pytest.approx(180)


@given(
    st.lists(st.tuples(st.integers(0, 2), st.sampled_from([-1, 1]), st.floats(30, 100)), min_size=2, max_size=8),
    st.floats(1, 9),
)
def test_any_pipe_along_walls_ends_where_it_was_taped(steps: list[tuple[int, int, float]], radius: float) -> None:
    """Legs at right angles in space: bent by the marks and rolls it ends at the last corner."""
    points = path(steps, 40.0)
    laid = on_stick(points, [radius] * len(points))
    first = np.cross(AHEAD, np.array(points[2]) - np.array(points[1]))
    end, _ = bent(laid, first / np.linalg.norm(first))
    assert end == pytest.approx(np.array(points[-1]), abs=1e-6)
    taped = sum(math.dist(a, b) for a, b in pairwise(points))
    assert laid.length_in == pytest.approx(taped - sum(bend.gain_in for bend in laid.bends))


def test_the_gain_of_a_right_angle_is_what_handbooks_print() -> None:
    """2R − πR/2: of 4 in radius 1.717 in between corners (trigonometry)."""
    bend = BendOn(corner=1, angle_deg=90, radius_in=4, begins_in=0, ends_in=6.283, straight_in=0, roll_deg=0)
    assert bend.gain_in == pytest.approx(8 - 2 * math.pi, abs=1e-9)


def test_hand_bend_marks_make_what_is_asked(book: Codebook) -> None:
    """The classic marks, which take the bend as sharp: built as a sharp line they give rise and shrink."""
    for kind, angle, rise in (("offset", 30.0, 6.0), ("rolling_offset", 45.0, 6.0), ("kick", 20.0, 5.0)):
        found = hand_bend(book, kind, "EMT", "3/4", rise_in=rise, angle_deg=angle, roll_in=8.0)
        between = found.marks_in[-1] - (found.marks_in[0] if len(found.marks_in) > 1 else 0.0)
        assert between * math.sin(math.radians(angle)) == pytest.approx(found.true_offset_in)
        assert between * (1 - math.cos(math.radians(angle))) == pytest.approx(found.shrink_in)
    assert hand_bend(book, "rolling_offset", "EMT", "3/4", rise_in=6, roll_in=8).true_offset_in == 10
    back = hand_bend(book, "back_to_back", "EMT", "1/2", distance_in=30)
    assert back.marks_in == [30] and back.gain_in == pytest.approx(2.625, abs=0.01)  # 2 5/8 as benders print it
    with pytest.raises(LevelRunError, match="allowed: 90"):
        hand_bend(book, "back_to_back", "EMT", "1/2", distance_in=30, angle_deg=45)
    with pytest.raises(LevelRunError, match="roll_in is needed"):
        hand_bend(book, "rolling_offset", "EMT", "1/2", rise_in=3)


def test_benders_are_sound(book: Codebook) -> None:
    """Take-up reaches beyond radius and half the outside; no shoe is tighter than chapter 9 table 2; what is printed
    of gains for thin wall (2 5/8, 3 1/4, 4, 5 5/8, common practice) comes out to the eighth."""
    radii = {row["size"]: float(row["one_shot_in"]) for row in book.table("ch9-table2-radius").rows}
    outer = {(row["method"], row["size"]): float(row["outer_in"]) for row in book.table("pipe-make").rows}
    printed = {"1/2": 2.625, "3/4": 3.25, "1": 4.0, "1-1/4": 5.625}
    for row in book.table("bender").rows:
        key, size = row["raceway"], row["size"]
        radius, take_up = float(row["radius_in"]), float(row["take_up_in"])
        assert radius >= radii[size] - 1e-9
        assert 0 <= take_up - radius - outer[key, size] / 2 <= 1.0
        if key == "EMT":
            assert hand_bend(book, "stub", key, size, distance_in=20).gain_in == pytest.approx(
                printed[size], abs=0.0625
            )


def test_pipe_as_it_is_sold_is_sound(book: Codebook) -> None:
    """Outside over inside of table 4, rigid and plastic alike outside; sockets, bells and bodies rise with size."""
    rows = book.table("pipe-make").rows
    inner = {
        (key, row["size"]): float(row["inner_in"])
        for key in ("EMT", "RMC", "IMC", "PVC40", "PVC80")
        for row in book.table(f"ch9-table4-{key.lower()}").rows
    }
    outer = {(row["method"], row["size"]): float(row["outer_in"]) for row in rows}
    for row in rows:
        assert float(row["outer_in"]) > inner[row["method"], row["size"]]
        if row["method"] in ("PVC40", "PVC80"):
            assert float(row["outer_in"]) == outer["RMC", row["size"]]
    for key in ("EMT", "RMC", "IMC", "PVC40", "PVC80"):
        own = [row for row in rows if row["method"] == key]
        for name in ("outer_in", "socket_in", "straight_in", "body_in", "back_in"):
            values = [float(row[name]) for row in own]
            assert values == sorted(values), (key, name)


def test_prices_meet_the_table_of_methods_at_three_quarters(book: Codebook) -> None:
    work = {row["method"]: row for row in book.table("method-work").rows}
    for row in book.table("pipe-price").rows:
        if row["size"] == "3/4":
            assert float(row["dollar_per_ft"]) == pytest.approx(float(work[row["method"]]["dollar_per_ft"]))
            assert float(row["minutes_per_ft"]) == pytest.approx(float(work[row["method"]]["minutes_per_ft"]))
    for rows in (book.table("friction").rows,):
        for row in rows:
            assert float(row["low"]) < float(row["usual"]) < float(row["high"])
    assert float(book.table("friction").get("gel", "THWN-2")["usual"]) == book.number("friction")


def test_pipes_side_by_side_stay_even() -> None:
    """Spacing · tan(angle/2): the slopes of two offsets at 30°, 3 in apart, measured square between them."""
    shift = parallel_shift_in(3, 30)
    slope = np.array([math.cos(math.radians(30)), math.sin(math.radians(30))])
    first, second = np.array([0.0, 0.0]), np.array([-shift, 3.0])
    between = second - first
    assert abs(between[0] * slope[1] - between[1] * slope[0]) == pytest.approx(3.0)


def test_bare_angles_are_read_as_what_they_usually_are() -> None:
    assert grouped([10, 10, 90, 22.5, 45, 22.5, 30, 30]) == [
        ("box_offset", (10, 10)), ("bend", (90,)), ("saddle3", (22.5, 45, 22.5)), ("offset", (30, 30)),
    ]  # fmt: skip
    assert grouped([30, 30, 30, 30]) == [("saddle4", (30, 30, 30, 30))]
    assert grouped([10, 22.5]) == [("bend", (10,)), ("bend", (22.5,))]


@pytest.mark.parametrize(
    ("change", "leg", "key", "words"),
    [
        ({"angle_deg": 90.0}, 120, "angle_deg", "allowed: 1 to 89°"),
        ({"rise_in": 0.0}, 120, "rise_in", "over 0"),
        ({"rise_in": 90.0}, 120, "angle_deg", "a steeper angle, or a longer leg"),
        ({"at_in": 5.0}, 120, "at_in", "runs out of a leg"),
        ({"kind": "saddle4", "width_in": 0.0}, 120, "width_in", "width of what it crosses"),
        ({"kind": "saddle3", "rise_in": 40.0, "angle_deg": 45.0}, 60, "angle_deg", "takes"),
    ],
)
def test_what_no_bender_makes_is_refused_at_its_field(
    change: dict[str, float], leg: float, key: str, words: str
) -> None:
    with pytest.raises(LevelRunError, match=words) as refused:
        check_shape(replace(SHAPES[0], **change), leg)  # type: ignore[arg-type]
    assert refused.value.key == f"shapes.{key}"


def test_the_nearest_that_fits_is_let_be() -> None:
    check_shape(replace(SHAPES[0], at_in=8 / math.tan(math.radians(30))), 120)
    check_shape(replace(SHAPES[0], at_in=120), 120)
