"""One thread from breaker to box: what a circuit says, its ways, its boxes and its lists say the same."""

from __future__ import annotations

import re
from itertools import chain
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelrun.core.boxes.planned import plan_building
from levelrun.core.circuits.loads import all_loads
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan, plan_whole, way_contexts
from levelrun.core.ways.carried import Lying
from levelrun.core.ways.contexts import Woven, weave
from levelrun.core.ways.entering import entering
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.lengths import cuts_of
from levelrun.samples import SAMPLES, sample
from tests.conftest import codes, edited, found, one_way
from tests.core.test_kept_plans import changed_demo, edits

TO_C1 = "over 20' attic in emt 3/4 to C-1"


def _named(view: WayView, index: int, own: Lying) -> set[str]:
    """What a hop is called in a leg by what is cut there."""
    if view.way.legs[index].sleeve:
        return {view.guarded(index)[1]}
    if view.piped(index):
        return {f"{own.wires.wire_size} in pipe"}
    method = view.way.legs[index].method
    return {size if "-" in size else f"{size} {method}" for group, size in view.cables(index) if own in group}


def agree(job: Job) -> None:
    """Ground, wires, length, load, drop and cut list of every hop, wherever they are shown."""
    book, planned = job_book(job), plan(job)
    woven = weave(job, book, all_loads(job, book))
    views = {
        item.way.id: WayView(book, item) for item in (*woven.contexts, *chain.from_iterable(woven.drawn.values()))
    }
    all_is_cut(list(views.values()))
    received = entering(book, job, woven).boxes
    rooms = {box.id: box for room in plan_building(job, book, received).rooms for box in room.boxes}
    shown = {box.id: box for room in planned.rooms for box in room.boxes}
    assert {key: box.entering for key, box in rooms.items()} == {key: box.entering for key, box in shown.items()}
    for circuit in planned.circuits:
        said = next(item for item in job.circuits if item.id == circuit.summary.id)
        wanted = {fact.label: fact.text for fact in circuit.facts}["Wire"]
        for row in circuit.chain:
            wires = woven.laid[said.id][row.box].wires
            assert row.ground == wires.ground
            assert not wires.ground or wires.ground in wanted
            assert (row.size, row.conductors) == (wires.wire_size, wires.conductors)
            paths = woven.lying[said.id].paths.get(row.box, ())
            legs = [leg for part in paths for leg in _legs(woven, said.id, part)]
            if legs and row.length_in is not None and not _taped(said, row.box):
                assert row.length_in == pytest.approx(sum(leg.length_in for leg in legs))
            named = set[str]()
            for part in paths:
                view = views[part.way]
                for index in range(part.first, part.last + 1):
                    own = next(i for i in view.lying(index) if i.wires.box == row.box and i.wires.circuit == said.id)
                    assert own.wires == wires
                    named |= _named(view, index, own)
            assert not named or set(row.cable.split(", then ")) == named
        cut = [
            piece
            for way in (*planned.ways, *planned.drawn.ways.values())
            for piece in way.cuts
            if piece.circuit == said.id
        ]
        for piece in cut:
            feet = sum(one.cut_in for one in cut if one.item == piece.item and one.pieces == piece.pieces) / 12
            many = f"{piece.pieces} × " if piece.pieces > 1 else ""
            own = [text.removeprefix(many) for text in circuit.cables if text.startswith(many)]
            listed = [text for text in own if re.fullmatch(rf"\d+ ft of {re.escape(piece.item)}", text)]
            assert listed and float(listed[0].split()[0]) >= feet - 1e-9, (listed, feet)


def _legs(woven: Woven, circuit: str, part: Any) -> Any:
    return woven.lying[circuit].ways[part.way].legs[part.first : part.last + 1]


def _taped(circuit: Any, box: str) -> bool:
    return any(hop.box == box and hop.length_in is not None for hop in circuit.chain)


@pytest.mark.parametrize("key", SAMPLES)
def test_each_number_is_the_same_wherever_it_stands(key: str) -> None:
    agree(sample(key))


@settings(max_examples=12, suppress_health_check=list(HealthCheck))
@given(st.lists(edits(), min_size=1, max_size=6))
def test_it_stays_the_same_whatever_is_changed(changes: list[dict[str, Any]]) -> None:
    job = changed_demo(changes)
    agree(job)


def shared(**second: Any) -> Job:
    """Two circuits in one pipe from the panel to C-1."""
    job = one_way(TO_C1)
    item = {"id": "k2", "name": "Other", "panel": "p", "space": 4, "load_a": 8, **second}
    chain = [{"box": "c1", "path": ["w"]}]
    return edited(job, {"op": "add", "kind": "circuit", "item": {**item, "chain": chain}})


