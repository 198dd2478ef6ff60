"""Circuits whose boxes are said by what they are and where; everything wired as it would be proposed."""

from __future__ import annotations

import pytest

from levelrun.core.circuits.proposer import propose
from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Circuit, Job, job_book
from levelrun.core.plan import plan_whole
from levelrun.core.ways.ordering import distances
from levelrun.exchange.text import read_text
from tests.conftest import built, found

HOME = built(
    "room Den 12' x 15'; room Bath 6' x 8' east of Den; door in Den south 3' at 4'; door in Bath south 30\" at 1'6;"
    "set receptacle in Den north 4' as R-1; set receptacle in Den west 6' as R-2; set switch in Den south 8'6 as S-1;"
    "set light in Den 4' x 7' as L-1; set light in Den 8' x 7' as L-2; set smoke in Den 6' x 10' as SM-1;"
    "set receptacle in Bath north 3' as B-1; set switch in Bath south 5' as S-2; set light in Bath centre as L-3;"
    "set receptacle in Den east 3' for dryer as DR; panel P 200a 30 spaces in Den west 12'"
)
LOOK = Looked(room=HOME.rooms[0].id, panel=HOME.panels[0].id)


def said(text: str, job: Job = HOME) -> Job:
    return said_on(job, text, LOOK)[0]


def names(job: Job, circuit: Circuit) -> list[tuple[str, str | None]]:
    called = {box.id: box.name for box in job.boxes}
    return [(called[hop.box], called.get(hop.after or "")) for hop in circuit.chain]


@pytest.mark.parametrize(
    ("text", "boxes", "name"),
    [
        ("circuit 15a for the lights in Den", {"S-1", "L-1", "L-2"}, "Den lights"),
        ("circuit 20a for the receptacles in Den", {"R-1", "R-2", "DR"}, "Den receptacles"),
        ("circuit 20a for the receptacles in Bath and the lights in Bath", {"B-1", "S-2", "L-3"}, "Bath receptacles"),
        ("15 amp circuit for Bath", {"B-1", "S-2", "L-3"}, "Bath"),
        ("add a 15 amp circuit for all lights", {"S-1", "S-2", "L-1", "L-2", "L-3"}, "All lights"),
        ("circuit 15a for the smoke alarms in Den", {"SM-1"}, "Den smoke alarms"),
        ("circuit for the dryer", {"DR"}, "Dryer"),
        ("circuit 9 20a: Bath", {"B-1", "S-2", "L-3"}, "Bath"),
    ],
)
def test_boxes_by_what_and_where(text: str, boxes: set[str], name: str) -> None:
    job = said(text)
    assert {box for box, _ in names(job, job.circuits[0])} == boxes
    assert job.circuits[0].name == name


def test_outlets_outdoors_and_those_of_the_room_looked_at() -> None:
    job = said("outdoor outlet on the south wall of Den 2' from the east corner as OUT")
    assert job.boxes[-1].outdoors and job.boxes[-1].side == 2
    out = said("20a gfci circuit for the outdoor outlets", job)
    assert [box for box, _ in names(out, out.circuits[0])] == ["OUT"]
    here = said("15a circuit for the lights", job)  # of the room looked at
    assert {box for box, _ in names(here, here.circuits[0])} == {"S-1", "L-1", "L-2"}


def test_lights_hang_behind_their_switch_one_after_another_and_alarms_do_not() -> None:
    """A light hangs on its switch, the second on the first; an alarm behind a switch would be turned off."""
    job = said("circuit 15a for everything in Den")
    after = dict(names(job, job.circuits[0]))
    assert after["L-1"] in ("S-1", "L-2") and after["L-2"] in ("S-1", "L-1") and after["L-1"] != after["L-2"]
    assert after["SM-1"] == "S-1"
    assert after["S-1"] in ("R-1", "R-2", "DR") or after["S-1"] is None
    assert not found(job, "box-full")


def test_an_appliance_brings_what_its_circuit_usually_is() -> None:
    dryer = said("circuit for the dryer").circuits[0]
    assert (dryer.breaker_a, dryer.volts, dryer.poles, dryer.neutral, dryer.wire_size) == (30.0, 240, 2, True, "10")
    said_so = said("circuit 40a 240v for the dryer").circuits[0]
    assert (said_so.breaker_a, said_so.poles) == (40.0, 2)
    plain = said("circuit 20a 120v for the dryer").circuits[0]
    assert (plain.breaker_a, plain.volts, plain.poles) == (20.0, 120, 1)


@pytest.mark.parametrize(
    ("text", "protection"),
    [
        ("circuit 20a: R-1 R-2", "afci"),  # a den of a dwelling, 210.12
        ("circuit 20a: B-1", "gfci"),  # a bath, 210.8(A)(1)
        ("circuit 20a: R-1 B-1", "dual"),
        ("circuit 20a plain: R-1 R-2", "plain"),  # said: then it is a stop
        ("circuit 20a gfci: R-1", "gfci"),
        ("circuit 20a Den", "plain"),
    ],
)
def test_a_breaker_of_which_nothing_is_said_protects_as_its_boxes_ask(text: str, protection: str) -> None:
    job = said(text)
    assert job.circuits[0].protection == protection
    lacking = [*found(job, "gfci-missing"), *found(job, "afci-missing")]
    assert bool(lacking) == (("plain:" in text.replace(" plain", " plain:") and "plain" in text) or "gfci:" in text)


