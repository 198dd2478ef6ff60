"""Where a way lies: unrolled for the strip, and in plan, from its legs alone."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from levelrun.core.job import Box, Leg, Panel, Structure, Way
from levelrun.core.ways.unsaid import EARTH, OVERHEAD, climbs, down_to, up_to

Vector = tuple[int, int, int]
TURN = {"over": 0, "left": 1, "right": -1, "back": 2}
Climbs = Mapping[int, tuple[float, float]]
NONE: Climbs = {}
COMPASS: tuple[tuple[int, int], ...] = ((1, 0), (0, 1), (-1, 0), (0, -1))


@dataclass(frozen=True, kw_only=True)
class Placed:
    """One leg laid out, inches. x ways along the unrolled way, y up from the start's main floor.

    plan0, plan1: from above, the first heading along +x, left along +y. `bend_deg` is the turn made
    from the leg before (0, 90 or 180); `fold` is left, right or back where the heading changes there.
    from_y, met_y: where what is before it ends and what stands behind it is met, apart from y0 and y1 where nobody
    walked the climb.
    """

    index: int
    leg: Leg
    x0: float
    y0: float
    x1: float
    y1: float
    plan0: tuple[float, float]
    plan1: tuple[float, float]
    bend_deg: float
    fold: str
    from_y: float
    met_y: float

    @property
    def vertical(self) -> bool:
        """Goes up or down."""
        return self.leg.go in ("up", "down")


def entered_in(node: Panel | Box, edge: str) -> tuple[float, float]:
    """The lowest and the highest place at which a way enters a panel or box by an edge, in the heights of the
    structure; a box is a point. Empty: anywhere, the nearest."""
    if isinstance(node, Box):
        return node.height_in, node.height_in
    low, high = node.height_in, node.height_in + node.tall_in
    return {"top": (high, high), "bottom": (low, low)}.get(edge, (low, high))


def leaves_at(way: Way, start: Panel | Box, end: Panel | Box | None) -> float:
    """Where a way leaves its start: by the edge that is said, the middle of a side or the back; else by the nearest
    edge of a panel: upward by its top, unless only its bottom brings the way to its end, as over the ceiling; any
    other by its bottom."""
    low, high = entered_in(start, way.start_edge)
    if way.start_edge in ("side", "back"):
        return (low + high) / 2
    if low == high or not way.legs:
        return low
    if way.legs[0].go not in ("up", "down") and way.legs[0].place in OVERHEAD:
        return high
    if way.legs[0].go != "up":
        return low
    if end is None or end.structure != start.structure or way.legs[-1].end.edge:
        return high
    bottom, top = entered_in(end, "")

    def misses(y: float) -> float:
        reached = lay_out(way, y)[-1].y1
        return abs(reached - min(max(reached, bottom), top))

    return low if misses(low) < misses(high) else high


def lay_out(way: Way, start_height_in: float, unsaid: Climbs = NONE) -> list[Placed]:
    """Every leg of a way in place. `over` goes on in the heading; left, right and back turn it first. `unsaid`: by
    leg the climbs to it and from it that nobody walked, inches."""
    placed: list[Placed] = []
    x, y, heading = 0.0, start_height_in, 0
    plan = (0.0, 0.0)
    before: Vector | None = None
    for index, leg in enumerate(way.legs):
        heading = (heading + TURN.get(leg.go, 0)) % 4
        ahead = COMPASS[heading]
        vector: Vector = (0, 0, 1 if leg.go == "up" else -1) if leg.go in ("up", "down") else (*ahead, 0)
        flat = leg.length_in if vector[2] == 0 else 0.0
        to_it, from_it = unsaid.get(index, (0.0, 0.0))
        y0 = y + to_it
        x1, y1 = x + flat, y0 + vector[2] * leg.length_in
        plan1 = (plan[0] + ahead[0] * flat, plan[1] + ahead[1] * flat)
        fold = leg.go if leg.go in ("left", "right", "back") and index else ""
        placed.append(
            Placed(
                index=index,
                leg=leg,
                x0=x,
                y0=y0,
                x1=x1,
                y1=y1,
                plan0=plan,
                plan1=plan1,
                bend_deg=_angle(before, vector),
                fold=fold,
                from_y=y,
                met_y=y1 + from_it,
            )
        )
        x, y, plan, before = x1, y1 + from_it, plan1, vector
    return placed


def laid_out(
    way: Way, left_at_in: float, nodes: Mapping[str, Panel | Box], structures: Mapping[str, Structure]
) -> list[Placed]:
    """Every leg of a way where its place is, from what stands along it: with the climbs that nobody walked."""

    def gap(after: int, leg: Leg) -> float:
        node = nodes.get(way.start if after == 0 else way.legs[after - 1].end.node or "")
        structure = structures.get(node.structure) if node is not None else None
        if node is None or structure is None:
            return 0.0
        buried = leg.place in EARTH
        found = down_to(node, structure, leg.depth_in) if buried else up_to(node, structure, leg.place)
        if found is None or after:
            return found or 0.0
        edge = entered_in(node, "top" if found > 0 else "bottom")[0]
        return found + edge - left_at_in

    return lay_out(way, left_at_in, climbs(way.legs, gap))


def _angle(before: Vector | None, after: Vector) -> float:
    if before is None:
        return 0.0
    dot = sum(a * b for a, b in zip(before, after, strict=True))
    return {1: 0.0, 0: 90.0, -1: 180.0}[dot]
