"""The command line."""

from importlib import resources
from pathlib import Path

import pytest

from levelrun.cli import main

SAMPLES = resources.files("levelrun.samples")


def test_check_exits_1_on_a_stop(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["check", str(SAMPLES / "quince-hollow.levelrun.json")]) == 1
    out = capsys.readouterr().out
    assert "Dig 2″ deeper" in out and "300.5(A)" in out and out.rstrip().endswith("by US 2023")
    assert main(["check", str(SAMPLES / "shed.levelrun.json")]) == 0


def test_a_bad_file_is_one_line_and_exit_2(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    bad = tmp_path / "bad.json"
    bad.write_bytes((SAMPLES / "shed.levelrun.json").read_bytes()[:200])
    assert main(["check", str(bad)]) == 2
    assert main(["check", str(tmp_path / "gone.json")]) == 2
    assert main(["serve", "--host", "0.0.0.0", "--data", str(tmp_path)]) == 2
    lines = capsys.readouterr().err.strip().splitlines()
    assert len(lines) == 3 and all(line.startswith("levelrun: ") for line in lines)
