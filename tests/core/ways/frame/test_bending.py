"""Ways that draw themselves, bent, kept and pulled: by edit, by sentence; schools and orders side by side."""

from __future__ import annotations

import pytest

from levelrun.core.errors import EditError, TextError
from levelrun.core.job import Job, Level, job_book
from levelrun.core.plan import plan
from levelrun.core.ways.bending import bent
from levelrun.core.ways.ordering import orders_of
from levelrun.core.ways.pull_list import PullList, pull_list
from levelrun.core.ways.schools import schools_of
from tests.conftest import codes, edited
from tests.core.ways.frame.houses import found_in, two_rooms, with_boxes

SHED = Level(id="sf", name="Floor", height_in=97.125)
PLACES = (("w", 0, 60.0, 14.0), ("e", 0, 60.0, 14.0), ("e", 3, 20.0, 14.0))
HOUSE = with_boxes(two_rooms(), *PLACES)


def length(job: Job, box: str) -> float:
    found = found_in(job)[box]
    assert found.route is not None
    return found.route.length_in


def say(job: Job, text: str) -> Job:
    return edited(job, {"op": "say", "text": text, "panel": "p"})


@pytest.mark.parametrize(
    ("text", "box", "school"),
    [
        ("way 1 over top", "b1", "over"),
        ("way Outlets by crawl", "b2", "under"),
        ("way B-2 through studs", "b2", "studs"),
        ("way B-2 cheapest", "b2", "cheapest"),
    ],
)
def test_a_sentence_takes_another_school(text: str, box: str, school: str) -> None:
    bent_job = say(HOUSE, text)
    hops = {hop.box: hop.school for hop in bent_job.circuits[0].chain}
    assert hops[box] == school and len({hops[b] for b in hops}) == (1 if "B-2" not in text else 2)
    assert length(bent_job, box) == length(edited(HOUSE, {"op": "bend", "circuit": "k", "school": school}), box)


def test_straight_takes_back_what_was_said_and_drawn() -> None:
    via = [{"level": "f", "x_in": 200.0, "y_in": 60.0, "at": "over"}]
    drawn = edited(HOUSE, {"op": "bend", "circuit": "k", "box": "b2", "school": "over", "via": via})
    assert length(drawn, "b2") > length(HOUSE, "b2")
    assert say(drawn, "way B-2 straight") == HOUSE


@pytest.mark.parametrize("text", ["way B-2", "way B-9 over top", "avoid up wall West"])
def test_what_cannot_be_read_is_refused(text: str) -> None:
    with pytest.raises(TextError):
        say(HOUSE, text)


def test_a_way_drawn_through_a_place_goes_there_and_follows_its_boxes() -> None:
    """Through the wall between the rooms, 20 in from its south end, though the north wall is shorter."""
    edit = {
        "op": "bend",
        "circuit": "k",
        "box": "b2",
        "via": [{"level": "f", "x_in": 146.0, "y_in": 20.0, "at": "wall"}],
    }
    job = edited(HOUSE, edit)
    spots = [p.b for p in found_in(job)["b2"].route.pieces]  # type: ignore[union-attr]
    assert (145.75, 20.0, 24.0) in spots
    moved = edited(job, {"op": "set", "kind": "box", "id": "b2", "set": {"at_in": 90.0}})
    assert found_in(moved)["b2"].route.pieces[-1].b[0] == 147.5 + 90.0  # type: ignore[union-attr]
    with pytest.raises(EditError, match="no level"):
        edited(HOUSE, {**edit, "via": [{"level": "zz", "x_in": 0.0, "y_in": 0.0, "at": "wall"}]})


def test_a_bend_is_told_before_it_is_taken() -> None:
    """Dragged over the door: feet and dollars against now; the edit that takes it gives that length."""
    told = bent(HOUSE, job_book(HOUSE), "k", "b3", "f", (150.0, 56.0), "wall")
    assert "$" in told.text and told.cables
    assert length(edited(HOUSE, *told.edits), "b3") == told.length_in
    with pytest.raises(EditError, match="no way of its own"):
        bent(HOUSE, job_book(HOUSE), "k", "gone", "f", (0.0, 0.0), "over")


