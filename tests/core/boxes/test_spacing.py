"""Receptacle spacing against an exact integer programme (scipy's HiGHS), and worked rooms."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import Bounds, LinearConstraint, milp

from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.covering import Spot, fewest, out_of_reach
from levelrun.core.boxes.spacing import wall_spaces
from levelrun.core.codebook import Codebook, load
from tests.conftest import built, edited, found

REACH = 72.0


def least_by_programme(length: float, at: list[float], reach: float) -> int | None:
    """Fewest points by a set-cover programme over every critical place of the line."""
    edges = sorted({0.0, length, *(p + s * reach for p in at for s in (-1, 1))})
    edges = [e for e in edges if 0 <= e <= length]
    places = [*edges, *((a + b) / 2 for a, b in pairwise(edges))]
    cover = np.array([[abs(place - p) <= reach + 1e-9 for p in at] for place in places], dtype=float)
    if not at or (cover.sum(axis=1) == 0).any():
        return None
    answer = milp(np.ones(len(at)), constraints=LinearConstraint(cover, lb=1), integrality=1, bounds=Bounds(0, 1))
    return round(answer.fun)


@given(
    st.integers(24, 700),
    st.lists(st.integers(0, 700), min_size=1, max_size=14, unique=True),
)
def test_the_fewest_receptacles_are_those_of_an_exact_solver(length: int, places: list[int]) -> None:
    at = [float(p) for p in places if p <= length]
    chosen = fewest(float(length), REACH, [Spot(p) for p in at])
    assert (None if chosen is None else len(chosen)) == least_by_programme(length, at, REACH)
    if chosen is not None:
        assert out_of_reach(length, REACH, [spot.at_in for spot in chosen]) == []


def test_standing_receptacles_are_kept_and_counted_for_nothing() -> None:
    spots = [Spot(60.0, fixed=True), *(Spot(float(p)) for p in range(0, 480, 16))]
    chosen = fewest(480.0, REACH, spots)
    assert chosen is not None
    assert chosen[0].at_in == 60.0
    assert sum(not spot.fixed for spot in chosen) == 3


def test_a_worked_room_12_by_12_with_one_door(book: Codebook) -> None:
    """Perimeter 48 ft less a 3 ft door: 45 ft of wall, 6 ft from each jamb and 12 ft between: four receptacles
    reach 48 ft, three only 36 ft (210.52(A), arithmetic)."""
    job = built("room Den 12' x 12'; door south 3' at 34\"")
    spaces = wall_spaces(room_view(job, book, job.rooms[0].id))
    assert [round(space.length_in) for space in spaces] == [540]
    filled = edited(job, {"op": "fill_room", "room": job.rooms[0].id})
    assert sum(box.kind == "receptacle" for box in filled.boxes) == 4
    assert not found(filled, "wall-no-receptacle")


def test_walls_under_2_ft_between_doors_want_none_and_2_ft_do(book: Codebook) -> None:
    for gap, counts in (("1'11", False), ("2'", True)):
        job = built("room Den 12' x 12'; door south 3' at 0\"; door south 3' at 5'; set receptacle south 9'; fill")
        width = "59" if gap == "1'11" else "60"
        door = {"op": "set", "kind": "opening", "id": job.openings[1].id, "set": {"at_in": float(width)}}
        spaces = wall_spaces(room_view(edited(job, door), book, job.rooms[0].id))
        between = next(space for space in spaces if space.length_in in (23, 24))
        assert between.counts is counts


def test_high_outside_and_appliance_receptacles_do_not_serve_a_wall() -> None:
    base = "room Den 12' x 12'; door south 3' at 34\"; fill"
    assert not found(built(base), "wall-no-receptacle")
    for change in ({"height_in": 70.0}, {"outdoors": True}, {"serves": "refrigerator"}):
        job = built(base)
        first = next(box for box in job.boxes if box.kind == "receptacle")
        assert found(edited(job, {"op": "set", "kind": "box", "id": first.id, "set": change}), "wall-no-receptacle")


def test_counters_are_parted_by_sink_and_range_and_reach_24_in() -> None:
    """A 10 ft counter with a 30 in sink in the middle: two pieces of 45 in, each served by one at 24 in or less from
    both of its ends (210.52(C), arithmetic)."""
    job = built("room Kitchen 14' x 12'; mark counter north 10' at 0\"; mark sink north 30\" at 45\"; fill")
    over = [box for box in job.boxes if box.serves == "counter"]
    assert len(over) == 2
    assert not found(job, "counter-no-receptacle")
    assert all(box.height_in == 42 + 3.75 / 2 for box in over)


def test_the_canadian_set_spaces_by_its_own_reach() -> None:
    """A wall of 24 ft with receptacles 12 ft apart serves 6 ft each way, not the 1.8 m of C22.1 26-722."""
    job = built("room Den 24' x 12'; door west 12' at 0\"; door east 12' at 0\"; fill")
    assert not found(job, "wall-no-receptacle")
    assert load("ca-2021").number("receptacle_reach_in") < 72
    canadian = edited(job, {"op": "set_job", "set": {"rules": "ca-2021"}})
    assert (
        len(found(canadian, "wall-no-receptacle")) == 0 or found(canadian, "wall-no-receptacle")[0].limit == "1.800 m"
    )
    studs = [b.at_in for b in job.boxes if b.kind == "receptacle" and b.side == 0]
    assert len(studs) == 3, "two would have to stand at exactly 6 ft from both ends, where no stud is"


@given(st.lists(st.floats(0, 400), max_size=8), st.floats(0, 400))
def test_one_more_receptacle_never_leaves_more_out_of_reach(at: list[float], more: float) -> None:
    before = sum(b - a for a, b in out_of_reach(400, REACH, at))
    assert sum(b - a for a, b in out_of_reach(400, REACH, [*at, more])) <= before + 1e-6


def test_pole_moves_every_box_that_is_not_fixed() -> None:
    job = built("room Den 12' x 12'; set receptacle north 3'; set receptacle north 8' at 20\"")
    assert [box.height_in for box in job.boxes] == [16 - 3.75 / 2, 20 - 3.75 / 2]
    habits = job.habits.model_dump() | {
        "pole": job.habits.pole.model_dump() | {"receptacle": {"mark": "bottom", "at_in": 12.0}}
    }
    moved = edited(job, {"op": "set_job", "set": {"habits": habits}})
    assert [box.height_in for box in moved.boxes] == [12 + 3.75 / 2, 20 - 3.75 / 2]


@pytest.mark.parametrize("use", ["bath", "hall", "garage", "closet"])
def test_rooms_that_210_52_a_leaves_out_are_not_spaced(use: str) -> None:
    assert not found(built(f"room Place 12' x 12' as {use}"), "wall-no-receptacle")
