"""The view of Pipe over HTTP, its sheets and its cut list; the calculations; what is refused, and where."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable
from typing import Any

import pytest
from fastapi.testclient import TestClient

Calc = Callable[..., dict[str, Any]]


def demo(client: TestClient) -> str:
    answer = client.post("/api/jobs", json={"sample": "quince-hollow"})
    assert answer.status_code == 201
    found: str = answer.json()["head"]["id"]
    return found


def view(client: TestClient, job: str, **look: str) -> dict[str, Any]:
    answer = client.get(f"/api/jobs/{job}/stages/pipe", params=look)
    assert answer.status_code == 200, answer.text
    assert len(answer.content) < 60_000
    found: dict[str, Any] = answer.json()
    return found


def edit(client: TestClient, job: str, *edits: dict[str, Any]) -> Any:
    revision = client.get(f"/api/jobs/{job}").json()["head"]["revision"]
    body = {
        "revision": revision,
        "id": f"step-{revision:08d}",
        "stage": "pipe",
        "look": {"way": "h1"},
        "edits": list(edits),
    }
    return client.post(f"/api/jobs/{job}/edits", json=body)


def test_the_hard_pull_is_seen_first_of_its_way_and_is_mended(client: TestClient) -> None:
    job = demo(client)
    found = view(client, job, way="h1")
    pull = found["pull"]
    assert pull["summary"]["name"] == "Panel H to Panel S" and not found["drawn"]
    hard = next(item for item in pull["findings"] if item["code"] == "feed-hard")
    assert edit(client, job, *hard["mends"][0]["edits"]).status_code == 200
    after = view(client, job, way="h1")["pull"]
    assert after["how"]["feed"] == "start"
    assert "feed-hard" not in [item["code"] for item in after["findings"]]
    before_lb, after_lb = (
        next(band["usual_lb"] for band in each["how"]["bands"] if band["fed"] == each["how"]["feed"])
        for each in (pull, after)
    )
    assert after_lb < 0.75 * before_lb


def test_a_look_at_a_leg_looks_at_its_pull(client: TestClient) -> None:
    job = demo(client)
    assert view(client, job, way="h14", leg="10")["pull"]["summary"]["name"] == "C-1 to C-2"
    assert view(client, job, way="h14", pull="3")["pull"]["summary"]["index"] == 2
    assert view(client, job, circuit="ch14")["pull"]["summary"]["way"] in ("h14", "w-ch14-b17", "w-ch14-l10")


def test_a_way_of_the_frame_has_sticks_too(client: TestClient) -> None:
    job = demo(client)
    rows = view(client, job)["pulls"]
    drawn = next(row for row in rows if row["drawn"])
    found = view(client, job, way=drawn["way"])
    assert found["drawn"] and found["keep"]["op"] == "keep"
    assert found["pull"]["drawing"]["sticks"]
    assert edit(client, job, found["keep"]).status_code == 200
    assert not view(client, job, way=drawn["way"])["drawn"]


def test_the_cut_list_is_the_pieces_of_the_sheets(client: TestClient) -> None:
    job = demo(client)
    answer = client.get(f"/api/jobs/{job}/cut-list.csv")
    assert answer.headers["content-type"].startswith("text/csv")
    rows = list(csv.DictReader(io.StringIO(answer.text)))
    pulls = client.get(f"/api/jobs/{job}/pipe").json()
    pieces = sum(
        1 for pull in pulls if pull["drawing"] for stick in pull["drawing"]["sticks"]
        for piece in stick["pieces"] if piece["mine"]
    )  # fmt: skip
    assert len(rows) == pieces > 30
    assert any("star at" in row["marks"] for row in rows) and any(row["right_end"] == "bell" for row in rows)


@pytest.mark.parametrize(
    ("leg", "values", "key", "words"),
    [
        (
            9,
            {"shapes": [{"kind": "offset", "rise_in": 30, "angle_deg": 10}]},
            "set.shapes.0.angle_deg",
            "steeper angle",
        ),
        (9, {"shapes": [{"kind": "saddle3", "rise_in": 2, "at_in": 200}]}, "set.shapes.0.at_in", "runs out of a leg"),
        (9, {"shapes": [{"kind": "offset", "rise_in": 0}]}, "set.shapes.0.rise_in", "greater than 0"),
        (9, {"shapes": [{"kind": "wiggle"}]}, "set.shapes.0.kind", "offset"),
        (9, {"radius_in": 3.0}, "set.radius_in", "4 1/2″ or more (chapter 9 table 2)"),
    ],
)
def test_what_cannot_be_bent_is_refused_at_its_field(
    client: TestClient, leg: int, values: dict[str, Any], key: str, words: str
) -> None:
    job = demo(client)
    before = client.get(f"/api/jobs/{job}").json()
    answer = edit(client, job, {"op": "set_leg", "way": "h14", "leg": leg, "set": values})
    assert answer.status_code == 422, answer.text
    assert answer.json()["key"].endswith(key) and words in answer.json()["detail"]
    assert client.get(f"/api/jobs/{job}").json()["job"] == before["job"]


def test_sticks_are_counted(calc: Calc) -> None:
    found = calc("sticks", raceway="EMT", size="3/4", pieces_in=[70.0, 50.0, 40.0, 80.0])
    assert found["count"] == 2 and found["proven"] and sorted(found["left_in"]) == [0, 0]
    assert calc("sticks", raceway="RMC", size="1", pieces_in=[200.0], stick_in=240.0)["left_in"] == [40]


@pytest.mark.parametrize(
    ("question", "key", "words"),
    [
        ({"raceway": "EMT", "size": "3/4", "pieces_in": [10.0, 130.0]}, "pieces_in.1", "longer than a stick of 120"),
        ({"raceway": "EMT", "size": "3/4", "pieces_in": []}, "pieces_in", "at least 1"),
        ({"raceway": "EMT", "size": "9/8", "pieces_in": [10.0]}, "size", "3/4"),
        ({"raceway": "NM-B", "size": "3/4", "pieces_in": [10.0]}, "raceway", "EMT"),
        ({"raceway": "EMT", "size": "3/4", "pieces_in": [-4.0]}, "pieces_in.0", "over 0"),
    ],
)
def test_what_no_stick_gives(client: TestClient, question: dict[str, Any], key: str, words: str) -> None:
    answer = client.post("/api/calc/sticks", json=question)
    assert answer.status_code == 422
    body = answer.json()
    assert body["key"] == key and words in body["detail"] + " ".join(map(str, body.get("allowed", [])))


def test_a_rolling_offset_a_kick_and_a_back_to_back(calc: Calc) -> None:
    """3-4-5 by hand: rise 3, roll 4, true offset 5; at 30° marks 10 apart, shrink 5 · tan 15° = 1.340."""
    rolling = calc("hand-bend", kind="rolling_offset", raceway="EMT", size="3/4", rise_in=3, roll_in=4, angle_deg=30)
    assert rolling["true_offset_in"] == 5 and rolling["marks_in"] == pytest.approx([0, 10])
    assert rolling["shrink_in"] == pytest.approx(1.3397, abs=1e-4)
    kick = calc("hand-bend", kind="kick", raceway="EMT", size="1/2", rise_in=5, angle_deg=30)
    assert kick["marks_in"] == pytest.approx([10])
    back = calc("hand-bend", kind="back_to_back", raceway="EMT", size="3/4", distance_in=40)
    assert back["marks_in"] == [40] and back["gain_in"] == pytest.approx(3.25, abs=0.01)


def test_thirty_wires_are_told_as_too_many(calc: Calc) -> None:
    found = calc("fill", raceway="EMT", size="3/4", conductors=[{"insulation": "THWN-2", "size": "12", "count": 30}])
    assert not found["fits"] and found["smallest_size"] == "1-1/4"
