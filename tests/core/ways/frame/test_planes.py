"""Where joists lie, checked against shapely; what a piece in them costs, against the whole sum."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, box, unary_union

from levelrun.core.job import Level
from levelrun.core.ways.frame.planes import Plane
from levelrun.core.ways.frame.prices import Prices, Work

EDGES = st.integers(0, 12).map(lambda n: 12.0 * n)
ROOMS = st.lists(st.tuples(EDGES, EDGES, EDGES, EDGES).map(lambda c: rectangle(*c)), min_size=1, max_size=6)


def rectangle(x: float, y: float, to_x: float, to_y: float) -> tuple[float, float, float, float]:
    return min(x, to_x), min(y, to_y), max(x, to_x) + 12, max(y, to_y) + 12


def plane(floors: list[tuple[float, float, float, float]], **more: object) -> Plane:
    level = Level(id="f", name="Floor", **more)  # type: ignore[arg-type]
    return Plane(
        level=level, z_in=100.0, place="ceiling_joists", xs=(), ys=(), closed=(), floors=tuple(floors), damp=False
    )


@given(ROOMS, EDGES, EDGES, EDGES, st.booleans())
def test_a_piece_may_go_where_rooms_cover_it_all(
    floors: list[tuple[float, float, float, float]], fixed: float, start: float, end: float, level: bool
) -> None:
    """Outside check: shapely's covers over the union of the rooms (general-purpose library)."""
    a, b = ((start, fixed), (end, fixed)) if level else ((fixed, start), (fixed, end))
    if a == b:
        return
    covered = unary_union([box(*item) for item in floors]).covers(LineString([a, b]))
    own = plane(floors)
    assert own.may(a, b) is own.may(b, a) is bool(covered)


def test_a_gap_between_two_rooms_stops_it_and_rooms_that_touch_do_not() -> None:
    apart = plane([(0, 0, 120, 120), (121, 0, 240, 120)])
    touching = plane([(0, 0, 120, 120), (120, 0, 240, 120)])
    assert not apart.may((10, 60), (200, 60)) and touching.may((10, 60), (200, 60))
    assert apart.may((10, 60), (110, 60)) and not apart.may((10, 130), (110, 130))


def test_joists_that_may_not_be_crossed_are_followed() -> None:
    along = plane([(0, 0, 240, 240)], joists="x", joist_kind="laminated", joist_spacing_in=16)
    assert along.may((10, 60), (200, 60)) and not along.may((60, 10), (60, 200))
    assert along.may((60, 10), (60, 17))  # within one bay


PRICES = Prices(
    foot=0.62, minute=1.4, foot_minutes=0.1, stud=0.25, joist=0.5, plate=2, corner=1, header=1, trip=3, fished=9,
    sleeve=1.1,
)  # fmt: skip


@given(st.floats(0, 2000), st.integers(0, 90))
def test_a_piece_through_joists_costs_what_the_whole_sum_says(length_in: float, joists: int) -> None:
    whole = PRICES.dollars(Work(length_in=length_in, joists=joists))
    assert PRICES.bored(length_in, joists) == pytest.approx(whole, rel=1e-12)


def test_a_worked_piece() -> None:
    """24 ft through 18 joists by hand: 24 × 0.62 + (24 × 0.1 + 18 × 0.5) × 1.4 = 14.88 + 15.96."""
    assert PRICES.bored(288, 18) == pytest.approx(30.84)
