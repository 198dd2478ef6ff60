"""Fill, counts and packing against printed tables and known geometry."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import raceway_sizes
from levelrun.core.trade.pipe.bends import bends, offset_rise
from levelrun.core.trade.pipe.fill import CableIn, Wires, fill, max_count
from levelrun.core.trade.pipe.packing import least_radius, pack

# NFPA 70 informative annex C, THHN/THWN-2, figures from memory: a row a wire size, a column a trade size.
ANNEX_WIRES = ["14", "12", "10", "8", "6", "4", "3", "2", "1", "1/0", "2/0", "3/0", "4/0"]
ANNEX_PIPES = ["1/2", "3/4", "1", "1-1/4", "1-1/2", "2"]
ANNEX_C = {
    "EMT": """
        12 22 35 61 84 138
        9 16 26 45 61 101
        5 10 16 28 38 63
        3 6 9 16 22 36
        2 4 7 12 16 26
        1 2 4 7 10 16
        1 1 3 6 8 13
        1 1 3 5 7 11
        1 1 1 4 5 8
        1 1 1 3 4 7
        0 1 1 2 3 6
        0 1 1 1 3 5
        0 1 1 1 2 4
    """,
    "PVC40": """
        11 21 34 60 82 135
        8 15 25 43 59 99
        5 9 15 27 37 62
        3 5 9 16 21 36
        1 4 6 11 15 26
        1 2 4 7 9 16
        1 1 3 6 8 13
        1 1 3 5 7 11
        1 1 1 3 5 8
        1 1 1 3 4 7
        0 1 1 2 3 6
        0 1 1 1 3 5
        0 1 1 1 2 4
    """,
    "PVC80": """
        9 17 28 51 70 118
        6 12 20 37 51 86
        4 7 13 23 32 54
        2 4 7 13 18 31
        1 3 5 9 13 22
        1 1 3 6 8 14
        1 1 3 5 7 12
        1 1 2 4 6 10
        0 1 1 3 4 7
        0 1 1 2 3 6
        0 1 1 1 3 5
        0 1 1 1 2 4
        0 0 1 1 1 3
    """,
    "RMC": """
        13 22 36 63 85 140
        9 16 26 46 62 102
        6 10 17 29 39 64
        3 6 9 16 22 37
        2 4 7 12 16 27
        1 2 4 7 10 16
        1 1 3 6 8 14
        1 1 3 5 7 11
        1 1 1 4 5 8
        1 1 1 3 4 7
        0 1 1 2 3 6
        0 1 1 1 3 5
        0 1 1 1 2 4
    """,
}


@pytest.mark.parametrize("pipe", ANNEX_C)
def test_annex_c_counts(book: Codebook, pipe: str) -> None:
    for wire, line in zip(ANNEX_WIRES, ANNEX_C[pipe].strip().splitlines(), strict=True):
        found = [max_count(book, pipe, size, "THWN-2", wire) for size in ANNEX_PIPES]
        assert found == [int(count) for count in line.split()], wire


def test_limits_by_number_of_items(book: Codebook) -> None:
    one = fill(book, "EMT", "1/2", [Wires("THWN-2", "12", 1)])
    two = fill(book, "EMT", "1/2", [Wires("THWN-2", "12", 2)])
    nipple = fill(book, "EMT", "1/2", [Wires("THWN-2", "12", 9)], nipple=True)
    assert (one.limit_percent, two.limit_percent, nipple.limit_percent) == (53, 31, 60)
    assert fill(book, "EMT", "1/2", [Wires("THWN-2", "12", 9)]).fits
    assert not fill(book, "EMT", "1/2", [Wires("THWN-2", "12", 10)]).fits


def test_a_flat_cable_counts_as_a_circle_of_its_wide_side(book: Codebook) -> None:
    """Chapter 9 note 9. A 12-2 of 0.42 in: 0.1385 in2; in 1/2 EMT 45.6 % of 53 %."""
    found = fill(book, "EMT", "1/2", [], [CableIn(0.42, 1)])
    assert found.used_in2 == pytest.approx(math.pi / 4 * 0.42**2)
    assert found.fits and found.percent == pytest.approx(45.57, abs=0.01)
    assert not fill(book, "EMT", "1/2", [], [CableIn(0.42, 2)]).fits
    assert fill(book, "EMT", "1", [], [CableIn(0.42, 3)], sleeve=True).limit_percent is None
    assert not fill(book, "EMT", "1/2", [], [CableIn(0.42, 2)], sleeve=True).fits


def test_jam_is_for_three_equal_wires(book: Codebook) -> None:
    risky = fill(book, "EMT", "1", [Wires("THWN-2", "3", 3)])
    assert risky.jam_ratio == pytest.approx(1.049 / 0.352) and risky.jam_risk
    assert fill(book, "EMT", "1", [Wires("THWN-2", "3", 2)]).jam_ratio is None


# Known densest packings of n equal circles in a circle, radius ratios (Graham 1968 and before, from memory).
DENSEST = {
    1: 1.0,
    2: 2.0,
    3: 1 + 2 / math.sqrt(3),
    4: 1 + math.sqrt(2),
    5: 1 + math.sqrt(2 * (1 + 1 / math.sqrt(5))),
    6: 3.0,
    7: 3.0,
}


@pytest.mark.parametrize("count", DENSEST)
def test_sections_reach_the_densest_packing(count: int) -> None:
    assert least_radius([1.0] * count) == pytest.approx(DENSEST[count], abs=1e-5)


@given(st.lists(st.floats(0.1, 0.6), min_size=1, max_size=9))
def test_packed_wires_never_overlap(diameters: list[float]) -> None:
    spots = pack(2.5, diameters)
    for i, (x, y, r) in enumerate(spots or []):
        assert r == pytest.approx(diameters[i] / 2)
        assert math.hypot(x, y) + r <= 1.25 + 1e-6
        for px, py, pr in (spots or [])[:i]:
            assert math.hypot(x - px, y - py) >= r + pr - 1e-6


@given(
    st.sampled_from(["EMT", "RMC", "PVC40", "PVC80", "LFNC"]), st.sampled_from(["14", "12", "10", "8", "6", "4", "2"])
)
def test_a_bigger_pipe_never_fits_less(pipe: str, size: str) -> None:
    book = load()
    counts = [max_count(book, pipe, item.size, "THWN-2", size) for item in raceway_sizes(book, pipe)]
    assert counts == sorted(counts)


def test_box_offset_marks() -> None:
    """Marks at 2 and 4 1/2 in, 10 degrees each, give about 7/16 in: common practice, no source."""
    assert offset_rise(4.5 - 2, 10) == pytest.approx(7 / 16, abs=1 / 64)


def test_bends_add_up(book: Codebook) -> None:
    assert bends(book, [90, 90, 90, 90]).ok
    over = bends(book, [90, 90, 90, 90, 10, 10])
    assert not over.ok and over.total_deg == 380
