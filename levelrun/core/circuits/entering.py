"""What boxes receive from the circuits that they are on."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from levelrun.core.boxes.entering import Entering
from levelrun.core.circuits.cables import cable_needs
from levelrun.core.circuits.chain import tree_of
from levelrun.core.circuits.distance import taped
from levelrun.core.circuits.spaces import label
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import ground_size, wire_sizes
from levelrun.core.job import Box, Circuit, Job


def from_circuits(book: Codebook, job: Job) -> dict[str, list[Entering]]:
    """What each box receives from the circuits that it is on, by box id, hop by hop; hops that a run has taped are
    left to the run."""
    known = frozenset(taped(job))
    boxes = {box.id: box for box in job.boxes}
    panels = {panel.id: panel.name for panel in job.panels}
    found: dict[str, list[Entering]] = {}
    for circuit in job.circuits:
        own = tuple(boxes[hop.box] for hop in circuit.chain if hop.box in boxes)
        done = frozenset(hop.box for hop in circuit.chain if (hop.after or circuit.panel, hop.box) in known)
        for box, item in _brought(book, circuit, own, panels[circuit.panel], done):
            found.setdefault(box, []).append(item)
    return found


@lru_cache(maxsize=1024)
def _brought(
    book: Codebook, circuit: Circuit, own: tuple[Box, ...], panel: str, done: frozenset[str]
) -> tuple[tuple[str, Entering], ...]:
    """The cables of one circuit at both of their ends; hops to boxes in `done` are left out."""
    if circuit.wire_size not in wire_sizes(book):
        return ()
    boxes = {box.id: box for box in own}
    tree = tree_of(circuit, {})
    needs = cable_needs(circuit, tree, boxes)
    ground = ground_size(book, circuit.breaker_a, circuit.material) if circuit.equipment_ground else ""
    found: list[tuple[str, Entering]] = []
    for link in tree.links:
        if link.box in done or link.box not in boxes:
            continue
        start = boxes[link.after].name if link.after in boxes else panel
        item = Entering(
            size=circuit.wire_size,
            count=needs[link.box].count,
            ground=ground,
            cable=circuit.method != "raceway",
            way="feed",
            other=start,
            circuit=label(circuit),
        )
        found.append((link.box, item))
        if link.after is not None:
            found.append((link.after, replace(item, way="load", other=boxes[link.box].name)))
    return tuple(found)