def test_a_device_that_protects_takes_it_off_the_breaker() -> None:
    job = said("circuit 20a: B-1", built("change B-1: protects gfci", HOME))
    assert job.circuits[0].protection == "plain" and not found(job, "gfci-missing")


def test_onto_a_circuit_that_is_there() -> None:
    job = said("the lights in Bath go on 3", said("circuit 3 15a: R-1"))
    after = dict(names(job, job.circuits[0]))
    assert after == {"R-1": None, "S-2": "R-1", "L-3": "S-2"}


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("circuit 15a for the fans in Bath and Den", None),
        ("circuit 15a for the washer", "no box serves the washer yet"),
        ("circuit 15a for the lights in the moon", "a room by its name"),
        ("wire the moon", "expected"),
    ],
)
def test_what_is_not_there_is_told(text: str, told: str | None) -> None:
    if told is None:
        assert {"L-1", "L-3"} <= {box for box, _ in names(said(text), said(text).circuits[0])}
        return
    with pytest.raises(LevelRunError, match=told):
        said(text)


def test_everything_is_wired_as_it_would_be_proposed() -> None:
    book = job_book(HOME)
    proposed = propose(HOME, book, plan_whole(HOME, book)[1].contexts, distances(HOME, book))
    job, looked = said_on(HOME, "wire everything", LOOK)
    assert [(c.name, c.space, tuple(h.box for h in c.chain)) for c in job.circuits] == [
        (p.name, p.space, p.boxes) for p in proposed
    ]
    assert looked.told[0].startswith(f"{len(proposed)} circuits: ")
    again, looked = said_on(job, "wire everything", Looked())  # nothing is left to do, which is told
    assert again == job and looked.told == ("every box is on a circuit already",)
    bath = said("wire Bath")
    assert {box for circuit in bath.circuits for box, _ in names(bath, circuit)} == {"B-1", "S-2", "L-3"}


def test_an_outlet_of_240_v_is_proposed_a_circuit_of_its_own() -> None:
    """A 6-30 is on two poles of 30 A, whatever is plugged in; one of 5-20 hangs with the others."""
    job = built(
        "room Shop 20' x 20'; panel P 200a 30 spaces west 3'; compressor outlet 30a 240v east 5';"
        " set receptacle north 5'; set receptacle north 12'"
    )
    wired = said_on(job, "wire everything", Looked())[0]
    own = next(circuit for circuit in wired.circuits if circuit.name == "Compressor")
    assert (own.breaker_a, own.poles, own.volts, own.wire_size, len(own.chain)) == (30.0, 2, 240, "10", 1)
    assert not own.neutral
    assert not found(wired, "plug-rating")
    assert len(wired.circuits) == 2


@pytest.mark.parametrize(
    ("text", "name", "space", "poles", "amps", "wire", "load"),
    [
        ("circuit kiln 48a 240v continuous from P", "Kiln", 1, 2, 60, "4", 48),
        ("circuit welder on 7,9 50a", "Welder", 7, 2, 50, "6", None),
        ("circuit dryer on 7 and 9", "Dryer", 7, 2, 30, "10", None),
        ("circuit dishwasher 20a gfci", "Dishwasher", 1, 1, 20, "12", None),
        ("circuit furnace on 11", "Furnace", 11, 1, 15, "14", None),
    ],
)
def test_a_circuit_for_a_machine_of_which_no_box_stands_yet(
    text: str, name: str, space: int, poles: int, amps: float, wire: str, load: float | None
) -> None:
    """By the table of usual loads; 48 A on for hours want 60 A, and No. 4 in the 60 degree column of cable."""
    (made,) = read_text(f"panel P 200a 30 spaces\n{text}").circuits
    assert (made.name, made.space, made.poles, made.breaker_a) == (name, space, poles, amps)
    assert (made.wire_size, made.load_a) == (wire, load)


@pytest.mark.parametrize("text", ["circuit kilm 48a", "circuit 48a", "circuit welder on 7,10 50a"])
def test_a_word_that_is_no_machine_names_no_circuit(text: str) -> None:
    with pytest.raises(LevelRunError):
        read_text(f"panel P 200a 30 spaces\n{text}")


@pytest.mark.parametrize("name", ["Dryer vent", "Range hood", "Kiln lights", "Pump house", "Dryer"])
def test_a_name_that_begins_with_a_machine_is_that_name(name: str) -> None:
    """With its boxes nothing else follows from the name; a machine alone brings its volts."""
    job = read_text(
        "room Den 12' x 14'\npanel P 200a 30 spaces on the west wall\nset receptacle north 4'\n"
        f"circuit 5 20a {name}: R-1\ncircuit 7 20a {name}"
    )
    first, second = job.circuits
    assert (first.name, first.volts, len(first.chain)) == (name, 120, 1)
    assert (second.name, second.volts) == (name, 240 if name == "Dryer" else 120)
