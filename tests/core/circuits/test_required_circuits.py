"""Circuits that the code keeps for a place: what may not join them, and the near miss that may.

Source: NFPA 70 (NEC) 2023, 210.11(C), 210.19(C), 210.52(B), 225.33, 230.79(C), 310.12(A), 220.55 note 4; from memory.
"""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.exchange.text import read_text
from tests.conftest import built, edited, found
from tests.core.circuits.home import case, home
from tests.core.circuits.rooms import HOME, on_circuit

# boxes on one 20 A circuit: whether something stands there that may not
SHARED = {
    "bath and bedroom receptacle": ("B-1 S-1", True),
    "bath and bedroom light": ("B-1 S-2", True),
    "bath alone": ("B-1", False),
    "laundry and den light": ("W-1 D-4", False),  # the washer has its own; no laundry receptacle is on it
    "garage and bedroom receptacle": ("G-1 S-1", True),
    "garage and outdoor receptacle": ("G-1 O-1", False),
    "garage alone": ("G-1", False),
    "kitchen wall and bedroom receptacle": ("K-2 S-1", True),
    "kitchen counter and den light": ("K-1 D-4", True),
    "kitchen counter and kitchen wall": ("K-1 K-2", False),
    "bedroom and den": ("S-1 D-2", False),
}


@pytest.mark.parametrize("name", SHARED)
def test_what_may_not_join_a_circuit_of_a_place(name: str) -> None:
    boxes, wrong = SHARED[name]
    job = on_circuit(boxes, protection="dual")
    said = found(job, "required-shares")
    assert bool(said) is wrong
    for mend in said[0].mends if said else []:
        assert not found(edited(job, *mend.edits), "required-shares"), mend.label


UNDRAWN = "panel H 200a 30 spaces\n{} 30' attic"
# what hangs together: whether it is asked if another circuit is there; nothing of it is a stop
ASKED: dict[str, tuple[Job, bool]] = {
    "garage and garage light": (on_circuit("G-1 G-2", protection="dual"), True),
    "garage and outdoor receptacle": (on_circuit("G-1 O-1", protection="dual"), False),
    "garage alone": (on_circuit("G-1", protection="dual"), False),
    "said: garage light and outlet": (read_text(UNDRAWN.format("garage light and outlet")), True),
    "said: bath outlet and its light": (read_text(UNDRAWN.format("bath outlet and light")), False),
    "said: bath outlet and a bedroom light": (read_text(UNDRAWN.format("bath outlet and a bedroom light")), True),
    "said: garage outlet": (read_text(UNDRAWN.format("garage outlet")), False),
}


@pytest.mark.parametrize("name", ASKED)
def test_what_another_circuit_may_serve_is_asked(name: str) -> None:
    job, asked = ASKED[name]
    assert not found(job, "required-shares")
    said = found(job, "required-asked")
    assert [item.severity for item in said] == ["check"] * asked
    for mend in said[0].mends if said else []:
        assert not found(edited(job, *mend.edits), "required-asked"), mend.label


# A small-appliance circuit has nothing else, wherever others are (210.52(B)(2)).
def test_a_kitchen_outlet_and_a_light_are_stopped_in_a_house_that_is_not_drawn_too() -> None:
    job = read_text(UNDRAWN.format("kitchen outlet and light"))
    assert found(job, "required-shares") and not found(job, "required-asked")


def test_in_one_bath_alone_its_light_may_join() -> None:
    """210.11(C)(3) exception; a second bath on the circuit takes it away."""
    bath = next(room.id for room in HOME.rooms if room.name == "Bath")
    job = built("set light centre as B-2", HOME, room=bath)
    assert not found(on_circuit("B-1 B-2", job=job, protection="dual"), "required-shares")
    two = built("room Bath2 8' x 8' west of Bath as bath; set receptacle south 4' as T-1", job)
    assert found(on_circuit("B-1 B-2 T-1", job=two, protection="dual"), "required-shares")


# box, breaker: whether 20 A is wanted there
TWENTY = {
    "counter on 15 A": ("K-1", 15, True),
    "kitchen wall on 15 A": ("K-2", 15, True),
    "bath on 15 A": ("B-1", 15, True),
    "counter on 20 A": ("K-1", 20, False),
    "bedroom on 15 A": ("S-1", 15, False),
    "garage on 15 A, beside its own": ("G-1", 15, False),
    "outdoors on 15 A": ("O-1", 15, False),
}


