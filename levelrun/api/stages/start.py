"""The first page of a job: kinds of job as words, and what a line would make before it is kept."""

from __future__ import annotations

from contextlib import suppress
from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.common import JobId, jobs_of
from levelrun.api.looking import book_today, planned_of
from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.planned import PanelPlan
from levelrun.core.codebook import load
from levelrun.core.edits import Say, apply
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.findings import Figure, Finding
from levelrun.core.job import Job
from levelrun.core.plan import Plan, WayPlan, plan_whole
from levelrun.core.say import clauses
from levelrun.core.start.kinds import KINDS, USES
from levelrun.core.trade.conductors.sizing import breaker_ratings

router = APIRouter(prefix="/api", tags=["start"])


class StartKind(BaseModel):
    """A kind of job to start: its word after `to`, and what its sentence begins with, blank by blank."""

    key: str
    title: str
    word: str
    feeds: bool
    usual: dict[str, str]


class Line(BaseModel):
    """A line being typed. Nothing is kept."""

    model_config = ConfigDict(extra="forbid")
    text: Annotated[str, Field(min_length=1, max_length=2000)]
    panel: Annotated[str, Field(max_length=40)] | None = None


class Tried(BaseModel):
    """What a line would make: its circuit with way, panel and boxes, and what stops or asks that did not before."""

    way: WayPlan | None
    circuit: CircuitPlan | None
    panel: PanelPlan | None
    boxes: list[Figure]
    findings: list[Finding]


class StartWords(BaseModel):
    """What the first page offers: kinds of job, rooms, standard breakers."""

    kinds: list[StartKind]
    rooms: list[str]
    breakers: list[float]


@router.get("/start-words")
def start_words() -> StartWords:
    """Kinds of job that one line starts, with the words of its blanks."""
    kinds = [StartKind(key=k.key, title=k.title, word=k.words[0], feeds=k.feeds, usual=k.usual) for k in KINDS]
    ratings = breaker_ratings(load("us-2023"))
    return StartWords(kinds=kinds, rooms=list(USES), breakers=[rating for rating in ratings if rating <= 200])


@router.post("/jobs/{job_id}/try")
def try_line(request: Request, job_id: JobId, line: Line) -> Tried:
    """The plan of what a line would make, nothing kept; of a line whose end is still being typed what it makes up to
    there. 422 with `at` where it cannot be read."""
    job = jobs_of(request).get(job_id).job
    after = _so_far(job, line)
    before = planned_of(job).plan
    planned, building = plan_whole(after, book_today(after))
    old = set(job.ids())
    way = next((item for item in reversed(planned.ways) if item.summary.id not in old), None)  # the one being said
    circuit = next((item for item in planned.circuits if item.summary.id not in old), None)
    if circuit is None and way is not None:  # one that was there, drawn out
        circuit = next((item for item in planned.circuits if item.summary.id in way.summary.circuits), None)
    panel_id = circuit.summary.panel if circuit else next((p.id for p in after.panels if p.id not in old), None)
    return Tried(
        way=way.whole if way is not None else None,
        circuit=circuit,
        panel=next((item for item in planned.panels if item.id == panel_id), None),
        boxes=[figure for figure in building.loose if figure.key.removeprefix("fill-") not in old],
        findings=_new(before, planned),
    )


def _so_far(job: Job, line: Line) -> Job:
    """The job after a line, or after as much of it as is whole: to outlet, 6' stud w."""
    verb = "from" if job.panels else "panel"
    try:
        return apply(job, [Say(op="say", text=line.text, panel=line.panel, verb=verb)])
    except TextError:
        for _, end in reversed(clauses(line.text)[:-1]):
            with suppress(LevelRunError):
                return apply(job, [Say(op="say", text=line.text[:end], panel=line.panel, verb=verb)])
        raise


def _new(before: Plan, after: Plan) -> list[Finding]:
    known = {(item.code, item.subject, item.leg) for item in before.findings}
    return [item for item in after.findings if (item.code, item.subject, item.leg) not in known]
