"""Circuits and panels planned: contexts from the job, findings, panels drawn."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomContext
from levelrun.core.circuits.circuit_plan import CircuitPlan, CircuitSummary, plan_circuit
from levelrun.core.circuits.distance import Stand, apart, hop_lengths, stands
from levelrun.core.circuits.drawn import DrawnPanel, drawn_panel
from levelrun.core.circuits.facts import BoxPlace, CircuitContext
from levelrun.core.circuits.feeders import feeders_of
from levelrun.core.circuits.loads import CircuitLoads, Laid, LaidAs
from levelrun.core.circuits.lugs import lugs_of
from levelrun.core.circuits.makeup import makeup_in
from levelrun.core.circuits.panel_load import Served, calculated, leg_loads, served
from levelrun.core.circuits.places import box_places
from levelrun.core.circuits.rules import house, supply
from levelrun.core.circuits.rules import panel as panel_rules
from levelrun.core.circuits.rules.house import house_of
from levelrun.core.circuits.rules.panel import PanelFacts
from levelrun.core.circuits.service import LoadCalculation, compared_a
from levelrun.core.circuits.spaces import breaker_asked, label, occupied
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding, worst
from levelrun.core.job import Circuit, Job, Panel, Structure
from levelrun.core.kept import Standing
from levelrun.core.measure import shown_in
from levelrun.core.rulebook import judged, keeping
from levelrun.core.site.lived import as_laid_out, dwellings
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


@dataclass(frozen=True, kw_only=True)
class Known:
    """What is known of circuits before they are judged: what each carries, by id; each hop as it lies, by circuit and
    box; what it is there (12-3, 12 in pipe); and the pieces to cut along its ways (what, how many, inches)."""

    loads: Mapping[str, CircuitLoads]
    laid: Mapping[str, Mapping[str, Laid]]
    lies: Mapping[str, tuple[LaidAs, ...]]
    cuts: Mapping[str, tuple[tuple[str, int, float], ...]]


@dataclass(frozen=True)
class Wiring:
    """All circuits and panels planned."""

    circuits: list[CircuitPlan]
    panels: list[PanelPlan]
    loose: list[LooseBox]
    findings: list[Finding]


def plan_wiring(job: Job, book: Codebook, rooms: Sequence[RoomContext], known: Known) -> Wiring:
    """Plans every circuit and panel. Circuits that did not change are not computed again."""
    contexts = circuit_contexts(job, book, rooms, known)
    circuits = [plan_circuit(book, context) for context in contexts]
    with shown_in(book.units):
        branches = served(job, {name: loads.own for name, loads in known.loads.items()})
        old = {box.id for box in job.boxes if box.old}
        unknown = frozenset(item.id for item in job.circuits if breaker_asked(item, old))
        panels = [_panel(job, book, item, circuits, branches, unknown) for item in job.panels]
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
        findings += _of_buildings(book, whole) if job.circuits else []
    return Wiring(circuits, panels, loose, findings)


@keeping(8)
def _of_buildings(book: Codebook, whole: house.House) -> tuple[Finding, ...]:
    """What is said of all circuits together, as it is told of the building that it is about."""
    structures = {item.id: item for item in whole.structures}
    told: list[Finding] = []
    for item in judged(book, (*house.RULES, *supply.RULES), whole):
        structure = structures.get(item.subject)
        told += [item] if structure is None else as_laid_out([item], structure, whole.lived[structure.id], False)
    return tuple(told)


NOTHING_CUT: tuple[tuple[str, int, float], ...] = ()
_contexts = Standing[CircuitContext](2048)


def circuit_contexts(job: Job, book: Codebook, rooms: Sequence[RoomContext], known: Known) -> list[CircuitContext]:
    """Every circuit with what it touches."""
    where = stands(job, book, rooms)
    places = box_places(book, rooms, job)
    panels = {panel.id: panel for panel in job.panels}
    by_id = {circuit.id: circuit for circuit in job.circuits}
    feeding = feeders_of(job)
    dropped = {p.id: _feeder_percent(job, book, p.id, feeding, known, where) for p in job.panels}
    return [_context(job, circuit, panels, by_id, known, where, places, dropped) for circuit in job.circuits]


def _context(
    job: Job,
    circuit: Circuit,
    panels: Mapping[str, Panel],
    by_id: Mapping[str, Circuit],
    known: Known,
    where: Mapping[str, Stand],
    places: Mapping[str, BoxPlace],
    dropped: Mapping[str, float],
) -> CircuitContext:
    """A circuit with what it touches: the same one while all of that is the same."""
    loads, laid = known.loads[circuit.id], known.laid.get(circuit.id, {})
    panel, fed = panels[circuit.panel], panels.get(circuit.feeds or "")
    partner = by_id.get(circuit.partner or "")
    cuts, lies = known.cuts.get(circuit.id, NOTHING_CUT), known.lies.get(circuit.id, ())
    whole = bool(fed and _whole_dwelling(job, panel, fed))
    standing = [where.get(box.id) for box in (*loads.own, panel, *((fed,) if fed else ()))]
    placed = [places.get(box.id) for box in loads.own]

    def made() -> CircuitContext:
        return CircuitContext(
            circuit=circuit,
            panel=panel,
            habits=job.habits,
            boxes=loads.own,
            places=tuple((box.id, place) for box, place in zip(loads.own, placed, strict=True) if place),
            lengths=tuple(hop_lengths(circuit, where, laid).items()),
            feeder_percent=dropped[panel.id],
            wires=tuple(item.wires for item in laid.values()),
            methods=tuple((item.wires.box, item.methods) for item in laid.values() if item.methods),
            cuts=cuts,
            lies=lies,
            partner=partner,
            fed=fed,
            fed_load_a=loads.fed_load_a,
            other_building=bool(fed and fed.structure != panel.structure),
            apart=tuple(_apart(circuit, where)),
            whole_dwelling=whole,
        )

    source = (panel, fed, job.habits, loads, partner, *laid.values(), cuts, lies, *standing, *placed)
    return _contexts.get((circuit.id, dropped[panel.id], whole), source, made)


def _feeder_percent(
    job: Job,
    book: Codebook,
    panel: str,
    feeding: Mapping[str, Circuit],
    known: Known,
    where: Mapping[str, Stand],
) -> float:
    """Drop of the feeders up to the service, at the load that each carries, hop by hop."""
    total, seen = 0.0, {panel}
    while (circuit := feeding.get(panel)) is not None:
        item, own = known.loads[circuit.id], hop_lengths(circuit, where, known.laid.get(circuit.id, {}))
        for link in item.tree.path(panel):
            wires = known.laid[circuit.id][link.box].wires
            hop = item.hops[link.box]
            length = hop.length_in if hop.length_in is not None else own.get((link.after, link.box), 0.0)
            if wires.wire_size in wire_sizes(book) and length:
                whole = length + sum(makeup_in(book, job.habits, job.node(n), False) for n in (wires.start, link.box))
                total += drop(
                    book, float(circuit.volts), wires.load_a, whole / 12, wires.wire_size, circuit.material
                ).drop_percent
        panel = circuit.panel
        if panel in seen:
            break
        seen.add(panel)
    return total


def _apart(circuit: Circuit, where: Mapping[str, Stand]) -> Iterator[tuple[str, float]]:
    """Hops whose length was taped, by the box they go to, with how far their ends stand apart."""
    for hop in circuit.chain:
        start = hop.after or circuit.panel
        if hop.length_in is not None and start in where and hop.box in where:
            yield hop.box, apart(where[start], where[hop.box])


def _whole_dwelling(job: Job, panel: Panel, fed: Panel) -> bool:
    """Whether a feeder carries all of a dwelling: it comes from outside, and no other panel there is fed apart."""
    if dwellings(job)[fed.structure] is not True or panel.structure == fed.structure:
        return False
    inside = {item.id for item in job.panels if item.structure == fed.structure}
    others = {c.feeds for c in job.circuits if c.panel not in inside and c.feeds in inside}
    return others == {fed.id}


def _panel(
    job: Job,
    book: Codebook,
    panel: Panel,
    circuits: Sequence[CircuitPlan],
    branches: Served,
    unknown: frozenset[str],
) -> PanelPlan:
    feeder = feeders_of(job).get(panel.id)
    return _planned_panel(
        book,
        panel,
        tuple(circuit for circuit in job.circuits if circuit.panel == panel.id),
        feeder,
        calculated(book, job, panel, branches),
        _new_house(job.structure(panel.structure)),
        feeder is not None and job.node(feeder.panel).structure != panel.structure,
        tuple(item.summary for item in circuits if item.summary.panel == panel.id),
        unknown,
    )


def _new_house(structure: Structure) -> bool:
    """A one-family dwelling whose service is this job's."""
    lived = structure.dwelling if structure.dwelling is not None else structure.kind == "house"
    return lived and structure.kind == "house" and not structure.existing