def view_of(job: Job) -> WayView:
    return WayView(job_book(job), way_contexts(job, job_book(job))[0])


def test_two_circuits_in_one_pipe_fill_it_and_heat_each_other() -> None:
    """Five 12 THWN-2, one ground for both (250.122(C)), of 0.0133 in2 in 3/4 EMT of 0.533 in2: 12.5 % (ch. 9 tables
    4 and 5). Four wires carry current:
    80 % (310.15(C)(1)); two alone need none."""
    view = view_of(shared())
    assert sum(wires.count for wires in view.wires(0)) == 5
    assert plan(shared()).ways[0].pulls[0].fill.percent == pytest.approx(100 * 5 * 0.0133 / 0.533)  # type: ignore[union-attr]
    assert [view.current_carrying(0, item) for item in view.lying(0)] == [4, 4]
    alone = view_of(one_way(TO_C1))
    assert [alone.current_carrying(0, item) for item in alone.lying(0)] == [2]


def test_a_shared_neutral_is_one_wire_and_is_not_counted() -> None:
    """A multiwire pair: two hots, one neutral, one ground; the neutral carries only the difference (310.15(E))."""
    job = shared(partner="k", tied=True)
    job = edited(job, {"op": "set", "kind": "circuit", "id": "k", "set": {"partner": "k2", "tied": True}})
    view = view_of(job)
    assert [strand for item in view.strands(0) for strand in item.colours].count("white") == 1
    assert sum(wires.count for wires in view.wires(0)) == 4
    assert [view.current_carrying(0, item) for item in view.lying(0)] == [2, 2]


@pytest.mark.parametrize(
    ("text", "counted"), [("over 2'1 attic in 12-2 to C-1", 4), ("over 2' attic in 12-2 to C-1", 2)]
)
def test_cables_side_by_side_for_more_than_24_in_are_a_bundle(text: str, counted: int) -> None:
    job = edited(shared(), {"op": "walk", "way": "w", "text": text, "replace": True})
    view = view_of(job)
    assert [view.current_carrying(0, item) for item in view.lying(0)] == [counted, counted]
    assert [size for _, size in view.cables(0)] == ["12-2", "12-2"], "each a cable of its own"


def test_cover_is_that_of_the_circuit_that_asks_the_most() -> None:
    """PVC under open ground: 12 in where GFCI and 20 A of 120 V, 18 in for any other circuit (table 300.5)."""
    text = "over 20' trench 12\" deep in pvc40 3/4 to C-1"
    dry = edited(one_way(text, protection="gfci"))
    assert not found(dry, "cover-short")
    item = {"id": "k2", "name": "Other", "panel": "p", "chain": [{"box": "c1", "path": ["w"]}]}
    both = edited(dry, {"op": "add", "kind": "circuit", "item": item})
    assert found(both, "cover-short")[0].limit == "18″"
    mended = edited(both, *next(m for m in found(both, "cover-short")[0].mends if "GFCI" in m.label).edits)
    assert not found(mended, "cover-short")


def all_is_cut(views: list[WayView]) -> None:
    """What is cut for the pipes is what lies in them, inch by inch: no neutral or ground is missing on any stretch,
    and none is twice."""
    cut = sum(piece.pieces * piece.path_in for view in views for piece in cuts_of(view) if piece.colours)
    lies = sum(
        strands.wires.count * leg.length_in
        for view in views
        for index, leg in enumerate(view.way.legs)
        if view.piped(index)
        for strands in view.strands(index)
    )
    assert cut == pytest.approx(lies)


def through() -> Job:
    """One circuit by three ways in a row, through two boxes, all of it pipe."""
    job = one_way("over 10' attic in emt 1/2 to J-1")
    box = job.boxes[-1].id
    two = {"id": "w2", "name": "Two", "start": box}
    job = edited(job, {"op": "add", "kind": "way", "item": two},
                 {"op": "walk", "way": "w2", "text": "over 30' attic in emt 1/2 to C-1"})  # fmt: skip
    hop = [{"box": "c1", "path": ["w", "w2"]}]
    return edited(job, {"op": "set", "kind": "circuit", "id": "k", "set": {"chain": hop}})


