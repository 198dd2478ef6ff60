"""Circuits over the wire: proposals as they are settled, the bare count, load by both methods, CSV."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated

from fastapi import APIRouter, Request
from fastapi.responses import Response, StreamingResponse
from pydantic import BaseModel, ConfigDict, Field, TypeAdapter

from levelrun.api.jobs import JobId, jobs_of
from levelrun.core.circuits.count import Count, count_circuits
from levelrun.core.circuits.proposer import Proposal, proposing
from levelrun.core.codebook import load
from levelrun.core.job import Job
from levelrun.core.plan import job_book, plan_whole
from levelrun.exchange.circuits import write_circuits

router = APIRouter(prefix="/api", tags=["circuits"])
Few = Annotated[int, Field(strict=True, ge=0, le=40)]


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
    return StreamingResponse(_lines(job), media_type="application/x-ndjson")


def _lines(job: Job) -> Iterator[bytes]:
    book = job_book(job)
    rooms = plan_whole(job, book)[1].contexts
    for of, proposal in proposing(job, book, rooms):
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
    planned = plan_whole(job, job_book(job))[0]
    text = write_circuits(planned.circuits, {panel.id: panel.name for panel in job.panels})
    return Response(
        text, media_type="text/csv", headers={"Content-Disposition": 'attachment; filename="circuits.csv"'}
    )
