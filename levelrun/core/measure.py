"""Feet-inch and metric text to inches, and back. The only place that converts lengths.

Feet and inches are exact to 1/16 (binary fractions, so floats hold them exactly); metric
lengths keep their exact value and are shown to the nearest 1/16.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from fractions import Fraction

from levelrun.core.errors import MeasureError

IN_PER_FT = 12.0
IN_PER_M = 1000 / 25.4
METRE_IN = 39.37
MAX_LENGTH_IN = 120_000.0
ALLOWED = ("5'4", "5' 4 1/2\"", "5-4", '64"', "5.5 ft", "1.6 m", "1600 mm")

_GLYPHS = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8"}
_FRACTION = r"\d{1,3}/\d{1,3}"
_INCHES = rf"(?:(?P<i>\d+(?:\.\d+)?)(?:[ -]+(?P<if>{_FRACTION}))?|(?P<io>{_FRACTION}))"
_FT = r"(?:'|ft\b\.?|feet\b|foot\b)"
_IN = r"(?:\"|''|in\b\.?|inch(?:es)?\b)"

_FEET_INCHES = re.compile(rf"(?P<ft>\d+(?:\.\d+)?)\s*{_FT}(?:[\s-]*{_INCHES}(?:\s*{_IN}|(?![\w/-])))?")
_FEET_PART = re.compile(rf"(?P<ft>\d+)[ -]+(?P<part>{_FRACTION})\s*{_FT}")
_DASH = re.compile(rf"(?P<ft>\d+)-(?P<i>\d+(?:\.\d+)?)(?:[ -]+(?P<if>{_FRACTION}))?(?:\s*{_IN}|(?![\w/-]))")
_ONLY_INCHES = re.compile(rf"{_INCHES}\s*{_IN}")
_METRIC = re.compile(r"(?P<n>\d+(?:\.\d+)?)\s*(?P<unit>mm|cm|m)\b")
_BARE = re.compile(rf"{_INCHES}(?![\w/'\"])")


def tidy(text: str) -> str:
    """Typographic primes, quotes and fraction glyphs to plain ones, length kept where possible."""
    text = re.sub("[’′‘]", "'", text)
    text = re.sub("[”″“]", '"', text)
    for glyph, plain in _GLYPHS.items():
        text = re.sub(rf"(\d){glyph}", rf"\1 {plain}", text).replace(glyph, plain)
    return text


def _fraction(text: str, at: int) -> Fraction:
    top, bottom = (int(part) for part in text.split("/"))
    if bottom not in (2, 4, 8, 16):
        raise MeasureError(
            f"{text!r} is not a tape fraction; allowed: halves, 4ths, 8ths, 16ths",
            value=text,
            allowed=("1/2", "1/4", "1/8", "1/16"),
            at=at,
        )
    if top >= bottom:
        raise MeasureError(f"{text!r} is a whole inch or more; write it out", value=text, at=at)
    return Fraction(top, bottom)


def _inches(match: re.Match[str]) -> Fraction:
    groups = match.groupdict()
    if groups.get("io"):
        return _fraction(groups["io"], match.start("io"))
    total = Fraction(groups["i"] or 0) if groups.get("i") else Fraction(0)
    if groups.get("if"):
        if total.denominator != 1:
            raise MeasureError(
                f"{groups['i']} {groups['if']}: a decimal and a fraction together",
                value=match.group(0),
                allowed=ALLOWED,
                at=match.start("if"),
            )
        total += _fraction(groups["if"], match.start("if"))
    return total


def scan_length(text: str, at: int = 0, bare: str | None = None) -> tuple[float, int]:
    """Read a length that starts at position `at` of tidied text.

    bare: unit of a number without one ("in"), or None to refuse it.
    Returns inches and the position after it. Raises MeasureError with the position.
    """
    if match := _METRIC.match(text, at):
        per = {"mm": 1 / 25.4, "cm": 10 / 25.4, "m": IN_PER_M}[match["unit"]]
        return _checked(float(match["n"]) * per, text, at), match.end()
    if match := _FEET_PART.match(text, at):
        feet = int(match["ft"]) + _fraction(match["part"], match.start("part"))
        return _checked(float(feet * 12), text, at), match.end()
    if match := _FEET_INCHES.match(text, at):
        feet = Fraction(match["ft"])
        inches = _inches(match)
        if inches >= 12:
            raise MeasureError(
                f"{float(inches):g} in after the feet; allowed: under 12",
                value=match.group(0),
                allowed=ALLOWED,
                at=match.start("i"),
            )
        if feet.denominator != 1 and inches:
            raise MeasureError(
                f"{match.group(0)!r}: decimal feet and inches together",
                value=match.group(0),
                allowed=ALLOWED,
                at=at,
            )
        return _checked(float(feet * 12 + inches), text, at), match.end()
    if match := _ONLY_INCHES.match(text, at):
        return _checked(float(_inches(match)), text, at), match.end()
    if match := _DASH.match(text, at):
        inches = _inches(match)
        if inches >= 12:
            raise MeasureError(
                f"{match.group(0)!r}: {float(inches):g} in after the feet; allowed: under 12",
                value=match.group(0),
                allowed=ALLOWED,
                at=match.start("i"),
            )
        return _checked(float(int(match["ft"]) * 12 + inches), text, at), match.end()
    if match := _BARE.match(text, at):
        if bare == "in":
            return _checked(float(_inches(match)), text, at), match.end()
        raise MeasureError(
            f"{match.group(0)!r} has no unit; allowed: {', '.join(ALLOWED)}",
            value=match.group(0),
            allowed=ALLOWED,
            at=match.end(),
        )
    word = text[at:].split()[0] if text[at:].split() else ""
    raise MeasureError(
        f"expected a length, found {word!r}; allowed: {', '.join(ALLOWED)}"
        if word
        else f"expected a length; allowed: {', '.join(ALLOWED)}",
        value=word,
        allowed=ALLOWED,
        at=at,
    )


def _checked(inches: float, text: str, at: int) -> float:
    if not 0 <= inches <= MAX_LENGTH_IN:
        raise MeasureError(f"{text[at:].strip()!r} is too long; allowed: up to 10,000 ft", value=text[at:], at=at)
    return inches


def parse_length(text: str, bare: str | None = None) -> float:
    """A length as text to inches.

    Reads 5'4, 5' 4 1/2", 5-4, 64", 5.5 ft, 1.6 m, 160 cm, 1600 mm; a number without a unit only
    where `bare` names one. Raises MeasureError with the position and what is allowed.
    """
    tidied = tidy(text)
    start = len(tidied) - len(tidied.lstrip())
    inches, end = scan_length(tidied, start, bare)
    rest = tidied[end:].strip()
    if rest:
        raise MeasureError(
            f"{rest!r} left over after {tidied[start:end].strip()!r}; allowed: {', '.join(ALLOWED)}",
            value=text,
            allowed=ALLOWED,
            at=end,
        )
    return inches


REDUCED = tuple(str(Fraction(part, 16)) for part in range(16))


def format_fraction(sixteenths: int) -> str:
    """Whole inches and a reduced fraction from sixteenths: 73 -> '4 9/16'."""
    whole, part = divmod(sixteenths, 16)
    if not part:
        return f"{whole}"
    return f"{whole} {REDUCED[part]}" if whole else REDUCED[part]


def format_length(inches: float) -> str:
    """Inches as feet and inches to the nearest 1/16, in plain characters: 64.5 -> 5' 4 1/2\"."""
    sign = "-" if inches < 0 else ""
    sixteenths = round(abs(inches) * 16)
    feet, rest = divmod(sixteenths, 12 * 16)
    if feet and rest:
        return f"{sign}{feet}' {format_fraction(rest)}\""
    if feet:
        return f"{sign}{feet}'"
    return f'{sign}{format_fraction(rest)}"'


