"""What is there changed as one speaks of it: the panel, the walk door, all outlets, the lights circuit."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.core.say.test_said_from_blank import GARAGE

JOB = read_text(GARAGE)
LOOK = Looked(room=JOB.rooms[0].id, level=JOB.rooms[0].level, panel=JOB.panels[0].id)


def changed(text: str) -> dict[str, dict[str, Any]]:
    """For each part that a sentence changes, by its name, the fields that are other than they were."""
    after = said_on(JOB, text, LOOK)[0]
    found: dict[str, dict[str, Any]] = {}
    for field in ("rooms", "openings", "boxes", "panels", "circuits"):
        before = {part.id: part for part in getattr(JOB, field)}
        for part in getattr(after, field):
            own, old = part.model_dump(), before[part.id].model_dump() if part.id in before else {}
            told = {key: value for key, value in own.items() if old.get(key) != value}
            if told:
                found[getattr(part, "name", part.id)] = told
    return found


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("move the panel to the north wall", {"G": {"side": 0, "at_in": 132.0}}),
        ("move the panel to the west wall at 4'", {"G": {"side": 3, "at_in": 48.0}}),
        ("move panel G 2' left", {"G": {"at_in": 192.0 - 24}}),
        ("panel G is 200 amps", {"G": {"main_a": 200.0, "bus_a": 200.0}}),
        ("G has 30 spaces", {"G": {"spaces": 30}}),
        ("the panel is in the wall", {"G": {"set_out_in": 0.5}}),  # as proud as the drywall
        ("the walk door swings out", {"o2": {"swings_in": False}}),
        ("the walk door is hinged right", {"o2": {"hinge": "right"}}),
        ("move the walk door 1' right", {"o2": {"at_in": 36.0}}),
        ("the overhead door is 12' wide", {"o1": {"width_in": 144.0}}),
        ("the east door is at 3' from the south corner", {"o2": {"at_in": 288.0 - 36 - 36}}),
        ("the vehicle outlet is 3' from the left", {"R-7": {"at_in": 36.0}}),
        ("move L-1 1' north", {"L-1": {"y_in": 60.0}}),
        ("make the lights circuit 20 amp", {"Lights Garage": {"breaker_a": 20.0}}),
        ("make vehicle charging 50 amp", {"Vehicle charging": {"breaker_a": 50.0}}),
    ],
)
def test_a_thing_by_what_it_is(text: str, expected: dict[str, dict[str, Any]]) -> None:
    assert changed(text) == expected


@pytest.mark.parametrize(
    ("text", "names", "height"),
    [
        ('raise all outlets to 50"', {"R-1", "R-2", "R-3", "R-4", "R-5"}, 50 - 1.875),
        ('the outlets are at 50"', {"R-1", "R-2", "R-3", "R-4", "R-5"}, 50 - 1.875),
        ('all receptacles in Garage at 50"', {"R-1", "R-2", "R-3", "R-4", "R-5"}, 50 - 1.875),
        ('switches at 44"', {"S-1", "S-2"}, 44 - 1.875),
        ('S-2 goes to 40"', {"S-2"}, 40 - 1.875),
    ],
)
def test_heights_of_a_kind(text: str, names: set[str], height: float) -> None:
    """The story pole marks the top: a box 3 3/4 tall has its middle 1 7/8 under it. What serves the opener on the
    ceiling and the vehicle stays."""
    found = changed(text)
    assert set(found) == names and {item["height_in"] for item in found.values()} == {height}


def circuits(job: Job) -> dict[str, list[str]]:
    called = {box.id: box.name for box in job.boxes}
    return {circuit.name: [called[hop.box] for hop in circuit.chain] for circuit in job.circuits}


def test_a_circuit_of_its_own() -> None:
    opener = next(box.name for box in JOB.boxes if box.serves == "opener")
    for text in ("put the opener outlet on its own circuit", f"{opener} gets a circuit of its own"):
        after = said_on(JOB, text, LOOK)[0]
        assert circuits(after)["Door opener"] == [opener]
        assert opener not in circuits(after)["Garage"] and len(circuits(after)["Garage"]) == 5
        assert after.circuits[-1].protection == "gfci"  # each receptacle of a garage, 210.8(A)(2)
        assert plan(after).stops == 0
    with pytest.raises(LevelRunError, match="alone on Vehicle charging already"):
        said_on(JOB, "give the vehicle outlet its own circuit", LOOK)


def test_more_than_one_is_taken_away() -> None:
    after = said_on(JOB, "delete R-1 and R-2", LOOK)[0]
    assert {"R-1", "R-2"}.isdisjoint(box.name for box in after.boxes)
    assert {"R-1", "R-2"}.isdisjoint(name for own in circuits(after).values() for name in own)
    assert "Lights Garage" not in circuits(said_on(JOB, "remove the lights circuit", LOOK)[0])


@pytest.mark.parametrize(("text", "method"), [("all circuits in emt", "raceway"), ("run everything in mc", "MC")])
def test_one_method_for_all(text: str, method: str) -> None:
    after = said_on(JOB, text, LOOK)[0]
    assert {circuit.method for circuit in after.circuits} == {method}
    with pytest.raises(LevelRunError, match="wired so already"):
        said_on(after, text, LOOK)


def test_an_outlet_by_the_panel_stands_beside_it() -> None:
    box = said_on(JOB, "add a receptacle by the panel", LOOK)[0].boxes[-1]
    panel = JOB.panels[0]
    assert box.side == panel.side
    off = abs((box.at_in or 0) - (panel.at_in or 0))
    assert panel.width_in / 2 + 2.25 / 2 <= off <= panel.width_in / 2 + 24


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("the window swings out", "Garage has no such window: say its wall"),
        ("move the walk door 30' right", "does not fit the east wall"),
        ("move L-1 1' left", "hangs on no wall: say north, east, south or west"),
        ("move R-1 1' north", "is on the north wall: it goes left or right along it"),
        ("move R-1 90' left", "past the north wall"),
        ('raise all switches in the moon to 40"', "expected"),
        ("everything in spaghetti", "a wiring method"),
        ("delete R-1 and R-99", "what is removed, by its name"),
    ],
)
def test_what_cannot_be_changed_is_told(text: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        said_on(JOB, text, LOOK)


def test_small_words_of_a_name_tell_no_circuit_apart() -> None:
    job = said_on(JOB, "rename Garage to Kitchen A; remove the lights circuit", LOOK)[0]
    job = said_on(job, "circuit 9 20a as Bed 1 and more", LOOK)[0]
    for text in ("remove a circuit", "remove and circuit", "remove more circuit", "remove 1 circuit"):
        with pytest.raises(LevelRunError, match="expected"):
            said_on(job, text, LOOK)
    assert len(said_on(job, "remove the bed circuit", LOOK)[0].circuits) == len(job.circuits) - 1
