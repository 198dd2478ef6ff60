"""A motor of which only the horsepower is known: its current, the wire it wants and the breaker it may have."""

from __future__ import annotations

from dataclasses import dataclass
from fractions import Fraction

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError

TABLE = "430-248-motors"
CONDUCTOR = 1.25  # of a single motor, 430.22(A)
INVERSE_TIME = 2.5  # an inverse time breaker, 430.52


@dataclass(frozen=True, kw_only=True)
class Motor:
    """Amperes of a motor. full_load_a: by the table; least_ampacity_a: what its wire carries; largest_breaker_a: the
    most of its breaker, not rounded."""

    hp: str
    full_load_a: float
    least_ampacity_a: float
    largest_breaker_a: float


def motor(book: Codebook, hp: float, volts: float) -> Motor:
    """A single-phase motor by its horsepower at 120 or 240 V.

    Source: NEC Table 430.248, 430.22(A) and 430.52 (from memory). Rounding: between two rows the larger motor.
    Raises LevelRunError for other voltages, for none and for more than the table holds.
    """
    rows = book.table(TABLE).rows
    if volts not in (120, 240):
        raise LevelRunError(
            f"a motor of {volts:g} V is not in the table", key="volts", value=volts, allowed=["120", "240"]
        )
    found = next((row for row in rows if 0 < hp <= _horses(str(row["hp"])) + 1e-6), None)
    if found is None:
        allowed = [str(row["hp"]) for row in rows]
        raise LevelRunError(f"{hp:g} hp is not in the table of motors", key="hp", value=hp, allowed=allowed)
    amps = float(found["amps_115" if volts == 120 else "amps_230"])
    return Motor(
        hp=str(found["hp"]),
        full_load_a=amps,
        least_ampacity_a=CONDUCTOR * amps,
        largest_breaker_a=INVERSE_TIME * amps,
    )


def _horses(name: str) -> float:
    """Horsepower by its name in the table: 1-1/2."""
    return float(sum((Fraction(part) for part in name.split("-")), Fraction(0)))
