"""The risers of a trench as rows: how long, how guarded, and what each wants done."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.measure import show, show_inches
from levelrun.core.trench.facts import Lain, TrenchFacts
from levelrun.core.trench.rules.risers import risers_of

STURDY = ("PVC80", "RMC", "IMC")


@dataclass(frozen=True, kw_only=True)
class RiserRow:
    """One riser: where, what of, from how deep up to what height, and what is done at it."""

    way: str
    leg: int
    name: str
    text: str
    cares: list[str]


def riser_rows(facts: TrenchFacts) -> list[RiserRow]:
    """The risers of everything in a trench."""
    return [_row(facts, item, index) for item in facts.lain for index in risers_of(item)]


def _row(facts: TrenchFacts, item: Lain, index: int) -> RiserRow:
    leg, view = item.view.way.legs[index], item.view
    before = index < item.laid.first
    at_start = before != item.laid.back
    building = facts.yard.building(facts.trench.start if at_start else facts.trench.end)
    name = building.structure.name if building else "the end"
    size = f" {leg.size}″" if view.methods[index].kind == "raceway" else ""
    cares = [
        *_body(item, index, before),
        *_ground(facts, item, index),
        *_wall(item, index, building is not None),
    ]
    return RiserRow(
        way=item.way, leg=index, name=f"{name}, {view.methods[index].name}{size}",
        text=f"{show(leg.length_in)} upright" + (", slip joint" if leg.expansion else ""), cares=cares,
    )  # fmt: skip


def _body(item: Lain, index: int, before: bool) -> list[str]:
    joint = item.view.joint_name(index - 1) if before else item.view.joint_name(index)
    if joint == "LB":
        return ["LB: caulk its top and sides, not its bottom; seal inside where warm air could come through."]
    return ["Sweep or LB into the wall: seal where warm air or gas could come through."]


def _ground(facts: TrenchFacts, item: Lain, index: int) -> list[str]:
    leg = item.view.way.legs[index]
    least, top = facts.book.number("riser_below_in"), facts.book.number("riser_guard_in")
    found = []
    if not item.piped:
        found.append("A bushing where the cable goes into the pipe, its end turned down in the trench.")
    if leg.method not in STURDY:
        found.append(
            f"Schedule 80 or steel from {show_inches(least)} under grade to {show(top)}, where it can be hit."
        )
    if facts.trench.moves and not leg.expansion:
        found.append("A slip joint over the ground: the pipe goes down with the fill.")
    return found


def _wall(item: Lain, index: int, building: bool) -> list[str]:
    leg = item.view.way.legs[index]
    if building and not leg.stands_off:
        return ["Siding to come? Stand it off on blocks or strut, so that it passes behind."]
    return []
