"""Shared pieces: the rule set, a small job, an application over an empty folder."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any, cast

import pytest
from fastapi import FastAPI
from fastapi.testclient import TestClient
from hypothesis import settings
from pydantic import TypeAdapter

from levelrun.api.app import create_app, open_data
from levelrun.core.codebook import Codebook, load
from levelrun.core.edits import Edit, apply
from levelrun.core.findings import Finding
from levelrun.core.job import Box, Circuit, Hop, Job, Level, Panel, Structure, Way
from levelrun.core.plan import Plan, plan

settings.register_profile("steady", deadline=None, derandomize=True)
settings.load_profile("steady")

PLANTED = 16
LONG = int(os.environ.get("LEVELRUN_FUZZ", "0"))  # how many random jobs: many by `make fuzz`, else few
CRAWL = Level(id="hc", name="Crawl space", kind="crawl", floor_in=-40, height_in=28)
EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])


@pytest.fixture(scope="session")
def book() -> Codebook:
    return load("us-2023")


def one_way(text: str, conductors: int | None = None, **circuit: Any) -> Job:
    """A house with a panel at 48 in, a shed with a box, and one circuit to it by a way that is walked by `text`."""
    hop = Hop(box="c1", path=("w",), conductors=conductors)
    job = Job(
        name="One way",
        structures=(
            Structure(id="h", name="House", levels=(CRAWL,)),
            Structure(id="s", name="Shed", kind="shed", grade_in=-4),
        ),
        panels=(Panel(id="p", name="Panel H", structure="h", height_in=48),),
        boxes=(Box(id="c1", name="C-1", structure="s", height_in=46),),
        ways=(Way(id="w", name="Way", start="p"),),
        circuits=(Circuit(id="k", name="Shed", panel="p", space=2, chain=(hop,), **{"load_a": 8, **circuit}),),
    )
    return edited(job, {"op": "walk", "way": "w", "text": text}) if text else job


def edited(job: Job, *edits: dict[str, Any]) -> Job:
    """The job after edits given as plain data."""
    return apply(job, EDITS.validate_python(list(edits)))


def codes(planned: Plan, *, notes: bool = False) -> list[str]:
    """Finding codes of a plan, notes left out unless asked for."""
    return [f.code for f in planned.findings if notes or f.severity != "note"]


def planned(text: str, **circuit: Any) -> Plan:
    """The plan of one way."""
    return plan(one_way(text, **circuit))


@pytest.fixture(scope="session")
def served(tmp_path_factory: pytest.TempPathFactory) -> Iterator[TestClient]:
    """The application with its worker process, built once: that takes longer than most of what is asked of it."""
    app = create_app(tmp_path_factory.mktemp("served"))
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as found:
        yield found


@pytest.fixture
def client(served: TestClient, tmp_path: Path) -> Iterator[TestClient]:
    """The application over an empty folder of the test's own."""
    app = cast(FastAPI, served.app)
    app.state.jobs.db.close()
    open_data(app, tmp_path)
    served.cookies.clear()
    yield served


@pytest.fixture
def calc(client: TestClient) -> Callable[..., dict[str, Any]]:
    """Ask one calculation; the answer must be a 200."""

    def ask(name: str, **question: Any) -> dict[str, Any]:
        answer = client.post(f"/api/calc/{name}", json=question)
        assert answer.status_code == 200, answer.text
        found: dict[str, Any] = answer.json()
        return found

    return ask


def built(text: str, job: Job | None = None, **about: str) -> Job:
    """A job after sentences as they are typed; a house to build in where none is given."""
    start = job or edited(Job(name="Built"), {"op": "say", "text": "structure house House"})
    return edited(start, {"op": "say", "text": text, **about})


def found(job: Job, code: str) -> list[Finding]:
    """The findings of one code."""
    return [item for item in plan(job).findings if item.code == code]
