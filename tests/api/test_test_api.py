"""Test over the wire: the view, the simulated meter, hidden faults played to their end, lessons, the log as CSV."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
from fastapi.testclient import TestClient

from tests.api.opened import OpenJob


def opened(client: TestClient, **look: str) -> OpenJob:
    return OpenJob.demo(client, "test", **look)


def meter(client: TestClient, page: OpenJob, **more: Any) -> Any:
    return client.post(f"{page.url}/meter", json={"of": "ch14", **more})


def test_the_view_opens_on_the_circuit_with_a_reading_that_is_off(client: TestClient) -> None:
    view = opened(client).view
    assert view["tested"]["id"] == "ch14" and view["tested"]["where"]["step"] == "neutral_ground"
    rows = {row["id"]: row for row in view["proofs"]}
    assert rows["ch14"]["verdict"] == "stop" and rows["ph"]["verdict"] == "fine" and rows["ph"]["done"] == 4
    off = next(step for step in view["tested"]["steps"] if step["state"] == "off")
    assert off["text"].endswith("over 3.9") and off["value"] == 9.1
    assert opened(client, panel="ps").view["tested"]["name"] == "Panel S"


def test_a_reading_is_written_down_kept_beside_the_one_before_and_undone(client: TestClient) -> None:
    page = opened(client, circuit="ch14")
    was = page.view
    page.edit({"op": "measure", "of": "ch14", "step": "neutral_ground", "value": 2.4, "on": "2026-06-11"})
    step = next(s for s in page.view["tested"]["steps"] if s["key"] == "neutral_ground")
    assert step["state"] == "done" and [item["text"] for item in step["history"]] == ["9.1 V", "2.4 V"]
    assert page.view["tested"]["where"] is None and page.view == page.fetched()
    page.go("undo")
    assert page.view == was


def test_the_simulated_meter_reads_the_planned_circuit_and_says_so(client: TestClient) -> None:
    page = opened(client)
    by_step = meter(client, page, step="line_neutral").json()
    assert by_step["simulated"] and by_step["value"] == pytest.approx(123.4, abs=0.3)
    leads = meter(client, page, a=["c1", "neutral"], b=["c1", "ground"], loaded=True).json()
    assert 1 < leads["value"] < 4
    ghost = meter(client, page, a=["c1", "hot"], b=["c1", "neutral"], on=False, impedance="high").json()
    assert 20 < ghost["value"] < 90
    assert meter(client, page, a=["c1", "hot"], b=["c1", "neutral"], on=False).json()["value"] < 1
    assert meter(client, page, a=["ph", "hot"], b=["c1", "ground"], kind="ohms").json()["value"] is None


@pytest.mark.parametrize(
    ("question", "told"),
    [
        ({"a": ["c1", "hot"], "b": ["c1", "hot"]}, "both leads are on one point"),
        ({"a": ["b18", "hot"], "b": ["c1", "hot"]}, "the box 'b18' is not on this circuit"),
        ({"a": ["c1", "hot"]}, "say where both leads are"),
        ({"step": "tester"}, "no step 'tester' that a meter reads"),
        ({"of": "nobody", "step": "dead"}, "no circuit 'nobody'"),
    ],
)
def test_a_meter_asked_wrongly_says_what_is_wrong(client: TestClient, question: dict[str, Any], told: str) -> None:
    answer = meter(client, opened(client), **question)
    assert answer.status_code == 422 and told in answer.json()["detail"]


def begin(client: TestClient, seed: int = 5) -> dict[str, Any]:
    page = opened(client)
    found: dict[str, Any] = client.post(f"{page.url}/learn", json={"of": "ch14", "seed": seed}).json()
    return found


def play(client: TestClient, game: dict[str, Any], **move: str) -> dict[str, Any]:
    answer = client.post(f"/api/learn/{game['lesson']}", json=move)
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def test_a_hidden_fault_is_told_by_nothing_but_readings(client: TestClient) -> None:
    game = begin(client)
    assert len(game["faults"]) == 12 and 3 <= game["best"] <= 6
    first = play(client, game, probe=game["probes"][0][0])
    assert first["hidden"] == "" and not first["over"] and first["used"] == 1
    again = play(client, game, probe=game["probes"][0][0])
    assert again["text"] == first["text"] and again["used"] == 1, "the same reading costs once"


def test_naming_it_ends_the_game_and_scores_it(client: TestClient) -> None:
    """The seed says which fault is hidden: named at once it is right, another one is not."""
    game = begin(client, 5)
    hidden = game["faults"][5 % 12]
    right = play(client, game, fault=hidden[0])
    assert right["over"] and right["right"] and right["hidden"] == hidden[1]
    other = begin(client, 5)
    wrong = play(client, other, fault=game["faults"][6][0])
    assert wrong["over"] and wrong["hidden"] == hidden[1]
    assert play(client, other, probe=other["probes"][0][0])["over"], "over is over"


@pytest.mark.parametrize(("act", "why"), [("touch", "not proved dead"), ("replace", "nothing guards it")])
def test_an_unsafe_act_ends_the_lesson_with_its_reason(client: TestClient, act: str, why: str) -> None:
    end = play(client, begin(client), act=act)
    assert end["over"] and not end["right"] and why in end["text"]


def test_a_device_is_taken_out_once_it_was_read_dead(client: TestClient) -> None:
    game = begin(client)
    dead = next(key for key, _ in game["probes"] if key.startswith("volts") and key.endswith(":off"))
    told = play(client, game, probe=dead)
    after = play(client, game, act="touch")
    assert after["over"] is (float(told["text"].split()[0]) > 5)


def test_what_is_no_move_is_refused(client: TestClient) -> None:
    game = begin(client)
    assert client.post(f"/api/learn/{game['lesson']}", json={"probe": "volts:x"}).status_code == 422
    assert client.post(f"/api/learn/{game['lesson']}", json={"fault": "ghosts"}).status_code == 422
    assert client.post("/api/learn/0123456789ab", json={"probe": "x"}).status_code == 404
    page = opened(client)
    assert client.post(f"{page.url}/learn", json={"of": "ps"}).status_code == 422


def test_lessons_are_asked_and_answered(client: TestClient) -> None:
    asked = client.get("/api/lessons/carry", params={"seed": 2}).json()
    assert len(asked) >= 5 and "right" not in asked[0]
    told = [
        client.post("/api/lessons/carry/0", params={"choice": n, "seed": 2}).json()
        for n in range(len(asked[0]["choices"]))
    ]
    assert sum(item["right"] for item in told) == 1 and all(item["why"] for item in told)
    assert client.get("/api/lessons/magic").status_code == 404
    assert client.post("/api/lessons/carry/19", params={"choice": 0}).status_code == 404


def test_the_log_is_csv_with_what_was_not_tested(client: TestClient) -> None:
    page = opened(client)
    rows = list(csv.DictReader(io.StringIO(client.get(f"{page.url}/readings.csv").text)))
    shed = [row for row in rows if row["tested"] == "14 Cold-store shed"]
    assert [row["reading"] for row in shed if row["step"].startswith("Neutral to ground")] == ["9.1"]
    assert "not tested" in {row["verdict"] for row in shed} and {row["who"] for row in shed} == {"M. Ash", ""}
