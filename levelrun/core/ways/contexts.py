"""Every way with what lies in it, and every hop as it lies: wires of circuits on one side, legs on the other.

A ground grows with wires that grew for drop, so it takes all legs of a circuit to say it: ways are laid out first
without grounds, then each circuit's is worked out once, for every way, box and list (250.122(B)).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from levelrun.core.circuits.loads import CircuitLoads, HopWires, Laid, links_of, with_ground
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import ground_size, method, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Circuit, Job, Leg, Panel, Way
from levelrun.core.rulebook import keeping
from levelrun.core.site.geometry import Point
from levelrun.core.site.spots import spots
from levelrun.core.trade.conductors.sizing import Demand, choose, upsized_ground
from levelrun.core.ways.facts import Carried, WayContext, WayView
from levelrun.core.ways.stretch import Stretch, stretches

HopKey = tuple[str, str]


@dataclass(frozen=True)
class Woven:
    """Ways with what lies in them, and hops as they lie, by circuit and box."""

    contexts: list[WayContext]
    laid: dict[HopKey, Laid]
    paths: dict[HopKey, tuple[Stretch, ...]]


def weave(job: Job, book: Codebook, loads: Mapping[str, CircuitLoads]) -> Woven:
    """Hops laid into their ways."""
    ways = {way.id: way for way in job.ways}
    paths: dict[HopKey, tuple[Stretch, ...]] = {}
    inside: dict[str, list[Carried]] = {way.id: [] for way in job.ways}
    wires: dict[HopKey, HopWires] = {}
    for item, link in links_of(loads):
        key = (item.circuit.id, link.box)
        wires[key] = item.wires(link)
        path = item.hops[link.box].path
        if path:
            paths[key] = stretches(ways, path, wires[key].start, link.box)
            for carried, way in _carried(book, ways, wires[key], paths[key]):
                inside[way].append(carried)
    bare = _contexts(job, inside)
    grounds = _grounds(book, job, bare, loads, wires, paths)
    for key, ground in grounds.items():
        wires[key] = with_ground(wires[key], ground)
    contexts = [
        replace(c, carried=tuple(replace(i, wires=wires[i.wires.circuit, i.wires.box]) for i in c.carried))
        if c.carried
        else c
        for c in bare
    ]
    laid = {key: _laid(ways, item, paths.get(key, ())) for key, item in wires.items()}
    return Woven(contexts, laid, paths)


def _laid(ways: Mapping[str, Way], wires: HopWires, path: Sequence[Stretch]) -> Laid:
    legs = legs_of(ways, path)
    length = sum(leg.length_in for leg in legs) if legs and all(part.reaches for part in path) else None
    return Laid(wires=wires, length_in=length, methods=tuple(leg.method for leg in legs))


def legs_of(ways: Mapping[str, Way], path: Sequence[Stretch]) -> list[Leg]:
    """The legs of a hop, way by way."""
    return [leg for part in path for leg in ways[part.way].legs[part.first : part.last + 1]]


def _carried(
    book: Codebook, ways: Mapping[str, Way], wires: HopWires, path: Sequence[Stretch]
) -> list[tuple[Carried, str]]:
    """A hop in each of its ways. Its wire goes through a box between two ways in one piece, where both are pipe or
    both one cable."""
    found: list[tuple[Carried, str]] = []
    for index, part in enumerate(path):
        item = Carried(wires=wires, first=part.first, last=part.last, reaches=part.reaches)
        if index and found and _one_piece(book, ways, path[index - 1], part):
            item = replace(item, begins=False)
            _lengthen(found, ways, part, wires.box)
        found.append((item, part.way))
    return found


def _lengthen(found: list[tuple[Carried, str]], ways: Mapping[str, Way], part: Stretch, box: str) -> None:
    start = next(i for i in reversed(range(len(found))) if found[i][0].begins)
    begun, way = found[start]
    more = sum(leg.length_in for leg in ways[part.way].legs[part.first : part.last + 1])
    found[start] = (replace(begun, beyond_in=begun.beyond_in + more, ends_at=box), way)


def _one_piece(book: Codebook, ways: Mapping[str, Way], before: Stretch, after: Stretch) -> bool:
    legs = ways[before.way].legs[before.last : before.last + 1], ways[after.way].legs[after.first : after.first + 1]
    if not all(legs):
        return False
    a, b = legs[0][0], legs[1][0]
    piped = [method(book, leg.method).kind == "raceway" and not leg.sleeve for leg in (a, b)]
    return all(piped) or (not any(piped) and (a.method, a.size) == (b.method, b.size))


def _contexts(job: Job, inside: Mapping[str, Sequence[Carried]]) -> list[WayContext]:
    nodes: dict[str, Panel | Box] = {node.id: node for node in job.nodes}
    where = spots(job)
    return [_context(job, way, nodes, tuple(inside[way.id]), where) for way in job.ways]


def _context(
    job: Job, way: Way, nodes: Mapping[str, Panel | Box], carried: tuple[Carried, ...], where: Mapping[str, Point]
) -> WayContext:
    ends = [*(item.wires.box for item in carried), *(item.ends_at for item in carried if item.ends_at)]
    touched = dict.fromkeys([way.start, *(leg.end.node for leg in way.legs if leg.end.node), *ends])
    own = tuple(nodes[node] for node in touched)
    used = {node.structure for node in own}
    return WayContext(
        way=way,
        habits=job.habits,
        structures=tuple(item for item in job.structures if item.id in used),
        nodes=own,
        carried=carried,
        spots=tuple((node, where[node]) for node in touched if node in where),
    )


@keeping(4096)
def least_wires(book: Codebook, context: WayContext) -> tuple[str, ...]:
    """For each hop in a way the smallest wire that all but drop would take. Kept while nothing changes."""
    view = WayView(book, context)
    return tuple(view.least_wire(item) for item in context.carried)


def _grounds(
    book: Codebook,
    job: Job,
    contexts: Sequence[WayContext],
    loads: Mapping[str, CircuitLoads],
    wires: Mapping[HopKey, HopWires],
    paths: Mapping[HopKey, object],
) -> dict[HopKey, str]:
    least: dict[str, list[str]] = {}
    for context in contexts:
        for carried, size in zip(context.carried, least_wires(book, context) if context.carried else (), strict=True):
            least.setdefault(carried.wires.circuit, []).append(size)
    for key, item in wires.items():
        if key not in paths:
            least.setdefault(key[0], []).append(_plain_least(book, item))
    return {
        key: ground_for(book, loads[key[0]].circuit, item, tuple(dict.fromkeys(least[key[0]])))
        for key, item in wires.items()
    }


def _plain_least(book: Codebook, wires: HopWires) -> str:
    """The smallest wire of a hop that no way carries, in ordinary air."""
    return _chosen(
        book, min(wires.load_a, wires.breaker_a), wires.breaker_a, wires.volts, wires.material, wires.method
    )


@lru_cache(maxsize=1024)
def _chosen(book: Codebook, load_a: float, breaker_a: float, volts: int, material: str, wiring: str) -> str:
    try:
        return choose(
            book, Demand(load_a=load_a, breaker_a=breaker_a, volts=volts, material=material, wiring=wiring)
        ).size
    except LevelRunError:
        return wire_sizes(book)[0]


@lru_cache(maxsize=2048)
def ground_for(book: Codebook, circuit: Circuit, wires: HopWires, least: tuple[str, ...]) -> str:
    """The ground of a hop by its breaker, grown with its wire; larger where the circuit says so."""
    order = wire_sizes(book)
    size = wires.wire_size
    if size not in order:
        return ground_size(book, circuit.breaker_a, circuit.material)
    base = min(max(least, key=order.index), size, key=order.index)
    found = upsized_ground(book, circuit.breaker_a, circuit.material, base, size)
    return max(found, circuit.ground_size, key=order.index) if circuit.ground_size in order else found
