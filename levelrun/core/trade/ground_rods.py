"""What rods in the earth resist: one, or several in a row that share the earth.

Each rod with its image in the surface, at the mean potential along it, as H. B. Dwight worked it out (Calculation of
resistances to ground, AIEE 1936; printed in IEEE 142). Mutual resistance in closed form, of which Dwight's two series
(rods nearer and farther than their length) are the expansions.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from levelrun.core.errors import LevelRunError

M_PER_FT = 0.3048
MOST_RODS = 20


@dataclass(frozen=True)
class Rods:
    """Ohms of one rod alone, and of all together."""

    ohms_one: float
    ohms_all: float


def rods(length_ft: float, diameter_in: float, soil_ohm_m: float, count: int = 1, apart_ft: float = 0.0) -> Rods:
    """Ohms to earth of upright rods in one row. Uniform soil, rods driven whole.

    Raises LevelRunError that names the value: not over 0, more than 20 rods, rods that touch.
    """
    for key, value in (("length_ft", length_ft), ("diameter_in", diameter_in), ("soil_ohm_m", soil_ohm_m)):
        if not value > 0:
            raise LevelRunError(f"{key} {value:g}: allowed: over 0", key=key, value=value)
    if not 1 <= count <= MOST_RODS:
        raise LevelRunError(f"count {count}: allowed: 1 to {MOST_RODS}", key="count", value=count)
    if count > 1 and not apart_ft * 12 > diameter_in:
        raise LevelRunError(
            f"apart_ft {apart_ft:g}: rods stand apart; allowed: over {diameter_in / 12:.2f}", key="apart_ft",
            value=apart_ft,
        )  # fmt: skip
    if diameter_in / 12 > length_ft / 4:
        raise LevelRunError(
            f"diameter_in {diameter_in:g} in {length_ft:g} ft is no rod; allowed: up to a quarter of its length",
            key="diameter_in",
            value=diameter_in,
        )
    length = length_ft * M_PER_FT
    alone = soil_ohm_m / (2 * math.pi * length) * (math.log(4 * length / (diameter_in / 24 * M_PER_FT)) - 1)
    matrix = np.full((count, count), alone)
    for i in range(count):
        for j in range(count):
            if i != j:
                matrix[i, j] = _mutual(length, abs(i - j) * apart_ft * M_PER_FT, soil_ohm_m)
    return Rods(alone, float(1 / np.linalg.solve(matrix, np.ones(count)).sum()))


def _mutual(length: float, apart: float, soil: float) -> float:
    """What the current of one rod lifts another, ohms."""
    ratio = apart / (2 * length)
    shape = math.log((1 + math.sqrt(1 + ratio**2)) / ratio) + ratio - math.sqrt(1 + ratio**2)
    return soil / (2 * math.pi * length) * shape
