"""The view of Runs: every circuit as a row with the ways it takes, one way and one circuit whole; what may go on one
leg."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping
from functools import lru_cache
from itertools import chain

from fastapi import APIRouter, Request
from pydantic import BaseModel

from levelrun.api.common import JobId, jobs_of
from levelrun.api.looking import ORDER, Look, Planned, book_today, planned_of, worst_first
from levelrun.api.stages.building import LevelDrawing, level_looked_at
from levelrun.core.circuits.circuit_plan import CircuitPlan, CircuitSummary
from levelrun.core.circuits.edits import circuit_of
from levelrun.core.errors import EditError
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.job import Circuit
from levelrun.core.kept import Standing
from levelrun.core.measure import show, shown_in
from levelrun.core.plan import (
    Plan,
    PlannedWay,
    WayPlan,
    WaySummary,
    leg_alternatives,
    names_of,
    plan_way,
    way_contexts,
)
from levelrun.core.site.geometry import walls_of
from levelrun.core.ways.alternatives import Alternative
from levelrun.core.ways.bending import Bent, bent
from levelrun.core.ways.drawing import DrawnWay
from levelrun.core.ways.drilling import SheetRow, sheet, studs_of
from levelrun.core.ways.frame.drawn import PlanCable, plan_cables
from levelrun.core.ways.frame.found import way_id
from levelrun.core.ways.frame.prices import work_text
from levelrun.core.ways.lengths import Cut
from levelrun.core.ways.ordering import Order, orders_of
from levelrun.core.ways.pull_list import PullList, PullTotal, letters_of, pull_list, pull_totals
from levelrun.core.ways.schools import SchoolRow, schools_of

router = APIRouter(prefix="/api/jobs", tags=["runs"])


class CircuitRow(BaseModel):
    """A circuit as a row: its verdict and that of its ways together. `unwalked`: hops that take no walked way;
    `length_in`: all its cable as it lies."""

    id: str
    label: str
    name: str
    panel: str
    panel_name: str
    words: str
    verdict: str
    stops: int
    checks: int
    ways: list[str]
    unwalked: int
    length_in: float


class HopRow(BaseModel):
    """One cable of the circuit looked at. `kind`: walked, drawn (the frame gave its way), pipe (its path is known, no
    pipe is laid), taped, apart (to another building, not drawn yet) or none. `why`: what keeps it from a way."""

    box: str
    name: str
    after: str
    cable: str
    kind: str
    way: str | None
    verdict: str
    length_in: float | None
    length_text: str
    work: str
    school: str
    bent: bool
    why: str


class RunsView(BaseModel):
    """Circuits worst first; ways; the way and the circuit looked at whole. `idle`: ways that no circuit takes;
    `boxes`: the fill of its boxes that stand in no drawn room; `beside`: what its panel and boxes lack. `hops`: the
    cables of the circuit; `schools`: what each school of routing would take; `level`: the plan with its `cables`;
    `totals`: all cable of the job by kind."""

    circuits: list[CircuitRow]
    ways: list[WaySummary]
    idle: list[str]
    focus: WayPlan | None
    circuit: CircuitPlan | None
    drawn: bool
    boxes: list[Figure]
    beside: list[Finding]
    hops: list[HopRow]
    schools: list[SchoolRow]
    level: LevelDrawing | None
    cables: list[PlanCable]
    totals: list[PullTotal]


def runs_view(planned: Planned, look: Look) -> RunsView:
    """The view of Runs: the way asked for, else the worst of the circuit asked for, else of all."""
    rows = _ordered(list(_rows(planned)))
    ways = {way.summary.id: way for way in planned.plan.ways}
    drawn = planned.plan.drawn.ways
    focus = ways.get(look.way or "")
    row = next((row for row in rows if row.id == look.circuit), None)
    if look.way in drawn:
        focus = plan_way(planned.book, drawn[look.way].context)
        row = next((row for row in rows if row.id == drawn[look.way or ""].found.circuit), row)
    elif focus is not None and (row is None or focus.summary.id not in row.ways):
        row = next((row for row in rows if row.id in focus.summary.circuits), row)
    elif focus is None and row is None:
        row = next((row for row in rows if row.ways), rows[0] if rows else None)
    if focus is None:
        own = [ways[name] for name in (row.ways if row else ())]
        focus = min(own, key=lambda way: ORDER[way.summary.verdict], default=None)
        if focus is None and row is not None:
            first = next((one for one in drawn.values() if one.found.circuit == row.id), None)
            focus = plan_way(planned.book, first.context) if first is not None else None
    circuits = {circuit.summary.id: circuit for circuit in planned.plan.circuits}
    idle = [way.summary.id for way in planned.plan.ways if not way.summary.circuits]
    if focus is None and not rows and idle:
        focus = ways[idle[0]]
    level = _level(planned, look, circuits[row.id] if row else None)
    return RunsView(
        circuits=rows,
        ways=[way.summary for way in planned.plan.ways],
        idle=idle,
        focus=focus.whole if focus is not None else None,
        circuit=circuits[row.id] if row else None,
        drawn=focus is not None and focus.summary.id in drawn,
        boxes=_boxes(planned, circuits[row.id]) if row else [],
        beside=_beside(planned, circuits[row.id]) if row else [],
        hops=list(_hops(planned, circuits[row.id])) if row else [],
        schools=_schools(planned, row.id) if row else [],
        level=level,
        cables=_cables(planned, level.level) if level else [],
        totals=_totals(planned),
    )


def _level(planned: Planned, look: Look, circuit: CircuitPlan | None) -> LevelDrawing | None:
    """The level asked for, else the one on which most boxes of the circuit stand."""
    levels = {room.id: room.level for room in planned.job.rooms}
    if not levels:
        return None
    if look.level is None and circuit is not None:
        at = {node.id: levels[node.room] for node in planned.job.nodes if node.room}
        here = Counter(at[box] for box in (*(row.box for row in circuit.chain), circuit.summary.panel) if box in at)
        if here:
            look = look.model_copy(update={"level": here.most_common(1)[0][0]})
    return level_looked_at(planned, look, None)


_lines = Standing[list[PlanCable]](64)


def _cables(planned: Planned, level: str) -> list[PlanCable]:
    found = planned.plan.drawn.every
    return _lines.get(level, tuple(found), lambda: plan_cables(found, level))


def _hops(planned: Planned, circuit: CircuitPlan) -> Iterator[HopRow]:
    """The cables of a circuit, each with its way."""
    drawn, names = planned.plan.drawn, names_of(planned.job)
    found = drawn.found.get(circuit.summary.id, {})
    walked = {way.summary.id: way.summary.verdict for way in planned.plan.ways}
    said = circuit_of(planned.job, circuit.summary.id)
    hops = {hop.box: hop for hop in said.chain}
    for row in circuit.chain:
        if row.old:  # its cable was there, and nobody walks it
            continue
        one, hop = found.get(row.box), hops[row.box]
        way = row.path[0] if row.path else one.way.id if one is not None and one.way is not None else None
        kind = "walked" if row.path else "taped" if hop.length_in is not None else "none"
        if one is not None:
            kind = "drawn" if one.way is not None else "pipe" if one.route is not None else "none"
            kind = "apart" if one.why == "between buildings" else kind
            if one.rides_with is not None:
                kind, way = "drawn", way_id(*one.rides_with)
        findings = drawn.ways[way].findings if way in drawn.ways else []
        yield HopRow(
            box=row.box,
            name=row.name,
            after=names.get(row.after or said.panel, ""),
            cable=row.cable,
            kind=kind,
            way=way,
            verdict=walked.get(way or "", worst(findings)) if kind != "none" else "check",
            length_in=row.length_in,
            length_text=row.length_text,
            work=work_text(one.route.work) if one is not None and one.route is not None else "",
            school=hop.school,
            bent=bool(hop.via),
            why=one.why if one is not None else "",
        )


def _schools(planned: Planned, circuit: str) -> list[SchoolRow]:
    job = planned.job
    nodes = {node.id: node for node in job.nodes}
    with shown_in(planned.book.units):
        own = planned.plan.drawn.found.get(circuit, {})
        return schools_of(planned.book, job.habits, circuit_of(job, circuit), own, nodes)


_pulls = Standing[PullList](8)


def pulls_of(planned: Planned) -> PullList:
    """The pull list of a job as planned."""
    plan = planned.plan

    def made() -> PullList:
        labels = {item.summary.id: item.summary.label for item in plan.circuits}
        with shown_in(planned.book.units):
            return pull_list(planned.job, labels, _cuts(plan))

    return _pulls.get(None, (plan,), made)


def _cuts(plan: Plan) -> list[Cut]:
    every: list[PlannedWay | DrawnWay] = [*plan.ways, *plan.drawn.ways.values()]
    return [*(cut for way in every for cut in way.cuts), *chain.from_iterable(plan.unwalked.values())]


def _totals(planned: Planned) -> list[PullTotal]:
    with shown_in(planned.book.units):
        return pull_totals(planned.job, _cuts(planned.plan))


@router.get("/{job_id}/pulls")
def pulls(request: Request, job_id: JobId) -> PullList:
    """Every cable to pull, longest first, and the total of each kind."""
    return pulls_of(planned_of(jobs_of(request).get(job_id).job))


@router.get("/{job_id}/circuits/{circuit_id}/orders")
def orders(request: Request, job_id: JobId, circuit_id: str) -> list[Order]:
    """Orders for the boxes of a circuit over the ways that the frame gives."""
    job = jobs_of(request).get(job_id).job
    book = book_today(job)
    with shown_in(book.units):
        return orders_of(job, book, circuit_of(job, circuit_id))


@router.get("/{job_id}/circuits/{circuit_id}/hops/{box}/bent")
def bent_way(
    request: Request, job_id: JobId, circuit_id: str, box: str, level: str, x: float, y: float, at: str = "over"
) -> Bent:
    """The way of a hop as it would lie, drawn through a point of a level's plan; nothing is changed."""
    job = jobs_of(request).get(job_id).job
    book = book_today(job)
    with shown_in(book.units):
        return bent(job, book, circuit_id, box, level, (x, y), at)


