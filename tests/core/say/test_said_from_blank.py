"""Whole jobs as they are said on arriving, from an empty page, sentence by sentence, each number checked by hand."""

from __future__ import annotations

import pytest

from levelrun.api.contract import answer_of
from levelrun.core.edits import Looked, said_on
from levelrun.core.job import Box, Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

GARAGE = """
job: Garage add-on
a 22' x 24' garage
the walls are 2x6 24" on center
overhead door south 16' wide centered
walk door east 3' wide at 2'
panel G 100a 20 spaces, on the east wall 8' from the south corner
outlets every 8' along all walls at 48"
garage door opener outlet in the middle of the ceiling
6 lights
3-way switches at both doors
50 amp 240 volt outlet on the north wall for the vehicle
wire everything
"""
BATH = """
job Bath remodel
house
bathroom 5' x 8'
door south 28" at 20" hinge left
tub along the north wall
toilet on the east wall at 3'
vanity 30" wide on the west wall, 1' from the south corner
gfci outlet next to the vanity
vanity light over the vanity
exhaust fan in the ceiling
two switches by the door
hall 4' x 12' south of bathroom
panel A 100a 20 spaces on the east wall of hall at 4'
20 amp circuit for the bathroom receptacles
15 amp circuit for the lights in the bathroom
"""
KITCHEN = """
job Old bungalow kitchen
kitchen 12' x 14'
dining room 12' x 11' north of kitchen
door between kitchen and dining 32"
back door east 36" at 2' in kitchen
window south 5' x 3' centered in kitchen
counters along the south wall
sink under the window
range on the west wall at 6' from the south corner
fridge on the north wall 1' from the west corner
dishwasher next to the sink
outlets above the counters
outlet for the fridge on the north wall at 2'6
range outlet behind the range
dishwasher outlet south 9'
light in the kitchen
switch by the back door
panel A 200a 40 spaces 1-20 taken on the north wall of the dining room
wire the kitchen
"""
CABIN = """
job Pine Bench
house House existing
cabin Cabin with a loft
room Great 16' x 20' in Cabin
room Bath 8' x 6' east of Great
door south 36" wide at 4' in Great
door between Great and Bath 30" wide
panel C 100a 20 spaces on north 3' in Great
panel M 200a 40 spaces in House
receptacles along all walls of Great
switch beside the south door in Great
4 lights in Great
light in Bath
switch by the door in Bath
wire everything
feed C from M 60a
trench House to Cabin 80'
lay C feeder in House to Cabin 18" deep in pvc40 1-1/4
2 ground rods at the cabin
"""


def box_named(job: Job, name: str) -> Box:
    return next(box for box in job.boxes if box.name == name)


def where(job: Job, kind: str) -> list[tuple[int | None, float | None, float | None, float | None]]:
    return [(box.side, box.at_in, box.x_in, box.y_in) for box in job.boxes if box.kind == kind]


def test_a_garage_of_one_room() -> None:
    job = read_text(GARAGE)
    room = job.rooms[0]
    assert (room.name, room.use, job.structures[0].kind) == ("Garage", "garage", "shop")
    assert {(side.stud, side.spacing_in) for side in room.sides} == {("2x6", 24.0)}
    openings = [(item.kind, item.at_in, item.width_in) for item in job.openings]
    assert openings == [("garage_door", 36.0, 192.0), ("door", 24.0, 36.0)]  # (264 - 192) / 2
    panel = job.panels[0]
    assert panel.at_in == 288 - 96  # its left corner, as one faces the east wall, is the north one
    # By hand: three rows of two leave spaces of 132 by 96, the squarest of 1, 2, 3 and 6 rows.
    assert where(job, "light") == [(None, None, x, y) for y in (48.0, 144.0, 240.0) for x in (66.0, 198.0)]
    assert [box.ways for box in job.boxes if box.kind == "switch"] == [3, 3]
    vehicle = next(box for box in job.boxes if box.serves == "vehicle")
    assert (vehicle.nema, vehicle.gangs) == ("6-50", 2)  # nobody said that it has a neutral
    circuits = {item.name: item for item in answer_of(job).circuits}
    assert circuits["Vehicle charging"].poles == 2 and circuits["Vehicle charging"].protection == "gfci"
    lights = circuits["Lights Garage"]
    assert [hop.wires for hop in lights.hops][1] == "14-3"  # travellers between the two doors
    assert sum(hop.from_.startswith("S") for hop in lights.hops) == 2  # the lights hang one after another
    assert plan(job).stops == 0
    assert {"box-full", "three-way"}.isdisjoint({item.code for item in plan(job).findings})


