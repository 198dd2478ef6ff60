"""What a panel carries: its calculated load, the load on each leg, from the circuits that are on it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.circuits.service import Appliance, Dwelling, LoadCalculation, feeder, optional, standard
from levelrun.core.circuits.spaces import leg_of
from levelrun.core.circuits.usual import usual_of, watts
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.site.geometry import area_ft2

DWELLINGS = ("house", "cabin")
LIVED = ("common", "kitchen", "dining", "bedroom", "bath", "hall", "stairs", "closet", "laundry", "utility")
PLUG_VA = 180.0


@dataclass(frozen=True)
class LegLoad:
    """Amperes expected on one leg of a panel."""

    leg: str
    amps: float


def subpanels(job: Job, panel: Panel) -> list[Panel]:
    """The panels that a panel feeds, and those that they feed; a loop of feeders is walked once."""
    by_id = {item.id: item for item in job.panels}
    found: list[Panel] = []
    waiting, seen = [panel.id], {panel.id}
    while waiting:
        at = waiting.pop()
        for circuit in job.circuits:
            if circuit.panel == at and circuit.feeds in by_id and circuit.feeds not in seen:
                seen.add(circuit.feeds or "")
                found.append(by_id[circuit.feeds or ""])
                waiting.append(circuit.feeds or "")
    return found


def calculated(book: Codebook, job: Job, panel: Panel) -> LoadCalculation:
    """The load calculation of a panel with the panels that it feeds: a dwelling's by its method, else a feeder's."""
    structure = next(item for item in job.structures if item.id == panel.structure)
    panels = {panel.id, *(item.id for item in subpanels(job, panel))}
    circuits = [c for c in job.circuits if c.panel in panels and c.feeds is None]
    boxes = {box.id: box for box in job.boxes}
    on = [(c, boxes[hop.box]) for c in circuits for hop in c.chain if hop.box in boxes]
    appliances = tuple(
        Appliance(box.serves, watts(book, box), box.name, c.neutral and c.volts == 120)
        for c, box in on
        if usual_of(book, box).own and watts(book, box)
    )
    if structure.kind not in DWELLINGS:
        general = [box for _, box in on if not usual_of(book, box).own]
        plugs = sum(PLUG_VA * box.gangs for box in general if box.kind in ("receptacle", "device"))
        rest = sum(watts(book, box) for box in general if box.kind not in ("receptacle", "device"))
        return feeder(book, plugs + rest, appliances)
    area = panel.floor_area_ft2
    if area is None:
        levels = {level.id for item in job.structures if item.id == structure.id for level in item.levels}
        area = sum(area_ft2(room.corners) for room in job.rooms if room.level in levels and room.use in LIVED)
    away = {p.structure for p in subpanels(job, panel)} - {structure.id}
    rooms = {room.id: room.use for room in job.rooms}
    counters = {c.id for c, box in on if box.serves == "counter"}
    laundries = {c.id for c, box in on if rooms.get(box.room or "") == "laundry" and box.kind == "receptacle"}
    own = tuple(a for (c, box), a in zip(_own(book, on), appliances, strict=True) if box.structure not in away)
    outside = tuple(a for (c, box), a in zip(_own(book, on), appliances, strict=True) if box.structure in away)
    whole_house = any(rooms.get(box.room or "") == "kitchen" for _, box in on)
    home = Dwelling(
        area,
        max(len(counters), int(book.number("kitchen_circuits"))) if whole_house else len(counters),
        max(len(laundries), 1) if whole_house else len(laundries),
        own,
    )
    calculation = (optional if panel.calculation == "optional" else standard)(book, home)
    if not away:
        return calculation
    plugs = sum(PLUG_VA for _, box in on if box.structure in away and box.kind in ("receptacle", "device"))
    return _joined(calculation, feeder(book, plugs, outside))


def _own(book: Codebook, on: Sequence[tuple[Circuit, Box]]) -> list[tuple[Circuit, Box]]:
    return [(c, box) for c, box in on if usual_of(book, box).own and watts(book, box)]


def _joined(home: LoadCalculation, other: LoadCalculation) -> LoadCalculation:
    total, neutral = home.total_va + other.total_va, home.neutral_va + other.neutral_va
    return LoadCalculation(
        home.method, [*home.steps, *other.steps], total, total / 240, neutral, neutral / 240, home.rule,
        [*home.notes, "buildings beyond are added as feeder loads"],
    )  # fmt: skip


def leg_loads(circuits: Sequence[Circuit], amps: Mapping[str, float]) -> list[LegLoad]:
    """Amperes expected on each leg: a double-pole breaker counts on both."""
    totals = {"A": 0.0, "B": 0.0}
    for circuit in circuits:
        if circuit.space is None:
            continue
        for leg in ("A", "B") if circuit.poles == 2 else (leg_of(circuit.space),):
            totals[leg] += amps.get(circuit.id, 0.0)
    return [LegLoad(leg, total) for leg, total in totals.items()]
