"""Boxes that are said by what they are beside, by how many, by amperes: each place by hand."""

from __future__ import annotations

import pytest

from levelrun.core.edits import EDITS, Looked, apply, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import built, found

# Den 12' by 15': a door south to outdoors and one east to Hall, both hinged left, so that the latch is at the right.
HOME = built(
    "room Den 12' x 15'; room Hall 4' x 15' east of Den; door in Den south 3' at 4'; door in Den east 30\" at 2'"
)
DEN, HALL = HOME.rooms


def said(text: str, job: Job = HOME, room: str = DEN.id) -> list[Box]:
    """The boxes that a sentence sets."""
    after = said_on(job, text, Looked(room=room, level=DEN.level))[0]
    known = {box.id for box in job.boxes}
    return [box for box in after.boxes if box.id not in known]


def told(text: str, job: Job = HOME) -> str:
    return " / ".join(said_on(job, text, Looked(room=DEN.id, level=DEN.level))[1].told)


@pytest.mark.parametrize(
    ("text", "places"),
    [
        ("4 lights", [(36.0, 45.0), (108.0, 45.0), (36.0, 135.0), (108.0, 135.0)]),
        ("6 recessed lights", [(36, 30), (108, 30), (36, 90), (108, 90), (36, 150), (108, 150)]),
        ("two lights in Den", [(72.0, 45.0), (72.0, 135.0)]),
        ("3 can lights in the Den", [(72.0, 30.0), (72.0, 90.0), (72.0, 150.0)]),
        ("a light", [(72.0, 90.0)]),
        ("ceiling fan in the middle of the ceiling", [(72.0, 90.0)]),
        ("smoke alarm in the ceiling", [(72.0, 90.0)]),
    ],
)
def test_under_the_ceiling_in_even_rows(text: str, places: list[tuple[float, float]]) -> None:
    """Half a space from the walls, spaces as square as may be: for 4 under 144 by 180 two rows of 72 by 90, for 2 one
    column of 144 by 90, for 6 three rows of 72 by 60."""
    assert [(box.x_in, box.y_in) for box in said(text)] == places


def test_several_along_a_wall_share_it_evenly() -> None:
    exact = said("3 receptacles on the west wall exactly")
    assert [box.at_in for box in exact] == [30.0, 90.0, 150.0]  # 180 in three parts, the middle of each
    assert "3 spread along the west wall" in told("3 receptacles on the west wall exactly")


def test_a_wall_alone_is_its_middle_and_told() -> None:
    box = said("receptacle on the west wall exactly")[0]
    assert (box.side, box.at_in) == (3, 90.0)
    assert "in the middle of the west wall" in told("receptacle on the west wall")


def test_a_door_in_the_middle_leaves_the_nearest_free_place() -> None:
    """A door of 16 ft at 2 ft on a wall of 20: beside it, told; where the door takes the wall, it is asked."""
    job = built("room Bay 20' x 20'; garage door south 16' at 2'")
    after, seen = said_on(job, "receptacle on the south wall", Looked(room=job.rooms[0].id))
    assert not 24 <= (after.boxes[0].at_in or 0.0) <= 216 and "nearest free place" in seen.told[0]
    shut = built("room Bay 20' x 20'; garage door south 19'10 at 1\"")
    with pytest.raises(LevelRunError, match="no place is free on the south wall"):
        said_on(shut, "receptacle on the south wall", Looked(room=shut.rooms[0].id))


@pytest.mark.parametrize(
    ("text", "wall"),
    [
        ("switch by the south door", 2),
        ("switch at the outside door", 2),
        ("switch beside the interior door", 1),
        ("switch by the door to Hall", 1),
        ("receptacle next to the east door", 1),
    ],
)
def test_by_a_door(text: str, wall: int) -> None:
    box = said(text)[0]
    door = next(item for item in HOME.openings if item.side == wall)
    assert box.side == wall and box.at_in is not None
    assert min(abs(box.at_in - door.at_in), abs(box.at_in - door.at_in - door.width_in)) < 24
    assert not door.at_in <= box.at_in <= door.at_in + door.width_in
    if "switch" in text:
        assert box.at_in > door.at_in + door.width_in  # hinged left: the latch is at the right


def test_which_door_is_asked() -> None:
    with pytest.raises(LevelRunError, match="Den has 2 such doors: say which"):
        said("switch by the door")
    with pytest.raises(LevelRunError, match="Den has no such door"):
        said("switch by the garage door")


