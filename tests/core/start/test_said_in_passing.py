"""What is said in passing of a line: what a machine can do, a panel beside a panel, a floor that is gone through."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.site.sizes import without_capacity
from levelrun.exchange.text import JobTextError, read_text

PANEL = "panel H 200a 40 spaces taken 1-20\n"


def legs(job: Job) -> list[tuple[str, str, float, bool]]:
    return [(leg.go, leg.place, leg.length_in, leg.supposed) for way in job.ways for leg in way.legs]


@pytest.mark.parametrize(
    "line",
    [
        "3 ton heat pump mca 22 mocp 35, 20' outside wall in 3/4 pvc80",
        "heat pump 36k btu mca 22 mocp 35, 20' outside wall in 3/4 pvc80",
        "36,000 btu heat pump mca 22 mocp 35, 20' outside wall in 3/4 pvc80",
        "2-1/2 ton heat pump mca 22 mocp 35, 20' outside wall in 3/4 pvc80",
    ],
)
def test_what_a_machine_can_do_says_nothing_to_a_wire(line: str) -> None:
    plain = read_text(PANEL + "heat pump mca 22 mocp 35, 20' outside wall in 3/4 pvc80")
    assert read_text(PANEL + line) == plain
    (circuit,) = plain.circuits
    assert (circuit.least_ampacity_a, circuit.largest_breaker_a, circuit.breaker_a) == (22, 35, 35)


@pytest.mark.parametrize("text", ["outlet 20' wall", "20' trench 18\" deep", "circuit 5 20a as Button", "2 tonnes"])
def test_what_is_no_capacity_stays_and_all_keeps_its_place(text: str) -> None:
    assert without_capacity(text) == text
    assert len(without_capacity(f"5 ton {text}")) == len(text) + 6 and without_capacity(f"5 ton {text}").endswith(
        text
    )


@pytest.mark.parametrize(
    ("line", "long", "supposed"),
    [
        ("sub panel B 100a 24 spaces beside panel H, 3' in 1-1/4 emt", 36, True),
        ("sub panel B 100a next to panel H 3' apart in emt", 36, True),
        ("100a sub panel B right next to the main panel", 24, True),
        ("sub panel B 100a beside panel H, 3' basement in ser", 36, False),
    ],
)
def test_a_panel_beside_a_panel(line: str, long: float, supposed: bool) -> None:
    job = read_text(PANEL + line)
    assert [panel.name for panel in job.panels] == ["H", "B"] and job.circuits[0].feeds == job.panels[1].id
    assert [(length, asked) for _, _, length, asked in legs(job)] == [(long, supposed)]
    assert ("place-asked" in {item.code for item in plan(job).findings}) is supposed


def test_a_floor_is_gone_through_as_a_wall_is() -> None:
    """Not said how thick: a foot of joists, floor and plate; 8 in of wall."""
    up = read_text(
        PANEL + "50a range 6/3 up 4' then 38' across the basement ceiling, up through the floor to the range"
    )
    assert [(go, long) for go, _, long, _ in legs(up)] == [("up", 48), ("over", 456), ("up", 12)]
    out = read_text(PANEL + "20a outlet 20' basement, out through the wall")
    assert [long for _, _, long, _ in legs(out)] == [240, 8]
    said = read_text(PANEL + "range 6/3 38' basement, up 2' through the floor to the range")
    assert [long for _, _, long, _ in legs(said)] == [456, 24]


def test_a_place_behind_its_word_is_a_leg_of_its_own() -> None:
    for line in (
        "up 8' across the attic 12', down 6' to outlet",
        "up 8' then across the attic 12' then down 6' to outlet",
    ):
        assert [(go, long) for go, _, long, _ in legs(read_text(PANEL + line))] == [
            ("up", 96),
            ("over", 144),
            ("down", 72),
        ]
    one = read_text(PANEL + "12' over the ceiling 8' down the wall to outlet")
    assert [long for _, _, long, _ in legs(one)] == [144, 96]
    dug = read_text(PANEL + "30' through the trench 18\" in 3/4 pvc to outlet")
    assert legs(dug)[0][2] == 360 and dug.ways[0].legs[0].depth_in == 18


def test_cord_is_no_wiring() -> None:
    for cord in ("10-4 so cord", "soow cord", "extension cord"):
        with pytest.raises(JobTextError, match=r"NEC 400\.12"):
            read_text(PANEL + f"generator inlet 30a outside, 25' wall {cord}")


@pytest.mark.parametrize("line", ["heat tape outlet 20' crawl", "heat tape 20' crawl", "gutter heat tape 20' attic"])
def test_heat_tape_is_on_for_hours_behind_a_gfci(line: str) -> None:
    """NEC 427.22 for pipes, 426.28 for gutters: ground-fault protection; fixed heat is continuous."""
    job = read_text(PANEL + line)
    assert job.boxes[0].serves == "heat_cable" and job.circuits[0].protection in ("gfci", "dual")


def test_own_circuit_behind_its_way() -> None:
    job = read_text(PANEL + "freezer outlet in the garage 30' attic, own circuit")
    assert len(job.circuits) == 1 and job.boxes[0].use == "garage"
