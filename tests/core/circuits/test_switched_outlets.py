"""Outlets that a switch works, one half or the whole: their cables, which rooms they light, which circuit they are
on, how they are made up."""

from __future__ import annotations

from typing import Literal

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.roughin.cards import BoxCard
from levelrun.exchange.text import read_text
from tests.conftest import found

ROOM = """panel H 200a 40 spaces
{room} 12x11
door on the south wall 2' from the west corner
outlets to code
{outlet} on the north wall 2' from the east corner as HH
switch at the door"""
CIRCUIT = "circuit from H 15a for {room} outlets"


def room(use: str = "Bedroom", outlet: str = "half hot outlet", *more: str) -> Job:
    return read_text("\n".join((ROOM.format(room=use, outlet=outlet), *more)))


def wires(job: Job, box: str) -> str:
    """The wires of the cable that comes to a box."""
    own = next(item.id for item in job.boxes if item.name == box)
    return next(row.words for item in plan(job).circuits for row in item.chain if row.box == own)


@pytest.mark.parametrize(
    ("outlet", "words"),
    [
        ("half hot outlet", "neutral, hot, switched hot"),
        ("switched outlet", "neutral, hot, switched hot"),  # one half, where nobody says all of it
        ("fully switched outlet", "neutral, switched hot"),
    ],
)
def test_its_switch_and_its_wires(outlet: str, words: str) -> None:
    job = room("Bedroom", outlet, CIRCUIT.format(room="bedroom"))
    (circuit,) = job.circuits
    names = {box.id: box.name for box in job.boxes}
    after = {names[hop.box]: names.get(hop.after or "") for hop in circuit.chain}
    assert after["HH"] == "S-1" and len(after) == len(job.boxes)  # the switch came with it
    assert wires(job, "HH") == words
    assert wires(job, "S-1") == "neutral, hot"


@pytest.mark.parametrize(
    ("lines", "expected"),
    [  # from box to box as they are said: what lies between them, boxes by their names
        (("to switch", "from S-1 9' stud wall to half hot outlet"), {"R-1": 3}),
        (("to half hot outlet", "from R-1 9' stud wall to switch"), {"R-1": 2, "S-1": 3}),  # down to it and back
        (("to disposal on a switch", "from R-1 9' stud wall to switch"), {"R-1": 2, "S-1": 3}),
        (("to switch", "from S-1 9' stud wall to outlet"), {"R-1": 2}),  # a plain one is always on
        (
            ("to switch", "from S-1 9' stud wall to half hot outlet", "from R-1 9' stud wall to outlet"),
            {"R-1": 3, "R-2": 2},
        ),
    ],
)
def test_wires_from_box_to_box(lines: tuple[str, ...], expected: dict[str, int]) -> None:
    first, *more = lines
    job = read_text("\n".join(("panel H 200a", f"20' stud wall {first}", *more)))
    assert {name: wires(job, name).count(",") + 1 for name in expected} == expected
    assert [item.title for item in plan(job).findings if item.severity == "stop"] == []


def test_past_an_outlet_that_is_always_on() -> None:
    lines = (
        "panel H 200a", "20' stud wall to switch as S", "from S 9' stud wall to outlet as A",
        "from A 9' stud wall in nm 12-3 to half hot outlet as B",
    )  # fmt: skip
    job = read_text("\n".join(lines))
    assert wires(job, "A") == wires(job, "B") == "neutral, hot, switched hot"
    assert "14-2 is a wire short" in {item.title for item in plan(job).findings}  # it was there before


@pytest.mark.parametrize(
    ("use", "lit"), [("Bedroom", True), ("Living room", True), ("Kitchen", False), ("Hall", False)]
)
def test_it_lights_a_habitable_room(use: str, lit: bool) -> None:
    """NEC 210.70(A)(1) exception 1, from memory: in place of a lighting outlet, but in kitchens, baths, halls."""
    assert bool(found(room(use), "room-no-light")) is not lit
    assert found(room(use, "outlet"), "room-no-light")


@pytest.mark.parametrize(("switched", "short"), [("half", False), ("whole", True)])
def test_one_that_goes_dark_is_in_addition(switched: Literal["half", "whole"], short: bool) -> None:
    """NEC 210.52(2), from memory: of those that a wall must have none is switched whole."""
    job = room("Bedroom", "outlet")
    assert not found(job, "wall-no-receptacle")
    boxes = tuple(b.model_copy(update={"switched": switched * (b.kind == "receptacle")}) for b in job.boxes)
    assert bool(found(job.model_copy(update={"boxes": boxes}), "wall-no-receptacle")) is short


def test_with_lights_it_goes_with_the_lights() -> None:
    more = ("ceiling light", "circuit from H 20a for bedroom outlets", "circuit from H 15a for bedroom lights")
    job = room("Bedroom", "half hot outlet", *more)
    outlets, lights = job.circuits
    names = {box.id: box.name for box in job.boxes}
    assert "HH" in {names[hop.box] for hop in lights.chain} and "HH" not in {names[hop.box] for hop in outlets.chain}
    assert not found(job, "switch-apart")


def test_what_is_proposed_keeps_it_with_its_switch() -> None:
    job = room("Bedroom", "half hot outlet", "wire everything")
    assert not found(job, "switch-apart") and not found(job, "box-loose")
    assert wires(job, "HH") == "neutral, hot, switched hot"


def test_its_card_says_which_tab() -> None:
    job = room("Bedroom", "half hot outlet", CIRCUIT.format(room="bedroom"))
    own = next(box.id for box in job.boxes if box.name == "HH")
    card = plan(job).record.card(own)
    assert isinstance(card, BoxCard) and any("screws, not the silver one: red on one" in note for note in card.notes)


@pytest.mark.parametrize(
    ("text", "switched"),
    [
        ("HH is not switched", ""), ("make HH fully switched", "whole"), ("R-1 is half hot", "half"),
        ("R-1 is on a switch", "half"), ("the outlet on the south wall is half hot", "half"),
    ],
)  # fmt: skip
def test_said_afterwards(text: str, switched: str) -> None:
    job = room("Bedroom", "half hot outlet", text)
    name = "HH" if "HH" in text else "R-1" if "R-1" in text else None
    told = [b.switched for b in job.boxes if b.name == name or (name is None and b.side == 2 and b.kind != "switch")]
    assert told == [switched]
