"""The cuts by length, the stock that they come from, and the linear programme over the fillings of a coil."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from typing import Any

from levelrun.core.errors import LevelRunError
from levelrun.core.trade.coils.sets import Search
from levelrun.core.trade.coils.stock import (
    HAIR,
    PLACES,
    Coil,
    CoilPlan,
    Filled,
    Filling,
    Knapsack,
    Over,
    Stock,
    Told,
    quiet_solver,
    whole,
)

MOST_TURNS = 600  # of the linear programme


class Problem:
    """The cuts by length, the stock, and the fillings found so far."""

    def __init__(
        self, cuts: Sequence[float], coils: Sequence[Coil], foot: float | None, have: Sequence[float]
    ) -> None:
        whole = all(abs(x - round(x)) < HAIR for x in (*cuts, *have, *(c.length_ft for c in coils)))
        self.places = 1 if whole else PLACES
        units = [max(math.ceil(cut * self.places - HAIR), 1) for cut in cuts]
        many = Counter(units)
        self.lengths = sorted(many, reverse=True)
        self.needed = [many[length] for length in self.lengths]
        self.numbers: dict[int, list[int]] = {length: [] for length in self.lengths}
        for index, own in enumerate(units):
            self.numbers[own].append(index)
        self.cuts = cuts
        self.stock: list[Stock] = []
        for coil in sorted(set(coils)):
            self._add(coil.length_ft, coil.price, None)
        for length, count in sorted(Counter(have).items()):
            self._add(length, 0.0, count)
        if foot is not None:
            for unit in self.lengths:
                self.stock.append(Stock(unit, foot * unit / self.places, None, unit / self.places, foot=True))
        self.fillings: list[Filling] = []
        self.known: set[Filling] = set()

    def _add(self, length_ft: float, price: float, most: int | None) -> None:
        units = math.floor(length_ft * self.places + HAIR)
        if units >= self.lengths[-1]:
            self.stock.append(Stock(units, price, most, length_ft))

    def cost(self, index: int) -> float:
        """What a piece of a stock costs."""
        return self.stock[index].cost

    def take(self, filling: Filling) -> bool:
        """Adds a filling; whether it is new."""
        if filling in self.known:
            return False
        self.known.add(filling)
        self.fillings.append(filling)
        return True

    def start(self) -> None:
        """Fillings with which every cut can be made: one length alone; and as one would cut, longest first."""
        for index, item in enumerate(self.stock):
            for at, length in enumerate(self.lengths):
                if item.foot and item.units != length:
                    continue
                most = min(item.units // length, self.needed[at])
                if most:
                    self.take(Filling(index, tuple(most if k == at else 0 for k in range(len(self.lengths)))))
            if not item.foot:
                for filling in self._by_hand(index):
                    self.take(filling)

    def _by_hand(self, index: int) -> list[Filling]:
        left, found = list(self.needed), list[Filling]()
        room = self.stock[index].units
        while any(left) and len(found) < 200:
            counts, space = [0] * len(left), room
            for at, length in enumerate(self.lengths):
                counts[at] = min(left[at], space // length)
                space -= counts[at] * length
            if not any(counts):
                break
            left = [a - b for a, b in zip(left, counts, strict=True)]
            found.append(Filling(index, tuple(counts)))
        return found

    def plan(self, most_sets: int, over: Over, told: Told) -> CoilPlan:
        """Sets of coils by their price; where that is not settled, the linear programme for a bound and a plan."""
        told(0.05, "sets of coils")
        search = Search(self.lengths, self.needed, self.stock, self.step)
        search.run(most_sets, over, told)
        best, bound, fillings = search.best, search.bound, search.found
        if not search.proven:
            self.start()
            bound = max(bound, self._generated(over, told))
            if best - bound > self.step:
                told(0.8, "whole coils")
                cost, counts = self._whole()
                if cost < best - HAIR:
                    best = cost
                    fillings = [f for f, n in zip(self.fillings, counts, strict=True) for _ in range(n)]
        if not math.isfinite(best):
            fillings = self._alone()
            held = sum(sum(filling.counts) for filling in fillings)
            if held < sum(self.needed):
                raise LevelRunError(
                    f"coils: {sum(self.needed) - held} of {sum(self.needed)} cuts fit in nothing had or sold",
                    key="coils", allowed=["a coil that holds each cut, or a price by the foot"],
                )  # fmt: skip
        told(1.0, "done")
        return self._told(fillings, bound, best - bound <= self.step)

    def _alone(self) -> list[Filling]:
        """Where nothing was found in time: each cut in the cheapest coil that holds it."""
        found: list[Filling] = []
        for at, length in enumerate(self.lengths):
            fits = [i for i, s in enumerate(self.stock) if s.most is None and s.units >= length]
            best = min(fits, key=self.cost, default=-1)
            own = tuple(int(k == at) for k in range(len(self.lengths)))
            found += [Filling(best, own)] * self.needed[at] if best >= 0 else []
        return found

    @property
    def step(self) -> float:
        """Prices are in cents: two plans differ by the greatest cent that divides every price, or not at all."""
        cents = [round(item.cost * 100) for item in self.stock]
        exact = all(abs(item.cost * 100 - cent) < 1e-6 for item, cent in zip(self.stock, cents, strict=True))
        least = math.gcd(*cents) / 100 if exact and any(cents) else 0.0
        return max(least - 0.003, 1e-6)

    def _programme(self) -> Any:
        """The programme: every length as often as it is needed, stock that there is little of no oftener; a column a
        filling found so far."""
        import highspy  # slow to load, and few plans ask

        solver = quiet_solver()
        for need in self.needed:
            solver.addRow(need, highspy.kHighsInf, 0, [], [])
        for item in self.stock:
            if item.most is not None:
                solver.addRow(-highspy.kHighsInf, item.most, 0, [], [])
        for filling in self.fillings:
            self._column(solver, filling)
        return solver

    def _column(self, solver: Any, filling: Filling) -> None:
        limited = [i for i, item in enumerate(self.stock) if item.most is not None]
        at = [k for k, count in enumerate(filling.counts) if count]
        values = [float(filling.counts[k]) for k in at]
        if filling.stock in limited:
            at.append(len(self.lengths) + limited.index(filling.stock))
            values.append(1.0)
        solver.addCol(self.cost(filling.stock), 0.0, float(max(self.needed)), len(at), at, values)

    def _generated(self, over: Over, told: Told) -> float:
        """The linear programme over all fillings, which are found as they are wanted: its bound."""
        master, rows = self._programme(), len(self.lengths)
        bound = 0.0
        for turn in range(MOST_TURNS):
            master.run()
            duals = [max(value, 0.0) for value in master.getSolution().row_dual[:rows]]
            own, fresh = self._priced(duals)
            bound = max(bound, own)
            gap = master.getInfo().objective_function_value - bound
            fresh = [filling for filling in fresh if self.take(filling)]
            if not fresh or over() or gap < 1e-6:
                break
            for filling in fresh:
                self._column(master, filling)
            if turn % 10 == 0:
                told(min(0.5 + turn / 800, 0.75), "fillings")
        return bound

    def _priced(self, worth: Sequence[float]) -> tuple[float, list[Filling]]:
        """A bound from what cuts are worth, made safe (Farley 1990), and each stock's best filling where it is worth
        more than it costs."""
        table = Knapsack(self.lengths, self.needed, worth, max(item.units for item in self.stock))
        safe, fresh, free = 1.0, [], 0.0
        for index, item in enumerate(self.stock):
            value = table.best(item.units) if not item.foot else worth[self.lengths.index(item.units)]
            cost = self.cost(index)
            if item.most is not None:
                free += item.most * value
            elif value > cost:
                safe = min(safe, cost / value)
            if value > cost + 1e-9 and not item.foot:
                filling = Filling(index, table.filling(item.units))
                if filling not in self.known:
                    fresh.append(filling)
        total = sum(w * n for w, n in zip(worth, self.needed, strict=True))
        return max(safe * (total - free), 0.0), fresh

    def _whole(self) -> tuple[float, list[int]]:
        """The best plan of whole coils of the fillings found: its cost, how often each is taken; infinite where none
        was found in time."""
        solver = self._programme()
        whole(solver, len(self.fillings))
        solver.run()
        counts = [round(value) for value in solver.getSolution().col_value]
        covered = [
            sum(f.counts[k] * n for f, n in zip(self.fillings, counts, strict=False)) for k in range(len(self.needed))
        ]
        if len(counts) != len(self.fillings) or any(c < n for c, n in zip(covered, self.needed, strict=True)):
            return math.inf, []
        return sum(self.cost(f.stock) * n for f, n in zip(self.fillings, counts, strict=True)), counts

    def _told(self, fillings: Sequence[Filling], bound: float, proven: bool) -> CoilPlan:
        """The plan with the numbers of its cuts; a cut that is covered twice is cut once."""
        waiting = {length: list(own) for length, own in self.numbers.items()}
        coils: list[Filled] = []
        by_foot: list[int] = []
        for filling in sorted(fillings, key=lambda item: self.stock[item.stock].most is None):
            own: list[int] = []
            for length, many in zip(self.lengths, filling.counts, strict=True):
                own += [waiting[length].pop(0) for _ in range(min(many, len(waiting[length])))]
            if own and self.stock[filling.stock].foot:
                by_foot += own
            elif own:
                coils.append(self._filled(self.stock[filling.stock], own))
        cost = sum(coil.price for coil in coils)
        foot = next((item.cost / item.length_ft for item in self.stock if item.foot), 0.0)
        cost = round(cost + sum(foot * self.cuts[i] for i in by_foot), 4)
        coils.sort(key=lambda coil: (not coil.have, -coil.length_ft, -sum(self.cuts[i] for i in coil.cuts)))
        low = cost if proven else max(min(bound, cost), 0.0)
        return CoilPlan(coils=tuple(coils), by_foot=tuple(sorted(by_foot)), cost=cost, proven=proven, bound=low)

    def _filled(self, stock: Stock, cuts: list[int]) -> Filled:
        order = tuple(sorted(cuts, key=lambda i: (-self.cuts[i], i)))
        left = stock.length_ft - sum(self.cuts[i] for i in order)
        return Filled(stock.length_ft, stock.cost, order, left, stock.most is not None)
