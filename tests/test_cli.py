"""The command line."""

import io
import json
import socket
import subprocess
import sys
from importlib import resources
from pathlib import Path

import pytest

from levelrun.api.contract import answer_of
from levelrun.cli import main
from levelrun.core.plan import plan
from levelrun.samples import sample

SAMPLES = resources.files("levelrun.samples")


def test_check_exits_1_on_a_stop(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["check", str(SAMPLES / "quince-hollow.levelrun.json")]) == 1
    out = capsys.readouterr().out
    assert "2″ short over 32′ 4″" in out and "300.5(A)" in out and out.rstrip().endswith("by US 2023")
    assert main(["check", str(SAMPLES / "shed.levelrun.json")]) == 0


def test_a_bad_file_is_one_line_and_exit_2(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    bad = tmp_path / "bad.json"
    bad.write_bytes((SAMPLES / "shed.levelrun.json").read_bytes()[:200])
    assert main(["check", str(bad)]) == 2
    assert main(["check", str(tmp_path / "gone.json")]) == 2
    assert main(["serve", "--host", "0.0.0.0", "--data", str(tmp_path)]) == 2
    lines = capsys.readouterr().err.strip().splitlines()
    assert len(lines) == 3 and all(line.startswith("levelrun: ") for line in lines)


def test_check_reads_standard_input_and_prints_json(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    data = (SAMPLES / "quince-hollow.levelrun.json").read_bytes()
    monkeypatch.setattr("sys.stdin", io.TextIOWrapper(io.BytesIO(data)))
    assert main(["check", "-", "--json"]) == 1
    assert json.loads(capsys.readouterr().out)["stops"] > 0


def test_nothing_but_the_plan_is_printed_as_json() -> None:
    """In a process of its own: a library that greets on the way would stand before the first brace."""
    job = str(SAMPLES / "cabin.levelrun.json")
    done = subprocess.run([sys.executable, "-m", "levelrun.cli", "check", job, "--json"], capture_output=True)
    answer = json.loads(done.stdout)
    assert any(row["unit"] == "ft" for row in answer["buy"])  # coils were chosen, by the solver


def test_each_cable_of_a_drawn_house_has_its_cut_and_its_way() -> None:
    """What is answered is what stands on the pull list."""
    job = sample("quince-hollow")
    answer = answer_of(job)
    cuts = [cut for way in plan(job).drawn.ways.values() for cut in way.cuts]
    rows = {(cut.circuit, cut.box): cut.cut_in / 12 for cut in cuts}
    found = {
        (item.summary.id, row.box): hop.cut_ft
        for item, out in zip(plan(job).circuits, answer.circuits, strict=True)
        for row, hop in zip(item.chain, out.hops, strict=True)
    }
    assert len(rows) > 50 and all(found[key] == cut for key, cut in rows.items())
    assert sum(way.drawn for way in answer.ways) == len(plan(job).drawn.ways)
    assert all(way.legs and way.cuts for way in answer.ways if way.drawn)


def test_a_port_that_is_none_or_not_free_is_one_line(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("LEVELRUN_PORT", "abc")
    assert main(["serve", "--data", str(tmp_path)]) == 2
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        assert main(["serve", "--port", str(taken.getsockname()[1]), "--data", str(tmp_path)]) == 2
    told = capsys.readouterr()
    assert "LEVELRUN_PORT 'abc'" in told.err and "is not free" in told.err
    assert told.out == "", "nothing is said to be served before it is"


def test_a_wheel_without_the_interface_is_not_made(tmp_path: Path) -> None:
    root = Path(__file__).parents[1]
    for name in ("setup.py", "pyproject.toml", "README.md", "LICENSE"):
        (tmp_path / name).write_bytes((root / name).read_bytes())
    package = tmp_path / "levelrun"
    package.mkdir()
    (package / "__init__.py").write_text("")
    build = [sys.executable, "setup.py", "-q", "build_py"]
    refused = subprocess.run(build, cwd=tmp_path, capture_output=True, text=True, check=False)
    assert refused.returncode == 1
    assert "make .make/web" in refused.stderr
    (package / "web_dist").mkdir()
    (package / "web_dist" / "index.html").write_text("<!doctype html>")
    subprocess.run(build, cwd=tmp_path, capture_output=True, check=True)
    assert (tmp_path / "build" / "lib" / "levelrun" / "web_dist" / "index.html").exists()
