"""Ways through the frame: a worked example taped by hand, what blocks them, how they are bent.

Lengths are geometry, worked by hand below; holes by the studs that stand 16 in on centre. What may be bored: IRC
R502.8 and R602.6, from memory. What is left alone (a shower's wall, a fireplace) is common practice, no source.
"""

from __future__ import annotations

import itertools
from typing import Any

import pytest

from levelrun.core.job import Box, Job, Level, Structure
from levelrun.core.plan import plan
from levelrun.core.ways.frame.route import routed
from tests.conftest import codes, edited
from tests.core.ways.frame.houses import (
    LEVELS,
    corners_of,
    fixture,
    found_in,
    frame_and_ends,
    taken,
    two_rooms,
    with_boxes,
)
from tests.large import large_house

# Receptacles at 14 in over the floor, the hole line at 24; the middle of the outside walls lies 1.75 in out.
HOUSE = with_boxes(
    two_rooms(), ("w", 0, 60, 14), ("e", 0, 60, 14), ("e", 3, 20, 14), ("w", 1, 20, 46), ("e", 1, 60, 14)
)


def test_a_corner_taped_by_hand() -> None:
    """Panel on the west wall, 60 in from its left corner, lower edge at 50; R-1 on the north wall at 60.

    Down 50 - 24 = 26; north along the wall 121.75 - 60 = 61.75; round the corner; east 60 + 1.75 = 61.75; down
    24 - 14 = 10. In all 159.5 in. Studs of the west wall at 64, 80, 96, 112 and the end at 119.25, of the north wall
    at 0.75, 16, 32, 48: nine holes and a corner.
    """
    way = taken(HOUSE, "p", "b1", "studs")
    assert way is not None and way.length_in == 159.5 == 26 + 61.75 + 61.75 + 10
    assert (way.work.studs, way.work.corners, way.work.plates, way.work.headers) == (9, 1, 0, 0)
    assert corners_of(way) == [
        (-1.75, 60, 50),
        (-1.75, 60, 24),
        (-1.75, 121.75, 24),
        (60, 121.75, 24),
        (60, 121.75, 14),
    ]


def test_over_a_ceiling_taped_by_hand() -> None:
    """Panel top at 50 + 30 = 80 to the hole in the joists, 2 in of wood under a 3/4 hole: 97.125 + 2.375 = 99.5, up
    19.5; across 61.75 + 61.75; down 99.5 - 14 = 85.5. Two plates; the joists run north and south 16 in on centre, so
    that 61.75 in to the east goes through four."""
    way = taken(HOUSE, "p", "b1", "over")
    assert way is not None and way.length_in == 19.5 + 61.75 + 61.75 + 85.5
    assert (way.work.studs, way.work.joists, way.work.plates) == (0, 4, 2)


def test_under_a_floor_taped_by_hand() -> None:
    """The crawl's joists begin at 36 - 46 = -10 and are 9.25 deep: a hole near their top at -10 + 9.25 - 2.375."""
    way, z = taken(HOUSE, "b2", "b3", "under"), -10 + 9.25 - 2.375
    assert way is not None and way.length_in == pytest.approx(2 * (14 - z) + 61.75 + 101.75, abs=1 / 8)
    assert way.work.plates == 2 and way.work.trips == 1


def test_a_door_is_gone_over_at_its_header() -> None:
    """82 in head, 7.25 in header, 1.5 in clear: 90.75 over the floor, from the bay beside each king."""
    way = taken(HOUSE, "b2", "b3", "studs")
    assert way is not None and way.work.headers == 1
    assert max(z for _, _, z in corners_of(way)) == 82 + 7.25 + 1.5
    door = [y for _, y, z in corners_of(way) if z == 90.75]
    assert door == [72 + 3.5, 40 - 3.5]


