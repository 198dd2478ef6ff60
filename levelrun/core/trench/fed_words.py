"""What goes through a trench that is said with how deep, or in what pipe: the feed of the building at its end."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.circuits.feed_words import between, feed
from levelrun.core.codebook.lookups import methods
from levelrun.core.job import Circuit, Job, Trench
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.site.stands_in import buildings_of
from levelrun.core.trench.feeding import crossing_hops
from levelrun.core.ways.method_words import method_ahead

_IN = re.compile(r"\s+in\s+(?=\S)", re.IGNORECASE)
_DEEP = re.compile(r"\s*,?\s*(?P<n>\d+(?:\.\d+)?)\s*(?:\"|in)\s+deep\b", re.IGNORECASE)


def crossing(job: Job, one: str, other: str) -> list[Circuit]:
    """The circuits from one building to another of which no way is said yet."""
    where, ends = buildings_of(job), {one, other}
    return [
        circuit for circuit in job.circuits
        if any(
            not hop.path and {where[hop.after or circuit.panel], where[hop.box]} == ends
            for hop in crossing_hops(job, circuit)
        )
    ]  # fmt: skip


def pipe_here(reader: SceneReader) -> dict[str, Any] | None:
    """In 1" pvc: the pipe and its size, where that stands here, taken. None where none does."""
    reader.skip()
    said = method_ahead(reader.scene.book, reader.text[reader.pos : reader.line_end()])
    if said is None or methods(reader.scene.book)[said[0]].kind != "raceway":
        return None
    reader.pos += said[2]
    return {"method": said[0], **({"size": said[1]} if said[1] else {})}


def laid_through(job: Job, trench: str, one: str, other: str, lay: dict[str, Any]) -> list[dict[str, Any]]:
    """The edit that lays the only circuit between two buildings into a trench; none where there is none, or two."""
    through = crossing(job, one, other)
    if len(through) != 1:
        return []
    return [{"op": "lay_feed", "along": trench, "circuit": through[0].id, **lay}]


def fed_in(reader: SceneReader) -> Said | None:
    """Feed G from Main 60a in 1" pvc [18" deep]: through the trench that joins the two buildings. None where no pipe
    is said. Refuses where no trench joins them, or several do."""
    start, end = reader.pos, reader.line_end()
    if reader.phrase(["feed"]) is None:
        return None
    for match in _IN.finditer(reader.text, reader.pos, end):
        reader.pos = match.start()
        lay = pipe_here(reader)
        if lay is None:
            continue
        if (deep := reader.take(_DEEP)) is not None:
            lay["depth_in"] = float(deep["n"])
        behind = reader.pos
        head = SceneReader(reader.text[: match.start()])
        head.scene, head.pos = reader.scene, start
        head.phrase(["feed"])
        said = feed(head)
        if not head.over():
            return None
        edit = next(item for item in said.edits if item["op"] == "add")
        line = _joining(reader, edit["item"], match.end())
        reader.pos = behind
        return Said(
            [*said.edits, {"op": "lay_feed", "along": line.id, "circuit": edit["item"]["id"], **lay}],
            panel=said.panel, told=said.told,
        )  # fmt: skip
    reader.pos = start
    return None


def _joining(reader: SceneReader, circuit: dict[str, Any], at: int) -> Trench:
    """The trench between the building of a panel and that of the panel that it feeds."""
    job = reader.scene.job
    panels = {panel.id: panel for panel in job.panels}
    lines = between(job, panels[circuit["panel"]], panels[circuit["feeds"]])
    if len(lines) != 1:
        told = "no trench joins the two buildings" if not lines else f"{len(lines)} trenches join the two buildings"
        raise reader.refuse(f"{told}: say the trench first, or `lay` the feeder in it", at)
    return lines[0]
