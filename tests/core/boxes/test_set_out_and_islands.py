"""Boxes under strapping, siding and boards; panels in the wall; islands; sliding glass doors: to the fraction.

Source: NFPA 70 (NEC) 2023 and 2020, 210.52(A)(2), (C)(2), 312.3, 314.20; from memory. Studs 1-1/2 in, boards 3/4.
"""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited, found


def told(job: Job, code: str) -> list[tuple[str, str]]:
    return [(item.measured, item.limit) for item in found(job, code)]


def den(text: str, *words: str) -> Job:
    job = built(f"room Den 12' x 12'; {text}")
    for line in words:
        job = edited(job, {"op": "say", "text": line, "room": job.rooms[0].id})
    return job


@pytest.mark.parametrize(
    ("ceiling", "out", "codes"),
    [
        ("1 1/4 in", "1/2 in", ["box-set-out"]),  # strapping 3/4 and board 1/2: 3/4 behind
        ("1 1/4 in", "1 in", []),  # a quarter behind: allowed
        ("1 1/4 in", "1 1/4 in", []),
        ("1/2 in", "7/8 in", ["box-proud"]),
        ("none", "1/2 in", []),  # nobody has said what the ceiling gets
    ],
)
def test_a_ceiling_box_against_strapping_and_board(ceiling: str, out: str, codes: list[str]) -> None:
    job = den("set light centre as L", f"change L: set out {out}", f"change Den: ceiling out {ceiling}")
    said = [item.code for item in plan(job).findings if item.code in ("box-set-out", "box-proud")]
    assert said == codes


def test_every_light_of_a_ceiling_is_set_out_at_once_and_a_new_one_stands_right() -> None:
    job = den("set light 4' x 4' as A; set smoke 8' x 8' as B", "change Den: ceiling out 1 1/4 in")
    assert told(job, "box-set-out") == [("3/4″", "1/4″")] * 2
    mend = found(job, "box-set-out")[0].mends[1]
    assert told(edited(job, *mend.edits), "box-set-out") == []
    later = edited(job, {"op": "say", "text": "set light 9' x 4' as C", "room": job.rooms[0].id})
    assert next(box.set_out_in for box in later.boxes if box.name == "C") == 1.25


@pytest.mark.parametrize(("siding", "short"), [("1 1/4 in", True), ("1/4 in", False), ("none", False)])
def test_an_outdoor_box_against_the_siding(siding: str, short: bool) -> None:
    job = den('set receptacle south 17 5/8" outside', f"change House: siding {siding}")
    assert bool(told(job, "box-set-out")) is short
    surface = edited(job, {"op": "set", "kind": "box", "id": job.boxes[0].id, "set": {"surface": True}})
    assert told(surface, "box-set-out") == []


@pytest.mark.parametrize(
    ("finish", "out", "said"),
    [
        ("boards", "0.5", [("1/4″", "0″")]),  # flush with what burns
        ("boards", "0.75", []),
        ("drywall", "0.25", []),
        ("drywall", "0", [("1/2″", "1/4″")]),
        ("stone", "0.5", [("1″", "1/4″")]),
    ],
)
def test_a_panel_in_the_wall_against_its_finish(finish: str, out: str, said: list[tuple[str, str]]) -> None:
    job = den(f"panel north 4' as P; frame north {finish}", f"change P: set out {out} in")
    assert told(job, "panel-set-out") == said


def test_a_panel_on_the_surface_is_not_asked() -> None:
    assert told(den("panel north 4' as P; frame north stone"), "panel-set-out") == []


KITCHEN = "room Kitchen 20' x 20'; "


def island(rules: str, more: str = "", size: str = "5' at 3' deep 36\"") -> Job:
    job = edited(built(KITCHEN + f"mark island north {size}; {more}"), {"op": "set_job", "set": {"rules": rules}})
    return edited(job, {"op": "say", "text": "laid out all"})


