"""Motors by their horsepower: the table against its structure and against physics, and what follows from it."""

from __future__ import annotations

import itertools

import pytest

from levelrun.core.codebook import load
from levelrun.core.errors import LevelRunError
from levelrun.core.trade.conductors.sizing import rating_under
from levelrun.core.trade.motors import _horses, motor

SETS = ("us-2023", "us-2020", "ca-2021")
WATTS = 745.7  # of one horsepower: NIST SP 811, B.8


@pytest.mark.parametrize("rules", SETS)
def test_the_table_is_that_of_one_family_of_machines(rules: str) -> None:
    rows = load(rules).table("430-248-motors").rows
    sizes = [_horses(str(row["hp"])) for row in rows]
    low, high = ([float(row[key]) for row in rows] for key in ("amps_115", "amps_230"))
    assert sizes == sorted(sizes) and low == sorted(low) and high == sorted(high)
    assert len(set(sizes)) == len(rows)
    for at_115, at_230 in zip(low, high, strict=True):
        assert at_115 == pytest.approx(2 * at_230, abs=0.11)  # the same volt-amperes


def test_what_goes_in_is_more_than_what_comes_out() -> None:
    """Shaft power over volt-amperes is efficiency times power factor: 0.2 to 0.8 for single-phase motors, and better
    for a large one than for the smallest (common practice, no source)."""
    rows = load("us-2023").table("430-248-motors").rows
    shares = [_horses(str(row["hp"])) * WATTS / (230 * float(row["amps_230"])) for row in rows]
    assert all(0.2 < share < 0.8 for share in shares)
    assert shares[-1] > 1.5 * shares[0]
    assert all(after > before - 0.03 for before, after in itertools.pairwise(shares))


# NFPA 70 (2023), Table 430.248, 430.22(A) and 430.52, from memory: amperes, of its wire, most of its breaker.
@pytest.mark.parametrize(
    ("hp", "volts", "amps", "wire", "most"),
    [(0.5, 240, 4.9, 6.125, 12.25), (1, 240, 8, 10, 20), (1.5, 240, 10, 12.5, 25), (5, 240, 28, 35, 70),
     (0.75, 120, 13.8, 17.25, 34.5)],
)  # fmt: skip
def test_its_wire_and_its_breaker(hp: float, volts: float, amps: float, wire: float, most: float) -> None:
    found = motor(load("us-2023"), hp, volts)
    assert (found.full_load_a, found.least_ampacity_a, found.largest_breaker_a) == (amps, wire, most)


def test_between_two_rows_the_larger_is_taken() -> None:
    book = load("us-2023")
    assert motor(book, 4, 240) == motor(book, 5, 240)
    assert motor(book, 3.0, 240).full_load_a < motor(book, 3.01, 240).full_load_a


@pytest.mark.parametrize(("hp", "volts"), [(0, 240), (-1, 240), (10.5, 240), (1, 208)])
def test_what_is_not_in_the_table_is_refused(hp: float, volts: float) -> None:
    with pytest.raises(LevelRunError, match="not in the table") as refused:
        motor(load("us-2023"), hp, volts)
    assert refused.value.allowed


@pytest.mark.parametrize("rules", SETS)
def test_every_row_has_a_breaker(rules: str) -> None:
    book = load(rules)
    for row in book.table("430-248-motors").rows:
        for volts in (120, 240):
            found = motor(book, _horses(str(row["hp"])), volts)
            rating = rating_under(book, max(found.largest_breaker_a, 15))
            assert found.least_ampacity_a <= max(rating, 15) <= max(found.largest_breaker_a, 15)
