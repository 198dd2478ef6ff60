"""Rules about what is on a circuit: receptacles against the breaker, appliances that share, chains."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from levelrun.core.circuits.facts import PLUGS, CircuitView
from levelrun.core.circuits.rules import wire
from levelrun.core.circuits.rules.wire import about, change
from levelrun.core.circuits.usual import nema_of, usual_of
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule

FOUR_WIRE = {"10-30": "14-30", "10-50": "14-50"}
FRAMES = ("range", "dryer")
LAMPS = ("light", "fan")
OWN_PLACES = {"bath": "210.11(C)(3)", "laundry": "210.11(C)(2)"}


def _set_box(box: Box, **values: object) -> dict[str, Any]:
    return {"op": "set", "kind": "box", "id": box.id, "set": values}


def split(view: CircuitView, boxes: list[Box], name: str) -> Mend:
    """A mend that takes boxes off to a new circuit of the same panel."""
    ident = f"{view.circuit.id}-{boxes[0].id}"[:40]
    first = usual_of(view.book, boxes[0])
    own = len(boxes) == 1 and first.own
    item = {
        "id": ident, "name": name, "panel": view.circuit.panel,
        "breaker_a": first.breaker_a if own else view.circuit.breaker_a,
        "poles": first.poles if own else 1, "volts": first.volts if own else view.circuit.volts,
        "neutral": first.neutral if own else view.circuit.neutral,
        "wire_size": view.circuit.wire_size, "protection": view.circuit.protection,
    }  # fmt: skip
    edits: list[dict[str, Any]] = [
        {"op": "add", "kind": "circuit", "item": item},
        {"op": "chain", "circuit": ident, "boxes": [box.id for box in boxes]},
    ]
    return Mend(f"Split off {', '.join(box.name for box in boxes[:3])}", edits)


def drop_rule(view: CircuitView) -> Iterator[Finding]:
    """The drop finding of the wire with one more way out: the far half on a home run of its own."""
    for item in wire.drop_rule(view):
        far = [view.boxes[link.box] for link in view.tree.path((view.farthest or ("", 0.0))[0])]
        half = [box for box in far[len(far) // 2 :] if box.kind not in ("switch",)]
        mends = [*item.mends, *([_home_run(view, half)] if len(far) > 1 and half else [])]
        yield replace(item, mends=mends)


def _home_run(view: CircuitView, boxes: list[Box]) -> Mend:
    made = split(view, boxes, f"{view.circuit.name} far"[:60])
    return Mend(f"New home run for {', '.join(box.name for box in boxes[:3])}", made.edits)


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
        if box.serves == "generator" and not box.interlock:
            yield about(
                view, "generator-interlock", f"{box.name} has no interlock",
                "Generator and service must never both be closed. Interlock or never.", "702.5",
                mends=[Mend("Listed interlock", [_set_box(box, interlock=True)])],
            )  # fmt: skip


def sharing_rule(view: CircuitView) -> Iterator[Finding]:
    """Appliances alone; kitchen, bath and laundry for themselves; outdoors off the lights (210.11(C), 210.52(B))."""
    boxes = view.context.boxes
    for box in boxes:
        if view.dedicated(box) and len([b for b in boxes if b.kind != "disconnect"]) > 1:
            title = usual_of(view.book, box).title
            yield about(
                view, "sharing", f"{title} {box.name} shares its circuit",
                f"{len(boxes)} boxes hang on {view.name}.", "common practice, no source",
                measured=f"{len(boxes)} boxes", limit="1", mends=[split(view, [box], title)],
            )  # fmt: skip
    yield from _own_places(view)
    out = [b for b in boxes if _outdoors(view, b) and b.kind in PLUGS]
    lamps = [b for b in boxes if b.kind in LAMPS and not _outdoors(view, b)]
    if out and lamps:
        yield about(
            view, "outdoor-shares", "Outdoor outlets hang on indoor lights",
            f"A wet trip at {out[0].name} darkens {_room_of(view, lamps[0])}.",
            "common practice, no source", mends=[split(view, out, "Outdoors")],
        )  # fmt: skip


def _room_of(view: CircuitView, box: Box) -> str:
    place = view.places.get(box.id)
    return place.room_name if place else "the room"


def _outdoors(view: CircuitView, box: Box) -> bool:
    place = view.places.get(box.id)
    return box.outdoors or (place is not None and place.use == "porch")


def _own_places(view: CircuitView) -> Iterator[Finding]:
    plugs = [(box, view.places[box.id]) for box in view.plugs if box.id in view.places and not view.dedicated(box)]
    counters = [box for box, place in plugs if box.serves == "counter"]
    others = [box for box, place in plugs if box.serves != "counter" and place.use not in ("kitchen", "dining")]
    lit = [box for box in view.context.boxes if box.kind in LAMPS]
    if counters and (others or lit):
        away = others or lit
        yield about(
            view, "required-shares", f"A small-appliance circuit feeds {away[0].name}",
            "It serves kitchen and dining receptacles, nothing else.", "210.52(B)(2)",
            mends=[split(view, away, "General")],
        )  # fmt: skip
    for use, section in OWN_PLACES.items():
        inside = [box for box, place in plugs if place.use == use]
        outside = [box for box, place in plugs if place.use != use]
        if inside and outside and not counters:
            yield about(
                view, "required-shares", f"The {use} circuit feeds {outside[0].name}",
                f"Its receptacles stand on a 20 A circuit for the {use} alone.", section,
                mends=[split(view, outside, "General")],
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
            mends=[split(view, tail, f"{view.circuit.name} 2"[:60])] if tail else [],
        )  # fmt: skip


def chain_rule(view: CircuitView) -> Iterator[Finding]:
    """Every box of the chain hangs on the panel; three-ways come in pairs."""
    for box_id in view.tree.broken:
        box = view.boxes.get(box_id)
        name = box.name if box else box_id
        hops = [
            {"box": h.box, "after": None if h.box == box_id else h.after, "length_in": h.length_in}
            for h in view.circuit.chain
        ]
        yield about(
            view, "chain-broken", f"{name} hangs on nothing", "Its cable starts at a box that is not on this chain, "
            "or the chain runs in a loop.", "300.3(B)",
            mends=[Mend("Hang it on the panel", [change(view, chain=hops)])],
        )  # fmt: skip
        return
    ways = [box for box in view.context.boxes if box.kind == "switch" and box.ways == 3]
    if len(ways) % 2:
        yield about(
            view, "three-way-lone", f"{ways[-1].name} has no partner", "Three-ways come in pairs on one circuit.",
            "404.2(A)", mends=[Mend("Make it single-pole", [_set_box(ways[-1], ways=2)])],
        )  # fmt: skip


def multiwire_rule(view: CircuitView) -> Iterator[Finding]:
    """Circuits that share a neutral are disconnected together (210.4(B)); their legs are the panel's to judge."""
    c, other = view.circuit, view.context.partner
    if other is None or c.id > other.id or (c.tied and other.tied):
        return
    partner = {"op": "set", "kind": "circuit", "id": other.id}
    yield about(
        view, "multiwire-tie", f"{view.name} and {other.name} are not tied",
        "A shared neutral stays live while one of them is on.", "210.4(B)",
        mends=[
            Mend("Handle tie", [change(view, tied=True), {**partner, "set": {"tied": True}}]),
            Mend("Each its own neutral", [change(view, partner=None), {**partner, "set": {"partner": None}}]),
        ],
    )  # fmt: skip


def feeder_rule(view: CircuitView) -> Iterator[Finding]:
    """A feeder: four wires, lugs that take its wire, electrode at another building (250.32, 225.30)."""
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
    order = [row["size"] for row in view.book.table("ch9-table8").rows]
    if c.wire_size in order and fed.lug_max in order and order.index(c.wire_size) > order.index(fed.lug_max):
        yield about(
            view, "lug-small", f"{c.wire_size} does not go into the lugs of {fed.name}",
            f"They take {fed.lug_max} at most. Splice down with listed connectors where there is room to bend.",
            "110.14(A), 312.6", measured=c.wire_size, limit=fed.lug_max,
        )  # fmt: skip
    if view.context.other_building:
        yield about(
            view, "electrode", f"{fed.name} is in another building",
            "Its own electrode (two rods 6 ft apart or more, No. 6 copper; a footing electrode that is there must be "
            "used) and a disconnect there.", "250.32, 250.53, 225.31",
        )  # fmt: skip


RULES: tuple[Rule[CircuitView], ...] = (
    chain_rule,
    plug_rule,
    frame_rule,
    sharing_rule,
    multiwire_rule,
    feeder_rule,
    drop_rule,
    count_rule,
)
