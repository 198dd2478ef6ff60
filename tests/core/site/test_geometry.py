"""Rooms from tape readings: closings, areas, shared walls and their studs, checked against shapely."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import LineString, Polygon
from shapely import Point as Spot

from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Room, Side
from levelrun.core.site.faces import faces, level_parts
from levelrun.core.site.geometry import area_ft2, clockwise, close_chain, is_inside, walls_of
from levelrun.core.site.sharing import mates
from tests.conftest import built, edited, found

sixteenths = st.integers(24 * 16, 600 * 16).map(lambda n: n / 16)


def test_a_chain_that_closes_is_taken_as_read() -> None:
    closed = close_chain([("north", 288), ("east", 192), ("south", 288), ("west", 192)])
    assert closed.error_in == 0
    assert [wall.name for wall in walls_of(built("wall n 24' e 16' s 24' w 16'").rooms[0])] == [
        "west", "north", "east", "south",
    ]  # fmt: skip
    assert area_ft2(closed.corners) == 384


def test_a_small_closing_error_is_shared_out_in_proportion_to_the_legs() -> None:
    closed = close_chain([("north", 288), ("east", 192), ("south", 286), ("west", 192)])
    assert closed.error_in == pytest.approx(2)
    lengths = [w.length_in for w in walls_of(_room(closed.corners))]
    assert lengths[0] == pytest.approx(288 - 2 * 288 / 958, abs=1 / 8)
    assert lengths[2] == pytest.approx(286 + 2 * 286 / 958, abs=1 / 8)


# Against shapely's own distance: inside or on the stud faces, whichever way round the room is read.
@given(
    st.lists(st.tuples(sixteenths, sixteenths), min_size=3, max_size=3),
    st.tuples(sixteenths, sixteenths),
    st.booleans(),
)
def test_a_place_is_in_a_room_or_on_its_faces(steps: list[tuple[float, float]], spot: tuple[float, float],
                                              turned: bool) -> None:  # fmt: skip
    (w, d), (iw, id_), _ = steps
    corners = [(0.0, d + id_), (w, d + id_), (w, d), (w + iw, d), (w + iw, 0.0), (0.0, 0.0)]
    shape = Polygon(corners)
    assert is_inside(corners[::-1] if turned else corners, spot) == (shape.distance(Spot(spot)) < 1e-6)
    assert all(is_inside(corners, corner) for corner in corners)
    assert not is_inside(corners, (w + 0.01, d + 0.01))


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("wall n 24' e 16' s 22' w 16'", "misses its start by 24.0 in"),
        ("wall n 10' s 10' n 10' s 10'", "enclose no room"),
        ("wall n 24' e 16'", "three walls at least"),
        ("room Tiny 8' x 0'", "zero"),
    ],
)
def test_a_chain_that_cannot_be_a_room_is_refused(text: str, words: str) -> None:
    if words == "zero":
        assert found(built(text), "room-shape")
        return
    with pytest.raises((TextError, LevelRunError), match=words):
        built(text)


def _room(corners: tuple[tuple[float, float], ...], ident: str = "r") -> Room:
    return Room(id=ident, level="v", name=ident, corners=corners, sides=tuple(Side() for _ in corners))


@given(st.lists(st.tuples(sixteenths, sixteenths), min_size=3, max_size=9, unique=True))
def test_areas_are_those_of_shapely(points: list[tuple[float, float]]) -> None:
    shape = Polygon(points)
    if shape.is_valid:
        assert area_ft2(points) == pytest.approx(shape.area / 144)
        assert clockwise(points)[0] == points[0]
        assert not Polygon(clockwise(points)).exterior.is_ccw or shape.area == 0


@given(sixteenths, sixteenths, sixteenths, sixteenths, st.integers(-200, 200))
def test_shared_walls_are_where_shapely_finds_outlines_a_stud_apart(
    w0: float, d0: float, w1: float, d1: float, offset: int
) -> None:
    job = built(f'room A {w0}" x {d0}"')
    job = built(f'room B {w1}" x {d1}" at {w0 + 3.5}" east {abs(offset)}" {"north" if offset > 0 else "south"}', job)
    a, b = job.rooms
    shared = mates((a, b))[a.id, 1]
    strip = LineString(a.corners[1:3]).buffer(3.6, cap_style="flat")
    overlap = strip.intersection(LineString([b.corners[3], b.corners[0]])).length
    if overlap > 2.1:
        assert shared[0].to_in - shared[0].from_in == pytest.approx(overlap, abs=0.1)
        back = mates((a, b))[b.id, 3][0]
        assert back.to_in - back.from_in == pytest.approx(overlap, abs=0.1)
    elif overlap < 1.9:
        assert not shared


def test_both_rooms_see_the_same_studs_and_the_same_door() -> None:
    job = built("room A 12' x 12'; room B 9' x 10' east of A; door west 2'6 at 3'")
    own = faces(level_parts(job)["s1-floor"])
    a, b = own[job.rooms[0].id][1], own[job.rooms[1].id][3]
    ys = {round(a.wall.at(s.at_in)[1], 3) for s in a.studs if s.kind == "stud"}
    theirs = {round(b.wall.at(s.at_in)[1], 3) for s in b.studs if s.kind == "stud"}
    assert len(theirs) > 3
    assert theirs <= ys
    door, seen = b.openings[0], a.openings[0]
    assert a.wall.at(seen.at_in) == pytest.approx((144, b.wall.at(door.to_in)[1]))
    assert (door.own, seen.own, door.hinge, seen.hinge) == (True, False, "left", "right")


def test_studs_stand_on_16_in_centres_with_kings_and_trimmers_at_openings() -> None:
    job = built("room A 12' x 12'; window north 5' x 4' at 4' sill 32\"")
    north = faces(level_parts(job)["s1-floor"])[job.rooms[0].id][0]
    at = {kind: [s.at_in for s in north.studs if s.kind == kind] for kind in ("stud", "king", "trimmer", "cripple")}
    assert at["stud"] == [16, 32, 112, 128]
    assert at["king"] == [45.75, 110.25]
    assert at["trimmer"] == [47.25, 108.75]
    assert set(at["cripple"]) == {48, 64, 80, 96}


def test_a_wall_moves_with_its_other_face_and_never_past_the_room() -> None:
    job = built("room A 12' x 12'; room B 9' x 12' east of A")
    moved = edited(job, {"op": "move_wall", "room": job.rooms[0].id, "side": 1, "by_in": 12})
    assert moved.rooms[0].corners[1] == (156, 144)
    assert moved.rooms[1].corners[0] == (159.5, 144)
    assert moved.rooms[1].corners[1] == job.rooms[1].corners[1]
    with pytest.raises(LevelRunError, match="12 in or more"):
        edited(job, {"op": "move_wall", "room": job.rooms[0].id, "side": 1, "by_in": 100})


def test_framing_holds_for_both_faces_finish_for_one() -> None:
    job = built("room A 12' x 12'; room B 9' x 12' east of A; frame west 2x6 at 24\" boards foam")
    ours, theirs = job.rooms[1].sides[3], job.rooms[0].sides[1]
    assert (theirs.stud, theirs.spacing_in, theirs.insulation) == ("2x6", 24, "foam")
    assert (ours.finish, theirs.finish) == ("boards", "drywall")


def test_what_is_drawn_wrong_is_found() -> None:
    overlap = built("room A 12' x 12'; room B 9' x 12' at 10' east")
    assert "24.0 ft²" in found(overlap, "rooms-overlap")[0].text
    crossed = built("room A 12' x 12'; door south 3' at 1'; window south 4' x 4' at 3' sill 30\"")
    assert found(crossed, "openings-overlap")
    narrow = edited(crossed, {"op": "set", "kind": "opening", "id": crossed.openings[0].id, "set": {"at_in": 120.0}})
    assert found(narrow, "opening-off-wall")
