"""Jobs as they are told by people who have read no guide: what stands there, what nobody said, what goes on what."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import built, found

HOUSE = built("panel H 200a 30 spaces taken 1-14")


def told(text: str, job: Job | None = None) -> tuple[Job, str]:
    job = job or Job(name="Told")
    job, look = said_on(job, text, Looked(room=job.rooms[-1].id if job.rooms else None))
    return job, "; ".join(look.told)


@pytest.mark.parametrize(
    ("text", "name", "taken", "existing"),
    [
        ("old house, existing panel H 100a 20 spaces full up", "H", tuple(range(1, 21)), True),
        ("existing panel H 100a 20 spaces", "H", (), False),
        ("house with panel H 150a 24 spaces taken 1-20", "H", tuple(range(1, 21)), False),
        ("existing house with an existing panel H 150a 24 spaces taken 1-3", "H", (1, 2, 3), True),
        ("house has panel M, 200a, 40 spaces", "M", (), False),
    ],
)
def test_a_house_and_its_panel_in_one_line(text: str, name: str, taken: tuple[int, ...], existing: bool) -> None:
    job = told(text)[0]
    (panel,), (house,) = job.panels, job.structures
    assert (panel.name, panel.taken, house.existing, panel.structure) == (name, taken, existing, house.id)


@pytest.mark.parametrize(("said", "volts"), [("220v", 240), ("230 volt", 240), ("110v", 120), ("115v", 120)])
def test_volts_as_they_are_called(said: str, volts: int) -> None:
    assert built(f"from H 30' stud wall to {said} outlet", HOUSE).circuits[0].volts == volts


def test_volts_of_three_phases_are_none_of_a_house() -> None:
    with pytest.raises(TextError, match="208 V: allowed 120 or 240"):
        built("from H 30' stud wall to 208v outlet", HOUSE)


def test_amperes_that_no_breaker_has_are_those_of_the_machine() -> None:
    opener = built("from H 90' trench 18\" deep pvc 3/4 to gate opener 120v 5a", HOUSE)
    assert plan(opener).circuits[0].summary.load_a == pytest.approx(5.0)
    assert built("from H 25' stud wall to cooktop 40a", HOUSE).circuits[0].breaker_a == 40
    with pytest.raises(TextError, match="no standard breaker"):
        built("from H 25' stud wall to outlet 5a", HOUSE)


def test_a_building_stands_off_a_house_that_nobody_has_put_up() -> None:
    job = told("barn 30' x 40', 100' south of the house")[0]
    house, barn = job.structures
    assert (house.kind, house.existing, barn.name, barn.existing) == ("house", True, "Barn", False)
    (room,) = job.rooms
    assert barn.y_in + max(y for _, y in room.corners) == pytest.approx(house.y_in - 1200)
    with pytest.raises(TextError):
        told("barn 30' x 40', 100' south of the silo")
    assert told("garage 24' x 24', 40' east of the house")[0].structures[1].kind == "shop", "it stands apart"


@pytest.mark.parametrize(
    ("text", "high"), [("cabin 16' x 20', 2x6 walls, 9' ceilings", 108), ("garage 24' x 24' 10' high", 120)]
)
def test_how_high_its_rooms_are(text: str, high: float) -> None:
    assert told(text)[0].structures[0].levels[0].height_in == high


DOORS = {
    "door on the south wall in the middle": ("door", 36.0, 10 * 12 - 18.0),
    "walk door on the south wall 3' from the east corner": ("door", 36.0, 36.0),
    "window on the south wall": ("window", 36.0, 10 * 12 - 18.0),
    "overhead door 16' wide in the middle of the south wall": ("garage_door", 192.0, 24.0),
    "overhead door on the south wall 16' wide in the middle": ("garage_door", 192.0, 24.0),
}


@pytest.mark.parametrize("text", DOORS)
def test_a_door_of_which_nobody_says_how_wide_is_as_usual_and_that_is_told(text: str) -> None:
    job, said = told(text, read_text("shed 20' x 12'"))
    (opening,) = job.openings
    assert (opening.kind, opening.width_in, opening.at_in) == DOORS[text]
    assert ("as nobody said" in said) is ("16'" not in text)


def test_windows_on_two_walls() -> None:
    job, _ = told("windows on the east and west walls", read_text("shed 20' x 12'"))
    assert sorted(item.side for item in job.openings) == [1, 3]


def test_a_panel_stands_clear_of_doors_where_nobody_says_where() -> None:
    """30 in to stand before it, 110.26(A)(2): 15 in on each side of its middle."""
    shed = read_text("shed 10' x 12'")
    north, said = told("panel S 60a on the north wall", shed)
    assert north.panels[0].at_in == 60 and "in the middle of the north wall" in said
    doored = told("door on the north wall in the middle", shed)[0]
    job, said = told("panel S 60a on the north wall", doored)
    (door,), (panel,) = job.openings, job.panels
    assert panel.at_in is not None
    assert panel.at_in - 15 >= door.at_in + door.width_in or panel.at_in + 15 <= door.at_in
    assert not found(job, "box-in-opening") and "it stands at" in said
    filled = told('window north 118" at 1"', shed)[0]
    with pytest.raises(TextError, match="no place of 30 in is free"):
        told("panel S 60a on the north wall", filled)


def test_boxes_high_as_said_behind_their_place() -> None:
    job, _ = told("outlets every 6' on the north wall 48\" high", read_text("garage 24' x 24'"))
    heights = {box.height_in for box in job.boxes}
    assert len(job.boxes) == 3 and len(heights) == 1 and heights != {16.0}


def test_a_kind_goes_on_a_circuit_that_is_not_there_yet() -> None:
    job = read_text(
        "shed 10' x 12'\npanel S 60a 12 spaces on the north wall\n2 lights\n2 outlets on the east wall\n"
        "put the lights on a 15 amp circuit\nthe outlets go on a 20 amp circuit of their own\n"
    )
    lights, outlets = job.circuits
    kinds = {box.id: box.kind for box in job.boxes}
    assert (lights.breaker_a, {kinds[hop.box] for hop in lights.chain}) == (15.0, {"light"})
    assert (outlets.breaker_a, {kinds[hop.box] for hop in outlets.chain}) == (20.0, {"receptacle"})
    assert outlets.protection == "gfci", "a shed asks for it"


def test_all_of_it_in_one_wire_but_what_wants_a_larger_one() -> None:
    job = built("from H 20' stud wall to bath light", HOUSE)
    job = built("from H 30' stud wall to dryer", job)
    job, said = told("wire it in 12-2", job)
    assert [circuit.wire_size for circuit in job.circuits] == ["12", "10"]
    assert "Dryer" in said
    with pytest.raises(TextError, match="no circuit may be wired in 14"):
        told("wire everything in 14-2", built("from H 30' stud wall to dryer", HOUSE))


def test_rods_go_to_the_one_building_that_is_fed() -> None:
    fed = built("from H 60' trench 18\" deep pvc 1 to shed Shed 60a", HOUSE)
    job = built("2 ground rods 8' apart", fed)
    assert {item.structure for item in job.electrodes} == {fed.structures[1].id}
    with pytest.raises(TextError, match="at and a building"):
        built("2 ground rods 8' apart", HOUSE)


@pytest.mark.parametrize("text", ["trench from the house to the shed 60'", "trench 60' from house to shed"])
def test_a_trench_is_as_long_as_said_wherever_that_stands(text: str) -> None:
    (line,) = told(text, read_text("house\nshed"))[0].trenches
    (x0, y0), (x1, y1) = line.points
    assert abs(x1 - x0) + abs(y1 - y0) == pytest.approx(720)


@pytest.mark.parametrize(
    ("text", "spots"),
    [
        ("4 recessed lights in two rows", [(36, 42), (108, 42), (36, 126), (108, 126)]),
        ("4 can lights", [(36, 42), (108, 42), (36, 126), (108, 126)]),
        ("2 pendants over the island", [(72, 66), (72, 102)]),
    ],
)
def test_lights_in_rows_and_over_an_island(text: str, spots: list[tuple[float, float]]) -> None:
    """A kitchen of 144 by 168 in, its island of 36 by 72 in the middle: from 48 to 120 along its long side."""
    job = read_text(f"kitchen 12' x 14'\nisland 3' x 6' in the middle\n{text}")
    assert sorted((box.x_in, box.y_in) for box in job.boxes) == sorted(spots)
    assert {box.kind for box in job.boxes} == {"light"}


def test_an_island_that_is_not_there_is_told() -> None:
    with pytest.raises(TextError, match="island: none is marked in Kitchen"):
        told("2 pendants over the island", read_text("kitchen 12' x 14'"))


def test_what_stands_in_the_middle_of_a_wall_and_under_a_window_of_one() -> None:
    job = read_text(
        "kitchen 12' x 14'\nwindow on the north wall\nwindow on the east wall\n"
        "sink under the window on the north wall\n"
        "range on the south wall in the middle\n"
    )
    sink, stove = job.fixtures
    assert (sink.kind, sink.side, sink.at_in + sink.width_in / 2) == ("sink", 0, 72.0)
    assert (stove.side, stove.at_in + stove.width_in / 2) == (2, 72.0)


@pytest.mark.parametrize(
    ("text", "east", "north"),
    [
        ("garage 24' x 30' 60' behind the house", 0, 1), ("garage 24' x 30', 60' in front of the house", 0, -1),
        ("well house 8' x 8', 200' from the house", 1, 0),
    ],
)  # fmt: skip
def test_behind_the_house_is_north_of_it_on_the_plan(text: str, east: int, north: int) -> None:
    house, other = told(text)[0].structures
    dx, dy = other.x_in - house.x_in, other.y_in - house.y_in
    assert (dx > 144) is (east > 0) and (abs(dy) < 400 if not north else dy * north > 700)


def test_a_room_with_its_ceiling() -> None:
    for line in (
        "basement room 14' x 20' with 7' ceilings in basement",
        "basement 14' x 20' with 7' ceilings in basement",
    ):
        job = read_text(f"house\n{line}")
        levels = {level.id: (level.kind, level.height_in) for level in job.structures[0].levels}
        assert levels[job.rooms[0].level] == ("basement", 84) and len(levels) == 2


@pytest.mark.parametrize("text", ["new dryer circuit 10-3, 30' crawl space, up 4'", "dryer circuit 30' crawl, up 4'"])
def test_a_circuit_by_what_it_is_for(text: str) -> None:
    (box,) = built(text, HOUSE).boxes
    assert box.serves == "dryer"


def test_a_fan_with_its_own_switch() -> None:
    job = read_text("bathroom 8' x 10'\ndoor on the south wall 30\"\nexhaust fan in the ceiling with its own switch")
    assert [box.kind for box in job.boxes] == ["fan", "switch"]


def test_a_porch_light_hangs_outside_beside_its_door() -> None:
    job, said = told("porch light", read_text("cabin 16' x 20'\ndoor on the south wall"))
    (lamp,) = job.boxes
    assert (lamp.outdoors, lamp.side, "outside, beside the south door" in said) == (True, 2, True)
    assert not found(job, "entrance-no-light") and not found(job, "box-in-opening")
    with pytest.raises(TextError, match="the door that it hangs beside"):
        told("porch light", read_text("cabin 16' x 20'"))


def test_a_circuit_for_what_has_no_box_says_how_to_set_it() -> None:
    job = read_text("panel H 200a 30 spaces\nkitchen 12' x 14'\nrange on the east wall")
    with pytest.raises(TextError, match="say `outlet behind the range`"):
        told("circuit for the range", job)
    wired, _ = told("circuit for the range", told("outlet behind the range", job)[0])
    assert wired.circuits[0].breaker_a == 50


HOME = (
    "house 30' x 40'\nkitchen 14' x 12'\nliving room 18' x 14' west of kitchen\n"
    "bedroom 1 12' x 12' north of kitchen\nbath 6' x 9' east of kitchen\n"
)


def by_room(job: Job, kind: str) -> dict[str, int]:
    return {room.name: sum(box.room == room.id and box.kind == kind for box in job.boxes) for room in job.rooms}


def test_everywhere_is_in_every_room_what_that_room_lacks() -> None:
    job = read_text(HOME + "outlets to code everywhere\nlights everywhere\nsmoke alarms to code\n")
    plugs, lights, alarms = (by_room(job, kind) for kind in ("receptacle", "light", "smoke"))
    assert min(plugs["Living room"], plugs["Bedroom 1"]) >= 4 and set(lights.values()) == {1}
    assert alarms == {"Kitchen": 0, "Living room": 0, "Bedroom 1": 1, "Bath": 0}
    with pytest.raises(TextError, match="no room lacks any of it"):
        told("lights everywhere", job)


def test_outlets_of_a_shed_of_which_nobody_says_where() -> None:
    job, said = told("2 outlets", read_text("greenhouse 10' x 20'"))
    assert len({box.side for box in job.boxes}) == 2 and said.count("where it is free") == 2
    job, said = told("2 outlets", read_text("bedroom 12' x 12'"))  # less than it lacks: what was said, and told
    assert len({box.side for box in job.boxes}) == 2 and "lacks 5 by the rules of its use, not 2" in said
    assert "receptacle-spacing" in {item.code for item in plan(job).findings} or found(job, "wall-no-receptacle")
    with pytest.raises(TextError, match="has no door, by which a switch goes"):
        told("light and switch", read_text("bedroom 12' x 12'"))


def test_a_circuit_to_a_building_is_a_branch_circuit_where_no_panel_stands() -> None:
    """Direct burial at 12 in is enough for 120 V, 20 A behind a GFCI (table 300.5, column 4; from memory)."""
    line = "20a gfci circuit from H to the greenhouse, 90' trench 12\" deep, uf 12-2"
    job = told(line, read_text("greenhouse 10' x 20', 90' east of the house\npanel H 200a 40 spaces taken 1-24"))[0]
    (circuit,), (box,) = job.circuits, job.boxes
    assert (circuit.feeds, circuit.breaker_a, circuit.protection, circuit.volts) == (None, 20.0, "gfci", 120)
    assert box.structure == next(item.id for item in job.structures if item.name == "Greenhouse")
    assert not found(job, "cover-short") and plan(job).stops == 0
    fed = told("from H 90' trench 24\" deep in uf 10-3 to the greenhouse 30a", HOUSE)[0]
    assert fed.circuits[0].feeds is not None, "without that word it is a feeder"


def test_which_way_a_leg_goes_stands_before_the_comma() -> None:
    job = built("from H 6' up, 40' attic, 8' down to microwave", HOUSE)
    assert [(leg.go, leg.length_in) for leg in job.ways[0].legs] == [("up", 72), ("over", 480), ("down", 96)]


def test_an_interlock_is_of_the_only_inlet() -> None:
    job = built("from H 6' stud wall to generator inlet 30a", HOUSE)
    assert built("interlock kit", job).boxes[0].interlock is True
    with pytest.raises(TextError):
        built("interlock kit", HOUSE)


@pytest.mark.parametrize("number", [1, 2, 3])
def test_a_space_and_its_breaker_on_circuits_are_no_outlets(number: int) -> None:
    """With a room in view `1 20a gfci` could be one outlet of 20 A; on the line of circuits it is space 1."""
    job = read_text("greenhouse 10' x 20'\npanel G 60a 8 spaces on the north wall\n2 outlets")
    room = job.rooms[0].id
    after = said_on(job, f"{number} 20a gfci as Bath: R-1", Looked(room=room), "circuit")[0]
    assert [(circuit.space, circuit.name) for circuit in after.circuits] == [(number, "Bath")]
    assert len(after.boxes) == len(job.boxes)
