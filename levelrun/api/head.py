"""The head of a job: what the header shows, and where its stops and checks are."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from functools import lru_cache

from pydantic import BaseModel

from levelrun.api.looking import Planned
from levelrun.core.findings import Finding
from levelrun.store import JobRecord


class Head(BaseModel):
    """What every answer says of a job."""

    id: str
    name: str
    revision: int
    rules: str
    rules_title: str
    units: str
    undo: str | None
    redo: str | None
    stops: int
    checks: int


class FindingRef(BaseModel):
    """Where a stop or check is, and in which stage it is mended. `id` tells it from all others of its job."""

    id: str
    about: str
    subject: str
    code: str
    stage: str
    room: str
    leg: int | None
    severity: str
    title: str


def head_of(record: JobRecord, planned: Planned) -> Head:
    """The head of a job as planned."""
    return Head(
        id=record.id,
        name=record.job.name,
        revision=record.revision,
        rules=record.job.rules,
        rules_title=planned.plan.rules_title,
        units=planned.book.units,
        undo=record.undo,
        redo=record.redo,
        stops=planned.plan.stops,
        checks=planned.plan.checks,
    )


@dataclass(frozen=True, eq=False)
class Refs:
    """The references of one state, and which finding each was made of."""

    said: list[FindingRef]
    made: dict[int, tuple[Finding, int, FindingRef]]


_last = Refs([], {})


def refs_of(planned: Planned) -> list[FindingRef]:
    """Stops, then checks."""
    return _refs_of(planned).said


@lru_cache(maxsize=16)
def _refs_of(planned: Planned) -> Refs:
    """Kept, since the answer after this one compares with it. A finding that was there the last time keeps its
    reference: findings are told apart by identity, which a plan keeps for what did not change."""
    global _last
    before, seen = _last.made, Counter[tuple[str, str, int | None]]()
    found = Refs([], {})
    for f in planned.plan.findings:
        if f.severity == "note":
            continue
        key = (f.code, f.subject, f.leg)
        seen[key] += 1
        old = before.get(id(f))
        ref = old[2] if old is not None and old[0] is f and old[1] == seen[key] else _ref(f, seen[key])
        found.said.append(ref)
        found.made[id(f)] = (f, seen[key], ref)
    _last = found
    return found


def _ref(f: Finding, nth: int) -> FindingRef:
    leg = "" if f.leg is None else f".{f.leg}"
    return FindingRef(
        id=f"{f.code}.{f.subject}{leg}.{nth}",
        about=f.about,
        subject=f.subject,
        code=f.code,
        stage=f.stage,
        room=f.room,
        leg=f.leg,
        severity=f.severity,
        title=f.title,
    )
