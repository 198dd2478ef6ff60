"""Coils and what is cut from them, and the best filling of one."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

HAIR = 1e-7
PLACES = 12  # where a length is no whole foot, inches
NODES, SECONDS = 2000, 0.5  # and time of the search of one whole-number programme
Told = Callable[[float, str], None]
Over = Callable[[], bool]


def in_places(length_ft: float, up: bool) -> int:
    """A length in whole inches, rounded up of a cut and down of a coil."""
    return max(math.ceil(length_ft * PLACES - HAIR), 1) if up else math.floor(length_ft * PLACES + HAIR)


@dataclass(frozen=True, order=True)
class Coil:
    """A coil or reel as it is sold: feet, dollars."""

    length_ft: float
    price: float


@dataclass(frozen=True)
class Filled:
    """A coil with its cuts, by their numbers in the order given, longest first. price: 0 for what was there already
    (`have`); left_ft: what is left of it."""

    length_ft: float
    price: float
    cuts: tuple[int, ...]
    left_ft: float
    have: bool


@dataclass(frozen=True, kw_only=True)
class CoilPlan:
    """Coils with their cuts, the cuts bought by the foot, the money in all. bound: no plan costs less; proven: this
    one is at it."""

    coils: tuple[Filled, ...]
    by_foot: tuple[int, ...]
    cost: float
    proven: bool
    bound: float


@dataclass(frozen=True)
class Stock:
    """A kind of stock in whole units: how long, what it costs, how many there are; `own` for what is cut to length
    from a shop's reel: one cut each."""

    units: int
    cost: float
    most: int | None
    length_ft: float
    foot: bool = False


@dataclass(frozen=True)
class Filling:
    """How many of each length come from one piece of a stock."""

    stock: int
    counts: tuple[int, ...]


class Knapsack:
    """The most that cuts from a piece of each length are worth, every length at most as often as it is needed."""

    def __init__(self, lengths: Sequence[int], needed: Sequence[int], worth: Sequence[float], widest: int) -> None:
        import numpy as np

        self.lengths = lengths
        self.values = np.zeros(widest + 1)
        self.steps: list[tuple[int, int, Any]] = []
        for at, length in enumerate(lengths):
            most, lump = min(needed[at], widest // length), 1
            while most > 0 and worth[at] > 0:
                many = min(lump, most)
                most, lump = most - many, lump * 2
                size = many * length
                better = np.zeros(widest + 1, dtype=bool)
                with_it = self.values[: widest + 1 - size] + many * worth[at]
                better[size:] = with_it > self.values[size:] + 1e-12
                self.values[size:] = np.where(better[size:], with_it, self.values[size:])
                self.steps.append((at, many, better))

    def best(self, room: int) -> float:
        """What the best filling of a piece of this length is worth."""
        return float(self.values[room])

    def filling(self, room: int) -> tuple[int, ...]:
        """That filling: how many of each length."""
        counts = [0] * len(self.lengths)
        for at, many, better in reversed(self.steps):
            if better[room]:
                counts[at] += many
                room -= many * self.lengths[at]
        return tuple(counts)


@lru_cache(maxsize=1)
def _quiet() -> type[Any]:
    import highspy  # slow to load, and few plans ask

    class Quiet(highspy.Highs):  # type: ignore[misc]
        """Silent before its callbacks are on: what it prints then would stand in what a command prints."""

        def enableCallbacks(self) -> None:
            self.silent()
            super().enableCallbacks()

    return Quiet


def quiet_solver() -> Any:
    """A solver that prints nothing and keeps to one thread."""
    solver = _quiet()()
    solver.setOptionValue("threads", 1)
    return solver


def whole(solver: Any, many: int) -> None:
    """Its first `many` columns are whole numbers, to the last bit of the gap."""
    import highspy
    import numpy as np

    solver.changeColsIntegrality(many, np.arange(many), np.array([highspy.HighsVarType.kInteger] * many))
    solver.setOptionValue("mip_rel_gap", 0.0)
    solver.setOptionValue("mip_abs_gap", 1e-7)
    solver.setOptionValue("mip_max_nodes", NODES)
    solver.setOptionValue("time_limit", SECONDS)
