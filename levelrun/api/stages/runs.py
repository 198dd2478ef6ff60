"""The view of Runs: every circuit as a row with the ways it takes, one way and one circuit whole; what may go on one
leg."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from fastapi import APIRouter, Request
from pydantic import BaseModel

from levelrun.api.common import JobId, jobs_of
from levelrun.api.looking import ORDER, Look, Planned, book_today
from levelrun.core.circuits.circuit_plan import CircuitPlan, CircuitSummary
from levelrun.core.errors import EditError
from levelrun.core.findings import Figure, Finding
from levelrun.core.job import Circuit
from levelrun.core.plan import WayPlan, WaySummary, leg_alternatives, way_contexts
from levelrun.core.ways.alternatives import Alternative

router = APIRouter(prefix="/api/jobs", tags=["runs"])


class CircuitRow(BaseModel):
    """A circuit as a row: its verdict and that of its ways together. `unwalked`: hops that no way carries."""

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


class RunsView(BaseModel):
    """Circuits worst first; ways; the way and the circuit looked at whole. `idle`: ways that no circuit takes;
    `boxes`: the fill of its boxes that stand in no drawn room; `beside`: what its panel and boxes lack."""

    circuits: list[CircuitRow]
    ways: list[WaySummary]
    idle: list[str]
    focus: WayPlan | None
    circuit: CircuitPlan | None
    boxes: list[Figure]
    beside: list[Finding]


def runs_view(planned: Planned, look: Look) -> RunsView:
    """The view of Runs: the way asked for, else the worst of the circuit asked for, else of all."""
    rows = _ordered(list(_rows(planned)))
    ways = {way.summary.id: way for way in planned.plan.ways}
    focus = ways.get(look.way or "")
    row = next((row for row in rows if row.id == look.circuit), None)
    if focus is not None and (row is None or focus.summary.id not in row.ways):
        row = next((row for row in rows if row.id in focus.summary.circuits), row)
    elif focus is None and row is None:
        row = next((row for row in rows if row.ways), rows[0] if rows else None)
    if focus is None:
        own = [ways[name] for name in (row.ways if row else ())]
        focus = min(own, key=lambda way: ORDER[way.summary.verdict], default=None)
    circuits = {circuit.summary.id: circuit for circuit in planned.plan.circuits}
    idle = [way.summary.id for way in planned.plan.ways if not way.summary.circuits]
    if focus is None and not rows and idle:
        focus = ways[idle[0]]
    return RunsView(
        circuits=rows,
        ways=[way.summary for way in planned.plan.ways],
        idle=idle,
        focus=focus,
        circuit=circuits[row.id] if row else None,
        boxes=_boxes(planned, circuits[row.id]) if row else [],
        beside=_beside(planned, circuits[row.id]) if row else [],
    )


def _boxes(planned: Planned, circuit: CircuitPlan) -> list[Figure]:
    own = {f"fill-{row.box}" for row in circuit.chain}
    return [figure for figure in planned.building.loose if figure.key in own]


def _beside(planned: Planned, circuit: CircuitPlan) -> list[Finding]:
    own = {circuit.summary.panel, *(row.box for row in circuit.chain)}
    return [item for item in planned.plan.findings if item.about in ("panel", "box") and item.subject in own]


def _ordered(rows: list[CircuitRow]) -> list[CircuitRow]:
    """Panel by panel, the panel with the worst circuit first, and in each the worst circuit first."""
    worst: dict[str, int] = {}
    for row in rows:
        worst[row.panel] = min(worst.get(row.panel, 9), ORDER[row.verdict])
    panels = {panel: index for index, panel in enumerate(worst)}
    return sorted(rows, key=lambda row: (worst[row.panel], panels[row.panel], ORDER[row.verdict]))


def _rows(planned: Planned) -> Iterator[CircuitRow]:
    ways = {way.summary.id: way.summary for way in planned.plan.ways}
    panels = {panel.id: panel.name for panel in planned.job.panels}
    said = {circuit.id: circuit for circuit in planned.job.circuits}
    for circuit in planned.plan.circuits:
        own = said[circuit.summary.id]
        names = tuple(dict.fromkeys(way for hop in own.chain for way in hop.path))
        summaries: list[CircuitSummary | WaySummary] = [circuit.summary, *(ways[name] for name in names)]
        parts = tuple((w.verdict, w.stops, w.checks) for w in summaries)
        yield _row(own, circuit.summary.label, panels[own.panel], names, parts)


@lru_cache(maxsize=2048)
def _row(
    own: Circuit, label: str, panel_name: str, names: tuple[str, ...], parts: tuple[tuple[str, int, int], ...]
) -> CircuitRow:
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
        unwalked=sum(not hop.path for hop in own.chain),
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
