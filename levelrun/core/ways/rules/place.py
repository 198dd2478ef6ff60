"""Rules about where a leg lies: method by place, sleeves, whips, movement."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import groupby

from levelrun.core.codebook.lookups import cable, cable_sizes, places, raceway_sizes, wire_sizes
from levelrun.core.errors import UnknownKeyError
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.trade.methods.facts import facts_of
from levelrun.core.trade.methods.verdicts import Verdict, judge, ranked
from levelrun.core.trade.pipe.fill import CableIn, fill
from levelrun.core.trade.pipe.pull_box import trade_inches
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import THROUGH_IN, WayView, joined
from levelrun.core.ways.mends import best_methods, facts_with, set_leg, size_for

ONE_BAY_IN = 16.0
BENDS_ITSELF = ("flexible", "tubing")
# What is offered where nobody said where legs lie.
CABLED = ("stud_wall", "attic", "crawl_space", "basement", "trench")
PIPED = ("shop_surface", "basement", "outside_wall", "trench", "crawl_space")
BUILT = ("under_joists", "attic")  # met by how it is built: another method is no mend for it


def method_rule(view: WayView) -> Iterator[Finding]:
    """Every leg's method, and the cable inside a sleeve, against its place; like legs in a row speak once."""
    for first, last in _alike(view):
        leg = view.way.legs[first]
        yield from _judged(view, first, last, judge(view.book, leg.method, view.facts[first]))
        if leg.sleeve and view.methods[first].kind == "raceway":
            inside = {**_said(view, first), "damage": False, "sunlight": False}
            guarded = facts_of(view.book, leg.place, inside)
            yield from _judged(view, first, last, judge(view.book, view.guarded(first)[0], guarded))


def supposed_rule(view: WayView) -> Iterator[Finding]:
    """Where nobody said where legs lie, it is asked: what may go there, its wire and its supports hang on it."""
    asked = [index for index in view.indexes if view.way.legs[index].supposed and view.way.legs[index].along is None]
    for _, together in groupby(enumerate(asked), key=lambda item: (item[1] - item[0], view.way.legs[item[1]].place)):
        legs = [index for _, index in together]
        first, key = legs[0], view.way.legs[legs[0]].place
        long = sum(view.way.legs[index].length_in for index in legs)
        others = [place for place in (PIPED if view.methods[first].kind == "raceway" else CABLED) if place != key]
        names = places(view.book)
        yield finding(
            "place-asked", view.way.id, first, f"Where do these {show(long)} lie?",
            f"Nobody said it; {names[key].words[0]} is taken. What may go there, its wire, its cover and what holds "
            "it hang on it.", "common practice, no source",
            last=legs[-1],
            mends=[
                Mend(f"As taken: {names[key].words[0]}", [set_leg(view, i, supposed=False) for i in legs]),
                *(Mend(names[place].words[0].capitalize(), [set_leg(view, i, place=place) for i in legs])
                  for place in others[:3]),
            ],
        )  # fmt: skip


def fished_rule(view: WayView) -> Iterator[Finding]:
    """What is fished is cable, up or down a bay, and held by nothing (334.30(B)(1)); from an old box on it is asked
    whether the wall is open."""
    asked: list[int] = []
    for index in view.indexes:
        leg, level = view.way.legs[index], view.way.legs[index].go not in ("up", "down")
        if leg.fished and view.methods[index].kind == "raceway" and view.methods[index].family not in BENDS_ITSELF:
            yield finding(
                "pipe-closed", view.way.id, index, "Pipe is fished through a closed wall",
                "A stick is not fished through what is finished: open it, take the face of the wall, or flexible "
                "pipe or cable there.", "common practice, no source",
            )  # fmt: skip
        elif leg.fished and level and leg.place == "stud_wall" and leg.length_in > ONE_BAY_IN:
            studs = round(leg.length_in / ONE_BAY_IN)
            yield finding(
                "fished-across", view.way.id, index, f"Fished across {studs} stud{'s' * (studs > 1)}",
                f"In {show(leg.length_in)} of a finished wall studs stand every {ONE_BAY_IN:g} in: open a strip and "
                "bore them, or go up and over, or under the floor.", "common practice, no source",
                mends=[Mend("A strip of the wall is opened", [set_leg(view, index, fished=False, met=True)])],
            )  # fmt: skip
        elif leg.fished:
            yield finding(
                "way-fished", view.way.id, index, "Fished, held by nothing",
                "Through a finished wall cable is fished and held by nothing there; an old-work box with its own "
                "clamp holds its end.", "334.30(B)(1)",
            )  # fmt: skip
        elif leg.place == "stud_wall" and leg.length_in > THROUGH_IN and not leg.sleeve and not leg.met:
            asked.append(index)
    start = view.start
    if asked and isinstance(start, Box) and start.old and view.methods[asked[0]].kind == "cable":
        upright = [i for i in asked if view.way.legs[i].go in ("up", "down")]
        yield finding(
            "wall-asked", view.way.id, asked[0], "Is the wall open there?",
            "In a finished wall a cable is fished up or down one bay, held by nothing; across studs a strip of it is "
            "opened and they are bored.", "334.30(B)(1)",
            last=asked[-1],
            mends=[
                *([Mend("Fished, up or down a bay", [set_leg(view, i, fished=True) for i in upright])] if upright
                  else []),
                Mend("Open, and bored", [set_leg(view, i, met=True) for i in asked]),
            ],
        )  # fmt: skip


