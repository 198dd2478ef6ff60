"""Rules about spans: how high and how hard they hang, what stands about their ends."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Job, Leg, Span, SpanEnd, Way
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.trade.clearance import clearance
from levelrun.core.trench.air import (
    OVER_TEXT,
    VOLTS,
    Beneath,
    Hanging,
    beneath,
    crossed_buildings,
    hanging,
    over_pools,
)
from levelrun.core.trench.codes import PRACTICE, finding
from levelrun.core.trench.yard import Yard, long_in, yard_of
from levelrun.core.ways.laid import laid_legs
from levelrun.core.ways.mends import Edit

MAST_LEAST = ("2", "2-1/2", "3", "3-1/2", "4")
SAGS = (1.25, 1.5, 2.0, 3.0)


@dataclass(frozen=True, eq=False)
class SpanFacts:
    """A span with everything that a rule about it may ask."""

    book: Codebook
    job: Job
    span: Span

    @cached_property
    def yard(self) -> Yard:
        """The yard."""
        return yard_of(self.job)

    @cached_property
    def held(self) -> list[tuple[Way, int]]:
        """The ways that hang on it, each with its leg there."""
        found = ((way, laid_legs(way, self.span.id)) for way in self.job.ways)
        return [(way, own[0]) for way, own in found if own]

    @property
    def leg(self) -> Leg | None:
        """The leg that hangs on it."""
        return self.held[0][0].legs[self.held[0][1]] if self.held else None

    @property
    def size(self) -> str:
        """Its wires, such as 4-3; a usual size while nothing hangs on it."""
        return self.leg.size if self.leg else "4-3"

    @cached_property
    def shape(self) -> Hanging | None:
        """As it hangs; None while the height of an end is not said."""
        return hanging(self.job, self.book, self.yard, self.span, self.size)

    @cached_property
    def under(self) -> list[Beneath]:
        """Its lowest place over each thing under it."""
        if self.shape is None:
            return []
        found = beneath(self.book, self.yard, self.span, self.shape)
        return [item for item in found if item.name or not self._beside(item, found)]

    def _beside(self, item: Beneath, found: list[Beneath]) -> bool:
        """Whether the open ground is lowest right beside something that asks more, and clears that."""
        near = 0.15 * long_in(self.span.points)
        return any(
            other.name and abs(other.at_in - item.at_in) < near and item.clear_in >= other.needed_in
            for other in found
        )

    @property
    def ends(self) -> list[tuple[str, str, SpanEnd]]:
        """Both ends: field, what they are at, and what is said of them."""
        names = {item.id: item.name for item in self.job.structures}
        own = (("start_end", self.span.start, self.span.start_end), ("end_end", self.span.end, self.span.end_end))
        return [(key, names.get(at or "", "the pole"), end) for key, at, end in own]


def about(facts: SpanFacts, code: str, title: str, text: str, section: str, **more: Any) -> Finding:
    """A finding about a span."""
    return finding(code, facts.span.id, None, title, text, section, about="span", **more)


def change(facts: SpanFacts, **values: Any) -> Edit:
    """Edit that changes fields of a span."""
    return {"op": "set", "kind": "span", "id": facts.span.id, "set": values}


def both(facts: SpanFacts, **values: Any) -> dict[str, Any]:
    """The same said of both ends."""
    return {key: {**end.model_dump(), **values} for key, _, end in facts.ends}


def height_rule(facts: SpanFacts) -> Iterator[Finding]:
    """How high its ends are held, and that it clears what lies under it on a hot day (225.18, 225.19)."""
    if facts.shape is None:
        bare = [name for _, name, end in facts.ends if end.height_in is None]
        if bare:
            yield about(
                facts, "span-unhung", f"How high is it held at {' and '.join(bare)}?",
                "From the ground there to the attachment. 10′ over people, 12′ over the drive of a house, 18′ over a "
                "street, at its lowest.", "225.18",
                mends=[Mend(f"{feet}′ at both ends", [change(facts, **both(facts, height_in=feet * 12.0))])
                       for feet in (16, 20)],
            )  # fmt: skip
        return
    low = [item for item in facts.under if item.clear_in < item.needed_in - 1e-6]
    for item in low:
        yield about(
            facts, "span-clears", f"Hangs {show(round(item.clear_in))} over {item.name or OVER_TEXT[item.over]}",
            f"At its lowest there, {show(round(item.at_in))} along, on a hot day it clears "
            f"{show(round(item.needed_in))}.", item.rule,
            measured=show(round(item.clear_in)), limit=show(round(item.needed_in)), mends=_higher(facts, low),
        )  # fmt: skip
    highest = 12 * facts.book.number("attachment_highest_ft")
    for _, name, end in facts.ends:
        if end.height_in is not None and end.height_in > highest:
            yield about(
                facts, "span-height", f"Held {show(end.height_in)} up at {name}", "Is that so? It wants a lift.",
                PRACTICE, measured=show(end.height_in), limit=show(highest),
            )  # fmt: skip


def _higher(facts: SpanFacts, low: list[Beneath]) -> list[Mend]:
    """Both ends so much higher that every low place clears, to the next half foot up."""
    up = max(item.needed_in - item.clear_in for item in low)
    steps = -(-up // 6) * 6
    values = {
        key: {**end.model_dump(), "height_in": (end.height_in or 0) + steps} for key, _, end in facts.ends
    }  # fmt: skip
    return [Mend(f"Hold both ends {show(steps)} higher", [change(facts, **values)])]


def pull_rule(facts: SpanFacts) -> Iterator[Finding]:
    """What its messenger bears in ice and wind (IEEE C2 rules 250B and 261H: a planning figure)."""
    shape, long = facts.shape, long_in(facts.span.points)
    longest = facts.book.scalar("span_longest_ft")
    if long > 12 * longest.value:
        yield about(
            facts, "span-long", f"A span of {show(round(long))}", "A pole between, or an engineer.", PRACTICE,
            measured=show(round(long)), limit=show(12 * longest.value),
        )  # fmt: skip
    if shape is None:
        return
    over = shape.pull_lb is not None and shape.limit_lb is not None and shape.pull_lb > shape.limit_lb
    if shape.too_tight:
        yield about(
            facts, "span-tight", f"Strung with {show_inches(round(shape.sag_in))} of sag it is straight in the cold",
            "The messenger shortens by more than it has to give: more sag.", "IEEE C2 rule 250B",
            measured=show_inches(round(shape.sag_in)), mends=_slacker(facts),
        )  # fmt: skip
    elif over and shape.pull_lb and shape.limit_lb:
        yield about(
            facts, "span-pull", f"Pulls {shape.pull_lb:.0f} lb in ice and wind",
            f"Its messenger is good for {shape.limit_lb:.0f} lb of load: more sag, or a larger one. A planning "
            f"figure for the {facts.job.habits.district} district.", "IEEE C2 rules 250B, 261H",
            measured=f"{shape.pull_lb:.0f} lb", limit=f"{shape.limit_lb:.0f} lb", mends=_slacker(facts),
        )  # fmt: skip


def _slacker(facts: SpanFacts) -> list[Mend]:
    """The least more sag that brings its pull under the limit and still clears."""
    if facts.shape is None:
        return []
    for more in SAGS:
        wanted = float(-(-facts.shape.sag_in * more // 1))
        tried = SpanFacts(facts.book, facts.job, facts.span.model_copy(update={"sag_in": wanted}))
        shape = tried.shape
        if shape is None or shape.pull_lb is None or shape.limit_lb is None or shape.pull_lb > shape.limit_lb:
            continue
        if all(item.clear_in >= item.needed_in for item in tried.under):
            return [Mend(f"{show_inches(wanted)} of sag", [change(facts, sag_in=wanted)])]
    return []


def about_rule(facts: SpanFacts) -> Iterator[Finding]:
    """Roofs, windows, pools, splices, masts (225.18, 225.19, 230.28)."""
    if pools := over_pools(facts.yard, facts.span):
        yield about(
            facts, "span-pool", f"Over or beside {pools[0]}",
            "No span here without article 680: another way, or ask.",
            "680.9", mends=[],
        )  # fmt: skip
    for name in crossed_buildings(facts.yard, facts.span):
        yield about(
            facts, "span-over", f"Passes over {name}", "8½ ft over its roof, 3 ft over one of 4 in 12 or steeper: "
            "tape it, or go round it.", "225.19(A)",
        )  # fmt: skip
    least = facts.book.scalar("window_clear_in")
    for _, name, end in facts.ends:
        yield from _roof(facts, name, end)
        if end.window_in is not None and end.window_in < least.value - 1e-6:
            yield about(
                facts, "span-window", f"{show_inches(end.window_in)} from a window, door or balcony at {name}",
                "3 ft from whatever opens or is stood on; over the top of a window it may be nearer.", least.section,
                measured=show_inches(end.window_in), limit=show_inches(least.value),
            )  # fmt: skip
    if any(end.window_in is None for _, _, end in facts.ends):
        values = {k: {**e.model_dump(), "window_in": e.window_in or least.value} for k, _, e in facts.ends}
        yield about(
            facts, "span-about", "Does a window, door or balcony stand within 3 ft of its ends?",
            "Whatever opens, or is stood on.", least.section, mends=[Mend("Nothing within 3′", [change(facts,
            **values)])],
        )  # fmt: skip
    if facts.span.listed is None:
        yield about(
            facts, "span-splices", "Are its splices listed, and in reach of a ladder?",
            "Connectors listed for the two metals and for tension, or beside it; covered again.", "110.14(B)",
            mends=[Mend("Listed, and in reach", [change(facts, listed=True)])],
        )  # fmt: skip
    yield from _masts(facts)


def _roof(facts: SpanFacts, name: str, end: SpanEnd) -> Iterator[Finding]:
    if end.roof_clear_in is None:
        return
    run = end.over_roof_in / 12 if end.over_roof_in is not None else None
    row = clearance(facts.book, "roof", VOLTS, slope_in_12=end.roof_in12, run_over_roof_ft=run)
    if end.roof_clear_in < 12 * row.least_ft - 1e-6:
        yield about(
            facts, "span-roof", f"{show_inches(end.roof_clear_in)} over the roof of {name}",
            row.note or "Over a roof.",
            row.rule, measured=show_inches(end.roof_clear_in), limit=show_inches(12 * row.least_ft),
        )  # fmt: skip


def _masts(facts: SpanFacts) -> Iterator[Finding]:
    for key, name, end in facts.ends:
        if end.at != "mast":
            continue
        if end.mast and end.mast not in MAST_LEAST:
            yield about(
                facts, "mast-small", f"A mast of {end.mast}″ at {name}",
                "2″ rigid or more is usual: ask the authority.",
                PRACTICE, measured=f"{end.mast}″", limit="2″",
            )  # fmt: skip
        if end.guyed is None:
            pull = f" It pulls {facts.shape.pull_lb:.0f} lb in ice." if facts.shape and facts.shape.pull_lb else ""
            yield about(
                facts, "mast-guy", f"Is the mast at {name} braced or guyed?",
                f"Over about 3 ft over the roof it is.{pull}", "230.28",
                mends=[Mend("It is", [change(facts, **{key: {**end.model_dump(), "guyed": True}})])],
            )  # fmt: skip


RULES: tuple[Rule[SpanFacts], ...] = (height_rule, pull_rule, about_rule)
