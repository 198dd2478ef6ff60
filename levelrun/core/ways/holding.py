"""What holds each leg: staples, straps, or the bored holes it lies in."""

from __future__ import annotations

import math
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.rulebook import keeping
from levelrun.core.trade.methods.conditions import is_buried, is_in_air
from levelrun.core.trade.supports import Supports, supports
from levelrun.core.ways.facts import WayContext, WayView, end_kind, viewed

FRAMED = ("stud_wall", "ceiling_joists", "crawl_space")
SPACING_IN = 16.0


@dataclass(frozen=True, kw_only=True)
class Held:
    """How a leg is held: kind is staple, strap, hole, earth or messenger; positions in inches along the leg."""

    kind: str
    positions_in: list[float]
    first_max_in: float | None
    spacing_max_in: float | None
    text: str
    rule: str


def held(view: WayView, index: int) -> Held:
    """Support positions of one leg. Bored framing every 16 in carries a level cable; earth carries a pipe."""
    leg, facts = view.way.legs[index], view.facts[index]
    if is_buried(facts):
        return Held(
            kind="earth",
            positions_in=[],
            first_max_in=None,
            spacing_max_in=None,
            text="lies in the trench",
            rule="300.5",
        )
    if is_in_air(facts) or view.methods[index].kind == "span":
        return Held(
            kind="messenger",
            positions_in=[],
            first_max_in=None,
            spacing_max_in=None,
            text="hangs on its messenger",
            rule="396.30",
        )
    start = end_kind(
        view, view.joint_before(index), view.way.start if index == 0 else view.way.legs[index - 1].end.node
    )
    end = end_kind(view, view.joint_after(index), leg.end.node)
    cable = not view.piped(index) and not leg.sleeve
    habits = view.habits
    given = supports(
        view.book,
        leg.method,
        leg.size,
        leg.length_in,
        start,
        end,
        habits.first_staple_in if cable else None,
        habits.staple_spacing_in if cable else None,
        (_goes_on(view, index - 1), _goes_on(view, index)),
    )
    if leg.fished:
        return Held(
            kind="fished", positions_in=[], first_max_in=None, spacing_max_in=None,
            text="fished, held by nothing", rule="334.30(B)(1)",
        )  # fmt: skip
    if cable and leg.go not in ("up", "down") and leg.place in FRAMED:
        known = view.context.holes
        holes = list(known[index]) if known else _every_bay(leg.length_in)
        return _bored(given, holes, start, end)
    word = "staple" if cable else "strap"
    return Held(
        kind=word,
        positions_in=given.positions_in,
        first_max_in=given.first_max_in,
        spacing_max_in=given.spacing_max_in,
        text=f"{given.count} {word}{'s' if given.count > 1 else ''}",
        rule=given.rule,
    )


def _goes_on(view: WayView, index: int) -> bool:
    """Whether the leg and the one after it are one pipe or cable, held on both sides of the corner."""
    legs = view.way.legs
    if not 0 <= index < len(legs) - 1 or view.joint_after(index) not in ("none", "coupling"):
        return False
    return view.piped(index) == view.piped(index + 1) and not any(
        is_buried(view.facts[i]) for i in (index, index + 1)
    )


def _every_bay(length_in: float) -> list[float]:
    """Holes of a leg that was walked, of which only its length is known: one a bay."""
    return [SPACING_IN * i for i in range(1, math.floor(length_in / SPACING_IN) + 1) if SPACING_IN * i < length_in]


def _bored(given: Supports, holes: list[float], start: str, end: str) -> Held:
    spots, spacing, rule = given.positions_in, given.spacing_max_in, given.rule
    if not holes:
        return Held(
            kind="staple",
            positions_in=spots,
            first_max_in=None,
            spacing_max_in=spacing,
            text=f"{len(spots)} staple{'s' * (len(spots) != 1)}",
            rule=rule,
        )
    staples = ([spots[0]] if start != "none" and spots else []) + ([spots[-1]] if end != "none" and spots else [])
    text = f"{len(holes)} hole{'s' * (len(holes) > 1)}"
    text += f", {len(staples)} staple{'s' * (len(staples) > 1)}" if staples else ""
    return Held(
        kind="hole",
        positions_in=sorted({*holes, *staples}),
        first_max_in=None,
        spacing_max_in=spacing,
        text=text,
        rule=f"{rule}; bored holes count",
    )


@keeping(4096)
def stapled(book: Codebook, context: WayContext) -> list[list[float]]:
    """The staples of each leg of a way, inches along it: what holds it that is no hole."""
    view = viewed(book, context)
    found: list[list[float]] = []
    for index in view.indexes:
        hold = held(view, index)
        known = context.holes[index] if context.holes else _every_bay(view.way.legs[index].length_in)
        holes = set(known) if hold.kind == "hole" else set()
        found.append([at for at in hold.positions_in if at not in holes] if hold.kind in ("hole", "staple") else [])
    return found
