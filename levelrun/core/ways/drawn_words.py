"""Sentences that bend ways that draw themselves: `way 9 by crawl`, `way R-4 over top`, `way 9 straight`."""

from __future__ import annotations

from typing import Any

from levelrun.core.errors import TextError
from levelrun.core.job import Circuit
from levelrun.core.site.scene import Said, SceneReader

SCHOOLS = {
    "by crawl": "under", "by basement": "under", "under": "under", "down and under": "under",
    "over top": "over", "by attic": "over", "by ceiling": "over", "up and over": "over",
    "through studs": "studs", "by studs": "studs", "cheapest": "cheapest", "over the top": "over",
    "through attic": "over", "through the attic": "over", "through the ceiling": "over", "over the ceiling": "over",
    "through the studs": "studs", "through the walls": "studs", "under the floor": "under", "down under": "under",
    "through the crawl": "under", "through crawl": "under", "through the basement": "under", "by the crawl": "under",
    "through the crawl space": "under", "the cheapest way": "cheapest",
}  # fmt: skip
STRAIGHT = "straight"


def bend(reader: SceneReader) -> Said | None:
    """way CIRCUIT|BOX by crawl|over top|through studs|cheapest|straight: how its cables go; straight takes back what
    was said or drawn. None where no circuit or box stands here."""
    start = reader.pos
    job, panel = reader.scene.job, reader.scene.panel
    names = {node.id: node.name for node in job.nodes}
    named: dict[str, tuple[Circuit, str | None]] = {
        names[hop.box]: (circuit, hop.box) for circuit in job.circuits for hop in circuit.chain
    }
    for circuit in job.circuits:
        named[circuit.name] = (circuit, None)
        if circuit.space and panel is not None and circuit.panel == panel.id:
            named[reader.circuit_label(circuit)] = (circuit, None)
    word = reader.phrase(named)
    if word is None:
        return None
    reader.phrase(("goes", "go", "runs", "run"))
    how = reader.phrase((*SCHOOLS, STRAIGHT))
    if how is None:
        if reader.over():
            raise reader.fail("how it goes: over top, by crawl, through studs, cheapest or straight")
        reader.pos = start
        return None
    circuit, box = named[word]
    edit: dict[str, Any] = {"op": "bend", "circuit": circuit.id, "box": box, "school": SCHOOLS.get(how, "")}
    if how == STRAIGHT:
        edit["via"] = []
    return Said([edit], panel=circuit.panel)


def sent(reader: SceneReader) -> Said | None:
    """Run circuit 9 through the attic; 9 goes under the floor; send R-4 over the top."""
    reader.phrase(("run", "send", "reroute", "take"))
    reader.phrase(("circuit", "box"))
    start = reader.pos
    try:
        return bend(reader)
    except TextError:
        reader.pos = start
        return None
