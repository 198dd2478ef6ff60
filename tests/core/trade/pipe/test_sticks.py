"""Cut lists against exhaustive search; joints against every place tried."""

from __future__ import annotations

import itertools
from functools import cache

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelrun.core.errors import LevelRunError
from levelrun.core.trade.pipe.sticks import joints, least_bound, packed


def fewest(pieces: tuple[float, ...], stick: float) -> int:
    """The least number of sticks by trying everything: the best over all sets of pieces that share the last stick."""
    whole = (1 << len(pieces)) - 1
    sums = [sum(p for i, p in enumerate(pieces) if mask >> i & 1) for mask in range(whole + 1)]

    @cache
    def least(mask: int) -> int:
        if not mask:
            return 0
        low = mask & -mask
        best, part = len(pieces), mask
        while part:
            if part & low and sums[part] <= stick + 1e-6:
                best = min(best, 1 + least(mask ^ part))
            part = (part - 1) & mask
        return best

    return least(whole)


eighths = st.integers(8, 960).map(lambda n: n / 8)


@settings(max_examples=120)
@given(st.lists(eighths, min_size=1, max_size=9))
def test_no_cutting_takes_fewer_sticks(pieces: list[float]) -> None:
    found = packed(tuple(pieces), 120.0)
    assert found.proven
    assert len(found.sticks) == fewest(tuple(pieces), 120.0)
    assert least_bound(pieces, 120.0) <= len(found.sticks)
    assert sorted(itertools.chain(*found.sticks)) == list(range(len(pieces)))
    for stick, left in zip(found.sticks, found.left_in, strict=True):
        assert sum(pieces[i] for i in stick) + left == pytest.approx(120.0)
        assert left >= -1e-6


def test_where_first_fit_takes_one_too_many() -> None:
    """240 in into 120: two. A harder one: eight pieces that fill three sticks, which longest first spreads over
    four."""
    assert len(packed((60.0, 40.0, 40.0, 40.0, 20.0, 20.0, 20.0), 120.0).sticks) == 2
    tight = (60.5, 59.5, 47.0, 40.0, 40.0, 40.0, 36.5, 36.5)
    assert len(packed(tight, 120.0).sticks) == fewest(tight, 120.0) == 3


def test_of_equal_counts_the_longer_leftover_is_kept() -> None:
    """Two sticks either way: 70 + 50 and 40 alone leave 80 in one piece; 70 + 40 and 50 would leave 70 and 10."""
    found = packed((70.0, 50.0, 40.0), 120.0)
    assert len(found.sticks) == 2 and max(found.left_in) == pytest.approx(80.0)


def test_a_piece_over_a_stick_is_named() -> None:
    with pytest.raises(LevelRunError, match=r"piece 2 of 121 in is longer than a stick of 120 in"):
        packed((50.0, 121.0), 120.0)


def fits(spots: tuple[float, ...], length: float, reach: float, shut: list[tuple[float, float]]) -> bool:
    edges = [0.0, *spots, length]
    long = all(b - a <= reach + 1e-6 for a, b in itertools.pairwise(edges))
    return long and not any(low < spot < high for spot in spots for low, high in shut)


@settings(max_examples=80)
@given(
    st.integers(20, 300).map(float),
    st.lists(st.tuples(st.integers(1, 280), st.integers(2, 30)), max_size=3),
)
def test_no_pipe_is_joined_more_often_than_it_must(length: float, bends: list[tuple[int, int]]) -> None:
    """Against every set of places an inch apart."""
    shut = [(float(a), float(min(a + w, 299))) for a, w in bends]
    merged: list[tuple[float, float]] = []
    for low, high in sorted(shut):
        if merged and low <= merged[-1][1]:
            merged[-1] = (merged[-1][0], max(high, merged[-1][1]))
        else:
            merged.append((low, high))
    found = joints(length, 120.0, 120.0, merged)
    places = [float(n) for n in range(1, int(length)) if not any(a < n < b for a, b in merged)]
    if found is None:
        assert not any(
            fits(spots, length, 120.0, merged) for k in range(3) for spots in itertools.combinations(places, k)
        )
        return
    assert fits(tuple(found), length, 120.0, merged)
    for fewer in range(len(found)):
        if fewer <= 1:
            assert not any(fits(spots, length, 120.0, merged) for spots in itertools.combinations(places, fewer))


def test_the_last_piece_is_no_stub() -> None:
    assert joints(121.0, 120.0, 120.0, [], 6.0) == [115.0]
    assert joints(121.0, 120.0, 120.0, []) == [120.0]
