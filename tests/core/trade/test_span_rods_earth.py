"""Spans, rods and earth against the outside: statics by numerical integration, Dwight's printed series, shapely."""

from __future__ import annotations

import math
from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import dblquad, solve_bvp
from shapely import Polygon

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError, UnknownKeyError
from levelrun.core.trade.clearance import clearance
from levelrun.core.trade.digging import area_in2, earth
from levelrun.core.trade.ground_rods import rods
from levelrun.core.trade.span import Hung, hung, loaded_lb_ft, loading, sag, tension_lb, warmed


@pytest.mark.parametrize(("span", "weight", "tension"), [(58, 0.241, 100), (100, 0.37, 220), (30, 0.113, 25)])
def test_sag_is_that_of_the_differential_equation(span: float, weight: float, tension: float) -> None:
    """y'' = (w/H)·sqrt(1 + y'²), held at both ends, solved by collocation (scipy solve_bvp)."""
    a = weight / tension
    x = np.linspace(0, span, 41)
    shape = solve_bvp(
        lambda _, y: np.vstack((y[1], a * np.sqrt(1 + y[1] ** 2))), lambda p, q: np.array([p[0], q[0]]), x,
        np.zeros((2, x.size)), tol=1e-9,
    )  # fmt: skip
    length = np.trapezoid(np.sqrt(1 + shape.sol(np.linspace(0, span, 4001))[1] ** 2), np.linspace(0, span, 4001))
    found = sag(span, weight, tension)
    assert found.sag_ft == pytest.approx(-shape.sol(span / 2)[0], rel=1e-5)
    assert found.length_ft == pytest.approx(length, rel=1e-6)


def test_sag_of_a_flat_span_is_the_parabola_of_the_handbooks() -> None:
    """w L² / 8 H, which every line handbook prints for small sags; the catenary hangs a little deeper."""
    found = sag(100, 0.2, 500).sag_ft
    assert found == pytest.approx(0.2 * 100**2 / (8 * 500), rel=2e-4) and found > 0.5


@given(st.floats(20, 300), st.floats(-20, 20), st.floats(0.01, 0.2))
def test_a_hung_wire_holds_its_ends_and_its_sag(span: float, rise: float, share: float) -> None:
    wire = hung(span, rise, share * span)
    assert wire.height_ft(0) == pytest.approx(0, abs=1e-6) and wire.height_ft(span) == pytest.approx(rise, abs=1e-6)
    places = np.linspace(0, span, 2001)
    under = max(rise * x / span - wire.height_ft(x) for x in places)
    assert under == pytest.approx(share * span, rel=1e-4)
    assert wire.lowest_ft == pytest.approx(min(places, key=wire.height_ft), abs=span / 900)


@given(st.floats(20, 200), st.floats(-10, 10), st.floats(0.015, 0.1), st.floats(1, 80))
def test_heat_lengthens_a_wire_and_nothing_else(span: float, rise: float, share: float, more: float) -> None:
    wire = hung(span, rise, share * span)
    hot = warmed(wire, more)
    assert hot is not None and hot.sag_ft > wire.sag_ft
    assert hot.length_ft == pytest.approx(wire.length_ft * (1 + 10.6e-6 * more), rel=1e-8)
    cold = warmed(wire, -60.0)
    assert cold is None or cold.sag_ft < wire.sag_ft


def test_a_wire_strung_straight_has_nothing_to_give_to_the_cold() -> None:
    """Coefficient of expansion × 60 °F is 0.0636 %; a sag of 1 % gives 8/3 · 0.01² = 0.027 % of slack."""
    assert warmed(hung(100, 0, 1.0), -60.0) is None
    assert warmed(hung(100, 0, 2.0), -60.0) is not None  # 0.107 %


def test_ice_and_wind_are_worked_by_hand(book: Codebook) -> None:
    """Heavy: half an inch of ice at 57 lb/ft³ round 0.72 in is 0.311·(1.72² − 0.72²)= 0.759 lb/ft, wind 4·1.72/12."""
    heavy = loading(book, "heavy")
    ice = 57 * math.pi / 4 * (1.72**2 - 0.72**2) / 144
    assert ice == pytest.approx(0.7585, abs=1e-3)
    by_hand = math.hypot(0.241 + ice, 4 * 1.72 / 12) + 0.30
    assert loaded_lb_ft(0.241, 0.72, heavy) == pytest.approx(by_hand)
    wire = Hung(span_ft=58, rise_ft=0, reach_ft=240)
    assert tension_lb(wire, 0.241) == pytest.approx(0.241 * 240 * math.cosh(58 / 480), rel=1e-9)
    assert tension_lb(wire, 0.241, heavy, 0.72) > 5 * tension_lb(wire, 0.241)  # type: ignore[operator]


