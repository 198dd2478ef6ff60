"""The ways that the frame gives, circuit by circuit, with what lies in them: as they were, while nothing of a circuit
changes."""

from __future__ import annotations

from collections.abc import Hashable, Mapping
from dataclasses import dataclass

from levelrun.core.circuits.loads import CircuitLoads
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Job, Panel, Way
from levelrun.core.kept import Lasting, Standing
from levelrun.core.rulebook import keeping
from levelrun.core.ways.carried import Carried
from levelrun.core.ways.drilling import Drilled, beside
from levelrun.core.ways.facts import WayContext, viewed
from levelrun.core.ways.frame.found import Found
from levelrun.core.ways.frame.lines import Line
from levelrun.core.ways.stretch import Stretch


@dataclass(frozen=True, eq=False)
class Thread:
    """The hops of a circuit drawn through their ways, before their grounds are known: those in ways that were walked,
    those in ways of their own by box; `inches` of those whose path is known but is no way yet; `rides`: boxes to
    which the cable of the circuit goes that shares its neutral."""

    paths: dict[str, tuple[Stretch, ...]]
    walked: tuple[tuple[str, Carried], ...]
    drawn: dict[str, Carried]
    ways: dict[str, Way]
    inches: dict[str, float]
    rides: frozenset[str] = frozenset()


_drawn = Standing[list[WayContext]](2048)
_said = Lasting[tuple[Hashable, ...]](2048)


def drawn_contexts(
    job: Job,
    book: Codebook,
    loads: Mapping[str, CircuitLoads],
    found: Mapping[str, Mapping[str, Found]],
    walls: Mapping[Line, Drilled],
    threads: Mapping[str, Thread],
) -> dict[str, list[WayContext]]:
    """Every way that the frame gives, by circuit, with its cable before its ground is known."""
    nodes: dict[str, Panel | Box] = {node.id: node for node in job.nodes}
    close = _beside(walls, loads)
    made: dict[str, list[WayContext]] = {}
    for name, item in loads.items():
        near = close.get(name, {})
        thread, mate = threads[name], threads.get(item.circuit.partner or "")
        own = {box: one for box, one in found[name].items() if one.way is not None}
        ends = [node for one in own.values() if one.way for node in (nodes[one.way.start], nodes[one.box])]
        said = _said.same(name, (tuple(near.items()), *(one.holes for one in own.values())))
        made[name] = _drawn.get(
            name,
            (thread, mate, job.habits, said, *ends, None, *job.structures),
            lambda own=own, thread=thread, mate=mate, near=near: [  # type: ignore[misc]
                _context(job, one, _inside(thread, mate, box), nodes, near.get(box, 0)) for box, one in own.items()
            ],
        )
    return made


def _context(
    job: Job, one: Found, carried: tuple[Carried, ...], nodes: Mapping[str, Panel | Box], close: int
) -> WayContext:
    assert one.way is not None
    own = (nodes[one.way.start], nodes[one.box])
    used = {node.structure for node in own}
    return WayContext(
        way=one.way,
        habits=job.habits,
        structures=tuple(item for item in job.structures if item.id in used),
        nodes=own,
        carried=carried,
        beside=close,
        holes=one.holes,
    )


def _inside(thread: Thread, mate: Thread | None, box: str) -> tuple[Carried, ...]:
    """What lies in the way to a box: its hop, and that of the circuit which shares its neutral where it rides."""
    own = (thread.drawn[box],)
    return (*own, mate.drawn[box]) if mate is not None and box in mate.rides else own


def _beside(walls: Mapping[Line, Drilled], loads: Mapping[str, CircuitLoads]) -> dict[str, dict[str, int]]:
    """Wires of other cables that carry current and lie in the same holes, by circuit and box."""
    found: dict[str, dict[str, int]] = {}
    for (circuit, box), others in beside(walls.values()).items():
        wires = [loads[name].wires[other] for name, other in others]
        count = sum(w.conductors - (w.neutral and w.conductors > 2) for w in wires)
        found.setdefault(circuit, {})[box] = count
    return found


@keeping(4096)
def least_wires(book: Codebook, context: WayContext) -> tuple[str, ...]:
    """For each hop in a way the smallest wire that all but drop would take. Kept while nothing changes."""
    view = viewed(book, context)
    return tuple(view.least_wire(item) for item in context.carried)


_least = Standing[frozenset[str]](2048)


def least_of(book: Codebook, name: str, contexts: list[WayContext]) -> frozenset[str]:
    """The smallest wires that the ways which a circuit was given would take."""
    return _least.get(
        name, (book, contexts), lambda: frozenset(size for item in contexts for size in least_wires(book, item))
    )