def test_a_way_that_is_kept_is_one_that_was_walked() -> None:
    """Same legs, same length; it stays as it is where a box moves on."""
    kept = edited(HOUSE, {"op": "keep", "circuit": "k", "box": "b2"})
    (way,) = kept.ways
    assert sum(leg.length_in for leg in way.legs) == length(HOUSE, "b2")
    assert kept.circuits[0].chain[1].path == (way.id,) and "b2" not in found_in(kept)
    rows = [{row.box: row.length_in for row in plan(job).circuits[0].chain} for job in (HOUSE, kept)]
    assert rows[0] == rows[1] and codes(plan(kept)) == codes(plan(HOUSE))
    with pytest.raises(EditError, match="no way of its own"):
        edited(kept, {"op": "keep", "circuit": "k", "box": "b2"})


def pulls(job: Job) -> PullList:
    planned = plan(job)
    labels = {item.summary.id: item.summary.label for item in planned.circuits}
    return pull_list(job, labels, [cut for way in planned.drawn.ways.values() for cut in way.cuts])


def test_the_pull_list_is_longest_first_and_adds_up() -> None:
    """B-1: 159.5 in as it lies, by hand in test_routes; 42 at the panel and 8 at the box, a 6 in loop, 5 %: 223.5 in,
    19 ft."""
    listed = pulls(edited(HOUSE, {"op": "bend", "circuit": "k", "school": "studs"}))
    first = next(row for row in listed.rows if row.box == "b1")
    assert (first.letter, first.item, first.path_in, first.makeup_in, first.cut_in) == (
        "1·1",
        "12-2 NM-B",
        159.5,
        50,
        228,
    )
    assert [row.cut_in for row in listed.rows] == sorted((row.cut_in for row in listed.rows), reverse=True)
    assert listed.totals[0].cut_in == sum(row.cut_in for row in listed.rows) and listed.totals[0].pulled_in == 0


def test_what_was_cut_when_it_was_pulled_becomes_the_record() -> None:
    job = edited(HOUSE, {"op": "pulled", "circuit": "k", "box": "b1", "length_in": 300.0})
    before, after = pulls(HOUSE).totals[0], pulls(job).totals[0]
    first = next(row for row in pulls(HOUSE).rows if row.box == "b1")
    assert after.pulled_in == 300.0 and after.cut_in == before.cut_in - first.cut_in + 300.0
    assert edited(job, {"op": "pulled", "circuit": "k", "box": "b1", "length_in": None}) == HOUSE


def test_schools_stand_side_by_side() -> None:
    nodes = {node.id: node for node in HOUSE.nodes}
    found = plan(HOUSE).drawn.found["k"]
    rows = {row.school: row for row in schools_of(job_book(HOUSE), HOUSE.habits, HOUSE.circuits[0], found, nodes)}
    assert set(rows) == {"cheapest", "studs", "over", "under"} and rows["cheapest"].current
    assert (
        rows["cheapest"].text == "the same" and min(row.dollars for row in rows.values()) == rows["cheapest"].dollars
    )
    for school, row in rows.items():
        job = edited(HOUSE, {"op": "bend", "circuit": "k", "school": school})
        assert row.length_in == pytest.approx(sum(length(job, box) for box in ("b1", "b2", "b3")))


def test_the_order_of_a_chain_is_offered_and_taken() -> None:
    """B-3 hangs first though it is farthest: the shortest order, proven, is less by what it says."""
    job = edited(HOUSE, {"op": "chain", "circuit": "k", "boxes": ["b3", "b1", "b2"]})
    shortest, clockwise = orders_of(job, job_book(job), job.circuits[0])
    assert shortest.boxes == ("b1", "b2", "b3") and shortest.proof == "the least that there is"
    after = edited(job, *shortest.edits)
    total = [sum(length(j, box) for box in ("b1", "b2", "b3")) for j in (job, after)]
    assert total[0] - total[1] == pytest.approx(shortest.less_in) and shortest.less_in > 12
    assert set(clockwise.boxes) == set(shortest.boxes)
    switch = edited(job, {"op": "set", "kind": "box", "id": "b1", "set": {"kind": "switch"}})
    assert orders_of(switch, job_book(switch), switch.circuits[0]) == []