@pytest.mark.parametrize(
    ("values", "key"),
    [((0, 1, 1), "span_ft"), ((10, 0, 1), "weight_lb_ft"), ((10, 1, 0), "tension_lb"), ((100, 1, 5), "tension_lb")],
)
def test_a_span_that_cannot_be_is_refused_by_name(values: tuple[float, float, float], key: str) -> None:
    with pytest.raises(LevelRunError) as refused:
        sag(*values)
    assert refused.value.key == key


def dwight_near(length: float, radius: float, apart: float, soil: float) -> float:
    """Two rods nearer than their length, as IEEE 142 prints it."""
    s = apart / length
    inner = math.log(4 * length / radius) + math.log(4 / s) - 2 + s / 2 - s**2 / 16 + s**4 / 512
    return soil / (4 * math.pi * length) * inner


def dwight_far(length: float, radius: float, apart: float, soil: float) -> float:
    """Two rods farther apart than their length."""
    one = soil / (4 * math.pi * length) * (math.log(4 * length / radius) - 1)
    r = length / apart
    return one + soil / (4 * math.pi * apart) * (1 - r**2 / 3 + 2 * r**4 / 5)


@pytest.mark.parametrize("soil", [30, 100, 1000])
def test_rods_are_those_of_dwight(soil: float) -> None:
    """IEEE 142: one rod; two nearer than their length; two farther, whose series is within 1 % from twice on."""
    metre, radius = 0.3048, 0.625 / 24 * 0.3048
    one = soil / (2 * math.pi * 8 * metre) * (math.log(4 * 8 * metre / radius) - 1)
    assert rods(8, 0.625, soil).ohms_one == pytest.approx(one)
    for apart in (2, 4, 6, 8):
        found = rods(8, 0.625, soil, 2, apart).ohms_all
        assert found == pytest.approx(dwight_near(8 * metre, radius, apart * metre, soil), rel=1e-3)
    for apart in (16, 24, 50):
        found = rods(8, 0.625, soil, 2, apart).ohms_all
        assert found == pytest.approx(dwight_far(8 * metre, radius, apart * metre, soil), rel=1e-2)


def test_the_mutual_of_two_rods_is_the_integral_of_their_potential() -> None:
    """The mean of ρ/4π·(1/r + 1/r′) over both rods and the image, by quadrature (scipy dblquad)."""
    length, apart, soil = 2.4384, 1.8288, 100.0

    def kernel(z: float, y: float) -> float:
        return 1 / math.hypot(apart, z - y) + 1 / math.hypot(apart, z + y)

    mean = dblquad(kernel, 0, length, 0, length)[0] / length**2 * soil / (4 * math.pi)
    pair = rods(8, 0.625, soil, 2, 6)
    assert 2 * pair.ohms_all - pair.ohms_one == pytest.approx(mean, rel=1e-6)


@given(st.integers(2, 6), st.floats(6, 30))
def test_more_rods_do_better_but_share_the_earth(count: int, apart: float) -> None:
    many, fewer = rods(8, 0.625, 100, count, apart), rods(8, 0.625, 100, count - 1, apart)
    assert many.ohms_all < fewer.ohms_all and many.ohms_all > many.ohms_one / count


@pytest.mark.parametrize(
    ("question", "key"),
    [
        ({"length_ft": 0}, "length_ft"), ({"diameter_in": 0}, "diameter_in"), ({"count": 0}, "count"),
        ({"count": 2, "apart_ft": 0.01}, "apart_ft"), ({"diameter_in": 40}, "diameter_in"),
    ],
)  # fmt: skip
def test_a_rod_that_is_none_is_refused_by_name(question: dict[str, float], key: str) -> None:
    asked = {"length_ft": 8.0, "diameter_in": 0.625, "soil_ohm_m": 100.0, "count": 1, "apart_ft": 6.0, **question}
    with pytest.raises(LevelRunError) as refused:
        rods(**asked)  # type: ignore[arg-type]
    assert refused.value.key == key


