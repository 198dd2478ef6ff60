"""A circuit behind what it is for, and things of a kitchen where they are said to stand."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built

KITCHEN = built("room Kitchen 14x12\ndoor south 3' from west 36\"\npanel H 200a 30 spaces taken 1-10")


def said(text: str, job: Job = KITCHEN) -> tuple[Job, tuple[str, ...]]:
    after, looked = said_on(job, text, Looked(room=job.rooms[0].id), "set")
    return after, looked.told


@pytest.mark.parametrize(
    ("text", "serves", "amps", "volts"),
    [
        ("fridge on the east wall on its own circuit", "refrigerator", 20, 120),
        ("fridge on the east wall, its own 15", "refrigerator", 15, 120),
        ("dishwasher on the north wall at 4' on a dedicated 20 amp circuit", "dishwasher", 20, 120),
        ("range on the west wall 50a", "range", 50, 240),
        ("range on the west wall, on a 40 amp circuit", "range", 40, 240),
    ],
)
def test_what_is_set_has_its_circuit_in_one_line(text: str, serves: str, amps: int, volts: int) -> None:
    job, _ = said(text)
    (box,), (circuit,) = job.boxes, job.circuits
    assert (box.serves, circuit.breaker_a, circuit.volts) == (serves, amps, volts)
    assert [hop.box for hop in circuit.chain] == [box.id] and circuit.space not in job.panels[0].taken
    if job.fixtures:  # it stands behind what was marked
        (thing,) = job.fixtures
        assert box.side == thing.side and thing.at_in <= (box.at_in or 0) <= thing.at_in + thing.width_in


def test_lights_on_a_circuit_of_theirs() -> None:
    job, _ = said("4 recessed lights on a 15 amp circuit")
    assert (len(job.circuits[0].chain), job.circuits[0].breaker_a, job.circuits[0].name) == (4, 15, "Lights")


def test_what_no_breaker_has_is_refused_where_it_stands() -> None:
    with pytest.raises(TextError, match="17 A is no breaker") as refused:
        said("fridge on the east wall, its own 17")
    assert (refused.value.at or 0) == len("fridge on the east wall, its own ")


def test_on_its_own_means_nothing_alone() -> None:
    with pytest.raises(LevelRunError):
        said("its own circuit")


@pytest.mark.parametrize(
    "text", ["4 recessed lights on a switch by the door", "4 recessed lights on a dimmer by the door",
             "ceiling fan with light on a switch at the door", "4 recessed lights on a three way by the door"],
)  # fmt: skip
def test_lights_on_a_switch(text: str) -> None:
    job, _ = said(text)
    (switch,) = [box for box in job.boxes if box.kind == "switch"]
    assert switch.side == 0 or switch.side is not None
    assert len(job.boxes) == (5 if text.startswith("4") else 2)
    assert switch.ways == (3 if "three way" in text else 2)


def test_a_sink_in_the_middle_of_its_counter() -> None:
    job, _ = said("counter along the north wall, sink in the middle")
    counter, sink = job.fixtures
    assert (sink.side, sink.at_in + sink.width_in / 2) == (counter.side, 7 * 12)
    job, _ = said("sink centered on the north wall")
    assert job.fixtures[0].at_in + job.fixtures[0].width_in / 2 == 7 * 12
    with pytest.raises(TextError, match="no counters"):
        said("sink in the middle")


@pytest.mark.parametrize(
    ("text", "serves", "breaker_a"),
    [
        ("fridge on its own circuit", ["refrigerator"], 20),
        ("dishwasher 20a", ["dishwasher"], 20),
        ("dishwasher and disposal on one circuit", ["dishwasher", "disposer"], 20),
    ],
)
def test_what_stands_nowhere_in_a_kitchen_gets_its_outlet_where_a_wall_is_free(
    text: str, serves: list[str], breaker_a: float
) -> None:
    job, told = said(text)
    (circuit,) = job.circuits
    assert [box.serves for box in job.boxes] == serves and circuit.breaker_a == breaker_a
    assert {hop.box for hop in circuit.chain} == {box.id for box in job.boxes}
    assert any("where it is free" in line for line in told)


def test_what_stands_nowhere_elsewhere_is_asked_for_its_wall() -> None:
    den = built("room Den 12x12\npanel H 200a 30 spaces")
    with pytest.raises(TextError, match=r"say where the fridge stands"):
        said("fridge", den)


def test_an_appliance_is_that_of_the_kitchen_wherever_one_looks() -> None:
    """What is drawn there gets its outlet behind it, what has an outlet its circuit."""
    drawn, _ = said("range on the west wall; den 12x12 east of kitchen; in den; door east 3'")
    for job in (
        said_on(drawn, "range 50a", Looked(room=drawn.rooms[1].id))[0],
        said_on(said("outlet behind the range", drawn)[0], "range 50a", Looked(room=drawn.rooms[1].id))[0],
    ):
        (box,), (circuit,) = job.boxes, job.circuits
        assert (box.serves, box.room, box.side) == ("range", drawn.rooms[0].id, drawn.fixtures[0].side)
        assert (circuit.volts, circuit.breaker_a, circuit.chain[0].box) == (240, 50, box.id)


def test_counters_are_shared_out_over_so_many_circuits() -> None:
    """NEC 210.11(C)(1): two or more of 20 A; as many as were said, none in their place twice."""
    job, _ = said("counters along the north and east walls, outlets above the counters")
    three, _ = said("three small appliance circuits", job)
    assert [c.breaker_a for c in three.circuits] == [20.0, 20.0, 20.0]
    hung = [hop.box for c in three.circuits for hop in c.chain]
    assert len(hung) == len(set(hung)) == len([box for box in job.boxes if box.serves == "counter"])
    with pytest.raises(TextError, match="counters are on 20 A"):
        said("two 15a small appliance circuits", job)
    with pytest.raises(TextError, match="no outlet of a counter is without a circuit"):
        said("two small appliance circuits", three)


def test_a_room_and_the_word_circuit_are_what_is_not_wired_there() -> None:
    job, _ = said(
        'bath 8x5; in bath; door south 30"; vanity on the west wall; outlet by the vanity; light; switch by the door'
    )
    bath, _ = said("20a bath circuit", job)
    assert bath.circuits[0].name == "Bath" and len(bath.circuits[0].chain) == 3
    laundry, _ = said('laundry 8x8; in laundry; door south 30"; washer; light; switch by the door')
    plugs, _ = said("laundry circuit", laundry)  # NEC 210.11(C)(2): no other outlet on it
    assert len(plugs.circuits[0].chain) == 1
    with pytest.raises(TextError, match="no box is on no circuit"):
        said("laundry circuit", plugs)


def test_an_outlet_on_the_island_serves_it() -> None:
    job, _ = said("island 6x3, outlet on the island")
    assert [box.serves for box in job.boxes] == ["counter"]
    assert "island" not in {item.code for item in plan(job).findings}
    assert any("island" in item.title for item in plan(said("island 6x3")[0]).findings)
    assert not any("island" in item.title for item in plan(job).findings)
    with pytest.raises(TextError, match="island: none is marked"):
        said("outlet on the island")


def test_lights_in_a_line_down_the_middle() -> None:
    job, _ = said("3 lights down the middle")
    assert [(box.x_in, box.y_in) for box in job.boxes] == [(28, 72), (84, 72), (140, 72)]


def test_a_room_over_another_is_not_called_so() -> None:
    job = built("house with an upstairs\nroom Garage 20x20")
    after, _ = said_on(job, "12x12 bonus room over the garage", Looked())
    assert after.rooms[-1].name == "Bonus room" and after.rooms[-1].level != after.rooms[0].level
    with pytest.raises(LevelRunError):
        said_on(job, "12x12 bonus room over the barn", Looked())


def test_outlets_every_so_many_feet_at_a_height() -> None:
    job, _ = said("outlets every 4' along the north wall at 48\"")
    assert len(job.boxes) == 3 and len({box.height_in for box in job.boxes}) == 1
    assert 46 <= job.boxes[0].height_in <= 50
