"""Rule sets: which there are, what they say, local notes, and what a switch would change."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter, Request
from fastapi.responses import PlainTextResponse
from pydantic import BaseModel, ConfigDict, Field

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.core.codebook import load, notable, rule_sets
from levelrun.core.job import LocalNote, job_book
from levelrun.core.plan import RuleChange, compare
from levelrun.exchange.entries import Entry, search
from levelrun.exchange.notes_file import read_notes, write_notes

router = APIRouter(prefix="/api", tags=["rules"])

RulesKey = Literal["us-2023", "us-2020", "ca-2021"]


class RuleSet(BaseModel):
    """A rule set that ships."""

    key: str
    title: str
    long_title: str
    units: str


class Notable(BaseModel):
    """A number that a local note may change, and which way is stricter."""

    key: str
    value: float
    unit: str
    section: str
    text: str
    tighter: str


class NotesText(BaseModel):
    """A notes file."""

    model_config = ConfigDict(extra="forbid")
    text: Annotated[str, Field(max_length=200_000)]


class NoteOut(BaseModel):
    """What became of a local note."""

    id: str
    key: str
    was: float
    way: str
    applied: bool


@router.get("/rules")
def list_rules() -> list[RuleSet]:
    """Rule sets that ship."""
    books = [load(name) for name in rule_sets()]
    return [RuleSet(key=b.rules, title=b.title, long_title=b.long_title, units=b.units) for b in books]


@router.get("/rules/{rules}/notable")
def list_notable(rules: str) -> list[Notable]:
    """Numbers that a local note may change."""
    return [
        Notable(key=s.key, value=s.value, unit=s.unit, section=s.section, text=s.text, tighter=s.tighter)
        for s in notable(load(rules)).values()
    ]


@router.get("/rules/{rules}/entries")
def list_entries(rules: str, q: Annotated[str, Field(max_length=200)] = "") -> list[Entry]:
    """What a rule set says, searched by section and word."""
    return search(load(rules), q)


class NotJudged(BaseModel):
    """Something that the program leaves to the reader, with where it stands."""

    topic: str
    section: str
    text: str


@router.get("/rules/{rules}/not-judged")
def list_not_judged(rules: str) -> list[NotJudged]:
    """What no finding speaks of. Under another country's rules its sections are the US ones, and say so."""
    book = load(rules)
    return [
        NotJudged(topic=row["topic"], section=book.told(row["section"]), text=row["text"])
        for row in book.table("not-judged").rows
    ]


@router.post("/notes/read")
def read_notes_text(q: NotesText) -> list[LocalNote]:
    """Notes of a TOML file, checked; nothing is kept."""
    return list(read_notes(q.text))


@router.get("/jobs/{job_id}/notes", response_class=PlainTextResponse)
def notes_file(request: Request, job_id: JobId) -> PlainTextResponse:
    """The job's local notes as a TOML file."""
    text = write_notes(jobs_of(request).get(job_id).job.notes)
    return PlainTextResponse(text, headers=attachment("local-notes.toml"))


@router.get("/jobs/{job_id}/notes/status")
def notes_status(request: Request, job_id: JobId) -> list[NoteOut]:
    """Each note: what it changed, and whether it counts."""
    job = jobs_of(request).get(job_id).job
    return [
        NoteOut(id=note.id, key=status.rule.key, was=status.was, way=status.way, applied=status.applied)
        for note, status in zip(job.notes, job_book(job).notes, strict=True)
    ]


@router.get("/jobs/{job_id}/entries")
def job_entries(request: Request, job_id: JobId, q: Annotated[str, Field(max_length=200)] = "") -> list[Entry]:
    """What the job's rule set says with its local notes laid on."""
    return search(job_book(jobs_of(request).get(job_id).job), q)


@router.get("/jobs/{job_id}/compare")
def compare_rules(request: Request, job_id: JobId, rules: RulesKey) -> list[RuleChange]:
    """What would come and go if the job went by another rule set."""
    job = jobs_of(request).get(job_id).job
    return compare(job, job.model_copy(update={"rules": rules}))
