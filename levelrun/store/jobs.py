"""Jobs with revisions and undo. Every change is one transaction: rows, revision and history together."""

from __future__ import annotations

import json
import sqlite3
import uuid
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, get_args

from levelrun.core.job import PARTS, Frozen, Job
from levelrun.core.job.upgrade import structure_upgraded
from levelrun.store.db import Database, StoreError
from levelrun.store.rows import drop_part, put_part, read_job

Change = dict[str, Any]
HEAD = ("name", "rules", "remarks", "habits", "notes")
MAX_HISTORY = 500


class NoSuchJobError(StoreError):
    """No job has this id."""


class StaleRevisionError(StoreError):
    """The job has moved on since the caller read it."""

    def __init__(self, sent: int, current: int) -> None:
        super().__init__(f"the job is at revision {current}, the change was made on {sent}")
        self.sent = sent
        self.current = current


class NothingToUndoError(StoreError):
    """There is no change to take back, or none to make again."""


@dataclass(frozen=True)
class JobRow:
    """A job in the list of jobs."""

    id: str
    name: str
    revision: int
    runs: int


@dataclass(frozen=True)
class JobRecord:
    """A job as kept, with its revision and what undo and redo would do; `before`: as it was one change ago."""

    id: str
    revision: int
    job: Job
    undo: str | None
    redo: str | None
    before: Job | None = None


class Jobs:
    """All jobs of one database."""

    def __init__(self, db: Database) -> None:
        self._db = db
        self._cache: dict[str, JobRecord] = {}

    def list(self) -> list[JobRow]:
        """Every job, last opened first."""
        with self._db.read() as db:
            rows = db.execute(
                "SELECT job.id, job.name, job.revision, (SELECT count(*) FROM run WHERE run.job_id = job.id) AS runs"
                " FROM job ORDER BY opened DESC, name"
            ).fetchall()
        return [JobRow(row["id"], row["name"], row["revision"], row["runs"]) for row in rows]

    def create(self, job: Job) -> JobRecord:
        """Keep a new job whole; it becomes the last opened."""
        job_id = uuid.uuid4().hex[:12]
        with self._db.write() as db:
            db.execute(
                "INSERT INTO job (id, name, rules, remarks, habits, notes, revision, opened)"
                " VALUES (?, ?, ?, ?, ?, ?, 1, (SELECT coalesce(max(opened), 0) + 1 FROM job))",
                (job_id, *_head(job).values()),
            )
            for kind in PARTS:
                for part in getattr(job, kind):
                    put_part(db, job_id, kind, part.model_dump(mode="json"))
        return self.get(job_id)

    def get(self, job_id: str) -> JobRecord:
        """A job with its revision. Raises NoSuchJobError."""
        with self._db.read() as db:
            row = _row(db, job_id)
            kept = self._cache.get(job_id)
            if kept and kept.revision == row["revision"]:
                return kept
            record = _record(db, job_id, row)
        self._cache[job_id] = record
        return record

    def opened(self, job_id: str) -> None:
        """Remember this job as the last opened."""
        with self._db.write() as db:
            _row(db, job_id)
            db.execute("UPDATE job SET opened = (SELECT max(opened) + 1 FROM job) WHERE id = ?", (job_id,))

    def delete(self, job_id: str) -> None:
        """Remove a job with all it holds."""
        with self._db.write() as db:
            _row(db, job_id)
            db.execute("DELETE FROM job WHERE id = ?", (job_id,))
        self._cache.pop(job_id, None)

    def change(self, job_id: str, revision: int, label: str, change: Callable[[Job], Job]) -> JobRecord:
        """One durable change. Raises StaleRevisionError where `revision` is not the current one."""
        with self._db.write() as db:
            before = _current(db, job_id, revision, self._cache.get(job_id))
            after = change(before)
            changes = _difference(before, after)
            if changes:
                seq = _tail(db, job_id)
                _write(db, job_id, changes, forward=True)
                db.execute(
                    "INSERT INTO history (job_id, seq, label, changes) VALUES (?, ?, ?, ?)",
                    (job_id, seq, label, json.dumps(changes)),
                )
                db.execute("DELETE FROM history WHERE job_id = ? AND seq <= ?", (job_id, seq - MAX_HISTORY))
                kept = JobRecord(job_id, revision + 1, after, label, None, before)
        if changes:
            self._cache[job_id] = kept
        return self.get(job_id)

    def undo(self, job_id: str, revision: int) -> JobRecord:
        """Take back the last change."""
        return self._step(
            job_id,
            revision,
            "SELECT * FROM history WHERE job_id = ? AND undone = 0 ORDER BY seq DESC LIMIT 1",
            forward=False,
        )

    def redo(self, job_id: str, revision: int) -> JobRecord:
        """Make the last undone change again."""
        return self._step(
            job_id,
            revision,
            "SELECT * FROM history WHERE job_id = ? AND undone = 1 ORDER BY seq LIMIT 1",
            forward=True,
        )

    def _step(self, job_id: str, revision: int, query: str, *, forward: bool) -> JobRecord:
        kept = self._cache.get(job_id)
        before = kept.job if kept and kept.revision == revision else None
        with self._db.write() as db:
            row = _row(db, job_id)
            if row["revision"] != revision:
                raise StaleRevisionError(revision, row["revision"])
            entry = db.execute(query, (job_id,)).fetchone()
            if entry is None:
                raise NothingToUndoError("nothing to redo" if forward else "nothing to undo")
            _write(db, job_id, json.loads(entry["changes"]), forward=forward)
            db.execute(
                "UPDATE history SET undone = ? WHERE job_id = ? AND seq = ?",
                (0 if forward else 1, job_id, entry["seq"]),
            )
        return replace(self.get(job_id), before=before)


