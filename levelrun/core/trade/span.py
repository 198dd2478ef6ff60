"""A wire hung between two points: its sag, its length, how hard it pulls, and how that changes with heat and ice.

The catenary, in feet and pounds. A hanging wire has one shape for its length: `reach_ft` is the parameter of the
catenary, horizontal tension over weight a foot, so that a heavier load on the same length pulls in proportion.
Source: any text on statics; the loads of ice and wind: IEEE C2 (NESC) rule 250B, from memory, a planning figure.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError

ICE_LB_FT3 = 57.0
EXPANSION_PER_F = 10.6e-6  # of a steel-cored aluminium messenger, six over one, from memory
STRUNG_F = 60.0
RULE = "IEEE C2 rule 250B"


@dataclass(frozen=True)
class Sag:
    """Sag under the line between level supports, and length of the wire, in feet."""

    sag_ft: float
    length_ft: float


@dataclass(frozen=True, kw_only=True)
class Loading:
    """What a loading district lays on a wire: radial ice, wind, cold, and the pounds a foot that it adds to all."""

    district: str
    ice_in: float
    wind_psf: float
    cold_f: float
    added_lb_ft: float


@dataclass(frozen=True, kw_only=True)
class Hung:
    """A wire between two points: feet along from the first, up from the first. `reach_ft` as above."""

    span_ft: float
    rise_ft: float
    reach_ft: float

    def height_ft(self, along_ft: float) -> float:
        """How high it hangs over its first end, so far along. Negative: under it."""
        middle = self._lowest()
        a = self.reach_ft
        return a * (math.cosh((along_ft - middle) / a) - math.cosh(middle / a))

    def _lowest(self) -> float:
        a, half = self.reach_ft, self.span_ft / (2 * self.reach_ft)
        return self.span_ft / 2 - a * math.asinh(self.rise_ft / (2 * a * math.sinh(half)))

    @property
    def lowest_ft(self) -> float:
        """How far along it hangs lowest: an end, where its low point lies beyond it."""
        return min(max(self._lowest(), 0.0), self.span_ft)

    @property
    def length_ft(self) -> float:
        """Length of the wire."""
        level = 2 * self.reach_ft * math.sinh(self.span_ft / (2 * self.reach_ft))
        return math.hypot(level, self.rise_ft)

    @property
    def sag_ft(self) -> float:
        """The most that it hangs under the straight line between its ends."""
        slope = self.rise_ft / self.span_ft
        at = self._lowest() + self.reach_ft * math.asinh(slope)
        return slope * at - self.height_ft(at)


def sag(span_ft: float, weight_lb_ft: float, tension_lb: float) -> Sag:
    """Sag and length of a wire between level supports. tension_lb: horizontal. Catenary, exact.

    Raises LevelRunError that names the value where one is not over 0, or where the wire would hang deeper than its
    span is long.
    """
    for key, value in (("span_ft", span_ft), ("weight_lb_ft", weight_lb_ft), ("tension_lb", tension_lb)):
        if not value > 0:
            raise LevelRunError(f"{key} {value:g}: allowed: over 0", key=key, value=value)
    reach = tension_lb / weight_lb_ft
    if span_ft > 2 * reach:
        raise LevelRunError(
            f"tension_lb {tension_lb:g} is too little: it would hang deeper than half its span; allowed: "
            f"{weight_lb_ft * span_ft / 2:.1f} lb and more",
            key="tension_lb",
            value=tension_lb,
        )
    half = span_ft / (2 * reach)
    return Sag(reach * (math.cosh(half) - 1), 2 * reach * math.sinh(half))


def hung(span_ft: float, rise_ft: float, sag_ft: float) -> Hung:
    """A wire strung to a sag under the line between its ends. Raises LevelRunError where it cannot hang so."""
    if not 0 < sag_ft <= span_ft / 4:
        raise LevelRunError(
            f"sag {sag_ft:.2f} ft in {span_ft:.0f} ft; allowed: over 0, up to a quarter of the span",
            key="sag_in",
            value=sag_ft * 12,
        )

    def over(reach: float) -> float:
        return Hung(span_ft=span_ft, rise_ft=rise_ft, reach_ft=reach).sag_ft - sag_ft

    about = math.hypot(span_ft, rise_ft) * span_ft / (8 * sag_ft)
    return Hung(span_ft=span_ft, rise_ft=rise_ft, reach_ft=_root(over, about / 4, about * 4))


def _root(over: Callable[[float], float], low: float, high: float) -> float:
    """Where a falling function is 0 between two places, by halving: a library of solvers takes a second to load, and
    every process that plans a span would wait for it."""
    while high - low > 1e-10 * high:
        middle = (low + high) / 2
        low, high = (middle, high) if over(middle) > 0 else (low, middle)
    return (low + high) / 2


def warmed(wire: Hung, by_f: float) -> Hung | None:
    """The same wire so many °F warmer (colder if negative), its stretch left out, which errs to the tight side. None
    where the cold would pull it straight."""
    length = wire.length_ft * (1 + EXPANSION_PER_F * by_f)
    level = math.sqrt(max(length**2 - wire.rise_ft**2, 0.0))
    if level <= wire.span_ft * (1 + 1e-7):
        return None

    def over(reach: float) -> float:
        return 2 * reach * math.sinh(wire.span_ft / (2 * reach)) - level

    slack = level / wire.span_ft - 1
    about = wire.span_ft / math.sqrt(24 * slack)
    return Hung(
        span_ft=wire.span_ft, rise_ft=wire.rise_ft, reach_ft=_root(over, about / 4, about * 4)
    )  # fmt: skip


def loading(book: Codebook, district: str) -> Loading:
    """What a loading district lays on a wire: heavy, medium or light. Exact key. Raises UnknownKeyError."""
    row = book.table("span-loading").get(district)
    return Loading(
        district=district, ice_in=float(row["ice_in"]), wind_psf=float(row["wind_psf"]), cold_f=float(row["cold_f"]),
        added_lb_ft=float(row["added_lb_ft"]),
    )  # fmt: skip


def loaded_lb_ft(weight_lb_ft: float, diameter_in: float, on: Loading) -> float:
    """Pounds a foot of a wire in ice and wind: down and sideways put together, with what the district adds."""
    iced = diameter_in + 2 * on.ice_in
    down = weight_lb_ft + ICE_LB_FT3 * math.pi / 4 * (iced**2 - diameter_in**2) / 144
    return math.hypot(down, on.wind_psf * iced / 12) + on.added_lb_ft


def tension_lb(wire: Hung, weight_lb_ft: float, on: Loading | None = None, diameter_in: float = 0.0) -> float | None:
    """Greatest pull in a wire, at its higher end: as strung, or in the cold, ice and wind of a district. None where
    the cold would pull it straight."""
    if on is None:
        cold: Hung | None = wire
        load = weight_lb_ft
    else:
        cold = warmed(wire, on.cold_f - STRUNG_F)
        load = loaded_lb_ft(weight_lb_ft, diameter_in, on)
    if cold is None:
        return None
    low = min(cold.height_ft(cold.lowest_ft), 0.0, cold.rise_ft)
    return load * (cold.reach_ft + max(0.0, cold.rise_ft) - low)
