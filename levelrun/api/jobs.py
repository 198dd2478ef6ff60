"""Jobs that are kept: list, open, edit, undo, redo, import, export."""

from __future__ import annotations

import logging
from collections.abc import Sequence
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.common import JobId, Revision, attachment, jobs_of, json_answer, pictures_of
from levelrun.api.head import FindingRef, Head, head_of, refs_of
from levelrun.api.looking import Look, planned_of
from levelrun.api.patch import PatchOp, changed
from levelrun.api.plans import SuggestAnswer, as_job
from levelrun.api.stages import StageName, view_of
from levelrun.core.edits import Edit, apply_told, describe
from levelrun.core.errors import EditError, LevelRunError
from levelrun.core.job import Job, job_book
from levelrun.core.part import Name
from levelrun.core.say import Scene, suggest_words
from levelrun.exchange.job_file import write_job
from levelrun.exchange.text import read_text, write_text
from levelrun.samples import SAMPLES, keep_sample_pictures, sample
from levelrun.store import JobRecord, JobRow

log = logging.getLogger("levelrun")
router = APIRouter(prefix="/api/jobs", tags=["jobs"])
StepId = Annotated[str, Field(pattern=r"^[A-Za-z0-9-]{8,40}$")]


class NewJob(BaseModel):
    """A new job: from a sample by name, from a whole job file, from text, or empty under a name."""

    model_config = ConfigDict(extra="forbid")
    sample: Annotated[str, Field(max_length=40)] | None = None
    job: dict[str, Any] | None = None
    text: Annotated[str, Field(max_length=1_000_000)] | None = None
    name: Name | None = None


class SampleOut(BaseModel):
    """A structure to start from."""

    key: str
    name: str


class Step(BaseModel):
    """A step on a revision: undo or redo. `id` is made by the caller: the same id again, after an answer was lost,
    changes nothing and answers with the job as it is. `stage` and `look`: what the caller has before its eyes."""

    model_config = ConfigDict(extra="forbid")
    revision: Revision
    id: StepId | None = None
    stage: StageName = "runs"
    look: Look = Look()


class Edits(Step):
    """Edits made on a revision; all or none. `label` names them for undo."""

    edits: list[Edit] = Field(min_length=1, max_length=500)
    label: Annotated[str, Field(max_length=500)] | None = None


class Opened(BaseModel):
    """A job as said, with its head and where its stops and checks are."""

    head: Head
    refs: list[FindingRef]
    job: Job


class Whole(BaseModel):
    """What a caller has, whole: where there is nothing that it could be changed from."""

    refs: list[FindingRef]
    job: Job
    view: dict[str, Any]


class Answer(BaseModel):
    """What a step made of a job: its head, and of the rest the JSON Patch that leads there from the revision before;
    or all of it, where that revision is not what the step was made on. `told`: where it went otherwise than typed."""

    head: Head
    refs: list[PatchOp]
    job: list[PatchOp]
    view: list[PatchOp]
    whole: Whole | None
    told: list[str]


@router.get("")
def list_jobs(request: Request) -> list[JobRow]:
    """Every job, last opened first."""
    return jobs_of(request).list()


@router.get("/samples")
def list_samples() -> list[SampleOut]:
    """Structures to start a job from."""
    return [SampleOut(key=key, name=name) for key, name in SAMPLES.items()]


@router.post("", status_code=201, response_model=Opened)
def create_job(request: Request, new: NewJob) -> Response:
    """Keep a new job."""
    if new.job is not None:
        job = as_job(new.job)
    elif new.text is not None:
        job = read_text(new.text)
    elif new.sample is not None:
        job = sample(new.sample)
        keep_sample_pictures(pictures_of(request))
    elif new.name is not None:
        job = Job(name=new.name)
    else:
        raise EditError("say what the job starts from", key="name", allowed=["sample", "job", "text", "name"])
    if new.name is not None:
        job = job.model_copy(update={"name": new.name})
    _plannable(job)
    return _opened(request, jobs_of(request).create(job), 201)


@router.get("/{job_id}", response_model=Opened)
def get_job(request: Request, job_id: JobId) -> Response:
    """A job as said, with its head and its findings by reference."""
    return _opened(request, jobs_of(request).get(job_id))


def _opened(request: Request, record: JobRecord, status: int = 200) -> Response:
    planned = planned_of(record.job)
    body = Opened(head=head_of(record, planned), refs=refs_of(planned), job=record.job)
    return json_answer(request, body, record.revision, status)


