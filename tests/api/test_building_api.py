"""The building and circuits over the wire: views and patches, lists, what is refused."""

from __future__ import annotations

import json
from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.samples import sample
from tests.api.opened import OpenJob
from tests.large import large_house


@pytest.fixture
def demo(client: TestClient) -> OpenJob:
    return OpenJob.demo(client)


def same_as_fetched(page: OpenJob) -> bool:
    """What the page has by patches against what the server gives whole."""
    opened = page.client.get(page.url).json()
    assert page.job == opened["job"]
    assert page.refs == opened["refs"]
    assert page.view == page.fetched()
    return bool(page.head == opened["head"])


def test_boxes_in_no_room_come_with_the_view_and_their_findings(client: TestClient) -> None:
    made = client.post("/api/jobs", json={"name": "Undrawn"}).json()
    page = OpenJob(client, made, stage="boxes")
    page.edit({"op": "say", "text": "panel H 200a 30 spaces taken 1-14"})
    page.edit({"op": "say", "text": "from H 20' stud wall to outlet", "verb": "from"})
    (row,) = page.view["apart"]
    assert (row["name"], row["model"], row["figure"]["value"]) == ("R-1", "Single-gang 18 in³", 11.25)
    assert page.view["said"] == [] or {item["subject"] for item in page.view["said"]} == {row["id"]}
    page.edit({"op": "set", "kind": "box", "id": row["id"], "set": {"model": "single-shallow"}})
    page.edit({"op": "say", "text": "from R-1 6' stud wall to outlet", "verb": "from"})
    assert "box-full" in {item["code"] for item in page.view["said"]}
    assert same_as_fetched(page)


LOOKS = [("walls", {}), ("boxes", {"room": "KITCHEN"}), ("circuits", {"circuit": "ch14"}), ("runs", {"way": "h16"}),
         ("directory", {})]  # fmt: skip


@pytest.mark.parametrize(("stage", "look"), LOOKS)
def test_patches_make_the_same_page_as_a_fresh_one(client: TestClient, stage: str, look: dict[str, str]) -> None:
    page = OpenJob.demo(client)
    kitchen = next(room["id"] for room in page.job["rooms"] if room["name"] == "Kitchen")
    page.stage, page.look = stage, {key: value.replace("KITCHEN", kitchen) for key, value in look.items()}
    page.view = page.fetched()
    steps: list[list[dict[str, Any]]] = [
        [{"op": "say", "text": "room Larder 6' x 5' north of Kitchen; fill", "level": "house-floor"}],
        [{"op": "move_wall", "room": kitchen, "side": 1, "by_in": 6}],
        [{"op": "set_job", "set": {"name": "Other"}}],
        [{"op": "drop", "kind": "fixture", "id": page.job["fixtures"][0]["id"]}],
        [{"op": "chain", "circuit": "ch9", "boxes": ["k1"]}],
        [{"op": "set", "kind": "circuit", "id": "ch14", "set": {"breaker_a": 30.0}}],
        [{"op": "drop_leg", "way": "h16", "leg": 0}, {"op": "set_job", "set": {"rules": "us-2020"}}],
    ]
    for edits in steps:
        assert page.edit(*edits)["whole"] is None
        assert same_as_fetched(page)
    for way in ("undo", "undo", "redo", "undo", "undo"):
        assert page.go(way)["whole"] is None
        assert same_as_fetched(page)


def test_the_same_step_sent_twice_is_made_once(client: TestClient, demo: OpenJob) -> None:
    """An answer that was lost: the step comes again with its id, on the old revision."""
    before = demo.step
    leg = {"go": "over", "length_in": 12.0, "place": "attic", "method": "NM-B"}
    edits = [{"op": "add_leg", "way": "h16", "leg": leg}]
    body = {**before, "edits": edits, "id": "step-0001"}
    first, again = (client.post(f"{demo.url}/edits", json=body) for _ in range(2))
    assert (first.status_code, again.status_code) == (200, 200)
    assert first.json()["head"] == again.json()["head"]
    assert again.json()["whole"]["job"] == client.get(demo.url).json()["job"]
    undone = {**before, "revision": 2, "id": "step-0002"}
    back = [client.post(f"{demo.url}/undo", json=undone).json() for _ in range(2)]
    assert back[1]["whole"]["job"] == demo.job and back[0]["head"] == back[1]["head"]
    other = client.post(f"{demo.url}/edits", json={**body, "id": "step-0003"})
    assert other.status_code == 409, "another id on an old revision is another window"


def test_what_is_looked_at_comes_drawn(client: TestClient, demo: OpenJob) -> None:
    kitchen = next(room["id"] for room in demo.job["rooms"] if room["name"] == "Kitchen")
    view = OpenJob(client, client.get(demo.url).json(), "boxes", room=kitchen).view
    assert view["room"]["planned"]["summary"]["name"] == "Kitchen"
    assert view["level"]["level"] == "house-floor"
    around = view["room"]["round"]
    assert around["length_in"] == 2 * (168 + 144)
    assert [wall["name"] for wall in around["walls"]] == ["north", "east", "south", "west"]
    assert all(rect["x1"] > rect["x0"] and rect["y1"] > rect["y0"] for rect in around["studs"] + around["openings"])
    gone = OpenJob(client, client.get(demo.url).json(), "boxes", room="nope").view
    assert gone["room"]["planned"]["summary"]["verdict"] == "stop", "the worst stands in for what is gone"
    circuits = OpenJob(client, client.get(demo.url).json(), "circuits", circuit="ch14").view
    assert circuits["circuit"]["summary"]["label"] == "14"
    assert circuits["panel"]["id"] == circuits["circuit"]["summary"]["panel"]
    assert circuits["level"]["level"], "the level of the circuit's first box is drawn"