@pytest.mark.parametrize("name", TWENTY)
def test_receptacles_that_the_code_puts_on_20_a(name: str) -> None:
    box, amps, wrong = TWENTY[name]
    job = on_circuit(box, amps, protection="dual")
    said = found(job, "required-20")
    assert bool(said) is wrong
    if said:
        assert not found(edited(job, *said[0].mends[0].edits), "required-20")


def test_a_refrigerator_may_stand_on_its_own_15() -> None:
    """210.52(B)(1) exception 2."""
    one = next(box.id for box in HOME.boxes if box.name == "K-2")
    job = edited(HOME, {"op": "set", "kind": "box", "id": one, "set": {"serves": "refrigerator"}})
    assert not found(on_circuit("K-2", 15, job=job, protection="dual"), "required-20")


# watts on the plate, breaker: whether the branch circuit is over
RANGES = [
    (12_000.0, 40, False),
    (12_000.0, 30, True),
    (8_000.0, 40, False),
    (13_000.0, 40, False),
    (24_000.0, 50, True),
]


@pytest.mark.parametrize(("watts", "amps", "over"), RANGES)
def test_a_range_counts_its_demand_on_its_branch(watts: float, amps: int, over: bool) -> None:
    """12 kW ask 8 kW, 33 A: 40 A is the least (210.19(C)). 24 kW ask 12.8 kW, 53 A."""
    job = case(f"1/3 {amps}a gfci with neutral Range: RG", ("box", "RG", {"load_w": watts}))
    assert bool(found(job, "circuit-over")) is over


def cottage(kind: str = "cabin", *more: str) -> Job:
    """A feeder from the house to a panel in another building, 100 A on 2 aluminum."""
    lived = " dwelling" * (kind == "cabin")
    job = built("; ".join((f"structure {kind} Cottage at 90' east 0' north{lived}", "room Room 12' x 12'",
                           "panel north 4' spaces 12 sub as Z", *more)), home())  # fmt: skip
    job = built("feed Z from 1 100a", job, panel=job.panels[0].id, verb="circuit")
    return edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id,
                        "set": {"material": "al", "wire_size": "2", "method": "SER"}})  # fmt: skip


def wire_stops(job: Job) -> list[str]:
    feeder = next(c.id for c in job.circuits if c.feeds)
    return [item.title for item in found(job, "breaker-wire") if item.subject == feeder]


def test_the_feeder_of_a_whole_dwelling_is_sized_by_310_12() -> None:
    assert wire_stops(cottage()) == []
    assert wire_stops(cottage("shop")) == ["100 A breaker on 2 aluminum"]
    thin = edited(
        cottage(), {"op": "set", "kind": "circuit", "id": cottage().circuits[0].id, "set": {"wire_size": "4"}}
    )
    assert wire_stops(thin) == ["100 A breaker on 4 aluminum"]


def test_half_of_a_dwelling_is_not_a_dwelling() -> None:
    job = cottage("cabin", "panel south 4' spaces 12 sub as Y")
    job = built("feed Y from 9 60a", job, panel=job.panels[0].id, verb="circuit")
    assert wire_stops(job) == ["100 A breaker on 2 aluminum"]


@pytest.mark.parametrize(("main", "said"), [(60.0, True), (99.0, True), (100.0, False), (200.0, False)])
def test_the_main_of_a_house(main: float, said: bool) -> None:
    job = case("1 20a dual Den: R-1", P={"main_a": main, "bus_a": 225.0})
    assert bool(found(job, "service-small")) is said
    ahead = case("1 20a dual Den: R-1",
                 P={"main_a": main, "bus_a": 225.0, "disconnect_elsewhere": True, "bonded": False})  # fmt: skip
    assert not found(ahead, "service-small")


@pytest.mark.parametrize(("throws", "main", "wrong"), [(7, None, True), (6, None, False), (7, 60.0, False)])
def test_six_throws_or_one_main_turn_a_building_off(throws: int, main: float | None, wrong: bool) -> None:
    fed = case("feed Q from 1 60a", ("panel", "Q", {"main_a": main}))
    job = built("; ".join(f"circuit in Q {n} 20a gfci S{n}" for n in range(1, throws + 1)), fed)
    assert bool(found(job, "disconnects-many")) is wrong


def test_two_circuits_in_one_box_are_no_fault() -> None:
    """210.7 is one yoke, 210.4(B) multiwire: a two-gang box with two circuits is daily work. Said as a note."""
    job = case("1 20a dual Den: R-1; circuit 3 20a dual Other")
    job = built("chain R-1 on 3", job, panel=job.panels[0].id)
    both = found(job, "box-twice")
    assert all(item.severity == "note" for item in both)
