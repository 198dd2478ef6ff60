"""Conduit fill: chapter 9 table 1 with its notes."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable, cable_sizes, conductor, raceway, raceway_sizes
from levelrun.core.trade.pipe.packing import fits_inside


@dataclass(frozen=True)
class Wires:
    """Equal single wires: insulation, size, how many."""

    insulation: str
    size: str
    count: int


@dataclass(frozen=True)
class CableIn:
    """Equal cables inside a pipe, each counted as one conductor by its wide side in inches."""

    wide_in: float
    count: int


@dataclass(frozen=True, kw_only=True)
class Fill:
    """How full a pipe is. Areas in square inches; limit None for a sleeve, where table 1 does not apply."""

    total_in2: float
    used_in2: float
    percent: float
    limit_percent: float | None
    fits: bool
    jam_ratio: float | None
    jam_risk: bool
    smallest_size: str | None
    rule: str


def diameters(book: Codebook, wires: Sequence[Wires], cables: Sequence[CableIn]) -> list[float]:
    """Diameter of every item in the pipe, in inches."""
    singles = [conductor(book, w.insulation, w.size).diameter_in for w in wires for _ in range(w.count)]
    return singles + [c.wide_in for c in cables for _ in range(c.count)]


def used_area(book: Codebook, wires: Sequence[Wires], cables: Sequence[CableIn]) -> float:
    """Area of all items, square inches: tabled for wires, full circle of the wide side for cables (note 9)."""
    area = sum(conductor(book, w.insulation, w.size).area_in2 * w.count for w in wires)
    return area + sum(math.pi / 4 * c.wide_in**2 * c.count for c in cables)


def limit_percent(book: Codebook, items: int, nipple: bool) -> float:
    """Share of the pipe that may be filled, percent, by the number of items."""
    if nipple:
        return book.number("fill_nipple")
    return book.number("fill_one" if items == 1 else "fill_two" if items == 2 else "fill_many")


def _round_count(book: Codebook, exact: float) -> int:
    whole = math.floor(exact + 1e-9)
    return whole + (exact - whole >= book.number("fill_round_up_from") - 1e-9)


def max_count(book: Codebook, raceway_key: str, size: str, insulation: str, wire_size: str) -> int:
    """Most same-size wires in a pipe, as informative annex C counts them: round up from 0.8 (note 7)."""
    pipe = raceway(book, raceway_key, size)
    each = conductor(book, insulation, wire_size).area_in2
    return _most_equal(book, pipe.area_in2, each)


def _most_equal(book: Codebook, pipe_area: float, each: float, nipple: bool = False) -> int:
    for items, key in ((3, "fill_many"), (2, "fill_two"), (1, "fill_one")):
        limit = book.number("fill_nipple" if nipple else key)
        count = _round_count(book, limit / 100 * pipe_area / each)
        if count >= items:
            return count if items == 3 else items
    return 0


def _all_same(wires: Sequence[Wires], cables: Sequence[CableIn]) -> bool:
    return len({(w.insulation, w.size) for w in wires}) + len({c.wide_in for c in cables}) == 1


def _fits(book: Codebook, pipe_area: float, wires: Sequence[Wires], cables: Sequence[CableIn], nipple: bool) -> bool:
    items = sum(w.count for w in wires) + sum(c.count for c in cables)
    used = used_area(book, wires, cables)
    if _all_same(wires, cables):
        return items <= _most_equal(book, pipe_area, used / items, nipple)
    return used <= limit_percent(book, items, nipple) / 100 * pipe_area + 1e-9


def jam_ratio(book: Codebook, inner_in: float, wires: Sequence[Wires], cables: Sequence[CableIn]) -> float | None:
    """Inner diameter over outer diameter where exactly three equal items are pulled, else None."""
    sizes = diameters(book, wires, cables)
    if len(sizes) != 3 or max(sizes) - min(sizes) > 1e-9:
        return None
    return inner_in / sizes[0]


def fill(
    book: Codebook,
    raceway_key: str,
    size: str,
    wires: Sequence[Wires],
    cables: Sequence[CableIn] = (),
    nipple: bool = False,
    sleeve: bool = False,
) -> Fill:
    """How full a pipe is, and whether that is allowed.

    Units: inches and square inches. Percent is unrounded. Same-size counts round up from 0.8.
    A sleeve only has to let everything pass: table 1 does not apply (note 2).
    Source: chapter 9 tables 1, 4, 5, 8. Raises UnknownKeyError for a size that is not made.
    """
    pipe = raceway(book, raceway_key, size)
    items = sum(w.count for w in wires) + sum(c.count for c in cables)
    used = used_area(book, wires, cables)
    if sleeve:
        fits = fits_inside(pipe.inner_in, diameters(book, wires, cables))
    else:
        fits = items == 0 or _fits(book, pipe.area_in2, wires, cables, nipple)
    ratio = jam_ratio(book, pipe.inner_in, wires, cables)
    return Fill(
        total_in2=pipe.area_in2,
        used_in2=used,
        percent=100 * used / pipe.area_in2,
        limit_percent=None if sleeve else limit_percent(book, max(items, 1), nipple),
        fits=fits,
        jam_ratio=ratio,
        jam_risk=ratio is not None and book.number("jam_low") <= ratio <= book.number("jam_high"),
        smallest_size=smallest_size(book, raceway_key, wires, cables, nipple, sleeve),
        rule="ch. 9 note 2" if sleeve else "ch. 9 note 4" if nipple else "ch. 9 table 1",
    )


def smallest_size(
    book: Codebook,
    raceway_key: str,
    wires: Sequence[Wires],
    cables: Sequence[CableIn] = (),
    nipple: bool = False,
    sleeve: bool = False,
) -> str | None:
    """Smallest trade size of this raceway that takes everything, or None where none does."""
    items = sum(w.count for w in wires) + sum(c.count for c in cables)
    for pipe in raceway_sizes(book, raceway_key):
        if items == 0 or (
            fits_inside(pipe.inner_in, diameters(book, wires, cables))
            if sleeve
            else _fits(book, pipe.area_in2, wires, cables, nipple)
        ):
            return pipe.size
    return None


def sleeve_size(book: Codebook, raceway_key: str, method: str, size: str) -> str | None:
    """Smallest trade size of a sleeve through which a cable passes: no fill limit (chapter 9 note 2), but it must go
    through. None where no such cable is made, or no size takes it."""
    if size not in cable_sizes(book, method):
        return None
    return smallest_size(book, raceway_key, [], [CableIn(cable(book, method, size).wide_in, 1)], sleeve=True)
