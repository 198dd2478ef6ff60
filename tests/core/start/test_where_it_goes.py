"""Lines to and from buildings that are drawn already, several circuits alike in one line, the room said first."""

from __future__ import annotations

import pytest

from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

BARN = """house panel 200a 40 spaces taken 1-30
{barn} 30x40, 100' from the house
walk door on the south wall 4' from the west corner
feed the {word} with 100a, 110' in a trench in 2" pvc, 24" deep
{word} panel 100a 20 spaces on the east wall"""


def barn(*more: str, barn: str = "pole barn", word: str = "barn") -> Job:
    return read_text("\n".join((BARN.format(barn=barn, word=word), *more)))


@pytest.mark.parametrize(
    ("drawn", "word"), [("pole barn", "barn"), ("cabin", "cabin"), ("detached garage", "garage"), ("barn", "barn")]
)
def test_a_feeder_goes_to_the_building_that_is_drawn(drawn: str, word: str) -> None:
    job = barn(barn=drawn, word=word)
    assert len(job.structures) == 2 and len({item.name for item in job.structures}) == 2
    _, panel = job.panels
    assert panel.structure == job.structures[1].id and panel.room == job.rooms[0].id
    assert (panel.main_a, panel.spaces, panel.bonded) == (100, 20, False)
    assert [circuit.feeds for circuit in job.circuits] == [panel.id]
    assert not {item.code for item in plan(job).findings} & {"bonded-sub", "panel-nowhere"}


def test_a_line_in_it_begins_at_its_panel() -> None:
    job = barn("50a outlet for a welder, 20' along the wall in emt", "outlet 15' along the wall in emt from P-1")
    panels = {panel.id: panel.name for panel in job.panels}
    assert [panels[circuit.panel] for circuit in job.circuits[1:]] == ["Panel " + job.structures[1].name, "P-1"]


@pytest.mark.parametrize("what", ["shop", "garage"])
def test_a_room_of_the_house_is_no_building_apart(what: str) -> None:
    """No second building of its name is put up where a trench is said to lead to it, and none for a panel in it."""
    drawn = f"panel H 200a\n{what} 20x24"
    with pytest.raises(LevelRunError, match=f"draw it as `detached {what}`"):
        read_text(f"{drawn}\nfeed the {what} with 60a, 80' in a trench in 1\" pvc")
    job = read_text(f"{drawn}\nfeed the {what} with 60a, 30' basement")
    assert len(job.structures) == 1 and [panel.structure for panel in job.panels] == ["s1", "s1"]
    assert not {item.code for item in plan(job).findings} & {"electrode-missing", "no-electrode"}


@pytest.mark.parametrize(
    ("text", "count", "serves"),
    [
        ("two 20a counter circuits 40' basement", 2, "counter"),
        ("two small appliance circuits, 40' basement", 2, "counter"),
        ("3 circuits to the kitchen counter 20a 40' basement", 3, "counter"),
        ("run two separate 20a circuits to the garage, 40' attic", 2, ""),
        ("counter circuit 20a 40' basement", 1, "counter"),
    ],
)
def test_so_many_circuits_alike(text: str, count: int, serves: str) -> None:
    job = read_text(f"panel H 200a 30 spaces\n{text}")
    assert [circuit.breaker_a for circuit in job.circuits] == [20] * count
    assert [circuit.space for circuit in job.circuits] == list(range(1, count + 1))
    assert [box.serves for box in job.boxes] == [serves] * count and len(job.ways) == count


def test_what_is_wrong_of_several_is_pointed_at_where_it_stands() -> None:
    text = "two 20a counter circuits 40' nowhere"
    with pytest.raises(LevelRunError) as told:
        read_text(f"panel H 200a 30 spaces\n{text}")
    assert "nowhere" in str(told.value)


@pytest.mark.parametrize("text", ["bedroom: outlet, 30' attic", "bedroom: 15a outlet 30' attic"])
def test_the_room_may_stand_first(text: str) -> None:
    (box,) = read_text(f"panel H 200a\n{text}").boxes
    assert box.use == "bedroom"


@pytest.mark.parametrize(
    ("text", "whip_in"),
    [
        ("mini split 20a 230v 35' outside wall in pvc, disconnect and whip", 48),
        ("heat pump 30a 25' outside wall in pvc to a disconnect and 4' whip", 48),
        ("heat pump 25' outside wall to a disconnect, then 5' whip to the heat pump", 60),
        ("25' outside wall to a heat pump with a disconnect and a 30\" whip", 30),
        ("heat pump mca 18 mocp 30, 25' outside wall, disconnect", 48),
        ("air compressor 30a 240v 50' wall in emt with a disconnect", 48),
    ],
)
def test_a_disconnect_and_its_whip(text: str, whip_in: float) -> None:
    job = read_text(f"panel H 200a 30 spaces\n{text}")
    assert [box.kind for box in job.boxes] == ["disconnect", "equipment"]
    assert [(leg.place, leg.length_in) for leg in job.ways[0].legs][-1] == ("equipment_tail", whip_in)
