"""No. 4 and larger in boxes, bodies and panels; spans in the air; cable under joists and in attics."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import edited, found, one_way

FEED = {"volts": 240, "poles": 2, "breaker_a": 100.0, "wire_size": "3", "method": "raceway", "load_a": 60.0}


def through(text: str, model: str = "", **circuit: object) -> Job:
    job = one_way(text, **{**FEED, **circuit})
    box = next((b for b in job.boxes if b.name == "J-1"), None)
    return edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {"model": model}}) if box and model else job


STRAIGHT = "over 20' basement in emt 1-1/4 to J-1 then over 20' basement in emt 1-1/4 to C-1"
CORNER = "over 20' basement in emt 1-1/4 to J-1 then left 20' basement in emt 1-1/4 to C-1"


@pytest.mark.parametrize(
    ("text", "limit"),
    [(STRAIGHT, "10″ long"), (CORNER, "7 1/2″ by 7 1/2″")],  # 314.28(A): 8 × 1.25 = 10; 6 × 1.25 = 7.5
)
def test_a_box_for_large_wire_is_asked_for_by_its_size(text: str, limit: str) -> None:
    (asked,) = found(through(text), "pull-box-unsaid")
    assert asked.limit == limit and asked.section == "314.28(A)"
    (small,) = found(through(text, "square-42"), "pull-box-small")
    assert small.severity == "stop" and small.limit == limit


def test_no_6_goes_by_volume_and_asks_no_length() -> None:
    thin = through(STRAIGHT, wire_size="6", breaker_a=60.0, load_a=30.0)
    assert not found(thin, "pull-box-unsaid") and not found(thin, "pull-box-small")


@pytest.mark.parametrize(("size", "said"), [("3", True), ("4", True), ("6", False)])
def test_an_lb_for_large_wire_is_one_that_is_marked(size: str, said: bool) -> None:
    job = through("over 20' basement in emt 1-1/4 to LB then up 3' basement in emt 1-1/4 to C-1", wire_size=size)
    assert bool(found(job, "body-marked")) is said


def test_the_room_to_bend_at_the_lugs_is_that_of_the_table() -> None:
    """Table 312.6(A), one wire a terminal: No. 3 wants 2 in, 1/0 3½ in, No. 6 is under the rule's note."""
    assert found(through(STRAIGHT), "bend-room")[0].limit == "2″"
    big = through(STRAIGHT, wire_size="1/0", breaker_a=150.0)
    assert found(big, "bend-room")[0].limit == "3.5″"
    assert not found(through(STRAIGHT, wire_size="6", breaker_a=60.0), "bend-room")


SPAN = (
    "up 8' outside in pvc80 1 then over 60' overhead {facts} in quadplex 2-3 then down 8' outside in pvc80 1 to C-1"
)


@pytest.mark.parametrize(
    ("facts", "code"),
    [
        ("", "span-unsaid"),
        ("above people clear 10'", ""),
        ("above people clear 9' 11\"", "span-low"),
        ("above a drive clear 12'", ""),
        ("above a drive clear 11' 11\"", "span-low"),
        ("above a street clear 18'", ""),
        ("above a street clear 17'", "span-low"),
        ("above a roof clear 8' 6\"", ""),
        ("above a roof clear 8'", "span-low"),
    ],
)
def test_a_span_by_what_lies_beneath(facts: str, code: str) -> None:
    """225.18, 225.19: 10 ft over people, 12 over a drive, 18 over a street, 8½ over a roof."""
    said = {item.code for item in plan(one_way(SPAN.format(facts=facts), **FEED)).findings}
    assert said & {"span-unsaid", "span-low"} == ({code} if code else set())


@pytest.mark.parametrize(
    ("leg", "said"),
    [
        ("over 10' crawl space in 12-2", True),
        ("over 10' crawl space in 12-2 condition met", False),
        ("over 10' basement in 14-2", True),
        ("over 10' crawl space in 6-2", False),  # 334.15(C): two No. 6 may lie on the underside
        ("over 10' crawl space in 8-3", False),  # and three No. 8
        ("over 10' crawl space in 8-2", True),
        ("over 10' attic in 12-2", True),
        ("over 10' attic in emt 1/2", False),
        ("over 10' stud wall in 12-2", False),
    ],
)
def test_small_cable_under_joists_and_cable_in_attics_is_asked(leg: str, said: bool) -> None:
    assert bool(found(one_way(f"{leg} to C-1"), "method-condition")) is said


@pytest.mark.parametrize(("inches", "said"), [(8, False), (14, False), (15, True), (60, True)])
def test_pipe_through_a_wall_is_in_no_place_where_it_can_be_hit(inches: float, said: bool) -> None:
    text = f"over 3' basement in pvc40 1 then over {inches:g}\" outside in pvc40 1 then "
    job = one_way(text + "over 20' trench 24\" deep in pvc40 1 to C-1")
    asked = [item for item in plan(job).findings if item.code in ("method-condition", "method-not-allowed")]
    assert bool([item for item in asked if item.leg == 1]) is said


# 250.122(B): 3 AWG carries 80 A at 60 °C and no cable is made with it; 2 for 50 A is larger than it must be.
@pytest.mark.parametrize(("said", "short"), [("machine 80a 240v", False), ("machine 50a 240v wire 2", True)])
def test_the_smallest_cable_that_is_made_brings_the_ground_that_it_needs(said: str, short: bool) -> None:
    job = read_text(f"panel H 200a 30 spaces\n{said} 30' basement")
    assert job.ways[0].legs[0].size == "2-3"
    assert bool(found(job, "ground-small")) is short
