"""Boxes that go off to a circuit of their own: a mend that takes no lamp from its switch."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.loads import GIVES
from levelrun.core.circuits.protection import asked
from levelrun.core.circuits.usual import Usual, usual_of
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Mend
from levelrun.core.job import Box
from levelrun.core.trade.conductors.sizing import Demand, choose

SWITCHED = ("light", "fan", "equipment")


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
        "poles": first.poles if own else view.circuit.poles, "volts": first.volts if own else view.circuit.volts,
        "neutral": first.neutral if own else view.circuit.neutral,
        "wire_size": _wire(view, first) if own else view.circuit.wire_size, "protection": _protection(view, taken),
    }  # fmt: skip
    edits: list[dict[str, Any]] = [{"op": "add", "kind": "circuit", "item": item}]
    for link in links:
        after = link.after if link.after in taken else None
        edits.append({"op": "chain", "circuit": ident, "boxes": [link.box], "after": after})
    return [Mend(f"Split off {', '.join(view.boxes[link.box].name for link in links[:3])}", edits)]


def _wire(view: CircuitView, usual: Usual) -> str:
    """The wire that goes with the breaker of an appliance on a circuit of its own."""
    amps = usual.breaker_a
    demand = Demand(load_a=amps, breaker_a=amps, volts=float(usual.volts), material=view.circuit.material)
    try:
        return choose(view.book, replace(demand, wiring=view.circuit.method)).size
    except LevelRunError:
        return view.circuit.wire_size


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
            elif view.boxes[box].kind in SWITCHED or view.boxes[box].switched:
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