@keeping(256)
def _planned_panel(
    book: Codebook,
    panel: Panel,
    own: tuple[Circuit, ...],
    feeder: Circuit | None,
    load: LoadCalculation,
    house: bool,
    detached: bool,
    rows: tuple[CircuitSummary, ...],
    unknown: frozenset[str],
) -> PanelPlan:
    """Plans one panel; `unknown`: circuits that have a breaker in it of which nobody knows which. Kept for as long as
    nothing on it changes."""
    fed, amps = feeder is not None, compared_a(book, load.amps)
    facts = PanelFacts(
        panel=panel,
        where=occupied(panel, [circuit for circuit in own if circuit.id not in unknown]),
        circuits=own,
        feeder=feeder,
        fed=fed,
        load=load,
        amps=amps,
        bigger=_bigger(book, feeder, amps),
        house=house,
        detached=detached,
        order=tuple(wire_sizes(book)),
    )
    found = [] if facts.untouched else judged(book, panel_rules.RULES, facts)
    legs = leg_loads(own, {row.id: row.load_a for row in rows})
    words = f"Calculated load {load.amps:.0f} A" + (f" of {panel.main_a:g} A" if panel.main_a and not fed else "")
    if panel.taken or panel.free_said is not None:
        words += ", of what is entered here"
    if feeder is not None:
        words = f"Calculated load {load.amps:.0f} A on a {feeder.breaker_a:g} A feeder, {label(feeder)}"
    neutrals = sum(circuit.neutral for circuit in own)
    drawing = drawn_panel(panel, fed, rows, legs, neutrals, words, lugs_of(book, panel))
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
