"""Which wires go on in one piece: of circuits in one pipe the neutral and the ground that only one of them has."""

from __future__ import annotations

import pytest

from levelrun.core.boxes.holding import model_in
from levelrun.core.boxes.joints import joints_of
from levelrun.core.circuits.loads import all_loads
from levelrun.core.job import Job, job_book
from levelrun.core.pipe.planned import plan_pull
from levelrun.core.plan import plan, plan_whole, way_contexts
from levelrun.core.ways.contexts import weave
from levelrun.core.ways.entering import entering
from tests.conftest import edited, one_way

Hops = list[tuple[str, list[str]]]  # each box, with the ways to it


def in_a_row(*circuits: Hops, shared: bool = False) -> Job:
    """Three pipes of 10, 20 and 30 ft in a row to J-1, J-2 and C-1, the last walked from its far end; the circuits k,
    k1 from the panel, each with its hops in them; their neutral shared or not."""
    pipe = "over {} attic in pvc40 1/2 to {}"
    job = one_way(pipe.format("10'", "J-1"))
    one = job.boxes[-1].id
    job = edited(job, {"op": "add", "kind": "way", "item": {"id": "w2", "name": "Two", "start": one}},
                 {"op": "walk", "way": "w2", "text": pipe.format("20'", "J-2")},
                 {"op": "add", "kind": "way", "item": {"id": "w3", "name": "Three", "start": "c1"}},
                 {"op": "walk", "way": "w3", "text": pipe.format("30'", "J-2")},
                 {"op": "add", "kind": "circuit", "item": {"id": "k1", "name": "Other", "panel": "p"}})  # fmt: skip
    ids = {box.name: box.id for box in job.boxes}
    for name, path in zip(("k", "k1"), circuits, strict=True):
        hops = [
            {"box": ids[box], "after": ids[path[i - 1][0]] if i else None, "path": ways}
            for i, (box, ways) in enumerate(path)
        ]
        job = edited(job, {"op": "set", "kind": "circuit", "id": name, "set": {"chain": hops}})
    pairs = [("k", "k1"), ("k1", "k")] if shared else []
    return edited(job, *(
        {"op": "set", "kind": "circuit", "id": one, "set": {"partner": two, "tied": True}} for one, two in pairs
    ))  # fmt: skip


def cut(job: Job) -> list[tuple[str, str, float, str, str]]:
    """Circuit, colours, path in feet, and the ends of each piece."""
    return [
        (piece.circuit, ", ".join(piece.colours), piece.path_in / 12, piece.start, piece.end)
        for way in plan(job).ways
        for piece in way.cuts
    ]


FAR, NEAR = [("C-1", ["w", "w2", "w3"])], [("J-1", ["w"])]


def test_where_the_circuit_with_the_ground_ends_the_other_has_its_own() -> None:
    """One ground serves all in a pipe (250.122(C)); where its circuit ends, the pipe of plastic has none but this."""
    assert cut(in_a_row(NEAR, FAR)) == [
        ("k", "black, white, green", 10, "Panel H", "J-1"),
        ("k1", "red, white", 60, "Panel H", "C-1"),
        ("k1", "green", 50, "J-1", "C-1"),
    ]


def test_the_ground_that_goes_all_the_way_serves_both() -> None:
    """One green in each pipe, joined in the box of the circuit that ends there (250.148)."""
    assert cut(in_a_row(FAR, NEAR)) == [
        ("k", "black, white", 60, "Panel H", "C-1"),
        ("k", "green", 10, "Panel H", "J-1"),
        ("k1", "red, white", 10, "Panel H", "J-1"),
        ("k", "green", 50, "J-1", "C-1"),
    ]


def test_a_ground_that_serves_nothing_on_its_way_is_one_piece() -> None:
    assert [row[:3] for row in cut(in_a_row(FAR, FAR))] == [
        ("k", "black, white, green", 60),
        ("k1", "red, white", 60),
    ]


def test_a_shared_neutral_is_cut_on_from_where_the_first_circuit_ends() -> None:
    """The second circuit goes on alone: 20 + 30 ft of white of its own (210.4(A))."""
    assert cut(in_a_row(NEAR, FAR, shared=True)) == [
        ("k", "black, white, green", 10, "Panel H", "J-1"),
        ("k1", "red", 60, "Panel H", "C-1"),
        ("k1", "white, green", 50, "J-1", "C-1"),
    ]


def test_a_shared_neutral_is_joined_where_one_of_them_ends() -> None:
    rows = [row[:3] for row in cut(in_a_row(FAR, NEAR, shared=True))]
    assert rows == [
        ("k", "black", 60), ("k", "white, green", 10), ("k1", "red", 10), ("k", "white, green", 50),
    ]  # fmt: skip
    together = [row[:3] for row in cut(in_a_row(FAR, FAR, shared=True))]
    assert together == [("k", "black, white, green", 60), ("k1", "red", 60)]


