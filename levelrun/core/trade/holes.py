"""Holes through framing."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError, unknown

ENGINEERED = "engineered"


@dataclass(frozen=True, kw_only=True)
class BoredHole:
    """Largest hole, inches (None: the maker's chart says), whether this one may be, whether a plate goes over it."""

    max_hole_in: float | None
    allowed: bool | None
    plate_needed: bool
    edge_in: float
    rule: str
    note: str


def bored_hole(
    book: Codebook, member: str, depth_in: float, hole_in: float, centred: bool = True, edge_in: float | None = None
) -> BoredHole:
    """A hole in a stud or joist.

    member: stud_bearing, stud, joist or engineered; depth_in the actual depth; edge_in from the edge of the member
    to the edge of the hole, where it is not centred. Source: IRC R602.6, R502.8; plate 300.4(A)(1).
    """
    rows = book.table("bored-holes").rows
    if member not in (*(row["member"] for row in rows), ENGINEERED):
        raise unknown("member", member, [*(row["member"] for row in rows), ENGINEERED])
    if not centred and edge_in is None:
        raise LevelRunError(
            "edge_in is needed where the hole is not centred; allowed: inches from edge to hole", key="edge_in"
        )
    edge = (depth_in - hole_in) / 2 if centred or edge_in is None else edge_in
    plate = edge < book.number("plate_edge_in") - 1e-9
    if member == ENGINEERED:
        note = "maker's chart: ask for it; never through a flange"
        return BoredHole(
            max_hole_in=None, allowed=None, plate_needed=plate, edge_in=edge, rule="maker's chart", note=note
        )
    row = book.table("bored-holes").get(member)
    margin = float(row["edge_in"])
    most = max(min(float(row["share"]) * depth_in, depth_in - 2 * margin), 0.0)
    other_edge = depth_in - hole_in - edge
    allowed = hole_in <= most + 1e-9 and min(edge, other_edge) >= margin - 1e-9
    return BoredHole(
        max_hole_in=most,
        allowed=allowed,
        plate_needed=plate,
        edge_in=edge,
        rule=f"{row['section']}; 300.4(A)(1)",
        note="",
    )
