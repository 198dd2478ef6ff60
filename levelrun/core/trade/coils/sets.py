"""Sets of coils in the order of what they cost: the first that holds every cut is the cheapest."""

from __future__ import annotations

import heapq
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import count

from levelrun.core.trade.coils.stock import HAIR, Filling, Knapsack, Over, Stock, Told, quiet_solver, whole

MOST_EXACT = 60  # cuts up to which each set is settled exactly
MOST_OPENED = 20_000  # sets that are not whole yet
LONGEST_TABLE = 60_000  # feet still lacking, up to which the least that they can cost is a table
STEP = 1000  # by so many feet a table grows, so that one foot more does not make a new one


@dataclass(frozen=True, order=True)
class _Set:
    """Coils taken, by number of each; what no way to go on costs less than. closed: no more are taken; settled: its
    cost is exact."""

    bound: float
    units: int
    turn: int
    counts: tuple[int, ...]
    last: int
    money: float
    closed: bool = False
    settled: bool = False


@lru_cache(maxsize=64)
def _table(coils: tuple[tuple[int, float], ...], foot: float | None, longest: int) -> Sequence[float]:
    """The least money that so many units more can cost, filled or not, from none to `longest`; `coils`: the units and
    the cost of each that is sold, `foot`: a unit's cost by the foot."""
    table = [0.0]
    for lacking in range(1, longest + 1):
        least = math.inf if foot is None else foot * lacking
        for units, cost in coils:
            least = min(least, cost + table[lacking - units if lacking > units else 0])
        table.append(least)
    return table


