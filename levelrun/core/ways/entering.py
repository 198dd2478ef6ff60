"""What boxes receive from the hops that start, end or pass in them."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from levelrun.core.boxes.entering import Entering
from levelrun.core.circuits.loads import HopWires
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import Cable, cable, cable_sizes, method
from levelrun.core.job import Box, Job, Leg, Panel, Way
from levelrun.core.kept import Standing
from levelrun.core.ways.contexts import Lying, Woven
from levelrun.core.ways.facts import in_pipe
from levelrun.core.ways.stretch import Stretch

_brings = Standing[list[tuple[str, Entering]]](2048)


def entering(book: Codebook, job: Job, woven: Woven) -> dict[str, tuple[Entering, ...]]:
    """What each box receives, by box id, circuit by circuit, hop by hop."""
    nodes = {node.id: node for node in job.nodes}
    found: dict[str, list[Entering]] = {}
    for circuit in job.circuits:
        item = woven.lying[circuit.id]
        ends = (nodes[circuit.panel], nodes.get(circuit.feeds or ""))
        brought = _brings.get(
            circuit.id,
            (book, item, *ends),
            lambda item=item: _brought(book, item, nodes),  # type: ignore[misc]
        )
        for box, one in brought:
            found.setdefault(box, []).append(one)
    return {box: tuple(items) for box, items in found.items()}


def _brought(book: Codebook, item: Lying, nodes: Mapping[str, Panel | Box]) -> list[tuple[str, Entering]]:
    """What the hops of a circuit bring: each to its box, to where it starts, and to the boxes that it passes."""
    found: list[tuple[str, Entering]] = []
    for box, laid in item.laid.items():
        path, wires = item.paths.get(box, ()), laid.wires
        first, last = _end_legs(item.ways, path, wires)
        start, end = nodes[wires.start].name, nodes[wires.box].name
        found += [
            (wires.box, _entering(book, wires, last, "feed", start)),
            (wires.start, _entering(book, wires, first, "load", end)),
        ]
        found += [(node, _entering(book, wires, None, "through", end)) for node in _passed(item.ways, path, wires)]
    return found


def _end_legs(ways: Mapping[str, Way], parts: tuple[Stretch, ...], wires: HopWires) -> tuple[Leg | None, Leg | None]:
    """The legs in which a hop leaves its start and reaches its box."""
    path = [part for part in parts if part.last >= part.first]
    if not path:
        return None, None
    head, tail = path[0], path[-1]
    first, last = ways[head.way].legs[head.first], ways[tail.way].legs[tail.last]
    backward_head = _stands_at(ways[head.way], head.last + 1) == wires.start
    backward_tail = _stands_at(ways[tail.way], tail.first) == wires.box
    if backward_head:
        first = ways[head.way].legs[head.last]
    if backward_tail:
        last = ways[tail.way].legs[tail.first]
    return first, last


def _stands_at(way: Way, place: int) -> str | None:
    return way.start if place == 0 else way.legs[place - 1].end.node


def _passed(ways: Mapping[str, Way], path: tuple[Stretch, ...], wires: HopWires) -> list[str]:
    """Boxes that its wires go through without a splice, in pipe."""
    found: list[str] = []
    for part in path:
        for place in range(part.first, part.last + 2):
            node = _stands_at(ways[part.way], place)
            if node is not None and node not in (wires.start, wires.box, *found):
                found.append(node)
    return found


def _entering(book: Codebook, wires: HopWires, leg: Leg | None, side: str, other: str) -> Entering:
    made = None
    cabled = wires.method != "raceway" if leg is None else not in_pipe(book, leg)
    if side != "through" and cabled:
        size = f"{wires.wire_size}-{wires.conductors}"
        made = _made(book, leg.method, leg.size) if leg is not None else _made(book, wires.method, size)
    if made is not None and leg is not None:
        gauge, count, ground = leg.size.partition("-")[0], made.conductors, made.ground
    elif made is not None:
        gauge, count, ground = wires.wire_size, wires.conductors, made.ground if wires.grounded else ""
    else:
        gauge, count, ground = wires.wire_size, wires.conductors, wires.ground
    return Entering(
        size=gauge,
        count=count,
        ground="" if side == "through" else ground,
        cable=made is not None or (cabled and side != "through"),
        side=side,
        other=other,
        circuit=wires.label,
        words=wires.words,
        material=wires.material,
        what=f"{made.size} {made.method}" if made is not None else "",
        hop=(wires.circuit, wires.box),
        metal=_in_metal(book, wires, leg),
    )


def _in_metal(book: Codebook, wires: HopWires, leg: Leg | None) -> bool:
    """Whether it comes in pipe of metal or in armour; pipe of which nobody says what it is, is steel tubing."""
    if leg is not None:
        return method(book, leg.method).metal and not leg.sleeve
    return wires.method == "raceway" or method(book, wires.method).metal


@lru_cache(maxsize=512)
def _made(book: Codebook, key: str, size: str) -> Cable | None:
    """The cable of a leg, where it is one that is made."""
    if method(book, key).kind == "cable" and size in cable_sizes(book, key):
        return cable(book, key, size)
    return None
