"""Jobs that are kept: list, open, edit, undo, redo, import, export."""

from __future__ import annotations

import logging
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.plans import SuggestAnswer, as_job
from levelrun.api.views import JobView, Look, answer
from levelrun.core.edits import Edit, apply, describe
from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.job import Job, Name
from levelrun.core.plan import contexts, job_book, leg_alternatives, plan_whole
from levelrun.core.runs.alternatives import Alternative
from levelrun.core.say import Scene, suggest_words
from levelrun.exchange.job_file import write_job
from levelrun.samples import SAMPLES, sample
from levelrun.store import JobRow, Jobs

router = APIRouter(prefix="/api/jobs", tags=["jobs"])

JobId = Annotated[str, Field(pattern=r"^[0-9a-f]{12}$")]
Revision = Annotated[int, Field(ge=0, le=2**53)]
StepId = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,40}$")]
log = logging.getLogger("levelrun")


def jobs_of(request: Request) -> Jobs:
    jobs: Jobs = request.app.state.jobs
    return jobs


class NewJob(BaseModel):
    """A new job: from a sample by name, from a whole job file, or empty under a name."""

    model_config = ConfigDict(extra="forbid")
    sample: Annotated[str, Field(max_length=40)] | None = None
    job: dict[str, Any] | None = None
    name: Name | None = None


class SampleOut(BaseModel):
    """A structure to start from."""

    key: str
    name: str


class Edits(BaseModel):
    """Edits made on a revision; all or none. `label` names them for undo. `id` is made by the caller: the same id
    again, after an answer was lost, changes nothing and answers with the job as it is."""

    model_config = ConfigDict(extra="forbid")
    revision: Revision
    id: StepId | None = None
    edits: list[Edit] = Field(min_length=1, max_length=500)
    label: Annotated[str, Field(max_length=500)] | None = None
    look: Look = Look()
    brief: bool = Field(False, description="Answer with what changed, not with the whole job")


class Step(BaseModel):
    """Undo or redo, on a revision; `id` as of edits."""

    model_config = ConfigDict(extra="forbid")
    revision: Revision
    id: StepId | None = None
    look: Look = Look()
    brief: bool = Field(False, description="Answer with what changed, not with the whole job")


@router.get("")
def list_jobs(request: Request) -> list[JobRow]:
    """Every job, last opened first."""
    return jobs_of(request).list()


@router.get("/samples")
def list_samples() -> list[SampleOut]:
    """Structures to start a job from."""
    return [SampleOut(key=key, name=name) for key, name in SAMPLES.items()]


@router.post("", status_code=201, response_model=JobView)
def create_job(request: Request, new: NewJob) -> Response:
    """Keep a new job."""
    if new.job is not None:
        job = as_job(new.job)
    elif new.sample is not None:
        job = sample(new.sample)
    elif new.name is not None:
        job = Job(name=new.name)
    else:
        raise EditError("say what the job starts from", key="name", allowed=["sample", "job", "name"])
    if new.name is not None:
        job = job.model_copy(update={"name": new.name})
    return answer(jobs_of(request).create(job), Look(), 201)


@router.get("/{job_id}", response_model=JobView)
def get_job(request: Request, job_id: JobId, look: Annotated[Look, Query()]) -> Response:
    """A job with its plan, and what `look` names drawn whole."""
    return answer(jobs_of(request).get(job_id), look)


@router.post("/{job_id}/opened", status_code=204)
def opened_job(request: Request, job_id: JobId) -> None:
    """Remember this job as the last opened."""
    jobs_of(request).opened(job_id)


@router.delete("/{job_id}", status_code=204)
def delete_job(request: Request, job_id: JobId) -> None:
    """Remove a job with all it holds."""
    jobs_of(request).delete(job_id)


@router.post("/{job_id}/edits", response_model=JobView)
def edit_job(request: Request, job_id: JobId, change: Edits) -> Response:
    """Make edits: one transaction, one undo step. 409 where the job has moved on."""
    jobs = jobs_of(request)
    label = change.label or describe(change.edits)
    record = jobs.change(job_id, change.revision, label, lambda job: _plannable(apply(job, change.edits)), change.id)
    return answer(record, change.look, since=change.revision if change.brief else None)


def _plannable(job: Job) -> Job:
    """The job, refused where the plan fails on it: kept, it could never be opened again."""
    try:
        plan_whole(job, job_book(job))
    except LevelRunError:
        raise
    except Exception:
        log.exception("an edit made a job that cannot be planned")
        raise EditError("this cannot be planned, so nothing was changed; try other values", key="edits") from None
    return job


@router.post("/{job_id}/undo", response_model=JobView)
def undo_job(request: Request, job_id: JobId, step: Step) -> Response:
    """Take back the last change."""
    record = jobs_of(request).undo(job_id, step.revision, step.id)
    return answer(record, step.look, since=step.revision if step.brief else None)


@router.post("/{job_id}/redo", response_model=JobView)
def redo_job(request: Request, job_id: JobId, step: Step) -> Response:
    """Make the last undone change again."""
    record = jobs_of(request).redo(job_id, step.revision, step.id)
    return answer(record, step.look, since=step.revision if step.brief else None)


@router.get("/{job_id}/runs/{run_id}/legs/{leg}/alternatives")
def alternatives(request: Request, job_id: JobId, run_id: str, leg: int) -> list[Alternative]:
    """What may go on one leg, best first."""
    job = jobs_of(request).get(job_id).job
    for context in contexts(job):
        if context.run.id == run_id and 0 <= leg < len(context.run.legs):
            return leg_alternatives(job_book(job), context, leg)
    raise EditError(f"no leg {leg + 1} of run {run_id!r} in this job", key="leg", value=leg)


class SuggestQuestion(BaseModel):
    """A line being typed on the entry line of a stage, and what it is about."""

    model_config = ConfigDict(extra="forbid")
    text: Annotated[str, Field(max_length=20_000)]
    stage: Literal["walls", "boxes", "circuits"] = "walls"
    room: str | None = None
    level: str | None = None
    panel: str | None = None
    verb: Annotated[str, Field(max_length=20)] = ""


@router.post("/{job_id}/suggest")
def suggest(request: Request, job_id: JobId, q: SuggestQuestion) -> SuggestAnswer:
    """What may be typed next, with the names of this job."""
    job = jobs_of(request).get(job_id).job
    scene = Scene(job=job, book=job_book(job), room_id=q.room, level_id=q.level, panel_id=q.panel, verb=q.verb)
    at, options = suggest_words(scene, q.text, q.stage)
    return SuggestAnswer(at=at, options=options)


@router.get("/{job_id}/export")
def export_job(request: Request, job_id: JobId) -> Response:
    """The job as its file."""
    job = jobs_of(request).get(job_id).job
    return Response(
        write_job(job),
        media_type="application/json",
        headers={"Content-Disposition": 'attachment; filename="job.levelrun.json"'},
    )
