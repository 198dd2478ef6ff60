"""Wire for a load: the hand-worked answers, and the near misses on either side.

Source: NFPA 70 (NEC) 2023, 110.14(C), 240.4, 240.6(A), 310.15, 310.16, 334.80, 340.80, 430.22, 440.33; from memory.
"""

from __future__ import annotations

import pytest

from levelrun.core.codebook import Codebook, load
from levelrun.core.errors import LevelRunError
from levelrun.core.trade.conductors.sizing import (
    Demand,
    choose,
    deciding,
    next_rating,
    rating_under,
    standard_breaker,
    usable,
)

# load, wiring, termination (None: as usual): the wire and its breaker
TERMINALS = {
    "60 A in NM-B is 4, not 6: 334.80": (60, "NM-B", 75, "4", 60),
    "55 A in NM-B is 6, next size up": (55, "NM-B", 75, "6", 60),
    "60 A in NM-B at 60 °C terminals": (60, "NM-B", None, "4", 60),
    "60 A in UF-B is 4: 340.80": (60, "UF-B", 75, "4", 60),
    "60 A in pipe at 75 °C is 6": (60, "raceway", None, "6", 60),
    "60 A in pipe at 60 °C terminals is 4": (60, "raceway", 60, "4", 60),
    "60 A in MC at 75 °C is 6": (60, "MC", None, "6", 60),
    "20 A in NM-B is 12": (20, "NM-B", None, "12", 20),
    "15 A in NM-B is 14": (15, "NM-B", None, "14", 15),
    "30 A in NM-B is 10": (30, "NM-B", None, "10", 30),
    "40 A in NM-B is 8": (40, "NM-B", None, "8", 40),
}


@pytest.mark.parametrize("name", TERMINALS)
def test_terminals_decide(book: Codebook, name: str) -> None:
    amps, wiring, termination, size, breaker = TERMINALS[name]
    found = choose(book, Demand(load_a=amps, wiring=wiring, termination_c=termination))
    assert (found.size, found.breaker_a) == (size, breaker)


@pytest.mark.parametrize(
    ("carries", "lengths", "decides"),
    [
        ([30, 24], [120, 480], 1),
        ([30, 24], [480, 53], 0),  # 53 of 533 in is under a tenth
        ([30, 24], [480, 54], 1),
        ([30, 24], [2400, 120], 0),  # ten feet at the most
        ([30, 24], [2400, 121], 1),
        ([30, 24, 20], [2400, 60, 60], 0),  # all weak parts together
        ([30, 24, 20], [2400, 80, 60], 1),  # the weakest alone is left out, the next is not
        ([24], [10], 0),
    ],
)
def test_short_weak_parts_do_not_decide(carries: list[float], lengths: list[float], decides: int) -> None:
    """310.14(A)(2), exception; worked by hand."""
    assert deciding(load(), carries, lengths) == decides


def test_in_canada_no_part_is_left_out() -> None:
    assert deciding(load("ca-2021"), [30, 24], [2400, 6]) == 1


def test_a_continuous_load_wants_a_quarter_more() -> None:
    book = load()
    kiln = choose(book, Demand(load_a=48, continuous=True, wiring="NM-B", volts=240))
    assert (kiln.breaker_a, kiln.size) == (60, "4")
    short = choose(book, Demand(load_a=48, wiring="NM-B", volts=240))
    assert (short.breaker_a, short.size) == (50, "6")


# °C, wires that carry current, the largest breaker that 14 copper in pipe may stand on in 2023
DERATED = {
    "30 °C, 3 wires: 25 A, held to 15 by 240.4(D)": (30, 3, 15.0),
    "50 °C, 9 wires: 14.35 A, next rating 15": (50, 9, 15.0),
    "60 °C, 12 wires: 8.9 A, next rating 10": (60, 12, 10.0),
    "65 °C, 21 wires: 7.3 A, next rating 10": (65, 21, 10.0),
}


@pytest.mark.parametrize("name", DERATED)
def test_wire_derated_under_10_a_is_not_protected_at_15(book: Codebook, name: str) -> None:
    ambient, count, most = DERATED[name]
    demand = Demand(load_a=5, ambient_c=ambient, current_carrying=count)
    amps = usable(book, demand, "14")
    assert min(next_rating(book, amps), 15.0) == most
    protected = choose(book, Demand(load_a=5, breaker_a=15, ambient_c=ambient, current_carrying=count))
    assert (protected.size == "14") is (most == 15.0)


def test_10_a_is_a_rating_since_2023_only() -> None:
    """240.6(A): before 2023 the next rating over 8.9 A is 15."""
    assert next_rating(load("us-2023"), 8.9) == 10
    assert next_rating(load("us-2020"), 8.9) == 15
    assert standard_breaker(load("us-2023"), 3) == 15, "no house circuit is proposed on 10 A"


@pytest.mark.parametrize(
    ("amps", "up", "down"),
    [(14.9, 15, 10), (15, 15, 15), (15.1, 20, 15), (51, 60, 50), (45, 45, 45), (101, 110, 100)],
)
def test_standard_ratings_up_and_down(book: Codebook, amps: float, up: float, down: float) -> None:
    assert (next_rating(book, amps), rating_under(book, amps)) == (up, down)


def test_no_rating_is_under_the_least_or_over_the_greatest(book: Codebook) -> None:
    with pytest.raises(LevelRunError, match="10 A or more"):
        rating_under(book, 9)
    with pytest.raises(LevelRunError, match="up to 1000 A"):
        next_rating(book, 1001)


# least ampacity, greatest breaker: wire in NM-B, breaker
NAMEPLATES = {
    "24 and 40: 10 on 40, which no load circuit allows": (24, 40, "10", 40),
    "31 and 50: 8 on 50": (31, 50, "8", 50),
    "30 and 50: 10 on 50": (30, 50, "10", 50),
    "18 and 28: 12 on 25, the rating under": (18, 28, "12", 25),
}


@pytest.mark.parametrize("name", NAMEPLATES)
def test_a_nameplate_gives_wire_by_the_one_and_breaker_by_the_other(book: Codebook, name: str) -> None:
    least, most, size, breaker = NAMEPLATES[name]
    demand = Demand(load_a=least * 0.8, minimum_ampacity_a=least, maximum_breaker_a=most, wiring="NM-B", volts=240)
    found = choose(book, demand)
    assert (found.size, found.breaker_a) == (size, breaker)
    assert "240.4(G)" in found.note


def test_a_breaker_over_the_nameplate_is_refused(book: Codebook) -> None:
    with pytest.raises(LevelRunError, match="over the 40 A of the nameplate"):
        choose(book, Demand(load_a=20, breaker_a=50, minimum_ampacity_a=24, maximum_breaker_a=40))
    assert choose(book, Demand(load_a=20, breaker_a=40, minimum_ampacity_a=24, maximum_breaker_a=40)).breaker_a == 40


def test_90_degree_terminals_are_not_taken_without_a_word(book: Codebook) -> None:
    assert "110.14(C)" in choose(book, Demand(load_a=50, termination_c=90)).note
    assert "label" not in choose(book, Demand(load_a=50)).note
