"""The fewest points that leave no stretch of a line out of reach: exact, by dynamic programming."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class Spot:
    """A place where a box may stand. `cost` breaks ties between plans of as many boxes; `fixed`: stands already."""

    at_in: float
    cost: float = 0.0
    fixed: bool = False


def fewest(length_in: float, reach_in: float, spots: Sequence[Spot]) -> list[Spot] | None:
    """Spots so that every point of 0 to `length_in` lies within `reach_in` of one: fewest new ones, then cheapest.

    All fixed spots are kept and cost nothing. None where the spots cannot reach everything. Optimal: the best plan
    that ends at a spot depends only on that spot.
    """
    ordered = sorted(spots, key=lambda spot: spot.at_in)
    best: list[tuple[tuple[int, float], int] | None] = []
    for index, spot in enumerate(ordered):
        own = (0, 0.0) if spot.fixed else (1, spot.cost)
        choices: list[tuple[tuple[int, float], int]] = []
        blocked = False
        for before in range(index - 1, -1, -1):
            found, gap = best[before], spot.at_in - ordered[before].at_in
            if gap > 2 * reach_in + 1e-9:
                break  # farther still from those before, and from the start of the line
            if found is not None:
                choices.append(((found[0][0] + own[0], found[0][1] + own[1] + _uneven(gap, reach_in)), before))
            if ordered[before].fixed:
                blocked = True
                break
        if not blocked and spot.at_in <= reach_in + 1e-9:
            choices.append(((own[0], own[1] + _uneven(2 * spot.at_in, reach_in)), -1))
        best.append(min(choices) if choices else None)
    ends: list[tuple[tuple[int, float], int]] = []
    for index in range(len(ordered) - 1, -1, -1):
        found = best[index]
        if found is not None and length_in - ordered[index].at_in <= reach_in + 1e-9:
            last = _uneven(2 * (length_in - ordered[index].at_in), reach_in)
            ends.append(((found[0][0], found[0][1] + last), index))
        if ordered[index].fixed:
            break
    if not ends:
        return None
    taken, at = [], min(ends)[1]
    while at >= 0:
        taken.append(ordered[at])
        step = best[at]
        at = step[1] if step is not None else -1
    return taken[::-1]


def _uneven(gap: float, reach: float) -> float:
    """Squares of the gaps add up to least where the gaps are even: it breaks ties, never counts against a stud."""
    return 0.05 * (gap / (2 * reach)) ** 2


def out_of_reach(length_in: float, reach_in: float, at: Sequence[float]) -> list[tuple[float, float]]:
    """Stretches of 0 to `length_in` farther than `reach_in` from every point, left to right."""
    found: list[tuple[float, float]] = []
    edge = 0.0
    for point in sorted(at):
        if point - reach_in > edge + 1e-6:
            found.append((edge, point - reach_in))
        edge = max(edge, point + reach_in)
    if edge < length_in - 1e-6:
        found.append((edge, length_in))
    return found
