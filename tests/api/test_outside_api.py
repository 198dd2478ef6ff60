"""Trench over the wire: its view, its sheets, the marks desk, the questions about spans and rods."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.standins.marks import SimulatedDesk

Calc = Callable[..., dict[str, Any]]


def test_the_view_has_what_is_asked_for_else_the_worst(client: TestClient) -> None:
    job = client.post("/api/jobs", json={"sample": "quince-hollow"}).json()["head"]["id"]
    view = client.get(f"/api/jobs/{job}/stages/trench").json()
    assert [row["verdict"] for row in view["rows"]][:3] == ["stop", "check", "check"]
    assert view["trench"]["id"] == "t1" and view["span"] is None
    assert client.get(f"/api/jobs/{job}/stages/trench?line=n1").json()["span"]["id"] == "n1"
    assert client.get(f"/api/jobs/{job}/stages/trench?line=cabin").json()["ground"]["id"] == "cabin"
    assert client.get(f"/api/jobs/{job}/stages/trench?way=h16").json()["trench"]["id"] == "t3", "by the way in it"
    sheet = client.get(f"/api/jobs/{job}/outside").json()
    assert [len(sheet[key]) for key in ("trenches", "spans", "grounds")] == [3, 1, 3]


def test_the_desk_counts_working_days_and_says_that_it_is_simulated(client: TestClient) -> None:
    """Called on a Thursday, 3 working days: Friday, Monday, Tuesday. Good for 20 days from then."""
    answer = client.post("/api/marks/call", json={"where": "House to shed", "called": "2026-11-26"}).json()
    assert (answer["good_from"], answer["good_to"], answer["simulated"]) == ("2026-12-01", "2026-12-21", True)
    assert answer["number"].startswith("SIM-261126-") and answer["colours"]["gas"] == "yellow"
    again = SimulatedDesk().call(date(2026, 11, 26), "House to shed", 3, 20)
    assert again.number == answer["number"]
    assert client.post("/api/marks/call", json={"where": ""}).status_code == 422


def test_questions_about_spans_and_rods(calc: Calc) -> None:
    """w L²/8H = 1.0134 ft for 58 ft, 0.241 lb/ft, 100 lb; Dwight: 8 ft of 5/8 in 100 Ω·m is 39.9 Ω."""
    found = calc("sag", span_ft=58.0, weight_lb_ft=0.241, tension_lb=100.0)
    assert found["sag_ft"] == pytest.approx(1.0134, rel=1e-3) and found["length_ft"] == pytest.approx(
        58.047, abs=1e-3
    )
    rods = calc("rods", length_ft=8.0, diameter_in=0.625, soil_ohm_m=100.0, count=2, apart_ft=8.0)
    assert rods["ohms_one"] == pytest.approx(39.9, abs=0.1) and 0.5 < rods["ohms_all"] / rods["ohms_one"] < 0.6
    assert calc("clearance", over="drive", volts=240.0)["least_ft"] == 12
    near = calc("clearance", over="roof", volts=240.0, slope_in_12=6.0, window_distance_ft=2.0)
    assert (near["least_ft"], near["section"], near["window_ok"]) == (3, "225.19(A) ex. 2", False)


@pytest.mark.parametrize(
    ("name", "question", "key"),
    [
        ("sag", {"span_ft": 0, "weight_lb_ft": 1, "tension_lb": 1}, "span_ft"),
        ("sag", {"span_ft": 100, "weight_lb_ft": 1, "tension_lb": 1}, "tension_lb"),
        ("rods", {"length_ft": 8, "diameter_in": 0.6, "soil_ohm_m": 100, "count": 2}, "apart_ft"),
        ("clearance", {"over": "river"}, "over"),
    ],
)
def test_a_question_that_makes_no_sense_is_refused_by_its_key(
    client: TestClient, name: str, question: dict[str, Any], key: str
) -> None:
    answer = client.post(f"/api/calc/{name}", json=question)
    assert answer.status_code == 422 and key in answer.text
