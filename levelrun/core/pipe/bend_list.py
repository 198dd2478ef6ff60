"""The bends of a pull as a list: what each is, how it is made, its numbers by trigonometry and by the chart."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.measure import show_inches
from levelrun.core.pipe.layout import Layout, Made, by_shape
from levelrun.core.pipe.marks import WAYS, between, called, eighth
from levelrun.core.trade.pipe.shapes import parallel_shift_in
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.line import shapes_in

HOW = {"hand": "hand bender", "factory": "factory elbow", "heat": "heat", "flexible": "by itself"}
BESIDE_IN = 3.0  # of the next of several pipes, from middle to middle


@dataclass(frozen=True, kw_only=True)
class BendRow:
    """A corner, or an offset, saddle or kick as a whole. degrees in order; between: from mark to mark, exact and by
    the chart; shrink: how much the pipe draws back; gain: how much less pipe than its straights; beside: how much
    farther the marks stand on the next pipe 3 in beside it. Inches, unrounded; shape: its number in the leg, None
    where only its angle was said or it is a corner."""

    leg: int
    kind: str
    shape: int | None
    title: str
    how: str
    degrees: list[float]
    rise_in: float | None
    between_in: float | None
    chart_in: float | None
    shrink_in: float
    gain_in: float
    radius_in: float
    beside_in: float | None
    assumed: bool
    text: str


def bend_list(view: WayView, layout: Layout) -> list[BendRow]:
    """The bends of a pull in order, each shape as one."""
    return [_row(view, layout, group) for group in by_shape(layout.bends)]


def _row(view: WayView, layout: Layout, group: list[Made]) -> BendRow:
    first, turn = group[0], group[0].turn
    pairs = [between(view, layout, made) for made in group[1:]]
    exact, chart = next(((a, b) for a, b in pairs if a is not None), (None, None))
    angle = first.bend.angle_deg
    rise = _rise(view, group)
    slopes = {"saddle3": 2, "saddle4": 2}.get(turn.kind, 1)
    shrink = 0.0 if rise is None else slopes * rise * math.tan(math.radians(angle) / 2)
    told = list(_told(turn.kind, rise, exact, chart, shrink, view.habits.piping.offsets))
    return BendRow(
        leg=turn.leg, kind=turn.kind, shape=turn.shape, title=f"{called(first)} {WAYS[turn.toward]}",
        how=HOW[turn.how], degrees=[round(made.bend.angle_deg, 2) for made in group], rise_in=rise,
        between_in=exact, chart_in=chart, shrink_in=shrink, gain_in=sum(made.bend.gain_in for made in group),
        radius_in=turn.radius_in,
        beside_in=parallel_shift_in(BESIDE_IN, angle) if rise is not None and turn.kind != "kick" else None,
        assumed=turn.assumed, text=", ".join(told),
    )  # fmt: skip


def _rise(view: WayView, group: list[Made]) -> float | None:
    turn = group[0].turn
    if turn.kind in ("corner", "bend"):
        return None
    for item in shapes_in(view, turn.leg):
        if item.made.kind == turn.kind and item.number == turn.shape:
            return item.made.true_in
    return None


def _told(
    kind: str, rise: float | None, exact: float | None, chart: float | None, shrink: float, school: str
) -> Iterator[str]:
    if rise is None:
        return
    yield f"{show_inches(round(rise * 16) / 16)} {'true offset' if kind == 'rolling' else 'aside'}"
    if exact is not None and chart is not None:
        first, second = ("exact", exact), ("chart", chart)
        if school == "chart":
            first, second = second, first
        what = "middles" if kind == "saddle3" else "marks"
        yield f"{what} {eighth(first[1])} apart {first[0]}, {eighth(second[1])} by {second[0]}"
    elif exact is not None:
        yield f"marks {eighth(exact)} apart"
    yield f"shrinks {eighth(shrink)}"
