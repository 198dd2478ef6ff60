"""Edits of circuits: boxes chained and taken off, breakers put on spaces."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from levelrun.core.circuits.parts import Circuit, Hop
from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.part import Id, Inches


class Chain(EditBase):
    """Put boxes on a circuit one after another, from the panel or from the box `after`; they leave their old one.
    `length_in`: cable from one to the next, as taped."""

    op: Literal["chain"]
    circuit: Id
    boxes: Annotated[tuple[Id, ...], Field(min_length=1, max_length=200)]
    after: Id | None = None
    length_in: Inches | None = None

    def title(self) -> str:
        return f"chain {len(self.boxes)} box{'es' * (len(self.boxes) > 1)}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return chain(job, self)


class Unchain(EditBase):
    """Take boxes off their circuits; what hung on one hangs on what it hung on."""

    op: Literal["unchain"]
    boxes: Annotated[tuple[Id, ...], Field(min_length=1, max_length=400)]

    def title(self) -> str:
        return f"take {len(self.boxes)} box{'es' * (len(self.boxes) > 1)} off"

    def apply(self, job: Job, book: Codebook) -> Job:
        return unchain(job, self)


class Put(EditBase):
    """Put a circuit's breaker on a space of its panel, or of another."""

    op: Literal["put"]
    circuit: Id
    space: Annotated[int, Field(ge=1, le=84)] | None
    half: Literal["", "a", "b"] = ""
    panel: Id | None = None

    def title(self) -> str:
        return f"put breaker on {self.space}" if self.space else "take breaker out"

    def apply(self, job: Job, book: Codebook) -> Job:
        return put(job, self)


def _refed(job: Job, book: Codebook, circuit_id: str, keys: set[str]) -> Job:
    """A feeder that goes to another panel no longer goes to the one before."""
    circuit = circuit_of(job, circuit_id)
    panels = {panel.id for panel in job.panels} - {circuit.feeds}
    if "feeds" not in keys or not any(hop.box in panels for hop in circuit.chain):
        return job
    return with_circuit(job, unhung(circuit, panels))


KINDS = (PartKind(name="circuit", field="circuits", model=Circuit, letter="c", settle=_refed),)
EDITS = (Chain, Unchain, Put)


def circuit_of(job: Job, circuit_id: str) -> Circuit:
    """The circuit with this id. Raises EditError."""
    for item in job.circuits:
        if item.id == circuit_id:
            return item
    raise EditError(f"no circuit {circuit_id!r} in this job", key="circuit", value=circuit_id)


def chain(job: Job, edit: Chain) -> Job:
    """Boxes on a circuit in the order given; each leaves the circuit it was on."""
    circuit_of(job, edit.circuit)
    if len(set(edit.boxes)) != len(edit.boxes):
        raise EditError("a box stands twice in the chain", key="boxes", allowed=["each box once"])
    known = {box.id for box in job.boxes}
    for box in (*edit.boxes, *([edit.after] if edit.after else [])):
        if box not in known:
            raise EditError(f"no box {box!r} in this job", key="boxes", value=box)
    if edit.after in edit.boxes:
        raise EditError("a box cannot hang on itself", key="after", value=edit.after)
    job = unchain(job, Unchain(op="unchain", boxes=edit.boxes))
    circuit = circuit_of(job, edit.circuit)
    if edit.after is not None and edit.after not in {hop.box for hop in circuit.chain}:
        raise EditError("the box to hang them on is not on this circuit", key="after", value=edit.after)
    hops = [hop for hop in circuit.chain if hop.box != circuit.feeds or edit.after is not None]
    before = edit.after
    for box in edit.boxes:
        hops.append(Hop(box=box, after=before, length_in=edit.length_in))
        before = box
    if circuit.feeds is not None and edit.after is None:
        hops.append(Hop(box=circuit.feeds, after=before))
    return with_circuit(job, circuit.model_copy(update={"chain": tuple(hops)}))


def unchain(job: Job, edit: Unchain) -> Job:
    """The boxes taken off; what hung on one now hangs on what that one hung on."""
    gone = set(edit.boxes)
    return with_parts(job, circuits=tuple(unhung(circuit, gone) for circuit in job.circuits))


def unhung(circuit: Circuit, gone: set[str]) -> Circuit:
    """A circuit without some boxes: what hung on one hangs on what that one hung on, and takes the ways of both."""
    hops = {hop.box: hop for hop in circuit.chain}
    if not gone & set(hops):
        return circuit
    kept = []
    for hop in circuit.chain:
        if hop.box in gone:
            continue
        after, path, steps = hop.after, list(hop.path), 0
        while after in gone and after in hops and steps <= len(hops):
            before = hops[after]
            path = [*before.path, *path] if path and before.path else []
            after, steps = before.after, steps + 1
        if after == hop.after:
            kept.append(hop)
            continue
        joined = tuple(way for at, way in enumerate(path) if not at or path[at - 1] != way)
        kept.append(hop.model_copy(update={"after": after, "path": joined, "length_in": None}))
    return circuit.model_copy(update={"chain": tuple(kept)})


def put(job: Job, edit: Put) -> Job:
    """The breaker on a space, or on none; on another panel where one is named."""
    circuit = circuit_of(job, edit.circuit)
    panel = edit.panel or circuit.panel
    found = next((item for item in job.panels if item.id == panel), None)
    if found is None:
        raise EditError(f"no panel {panel!r} in this job", key="panel", value=panel)
    if circuit.feeds == panel:
        raise EditError(f"{found.name} cannot be fed from itself", key="panel", value=panel)
    last = edit.space + (2 if circuit.poles == 2 else 0) if edit.space else 0
    if last > found.spaces:
        raise EditError(
            f"space {last} is past the {found.spaces} spaces of {found.name}",
            key="space",
            value=edit.space,
            allowed=[f"1 to {found.spaces - (2 if circuit.poles == 2 else 0)}"],
        )
    return with_circuit(job, circuit.model_copy(update={"space": edit.space, "half": edit.half, "panel": panel}))


def with_circuit(job: Job, circuit: Circuit) -> Job:
    """The job with one circuit as it is here."""
    return with_parts(job, circuits=tuple(circuit if item.id == circuit.id else item for item in job.circuits))