def test_switches_at_both_doors_are_three_way_and_find_each_other() -> None:
    boxes = said("switches at both doors")
    assert [(box.side, box.ways) for box in boxes] == [(2, 3), (1, 3)] or [(b.side, b.ways) for b in boxes] == [
        (1, 3), (2, 3),
    ]  # fmt: skip
    assert [box.ways for box in said("3-way switches at both doors")] == [3, 3]


def test_two_switches_by_a_door_stand_in_one_box() -> None:
    boxes = said("two switches by the south door")
    assert [box.gangs for box in boxes] == [2]


def test_receptacles_as_the_code_asks_leave_nothing_out_of_reach() -> None:
    for text in ("receptacles to code", "outlets all around", "receptacles along Den", "receptacles on all walls"):
        after = said_on(HOME, text, Looked(room=DEN.id))[0]
        assert after.boxes and not [item for item in found(after, "wall-no-receptacle") if item.subject == DEN.id], (
            text
        )
    assert len(said("receptacles to code")) == len(said("fill")) - len(
        [b for b in said("fill") if b.kind != "receptacle"]
    )


def test_what_a_room_does_not_lack_is_told() -> None:
    filled = said_on(HOME, "fill", Looked(room=DEN.id))[0]
    with pytest.raises(LevelRunError, match="Den lacks no receptacle"):
        said_on(filled, "receptacles to code", Looked(room=DEN.id))
    more = said("9 receptacles")  # as many as were said, apart from each other
    assert len({(box.side, box.at_in) for box in more}) == 9 and "not 9" in told("9 receptacles")


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("50 amp 240 volt outlet on the west wall", {"nema": "6-50", "gangs": 2, "model": "square-42"}),
        ("outlet 50a 240v west 5' for range", {"nema": "14-50", "gangs": 2, "serves": "range"}),
        ("30a 120/240v outlet west 5'", {"nema": "14-30", "gangs": 2, "model": ""}),
        ("30 amp 120 volt outlet west 5'", {"nema": "TT-30"}),
        ("20a outlet west 5'", {"nema": "", "gangs": 1}),
        ("range outlet west 5'", {"serves": "range", "gangs": 2, "model": "square-42"}),
        ("dryer outlet west 5'", {"serves": "dryer", "gangs": 2, "model": ""}),
        ("washer outlet west 5'", {"serves": "washer", "gangs": 1}),
        ("fridge outlet west 5'", {"serves": "refrigerator"}),
        ("outlet for the fridge west 5'", {"serves": "refrigerator"}),
        ("compressor outlet 30a 240v west 5'", {"name": "Compressor", "nema": "6-30"}),
        ("outlet west 5' for planer", {"name": "Planer"}),
        ("water heater 4500 w west 5'", {"kind": "equipment", "serves": "water_heater", "load_w": 4500.0}),
        ("well pump 1-1/2 hp 240v west 5'", {"kind": "equipment", "serves": "pump", "load_w": 2400.0}),
        ("disconnect 60a west 5'", {"kind": "disconnect", "rating_a": 60.0}),
    ],
)
def test_amperes_and_volts_are_told_as_what_they_mean(text: str, expected: dict[str, object]) -> None:
    """ANSI/NEMA WD 6 by memory: 6- for 240 V without a neutral, 14- with one, TT-30 of campers. NEC Table 430.248
    (from memory): 1-1/2 hp at 230 V is 10 A, of 240 V 2,400 VA."""
    box = said(text)[0].model_dump()
    assert {key: box[key] for key in expected} == expected


@pytest.mark.parametrize(
    ("text", "word"),
    [
        ("outlet 60a 240v west 5'", "60 A of 240 V"),
        ("outlet 277v west 5'", "277 V"),
        ("70 lights", "1 to 40"),
        ("20 hp pump west 5'", "20 hp is not in the table"),
    ],
)
def test_what_is_not_made_is_told(text: str, word: str) -> None:
    with pytest.raises(LevelRunError, match=word):
        said(text)


def test_beside_and_behind_what_is_marked() -> None:
    job = said_on(
        HOME, "mark range west at 5'; mark refrigerator north at 2'; mark basin north at 8'", Looked(room=DEN.id)
    )[0]
    behind = said("outlet behind the range", job)[0]
    assert (behind.side, behind.at_in, behind.serves) == (3, 60 + 15, "range")
    assert said("outlet for the fridge behind the fridge", job)[0].serves == "refrigerator"
    beside = said("gfci outlet by the basin", job)[0]
    assert beside.side == 0 and not 96 < (beside.at_in or 0) < 120 and beside.protects == "gfci"
    light = said("vanity light over the basin", job)[0]
    assert light.side == 0 and abs((light.at_in or 0) - (96 + 12)) <= 2  # to the stud beside it, by habit
    with pytest.raises(LevelRunError, match="dishwasher: none is marked in Den"):
        said("outlet behind the dishwasher", job)


