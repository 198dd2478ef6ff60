"""Rules about a building that is fed from outside: its electrodes, its disconnect, its service."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from shapely import Point as Shape

from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Electrode
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.trench.codes import PRACTICE, finding
from levelrun.core.trench.electrodes import GroundFacts
from levelrun.core.trench.yard import nearest_face

OUT_IN, APART_IN = 24.0, 96.0
KINDS = {
    "rod": "rod", "footing": "footing electrode", "water_pipe": "water pipe", "plate": "plate", "ring": "ring",
    "frame": "metal frame",
}  # fmt: skip


def about(facts: GroundFacts, code: str, title: str, text: str, section: str, **more: Any) -> Finding:
    """A finding about a building."""
    return finding(code, facts.structure.id, None, title, text, section, about="structure", **more)


def rod_spot(facts: GroundFacts, number: int = 0) -> tuple[float, float]:
    """Where a rod is driven: two feet off the south wall, else the north one, each 8 ft from the last."""
    building = facts.building
    if building is None:
        return (facts.structure.x_in, facts.structure.y_in)
    left, low, _right, high = building.shape.bounds
    if facts.rods:
        last = facts.rods[-1]
        for step in (APART_IN, -APART_IN):
            x = last.x_in + step
            if all(math.dist((x, last.y_in), (r.x_in, r.y_in)) >= 72 for r in facts.rods):
                return (x, last.y_in)
    face = nearest_face(building.shape, (0.0, low - 1.0))
    y = low - OUT_IN if face != "north" else high + OUT_IN
    return (left + OUT_IN + number * APART_IN, y)


def rod_edit(facts: GroundFacts, number: int = 0) -> dict[str, Any]:
    """Edit that adds a rod."""
    x, y = rod_spot(facts, number)
    return {"op": "add", "kind": "electrode", "item": {"structure": facts.structure.id, "x_in": x, "y_in": y}}


def change(item: Electrode, **values: Any) -> dict[str, Any]:
    """Edit that changes fields of an electrode."""
    return {"op": "set", "kind": "electrode", "id": item.id, "set": values}


def electrode_rule(facts: GroundFacts) -> Iterator[Finding]:
    """A building with a feeder or service has electrodes; one rod alone is a stop unless it shows 25 ohms (250.32,
    250.53(A)(2))."""
    if not facts.wants:
        return
    name, joined = facts.structure.name, [item for item in facts.electrodes if item.bonded]
    if not joined:
        footing = {"op": "add", "kind": "electrode", "item": {"structure": facts.structure.id, "kind": "footing"}}
        yield about(
            facts, "electrode", f"No electrode at {name}",
            "What is in the earth there (steel in a footing, 10 ft of metal water pipe) must be used. Else two rods "
            "of 8 ft, 6 ft or more apart, better twice their length; "
            f"No. {facts.usual_wire(_rod(facts))} copper.",
            "250.32(A), 250.50, 250.53",
            mends=[Mend("Two rods 8′ apart", [rod_edit(facts), rod_edit(facts, 1)]),
                   Mend("A footing electrode is there", [footing])],
        )  # fmt: skip
        return
    limit = facts.book.scalar("rod_ohms")
    alone = facts.rods[0] if len(facts.rods) == 1 and len(joined) == 1 else None
    if alone is not None and (alone.ohms is None or alone.ohms > limit.value):
        shown = f"{alone.ohms:g} Ω" if alone.ohms is not None else "not measured"
        yield about(
            facts, "electrode-second", f"One rod at {name}, {shown}",
            "One is enough only where it shows 25 Ω or less; then none is added. Most drive a second and measure "
            "nothing.", limit.section, measured=shown, limit="25 Ω",
            mends=[Mend("A second rod, 8′ away", [rod_edit(facts)])],
        )  # fmt: skip


def _rod(facts: GroundFacts) -> Electrode:
    return Electrode(id="rod", structure=facts.structure.id)


def rods_rule(facts: GroundFacts) -> Iterator[Finding]:
    """Rods: length, distance, not under a floor (250.52(A)(5), 250.53(A)(3))."""
    apart, least, long = facts.apart_in(), facts.book.scalar("rods_apart_in"), facts.book.scalar("rod_least_in")
    for item in facts.electrodes:
        if item.kind != "rod":
            continue
        if item.length_in < long.value - 1e-6:
            yield about(
                facts, "electrode-short", f"A rod of {show(item.length_in)} at {facts.structure.name}",
                "8 ft in the earth, its top at grade or under.", long.section, measured=show(item.length_in),
                limit=show(long.value), mends=[Mend("A rod of 8′", [change(item, length_in=long.value)])],
            )  # fmt: skip
        inside = facts.building is not None and facts.building.drawn
        if inside and facts.building and facts.building.shape.buffer(-1).contains(Shape(item.x_in, item.y_in)):
            x, y = rod_spot(facts, facts.electrodes.index(item))
            yield about(
                facts, "electrode-inside", f"A rod within {facts.structure.name}",
                "It would go through its slab or floor. A steel bar in the footing is an electrode of its own.",
                "250.53", mends=[Mend("Outside the wall", [change(item, x_in=x, y_in=y)])],
            )  # fmt: skip
    if apart is None:
        return
    if apart < least.value - 1e-6:
        far = facts.rods[-1]
        first = facts.rods[0]
        x = first.x_in + (APART_IN if far.x_in >= first.x_in else -APART_IN)
        yield about(
            facts, "electrode-near", f"Rods {show(round(apart))} apart at {facts.structure.name}",
            "6 ft at least, and better twice their length.", least.section, measured=show(round(apart)),
            limit=show(least.value), mends=[Mend("8′ apart", [change(far, x_in=x, y_in=first.y_in)])],
        )  # fmt: skip
    elif apart < 2 * facts.rods[0].length_in - 1e-6:
        yield about(
            facts, "electrode-closer", f"Rods {show(round(apart))} apart: twice their length is better",
            f"{show(2 * facts.rods[0].length_in)} where there is room.", "250.53(A)(3) informational note",
        )  # fmt: skip


def wire_rule(facts: GroundFacts) -> Iterator[Finding]:
    """What is there is joined, by a conductor that is large enough (250.50, 250.66)."""
    order = wire_sizes(facts.book)
    for item in facts.electrodes:
        called = f"The {KINDS[item.kind]} at {facts.structure.name}"
        if not item.bonded:
            yield about(
                facts, "electrode-left", f"{called} is not joined",
                "All that are present are bonded into one system.",
                "250.50", mends=[Mend("Join it", [change(item, bonded=True)])],
            )  # fmt: skip
        elif item.wire in order and order.index(item.wire) < order.index(facts.wire_for(item)):
            wanted = facts.wire_for(item)
            yield about(
                facts, "electrode-wire", f"No. {item.wire} to {called[0].lower()}{called[1:]}",
                f"By what comes in it wants No. {wanted} copper.", "250.66", measured=item.wire, limit=wanted,
                mends=[Mend(f"No. {wanted}", [change(item, wire=wanted)])],
            )  # fmt: skip


def off_rule(facts: GroundFacts) -> Iterator[Finding]:
    """A disconnect where the feed comes in (225.31, 225.32); for a branch circuit a switch does (225.36)."""
    here = [b for b in facts.job.boxes if b.structure == facts.structure.id]
    boxes = [b for b in here if b.kind == "disconnect"]
    if facts.branches and not facts.feeders and not any(b.kind in ("disconnect", "switch") for b in here):
        yield about(
            facts, "building-off", f"What turns {facts.structure.name} off?",
            f"{facts.branches[0].name} comes from another building: a switch or a disconnect where it comes in.",
            "225.31, 225.36",
        )  # fmt: skip
    for circuit in facts.feeders:
        panel = next(p for p in facts.job.panels if p.id == circuit.feeds)
        if panel.main_a is not None or boxes:
            continue
        edit = {"op": "set", "kind": "panel", "id": panel.id,
                "set": {"main_a": circuit.breaker_a, "bus_a": max(panel.bus_a, circuit.breaker_a)}}  # fmt: skip
        own = [c for c in facts.job.circuits if c.panel == panel.id]
        if len(own) > 6 or not own:
            yield about(
                facts, "building-off", f"What turns {facts.structure.name} off?",
                f"{panel.name} has lugs only and {len(own)} circuits: six handles at most, else a main, or a "
                "disconnect where its feed comes in.", "225.31, 225.33",
                mends=[Mend(f"A main of {circuit.breaker_a:g} A", [edit])],
            )  # fmt: skip


def service_rule(facts: GroundFacts) -> Iterator[Finding]:
    """The electrician's part of a service: heights, disconnect, wire, bonds, surge (230, 250)."""
    own = facts.service
    if own is None:
        return

    def edit(**values: Any) -> list[dict[str, Any]]:
        return [{"op": "set", "kind": "service", "id": own.id, "set": values}]

    for field, what, section, label in ASKS:
        value = getattr(own, field)
        if field == "stub_set" and own.entry != "underground":
            continue
        if value is None:
            yield about(
                facts, "service-asks", f"{facts.structure.name}: {what}?", "It is looked for before power.", section,
                mends=[Mend(label, edit(**{field: True}))],
            )  # fmt: skip
        elif value is False and field not in OPTIONAL:
            yield about(
                facts, "service-lacks", f"{facts.structure.name}: {what} is missing", "It must be there.", section,
                mends=[Mend(label, edit(**{field: True}))],
            )  # fmt: skip
    for field, what in (("attach_in", "The drop is held"), ("drip_in", "The drip loop hangs")):
        value = getattr(own, field)
        if own.entry == "overhead" and value is not None and value < 120:
            yield about(
                facts, "service-attach", f"{what} {show(value)} up", "10 ft over the ground at the least.",
                "230.24(B), 230.26", measured=show(value), limit="10′", mends=[Mend("10′", edit(**{field: 120.0}))],
            )  # fmt: skip
    if own.meter_in is not None and not 48 <= own.meter_in <= 72:
        yield about(
            facts, "meter-height", f"The meter at {show_inches(own.meter_in)}",
            "4 to 6 ft to its middle: the utility "
            "says which.", PRACTICE, measured=show_inches(own.meter_in), limit="48″ to 72″",
        )  # fmt: skip
    yield from _service_wire(facts, edit)


