"""Pull force against its closed forms, and how wires wedge.

Source: T·e^(μφ) is the capstan equation (Euler, Eytelwein); weight corrections for cradled and diamond cables are the
usual formulas of cable pulling, from memory. Limits are common practice, no source.
"""

from __future__ import annotations

import math

import pytest

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import conductor, raceway
from levelrun.core.trade.pipe.pull import PullWires, Section, pull, weight_factor, wire_weight

FOUR_OUGHT = PullWires("THWN-2", "4/0", "cu", 3)


def inner(book: Codebook, size: str, key: str = "EMT") -> float:
    return raceway(book, key, size).inner_in


def test_one_wire_is_never_heavier_than_it_is(book: Codebook) -> None:
    assert weight_factor(book, [PullWires("THWN-2", "4/0", "cu", 1)], inner(book, "2")) == 1.0


def test_three_cradled_in_2_inch(book: Codebook) -> None:
    """3 × 4/0 in 2 in: w about 1.27, worked by hand: d 0.642, D 2.067, 1 + 4/3 · (0.642 / 1.425)²."""
    assert weight_factor(book, [FOUR_OUGHT], inner(book, "2")) == pytest.approx(1 + 4 / 3 * (0.642 / 1.425) ** 2)
    assert weight_factor(book, [FOUR_OUGHT], inner(book, "2")) == pytest.approx(1.27, abs=0.005)


@pytest.mark.parametrize(("count", "least"), [(2, 1.0), (3, 1.0), (4, 1.0), (5, 1.4), (9, 1.4)])
def test_a_bigger_pipe_wedges_less_and_never_helps(book: Codebook, count: int, least: float) -> None:
    wires = [PullWires("THWN-2", "6", "cu", count)]
    found = [weight_factor(book, wires, inner(book, size)) for size in ("1", "1-1/4", "1-1/2", "2", "3")]
    assert found == sorted(found, reverse=True)
    assert min(found) >= least


def test_wires_wider_than_half_the_pipe_do_not_divide_by_nothing(book: Codebook) -> None:
    wires = [PullWires("THWN-2", "4/0", "cu", 2)]
    assert math.isfinite(weight_factor(book, wires, conductor(book, "THWN-2", "4/0").diameter_in))


def test_the_correction_stands_in_the_exponent(book: Codebook) -> None:
    """Full circle of bends, μ 0.35: 1.8 times the bare form where w is 1.27."""
    turns = [Section(straight_in=120), *[Section(bend_deg=90, radius_in=9.5)] * 4]
    found = pull(book, turns, [FOUR_OUGHT], 0.35, inner_in=inner(book, "2"))
    weight = 3 * wire_weight(book, FOUR_OUGHT)
    factor = weight_factor(book, [FOUR_OUGHT], inner(book, "2"))
    assert found.forward_lb == pytest.approx(0.35 * weight * 10 * math.exp(0.35 * 2 * math.pi))
    assert found.corrected_forward_lb == pytest.approx(
        0.35 * factor * weight * 10 * math.exp(0.35 * factor * 2 * math.pi)
    )
    assert found.weight_factor == factor
    assert found.corrected_forward_lb / found.forward_lb / factor == pytest.approx(1.8, abs=0.05)


def test_without_a_pipe_nothing_is_corrected(book: Codebook) -> None:
    found = pull(book, [Section(straight_in=600)], [FOUR_OUGHT], 0.35)
    assert (found.weight_factor, found.corrected_forward_lb, found.corrected_reverse_lb) == (None, None, None)


def test_the_easier_end_is_where_the_bends_come_first(book: Codebook) -> None:
    bends_first = [Section(bend_deg=90, radius_in=9.5), Section(straight_in=600)]
    found = pull(book, bends_first, [FOUR_OUGHT], 0.35, inner_in=inner(book, "2"))
    assert found.feed == "start"
    assert found.corrected_forward_lb is not None and found.corrected_reverse_lb is not None
    assert found.corrected_forward_lb < found.corrected_reverse_lb