def test_an_outlet_whose_place_nobody_said_stands_where_a_wall_is_free() -> None:
    job = said_on(HOME, "set receptacle west 7'6", Looked(room=DEN.id))[0]
    box = said("freezer outlet in Den", job)[0]
    assert box.side in (1, 3) and "where it is free" in told("freezer outlet in Den", job)
    assert all(box.side != other.side or abs((box.at_in or 0) - (other.at_in or 0)) > 16 for other in job.boxes)


def test_under_a_counter_an_appliance_is_plugged_in_low() -> None:
    """Common practice, no source: the outlet of a dishwasher is under the counter, that of the counter over it."""
    job = built("room Kitchen 12' x 14'; mark counter south all")
    dish, top = (
        said_on(job, f"{what} outlet south 5'", Looked(room=job.rooms[0].id))[0].boxes[0]
        for what in ("dishwasher", "counter")
    )
    assert dish.height_in < 36 < top.height_in


@pytest.mark.parametrize(
    ("text", "name", "side", "at", "edge"),
    [
        ("panel S 100a on the west wall at 4'", "S", 3, 48.0, 48.0),
        ("panel N 100a 20 spaces east 3' at 50\"", "N", 1, 36.0, 50.0),
        ("panel s 4'", "P-1", 2, 48.0, 48.0),
        ("panel E 200a on the north wall, 2' from the east corner", "E", 0, 120.0, 48.0),
        ('panel P west at 50"', "P", 3, 90.0, 50.0),
        ("panel P west 3' at 4' high", "P", 3, 36.0, 48.0),
    ],
)
def test_a_panel_whose_name_is_a_wall_in_short(text: str, name: str, side: int, at: float, edge: float) -> None:
    """Feet after a wall are a place along it, inches the height of its lower edge."""
    panel = said_on(HOME, text, Looked(room=DEN.id))[0].panels[0]
    assert (panel.name, panel.side, panel.at_in, panel.height_in) == (name, side, at, edge)


BEDS = built(
    "room Hall 4' x 14'; room Bed 1 12' x 12' west of Hall; room Bed 2 11' x 12' east of Hall;"
    'door between Bed 1 and Hall 30"; door between Bed 2 and Hall 30"'
)


@pytest.mark.parametrize(
    ("text", "rooms"),
    [
        ("smoke alarms in bed 1, bed 2 and hall", ["Bed 1", "Bed 2", "Hall"]),
        ("a smoke alarm in every bedroom", ["Bed 1", "Bed 2"]),
        ("light in Bed 1 and Hall", ["Bed 1", "Hall"]),
        ("ceiling fan in all bedrooms", ["Bed 1", "Bed 2"]),
        ("light in each room", ["Hall", "Bed 1", "Bed 2"]),
        ("light in every hall", ["Hall"]),
        ("light in Hall", ["Hall"]),
    ],
)
def test_the_same_in_several_rooms(text: str, rooms: list[str]) -> None:
    names = {room.id: room.name for room in BEDS.rooms}
    assert sorted(names[box.room or ""] for box in said(text, BEDS, BEDS.rooms[0].id)) == sorted(rooms)


def test_several_in_several_rooms() -> None:
    boxes = said("2 lights in Bed 1 and Bed 2", BEDS, BEDS.rooms[0].id)
    assert len(boxes) == 4 and len({(box.room, box.x_in, box.y_in) for box in boxes}) == 4
    asked = said("receptacles to code in every bedroom", BEDS, BEDS.rooms[0].id)
    after = said_on(BEDS, "receptacles to code in every bedroom", Looked(room=BEDS.rooms[0].id))[0]
    assert {box.room for box in asked} == {BEDS.rooms[1].id, BEDS.rooms[2].id}
    lacking = {item.subject for item in found(after, "wall-no-receptacle")}
    assert not lacking & {BEDS.rooms[1].id, BEDS.rooms[2].id}


