"""Pull boxes for No. 4 and larger (314.28), and what plastic pipe moves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction

from levelrun.core.codebook import Codebook


def trade_inches(size: str) -> float:
    """A trade size as a number: 1-1/4 -> 1.25."""
    return float(sum(Fraction(part) for part in size.split("-")))


@dataclass(frozen=True)
class PullBox:
    """Least inside length and width, inches."""

    length_in: float
    width_in: float
    rule: str
    note: str


def pull_box(book: Codebook, straight: Sequence[str], angle: Sequence[tuple[str, Sequence[str]]]) -> PullBox:
    """Least box. straight: trade sizes of straight pulls. angle: for each wall its largest raceway and the others.

    Straight: 8 times the largest. Angle and U: 6 times the largest of a wall plus the others of that wall, measured
    to the far wall; the first wall gives the length, the second the width.
    """
    eight, six = book.number("pull_box_straight"), book.number("pull_box_angle")
    along = max((eight * trade_inches(size) for size in straight), default=0.0)
    walls = []
    for size, others in angle:
        sizes = sorted((trade_inches(s) for s in (size, *others)), reverse=True)
        walls.append(six * sizes[0] + sum(sizes[1:]))
    length = max(along, walls[0] if walls else 0.0)
    width = walls[1] if len(walls) > 1 else walls[0] if walls else 0.0
    note = "" if walls else "a straight pull sets no width: room for the locknuts and bushings"
    return PullBox(length, width, "314.28(A)", note)


@dataclass(frozen=True)
class Expansion:
    """Movement in inches and whether a joint is wanted."""

    movement_in: float
    joint_needed: bool
    rule: str


def expansion(book: Codebook, length_ft: float, swing_f: float) -> Expansion:
    """How much a straight of plastic pipe moves over a swing in °F. Source: table 352.44, 3.38e-5 per °F."""
    moved = book.number("expansion_per_f") * length_ft * 12 * swing_f
    return Expansion(moved, moved >= book.number("expansion_joint_in") - 1e-9, "352.44")
