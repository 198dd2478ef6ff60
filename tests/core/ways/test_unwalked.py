"""Cables from outlet to outlet that nobody walked: cut, pulled and bought as those are that lie in ways."""

from __future__ import annotations

import pytest

from levelrun.core.buying.lines import Line
from levelrun.core.job import Job
from levelrun.core.plan import Plan, plan
from levelrun.core.ways.pull_list import pull_list
from levelrun.exchange.text import read_text
from levelrun.samples import SAMPLES, sample

PANEL = "panel H 200a 30 spaces taken 1-14\n"
MULTIWIRE = PANEL + "40' basement in 12-3 multiwire to 4 outlets 6' apart"


def cable_lines(planned: Plan) -> list[Line]:
    return [line for row in planned.buying.taken.rows.values() for line in row.lines if row.item.shelf == "cable"]


def feet(job: Job) -> dict[str, float]:
    """All that is pulled, by kind."""
    made = plan(job)
    cuts = [cut for way in (*made.ways, *made.drawn.ways.values()) for cut in way.cuts]
    found = pull_list(job, {}, [*cuts, *(cut for own in made.unwalked.values() for cut in own)])
    return {total.item: total.cut_in / 12 for total in found.totals}


def test_the_cables_from_outlet_to_outlet_are_pulled_too() -> None:
    """By hand: 6 ft with 8 in at both ends, a loop of 6 in and 5 %: 8.13, 9 ft; 12 ft on to the second on that
    circuit: 14.4, 15 ft; the other circuit twice 15."""
    job = read_text(MULTIWIRE)
    assert feet(job) == {"12-3 NM-B": 47, "12-2 NM-B": 9 + 15 + 15 + 15}
    (first, second, *_) = plan(job).unwalked.values()
    assert [(cut.start, cut.end, cut.cut_in / 12) for cut in first] == [("J-1", "R-1", 9), ("R-1", "R-3", 15)]
    assert [(cut.start, cut.end) for cut in second] == [("J-1", "R-2"), ("R-2", "R-4")]


@pytest.mark.parametrize("name", [*SAMPLES, "in a row"])
def test_each_is_as_long_as_its_circuit_says_and_is_bought(name: str) -> None:
    job = read_text(MULTIWIRE) if name == "in a row" else sample(name)
    made = plan(job)
    bought = cable_lines(made)
    for circuit in made.circuits:
        said = {row.box: row.cut_in for row in circuit.chain if row.cut_in is not None}
        cuts = made.unwalked[circuit.summary.id]
        assert {cut.box: cut.cut_in for cut in cuts} == said
        for cut in cuts:
            feet = {line.amount for line in bought if line.hop == (cut.circuit, cut.box)}
            assert feet == {cut.cut_in / 12}


def test_wires_that_nobody_walked_are_cut_colour_by_colour() -> None:
    """By hand: 8 ft, 8 in at both ends, a loop of 6 in and 5 %: 10.2, 11 ft of each."""
    job = read_text(PANEL + "40' shop wall in 1/2 emt to 2 outlets\nR-1 to R-2 is 8'")
    (cut,) = plan(job).unwalked[job.circuits[0].id]
    assert (cut.what, cut.colours, cut.cut_in) == ("12 THWN-2", ("black", "white", "green"), 11 * 12)


def test_a_cable_is_bought_with_the_wires_that_it_is_made_with() -> None:
    """Nobody makes a 4-2; by hand: 8 ft, 8 in at both ends, a loop of 6 in and 5 %: 10.2, 11 ft."""
    job = read_text(PANEL + "from H to 2 outlets 50a 240v wire 4 25' basement\nR-1 to R-2 is 8'")
    made = plan(job)
    (cut,) = made.unwalked[job.circuits[0].id]
    assert (cut.what, cut.cut_in) == ("4-3 NM-B", 11 * 12)
    assert [row.cable for row in made.circuits[0].chain] == ["4-3", "4-3"]
    assert {row.item.key for row in made.buying.taken.rows.values() if row.item.shelf == "cable"} == {"4-3 NM-B"}
    assert feet(job) == {"4-3 NM-B": 31 + 11} and made.circuits[0].cables == [f"{31 + 11} ft of 4-3 NM-B"]


def test_wires_in_pipe_that_nobody_walked_are_called_as_they_are_bought() -> None:
    """By hand: 6 ft, 8 in at both ends, a loop of 6 in and 5 %: 8.1, 9 ft of each."""
    job = read_text(PANEL + "shop outlet and light, 40' shop wall in 1/2 emt\nR-1 to L-1 is 6'")
    made = plan(job).circuits[0]
    assert made.cables[-1] == "3 × 9 ft of 12 THWN-2"
