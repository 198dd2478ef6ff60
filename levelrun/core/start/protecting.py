"""What the breaker of a line gives: what the places of all its boxes ask."""

from __future__ import annotations

from typing import Any

from levelrun.core.circuits.places import box_places
from levelrun.core.circuits.protection import wanted_protection
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job
from levelrun.core.start.asked import Asked
from levelrun.core.start.several import added


def protect(job: Job, book: Codebook, said: Asked, edits: list[dict[str, Any]]) -> None:
    """Gives the breaker of a circuit that these edits put there what the places of all its boxes ask, where the line
    does not say it. Once everything that hangs on it is there: an outlet behind a light may want what that does
    not."""
    there = {circuit.id for circuit in job.circuits}
    for item in added(edits, "circuit") if not said.kind.feeds else ():
        if item["id"] not in there and "protection" not in item:
            item["protection"] = _wanted_of(job, book, said, item, edits)


def _wanted_of(
    job: Job, book: Codebook, said: Asked, item: dict[str, Any], edits: list[dict[str, Any]]
) -> str:  # fmt: skip
    boxes = tuple(Box.model_validate(box) for box in added(edits, "box"))
    if said.there is not None and isinstance(said.there.node, Box):
        boxes = (*boxes, said.there.node)
    ways = {**item, "chain": [{**hop, "path": []} for hop in item["chain"]]}
    there = job.model_copy(update={"boxes": boxes})
    places = box_places(book, (), there)
    return wanted_protection(book, job, said.panel, Circuit.model_validate(ways), boxes, places)
