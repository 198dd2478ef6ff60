"""What is looked at, and a job planned for looking at: kept for the last few states, so that two answers in a row
share what did not change."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from threading import Lock
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from levelrun.core.boxes.planned import Building
from levelrun.core.codebook import Codebook
from levelrun.core.job import Job, job_book
from levelrun.core.plan import Plan, plan_whole

Wanted = Annotated[str, Field(max_length=40)] | None
Named = Annotated[str, Field(max_length=60)] | None
ORDER = {"stop": 0, "check": 1, "fine": 2}
KEPT = 12


class Look(BaseModel):
    """What is looked at, by id. What is gone or not said: the worst of its kind."""

    model_config = ConfigDict(extra="forbid", frozen=True)
    way: Wanted = None
    room: Wanted = None
    level: Wanted = None
    panel: Wanted = None
    circuit: Wanted = None
    pull: Wanted = None
    leg: Wanted = None
    line: Wanted = None
    item: Named = None
    wall: Wanted = None
    node: Wanted = None


@dataclass(frozen=True, eq=False)
class Planned:
    """A job with its rule set, its plan and the building that the plan was made from. The same one is the same."""

    job: Job
    book: Codebook
    plan: Plan
    building: Building


def worst_first(rows: Iterable[tuple[str, str]]) -> dict[str, tuple[int, int]]:
    """How groups are ordered: by the worst verdict in each, else as they come. `rows`: group and verdict of each."""
    worst: dict[str, int] = {}
    for group, verdict in rows:
        worst[group] = min(worst.get(group, 9), ORDER[verdict])
    return {group: (rank, index) for index, (group, rank) in enumerate(worst.items())}


_kept: OrderedDict[int, Planned] = OrderedDict()
_lock = Lock()


def book_today(job: Job) -> Codebook:
    """The job's codebook as it stands today: some exceptions end on a day."""
    return job_book(job, date.today().isoformat())


def forget() -> None:
    """Plans every job anew when it is next asked for."""
    with _lock:
        _kept.clear()


def planned_of(job: Job) -> Planned:
    """The job planned. The last few are kept by identity: for the answer, for the one after it, and for undo and
    redo, which give the very same job again."""
    with _lock:
        found = _kept.get(id(job))
        if found is not None:
            _kept.move_to_end(id(job))
    book = book_today(job)
    if found is not None and found.job is job and found.book is book:
        return found
    plan, building = plan_whole(job, book)
    found = Planned(job, book, plan, building)
    with _lock:
        _kept[id(job)] = found
        while len(_kept) > KEPT:
            _kept.popitem(last=False)
    return found
