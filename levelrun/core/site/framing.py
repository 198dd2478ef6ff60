"""Studs of a wall: layout from its end, kings and trimmers at openings, cripples over and under."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.job import Side

STUD_IN = 1.5
HEADER_IN = 7.25  # an opening's header over its head
NAIL_IN = 0.5  # how far beside a stud a box may be and still be nailed to it
DEPTHS: dict[str, float] = {
    "2x3": 2.5, "2x4": 3.5, "2x6": 5.5, "2x8": 7.25, "furring": 1.5, "metal": 3.625, "log": 8.0, "block": 8.0,
    "open": 0.0,
}  # fmt: skip
FINISHES: dict[str, float] = {
    "none": 0.0, "drywall": 0.5, "drywall 5/8": 0.625, "boards": 0.75, "tile": 0.75, "stone": 1.5,
}  # fmt: skip
BURNS = ("boards",)
STUDDED = ("2x3", "2x4", "2x6", "2x8", "furring", "metal")


def depth_of(side: Side) -> float:
    """Depth of the framing in inches: dressed sizes of American softwood lumber (PS 20)."""
    return DEPTHS[side.stud]


def finish_in(side: Side) -> float:
    """Thickness of the finish on this side, inches."""
    return FINISHES[side.finish]


@dataclass(frozen=True)
class Gap:
    """An opening as it cuts the framing, from the left corner and the floor, inches."""

    from_in: float
    to_in: float
    sill_in: float
    head_in: float


@dataclass(frozen=True)
class Stud:
    """A stud: its middle from the left corner; kind end, stud, king, trimmer or cripple; its foot and top."""

    at_in: float
    kind: str
    foot_in: float
    top_in: float

    @property
    def left_in(self) -> float:
        """Left face."""
        return self.at_in - STUD_IN / 2

    @property
    def right_in(self) -> float:
        """Right face."""
        return self.at_in + STUD_IN / 2


def studs(side: Side, length_in: float, height_in: float, origin_in: float, gaps: Sequence[Gap]) -> tuple[Stud, ...]:
    """Studs of a wall, left to right.

    `origin_in` is where the layout starts on this wall (may be negative where the framed wall begins before it).
    Studs stand with their middle on multiples of the spacing, one at each end.
    """
    if side.stud not in STUDDED:
        return ()
    half = STUD_IN / 2
    marks = [half, length_in - half]
    first = math.ceil((half - origin_in - side.first_stud_in) / side.spacing_in - 1e-9)
    mark = origin_in + side.first_stud_in + first * side.spacing_in
    while mark < length_in - half - 1e-9:
        if mark - half > STUD_IN and length_in - half - mark > STUD_IN:
            marks.append(mark)
        mark += side.spacing_in
    found: list[Stud] = []
    for at in sorted(marks):
        kind = "end" if at in (half, length_in - half) else "stud"
        found += _cut(Stud(at, kind, 0.0, height_in), gaps)
    for gap in gaps:
        found += [
            Stud(gap.from_in - STUD_IN - half, "king", 0.0, height_in),
            Stud(gap.from_in - half, "trimmer", 0.0, gap.head_in),
            Stud(gap.to_in + half, "trimmer", 0.0, gap.head_in),
            Stud(gap.to_in + STUD_IN + half, "king", 0.0, height_in),
        ]
    inside = [stud for stud in found if stud.left_in >= -0.01 and stud.right_in <= length_in + 0.01]
    return tuple(sorted(inside, key=lambda stud: (stud.at_in, stud.foot_in)))


def _cut(stud: Stud, gaps: Sequence[Gap]) -> list[Stud]:
    """A layout stud where openings let it stand: whole, as cripples, or not at all beside a king."""
    for gap in gaps:
        if gap.from_in < stud.right_in and stud.left_in < gap.to_in:
            under = [Stud(stud.at_in, "cripple", 0.0, gap.sill_in)] if gap.sill_in > 3 else []
            over = [Stud(stud.at_in, "cripple", gap.head_in + HEADER_IN, stud.top_in)]
            return under + [item for item in over if item.top_in - item.foot_in > 3]
        if gap.from_in - 2 * STUD_IN < stud.right_in and stud.left_in < gap.to_in + 2 * STUD_IN:
            return []
    return [stud]
