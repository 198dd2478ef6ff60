"""A circuit brought through a trench from nothing: out through the wall, down, along, up, and in through the wall."""

from __future__ import annotations

from typing import Any

from levelrun.core.circuits.edits import circuit_of, with_circuit
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, raceway_sizes
from levelrun.core.editing import made, next_id, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Box, Hop, Job, Panel, Span, Way
from levelrun.core.trade.pipe.fill import smallest_size
from levelrun.core.trench.laying import line_of
from levelrun.core.trench.line import pieces_of
from levelrun.core.trench.yard import long_in, yard_of
from levelrun.core.ways.edits import view_of
from levelrun.core.ways.rules.cover import needed_cover

THROUGH_IN, LEAST_UP_IN = 12.0, 12.0
GUARDS = {"PVC40": "PVC80"}


def fed(
    job: Job, book: Codebook, along: str, circuit_id: str, pipe: tuple[str, str], depth_in: float | None
) -> Job:  # fmt: skip
    """The job with the hop of a circuit that crosses to another building walked through a trench. `pipe`: method and
    size of what lies in the earth; size empty: the smallest that its wires fit. Raises EditError."""
    line, circuit = line_of(job, along), circuit_of(job, circuit_id)
    if isinstance(line, Span):
        raise EditError(f"{line.name} is a span: walk the way to it, then lay it on", key="along", value=along)
    hop = _hop(job, circuit_id)
    key, size = pipe
    if method(book, key).kind != "raceway":
        raise EditError(f"{key} is no pipe", key="method", value=key, allowed=["PVC40", "PVC80", "RMC", "IMC"])
    start, end = job.node(hop.after or circuit.panel), job.node(hop.box)
    ident = next_id(job, "w")
    job = with_parts(job, ways=(*job.ways, Way(id=ident, name=circuit.name, start=start.id)))
    taken = {"path": (ident,), "length_in": None}
    chain = tuple(item.model_copy(update=taken) if item is hop else item for item in circuit.chain)
    job = with_circuit(job, circuit.model_copy(update={"method": "raceway", "chain": chain}))
    guard = GUARDS.get(key, key)
    pieces = pieces_of(yard_of(job), line)
    legs: list[dict[str, Any]] = [
        {"go": "over", "length_in": THROUGH_IN, "place": "outside_wall", "method": guard, "end": {"kind": "lb"}},
        {"go": "down", "length_in": LEAST_UP_IN, "place": "outside_wall", "method": guard},
        {"go": "over", "length_in": long_in(line.points), "place": "trench", "method": key, "along": line.id},
        {"go": "up", "length_in": LEAST_UP_IN, "place": "outside_wall", "method": guard, "end": {"kind": "lb"}},
        {"go": "over", "length_in": THROUGH_IN, "place": "outside_wall", "method": guard,
         "end": {"kind": "box", "node": end.id}},
    ]  # fmt: skip
    job = _with_legs(job, ident, [{**leg, "size": size or "1/2"} for leg in legs])
    view = view_of(job, book, ident)
    size = size or _size(view.book, {key, guard}, view.wires(0)) or "1"
    need = needed_cover(view, 2)
    deep = depth_in if depth_in is not None else max(need.cover_in if need else 0.0, _most(view.book, pieces, key))
    legs[1]["length_in"], legs[3]["length_in"] = _up(job, start, deep), _up(job, end, deep)
    legs[2]["depth_in"] = deep
    return _with_legs(job, ident, [{**leg, "size": size} for leg in legs])


def _hop(job: Job, circuit_id: str) -> Hop:
    """The hop that crosses to another building and is walked nowhere yet."""
    circuit = circuit_of(job, circuit_id)
    where = {node.id: node.structure for node in job.nodes}
    for hop in circuit.chain:
        if where[hop.after or circuit.panel] != where[hop.box]:
            if hop.path:
                raise EditError(f"{circuit.name} is walked already: lay its way", key="circuit", value=circuit_id)
            return hop
    raise EditError(f"{circuit.name} goes to no other building", key="circuit", value=circuit_id)


def _with_legs(job: Job, ident: str, legs: list[dict[str, Any]]) -> Job:
    way = job.way(ident)
    changed = made(Way, {**way.model_dump(), "legs": legs}, "legs")
    return with_parts(job, ways=tuple(changed if item.id == ident else item for item in job.ways))


def _size(book: Codebook, keys: set[str], wires: list[Any]) -> str:
    """The smallest size in which the wires fit every one of these pipes."""
    found = [smallest_size(book, key, wires) for key in keys]
    order = [pipe.size for pipe in raceway_sizes(book, "RMC")]
    return max((size for size in found if size), key=order.index, default="")


def _most(book: Codebook, pieces: list[Any], key: str) -> float:
    """The most cover that any piece asks for this pipe, in general."""
    column = method(book, key).cover_column or "other_raceway"
    return max(float(book.table("300-5-cover").get(piece.above)[column]) for piece in pieces)


def _up(job: Job, node: Panel | Box, deep: float) -> float:
    """From the trench up to where it goes in: the lower edge of a panel, the middle of a box."""
    structure = job.structure(node.structure)
    return float(round(max(node.height_in - structure.grade_in, LEAST_UP_IN) + deep))
