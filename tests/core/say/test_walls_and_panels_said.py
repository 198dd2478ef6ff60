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
    # one that nobody gave a name: no word of the rest becomes one
    "200a panel": {"name": "P-1", "main_a": 200.0},
    "panel 200a 40 spaces": {"name": "P-1", "spaces": 40},
    "100a panel full": {"name": "P-1", "free_said": 0},
    "200a panel on the garage wall": {"name": "P-1", "where": "garage wall"},
    "200a panel outside, 40 spaces, 6 open": {"name": "P-1", "where": "outside", "free_said": 6},
    "there's a 100 amp panel in the basement, 3 free spaces": {"where": "basement", "free_said": 3},
    "the breaker box is 100 amps, 20 spaces, 2 spaces left": {"spaces": 20, "free_said": 2},
    "main panel 200a 30 spaces, 3 free: 20 22 24": {"name": "Main", "free_said": None},
    "sub panel in the garage 60a": {"name": "P-1", "where": "garage", "disconnect_elsewhere": True},
    "garage panel 60a 12 spaces": {"name": "Garage", "where": "garage", "spaces": 12},
    "200 amp panel on the outside of the house, taken 1-22": {"where": "outside", "spaces": 40},
    "panel H 100a taken 1-20": {"spaces": 24, "free_said": None},  # not full, where nobody said how many it has
    "panel in the utility room 150a 30 spaces, last two spaces open": {"taken": tuple(range(1, 29))},
    "100a panel, bottom 4 free": {"free_said": 4, "taken": ()},
    "panel S 100a in the barn 24 spaces": {"name": "S", "where": "", "spaces": 24},
    "panel S 100a sub-panel, 24 spaces": {"name": "S", "disconnect_elsewhere": True, "bonded": False},
}


@pytest.mark.parametrize("text", PANELS)
def test_a_panel_is_said_as_it_stands_there(text: str) -> None:
    (panel,) = built(text).panels
    assert {name: getattr(panel, name) for name in PANELS[text]} == PANELS[text]


# a second line to an outlet, and the panel that it begins at
FROM = {
    "garage panel 60a\nfrom the garage panel 20' stud wall to outlet": "Garage",
    "200a panel\nfrom the main panel 20' stud wall to outlet": "P-1",
    "200a panel\nsub-panel 60a 30' basement\nfrom the sub-panel 20' stud wall to outlet": "S",
    "200a panel\n100a feeder 80' trench to the shop\nfrom the shop panel 20' stud wall to outlet": "Panel Shop",
    "200a panel\n60a feeder to the barn 80' trench\noutlet 20' basement from the main panel": "P-1",
}


@pytest.mark.parametrize("text", FROM)
def test_a_panel_is_called_by_what_it_is(text: str) -> None:
    job = built(text)
    (circuit,) = [circuit for circuit in job.circuits if circuit.feeds is None]
    assert next(panel.name for panel in job.panels if panel.id == circuit.panel) == FROM[text]


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


@pytest.mark.parametrize("text", ["from A 20' stud wall to outlet", "outlet 20' stud wall from A"])
def test_a_panel_called_like_an_article(text: str) -> None:
    job = built(f"panel B 200a\npanel A 100a\n{text}")
    assert [panel.name for panel in job.panels if panel.id == job.circuits[0].panel] == ["A"]


# a third line to a light behind an outlet, and where that begins
AT = {
    "from the outlet 10' stud wall to light": "R-1",
    "from outlet R-1 10' stud wall to light": "R-1",
    "10' stud wall to light from the outlet": "R-1",
    "from the outlet in the bedroom 10' stud wall to light": "R-1",
}


@pytest.mark.parametrize("text", AT)
def test_the_only_one_of_a_kind_is_called_by_that(text: str) -> None:
    job = built(f"panel H 200a\n20' stud wall to bedroom outlet\n{text}")
    (circuit,) = job.circuits
    names = {box.id: box.name for box in job.boxes}
    assert [names.get(hop.after or "") for hop in circuit.chain] == [None, AT[text]]


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("from the outlet 10' stud wall to light", "there are 2 of them: say which by its name"),
        ("from the light 10' stud wall to outlet", "no light is wired yet"),
        ("from the switch 10' stud wall to outlet", "no switch is wired yet"),
    ],
)
def test_several_or_none_of_a_kind(text: str, told: str) -> None:
    job = built("panel H 200a\n20' stud wall to bedroom outlet\nfrom R-1 8' stud wall to outlet")
    with pytest.raises(TextError, match=told):
        built(text, job)