def test_a_neutral_that_is_wanted_in_the_middle_only_ends_there() -> None:
    """The first circuit goes to J-1 and, by another hop from there, lies in the last pipe again: between, 20 ft, the
    white and the green are the second's."""
    job = in_a_row([("J-1", ["w"]), ("C-1", ["w3"])], FAR, shared=True)
    assert [row[:3] for row in cut(job) if row[0] == "k1"] == [("k1", "red", 60), ("k1", "white, green", 20)]


def test_a_piece_is_made_up_at_the_boxes_where_it_ends() -> None:
    """240 + 360 in of path, 8 in at each of two boxes, 6 of loop, 5 % waste of 600: 652 in, 55 ft."""
    (green,) = [piece for way in plan(in_a_row(NEAR, FAR)).ways for piece in way.cuts if piece.colours == ("green",)]
    assert green.exact_in == pytest.approx(600 + 8 + 8 + 6 + 30) and green.cut_in == 55 * 12


def test_a_pull_shows_the_wires_that_come_from_the_way_before() -> None:
    job = in_a_row(NEAR, FAR)
    two, three = [
        [(row.what, row.cut_text) for row in plan_pull(job_book(job), context, 0, ()).wires]
        for context in way_contexts(job, job_book(job))[1:]
    ]
    assert two == [("12 THWN-2: green", "55′"), ("12 THWN-2: red, white", "")]
    assert three == [("12 THWN-2: red, white, green", "")], "red as where it was cut"


def received(job: Job, name: str) -> list[tuple[str, str, tuple[str, ...], str]]:
    """What a box receives: circuit, how it stands to it, what its wires do, its ground."""
    book = job_book(job)
    box = next(node.id for node in job.nodes if node.name == name)
    items = entering(book, job, weave(job, book, all_loads(job, book))).boxes[box]
    return [(item.hop[0], item.side, item.words, item.ground) for item in items]


def test_each_wire_is_once_in_a_box_on_the_way() -> None:
    """The neutral of the first circuit meets that of the second, whose hot goes through: four wires, a joint of two
    whites with a tail, no joint of hots."""
    job = in_a_row(NEAR, FAR, shared=True)
    assert received(job, "J-1") == [
        ("k", "feed", ("neutral", "hot"), "12"),
        ("k1", "load", ("neutral",), "12"),
        ("k1", "through", ("hot",), ""),
    ]
    assert received(job, "C-1") == [("k1", "feed", ("neutral", "hot"), "12")]


def test_a_cable_for_two_circuits_enters_a_box_once() -> None:
    """12-3 to a junction box, 12-2 on to each: three and twice two wires, one neutral of three whites; the grounds of
    three cables with a tail to the box, which is of metal."""
    job = edited(
        one_way("over 20' attic in 12-3 to J-1"),
        {"op": "add", "kind": "circuit", "item": {"id": "k1", "name": "Other", "panel": "p"}},
        {"op": "add", "kind": "box", "item": {"id": "b9", "name": "R-9", "kind": "receptacle", "structure": "s"}},
    )
    one = next(box.id for box in job.boxes if box.name == "J-1")
    for name, end, partner in (("k", "c1", "k1"), ("k1", "b9", "k")):
        chain = [{"box": one, "path": ["w"]}, {"box": end, "after": one, "length_in": 60}]
        said = {"chain": chain, "partner": partner, "tied": True}
        job = edited(job, {"op": "set", "kind": "circuit", "id": name, "set": said})
    book = job_book(job)
    into = entering(book, job, weave(job, book, all_loads(job, book))).boxes[one]
    assert [item.what for item in into if not item.inside] == ["12-3 NM-B", "12-2 NM-B", "12-2 NM-B"]
    rows = [[(row.name, row.cable, row.wires) for row in item.chain] for item in plan(job).circuits]
    assert rows == [[("J-1", "12-3", "12-3"), (last, "12-2", "12-2")] for last in ("C-1", "R-9")]
    assert {row.name: row.cables for row in plan_whole(job, job_book(job))[1].apart}["J-1"] == 3
    assert sum(item.count for item in into) == 7
    box = next(item for item in job.boxes if item.id == one)
    joints = joints_of(book, box, model_in(book, box, into, None), into)
    assert sorted((joint.what, len(joint.wires)) for joint in joints) == [
        ("ground", 4), ("hot", 2), ("hot", 2), ("neutral", 3),
    ]  # fmt: skip
