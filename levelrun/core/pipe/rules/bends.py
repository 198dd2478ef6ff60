"""Rules about bends as they are made: known, fitting in their legs, apart, joined where they can be."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Leg
from levelrun.core.measure import show, show_inches
from levelrun.core.pipe.codes import finding
from levelrun.core.pipe.facts import PipeView
from levelrun.core.pipe.layout import HAIR_IN
from levelrun.core.pipe.marks import called
from levelrun.core.rulebook import Rule
from levelrun.core.trade.pipe.make import least_radius_in, shoe_of
from levelrun.core.trade.pipe.shapes import grouped, named
from levelrun.core.ways.line import check_leg
from levelrun.core.ways.mends import set_leg

RISES_IN = {"offset": (4.0, 2.0), "saddle3": (2.0, 1.0), "saddle4": (4.0, 2.0)}


def said_rule(pipe: PipeView) -> Iterator[Finding]:
    """Of an offset or saddle it is known how far aside it goes."""
    for index in pipe.legs:
        leg = pipe.view.way.legs[index]
        for place, (kind, angles) in enumerate(grouped(leg.bends_deg)):
            if kind not in RISES_IN:
                continue
            mends = [
                Mend(f"{show_inches(rise)} aside", [_said(pipe, leg, index, place, rise)]) for rise in RISES_IN[kind]
            ]
            yield finding(
                "bend-unsaid", pipe.way, index, f"How far aside is {named(kind)}?",
                f"{max(angles):g}° in leg {index + 1}, and no more: its marks are told for "
                f"{show_inches(RISES_IN[kind][0])} half way. Say how far aside it goes, and where.",
                "common practice, no source", mends=mends,
            )  # fmt: skip


def _said(pipe: PipeView, leg: Leg, index: int, place: int, rise: float) -> dict[str, Any]:
    """The edit that says one of the bare shapes of a leg."""
    groups = grouped(leg.bends_deg)
    kind, angles = groups[place]
    left = [angle for n, (_, own) in enumerate(groups) if n != place for angle in own]
    shape = {"kind": kind, "rise_in": rise, "angle_deg": max(angles)}
    shapes = [item.model_dump(exclude_none=True) for item in leg.shapes]
    return set_leg(pipe.view, index, bends_deg=left, shapes=[*shapes, shape])


def fits_rule(pipe: PipeView) -> Iterator[Finding]:
    """A shape fits in its leg, and no bend is under the radius of its size."""
    for index in pipe.legs:
        leg = pipe.view.way.legs[index]
        try:
            check_leg(pipe.view.book, leg)
        except LevelRunError as error:
            if error.key == "radius_in":
                least = least_radius_in(pipe.view.book, leg.size, True)
                yield finding(
                    "radius-small", pipe.way, index, f"Bend of {show_inches(leg.radius_in or 0)} radius",
                    f"{leg.size}″ pipe bends no tighter than {show_inches(least)} to its middle.", "ch. 9 table 2",
                    measured=show_inches(leg.radius_in or 0), limit=show_inches(least),
                    mends=[Mend(f"Radius {show_inches(least)}", [set_leg(pipe.view, index, radius_in=least)])],
                )  # fmt: skip
                continue
            yield finding(
                "bend-impossible", pipe.way, index, f"Leg {index + 1}: it does not fit", f"{error.message}.",
                "trigonometry", measured=show(leg.length_in), limit="see the text",
            )  # fmt: skip


def apart_rule(pipe: PipeView) -> Iterator[Finding]:
    """No bend begins in the one before, nor before its pull does; fittings have pipe between them."""
    for pull, layout in pipe.laid:
        end: float = 0.0
        for before, made in zip((None, *layout.bends), layout.bends, strict=False):
            straight = made.bend.begins_in - end
            end = made.bend.ends_in
            leg = made.turn.leg
            what = "the start" if before is None else f"the {called(before)} before"
            if straight < -HAIR_IN:
                yield finding(
                    "bends-near", pipe.way, leg, f"Pull {pull.index + 1}: {called(made)} overlaps {what}",
                    f"Bends of {show_inches(made.turn.radius_in)} radius: {show_inches(-straight)} more is wanted "
                    "between them. Set them apart, take a flatter angle, or put a body between.", "ch. 9 table 2",
                    measured=f"{-straight:.2f}″ short", limit="0″",
                )  # fmt: skip
        for leg, short in layout.short:
            yield finding(
                "elbows-near", pipe.way, leg,
                f"Pull {pull.index + 1}: {show_inches(short)} too little between fittings",
                "Straight ends of elbows, sockets and connectors meet before any pipe comes between: trim them, join "
                "them end to end, or tape again.", "common practice, no source", measured=f"{short:.2f}″ short",
                limit="0″",
            )  # fmt: skip
        if layout.bends and layout.line.length_in - end < -HAIR_IN:
            yield finding(
                "bends-near", pipe.way, layout.last, f"Pull {pull.index + 1}: its last bend runs past its end",
                "The straight after it is shorter than the bend takes.", "ch. 9 table 2",
                measured=f"{end - layout.line.length_in:.2f}″ short", limit="0″",
            )  # fmt: skip


def grip_rule(pipe: PipeView) -> Iterator[Finding]:
    """The hook of a hand bender has straight pipe to hold, at the end of the piece that it looks to."""
    for pull, layout in pipe.laid:
        for number, piece in enumerate(layout.pieces):
            shoe = shoe_of(pipe.view.book, piece.method, piece.size)
            hand = [made for made in piece.bends if made.turn.how == "hand" and made.turn.kind != "box_offset"]
            if shoe is None or not hand:
                continue
            left = piece.along(hand[0].bend.begins_in)
            right = piece.length_in - piece.along(hand[-1].bend.ends_in)
            short = min(left, right)
            if short < shoe.grip_in - HAIR_IN:
                yield finding(
                    "bend-end", pipe.way, hand[0].turn.leg,
                    f"Pull {pull.index + 1}, piece {number + 1}: {show_inches(max(short, 0))} beyond its bend",
                    f"The hook wants about {show_inches(shoe.grip_in)} of straight pipe. Bend it on a longer piece "
                    "and cut after, or move the joint.", "common practice, no source",
                    measured=show_inches(max(short, 0)), limit=show_inches(shoe.grip_in),
                )  # fmt: skip


def joint_rule(pipe: PipeView) -> Iterator[Finding]:
    """Every piece is cut from a stick."""
    for pull, layout in pipe.laid:
        for number, piece in enumerate(layout.pieces):
            if piece.too_long:
                yield finding(
                    "coupling-nowhere", pipe.way, piece.leg,
                    f"Pull {pull.index + 1}, piece {number + 1} has no joint",
                    f"{show(piece.length_in)} in one, and between its bends no coupling has room. A body, or bends "
                    "farther apart.", "sold in sticks", measured=show(piece.length_in), limit="a stick",
                )  # fmt: skip


RULES: tuple[Rule[PipeView], ...] = (said_rule, fits_rule, apart_rule, grip_rule, joint_rule)
