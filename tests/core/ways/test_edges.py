"""By which edge of a panel a way leaves and enters, and what that makes of its heights."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import job_book, plan, way_contexts
from levelrun.core.ways.facts import WayView
from tests.conftest import built, edited, found, one_way


def left_at(job: Job) -> float:
    book = job_book(job)
    return WayView(book, way_contexts(job, book)[0]).left_at_in


@pytest.mark.parametrize(
    ("text", "edge", "y"),
    [
        ('down 20" stud wall in 12-2', "", 48),  # the panel is 30 in tall, its lower edge 48 in up
        ("over 10' stud wall in 12-2", "", 48),
        ('up 20" stud wall in 12-2', "", 78),
        ('up 20" stud wall in 12-2', "bottom", 48),
        ('down 20" stud wall in 12-2', "top", 78),
        ("over 10' stud wall in 12-2", "side", 63),
        ("over 10' stud wall in 12-2", "back", 63),
    ],
)
def test_a_way_leaves_by_the_nearest_edge_or_the_one_said(text: str, edge: str, y: float) -> None:
    job = one_way(text)
    assert left_at(edited(job, {"op": "set", "kind": "way", "id": "w", "set": {"start_edge": edge}})) == y


def inside(text: str) -> Job:
    """A way between two panels of one house, 48 and 20 in up."""
    job = one_way("")
    second = {"id": "q", "name": "Panel Q", "structure": "h", "height_in": 20.0}
    return edited(job, {"op": "add", "kind": "panel", "item": second}, {"op": "walk", "way": "w", "text": text})


@pytest.mark.parametrize(
    ("text", "misses"),
    [
        ('up 10" stud wall in 12-2 then over 8\' attic in 12-2 then down 38" stud wall in 12-2 to Panel Q', False),
        ('up 10" stud wall in 12-2 then over 8\' attic in 12-2 then down 5" stud wall in 12-2 to Panel Q', True),
        ('up 40" stud wall in 12-2 then over 8\' attic in 12-2 then down 38" stud wall in 12-2 to Panel Q', False),
        ('down 20" stud wall in 12-2 to Panel Q', False),
    ],
)
def test_heights_close_on_any_edge_of_a_panel(text: str, misses: bool) -> None:
    assert bool(found(inside(text), "height-closure")) is misses


def test_an_edge_that_is_said_is_where_the_heights_close() -> None:
    job = inside('down 20" stud wall in 12-2 to Panel Q')
    top = edited(
        job, {"op": "set_leg", "way": "w", "leg": 0, "set": {"end": {"kind": "box", "node": "q", "edge": "top"}}}
    )
    (said,) = found(top, "height-closure")
    assert said.measured == "2′ 4″" and "below" in said.text
    assert not found(
        edited(
            top, {"op": "set_leg", "way": "w", "leg": 0, "set": {"end": {"kind": "box", "node": "q", "edge": "side"}}}
        ),
        "height-closure",
    )


def test_the_strip_starts_where_the_way_leaves() -> None:
    job = one_way('up 20" stud wall in 12-2')
    assert plan(job).ways[0].strip.legs[0].y0 == 78


def test_a_tail_is_cut_with_what_is_left_hanging_and_fills_no_box() -> None:
    """To the tail 20 ft of path, 42 in at the panel, 30 left hanging, 6 of loop, 5 % of the path: 27.5 ft, so 28."""
    job = built("panel H 100a 20 spaces; circuit in H 1 15a as Pucks", Job(name="One"))
    item = {"id": "t", "kind": "tail", "structure": job.structures[0].id, "name": "T-1", "spare_in": 30.0}
    hop = [{"box": "t", "length_in": 240.0}]
    job = edited(job, {"op": "add", "kind": "box", "item": item},
                 {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"chain": hop}})  # fmt: skip
    assert plan(job).circuits[0].cables == ["28 ft of 14-2 NM-B"]
    assert not found(job, "box-full")
