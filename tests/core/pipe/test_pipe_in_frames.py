"""Pipe in a drawn house: a hop whose wires take a raceway has legs of tubing and sticks; what counts as current."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job, job_book
from levelrun.core.pipe.facts import piped
from levelrun.core.pipe.planned import plan_pull
from levelrun.core.plan import plan, way_contexts
from levelrun.core.ways.facts import WayView
from tests.conftest import built, edited, one_way

ROOM = (
    "room Den 14' x 12'; set receptacle north 9' as R-1; set light centre as L-1; panel west 4' spaces 20 as P; "
    "circuit in P 1 20a Lamps: R-1"
)


def house() -> Job:
    job = built(ROOM)
    return edited(job, {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"method": "raceway"}})


def view(job: Job) -> WayView:
    book = job_book(job)
    context = next(item for item in way_contexts(job, book) if item.way.id.startswith("w-"))
    return piped(book, context).view


def test_a_raceway_hop_is_laid_in_the_smallest_tubing_that_holds_it() -> None:
    """Two 12 and their ground are 0.0399 in² (table 5): 1/2 EMT of 0.304 is 13 % full."""
    job = house()
    found = view(job)
    assert {leg.method for leg in found.way.legs} == {"EMT"} and {leg.size for leg in found.way.legs} == {"1/2"}
    assert found.way.legs[-1].end.node is not None
    laid = piped(found.book, found.context).laid
    assert laid and all(piece.length_in <= 120 for _, layout in laid for piece in layout.pieces)
    row = plan(job).circuits[0].chain[0]
    assert row.length_in == pytest.approx(sum(leg.length_in for leg in found.way.legs), abs=0.01)
    cuts = [cut.item for way in plan(job).drawn.ways.values() for cut in way.cuts]
    assert cuts and all(item.startswith("12 THWN-2") for item in cuts)


def test_a_row_of_holes_is_told_to_who_brings_the_sticks() -> None:
    job = house()
    book = job_book(job)
    context = next(item for item in way_contexts(job, book) if item.way.id.startswith("w-"))
    cares = [care.key for care in plan_pull(book, context, 0, ()).cares]
    assert ("bored" in cares) is any(len(holes) > 1 for holes in context.holes)
    assert "bored" in cares


def test_no_stub_of_inches_is_bent_into_a_ceiling_box() -> None:
    job = house()
    circuit = job.circuits[0]
    light = next(box for box in job.boxes if box.kind == "light")
    chain = [{"box": light.id}]
    job = edited(job, {"op": "set", "kind": "circuit", "id": circuit.id, "set": {"chain": chain}})
    found = view(job)
    assert all(leg.length_in >= 8 for leg in found.way.legs)
    assert "bends-near" not in [item.code for item in plan(job).findings]


@pytest.mark.parametrize(
    ("circuit", "counted"),
    [
        ({"volts": 120, "conductors": 2}, 2),  # the neutral of two wires counts
        ({"volts": 240, "poles": 2, "conductors": 3}, 2),  # of two legs and a neutral it does not
        ({"volts": 240, "poles": 2, "conductors": 3, "nonlinear": True}, 3),  # unless mostly electronic
        ({"volts": 208, "poles": 2, "conductors": 3}, 3),  # nor between two legs of a wye
        ({"volts": 240, "poles": 2, "neutral": False}, 2),
    ],
)
def test_what_counts_as_carrying_current(circuit: dict[str, object], counted: int) -> None:
    """310.15(E): the neutral; a ground never (310.15(F))."""
    job = one_way("over 10' attic in emt 3/4 to C-1", **circuit)  # type: ignore[arg-type]
    book = job_book(job)
    laid = WayView(book, way_contexts(job, book)[0])
    assert [item.counted for item in laid.lying(0)] == [counted]


def test_of_two_travellers_one_is_in_use() -> None:
    job = built(
        "room Den 14' x 12'; set switch north 5' as S-1; set switch south 5' as S-2; set light centre as L-1; "
        "panel west 4' spaces 20 as P; circuit in P 1 15a Lamps: S-1, S-2, L-1"
    )
    ids = {box.name: box.id for box in job.boxes}
    for name in ("S-1", "S-2"):
        job = edited(job, {"op": "set", "kind": "box", "id": ids[name], "set": {"ways": 3}})
    found = [
        item
        for context in way_contexts(job, job_book(job))
        for item in WayView(job_book(job), context).lying(0)
        if item.wires.box == ids["S-2"]
    ]
    assert found[0].conductors == 3 and found[0].wires.idle == 1 and found[0].counted == 2


def test_one_ground_serves_all_in_a_pipe_and_is_the_largest() -> None:
    """250.122(C): a 20 A and a 60 A circuit share a No. 10 ground; the smaller circuit cuts none of its own."""
    job = one_way("over 10' attic in emt 1 to C-1", wire_size="6", breaker_a=60)
    item = {
        "id": "k2",
        "name": "Other",
        "panel": "p",
        "space": 4,
        "load_a": 8,
        "chain": [{"box": "c1", "path": ["w"]}],
    }
    job = edited(job, {"op": "add", "kind": "circuit", "item": item})
    laid = WayView(job_book(job), way_contexts(job, job_book(job))[0])
    greens = [(s.wires.size, s.colours.count("green")) for s in laid.strands(0) if "green" in s.colours]
    assert greens == [("10", 1)]
    grounds = [cut for cut in plan(job).ways[0].cuts if "green" in cut.item]
    assert [(cut.circuit, cut.pieces) for cut in grounds] == [("k", 1)]