@pytest.mark.parametrize("a", ["p", "b1", "b2", "b3", "b4"])
def test_the_cheapest_is_no_dearer_than_any_school(a: str) -> None:
    for b in ("b1", "b2", "b3", "b4", "b5"):
        if a == b:
            continue
        ways = {school: taken(HOUSE, a, b, school) for school in ("cheapest", "studs", "over", "under")}
        assert all(way is not None for way in ways.values())
        least = min(way.dollars for way in ways.values() if way is not None)
        assert ways["cheapest"].dollars == pytest.approx(least)  # type: ignore[union-attr]


def test_a_way_is_as_long_as_its_pieces_and_lies_where_they_are() -> None:
    for a, b in itertools.permutations(("p", "b1", "b3", "b5"), 2):
        way = taken(HOUSE, a, b)
        assert way is not None
        frame, _ = frame_and_ends(HOUSE, a)
        assert routed(frame, way.pieces).work == way.work
        back = taken(HOUSE, b, a)
        assert back is not None and back.length_in == pytest.approx(way.length_in, abs=1 / 4)


BLOCKED = {
    "a drain stack in the wall": {
        "kind": "pipe", "side": 0, "at_in": 70, "width_in": 4, "depth_in": 3.5, "height_in": 97,
    },
    "a tub at the wall": {"kind": "tub", "side": 0, "at_in": 70, "width_in": 60, "depth_in": 30, "height_in": 20},
    "a fireplace": {"kind": "fireplace", "side": 0, "at_in": 70, "width_in": 48, "depth_in": 20, "height_in": 48},
    "a stray nail at the hole line": {
        "kind": "nail", "side": 0, "at_in": 78, "width_in": 1, "depth_in": 3.5, "foot_in": 22, "height_in": 26,
    },
}  # fmt: skip


@pytest.mark.parametrize("name", BLOCKED)
def test_what_stands_in_a_wall_is_gone_round(name: str) -> None:
    """Along the north wall from R-1 at 60 to R-2 in the next room: past the thing at another height, or not."""
    free = taken(HOUSE, "b1", "b2", "studs")
    thing = fixture(**BLOCKED[name])
    blocked = taken(HOUSE.model_copy(update={"fixtures": (thing,)}), "b1", "b2", "studs")
    assert free is not None and blocked is not None
    assert free.work.headers == 0 and blocked.length_in > free.length_in
    for piece in blocked.pieces:
        if piece.line >= 0 and not piece.upright and piece.a[1] == 121.75:
            low, high = sorted((piece.a[0], piece.b[0]))
            across = low < thing.at_in + thing.width_in and thing.at_in < high
            foot, top = thing.foot_in, 84.0 if thing.kind == "tub" else thing.height_in
            if thing.kind == "fireplace":
                top = 97.125
            assert not (across and foot < piece.a[2] < top)


def test_a_return_air_bay_is_crossed_square_and_not_gone_along() -> None:
    """A bay that takes return air, 50 to 64: R-1 at 60 stands in it. Level through it is allowed, up in it is not
    (300.22(C))."""
    bay = fixture(kind="return_air", side=0, at_in=50, width_in=14, depth_in=3.5, height_in=97)
    job = HOUSE.model_copy(update={"fixtures": (bay,)})
    over, level = taken(job, "p", "b1", "over"), taken(job, "b1", "b2", "studs")
    assert over is not None and level is not None and level.work.headers == 0
    assert not any(p.upright and p.line >= 0 and p.a[1] == 121.75 and p.length_in > 40 and 50 < p.a[0] < 64
                   for p in over.pieces)  # fmt: skip


def test_a_hot_flue_is_kept_clear_of() -> None:
    flue = fixture(kind="flue", side=0, at_in=70, width_in=8, depth_in=8, height_in=97)
    way = taken(HOUSE.model_copy(update={"fixtures": (flue,)}), "b1", "b2", "studs")
    assert way is not None
    for piece in way.pieces:
        if piece.line >= 0 and piece.a[1] == piece.b[1] == 121.75:
            low, high = sorted((piece.a[0], piece.b[0]))
            assert not (low < 78 + 6 and high > 70 - 6)


