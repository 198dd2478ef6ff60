"""Holes in studs: bits, limits, plates, bundles, the sheet; what is said of holes and of ways that draw themselves.

Limits by IRC R602.6 (40 % of a bearing stud, 60 % of another, 5/8 in to the edge), R502.8 and 300.4(A)(1), from
memory and worked by hand below; two 12-2 in a 3/4 hole is common practice, no source. Bundles: 310.15(C)(1), 334.80.
"""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.core.ways.drilling import Drilled, sheet, studs_of
from levelrun.core.ways.facts import WayView
from tests.conftest import codes, edited
from tests.core.ways.frame.houses import LEVELS, two_rooms, with_boxes

NORTH = ((("w", 0, 20.0, 14.0)), ("w", 0, 130.0, 14.0))


def house(count: int, wire: str = "12", stud: str = "2x4", **side: Any) -> Job:
    """So many circuits, each with one cable from a box at 20 in of the north wall to one at 130."""
    job = with_boxes(two_rooms(), *NORTH)
    hop = job.circuits[0].chain[1]
    first = job.circuits[0].model_copy(update={"wire_size": wire, "chain": (job.circuits[0].chain[0], hop)})
    circuits = [first.model_copy(update={"id": f"k{n}", "name": f"K {n}", "space": n + 1}) for n in range(count)]
    job = job.model_copy(update={"circuits": tuple(circuits)}).checked()
    return edited(job, {"op": "set_side", "room": "w", "side": None, "set": {"stud": stud, **side}})


def north(job: Job) -> Drilled:
    """The north wall as it is drilled."""
    walls = plan(job).drawn.walls
    return next(wall for line, wall in walls.items() if line.along == (1.0, 0.0) and line.centre > 100)


@pytest.mark.parametrize(("count", "holes"), [(1, 1), (2, 1), (3, 2), (4, 2), (5, 3)])
def test_two_small_cables_go_through_a_hole(count: int, holes: int) -> None:
    """At the stud at 64 in, between the boxes."""
    at = [hole for hole in north(house(count)).holes if hole.stud.at_in == 64.0]
    assert len(at) == holes and {hole.bit_in for hole in at} == {0.75}


def test_a_large_cable_takes_a_hole_of_its_own() -> None:
    """6-2 is 0.70 in wide: 15 % more is 0.81, and no less than 1 in."""
    at = [hole for hole in north(house(2, wire="6")).holes if hole.stud.at_in == 64.0]
    assert [hole.bit_in for hole in at] == [1.0, 1.0]


# stud, cable, largest hole worked by hand, whether it may be, whether a plate goes over it
BORED = [
    ("2x4", "12", 0.40 * 3.5, True, False),  # (3.5 - 0.75) / 2 = 1.375 of wood at each side
    ("2x4", "6", 0.40 * 3.5, True, False),  # (3.5 - 1) / 2 = 1.25
    ("2x3", "6", 0.40 * 2.5, True, True),  # 1 of 1.0; (2.5 - 1) / 2 = 0.75
    ("furring", "12", 0.25, False, True),  # 1.5 - 2 x 0.625 = 0.25
]


@pytest.mark.parametrize(("stud", "wire", "most", "allowed", "plate"), BORED)
def test_holes_by_hand(stud: str, wire: str, most: float, allowed: bool, plate: bool) -> None:
    hole = next(hole for hole in north(house(1, wire, stud)).holes if hole.stud.kind == "stud")
    assert hole.limits.max_hole_in == pytest.approx(most)
    assert (hole.limits.allowed, hole.limits.plate_needed) == (allowed, plate)


def test_what_is_said_of_holes() -> None:
    assert "hole-large" in codes(plan(house(1, stud="furring")))
    assert "hole-large" not in codes(plan(house(1)))
    assert "hole-plates" in codes(plan(house(1, "6", "2x3")), notes=True)
    assert "hole-plates" not in codes(plan(house(1)), notes=True)
    assert "holes-many" in codes(plan(house(13))) and "holes-many" not in codes(plan(house(12)))


@pytest.mark.parametrize(("a_hole", "beside"), [(2, 2), (1, 0), (4, 6)])
def test_cables_that_share_holes_heat_each_other(a_hole: int, beside: int) -> None:
    """Four 12-2 over 110 in, more than 24: in twos each lies beside two more wires that carry current, in fours
    beside six. Two wires each: 4 in a bundle carry 80 %, 8 carry 70 % (310.15(C)(1))."""
    job = house(4)
    habits = job.habits.model_copy(
        update={"routing": job.habits.routing.model_copy(update={"cables_a_hole": a_hole})}
    )
    job = job.model_copy(update={"habits": habits})
    planned = plan(job)
    way = planned.drawn.ways["w-k0-b2"]
    assert way.context.beside == beside
    view = WayView(job_book(job), way.context)
    over = next(i for i in view.indexes if view.way.legs[i].go == "over")
    up = next(i for i in view.indexes if view.way.legs[i].go == "up")
    assert view.current_carrying(over, view.lying(over)[0]) == 2 + beside
    assert view.current_carrying(up, view.lying(up)[0]) == 2


