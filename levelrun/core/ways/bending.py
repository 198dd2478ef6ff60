"""A way bent through a place before it is taken: where it would go, what it would take, against what it takes now."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from levelrun.core.circuits.loads import all_loads
from levelrun.core.circuits.parts import Via
from levelrun.core.codebook import Codebook
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.measure import show
from levelrun.core.site.geometry import Point
from levelrun.core.ways.drawn_edits import Bend
from levelrun.core.ways.frame.drawn import PlanCable, plan_cables
from levelrun.core.ways.frame.found import Found, found_ways
from levelrun.core.ways.frame.graph import Frame
from levelrun.core.ways.frame.prices import prices_of, work_text

CATCH_IN = 12.0  # so near to a wall a dragged way snaps into it


@dataclass(frozen=True, kw_only=True)
class Bent:
    """A way as it would lie. `text`: feet and dollars, and how they differ from now; `edits`: what takes it."""

    text: str
    work: str
    length_in: float
    dollars: float
    cables: list[PlanCable]
    edits: list[dict[str, Any]]


def bent(job: Job, book: Codebook, circuit: str, box: str, level: str, spot: Point, at: str) -> Bent:
    """A hop's way drawn through a point of a level's plan: in the wall there, else in the joists it was drawn in.
    Raises EditError where it has no way, or gets none through there."""
    now = _one(job, book, circuit, box)
    if now.frame is None or now.route is None:
        raise EditError("this cable has no way of its own to bend", key="box", value=box)
    place = Via(level=level, x_in=round(spot[0], 2), y_in=round(spot[1], 2), at=_caught(now.frame, level, spot, at))
    edit: dict[str, Any] = {"op": "bend", "circuit": circuit, "box": box, "via": [place.model_dump()]}
    after = _one(Bend.model_validate(edit).apply(job, book), book, circuit, box)
    if after.route is None or after.frame is None:
        raise EditError("no cable gets through there", key="via", value=level)
    prices = prices_of(book, job.habits)
    dollars, before = prices.dollars(after.route.work), prices.dollars(now.route.work)
    length, more = after.route.length_in, after.route.length_in - now.route.length_in
    text = f"{show(round(length))}, ${dollars:.0f}"
    if abs(more) >= 1:
        text += f": {show(abs(round(more)))} {'more' if more > 0 else 'less'}, {_dollars(dollars - before)}"
    return Bent(
        text=text, work=work_text(after.route.work), length_in=length, dollars=dollars,
        cables=plan_cables([after], level), edits=[edit],
    )  # fmt: skip


def _dollars(more: float) -> str:
    return f"${abs(more):.0f} {'more' if more > 0 else 'less'}"


def _one(job: Job, book: Codebook, circuit: str, box: str) -> Found:
    loads = all_loads(job, book)
    if circuit not in loads:
        raise EditError(f"no circuit {circuit!r} in this job", key="circuit", value=circuit)
    found = found_ways(job, book, {circuit: loads[circuit]})[circuit].get(box)
    if found is None:
        raise EditError("this cable has no way of its own to bend", key="box", value=box)
    return found


def _caught(frame: Frame, level: str, spot: Point, at: str) -> Any:
    """In a wall within reach of the point, else in the joists."""
    for line in frame.lines:
        if line.level.id != level:
            continue
        t = min(max(line.place(spot), line.from_in), line.to_in)
        if math.dist(line.point(t), spot) <= CATCH_IN:
            return "wall"
    return at if at in ("over", "under") else "over"
