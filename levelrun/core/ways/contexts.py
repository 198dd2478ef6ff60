"""Every way with what lies in it, and every hop as it lies: wires of circuits on one side, legs on the other.

A ground grows with wires that grew for drop, so it takes all legs of a circuit to say it: ways are laid out first
without grounds, then each circuit's is worked out once, for every way, box and list (250.122(B)).
"""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from levelrun.core.circuits.loads import CircuitLoads, HopWires, Laid
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import ground_size, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Circuit, Job, Leg, Panel, Way
from levelrun.core.kept import Lasting, Standing
from levelrun.core.site.geometry import Point
from levelrun.core.site.spots import spots
from levelrun.core.trade.conductors.sizing import Demand, choose, upsized_ground
from levelrun.core.ways.carried import Carried
from levelrun.core.ways.drawn_contexts import Thread, drawn_contexts, least_of, least_wires
from levelrun.core.ways.drilling import Drilled, drilled
from levelrun.core.ways.facts import WayContext, rewired, viewed, within
from levelrun.core.ways.frame.found import Found, found_ways
from levelrun.core.ways.frame.lines import Line
from levelrun.core.ways.hues import hues
from levelrun.core.ways.laid import laid_in
from levelrun.core.ways.pieces import continued
from levelrun.core.ways.stretch import Stretch, stretches


@dataclass(frozen=True, eq=False)
class LaidCircuit:
    """The hops of a circuit as they lie, by the box that each goes to, with the ways that they take. The same one for
    as long as nothing of it changes, so that what follows from it is kept with it."""

    laid: dict[str, Laid]
    paths: dict[str, tuple[Stretch, ...]]
    ways: dict[str, Way]


@dataclass(frozen=True)
class Woven:
    """Ways with what lies in them, and the hops of every circuit as they lie, by circuit. `drawn`: the ways that were
    found through the frame, with what each was found as in `found`, by circuit and box; `walls`: the
    holes that they take in studs."""

    contexts: list[WayContext]
    drawn: dict[str, list[WayContext]]
    lying: dict[str, LaidCircuit]
    found: dict[str, dict[str, Found]]
    walls: dict[Line, Drilled]

    @property
    def laid(self) -> dict[str, dict[str, Laid]]:
        """Every hop as it lies, by circuit and box."""
        return {circuit: item.laid for circuit, item in self.lying.items()}


def weave(job: Job, book: Codebook, loads: Mapping[str, CircuitLoads]) -> Woven:
    """Hops laid into their ways: those that were walked, else those that the frame gives them."""
    ways = {way.id: way for way in job.ways}
    found = found_ways(job, book, loads)
    walls = drilled(book, job.habits, found)
    threads: dict[str, Thread] = {}
    for name, item in loads.items():
        taken, own = [ways[way] for way in item.taken], found[name]
        given = _given(own, found.get(item.circuit.partner or "", {}))
        inches = {box: one.route.length_in for box, one in own.items() if one.way is None and one.route is not None}
        said = _said.same(name, (*given, None, *inches.items()))
        threads[name] = _threads.get(
            name,
            (book, item, said, *taken, None, *given.values()),
            lambda i=item, t=taken, g=given, n=inches, o=own: _thread(  # type: ignore[misc]
                book, i, t, g, n, frozenset(box for box in g if o[box].rides_with)
            ),
        )
    inside: dict[str, list[Carried]] = {way: [] for way in ways}
    for thread in threads.values():
        for way, carried in thread.walked:
            inside[way].append(carried)
    bare = _contexts(job, job.ways, inside)
    least = _least_by_circuit(book, bare)
    drawn = drawn_contexts(job, book, loads, found, walls, threads)
    lying: dict[str, LaidCircuit] = {}
    hue = hues(loads, (viewed(book, context) for context in bare))
    for name, item in loads.items():
        sizes = {*least.get(name, ()), *least_of(book, name, drawn[name])}
        partner = item.circuit.partner or ""
        if threads[name].rides:
            sizes |= least_of(book, partner, drawn[partner])
        lying[name] = _lying(threads[name], _grounded(item, threads[name], tuple(sorted(sizes)), hue[name]))
    contexts = [_with_grounds(book, item, _laid_in(item, lying)) if item.carried else item for item in bare]
    hops = {(name, box): path for name, item in threads.items() for box, path in item.paths.items()}
    contexts = continued(book, contexts, hops)
    whole = {name: _whole(book, name, drawn[name], lying, item.circuit.partner or "") for name, item in loads.items()}
    return Woven(contexts, whole, lying, found, walls)