def test_a_bundle_reaches_the_ampacity() -> None:
    """Four 12-3 through one hole, three wires that carry current each at 240 V: 12 carry 50 % of 30 A (90 °C column),
    15 A, under a breaker of 20; two carry 80 %, 24 A."""

    def at_240(job: Job) -> Job:
        said = {"volts": 240, "poles": 2, "neutral": False}
        chain = tuple(hop.model_copy(update={"conductors": 3}) for hop in job.circuits[0].chain)
        wide = [c.model_copy(update={**said, "chain": chain}) for c in job.circuits]
        return job.model_copy(update={"circuits": tuple(wide)})

    assert "ampacity-short" in codes(plan(crowded_holes(at_240(house(4)), 4)))
    assert "ampacity-short" not in codes(plan(crowded_holes(at_240(house(4)), 2)))


def crowded_holes(job: Job, a_hole: int) -> Job:
    """The job with a habit of so many cables a hole."""
    routing = job.habits.routing.model_copy(update={"cables_a_hole": a_hole})
    return job.model_copy(update={"habits": job.habits.model_copy(update={"routing": routing})})


def test_the_sheet_counts_studs_from_the_left_corner_as_faced() -> None:
    """The north wall of the west room, faced from inside: west at the left. The end stud, then one each 16 in."""
    job = house(3)
    wall = north(job)
    member = next(m for m in wall.line.members if m.room == "w")
    studs = studs_of(wall, member)
    rows = sheet(wall, member)
    assert studs[:4] == [0.75, 16.0, 32.0, 48.0]
    assert [row.number for row in rows] == list(range(1, 10)) and rows[2].at_in == 32.0
    assert {(row.height_in, row.bit_in, row.count) for row in rows} == {(24.0, 0.75, 2)}
    assert all(len(row.hops) == 3 for row in rows)


def test_made_joists_ask_for_the_makers_chart() -> None:
    made = tuple(level.model_copy(update={"joist_kind": "i_joist"}) for level in LEVELS)
    job = with_boxes(two_rooms(), ("w", 0, 20, 14), ("e", 1, 60, 14))
    job = edited(job, {"op": "bend", "circuit": "k", "school": "over"})
    structure = job.structures[0].model_copy(update={"levels": made})
    assert "joist-chart" in codes(plan(job.model_copy(update={"structures": (structure,)})))
    assert "joist-chart" not in codes(plan(job))


def test_a_piece_longer_than_a_coil_is_asked_about() -> None:
    long = with_boxes(two_rooms(), ("w", 0, 20, 14), ("e", 1, 60, 14))
    east = tuple((x + 2880 - 144 if x > 144 else x, y) for x, y in long.rooms[1].corners)
    west = tuple((x * 20, y) for x, y in long.rooms[0].corners)
    rooms = tuple(r.model_copy(update={"corners": c}) for r, c in zip(long.rooms, (west, east), strict=True))
    assert "way-long" in codes(plan(long.model_copy(update={"rooms": rooms}))) and "way-long" not in codes(plan(long))


@pytest.mark.parametrize(("wire", "stud", "told"), [("12", "2x4", False), ("4", "2x4", True), ("4", "2x6", False)])
def test_a_corner_too_tight_for_a_large_cable(wire: str, stud: str, told: bool) -> None:
    """4-3 is 0.96 in thick: five times that is 4.8 in, in a wall of 3.5 or 5.5 (334.24). 12-2 bends flat: 0.95."""
    job = edited(house(1, wire, stud), {"op": "bend", "circuit": "k0", "school": "studs"})
    job = edited(job, {"op": "set_side", "room": "e", "side": None, "set": {"stud": stud}})
    assert ("bend-tight" in codes(plan(job))) is told
    for finding in [f for f in plan(job).findings if f.code == "bend-tight"]:
        assert "bend-tight" not in codes(plan(edited(job, *finding.mends[0].edits)))


@pytest.mark.parametrize(("wire", "depth", "told"), [("12", 5.5, False), ("4", 5.5, False), ("4", 4.875, True)])
def test_a_hole_too_large_for_the_joists(wire: str, depth: float, told: bool) -> None:
    """4-3 takes a 1-1/8 bit. In 5.5 in: a third is 1.83, 5.5 - 4 is 1.5. In 4.875: 0.875 (IRC R502.8)."""
    job = edited(house(1, wire), {"op": "bend", "circuit": "k0", "school": "over"})
    thin = LEVELS[0].model_copy(update={"joist_depth_in": depth})
    structure = job.structures[0].model_copy(update={"levels": (thin,)})
    assert ("hole-large" in codes(plan(job.model_copy(update={"structures": (structure,)})))) is told


def test_metal_studs_want_grommets() -> None:
    assert "hole-grommets" in codes(plan(house(1, stud="metal")), notes=True)
    assert "hole-grommets" not in codes(plan(house(1)), notes=True)
