"""The store: migrations that fail cleanly, rows that give back the job, revisions, undo."""

import json
import sqlite3
from pathlib import Path

import pytest

from levelrun.core.edits import apply
from levelrun.exchange.job_file import read_job, write_job
from levelrun.samples import sample
from levelrun.store import Database, Jobs, NoSuchJobError, NothingToUndoError, StaleRevisionError, StoreError
from levelrun.store.schema import MIGRATIONS
from tests.conftest import EDITS


@pytest.fixture(params=[32, 0], ids=["sides remembered", "read from history"])
def jobs(tmp_path: Path, request: pytest.FixtureRequest, monkeypatch: pytest.MonkeyPatch) -> Jobs:
    monkeypatch.setattr("levelrun.store.jobs.MOST_SIDES", request.param)
    return Jobs(Database(tmp_path / "jobs.sqlite3"))


def change(jobs: Jobs, job_id: str, revision: int, *edits: dict) -> object:  # type: ignore[type-arg]
    return jobs.change(job_id, revision, "test", lambda job: apply(job, EDITS.validate_python(list(edits))))


OLD_RUN = {"circuit": "1", "volts": 120, "breaker_a": 20.0, "load_a": 5.0, "wire_size": "12", "conductors": 2}
DEEPER = {"op": "set_leg", "way": "h14", "leg": 5, "set": {"depth_in": 18}}


def test_a_failing_step_leaves_nothing_of_itself(tmp_path: Path) -> None:
    broken = (*MIGRATIONS, ("0002-broken", "CREATE TABLE extra (id TEXT) STRICT; CREATE TABLE job (id TEXT)"))
    with pytest.raises(StoreError, match="job already exists"):
        Database(tmp_path / "a.sqlite3", broken)
    db = Database(tmp_path / "a.sqlite3")
    with db.read() as rows:
        names = {row["name"] for row in rows.execute("SELECT name FROM sqlite_master")}
        done = [row["name"] for row in rows.execute("SELECT name FROM migration")]
    assert "extra" not in names and "job" in names
    assert done == [name for name, *_ in MIGRATIONS]


def test_a_file_from_a_newer_version_is_refused(tmp_path: Path) -> None:
    Database(tmp_path / "a.sqlite3", (*MIGRATIONS, ("9999-later", "CREATE TABLE later (id TEXT) STRICT"))).close()
    with pytest.raises(StoreError, match="9999-later"):
        Database(tmp_path / "a.sqlite3")


def test_readers_cannot_write(tmp_path: Path) -> None:
    with Database(tmp_path / "a.sqlite3").read() as rows, pytest.raises(sqlite3.OperationalError):
        rows.execute("DELETE FROM job")


def test_rows_give_back_the_whole_job(tmp_path: Path) -> None:
    kept = Jobs(Database(tmp_path / "a.sqlite3")).create(sample("quince-hollow"))
    again = Jobs(Database(tmp_path / "a.sqlite3")).get(kept.id)
    assert again.job == sample("quince-hollow")


def test_every_change_can_be_taken_back_and_made_again(jobs: Jobs) -> None:
    first = jobs.create(sample("quince-hollow"))
    steps = [
        DEEPER,
        {"op": "walk", "way": "h5", "text": "over 3' attic in 14-2 to J-9"},
        {"op": "drop", "kind": "way", "id": "h8"},
        {"op": "unchain", "boxes": ["k4"]},
        {"op": "drop", "kind": "box", "id": "k4"},
        {"op": "set_job", "set": {"name": "Other"}},
    ]
    states = [first.job]
    for number, step in enumerate(steps):
        states.append(change(jobs, first.id, number + 1, step).job)  # type: ignore[attr-defined]
    revision = len(steps) + 1
    for wanted in reversed(states[:-1]):
        record = jobs.undo(first.id, revision)
        revision += 1
        assert record.job == wanted
    with pytest.raises(NothingToUndoError):
        jobs.undo(first.id, revision)
    for wanted in states[1:]:
        record = jobs.redo(first.id, revision)
        revision += 1
        assert record.job == wanted


def test_a_new_change_ends_what_could_be_redone(jobs: Jobs) -> None:
    kept = jobs.create(sample("quince-hollow"))
    change(jobs, kept.id, 1, DEEPER)
    jobs.undo(kept.id, 2)
    assert change(jobs, kept.id, 3, {"op": "drop_leg", "way": "h5", "leg": 0}).redo is None  # type: ignore[attr-defined]


def test_undo_gives_the_very_job_and_never_that_of_a_change_since(tmp_path: Path) -> None:
    """The plan is kept with the job itself, so the same object is planned already."""
    jobs = Jobs(Database(tmp_path / "jobs.sqlite3"))
    first = jobs.create(sample("quince-hollow"))
    deeper = change(jobs, first.id, 1, DEEPER)
    assert jobs.undo(first.id, 2).job is first.job and jobs.redo(first.id, 3).job is deeper.job  # type: ignore[attr-defined]
    jobs.undo(first.id, 4)
    other = change(jobs, first.id, 5, {"op": "drop_leg", "way": "h5", "leg": 0})  # takes the place of the first
    assert jobs.undo(first.id, 6).job is first.job
    assert jobs.redo(first.id, 7).job is other.job  # type: ignore[attr-defined]
    again = Jobs(jobs.db)  # one that remembers nothing reads the history
    assert again.undo(first.id, 8).job == first.job and again.redo(first.id, 9).job == other.job  # type: ignore[attr-defined]