class Search:
    """Goes through the sets of coils, with what is had already in each of them. best: the cheapest plan so far and
    `found` its fillings; bound: no plan costs less."""

    def __init__(self, lengths: Sequence[int], needed: Sequence[int], stock: Sequence[Stock], step: float) -> None:
        self.lengths, self.needed, self.stock, self.step = lengths, needed, stock, step
        self.total = sum(length * many for length, many in zip(lengths, needed, strict=True))
        self.sold = [i for i, item in enumerate(stock) if item.most is None and not item.foot]
        self.had = [i for i, item in enumerate(stock) for _ in range(item.most or 0)]
        self.foot = next((item.cost / item.units for item in stock if item.foot), None)
        self.best, self.bound, self.proven = math.inf, 0.0, False
        self.found: list[Filling] = []
        coils = tuple((stock[i].units, stock[i].cost) for i in self.sold)
        self._least = _table(coils, self.foot, min(math.ceil(self.total / STEP) * STEP, LONGEST_TABLE))
        self._sums = _sums(lengths, needed)

    def least(self, lacking: int) -> float:
        """The least money for so many units more."""
        if lacking < len(self._least):
            return self._least[max(lacking, 0)]
        rates = [self.stock[i].cost / self.stock[i].units for i in self.sold]
        rates += [self.foot] if self.foot is not None else []
        return self._least[-1] + min(rates, default=math.inf) * (lacking - len(self._least) + 1)

    def run(self, most_sets: int, over: Over, told: Told) -> None:
        """Until the cheapest is found, so many sets are gone through, or the time is over."""
        turns, unsettled, gone, opened = count(), math.inf, 0, 0
        held = sum(self.stock[i].units for i in self.had)
        none = (0,) * len(self.sold)
        heap = [_Set(self.least(self.total - held), held, next(turns), none, 0, 0.0)]
        while heap and gone < most_sets and opened < MOST_OPENED and not over():
            taken = heapq.heappop(heap)
            if taken.bound >= self.best - self.step or taken.settled:
                unsettled = min(unsettled, taken.bound)
                heap.clear()
                break
            if not taken.closed:
                opened += 1
                for child in self._next(taken, turns):
                    if child.bound < self.best - self.step:
                        heapq.heappush(heap, child)
                continue
            gone += 1
            told(min(0.05 + gone / most_sets, 0.5), f"{gone} sets of coils")
            placed, exact = self._packed(taken)
            cost = self._cost(taken, placed)
            if cost <= taken.bound + HAIR:
                unsettled = min(unsettled, taken.bound)
                heap.clear()
                break
            if not exact:
                unsettled = min(unsettled, taken.bound)
            elif math.isfinite(cost):
                heapq.heappush(heap, _closed(taken, cost, next(turns), True))
        self.bound = min(unsettled, heap[0].bound if heap else math.inf, self.best)
        self.proven = math.isfinite(self.best) and self.best - self.bound <= self.step

    def _next(self, taken: _Set, turns: Iterator[int]) -> Iterator[_Set]:
        lacking = self.total - taken.units
        if lacking <= 0 or self.foot is not None:
            yield _closed(taken, taken.money + (self.foot or 0.0) * self._by_cuts(lacking), next(turns), False)
        for at in range(taken.last, len(self.sold)):
            item = self.stock[self.sold[at]]
            counts = tuple(n + (k == at) for k, n in enumerate(taken.counts))
            money = taken.money + item.cost
            bound = money + self.least(lacking - item.units)
            yield _Set(bound, taken.units + item.units, next(turns), counts, at, money)

    def _by_cuts(self, lacking: int) -> int:
        """What is bought by the foot where so many units at least are not in coils: whole cuts, so the least sum of
        some cuts that is no less."""
        if lacking <= 0:
            return 0
        above = self._sums >> lacking
        return lacking + ((above & -above).bit_length() - 1)

    def _cost(self, taken: _Set, placed: int) -> float:
        rest = self.total - placed
        return taken.money + (rest * self.foot if self.foot is not None else math.inf if rest else 0.0)

    def _packed(self, taken: _Set) -> tuple[int, bool]:
        """The most units of cuts that the coils of a set hold, and whether no filling holds more."""
        coils = self.had + [self.sold[k] for k, n in enumerate(taken.counts) for _ in range(n)]
        most = self.total - self._by_cuts(self.total - taken.units)
        placed = 0
        for order in (sorted(coils, key=self._units), sorted(coils, key=self._units, reverse=True)):
            for fill in (self._fullest, self._longest_first):
                fillings = fill(order)
                own = sum(self._held(f) for f in fillings)
                self._keep(taken, own, fillings)
                if own == most:
                    return own, True
                placed = max(placed, own)
        if sum(self.needed) > MOST_EXACT:
            return placed, False
        solved = self._solved(coils)
        if solved is None:
            return placed, False
        fillings, sure = solved
        own = sum(self._held(f) for f in fillings)
        self._keep(taken, own, fillings)
        return max(own, placed), sure

    def _units(self, index: int) -> int:
        return self.stock[index].units

    def _held(self, filling: Filling) -> int:
        return sum(n * length for n, length in zip(filling.counts, self.lengths, strict=True))

    def _keep(self, taken: _Set, placed: int, fillings: Sequence[Filling]) -> None:
        cost = self._cost(taken, placed)
        if cost < self.best - HAIR:
            self.best, self.found = cost, [*fillings, *self._by_foot(fillings)]

    def _by_foot(self, fillings: Sequence[Filling]) -> Iterator[Filling]:
        """What is in no coil, each cut from the shop's reel."""
        for at, need in enumerate(self.needed):
            own = next((i for i, s in enumerate(self.stock) if s.foot and s.units == self.lengths[at]), -1)
            for _ in range(need - sum(f.counts[at] for f in fillings)):
                yield Filling(own, tuple(int(k == at) for k in range(len(self.lengths))))

    def _fullest(self, coils: Sequence[int]) -> list[Filling]:
        """Coil by coil, each as full as the cuts that are left can fill it."""
        left, found = list(self.needed), []
        for index in coils:
            room = self.stock[index].units
            counts = Knapsack(self.lengths, left, self.lengths, room).filling(room)
            left = [a - b for a, b in zip(left, counts, strict=True)]
            found.append(Filling(index, counts))
        return found

    def _longest_first(self, coils: Sequence[int]) -> list[Filling]:
        """Longest first, each where it leaves least."""
        room = [self.stock[index].units for index in coils]
        counts = [[0] * len(self.lengths) for _ in coils]
        for at, length in enumerate(self.lengths):
            for _ in range(self.needed[at]):
                open_to = [j for j, space in enumerate(room) if space >= length]
                if not open_to:
                    break
                best = min(open_to, key=room.__getitem__)
                room[best] -= length
                counts[best][at] += 1
        return [Filling(index, tuple(own)) for index, own in zip(coils, counts, strict=True)]

    def _solved(self, coils: Sequence[int]) -> tuple[list[Filling], bool] | None:
        """The most that these coils hold, as an integer programme: how many of each length from each coil."""
        import highspy  # slow to load, and few plans ask

        solver = quiet_solver()
        for need in self.needed:
            solver.addRow(0, need, 0, [], [])
        for index in coils:
            solver.addRow(0, self.stock[index].units, 0, [], [])
        for at, length in enumerate(self.lengths):
            for j, index in enumerate(coils):
                most = min(self.needed[at], self.stock[index].units // length)
                rows = [at, len(self.needed) + j]
                solver.addCol(-float(length), 0.0, float(most), 2, rows, [1.0, float(length)])
        whole(solver, len(self.lengths) * len(coils))
        solver.run()
        values = [round(value) for value in solver.getSolution().col_value]
        if len(values) != len(self.lengths) * len(coils):
            return None
        many = len(coils)
        fillings = [Filling(index, tuple(values[j::many])) for j, index in enumerate(coils)]
        return fillings, solver.getModelStatus() == highspy.HighsModelStatus.kOptimal


def _sums(lengths: Sequence[int], needed: Sequence[int]) -> int:
    """Every sum that some of the cuts have, as the bits of a number."""
    sums = 1
    for length, many in zip(lengths, needed, strict=True):
        lump = 1
        while many > 0:
            taken = min(lump, many)
            sums |= sums << (length * taken)
            many, lump = many - taken, lump * 2
    return sums


def _closed(taken: _Set, bound: float, turn: int, settled: bool) -> _Set:
    return _Set(bound, taken.units, turn, taken.counts, taken.last, taken.money, True, settled)
