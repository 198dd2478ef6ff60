"""The calculation contract over HTTP."""

from collections.abc import Callable
from typing import Any

import pytest
from fastapi.testclient import TestClient

Calc = Callable[..., dict[str, Any]]


def test_fill(calc: Calc) -> None:
    found = calc("fill", raceway="PVC40", size="3/4", conductors=[{"insulation": "THWN-2", "size": "12", "count": 3}])
    assert found["total_in2"] == 0.508 and found["used_in2"] == pytest.approx(0.0399)
    assert (found["limit_percent"], found["fits"], found["smallest_size"]) == (40, True, "1/2")
    assert found["rule"] and found["basis"] == "from memory"
    assert calc("max-count", raceway="EMT", size="3/4", insulation="THWN-2", conductor_size="12")["count"] == 16


def test_cover_supports_bends_drop(calc: Calc) -> None:
    assert calc("cover", method="UF-B", above="driveway", volts=120, amps=20, gfci=True)["cover_in"] == 12
    assert calc("supports", method="EMT", size="1/2", length_in=600, start="panel", end="none")["count"] == 5
    assert calc("supports", method="NM-B", size=None, length_in=120) == calc("supports", method="NM-B", length_in=120)
    assert calc("bends", bends_deg=[90, 90, 90, 90, 10])["ok"] is False
    assert calc("drop", volts=120, amps=12, length_ft=100, size="12", material="cu")["drop_v"] == pytest.approx(4.752)


def test_methods_answers_for_every_method_and_the_caller_wins(calc: Calc) -> None:
    found = calc("methods", place="trench", circuit={"volts": 120, "amps": 20, "gfci": True, "conductors": 2})
    by_key = {item["method"]: item for item in found["methods"]}
    assert len(by_key) == 16 and found["ranked"][0] in by_key
    assert (by_key["UF-B"]["verdict"], by_key["UF-B"]["cover_in"]) == ("yes", 12)
    assert by_key["NM-B"]["verdict"] == "no" and by_key["NM-B"]["because"][0]["rule"]
    under = calc("methods", place="trench", above="under_building")
    assert next(item for item in under["methods"] if item["method"] == "UF-B")["verdict"] == "if"


BAD = [
    ("fill", {"raceway": "EMTT", "size": "1/2"}, "raceway", "EMT"),
    ("fill", {"raceway": "EMT", "size": "5/8"}, "size", "3/4"),
    ("fill", {"raceway": "EMT", "size": "1/2", "colour": "red"}, "colour", "schema"),
    (
        "fill",
        {"raceway": "EMT", "size": "1/2", "cables": [{"wide_in": -1, "count": 1}]},
        "cables.0.wide_in",
        "over 0",
    ),
    (
        "max-count",
        {"raceway": "EMT", "size": "1/2", "insulation": "TW", "conductor_size": "12"},
        "insulation",
        "THWN-2",
    ),
    ("cover", {"method": "NM-B", "above": "open_ground", "volts": 120, "amps": 20}, "method", "PVC40"),
    ("cover", {"method": "UF-B", "above": "moon", "volts": 120, "amps": 20}, "above", "driveway"),
    ("cover", {"method": "UF-B", "above": "driveway", "volts": float("nan"), "amps": 20}, "volts", "finite"),
    ("cover", {"method": "UF-B", "above": "driveway", "volts": 120, "amps": float("inf")}, "amps", "finite"),
    ("cover", {"method": "UF-B", "above": "driveway", "volts": "120", "amps": 20}, "volts", ""),
    ("cover", {"method": "UF-B", "above": "driveway", "volts": 120, "amps": 20, "gfci": "yes"}, "gfci", ""),
    ("supports", {"method": "OVERHEAD", "length_in": 12}, "method", "NM-B"),
    ("conductor", {"load_a": 10, "material": ""}, "material", "al"),
    ("box-fill", {"devices": [{"size": "", "straps": 1}], "clamps": True}, "size", "12"),
    ("supports", {"method": "EMT", "size": "7", "length_in": 12}, "size", "3/4"),
    ("supports", {"method": "EMT", "length_in": 1e300}, "length_in", "120000"),
    ("bends", {"bends_deg": [-1]}, "bends_deg.0", "0.0 or more"),
    ("drop", {"volts": 120, "amps": 1, "length_ft": 1, "size": "13"}, "size", "12"),
    ("drop", {"volts": 120, "amps": 1, "length_ft": 1, "size": "12", "material": "tin"}, "material", "cu"),
    ("methods", {"place": "moon"}, "place", "trench"),
    ("methods", {"place": "trench", "rules": "us-1999"}, "rules", "us-2023"),
]


@pytest.mark.parametrize(("name", "question", "key", "allowed"), BAD, ids=lambda v: v if isinstance(v, str) else "")
def test_a_bad_value_is_named_with_what_is_allowed(
    client: TestClient, name: str, question: dict[str, Any], key: str, allowed: str
) -> None:
    import json

    answer = client.post(
        f"/api/calc/{name}", content=json.dumps(question), headers={"content-type": "application/json"}
    )
    assert answer.status_code == 422
    assert answer.headers["content-type"] == "application/problem+json"
    body = answer.json()
    assert body["key"] == key, body
    assert allowed in " ".join(map(str, body["allowed"])), body
    assert "Traceback" not in answer.text


def test_walk_parse(client: TestClient) -> None:
    answer = client.post("/api/walk/parse", json={"text": "walk over 43' trench 16\" deep in pvc40 3/4"})
    leg = answer.json()["legs"][0]
    assert (leg["go"], leg["length_in"], leg["place"], leg["method"]) == ("over", 516, "trench", "PVC40")
    assert (leg["size"], leg["depth_in"], leg["to"]) == ("3/4", 16, None)
    bad = client.post("/api/walk/parse", json={"text": "over 43' trnch"})
    assert bad.status_code == 422 and bad.json()["at"] == 9 and "trench" in bad.json()["allowed"]


def test_a_nameplate_gives_wire_by_the_one_and_breaker_by_the_other(calc: Callable[..., dict[str, Any]]) -> None:
    """430.22, 440.22, 240.4(G); from memory."""
    found = calc("conductor", load_a=19.2, minimum_ampacity_a=24, maximum_breaker_a=40, wiring="NM-B", volts=240)
    assert (found["size"], found["breaker_a"]) == ("10", 40)


def test_a_pull_tells_how_its_wires_wedge(calc: Callable[..., dict[str, Any]]) -> None:
    asked = {
        "sections": [{"straight_in": 120}, {"bend_deg": 90, "radius_in": 9.5}],
        "conductors": [{"insulation": "THWN-2", "size": "4/0", "count": 3}],
    }
    bare, piped = calc("pull", **asked), calc("pull", **asked, raceway="EMT", size="2")
    assert (bare["weight_factor"], bare["corrected_forward_lb"]) == (None, None)
    assert piped["weight_factor"] == pytest.approx(1.27, abs=0.005)
    assert piped["forward_lb"] == bare["forward_lb"] < piped["corrected_forward_lb"]
