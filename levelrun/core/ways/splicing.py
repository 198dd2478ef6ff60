"""What a box on a way does to the circuits that go through: it is spliced in, and out again when it goes."""

from __future__ import annotations

from collections.abc import Iterable

from levelrun.core.circuits.edits import unhung, with_circuit
from levelrun.core.job import Box, Circuit, Hop, Job, Way
from levelrun.core.ways.stretch import points, stretches


def spliced(job: Job, before: Way, after: Way) -> Job:
    """The job after a way changed its boxes: every hop that goes through a new one stops there and goes on; a
    junction box that left the way, and that nothing else hangs on, leaves the chain."""
    old, new = ({node for _, node in points(way)} for way in (before, after))
    boxes = {box.id: box for box in job.boxes}
    for node in [node for _, node in points(after) if node in boxes and node not in old]:
        for circuit in job.circuits:
            if any(after.id in hop.path for hop in circuit.chain) and node not in {hop.box for hop in circuit.chain}:
                job = with_circuit(job, _through(job, circuit, after, node))
    gone = {node for node in old - new if node in boxes and boxes[node].kind == "junction"}
    return _left(job, before, gone, boxes.values()) if gone else job


def _through(job: Job, circuit: Circuit, way: Way, node: str) -> Circuit:
    ways = {item.id: item for item in job.ways}
    place = next(place for place, found in points(way) if found == node)
    chain: list[Hop] = []
    for hop in circuit.chain:
        at = hop.path.index(way.id) if way.id in hop.path else None
        if at is None:
            chain.append(hop)
            continue
        part = stretches(ways, hop.path, hop.after or circuit.panel, hop.box)[at]
        inside = part.first < place <= part.last or (not part.reaches and part.first < place == part.last + 1)
        if not inside:
            chain.append(hop)
            continue
        chain.append(hop.model_copy(update={"box": node, "path": hop.path[: at + 1], "length_in": None}))
        chain.append(hop.model_copy(update={"after": node, "path": hop.path[at:], "length_in": None}))
    return circuit.model_copy(update={"chain": tuple(chain)})


def _left(job: Job, way: Way, gone: Iterable[str], boxes: Iterable[Box]) -> Job:
    for node in gone:
        for circuit in job.circuits:
            own = next((hop for hop in circuit.chain if hop.box == node), None)
            after = [hop for hop in circuit.chain if hop.after == node]
            if own is None or len(after) != 1 or way.id not in own.path or way.id not in after[0].path:
                continue
            job = with_circuit(job, unhung(circuit, {node}))
    return job