def test_a_box_where_a_panel_hangs_is_told_and_not_set_there() -> None:
    """A panel 14 1/2 in wide, 48 to 78 in up, its middle 4 ft along: a box of 2 1/4 by 3 3/4 overlaps it up to 8 3/8
    from its middle; one that ends at 48 in or begins at 78 touches it and is no fault."""
    room = built("room Bay 20' x 20'; panel G 100a west 4'; set receptacle west 10' exactly as R-1")
    room = built("change R-1: height 50 in", room)
    cases = (
        (48, 48, True),
        (56.25, 48, True),
        (56.5, 48, False),
        (48, 46.125, False),
        (48, 16, False),
        (48, 80, False),
    )
    for along, height, told in cases:
        job = built(f'R-1 is {along}" from the left; change R-1: height {height} in', room)
        assert bool(found(job, "boxes-overlap")) == told, (along, height)
    stands = found(built('R-1 is 48" from the left', room), "boxes-overlap")[0]
    assert stands.title == "R-1 stands on G"
    mended = said_on(room, 'R-1 is 48" from the left', Looked())[0]
    away = EDITS.validate_python(list(stands.mends[0].edits))
    assert not found(apply(mended, away), "boxes-overlap")
    every = said("outlets every 4' along west at 48\"", room, room.rooms[0].id)
    assert [box.at_in for box in every if abs((box.at_in or 0) - 48) < 12] == []
    assert len(every) == 3  # 8', 12', 16'


def test_many_that_went_to_studs_are_told_in_a_line() -> None:
    job = built("room Long 40' x 20'")
    text = "receptacles every 6' along north"
    notice = said_on(job, text, Looked(room=job.rooms[0].id))[1].told
    assert len(notice) <= 2 and all(len(line) < 100 for line in notice)


def test_two_kinds_in_one_sentence_and_a_room_before_the_kind() -> None:
    both = said("a light and a smoke alarm in the Hall", BEDS, BEDS.rooms[0].id)
    assert [(box.kind, box.room) for box in both] == [("light", "m1"), ("smoke", "m1")]
    door = said("outlet and switch by the door to Hall in Bed 1", BEDS, BEDS.rooms[0].id)
    assert [box.kind for box in door] == ["receptacle", "switch"] and len({box.room for box in door}) == 1
    hall = said("hall light", BEDS, BEDS.rooms[1].id)
    assert [(box.kind, box.room) for box in hall] == [("light", "m1")]


def test_a_front_door_leads_out_of_doors_or_onto_a_porch() -> None:
    job = built("room Living room 16' x 14'; front door south 36\" at 2'; room Porch 16' x 6' south of Living room;"
                "door between Living room and Porch 30\"")  # fmt: skip
    with pytest.raises(LevelRunError, match="2 such doors"):
        said("switch by the front door", job, job.rooms[0].id)
    one = built("room Den 16' x 14'; room Porch 16' x 6' south of Den; door in Den south 36\" at 2'")
    assert said("switch by the front door", one, one.rooms[0].id)[0].side == 2
    assert said("outside light on the south wall", one, one.rooms[0].id)[0].outdoors


@pytest.mark.parametrize(
    "text", ["all taken but 38 and 40", "all taken except 38 40", "full except 38 and 40", "only 38 and 40 free"]
)
def test_a_panel_of_which_only_the_free_spaces_are_known(text: str) -> None:
    panel = said_on(HOME, f"panel Q 200a 40 spaces {text} west 5'", Looked(room=DEN.id))[0].panels[0]
    assert panel.taken == tuple(n for n in range(1, 41) if n not in (38, 40))


def test_on_a_wall_whose_middle_is_taken_the_nearest_free_place_is() -> None:
    """A 12 ft wall: the middle is 6'; a box there, or a door, and it goes on the nearest free stud, which is told."""
    job = read_text("room Den 12' x 10'\nset receptacle north 6'\noutlet on the north wall")
    one, two = sorted(box.at_in or 0.0 for box in job.boxes)
    assert 2.25 <= two - one <= 32 and not any(item.code == "boxes-overlap" for item in plan(job).findings)
    job = read_text("room Den 12' x 10'\ndoor north 3' at 4'6\noutlet on the north wall")
    (box,) = job.boxes
    assert not 54 - 2.25 / 2 < (box.at_in or 0.0) < 90 + 2.25 / 2
    assert read_text("room Den 12' x 10'\nlight on the north wall").boxes[0].at_in == 72


def test_so_far_in_from_the_overhead_door() -> None:
    """The door of 16 ft in the middle of a south wall of 24 ft: 11 ft in, 12 ft from either side."""
    text = "garage 24' x 24'\noverhead door south 16' wide\nman door west 3' 36\"\n{}"
    for said in ("opener outlet in the ceiling 11' from the door", "opener outlet 11' in from the overhead door"):
        (box,) = read_text(text.format(said)).boxes
        assert (box.serves, box.x_in, box.y_in) == ("opener", 144, 132)
    assert not any(
        item.code == "opener-near"
        for item in plan(read_text(text.format("opener outlet 11' from the door"))).findings
    )
    near = plan(read_text(text.format("opener outlet 8' from the door"))).findings
    assert any(item.code == "opener-near" for item in near)
    with pytest.raises(LevelRunError, match="is out of Garage"):
        read_text(text.format("opener outlet 30' from the door"))


