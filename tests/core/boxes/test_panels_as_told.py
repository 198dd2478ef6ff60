"""Panels as they are told: what is free, fuses, what replaces them, where they stand."""

from __future__ import annotations

import pytest

from levelrun.exchange.text import JobTextError, read_text


@pytest.mark.parametrize(
    "text",
    [
        "3 free: 20 22 24",
        "only 20 22 24 free",
        "free spaces 20, 22 and 24",
        "open: 20, 22, 24",
        "three free 20 22 24",
    ],
)
def test_the_free_spaces(text: str) -> None:
    (panel,) = read_text(f"panel H 125a 24 spaces, {text}").panels
    assert set(range(1, 25)) - set(panel.taken) == {20, 22, 24} and panel.free_said is None


def test_how_many_are_free_is_no_list() -> None:
    (panel,) = read_text("panel H 2 free 24 spaces 125a").panels
    assert (panel.free_said, panel.spaces, panel.main_a, panel.taken) == (2, 24, 125, ())


def test_a_fuse_box_that_is_replaced() -> None:
    job = read_text("old house built 1952, panel K fuse box 60a\nreplace panel K with a 200a panel 40 spaces")
    (panel,) = job.panels
    assert (panel.main_a, panel.bus_a, panel.spaces) == (200, 200, 40)


def test_outside_on_a_wall_and_beside_a_door() -> None:
    (out,) = read_text("house\npanel H 200a 42 spaces outside on the east wall").panels
    assert out.where == "outside, east wall"
    job = read_text("barn 36' x 48'\ndoor west 10' 36\"\npanel B 100a 24 spaces on the west wall by the door")
    (panel,), (door,) = job.panels, job.openings
    assert panel.side == door.side and panel.at_in is not None
    assert (
        panel.at_in - (door.at_in + door.width_in) == 21
    )  # half of the 30 in before it (110.26(A)(2)), and a casing
    with pytest.raises(JobTextError, match="no such doors in the west wall"):
        read_text("barn 36' x 48'\npanel B 100a 24 spaces on the west wall by the door")


@pytest.mark.parametrize("text", ["panel G in the garage 60a 12 spaces", "panel G 60a 12 spaces in the garage"])
def test_a_panel_in_a_drawn_building_stands_in_that(text: str) -> None:
    """It stood in the first building of the job, and its circuits hung on the panel of the house."""
    job = read_text(f"house, existing panel H 200a 40 spaces\ngarage 24' x 24', 50' west of the house\n{text}")
    panel = job.panels[-1]
    assert panel.room == job.rooms[0].id and job.structure(panel.structure).name == "Garage"
