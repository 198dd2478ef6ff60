"""The tables of cases over every rule set: what each says, and that none stops work by another country's book.

Source: NFPA 70 (NEC) 2023 and 2020, CSA C22.1:21; section numbers from memory.
"""

from __future__ import annotations

import re

import pytest
from fastapi.testclient import TestClient

from levelrun.core.codebook import load, rule_sets
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.trade.conductors.ampacity import ampacity
from levelrun.samples import SAMPLES, sample
from tests.conftest import built, one_way
from tests.core.boxes.test_rules import CASES as OF_BOXES
from tests.core.circuits.test_circuit_rules import CASES as OF_CIRCUITS
from tests.core.ways.test_plan_way import CASES as OF_RUNS

US_SECTION = re.compile(r"\b\d{3}\.\d|\barticle|IRC")


def jobs() -> dict[str, Job]:
    found = {f"circuits {code}": job for code, job in OF_CIRCUITS.items()}
    found |= {f"runs {code}": one_way(text, **circuit) for code, (text, circuit) in OF_RUNS.items()}
    found |= {f"boxes {code}": built(text) for code, text in OF_BOXES.items()}
    return found | {f"sample {key}": sample(key) for key in SAMPLES}


JOBS = jobs()


def by(job: Job, rules: str) -> Job:
    return job.model_copy(update={"rules": rules})


@pytest.mark.parametrize("name", JOBS)
def test_no_stop_cites_the_book_of_another_country(name: str) -> None:
    for item in plan(by(JOBS[name], "ca-2021")).findings:
        if item.severity == "stop":
            assert not US_SECTION.search(item.section), (item.code, item.section)
        if item.section.startswith("not covered"):
            assert item.severity in ("check", "note") and "ask" in item.text, item.code


@pytest.mark.parametrize("name", JOBS)
def test_what_one_us_edition_finds_the_other_finds(name: str) -> None:
    """But for what came in 2023: 10 A as a rating, the kitchen away from its counter, ranges and dryers by outlet,
    islands that want no outlet but a provision."""
    kind, _, code = name.partition(" ")
    if kind == "sample":
        return
    newer, older = ({f.code for f in plan(by(JOBS[name], rules)).findings} for rules in ("us-2023", "us-2020"))
    assert newer - older <= {"gfci-missing", "island-provision"}, newer - older
    assert older - newer <= {"island-no-receptacle"}
    assert code in older or code in ("height-closure", "boxes-many") or kind == "boxes"


@pytest.mark.parametrize("rules", rule_sets())
def test_every_finding_of_the_demo_has_a_section_of_its_set(rules: str) -> None:
    for item in plan(by(sample("quince-hollow"), rules)).findings:
        assert item.section, item.code
        if rules == "us-2020":
            assert "210.12(B)" not in item.section and "250.24(B)" not in item.section
            assert "220.57" not in item.section and "table 220.45" not in item.section


MOVED = {
    "210.12(B)": "210.12(A)",
    "210.8(A)(10)": "210.8(A)(9)",
    "210.8(A)(8)": "210.8(A)(7)",
    "250.24(B), 408.40": "250.24(A)(5), 408.40",
    "220.41, 220.52, table 220.45": "220.14(J), 220.52, table 220.42",
    "220.57": "625.41",
    "250.118(A)(6)": "250.118(6)",
    "310.16": "310.16",
}


@pytest.mark.parametrize("section", MOVED)
def test_sections_stand_elsewhere_in_2020(section: str) -> None:
    if section.startswith("210.8(A)"):
        place = {"210.8(A)(10)": "tub_shower", "210.8(A)(8)": "sink"}[section]
        assert load("us-2023").table("gfci-places").get(place)["section"] == section
        assert load("us-2020").table("gfci-places").get(place)["section"] == MOVED[section]
    else:
        assert load("us-2020").cite(section) == MOVED[section]
    assert load("us-2023").cite(section) == section


def test_vehicles_count_at_their_nameplate_before_2023() -> None:
    assert load("us-2023").number("vehicle_least_va") == 7200
    assert load("us-2020").number("vehicle_least_va") == 0


@pytest.mark.parametrize(
    ("count", "us", "canada"), [(3, 1.0, 1.0), (6, 0.8, 0.8), (10, 0.5, 0.7), (30, 0.45, 0.6), (50, 0.35, 0.5)]
)
def test_bundles_by_each_book(count: int, us: float, canada: float) -> None:
    """Table 310.15(C)(1) and table 5C."""
    for rules, factor in (("us-2023", us), ("us-2020", us), ("ca-2021", canada)):
        assert ampacity(load(rules), "12", "cu", 90, 30.0, count).adjustment_factor == factor


TOLD = {
    "300.5(A)": {"us-2023": "300.5(A)", "us-2020": "300.5 and its table", "ca-2021": "CEC 12-012, table 53"},
    "310.16, 240.4": {"us-2023": "310.16, 240.4", "ca-2021": "CEC 14-104"},
    "210.8(A)": {"us-2023": "210.8(A)", "ca-2021": "not covered by CA 2021; US: 210.8(A)"},
    "common practice, no source": dict.fromkeys(rule_sets(), "common practice, no source"),
}


@pytest.mark.parametrize("section", TOLD)
def test_a_section_is_told_as_the_set_has_it(section: str) -> None:
    for rules, told in TOLD[section].items():
        assert load(rules).told(section) == told


def test_a_calculation_cites_the_set_that_was_asked_for(client: TestClient) -> None:
    asked = {"load_a": 16, "breaker_a": 20, "rules": "ca-2021"}
    answer = client.post("/api/calc/conductor", json=asked).json()
    assert answer["rule"].startswith("CEC") and "310.16" not in answer["rule"]
    cover = client.post("/api/calc/cover", json={"method": "PVC40", "above": "open_ground", "volts": 120, "amps": 20,
                                                 "gfci": False, "rules": "ca-2021"}).json()  # fmt: skip
    assert cover["rule"].startswith("CEC")
