"""A job as text: written and read back to the same job, written by hand, and refused line by line."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelrun.cli import main
from levelrun.core.plan import plan
from levelrun.exchange.text import JobTextError, read_text, write_text
from levelrun.samples import SAMPLES, sample
from tests.core.test_kept_plans import changed_demo, edits

BY_HAND = """
# the planer in the shop, one circuit
job name "Planer" rules "us-2023"
panel S 100a 20 spaces taken 1-8 in shop      # seen with the cover on
from S 31' along block wall in emt 3/4 to outlet 50a 240v for planer 36a
from S down 4' outside in pvc80 1 then over 60' trench 18" deep in pvc40 1 to shed Woods 60a  # marks called

way Spare from S: over 12' block wall in emt 1/2
circuit in S 20 20a Bench lights
"""


@pytest.mark.parametrize("key", SAMPLES)
def test_every_sample_comes_back_the_same(key: str) -> None:
    job = sample(key).model_copy(update={"prices": (), "purchases": ()})  # these travel in the job file alone
    text = write_text(job)
    assert read_text(text) == job
    assert write_text(read_text(text)) == text
    assert len(text.splitlines()) == 2 + len(job.ids()) - sum(len(item.levels) for item in job.structures)


@settings(max_examples=15, suppress_health_check=list(HealthCheck))
@given(st.lists(edits(), min_size=1, max_size=6), st.text(max_size=60))
def test_any_job_comes_back_the_same(changes: list[dict[str, Any]], remarks: str) -> None:
    job = changed_demo([*changes, {"op": "set_job", "set": {"remarks": remarks}}])
    plain = job.model_copy(update={"prices": (), "purchases": ()})
    assert read_text(write_text(job)) == plain


def test_a_job_written_by_hand_is_read_with_its_remarks_left_out() -> None:
    job = read_text(BY_HAND)
    assert job.name == "Planer" and [panel.name for panel in job.panels] == ["S", "Panel Woods"]
    assert [circuit.name for circuit in job.circuits] == ["planer", "Woods feeder", "Bench lights"]
    assert [way.name for way in job.ways] == ["planer", "Woods feeder", "Spare"]
    assert job.circuits[0].wire_size == "8" and job.circuits[2].space == 20
    assert plan(job).ways[2].summary.circuits == []


@pytest.mark.parametrize(
    ("line", "name", "rules"),
    [
        ("job Pine Bench Cabin", "Pine Bench Cabin", "us-2023"),
        ("job: Old house, rules us-2020", "Old house", "us-2020"),
        ('job "Planer, in the shop" rules "ca-2021"', "Planer, in the shop", "ca-2021"),
        ("Job 12 Quince Lane", "12 Quince Lane", "us-2023"),
        ('job name "Rules of thumb"', "Rules of thumb", "us-2023"),
    ],
)
def test_a_job_is_called_as_it_is_said(line: str, name: str, rules: str) -> None:
    job = read_text(line)
    assert (job.name, job.rules) == (name, rules)


@pytest.mark.parametrize("line", ["job nmae Planer", "job rulse us-2020", "job"])
def test_a_mistyped_field_of_a_job_is_no_name(line: str) -> None:
    if line == "job":
        assert read_text(line).name == "Job as text"  # nothing is said
        return
    with pytest.raises(JobTextError, match="expected a field"):
        read_text(line)


def test_a_line_of_the_first_page_is_read_without_its_verb() -> None:
    """Up to the attic in the wall, where nobody said in what; and what cannot be is told of that line."""
    job = read_text("panel P 150a 30 spaces taken 1-26\n12-2 38' through the attic to a bath fan\n"
                    "run 14-2 up 8' then 30' across the attic to a closet light")  # fmt: skip
    assert [circuit.wire_size for circuit in job.circuits] == ["12", "14"]
    assert [(leg.go, leg.length_in, leg.place) for leg in job.ways[1].legs] == [
        ("up", 96.0, "stud_wall"), ("over", 360.0, "attic"),
    ]  # fmt: skip
    with pytest.raises(JobTextError, match="line 2"):
        read_text("panel P 150a\n14-2 to an outlet")


def test_what_was_filled_in_is_told_by_line(client: TestClient) -> None:
    text = "room Den 12' x 15'\n4 lights\n\npanel P 200a on the west wall\ncircuit 15a for the lights"
    told = {item["line"]: item["text"] for item in client.post("/api/plan", json={"text": text}).json()["told"]}
    assert told[2] == "4 in even rows under the ceiling of Den; say where each hangs otherwise"
    assert told[4].startswith("it stands in the middle of the west wall")
    assert told[5].startswith("an arc-fault breaker")


def test_rules_may_be_said_beside_a_text_that_names_none() -> None:
    assert read_text("panel H 200a", "us-2020").rules == "us-2020"
    assert read_text('job name "X" rules "ca-2021"', "us-2020").rules == "ca-2021"


@pytest.mark.parametrize(
    ("text", "line", "at", "told"),
    [
        ("panel H 200a\nfrom H 20' atic to range", 2, 11, "atic"),
        ("\n# first\ngrue the moon", 3, 0, "expected a sentence"),
        ('part moon b1 name "X"', 1, 5, "a kind of part"),
        ('part box b1 name "X" colour "red"', 1, 21, "expected a field"),
        ('part box b1 name "X', 1, 17, "in double quotes"),
        ('part box b1: name "X", gangs two', 1, 29, "a number for gangs"),
        ('part box b1: name "X", kind lamp', 1, 28, "kind: one of"),
        ('part box b1: name "X", height 5 moons', 1, 32, "expected a field"),
        ("part way w1: legs ((go over, length 9 in", 1, 40, ") after it"),
        ('part box b1 name "X" structure "nowhere"', 1, 0, "does not exist"),
        ('part structure h name "H" kind "moon"', 1, 0, "kind"),
        ('job name "X" rules "moon"', 1, 0, "rules"),
    ],
)
def test_a_line_that_cannot_be_read_is_named(text: str, line: int, at: int, told: str) -> None:
    with pytest.raises(JobTextError) as refused:
        read_text(text)
    first = refused.value.errors[0]
    assert (first.line, first.at) == (line, at) and told in first.message


def test_lines_that_are_right_are_said_to_be_and_all_wrong_ones_are_told() -> None:
    text = "panel H 200a\npanle S 100a\nfrom H 20' stud wall in 12-2 to outlet in hall\nfrom S 3' attic to range"
    with pytest.raises(JobTextError) as refused:
        read_text(text)
    assert refused.value.right == [1, 3]
    assert [item.line for item in refused.value.errors] == [2, 4]


def test_too_many_lines_are_refused() -> None:
    with pytest.raises(JobTextError, match="5000 lines"):
        read_text("# nothing\n" * 5001)


def test_the_doors_take_text_and_give_it(client: TestClient) -> None:
    made = client.post("/api/jobs", json={"text": BY_HAND})
    assert made.status_code == 201
    ident = made.json()["head"]["id"]
    out = client.get(f"/api/jobs/{ident}/export", params={"as": "text"})
    assert out.headers["content-type"].startswith("text/plain") and 'name "Planer"' in out.text
    again = client.post("/api/jobs", json={"text": out.text}).json()["job"]
    assert again == made.json()["job"]
    wrong = client.post("/api/plan", json={"text": "panel H 200a\nfrom H 20' atic to range"})
    assert wrong.status_code == 422
    body = wrong.json()
    assert (body["line"], body["at"], body["right"]) == (2, 11, [1]) and body["lines"][0]["allowed"]
    for neither in ({}, {"text": "x", "job": {}}):
        assert client.post("/api/plan", json=neither).json()["key"] == "job"


def test_the_plan_answered_has_the_keys_of_its_door(client: TestClient) -> None:
    """By hand: 372 in of path, 42 and 8 of make-up, a loop of 6, 5 % waste: 446.6 in, 38 ft.
    Two 8 and a 10 in EMT 3/4:
    17.7 %. 36 A over 31 ft and 50 in of make-up of 0.778 ohm a thousand feet, of 240 V: 0.82 %."""
    found = client.post("/api/plan", json={"text": BY_HAND}).json()
    assert found["stops"] == 0
    planer = next(item for item in found["circuits"] if item["name"] == "planer")
    assert planer | {
        "panel": "S", "spaces": "9/11", "poles": 2, "volts": 240, "breaker_a": 50, "wire": "8", "ground": "10",
        "material": "cu", "load_a": 36, "protection": "gfci",
    } == planer  # fmt: skip
    assert planer["drop_percent"] == pytest.approx(100 * 2 * 36 * (31 + 50 / 12) * 0.778 / 1000 / 240)
    (hop,) = planer["hops"]
    assert hop == {
        "from": "S",
        "to": "R-1",
        "wires": "8-2",
        "ground": "10",
        "length_ft": 31,
        "cut_ft": 38,
        "ways": ["planer"],
    }
    way = found["ways"][0]
    assert (way["name"], way["circuits"]) == ("planer", ["planer"])
    assert (
        way["legs"][0] | {"go": "over", "length_in": 372, "place": "masonry_inside", "size": "3/4"} == way["legs"][0]
    )
    assert [(cut["length_ft"], cut["count"]) for cut in way["cuts"]] == [(38, 2), (38, 1)]
    pull = way["pulls"][0]
    assert pull["fill_percent"] == pytest.approx(17.69, abs=0.01) and pull["limit_percent"] == 40
    assert pull["bends_deg"] == 0 and pull["pull_lb"] > 0 and pull["feed"] in ("start", "end")
    panel = found["panels"][0]
    assert (panel["name"], panel["spaces_free"], panel["pairs_free"]) == ("S", 7, 5)
    assert {"used_in3": 20.5, "volume_in3": 30.3, "name": "R-1"} in found["boxes"]


def test_a_text_file_is_checked_from_the_command_line(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "planer.txt"
    path.write_text(BY_HAND)
    assert main(["check", str(path)]) == 0
    assert "0 stop" in capsys.readouterr().out
    path.write_text(BY_HAND + "from S 12' stud wall in 10-3 to generator inlet\n")
    assert main(["check", str(path)]) == 1
    path.write_text("panle H\npanel H 200a\nroom Den 12'\n")
    assert main(["check", str(path)]) == 2
    lines = capsys.readouterr().err.strip().splitlines()
    assert [line.removeprefix("levelrun: ").partition(":")[0] for line in lines] == ["line 1, 1", "line 3, 10"]


def test_the_example_of_the_guide_is_read_as_it_stands() -> None:
    guide = (Path(__file__).parents[2] / "docs" / "guide.md").read_text(encoding="utf-8")
    (example,) = re.findall(r"```text\n(.*?)```", guide, re.DOTALL)
    job = read_text(example)
    assert (job.name, len(job.circuits), plan(job).stops) == ("Garage add-on", 3, 0)
