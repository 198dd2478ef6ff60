"""The strip: a way unrolled, length across, height up, places as bands, with what stands along it."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True, kw_only=True)
class Band:
    """One place along the tape, x0 to x1 in inches (equal where the way only climbs there).

    `foot_in` is the ground at the foot of an outside wall, where it is known.
    """

    x0: float
    x1: float
    place: str
    look: str
    title: str
    subtitle: str
    legs: list[int]
    structure: str
    foot_in: float | None


@dataclass(frozen=True, kw_only=True)
class StripLeg:
    """A leg as drawn, inches; `look` is cable or pipe, `wall` thin, medium, thick or flex, `jacket` a gauge."""

    index: int
    x0: float
    y0: float
    x1: float
    y1: float
    look: str
    wall: str
    jacket: str
    verdict: str


@dataclass(frozen=True, kw_only=True)
class Mark:
    """A point on the strip: kind panel, box, equipment, disconnect, lb, body, coupling, open,
    staple, strap, hole, bend, fold, expansion. `label` may be empty; `leg` is where it belongs. Of a panel `y` is its
    lower edge and `tall_in` how far it stands up from there."""

    x: float
    y: float
    kind: str
    label: str
    leg: int
    vertical: bool
    tall_in: float = 0.0


@dataclass(frozen=True, kw_only=True)
class Depth:
    """Cover of a level leg in the earth: grade and needed line, inches; needed None where none is asked."""

    leg: int
    x0: float
    x1: float
    grade_y: float
    pipe_y: float
    taped_in: float | None
    needed_in: float | None
    text: str
    short_text: str
    taped_text: str
    needed_text: str


@dataclass(frozen=True)
class Floor:
    """A line that is known, inches: kind floor, ceiling, ground (crawl floor), soil (earth below) or grade."""

    x0: float
    x1: float
    y: float
    kind: str
    label: str


@dataclass(frozen=True)
class PullSpan:
    """A pull along the tape."""

    index: int
    x0: float
    x1: float
    text: str
    over: bool


@dataclass(frozen=True)
class Point:
    """A corner of the way seen from above, inches."""

    x: float
    y: float


@dataclass(frozen=True)
class UnsaidClimb:
    """Where a way comes to a leg, or leaves it, by a climb that nobody walked, inches; `text` how far."""

    leg: int
    x: float
    y0: float
    y1: float
    text: str


@dataclass(frozen=True)
class Strip:
    """The whole strip. x from 0; y up from the main floor at the start; `plan` is the way from above."""

    length_in: float
    low_in: float
    high_in: float
    bands: list[Band]
    legs: list[StripLeg]
    marks: list[Mark]
    depths: list[Depth]
    floors: list[Floor]
    pulls: list[PullSpan]
    plan: list[Point]
    unsaid: list[UnsaidClimb]
