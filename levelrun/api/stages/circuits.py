"""The view of Circuits: every circuit as a row, the panel and the circuit looked at whole; and the directory."""

from __future__ import annotations

from collections.abc import AsyncIterator
from typing import Annotated

from fastapi import APIRouter, Request
from fastapi.responses import Response, StreamingResponse
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.api.long import proposed
from levelrun.api.looking import ORDER, Look, Planned, planned_of
from levelrun.api.stages.building import LevelDrawing, level_looked_at
from levelrun.api.worker import Worker
from levelrun.core.circuits.circuit_plan import CircuitPlan, CircuitSummary
from levelrun.core.circuits.count import Count, count_circuits
from levelrun.core.circuits.planned import LooseBox, PanelPlan
from levelrun.core.circuits.proposer import Proposal
from levelrun.core.codebook import load
from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.exchange.circuits import write_circuits

router = APIRouter(prefix="/api", tags=["circuits"])
Few = Annotated[int, Field(strict=True, ge=0, le=40)]


class PanelRow(BaseModel):
    """A panel as a row."""

    id: str
    name: str
    verdict: str
    spaces: int
    free: int
    free_pairs: int


class CircuitsView(BaseModel):
    """Circuits and panels as rows, the ones looked at whole, and the level where the circuit's boxes stand."""

    circuits: list[CircuitSummary]
    panels: list[PanelRow]
    loose: list[LooseBox]
    panel: PanelPlan | None
    circuit: CircuitPlan | None
    wiring: list[Finding]
    level: LevelDrawing | None


class DirectoryView(BaseModel):
    """Every panel drawn, with its circuits: the sheet for the panel doors."""

    doors: list[PanelPlan]
    circuits: list[CircuitSummary]


def circuits_view(planned: Planned, look: Look) -> CircuitsView:
    """The view of Circuits: where a circuit is looked at and no panel is, the panel is the circuit's own."""
    plan = planned.plan
    panel_ids = {item.id for item in plan.panels}
    asked = look.panel if look.panel in panel_ids else None
    circuit = _circuit(planned, look, asked)
    panel_id = asked or (circuit.summary.panel if circuit else None)
    panel = next((item for item in plan.panels if item.id == panel_id), plan.panels[0] if plan.panels else None)
    where = look if look.room or look.level else Look(room=_room_of(planned.job, circuit, panel))
    return CircuitsView(
        circuits=[item.summary for item in plan.circuits],
        panels=[
            PanelRow(
                id=item.id,
                name=item.name,
                verdict=item.verdict,
                spaces=item.drawing.rows * 2,
                free=item.drawing.free,
                free_pairs=item.drawing.free_pairs,
            )
            for item in plan.panels
        ],
        loose=plan.loose,
        panel=panel,
        circuit=circuit,
        wiring=[f for f in plan.findings if f.about == "circuits"],
        level=_level(planned, where),
    )


def directory_view(planned: Planned, look: Look) -> DirectoryView:
    """The view of the directory."""
    return DirectoryView(doors=planned.plan.panels, circuits=[item.summary for item in planned.plan.circuits])


def _circuit(planned: Planned, look: Look, panel: str | None) -> CircuitPlan | None:
    """The circuit asked for, else the worst of the panel asked for; a panel without circuits has none."""
    circuits = planned.plan.circuits
    chosen = next((item for item in circuits if item.summary.id == look.circuit), None)
    here = [item for item in circuits if panel in (None, item.summary.panel)]
    return chosen or min(here, key=lambda item: ORDER[item.summary.verdict], default=None)


def _room_of(job: Job, circuit: CircuitPlan | None, panel: PanelPlan | None) -> str | None:
    """The room of a circuit's first box, or of its panel: what the plan shows."""
    on = {row.box for row in circuit.chain} if circuit else set()
    first = next((box.room for box in job.boxes if box.id in on and box.room), None)
    return first or next((item.room for item in job.panels if panel and item.id == panel.id), None)


def _level(planned: Planned, look: Look) -> LevelDrawing | None:
    level = next((room.level for room in planned.job.rooms if room.id == look.room), look.level)
    drawn = level_looked_at(planned, Look(level=level), None)
    return drawn.model_copy(update={"findings": []}) if drawn else None


class ProposalLine(BaseModel):
    """One line of the answer: a proposal with the edits that accept it, and how many there will be."""

    of: int
    proposal: Proposal
    edits: list[dict[str, object]]


LINE = TypeAdapter(ProposalLine)


@router.post("/jobs/{job_id}/propose", response_model=ProposalLine)
def propose_circuits(request: Request, job_id: JobId) -> StreamingResponse:
    """Circuits for all boxes that are on none: one JSON line each, as soon as it is settled. Nothing is kept."""
    job = jobs_of(request).get(job_id).job
    return StreamingResponse(_lines(request.app.state.worker, job), media_type="application/x-ndjson")


async def _lines(worker: Worker, job: Job) -> AsyncIterator[bytes]:
    async for of, proposal in worker.parts(proposed, job):
        yield LINE.dump_json(ProposalLine(of=of, proposal=proposal, edits=proposal.edits)) + b"\n"


class CountQuestion(BaseModel):
    """A dwelling before it is drawn: its floor area and what it has."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)
    floor_area_ft2: Annotated[float, Field(ge=0, le=20_000)]
    kitchens: Few = 1
    baths: Few = 1
    laundry: Few = 1
    garages: Few = 0
    outdoors: Few = 1
    appliances: list[Annotated[str, Field(max_length=40)]] = Field(default=[], max_length=40)
    rules: Annotated[str, Field(max_length=20)] = "us-2023"


@router.post("/count")
def count(q: CountQuestion) -> Count:
    """How many circuits and spaces a dwelling wants, and the load that it would calculate to."""
    return count_circuits(
        load(q.rules), q.floor_area_ft2, q.kitchens, q.baths, q.laundry, q.garages, q.outdoors, tuple(q.appliances)
    )


@router.get("/jobs/{job_id}/circuits.csv")
def circuits_csv(request: Request, job_id: JobId) -> Response:
    """Every circuit as CSV."""
    job = jobs_of(request).get(job_id).job
    text = write_circuits(planned_of(job).plan.circuits, {panel.id: panel.name for panel in job.panels})
    return Response(text, media_type="text/csv", headers=attachment("circuits.csv"))
