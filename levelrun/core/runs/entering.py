"""What boxes receive from the runs that touch them."""

from __future__ import annotations

from functools import lru_cache

from levelrun.core.boxes.entering import Entering
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import Cable, cable, cable_sizes, method
from levelrun.core.job import Job, Leg, Run


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
    made = _made(book, leg.method, leg.size)
    if made is not None:
        return Entering(
            size=leg.size.partition("-")[0],
            count=made.conductors,
            ground=made.ground,
            cable=True,
            way=way,
            other=other,
            circuit=run.circuit,
        )
    return Entering(
        size=run.wire_size,
        count=run.conductors,
        ground=run.wire_size,
        cable=False,
        way=way,
        other=other,
        circuit=run.circuit,
    )


@lru_cache(maxsize=512)
def _made(book: Codebook, key: str, size: str) -> Cable | None:
    """The cable of a leg, where it is one that is made."""
    if method(book, key).kind == "cable" and size in cable_sizes(book, key):
        return cable(book, key, size)
    return None
