"""Ampacity: table 310.16 with its corrections."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import check_wire
from levelrun.core.errors import LevelRunError, unknown

COLUMNS = (60, 75, 90)


@dataclass(frozen=True)
class Ampacity:
    """Amperes from the table, its two factors, and their product, unrounded."""

    base_a: float
    ambient_factor: float
    adjustment_factor: float
    ampacity_a: float
    rule: str


@lru_cache(maxsize=4096)
def ampacity(
    book: Codebook, size: str, material: str, column_c: int, ambient_c: float, current_carrying: int
) -> Ampacity:
    """Ampacity of a wire. Source: tables 310.16, 310.15(B)(1)(1), 310.15(C)(1).

    column_c 60, 75 or 90; ambient_c in °C, band by next one up; current_carrying in one pipe or bundle, next band up.
    Raises UnknownKeyError for a size or column that no table has, LevelRunError where the heat allows none.
    """
    check_wire(book, size, material)
    if column_c not in COLUMNS:
        raise unknown("column_c", column_c, [str(column) for column in COLUMNS])
    base = float(book.table("310-16-ampacity").get(size)[f"{material}_{column_c}"])
    if not base:
        made = [r["size"] for r in book.table("310-16-ampacity").rows if float(r[f"{material}_{column_c}"])]
        raise unknown("size", size, made)
    ambient = ambient_factor(book, column_c, ambient_c)
    row = book.table("310-15-bundling").at_least("up_to_count", current_carrying)
    adjustment = float(row["factor"]) if row else 0.0
    return Ampacity(base, ambient, adjustment, base * ambient * adjustment, "310.16, 310.15(B), 310.15(C)")


def ambient_factor(book: Codebook, column_c: int, ambient_c: float) -> float:
    """Ambient correction, next band up. Raises LevelRunError where the column does not reach so far."""
    row = book.table("310-15-ambient").at_least("up_to_c", ambient_c)
    factor = float(row[f"f_{column_c}"]) if row else 0.0
    if not factor:
        raise LevelRunError(
            f"ambient_c {ambient_c:g} is too hot for {column_c} °C wire; allowed: under {column_c - 5} °C",
            key="ambient_c",
            value=ambient_c,
            allowed=[f"under {column_c - 5}"],
        )
    return factor
