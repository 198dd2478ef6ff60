"""Hidden faults to find with the fewest readings: which may be hidden, what each reading tells, and the best possible
score: the number of readings by which the faults are told apart in the worst case, found by searching all orders."""

from __future__ import annotations

import random
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache

from levelrun.core.job import Box, Circuit, Job
from levelrun.core.testing.faults import Fault, faults_of
from levelrun.core.testing.probing import probes_of
from levelrun.core.testing.reading import Probe, read
from levelrun.core.testing.where import grouped
from levelrun.core.testing.wired import Wired

MOST_FAULTS, MOST_PROBES = 12, 40
UNSAFE = {
    "touch": "You touched a wire that was not proved dead. People die of it: prove the tester, test, prove it again.",
    "generator": "You closed the generator's breaker with the main on. It feeds the street, where somebody works on "
    "a wire that should be dead. The interlock first, always.",
    "replace": "You swapped the breaker for a larger one. The wire is what it was, and now nothing guards it.",
}
ACTS = {
    "touch": "Take the device out with bare hands",
    "generator": "Close the generator's breaker now",
    "replace": "Put in a larger breaker",
}


@dataclass(frozen=True)
class Puzzle:
    """A circuit with faults of which one is hidden: the faults, the probes, which group each probe puts each fault
    in, and the readings that are needed at the best."""

    wired: Wired
    faults: tuple[Fault, ...]
    probes: tuple[Probe, ...]
    groups: tuple[tuple[int, ...], ...]
    best: int

    def same(self, a: Fault, b: Fault) -> bool:
        """Whether no reading tells two faults apart."""
        i, j = self.faults.index(a), self.faults.index(b)
        return all(row[i] == row[j] for row in self.groups)


def puzzle(job: Job, circuit: Circuit, wired: Wired, boxes: Mapping[str, Box], seed: int) -> Puzzle:
    """A puzzle on a circuit: one fault of each kind first, then more, in an order that `seed` says."""
    faults = _chosen(faults_of(job, circuit, wired), random.Random(seed))
    probes = probes_of(wired, circuit, boxes)[:400]
    rows = [tuple(grouped([read(wired, probe, fault) for fault in faults], probe.kind)) for probe in probes]
    useful = sorted(range(len(probes)), key=lambda n: -len(set(rows[n])))
    kept, seen = list[int](), set[tuple[int, ...]]()
    for n in useful:
        if len(set(rows[n])) > 1 and rows[n] not in seen and len(kept) < MOST_PROBES:
            kept.append(n)
            seen.add(rows[n])
    groups = tuple(rows[n] for n in kept)
    return Puzzle(wired, tuple(faults), tuple(probes[n] for n in kept), groups, best_possible(groups, len(faults)))


def _chosen(faults: Sequence[Fault], dice: random.Random) -> list[Fault]:
    by_kind: dict[str, list[Fault]] = {}
    for fault in faults:
        by_kind.setdefault(fault.kind, []).append(fault)
    kinds = sorted(by_kind)
    dice.shuffle(kinds)
    found = [dice.choice(by_kind[kind]) for kind in kinds]
    rest = [fault for fault in faults if fault not in found]
    dice.shuffle(rest)
    return (found + rest)[:MOST_FAULTS]


def best_possible(groups: Sequence[Sequence[int]], count: int) -> int:
    """The readings that tell `count` faults apart in the worst case, by the best order of readings. `groups`: for
    each probe the group of each fault. Faults that nothing tells apart count as one. Every order is searched: a set
    of faults is looked at once, and left where it cannot beat what is known."""
    rows = tuple(tuple(row) for row in groups)

    @cache
    def parts(left: int, row: int) -> tuple[int, ...]:
        found: dict[int, int] = {}
        for n in range(count):
            if left >> n & 1:
                found[rows[row][n]] = found.get(rows[row][n], 0) | 1 << n
        return tuple(found.values())

    @cache
    def depth(left: int) -> int:
        best = -1
        for row in range(len(rows)):
            split = parts(left, row)
            if len(split) < 2:
                continue
            worst = 1 + max(depth(part) for part in split)
            if best < 0 or worst < best:
                best = worst
                if best == 1:
                    break
        return max(best, 0)

    return depth((1 << count) - 1) if count else 0
