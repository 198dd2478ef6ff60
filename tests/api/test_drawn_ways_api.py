"""What the API says of ways that drew themselves: the view of Runs, a bend before it is taken, orders, lists."""

from __future__ import annotations

from itertools import pairwise
from typing import Any

import pytest
from fastapi.testclient import TestClient

from levelrun.core.ways.frame.drawn import LANE_IN
from tests.api.opened import OpenJob
from tests.api.test_runs_view import ident, runs


def test_a_circuit_brings_its_cables_its_schools_and_the_level_it_is_on(client: TestClient) -> None:
    found = runs(client, ident(OpenJob.demo(client)), circuit="ch9")
    assert found["drawn"] is True and found["focus"]["summary"]["id"] == "w-ch9-b52"
    assert {hop["kind"] for hop in found["hops"]} == {"drawn"} and len(found["hops"]) == 7
    assert [row["school"] for row in found["schools"] if row["current"]] == ["cheapest"]
    total = sum(hop["length_in"] for hop in found["hops"])
    assert found["schools"][0]["length_in"] == pytest.approx(total, abs=1)
    assert found["level"]["level"] == "house-floor"
    assert {cable["way"] for cable in found["cables"]} >= {hop["way"] for hop in found["hops"]}


def test_cables_in_one_wall_do_not_lie_on_each_other(client: TestClient) -> None:
    """Three cables along the north wall of the common room are three lines."""
    cables = runs(client, ident(OpenJob.demo(client)), circuit="ch9")["cables"]
    flat = [
        (a[1], *sorted((a[0], b[0])), cable["at"])
        for cable in cables
        for a, b in zip(cable["points"], cable["points"][1:], strict=False)
        if a[1] == b[1]
    ]
    for n, (y, low, high, at) in enumerate(flat):
        for other_y, other_low, other_high, other_at in flat[n + 1 :]:
            if at == other_at and abs(y - other_y) < 1:
                assert min(high, other_high) - max(low, other_low) <= 2 * LANE_IN


def test_a_circuit_that_is_walked_has_no_drawn_way(client: TestClient) -> None:
    found = runs(client, ident(OpenJob.demo(client)), circuit="ch5")
    assert found["drawn"] is False and {hop["kind"] for hop in found["hops"]} == {"walked"}
    assert found["schools"] == []


@pytest.mark.parametrize(
    ("query", "status"),
    [
        ({"level": "house-floor", "x": 150.0, "y": 60.0, "at": "over"}, 200),
        ({"level": "gone", "x": 150.0, "y": 60.0}, 422),
        ({"level": "house-floor", "x": "east", "y": 60.0}, 422),
    ],
)
def test_a_bend_is_told_and_changes_nothing(client: TestClient, query: dict[str, Any], status: int) -> None:
    page = OpenJob.demo(client)
    before = client.get(f"/api/jobs/{ident(page)}").json()
    answer = client.get(f"/api/jobs/{ident(page)}/circuits/ch9/hops/b6/bent", params=query)
    assert answer.status_code == status, answer.text
    if status == 200:
        assert answer.json()["edits"][0]["op"] == "bend" and "$" in answer.json()["text"]
    assert client.get(f"/api/jobs/{ident(page)}").json() == before
    assert client.get(f"/api/jobs/{ident(page)}/circuits/gone/hops/b6/bent", params=query).status_code == 422


def test_orders_are_told_and_an_unknown_circuit_is_refused(client: TestClient) -> None:
    page = OpenJob.demo(client)
    orders = client.get(f"/api/jobs/{ident(page)}/circuits/ch9/orders").json()
    assert [item["key"] for item in orders] == ["loop", "clockwise"]
    assert orders[0]["proof"] == "the least that there is" and orders[0]["less_in"] >= 0
    assert client.get(f"/api/jobs/{ident(page)}/circuits/gone/orders").status_code == 422


def test_the_pull_list_follows_what_was_pulled(client: TestClient) -> None:
    page = OpenJob.demo(client)
    before = client.get(f"/api/jobs/{ident(page)}/pulls").json()
    assert [row["cut_in"] for row in before["rows"]] == sorted((r["cut_in"] for r in before["rows"]), reverse=True)
    page.edit({"op": "pulled", "circuit": "ch9", "box": "b52", "length_in": 360.0})
    after = client.get(f"/api/jobs/{ident(page)}/pulls").json()
    row = next(item for item in after["rows"] if item["letter"] == "H 9·1")
    assert row["pulled_in"] == 360.0
    assert next(item for item in after["totals"] if item["item"] == "12-2 NM-B")["pulled_in"] == 360.0


def test_the_drilling_sheet_tells_a_shared_wall_once(client: TestClient) -> None:
    page = OpenJob.demo(client)
    sheets = client.get(f"/api/jobs/{ident(page)}/drilling").json()
    assert len({(item["room"], item["side"]) for item in sheets}) == len(sheets)
    whole = sum(row["count"] for item in sheets for row in item["rows"])
    assert whole >= 100 and all(row["cables"] for item in sheets for row in item["rows"])
    own = client.get(f"/api/jobs/{ident(page)}/drilling", params={"room": "m1"}).json()
    assert {item["room"] for item in own} == {"m1"}


def test_what_lies_in_the_walls_of_a_room_stays_on_them(client: TestClient) -> None:
    page = OpenJob.demo(client)
    room = client.get(f"/api/jobs/{ident(page)}/stages/boxes", params={"room": "m2"}).json()["room"]
    assert room["inside"]["cables"] and room["inside"]["holes"]
    for spot in room["inside"]["staples"]:
        assert any(on(spot, cable["points"]) for cable in room["inside"]["cables"]), spot
    for cable in room["inside"]["cables"]:
        for x, y in cable["points"]:
            assert 0 <= x <= room["round"]["length_in"] and 0 <= y <= room["round"]["height_in"]


def on(spot: list[float], points: list[list[float]]) -> bool:
    """Whether a spot lies on a line of level and upright pieces, to the quarter inch."""
    spans = [[sorted((a[axis], b[axis])) for axis in (0, 1)] for a, b in pairwise(points)]
    near = (zip(spot, span, strict=True) for span in spans)
    return any(all(low - 0.25 <= at <= high + 0.25 for at, (low, high) in pairs) for pairs in near)
