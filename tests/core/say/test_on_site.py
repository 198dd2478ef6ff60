"""What is said on site: readings by their size, several depths of a trench, boxes from one to another."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.exchange.text import read_text

JOB = read_text(
    "house\npanel H 200a 40 spaces\nden 12' x 12'\noutlets to code in den\ngarage 24' x 24', 60' west of the house\n"
    "trench house to garage 24\" deep\nfrom H 30' basement to dryer\npropose circuits"
)


def after(text: str, verb: str = "", job: Job = JOB) -> Job:
    return said_on(job, text, Looked(), verb)[0]


def test_the_legs_of_a_panel_in_one_breath() -> None:
    """In the field: 121 and 122 to neutral, 243 between them."""
    job = after("H reads 121/122/243", "measure")
    assert {item.step: item.value for item in job.measured} == {"leg_a": 121, "leg_b": 122, "legs": 243}
    assert {item.step: item.value for item in after("H 120/121", "measure").measured} == {"leg_a": 120, "leg_b": 121}


def test_a_dryer_reads_from_line_to_line() -> None:
    job, look = said_on(JOB, "dryer reads 241", Looked(), "measure")
    (reading,) = job.measured
    assert (reading.step, reading.value) == ("line_line", 241) and "from line to line" in look.told[0]


@pytest.mark.parametrize("text", ["dryer reads 121", "R-1 120", "H reads 5", "H is hot"])
def test_a_figure_of_which_nobody_knows_what_it_is_is_no_reading(text: str) -> None:
    with pytest.raises(LevelRunError):
        after(text, "measure")


@pytest.mark.parametrize("text", ["H reads 5", "H is hot"])
def test_what_begins_with_a_panel_is_no_circuit_of_that_name(text: str) -> None:
    """On Circuits it made one called so, on the first free space."""
    with pytest.raises(TextError, match="H is a panel"):
        after(text, "circuit")
    assert after("Dryer vent 20a", "circuit").circuits[-1].name == "Dryer vent"
    assert after('"H reads 5" 20a', "circuit").circuits[-1].name == "H reads 5"


@pytest.mark.parametrize(
    ("text", "readings"),
    [
        ("the trench is 22\" at 10' and 24\" at 40'", [(120, 22), (480, 24)]),
        ("24\" at 40' and 22\" at 10' tape", [(120, 22), (480, 24)]),
        ("cover is 22\" at 10'", [(120, 22)]),
    ],
)
def test_several_depths_of_a_trench(text: str, readings: list[tuple[float, float]]) -> None:
    (line,) = after(text, "trench").trenches
    assert [(item.at_in, item.depth_in) for item in line.readings] == readings
    with pytest.raises(TextError, match="long"):
        after("22\" at 10' and 24\" at 400'", "trench")


def test_boxes_from_one_to_another() -> None:
    made = after("R-2 to R-4 are made up")
    assert {JOB.node(card.node).name for card in made.cards if card.done} == {"R-2", "R-3", "R-4"}
    assert {box.name for box in after("mark R-1 to R-3").boxes if box.marked} == {"R-1", "R-2", "R-3"}
    with pytest.raises(TextError):
        after("R-4 to R-2 are made up")


def test_rods_and_marks_without_more_words() -> None:
    """Two rods at the one building that is fed (250.32, 250.53); the marks before the trench is dug."""
    fed = read_text(
        "house\npanel H 200a 40 spaces\nstudio 16' x 20', 45' from the house\nsub-panel S 60a in the studio on the "
        "west wall\nfeed S from H 60a\ntwo ground rods"
    )
    studio = next(item.id for item in fed.structures if item.name == "Studio")
    assert [rod.structure for rod in fed.electrodes] == [studio, studio]
    for text in ("the marks are done", "utilities are marked", "marked on 2026-05-01"):
        (line,) = after(text, "trench").trenches
        assert [tick.step for tick in line.done] == ["marks"]