def test_a_change_that_another_store_made_since_is_seen(tmp_path: Path) -> None:
    """Two programs on one file: what the one remembers is not what the other wrote."""
    one, other = (Jobs(Database(tmp_path / "jobs.sqlite3")) for _ in range(2))
    first = one.create(sample("quince-hollow"))
    change(one, first.id, 1, DEEPER)
    other.undo(first.id, 2)
    named = change(other, first.id, 3, {"op": "set_job", "set": {"name": "Of the other"}})
    assert one.undo(first.id, 4).job == first.job
    assert one.redo(first.id, 5).job == named.job  # type: ignore[attr-defined]


def test_a_stale_revision_changes_nothing(jobs: Jobs) -> None:
    kept = jobs.create(sample("quince-hollow"))
    changed = change(jobs, kept.id, 1, DEEPER)
    with pytest.raises(StaleRevisionError) as refused:
        change(jobs, kept.id, 1, {"op": "drop", "kind": "way", "id": "h8"})
    assert refused.value.current == 2
    assert jobs.get(kept.id).job == changed.job  # type: ignore[attr-defined]


def test_a_refused_edit_leaves_no_trace(jobs: Jobs) -> None:
    kept = jobs.create(sample("quince-hollow"))
    with pytest.raises(ValueError):
        change(jobs, kept.id, 1, DEEPER, {"op": "drop_leg", "way": "nobody", "leg": 0})
    now = jobs.get(kept.id)
    assert (now.revision, now.undo, now.job) == (1, None, kept.job)


def test_a_removed_job_takes_its_rows_with_it(jobs: Jobs, tmp_path: Path) -> None:
    kept = jobs.create(sample("quince-hollow"))
    jobs.delete(kept.id)
    with pytest.raises(NoSuchJobError):
        jobs.get(kept.id)
    with Database(tmp_path / "jobs.sqlite3").read() as rows:
        assert rows.execute("SELECT count(*) FROM leg").fetchone()[0] == 0


def test_a_file_of_the_first_version_comes_up_to_the_newest(tmp_path: Path) -> None:
    path = tmp_path / "old.sqlite3"
    old = Database(path, MIGRATIONS[:1])
    with old.write() as db:
        db.execute("INSERT INTO job VALUES ('0123456789ab', 'Old', 'us-2023', '', '{}', '[]', 2, 1)")
        db.execute("INSERT INTO structure VALUES ('0123456789ab', 'h', 0, 'House', 'house', -18, 96, -44)")
        db.execute("INSERT INTO panel VALUES ('0123456789ab', 'p', 0, 'Panel H', 'h', 48)")
        before = {
            "id": "h",
            "name": "Hut",
            "kind": "house",
            "grade_in": -18,
            "ceiling_in": 90,
            "under_floor_in": None,
        }
        after = {**before, "name": "House", "ceiling_in": 96, "under_floor_in": -44}
        change = [{"kind": "structures", "id": "h", "before": before, "after": after}]
        db.execute("INSERT INTO history VALUES ('0123456789ab', 1, 'structure', ?, 0)", (json.dumps(change),))
    old.close()
    jobs = Jobs(Database(path))
    job = jobs.get("0123456789ab").job
    assert (job.structures[0].ceiling_in, job.structures[0].under_floor_in) == (96, -44)
    assert job.panels[0].spaces == 20
    undone = jobs.undo("0123456789ab", 2).job
    assert (undone.structures[0].name, undone.structures[0].ceiling_in) == ("Hut", 90)


def test_a_job_file_of_the_first_version_is_read() -> None:
    raw = json.loads(write_job(sample("shed")))
    raw["format_version"] = 1
    raw["runs"] = [
        {**OLD_RUN, **{key: way[key] for key in ("id", "name", "start", "legs")}} for way in raw.pop("ways")
    ]
    for part in raw["structures"]:
        part.pop("levels")
        part |= {"ceiling_in": 84.0, "under_floor_in": None}
        part.pop("x_in")
        part.pop("y_in")
    for key in ("rooms", "openings", "fixtures", "circuits"):
        raw.pop(key)
    for node in (*raw["boxes"], *raw["panels"]):
        node.update(room=None, side=None, at_in=None, x_in=None, y_in=None)
    job = read_job(json.dumps(raw))
    assert job.format_version == 3
    circuit = job.circuits[0]
    assert (circuit.name, circuit.wire_size, circuit.load_a, circuit.space) == ("Lights and outlet", "12", 5.0, 1)
    assert circuit.chain[0].path == (job.ways[0].id,)
    assert job.structures[0].ceiling_in == 84


def test_a_value_under_a_later_least_is_raised_to_it_on_opening(tmp_path: Path) -> None:
    """An older version took joists an inch apart and a staple every inch: the job opens, and nothing else changes."""
    db = Database(tmp_path / "levelrun.sqlite3")
    made = Jobs(db).create(sample("quince-hollow"))
    floor = made.job.structures[0].levels[0].id
    with db.write() as rows:
        rows.execute("UPDATE level SET joist_spacing_in = 1, joist_depth_in = 0.5 WHERE id = ?", (floor,))
        rows.execute("UPDATE job SET habits = json_set(habits, '$.staple_spacing_in', 1)")
    opened = Jobs(db).get(made.id).job
    level = opened.structures[0].levels[0]
    assert (level.joist_spacing_in, level.joist_depth_in) == (6, 1)
    assert opened.habits.staple_spacing_in == 6
    assert opened.rooms == made.job.rooms
    assert opened.boxes == made.job.boxes
    db.close()
