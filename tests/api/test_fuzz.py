"""Requests at random over the whole OpenAPI document: none may be answered 5xx. Short here; `make fuzz` is long."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from fastapi.testclient import TestClient
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st

from levelrun.api.app import create_app
from tests.conftest import LONG

KNOWN = {"run_id": "h14", "leg": 2, "level": "hf"}

SLOW = ("/others", "/propose", "/coils")  # the worker process searches at each request


@pytest.fixture(scope="module")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[tuple[TestClient, str]]:
    """The application over one copy of the demo."""
    app = create_app(tmp_path_factory.mktemp("fuzz"))
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        job = client.post("/api/jobs", json={"sample": "quince-hollow"}).json()["head"]["id"]
        yield client, job


def operations() -> list[Any]:
    """Every operation of the document."""
    with tempfile.TemporaryDirectory() as folder:
        schema = schemathesis.openapi.from_dict(create_app(Path(folder)).openapi())
    return [found.ok() for found in schema.get_all_operations()]


OPERATIONS = operations()


@pytest.mark.parametrize("operation", OPERATIONS, ids=lambda o: f"{o.method.upper()} {o.path}")
def test_no_request_is_answered_5xx(served: tuple[TestClient, str], operation: Any) -> None:
    client, job = served

    @settings(
        max_examples=LONG or (2 if operation.path.endswith(SLOW) else 6),
        phases=[Phase.generate],
        deadline=None,
        database=None,
        derandomize=not LONG,
        suppress_health_check=list(HealthCheck),
    )
    @given(case=operation.as_strategy(), known=st.sampled_from((True, True, False)))
    def asked(case: Any, known: bool) -> None:
        if known:
            names = case.path_parameters or {}
            there = {**KNOWN, "job_id": job}
            case.path_parameters = {key: there.get(key, value) for key, value in names.items()}
            if isinstance(case.body, dict) and "revision" in case.body:
                case.body["revision"] = client.get(f"/api/jobs/{job}").json()["head"]["revision"]
        if operation.method.upper() == "DELETE" and known:
            return
        sent = case.as_transport_kwargs(base_url="http://127.0.0.1")
        taken = {key: sent[key] for key in ("method", "url", "json", "params", "headers") if key in sent}
        answer = client.request(**taken, content=sent.get("data"))
        assert answer.status_code < 500, (sent, answer.text[:400])

    asked()
