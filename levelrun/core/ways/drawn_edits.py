"""Edits of ways that draw themselves: bent to a school or through a place, kept as walked, pulled."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Literal

from pydantic import Field

from levelrun.core.circuits.edits import circuit_of, with_circuit
from levelrun.core.circuits.loads import all_loads
from levelrun.core.circuits.parts import Hop, Via
from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, next_id, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Way
from levelrun.core.part import Id, Inches, School
from levelrun.core.ways.frame.found import found_ways

WORDS = {
    "": "as is the habit",
    "cheapest": "cheapest",
    "studs": "through the studs",
    "over": "over",
    "under": "under",
}


class Bend(EditBase):
    """Say how a hop goes through the frame, or all hops of a circuit where no box is named: by a school, through
    places of the plan. Null: as it is."""

    op: Literal["bend"]
    circuit: Id
    box: Id | None = None
    school: Literal["", School] | None = None
    via: Annotated[tuple[Via, ...], Field(max_length=12)] | None = None

    def title(self) -> str:
        if self.via:
            return "bend its way"
        return f"way {WORDS[self.school]}" if self.school is not None else "straighten its way"

    def apply(self, job: Job, book: Codebook) -> Job:
        levels = {level.id for item in job.structures for level in item.levels}
        for place in self.via or ():
            if place.level not in levels:
                raise EditError(f"no level {place.level!r} in this job", key="via", value=place.level)
        changes = {"school": self.school, "via": self.via}
        said = {key: value for key, value in changes.items() if value is not None}
        return _with_hops(job, self.circuit, self.box, lambda hop: hop.model_copy(update=said))


class Pulled(EditBase):
    """Say what was cut for a hop when it was pulled; null: it is not pulled yet."""

    op: Literal["pulled"]
    circuit: Id
    box: Id
    length_in: Inches | None

    def title(self) -> str:
        return "not pulled yet" if self.length_in is None else f"pulled, {self.length_in / 12:g} ft cut"

    def apply(self, job: Job, book: Codebook) -> Job:
        def pulled(hop: Hop) -> Hop:
            return hop.model_copy(update={"pulled_in": self.length_in})

        return _with_hops(job, self.circuit, self.box, pulled)


class Keep(EditBase):
    """Keep the way that a hop was given as one that was walked: it stays as it is whatever moves round it."""

    op: Literal["keep"]
    circuit: Id
    box: Id
    id: Id | None = None

    def title(self) -> str:
        return "keep this way"

    def apply(self, job: Job, book: Codebook) -> Job:
        circuit = circuit_of(job, self.circuit)
        one = found_ways(job, book, all_loads(job, book)).get(circuit.id, {}).get(self.box)
        if one is None or one.way is None:
            raise EditError("this cable has no way of its own to keep", key="box", value=self.box)
        ident = self.id or next_id(job, "w")
        way = Way.model_validate({**one.way.model_dump(), "id": ident, "name": _free_name(job, one.way.name)})
        job = with_parts(job, ways=(*job.ways, way))

        def taken(hop: Hop) -> Hop:
            return hop.model_copy(update={"path": (ident,), "via": (), "school": ""})

        return _with_hops(job, circuit.id, self.box, taken)


def _free_name(job: Job, name: str) -> str:
    taken = {way.name for way in job.ways}
    return next(found for found in (name, *(f"{name[:54]} {n}" for n in range(2, 999))) if found not in taken)


def _with_hops(job: Job, circuit_id: str, box: str | None, change: Callable[[Hop], Hop]) -> Job:
    circuit = circuit_of(job, circuit_id)
    if box is not None and box not in {hop.box for hop in circuit.chain}:
        raise EditError(f"box {box!r} is not on {circuit.name!r}", key="box", value=box)
    chain = tuple(change(hop) if box in (None, hop.box) else hop for hop in circuit.chain)
    return with_circuit(job, circuit.model_copy(update={"chain": chain}))


EDITS = (Bend, Pulled, Keep)
