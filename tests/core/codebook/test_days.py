"""Rules that begin on a day: not asked before, asked from then on, and on no day at all."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

from levelrun.core.codebook import as_of, load
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from tests.conftest import built

HEAT_PUMP = "panel H 200a 30 spaces; from H 20' outside in lfnc 3/4 to heat pump mca 24 mocp 40"
BEGAN = "2026-09-01"  # 210.8(F), 2023: the exception for listed heating and cooling gear ended then


def asked(job: Job, on: str) -> bool:
    return any(item.code == "gfci-missing" for item in plan(job, job_book(job, on)).findings)


@pytest.mark.parametrize(("on", "said"), [("2026-08-31", False), (BEGAN, True), ("2030-01-01", True), ("", True)])
def test_an_outdoor_heat_pump_is_asked_for_protection_from_its_day_on(on: str, said: bool) -> None:
    job = built(HEAT_PUMP, Job(name="One"))
    plain = built('change "heat pump": protection plain', job) if job.circuits[0].protection != "plain" else job
    assert asked(plain, on) is said


def test_a_pump_is_asked_on_any_day() -> None:
    job = built("panel H 200a 30 spaces; from H 20' outside in lfnc 3/4 to pump", Job(name="One"))
    name = job.circuits[0].name
    plain = built(f'change "{name}": protection plain; change {job.boxes[-1].name}: outdoors yes, serves pump', job)
    assert asked(plain, "2024-01-01") and asked(plain, "")


def test_a_rule_set_on_a_day_is_one_thing() -> None:
    book = load("us-2023")
    assert as_of(book, "") is book
    assert as_of(book, BEGAN) is as_of(book, BEGAN) is not book
    assert not as_of(book, "2026-01-01").in_force("2026-09-01") and as_of(book, BEGAN).in_force("2026-09-01")


def test_the_door_takes_a_day(client: TestClient) -> None:
    text = HEAT_PUMP.replace("; ", "\n") + '\nchange "heat pump": protection plain'
    for on, said in (("2026-08-31", False), ("2026-09-01", True)):
        answer = client.post("/api/plan", json={"text": text, "on": on}).json()
        assert any(f["code"] == "gfci-missing" for f in answer["findings"]) is said
    wrong = client.post("/api/plan", json={"text": text, "on": "soon"})
    assert wrong.status_code == 422 and wrong.json()["key"] == "on"