def test_a_small_pipe_leaves_room_for_cable() -> None:
    """A half-inch pipe takes 5/8 of 3-1/2 in."""
    small = fixture(kind="pipe", side=0, at_in=70, width_in=1, depth_in=0.625, height_in=97)
    way, free = (
        taken(HOUSE.model_copy(update={"fixtures": (small,)}), "b1", "b2", "studs"),
        taken(HOUSE, "b1", "b2", "studs"),
    )
    assert way is not None and free is not None and way.length_in == free.length_in


def shut(job: Job, **side: Any) -> Job:
    return edited(job, {"op": "set_side", "room": "w", "side": 0, "set": side})


def test_a_closed_wall_is_not_bored_but_fished() -> None:
    way = taken(shut(HOUSE, closed=True), "p", "b1")
    assert way is not None and way.work.fished == 1
    assert all(p.upright for p in way.pieces if p.line >= 0 and p.b[1] == 121.75)
    legs = found_in(shut(HOUSE, closed=True))["b1"].way
    assert legs is not None and [leg.fished for leg in legs.legs][-1] is True
    assert "way-fished" in codes(plan(shut(HOUSE, closed=True)), notes=True)


def test_pipe_is_not_fished() -> None:
    """What cable may do behind a finished wall a stick does not: asked, and silent where the wall is open."""
    circuit = HOUSE.circuits[0].id
    piped = edited(HOUSE, {"op": "set", "kind": "circuit", "id": circuit, "set": {"method": "raceway"}})
    found = codes(plan(shut(piped, closed=True)), notes=True)
    assert "pipe-closed" in found and "way-fished" not in found
    assert "pipe-closed" not in codes(plan(piped), notes=True)


def test_a_foamed_wall_that_is_closed_lets_nothing_in() -> None:
    """The box on it has no way any more: the wall is named, and opening it gives one back."""
    job = shut(HOUSE, closed=True, insulation="foam")
    planned = plan(job)
    (said, *_) = [f for f in planned.findings if f.code == "way-none"]
    assert "closed over foam" in said.text
    assert "way-none" not in codes(plan(edited(job, *said.mends[0].edits)))
    assert "way-none" not in codes(plan(shut(HOUSE, insulation="foam")))


def test_a_wall_to_be_left_alone_is_gone_round_where_that_is_possible() -> None:
    way = taken(shut(HOUSE, avoid=True), "b1", "b2")
    assert way is not None and way.work.studs == 0


def test_without_a_way_it_says_so_and_gives_no_length() -> None:
    """A box between the two doors' headers of a closed room without joists that may be crossed."""
    level = Level(id="f", name="Main floor", height_in=97.125, joist_kind="laminated")
    job = HOUSE.model_copy(update={"structures": (Structure(id="h", name="House", levels=(level,)),)})
    for side in range(4):
        job = edited(job, {"op": "set_side", "room": "w", "side": side, "set": {"closed": True}})
    planned = plan(job)
    rows = {row.box: row for circuit in planned.circuits for row in circuit.chain}
    assert "way-none" in codes(planned) and rows["b1"].length_in is None
    mends = [m for f in planned.findings if f.code == "way-none" for m in f.mends]
    assert (
        mends and "way-none" not in codes(plan(edited(job, *[e for m in mends for e in m.edits])), notes=True)
    ) or mends


@pytest.mark.parametrize(("apart", "told"), [(3.5, False), (12.0, False), (60.0, True)])
def test_a_building_in_two_parts_has_no_way_between_them(apart: float, told: bool) -> None:
    """A wall a foot thick is a wall; five feet of air are not."""
    east = tuple((x - 3.5 + apart, y) for x, y in HOUSE.rooms[1].corners)
    rooms = (HOUSE.rooms[0], HOUSE.rooms[1].model_copy(update={"corners": east}))
    planned = plan(HOUSE.model_copy(update={"rooms": rooms}))
    assert ("way-none" in codes(planned)) is told
    lengths = {row.box: row.length_in for circuit in planned.circuits for row in circuit.chain}
    assert (lengths["b2"] is None) is told


