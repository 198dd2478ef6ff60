"""What one change made of a job, part by part, each with its state before and after: enough to go both ways."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from typing import Any

from levelrun.core.job import Frozen, Job
from levelrun.core.job.upgrade import brought_up
from levelrun.store.columns import HEAD, TABLES
from levelrun.store.rows import UPDATE_HEAD, drop_part, places, put_in_order, put_part

Change = dict[str, Any]


def difference(before: Job, after: Job) -> list[Change]:
    """The changes that lead from one state to the other, and back."""
    changes: list[Change] = []
    names = [column.name for column in HEAD]
    if any(getattr(before, name) != getattr(after, name) for name in names):
        changes.append({"kind": "job", "before": _head(before), "after": _head(after)})
    for field in TABLES:
        if getattr(before, field) is getattr(after, field):
            continue
        gone = {part.id: part for part in getattr(before, field)}
        come = {part.id: part for part in getattr(after, field)}
        for part in dict.fromkeys([*gone, *come]):
            was, is_now = gone.get(part), come.get(part)
            if was is not is_now and was != is_now:
                changes.append({"kind": field, "id": part, "before": _dump(was), "after": _dump(is_now)})
        if list(gone) != list(come):
            order = {"before": _order(come, gone), "after": _order(gone, come)}
            if order["before"] or order["after"]:
                changes.append({"kind": field, "order": order})
    return changes


def _order(now: dict[str, Frozen], wanted: dict[str, Frozen]) -> list[str] | None:
    """The ids in order, where taking away what goes and adding what comes at the end does not give it."""
    plain = [*(part for part in now if part in wanted), *(part for part in wanted if part not in now)]
    return None if plain == list(wanted) else list(wanted)


def _head(job: Job) -> Change:
    return job.model_dump(mode="json", include={column.name for column in HEAD})


def _dump(part: Frozen | None) -> Change | None:
    return None if part is None else part.model_dump(mode="json")


def write_changes(
    db: sqlite3.Connection, job_id: str, changes: Sequence[Change], *, forward: bool, fresh: bool = False
) -> None:
    """Make the changes, or take them back; `fresh`: they were made by this version, not read from the history. All
    that changes is removed first, then all that is to be is written: what moved from one owner to another never
    stands in both."""
    db.execute("PRAGMA defer_foreign_keys = ON")
    side, other = ("after", "before") if forward else ("before", "after")
    parts = [change for change in changes if "id" in change]
    stood = {field: places(db, job_id, field) for field in {change["kind"] for change in parts}}
    for change in parts:
        if change[other] is not None:
            drop_part(db, job_id, change["kind"], change["id"])
    for change in parts:
        if change[side] is not None:
            own = stood[change["kind"]]
            place = own.get(change["id"], change.get("place"))
            if place is None:
                place = max(own.values(), default=-1) + 1
            own[change["id"]] = place
            state = change[side] if fresh else _newest(change["kind"], change[side])
            put_part(db, job_id, change["kind"], state, place)
    for change in changes:
        if change["kind"] == "job":
            db.execute(UPDATE_HEAD, (*_head_values(change[side]), job_id))
        elif change.get("order", {}).get(side):
            put_in_order(db, job_id, change["kind"], change["order"][side])
    db.execute("UPDATE job SET revision = revision + 1 WHERE id = ?", (job_id,))


def _head_values(state: Change) -> list[Any]:
    read = _head_state(state)
    return [column.to_sql(read) for column in HEAD]


def _head_state(state: Change) -> Change:
    """The job's own values. An older version kept habits and notes as text."""
    return {
        key: json.loads(value) if key in ("habits", "notes") and isinstance(value, str) else value
        for key, value in state.items()
    }


def _newest(field: str, state: Change) -> Change:
    return _part_of(field, state).model_dump(mode="json")


def _part_of(field: str, state: Change) -> Frozen:
    """A part as an older version wrote it into the history, as this one has it."""
    model = TABLES[field].model
    return model.model_validate(brought_up(model, state))


def applied(job: Job, changes: Sequence[Change], *, forward: bool) -> Job:
    """The job after the changes, or before them: what `write_changes` makes of its rows, without reading them anew.
    What does not change stays the very same part, so that what was planned from it is found again."""
    side = "after" if forward else "before"
    values: dict[str, Any] = {}
    for field in dict.fromkeys(change["kind"] for change in changes if change["kind"] != "job"):
        parts: dict[str, Any] = {part.id: part for part in getattr(job, field)}
        own = [change for change in changes if change["kind"] == field]
        for change in own:
            if "id" in change and change[side] is None:
                parts.pop(change["id"], None)
            elif "id" in change:
                parts[change["id"]] = _part_of(field, change[side])
        order = next((change["order"][side] for change in own if change.get("order", {}).get(side)), None)
        values[field] = tuple(parts[name] for name in order or parts)
    for change in changes:
        if change["kind"] == "job":
            head = Job.model_validate(brought_up(Job, {**_head(job), **_head_state(change[side])}))
            values |= {column.name: getattr(head, column.name) for column in HEAD}
    return job.model_copy(update=values)
