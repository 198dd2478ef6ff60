"""The building and circuits over the wire: sentences, brief answers, lists, what is refused."""

from __future__ import annotations

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.samples import sample


@pytest.fixture
def demo(client: TestClient) -> dict[str, Any]:
    found: dict[str, Any] = client.post("/api/jobs", json={"sample": "quince-hollow"}).json()
    return found


def edit(client: TestClient, view: dict[str, Any], *edits: dict[str, Any], **more: Any) -> Any:
    body = {"revision": view["revision"], "edits": list(edits), **more}
    return client.post(f"/api/jobs/{view['id']}/edits", json=body)


def merged(job: dict[str, Any], changed: dict[str, Any]) -> dict[str, Any]:
    """What the interface does with a brief answer."""
    whole = {**job, **changed["head"]}
    for kind in {*changed["parts"], *changed["order"]}:
        parts = {part["id"]: part for part in whole[kind]} | {
            part["id"]: part for part in changed["parts"].get(kind, [])
        }
        whole[kind] = [parts[ident] for ident in changed["order"].get(kind, list(parts))]
    return whole


def test_a_brief_answer_makes_the_same_job_as_a_whole_one(client: TestClient, demo: dict[str, Any]) -> None:
    here, view = demo["job"], demo
    steps: list[list[dict[str, Any]]] = [
        [{"op": "say", "text": "room Larder 6' x 5' north of Kitchen; fill", "level": "house-floor"}],
        [{"op": "move_wall", "room": demo["job"]["rooms"][0]["id"], "side": 1, "by_in": 6}],
        [{"op": "set_job", "set": {"name": "Other"}}],
        [{"op": "drop", "kind": "fixture", "id": demo["job"]["fixtures"][0]["id"]}],
        [{"op": "chain", "circuit": "ch9", "boxes": ["b31"] if "b31" in str(demo["job"]["boxes"]) else ["k1"]}],
    ]
    for edits in steps:
        view = edit(client, view, *edits, brief=True).json()
        assert view["job"] is None
        here = merged(here, view["changed"])
        assert here == client.get(f"/api/jobs/{demo['id']}").json()["job"]
    for way in ("undo", "undo", "redo"):
        view = client.post(f"/api/jobs/{demo['id']}/{way}", json={"revision": view["revision"], "brief": True}).json()
        here = merged(here, view["changed"])
        assert here == client.get(f"/api/jobs/{demo['id']}").json()["job"]


def test_what_is_looked_at_comes_drawn(client: TestClient, demo: dict[str, Any]) -> None:
    kitchen = next(room["id"] for room in demo["job"]["rooms"] if room["name"] == "Kitchen")
    view = client.get(f"/api/jobs/{demo['id']}", params={"room": kitchen, "circuit": "ch14", "run": "h16"}).json()
    assert view["room"]["planned"]["summary"]["name"] == "Kitchen"
    assert view["level"]["level"] == "house-floor"
    assert view["circuit"]["summary"]["label"] == "14"
    assert view["focus"]["summary"]["id"] == "h16"
    around = view["room"]["round"]
    assert around["length_in"] == 2 * (168 + 144)
    assert [wall["name"] for wall in around["walls"]] == ["north", "east", "south", "west"]
    assert all(rect["x1"] > rect["x0"] and rect["y1"] > rect["y0"] for rect in around["studs"] + around["openings"])
    gone = client.get(f"/api/jobs/{demo['id']}", params={"room": "nope", "circuit": "nope"}).json()
    assert gone["room"]["planned"]["summary"]["verdict"] == "stop", "the worst stands in for what is gone"


