"""The box that is taken where nobody said which: the smallest of its gangs that holds what enters and fits its wall.

Source: NFPA 70 (NEC) 2023, 314.16(A) and (B); from memory. The boxes are those of the shipped catalogue.
"""

from __future__ import annotations

import pytest

from levelrun.core.boxes.catalogue import box_models
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.holding import held_model, needed_volume
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Job, job_book
from levelrun.core.plan import plan, plan_whole
from tests.conftest import built, edited, found

HOUSE = built("panel H 200a 30 spaces taken 1-14")


def came(count: int, wires: int, size: str = "12") -> tuple[Entering, ...]:
    ground = "10" if size == "6" else size  # as cables are made
    one = Entering(size=size, count=wires, ground=ground, cable=True, side="feed", other="", circuit="")
    return (one,) * count


def a_box(kind: str = "receptacle", **values: object) -> Box:
    return Box.model_validate({"id": "b1", "name": "R-1", "structure": "s1", "kind": kind, **values})


# kind and gangs, cables and their hots and neutral, gauge, depth: the row, and what it is asked, by arithmetic
HELD = {
    "two 12-2": (a_box(), 2, 2, "12", 99.0, "single-18", 15.75),
    "three 12-2": (a_box(), 3, 2, "12", 99.0, "single-20", 20.25),
    "three 14-2": (a_box(), 3, 2, "14", 99.0, "single-18", 18.0),
    "four 14-2": (a_box(), 4, 2, "14", 99.0, "single-22", 22.0),
    "four 12-2: no one-gang box": (a_box(), 4, 2, "12", 99.0, "single-18", 24.75),
    "three 12-2 in a wall of 2 3/4": (a_box(), 3, 2, "12", 2.75, "single-18", 20.25),
    "three 12-2 in a box that is said": (a_box(model="single-18"), 3, 2, "12", 99.0, "single-18", 20.25),
    "a range, 6-3: a square, for the deep two-gang has clamps": (a_box(gangs=2), 1, 3, "6", 99.0, "square-42", 37.5),
    "three 12-2 in a junction": (a_box("junction"), 3, 2, "12", 99.0, "square-21", 18.0),
    "five 12-2 in a junction": (a_box("junction"), 5, 2, "12", 99.0, "square-30", 27.5625),
}


@pytest.mark.parametrize("name", HELD)
def test_the_smallest_that_holds_is_taken(book: Codebook, name: str) -> None:
    box, cables, wires, size, deep, key, asked = HELD[name]
    into = came(cables, wires, size)
    model = held_model(book, box, into, deep)
    assert model.key == key
    needed = needed_volume(book, box, into, clamps=model.clamps)
    assert needed is not None and needed.needed_in3 == pytest.approx(asked)


@pytest.mark.parametrize("kind", ["receptacle", "switch", "light", "junction", "fan"])
@pytest.mark.parametrize("cables", range(7))
def test_what_is_taken_holds_or_nothing_of_its_gangs_does(book: Codebook, kind: str, cables: int) -> None:
    box, into = a_box(kind), came(cables, 2, "14")
    usual, model = held_model(book, box, (), 99.0), held_model(book, box, into, 99.0)
    needed = needed_volume(book, box, into, clamps=model.clamps)
    if needed is None or needed.needed_in3 <= model.volume_in3:
        assert model.volume_in3 >= usual.volume_in3 and (model.fan_rated or not usual.fan_rated)
        return
    assert model == usual
    for other in box_models(book).values():
        more = needed_volume(book, box, into, clamps=other.clamps)
        alike = other.gangs == usual.gangs and other.round == usual.round and other.key != "weather-18"
        if alike and (other.fan_rated or not usual.fan_rated):
            assert more is not None and more.needed_in3 > other.volume_in3


def test_boxes_in_no_room_are_rows_with_what_is_taken_for_them() -> None:
    job = built("from H 40' stud wall in 12-2 to bath outlet", HOUSE)
    job = built("from H 20' wall to dryer", built("from R-1 6' stud wall to post light", job))
    job = edited(job, {"op": "set", "kind": "box", "id": job.boxes[0].id, "set": {"protects": "gfci"}})
    rows = {row.name: row for row in plan_whole(job, job_book(job))[1].apart}
    said = {name: (row.what, row.where, row.model, row.cables) for name, row in rows.items()}
    assert said == {
        "R-1": ("receptacle, gfci", "bath", "Single-gang 18 in³", 2),
        "L-1": ("light", "outdoors", "Round 20 in³", 1),
        "R-2": ("receptacle, dryer", "laundry", "Two-gang 32 in³", 1),
    }
    assert rows["R-1"].figure is not None and rows["R-1"].figure.value == 15.75
    whole = plan_whole(job, job_book(job))[1]
    assert [figure.value for figure in whole.loose] == [row.figure.value for row in whole.apart if row.figure]


def bought(job: Job) -> set[str]:
    return {key for key in plan(job).buying.taken.rows if key.startswith("box single")}


def test_what_is_drawn_on_from_a_box_buys_a_deeper_one_and_stops_nothing() -> None:
    job = built("from H 40' stud wall in 12-2 to bath outlet", HOUSE)
    assert bought(job) == {"box single-18"}
    job = built("from R-1 6' stud wall to bath light", job)
    assert bought(job) == {"box single-18"}
    job = built("from R-1 8' stud wall to bath light", job)
    assert bought(job) == {"box single-20"} and not found(job, "box-full")
    full = built("from R-1 9' stud wall to bath light", job)
    (said,) = found(full, "box-full")
    assert said.mends[0].label == "Two-gang 32 in³", "more gangs are a question to who sets the box"
    assert not found(edited(full, *said.mends[0].edits), "box-full")