def test_what_the_caller_has_is_not_sent_again(client: TestClient, demo: OpenJob) -> None:
    first = client.get(f"{demo.url}/stages/walls")
    tag = first.headers["etag"]
    same = client.get(f"{demo.url}/stages/walls", headers={"if-none-match": tag})
    assert (same.status_code, same.content) == (304, b"")
    demo.edit({"op": "set_job", "set": {"name": "Other"}})
    assert client.get(f"{demo.url}/stages/walls", headers={"if-none-match": tag}).status_code == 200


def test_no_answer_to_an_edit_is_over_30_kb(client: TestClient) -> None:
    """Of a house of 72 rooms, on every stage: edits on one, taken back, made again and taken back on the others."""
    house = large_house()
    opened = client.post("/api/jobs", json={"job": house.model_dump(mode="json")}).json()
    look = {"room": "big-r7", "circuit": "big-c9", "way": "big4", "panel": "big-p"}
    edits: list[dict[str, Any]] = [
        {"op": "set", "kind": "box", "id": "x7", "set": {"marked": True}},
        {"op": "set", "kind": "box", "id": "x7", "set": {"at_in": 23.5}},
        {"op": "move_wall", "room": "big-r7", "side": 1, "by_in": 1.0},
        {"op": "put", "circuit": "big-c9", "space": 61},
        {"op": "set_leg", "way": "big4", "leg": 2, "set": {"length_in": 301.0}},
        {"op": "drop", "kind": "opening", "id": "big-o7"},
    ]
    for stage, step in (("walls", ""), ("boxes", "undo"), ("circuits", "redo"), ("runs", "undo")):
        page = OpenJob(client, opened, stage, **look)
        for change in edits if not step else reversed(edits) if step == "undo" else edits:
            answer = client.post(f"{page.url}/{step}", json=page.step) if step else page.send(change)
            page.taken(answer)
            assert len(answer.content) < 30_000, (stage, step, change["op"], len(answer.content))
        opened = client.get(page.url).json()


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
    client: TestClient, demo: OpenJob, change: dict[str, Any], key: str
) -> None:
    change = json.loads(json.dumps(change).replace('"m1"', f'"{demo.job["rooms"][0]["id"]}"')
                        .replace('"o1"', f'"{demo.job["openings"][0]["id"]}"'))  # fmt: skip
    answer = demo.send(change)
    assert answer.status_code == 422, answer.text[:300]
    assert key in answer.json()["key"] and answer.json()["detail"]
    assert client.get(demo.url).json()["head"] == demo.head


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-1", "1e99", '"ten"'])
def test_the_count_refuses_numbers_that_are_none(client: TestClient, number: str) -> None:
    body = f'{{"floor_area_ft2": {number}}}'
    answer = client.post("/api/count", content=body, headers={"Content-Type": "application/json"})
    assert answer.status_code == 422
    assert answer.headers["content-type"] == "application/problem+json"


def test_proposals_come_line_by_line_and_keep_nothing(client: TestClient, demo: OpenJob) -> None:
    answer = client.post(f"{demo.url}/propose")
    lines = [json.loads(line) for line in answer.text.splitlines()]
    assert lines and all(line["of"] == len(lines) for line in lines)
    assert client.get(demo.url).json()["head"] == demo.head
    page = OpenJob(client, client.get(demo.url).json(), "circuits")
    page.edit(*(change for line in lines for change in line["edits"]))
    assert page.view["loose"] == []


def test_lists_go_out_as_csv_without_formulas(client: TestClient, demo: OpenJob) -> None:
    demo.edit({"op": "set", "kind": "box", "id": "k1", "set": {"name": "=HYPERLINK(1)"}})
    text = client.get(f"{demo.url}/boxes.csv").text
    rows = [line.split(",") for line in text.splitlines()]
    placed = [box for box in sample("quince-hollow").boxes if box.room]
    assert len(rows) == len(placed) + 1
    assert any(cell == "'=HYPERLINK(1)" for row in rows for cell in row)
    circuits = client.get(f"{demo.url}/circuits.csv").text.splitlines()
    assert circuits[0].startswith("panel,space,circuit")
    assert len(circuits) == len(sample("quince-hollow").circuits) + 1


def test_the_laser_tape_says_that_it_is_simulated(client: TestClient) -> None:
    first, second = client.post("/api/tape/read").json(), client.post("/api/tape/read").json()
    assert first["simulated"] and second["simulated"]
    assert first["inches"] > 0 and first["text"].endswith(("'", '"'))


def test_completion_knows_the_names_of_the_job(client: TestClient, demo: OpenJob) -> None:
    ask = {"text": "chain R-1 on ", "stage": "circuits", "panel": "ph"}
    options = client.post(f"{demo.url}/suggest", json=ask).json()["options"]
    assert "14" in options and "1/3" in options and "Common room" in options
