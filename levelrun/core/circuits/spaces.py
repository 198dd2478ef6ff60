"""A panel's spaces: which leg each meets, what stands where, what is free."""

from __future__ import annotations

from collections.abc import Container, Sequence
from dataclasses import dataclass
from typing import Any

from levelrun.core.job import Circuit, Panel

LEGS = ("A", "B")


def leg_of(space: int) -> str:
    """The leg that a space meets: the rows go A, B, A, B from the top, left odd and right even."""
    return LEGS[((space - 1) // 2) % 2]


def spaces_of(circuit: Circuit) -> tuple[int, ...]:
    """The spaces that a breaker takes: one, or two of one side below each other."""
    if circuit.space is None:
        return ()
    return (circuit.space, circuit.space + 2) if circuit.poles == 2 else (circuit.space,)


def label(circuit: Circuit) -> str:
    """How a circuit is called: 9, 1/3, 17a; empty while it has no space."""
    return "/".join(f"{space}{circuit.half}" for space in spaces_of(circuit))


def called(circuit: Circuit) -> str:
    """Its spaces and its name: 1/3 Range; its name alone while it has no space."""
    return f"{label(circuit)} {circuit.name}".strip()


def breaker_asked(circuit: Circuit, old: Container[str]) -> bool:
    """Whether nobody knows on which breaker it is: it has no space, and its first box is one of these old ones, so it
    has one somewhere."""
    return circuit.space is None and bool(circuit.chain) and circuit.chain[0].box in old


def given_back(panel: Panel, space: int) -> list[dict[str, Any]]:
    """The edit by which a space is no longer one of other work; none where it is not."""
    left = [number for number in panel.taken if number != space]
    return [{"op": "set", "kind": "panel", "id": panel.id, "set": {"taken": left}}] if space in panel.taken else []


@dataclass(frozen=True)
class Occupied:
    """The spaces of one panel: who stands on each, and on which nobody does."""

    panel: Panel
    at: dict[int, list[Circuit]]
    unplaced: list[Circuit]

    @property
    def free(self) -> list[int]:
        """Spaces that nothing stands on."""
        others = set(self.panel.taken)
        return [n for n in range(1, self.panel.spaces + 1) if n not in self.at and n not in others]

    @property
    def free_pairs(self) -> list[int]:
        """Upper spaces of two free ones below each other: where a double-pole breaker fits."""
        free = set(self.free)
        return [space for space in sorted(free) if space + 2 in free]

    @property
    def free_halves(self) -> list[tuple[int, str]]:
        """Places in tandem spaces: beside a half, or in an empty one."""
        found: list[tuple[int, str]] = []
        for space in self.panel.tandem_spaces:
            here = self.at.get(space, [])
            halves = {circuit.half for circuit in here}
            if space <= self.panel.spaces and len(here) == 1 and halves <= {"a", "b"}:
                found.append((space, "b" if "a" in halves else "a"))
        return found

    @property
    def asked(self) -> bool:
        """Only how many are free is known, not which."""
        return self.panel.free_said is not None

    def place_for(self, circuit: Circuit, beside: int | None = None) -> tuple[int, str] | None:
        """The first place where a breaker fits: a pair for two poles; opposite the leg of `beside` where given."""
        if self.asked:
            return None
        if circuit.poles == 2:
            return (self.free_pairs[0], "") if self.free_pairs else None
        free = set(self.free)
        wanted = [s for s in sorted(free) if beside is None or leg_of(s) != leg_of(beside)]
        lone = [s for s in wanted if s - 2 not in free and s + 2 not in free]
        if lone or wanted:
            return (lone or wanted)[0], ""
        return self.free_halves[0] if self.free_halves and beside is None else None


def occupied(panel: Panel, circuits: Sequence[Circuit]) -> Occupied:
    """Who stands where in a panel."""
    at: dict[int, list[Circuit]] = {}
    unplaced: list[Circuit] = []
    for circuit in circuits:
        if circuit.panel != panel.id:
            continue
        if circuit.space is None:
            unplaced.append(circuit)
        for space in spaces_of(circuit):
            at.setdefault(space, []).append(circuit)
    return Occupied(panel, at, unplaced)
