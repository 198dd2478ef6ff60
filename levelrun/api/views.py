"""What the interface shows of a job: every list, and what is looked at drawn whole."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field

from levelrun.core.boxes.drawn.floor import DrawnRoom
from levelrun.core.boxes.drawn.round import WalkRound
from levelrun.core.boxes.planned import Building, draw_room, draw_round
from levelrun.core.boxes.room_plan import RoomPlanned, RoomSummary
from levelrun.core.circuits.circuit_plan import CircuitPlan, CircuitSummary
from levelrun.core.circuits.planned import LooseBox, PanelPlan
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding
from levelrun.core.job import PARTS, Job
from levelrun.core.plan import Plan, RunPlan, RunSummary, job_book, plan_whole
from levelrun.core.site.geometry import Point
from levelrun.store import JobRecord

Wanted = Annotated[str, Field(max_length=40)] | None
ORDER = {"stop": 0, "check": 1, "fine": 2}


class Look(BaseModel):
    """What is looked at, by id: drawn whole in the answer. What is gone or not said: the worst of its kind."""

    model_config = ConfigDict(extra="forbid")
    run: Wanted = None
    room: Wanted = None
    level: Wanted = None
    panel: Wanted = None
    circuit: Wanted = None


class FindingRef(BaseModel):
    """Where a stop or check is, for the header's jump."""

    about: str
    subject: str
    code: str
    room: str
    leg: int | None
    severity: str
    title: str


class LevelDrawing(BaseModel):
    """The plan of one level, and of the levels of other structures on the site in outline."""

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
    """The room looked at: its plan and its walls unrolled."""

    planned: RoomPlanned
    round: WalkRound


class Changed(BaseModel):
    """What one change made of a job: its head fields, and of each kind of part the new and changed ones, with all
    ids in order where parts came or went."""

    head: dict[str, Any]
    parts: dict[str, list[dict[str, Any]]]
    order: dict[str, list[str]]


class JobView(BaseModel):
    """A job with its plan: every run and room as a row, the ones looked at whole.

    An answer to a change brings `changed` against the revision that it was made on, and no job.
    """

    id: str
    revision: int
    job: Job | None
    changed: Changed | None
    undo: str | None
    redo: str | None
    rules_title: str
    units: str
    stops: int
    checks: int
    summaries: list[RunSummary]
    rooms: list[RoomSummary]
    refs: list[FindingRef]
    focus: RunPlan | None
    room: RoomFocus | None
    level: LevelDrawing | None
    site: list[SiteOutline]
    circuits: list[CircuitSummary]
    panels: list[PanelPlan]
    loose: list[LooseBox]
    circuit: CircuitPlan | None
    wiring: list[Finding]


def answer(record: JobRecord, look: Look, status: int = 200, *, since: int | None = None) -> Response:
    """The view as JSON, written straight: it is ours and was checked when it was made. `since`: the revision that
    the caller has; where it is the one before, only what changed is sent."""
    before = record.before if since is not None and since == record.revision - 1 else None
    view = view_of(record, look, before)
    return Response(view.model_dump_json(), status, media_type="application/json")


def _changed(before: Job, after: Job) -> Changed:
    parts: dict[str, list[dict[str, Any]]] = {}
    order: dict[str, list[str]] = {}
    for kind in PARTS:
        old = {part.id: part for part in getattr(before, kind)}
        new = getattr(after, kind)
        fresh = [part for part in new if old.get(part.id) is not part and old.get(part.id) != part]
        if fresh:
            parts[kind] = [part.model_dump(mode="json") for part in fresh]
        if [*old] != [part.id for part in new]:
            order[kind] = [part.id for part in new]
    head = {
        "name": after.name,
        "rules": after.rules,
        "remarks": after.remarks,
        "habits": after.habits.model_dump(mode="json"),
        "notes": [note.model_dump(mode="json") for note in after.notes],
    }
    return Changed(head=head, parts=parts, order=order)


def view_of(record: JobRecord, look: Look, before: Job | None = None) -> JobView:
    """The job planned, with what is looked at drawn whole."""
    book = job_book(record.job)
    planned, building = plan_whole(record.job, book)
    room = _room(building, book, look)
    return JobView(
        id=record.id,
        revision=record.revision,
        job=None if before else record.job,
        changed=_changed(before, record.job) if before else None,
        undo=record.undo,
        redo=record.redo,
        rules_title=planned.rules_title,
        units=book.units,
        stops=planned.stops,
        checks=planned.checks,
        summaries=planned.summaries,
        rooms=[item.summary for item in building.rooms],
        refs=[
            FindingRef(
                about=f.about,
                subject=f.subject,
                code=f.code,
                room=f.room,
                leg=f.leg,
                severity=f.severity,
                title=f.title,
            )
            for f in planned.findings
            if f.severity != "note"
        ],
        focus=_run(planned, look),
        room=room,
        level=_level(record.job, planned, building, book, look, room),
        site=_site(record.job),
        circuits=[item.summary for item in planned.circuits],
        panels=planned.panels,
        loose=planned.loose,
        circuit=_circuit(planned, look),
        wiring=[f for f in planned.findings if f.about == "circuits"],
    )


def _run(planned: Plan, look: Look) -> RunPlan | None:
    chosen = next((item for item in planned.runs if item.summary.id == look.run), None)
    return chosen or min(planned.runs, key=lambda item: ORDER[item.summary.verdict], default=None)


def _circuit(planned: Plan, look: Look) -> CircuitPlan | None:
    chosen = next((item for item in planned.circuits if item.summary.id == look.circuit), None)
    here = [item for item in planned.circuits if look.panel in (None, item.summary.panel)]
    return chosen or min(here or planned.circuits, key=lambda item: ORDER[item.summary.verdict], default=None)


def _room(building: Building, book: Codebook, look: Look) -> RoomFocus | None:
    index = next((i for i, item in enumerate(building.contexts) if item.room.id == look.room), None)
    if index is None:
        here = [i for i, c in enumerate(building.contexts) if look.level in (None, c.level.id)]
        index = min(here, key=lambda i: ORDER[building.rooms[i].summary.verdict], default=None)
    if index is None:
        return None
    return RoomFocus(planned=building.rooms[index], round=draw_round(book, building.contexts[index]))


def _level(
    job: Job, planned: Plan, building: Building, book: Codebook, look: Look, room: RoomFocus | None
) -> LevelDrawing | None:
    levels = {level.id: (level, item) for item in job.structures for level in item.levels}
    wanted = look.level if look.level in levels else room.planned.summary.level if room else None
    if wanted is None:
        wanted = next(iter(levels), None)
    if wanted is None:
        return None
    level, structure = levels[wanted]
    here = [c for c in building.contexts if c.level.id == wanted]
    ids = {c.room.id for c in here} | {structure.id}
    return LevelDrawing(
        level=wanted,
        structure=structure.id,
        title=f"{structure.name}, {level.name.lower()}",
        rooms=[draw_room(book, context) for context in here],
        findings=[f for f in planned.findings if f.about in ("room", "structure") and f.subject in ids],
    )


def _site(job: Job) -> list[SiteOutline]:
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
