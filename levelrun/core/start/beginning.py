"""Where a line begins: a panel, or a box whose circuit is drawn out."""

from __future__ import annotations

import re

from levelrun.core.circuits.spaces import spaces_of
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.site.called import USES
from levelrun.core.site.scene import SceneReader

KINDS = {
    "box": "", **dict.fromkeys(("outlet", "receptacle", "plug"), "receptacle"), "switch": "switch", "light": "light",
    "fan": "fan", **dict.fromkeys(("junction box", "junction"), "junction"),
}  # fmt: skip
_ANY = re.compile(r"\s*an?\s", re.IGNORECASE)
_LED = re.compile(r"\b(?:from|off|of|into|to)(?:[ \t]+the)?[ \t]*$", re.IGNORECASE)


_ON = re.compile(r"\s*on\s+(?:(?:circuit|space|breaker)\s+)?(?P<space>\d{1,2})(?![\d'\"/-]|\s*a)", re.IGNORECASE)


def called_panels(reader: SceneReader) -> list[str]:
    """Panels as they are called on a line."""
    panels = reader.scene.job.panels
    return [p.name if p.name.lower().startswith("panel") else f"panel {p.name}" for p in panels]


def the_disconnect(job: Job) -> dict[str, Box]:
    """The only disconnect of a job, by that word."""
    found = [box for box in job.boxes if box.kind == "disconnect"]
    return {"disconnect": found[0]} if len(found) == 1 else {}


def a_box(reader: SceneReader) -> Box | None:
    """A box by its name, a word for its kind before it or not, the only one of a kind by that: from switch S-1, from
    the switch. None where none stands here. Refuses several of a kind."""
    start, boxes = reader.pos, {**the_disconnect(reader.scene.job), **reader.boxes()}
    kind = None
    if (name := reader.phrase(boxes)) is None and (kind := reader.phrase(KINDS)) is not None:
        name = reader.phrase(boxes)
    if name is not None:
        return boxes[name]
    meant = kind is not None and _LED.search(reader.text[:start]) and not _ANY.match(reader.text, start)
    found = _of_a_kind(reader, KINDS[kind]) if kind is not None and meant else []
    if len(found) > 1:
        raise reader.refuse(f"there are {len(found)} of them: say which by its name", start, [b.name for b in found])
    if kind is not None and KINDS[kind] and meant and not found and reader.sees_length():
        raise reader.refuse(
            f"no {kind} is wired yet; what was there before is `from an existing {kind} in the hall on 5 15a`", start
        )
    reader.pos = reader.pos if found else start
    return found[0] if found else None


def _of_a_kind(reader: SceneReader, kind: str) -> list[Box]:
    """The boxes of a kind that are on a circuit; of a room where one is said."""
    on = {hop.box for circuit in reader.scene.job.circuits for hop in circuit.chain}
    found = [box for box in reader.scene.job.boxes if box.id in on and box.kind == kind]
    begin, rooms = reader.pos, reader.scene.rooms()
    if found and reader.phrase(("in", "of")) is not None:
        if (room := reader.phrase(rooms)) is not None:
            return [box for box in found if box.room == rooms[room].id]
        if (use := reader.phrase(USES)) is not None and any(box.use == USES[use] for box in found):
            return [box for box in found if box.use == USES[use]]
        reader.pos = begin
    if found and (said := _ON.match(reader.text, reader.pos)) is not None:  # the light on 12
        spaced = {c.id for c in reader.scene.job.circuits if int(said["space"]) in spaces_of(c)}
        reader.pos = said.end()
        return [box for box in found if (own := reader.circuit_of(box)) is not None and own.id in spaced]
    return found


def from_box(reader: SceneReader, box: Box) -> tuple[Panel, Box, Circuit]:
    """The panel and the circuit of a box. Refuses one that is on none, or on two."""
    job = reader.scene.job
    found = [circuit for circuit in job.circuits if any(hop.box == box.id for hop in circuit.chain)]
    if len(found) != 1:
        on = " and ".join(circuit.name for circuit in found) or "no circuit"
        raise reader.refuse(f"{box.name} is on {on}; allowed: a box of one circuit, or a panel")
    return next(panel for panel in job.panels if panel.id == found[0].panel), box, found[0]
