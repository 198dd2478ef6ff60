"""Rules about what is on a circuit: receptacles and disconnects against the breaker, feeders, shared neutrals."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.lugs import lugs_of, too_big, usual_lugs
from levelrun.core.circuits.rules import wire
from levelrun.core.circuits.rules.splitting import split
from levelrun.core.circuits.rules.wire import about, change, fitting_wire, mended, rewired
from levelrun.core.circuits.usual import HEATER, HEATERS_A, nema_of
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box, Panel
from levelrun.core.rulebook import Rule

FOUR_WIRE = {"10-30": "14-30", "10-50": "14-50"}
CABLED = ("NM-B", "UF-B", "MC", "AC")
SIGHT = {
    "air_conditioner": "440.14", "water_heater": "422.31(B)", "space_heater": "424.19", "pump": "430.102(B)",
    "disposer": "422.31(B)", "furnace": "422.31(C)",
}  # fmt: skip
FRAMES = ("range", "dryer")


def _set_box(box: Box, **values: object) -> dict[str, Any]:
    return {"op": "set", "kind": "box", "id": box.id, "set": values}


def drop_rule(view: CircuitView) -> Iterator[Finding]:
    """The drop finding of the wire with one more way out: the far half on a home run of its own."""
    for item in wire.drop_rule(view):
        path = view.tree.path((view.farthest or ("", 0.0))[0])
        far = [view.boxes[link.box] for link in path if link.box in view.boxes]
        half = [box for box in far[len(far) // 2 :] if box.kind not in ("switch",)]
        mends = [
            *item.mends,
            *(_home_run(view, half) if len(far) > 1 and half and item.code == "circuit-drop" else []),
        ]
        yield replace(item, mends=mends)


def _home_run(view: CircuitView, boxes: list[Box]) -> list[Mend]:
    made = split(view, boxes, f"{view.circuit.name} far"[:60])
    return [Mend(f"New home run for {', '.join(box.name for box in boxes[:3])}", mend.edits) for mend in made]


def plug_rule(view: CircuitView) -> Iterator[Finding]:
    """Receptacles by volts and by table 210.21(B); three-wire frames want four (250.140)."""
    c = view.circuit
    row = view.book.table("210-21-receptacles").at_least("breaker_a", c.breaker_a)
    for box in view.plugs:
        key = nema_of(view.book, box)
        nema = view.book.table("nema").find(key) if key else None
        if nema is None:
            continue
        if key in FOUR_WIRE:
            yield about(
                view, "four-wires", f"{box.name} is a three-wire {key}",
                "New work is four-wire: two hots, neutral, ground; the strap from neutral to frame comes out.",
                "250.140, 406.4", measured=key, limit=FOUR_WIRE[key],
                mends=[Mend(f"{FOUR_WIRE[key]}, four wires",
                            [_set_box(box, nema=FOUR_WIRE[key]), change(view, neutral=True, equipment_ground=True)])],
            )  # fmt: skip
            continue
        allowed = [float(x) for x in row["receptacles"].split("|")] if row else [c.breaker_a]
        if float(nema["amps"]) in allowed and int(nema["volts"]) == c.volts:
            continue
        fitting = _fitting(view, allowed, nema["neutral"] == "yes")
        yield about(
            view, "plug-rating", f"{box.name}: a {key} on {c.breaker_a:g} A, {c.volts} V",
            f"It is rated {nema['amps']} A, {nema['volts']} V; this circuit wants "
            f"{' or '.join(f'{a:g}' for a in allowed)} A at {c.volts} V.",
            "210.21(B), 406.3", measured=f"{nema['amps']} A, {nema['volts']} V",
            limit=f"{allowed[-1]:g} A, {c.volts} V",
            mends=[Mend(f"Receptacle {fitting}", [_set_box(box, nema=fitting)])] if fitting else _down(view, nema),
        )  # fmt: skip


def _down(view: CircuitView, nema: Mapping[str, str]) -> list[Mend]:
    """A breaker of the receptacle's own rating, where its volts are right and it carries the load."""
    amps = float(nema["amps"])
    if int(nema["volts"]) != view.circuit.volts or amps < view.load_a:
        return []
    return [Mend(f"{amps:g} A breaker", [change(view, breaker_a=amps)])]


def _fitting(view: CircuitView, allowed: list[float], neutral: bool) -> str:
    """A four-wire or grounded configuration of the circuit's volts and rating; the plain ones first."""
    rows = [
        row
        for row in view.book.table("nema").rows
        if float(row["amps"]) in allowed and int(row["volts"]) == view.circuit.volts and row["ground"] == "yes"
    ]
    alike = [row for row in rows if (row["neutral"] == "yes") == (neutral and view.circuit.neutral)]
    plain = sorted(alike or rows, key=lambda row: row["twist"])
    return plain[0]["nema"] if plain else ""


DISCONNECTS_A = (30.0, 60.0, 100.0, 200.0, 400.0)  # safety switches as they are sold: common practice, no source


