"""Where to put pull points: the fewest that make every pull one that its limits allow, and of these the best placed.

Each place between two legs that stays reachable may hold one. Pulls are weighed from one to the next, shortest chain
first; of chains with as few points that with the least hardest pull is taken (dynamic programming over the places).
"""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.trade.pipe.bends import bends
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.forces import force_of
from levelrun.core.ways.line import degrees_in


@dataclass(frozen=True)
class Points:
    """Pull points at the ends of these legs, and the hardest pull that is left, pounds (0 where no wire is known)."""

    legs: tuple[int, ...]
    hardest_lb: float


def bent_deg(view: WayView, first: int, last: int) -> float:
    """All bends of legs first to last, degrees; the corner into the first is before it."""
    total = sum(view.placed[i].bend_deg for i in range(first + 1, last + 1))
    return total + sum(sum(degrees_in(view, index)) for index in range(first, last + 1))


def places(view: WayView, first: int, last: int) -> list[int]:
    """Legs at whose end a pull point may be put: where nothing stands yet that is one, and not under ground."""
    legs = view.way.legs
    return [
        i
        for i in range(first, last)
        if not any(is_buried(view.facts[j]) and not view.placed[j].vertical for j in (i, i + 1))
        and legs[i].end.kind in ("none", "coupling")
    ]


def pull_points(view: WayView, first: int, last: int, limit_lb: float) -> Points | None:
    """The fewest pull points that leave no pull over `limit_lb` at its easier end, over the side-wall limit, or bent
    too far. None where no points do that."""
    wall = view.book.number("sidewall_lb_per_ft")

    def weighed(a: int, b: int) -> float | None:
        if not bends(view.book, [bent_deg(view, a, b)]).ok:
            return None
        force = force_of(view, a, b)
        if force is None:
            return 0.0
        curve = force.start if force.easier == "start" else force.end
        fine = curve.lb <= min(limit_lb, force.limit_lb) + 1e-9 and curve.sidewall_lb_per_ft <= wall + 1e-9
        return curve.lb if fine else None

    ends = [*places(view, first, last), last]
    best: dict[int, tuple[int, float, tuple[int, ...]]] = {first - 1: (0, 0.0, ())}
    for end in ends:
        options: list[tuple[int, float, tuple[int, ...]]] = []
        for start, (count, hardest, legs) in best.items():
            own = weighed(start + 1, end)
            if own is not None:
                options.append((count + 1, max(hardest, own), (*legs, end)))
        if options:
            best[end] = min(options)
    if last not in best:
        return None
    _, hardest, legs = best[last]
    return Points(legs[:-1], hardest)
