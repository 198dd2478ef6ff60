"""Pencil marks of a piece: where each is from the left end, which sign of the bender goes on it, which way it faces.

A hand bender has its arrow at the near end of the bend, a star at the back of a 90°, a notch in the rim at the middle
of a 45°. The arrow stands before the bend by what the take-up is more than radius and half the outside. Plastic is
heated from one mark to the next. Marks are told to the eighth; unrounded they stand beside.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.measure import show_inches
from levelrun.core.pipe.layout import Layout, Made, PipePiece, made_of
from levelrun.core.trade.pipe.make import shoe_of
from levelrun.core.trade.pipe.shapes import named
from levelrun.core.ways.facts import WayView

WAYS = {
    "outward": "out from the wall", "inward": "in to the wall", "leftward": "to the left",
    "rightward": "to the right",
    "upward": "up", "downward": "down", "onward": "on along the wall", "backward": "back along the wall",
    "up": "up", "down": "down", "over": "on", "left": "left", "right": "right", "back": "back",
}  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class Mark:
    """A pencil mark. at_in: from the left end of its piece, unrounded; to_in: where heat ends, else None; sign:
    arrow, star, rim or heat; faces: the end that the arrow looks to; roll_deg: from the bend before on this pipe,
    None for the first of the pull. text: which way and how it is rolled. assumed: not said, as usual."""

    at_in: float
    to_in: float | None
    at_text: str
    sign: str
    faces: str
    angle_deg: float
    kind: str
    leg: int
    shape: int | None
    roll_deg: float | None
    text: str
    assumed: bool


def eighth(inches: float) -> str:
    """Inches to the nearest eighth, as a pencil marks them."""
    return show_inches(round(inches * 8) / 8)


def marks_of(view: WayView, layout: Layout, piece: PipePiece) -> list[Mark]:
    """The marks of a piece from left to right."""
    return list(_marks(view, layout, piece))


def _marks(view: WayView, layout: Layout, piece: PipePiece) -> Iterator[Mark]:
    order = {id(made): index for index, made in enumerate(layout.bends)}
    last = 0.0
    for number, made in enumerate(piece.bends):
        at, to, sign, faces = _placed(view, piece, made, number)
        by_chart = between(view, layout, made)[1] if view.habits.piping.offsets == "chart" else None
        if by_chart is not None and sign == "arrow" and made.turn.kind != "saddle3":
            at = last + by_chart
        last = at
        before = layout.bends[order[id(made)] - 1] if order[id(made)] else None
        roll = made.bend.roll_deg if before is not None else None
        yield Mark(
            at_in=at, to_in=to, at_text=eighth(at), sign=sign, faces=faces, angle_deg=made.bend.angle_deg,
            kind=made.turn.kind, leg=made.turn.leg, shape=made.turn.shape, roll_deg=roll,
            text=_words(made, roll, before is not None and before not in piece.bends), assumed=made.turn.assumed,
        )  # fmt: skip


def _placed(view: WayView, piece: PipePiece, made: Made, number: int) -> tuple[float, float | None, str, str]:
    """Where the mark stands from the left end, and where heat ends; its sign; the end that it faces."""
    leg, bend = view.way.legs[made.turn.leg], made.bend
    begins, ends = piece.along(bend.begins_in), piece.along(bend.ends_in)
    shoe = shoe_of(view.book, leg.method, leg.size)
    if shoe is None:
        return begins, ends, "heat", ""
    outer = made_of(view, made.turn.leg).outer_in
    if made.turn.kind == "saddle3" and made.turn.part == 1:
        return piece.along(bend.middle_in), None, "rim", ""
    if bend.angle_deg > 80 and number:
        return begins + shoe.radius_in + outer / 2, None, "star", "right"
    return begins - shoe.lead_in(outer), None, "arrow", "left"


def _words(made: Made, roll: float | None, joined: bool) -> str:
    """Which way the bend goes, and how the pipe is rolled for it."""
    way = WAYS[made.turn.toward]
    if made.turn.kind not in ("corner", "bend") and made.turn.part:
        way = {"saddle3": ("", "over it", "flat again"), "saddle4": ("", "along it", "back down", "flat again")}.get(
            made.turn.kind, ("", "straight again")
        )[made.turn.part]
    turned = ""
    if roll is not None:
        turned = rolled(roll) + (", from the bend on the piece before" if joined else "")
    return ", ".join(word for word in (way, turned) if word)


def rolled(roll_deg: float) -> str:
    """How a pipe is rolled from the bend before, seen from its left end."""
    turn = round(roll_deg)
    if abs(turn) <= 1:
        return "same way as the bend before"
    if abs(turn) >= 179:
        return "rolled half round"
    side = "clockwise" if turn > 0 else "counter-clockwise"
    return f"rolled a quarter {side}" if abs(abs(turn) - 90) <= 1 else f"rolled {abs(turn)}° {side}"


def called(made: Made) -> str:
    """A bend as it is called: 90° up, box offset."""
    kind = made.turn.kind
    return f"{made.bend.angle_deg:.3g}°" if kind in ("corner", "bend") else named(kind).partition(" ")[2]


def between(view: WayView, layout: Layout, made: Made) -> tuple[float | None, float | None]:
    """How far a bend of an offset or saddle stands from that before it, inches: along the pipe by trigonometry, and
    by the multiplier of the bender's chart where it has the angle; from mark to mark, of a saddle of three bends from
    middle to middle. None for the first of each."""
    turn = made.turn
    at = layout.bends.index(made)
    before = layout.bends[at - 1] if turn.part and at else None
    if before is None or before.turn.kind != turn.kind or (turn.kind == "saddle4" and turn.part == 2):
        return None, None
    exact = made.bend.begins_in - before.bend.begins_in
    if turn.kind == "saddle3":
        exact = made.bend.middle_in - before.bend.middle_in
    angle = min(made.bend.angle_deg, before.bend.angle_deg)
    row = view.book.table("bend-multipliers").find(f"{angle:g}" if angle % 1 else f"{angle:.0f}")
    rise = _rise(layout, before.bend.corner, made.bend.corner)
    return exact, float(row["multiplier"]) * rise * math.sin(math.radians(angle)) if row else None


def _rise(layout: Layout, a: int, b: int) -> float:
    """From corner to corner of a centre line, inches."""
    return math.dist(layout.line.points[a], layout.line.points[b])
