"""The view of Walls: rooms, the level and the site."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import Response
from pydantic import BaseModel

from levelrun.api.common import FILE_BODY, JobId, attachment, jobs_of
from levelrun.api.looking import Look, Planned, planned_of
from levelrun.api.stages.building import (
    LevelDrawing,
    RoomFocus,
    SiteOutline,
    level_looked_at,
    room_looked_at,
    site_of,
)
from levelrun.core.boxes.planned import draw_room
from levelrun.core.boxes.room_plan import RoomSummary
from levelrun.core.errors import EditError
from levelrun.core.site.called import use_of
from levelrun.exchange.dxf import DxfFound, inspect, read_rooms, write_plan

router = APIRouter(prefix="/api", tags=["walls"])


class WallsView(BaseModel):
    """Rooms as rows, the level looked at drawn, the site in outline."""

    rooms: list[RoomSummary]
    room: RoomFocus | None
    level: LevelDrawing | None
    site: list[SiteOutline]


def walls_view(planned: Planned, look: Look) -> WallsView:
    """The view of Walls."""
    room = room_looked_at(planned, look, unrolled=False)
    return WallsView(
        rooms=[item.summary for item in planned.building.rooms],
        room=room,
        level=level_looked_at(planned, look, room),
        site=site_of(planned.job),
    )


@router.get("/jobs/{job_id}/levels/{level}/plan.dxf")
def plan_dxf(request: Request, job_id: JobId, level: str) -> Response:
    """A level as DXF, in inches."""
    job = jobs_of(request).get(job_id).job
    if level not in {part.id for item in job.structures for part in item.levels}:
        raise EditError(f"no level {level!r} in this job", key="level", value=level)
    planned = planned_of(job)
    contexts = [context for context in planned.building.contexts if context.level.id == level]
    text = write_plan([draw_room(planned.book, context) for context in contexts])
    return Response(text, media_type="image/vnd.dxf", headers=attachment("plan.dxf"))


@router.post("/dxf/inspect", openapi_extra=FILE_BODY)
async def dxf_inspect(request: Request) -> DxfFound:
    """What a DXF drawing holds: units, layers, what cannot be read. Nothing is kept."""
    return await run_in_threadpool(request.app.state.worker.run, inspect, await request.body())


class RoomsFound(BaseModel):
    """Rooms of a drawing as the edits that bring them in, all or none."""

    edits: list[dict[str, Any]]
    label: str


@router.post("/dxf/rooms", openapi_extra=FILE_BODY)
async def dxf_rooms(
    request: Request,
    level: Annotated[str, Query(max_length=40)],
    units: Annotated[str, Query(max_length=20)],
    layer: Annotated[list[str], Query(max_length=200)],
) -> RoomsFound:
    """Rooms from the chosen layers of a drawing, for a level. Nothing is kept: the caller makes the edits."""
    rooms = await run_in_threadpool(request.app.state.worker.run, read_rooms, await request.body(), layer, units)
    edits = [
        {
            "op": "add",
            "kind": "room",
            "item": {"level": level, "name": room.name, "use": use_of(room.name), "corners": room.corners},
        }
        for room in rooms
    ]
    return RoomsFound(edits=edits, label=f"bring in {len(rooms)} rooms")
