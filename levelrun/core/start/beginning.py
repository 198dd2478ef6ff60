"""Where a line begins: a panel, or a box whose circuit is drawn out."""

from __future__ import annotations

from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.site.scene import SceneReader


def called_panels(reader: SceneReader) -> list[str]:
    """Panels as they are called on a line."""
    panels = reader.scene.job.panels
    return [p.name if p.name.lower().startswith("panel") else f"panel {p.name}" for p in panels]


def the_disconnect(job: Job) -> dict[str, Box]:
    """The only disconnect of a job, by that word."""
    found = [box for box in job.boxes if box.kind == "disconnect"]
    return {"disconnect": found[0]} if len(found) == 1 else {}


def from_box(reader: SceneReader, box: Box) -> tuple[Panel, Box, Circuit]:
    """The panel and the circuit of a box. Refuses one that is on none, or on two."""
    job = reader.scene.job
    found = [circuit for circuit in job.circuits if any(hop.box == box.id for hop in circuit.chain)]
    if len(found) != 1:
        on = " and ".join(circuit.name for circuit in found) or "no circuit"
        raise reader.refuse(f"{box.name} is on {on}; allowed: a box of one circuit, or a panel")
    return next(panel for panel in job.panels if panel.id == found[0].panel), box, found[0]
