"""Circuits and panels planned: contexts from the job, findings, panels drawn."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomContext
from levelrun.core.circuits.circuit_plan import CircuitPlan, plan_circuit
from levelrun.core.circuits.distance import Stand, apart, hop_lengths, stands, taped
from levelrun.core.circuits.drawn import DrawnPanel, drawn_panel
from levelrun.core.circuits.facts import CircuitContext
from levelrun.core.circuits.panel_load import calculated, leg_loads
from levelrun.core.circuits.places import box_places
from levelrun.core.circuits.rules import house
from levelrun.core.circuits.rules import panel as panel_rules
from levelrun.core.circuits.rules.house import house_of
from levelrun.core.circuits.rules.panel import PanelFacts
from levelrun.core.circuits.service import LoadCalculation
from levelrun.core.circuits.spaces import label, occupied
from levelrun.core.circuits.usual import expected_w
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding, worst
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.measure import shown_in
from levelrun.core.rulebook import judged
from levelrun.core.site.parts import DWELLINGS
from levelrun.core.trade.conductors.sizing import Demand, choose, standard_breaker
from levelrun.core.trade.drop import drop


@dataclass(frozen=True, kw_only=True)
class LooseBox:
    """A box that is on no circuit yet."""

    id: str
    name: str
    kind: str
    room: str
    room_name: str
    structure: str


@dataclass(frozen=True, kw_only=True)
class PanelPlan:
    """A panel planned: its findings, its drawing, its load calculation."""

    id: str
    name: str
    verdict: str
    findings: list[Finding]
    drawing: DrawnPanel
    load: LoadCalculation


@dataclass(frozen=True)
class Wiring:
    """All circuits and panels planned."""

    circuits: list[CircuitPlan]
    panels: list[PanelPlan]
    loose: list[LooseBox]
    findings: list[Finding]


def plan_wiring(job: Job, book: Codebook, rooms: Sequence[RoomContext]) -> Wiring:
    """Plans every circuit and panel. Circuits that did not change are not computed again."""
    contexts = circuit_contexts(job, book, rooms)
    circuits = [plan_circuit(book, context) for context in contexts]
    with shown_in(book.units):
        by_run = _fed_by_runs(job)
        panels = [_panel(job, book, item, circuits, by_run) for item in job.panels]
        whole = house_of(job, book)
        names = {room.id: room.name for room in job.rooms}
        loose = [
            LooseBox(
                id=b.id,
                name=b.name,
                kind=b.kind,
                room=b.room or "",
                room_name=names.get(b.room or "", ""),
                structure=b.structure,
            )
            for b in whole.loose
        ]
        findings = [f for c in circuits for f in c.findings] + [f for p in panels for f in p.findings]
        findings += judged(book, house.RULES, whole) if job.circuits else []
    return Wiring(circuits, panels, loose, findings)


def circuit_contexts(job: Job, book: Codebook, rooms: Sequence[RoomContext]) -> list[CircuitContext]:
    """Every circuit with what it touches."""
    where = stands(job, book, rooms)
    lengths = hop_lengths(job, where)
    places = box_places(book, rooms)
    boxes = {box.id: box for box in job.boxes}
    panels = {panel.id: panel for panel in job.panels}
    by_id = {circuit.id: circuit for circuit in job.circuits}
    feeding: dict[str | None, Circuit] = {c.feeds: c for c in job.circuits if c.feeds}
    expected = _expected(job, book, boxes)
    known = taped(job)
    found = []
    for circuit in job.circuits:
        own = tuple(boxes[h] for h in dict.fromkeys(hop.box for hop in circuit.chain) if h in boxes)
        fed = panels.get(circuit.feeds or "")
        panel = panels[circuit.panel]
        found.append(
            CircuitContext(
                circuit=circuit,
                panel=panel,
                habits=job.habits,
                boxes=own,
                places=tuple((box.id, places[box.id]) for box in own if box.id in places),
                lengths=tuple(lengths[circuit.id].items()),
                feeder_percent=_feeder_percent(book, circuit.panel, feeding, expected, known),
                partner=by_id.get(circuit.partner or ""),
                fed=fed,
                fed_load_a=expected.get(fed.id, 0.0) if fed else 0.0,
                other_building=bool(fed and fed.structure != panel.structure),
                apart=tuple(_apart(circuit, where)),
                whole_dwelling=bool(fed and _whole_dwelling(job, panel, fed)),
            )
        )
    return found


def _expected(job: Job, book: Codebook, boxes: Mapping[str, Box]) -> dict[str, float]:
    """Amperes at 240 V that each panel expects, the panels that it feeds included."""
    own: dict[str, float] = {}
    feeds: dict[str, list[str]] = {}
    for circuit in job.circuits:
        if circuit.feeds:
            feeds.setdefault(circuit.panel, []).append(circuit.feeds)
            continue
        va = sum(expected_w(book, boxes[hop.box]) for hop in circuit.chain if hop.box in boxes)
        own[circuit.panel] = own.get(circuit.panel, 0.0) + va / 240

    def whole(panel: str, seen: frozenset[str]) -> float:
        below = [item for item in feeds.get(panel, ()) if item not in seen]
        return own.get(panel, 0.0) + sum(whole(item, seen | {item}) for item in below)

    return {panel.id: whole(panel.id, frozenset({panel.id})) for panel in job.panels}


def _feeder_percent(
    book: Codebook,
    panel: str,
    feeding: Mapping[str | None, Circuit],
    expected: Mapping[str, float],
    known: Mapping[tuple[str, str], float],
) -> float:
    """Drop of the feeders up to the service, at the load that each panel expects."""
    total, seen = 0.0, {panel}
    while (circuit := feeding.get(panel)) is not None:
        length = known.get((circuit.panel, panel), 0.0)
        if circuit.wire_size in wire_sizes(book):
            total += drop(
                book, float(circuit.volts), expected.get(panel, 0.0), length / 12, circuit.wire_size, circuit.material
            ).drop_percent
        panel = circuit.panel
        if panel in seen:
            break
        seen.add(panel)
    return total


def _fed_by_runs(job: Job) -> set[str]:
    """Panels to which a run brings power from another panel."""
    panels = {item.id for item in job.panels}
    return {
        leg.end.node
        for run in job.runs
        if run.start in panels
        for leg in run.legs
        if leg.end.node in panels and leg.end.node != run.start
    }


def _apart(circuit: Circuit, where: Mapping[str, Stand]) -> Iterator[tuple[str, float]]:
    """Hops whose length was taped, by the box they go to, with how far their ends stand apart."""
    for hop in circuit.chain:
        start = hop.after or circuit.panel
        if hop.length_in is not None and start in where and hop.box in where:
            yield hop.box, apart(where[start], where[hop.box])


def _whole_dwelling(job: Job, panel: Panel, fed: Panel) -> bool:
    """Whether a feeder carries all of a dwelling: it comes from outside, and no other panel there is fed apart."""
    if job.structure(fed.structure).kind not in DWELLINGS or panel.structure == fed.structure:
        return False
    inside = {item.id for item in job.panels if item.structure == fed.structure}
    others = {c.feeds for c in job.circuits if c.panel not in inside and c.feeds in inside}
    return others == {fed.id}


def _panel(job: Job, book: Codebook, panel: Panel, circuits: Sequence[CircuitPlan], by_run: set[str]) -> PanelPlan:
    own = tuple(circuit for circuit in job.circuits if circuit.panel == panel.id)
    feeder = next((circuit for circuit in job.circuits if circuit.feeds == panel.id), None)
    fed = feeder is not None or panel.id in by_run
    load = calculated(book, job, panel)
    facts = PanelFacts(
        panel=panel,
        where=occupied(panel, own),
        circuits=own,
        feeder=feeder,
        fed=fed,
        load=load,
        bigger=_bigger(book, feeder, load.amps),
        house=job.structure(panel.structure).kind == "house",
        detached=feeder is not None and job.node(feeder.panel).structure != panel.structure,
    )
    found = [] if facts.untouched else judged(book, panel_rules.RULES, facts)
    rows = [item.summary for item in circuits if item.summary.panel == panel.id]
    legs = leg_loads(own, {row.id: row.load_a for row in rows})
    words = f"Calculated load {load.amps:.0f} A" + (f" of {panel.main_a:g} A" if panel.main_a and not fed else "")
    if feeder is not None:
        words = f"Calculated load {load.amps:.0f} A on a {feeder.breaker_a:g} A feeder, {label(feeder)}"
    neutrals = sum(circuit.neutral for circuit in own)
    drawing = drawn_panel(panel, fed, rows, legs, neutrals, words)
    return PanelPlan(id=panel.id, name=panel.name, verdict=worst(found), findings=found, drawing=drawing, load=load)


def _bigger(book: Codebook, feeder: Circuit | None, amps: float) -> tuple[float, str] | None:
    """Breaker and wire of a feeder for a calculated load; None where the feeder carries it or no wire would."""
    if feeder is None or amps <= feeder.breaker_a:
        return None
    try:
        breaker = standard_breaker(book, amps)
        demand = Demand(load_a=amps, breaker_a=breaker, material=feeder.material, wiring=feeder.method, volts=240.0)
        return breaker, choose(book, demand).size
    except LevelRunError:
        return None
