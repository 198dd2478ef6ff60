"""Fill, counts and packing against printed tables and known geometry."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import raceway_sizes
from levelrun.core.pipe.bends import bends, offset_rise
from levelrun.core.pipe.fill import CableIn, Wires, fill, max_count
from levelrun.core.pipe.packing import least_radius, pack

# NFPA 70 informative annex C, THHN/THWN-2 rows, figures from memory. Sizes 14 12 10 8 6 4 3 2 1.
ANNEX_C = {
    ("EMT", "1/2"): [12, 9, 5, 3, 2, 1, 1, 1, 1],
    ("EMT", "3/4"): [22, 16, 10, 6, 4, 2, 1, 1, 1],
    ("EMT", "1"): [35, 26, 16, 9, 7, 4, 3, 3, 1],
    ("EMT", "1-1/4"): [61, 45, 28, 16, 12, 7, 6, 5, 4],
    ("PVC40", "1/2"): [11, 8, 5, 3, 1, 1, 1, 1, 1],
    ("PVC40", "3/4"): [21, 15, 9, 5, 4, 2, 1, 1, 1],
    ("PVC40", "1"): [34, 25, 15, 9, 6, 4, 3, 3, 1],
    ("PVC80", "3/4"): [17, 12, 7, 4, 3, 1, 1, 1, 1],
    ("RMC", "1/2"): [13, 9, 6, 3, 2, 1, 1, 1, 1],
    ("RMC", "3/4"): [22, 16, 10, 6, 4, 2, 1, 1, 1],
}


@pytest.mark.parametrize(("pipe", "counts"), ANNEX_C.items(), ids=lambda v: str(v))
def test_annex_c_counts(book: Codebook, pipe: tuple[str, str], counts: list[int]) -> None:
    found = [max_count(book, *pipe, "THWN-2", size) for size in ["14", "12", "10", "8", "6", "4", "3", "2", "1"]]
    assert found == counts


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
