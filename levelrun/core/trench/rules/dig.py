"""Rules about a trench as it is dug: its line, its depth, what it meets, the order of work."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from shapely import LineString
from shapely import Point as Shape

from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.trench.codes import PRACTICE, finding
from levelrun.core.trench.facts import TrenchFacts, gap_shown
from levelrun.core.trench.line import Crossing, crosses_itself
from levelrun.core.trench.order import TITLES, passed, ticks
from levelrun.core.trench.round import round_buildings
from levelrun.core.trench.yard import shape_of

ASKED = ("gas", "water")
APART_IN = 18.0
POOL_IN = 60.0


def about(facts: TrenchFacts, code: str, title: str, text: str, section: str, **more: Any) -> Finding:
    """A finding about a trench."""
    return finding(code, facts.trench.id, None, title, text, section, about="trench", **more)


def change(facts: TrenchFacts, **values: Any) -> dict[str, Any]:
    """Edit that changes fields of a trench."""
    return {"op": "set", "kind": "trench", "id": facts.trench.id, "set": values}


def line_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """It does not cross itself, reaches the buildings that it names, and goes round the others."""
    trench = facts.trench
    if crosses_itself(trench.points):
        yield about(facts, "trench-crossed", f"{trench.name} crosses itself", "Move a corner of it.", PRACTICE)
        return
    for key, place in (("start", 0), ("end", -1)):
        building = facts.yard.building(getattr(trench, key))
        gap = building.shape.distance(Shape(trench.points[place])) if building else 0.0
        if building is not None and building.drawn and gap > APART_IN:
            near = building.shape.exterior if building.shape.geom_type == "Polygon" else building.shape.boundary
            at = near.interpolate(near.project(Shape(trench.points[place])))
            points = list(trench.points)
            points[place] = (round(at.x * 16) / 16, round(at.y * 16) / 16)
            yield about(
                facts, "trench-apart", f"{trench.name} ends {show(round(gap))} from {building.structure.name}",
                "As the building is drawn. One of them was taped or placed otherwise.", PRACTICE,
                measured=show(round(gap)), limit="at its wall", mends=[Mend("To its wall", [change(facts,
                points=points)])],
            )  # fmt: skip
    under = [piece for piece in facts.pieces if piece.above == "under_building"]
    for name in dict.fromkeys(piece.under for piece in under):
        long = sum(piece.length_in for piece in under if piece.under == name)
        way = round_buildings(facts.yard, trench)
        mends = [Mend("Go round it", [change(facts, points=way)])] if way else []
        yield about(
            facts, "trench-under", f"{trench.name} goes {show(round(long))} under {name}",
            "Only pipe may lie there, and it is not dug from inside. Where it was there before the slab: fine.",
            "300.5(C)", measured=show(round(long)), limit="round it", mends=mends,
        )  # fmt: skip
    if not facts.lain:
        yield about(
            facts, "trench-empty", f"Nothing lies in {trench.name}", "Lay a way or a feeder in it.", PRACTICE
        )  # fmt: skip


def depth_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """From 4 ft on a way out, from 5 ft on a protective system (OSHA)."""
    deep = facts.deepest_in
    for code, key, title, text in (
        ("trench-guard", "guard_trench_from_in", "slope, shore or shield it",
         "Its sides come down without warning. A competent person looks at it before anyone goes in."),
        ("trench-way-out", "way_out_from_in", "a ladder within 25 ft",
         "Whoever is in it must get out at once. No one works in it alone."),
    ):  # fmt: skip
        scalar = facts.book.scalar(key)
        if deep >= scalar.value - 1e-6 and not (code == "trench-guard" and facts.trench.rock):
            yield about(
                facts, code, f"{show_inches(deep)} deep: {title}", text, scalar.section,
                measured=show_inches(deep), limit=show_inches(scalar.value),
            )  # fmt: skip


def rock_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """In rock under concrete only a raceway lies less deep (table 300.5(A), note)."""
    if not (facts.trench.rock and facts.trench.concrete):
        return
    for item in facts.lain:
        if not item.piped:
            yield about(
                facts, "trench-rock", f"{item.name} in rock", "Under 2″ of concrete on rock only a raceway may lie.",
                "300.5(A) table note", measured=item.name, limit="a raceway",
            )  # fmt: skip


def crossing_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """Gas and water 12 in or more away; a depth that is not said; one's own lines that nobody marks."""
    for one in facts.crossings:
        part = one.part
        at = show(round(one.at_in))
        if one.beside_in is not None:
            yield about(
                facts, "service-beside", f"{show_inches(round(one.beside_in))} beside {part.name} for "
                f"{show(round(one.over_in))}", "Keep a foot or more away along it.", PRACTICE,
                measured=show_inches(round(one.beside_in)), limit=show_inches(facts.book.number("parallel_in")),
            )  # fmt: skip
            continue
        yield from _near(facts, one, at)
        if part.private:
            yield about(
                facts, "service-private", f"{part.name} is your own line at {at}",
                "The desk marks to the meter only. Find it: trace it, or dig for it by hand.", PRACTICE,
            )  # fmt: skip


