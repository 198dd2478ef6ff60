"""The parts of a job as rows, and back. SQL is built once from the columns; every value is bound."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence

from levelrun.core.job import Job
from levelrun.core.job.upgrade import brought_up
from levelrun.store.columns import HEAD, TABLES, Child, Column, Row, Table


def _insert(table: str, names: Sequence[str]) -> str:
    return f"INSERT INTO {table} ({', '.join(names)}) VALUES ({', '.join('?' * len(names))})"


def _names(columns: Sequence[Column]) -> list[str]:
    return [column.name for column in columns]


INSERT_HEAD = _insert("job", ["id", *_names(HEAD), "revision", "opened"])
UPDATE_HEAD = f"UPDATE job SET {', '.join(f'{name} = ?' for name in _names(HEAD))} WHERE id = ?"
INSERT = {t.field: _insert(t.table, ["job_id", "place", *_names(t.columns)]) for t in TABLES.values()}
DELETE = {t.field: f"DELETE FROM {t.table} WHERE job_id = ? AND id = ?" for t in TABLES.values()}
SELECT = {t.field: f"SELECT * FROM {t.table} WHERE job_id = ? ORDER BY place" for t in TABLES.values()}
PLACES = {t.field: f"SELECT id, place FROM {t.table} WHERE job_id = ? ORDER BY place" for t in TABLES.values()}
MOVE = {t.field: f"UPDATE {t.table} SET place = ? WHERE job_id = ? AND id = ?" for t in TABLES.values()}
INSERT_CHILD = {
    t.field: _insert(t.child.table, ["job_id", t.child.owner, "place", *_names(t.child.columns)])
    for t in TABLES.values()
    if t.child
}
SELECT_CHILD = {
    t.field: f"SELECT * FROM {t.child.table} WHERE job_id = ? ORDER BY {t.child.owner}, place"
    for t in TABLES.values()
    if t.child
}


def read_job(db: sqlite3.Connection, job_id: str, row: sqlite3.Row) -> Job:
    """The whole job from its rows."""
    parts = {table.field: _parts(db, job_id, table) for table in TABLES.values()}
    return Job.model_validate(brought_up(Job, {**_part(HEAD, row), **parts}))


def _parts(db: sqlite3.Connection, job_id: str, table: Table) -> list[Row]:
    found = [_part(table.columns, row) for row in db.execute(SELECT[table.field], (job_id,))]
    if table.child is not None:
        children = _children(db, job_id, table, table.child)
        for part in found:
            part[table.child.field] = children.get(part["id"], [])
    return found


def _children(db: sqlite3.Connection, job_id: str, table: Table, child: Child) -> dict[str, list[Row]]:
    found: dict[str, list[Row]] = {}
    for row in db.execute(SELECT_CHILD[table.field], (job_id,)):
        found.setdefault(row[child.owner], []).append(_part(child.columns, row))
    return found


def _part(columns: Sequence[Column], row: sqlite3.Row) -> Row:
    part: Row = {}
    for column in columns:
        into = part
        for key in column.path[:-1]:
            into = into.setdefault(key, {})
        into[column.path[-1]] = column.from_sql(row[column.name])
    return part


def head_values(job: Job) -> list[object]:
    """What the job's own row holds, in the order of its columns."""
    dumped = job.model_dump(mode="json", include={column.name for column in HEAD})
    return [column.to_sql(dumped) for column in HEAD]


def put_part(db: sqlite3.Connection, job_id: str, field: str, part: Row, place: int) -> None:
    """Write one part whole, with what hangs on it alone."""
    table = TABLES[field]
    db.execute(INSERT[field], (job_id, place, *(column.to_sql(part) for column in table.columns)))
    if table.child is not None:
        for index, item in enumerate(part[table.child.field]):
            values = (column.to_sql(item) for column in table.child.columns)
            db.execute(INSERT_CHILD[field], (job_id, part["id"], index, *values))


def drop_part(db: sqlite3.Connection, job_id: str, field: str, part_id: str) -> None:
    """Remove one part and what hangs on it alone."""
    db.execute(DELETE[field], (job_id, part_id))


def places(db: sqlite3.Connection, job_id: str, field: str) -> dict[str, int]:
    """Where each part of a kind stands."""
    return {row["id"]: row["place"] for row in db.execute(PLACES[field], (job_id,))}


def put_in_order(db: sqlite3.Connection, job_id: str, field: str, order: Sequence[str]) -> None:
    """Number the parts of a kind as `order` has them; only those that stand elsewhere are written."""
    now = places(db, job_id, field)
    for index, part_id in enumerate(order):
        if now.get(part_id) != index:
            db.execute(MOVE[field], (index, job_id, part_id))