def _alike(view: WayView) -> list[tuple[int, int]]:
    spans: list[tuple[int, int]] = []
    for index, leg in enumerate(view.way.legs):
        key = (leg.method, leg.size, leg.sleeve, view.facts[index])
        if spans:
            first, last = spans[-1]
            before = view.way.legs[last]
            if key == (before.method, before.size, before.sleeve, view.facts[last]):
                spans[-1] = (first, index)
                continue
        spans.append((index, index))
    return spans


def _said(view: WayView, index: int) -> dict[str, object]:
    facts = view.facts[index]
    return {"moisture": facts.moisture, "sunlight": facts.sunlight, "ambient_c": facts.ambient_c}


def _judged(view: WayView, first: int, last: int, verdict: Verdict) -> Iterator[Finding]:
    facts = view.facts[first]
    worst = verdict.because[0]
    if worst.condition == "under_joists" and _large(view, first, last):
        return
    if verdict.verdict == "no":
        yield finding(
            "method-not-allowed",
            view.way.id,
            first,
            f"{verdict.name} may not go here",
            f"{worst.text} {facts.title}: {facts.moisture}{', can be hit' if facts.damage else ''}.",
            worst.rule,
            measured=verdict.name,
            limit=joined(_allowed(view, first)),
            mends=best_methods(view, first, 2, last),
            last=last,
        )
    elif verdict.verdict == "if" and (legs := [i for i in range(first, last + 1) if not view.way.legs[i].met]):
        first, last = legs[0], legs[-1]
        mends = [Mend("It has that", [set_leg(view, i, met=True) for i in legs])]
        if facts.damage is None:
            safe = [set_leg(view, i, facts=facts_with(view, i, damage=False)) for i in legs]
            mends = [Mend("Nothing can hit it here", safe)]
        yield finding(
            "method-condition",
            view.way.id,
            first,
            f"{verdict.name} here, if",
            f"{worst.text} It needs {joined(verdict.needs)}.",
            worst.rule,
            measured="not said",
            limit=joined(verdict.needs),
            mends=mends if worst.condition in BUILT else [*mends, *best_methods(view, first, 1, last)],
            last=last,
        )


def _large(view: WayView, first: int, last: int) -> bool:
    """Cables that may be fastened to the underside of joists: two No. 6, three No. 8, and larger (334.15(C))."""
    order = wire_sizes(view.book)
    for index in range(first, last + 1):
        size, _, count = view.way.legs[index].size.partition("-")
        least = "8" if count >= "3" else "6"
        if size not in order or order.index(size) < order.index(least):
            return False
    return True


def _allowed(view: WayView, index: int) -> list[str]:
    hourly = view.habits.dollars_per_hour
    return [v.name for v in ranked(view.book, view.facts[index], hourly) if v.verdict == "yes"][:4]


def size_rule(view: WayView) -> Iterator[Finding]:
    """The size of every leg is made."""
    for index, leg in enumerate(view.way.legs):
        pipe = view.methods[index].kind == "raceway"
        sizes = (
            [item.size for item in raceway_sizes(view.book, leg.method)]
            if pipe
            else cable_sizes(view.book, leg.method)
        )
        if leg.size in sizes:
            continue
        fitting = size_for(view, index, leg.method)
        yield finding(
            "size-unknown",
            view.way.id,
            index,
            f"{view.methods[index].name}: {'no size' if not leg.size else f'no {leg.size}'}",
            f"Made in {joined(sizes)}.",
            "ch. 9 table 4" if pipe else "cable catalogue",
            measured=leg.size or "none",
            limit=joined(sizes),
            mends=[Mend(f"Take {fitting}", [set_leg(view, index, size=fitting)])] if fitting else [],
        )


