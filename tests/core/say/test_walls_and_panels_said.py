"""A panel as its label and its owner speak of it; a way out through a wall, and one that comes to its next place."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.errors import TextError
from levelrun.core.job import Job
from tests.conftest import built

PANELS: dict[str, dict[str, Any]] = {
    "panel H 200a main breaker 30 spaces": {"main_a": 200.0, "spaces": 30},
    "panel H 200 amp main breaker panel, 30 spaces, 4 free": {"main_a": 200.0, "spaces": 30, "free_said": 4},
    "panel H 125a 24 spaces main breaker 100a": {"main_a": 100.0, "spaces": 24},
    "200 amp main breaker panel H with 30 spaces in the basement": {"main_a": 200.0, "where": "basement"},
    "panel H 200a 40 spaces taken 1-30, main in it": {"spaces": 40, "disconnect_elsewhere": False},
    "panel H 100a 20 spaces full": {"taken": tuple(range(1, 21)), "free_said": None},
    "panel H 100a, no spaces left": {"taken": (), "free_said": 0},
    "panel H 100a 20 spaces full but 3 5": {"taken": tuple(n for n in range(1, 21) if n not in (3, 5))},
    "panel P 200a on the garage wall, 42 spaces, taken 1-20": {"where": "garage wall", "spaces": 42},
    "panel P 200a on the outside wall": {"where": "outside wall"},
}


@pytest.mark.parametrize("text", PANELS)
def test_a_panel_is_said_as_it_stands_there(text: str) -> None:
    (panel,) = built(text).panels
    assert {name: getattr(panel, name) for name in PANELS[text]} == PANELS[text]


HOUSE = built("panel H 200a 30 spaces taken 1-14")
# each leg: its direction, its inches, its place
LEGS = {
    "8' basement, out through the wall, down 3' outside in emt 3/4": [
        ("over", 96, "basement"), ("over", 8, "stud_wall"), ("down", 36, "outside_wall"),
    ],
    "8' basement then through the wall then down 3' outside": [
        ("over", 96, "basement"), ("over", 8, "stud_wall"), ("down", 36, "outside_wall"),
    ],
    "8' basement out the wall down 3' outside": [
        ("over", 96, "basement"), ("over", 8, "stud_wall"), ("down", 36, "outside_wall"),
    ],
    "20' block wall, through the block wall": [("over", 240, "masonry_inside"), ("over", 8, "stud_wall")],
    "through the wall 12' attic": [("over", 8, "stud_wall"), ("over", 144, "attic")],
    "12' through the wall": [("over", 144, "stud_wall")],
    "through the wall 12'": [("over", 144, "stud_wall")],
    "6' down to the crawl space, 30' crawl": [("down", 72, "stud_wall"), ("over", 360, "crawl_space")],
    "up 4' stud wall to the attic then 30' attic": [("up", 48, "stud_wall"), ("over", 360, "attic")],
}  # fmt: skip


def legs(job: Job) -> list[tuple[str, float, str]]:
    return [(leg.go, leg.length_in, leg.place) for leg in job.ways[-1].legs]


@pytest.mark.parametrize("text", LEGS)
def test_a_wall_is_gone_through_and_a_place_come_to(text: str) -> None:
    assert legs(built(f"from H {text} to outlet", HOUSE)) == LEGS[text]


def test_a_line_ends_at_no_place() -> None:
    with pytest.raises(TextError, match="what stands at the end"):
        built("from H 12' up to the attic", HOUSE)


def test_what_is_wired_stands_on_the_wall_of_a_room_that_nobody_draws() -> None:
    job = built("generator inlet 30a on the garage wall\nfrom H 14' stud wall, through the wall to inlet\n", HOUSE)
    (inlet,) = (box for box in job.boxes if box.serves == "generator")
    assert (inlet.where, inlet.use) == ("garage wall", "garage")
    assert legs(job) == [("over", 168, "stud_wall"), ("over", 8, "stud_wall")]


def test_what_a_disconnect_is_for_says_where_it_stands_and_its_least_wire() -> None:
    job = built("from H 229' trench 24\" deep in uf to disconnect for well pump 1-1/2 hp 240v", HOUSE)
    (switch,) = job.boxes
    assert (switch.kind, switch.serves, switch.outdoors) == ("disconnect", "pump", True)
    assert (job.circuits[0].wire_size, job.circuits[0].protection) == ("12", "gfci")


@pytest.mark.parametrize("figures", ["mca 21.5 max 35", "mca 21.5 mocp 35", "max 35 mca 21.5"])
def test_what_a_disconnect_is_for_ends_before_its_nameplate(figures: str) -> None:
    (circuit,) = built(f"from H 40' crawl to disconnect for heat pump {figures}", HOUSE).circuits
    assert (circuit.name, circuit.least_ampacity_a, circuit.largest_breaker_a) == ("heat pump", 21.5, 35.0)
