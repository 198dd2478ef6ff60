"""What Runs and the first page show: circuits with their ways, worst first; a line tried before it is kept."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.core.start.kinds import KINDS
from tests.api.opened import OpenJob

WORSE = {"stop": 0, "check": 1, "fine": 2}


def runs(client: TestClient, job: str, **look: str) -> dict[str, Any]:
    answer = client.get(f"/api/jobs/{job}/stages/runs", params=look)
    assert answer.status_code == 200, answer.text
    found: dict[str, Any] = answer.json()
    return found


def ident(page: OpenJob) -> str:
    return str(page.head["id"])


def test_circuits_stand_panel_by_panel_the_worst_first(client: TestClient) -> None:
    page = OpenJob.demo(client)
    rows = runs(client, ident(page))["circuits"]
    panels = list(dict.fromkeys(row["panel"] for row in rows))
    assert [row["panel"] for row in rows] == sorted((row["panel"] for row in rows), key=panels.index), "together"
    worst = [min(WORSE[row["verdict"]] for row in rows if row["panel"] == panel) for panel in panels]
    assert worst == sorted(worst)
    for panel in panels:
        verdicts = [WORSE[row["verdict"]] for row in rows if row["panel"] == panel]
        assert verdicts == sorted(verdicts)


def test_a_circuit_is_as_bad_as_the_worst_of_its_ways(client: TestClient) -> None:
    page = OpenJob.demo(client)
    found = runs(client, ident(page), circuit="cs2")
    ways = {way["id"]: way for way in found["ways"]}
    row = next(row for row in found["circuits"] if row["id"] == "cs2")
    assert row["ways"] == ["s2"] and ways["s2"]["verdict"] == "stop"
    assert found["circuit"]["summary"]["verdict"] == "fine" and row["verdict"] == "stop"
    assert row["stops"] == ways["s2"]["stops"] and row["unwalked"] == 0


@pytest.mark.parametrize(
    ("look", "way", "circuit"),
    [({"way": "h1"}, "h1", "ch1"), ({"circuit": "cb3"}, "b3", "cb3"), ({"way": "h1", "circuit": "cb3"}, "h1", "ch1"),
     ({"circuit": "ch2"}, "w-ch2-b61", "ch2"), ({"way": "gone"}, "h1", "ch1")],
)  # fmt: skip
def test_what_is_looked_at_is_there_whole(
    client: TestClient, look: dict[str, str], way: str | None, circuit: str
) -> None:
    """A way brings its circuit, a circuit its worst way, or the one found for it; what is gone: the worst."""
    found = runs(client, ident(OpenJob.demo(client)), **look)
    assert (found["focus"]["summary"]["id"] if found["focus"] else None) == way
    assert found["circuit"]["summary"]["id"] == circuit


def test_a_way_that_nothing_takes_is_listed_apart(client: TestClient) -> None:
    page = OpenJob.demo(client)
    box = next(item for item in page.job["circuits"] if item["id"] == "cb3")["chain"][-1]["box"]
    page.edit({"op": "route", "circuit": "cb3", "box": box, "path": []})
    found = runs(client, ident(page), way="b3")
    assert found["idle"] == ["b3"] and found["focus"]["summary"]["circuits"] == []


def test_a_line_is_tried_and_nothing_is_kept(client: TestClient) -> None:
    page = OpenJob.demo(client)
    before = client.get(f"/api/jobs/{ident(page)}").json()
    line = {"text": "from Panel H 24' garage wall in emt 3/4 to vehicle 48a"}
    tried = client.post(f"/api/jobs/{ident(page)}/try", json=line).json()
    assert tried["circuit"]["summary"]["label"] == "19/21" and tried["way"]["cuts"]
    assert [item["code"] for item in tried["findings"] if item["severity"] == "stop"] == ["main-over"], "170 A on 125"
    assert client.get(f"/api/jobs/{ident(page)}").json() == before
    wrong = client.post(f"/api/jobs/{ident(page)}/try", json={"text": "from Panel H 24' moon to vehicle"})
    assert wrong.status_code == 422 and wrong.json()["at"] == 17
    assert client.post("/api/jobs/000000000000/try", json=line).status_code == 404


def test_the_first_page_has_its_words(client: TestClient) -> None:
    words = client.get("/api/start-words").json()
    assert [kind["key"] for kind in words["kinds"]] == [kind.key for kind in KINDS]
    assert (
        words["breakers"] == sorted(words["breakers"]) and 20 in words["breakers"] and max(words["breakers"]) == 200
    )
    assert "garage" in words["rooms"]


def test_the_boxes_of_a_circuit_that_stand_in_no_room_show_their_fill(client: TestClient) -> None:
    made = client.post("/api/jobs", json={"text": "panel H 200a\nfrom H 38' crawl in 6-3 to range"}).json()
    found = runs(client, made["head"]["id"])
    assert [(figure["label"].split(",")[0], figure["value"]) for figure in found["boxes"]] == [("R-1 fill", 37.5)]
    assert found["beside"] == []
    short = client.post("/api/jobs", json={"text": "panel H 200a 1 free\nfrom H 38' crawl in 6-3 to range"}).json()
    beside = runs(client, short["head"]["id"])["beside"]
    assert [item["code"] for item in beside] == ["panel-short"]


def test_a_feeder_shows_what_the_building_lacks_that_it_is_brought_to(client: TestClient) -> None:
    """The shed wants its electrode (250.32(A)); the house, fed by nothing here, is not asked by its circuits."""
    text = (
        "panel H 200a\nfrom H 70' trench 18\" deep in 1 inch pvc to a studio 60a\nfrom H 20' wall to outlet in garage"
    )
    made = client.post("/api/jobs", json={"text": text}).json()
    feeder, outlet = (circuit["id"] for circuit in made["job"]["circuits"])
    beside = runs(client, made["head"]["id"], circuit=feeder)["beside"]
    assert "electrode" in [item["code"] for item in beside]
    assert "electrode" not in [item["code"] for item in runs(client, made["head"]["id"], circuit=outlet)["beside"]]


def test_what_is_drawn_out_of_a_box_is_tried_with_its_circuit(client: TestClient) -> None:
    made = client.post("/api/jobs", json={"text": "panel H 200a\nfrom H 20' wall to a bedroom outlet"}).json()
    job = f"/api/jobs/{made['head']['id']}"
    tried = client.post(f"{job}/try", json={"text": "from R-1 8' wall to a bedroom outlet"}).json()
    assert tried["circuit"]["summary"]["id"] == made["job"]["circuits"][0]["id"]
    assert [row["name"] for row in tried["circuit"]["chain"]] == ["R-1", "R-2"]
    assert tried["way"]["summary"]["name"] == "R-1 to R-2"
    assert len(client.get(job).json()["job"]["boxes"]) == 1


@pytest.mark.parametrize(
    ("more", "boxes", "name"),
    [
        ("", ["R-1"], "Outlet"),
        (", 6' stud w", ["R-1"], "Outlet"),
        (", 6' stud wall to bath light", ["R-1", "L-1"], "R-1 to L-1"),
        (", 6' stud wall to bath light then 8' to ba", ["R-1", "L-1"], "R-1 to L-1"),
    ],
)
def test_a_line_being_typed_shows_what_it_makes_so_far(
    client: TestClient, more: str, boxes: list[str], name: str
) -> None:
    made = client.post("/api/jobs", json={"text": "panel H 200a"}).json()
    line = {"text": f"from H 20' stud wall to bath outlet{more}"}
    tried = client.post(f"/api/jobs/{made['head']['id']}/try", json=line).json()
    assert [row["name"] for row in tried["circuit"]["chain"]] == boxes
    assert tried["way"]["summary"]["name"] == name
