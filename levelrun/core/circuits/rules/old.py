"""Rules about a circuit that was there before and is drawn out: room in its box, a ground, what else is on it."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.catalogue import WEATHERPROOF, BoxModel, box_models
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.holding import HOLLOW, needed_volume
from levelrun.core.boxes.parts import OVERHEAD
from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.rules.wire import about, change
from levelrun.core.circuits.spaces import breaker_asked
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule

GROUNDED = (*HOLLOW, "equipment", "disconnect")
OFFERED = 2  # boxes of the catalogue that are offered as what stands there


def room_rule(view: CircuitView) -> Iterator[Finding]:
    """An old box from which a cable goes on has room for it (314.16(B)): asked until it is said what box it is."""
    for box in view.old:
        on = [hop for hop in view.circuit.chain if hop.after == box.id]
        if not on or box.kind not in HOLLOW or box.model:
            continue
        asked = {model: _needed(view, box, model) for model in box_models(view.book).values()}
        needed = min((volume for volume in asked.values() if volume is not None), default=None)
        if needed is None:  # wire that goes by other rules
            continue
        fits = [
            m for m, volume in asked.items()
            if m.gangs == box.gangs and m.round == _round(box) and (m.key != WEATHERPROOF or box.outdoors)
            and volume is not None and m.volume_in3 >= volume
        ]  # fmt: skip
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
    return box.kind in OVERHEAD


def _needed(view: CircuitView, box: Box, model: BoxModel) -> float | None:
    """Cubic inches that it asks, were it of this model, with what is known to enter it: the cable that feeds it and
    those that go on, which have a ground though the old one may have none. None where it goes by other rules."""
    size, grounded = view.circuit.wire_size, view.circuit.equipment_ground
    come = tuple(
        Entering(
            size=size, count=view.needs[link.box].count, ground=size if grounded or link.box != box.id else "",
            cable=True, side="", other="", circuit="",
        )
        for link in view.tree.links
        if box.id in (link.box, link.after)
    )  # fmt: skip
    needed = needed_volume(view.book, box, come, clamps=model.clamps)
    return None if needed is None else needed.needed_in3


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


def breaker_rule(view: CircuitView) -> Iterator[Finding]:
    """On which breaker an old circuit is, as long as nobody has said it."""
    if not breaker_asked(view.circuit, {box.id for box in view.old}):
        return
    box = view.old[0]
    yield about(
        view, "old-breaker", f"Which breaker is {box.name} on?",
        "Plug a lamp into it, or light it, and switch breakers off until it is dark; then prove it dead, for another "
        "circuit may pass through the same box. Write it into the panel's list, and say "
        f"`put {view.circuit.name} on 5`. Until then no space of the panel is counted for it.", "408.4(A)",
        measured="not said", limit="its breaker",
    )  # fmt: skip


def label_rule(view: CircuitView) -> Iterator[Finding]:
    """A GFCI that replaces an old outlet without a ground, and what it protects, say so (406.4(D)(2))."""
    if view.circuit.equipment_ground:
        return
    for box in view.old:
        if box.kind == "receptacle" and box.protects == "gfci":
            yield about(
                view, "old-label", f"Mark {box.name}: no equipment ground",
                "A GFCI may replace an outlet without a ground; it and every three-hole outlet that it protects are "
                "marked \"No Equipment Ground\", those also \"GFCI Protected\". No ground is run on from it. What "
                "wants a ground, a surge strip or a computer, still has none.", "406.4(D)(2)",
            )  # fmt: skip


RULES: tuple[Rule[CircuitView], ...] = (breaker_rule, room_rule, ground_rule, label_rule, else_rule)