@pytest.mark.parametrize(
    ("over", "more", "feet", "section"),
    [  # 225.18 and 225.19 as tabled
        ("walk", {}, 10, "225.18(1)"), ("drive", {}, 12, "225.18(2)"), ("street", {}, 18, "225.18(4)"),
        ("drive", {"volts": 600.0}, 15, "225.18(3)"), ("walk", {"volts": 480.0}, 12, "225.18(2)"),
        ("roof", {}, 8.5, "225.19(A)"), ("roof", {"slope_in_12": 4.0}, 3, "225.19(A) ex. 2"),
        ("roof", {"slope_in_12": 3.9}, 8.5, "225.19(A)"), ("roof", {"run_over_roof_ft": 4.0}, 1.5, "225.19(A) ex. 3"),
        ("roof", {"run_over_roof_ft": 4.1, "slope_in_12": 2.0}, 8.5, "225.19(A)"),
        ("roof", {"slope_in_12": 12.0, "volts": 480.0}, 8.5, "225.19(A)"),
    ],
)  # fmt: skip
def test_clearance_as_tabled(
    book: Codebook, over: str, more: dict[str, float], feet: float, section: str
) -> None:  # fmt: skip
    volts = more.get("volts", 240.0)
    rest = {key: value for key, value in more.items() if key != "volts"}
    found = clearance(book, over, volts, **rest)
    assert (found.least_ft, found.rule) == (feet, section)


def test_windows_are_three_feet_away_and_a_river_is_no_row(book: Codebook) -> None:
    assert clearance(book, "walk", window_distance_ft=3.0).window_ok
    assert clearance(book, "walk", window_distance_ft=2.9).window_ok is False
    with pytest.raises(UnknownKeyError):
        clearance(book, "river")


@given(st.lists(st.tuples(st.floats(1, 200), st.floats(2, 60)), min_size=2, max_size=8))
def test_spoil_is_the_area_of_the_long_section(steps: list[tuple[float, float]]) -> None:
    at, profile = 0.0, []
    for step, depth in steps:
        profile.append((at, depth))
        at += step
    ring = [(x, 0.0) for x in (profile[0][0], profile[-1][0])] + [(x, -d) for x, d in reversed(profile)]
    assert area_in2(profile) == pytest.approx(Polygon(ring).area, rel=1e-9)


def test_earth_is_counted_by_hand(book: Codebook) -> None:
    """43 ft, 8 in wide, 19 in deep: 43 · 8/12 · 19/12 = 45.4 ft³; by spade at 8 ft³ an hour."""
    found = earth(book, [(0, 19), (516, 19)], 8, "spade", 2, [1.05])
    assert found.dug_ft3 == pytest.approx(45.39, abs=0.01) and found.dig_hours == pytest.approx(45.39 / 8, abs=0.01)
    assert found.sand_ft3 == pytest.approx(43 * 8 / 12 * 2 / 12)
    assert found.left_ft3 == pytest.approx(found.sand_ft3 + 516 * math.pi / 4 * 1.05**2 / 1728)
    machine = earth(book, [(0, 19), (516, 19)], 8, "machine")
    assert machine.dig_hours == pytest.approx(1.5 + 43 / 60)


def test_tables_of_spans_and_electrodes_are_whole(book: Codebook) -> None:
    """A messenger weighs more than its aluminium at 1.17 lb/ft per in² (handbook density 0.0975 lb/in³)."""
    rows = book.table("messenger").rows
    for count in ("2", "3"):
        own = [row for row in rows if row["count"] == count]
        for one, two in pairwise(own):
            assert all(float(one[key]) < float(two[key]) for key in ("weight_lb_ft", "diameter_in", "breaking_lb"))
        for row in own:
            cmil = float(book.table("ch9-table8").get(row["size"])["area_cmil"])
            metal = (int(count) + 1) * cmil * math.pi / 4 / 1e6 * 1.17
            assert metal < float(row["weight_lb_ft"]) < 2.2 * metal, row
    heavy, medium, light = (loading(book, name) for name in ("heavy", "medium", "light"))
    assert heavy.ice_in > medium.ice_in > light.ice_in == 0 and light.wind_psf > heavy.wind_psf
    electrode = book.table("250-66-electrode").rows
    order = ["8", "6", "4", "2", "1/0", "2/0"]
    for metal in ("cu", "al"):
        assert [row["electrode_cu"] for row in electrode if row["material"] == metal] == order