def frame_rule(view: CircuitView) -> Iterator[Finding]:
    """Range, dryer, generator inlet: a neutral and a ground of their own."""
    c = view.circuit
    for box in view.context.boxes:
        if box.serves in (*FRAMES, "generator") and c.volts == 240 and not (c.neutral and c.equipment_ground):
            lack = "a neutral" if not c.neutral else "a ground"
            yield about(
                view, "four-wires", f"{box.name} lacks {lack}",
                f"The {box.serves} is 120/240 V: two hots, neutral, ground.", "250.140, 200.2",
                measured="3 wires", limit="4 wires",
                mends=[Mend("Four wires", [change(view, neutral=True, equipment_ground=True)])],
            )  # fmt: skip
        if box.serves == "generator" and box.interlock and view.context.panel.main_a is None:
            yield about(
                view, "interlock-nowhere", f"{view.context.panel.name} has no main for its interlock to hold",
                "An interlock holds the main of the same panel. Where the main is elsewhere it takes a transfer "
                "switch, or the inlet there.", "702.5, 110.3(B)", measured="lugs only", limit="a main beside it",
                mends=[_main_in(view.context.panel)],
            )  # fmt: skip
        if box.serves == "generator" and not box.interlock:
            yield about(
                view, "generator-interlock", f"{box.name} has no interlock",
                "Generator and service must never both be closed. Interlock or never.", "702.5",
                mends=[Mend("Listed interlock", [_set_box(box, interlock=True)])],
            )  # fmt: skip


def _main_in(panel: Panel) -> Mend:
    edit = {"op": "set", "kind": "panel", "id": panel.id, "set": {"main_a": panel.bus_a}}
    return Mend(f"A main of {panel.bus_a:g} A in it", [edit])


def disconnect_rule(view: CircuitView) -> Iterator[Finding]:
    """A disconnect is rated for its circuit at least."""
    amps = view.circuit.breaker_a
    for box in view.context.boxes:
        if box.kind == "disconnect" and box.rating_a is not None and box.rating_a < amps - 1e-9:
            size = next((size for size in DISCONNECTS_A if size >= amps), amps)
            yield about(
                view, "disconnect-small", f"{box.name}: {box.rating_a:g} A on a {amps:g} A circuit",
                "It carries and breaks what the breaker lets through.", "110.3(B), 404.14",
                measured=f"{box.rating_a:g} A", limit=f"{amps:g} A",
                mends=[Mend(f"One of {size:g} A", [_set_box(box, rating_a=size)])],
            )  # fmt: skip


def count_rule(view: CircuitView) -> Iterator[Finding]:
    """No more boxes than the rule set allows, or the shop's habit."""
    outlets = [box for box in view.context.boxes if box.kind not in ("switch", "junction", "disconnect")]
    book, habit = view.book.scalar("outlets_per_circuit"), view.context.habits.boxes_per_circuit
    by_book = 0 < book.value < len(outlets)
    if by_book or len(outlets) > habit:
        most = int(book.value) if by_book else habit
        counted = {box.id for box in outlets}
        tail = [view.boxes[link.box] for link in view.tree.links if link.box in counted][most:]
        yield about(
            view, "boxes-many", f"{len(outlets)} outlets on one circuit",
            "The rule set's limit." if by_book else "This shop's habit; the code sets no number in a dwelling.",
            book.section if by_book else "common practice, no source", measured=str(len(outlets)), limit=str(most),
            mends=split(view, tail, f"{view.circuit.name} 2"[:60]) if tail else [],
        )  # fmt: skip


def heaters_rule(view: CircuitView) -> Iterator[Finding]:
    """Two and more heaters of rooms hang on a circuit of 30 A at most (424.4(A))."""
    heaters = [box for box in view.context.boxes if box.serves == HEATER and not box.old]
    amps = view.circuit.breaker_a
    if len(heaters) > 1 and amps > HEATERS_A:
        size = (
            fitting_wire(view, HEATERS_A) if view.load_a * view.book.number("continuous_factor") <= HEATERS_A else ""
        )
        yield about(
            view, "heaters-over", f"{len(heaters)} heaters on {amps:g} A",
            "Two and more heaters of rooms share a circuit of 30 A at most; a larger one serves a single heater.",
            "424.4(A)", measured=f"{amps:g} A", limit=f"{HEATERS_A:g} A",
            mends=mended(f"{HEATERS_A:g} A on {size}", rewired(view, size, breaker_a=HEATERS_A) if size else []),
        )  # fmt: skip


def white_rule(view: CircuitView) -> Iterator[Finding]:
    """Two hots in a cable: the white is one of them, or is spare and capped; never a ground (200.7(C))."""
    c = view.circuit
    if c.volts != 120 and not c.neutral and c.method in CABLED and c.feeds is None and c.chain:
        three = any((wires.conductors or 0) > 2 for wires in view.wires.values())
        yield about(
            view, "white-hot", f"{view.name}: {'the white is spare' if three else 'the white is a hot'}",
            "Cap it at both ends; it is no ground." if three else
            "Mark it at both ends, in the panel and in the box: tape or paint, not white, not green.",
            "200.7(C)(1)",
        )  # fmt: skip


