"""Rules about a circuit that was there before and is drawn out: room in its box, a ground, what else is on it."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.catalogue import WEATHERPROOF, box_models
from levelrun.core.boxes.volume import Counted, box_volume
from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.rules.wire import about, change
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule

HOLLOW = ("receptacle", "switch", "device", "junction", "light", "fan", "smoke")
STRAPPED = ("receptacle", "switch", "device")
GROUNDED = (*HOLLOW, "equipment", "disconnect")
OFFERED = 2  # boxes of the catalogue that are offered as what stands there


def room_rule(view: CircuitView) -> Iterator[Finding]:
    """An old box from which a cable goes on has room for it (314.16(B)): asked until it is said what box it is."""
    for box in view.old:
        on = [hop for hop in view.circuit.chain if hop.after == box.id]
        if not on or box.kind not in HOLLOW or box.model:
            continue
        needed = _needed(view, box, len(on), False)
        models = [
            m for m in box_models(view.book).values()
            if m.gangs == box.gangs and m.round == _round(box) and (m.key != WEATHERPROOF or box.outdoors)
        ]  # fmt: skip
        fits = [m for m in models if m.volume_in3 >= _needed(view, box, len(on), m.clamps)]
        fits.sort(key=lambda model: model.volume_in3)
        edit = {"op": "set", "kind": "box", "id": box.id}
        yield about(
            view, "old-room", f"Does {box.name} hold one cable more?",
            f"With one cable in it and {len(on)} more it asks {needed:g} in³; old boxes often hold 10 to 14. Look "
            "before it is planned on, and count the cables that are there.", "314.16(B)",
            measured="not said", limit=f"{needed:g} in³",
            mends=[Mend(f"It is {m.name}", [{**edit, "set": {"model": m.key}}]) for m in fits[:OFFERED]],
        )  # fmt: skip


def _round(box: Box) -> bool:
    return box.kind in ("light", "fan", "smoke")


def _needed(view: CircuitView, box: Box, more: int, clamps: bool) -> float:
    """Cubic inches that its device, the cable that feeds it and so many more ask, and clamps inside of it."""
    size, cables = view.circuit.wire_size, 1 + more
    wires = sum(view.needs[link.box].count for link in view.tree.links if box.id in (link.box, link.after))
    devices = [Counted(size, box.gangs)] if box.kind in STRAPPED else []
    ground = Counted(size, cables if view.circuit.equipment_ground else more)
    return box_volume(view.book, [Counted(size, max(wires, 2 * cables))], devices, ground, clamps).needed_in3


def ground_rule(view: CircuitView) -> Iterator[Finding]:
    """What is added to an old circuit has a ground (250.130(C)); a GFCI without one only replaces what is there."""
    added = [box for box in view.context.boxes if not box.old and box.kind in GROUNDED]
    if not view.old or view.circuit.equipment_ground or not added:
        return
    names = ", ".join(box.name for box in added[:4])
    yield about(
        view, "old-ground", f"{names}: {view.circuit.name} has no ground",
        "A new outlet wants one: a wire of its own to the ground bar of the panel, to its electrode conductor or to "
        "another circuit of that panel. A GFCI without a ground may replace an old outlet; it makes no ground for "
        "a new one.", "250.130(C), 406.4(D)",
        measured="no ground", limit="a ground",
        mends=[Mend("A ground of its own to the panel", [change(view, equipment_ground=True)])],
    )  # fmt: skip


def else_rule(view: CircuitView) -> Iterator[Finding]:
    """What else is on an old circuit is not known, nor how long it is."""
    if view.old and len(view.old) < len(view.context.boxes):
        yield about(
            view, "old-else", f"What else is on {view.circuit.name}?",
            "Switch its breaker off and see what goes dark: all of that loads it too. How far it comes is not known, "
            "so the drop up to the old box is not counted.", "common practice, no source",
        )  # fmt: skip


RULES: tuple[Rule[CircuitView], ...] = (room_rule, ground_rule, else_rule)