def feeder_pipe_rule(view: WayView) -> Iterator[Finding]:
    """A feeder's pipe is no smaller than the authority here wants."""
    least = view.book.scalar("feeder_pipe_least_in")
    if not least.value or not any(wires.feeds for wires in view.circuits().values()):
        return
    small = [
        index
        for index, leg in enumerate(view.way.legs)
        if view.piped(index) and leg.size and trade_inches(leg.size) < least.value
    ]
    if small:
        wanted = [
            next(
                (
                    p.size
                    for p in raceway_sizes(view.book, view.way.legs[i].method)
                    if trade_inches(p.size) >= least.value
                ),
                "",
            )
            for i in small
        ]
        yield finding(
            "pipe-under-note",
            view.way.id,
            small[0],
            f"Feeder pipe of {view.way.legs[small[0]].size}″",
            f"The authority here wants {least.value:g}″ or more for a feeder.",
            least.section,
            measured=f"{view.way.legs[small[0]].size}″",
            limit=f"{least.value:g}″",
            mends=[
                Mend(f"Go up to {wanted[0]}″", [set_leg(view, i, size=s) for i, s in zip(small, wanted, strict=True)])
            ]
            if all(wanted)
            else [],
        )


def sleeve_rule(view: WayView) -> Iterator[Finding]:
    """A sleeve has no fill limit, but the cable must pass through it."""
    for index, leg in enumerate(view.way.legs):
        method, size = view.guarded(index)
        if not leg.sleeve or view.methods[index].kind != "raceway" or size not in cable_sizes(view.book, method):
            continue
        wide = cable(view.book, method, size).wide_in
        try:
            found = fill(view.book, leg.method, leg.size, [], [CableIn(wide, 1)], sleeve=True)
        except UnknownKeyError:
            continue
        if not found.fits:
            bigger = found.smallest_size
            yield finding(
                "sleeve-tight",
                view.way.id,
                index,
                f"{size} does not pass through {leg.size}″",
                f"The cable is {wide:g}″ wide. A sleeve has no fill limit, but the cable must go through.",
                found.rule,
                measured=f"{wide:g}″",
                limit=f"{leg.size}″",
                mends=[Mend(f"Sleeve of {bigger}″", [set_leg(view, index, size=bigger)])] if bigger else [],
            )


def whip_rule(view: WayView) -> Iterator[Finding]:
    """A flexible whip to equipment is 6 ft or less."""
    longest = view.book.scalar("whip_max_in")
    for index, leg in enumerate(view.way.legs):
        if (
            view.methods[index].family == "flexible"
            and leg.place == "equipment_tail"
            and leg.length_in > longest.value
        ):
            rigid = [
                m for m in best_methods(view, index, 4) if not any(f"Use {n}" in m.label for n in ("Liq", "Flex"))
            ]
            yield finding(
                "whip-long",
                view.way.id,
                index,
                f"Whip of {show(leg.length_in)}",
                f"Up to {show(longest.value)} a whip is simple; beyond it wants a ground wire and straps of its own.",
                longest.section,
                measured=show(leg.length_in),
                limit=show(longest.value),
                mends=rigid[:1],
            )


def expansion_rule(view: WayView) -> Iterator[Finding]:
    """A straight of plastic pipe in the open that moves a quarter inch wants a joint."""
    rate, allowed = view.book.scalar("expansion_per_f"), view.book.scalar("expansion_joint_in")
    swing = view.habits.temperature_swing_f
    for index, leg in enumerate(view.way.legs):
        moved = rate.value * leg.length_in * swing
        if (
            view.methods[index].family == "pvc"
            and view.facts[index].sunlight
            and not leg.expansion
            and moved >= allowed.value
        ):
            yield finding(
                "expansion",
                view.way.id,
                index,
                "Long straight outside: expansion fitting",
                f"{show(leg.length_in)} of plastic pipe moves {moved:.2f}″ over a {swing:g} °F swing.",
                allowed.section,
                measured=f"{moved:.2f}″",
                limit=f"{allowed.value:g}″",
                mends=[Mend("Put an expansion fitting", [set_leg(view, index, expansion=True)])],
            )


RULES: tuple[Rule[WayView], ...] = (
    supposed_rule,
    method_rule,
    size_rule,
    sleeve_rule,
    fished_rule,
    feeder_pipe_rule,
    whip_rule,
    expansion_rule,
)
