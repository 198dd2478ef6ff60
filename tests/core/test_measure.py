"""Lengths as text."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.errors import MeasureError
from levelrun.core.measure import format_length, parse_length, show


@pytest.mark.parametrize(
    ("text", "inches"),
    [
        ("5'4", 64),
        ("5' 4 1/2\"", 64.5),
        ("22 1/2'", 270),
        ("22-1/2 ft", 270),
        ("3 1/4'", 39),
        ("5’ 4½″", 64.5),
        ("5-4", 64),
        ('64"', 64),
        ("5.5 ft", 66),
        ("1.6 m", 1600 / 25.4),
        ("1600 mm", 1600 / 25.4),
        ("160 cm", 1600 / 25.4),
        ('3/16"', 0.1875),
        ("43'", 516),
        ("2 ft 6 in", 30),
    ],
)
def test_reads_what_tapes_say(text: str, inches: float) -> None:
    assert parse_length(text) == pytest.approx(inches, abs=1e-12)


@pytest.mark.parametrize(
    ("text", "at"),
    [("64", 2), ("5'13", 2), ("abc", 0), ("5' 1/3\"", 3), ("5'4 foo", 3), ("-3'", 0), ("", 0), ("1.2.3 m", 3)],
)
def test_refuses_with_the_position(text: str, at: int) -> None:
    with pytest.raises(MeasureError) as refused:
        parse_length(text)
    assert refused.value.at == at


@given(st.integers(min_value=0, max_value=12 * 16 * 9999))
def test_every_sixteenth_comes_back_exactly(sixteenths: int) -> None:
    inches = sixteenths / 16
    assert parse_length(format_length(inches)) == inches
    assert parse_length(show(inches)) == inches