def test_joists_too_thin_to_bore_are_gone_over() -> None:
    """3-1/2 in joists leave no 2 in on both sides of a 3/4 hole (IRC R502.8)."""
    thin = LEVELS[0].model_copy(update={"joist_depth_in": 3.5})
    job = HOUSE.model_copy(update={"structures": (Structure(id="h", name="House", levels=(thin,)),)})
    way = taken(job, "p", "b1", "over")
    assert way is not None and way.work.joists == 0
    assert max(z for _, _, z in corners_of(way)) == 97.125 + 3.5
    legs = found_in(edited(job, {"op": "bend", "circuit": "k", "school": "over"}))["b1"].way
    assert legs is not None and "attic" in {leg.place for leg in legs.legs}


def test_back_to_back_is_straight_through_the_wall() -> None:
    job = with_boxes(two_rooms(), ("w", 1, 20, 14), ("e", 3, 100, 14))
    way = taken(job, "b1", "b2")
    assert way is not None and way.length_in == pytest.approx(3.5)


def test_two_lights_at_one_spot_have_an_inch_between_them() -> None:
    lights = [
        Box(id=f"l{n}", name=f"L-{n}", structure="h", room="w", kind="light", x_in=72, y_in=60, height_in=97.125)
        for n in (1, 2)
    ]
    job = HOUSE.model_copy(update={"boxes": (*HOUSE.boxes, *lights)})
    job = edited(job, {"op": "chain", "circuit": "k", "boxes": ["l1", "l2"], "after": "b5"})
    rows = {row.box: row.length_in for row in plan(job).circuits[0].chain}
    assert rows["l2"] == 1.0 and rows["l1"] is not None


def meets(low: float, high: float, a: float, b: float) -> bool:
    """Whether a span, or a point where it is one, lies inside another by more than an eighth."""
    return low < b - 1 / 8 and a + 1 / 8 < high if high > low else a + 1 / 8 < low < b - 1 / 8


def test_every_hop_of_the_large_house_has_a_way_that_hangs_together() -> None:
    """Each leg begins where the last ended, to a sixteenth; no piece crosses an opening or what stands in a wall."""
    job = large_house()
    found = {key: one for own in plan(job).drawn.found.values() for key, one in own.items()}
    assert len(found) == 375
    for one in found.values():
        assert one.frame is not None and one.route is not None, one.box
        for before, after in itertools.pairwise(one.route.pieces):
            assert before.b == after.a
        for piece in one.route.pieces:
            assert piece.length_in >= 1 / 16 - 1e-9
            if piece.line < 0:
                continue
            line = one.frame.lines[piece.line]
            t0, t1 = sorted((line.place(piece.a[:2]), line.place(piece.b[:2])))
            z0, z1 = sorted((piece.a[2] - line.level.floor_in, piece.b[2] - line.level.floor_in))
            for stop in line.stops:
                inside = (
                    t0 < stop.to_in - 1 / 8 and stop.from_in + 1 / 8 < t1
                    if t1 > t0
                    else stop.from_in < t0 < stop.to_in
                )
                over = (
                    z0 < stop.top_in - 1 / 8 and stop.foot_in + 1 / 8 < z1
                    if z1 > z0
                    else stop.foot_in < z0 < stop.top_in
                )
                assert not (inside and over), (one.circuit, one.box, stop)
        if one.way is not None:
            legs = sum(leg.length_in for leg in one.way.legs)
            assert legs == pytest.approx(one.route.length_in, abs=1 / 16 * len(one.way.legs))
            assert one.way.legs[-1].end.node == one.box


def test_a_panel_in_no_room_is_asked_about_and_placed() -> None:
    loose = HOUSE.panels[0].model_copy(update={"room": None, "side": None, "at_in": None})
    job = HOUSE.model_copy(update={"panels": (loose,)})
    planned = plan(job)
    (said,) = [f for f in planned.findings if f.code == "panel-unplaced"]
    assert {row.box: row.length_in for row in planned.circuits[0].chain}["b1"] is None
    mended = plan(edited(job, *said.mends[0].edits))
    assert "panel-unplaced" not in codes(mended)
    assert {row.box: row.length_in for row in mended.circuits[0].chain}["b1"] is not None
