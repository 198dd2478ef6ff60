"""What a panel carries: its calculated load, the load on each leg, from the circuits that are on it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.parts import PLUGS
from levelrun.core.circuits.service import Appliance, Dwelling, LoadCalculation, feeder, optional, standard
from levelrun.core.circuits.spaces import leg_of
from levelrun.core.circuits.usual import plated, usual_of, watts
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job, Panel, Room
from levelrun.core.kept import Standing
from levelrun.core.site.geometry import area_ft2
from levelrun.core.site.lived import dwellings

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


Served = dict[str, list[tuple[Circuit, tuple[Box, ...]]]]


def served(job: Job, boxes: Mapping[str, tuple[Box, ...]]) -> Served:
    """The branch circuits of each panel, each with its `boxes`, by panel id."""
    found: Served = {panel.id: [] for panel in job.panels}
    for circuit in job.circuits:
        if circuit.feeds is None:
            found[circuit.panel].append((circuit, boxes[circuit.id]))
    return found


def calculated(book: Codebook, job: Job, panel: Panel, branches: Served) -> LoadCalculation:
    """The load calculation of a panel with the panels that it feeds: a dwelling's by its method, else a feeder's."""
    structure = job.structure(panel.structure)
    below = subpanels(job, panel)
    on = tuple(branch for item in (panel, *below) for branch in branches[item.id])
    levels = {level.id for level in structure.levels}
    rooms = tuple(room for room in job.rooms if room.level in levels)
    away = frozenset(p.structure for p in below) - {structure.id}
    lived = dwellings(job)[structure.id] is not False
    parts = (item for circuit, boxes in on for item in (circuit, *boxes))
    return _kept.get(
        (panel.id, lived, away),
        (book, panel, *rooms, None, *parts),
        lambda: _calculated(book, panel, lived, rooms, on, away),
    )


_kept = Standing[LoadCalculation](256)


def _calculated(
    book: Codebook,
    panel: Panel,
    dwelling: bool,
    rooms: tuple[Room, ...],
    branches: tuple[tuple[Circuit, tuple[Box, ...]], ...],
    away: frozenset[str],
) -> LoadCalculation:
    on = [(circuit, box) for circuit, boxes in branches for box in plated(book, circuit, boxes)]
    own = _own(book, on)
    appliances = tuple(
        Appliance(
            box.serves, watts(book, box), _called(book, box), c.neutral and c.volts == 120, bool(box.continuous)
        )
        for c, box in own
    )
    if not dwelling:
        general = [box for _, box in on if not usual_of(book, box).own]
        plugs = sum(PLUG_VA * box.gangs for box in general if box.kind in PLUGS)
        rest = sum(watts(book, box) for box in general if box.kind not in PLUGS)
        return feeder(book, plugs + rest, appliances)
    area = panel.floor_area_ft2
    if area is None:
        area = sum(area_ft2(room.corners) for room in rooms if room.use in LIVED)
    uses = {room.id: room.use for room in rooms}
    counters = {c.id for c, box in on if box.serves == "counter"}
    laundries = {c.id for c, box in on if uses.get(box.room or "") == "laundry" and box.kind in PLUGS}
    whole_house = any(uses.get(box.room or "") == "kitchen" for _, box in on)
    home = Dwelling(
        area,
        max(len(counters), int(book.number("kitchen_circuits"))) if whole_house else len(counters),
        max(len(laundries), 1) if whole_house else len(laundries),
        tuple(a for (_, box), a in zip(own, appliances, strict=True) if box.structure not in away),
    )
    calculation = (optional if panel.calculation == "optional" else standard)(book, home)
    if not away:
        return calculation
    plugs = sum(PLUG_VA for _, box in on if box.structure in away and box.kind in PLUGS)
    outside = tuple(a for (_, box), a in zip(own, appliances, strict=True) if box.structure in away)
    return _joined(calculation, feeder(book, plugs, outside))


def _called(book: Codebook, box: Box) -> str:
    """An appliance by its title, and by its box where that says more."""
    title = usual_of(book, box).title
    return title if box.name.casefold() in title.casefold() else f"{title} {box.name}"


def _own(book: Codebook, on: Sequence[tuple[Circuit, Box]]) -> list[tuple[Circuit, Box]]:
    return [(c, box) for c, box in on if usual_of(book, box).own and watts(book, box)]


def _joined(home: LoadCalculation, other: LoadCalculation) -> LoadCalculation:
    total, neutral = home.total_va + other.total_va, home.neutral_va + other.neutral_va
    return LoadCalculation(
        method=home.method,
        steps=(*home.steps, *other.steps),
        total_va=total,
        amps=total / 240,
        neutral_va=neutral,
        neutral_a=neutral / 240,
        rule=home.rule,
        notes=(*home.notes, "buildings beyond are added as feeder loads"),
    )


def leg_loads(circuits: Sequence[Circuit], amps: Mapping[str, float]) -> list[LegLoad]:
    """Amperes expected on each leg: a double-pole breaker counts on both."""
    totals = {"A": 0.0, "B": 0.0}
    for circuit in circuits:
        if circuit.space is None:
            continue
        for leg in ("A", "B") if circuit.poles == 2 else (leg_of(circuit.space),):
            totals[leg] += amps.get(circuit.id, 0.0)
    return [LegLoad(leg, total) for leg, total in totals.items()]
