"""Rules about what is on a circuit: receptacles against the breaker, appliances that share, chains."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from levelrun.core.boxes.parts import LAMPS, PLUGS
from levelrun.core.circuits.facts import BoxPlace, CircuitView
from levelrun.core.circuits.loads import GIVES
from levelrun.core.circuits.protection import asked
from levelrun.core.circuits.rules import wire
from levelrun.core.circuits.rules.wire import about, change, mended, rewired
from levelrun.core.circuits.usual import nema_of, usual_of
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule
from levelrun.core.site.parts import DWELLINGS
from levelrun.core.trade.conductors.sizing import choose

FOUR_WIRE = {"10-30": "14-30", "10-50": "14-50"}
FRAMES = ("range", "dryer")
SWITCHED = ("light", "fan", "equipment")
OUTLETS = ("receptacle", "device", "light", "fan", "equipment")
OWN_PLACES = {"bath": "210.11(C)(3)", "laundry": "210.11(C)(2)", "garage": "210.11(C)(4)"}
EXCEPT = {"garage": " Receptacles outdoors may join it.", "bath": " In one bath alone its other outlets may join."}
TWENTY_A = 20.0


def _set_box(box: Box, **values: object) -> dict[str, Any]:
    return {"op": "set", "kind": "box", "id": box.id, "set": values}


def split(view: CircuitView, boxes: list[Box], name: str) -> list[Mend]:
    """A mend that takes boxes off to a new circuit of the same panel, each with its switches and what these work;
    none where nothing would be left."""
    taken = with_switches(view, {box.id for box in boxes})
    links = [link for link in view.tree.links if link.box in taken]
    if len(links) == len(view.tree.links):
        return []
    ident = f"{view.circuit.id}-{boxes[0].id}"[:40]
    first = usual_of(view.book, boxes[0])
    own = len(boxes) == 1 and first.own
    item = {
        "id": ident, "name": name, "panel": view.circuit.panel,
        "breaker_a": first.breaker_a if own else view.circuit.breaker_a,
        "poles": first.poles if own else 1, "volts": first.volts if own else view.circuit.volts,
        "neutral": first.neutral if own else view.circuit.neutral,
        "wire_size": view.circuit.wire_size, "protection": _protection(view, taken),
    }  # fmt: skip
    edits: list[dict[str, Any]] = [{"op": "add", "kind": "circuit", "item": item}]
    for link in links:
        after = link.after if link.after in taken else None
        edits.append({"op": "chain", "circuit": ident, "boxes": [link.box], "after": after})
    return [Mend(f"Split off {', '.join(view.boxes[link.box].name for link in links[:3])}", edits)]


def _protection(view: CircuitView, boxes: set[str]) -> str:
    """The breaker that boxes want on a circuit of their own: what the place asks, and no less than they have now."""
    kinds = {item.kind for box in boxes for item in asked(view, view.boxes[box])} | GIVES[view.circuit.protection]
    return {(True, True): "dual", (True, False): "gfci", (False, True): "afci", (False, False): "plain"}[
        "gfci" in kinds, "afci" in kinds
    ]


def with_switches(view: CircuitView, boxes: set[str]) -> set[str]:
    """Boxes with the switches that work them, and with all that these switches work: a split takes no lamp from its
    switch and leaves no traveller behind."""
    taken = set(boxes)
    while True:
        more: set[str] = set()
        for box in taken:
            if view.boxes[box].kind == "switch":
                more |= set(view.tree.below(box)) | _mates(view, box)
            elif view.boxes[box].kind in SWITCHED:
                above = [link.box for link in view.tree.path(box)[:-1] if view.boxes[link.box].kind == "switch"]
                more |= set(above[-1:])
        if more <= taken:
            return taken
        taken |= more


def _mates(view: CircuitView, switch: str) -> set[str]:
    """The other three-ways and four-ways of a run of travellers."""
    if view.boxes[switch].ways == 2:
        return set()
    return {box.id for box in view.context.boxes if box.kind == "switch" and box.ways > 2}


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
        if view.dedicated(box) and len([b for b in boxes if b.kind not in ("disconnect", "junction")]) > 1:
            title = usual_of(view.book, box).title
            yield about(
                view, "sharing", f"{title} {box.name} shares its circuit",
                f"{len(boxes)} boxes hang on {view.name}.", "common practice, no source",
                measured=f"{len(boxes)} boxes", limit="1", mends=split(view, [box], title),
            )  # fmt: skip
    yield from _own_places(view)
    out = [b for b in boxes if _outdoors(view, b) and b.kind in PLUGS]
    lamps = [b for b in boxes if b.kind in LAMPS and not _outdoors(view, b)]
    if out and lamps:
        yield about(
            view, "outdoor-shares", "Outdoor outlets hang on indoor lights",
            f"A wet trip at {out[0].name} darkens {_room_of(view, lamps[0])}.",
            "common practice, no source", mends=split(view, out, "Outdoors"),
        )  # fmt: skip


def _room_of(view: CircuitView, box: Box) -> str:
    place = view.places.get(box.id)
    return place.room_name if place else "the room"


def _outdoors(view: CircuitView, box: Box) -> bool:
    place = view.places.get(box.id)
    return box.outdoors or (place is not None and place.use == "porch")


def _own_places(view: CircuitView) -> Iterator[Finding]:
    """What stands beside outlets whose circuit serves their place alone (210.52(B), 210.11(C))."""
    outlets = [(b, view.places[b.id]) for b in view.context.boxes if b.id in view.places and b.kind in OUTLETS]
    plugs = [(box, place) for box, place in outlets if box.kind in PLUGS and not view.dedicated(box)]
    kitchen = [box for box, place in plugs if _small_appliance(box, place)]
    if kitchen:
        away = [
            box for box, place in outlets if not _small_appliance(box, place) and not _in_kitchen(view, box, place)
        ]
        if away:
            yield about(
                view, "required-shares", f"A small-appliance circuit feeds {away[0].name}",
                f"{kitchen[0].name} is a kitchen or dining receptacle: its circuit serves such alone.",
                "210.52(B)(1), 210.52(B)(2)", mends=split(view, _alike(view, away), "General"),
            )  # fmt: skip
        return
    for use, section in OWN_PLACES.items():
        inside = [(box, place) for box, place in plugs if place.use == use and not box.outdoors]
        dwelling = use != "garage" or any(place.structure_kind in DWELLINGS for _, place in inside)
        if not inside or not dwelling:
            continue
        rooms = {place.room for _, place in inside}
        away = [box for box, place in outlets if not _belongs(use, box, place, rooms)]
        if away:
            yield about(
                view, "required-shares", f"The {use} circuit feeds {away[0].name}",
                f"Its receptacles stand on a 20 A circuit for the {use} alone.{EXCEPT.get(use, '')}", section,
                mends=split(view, _alike(view, away), "General"),
            )  # fmt: skip


def _alike(view: CircuitView, boxes: list[Box]) -> list[Box]:
    """Of boxes that go, those that may go together: of a bath, laundry or garage alone, or of none of these."""

    def place(box: Box) -> str:
        use = view.places[box.id].use
        return use if use in OWN_PLACES and box.kind in PLUGS else ""

    return [box for box in boxes if place(box) == place(boxes[0])]


def _small_appliance(box: Box, place: BoxPlace) -> bool:
    """A receptacle of kitchen, pantry or dining room, or over a counter there; not one for an appliance."""
    in_kitchen = place.use in ("kitchen", "dining") and box.serves in ("", "counter", "refrigerator")
    counter = box.serves == "counter" and place.use not in ("bath", "laundry", "garage", "shop", "utility")
    return box.kind in PLUGS and not box.outdoors and (in_kitchen or counter)


def _in_kitchen(view: CircuitView, box: Box, place: BoxPlace) -> bool:
    """An appliance of the kitchen beside its receptacles: whether it wants its own circuit is another finding."""
    return box.kind in PLUGS and place.use in ("kitchen", "dining") and view.dedicated(box)


def _belongs(use: str, box: Box, place: BoxPlace, rooms: set[str]) -> bool:
    """Whether an outlet may hang on the circuit of that place: receptacles of such places; in one bath alone its
    other outlets (210.11(C)(3) exception); by a garage receptacles outdoors (210.11(C)(4) exception 1)."""
    if box.kind in PLUGS and place.use == use and not box.outdoors:
        return True
    if use == "garage" and box.kind in PLUGS and box.outdoors:
        return True
    return use == "bath" and len(rooms) == 1 and place.room in rooms


def twenty_rule(view: CircuitView) -> Iterator[Finding]:
    """Receptacles that the code puts on 20 A: kitchen and dining, bath, laundry (210.11(C), 210.52(B)(1))."""
    c = view.circuit
    if c.breaker_a >= TWENTY_A or c.volts != 120:
        return
    here = [(box, view.places[box.id]) for box in view.plugs if box.id in view.places]
    for box, place in here:
        kitchen = _small_appliance(box, place) and box.serves != "refrigerator"
        section = "210.52(B)(1), 210.11(C)(1)" if kitchen else OWN_PLACES.get(place.use)
        if section is None or box.outdoors or place.structure_kind not in DWELLINGS or place.use == "garage":
            continue
        try:
            size = choose(view.book, replace(wire.demand(view), breaker_a=TWENTY_A)).size
        except LevelRunError:
            size = c.wire_size
        yield about(
            view, "required-20", f"{box.name} stands on {c.breaker_a:g} A",
            f"Receptacles of the {place.use} stand on 20 A.", section, measured=f"{c.breaker_a:g} A", limit="20 A",
            mends=mended(f"20 A on {size}", rewired(view, size, breaker_a=TWENTY_A)),
        )  # fmt: skip
        return


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
    plug_rule,
    frame_rule,
    sharing_rule,
    twenty_rule,
    multiwire_rule,
    feeder_rule,
    drop_rule,
    count_rule,
)
