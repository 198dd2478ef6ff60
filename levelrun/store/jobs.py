"""Jobs with revisions and undo. Every change is one transaction: rows, revision, history and the id of the step."""

from __future__ import annotations

import json
import sqlite3
import uuid
from collections import OrderedDict
from collections.abc import Callable
from dataclasses import dataclass, replace

from levelrun.core.job import Job
from levelrun.store.changes import applied, difference, write_changes
from levelrun.store.columns import TABLES
from levelrun.store.db import Database
from levelrun.store.errors import NoSuchJobError, NothingToUndoError, StaleRevisionError
from levelrun.store.rows import INSERT_HEAD, head_values, put_part, read_job

MAX_HISTORY = 500
MAX_STEPS = 2000
MOST_SIDES = 32  # changes of which the job on both sides is remembered, so that undo plans nothing anew
LAST_UNDO = "SELECT * FROM history WHERE job_id = ? AND undone = 0 ORDER BY seq DESC LIMIT 1"
FIRST_REDO = "SELECT * FROM history WHERE job_id = ? AND undone = 1 ORDER BY seq LIMIT 1"


@dataclass(frozen=True)
class JobRow:
    """A job in the list of jobs."""

    id: str
    name: str
    revision: int
    circuits: int


@dataclass(frozen=True, kw_only=True)
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
        self.db = db
        self._cache: dict[str, JobRecord] = {}
        self._sides: OrderedDict[tuple[str, int], tuple[Job, Job]] = OrderedDict()

    def list(self) -> list[JobRow]:
        """Every job, last opened first."""
        with self.db.read() as db:
            rows = db.execute(
                "SELECT job.id, job.name, job.revision,"
                " (SELECT count(*) FROM circuit WHERE circuit.job_id = job.id) AS circuits"
                " FROM job ORDER BY opened DESC, name"
            ).fetchall()
        return [JobRow(row["id"], row["name"], row["revision"], row["circuits"]) for row in rows]

    def create(self, job: Job) -> JobRecord:
        """Keep a new job whole; it becomes the last opened."""
        job_id = uuid.uuid4().hex[:12]
        with self.db.write() as db:
            opened = int(db.execute("SELECT coalesce(max(opened), 0) + 1 FROM job").fetchone()[0])
            db.execute(INSERT_HEAD, (job_id, *head_values(job), 1, opened))
            db.execute("PRAGMA defer_foreign_keys = ON")
            for field in TABLES:
                for place, part in enumerate(getattr(job, field)):
                    put_part(db, job_id, field, part.model_dump(mode="json"), place)
        record = JobRecord(id=job_id, revision=1, job=job, undo=None, redo=None)
        self._cache[job_id] = record
        return record

    def get(self, job_id: str) -> JobRecord:
        """A job with its revision. Raises NoSuchJobError."""
        with self.db.read() as db:
            row = _row(db, job_id)
            kept = self._cache.get(job_id)
            if kept and kept.revision == row["revision"]:
                return kept
            record = _record(db, job_id, row["revision"], read_job(db, job_id, row))
        self._cache[job_id] = record
        return record

    def opened(self, job_id: str) -> None:
        """Remember this job as the last opened."""
        with self.db.write() as db:
            _row(db, job_id)
            db.execute("UPDATE job SET opened = (SELECT max(opened) + 1 FROM job) WHERE id = ?", (job_id,))

    def delete(self, job_id: str) -> None:
        """Remove a job with all it holds."""
        with self.db.write() as db:
            _row(db, job_id)
            db.execute("DELETE FROM job WHERE id = ?", (job_id,))
        self._cache.pop(job_id, None)

    def change(
        self, job_id: str, revision: int, label: str, change: Callable[[Job], Job], step: str | None = None
    ) -> JobRecord:
        """One durable change. Raises StaleRevisionError where `revision` is not the current one.

        step: an id that the caller made for this change. The same id again, because an answer was lost, changes
        nothing and answers with the job as it is.
        """
        kept = None
        with self.db.write() as db:
            if _done(db, job_id, step):
                return replace(self.get(job_id), before=None)
            before = _current(db, job_id, revision, self._cache.get(job_id))
            after = change(before)
            changes = difference(before, after)
            if changes:
                seq = _tail(db, job_id)
                write_changes(db, job_id, changes, forward=True, fresh=True)
                db.execute(
                    "INSERT INTO history (job_id, seq, label, changes) VALUES (?, ?, ?, ?)",
                    (job_id, seq, label, json.dumps(changes)),
                )
                db.execute("DELETE FROM history WHERE job_id = ? AND seq <= ?", (job_id, seq - MAX_HISTORY))
                kept = JobRecord(id=job_id, revision=revision + 1, job=after, undo=label, redo=None, before=before)
                self._remember(job_id, seq, before, after)
            _note(db, job_id, step, revision + bool(changes))
        if kept is not None:
            self._cache[job_id] = kept
            return kept
        return self.get(job_id)

    def undo(self, job_id: str, revision: int, step: str | None = None) -> JobRecord:
        """Take back the last change."""
        return self._step(job_id, revision, step, LAST_UNDO, forward=False)

    def redo(self, job_id: str, revision: int, step: str | None = None) -> JobRecord:
        """Make the last undone change again."""
        return self._step(job_id, revision, step, FIRST_REDO, forward=True)

    def _step(self, job_id: str, revision: int, step: str | None, query: str, *, forward: bool) -> JobRecord:
        with self.db.write() as db:
            if _done(db, job_id, step):
                return replace(self.get(job_id), before=None)
            before = _current(db, job_id, revision, self._cache.get(job_id))
            entry = db.execute(query, (job_id,)).fetchone()
            if entry is None:
                raise NothingToUndoError("nothing to redo" if forward else "nothing to undo")
            changes = json.loads(entry["changes"])
            write_changes(db, job_id, changes, forward=forward)
            db.execute(
                "UPDATE history SET undone = ? WHERE job_id = ? AND seq = ?",
                (0 if forward else 1, job_id, entry["seq"]),
            )
            _note(db, job_id, step, revision + 1)
            after = self._other_side(job_id, entry["seq"], before, forward) or applied(
                before, changes, forward=forward
            )
            self._remember(job_id, entry["seq"], *((before, after) if forward else (after, before)))
            found = _record(db, job_id, revision + 1, after)
        self._cache[job_id] = replace(found, before=before)
        return self._cache[job_id]

    def _remember(self, job_id: str, seq: int, before: Job, after: Job) -> None:
        """The job on both sides of a change: a change taken back, or made again, gives the very same job, of which
        the plan is known."""
        self._sides[job_id, seq] = (before, after)
        self._sides.move_to_end((job_id, seq))
        while len(self._sides) > MOST_SIDES:
            self._sides.popitem(last=False)

    def _other_side(self, job_id: str, seq: int, here: Job, forward: bool) -> Job | None:
        """The job on the other side of a change, where the one on this side is remembered as it is now."""
        sides = self._sides.get((job_id, seq))
        if sides is None or sides[1 - forward] is not here:
            return None
        return sides[forward]


