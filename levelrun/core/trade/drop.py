"""Voltage drop along a run."""

from __future__ import annotations

import math
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import methods, reactance, resistance


@dataclass(frozen=True)
class Drop:
    """Drop out and back in volts, and as a share of the circuit's volts."""

    drop_v: float
    drop_percent: float
    ohm_per_kft: float
    rule: str


def drop(
    book: Codebook,
    volts: float,
    amps: float,
    length_ft: float,
    size: str,
    material: str,
    raceway: str = "",
    power_factor: float = 1.0,
) -> Drop:
    """2 · I · L · (R cos φ + X sin φ) for a single-phase circuit, out and back.

    length_ft one way. R: direct current at 75 °C, chapter 9 table 8 (stranded); X: table 9, in steel pipe
    the steel column. At power factor 1 the reactance does not count. Advice: 3 % branch, 5 % in all.
    """
    r = resistance(book, size, material)
    pipe = methods(book).get(raceway)
    x = reactance(book, size, pipe is not None and pipe.family == "steel")
    ohm = r * power_factor + x * math.sqrt(max(1 - power_factor**2, 0.0))
    drop_v = 2 * amps * length_ft / 1000 * ohm
    return Drop(drop_v, 100 * drop_v / volts, ohm, "ch. 9 tables 8 and 9; 210.19 informational note")