def sight_rule(view: CircuitView) -> Iterator[Finding]:
    """Wired equipment is turned off within sight of it; some by a breaker that locks (440.14, 422.31, 430.102)."""
    for box in view.context.boxes:
        section = SIGHT.get(box.serves)
        if box.kind != "equipment" or section is None:
            continue
        before = [view.boxes.get(link.box) for link in view.tree.path(box.id)]
        off = ("disconnect", "switch") if view.circuit.volts == 120 else ("disconnect",)  # a snap switch
        if any(item is not None and item.kind in off for item in before):
            continue
        always = box.serves == "air_conditioner"
        if view.circuit.locks and not always:
            continue
        yield about(
            view, "disconnect-sight", f"Where is {box.name} turned off?",
            "A disconnect within sight of it, 50 ft at most." if always else
            "A disconnect within sight of it, or a breaker that locks in the open position.", section,
            mends=[] if always else [Mend("Its breaker locks", [change(view, locks=True)])],
        )  # fmt: skip


def multiwire_rule(view: CircuitView) -> Iterator[Finding]:
    """Circuits that share a neutral are disconnected together (210.4(B)), and two single-pole protected breakers
    cannot share one; their legs are the panel's to judge."""
    c, other = view.circuit, view.context.partner
    if other is None or c.id > other.id:
        return
    partner = {"op": "set", "kind": "circuit", "id": other.id}
    if c.protection != "plain" and other.protection != "plain" and c.poles == other.poles == 1:
        yield about(
            view, "multiwire-device", f"{view.name} and {other.name} share a neutral behind two breakers",
            "A ground-fault or arc-fault breaker watches its own neutral. It takes one two-pole breaker made for it.",
            "210.4(B), 110.3(B)",
            mends=[Mend("Each its own neutral", [change(view, partner=None), {**partner, "set": {"partner": None}}])],
        )  # fmt: skip
    if c.tied and other.tied:
        return
    yield about(
        view, "multiwire-tie", f"{view.name} and {other.name} are not tied",
        "A shared neutral stays live while one of them is on.", "210.4(B)",
        mends=[
            Mend("Handle tie", [change(view, tied=True), {**partner, "set": {"tied": True}}]),
            Mend("Each its own neutral", [change(view, partner=None), {**partner, "set": {"partner": None}}]),
        ],
    )  # fmt: skip


def breaker_lug_rule(view: CircuitView) -> Iterator[Finding]:
    """A wire grown for drop or heat still has to go under the screws of its breaker."""
    c = view.circuit
    takes = usual_lugs(view.book, "breaker", c.breaker_a)
    if too_big(view.book, c.wire_size, takes):
        yield about(
            view, "lug-asked", f"{c.wire_size} may not go into a {c.breaker_a:g} A breaker",
            f"It usually takes {takes} at most: read its label. Else splice down with listed connectors.",
            "110.14(A)", measured=c.wire_size, limit=takes,
        )  # fmt: skip


def feeder_rule(view: CircuitView) -> Iterator[Finding]:
    """A feeder: four wires, a bus and lugs that take it (250.32, 408.36, 110.14)."""
    c, fed = view.circuit, view.context.fed
    if fed is None:
        return
    if not (c.neutral and c.equipment_ground) and c.volts == 240:
        yield about(
            view, "feeder-three", f"The feeder of {fed.name} has three wires",
            "Past the main, neutral and ground run apart: two hots, neutral, ground.", "250.32(B), 250.24(B)",
            measured="3 wires", limit="4 wires",
            mends=[Mend("Four wires", [change(view, neutral=True, equipment_ground=True)])],
        )  # fmt: skip
    if fed.main_a is None and c.breaker_a > fed.bus_a:
        yield about(
            view, "feeder-small", f"{c.breaker_a:g} A feeds a bus of {fed.bus_a:g} A", "The bus burns first.",
            "408.36", measured=f"{c.breaker_a:g} A", limit=f"{fed.bus_a:g} A",
        )  # fmt: skip
    takes = lugs_of(view.book, fed)
    if too_big(view.book, c.wire_size, takes):
        yield about(
            view, "lug-small" if fed.lug_max else "lug-asked",
            f"{c.wire_size} {'does' if fed.lug_max else 'may'} not go into the lugs of {fed.name}",
            f"They {'' if fed.lug_max else 'usually '}take {takes} at most. Splice down with listed connectors where "
            "there is room to bend.", "110.14(A), 312.6", measured=c.wire_size, limit=takes,
        )  # fmt: skip


RULES: tuple[Rule[CircuitView], ...] = (
    plug_rule,
    breaker_lug_rule,
    frame_rule,
    disconnect_rule,
    white_rule,
    sight_rule,
    multiwire_rule,
    feeder_rule,
    drop_rule,
    count_rule,
    heaters_rule,
)
