"""What the stages of the building share: a level drawn, the site in outline, a room looked at."""

from __future__ import annotations

from pydantic import BaseModel

from levelrun.api.looking import ORDER, Look, Planned
from levelrun.core.boxes.drawn.floor import DrawnRoom
from levelrun.core.boxes.drawn.round import WalkRound
from levelrun.core.boxes.planned import draw_room, draw_round
from levelrun.core.boxes.room_plan import RoomPlanned
from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.core.site.geometry import Point
from levelrun.core.ways.inside import InTheWalls, in_the_walls


class LevelDrawing(BaseModel):
    """The plan of one level, and the findings about the building that show in the room looked at."""

    level: str
    structure: str
    title: str
    rooms: list[DrawnRoom]
    findings: list[Finding]


class SiteOutline(BaseModel):
    """A structure on the site: its rooms of all levels above the ground in outline, in site coordinates."""

    id: str
    name: str
    x_in: float
    y_in: float
    rooms: list[list[Point]]


class RoomFocus(BaseModel):
    """The room looked at: planned, and its walls unrolled where the stage shows them, with what lies in them."""

    planned: RoomPlanned
    round: WalkRound | None
    inside: InTheWalls | None


def room_looked_at(planned: Planned, look: Look, *, unrolled: bool) -> RoomFocus | None:
    """The room asked for, else the worst of the level asked for, else the worst of all."""
    building = planned.building
    index = next((i for i, item in enumerate(building.contexts) if item.room.id == look.room), None)
    if index is None:
        here = [i for i, c in enumerate(building.contexts) if look.level in (None, c.level.id)]
        index = min(here, key=lambda i: ORDER[building.rooms[i].summary.verdict], default=None)
    if index is None:
        return None
    round_ = draw_round(planned.book, building.contexts[index]) if unrolled else None
    inside = in_the_walls(planned.book, planned.plan.drawn, building.contexts[index]) if unrolled else None
    return RoomFocus(planned=building.rooms[index].whole, round=round_, inside=inside)


def level_looked_at(planned: Planned, look: Look, room: RoomFocus | None) -> LevelDrawing | None:
    """The level asked for, else that of the room looked at, else the first."""
    levels = {level.id: (level, item) for item in planned.job.structures for level in item.levels}
    wanted = look.level if look.level in levels else room.planned.summary.level if room else None
    wanted = wanted if wanted is not None else next(iter(levels), None)
    if wanted is None:
        return None
    level, structure = levels[wanted]
    here = [c for c in planned.building.contexts if c.level.id == wanted]
    at = room.planned.summary.id if room else ""
    return LevelDrawing(
        level=wanted,
        structure=structure.id,
        title=f"{structure.name}, {level.name.lower()}",
        rooms=[draw_room(planned.book, context) for context in here],
        findings=[
            f
            for f in planned.plan.findings
            if f.room == at and (f.about == "structure" or (f.about == "room" and f.stage == "walls"))
        ],
    )


def site_of(job: Job) -> list[SiteOutline]:
    """Every building in outline."""
    found = []
    for item in job.structures:
        if item.kind == "yard":
            continue
        floors = {level.id for level in item.levels if level.kind == "floor"}
        rooms = [
            [(x + item.x_in, y + item.y_in) for x, y in room.corners] for room in job.rooms if room.level in floors
        ]
        found.append(SiteOutline(id=item.id, name=item.name, x_in=item.x_in, y_in=item.y_in, rooms=rooms))
    return found