@pytest.mark.parametrize(
    ("text", "closed", "avoid"),
    [
        ("close north wall West", True, False),
        ("avoid n West", False, True),
        ("avoid north wall in West", False, True),
    ],
)
def test_a_wall_is_closed_or_left_alone_by_a_sentence(text: str, closed: bool, avoid: bool) -> None:
    side = say(HOUSE, text).rooms[0].sides[0]
    assert (side.closed, side.avoid) == (closed, avoid)
    back = say(say(HOUSE, text), "open up north wall West" if closed else "use north wall West")
    assert back == HOUSE


def test_what_stands_in_a_wall_is_said_with_its_height() -> None:
    job = edited(HOUSE, {"op": "say", "text": 'mark clean out north at 60" from 10" high 20"', "room": "w"})
    (thing,) = job.fixtures
    assert (thing.kind, thing.at_in, thing.foot_in, thing.height_in) == ("clean_out", 60.0, 10.0, 20.0)


def test_a_multiwire_home_run_is_one_cable() -> None:
    """Two circuits that share a neutral go from the panel to B-1 in one 12-3; from there each on its own 12-2."""
    first = HOUSE.circuits[0].model_copy(update={"chain": HOUSE.circuits[0].chain[:2], "partner": "k2", "tied": True})
    second = first.model_copy(update={
        "id": "k2", "name": "Other", "space": 3, "partner": "k",
        "chain": (first.chain[0], HOUSE.circuits[0].chain[2].model_copy(update={"after": "b1"})),
    })  # fmt: skip
    job = HOUSE.model_copy(update={"circuits": (first, second)})
    planned = plan(job)
    items = sorted((row.item, row.box) for row in pulls(job).rows)
    assert items == [("12-2 NM-B", "b2"), ("12-2 NM-B", "b3"), ("12-3 NM-B", "b1")]
    rows = {(c.summary.id, row.box): row for c in planned.circuits for row in c.chain}
    assert rows["k", "b1"].length_in == rows["k2", "b1"].length_in == planned.drawn.found["k"]["b1"].route.length_in  # type: ignore[union-attr]
    assert not [f for f in planned.findings if f.code in ("cable-differs", "size-unknown", "wire-smaller")]
    apart = job.model_copy(
        update={"circuits": tuple(c.model_copy(update={"partner": None}) for c in (first, second))}
    )
    assert sorted(row.item for row in pulls(apart).rows) == ["12-2 NM-B"] * 4


@pytest.mark.parametrize(("method", "code"), [("UF-B", "way-apart"), ("NM-B", "cable-across")])
def test_a_cable_to_another_building_is_not_drawn_yet(method: str, code: str) -> None:
    """Straight across is told, and that it is."""
    shed = HOUSE.structures[0].model_copy(update={"id": "s", "name": "Shed", "x_in": 600.0, "levels": (SHED,)})
    room = HOUSE.rooms[0].model_copy(update={"id": "r", "level": "sf", "name": "Store"})
    box = HOUSE.boxes[0].model_copy(update={"id": "b9", "name": "B-9", "structure": "s", "room": "r"})
    circuit = HOUSE.circuits[0].model_copy(update={"method": method})
    job = HOUSE.model_copy(update={
        "structures": (*HOUSE.structures, shed), "rooms": (*HOUSE.rooms, room), "boxes": (*HOUSE.boxes, box),
        "circuits": (circuit,),
    })  # fmt: skip
    job = edited(job, {"op": "chain", "circuit": "k", "boxes": ["b9"], "after": "b3"})
    planned = plan(job)
    assert [f.code for f in planned.findings if f.code in ("way-apart", "cable-across")] == [code]
    length = {row.box: row.length_in for row in planned.circuits[0].chain}["b9"]
    assert length is not None and length > 400
