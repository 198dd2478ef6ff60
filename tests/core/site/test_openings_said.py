"""Doors and windows said together: several on a wall, one on each, over what stands there; what hangs over them."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built

ROOM = built("room Living room 16x14")  # north and south 192 in, east and west 168 in
SHOP = built("room Shop 24x30 as shop\ntwo 9' doors on the south wall\nman door on the east wall")


def said(text: str, job: Job = ROOM) -> tuple[Job, tuple[str, ...]]:
    after, looked = said_on(job, text, Looked(room=job.rooms[0].id), "set")
    return after, looked.told


def opened(job: Job) -> list[tuple[int, float, float]]:
    return [(item.side, item.at_in, item.width_in) for item in job.openings]


@pytest.mark.parametrize(
    ("text", "places"),
    [
        ("two windows on the north wall 3' wide", [30, 126]),  # a quarter of 192 less 18, three quarters less 18
        ("2 windows on the north wall", [30, 126]),
        ("two 3' windows on the north wall at 2' and 8'", [24, 96]),
        ("three 2'6\" windows on the north wall", [17, 81, 145]),
        ("window on the north wall 4' wide", [72]),
        ("two windows on the north wall 3' wide at 1' from the right and 1'", [144, 12]),
    ],
)
def test_several_on_a_wall(text: str, places: list[float]) -> None:
    job, _ = said(text)
    assert [at for _, at, _ in opened(job)] == places and {item.kind for item in job.openings} == {"window"}


def test_one_on_each_wall_beside_what_is_in_the_way() -> None:
    job, _ = said("door south 3' at 6'6; window on every wall 3' wide")
    door, *windows = opened(job)
    assert sorted(side for side, _, _ in windows) == [0, 1, 2, 3]
    (beside,) = [at for side, at, _ in windows if side == door[0]]
    assert beside + 36 <= door[1] or beside >= door[1] + 36
    twice, _ = said("window on the east wall; window on the east wall")
    (_, one, _), (_, two, _) = opened(twice)
    assert abs(one - two) >= 36


@pytest.mark.parametrize("first", ["sink on the north wall at 2'; ", ""])
def test_a_window_over_the_sink(first: str) -> None:
    job, _ = said(first + "window over the sink on the north wall 4' wide")
    (window,) = job.openings
    middle = window.at_in + window.width_in / 2
    sink = next((item.at_in + item.width_in / 2 for item in job.fixtures), 96.0)
    assert middle == sink
    with pytest.raises(TextError, match="tub: none is marked"):
        said("window above the tub")


@pytest.mark.parametrize(
    ("text", "wrong"),
    [
        ("two windows on the north wall at 3'", "2 of them at 1 place"),
        ("two 9' doors on the north wall", "216 in of openings do not fit"),
        ("two windows on the north wall at 3' and 15'", "does not fit"),
    ],
)
def test_what_does_not_fit_is_told(text: str, wrong: str) -> None:
    with pytest.raises(TextError, match=wrong):
        said(text)


def test_a_door_as_wide_as_a_car_is_a_garage_door() -> None:
    assert [item.kind for item in SHOP.openings] == ["garage_door", "garage_door", "door"]
    job, told = said("8' door on the south wall")
    assert job.openings[0].kind == "garage_door" and any("taken as a garage door" in line for line in told)
    assert said("6'11 door on the south wall")[0].openings[0].kind == "door"


@pytest.mark.parametrize(
    ("text", "count"),
    [
        ("lights over the garage doors", 2), ("light over each garage door", 2),
        ("two lights over the garage doors", 2),
        ("light over the man door", 1), ("two lights over the man door", 2),
    ],
)  # fmt: skip
def test_lights_over_doors_hang_outside_over_their_heads(text: str, count: int) -> None:
    job, told = said(text, SHOP)
    lights = [box for box in job.boxes if box.kind == "light"]
    assert len(lights) == count and all(box.outdoors for box in lights)
    for box in lights:
        over = [o for o in job.openings if o.side == box.side and o.at_in < (box.at_in or 0) < o.at_in + o.width_in]
        assert len(over) == 1 and (box.height_in or 0) > over[0].head_in
    assert any("outside, over the door" in line for line in told)
    with pytest.raises(TextError, match="2 such doors: say which"):
        said("light over the garage door", SHOP)


def test_outlets_every_so_many_feet_stand_beside_a_window_that_is_as_low() -> None:
    """In a shop they hang at 48 in, where windows are; in a room they are under them."""
    shop, _ = said("two windows on the north wall 3' wide; outlets every 6' along north", SHOP)
    assert not {"box-opening", "in-window"} & {item.code for item in plan(shop).findings}
    assert not any("stands in a window" in item.title for item in plan(shop).findings)
    room, _ = said("window north 3'; outlets every 4' along north exactly")
    assert [box.at_in for box in room.boxes] == [48, 96, 144]


def test_a_heading_says_of_which_room_what_follows_is() -> None:
    two = built("room Bedroom 11x12\nroom Hall 4x12 south of Bedroom")
    for text in ("in bedroom: door south 3'", "bedroom: door south 3'", "in the bedroom; door south 3'"):
        job, _ = said_on(two, text, Looked(room=two.rooms[1].id))
        assert job.openings[0].room == two.rooms[0].id, text


def test_behind_a_screen_on_the_wall_an_outlet_is_high() -> None:
    job, told = said("outlet behind the tv on the north wall")
    (box,) = job.boxes
    assert box.name == "TV" and 55 <= (box.height_in or 0) <= 62 and any("60″ high" in line for line in told)
    low, _ = said('outlet behind the tv on the north wall at 20" high')
    assert (low.boxes[0].height_in or 0) < 24


@pytest.mark.parametrize(
    ("text", "kind", "nema", "count"),
    [
        ("6-50 for the welder on the north wall", "receptacle", "6-50", 1),
        ("nema 14-50 on the east wall", "receptacle", "14-50", 1),
        ("four 4 ft led strips in two rows", "light", "", 4),
        ("8 led strip lights in 2 rows", "light", "", 8),
        ("heat lamps, 2 at 250 watts each", "receptacle", "", 2),
        ("two heat lamps", "receptacle", "", 2),
    ],
)
def test_things_by_their_plug_their_length_and_their_count(text: str, kind: str, nema: str, count: int) -> None:
    job, _ = said(text, SHOP)
    assert [(box.kind, box.nema) for box in job.boxes] == [(kind, nema)] * count
    if "heat lamp" in text:
        assert {box.load_w for box in job.boxes} == {250.0}
    with pytest.raises(TextError, match="how many heat lamps"):
        said("heat lamps", SHOP)
