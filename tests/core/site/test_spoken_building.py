"""Rooms, walls, boxes, panels, ways and bends as they are spoken: the same job as in the words of the guide."""

from __future__ import annotations

import pytest

from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.measure import show
from levelrun.samples import sample
from tests.conftest import built, edited

DEMO = sample("quince-hollow")
HOUSE = built("room Hall 6' x 12'")
SAID = {
    "a 12' x 10' Den east of the kitchen": "room Den 12' x 10' east of Kitchen",
    "add a room 12' x 10' called Den east of Kitchen": "room Den 12' x 10' east of Kitchen",
    "room Den is 12' by 10' east of Kitchen": "room Den 12' x 10' east of Kitchen",
    "room called Den, 12' x 10' east of Kitchen": "room Den 12' x 10' east of Kitchen",
    "put a door in the kitchen south wall, 3' wide": "door south 3' in Kitchen",
    "door in the south wall of Kitchen 3' wide 2' from the left": "door south 3' at 2' in Kitchen",
    "a window in the kitchen east wall, 3' wide, 4' tall, centered": "window east 3' x 4' at centre in Kitchen",
    "a 4' x 3' window on the north wall of Kitchen, 5' from the left": "window north 4' x 3' at 5' in Kitchen",
    "window 4' x 3' on the north wall of Kitchen 5' from the left": "window north 4' x 3' at 5' in Kitchen",
    "a 3' door in the south wall of Kitchen": "door south 3' in Kitchen",
    "House ceiling is 9'": "the ceiling of House is 108\"",
    "kitchen walls are 2x4 studs 24\" on center": "frame all in Kitchen 2x4 at 24\"",
    "the north wall of the Kitchen is foamed": "frame north in Kitchen foam",
    "kitchen west is bearing 2x6 insulated": "frame west in Kitchen bearing 2x6 batts",
    "the bath is damp": "place in Bath damp",
    "Bath is wet and guarded": "place in Bath wet guarded",
    "the kitchen is laid out": "laid out Kitchen",
    "an outlet every 6 ft on the north wall of Kitchen": "set receptacle in Kitchen every 6 ft along north",
    "outlets every 6' in Kitchen": "set receptacle in Kitchen every 6 ft along north east south west",
    "add outlets in Kitchen every 6' all around": "set receptacle in Kitchen every 6 ft along north east south west",
    "dryer outlet in Utility on the east wall 4' from the left": "set receptacle in Utility east 4' for dryer",
    "a gfci on the north wall of Bath 2'": "set gfci outlet in Bath north 2'",
    "a switch in the kitchen, 2' from the right on the north wall": "set switch in Kitchen north 2' from the right",
    "put a double gang switch in Kitchen north 2'": "set switch in Kitchen north 2' 2 gangs",
    "a 200 amp panel called M with 30 spaces on the west wall of Utility": (
        "panel M 200a 30 spaces on the west wall of Utility"
    ),
    "a 100 amp sub-panel G with 12 spaces in the garage": "panel G 100a 12 spaces sub in garage",
    "subpanel G 12 spaces in Utility west": "panel G sub 12 spaces in Utility west",
    "mark R-1 and R-2": "change R-1: marked yes; change R-2: marked yes",
    "run circuit 9 through the attic": "way 9 over top",
    "9 goes under the floor": "way 9 by crawl",
    "send R-4 through the studs": "way R-4 through studs",
    "R-4 over the top": "way R-4 over top",
    "a 4\" offset in leg 2 of Kiln shop feeder": "bend leg 2 of Kiln shop feeder: offset 4\"",
    "bend an offset 4\" at 30 into leg 2 of Kiln shop feeder": "bend leg 2 of Kiln shop feeder: offset 4\" at 30",
    "pull 1 of Kiln shop feeder is 1-1/4": "size pull 1 of Kiln shop feeder to 1-1/4",
    "make pull 1 of Kiln shop feeder 1-1/4": "size pull 1 of Kiln shop feeder 1-1/4",
    "feed pull 1 of Kiln shop feeder from Panel H": "feed pull 1 of Kiln shop feeder at Panel H",
}  # fmt: skip


@pytest.mark.parametrize("spoken", SAID)
def test_the_same_job(spoken: str) -> None:
    found = built(spoken, DEMO)
    assert found == built(SAID[spoken], DEMO)
    assert found != DEMO


def test_a_window_is_no_room() -> None:
    with pytest.raises(TextError, match=r"a room by its name|no room is chosen"):
        built("a 4' x 3' window centered", DEMO)


def test_a_second_thing_on_a_ceiling_hangs_beside_the_first() -> None:
    job = built("a light in Hall; a smoke alarm in Hall; a fan in Hall", HOUSE)
    assert [(box.x_in, box.y_in) for box in job.boxes] == [(36.0, 72.0), (36.0, 96.0), (36.0, 120.0)]


def test_joists_and_ceiling_of_the_level_looked_at() -> None:
    high = built("the ceiling is 8'6", HOUSE)
    assert [level.height_in for level in high.structures[0].levels] == [102.0]
    turned = {way: built(f"joists run {way}", HOUSE).structures[0].levels[0].joists for way in ("ns", "east west")}
    assert turned == {"ns": "y", "east west": "x"}


def test_walls_of_the_room_looked_at() -> None:
    room = HOUSE.rooms[0].id
    job = edited(HOUSE, {"op": "say", "text": 'studs 24" on center', "room": room})
    assert {side.spacing_in for side in job.rooms[0].sides} == {24.0}
    one = edited(HOUSE, {"op": "say", "text": "the east wall is 2x6", "room": room})
    assert [side.stud for side in one.rooms[0].sides] == ["2x4", "2x6", "2x4", "2x4"]


@pytest.mark.parametrize("kind", ["light", "fan", "smoke alarm"])
def test_what_hangs_without_a_place_hangs_in_the_middle_and_that_is_told(kind: str) -> None:
    edit = {"op": "say", "text": f"a {kind} in the hall"}
    job = edited(HOUSE, edit)
    (box,) = job.boxes
    assert (box.x_in, box.y_in, show(box.height_in)) == (36.0, 72.0, "8′")


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("a switch in the kitchen", "Kitchen lacks no switch by the rules of its use: say a wall"),
        ("put a door in the moon", "a room by its name"),
        ("a window in the kitchen east wall, 3' wide, 4' far", "4′: say `at` before its place, tall after"),
        ('a 4" offset in leg 99 of Kiln shop feeder', "legs, not 99"),
        ("pull 9 of Kiln shop feeder is 2", "pulls of pipe"),
        ("the north wall of Kitchen is blue", "studs, a spacing, a finish or insulation, found 'blue'"),
        ("Kitchen is 15' x", "a length"),
        ("joists run uphill", "expected a sentence"),
    ],
)
def test_what_cannot_be_read_is_refused_in_words(text: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        built(text, DEMO)


def test_a_room_is_not_called_by_its_verb() -> None:
    with pytest.raises(TextError, match="name in double quotes, found"):
        built("room Den is 12'", DEMO)
