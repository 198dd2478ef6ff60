"""Jobs over HTTP: edits, undo, import and export, and everything that must be refused."""

import json
from typing import Any

import jsonschema
import pytest
from fastapi.testclient import TestClient

from levelrun.api import looking
from levelrun.samples import sample
from tests.api.opened import OpenJob
from tests.conftest import PLANTED


def test_a_mend_is_an_edit_and_undo_brings_the_stop_back(client: TestClient) -> None:
    page = OpenJob.demo(client, "runs", way="h14")
    was = page.job
    stop = page.view["focus"]["findings"][0]
    assert (stop["code"], page.head["stops"]) == ("cover-short", PLANTED)
    page.edit(*stop["mends"][0]["edits"], label=stop["mends"][0]["label"])
    assert (page.head["stops"], page.head["undo"], page.head["revision"]) == (PLANTED - 1, "Dig to 18″", 2)
    page.go("undo")
    assert (page.head["stops"], page.head["redo"], page.job) == (PLANTED, "Dig to 18″", was)


def test_two_windows_cannot_overwrite_each_other(client: TestClient) -> None:
    page = OpenJob.demo(client)
    assert page.send({"op": "drop", "kind": "way", "id": "h8"}).status_code == 200
    late = page.send({"op": "drop", "kind": "way", "id": "h8"})
    assert late.status_code == 409
    assert (late.json()["key"], late.json()["current"]) == ("revision", 2)


def test_a_label_of_any_length_names_the_step(client: TestClient) -> None:
    page = OpenJob.demo(client)
    label = "Set the depth of every buried leg of this long feeder to 18 inches and say so, " * 3
    page.edit({"op": "set_leg", "way": "h14", "leg": 5, "set": {"depth_in": 18}}, label=label)
    assert page.head["undo"] == label


def test_an_edit_goes_by_the_rules_and_notes_that_the_one_before_set(client: TestClient) -> None:
    page = OpenJob.demo(client)
    note = {"id": "n1", "key": "cover_least_in", "value": 30.0, "who": "Inspector", "when": "2026-11-02"}
    page.edit(
        {"op": "set_job", "set": {"rules": "ca-2021"}},
        {"op": "walk", "way": "h5", "text": "over 3' attic in nmd90 14-2"},
        {"op": "set_job", "set": {"notes": [note]}},
    )
    assert page.job["rules"] == "ca-2021" and page.job["ways"][-1]
    refused = page.send({"op": "set_job", "set": {"rules": 7}})
    assert (refused.status_code, refused.json()["key"]) == (422, "set.rules")
    refused = page.send({"op": "set_job", "set": {"notes": "many"}})
    assert (refused.status_code, refused.json()["key"]) == (422, "set.notes")


def test_a_job_that_cannot_be_planned_is_refused_and_opens_again(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    page = OpenJob.demo(client)

    def fails(*args: object) -> None:
        raise ZeroDivisionError

    change = {"op": "set", "kind": "box", "id": "k1", "set": {"marked": True}}
    with monkeypatch.context() as patched:
        patched.setattr(looking, "plan_whole", fails)
        refused = page.send(change)
    assert refused.status_code == 422 and "nothing was changed" in refused.json()["detail"]
    assert client.get(page.url).json()["head"]["revision"] == 1
    assert page.send(change).status_code == 200
    tiny = {"op": "set_side", "room": page.job["rooms"][0]["id"], "set": {"spacing_in": 1e-320}}
    assert (client.post(f"{page.url}/edits", json={"revision": 2, "edits": [tiny]})).status_code == 422
    assert client.get(f"{page.url}/stages/boxes").status_code == 200


def test_a_job_file_goes_out_and_comes_in_and_fits_its_schema(client: TestClient) -> None:
    page = OpenJob.demo(client)
    text = client.get(f"{page.url}/export").text
    jsonschema.Draft202012Validator(client.get("/api/job-schema").json()).validate(json.loads(text))
    again = client.post("/api/jobs", json={"job": json.loads(text)}).json()
    assert again["job"] == page.job and again["head"]["id"] != page.head["id"]
    planned = client.post("/api/plan", json={"job": json.loads(text)}).json()
    assert planned["stops"] == PLANTED and len(client.get("/api/jobs").json()) == 2


JSON = {"content-type": "application/json"}


def _job(**changes: Any) -> dict[str, Any]:
    return {**json.loads(sample("shed").model_dump_json()), **changes}


BAD_JOBS = [
    (_job(format_version=4), "job.format_version"),
    (_job(format="other"), "job.format"),
    (_job(colour="red"), "colour"),
    (_job(name=""), "name"),
    (_job(rules="moon"), "rules"),
    (_job(runs=[{"id": "a", "name": "A", "start": "nowhere"}]), ""),
    (_job(boxes=[{"id": "pa", "name": "Twice", "structure": "shed"}], runs=[]), ""),
    (_job(habits={"waste_percent": -3}), "habits.waste_percent"),
]


@pytest.mark.parametrize(("job", "key"), BAD_JOBS, ids=lambda v: v if isinstance(v, str) else "")
@pytest.mark.parametrize("address", ["/api/plan", "/api/jobs"])
def test_a_bad_job_is_refused_and_nothing_is_kept(
    client: TestClient, address: str, job: dict[str, Any], key: str
) -> None:
    answer = client.post(address, json={"job": job})
    assert answer.status_code == 422, answer.text
    assert key in answer.json()["key"] and answer.json()["detail"]
    assert client.get("/api/jobs").json() == []


RAW = [
    (b'{"job": {"name": "x"', 422),
    (b"\xff\xfe\x00", 422),
    (b"[" * 100_000, 422),
    (b'{"job": {"name": "x", "runs": ' + b"9" * 5000 + b"}}", 422),
    (b'{"job": {"name": "\\ud800"}}', 422),
    (b'{"job": 7}', 422),
    (b"x" * (50 * 1024 * 1024), 413),
]


@pytest.mark.parametrize(("body", "status"), RAW, ids=lambda v: str(v)[:20])
def test_a_broken_body_is_refused_and_the_server_lives(client: TestClient, body: bytes, status: int) -> None:
    answer = client.post("/api/plan", content=body, headers={"content-type": "application/json"})
    assert answer.status_code in {status, 400}
    assert answer.headers["content-type"] == "application/problem+json"
    assert client.get("/api/health").json()["status"] == "ok"


def test_a_body_without_a_length_is_counted_while_it_is_read(client: TestClient) -> None:
    answer = client.post("/api/plan", content=(b" " * 65536 for _ in range(300)), headers=JSON)
    assert answer.status_code == 413


@pytest.mark.parametrize(
    "headers",
    [
        {"host": "evil.example"},
        {"host": "["},
        {"origin": "http://evil.example"},
        {"origin": "null"},
        {"origin": "http://127.0.0.1:9"},
    ],
)
def test_foreign_host_and_origin_are_refused(client: TestClient, headers: dict[str, str]) -> None:
    answer = client.get("/api/health", headers=headers)
    assert answer.status_code == 403 and answer.json()["status"] == 403


@pytest.mark.parametrize(
    "address", ["/api/nothing", "/api/jobs/000000000000", "/api/jobs/..%2f..%2fetc", "/api/jobs/zz/export"]
)
def test_unknown_addresses_are_problems_too(client: TestClient, address: str) -> None:
    answer = client.get(address)
    assert answer.status_code in {404, 422}
    assert answer.headers["content-type"] == "application/problem+json"
