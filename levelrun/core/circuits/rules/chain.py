"""Rules about a circuit's chain: boxes hang on the panel, three-ways come in pairs, no hop is too short."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.rules.wire import about, change
from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule

APART_IN = 12.0


def short_rule(view: CircuitView) -> Iterator[Finding]:
    """A hop is not taped shorter than its ends stand apart."""
    known = dict(view.context.apart)
    for hop in view.circuit.chain:
        if hop.length_in is None or hop.box not in known or hop.length_in >= known[hop.box] - APART_IN:
            continue
        name, least = view.name_of(hop.box), known[hop.box]
        hops = [
            {**h.model_dump(), "length_in": None if h.box == hop.box else h.length_in} for h in view.circuit.chain
        ]
        yield about(
            view, "hop-short", f"The cable to {name} is taped {show(hop.length_in)}",
            f"Its ends stand {show(round(least))} apart in a straight line.", "common practice, no source",
            measured=show(hop.length_in), limit=show(round(least)),
            mends=[Mend("As they stand", [change(view, chain=hops)])],
        )  # fmt: skip


def chain_rule(view: CircuitView) -> Iterator[Finding]:
    """Every box of the chain hangs on the panel; three-ways come in pairs."""
    for box_id in view.tree.broken:
        box = view.boxes.get(box_id)
        name = box.name if box else box_id
        hops = [{**h.model_dump(), "after": None if h.box == box_id else h.after} for h in view.circuit.chain]
        yield about(
            view, "chain-broken", f"{name} hangs on nothing", "Its cable starts at a box that is not on this chain, "
            "or the chain runs in a loop.", "common practice, no source",
            mends=[Mend("Hang it on the panel", [change(view, chain=hops)])],
        )  # fmt: skip
        return
    ways = [box for box in view.context.boxes if box.kind == "switch" and box.ways == 3]
    if len(ways) % 2:
        single = {"op": "set", "kind": "box", "id": ways[-1].id, "set": {"ways": 2}}
        yield about(
            view, "three-way-lone", f"{ways[-1].name} has no partner", "Three-ways come in pairs on one circuit.",
            "404.2(A)", mends=[Mend("Make it single-pole", [single])],
        )  # fmt: skip


RULES: tuple[Rule[CircuitView], ...] = (chain_rule, short_rule)