@pytest.mark.parametrize(
    ("size", "wanted"),
    [
        ("3' at 3' deep 36\"", "1"),  # 9 ft²
        ("5' at 3' deep 36\"", "2"),  # 15 ft²: 9 and a part of 18
        ("9' at 3' deep 36\"", "2"),  # 27 ft²: 9 and 18
        ("9'2 at 3' deep 36\"", "3"),
    ],
)
def test_in_2020_an_island_wants_one_for_9_square_feet_and_one_for_each_18(size: str, wanted: str) -> None:
    job = island("us-2020", size=size)
    said = found(job, "island-no-receptacle")
    assert [(item.measured, item.limit, item.severity) for item in said] == [("0", wanted, "stop")]
    mended = edited(job, *said[0].mends[0].edits)
    assert found(mended, "island-no-receptacle") == []
    assert len(mended.boxes) == int(wanted)


def test_in_2023_an_island_wants_an_outlet_or_something_left_for_one() -> None:
    job = island("us-2023")
    assert found(job, "island-no-receptacle") == []
    (asked,) = found(job, "island-provision")
    assert asked.severity == "check" and [mend.label for mend in asked.mends] == [
        "An outlet in its top", "A cable left for one",
    ]  # fmt: skip
    for mend in asked.mends:
        assert found(edited(job, *mend.edits), "island-provision") == []


@pytest.mark.parametrize(("up", "counts"), [(24, True), (23, False), (56, True), (57, False)])
def test_it_stands_from_12_in_under_the_top_to_20_over_it(up: int, counts: bool) -> None:
    job = island("us-2020", size="3' at 3' deep 36\"")
    mended = edited(job, *found(job, "island-no-receptacle")[0].mends[0].edits)
    item = {"op": "set", "kind": "box", "id": mended.boxes[0].id, "set": {"height_in": up}}
    assert (found(edited(mended, item), "island-no-receptacle") == []) is counts


def test_an_outlet_beside_the_island_is_none_of_it() -> None:
    """The island lies 67 to 103 in off the north wall, 36 to 96 in from its left corner; the room is 240 in deep."""
    job = island("us-2023", "set receptacle 5' x 11'5\" as Floor")  # 103 in off the wall: on its edge
    assert found(job, "island-provision") == []
    assert found(island("us-2023", "set receptacle 5' x 11' as Floor"), "island-provision") != []


def test_a_workshop_has_no_islands_to_serve() -> None:
    job = built("structure shop Shop; room Bench 20' x 20' as kitchen; mark island north 5' at 3'")
    assert found(job, "island-provision") == []


def missing(job: Job) -> float:
    return sum(1 for item in found(job, "wall-no-receptacle"))


@pytest.mark.parametrize(
    ("opening", "hinge", "spaces"),
    [
        ("glass door north 8' at 2'", "left", 1),  # 4 ft of glass and 2 ft of wall right of it count on
        ("door north 8' at 2'", "left", 1),
    ],
)
def test_the_fixed_half_of_a_glass_door_is_wall(opening: str, hinge: str, spaces: int) -> None:
    job = built(f"room Den 12' x 12'; {opening} hinge {hinge}")
    fixed = "glass" in opening
    said = found(job, "wall-no-receptacle")
    assert len(said) == spaces
    whole = 4 * 144 - (48 if fixed else 96)
    assert said[0].title.startswith(_feet(whole))


def _feet(inches: Any) -> str:
    return f"{inches // 12}′"


def test_one_walks_through_a_glass_door_and_finds_a_light_outside_it() -> None:
    job = edited(built("room Den 14' x 12'; glass door south 6' at 3'"), {"op": "say", "text": "laid out all"})
    assert found(job, "entrance-no-light") != []
    assert found(built("room Den 14' x 12'; window south 6' at 3'"), "entrance-no-light") == []


@pytest.mark.parametrize(("rules", "count"), [("us-2020", 2), ("us-2023", 1)])
def test_filling_a_kitchen_serves_its_island_too(rules: str, count: int) -> None:
    job = island(rules)
    filled = edited(job, {"op": "fill_room", "room": job.rooms[0].id})
    tops = [box for box in filled.boxes if box.kind == "receptacle" and box.side is None]
    assert [box.height_in for box in tops] == [36.0] * count
    assert not found(filled, "island-no-receptacle") and not found(filled, "island-provision")
