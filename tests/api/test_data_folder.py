"""One application over one folder after another: nothing of the first is left, and each holds what it was told."""

from __future__ import annotations

from pathlib import Path
from typing import Any, cast

from fastapi import FastAPI
from fastapi.testclient import TestClient

from levelrun.api.app import open_data


def jobs(client: TestClient) -> list[str]:
    return [row["name"] for row in client.get("/api/jobs").json()]


def test_a_folder_opened_later_is_another(client: TestClient, tmp_path: Path) -> None:
    app = cast(FastAPI, client.app)
    first = client.post("/api/jobs", json={"name": "First"}).json()["head"]["id"]
    app.state.jobs.db.close()
    open_data(app, tmp_path / "other")
    assert jobs(client) == [] and client.get(f"/api/jobs/{first}").status_code == 404
    client.post("/api/jobs", json={"name": "Second"})
    app.state.jobs.db.close()
    open_data(app, tmp_path)
    assert jobs(client) == ["First"] and client.get(f"/api/jobs/{first}").status_code == 200
    app.state.jobs.db.close()
    open_data(app, tmp_path / "other")
    assert jobs(client) == ["Second"]


def test_a_folder_that_may_only_be_read_says_so(client: TestClient, tmp_path: Path) -> None:
    app = cast(FastAPI, client.app)
    made: dict[str, Any] = client.post("/api/jobs", json={"sample": "shed"}).json()["head"]
    app.state.jobs.db.close()
    open_data(app, tmp_path, read_only=True)
    assert client.get("/api/health").json()["read_only"] is True
    assert client.get(f"/api/jobs/{made['id']}").json()["head"]["revision"] == made["revision"]
    renamed = {"op": "set_job", "set": {"name": "X"}}
    refused = client.post(
        f"/api/jobs/{made['id']}/edits",
        json={"revision": made["revision"], "edits": [renamed], "stage": "walls", "look": {}},
    )
    assert refused.status_code == 503, refused.text
    assert client.get(f"/api/jobs/{made['id']}/export?as=text").text.startswith("# Shed")


def test_a_sample_is_the_same_each_time_and_two_jobs_of_it_do_not_touch(client: TestClient) -> None:
    one, two = (client.post("/api/jobs", json={"sample": "shed"}).json() for _ in range(2))
    assert one["job"] == two["job"] and one["head"]["id"] != two["head"]["id"]
    change = {"op": "set", "kind": "box", "id": one["job"]["boxes"][0]["id"], "set": {"height_in": 30.0}}
    client.post(
        f"/api/jobs/{one['head']['id']}/edits",
        json={"revision": one["head"]["revision"], "edits": [change], "stage": "walls", "look": {}},
    )  # fmt: skip
    assert client.get(f"/api/jobs/{one['head']['id']}").json()["job"]["boxes"][0]["height_in"] == 30
    assert client.get(f"/api/jobs/{two['head']['id']}").json()["job"] == two["job"]
    again = client.post("/api/jobs", json={"sample": "shed"}).json()
    assert again["job"] == two["job"]
