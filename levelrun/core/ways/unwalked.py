"""Pieces for hops whose length is known and whose way nobody walked: from outlet to outlet, as it was taped."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.loads import HopWires, Laid, cable_of
from levelrun.core.circuits.makeup import left_free_at
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Habits, Job, Panel
from levelrun.core.kept import Standing
from levelrun.core.ways.carried import alone
from levelrun.core.ways.lengths import Cut, Named, cable_named, cut_of, wires_named

Cuts = tuple[Cut, ...]
_pieces = Standing[Cuts](2048)


def unwalked_cuts(
    book: Codebook, job: Job, laid: Mapping[str, Mapping[str, Laid]], circuits: Sequence[CircuitPlan]
) -> dict[str, Cuts]:
    """What is cut for the hops that no way carries, by circuit. laid: each hop as it lies."""
    nodes = {node.id: node for node in job.nodes}
    found: dict[str, Cuts] = {}
    for circuit in circuits:
        ident = circuit.summary.id

        def made(planned: CircuitPlan = circuit, own: Mapping[str, Laid] = laid[ident]) -> Cuts:
            return tuple(_cuts(book, job.habits, planned, own, nodes))

        found[ident] = _pieces.get(ident, (book, job.habits, circuit), made)
    return found


def _cuts(
    book: Codebook, habits: Habits, circuit: CircuitPlan, laid: Mapping[str, Laid], nodes: Mapping[str, Panel | Box]
) -> Iterator[Cut]:  # fmt: skip
    for row in circuit.chain:
        if row.cut_in is None or row.length_in is None:
            continue
        wires = laid[row.box].wires
        stand = [nodes[wires.start], nodes[wires.box]]
        ends = [(node, left_free_at(book, habits, node)) for node in stand]
        for named in _named(book, wires):
            yield cut_of(habits, wires, named, ends, row.length_in)


def _named(book: Codebook, wires: HopWires) -> Iterator[Named]:
    if wires.method == "raceway":
        yield from wires_named(alone(wires))
    else:
        yield cable_named(wires.method, cable_of(book, wires), wires.material)
