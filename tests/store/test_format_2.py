"""A data file of format 2 with its history: opened, it has ways and circuits, and every step can still be taken back
and made again."""

from __future__ import annotations

import sqlite3
from pathlib import Path

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.store import Database, Jobs

DUMP = Path(__file__).parents[1] / "old" / "format-2.sql"


@pytest.fixture
def old(tmp_path: Path) -> Path:
    """The sample shed with six changes, two of them taken back, as version 0.2 left it."""
    path = tmp_path / "levelrun.sqlite3"
    db = sqlite3.connect(path)
    db.executescript(DUMP.read_text())
    db.close()
    return path


def circuit(job: Job, name: str) -> dict[str, object]:
    found = next(item for item in job.circuits if item.name == name)
    return {"wire": found.wire_size, "load": found.load_a, "space": found.space,
            "hops": [(hop.box, hop.path, hop.wire_size) for hop in found.chain]}  # fmt: skip


def test_it_opens_as_ways_and_circuits(old: Path) -> None:
    jobs = Jobs(Database(old))
    job = jobs.get(jobs.list()[0].id).job
    assert [(way.name, len(way.legs)) for way in job.ways] == [("Lights and outlet", 3), ("Pump", 2)]
    assert circuit(job, "Lights and outlet") == {
        "wire": "12", "load": 9.0, "space": 1, "hops": [("x0", ("r1",), "10")],
    }  # fmt: skip
    pump = circuit(job, "Pump")
    assert (pump["wire"], pump["load"], pump["hops"]) == ("10", 17.0, [("b3", ("w1",), "")])
    assert pump["space"] is None, "5/7 is past the six spaces of its panel"
    with sqlite3.connect(old) as db:
        tables = {row[0] for row in db.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    assert "run" not in tables and "way" in tables


def test_its_history_goes_both_ways(old: Path) -> None:
    jobs = Jobs(Database(old))
    name = jobs.list()[0].id
    record = jobs.get(name)
    states = [record.job]
    while record.undo is not None:
        record = jobs.undo(name, record.revision)
        states.append(record.job)
        assert Jobs(Database(old)).get(name).job == record.job, "the file has what is in memory"
    first = record.job
    assert [way.name for way in first.ways] == ["Lights and outlet"]
    assert circuit(first, "Lights and outlet")["hops"] == [("x0", ("r1",), "")], "before its wire was changed"
    assert circuit(first, "Lights and outlet")["load"] == 5.0
    assert [c.name for c in first.circuits] == ["Lights and outlet", "Lights Shed"]
    for wanted in states[-2::-1]:
        record = jobs.redo(name, record.revision)
        assert record.job == wanted
    while record.redo is not None:
        record = jobs.redo(name, record.revision)
    assert circuit(record.job, "Bench")["hops"] == [("x0", ("r1",), "10")], "and on through what had been undone"
    assert record.job.ways[0].legs[0].length_in == 30.0
    for _ in range(6):
        record = jobs.undo(name, record.revision)
    assert record.job == first


def test_every_state_of_it_can_be_planned(old: Path) -> None:
    jobs = Jobs(Database(old))
    name = jobs.list()[0].id
    record = jobs.get(name)
    while record.undo is not None:
        assert plan(record.job).ways
        record = jobs.undo(name, record.revision)


def test_brought_up_twice_is_brought_up_once(old: Path) -> None:
    first = Jobs(Database(old))
    job = first.get(first.list()[0].id).job
    first.db.close()
    again = Jobs(Database(old))
    assert again.get(again.list()[0].id).job == job
