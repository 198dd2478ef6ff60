"""The data file in trouble: empty, damaged, foreign, locked, full, read-only; and copies of it."""

import sqlite3
from pathlib import Path

import pytest

from levelrun.cli import main
from levelrun.core.job import Job, Level, Structure
from levelrun.core.subjects import KINDS
from levelrun.samples import sample
from levelrun.store import (
    BusyStoreError,
    DamagedFileError,
    Database,
    FullStoreError,
    Jobs,
    ReadOnlyStoreError,
    db,
)
from levelrun.store.columns import HEAD, TABLES

NAME = "levelrun.sqlite3"


def kept(path: Path) -> str:
    """A file with the demo in it, closed; the job's id."""
    store = Database(path)
    found = Jobs(store).create(sample("quince-hollow")).id
    store.close()
    return found


def test_every_field_of_every_part_has_its_column(tmp_path: Path) -> None:
    store = Database(tmp_path / NAME)
    with store.read() as rows:
        for table in TABLES.values():
            both = [(table.table, table.columns)] + (
                [(table.child.table, table.child.columns)] if table.child else []
            )
            for name, columns in both:
                there = {row["name"] for row in rows.execute(f"PRAGMA table_info({name})")}
                assert {column.name for column in columns} <= there, name
        assert {column.name for column in HEAD} <= {row["name"] for row in rows.execute("PRAGMA table_info(job)")}
    fields = {kind.field for kind in KINDS.values()} | {column.name for column in HEAD}
    assert fields | {"format", "format_version"} == set(Job.model_fields), "nothing of a job is left unstored"


@pytest.mark.parametrize("harm", ["empty", "cut", "text", "foreign"])
def test_a_file_that_is_not_whole_is_one_line_and_is_left_alone(
    tmp_path: Path, harm: str, capsys: pytest.CaptureFixture[str]
) -> None:
    path = tmp_path / NAME
    if harm == "foreign":
        other = sqlite3.connect(path)
        other.execute("CREATE TABLE recipes (name TEXT)")
        other.close()
    else:
        kept(path)
        data = path.read_bytes()
        path.write_bytes({"empty": b"", "cut": data[: len(data) // 2], "text": b"not a database at all" * 400}[harm])
    was = path.read_bytes()
    with pytest.raises(DamagedFileError, match=NAME):
        Database(path)
    assert path.read_bytes() == was
    assert main(["serve", "--port", "18765", "--data", str(tmp_path)]) == 2
    told = capsys.readouterr()
    assert str(path) in told.err and len(told.err.strip().splitlines()) == 1 and told.out == ""


def test_a_copy_of_the_closed_file_alone_is_whole(tmp_path: Path) -> None:
    job_id = kept(tmp_path / NAME)
    copy = tmp_path / "copy" / NAME
    copy.parent.mkdir()
    copy.write_bytes((tmp_path / NAME).read_bytes())
    assert Jobs(Database(copy)).get(job_id).job == sample("quince-hollow")


def test_after_idle_the_log_is_in_the_file(tmp_path: Path) -> None:
    store = Database(tmp_path / NAME)
    job_id = Jobs(store).create(sample("shed")).id
    log = tmp_path / f"{NAME}-wal"
    assert log.stat().st_size > 0
    store.checkpoint()
    assert log.stat().st_size == 0
    (tmp_path / "copy.sqlite3").write_bytes((tmp_path / NAME).read_bytes())
    assert Jobs(Database(tmp_path / "copy.sqlite3")).get(job_id).job == sample("shed")


def test_a_backup_while_in_use_is_whole_and_never_overwrites(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    store = Database(tmp_path / NAME)
    job_id = Jobs(store).create(sample("quince-hollow")).id
    target = tmp_path / "backup.sqlite3"
    assert main(["backup", str(target), "--data", str(tmp_path)]) == 0
    assert Jobs(Database(target)).get(job_id).job == sample("quince-hollow")
    assert main(["backup", str(target), "--data", str(tmp_path)]) == 2
    assert "is there already" in capsys.readouterr().err


def test_a_full_disk_leaves_a_working_store(tmp_path: Path) -> None:
    store = Database(tmp_path / NAME)
    jobs = Jobs(store)
    job_id = jobs.create(sample("shed")).id
    pages = store._writer.execute("PRAGMA page_count").fetchone()[0]
    store._writer.execute(f"PRAGMA max_page_count = {pages + 2}")
    with pytest.raises(FullStoreError, match="nothing was changed"):
        jobs.create(sample("quince-hollow"))
    assert [row.id for row in jobs.list()] == [job_id]
    store._writer.execute("PRAGMA max_page_count = 100000")
    jobs.create(sample("quince-hollow"))
    assert len(jobs.list()) == 2


def test_a_file_held_by_another_program_is_said_to_be(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(db, "LOCK_WAIT_S", 0.05)
    jobs = Jobs(Database(tmp_path / NAME))
    job_id = jobs.create(sample("shed")).id
    other = sqlite3.connect(tmp_path / NAME, isolation_level=None)
    other.execute("BEGIN IMMEDIATE")
    with pytest.raises(BusyStoreError, match="another program holds"):
        jobs.delete(job_id)
    other.execute("ROLLBACK")
    jobs.delete(job_id)
    assert jobs.list() == []


def test_read_only_reads_and_changes_nothing(tmp_path: Path) -> None:
    job_id = kept(tmp_path / NAME)
    jobs = Jobs(Database(tmp_path / NAME, read_only=True))
    assert jobs.get(job_id).job == sample("quince-hollow")
    with pytest.raises(ReadOnlyStoreError):
        jobs.delete(job_id)


def test_a_level_moved_between_buildings_comes_back_and_order_is_kept(tmp_path: Path) -> None:
    loft = Level(id="l", name="Loft", kind="loft")
    three = tuple(Structure(id=name, name=name.upper(), levels=(loft,) * (name == "c")) for name in "abc")
    jobs = Jobs(Database(tmp_path / NAME))
    first = jobs.create(Job(name="Moves", structures=three))
    moved = (three[0].model_copy(update={"levels": (loft,)}), three[1], three[2].model_copy(update={"levels": ()}))
    steps = (moved, (moved[0], moved[2]), (moved[2], moved[0]))
    for number, structures in enumerate(steps):
        jobs.change(first.id, number + 1, "move", lambda job, s=structures: job.model_copy(update={"structures": s}))
    fresh = Jobs(Database(tmp_path / NAME))
    assert fresh.get(first.id).job.structures == steps[-1]
    for revision, wanted in ((4, steps[1]), (5, steps[0]), (6, three)):
        assert fresh.undo(first.id, revision).job.structures == wanted
    for revision, wanted in ((7, steps[0]), (8, steps[1]), (9, steps[2])):
        assert fresh.redo(first.id, revision).job.structures == wanted