def format_inches(inches: float) -> str:
    """Inches only, to the nearest 1/16: 18.5 -> 18 1/2\"."""
    sign = "-" if inches < 0 else ""
    return f'{sign}{format_fraction(round(abs(inches) * 16))}"'


_UNITS: ContextVar[str] = ContextVar("units", default="imperial")


@contextmanager
def shown_in(units: str) -> Iterator[None]:
    """Within it, `show` and `show_inches` put these units first: imperial or metric."""
    token = _UNITS.set(units)
    try:
        yield
    finally:
        _UNITS.reset(token)


def show(inches: float) -> str:
    """Inches for reading, with proper primes: 64.5 -> 5′ 4 1/2″. To the nearest 1/16; metric: 1.638 m."""
    if _UNITS.get() == "metric":
        return f"{mm(inches) / 1000:.3f} m" if abs(inches) >= METRE_IN else f"{mm(inches):.0f} mm"
    return format_length(inches).replace("'", "′").replace('"', "″")


def show_area(square_feet: float) -> str:
    """An area for reading, whole square feet; metric: square metres to a tenth."""
    if _UNITS.get() == "metric":
        return f"{square_feet * (12 * 0.0254) ** 2:.1f} m²"
    return f"{square_feet:.0f} ft²"


def show_inches(inches: float) -> str:
    """Inches only, for reading: 18 -> 18″. To the nearest 1/16; metric: 457 mm."""
    if _UNITS.get() == "metric":
        return f"{mm(inches):.0f} mm"
    return format_inches(inches).replace('"', "″")


def feet(inches: float) -> float:
    """Inches to feet."""
    return inches / IN_PER_FT


def mm(inches: float) -> float:
    """Inches to millimetres."""
    return inches * 25.4