def _row(db: sqlite3.Connection, job_id: str) -> sqlite3.Row:
    row: sqlite3.Row | None = db.execute("SELECT * FROM job WHERE id = ?", (job_id,)).fetchone()
    if row is None:
        raise NoSuchJobError(f"no job {job_id!r}")
    return row


def _done(db: sqlite3.Connection, job_id: str, step: str | None) -> bool:
    """Whether a step with this id was made already."""
    if step is None:
        return False
    found = db.execute("SELECT 1 FROM step WHERE job_id = ? AND id = ?", (job_id, step)).fetchone()
    return found is not None


def _note(db: sqlite3.Connection, job_id: str, step: str | None, revision: int) -> None:
    if step is not None:
        db.execute("INSERT INTO step (job_id, id, revision) VALUES (?, ?, ?)", (job_id, step, revision))
        db.execute("DELETE FROM step WHERE job_id = ? AND revision <= ?", (job_id, revision - MAX_STEPS))


def _current(db: sqlite3.Connection, job_id: str, revision: int, kept: JobRecord | None) -> Job:
    row = _row(db, job_id)
    if row["revision"] != revision:
        raise StaleRevisionError(revision, row["revision"])
    if kept and kept.revision == revision:
        return kept.job
    return read_job(db, job_id, row)


def _record(db: sqlite3.Connection, job_id: str, revision: int, job: Job) -> JobRecord:
    undo = db.execute(LAST_UNDO, (job_id,)).fetchone()
    redo = db.execute(FIRST_REDO, (job_id,)).fetchone()
    return JobRecord(
        id=job_id,
        revision=revision,
        job=job,
        undo=undo["label"] if undo else None,
        redo=redo["label"] if redo else None,
    )


def _tail(db: sqlite3.Connection, job_id: str) -> int:
    """Drop what was undone: a new change starts a new future. Returns the next sequence number."""
    db.execute("DELETE FROM history WHERE job_id = ? AND undone = 1", (job_id,))
    row = db.execute("SELECT coalesce(max(seq), 0) + 1 FROM history WHERE job_id = ?", (job_id,)).fetchone()
    return int(row[0])