_wholes = Standing[list[WayContext]](2048)


def _whole(
    book: Codebook, name: str, bare: list[WayContext], lying: Mapping[str, LaidCircuit], mate: str
) -> list[WayContext]:
    """The ways that a circuit was given, with the grounds of what lies in them."""

    def made() -> list[WayContext]:
        return [_with_grounds(book, item, _laid_in(item, lying)) for item in bare]

    return _wholes.get(name, (book, bare, lying[name], lying.get(mate)), made)


_threads = Standing[Thread](2048)
_said = Lasting[tuple[Hashable, ...]](2048)


def _given(found: Mapping[str, Found], mate: Mapping[str, Found]) -> dict[str, Way]:
    """The ways that the frame gives the hops of a circuit, by box; those in the cables of its mate last."""
    own = {box: one.way for box, one in found.items() if one.way is not None}
    return own | {box: way for box, one in found.items() if one.rides_with and (way := mate[box].way) is not None}


def _thread(
    book: Codebook,
    item: CircuitLoads,
    ways: Sequence[Way],
    own: dict[str, Way],
    inches: dict[str, float],
    rides: frozenset[str],
) -> Thread:
    by_id = {way.id: way for way in (*ways, *own.values())}
    paths: dict[str, tuple[Stretch, ...]] = {}
    walked: list[tuple[str, Carried]] = []
    drawn: dict[str, Carried] = {}
    for box, wires in item.wires.items():
        named = (own[box].id,) if box in own else item.hops[box].path
        if not named:
            continue
        paths[box], carried = _lying_along(by_id, named, wires)
        if box in own:
            drawn[box] = carried[0]
        else:
            walked += zip((part.way for part in paths[box]), carried, strict=True)
    return Thread(paths, tuple(walked), drawn, by_id, inches, rides)


@lru_cache(maxsize=2048)
def _lying(thread: Thread, grounded: Grounded) -> LaidCircuit:
    laid = {box: _laid(thread, box, wires) for box, wires in grounded.wires.items()}
    return LaidCircuit(laid, thread.paths, thread.ways)


def _laid(thread: Thread, box: str, wires: HopWires) -> Laid:
    path = thread.paths.get(box, ())
    legs = legs_of(thread.ways, path)
    length = sum(leg.length_in for leg in legs) if legs and all(part.reaches for part in path) else None
    length = thread.inches.get(box, length)
    return Laid(wires=wires, length_in=length, methods=tuple(leg.method for leg in legs))


def _laid_in(context: WayContext, lying: Mapping[str, LaidCircuit]) -> tuple[HopWires, ...]:
    return tuple([lying[item.wires.circuit].laid[item.wires.box].wires for item in context.carried])


@lru_cache(maxsize=2048)
def _with_grounds(book: Codebook, context: WayContext, wires: tuple[HopWires, ...]) -> WayContext:
    """A way with the grounds of what lies in it."""
    carried = (replace(item, wires=own) for item, own in zip(context.carried, wires, strict=True))
    return rewired(book, context, tuple(carried))


def legs_of(ways: Mapping[str, Way], path: Sequence[Stretch]) -> list[Leg]:
    """The legs of a hop, way by way."""
    return [leg for part in path for leg in ways[part.way].legs[part.first : part.last + 1]]


def _lying_along(
    by_id: Mapping[str, Way], named: tuple[str, ...], wires: HopWires
) -> tuple[tuple[Stretch, ...], tuple[Carried, ...]]:
    """A hop in each of its ways."""
    path = stretches(by_id, named, wires.start, wires.box)
    return path, tuple(
        Carried(wires=wires, first=part.first, last=part.last, reaches=part.reaches, back=part.back) for part in path
    )