def _near(facts: TrenchFacts, one: Crossing, at: str) -> Iterator[Finding]:
    part, gap, least = one.part, facts.gap_in(one), facts.book.number("services_apart_in")
    hand = show_inches(facts.book.number("hand_dig_each_side_in"))
    if gap is None:
        yield about(
            facts, "service-unsaid", f"How deep is {part.name} at {at}?",
            f"Dig by hand {hand} each side of its mark until it is seen.", PRACTICE,
        )  # fmt: skip
    elif part.kind in ASKED and abs(gap) < least - 1e-6:
        side = "under" if gap > 0 else "over"
        where = f"{show_inches(gap_shown(gap))} {side} it" if gap else "where it is laid"
        yield about(
            facts, "service-near", f"{part.name} crosses {where} at {at}",
            f"Hand-dig {hand} each side of the mark, and ask the utility how far apart they want it.", PRACTICE,
            measured=show_inches(gap_shown(gap)), limit=show_inches(least),
        )  # fmt: skip


def yard_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """A septic field and a pool are gone round."""
    line = LineString(facts.trench.points)
    for part in facts.yard.parts:
        if part.kind == "septic" and line.intersects(shape_of(part)):
            yield about(
                facts, "trench-septic", f"{facts.trench.name} goes through {part.name}", "Go round it.", PRACTICE
            )  # fmt: skip
        if part.kind == "pool" and (gap := line.distance(shape_of(part))) < POOL_IN:
            yield about(
                facts, "trench-pool", f"{show(round(gap))} from {part.name}",
                "Within 5 ft of a pool only what serves it, in the pipe that 680.11 names.", "680.11",
                measured=show(round(gap)), limit="5′",
            )  # fmt: skip


def order_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """Marks before digging, within their days; nothing covered before it is seen."""
    trench, done = facts.trench, ticks(facts.trench)
    on = facts.book.on
    if "rest" in done and not passed(facts.job, trench):
        return
    if "marks" not in done and "dig" not in done:
        yield about(
            facts, "trench-marks", "Call for utility marks before digging",
            f"About {facts.book.number('marks_wait_days'):g} working days. By hand beside the marks.", PRACTICE,
        )  # fmt: skip
    dated = bool(trench.ticket and trench.ticket_to and on) and "fill" not in done
    if dated and not trench.ticket_from <= on <= trench.ticket_to:
        early = on < trench.ticket_from
        yield about(
            facts, "ticket-old", f"Ticket {trench.ticket}: {'not yet' if early else 'no longer'} good",
            f"From {trench.ticket_from} to {trench.ticket_to}. "
            f"{'Wait.' if early else 'Call again before you dig on.'}",
            PRACTICE, measured=on, limit=trench.ticket_from if early else trench.ticket_to,
        )  # fmt: skip
    for step, tick in passed(facts.job, trench):
        what = "Covered before it was seen" if step == "inspection" else "Dug without marks"
        yield about(
            facts, "step-passed", what,
            f"{TITLES[tick.step]}{f' on {tick.on}' if tick.on else ''}, because: {tick.why or 'not said'}. "
            "The authority may have it opened again.", "110.2" if step == "inspection" else PRACTICE,
        )  # fmt: skip


def ribbon_rule(facts: TrenchFacts) -> Iterator[Finding]:
    """Ribbon where the authority here asks for it, or where service conductors lie; without one it is offered."""
    asked = facts.book.scalar("ribbon_over_every_trench")
    bare = [(item, index) for item in facts.lain for index in item.legs if not item.view.way.legs[index].ribbon]
    if asked.value and bare and len(bare) == sum(len(item.legs) for item in facts.lain):
        edits = [{"op": "set_leg", "way": i.way, "leg": leg, "set": {"ribbon": True}} for i, leg in bare]
        yield about(
            facts, "ribbon-missing", "Ribbon over the trench",
            "Warning ribbon, 12″ or more over what lies there, before the rest is filled.", asked.section,
            measured="none", limit="ribbon", mends=[Mend("The ribbon goes in", edits)],
        )  # fmt: skip


RULES: tuple[Rule[TrenchFacts], ...] = (
    line_rule, depth_rule, rock_rule, crossing_rule, yard_rule, order_rule, ribbon_rule,
)  # fmt: skip
