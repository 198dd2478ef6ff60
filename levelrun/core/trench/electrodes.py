"""The electrodes of a building: what is there, what it wants, what its conductor is."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Circuit, Electrode, Job, Service, Structure
from levelrun.core.site.stands_in import buildings_of
from levelrun.core.trade.ground_rods import Rods, rods
from levelrun.core.trench.yard import Footprint, yard_of

ROD_WIRE, FOOTING_WIRE = "6", "4"


@dataclass(frozen=True, eq=False)
class GroundFacts:
    """A building that is fed from outside, with its feeds, its electrodes and its service."""

    book: Codebook
    job: Job
    structure: Structure
    feeders: tuple[Circuit, ...]
    branches: tuple[Circuit, ...]
    electrodes: tuple[Electrode, ...]
    service: Service | None

    @cached_property
    def building(self) -> Footprint | None:
        """Its outline."""
        return yard_of(self.job).building(self.structure.id)

    @property
    def rods(self) -> list[Electrode]:
        """Its rods that are joined."""
        return [item for item in self.electrodes if item.kind == "rod" and item.bonded]

    @property
    def wants(self) -> bool:
        """Whether it must have electrodes: it has a service or a feeder; a single branch circuit with a ground asks
        for none (250.32(A) ex.)."""
        return self.service is not None or bool(self.feeders)

    @cached_property
    def wire(self) -> str:
        """What the conductor to its electrodes must be, by what comes in (250.66); copper."""
        if self.service is not None and self.service.wire_size:
            return electrode_wire(self.book, self.service.wire_size, self.service.material)
        sizes = [electrode_wire(self.book, c.wire_size, c.material) for c in self.feeders]
        order = wire_sizes(self.book)
        return max(sizes, key=order.index, default=ROD_WIRE)

    def wire_for(self, item: Electrode) -> str:
        """What the conductor of one electrode must be: to a rod never more than No. 6, to a footing No. 4."""
        order = wire_sizes(self.book)
        most = {"rod": ROD_WIRE, "plate": ROD_WIRE, "footing": FOOTING_WIRE}.get(item.kind)
        return min(self.wire, most, key=order.index) if most else self.wire

    def usual_wire(self, item: Electrode) -> str:
        """What is run to it: never under No. 6, since No. 8 must lie in a pipe of its own (250.64(B))."""
        order = wire_sizes(self.book)
        return max(self.wire_for(item), ROD_WIRE, key=order.index)

    def apart_in(self) -> float | None:
        """The least distance between two of its rods; None of fewer than two."""
        gaps = [
            math.dist((a.x_in, a.y_in), (b.x_in, b.y_in))
            for number, a in enumerate(self.rods)
            for b in self.rods[:number]
        ]
        return min(gaps, default=None)

    def expected(self) -> Rods | None:
        """Ohms that its rods would show in ordinary soil."""
        own, apart = self.rods, self.apart_in()
        if not own:
            return None
        return rods(
            own[0].length_in / 12, own[0].diameter_in, self.book.number("soil_ohm_m"), len(own), (apart or 0) / 12
        )  # fmt: skip


def electrode_wire(book: Codebook, largest: str, material: str) -> str:
    """Copper electrode conductor for the largest conductor that comes in. Next size up of the row; over the last its
    size. Table 250.66."""
    order = wire_sizes(book)
    rows = [row for row in book.table("250-66-electrode").rows if row["material"] == material]
    if largest not in order:
        return rows[0]["electrode_cu"]
    mine = order.index(largest)
    fits = (row for row in rows if row["largest"] not in order or order.index(row["largest"]) >= mine)
    return next(fits, rows[-1])["electrode_cu"]


def grounds_of(book: Codebook, job: Job) -> list[GroundFacts]:
    """Every building with a service, or fed from another, or with an electrode."""
    where = buildings_of(job)
    into: dict[str, tuple[list[Circuit], list[Circuit]]] = {item.id: ([], []) for item in job.structures}
    for c in job.circuits:
        reached = {where[c.feeds]} if c.feeds else {where[hop.box] for hop in c.chain}
        for name in reached - {where[c.panel]}:
            into[name][0 if c.feeds else 1].append(c)
    found: list[GroundFacts] = []
    for structure in job.structures:
        feeders, branches = (tuple(items) for items in into[structure.id])
        own = tuple(item for item in job.electrodes if item.structure == structure.id)
        service = next((item for item in job.services if item.structure == structure.id), None)
        if feeders or branches or own or service:
            found.append(GroundFacts(book, job, structure, feeders, branches, own, service))
    return found