def test_wires_go_through_a_box_without_a_splice_in_one_piece() -> None:
    """480 in of path, 42 at the panel, 8 at the box, a loop of 6, 5 % waste: 560 in."""
    job = through()
    planned = plan(job)
    assert [row.length_in for row in planned.circuits[0].chain] == [480.0]
    cut = [piece for way in (*planned.ways, *planned.drawn.ways.values()) for piece in way.cuts]
    assert [(piece.pieces, piece.path_in, piece.beyond_in) for piece in cut] == [(3, 480.0, 360.0)]
    assert cut[0].exact_in == pytest.approx(480 + 42 + 8 + 6 + 24) and cut[0].cut_in == 564
    book = job_book(job)
    box = next(node.id for node in job.boxes if node.name == "J-1")
    (passing,) = entering(book, job, weave(job, book, all_loads(job, book))).boxes[box]
    assert (passing.side, passing.count, passing.cable) == ("through", 2, False), "each wire once (314.16(B)(1))"
    assert passing.metal, "the box on it bonds the pipe (314.3)"


def test_a_box_put_on_a_way_is_spliced_in_and_out_again() -> None:
    job = one_way("over 10' attic in 12-2; over 10' to C-1")
    put = edited(job, {"op": "put_box", "way": "w", "leg": 0})
    names = {box.id: box.name for box in put.boxes}
    assert [(names[hop.box], names.get(hop.after or "")) for hop in put.circuits[0].chain] == [
        ("J-1", None),
        ("C-1", "J-1"),
    ]
    assert all(hop.path == ("w",) for hop in put.circuits[0].chain)
    out = edited(put, {"op": "end_leg", "way": "w", "leg": 0, "to": ""})
    assert out.circuits == job.circuits


def test_a_way_that_goes_is_let_go_and_one_that_nothing_takes_is_said() -> None:
    job = one_way(TO_C1)
    gone = edited(job, {"op": "drop", "kind": "way", "id": "w"})
    assert gone.circuits[0].chain[0].path == () and gone.ways == ()
    idle = edited(job, {"op": "route", "circuit": "k", "box": "c1", "path": []})
    assert "way-idle" in codes(plan(idle), notes=True) and "way-idle" not in codes(plan(job), notes=True)
    assert plan(idle).ways[0].cuts == [] and plan(idle).ways[0].pulls[0].fill is None


def test_a_feeder_ends_at_the_panel_that_it_feeds_whatever_is_changed() -> None:
    panels = [{"id": name, "name": f"Panel {name}", "structure": "s"} for name in ("q", "z")]
    job = edited(one_way(""), *({"op": "add", "kind": "panel", "item": item} for item in panels))
    item = {
        "id": "f",
        "name": "Feeder",
        "panel": "p",
        "poles": 2,
        "volts": 240,
        "feeds": "q",
        "breaker_a": 60,
        "wire_size": "6",
    }
    job = edited(job, {"op": "add", "kind": "circuit", "item": item})
    feeder = job.circuits[-1]
    assert [hop.box for hop in feeder.chain] == ["q"]
    job = edited(job, {"op": "chain", "circuit": "f", "boxes": ["c1"]})
    assert [(hop.box, hop.after) for hop in job.circuits[-1].chain] == [("c1", None), ("q", "c1")]
    job = edited(job, {"op": "set", "kind": "circuit", "id": "f", "set": {"feeds": "z"}})
    assert [(hop.box, hop.after) for hop in job.circuits[-1].chain] == [("c1", None), ("z", "c1")]
    assert plan_whole(job, job_book(job))[0].circuits[-1].chain[-1].kind == "panel"


def test_what_a_feeder_carries_is_what_its_panel_expects_or_what_was_said() -> None:
    job = sample("quince-hollow")
    said = next(c for c in job.circuits if c.name == "Kiln shop feeder")
    free = edited(job, {"op": "set", "kind": "circuit", "id": said.id, "set": {"load_a": None}})
    by_panel = sum(
        c.summary.load_a * next(x.volts for x in job.circuits if x.id == c.summary.id) / 240
        for c in plan(free).circuits
        if c.summary.panel == said.feeds
    )
    loads = {c.summary.id: c.summary.load_a for c in plan(free).circuits}
    assert loads[said.id] == pytest.approx(by_panel)
    assert {c.summary.id: c.summary.load_a for c in plan(job).circuits}[said.id] == said.load_a == 34


@pytest.mark.parametrize(("wire", "told"), [("14", True), ("12", False), ("10", False)])
def test_a_hop_in_wire_of_its_own_is_no_thinner_than_its_breaker_asks(wire: str, told: bool) -> None:
    """20 A want 12 (240.4(D)), whatever 14 carries in pipe by table 310.16."""
    job = one_way(TO_C1, wire_size="10")
    chain = [{"box": "c1", "path": ["w"], "wire_size": wire}]
    job = edited(job, {"op": "set", "kind": "circuit", "id": "k", "set": {"chain": chain}})
    said = found(job, "whip-small")
    assert bool(said) is told
    if told:
        assert (said[0].measured, said[0].limit) == ("14", "12")
        assert not found(edited(job, *said[0].mends[0].edits), "whip-small")