ASKS = (
    ("outside_disconnect", "a disconnect outside, in reach", "230.85", "It is there"),
    ("stub_set", "the pipe through the wall set before the foam", "common practice, no source", "It is set"),
    ("water_bond", "a metal water pipe bonded", "250.104(A)", "Bonded, or plastic"),
    ("gas_bond", "the gas pipe bonded", "250.104(B)", "Bonded, or none"),
    ("intersystem", "a bar for the bonds of phone and aerial", "250.94", "It is there"),
    ("surge", "surge protection", "230.67", "It is there"),
)
OPTIONAL = ("stub_set",)


def _service_wire(facts: GroundFacts, edit: Any) -> Iterator[Finding]:
    own = facts.service
    if own is None or not own.wire_size:
        return
    lived = facts.structure.kind in ("house", "cabin") and facts.structure.dwelling is not False
    wanted = service_wire(facts, own.rating_a, own.material, lived)
    order = wire_sizes(facts.book)
    if wanted and own.wire_size in order and order.index(own.wire_size) < order.index(wanted):
        yield about(
            facts, "service-wire", f"{own.wire_size} {own.material} for a service of {own.rating_a:g} A",
            f"It wants {wanted}{' at 83 % of its rating' if lived else ''}.", "310.12" if lived else "310.16",
            measured=own.wire_size, limit=wanted, mends=[Mend(f"Take {wanted}", edit(wire_size=wanted))],
        )  # fmt: skip


def service_wire(facts: GroundFacts, rating_a: float, material: str, lived: bool) -> str:
    """The smallest wire for a service: in the 75 °C column, of a dwelling at 83 % of its rating. Empty over all."""
    share = facts.book.number("dwelling_feeder_percent") / 100 if lived else 1.0
    order = wire_sizes(facts.book)
    table = facts.book.table("310-16-ampacity")
    for size in order:
        row = table.find(size)
        cell = row.get(f"{material}_75", "") if row else ""
        if cell and float(cell) >= share * rating_a - 1e-9:
            return size
    return ""


RULES: tuple[Rule[GroundFacts], ...] = (electrode_rule, rods_rule, wire_rule, off_rule, service_rule)
