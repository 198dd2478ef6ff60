"""Rules over rooms: what is asked of a dwelling and of no other building, and reach to the inch.

Source: NFPA 70 (NEC) 2023, 110.26(A), 210.52(A), (C), (D), (E), (G), 406.9(C); IRC R314.3; from memory.
"""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from tests.conftest import built, edited, found


def house(text: str, kind: str = "house") -> Job:
    return built(f"structure {kind} Place; {text}")


def said(text: str, code: str, kind: str = "house") -> bool:
    return bool(found(house(text, kind), code))


@pytest.mark.parametrize(("kind", "wanted"), [("house", True), ("cabin", True), ("shop", False), ("shed", False)])
def test_walls_are_spaced_in_dwellings_only(kind: str, wanted: bool) -> None:
    assert said("room Office 14' x 12' as common", "wall-no-receptacle", kind) is wanted


@pytest.mark.parametrize(
    ("use", "wanted"),
    [("kitchen", True), ("dining", True), ("common", True), ("bath", False), ("laundry", False), ("garage", False)],
)
def test_counters_are_spaced_where_food_is_made(use: str, wanted: bool) -> None:
    assert said(f"room Here 12' x 12' as {use}; mark counter north 6' at 2'", "counter-no-receptacle") is wanted


@pytest.mark.parametrize(("height", "wanted"), [(44, False), (55, False), (57, True), (64, True)])
def test_a_counter_outlet_stands_at_most_20_in_over_its_top(height: int, wanted: bool) -> None:
    job = house(
        "room Here 12' x 12' as kitchen; mark counter north 3' at 2'; set receptacle north 3'6 for counter as K"
    )
    box = next(item.id for item in job.boxes if item.name == "K")
    job = edited(job, {"op": "set", "kind": "box", "id": box, "set": {"height_in": height}})
    assert bool(found(job, "counter-no-receptacle")) is wanted


@pytest.mark.parametrize(
    ("where", "wanted"),
    [("north 5'", False), ("east 1'", False), ("south 5'", True), ("west 5'", True)],
)
def test_a_basin_is_served_from_its_wall_or_the_next(where: str, wanted: bool) -> None:
    """36 in from the edge of the basin, also round the corner (210.52(D))."""
    text = f"room Bath 8' x 9' as bath; mark basin north 2' at 5'; set receptacle {where} as B"
    assert said(text, "bath-no-receptacle") is wanted


@pytest.mark.parametrize(
    ("use", "wanted"),
    [("garage", True), ("laundry", True), ("utility", False), ("storage", False), ("closet", False)],
)
def test_rooms_that_want_a_receptacle_at_all(use: str, wanted: bool) -> None:
    assert said(f"room Here 9' x 9' as {use}", "room-no-receptacle") is wanted


def test_an_openers_outlet_is_not_the_receptacle_of_the_bay() -> None:
    """210.52(G)(1): one each bay, 5 1/2 ft up at most, besides those for equipment."""
    garage = "room Garage 20' x 20' as garage"
    assert said(f"{garage}; set receptacle north 6' for opener as G", "room-no-receptacle")
    assert not said(f"{garage}; set receptacle north 6' as G", "room-no-receptacle")
    job = house(f"{garage}; set receptacle north 6' as G")
    high = edited(job, {"op": "set", "kind": "box", "id": job.boxes[0].id, "set": {"height_in": 84}})
    assert found(high, "room-no-receptacle")


@pytest.mark.parametrize(("use", "wanted"), [("bedroom", True), ("bath", True), ("closet", False)])
def test_rooms_that_want_a_light(use: str, wanted: bool) -> None:
    """210.70(A)(1): habitable rooms, kitchens, baths; a closet is none of them."""
    assert said(f"room Here 9' x 9' as {use}", "room-no-light") is wanted


# outer faces with a receptacle: whether front and back are served
OUTDOORS = {
    "north and south": (("north", "south"), True),
    "east and west": (("east", "west"), True),
    "north and west": (("north", "west"), False),
    "north alone": (("north",), False),
    "none": ((), False),
}


@pytest.mark.parametrize("name", OUTDOORS)
def test_receptacles_outdoors_stand_at_front_and_back(name: str) -> None:
    ways, served = OUTDOORS[name]
    boxes = "".join(f"; set receptacle {way} 5' outside as O{i}" for i, way in enumerate(ways))
    assert said(f"room Here 14' x 14' as common{boxes}", "outdoor-receptacles") is not served


@pytest.mark.parametrize(("over_grade", "counts"), [(78, True), (79, False)])
def test_a_receptacle_out_of_reach_from_the_ground_does_not_count(over_grade: int, counts: bool) -> None:
    job = house(
        "room Here 14' x 14' as common; set receptacle north 5' outside as A; set receptacle south 5' outside as B"
    )
    grade = job.structures[-1].grade_in
    for box in job.boxes:
        job = edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {"height_in": grade + over_grade}})
    assert bool(found(job, "outdoor-receptacles")) is not counts


# depth of the room before the panel in inches, height of its level in feet: whether there is room to work
SPACES = {
    "36 in deep, 8 ft high": (36, 8, False),
    "35 in deep, 8 ft high": (35, 8, True),
    "8 ft deep, 6 ft 6 in high": (96, 6.5, False),
    "8 ft deep, 6 ft 4 in high": (96, 6 + 4 / 12, True),
}


@pytest.mark.parametrize("name", SPACES)
def test_working_space_before_a_panel(name: str) -> None:
    deep, high, short = SPACES[name]
    job = house(f"room Here 10' x {deep}\" as utility; panel north 5' as P")
    levels = [{**level.model_dump(), "height_in": 12 * high} for level in job.structures[-1].levels]
    job = edited(job, {"op": "set", "kind": "structure", "id": job.structures[-1].id, "set": {"levels": levels}})
    spaces = found(job, "panel-space")
    assert bool(spaces) is short, [item.title for item in spaces]


def sleeping(extra: str = "") -> Job:
    return house("room Living 14' x 14' as common; room Bed 12' x 12' east of Living as bedroom; door west 3' at 3'; "
                 f"set smoke centre as A{extra}")  # fmt: skip


def test_an_alarm_stands_outside_the_bedroom_whatever_the_room_is_called() -> None:
    """IRC R314.3: in the immediate vicinity of the bedrooms."""
    outside = [item for item in found(sleeping(), "smoke-missing") if "outside" in item.title]
    assert [item.title for item in outside] == ["No smoke alarm outside Bed"]
    mended = edited(sleeping(), *outside[0].mends[0].edits)
    assert not found(mended, "smoke-missing")
    living = next(room.id for room in sleeping().rooms if room.name == "Living")
    assert not found(built("set smoke centre as B", sleeping(), room=living), "smoke-missing")


@pytest.mark.parametrize(
    ("size", "wanted"),
    [("10' x 8'", True), ("10' x 6'", False), ("20' x 5'", False)],  # 80 ft², 60 ft², a hallway by its width
)
def test_a_foyer_is_asked_over_60_square_feet(size: str, wanted: bool) -> None:
    job = house(f"room Entry {size} as hall; door south 3'")
    said = found(job, "foyer-asked")
    assert bool(said) is wanted
    if wanted:
        assert said[0].severity == "check"
        assert not found(edited(job, *said[0].mends[0].edits), "foyer-asked")


def test_one_alarm_has_nothing_to_be_joined_to() -> None:
    assert not said("room Bed 12' x 12'; set smoke 3' x 3'", "alarms-joined")
    assert not said("room Bed 12' x 12'; set smoke 3' x 3'; set smoke 9' x 9'", "alarms-joined", "shop")