_ways = Standing[WayContext](2048)


def _contexts(job: Job, ways: Sequence[Way], inside: Mapping[str, Sequence[Carried]]) -> list[WayContext]:
    nodes: dict[str, Panel | Box] = {node.id: node for node in job.nodes}
    where = spots(job, {node for way in ways for node in _touched(way, tuple(inside[way.id]))})
    return [_context(job, way, nodes, tuple(inside[way.id]), where) for way in ways]


def _context(
    job: Job, way: Way, nodes: Mapping[str, Panel | Box], carried: tuple[Carried, ...], where: Mapping[str, Point]
) -> WayContext:
    touched = _touched(way, carried)
    own = tuple(nodes[node] for node in touched)
    stand = tuple(where.get(node) for node in touched)

    def made() -> WayContext:
        used = {node.structure for node in own}
        return WayContext(
            way=way,
            habits=job.habits,
            structures=tuple(item for item in job.structures if item.id in used),
            nodes=own,
            carried=carried,
            laid=laid_in(job, way),
            spots=tuple((node, spot) for node, spot in zip(touched, stand, strict=True) if spot),
        )

    return _ways.get(
        way.id, (way, job.habits, *job.structures, *job.trenches, None, *carried, None, *own, None, *stand), made
    )


@lru_cache(maxsize=2048)
def _touched(way: Way, carried: tuple[Carried, ...]) -> tuple[str, ...]:
    """The boxes and panels on a way, and those that the wires in it go to."""
    ends = [item.wires.box for item in carried]
    return tuple(dict.fromkeys([way.start, *(leg.end.node for leg in way.legs if leg.end.node), *ends]))


def _least_by_circuit(book: Codebook, contexts: Sequence[WayContext]) -> dict[str, set[str]]:
    """The smallest wires that the ways of each circuit would take."""
    least: dict[str, set[str]] = {}
    for context in contexts:
        for carried, size in zip(context.carried, least_wires(book, context) if context.carried else (), strict=True):
            least.setdefault(carried.wires.circuit, set()).add(size)
    return least


@dataclass(frozen=True, eq=False)
class Grounded:
    """The wires of the hops of a circuit, each with its ground. The same one while nothing changes."""

    wires: dict[str, HopWires]


@lru_cache(maxsize=2048)
def _grounded(item: CircuitLoads, thread: Thread, walked: tuple[str, ...], hue: int) -> Grounded:
    """The hops of a circuit with their colours and their grounds, from the smallest wires that its ways take, and
    ordinary air for the hops that no way carries."""
    book = item.book
    plain = {_plain_least(book, wires) for box, wires in item.wires.items() if box not in thread.paths}
    least = tuple(sorted({*walked, *plain}))
    return Grounded({
        box: replace(
            wires, hue=hue, ground=ground_for(book, item.circuit, wires, least) if wires.grounded else wires.ground
        )
        for box, wires in item.wires.items()
    })  # fmt: skip


@lru_cache(maxsize=1024)
def _plain_least(book: Codebook, wires: HopWires) -> str:
    """The smallest wire of a hop that no way carries, in ordinary air."""
    plain = Demand(
        load_a=wires.load_a, breaker_a=wires.breaker_a, volts=wires.volts, material=wires.material,
        wiring=wires.method,
    )  # fmt: skip
    try:
        return choose(book, within(plain, wires)).size
    except LevelRunError:
        return wire_sizes(book)[0]


def ground_for(book: Codebook, circuit: Circuit, wires: HopWires, least: tuple[str, ...]) -> str:
    """The ground of a hop by its breaker, grown with its wire; larger where the circuit says so."""
    order = wire_sizes(book)
    size = wires.wire_size
    if size not in order:
        return ground_size(book, circuit.breaker_a, circuit.material)
    base = min(max(least, key=order.index), size, key=order.index)
    found = upsized_ground(book, circuit.breaker_a, circuit.material, base, size)
    return max(found, circuit.ground_size, key=order.index) if circuit.ground_size in order else found
