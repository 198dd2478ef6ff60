"""A circuit brought over from nothing: through a trench (out, down, along, up, in), or over the air head to head."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

from levelrun.core.circuits.edits import circuit_of, with_circuit
from levelrun.core.circuits.loads import HopWires
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, raceway_sizes, wire_sizes
from levelrun.core.editing import made, next_id, next_name, with_parts
from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.job import Box, Circuit, Hop, Job, Panel, Span, Trench, Way
from levelrun.core.site.stands_in import buildings_of
from levelrun.core.trade.conductors.sizing import Demand, choose
from levelrun.core.trade.pipe.fill import smallest_size
from levelrun.core.trench.laying import line_of
from levelrun.core.trench.line import Piece, pieces_of
from levelrun.core.trench.yard import long_in, yard_of
from levelrun.core.ways.edits import view_of
from levelrun.core.ways.rules.cover import needed_cover

THROUGH_IN, LEAST_UP_IN, USUAL_HEAD_IN = 12.0, 12.0, 144.0
SUNNY_C = 40.0
GUARDS = {"PVC40": "PVC80"}


def fed(
    job: Job, book: Codebook, along: str, circuit_id: str, pipe: tuple[str, str], depth_in: float | None
) -> Job:  # fmt: skip
    """The job with the hop of a circuit that crosses to another building walked through a trench, or hung on a span.
    `pipe`: method and size of what lies in the earth; size empty: the smallest that its wires fit. EditError else."""
    line, circuit = line_of(job, along), circuit_of(job, circuit_id)
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
    if isinstance(line, Span):
        return _over_air(job, book, line, ident, (start, end), size)
    return _through_earth(job, line, ident, (start, end), book, pipe, depth_in)


def _through_earth(
    job: Job, line: Trench, ident: str, ends: tuple[Panel | Box, Panel | Box], book: Codebook, pipe: tuple[str, str],
    depth_in: float | None,
) -> Job:  # fmt: skip
    (start, end), (key, size) = ends, pipe
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
    size = size or _fitting(job, book, ident, legs, {key, guard})
    need = needed_cover(view_of(_with_legs(job, ident, [{**leg, "size": size} for leg in legs]), book, ident), 2)
    deep = depth_in if depth_in is not None else max(need.cover_in if need else 0.0, _most(book, pieces, key))
    legs[1]["length_in"], legs[3]["length_in"] = _over_grade(job, start) + deep, _over_grade(job, end) + deep
    legs[2]["depth_in"] = deep
    return _with_legs(job, ident, [{**leg, "size": size} for leg in legs])


def _over_air(
    job: Job, book: Codebook, span: Span, ident: str, ends: tuple[Panel | Box, Panel | Box], size: str
) -> Job:
    """Up to a head at each end, and the cabled wires between them."""
    heads: list[Box] = []
    for node, own in zip(ends, (span.start_end, span.end_end), strict=True):
        up = own.height_in if own.height_in is not None else USUAL_HEAD_IN
        height = up + job.structure(node.structure).grade_in
        values = {
            "id": next_id(job, "b"),
            "name": next_name(job, "J"),
            "structure": node.structure,
            "height_in": height,
        }
        heads.append(made(Box, values, "along"))
        job = with_parts(job, boxes=(*job.boxes, heads[-1]))
    rise = [max(head.height_in - node.height_in, LEAST_UP_IN) for head, node in zip(heads, ends, strict=True)]
    legs: list[dict[str, Any]] = [
        {"go": "up", "length_in": rise[0], "place": "outside_wall", "method": "RMC",
         "end": {"kind": "box", "node": heads[0].id}},
        {"go": "over", "length_in": long_in(span.points), "place": "overhead", "method": "OVERHEAD", "along": span.id,
         "end": {"kind": "box", "node": heads[1].id}},
        {"go": "down", "length_in": rise[1], "place": "outside_wall", "method": "PVC80",
         "end": {"kind": "box", "node": ends[1].id}},
    ]  # fmt: skip
    pipe = size or _fitting(job, book, ident, [legs[0], {**legs[2]}], {"RMC", "PVC80"})
    trial = view_of(_with_legs(job, ident, [{**legs[0], "size": pipe}]), book, ident)
    here = trial.lying(0)
    cable = hung_size(book, here[0].wires) if here else ""
    sizes = (pipe, cable, pipe)
    return _with_legs(job, ident, [{**leg, "size": own} for leg, own in zip(legs, sizes, strict=True)])


def hung_size(book: Codebook, wires: HopWires) -> str:
    """Cabled aluminium for a span: the smallest that is made and bears the breaker in the sun, such as 4-3. Empty
    where none is made."""
    order = wire_sizes(book)
    demand = Demand(load_a=wires.breaker_a, breaker_a=wires.breaker_a, volts=wires.volts, material="al",
                    wiring="raceway", ambient_c=SUNNY_C)  # fmt: skip
    try:
        least = choose(book, demand).size
    except LevelRunError:
        return ""
    made_in = dict.fromkeys(row["size"] for row in book.table("messenger").rows)
    fits = next((size for size in made_in if order.index(size) >= order.index(least)), None)
    return f"{fits}-{max(wires.conductors, 2)}" if fits else ""


def _fitting(job: Job, book: Codebook, ident: str, legs: list[dict[str, Any]], keys: set[str]) -> str:
    """The smallest size of pipe that takes the wires of its first leg in every one of these kinds."""
    trial = _with_legs(job, ident, [{**leg, "size": "1/2"} for leg in legs])
    return _size(book, keys, view_of(trial, book, ident).wires(0)) or "1"


def _hop(job: Job, circuit_id: str) -> Hop:
    """The hop that crosses to another building and is walked nowhere yet."""
    circuit = circuit_of(job, circuit_id)
    crossing = next(crossing_hops(job, circuit), None)
    if crossing is None:
        raise EditError(f"{circuit.name} goes to no other building", key="circuit", value=circuit_id)
    if crossing.path:
        raise EditError(f"{circuit.name} is walked already: lay its way", key="circuit", value=circuit_id)
    return crossing


def crossing_hops(job: Job, circuit: Circuit) -> Iterator[Hop]:
    """The hops of a circuit that go from one building to another."""
    where = buildings_of(job)
    return (hop for hop in circuit.chain if where[hop.after or circuit.panel] != where[hop.box])


def _with_legs(job: Job, ident: str, legs: list[dict[str, Any]]) -> Job:
    way = job.way(ident)
    changed = made(Way, {**way.model_dump(), "legs": legs}, "legs")
    return with_parts(job, ways=tuple(changed if item.id == ident else item for item in job.ways))


def _size(book: Codebook, keys: set[str], wires: list[Any]) -> str:
    """The smallest size in which the wires fit every one of these pipes."""
    found = [smallest_size(book, key, wires) for key in keys]
    order = [pipe.size for pipe in raceway_sizes(book, "RMC")]
    return max((size for size in found if size), key=order.index, default="")


def _most(book: Codebook, pieces: Sequence[Piece], key: str) -> float:
    """The most cover that any piece asks for this pipe, in general."""
    column = method(book, key).cover_column or "other_raceway"
    return max(float(book.table("300-5-cover").get(piece.above)[column]) for piece in pieces)


def _over_grade(job: Job, node: Panel | Box) -> float:
    """From the ground up to where it goes in: the lower edge of a panel, the middle of a box."""
    structure = job.structure(node.structure)
    return float(round(max(node.height_in - structure.grade_in, LEAST_UP_IN)))
