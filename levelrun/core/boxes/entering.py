"""What enters a box: cables with their wires, or single wires from a pipe."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable, cable_sizes, method
from levelrun.core.job import Job, Leg, Run


@dataclass(frozen=True)
class Entering:
    """One cable, or the wires of one pipe: `count` insulated wires of `size`, a ground, and where it comes from."""

    size: str
    count: int
    ground: str
    cable: bool
    way: str
    other: str
    circuit: str


def from_runs(book: Codebook, job: Job) -> dict[str, list[Entering]]:
    """What each box receives from the runs that touch it, by box id, in the order of the runs."""
    boxes = {box.id: box.name for box in job.nodes}
    found: dict[str, list[Entering]] = {}
    for run in job.runs:
        at: str | None = run.start
        first: Leg | None = None
        for leg in run.legs:
            first = first or leg
            if leg.end.node is None:
                continue
            if at is not None:
                found.setdefault(at, []).append(_entering(book, run, first, "load", boxes[leg.end.node]))
            found.setdefault(leg.end.node, []).append(_entering(book, run, leg, "feed", boxes[at] if at else ""))
            at, first = leg.end.node, None
    return found


def _entering(book: Codebook, run: Run, leg: Leg, way: str, other: str) -> Entering:
    kind = method(book, leg.method).kind
    if kind == "cable" and leg.size in cable_sizes(book, leg.method):
        made = cable(book, leg.method, leg.size)
        return Entering(leg.size.partition("-")[0], made.conductors, made.ground, True, way, other, run.circuit)
    return Entering(run.wire_size, run.conductors, run.wire_size, False, way, other, run.circuit)