def test_outside_a_door_it_is_outdoors() -> None:
    job = read_text(
        "cabin 16' x 20'\ndoor south 36\" at 9'\nporch light outside the door\noutlet outside of the door"
    )
    light, outlet = job.boxes
    assert (light.kind, light.outdoors, outlet.kind, outlet.outdoors) == ("light", True, "receptacle", True)
    assert light.side == outlet.side == 2


def test_a_thing_said_to_be_overhead_hangs_there() -> None:
    (heater,) = read_text("bath 8' x 9'\nfan heater 1500w in the ceiling").boxes
    assert (heater.serves, heater.load_w, heater.side, heater.x_in) == ("bath_heater", 1500, None, 48)


@pytest.mark.parametrize(
    ("text", "nema"), [("mill 3hp 240v", "6-30"), ("table saw 2hp 240v", "6-15"), ("planer 5hp 240v", "6-50")]
)
def test_a_motor_that_is_plugged_in_gets_an_outlet_that_bears_it(text: str, nema: str) -> None:
    """Table 430.248 at 230 V: 3 hp 17 A, 2 hp 12 A, 5 hp 28 A; by 125 % 21.25, 15 and 35 A, so 30, 15 and 50 A."""
    (box,) = read_text(f"shop 24' x 30'\n{text} on the east wall").boxes
    assert (box.kind, box.nema) == ("receptacle", nema)


LAUNDRY = built("room Laundry 6' x 8'\ndoor south 3' from west 18\"")
SMALL_BATH = built("room Bath 5' x 8'\nvanity 36\" on the north wall")


def test_a_washer_and_a_dryer_of_one_sentence_stand_side_by_side() -> None:
    job, _ = said_on(LAUNDRY, "washer and dryer on the north wall", Looked(room=LAUNDRY.rooms[0].id))
    washer, dryer = job.boxes
    assert (washer.serves, dryer.serves, washer.side) == ("washer", "dryer", dryer.side)
    assert abs((washer.at_in or 0) - (dryer.at_in or 0)) > 4
    assert "boxes-overlap" not in {item.code for item in plan(job).findings}


@pytest.mark.parametrize(("where", "sign"), [("next to the washer", 1), ("left of the washer", -1)])
def test_next_to_a_machine_is_a_machine_on(where: str, sign: int) -> None:
    look = Looked(room=LAUNDRY.rooms[0].id)
    job, _ = said_on(LAUNDRY, f"washer outlet on the north wall at 3', dryer outlet {where}", look)
    washer, dryer = job.boxes
    assert abs((dryer.at_in or 0) - (washer.at_in or 0) - sign * 30) <= 3  # on the stud there


@pytest.mark.parametrize(("hand", "right"), [("right", True), ("left", False)])
def test_on_one_hand_of_the_vanity(hand: str, right: bool) -> None:
    job, _ = said_on(SMALL_BATH, f"gfci outlet {hand} of the vanity", Looked(room=SMALL_BATH.rooms[0].id))
    vanity, box = job.fixtures[0], job.boxes[0]
    assert ((box.at_in or 0) > vanity.at_in + vanity.width_in / 2) is right


def test_a_mirror_hangs_over_the_basin() -> None:
    job, _ = said_on(SMALL_BATH, "light over the mirror", Looked(room=SMALL_BATH.rooms[0].id))
    vanity = job.fixtures[0]
    assert abs((job.boxes[0].at_in or 0) - vanity.at_in - vanity.width_in / 2) <= 1  # on the stud there
    with pytest.raises(LevelRunError, match="basin: none is marked"):
        said_on(LAUNDRY, "light over the mirror", Looked(room=LAUNDRY.rooms[0].id))


@pytest.mark.parametrize("said", ["window 4x3 on the north wall", "a 4x3 window on the north wall"])
def test_a_window_in_feet(said: str) -> None:
    job, _ = said_on(LAUNDRY, said, Looked(room=LAUNDRY.rooms[0].id))
    assert (job.openings[-1].width_in, job.openings[-1].head_in - job.openings[-1].sill_in) == (48, 36)
    with pytest.raises(LevelRunError):  # those are inches
        said_on(LAUNDRY, said.replace("4x3", "36x80"), Looked(room=LAUNDRY.rooms[0].id))


def test_in_a_corner_stands_what_is_marked() -> None:
    job, _ = said_on(LAUNDRY, "fridge in the northeast corner", Looked(room=LAUNDRY.rooms[0].id))
    (fridge,) = job.fixtures
    assert fridge.side == 0 and fridge.at_in + fridge.width_in == 72
