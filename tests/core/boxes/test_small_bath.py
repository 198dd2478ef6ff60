"""The zone of a tub, and the bath that is too small to keep out of it (406.9(C) with its exception, from memory)."""

from __future__ import annotations

import pytest

from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.wet import far_wall, from_water, may_stand
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text

# 5' from the north to the south wall, a tub of 30 in along all of the north one: 30 in are left.
SMALL = "room Bath 8' x 5'\ndoor east 30\" wide\ntub north all\n"
WIDE = "room Bath 8' x 9'\ndoor east 30\" wide\ntub north all\n"


def stops(job: Job) -> set[str]:
    return {item.code for item in plan(job).findings if item.severity == "stop"}


def test_a_bath_that_is_too_small_has_its_outlet_on_the_farthest_wall() -> None:
    job = read_text(SMALL + "vanity south 1' to 3'\ngfci outlet by the vanity")
    view = room_view(job, job_book(job), job.rooms[0].id)
    assert far_wall(view) == 2
    assert from_water(view, (48.0, 0.0)) == pytest.approx(30)
    assert job.boxes[0].side == 2 and "wet-zone" not in stops(job)


@pytest.mark.parametrize("side", ["north 4'", "west 2'"])
def test_its_other_walls_stay_closed(side: str) -> None:
    assert "wet-zone" in stops(read_text(SMALL + f"set receptacle {side}"))


def test_a_bath_with_a_place_out_of_the_zone_has_no_exception() -> None:
    job = read_text(WIDE + "set receptacle west 2'\nset receptacle west 8'")
    view = room_view(job, job_book(job), job.rooms[0].id)
    assert far_wall(view) is None
    west = view.faces[3]
    assert [may_stand(view, west, at) for at in (10.0, 98.0)] == [True, False]
    assert "wet-zone" in stops(job)


def test_a_bath_without_a_tub_has_no_zone() -> None:
    job = read_text("room Bath 8' x 5'\nset receptacle west 2'")
    view = room_view(job, job_book(job), job.rooms[0].id)
    assert from_water(view, (0.0, 0.0)) == float("inf") and "wet-zone" not in stops(job)
