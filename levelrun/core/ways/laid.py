"""Legs of a way that lie in a trench or on a span: which, in which direction, and how deep they were read."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.job import Job, Reading, Span, Trench, Way
from levelrun.core.site.stands_in import buildings_of

Profile = list[tuple[float, float]]


def laid_legs(way: Way, ident: str) -> list[int]:
    """The legs of a way that lie in a trench or span."""
    return [index for index, leg in enumerate(way.legs) if leg.along == ident]


def runs_back(job: Job, line: Trench | Span, way: Way) -> bool:
    """Whether a way goes through a line from its end to its start, by the buildings before and after it."""
    own = laid_legs(way, line.id)
    if not own or line.start == line.end:
        return False
    where = buildings_of(job)
    before = next((leg.end.node for leg in reversed(way.legs[: own[0]]) if leg.end.node), way.start)
    after = next((leg.end.node for leg in way.legs[own[-1] :] if leg.end.node), None)
    return where.get(before) == line.end or (after is not None and where.get(after) == line.start)


def readings_of(trench: Trench, way: str) -> list[Reading]:
    """What was read of a way, in order along the trench: its own readings, else those of whatever lies there."""
    own = [item for item in trench.readings if item.way == way]
    return sorted(own or [r for r in trench.readings if r.way is None], key=lambda item: item.at_in)


@dataclass(frozen=True)
class LaidIn:
    """A row of legs of a way in a trench, first to last; `back`: they go from its end to its start."""

    trench: Trench
    first: int
    last: int
    back: bool


def laid_in(job: Job, way: Way) -> tuple[LaidIn, ...]:
    """The trenches that a way lies in."""
    if not any(leg.along for leg in way.legs):
        return ()
    rows = ((trench, laid_legs(way, trench.id)) for trench in job.trenches)
    return tuple(LaidIn(trench, own[0], own[-1], runs_back(job, trench, way)) for trench, own in rows if own)


def cover_along(way: Way, laid: LaidIn) -> Profile:
    """Cover over a way along its own legs in a trench, from where it comes in: straight between what was read, level
    beyond; else as its legs have it. Empty where it is not known."""
    numbers = range(laid.first, laid.last + 1)
    long = sum(way.legs[index].length_in for index in numbers)
    read = [(item.at_in, item.depth_in) for item in readings_of(laid.trench, way.id)]
    if read:
        turned = [(long - at, depth) for at, depth in reversed(read)] if laid.back else read
        return [(0.0, turned[0][1]), *turned, (max(long, turned[-1][0]), turned[-1][1])]
    found, at = Profile(), 0.0
    for index in numbers:
        leg = way.legs[index]
        if leg.depth_in is None:
            return []
        found += [(at, leg.depth_in), (at + leg.length_in, leg.depth_in)]
        at += leg.length_in
    return found


def between(profile: Sequence[tuple[float, float]], at: float) -> float:
    """A value along a profile, straight between what is known, level beyond its ends."""
    if at <= profile[0][0]:
        return profile[0][1]
    for (x0, y0), (x1, y1) in itertools.pairwise(profile):
        if at <= x1:
            return y0 + (y1 - y0) * (at - x0) / (x1 - x0) if x1 > x0 else y1
    return profile[-1][1]


def short_stretches(
    profile: Profile, first: float, last: float, needed: float
) -> list[tuple[float, float, float]]:  # fmt: skip
    """Between two places: from where to where a profile stays under what is needed, and by how much at the most."""
    cuts = sorted({first, last, *(at for at, _ in profile if first < at < last)})
    found: list[tuple[float, float, float]] = []
    for a, b in itertools.pairwise(cuts):
        if b - a < 1e-6:
            continue
        inside = 1e-7 * (b - a)
        one, two = needed - between(profile, a + inside), needed - between(profile, b - inside)
        if max(one, two) <= 1e-6:
            continue
        crosses = a + (b - a) * one / (one - two) if one * two < 0 else None
        start = (a if crosses is None else crosses) if one <= 1e-6 else a
        end = (b if crosses is None else crosses) if two <= 1e-6 else b
        found.append((start, end, max(one, two)))
    return found


def short_of(profile: Profile, first: float, last: float, needed: float) -> tuple[float, float]:
    """Between two places: how far a profile stays under what is needed at the most, and over how many inches."""
    found = short_stretches(profile, first, last, needed)
    return max((most for _, _, most in found), default=0.0), sum(b - a for a, b, _ in found)
