"""Houses of more than one floor, as they are told: which level a word means, where it lies, heights by hand."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job, Level
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text


def levels(text: str) -> dict[str, tuple[float, float]]:
    return {level.name: (level.floor_in, level.height_in) for level in read_text(text).structures[0].levels}


def on(job: Job, name: str) -> Level:
    room = next(item for item in job.rooms if item.name == name)
    return next(level for level in job.structures[0].levels if level.id == room.level)


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("two story house", {"Main floor": (0, 96), "Second floor": (108, 96)}),
        ("house, 2 floors", {"Main floor": (0, 96), "Second floor": (108, 96)}),
        ("old two-storey house", {"Main floor": (0, 96), "Second floor": (108, 96)}),
        ("one story house", {"Main floor": (0, 96)}),
        ("house with two floors and 9' ceilings", {"Main floor": (0, 108), "Second floor": (120, 108)}),
        ("2-story house with a basement and an attic",
         {"Basement": (-102, 90), "Main floor": (0, 96), "Second floor": (108, 96), "Attic": (216, 60)}),
        ("three story house", {"Main floor": (0, 96), "Second floor": (108, 96), "Third floor": (216, 96)}),
        ("house with an attic\nlevel upstairs",  # it comes under the attic
         {"Main floor": (0, 96), "Second floor": (108, 96), "Attic": (216, 60)}),
        ("house\nlevel second floor 9' high\nlevel crawl", {"Crawl space": (-44, 32), "Main floor": (0, 96),
                                                            "Second floor": (108, 108)}),
        ("house\nlevel floor above 10'", {"Main floor": (0, 96), "Second floor": (120, 96)}),
        ("two story house\nlevel second floor above 10'", {"Main floor": (0, 96), "Second floor": (120, 96)}),
    ],
)  # fmt: skip
def test_the_floors_of_a_house(text: str, expected: dict[str, tuple[float, float]]) -> None:
    assert levels(text) == expected


@pytest.mark.parametrize(
    ("room", "floor"),
    [
        ("bedroom 10' x 12' upstairs", "Second floor"),
        ("bedroom 10' x 12' on the second floor", "Second floor"),
        ("bedroom 10' x 12' over the kitchen", "Second floor"),
        ("bedroom 10' x 12' above kitchen", "Second floor"),
        ("bedroom 10' x 12' downstairs", "Main floor"),
        ("bedroom 10' x 12' on the first floor", "Main floor"),
        ("bedroom 10' x 12' east of the kitchen", "Main floor"),
        ("bedroom 10' x 12' in the attic", "Attic"),
        ("bedroom 10' x 12' below the kitchen", "Basement"),
        ("bedroom 10' x 12' in the basement", "Basement"),
        ("bedroom 10' x 12' over the house", "Attic"),
    ],
)
def test_the_level_of_a_room(room: str, floor: str) -> None:
    job = read_text(f"house\nkitchen 12' x 12'\n{room}")
    assert on(job, "Bedroom").name == floor
    assert on(job, "Kitchen").name == "Main floor"
    beside = read_text(f"house\nkitchen 12' x 12'\n{room}\nbath 6' x 8' east of bedroom")
    assert on(beside, "Bath").name == floor


def test_a_room_named_by_its_floor() -> None:
    job = read_text(
        "house\nkitchen 12' x 12'\nupstairs bath 6' x 8'\nsecond floor hall 4' x 9'\ndownstairs bath 5' x 6'"
    )
    assert [on(job, name).name for name in ("Upstairs bath", "Second floor hall", "Downstairs bath")] == [
        "Second floor", "Second floor", "Main floor",
    ]  # fmt: skip
    assert [room.use for room in job.rooms] == ["kitchen", "bath", "hall", "bath"]


def test_a_room_over_another_stands_over_it() -> None:
    job = read_text("house\nden 10' x 10'\ngarage 20' x 20' east of den\nbonus room 12' x 14' over the garage")
    garage, bonus = (next(r for r in job.rooms if r.name == name) for name in ("Garage", "Bonus room"))
    low = [tuple(min(at[axis] for at in room.corners) for axis in (0, 1)) for room in (garage, bonus)]
    assert low[0] == low[1] and on(job, "Bonus room").floor_in == 108


def test_to_look_at_a_floor_changes_nothing_of_it() -> None:
    told = "house\nlevel upstairs height 7' joists ew\nkitchen 10' x 10' downstairs"
    again = read_text(f"{told}\nlevel upstairs\nlevel floor")
    assert again.structures == read_text(told).structures
    assert again.structures[0].levels[1].height_in == 84 and again.structures[0].levels[1].joists == "x"


def test_a_cable_goes_from_floor_to_floor() -> None:
    """By hand: from an outlet at 16 in to one right over it on the next floor 108 in and what the two ends want."""
    job = read_text(
        "two story house\nden 12' x 12'\nbedroom 12' x 12' over the den\npanel H 200a 40 spaces in den west 4'\n"
        "outlet in den on the north wall 4'\noutlet in bedroom on the north wall 4'\ncircuit 1 20a: R-1 R-2"
    )
    first, second = job.boxes
    assert second.height_in - first.height_in == 108
    (planned,) = plan(job).circuits
    hop = next(row for row in planned.chain if row.box == second.id)
    assert hop.length_in is not None and 108 <= hop.length_in <= 108 + 48
