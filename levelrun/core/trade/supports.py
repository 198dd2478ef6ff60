"""Where staples and straps go."""

from __future__ import annotations

import math
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import SupportRule, support_rule
from levelrun.core.codebook.lookups import method as lookup_method
from levelrun.core.errors import unknown

ENDS = ("box_clamped", "box_no_clamp", "panel", "none")


@dataclass(frozen=True)
class Supports:
    """Support positions in inches from the start, with the limits that gave them."""

    first_max_in: float
    spacing_max_in: float
    positions_in: list[float]
    rule: str
    note: str

    @property
    def count(self) -> int:
        """How many."""
        return len(self.positions_in)


def _end_limit(rule: SupportRule, end: str) -> float:
    if end not in ENDS:
        raise unknown("end", end, ENDS)
    if end == "none":
        return rule.spacing_in
    return rule.no_clamp_in if end == "box_no_clamp" else rule.first_in


def _with_caps(book: Codebook, method: str, rule: SupportRule) -> SupportRule:
    """The rule of a cable, no looser than what is said of every cable."""
    if lookup_method(book, method).kind != "cable":
        return rule
    first, spacing = book.scalar("cable_first_support_most_in"), book.scalar("cable_spacing_most_in")
    noted = [cap.section for cap, own in ((first, rule.first_in), (spacing, rule.spacing_in)) if cap.value < own]
    return SupportRule(
        min(rule.first_in, first.value),
        min(rule.no_clamp_in, first.value),
        min(rule.spacing_in, spacing.value),
        "; ".join([rule.section, *noted]),
    )


def place_supports(length_in: float, first_in: float, last_in: float, spacing_in: float) -> list[float]:
    """Fewest positions with the first within first_in of the start, the last within last_in of the end,
    and no gap over spacing_in. Inches; at least one."""
    if length_in <= first_in + last_in:
        middle = length_in / 2
        return [min(max(middle, length_in - last_in), first_in)]
    span = length_in - first_in - last_in
    gaps = max(math.ceil(span / spacing_in - 1e-9), 1)
    return [first_in + span * i / gaps for i in range(gaps + 1)]


def supports(
    book: Codebook,
    method: str,
    size: str,
    length_in: float,
    start: str,
    end: str,
    habit_first_in: float | None = None,
    habit_spacing_in: float | None = None,
    shared_ends: tuple[bool, bool] = (False, False),
) -> Supports:
    """Support positions along one leg.

    start, end: box_clamped, box_no_clamp, panel, or none (a free end: the leg goes on). shared_ends: at which ends
    the same pipe or cable goes on round a corner: half of the spacing is left there to either side, so that none is
    over it.
    Shop habits may tighten, never loosen. Bored holes count as supports and are not listed here.
    Source: the .30 section of each article, 314.17. Raises UnknownKeyError.
    """
    rule = _with_caps(book, method, support_rule(book, method, size))
    spacing = min(rule.spacing_in, habit_spacing_in or rule.spacing_in)
    first, last = (
        min(_end_limit(rule, e), spacing / (2 if shared else 1) if e == "none" else (habit_first_in or math.inf))
        for e, shared in zip((start, end), shared_ends, strict=True)
    )
    said = [_end_limit(rule, e) for e in (start, end) if e != "none"]
    note = ""
    family = lookup_method(book, method).family
    if family == "steel":
        note = "to 5 ft from a box where no framing allows 3 ft; short unbroken stubs may need none"
    elif family == "building_cable":
        note = "cable fished into a finished wall needs none there"
    return Supports(
        said[0] if said else rule.first_in,
        rule.spacing_in,
        place_supports(length_in, first, last, spacing),
        rule.section,
        note,
    )