@router.post("/{job_id}/opened", status_code=204)
def opened_job(request: Request, job_id: JobId) -> None:
    """Remember this job as the last opened."""
    jobs_of(request).opened(job_id)


@router.delete("/{job_id}", status_code=204)
def delete_job(request: Request, job_id: JobId) -> None:
    """Remove a job with all it holds."""
    jobs_of(request).delete(job_id)


@router.post("/{job_id}/edits", response_model=Answer)
def edit_job(request: Request, job_id: JobId, change: Edits) -> Response:
    """Make edits: one transaction, one undo step. 409 where the job has moved on. What cannot be planned is refused
    before anything is kept."""
    label = change.label or describe(change.edits)

    told: list[str] = []

    def made(job: Job) -> Job:
        after, told[:] = apply_told(job, change.edits)
        _plannable(after)
        return after

    record = jobs_of(request).change(job_id, change.revision, label, made, change.id)
    return _answer(request, record, change, told)


@router.post("/{job_id}/undo", response_model=Answer)
def undo_job(request: Request, job_id: JobId, step: Step) -> Response:
    """Take back the last change."""
    return _answer(request, jobs_of(request).undo(job_id, step.revision, step.id), step)


@router.post("/{job_id}/redo", response_model=Answer)
def redo_job(request: Request, job_id: JobId, step: Step) -> Response:
    """Make the last undone change again."""
    return _answer(request, jobs_of(request).redo(job_id, step.revision, step.id), step)


def _plannable(job: Job) -> None:
    """Refuses a job that the plan fails on: kept, it could never be opened again."""
    try:
        planned_of(job)
    except LevelRunError:
        raise
    except Exception:
        log.exception("an edit made a job that cannot be planned")
        raise EditError("this cannot be planned, so nothing was changed; try other values", key="edits") from None


def _answer(request: Request, record: JobRecord, step: Step, told: Sequence[str] = ()) -> Response:
    """What the step made. Where the caller had the state before, only what differs."""
    after = planned_of(record.job)
    view = view_of(after, step.stage, step.look)
    head, refs = head_of(record, after), refs_of(after)
    if record.before is None or record.revision != step.revision + 1:
        whole = Whole(refs=refs, job=record.job, view=view.model_dump(mode="json"))
        told_of = Answer(head=head, refs=[], job=[], view=[], whole=whole, told=list(told))
        return json_answer(request, told_of, record.revision)
    before = planned_of(record.before)
    body = Answer(
        head=head,
        refs=list(changed(refs_of(before), refs)),
        job=list(changed(record.before, record.job)),
        view=list(changed(view_of(before, step.stage, step.look), view)),
        whole=None,
        told=list(told),
    )
    return json_answer(request, body, record.revision)


class SuggestQuestion(BaseModel):
    """A line being typed on the entry line of a stage, and what it is about."""

    model_config = ConfigDict(extra="forbid")
    text: Annotated[str, Field(max_length=20_000)]
    stage: Literal["walls", "boxes", "circuits", "runs", "pipe", "trench", "buy", "rough_in", "test"] = "walls"
    room: Annotated[str, Field(max_length=40)] | None = None
    level: Annotated[str, Field(max_length=40)] | None = None
    panel: Annotated[str, Field(max_length=40)] | None = None
    way: Annotated[str, Field(max_length=40)] | None = None
    line: Annotated[str, Field(max_length=40)] | None = None
    verb: Annotated[str, Field(max_length=20)] = ""


@router.post("/{job_id}/suggest")
def suggest(request: Request, job_id: JobId, q: SuggestQuestion) -> SuggestAnswer:
    """What may be typed next, with the names of this job."""
    job = jobs_of(request).get(job_id).job
    scene = Scene(
        job=job, book=job_book(job), room_id=q.room, level_id=q.level, panel_id=q.panel, way_id=q.way,
        line_id=q.line, verb=q.verb,
    )  # fmt: skip
    at, options = suggest_words(scene, q.text, q.stage)
    return SuggestAnswer(at=at, options=options)


@router.get("/{job_id}/export")
def export_job(
    request: Request, job_id: JobId, form: Annotated[Literal["json", "text"], Query(alias="as")] = "json"
) -> Response:
    """The job as its file, or as text."""
    job = jobs_of(request).get(job_id).job
    if form == "text":
        return Response(write_text(job), media_type="text/plain", headers=attachment("job.levelrun.txt"))
    return Response(write_job(job), media_type="application/json", headers=attachment("job.levelrun.json"))
