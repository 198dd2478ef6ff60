"""Rules about how a way gets from what stands over ground into the earth."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.mends import add_leg, riser, set_leg
from levelrun.core.ways.rules.cover import needed_cover

LEAST_IN = 12.0


def riser_rule(view: WayView) -> Iterator[Finding]:
    """A level leg in the earth that begins or ends at a panel or box which stands over ground: the feet between are
    not walked. They want a guard from 18 in under ground to 8 ft over it (300.5(D)(1))."""
    for index in view.indexes:
        if not is_buried(view.facts[index]) or view.placed[index].vertical:
            continue
        for place in (index, index + 1):
            node = view.nodes.get(view.node_at(place))
            structure = view.structures.get(node.structure) if node else None
            over = node.height_in - structure.grade_in if node and structure else 0.0
            if node is None or over < LEAST_IN:
                continue
            leg = view.way.legs[index]
            needed = needed_cover(view, index)
            down = over + (leg.depth_in if leg.depth_in is not None else needed.cover_in if needed else 0.0)
            yield finding(
                "riser-missing",
                view.way.id,
                index,
                f"No riser at {node.name}",
                f"{node.name} stands {show(over)} over ground, the pipe lies under it: {show(round(down))} of riser "
                "is not in the cut, and wants its guard where it can be hit.",
                "300.5(D)(1)",
                measured="none",
                limit=show(round(down)),
                mends=_riser(view, index, place, down),
            )


def _riser(view: WayView, index: int, place: int, down: float) -> list[Mend]:
    leg, first = view.way.legs[index], place == index
    made = riser(view, index, "down" if first else "up", down)
    if made is None:
        return []
    if first:
        edits = [add_leg(view, index, **made)]
    else:
        end = leg.end.model_dump()
        edits = [set_leg(view, index, end={"kind": "none", "node": None}), add_leg(view, place, **made, end=end)]
    return [Mend(f"Riser of {show(round(down))}", edits)]


RULES: tuple[Rule[WayView], ...] = (riser_rule,)