def _row(db: sqlite3.Connection, job_id: str) -> sqlite3.Row:
    row: sqlite3.Row | None = db.execute("SELECT * FROM job WHERE id = ?", (job_id,)).fetchone()
    if row is None:
        raise NoSuchJobError(f"no job {job_id!r}")
    return row


def _current(db: sqlite3.Connection, job_id: str, revision: int, kept: JobRecord | None) -> Job:
    row = _row(db, job_id)
    if row["revision"] != revision:
        raise StaleRevisionError(revision, row["revision"])
    if kept and kept.revision == revision:
        return kept.job
    return read_job(db, job_id, row)


def _record(db: sqlite3.Connection, job_id: str, row: sqlite3.Row) -> JobRecord:
    undo = db.execute(
        "SELECT label FROM history WHERE job_id = ? AND undone = 0 ORDER BY seq DESC LIMIT 1", (job_id,)
    ).fetchone()
    redo = db.execute(
        "SELECT label FROM history WHERE job_id = ? AND undone = 1 ORDER BY seq LIMIT 1", (job_id,)
    ).fetchone()
    return JobRecord(
        job_id,
        row["revision"],
        read_job(db, job_id, row),
        undo["label"] if undo else None,
        redo["label"] if redo else None,
    )


def _tail(db: sqlite3.Connection, job_id: str) -> int:
    """Drop what was undone: a new change starts a new future. Returns the next sequence number."""
    db.execute("DELETE FROM history WHERE job_id = ? AND undone = 1", (job_id,))
    row = db.execute("SELECT coalesce(max(seq), 0) + 1 FROM history WHERE job_id = ?", (job_id,)).fetchone()
    return int(row[0])


def _head(job: Job) -> dict[str, str]:
    return {
        "name": job.name,
        "rules": job.rules,
        "remarks": job.remarks,
        "habits": job.habits.model_dump_json(),
        "notes": json.dumps([note.model_dump(mode="json") for note in job.notes]),
    }


def _difference(before: Job, after: Job) -> list[Change]:
    """What changed, part by part, each with its state before and after: enough to go both ways."""
    changes: list[Change] = []
    old, new = _head(before), _head(after)
    if old != new:
        changes.append({"kind": "job", "before": old, "after": new})
    for kind in PARTS:
        gone = {part.id: part for part in getattr(before, kind)}
        come = {part.id: part for part in getattr(after, kind)}
        for part in dict.fromkeys([*gone, *come]):
            was, is_now = gone.get(part), come.get(part)
            if was is not is_now and was != is_now:
                changes.append({"kind": kind, "id": part, "before": _dump(was), "after": _dump(is_now)})
    return changes


def _dump(part: Frozen | None) -> Change | None:
    return None if part is None else part.model_dump(mode="json")


def _write(db: sqlite3.Connection, job_id: str, changes: list[Change], *, forward: bool) -> None:
    db.execute("PRAGMA defer_foreign_keys = ON")
    side = "after" if forward else "before"
    for change in changes:
        state = change[side]
        if change["kind"] == "job":
            db.execute(
                "UPDATE job SET name = ?, rules = ?, remarks = ?, habits = ?, notes = ? WHERE id = ?",
                (*(state[key] for key in HEAD), job_id),
            )
        elif state is None:
            change["place"] = drop_part(db, job_id, change["kind"], change["id"])
        else:
            put_part(db, job_id, change["kind"], _newest(change["kind"], state), change.get("place"))
    db.execute("UPDATE job SET revision = revision + 1 WHERE id = ?", (job_id,))


def _newest(kind: str, state: Change) -> Change:
    """A part as an older version wrote it into the history, as this one has it."""
    model = Job.model_fields[kind].annotation
    part: Frozen = get_args(model)[0].model_validate(structure_upgraded(state) if kind == "structures" else state)
    return part.model_dump(mode="json")