@pytest.mark.parametrize(
    ("change", "key"),
    [
        ({"op": "say", "text": "room"}, "text"),
        ({"op": "say", "text": "room X 12' x 99999'"}, "text"),
        ({"op": "move_wall", "room": "m1", "side": 0, "by_in": 1e9}, "by_in"),
        ({"op": "move_wall", "room": "nope", "side": 0, "by_in": 1}, "room"),
        ({"op": "set_side", "room": "m1", "side": 0, "set": {"stud": "4x4"}}, "set.stud"),
        ({"op": "set", "kind": "box", "id": "k1", "set": {"gangs": 0}}, "set.gangs"),
        ({"op": "set", "kind": "box", "id": "k1", "set": {"side": 9}}, "job"),
        ({"op": "set", "kind": "circuit", "id": "ch9", "set": {"breaker_a": 0.0}}, "set.breaker_a"),
        ({"op": "put", "circuit": "ch9", "space": 99}, "space"),
        ({"op": "put", "circuit": "ch9", "space": 40}, "space"),
        ({"op": "chain", "circuit": "ch9", "boxes": ["nope"]}, "boxes"),
        ({"op": "set", "kind": "room", "id": "m1", "set": {"corners": [[0, 0]]}}, "corners"),
        ({"op": "set", "kind": "opening", "id": "o1", "set": {"head_in": 1.0, "sill_in": 5.0}}, "set"),
        ({"op": "fill_room", "room": "nope"}, "room"),
    ],
)  # fmt: skip
def test_an_edit_that_cannot_be_names_its_field_and_keeps_nothing(
    client: TestClient, demo: dict[str, Any], change: dict[str, Any], key: str
) -> None:
    change = json.loads(json.dumps(change).replace('"m1"', f'"{demo["job"]["rooms"][0]["id"]}"')
                        .replace('"o1"', f'"{demo["job"]["openings"][0]["id"]}"'))  # fmt: skip
    answer = edit(client, demo, change)
    assert answer.status_code == 422, answer.text[:300]
    assert key in answer.json()["key"] and answer.json()["detail"]
    assert client.get(f"/api/jobs/{demo['id']}").json()["revision"] == demo["revision"]


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-1", "1e99", '"ten"'])
def test_the_count_refuses_numbers_that_are_none(client: TestClient, number: str) -> None:
    body = f'{{"floor_area_ft2": {number}}}'
    answer = client.post("/api/count", content=body, headers={"Content-Type": "application/json"})
    assert answer.status_code == 422
    assert answer.headers["content-type"] == "application/problem+json"


def test_proposals_come_line_by_line_and_keep_nothing(client: TestClient, demo: dict[str, Any]) -> None:
    answer = client.post(f"/api/jobs/{demo['id']}/propose")
    lines = [json.loads(line) for line in answer.text.splitlines()]
    assert lines and all(line["of"] == len(lines) for line in lines)
    assert client.get(f"/api/jobs/{demo['id']}").json()["revision"] == demo["revision"]
    taken = edit(client, demo, *(change for line in lines for change in line["edits"])).json()
    assert taken["loose"] == []


def test_lists_go_out_as_csv_without_formulas(client: TestClient, demo: dict[str, Any]) -> None:
    named = edit(client, demo, {"op": "set", "kind": "box", "id": "k1", "set": {"name": "=HYPERLINK(1)"}}).json()
    text = client.get(f"/api/jobs/{named['id']}/boxes.csv").text
    rows = [line.split(",") for line in text.splitlines()]
    placed = [box for box in sample("quince-hollow").boxes if box.room]
    assert len(rows) == len(placed) + 1
    assert any(cell == "'=HYPERLINK(1)" for row in rows for cell in row)
    circuits = client.get(f"/api/jobs/{named['id']}/circuits.csv").text.splitlines()
    assert circuits[0].startswith("panel,space,circuit")
    assert len(circuits) == len(sample("quince-hollow").circuits) + 1


def test_the_laser_tape_says_that_it_is_simulated(client: TestClient) -> None:
    first, second = client.post("/api/tape/read").json(), client.post("/api/tape/read").json()
    assert first["simulated"] and second["simulated"]
    assert first["inches"] > 0 and first["text"].endswith(("'", '"'))


def test_completion_knows_the_names_of_the_job(client: TestClient, demo: dict[str, Any]) -> None:
    ask = {"text": "chain R-1 on ", "stage": "circuits", "panel": "ph"}
    options = client.post(f"/api/jobs/{demo['id']}/suggest", json=ask).json()["options"]
    assert "14" in options and "1/3" in options and "Common room" in options
