"""The end of a line that stands in the job already: a sub-panel, an inlet or a charger put there before, to which the
line says the way."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Any

from levelrun.core.circuits.feed_words import feeding_a
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.site.naming import bare_panel
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.kinds import ENDS, KINDS, WIRED, Kind

Node = Box | Panel
_BEFORE = r"to\s+(?:(?:the|its)\s+)?(?:(?:box|panel|sub-?panel)\s+)?"
_LEG_NEXT = re.compile(r"[\s,;]*(?:(?:then|and)\s+)?(?:up|down|over|left|right|back|\d)", re.IGNORECASE)
_ALIKE = ("kind", "serves")


@dataclass(frozen=True)
class Loose:
    """A node to which no way is said yet, with its circuit, where it is on one, and the boxes of that from where the
    line begins to it, in order."""

    node: Node
    on: Circuit | None
    ends: tuple[str, ...]


def named_ahead(job: Job, text: str, begin: Node) -> re.Match[str] | None:
    """Where the text goes to a panel or a box of the job by its name, as its last place: no leg follows it."""
    names = {node.name for node in job.nodes if node.id != begin.id}
    if not names:
        return None
    known = "|".join(re.escape(name) for name in sorted(names, key=len, reverse=True))
    found = re.finditer(rf"\b{_BEFORE}(?P<name>{known})(?![\w-])", text, re.IGNORECASE)
    return next((match for match in found if _LEG_NEXT.match(text, match.end()) is None), None)


def node_here(reader: SceneReader, begin: Node) -> Node | None:
    """The panel or box of the job that is named here after `to`, taken; None where none is."""
    reader.skip()
    job = reader.scene.job
    match = named_ahead(job, reader.text[reader.pos : reader.line_end()], begin)
    if match is None or match.start():
        return None
    reader.pos += match.end()
    return next(node for node in job.nodes if node.name.casefold() == match["name"].casefold())


def loose(reader: SceneReader, node: Node, begin: Node, at: int) -> Loose:
    """What is known of it. Refuses one to which a way is said, and one that something else feeds."""
    job = reader.scene.job
    on = [c for c in job.circuits if any(hop.box == node.id for hop in c.chain) and c.panel != node.id]
    if not on:
        return Loose(node, None, (node.id,))
    circuit, after = on[0], {hop.box: hop for hop in on[0].chain}
    ends, here = [node.id], after[node.id]
    while here.after is not None and here.after != begin.id and here.after in after.keys() - set(ends):
        ends.append(here.after)
        here = after[here.after]
    start = here.after or circuit.panel
    if start != begin.id:
        fed = next((item.name for item in job.nodes if item.id == start), "elsewhere")
        raise reader.refuse(f"{node.name} is fed from {fed}, on {circuit.name}: say the way from there", at)
    if any(after[end].path for end in ends):
        raise reader.refuse(f"the way to {node.name} is said already; change it on Runs, or go on from it", at)
    return Loose(node, circuit, tuple(reversed(ends)))


def standing_alike(job: Job, kind: Kind, begin: Node, called: str) -> Node | None:
    """The one box of a kind to which no way is said yet, or such a panel that is called so or stands in the building
    of that name; None where none stands there, or several do."""
    pathed = {hop.box for circuit in job.circuits for hop in circuit.chain if hop.path}
    found: list[Node]
    if kind.feeds:
        inside = {item.id for item in job.structures if item.name.casefold() == called.casefold()}
        found = [
            panel for panel in job.panels
            if panel.id not in {*pathed, begin.id}
            and (panel.structure in inside or bare_panel(panel.name) == bare_panel(called))
        ]  # fmt: skip
    else:
        found = [
            box for box in job.boxes if box.room is None and box.id not in {*pathed, begin.id} and is_alike(box, kind)
        ]
    return found[0] if len(found) == 1 else None


def kind_of(node: Node) -> Kind:
    """The kind of end that a panel or box is."""
    if isinstance(node, Panel):
        return replace(ENDS["sub-panel"], breaker_a=feeding_a(node))
    kinds = (*(kind for kind in KINDS if not kind.feeds), *WIRED.values())
    usual = ENDS["outlet"] if node.kind == "receptacle" else ENDS["machine"]
    own = [kind for kind in kinds if kind.box.get("serves") and is_alike(node, kind)]
    plain = [kind for kind in kinds if not kind.box.get("serves") and not node.serves and is_alike(node, kind)]
    found = next(iter((*own, *plain)), usual)
    return found if own or not node.serves else replace(found, box={**found.box, "serves": node.serves})


def is_alike(box: Box, kind: Kind) -> bool:
    """Whether a box is what stands at such an end."""
    return all(getattr(box, key) == kind.box.get(key, "") for key in _ALIKE)


def said_anew(circuit: Circuit) -> dict[str, Any]:
    """What of a circuit that is there a line to its end goes by, as if it had been said."""
    fields = ("volts", "poles", "breaker_a", "neutral", "nameplate", "material")
    more = ("least_ampacity_a", "largest_breaker_a", "load_a")
    values = {name: getattr(circuit, name) for name in fields}
    return values | {name: value for name in more if (value := getattr(circuit, name)) is not None}
