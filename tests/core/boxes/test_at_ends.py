"""Switches at the ends of stairs and halls, things in corners, by doors of several: where they come to stand."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

STAIRS = "two story house\nstairs 3' x 12'\nhall 4' x 12' east of stairs\nupstairs hall 4' x 12'\n"
HOUSE = (
    "house\nrec room 20' x 14'\nbedroom 11' x 12' east of rec room\nbath 6' x 9' north of bedroom\n"
    "door between rec room and bedroom\ndoor between bedroom and bath\n"
)


def told(text: str, job: Job) -> str:
    return "; ".join(said_on(job, text, Looked(room=job.rooms[-1].id))[1].told)


def test_a_switch_at_the_bottom_and_one_at_the_top_of_the_stairs() -> None:
    """48 in to the top of each box over the floor that is there: the second floor is 108 in over the first."""
    job = read_text(f"{STAIRS}stair light\n3-way switches at the top and bottom of the stairs")
    light, *switches = job.boxes
    top, bottom = sorted(switches, key=lambda box: -box.height_in)
    assert {box.ways for box in switches} == {3} and {box.room for box in job.boxes} == {light.room}
    assert top.height_in - bottom.height_in == 108 and bottom.height_in + 3.75 / 2 == 48
    assert top.at_in is not None and bottom.at_in is not None and abs(top.at_in - bottom.at_in) > 8 * 12
    codes = {item.code for item in plan(job).findings}
    assert not codes & {"switch-high", "three-way", "room-no-switch", "box-no-stud"}


@pytest.mark.parametrize(
    "text",
    [
        "3-way switch at the bottom of the stairs\n3-way switch at the top of the stairs",
        "switches at the top and bottom of the stairs",
        "switches at both ends of the stairs",
        "stair light with a 3-way switch at each end",
    ],
)
def test_however_it_is_said(text: str) -> None:
    job = read_text(
        f"{STAIRS}room Landing 3' x 3' in the basement\n{text.replace('switches at', 'switches in stairs at')}"
    )
    switches = [box for box in job.boxes if box.kind == "switch"]
    assert sorted(round(box.height_in) for box in switches) == [46, 154]
    assert {box.ways for box in switches} == {3}


def test_light_of_the_stairs_hangs_behind_both() -> None:
    """By hand: the bottom switch to the top one 9 ft up and about 9 1/2 along; travellers between them (14-3)."""
    job = read_text(
        f"{STAIRS}stair light\nswitches in stairs at both ends of the stairs\n"
        "panel H 200a 40 spaces in hall on the east wall\npropose circuits"
    )
    (circuit,) = plan(job).circuits
    first, second, light = circuit.chain
    assert [row.kind for row in circuit.chain] == ["switch, 3-way", "switch, 3-way", "light"]
    assert ("14-2" in first.cable, "14-3" in second.cable, light.after) == (True, True, second.box)
    assert second.length_in is not None and 12 * 17 <= second.length_in <= 12 * 23


def test_no_stairs_without_a_floor_over_them() -> None:
    job = read_text("house\nstairs 3' x 12'")
    with pytest.raises(TextError, match="no floor is over Stairs"):
        said_on(job, "switch at the top of the stairs", Looked(room=job.rooms[0].id))
    assert said_on(job, "switch at the bottom of the stairs", Looked(room=job.rooms[0].id))[0].boxes
    hall = read_text("house\nhall 4' x 12'")
    with pytest.raises(TextError, match="Hall is no stairs"):
        said_on(hall, "switch at the top", Looked(room=hall.rooms[0].id))


def test_both_ends_of_a_hall() -> None:
    job = read_text("house\nhall 4' x 12'\nhall light in hall with a 3-way switch at each end")
    switches = [box for box in job.boxes if box.kind == "switch"]
    assert len(switches) == 2 and {box.ways for box in switches} == {3}
    assert len({box.height_in for box in switches}) == 1
    assert [box.kind for box in job.boxes].count("light") == 1


def test_of_two_doors_a_switch_goes_by_the_one_that_leads_in() -> None:
    job = read_text(HOUSE)
    after, look = said_on(job, "switch by the door in bedroom", Looked(room=job.rooms[0].id))
    assert len(after.boxes) == 1 and "by the west door to Rec room" in "; ".join(look.told)
    with pytest.raises(TextError, match="has 3 such doors"):  # two that lead in
        read = read_text(f"{HOUSE}hall 4' x 12' south of bedroom\ndoor between hall and bedroom")
        said_on(read, "switch by the door in bedroom", Looked(room=job.rooms[0].id))


def test_by_two_doors_by_their_walls() -> None:
    job = read_text("barn 36' x 48'\ndoor north 4'\ndoor south 4'\ndoor east 4'")
    after = said_on(job, "3-way switches at the north and south doors", Looked(room=job.rooms[0].id))[0]
    assert [(box.ways, box.side) for box in after.boxes] == [(3, 0), (3, 2)]


@pytest.mark.parametrize(
    ("text", "side", "at"),
    [
        ("outlet in the northeast corner", 0, 12 * 12 - 24),  # the north wall from its left, the west
        ("outlet in the north west corner", 0, 24),
        ("outlet in the southwest corner", 2, 12 * 12 - 24),  # the south wall from its left, the east
        ("air compressor in the south-east corner", 2, 24),
    ],
)
def test_a_corner(text: str, side: int, at: float) -> None:
    job = read_text("house\nden 12' x 12'")
    (box,) = said_on(job, text, Looked(room=job.rooms[0].id))[0].boxes
    assert box.side == side and box.at_in == pytest.approx(at, abs=3)


def test_a_corner_of_which_nobody_said_which() -> None:
    job = read_text("house\nden 12' x 12'")
    with pytest.raises(TextError, match="say which corner") as refused:
        said_on(job, "outlet in the corner", Looked(room=job.rooms[0].id))
    assert "in the northeast corner" in refused.value.allowed
    (light,) = said_on(job, "light in the southeast corner", Looked(room=job.rooms[0].id))[0].boxes
    assert (light.x_in, light.y_in) == (120, 24)


def test_an_alarm_on_every_floor() -> None:
    """IRC R314: one on every level with a floor that is used; the basement too, the attic not."""
    job = read_text(
        "two story house with a basement and an attic\nkitchen 12' x 12'\nhall 4' x 12'\nbedroom 12' x 12' upstairs\n"
        "bath 6' x 8' upstairs\nrec room 20' x 12' in the basement\nroom Store 9' x 9' in the attic\n"
        "smoke alarms on every floor"
    )
    rooms = {room.id: room.name for room in job.rooms}
    assert {rooms[box.room or ""] for box in job.boxes} == {"Rec room", "Hall", "Bedroom"}
    assert not [item for item in plan(job).findings if "no smoke alarm" in item.title]


@pytest.mark.parametrize(("height", "middle"), [("8'", 96), ("13'", 156), ("16'", 192)])
def test_a_height_is_as_typed_however_high(height: str, middle: float) -> None:
    """It was cut to twelve feet, without a word."""
    job = read_text("shop 24' x 30'")
    (box,) = said_on(job, f"switch on the north wall 5' at {height}", Looked(room=job.rooms[0].id))[0].boxes
    assert box.height_in + 3.75 / 2 == middle  # the top of the box is what the pole marks


@pytest.mark.parametrize(
    ("text", "kind", "size"),
    [
        ("island 6' long", "island", (72, 36)), ("kitchen island 6' x 3'", "island", (72, 36)),
        ("kitchen counter along the east wall", "counter", (168, 25)),
        ("wood stove on the north wall", "fireplace", (48, 20)),
    ],
)  # fmt: skip
def test_things_as_they_are_called(text: str, kind: str, size: tuple[float, float]) -> None:
    job = read_text("cabin\ngreat room 20' x 14'")
    (thing,) = said_on(job, text, Looked(room=job.rooms[0].id))[0].fixtures
    assert (thing.kind, (thing.width_in, thing.depth_in)) == (kind, size)


def test_what_a_tank_holds_is_nothing_that_a_wire_goes_by() -> None:
    job = read_text("cabin\nutility 8' x 8'")
    (box,) = said_on(job, "water heater 20 gallon on the south wall", Looked(room=job.rooms[0].id))[0].boxes
    assert (box.serves, box.side) == ("water_heater", 2)
    (fan,) = said_on(job, "bath fan with a light", Looked(room=job.rooms[0].id))[0].boxes
    assert fan.kind == "fan"


@pytest.mark.parametrize(
    ("text", "count"),
    [("8 led strip lights in 2 rows", 8), ("outlets every 6' along the walls", 16), ("fan and light combo", 1),
     ("220 outlet on the north wall 12'", 1), ("led light", 1)],
)  # fmt: skip
def test_boxes_in_other_words(text: str, count: int) -> None:
    job = read_text("shop 30' x 30'")
    made = said_on(job, text, Looked(room=job.rooms[0].id))[0].boxes
    assert len(made) == count
    assert "220" not in text or made[0].nema == "6-20"


def test_switches_for_what_they_work() -> None:
    job = read_text(f"{HOUSE}bath fan in bath\nlight in bath\nswitches in bath for both by the south door")
    switch = job.boxes[-1]
    assert switch.kind == "switch" and switch.side is not None
    vanity = said_on(job, 'vanity on the east wall 30"', Looked(room=job.rooms[-1].id))[0].fixtures[-1]
    assert vanity.width_in == 30


@pytest.mark.parametrize(
    ("text", "count"),
    [
        ("outlets on the east wall every 6'", 4),
        ("6 outlets spread along the walls", 6),
        ("3 outlets spread around", 3),
    ],
)
def test_boxes_spread_as_they_are_called_out(text: str, count: int) -> None:
    job = read_text("shop 30' x 30'")
    assert len(said_on(job, text, Looked(room=job.rooms[0].id))[0].boxes) == count


def test_a_height_behind_a_wall_is_no_place_along_it() -> None:
    job = read_text("house\nden 12' x 14'")
    (box,) = said_on(job, 'tv outlet on the north wall at 60" high', Looked(room=job.rooms[0].id))[0].boxes
    assert box.height_in + 3.75 / 2 == 60 and box.at_in == 72  # the top of the box is what the pole marks
    (box,) = said_on(job, 'outlet on the north wall at 60"', Looked(room=job.rooms[0].id))[0].boxes
    assert box.at_in == pytest.approx(60, abs=3)


@pytest.mark.parametrize(
    ("text", "kind", "old"),
    [
        ("1920s bungalow", "house", True), ("chicken coop 8' x 10'", "shed", False),
        ("pole barn 30' x 40'", "shop", False), ("old farmhouse", "house", True),
        ("bunkhouse 16' x 20'", "cabin", False),
    ],
)  # fmt: skip
def test_buildings_as_they_are_called(text: str, kind: str, old: bool) -> None:
    (there,) = read_text(text).structures
    assert (there.kind, there.existing) == (kind, old)
