"""Nodal analysis of a network of resistances and sources, solved by a linear-algebra library.

Kirchhoff's current law at every node but the reference: G · v = i. A source stands as its Norton equivalent. Every
node leaks a little to the reference, as insulation does, so that a floating wire has a voltage.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

LEAK_OHM = 5e8
LEAST_OHM = 1e-6


class Branch(NamedTuple):
    """A resistance between two nodes, ohms."""

    a: str
    b: str
    ohms: float


@dataclass(frozen=True)
class Source:
    """A source from `minus` to `plus`: volts behind ohms. Volts of two legs of one transformer have opposite
    signs."""

    plus: str
    minus: str
    volts: float
    ohms: float


class Network:
    """Branches and sources over named nodes. `ground`: the reference, 0 V."""

    def __init__(self, branches: Iterable[Branch], sources: Sequence[Source] = (), ground: str = "earth") -> None:
        self.branches, self.sources, self.ground = list(branches), list(sources), ground
        names = dict.fromkeys(name for item in self.branches for name in (item.a, item.b) if name != ground)
        names |= dict.fromkeys(n for item in self.sources for n in (item.plus, item.minus) if n != ground)
        self.index = {name: at for at, name in enumerate(names)}

    def _matrix(self) -> tuple[np.ndarray, np.ndarray]:
        """G and i. The reference stands last while they are made, and is left out then."""
        size = len(self.index)
        ends = [(item.a, item.b) for item in self.branches] + [(item.plus, item.minus) for item in self.sources]
        ohms = [item.ohms for item in self.branches] + [item.ohms for item in self.sources]
        conductance = 1 / np.maximum(np.array(ohms, dtype=float), LEAST_OHM)
        at = np.array([[self.index.get(a, size), self.index.get(b, size)] for a, b in ends], dtype=int).reshape(-1, 2)
        g = np.zeros((size + 1, size + 1))
        np.add.at(g, (at[:, 0], at[:, 0]), conductance)
        np.add.at(g, (at[:, 1], at[:, 1]), conductance)
        np.add.at(g, (at[:, 0], at[:, 1]), -conductance)
        np.add.at(g, (at[:, 1], at[:, 0]), -conductance)
        g[np.diag_indices(size + 1)] += 1 / LEAK_OHM
        i = np.zeros(size + 1)
        own = slice(len(self.branches), None)
        driven = np.array([item.volts for item in self.sources], dtype=float) * conductance[own]
        np.add.at(i, at[own, 0], driven)
        np.add.at(i, at[own, 1], -driven)
        return g[:size, :size], i[:size]

    def solved(self) -> Solved:
        """The network solved once: every voltage, and what is seen between any two nodes."""
        g, i = self._matrix()
        inverse = np.linalg.inv(g) if len(self.index) else g
        return Solved(self.index, inverse, inverse @ i)

    def volts(self) -> dict[str, float]:
        """The voltage of every node against the reference."""
        found = self.solved()
        return {self.ground: 0.0, **{name: float(found.at[n]) for name, n in self.index.items()}}


@dataclass(frozen=True, eq=False)
class Solved:
    """A network solved: by Thévenin, what any meter reads between two nodes follows from the open voltage between
    them and the resistance seen there. A name that is not in it is the reference."""

    index: dict[str, int]
    inverse: np.ndarray
    at: np.ndarray

    def open_volts(self, a: str, b: str) -> float:
        """Volts between two nodes, by a meter that takes no current."""
        return self._volt(a) - self._volt(b)

    def ohms(self, a: str, b: str) -> float:
        """The resistance seen between two nodes, its sources being what they are inside."""
        i, j = self.index.get(a), self.index.get(b)
        own = self.inverse[i, i] if i is not None else 0.0
        other = self.inverse[j, j] if j is not None else 0.0
        across = self.inverse[i, j] if i is not None and j is not None else 0.0
        return float(own + other - 2 * across)

    def volts(self, a: str, b: str, meter_ohm: float) -> float:
        """What a meter of so many ohms reads between two nodes."""
        return self.open_volts(a, b) * meter_ohm / (meter_ohm + self.ohms(a, b))

    def has(self, name: str) -> bool:
        """Whether a node is in it."""
        return name in self.index

    def _volt(self, name: str) -> float:
        n = self.index.get(name)
        return float(self.at[n]) if n is not None else 0.0
