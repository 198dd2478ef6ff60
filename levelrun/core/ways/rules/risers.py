"""Rules about how a way gets from what stands in a wall to where it lies: into the earth, over a ceiling, under a
floor."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.mends import add_leg, riser, set_leg
from levelrun.core.ways.rules.cover import lies_deep
from levelrun.core.ways.unsaid import LEAST_IN, OVERHEAD, UNDERFOOT, up_to


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
            down = over + lies_deep(view, index)
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


IN_WALLS = ("receptacle", "switch", "device", "equipment")  # what stands in a wall and hangs from no ceiling


def climb_rule(view: WayView) -> Iterator[Finding]:
    """A level leg over a ceiling or under a floor that begins or ends at a panel or box in the wall: the feet between
    are in its tape, or they are forgotten. Nobody can tell which, so it is told and not asked (common practice, no
    source: the climb is what a cable is cut short by)."""
    for index in view.indexes:
        leg = view.way.legs[index]
        if view.placed[index].vertical or leg.place not in (*OVERHEAD, *UNDERFOOT):
            continue
        ends = [(place, _climb(view, leg.place, place)) for place in (index, index + 1)]
        told = [
            f"{show(round(gap))} {'up' if (leg.place in OVERHEAD) == (place == index) else 'down'} at {name}"
            for place, found in ends
            if found is not None
            for name, gap in (found,)
        ]
        if told:
            title = view.facts[index].title.lower()
            yield finding(
                "climb-unsaid",
                view.way.id,
                index,
                f"Are {' and '.join(told)} in the {show(leg.length_in)}?",
                f"Leg {index + 1} goes by the {title} with no leg up or down beside it. What is not in its length is "
                "cut short in the panel.",
                "common practice, no source",
                measured=show(leg.length_in),
            )


def _climb(view: WayView, lies_in: str, place: int) -> tuple[str, float] | None:
    """What stands at a place of the way, and the inches from it to the ceiling over it, or to the floor under it;
    None where nothing stands there in a wall, or it is less than a foot."""
    node = view.nodes.get(view.node_at(place))
    structure = view.structures.get(node.structure) if node else None
    if node is None or structure is None or (isinstance(node, Box) and node.kind not in IN_WALLS):
        return None
    gap = up_to(node, structure, lies_in)
    return (node.name, abs(gap)) if gap is not None else None


RULES: tuple[Rule[WayView], ...] = (riser_rule, climb_rule)
