"""The schools of routing side by side for one circuit: what each takes in feet, minutes and dollars."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Habits, Panel
from levelrun.core.measure import show
from levelrun.core.ways.frame.ends import end_of
from levelrun.core.ways.frame.found import Found
from levelrun.core.ways.frame.graph import SCHOOLS
from levelrun.core.ways.frame.prices import prices_of
from levelrun.core.ways.frame.route import kept_route

NAMES = {
    "cheapest": "Cheapest of all",
    "studs": "Through the studs",
    "over": "Up and over",
    "under": "Down and under",
}


@dataclass(frozen=True, kw_only=True)
class SchoolRow:
    """A circuit by one school: all its drawn hops together, against how it is drawn now."""

    school: str
    name: str
    length_in: float
    minutes: float
    dollars: float
    text: str
    current: bool


def schools_of(
    book: Codebook,
    habits: Habits,
    circuit: Circuit,
    found: Mapping[str, Found],
    nodes: Mapping[str, Box | Panel],
) -> list[SchoolRow]:
    """Every school for the hops of a circuit that drew themselves; none where there are none."""
    own = [(hop, found[hop.box]) for hop in circuit.chain if hop.box in found]
    drawn = [(hop, one) for hop, one in own if one.frame is not None and one.route is not None]
    if not drawn:
        return []
    prices = prices_of(book, habits, circuit.method if circuit.method != "raceway" else "EMT")
    said = {hop.school or habits.routing.school for hop, _ in drawn}
    totals: dict[str, tuple[float, float, float]] = {}
    for school in SCHOOLS:
        if school in ("over", "under") and not any(_leads(one, nodes[hop.box], school) for hop, one in drawn):
            continue  # on a slab nothing goes under
        works = []
        for hop, one in drawn:
            frame = one.frame
            assert frame is not None
            start, end = nodes[hop.after or circuit.panel], nodes[hop.box]
            taken = kept_route(frame, end_of(frame, start), end_of(frame, end), school)
            if taken is not None:
                works.append(taken)
        if len(works) == len(drawn):
            totals[school] = (
                sum(item.length_in for item in works),
                sum(prices.minutes(item.work) for item in works),
                sum(prices.dollars(item.work) for item in works),
            )
    now = sum(one.route.length_in for _, one in drawn if one.route)
    minutes = sum(prices.minutes(one.route.work) for _, one in drawn if one.route)
    return [
        SchoolRow(
            school=school, name=NAMES[school], length_in=length, minutes=spent, dollars=dollars,
            text=_against(length - now, spent - minutes), current=said == {school},
        )
        for school, (length, spent, dollars) in totals.items()
    ]  # fmt: skip


def _leads(one: Found, end: Box | Panel, rise: str) -> bool:
    """Whether there are joists over, or under, the rooms of a box in which a cable may go."""
    frame = one.frame
    return frame is not None and any(way == rise for way, _ in frame.planes_at(frame.rooms[end.room or ""].level))


def _against(length: float, minutes: float) -> str:
    """How a school differs from the way as it is drawn: 23 ft more, 40 minutes less."""
    feet, spent = round(length / 12), round(minutes)
    parts = []
    if feet:
        parts.append(f"{show(abs(feet) * 12)} {'more' if feet > 0 else 'less'}")
    if spent:
        parts.append(f"{abs(spent)} minute{'s' * (abs(spent) > 1)} {'more' if spent > 0 else 'less'}")
    return ", ".join(parts) or "the same"