def test_a_bath_with_what_stands_in_it() -> None:
    job = read_text(BATH)
    assert job.rooms[0].use == "bath"
    fixtures = {item.kind: (item.side, item.at_in, item.width_in) for item in job.fixtures}
    north, east, south, west = 0, 1, 2, 3
    assert fixtures == {
        "tub": (north, 0.0, 60.0),  # as long as its wall
        "toilet": (east, 36.0, 20.0),
        "basin": (west, 12.0, 30.0),  # facing west the south corner is the left one
    }
    outlet = next(box for box in job.boxes if box.protects == "gfci")
    assert outlet.side == west and outlet.at_in is not None
    aside = max(12 - outlet.at_in, outlet.at_in - 42)
    assert 0 < aside <= 36  # beside the basin, within 36 in of it: 210.52(D)
    light = next(box for box in job.boxes if box.kind == "light")
    assert (light.side, light.at_in) == (west, 12 + 15)
    switch = next(box for box in job.boxes if box.kind == "switch")
    assert (switch.side, switch.gangs) == (south, 2)
    outlets, lights = answer_of(job).circuits
    # The receptacle protects itself, so that its breaker need not: 210.8(A)(1). Lights of a bath ask for nothing.
    assert (outlets.breaker_a, outlets.wire, outlets.protection) == (20.0, "12", "plain")
    assert (lights.breaker_a, lights.wire, lights.protection) == (15.0, "14", "plain")
    assert plan(job).stops == 0


def test_a_kitchen_with_its_counters_and_appliances() -> None:
    job = read_text(KITCHEN)
    kitchen = {item.kind: item for item in job.fixtures}
    assert kitchen["sink"].at_in == (144 - 30) / 2  # under the middle of the window
    assert kitchen["dishwasher"].at_in == (144 - 30) / 2 + 30  # on its right
    assert kitchen["range"].at_in == 72.0
    door = next(item for item in job.openings if item.width_in == 32)
    assert door.at_in == (144 - 32) / 2  # in the middle of what the two rooms share
    outlet = box_named(job, next(box.name for box in job.boxes if box.serves == "range"))
    assert (outlet.gangs, outlet.model) == (2, "square-42")
    assert outlet.at_in == 72 + 15
    names = {item.name: item for item in answer_of(job).circuits}
    assert {"Kitchen A", "Kitchen B", "Range", "Refrigerator", "Dishwasher"} <= set(names)
    assert (names["Range"].wire, names["Range"].hops[0].wires) == ("6", "6-3")
    assert names["Range"].breaker_a == 50.0
    assert all(hop.cut_ft and hop.length_ft and hop.cut_ft > hop.length_ft for c in names.values() for hop in c.hops)
    assert plan(job).stops == 0


def test_a_cabin_over_a_trench() -> None:
    job = read_text(CABIN)
    house, cabin = job.structures
    assert house.existing and [level.kind for level in cabin.levels] == ["floor", "loft"]
    assert {room.name for room in job.rooms} == {"Great", "Bath"}
    trench = job.trenches[0]
    (x0, y0), (x1, y1) = trench.points[0], trench.points[-1]
    assert abs(x1 - x0) + abs(y1 - y0) == 960.0
    codes = {item.code for item in plan(job).findings}
    assert {"trench-apart", "trench-under"}.isdisjoint(codes)  # the cabin stands where the tape ends
    feeder = next(item for item in answer_of(job).circuits if item.feeds == "C")
    assert (feeder.wire, feeder.breaker_a, feeder.hops[0].wires) == ("6", 60.0, "6-3")
    way = next(item for item in answer_of(job).ways if item.name == "C feeder")
    assert [leg.go for leg in way.legs if leg.place == "trench"] == ["over"]
    assert sum(leg.length_in for leg in way.legs if leg.place == "trench") == 960.0
    assert len(job.electrodes) >= 1 and "electrode" not in codes
    assert plan(job).stops == 0


@pytest.mark.parametrize("text", [GARAGE, BATH, KITCHEN, CABIN])
def test_each_box_is_on_one_circuit_at_most_and_each_cable_has_a_cut(text: str) -> None:
    job = read_text(text)
    chained = [hop.box for circuit in job.circuits for hop in circuit.chain]
    assert len(chained) == len(set(chained))
    answer = answer_of(job)
    drawn = [hop for circuit in answer.circuits for hop in circuit.hops if hop.length_ft is not None]
    assert drawn and all(hop.cut_ft is not None and hop.cut_ft >= hop.length_ft for hop in drawn)  # type: ignore[operator]
    assert len(answer.ways) == len(drawn)


def test_the_same_by_its_short_sentences() -> None:
    """What is said in words of everyday is what the short sentences make."""
    spoken = """cabin 16' x 20'
door 36" wide on the south wall, 4' from the west corner
window 4' wide, 3' tall in the north wall, 2' from the east corner
switch by the door
receptacle on the east wall 5' from the north corner
light centered"""
    short = """structure cabin
room Cabin 16' x 20'
door south 36" at 9'
window north 4' x 3' at 10'
set switch south 13'2-1/8
set receptacle east 5'
set light centre"""
    one, two = read_text(spoken), read_text(short)
    assert one.openings == two.openings
    assert one.rooms == two.rooms
    for a, b in zip(one.boxes, two.boxes, strict=True):
        assert (a.kind, a.side, a.height_in) == (b.kind, b.side, b.height_in)
        assert abs((a.at_in or 0) - (b.at_in or 0)) < 2.01


def test_looks_stay_where_they_are_while_a_room_is_said() -> None:
    """What is said of the ceiling's height is said of the room's level: the room stays looked at."""
    job, looked = said_on(read_text("room Den 12' x 10'"), "ceiling 7'6\"; light", Looked(room="m1"))
    assert looked.room == "m1"
    assert job.boxes[0].kind == "light"
