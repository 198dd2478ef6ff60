"""Every mend of what a line brings up: its finding is gone, and nothing stops that did not stop before."""

from __future__ import annotations

from collections import Counter

import pytest

from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited

HOUSE = built("panel H 200a 30 spaces taken 1-16 18 in house at basement")
LINES = (
    "30' stud wall to outlet", "30' attic to outlet 15a", "20' garage wall to a garage door opener",
    "12' wall in nm-b then 60' trench 18\" deep in pvc40 to an outdoor outlet",
    "12' wall in nm-b then 60' trench 24\" deep in uf to an outdoor outlet",
    "50' trench 12\" deep in uf 12-2 to an outdoor outlet 20a plain",
    "40' trench 18\" deep in pvc40 to a shed Shed 60a", "120' trench 18\" deep in pvc40 to barn 100a",
    "60' trench 6\" deep in rigid to a detached garage 60a", "80' trench 24\" deep in uf 10-3 to a greenhouse 30a",
    "40' attic then 8' down outside wall to a mini split 18.4 mca 25 max", "25' crawl in 10-2 to a range 50a",
    "17' wall in 12-2 to a water heater of 4500 watts", "6' wall to a generator inlet 30a",
    "40' roof in emt to air conditioner 24 mca 40 max", "12' stud wall, 55' overhead to shop 100a",
)  # fmt: skip


def stops(job: Job) -> set[tuple[str, str]]:
    return {(item.subject, item.code) for item in plan(job).findings if item.severity == "stop"}


def same(item: Finding) -> tuple[str, str, str]:
    return item.subject, item.code, item.title


@pytest.mark.parametrize("text", LINES)
def test_no_mend_of_a_line_makes_a_new_stop_or_leaves_its_finding(text: str) -> None:
    job = built(f"from {text}", HOUSE)
    found = plan(job).findings
    before, count = stops(job), Counter(map(same, found))
    for item in found:
        for mend in item.mends:
            mended = edited(job, *mend.edits)
            assert stops(mended) <= before, (item.code, mend.label)
            assert Counter(map(same, plan(mended).findings))[same(item)] < count[same(item)], (item.code, mend.label)


def test_a_place_for_an_outlet_brings_the_breaker_that_it_asks_for() -> None:
    job = built("from 30' stud wall to outlet", HOUSE)
    (asked,) = (item for item in plan(job).findings if item.code == "place-unsaid")
    given = {mend.label: edited(job, *mend.edits).circuits[0].protection for mend in asked.mends}
    assert given == {
        "In a garage, on a GFCI breaker": "gfci", "Outdoors, on a GFCI breaker": "gfci",
        "In a hall, on an arc-fault breaker": "afci",
    }  # fmt: skip
    safe = edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"protection": "gfci"}})
    (again,) = (item for item in plan(safe).findings if item.code == "place-unsaid")
    assert [mend.label for mend in again.mends] == [
        "In a garage", "Outdoors", "In a hall, on a dual-function breaker",
    ]  # fmt: skip


def test_a_riser_is_wide_enough_for_its_wires() -> None:
    """Three No. 6 and a No. 10: 3 x 0.0507 + 0.0211 = 0.1732 in²; 40 % of 3/4 PVC 40 is 0.203, of PVC 80 0.164, so
    the riser is of 1 in (chapter 9, tables 1, 4, 5)."""
    job = built("from 40' trench 18\" deep in pvc40 to a shed Shed 60a", HOUSE)
    missing = [item for item in plan(job).findings if item.code == "riser-missing"]
    mended = edited(job, *missing[0].mends[0].edits)
    assert [(leg.method, leg.size) for leg in mended.ways[0].legs] == [("PVC80", "1"), ("PVC40", "3/4")]


@pytest.mark.parametrize(
    ("trench", "wall", "breaker", "found"),
    [
        (40, 4, 30, ""),  # 4 ft of 44: no more than a tenth, the ampacity of the trench holds
        (36, 4, 30, ""),  # just a tenth
        (35, 4, 30, "heat-unsaid"),  # a foot less, and it does not
        (200, 10, 30, ""),  # ten feet, the most
        (200, 11, 30, "heat-unsaid"),
        (20, 8, 20, ""),  # 12 carries 16.4 A, the next rating up is 20
    ],
)
def test_a_short_part_in_the_sun_does_not_decide_and_a_heat_that_nobody_said_is_asked(
    trench: int, wall: int, breaker: int, found: str
) -> None:
    """No. 10 of UF bears 30 A at 60 °C, at 40 °C 0.82 of it, 24.6 A, whose next rating is 25 (310.15(B)(1), 340.80,
    240.6); parts of 10 ft or 10 % in all do not count, whichever is less (310.14(A)(2))."""
    job = built(f"from {trench}' trench 24\" deep in uf, up {wall}' outside wall to outlet {breaker}a 120v", HOUSE)
    assert job.circuits[0].wire_size == {30: "10", 20: "12"}[breaker]
    heat = [item for item in plan(job).findings if item.code in ("heat-unsaid", "ampacity-short")]
    assert [item.code for item in heat] == ([found] if found else [])
    for item in heat:
        mild, wire = (edited(job, *mend.edits) for mend in item.mends)
        assert [leg.facts.ambient_c for leg in mild.ways[0].legs] == [None, 30.0]
        assert wire.circuits[0].wire_size == "8"
        for mended in (mild, wire):
            assert not {f.code for f in plan(mended).findings} & {"heat-unsaid", "ampacity-short"}


def test_a_heat_that_was_said_stops() -> None:
    job = built("from 20' trench 24\" deep in uf 10-2, up 8' outside wall at 104 f to outlet 30a 120v", HOUSE)
    (short,) = (item for item in plan(job).findings if item.code == "ampacity-short")
    assert (short.severity, short.measured, short.leg) == ("stop", "24.6 A", 1)


def test_an_attic_is_hot_whether_it_is_said_or_not() -> None:
    """No. 10 of UF at 45 °C: 30 x 0.71 of the 60 °C column (table 310.15(B)(1)(1))."""
    job = built("from 30' attic in uf 10-2 to outlet 30a 120v", HOUSE)
    (short,) = (item for item in plan(job).findings if item.code == "ampacity-short")
    assert (short.severity, short.measured) == ("stop", "21.3 A")
