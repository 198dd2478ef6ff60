"""Every finding about pipe, its near miss that stays silent, and that each mend mends it."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.job import Job
from levelrun.core.pipe.codes import CODES
from levelrun.core.plan import plan
from tests.conftest import edited, one_way

Case = tuple[str, dict[str, Any], list[dict[str, Any]]]
FEEDER = {"wire_size": "6", "breaker_a": 60, "conductors": 4, "load_a": 30, "volts": 240, "poles": 2}


SIDING = {"op": "set", "kind": "structure", "id": "h", "set": {"siding_in": 1.5}}


def leg(number: int, **values: Any) -> dict[str, Any]:
    return {"op": "set_leg", "way": "w", "leg": number, "set": values}


def habits(**piping: Any) -> dict[str, Any]:
    return {"op": "set_job", "set": {"habits": {"piping": piping}}}


PVC = "down 4' outside in pvc80 1; over 40' trench 24\" deep in pvc40 1; up 4' outside in pvc80 1 to C-1"
METAL = "down 4' outside in pvc80 3/4; over 20' trench {}\" deep in rigid 3/4; up 4' outside in pvc80 3/4 to C-1"
CASES: dict[str, Case] = {
    "bend-unsaid": ("over 12' block wall in emt 3/4 with offset 30 to C-1", {}, []),
    "bend-impossible": ("over 12' block wall in emt 3/4 with offset 8\" at 10 to C-1", {}, [leg(0, length_in=40.0)]),
    "bends-near": ("over 3' block wall in emt 3/4; up 6\"; over 3' to C-1", {}, []),
    "elbows-near": ("over 3' outside in pvc80 1; up 15\"; over 3' to C-1", {}, []),
    "bend-end": ("over 7\" block wall in emt 3/4; up 3' to C-1", {}, []),
    "radius-small": ("over 3' block wall in emt 3/4; up 3' sweep 5\" to C-1", {}, [leg(1, size="1")]),
    "coupling-nowhere": ("over 6' block wall in emt 1-1/4 with saddle 3\" after 3' with offset 6\" after 5'; up 2'; "
                         "over 2'; up 2'; over 2'; up 20\"; over 19\"; up 20\"; over 3' to C-1", {}, []),
    "size-habit": (PVC, FEEDER, []),
    "feed-hard": ("over 60' attic in emt 1-1/4 fed at start; left 6'; right 4'; up 4' to C-1", FEEDER, []),
    "thread-first": ("over 12' block wall in emt 3/4; up 3' to C-1", {}, [habits(order="thread_first")]),
    "expansion-day": ("up 9' outside in pvc80 3/4 expansion fitting to C-1", {}, []),
    "bond-metal": (METAL.format(12), {}, []),
    "strap-air": ("over 12' block wall in emt 3/4; over 8' tail in emt 3/4 to C-1", {}, []),
    "strap-flat": (
        "down 4' outside in pvc80 3/4 to C-1", {}, [SIDING],
    ),
}  # fmt: skip

SILENT: dict[str, Case] = {
    "bend-unsaid": ("over 12' block wall in emt 3/4 with offset 4\" at 30 to C-1", {}, []),
    "bend-impossible": ("over 12' block wall in emt 3/4 with offset 8\" at 10 to C-1", {}, [leg(0, length_in=46.0)]),
    "bends-near": ("over 3' block wall in emt 3/4; up 11\"; over 3' to C-1", {}, []),
    "elbows-near": ("over 3' outside in pvc80 1; up 15.5\"; over 3' to C-1", {}, []),
    "bend-end": ("over 8\" block wall in emt 3/4; up 3' to C-1", {}, []),
    "radius-small": ("over 3' block wall in emt 3/4; up 3' sweep 5\" to C-1", {}, []),
    "coupling-nowhere": (
        "over 6' block wall in emt 1-1/4 with saddle 3\" after 3'; up 3'; over 3'; up 3' to C-1", {}, [],
    ),
    "size-habit": (PVC, FEEDER, [leg(i, size="1-1/4") for i in range(3)]),
    "feed-hard": ("over 60' attic in emt 1-1/4 fed at end; left 6'; right 4'; up 4' to C-1", FEEDER, []),
    "thread-first": ("over 12' block wall in emt 3/4 to C-1", {}, [habits(order="thread_first")]),
    "expansion-day": ("up 9' outside in pvc80 3/4 expansion fitting to C-1", {},
                      [{"op": "set", "kind": "way", "id": "w", "set": {"day_f": 55.0}}]),
    "bond-metal": (METAL.format(18), {}, []),
    "strap-air": ("over 12' block wall in emt 3/4; over 5' tail in lfmc 3/4 to C-1", {}, []),
    "strap-flat": (
        "down 4' outside in pvc80 3/4 stood off to C-1", {},
        [SIDING],
    ),
}  # fmt: skip


def made(case: Case) -> Job:
    text, circuit, edits = case
    return edited(one_way(text, **circuit), *edits)


def test_every_code_has_a_case_and_a_near_miss() -> None:
    assert set(CASES) == set(SILENT) == set(CODES)


@pytest.mark.parametrize("code", CASES)
def test_each_fault_is_found_and_each_mend_mends_it(code: str) -> None:
    job = made(CASES[code])
    before = plan(job).findings
    own = [item for item in before if item.code == code]
    assert own and own[0].severity == CODES[code].severity and own[0].stage == "pipe"
    stops = {item.code for item in before if item.severity == "stop"}
    for mend in own[0].mends:
        after = plan(edited(job, *mend.edits)).findings
        assert len([item for item in after if item.code == code]) < len(own), mend.label
        assert {item.code for item in after if item.severity == "stop"} <= stops, mend.label


@pytest.mark.parametrize("code", SILENT)
def test_the_near_miss_is_silent(code: str) -> None:
    assert code not in [item.code for item in plan(made(SILENT[code])).findings]


def test_a_smallest_legal_shop_is_not_told_of_the_habit() -> None:
    job = edited(made(CASES["size-habit"]), habits(size="legal"))
    assert "size-habit" not in [item.code for item in plan(job).findings]


def test_a_piece_by_piece_shop_is_asked_instead_of_told() -> None:
    codes = [item.code for item in plan(made(CASES["thread-first"])).findings]
    assert "thread-first" in codes
    assert codes.count("thread-first") == 1


def test_metal_in_a_whole_metal_run_wants_no_jumper() -> None:
    job = one_way("down 4' outside in rigid 3/4; over 20' trench 12\" deep; up 4' outside to C-1")
    assert "bond-metal" not in [item.code for item in plan(job).findings]
