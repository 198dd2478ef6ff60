"""A trench as earth: what comes out, what its depth asks for, how long it takes."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.codebook import Codebook

Profile = Sequence[tuple[float, float]]
WAY_OUT_RULE, GUARD_RULE = "OSHA 1926.651(c)(2)", "OSHA 1926.652(a)(1)"


@dataclass(frozen=True, kw_only=True)
class Earth:
    """What a trench takes: cubic feet dug, of bedding sand, and what does not go back; hours to dig and fill."""

    dug_ft3: float
    sand_ft3: float
    left_ft3: float
    dig_hours: float
    fill_hours: float


def area_in2(profile: Profile) -> float:
    """Square inches under grade of a depth given at places along: (along, depth) pairs in order, straight between."""
    pairs = itertools.pairwise(profile)
    return sum((x1 - x0) * (d0 + d1) / 2 for (x0, d0), (x1, d1) in pairs)


def earth(
    book: Codebook,
    profile: Profile,
    width_in: float,
    dig: str,
    bedding_in: float = 0.0,
    pipes_in: Sequence[float] = (),
) -> Earth:
    """What a trench takes. profile: depth of its bottom along it; pipes_in: outer diameters of what lies in it, which
    does not go back. Hours are common practice, by spade or by machine, in ordinary soil."""
    long = profile[-1][0] - profile[0][0] if profile else 0.0
    dug = area_in2(profile) * width_in / 1728
    sand = long * width_in * bedding_in / 1728
    pipes = long * sum(math.pi / 4 * outer**2 for outer in pipes_in) / 1728
    if dig == "machine":
        hours = book.number("machine_set_up_h") + long / 12 / book.number("machine_ft_per_h")
    else:
        hours = dug / book.number("spade_ft3_per_h")
    return Earth(
        dug_ft3=dug, sand_ft3=sand, left_ft3=sand + pipes, dig_hours=hours,
        fill_hours=dug / book.number("fill_ft3_per_h"),
    )  # fmt: skip
