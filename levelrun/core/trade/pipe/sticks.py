"""Sticks: where a long pipe is joined, and which piece is cut from which stick.

The joints of one pipe: each piece reaches as far as a stick and the places for couplings let it; no split has fewer
pieces, since none can reach farther. The cutting of all pieces: the least number of sticks, proven by a lower bound
where best fit meets it, else by an integer programme that
scipy's milp solves.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.errors import LevelRunError

GAP = 1e-6
SECONDS = 1.5
MOST_SOLVED = 60  # pieces, beyond which best fit is told with its bound
MOST_PATTERNS = 20_000
MOST_TIDIED, NODES = 14, 200  # pieces, and nodes of the search, for a longer left over in as many sticks


@dataclass(frozen=True)
class Packed:
    """Pieces by stick, each by its number in the order given; what is left of each stick; whether no cutting takes
    fewer sticks; the least that any cutting takes."""

    sticks: tuple[tuple[int, ...], ...]
    left_in: tuple[float, ...]
    proven: bool
    bound: int


def joints(
    length_in: float, first_in: float, next_in: float, shut: Sequence[tuple[float, float]], least_in: float = 0.0
) -> list[float] | None:
    """Where a pipe is joined, inches from its start: the fewest joints.

    first_in, next_in: what the first and each next stick reach; shut: stretches in which no coupling may stand
    (bends, walls); least_in: the last piece is no shorter, where the joint before it can be moved for that. None
    where a stick is too short to get over such a stretch.
    """
    found: list[float] = []
    at, reach = 0.0, first_in
    while length_in - at > reach + GAP:
        spot = at + reach
        for low, high in sorted(shut, reverse=True):
            if low < spot < high:
                spot = low
        if spot <= at + GAP:
            return None
        found.append(spot)
        at, reach = spot, next_in
    if found and length_in - found[-1] < least_in:
        spot = length_in - least_in
        for low, high in sorted(shut, reverse=True):
            if low < spot < high:
                spot = low
        if spot > (found[-2] if len(found) > 1 else 0.0) + least_in:
            found[-1] = spot
    return found


@lru_cache(maxsize=512)
def packed(pieces_in: tuple[float, ...], stick_in: float) -> Packed:
    """Pieces cut from the least number of sticks; of equal ones that with the longest left over in one piece.

    Raises LevelRunError that names the piece which is longer than a stick.
    """
    for number, piece in enumerate(pieces_in):
        if piece > stick_in + GAP:
            raise LevelRunError(
                f"piece {number + 1} of {piece:g} in is longer than a stick of {stick_in:g} in; allowed: up to "
                f"{stick_in:g}: split it first",
                key=f"pieces_in.{number}", value=piece, allowed=[f"up to {stick_in:g}"],
            )  # fmt: skip
    if not pieces_in:
        return Packed((), (), True, 0)
    first = _first_fit(pieces_in, stick_in)
    bound = least_bound(pieces_in, stick_in)
    found, proven = first, len(first) == bound
    if not proven and len(pieces_in) <= MOST_SOLVED:
        found, proven = _solved(pieces_in, stick_in, first)
    elif proven and len(pieces_in) <= MOST_TIDIED and _longer_left(pieces_in, stick_in, first):
        found = _tidied(pieces_in, stick_in, len(first)) or first
    sticks = tuple(tuple(stick) for stick in found)
    left = tuple(stick_in - sum(pieces_in[i] for i in stick) for stick in sticks)
    return Packed(sticks, left, proven, len(sticks) if proven else bound)


def _first_fit(pieces: Sequence[float], stick_in: float) -> list[list[int]]:
    """Longest first, each where it leaves least: best fit decreasing."""
    sticks: list[list[int]] = []
    room: list[float] = []
    for index in sorted(range(len(pieces)), key=lambda i: -pieces[i]):
        open_to = [j for j in range(len(sticks)) if room[j] >= pieces[index] - GAP]
        best = min(open_to, key=lambda j: room[j], default=-1)
        if best < 0:
            sticks.append([index])
            room.append(stick_in - pieces[index])
        else:
            sticks[best].append(index)
            room[best] -= pieces[index]
    return sticks


def least_bound(pieces: Sequence[float], stick_in: float) -> int:
    """A number of sticks under which none will do: over all thresholds, what is longer than half and what is left of
    it (Martello and Toth 1990, bound L2)."""
    best = math.ceil(sum(pieces) / stick_in - GAP)
    for small in sorted({piece for piece in pieces if piece <= stick_in / 2} | {0.0}):
        large = [p for p in pieces if p > stick_in - small + GAP]
        half = [p for p in pieces if stick_in / 2 + GAP < p <= stick_in - small + GAP]
        rest = [p for p in pieces if small <= p <= stick_in / 2 + GAP]
        more = max(0, math.ceil((sum(rest) - (len(half) * stick_in - sum(half))) / stick_in - GAP))
        best = max(best, len(large) + len(half) + more)
    return best


def _longer_left(pieces: Sequence[float], stick_in: float, sticks: Sequence[Sequence[int]]) -> bool:
    """Whether another cutting into as many sticks may leave a longer piece: the longest left of these is under what
    is left in all."""
    left = [stick_in - sum(pieces[i] for i in stick) for stick in sticks]
    return len(sticks) > 1 and max(left) < sum(left) - 1.0 and max(left) < stick_in - min(pieces) - GAP


def _patterns(lengths: Sequence[float], counts: Sequence[int], stick_in: float) -> list[tuple[int, ...]] | None:
    """Every way to fill a stick to which no further piece can be added: how many of each length, longest first. None
    where there are too many."""
    found: list[tuple[int, ...]] = []
    taken = [0] * len(lengths)

    def fill(at: int, room: float) -> bool:
        if at == len(lengths):
            if all(taken[k] == counts[k] or lengths[k] > room + GAP for k in range(len(lengths))):
                found.append(tuple(taken))
            return len(found) <= MOST_PATTERNS
        most = min(counts[at], int((room + GAP) / lengths[at]))
        for many in range(most, -1, -1):
            taken[at] = many
            if not fill(at + 1, room - many * lengths[at]):
                return False
        taken[at] = 0
        return True

    return found if fill(0, stick_in) else None


def _solved(pieces: Sequence[float], stick_in: float, first: list[list[int]]) -> tuple[list[list[int]], bool]:
    """The integer programme: of all ways to fill a stick the fewest that cover every piece (Gilmore and Gomory 1961).
    The sticks, and whether they are proven the fewest."""
    import numpy as np  # both are slow to load, and few plans ask
    from scipy.optimize import Bounds, LinearConstraint, milp

    lengths = sorted(set(pieces), reverse=True)
    counts = [pieces.count(length) for length in lengths]
    patterns = _patterns(lengths, counts, stick_in)
    if patterns is None:
        return first, False
    answer = milp(
        np.ones(len(patterns)),
        integrality=np.ones(len(patterns)),
        bounds=Bounds(0, len(pieces)),
        constraints=LinearConstraint(np.array(patterns).T, counts, np.inf),
        options={"time_limit": SECONDS},
    )
    if answer.x is None:
        return first, False
    sure = answer.status == 0
    waiting = {length: [i for i, piece in enumerate(pieces) if piece == length] for length in lengths}
    sticks: list[list[int]] = []
    for pattern, times in zip(patterns, np.rint(answer.x).astype(int), strict=True):
        for _ in range(times):
            stick: list[int] = []
            for length, many in zip(lengths, pattern, strict=True):
                stick += [waiting[length].pop(0) for _ in range(min(many, len(waiting[length])))]
            sticks += [stick] if stick else []
    return (sticks if len(sticks) < len(first) else first), sure


def _tidied(pieces: Sequence[float], stick_in: float, count: int) -> list[list[int]] | None:
    """Pieces in so many sticks with the last as empty as a short search finds it (piece i from stick j)."""
    import numpy as np
    from scipy.optimize import Bounds, LinearConstraint, milp
    from scipy.sparse import coo_array

    order = sorted(range(len(pieces)), key=lambda i: -pieces[i])
    take = [
        (place, i, j)
        for place, i in enumerate(order)
        for j in range(count)
        if j <= place or j == count - 1  # equal sticks are told apart by their longest piece
    ]
    many, each = len(take), np.arange(len(take))
    once = coo_array((np.ones(many), ([place for place, _, _ in take], each)), shape=(len(order), many))
    full = coo_array(([pieces[i] for _, i, _ in take], ([j for _, _, j in take], each)), shape=(count, many))
    answer = milp(
        [pieces[i] if j == count - 1 else 0.0 for _, i, j in take],
        integrality=np.ones(many),
        bounds=Bounds(0, 1),
        constraints=[LinearConstraint(once, 1, 1), LinearConstraint(full, -np.inf, stick_in + GAP)],
        options={"node_limit": NODES},
    )
    if answer.x is None:
        return None
    sticks: list[list[int]] = [[] for _ in range(count)]
    for (_, i, j), value in zip(take, answer.x, strict=True):
        if value > 0.5:
            sticks[j].append(i)
    return [stick for stick in sticks if stick]
