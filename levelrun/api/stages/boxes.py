"""The view of Boxes: rooms, the level, and the room looked at with its walls unrolled."""

from __future__ import annotations

from dataclasses import replace

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import BaseModel

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.api.looking import Look, Planned, planned_of
from levelrun.api.stages.building import LevelDrawing, RoomFocus, level_looked_at, room_looked_at
from levelrun.core.boxes.catalogue import box_models
from levelrun.core.boxes.loose import Apart
from levelrun.core.boxes.room_plan import RoomSummary
from levelrun.core.boxes.schedule import ScheduleRow, box_schedule
from levelrun.core.codebook import load
from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.exchange.schedule import write_schedule

MOST_WHOLE = 40  # boxes in no room that are sent with their reason

router = APIRouter(prefix="/api", tags=["boxes"])


class BoxesView(BaseModel):
    """Rooms as rows, the level looked at drawn, the room looked at planned and unrolled. `apart`: the boxes in no
    room, each with its fill as long as they are few; `said`: the findings about these."""

    rooms: list[RoomSummary]
    room: RoomFocus | None
    level: LevelDrawing | None
    apart: list[Apart]
    said: list[Finding]


def boxes_view(planned: Planned, look: Look) -> BoxesView:
    """The view of Boxes."""
    room = room_looked_at(planned, look, unrolled=True)
    apart = planned.building.apart
    own = {row.id for row in apart}
    return BoxesView(
        rooms=[item.summary for item in planned.building.rooms],
        room=room,
        level=level_looked_at(planned, look, room),
        apart=apart if len(apart) <= MOST_WHOLE else [replace(row, figure=None) for row in apart],
        said=[item for item in planned.plan.findings if item.subject in own][:MOST_WHOLE],
    )


def _schedule(job: Job) -> list[ScheduleRow]:
    planned = planned_of(job)
    named = {hop.box: circuit.name for circuit in job.circuits for hop in circuit.chain}
    return box_schedule(planned.book, planned.building.contexts, named)


@router.get("/jobs/{job_id}/boxes")
def boxes(request: Request, job_id: JobId) -> list[ScheduleRow]:
    """The box schedule."""
    return _schedule(jobs_of(request).get(job_id).job)


@router.get("/jobs/{job_id}/boxes.csv")
def boxes_csv(request: Request, job_id: JobId) -> Response:
    """The box schedule as CSV."""
    text = write_schedule(_schedule(jobs_of(request).get(job_id).job))
    return Response(text, media_type="text/csv", headers=attachment("boxes.csv"))


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
