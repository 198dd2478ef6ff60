"""What lies between buildings outlives the process: every kind of it in its own rows, undone and done again."""

from __future__ import annotations

import sqlite3
from pathlib import Path
from typing import Any

import pytest

from levelrun.core.edits import apply
from levelrun.core.job import Job
from levelrun.store import Database, Jobs
from levelrun.store.schema import MIGRATIONS
from tests.conftest import EDITS
from tests.core.trench.yard import FEED, in_air, said, yard

FULL = said(
    yard(*FEED, "street south 60'", "drive 12' wide from street to 30' east 5' north", "rods 2 at Shop 8' apart"),
    "gas 24\" deep from 30' east 30' south to 30' east 50' north private", "read 17\" at 12'",
    "done marks on 2026-05-04",
    "done dig", "done lay", "lift House to Shop by R. Meadow on 2026-05-12", "service House overhead 200 A",
)  # fmt: skip


@pytest.mark.parametrize("job", [FULL, in_air()])
def test_each_kind_comes_back_as_it_was(tmp_path: Path, job: Job) -> None:
    kept = Jobs(Database(tmp_path / "a.sqlite3")).create(job)
    again = Jobs(Database(tmp_path / "a.sqlite3")).get(kept.id).job
    for field in ("yard", "trenches", "spans", "electrodes", "services", "holds", "ways"):
        assert getattr(again, field) == getattr(job, field), field
    assert again == job


@pytest.mark.parametrize(
    "edit",
    [
        {"op": "drop", "kind": "yard", "id": "y2"},
        {"op": "set", "kind": "trench", "id": "t1", "set": {"readings": [], "rock": True}},
        {"op": "drop", "kind": "trench", "id": "t1"},
        {"op": "dig", "trench": "t1", "depth_in": 24.0},
        {"op": "lift_hold", "trench": "t1", "by": ""},
        {"op": "do_step", "trench": "t1", "step": "fill", "on": "2026-05-13"},
        {"op": "set", "kind": "structure", "id": "s2", "set": {"ground_in": -9.0, "x_in": 900.0}},
        {"op": "set", "kind": "electrode", "id": "e1", "set": {"ohms": 22.5}},
        {"op": "drop", "kind": "service", "id": "q1"},
        {"op": "lift_out", "along": "t1", "way": "w1"},
    ],
)
def test_each_change_is_durable_and_is_taken_back_whole(tmp_path: Path, edit: dict[str, Any]) -> None:
    """Of a trench that goes, its hold goes along and its legs stay: all of it comes back by one undo."""
    path = tmp_path / "a.sqlite3"
    jobs = Jobs(Database(path))
    first = jobs.create(FULL)
    after = apply(FULL, EDITS.validate_python([edit]))
    changed = jobs.change(first.id, first.revision, "test", lambda job: apply(job, EDITS.validate_python([edit])))
    assert changed.job == after != FULL
    assert Jobs(Database(path)).get(first.id).job == after
    back = Jobs(Database(path)).undo(first.id, changed.revision)
    assert back.job == FULL
    assert Jobs(Database(path)).redo(first.id, back.revision).job == after


def test_a_file_of_before_has_no_yard_and_takes_one(tmp_path: Path) -> None:
    """A file that stood at the migration before: its jobs are read with nothing between their buildings."""
    path = tmp_path / "old.sqlite3"
    before = tuple(step for step in MIGRATIONS if step[0] < "0012")
    Database(path, before).close()
    with sqlite3.connect(path) as rows:
        names = {name for (name,) in rows.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    assert not names & {"yard", "trench", "span", "electrode", "service", "hold"}
    jobs = Jobs(Database(path))
    kept = jobs.create(FULL)
    assert Jobs(Database(path)).get(kept.id).job == FULL
