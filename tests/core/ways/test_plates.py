"""Through plates and under roofs: what is sealed, what is nailed, and what three cables in one sealed hole may carry.

Source: NFPA 70 (NEC) 2023, 300.4(E), 300.21, 334.80 with 310.15(C)(1); from memory. Four to six wires that carry
current keep 80 %, seven to nine 70 %.
"""

from __future__ import annotations

import pytest

from levelrun.core.job import Job, job_book
from levelrun.core.plan import way_contexts
from levelrun.core.ways.facts import WayView
from tests.conftest import edited, found, one_way


@pytest.mark.parametrize(
    ("walk", "sealed", "nailed"),
    [
        ("up 3' stud wall in 12-2; over 10' attic in 12-2 to C-1", True, True),
        ("down 3' stud wall in 12-2; over 10' crawl in 12-2 to C-1", True, False),
        ("over 10' stud wall in 12-2; up 2' stud wall in 12-2 to C-1", False, False),
        ("up 3' shop wall in emt 1/2; over 10' attic in emt 1/2 to C-1", False, True),
        ("over 10' attic in rmc 1/2 to C-1", False, False),
    ],
)
def test_a_plate_is_sealed_and_a_deck_is_kept_clear_of(walk: str, sealed: bool, nailed: bool) -> None:
    job = one_way(walk)
    assert bool(found(job, "fire-stop")) is sealed
    assert bool(found(job, "roof-deck")) is nailed


def bundle(count: int, walk: str) -> WayView:
    """So many circuits in cables of their own along one way."""
    job: Job = one_way(walk)
    for number in range(2, count + 1):
        item = {"id": f"k{number}", "name": f"C{number}", "panel": "p", "chain": [{"box": "c1", "path": ["w"]}]}
        job = edited(job, {"op": "add", "kind": "circuit", "item": item})
    return WayView(job_book(job), way_contexts(job, job_book(job))[0])


@pytest.mark.parametrize(
    ("count", "walk", "counted"),
    [
        (3, "up 1' stud wall in 12-2; over 1' attic in 12-2 to C-1", 6),  # three in one sealed hole: 80 %
        (2, "up 1' stud wall in 12-2; over 1' attic in 12-2 to C-1", 2),  # two may
        (3, "over 1' stud wall in 12-2 to C-1", 2),  # no plate
        (4, "up 1' stud wall in 12-2; over 1' attic in 12-2 to C-1", 8),  # four: 70 %
        (3, "up 1' stud wall in mc 12-2; over 1' attic in mc 12-2 to C-1", 2),  # 334.80 speaks of NM-B
    ],
)
def test_more_than_two_cables_in_one_sealed_hole_count_together(count: int, walk: str, counted: int) -> None:
    view = bundle(count, walk)
    assert [view.current_carrying(0, item) for item in view.lying(0)] == [counted] * count
