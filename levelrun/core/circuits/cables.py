"""Wires of each cable of a chain: feed, switched legs, travellers, and a neutral at every switch (404.2(C))."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from levelrun.core.boxes.parts import is_live, is_worked
from levelrun.core.circuits.chain import Link, Tree
from levelrun.core.job import Box, Circuit


@dataclass(frozen=True)
class CableNeed:
    """The wires of one cable without ground, and what each is for."""

    count: int
    words: tuple[str, ...]


def cable_needs(circuit: Circuit, tree: Tree, boxes: Mapping[str, Box]) -> dict[str, CableNeed]:
    """What each link carries, by the box that it goes to."""
    return {link.box: _need(circuit, tree, boxes, link) for link in tree.links}


def _need(circuit: Circuit, tree: Tree, boxes: Mapping[str, Box], link: Link) -> CableNeed:
    if circuit.volts != 120:
        hots = ("hot", "hot")
        return CableNeed(3, (*hots, "neutral")) if circuit.neutral else CableNeed(2, hots)
    above = boxes.get(link.after) if link.after else None
    box = boxes.get(link.box)
    if box is None:
        return CableNeed(2, ("hot", "neutral"))
    words = ["neutral"]
    below = [boxes[item] for item in tree.below(link.box) if item in boxes]
    live = any(is_live(item) for item in below)
    if _between_ways(above, box, below):
        words += ["traveller", "traveller"]
        if any(
            other.after == link.after and is_worked(boxes[other.box]) for other in tree.links if other.box in boxes
        ):
            words.append("switched hot")  # the light hangs on the first switch: its hot comes back from the second
        if any(is_live(item) and item.kind != "switch" for item in below):
            words.append("hot")
    elif above is not None and above.kind == "switch" and is_worked(box):
        others = sum(
            other.after == link.after and other.box != link.box and is_worked(boxes[other.box])
            for other in tree.links
            if other.box in boxes
        )
        worked = ["switched hot"] * _switched(above, box, others)
        # to an outlet the red one is that of the switch
        words += [*["hot"] * live, *worked] if box.switched else [*worked, *["hot"] * live]
    elif above is not None and above.kind == "smoke" and box.kind == "smoke":
        words += ["hot", "interconnect"]
    elif above is not None and is_worked(above) and box.kind == "switch":
        behind = [boxes[other.box] for other in tree.links if other.after == link.box and other.box in boxes]
        # what hangs behind it is what it works; where nothing does, it works the light that it hangs on
        words += ["hot"] if any(map(is_worked, behind)) else ["hot", "switched hot"]
    elif above is not None and is_worked(above) and is_worked(box):
        words.append("switched hot")
        words += ["hot"] * live
    elif _goes_past(tree, boxes, link):  # to a switched outlet behind one that is always on
        words += [*["hot"] * live, "switched hot"]
    else:
        words.append("hot")
    return CableNeed(len(words), tuple(words))


def _between_ways(above: Box | None, box: Box, below: list[Box]) -> bool:
    """A cable between two switches that work the same light."""
    return above is not None and above.kind == "switch" and above.ways > 2 and box.kind == "switch" and box.ways > 2


def _goes_past(tree: Tree, boxes: Mapping[str, Box], link: Link) -> bool:
    """Whether an outlet that a switch works hangs here, or behind, on a switch before it that is not the last."""
    path = [boxes[item.box] for item in tree.path(link.box) if item.box in boxes]
    if link.after is None or path[-1].kind == "switch" or not any(box.kind == "switch" for box in path):
        return False
    return any(
        boxes[item].switched and not any(boxes[on.box].kind == "switch" for on in tree.path(item)[len(path) : -1])
        for item in tree.below(link.box)
        if item in boxes
    )


def _switched(switch: Box, lamp: Box, others: int) -> int:
    """A fan with its light has two switched hots where its switch has two gangs for it; with a heater three, of
    three. `others`: lamps that hang on that switch by cables of their own, each on a gang."""
    most = 3 if lamp.serves == "bath_heater" else 2
    return min(max(switch.gangs - others, 1), most) if lamp.kind == "fan" else 1
