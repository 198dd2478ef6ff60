"""A cabin of four rooms, drawn, laid out and wired as it is told, and what its own proposals must not break."""

from __future__ import annotations

import math

import pytest

from levelrun.core.boxes.alarm_spots import alarm_spot, near_steam
from levelrun.core.boxes.contexts import room_view
from levelrun.core.edits import Looked, said_on
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

CABIN = """Cabin:
living room 14x16
kitchen 10x12 east of the living room
bedroom 11x10 north of the living room
bath 8x6 east of bedroom
front door on the south wall of the living room
back door on the east wall of the kitchen
doorway between living room and kitchen
door between living room and bedroom
door between bedroom and bath
two windows on the west wall of the living room
window over the sink on the north wall of the kitchen
counters along the north wall of the kitchen
sink under the window
range on the south wall of the kitchen
fridge on the west wall of the kitchen 2' from the south corner
vanity on the north wall of the bath
tub on the east wall of the bath
panel C 100a 20 spaces on the south wall of the kitchen
bedroom: outlets to code, ceiling fan with light, switch by the door
living room: outlets to code, 4 can lights in two rows, three way switches at both doors
kitchen: outlets above the counters, outlets to code, 2 pendants over the sink, ceiling light, switch by the back door
bath: gfci by the vanity, light over the mirror, fan over the tub, two switches by the door
smoke alarms to code
porch light by the front door, outside light by the back door
outdoor outlets front and back
two small appliance circuits
range 50a
fridge on its own circuit
bath circuit 20a
lights circuit 15a
wire everything"""


@pytest.fixture(scope="module")
def cabin() -> Job:
    return read_text(CABIN)


def test_nothing_that_was_proposed_stops(cabin: Job) -> None:
    planned = plan(cabin)
    assert [item.title for item in planned.findings if item.severity == "stop"] == []
    codes = {item.code for item in planned.findings}
    assert not codes & {
        "alarm-near", "smoke-missing", "outdoor-receptacles", "panel-space", "box-in-opening", "room-no-switch",
        "entrance-no-light", "circuits-wanted",
    }  # fmt: skip
    wired = [hop.box for circuit in cabin.circuits for hop in circuit.chain]
    assert sorted(wired) == sorted(box.id for box in cabin.boxes)


def test_what_hangs_over_a_thing_hangs_under_the_ceiling_but_over_a_basin(cabin: Job) -> None:
    rooms = {room.id: room.name for room in cabin.rooms}
    over = {(rooms[box.room or ""], box.kind): box for box in cabin.boxes if box.kind in ("light", "fan")}
    tub = next(item for item in cabin.fixtures if item.kind == "tub")
    assert over["Bath", "fan"].side is None and over["Bath", "light"].side is not None
    assert tub.side == 1 and over["Bath", "fan"].x_in == pytest.approx(
        max(x for x, _ in cabin.rooms[3].corners) - tub.depth_in / 2
    )
    sink = next(item for item in cabin.fixtures if item.kind == "sink")
    pendants = sorted(box.x_in for box in cabin.boxes if box.name in ("L-5", "L-6") and box.x_in is not None)
    assert pendants[1] - pendants[0] == sink.width_in / 2  # each over the middle of its half


def test_a_fan_beside_a_light_on_two_switches_is_wired_in_two() -> None:
    """One gang works the light, the other the fan: 12-2 to each, not 12-3 to the fan (bought by the foot)."""
    job = read_text(
        'panel C 100a 20 spaces\nbath 8x6\ndoor south 30"\nvanity on the north wall\nlight over the mirror\n'
        "fan in the ceiling\ntwo switches by the door\nbath circuit 20a"
    )
    kinds = {box.id: box.kind for box in job.boxes}
    cables = {kinds[row.box]: row.cable for c in plan(job).circuits for row in c.chain}
    assert cables["fan"] == cables["light"] == "12-2"


def test_an_alarm_is_proposed_where_no_steam_is() -> None:
    """IRC R314.3.3: 10 ft from a stove, 3 ft from the door of a bath."""
    job = read_text(
        "bedroom 11x10\nbath 8x6 east of bedroom\ndoor between bedroom and bath\nbedroom: ceiling fan, smoke alarm"
    )
    (alarm,) = [box for box in job.boxes if box.kind == "smoke"]
    view = room_view(job, job_book(job), job.rooms[0].id)
    assert alarm.x_in is not None and not list(near_steam(view, (alarm.x_in, alarm.y_in or 0)))
    fan = next(box for box in job.boxes if box.kind == "fan")
    assert math.dist((alarm.x_in, alarm.y_in or 0), (fan.x_in or 0, fan.y_in or 0)) >= 18
    small = read_text("kitchen 9x9\nrange on the north wall")  # 10 ft off is nowhere in it
    view = room_view(small, job_book(small), small.rooms[0].id)
    spot = alarm_spot(view)
    assert spot[1] < 54 and next(near_steam(view, spot))[0] == "range"


@pytest.mark.parametrize(
    ("text", "ways"),
    [
        ("three way switches at both doors", [3, 3]),
        ("three way switches at all doors", [3, 4, 3]),
        ("switches at all doors", [3, 4, 3]),
    ],
)
def test_switches_of_several_doors_are_of_a_kind_that_works(text: str, ways: list[int]) -> None:
    """Both doors are those that one comes in by; between two three-ways a third is a four-way."""
    job = read_text("\n".join(CABIN.splitlines()[:10]))
    after, _ = said_on(job, f"living room: {text}", Looked())
    assert sorted(box.ways for box in after.boxes) == sorted(ways)


def test_a_bedroom_is_not_entered_from_its_bath() -> None:
    job = read_text("\n".join([*CABIN.splitlines()[:10], "bedroom: ceiling light, switch by the door"]))
    (switch,) = [box for box in job.boxes if box.kind == "switch"]
    told = [item.title for item in plan(job).findings if item.code == "room-no-switch"]
    assert switch.room == job.rooms[2].id and not any("to Bath" in title for title in told)
