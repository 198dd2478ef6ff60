"""What lets a pipe live long: expansion fittings and how far to open them, seals, drains, bushings.

Plastic grows by the coefficient of table 352.44 over the swing between the coldest and the hottest that it gets; a
fitting is pulled open by what it will still grow from the day's temperature to the hottest.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.measure import show
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.ways.facts import OUTSIDE, WayView
from levelrun.core.ways.pulls import Pull

LARGE_FROM = "4"
DAYS_F = (20.0, 40.0, 60.0, 80.0, 100.0)


@dataclass(frozen=True, kw_only=True)
class OpenBy:
    """How far to pull a fitting open at a temperature, inches for each fitting."""

    day_f: float
    open_in: float


@dataclass(frozen=True, kw_only=True)
class Expansion:
    """A straight of plastic that moves. moves_in: over the whole swing; count: fittings; openings: by the day's
    temperature, of the day that is said alone where one is; fitted: said to stand there."""

    leg: int
    length_text: str
    moves_in: float
    count: int
    openings: list[OpenBy]
    fitted: bool


@dataclass(frozen=True, kw_only=True)
class Care:
    """One thing that lets the pipe live long: what, why, where it is written."""

    key: str
    leg: int
    title: str
    text: str
    section: str


def expansions(view: WayView, pull: Pull) -> list[Expansion]:
    """The straights of a pull that want expansion fittings. Source: 352.44; the travel of a fitting is practice."""
    book, found = view.book, []
    rate, wanted = book.number("expansion_per_f"), book.number("expansion_joint_in")
    travel = book.number("expansion_travel_in")
    swing, hot = view.habits.temperature_swing_f, view.habits.piping.hottest_f
    for index in range(pull.first, pull.last + 1):
        leg = view.way.legs[index]
        moves = rate * leg.length_in * swing
        open_air = view.methods[index].family == "pvc" and not is_buried(view.facts[index])
        if not open_air or not (leg.expansion or (view.facts[index].sunlight and moves >= wanted - 1e-9)):
            continue
        count = max(math.ceil(moves / travel - 1e-9), 1)
        days = DAYS_F if view.way.day_f is None else (view.way.day_f,)
        grows = rate * leg.length_in / count
        openings = [OpenBy(day_f=day, open_in=min(grows * max(hot - day, 0.0), travel)) for day in days]
        found.append(
            Expansion(
                leg=index, length_text=show(leg.length_in), moves_in=moves, count=count, openings=openings,
                fitted=leg.expansion,
            )
        )  # fmt: skip
    return found


def care_of(view: WayView, pull: Pull) -> list[Care]:
    """Everything else that keeps a pipe dry, whole and bonded."""
    return [
        *_bored(view, pull), *_seal(view, pull), *_drain(view, pull), *_bushings(view, pull), *_raintight(view, pull),
    ]  # fmt: skip


def _bored(view: WayView, pull: Pull) -> Iterator[Care]:
    """Of a way that drew itself the holes are known: a stick goes through a row of them from an open end only."""
    known = view.context.holes
    rows = [i for i in range(pull.first, pull.last + 1) if known and len(known[i]) > 1]
    if rows:
        count = sum(len(known[i]) for i in rows)
        yield Care(
            key="bored", leg=rows[0], title=f"Through {count} holes in studs and joists",
            text="A stick goes in from an open end only: hang it under the joists or on the face, or take tubing "
            "that bends through the holes.", section="common practice, no source",
        )  # fmt: skip


def _seal(view: WayView, pull: Pull) -> Iterator[Care]:
    for index in range(pull.first + 1, pull.last + 1):
        out = [view.way.legs[i].place in (*OUTSIDE, "driveway_trench") for i in (index - 1, index)]
        if out[0] != out[1]:
            yield Care(
                key="seal", leg=index, title="Seal it where it comes in",
                text="Duct seal round the wires at the building line: warm damp air condenses in the cold part.",
                section="300.7(A), 225.27",
            )  # fmt: skip
            return


def _drain(view: WayView, pull: Pull) -> Iterator[Care]:
    """Outside, over ground, lower than what comes before and after it, and closed by a body."""
    for index in range(pull.first, pull.last):
        low = view.placed[index].y1 < view.placed[index].y0 and view.placed[index + 1].y1 >= view.placed[index].y1
        outside = all(view.facts[i].outdoors and not is_buried(view.facts[i]) for i in (index, index + 1))
        if low and outside:
            yield Care(
                key="drain", leg=index, title="Let it drain at its lowest",
                text="Water gathers where it turns up again: a drain, or an opening in the fitting there.",
                section="225.22",
            )  # fmt: skip
            return


def _bushings(view: WayView, pull: Pull) -> Iterator[Care]:
    order = wire_sizes(view.book)
    large = [w.size for w in view.wires(pull.first) if order.index(w.size) >= order.index(LARGE_FROM)]
    if large:
        yield Care(
            key="bushing", leg=pull.first, title=f"Insulating bushings at both ends for {large[0]}",
            text="No. 4 and larger is guarded from the edge where it leaves the pipe, before any wire goes in.",
            section="300.4(G)",
        )  # fmt: skip
    elif any(view.methods[i].family == "pvc" for i in (pull.first, pull.last)):
        yield Care(
            key="bushing", leg=pull.first, title="A smooth end at every box",
            text="A bushing or a smooth fitting where the pipe comes in, so that no edge skins a wire.",
            section="352.46",
        )  # fmt: skip


def _raintight(view: WayView, pull: Pull) -> Iterator[Care]:
    for index in range(pull.first, pull.last + 1):
        if view.methods[index].family == "steel" and view.facts[index].moisture == "wet":
            name = view.methods[index].name
            yield Care(
                key="raintight", leg=index, title=f"Raintight fittings on the {name}",
                text="Connectors and couplings outside are listed for rain; wires in it are for wet places.",
                section="358.42, 314.15" if view.way.legs[index].method == "EMT" else "314.15",
            )  # fmt: skip
            return