class DrillingRow(BaseModel):
    """One stud of a drilling sheet; `cables`: the letters of those that go through it."""

    number: int
    at_in: float
    kind: str
    height_in: float
    bit_in: float
    count: int
    cables: list[str]
    plates: bool
    allowed: bool | None


class DrillingSheet(BaseModel):
    """The holes of one wall as a room faces it: studs from the left corner."""

    room: str
    side: int
    title: str
    length_text: str
    studs: list[float]
    length_in: float
    rows: list[DrillingRow]


@router.get("/{job_id}/drilling")
def drilling(request: Request, job_id: JobId, room: str | None = None) -> list[DrillingSheet]:
    """The drilling sheet of every wall that is bored, or of those of one room; a shared wall is told once."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    rooms = {item.id: item for item in planned.job.rooms}
    letters = letters_of(planned.job, {c.summary.id: c.summary.label for c in planned.plan.circuits})
    found: list[DrillingSheet] = []
    for line, wall in planned.plan.drawn.walls.items():
        members = [m for m in line.members if room in (None, m.room)]
        told: list[tuple[float, float]] = []
        for member in members:
            if any(a <= member.from_in + 1 and member.to_in - 1 <= b for a, b in told):
                continue
            told.append((member.from_in, member.to_in))
            rows = sheet(wall, member)
            if rows:
                name = walls_of(rooms[member.room])[member.side].name
                long = member.to_in - member.from_in
                with shown_in(planned.book.units):
                    found.append(
                        DrillingSheet(
                            room=member.room, side=member.side, title=f"{rooms[member.room].name}, {name} wall",
                            length_text=show(long), studs=studs_of(wall, member), length_in=long,
                            rows=[_drilling_row(row, letters) for row in rows],
                        )
                    )  # fmt: skip
    return found


def _boxes(planned: Planned, circuit: CircuitPlan) -> list[Figure]:
    own = {f"fill-{row.box}" for row in circuit.chain}
    return [figure for figure in planned.building.loose if figure.key in own]


def _beside(planned: Planned, circuit: CircuitPlan) -> list[Finding]:
    """What its panel, its boxes and the panel that it feeds lack, and the building that it is brought to."""
    said = circuit_of(planned.job, circuit.summary.id)
    source = planned.job.node(said.panel).structure
    own = {said.panel, *(row.box for row in circuit.chain)}
    if said.feeds is not None:
        own |= {said.feeds, planned.job.node(said.feeds).structure} - {source}
    about = ("panel", "box", "structure")
    return [item for item in planned.plan.findings if item.about in about and item.subject in own]


def _ordered(rows: list[CircuitRow]) -> list[CircuitRow]:
    """Panel by panel, the panel with the worst circuit first, and in each the worst circuit first."""
    panels = worst_first((row.panel, row.verdict) for row in rows)
    return sorted(rows, key=lambda row: (*panels[row.panel], ORDER[row.verdict]))


def _rows(planned: Planned) -> Iterator[CircuitRow]:
    ways = {way.summary.id: way.summary for way in planned.plan.ways}
    panels = {panel.id: panel.name for panel in planned.job.panels}
    said = {circuit.id: circuit for circuit in planned.job.circuits}
    for circuit in planned.plan.circuits:
        own = said[circuit.summary.id]
        names = tuple(dict.fromkeys(way for hop in own.chain for way in hop.path))
        summaries: list[CircuitSummary | WaySummary] = [circuit.summary, *(ways[name] for name in names)]
        parts = tuple((w.verdict, w.stops, w.checks) for w in summaries)
        length = sum(row.length_in or 0.0 for row in circuit.chain)
        old = {row.box for row in circuit.chain if row.old}
        unwalked = sum(not hop.path and hop.box not in old for hop in own.chain)
        yield _row(own, circuit.summary.label, panels[own.panel], names, parts, length, unwalked)


@lru_cache(maxsize=2048)
def _row(
    own: Circuit, label: str, panel_name: str, names: tuple[str, ...], parts: tuple[tuple[str, int, int], ...],
    length_in: float, unwalked: int,
) -> CircuitRow:  # fmt: skip
    """One row. The same one while nothing of it changes, so that an answer passes over it."""
    return CircuitRow(
        id=own.id,
        label=label,
        name=own.name,
        panel=own.panel,
        panel_name=panel_name,
        words=f"{own.breaker_a:g} A · {own.volts} V · {own.wire_size} {'al' if own.material == 'al' else 'cu'}",
        verdict=min((verdict for verdict, _, _ in parts), key=lambda verdict: ORDER[verdict]),
        stops=sum(stops for _, stops, _ in parts),
        checks=sum(checks for _, _, checks in parts),
        ways=list(names),
        unwalked=unwalked,
        length_in=length_in,
    )


@router.get("/{job_id}/ways/{way_id}/legs/{leg}/alternatives")
def alternatives(request: Request, job_id: JobId, way_id: str, leg: int) -> list[Alternative]:
    """What may go on one leg, best first."""
    job = jobs_of(request).get(job_id).job
    book = book_today(job)
    for context in way_contexts(job, book):
        if context.way.id == way_id and 0 <= leg < len(context.way.legs):
            return leg_alternatives(book, context, leg)
    raise EditError(f"no leg {leg + 1} of way {way_id!r} in this job", key="leg", value=leg)


def _drilling_row(row: SheetRow, letters: Mapping[tuple[str, str], str]) -> DrillingRow:
    return DrillingRow(
        number=row.number, at_in=row.at_in, kind=row.kind, height_in=row.height_in, bit_in=row.bit_in,
        count=row.count, cables=[letters[hop] for hop in row.hops], plates=row.plates, allowed=row.allowed,
    )  # fmt: skip
