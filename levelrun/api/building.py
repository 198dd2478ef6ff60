"""The building over the wire: box schedule, DXF in and out, the laser tape."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import Response
from pydantic import BaseModel

from levelrun.api.jobs import JobId, Revision, jobs_of
from levelrun.api.views import JobView, Look, answer
from levelrun.core.boxes.catalogue import box_models
from levelrun.core.boxes.planned import draw_room
from levelrun.core.boxes.schedule import ScheduleRow, box_schedule
from levelrun.core.codebook import load
from levelrun.core.edits import apply_raw
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.measure import format_length
from levelrun.core.plan import job_book, plan_whole
from levelrun.core.site.words import use_of
from levelrun.exchange.dxf import DxfFound, inspect, read_rooms, write_plan
from levelrun.exchange.schedule import write_schedule
from levelrun.standins.tape import SimulatedTape, Tape

router = APIRouter(prefix="/api", tags=["building"])
Layers = Annotated[list[str], Query(max_length=200)]


def _schedule(job: Job) -> list[ScheduleRow]:
    book = job_book(job)
    building = plan_whole(job, book)[1]
    named = {hop.box: circuit.name for circuit in job.circuits for hop in circuit.chain}
    return box_schedule(book, building.contexts, named)


@router.get("/jobs/{job_id}/boxes")
def boxes(request: Request, job_id: JobId) -> list[ScheduleRow]:
    """The box schedule."""
    return _schedule(jobs_of(request).get(job_id).job)


@router.get("/jobs/{job_id}/boxes.csv")
def boxes_csv(request: Request, job_id: JobId) -> Response:
    """The box schedule as CSV."""
    text = write_schedule(_schedule(jobs_of(request).get(job_id).job))
    return Response(text, media_type="text/csv", headers=_file("boxes.csv"))


@router.get("/jobs/{job_id}/levels/{level}/plan.dxf")
def plan_dxf(request: Request, job_id: JobId, level: str) -> Response:
    """A level as DXF, in inches."""
    job = jobs_of(request).get(job_id).job
    if level not in {part.id for item in job.structures for part in item.levels}:
        raise EditError(f"no level {level!r} in this job", key="level", value=level)
    book = job_book(job)
    contexts = plan_whole(job, book)[1].contexts
    text = write_plan([draw_room(book, context) for context in contexts if context.level.id == level])
    return Response(text, media_type="image/vnd.dxf", headers=_file("plan.dxf"))


@router.post("/dxf/inspect", openapi_extra={"requestBody": {"content": {"application/octet-stream": {}}}})
async def dxf_inspect(request: Request) -> DxfFound:
    """What a DXF drawing holds: units, layers, what cannot be read. Nothing is kept."""
    return await run_in_threadpool(inspect, await request.body())


@router.post(
    "/jobs/{job_id}/levels/{level}/dxf",
    response_model=JobView,
    openapi_extra={"requestBody": {"content": {"application/octet-stream": {}}}},
)
async def dxf_bring(
    request: Request, job_id: JobId, level: str, revision: Revision, units: str, layer: Layers
) -> Response:
    """Rooms from the chosen layers of a drawing onto a level: one edit, all or none."""
    data = await request.body()
    return await run_in_threadpool(_bring, request, job_id, level, revision, units, layer, data)


def _bring(
    request: Request, job_id: str, level: str, revision: int, units: str, layers: list[str], data: bytes
) -> Response:
    rooms = read_rooms(data, layers, units)
    edits = [
        {
            "op": "add",
            "kind": "room",
            "item": {"level": level, "name": room.name, "use": use_of(room.name), "corners": room.corners},
        }
        for room in rooms
    ]
    jobs = jobs_of(request)
    label = f"bring in {len(rooms)} rooms"
    record = jobs.change(job_id, revision, label, lambda job: apply_raw(job, edits))
    return answer(record, Look(level=level))


class BoxModelOut(BaseModel):
    """A row of the box catalogue, inches and cubic inches."""

    key: str
    name: str
    gangs: int
    depth_in: float
    volume_in3: float


class School(BaseModel):
    """A school of heights: what the box is for, which edge is taped, inches over the floor, and why."""

    use: str
    school: str
    mark: str
    at_in: float
    why: str


class BoxWords(BaseModel):
    """What a box may be, and at what heights shops hang it."""

    models: list[BoxModelOut]
    schools: list[School]


@router.get("/box-words")
def box_words(rules: str = "us-2023") -> BoxWords:
    """The box catalogue and the schools of heights; the first school of a use is the default."""
    book = load(rules)
    return BoxWords(
        models=[
            BoxModelOut(**{key: getattr(m, key) for key in BoxModelOut.model_fields})
            for m in box_models(book).values()
        ],
        schools=[School.model_validate({**row, "at_in": float(row["at_in"])}) for row in book.table("heights").rows],
    )


class TapeOut(BaseModel):
    """A reading of the laser tape. `simulated`: no device measured it."""

    inches: float
    text: str
    device: str
    simulated: bool


TAPE: Tape = SimulatedTape()


@router.post("/tape/read")
def tape_read() -> TapeOut:
    """The next reading of the laser tape; the one that ships is simulated."""
    reading = TAPE.read()
    return TapeOut(
        inches=reading.inches, text=format_length(reading.inches), device=reading.device, simulated=reading.simulated
    )


def _file(name: str) -> dict[str, str]:
    return {"Content-Disposition": f'attachment; filename="{name}"'}
