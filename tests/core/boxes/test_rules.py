"""Each rule about rooms, boxes and panels: a case that breaks it, its words, and that its first mend mends it."""

from __future__ import annotations

import pytest

from levelrun.core.boxes.codes import CODES as BOXES
from levelrun.core.errors import EditError, TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.site.codes import CODES as SITE
from tests.conftest import built, edited, found

DEN = "room Den 12' x 12'; door south 3' at 34\"; "
BATH = "room Bath 9' x 8'; door south 2'6 at 1'; "
HOME = "room Hall 12' x 4'; room Bed 12' x 12' north of Hall; "
CASES: dict[str, str] = {
    "wall-no-receptacle": DEN,
    "counter-no-receptacle": "room Kitchen 12' x 12'; mark counter north 6' at 2'",
    "bath-no-receptacle": BATH + "mark basin north 24\" at 3'",
    "opening-crosses": "room A 8' x 8'; room Long 20' x 10' north of A; door south 3' at 11'",
    "room-no-receptacle": "room Garage 20' x 20'",
    "outdoor-receptacles": DEN,
    "room-no-light": DEN,
    "room-no-switch": DEN,
    "switch-hinge-side": DEN + "set switch south 30\"; door north 3' at 3' hinge right; set switch north 6'4",
    "three-way": "room Hall 20' x 4'; door south 3' at 2'; door north 3' at 14'",
    "smoke-missing": "room Bed 12' x 12'",
    "box-off-stud": DEN + 'set receptacle north 24"',
    "box-in-opening": DEN + "set receptacle south 4'",
    "box-off-wall": DEN + "set receptacle north 12'",
    "boxes-overlap": DEN + 'set receptacle north 17 5/8"; set receptacle north 18"',
    "box-set-out": DEN + 'set receptacle north 17 5/8"; frame north boards',
    "panel-set-out": DEN + "panel north 4' as P; change P: set out 0; frame north boards",
    "foyer-asked": "room Entry 10' x 8' as hall; door south 3'",
    "alarms-joined": "room Bed 12' x 12'; set smoke 3' x 3'; set smoke 9' x 9'",
    "island-provision": "room Kitchen 16' x 16'; mark island north 5' at 3'",
    "box-proud": DEN + 'set receptacle north 17 5/8" out 1 1/2"',
    "box-too-deep": DEN + 'frame north furring; set receptacle north 17 5/8"',
    "fan-box": DEN + "set fan centre box round-20",
    "opener-near": "room Garage 20' x 20'; garage door south 9' at 5'; set receptacle 10' x 10' for opener",
    "switch-high": DEN + "set switch south 75\" at 7'",
    "wet-zone": BATH + "mark shower north 3' at 0\"; set receptacle north 5'",
    "valve-stud": BATH + 'mark shower valve north 10" at 27"',
    "outdoor-cover": DEN + 'set receptacle north 17 5/8" outside',
    "panel-place": BATH + "panel north 4'",
    "panel-space": DEN + "panel north 4'; mark counter north 4' at 3'",
    "rooms-overlap": "room A 12' x 12'; room B 12' x 12' at 6' east",
    "openings-overlap": DEN + "window south 4' x 4' at 4' sill 30\"",
    "entrance-no-light": "room Den 14' x 12'; door south 3'",
    "ceiling-box": DEN + "set light centre box octagon-21",
    "boxes-off-studs": DEN + "; ".join(f"set receptacle north {at}'" for at in (1, 3, 7, 9)),
    "alarm-near": "room Kitchen 14' x 12'; mark range north 30\" at 4'; set smoke 5' x 6'",
    "fire-wall": "room Den 12' x 12'; room Garage 20' x 12' east of Den; set receptacle in Den east 17 5/8\"",
    "monoxide": "room Bed 12' x 12'; set smoke 3' x 3'; room Hall 6' x 12' east of Bed; door in Bed east 30\"; "
    "set smoke in Hall 3' x 6'; mark fireplace east 4'",
    "service-outlet": DEN + "set equipment north 5' for furnace",
    "dwelling-unsaid": "structure cabin Cabin; room Bunk 12' x 12'",
    "porch-cover": "room Porch 12' x 8'; set receptacle north 17 5/8\" as O-1; change O-1: cover flat",
    "tail-open": DEN + "set tail 3' x 3'",
    "box-plastic": DEN + "panel north 4' as P; set receptacle south 17 5/8\" box single-22 as R-9; circuit 20a: R-9; "
    "all circuits in mc",
    "box-hidden": DEN + 'mark cabinet north 4\' at 0"; set receptacle north 17 5/8"',
}
ELSEWHERE = {
    "island-no-receptacle",
    "box-full",
    "box-off-room",
    "box-unknown",
    "air-seal",
    "opening-off-wall",
    "fixture-off-wall",
    "room-shape",
}
NO_MEND = {
    "switch-hinge-side", "tail-open", "alarms-joined", "alarm-near", "fire-wall", "service-outlet",
    "panel-place", "panel-space", "rooms-overlap", "openings-overlap", "opening-crosses",
}  # fmt: skip


@pytest.mark.parametrize("code", CASES)
def test_each_rule_speaks_and_its_first_mend_mends(code: str) -> None:
    job = built(CASES[code])
    said = found(job, code)
    assert said, [item.code for item in plan(job).findings]
    assert said[0].section
    if code in NO_MEND:
        assert not said[0].mends
        return
    before = {(item.subject, item.title) for item in said}
    after = {(item.subject, item.title) for item in found(edited(job, *said[0].mends[0].edits), code)}
    assert (said[0].subject, said[0].title) not in after
    assert code == "outdoor-receptacles" or after < before


def test_every_code_has_a_case() -> None:
    assert set(CASES) | ELSEWHERE == {*BOXES, *SITE}


def test_boxes_that_stand_right_are_left_alone() -> None:
    job = built(DEN + 'fill; set receptacle north 17 5/8" outside; set receptacle south 15 5/8" outside')
    job = built("set light south 2' outside", job, room=job.rooms[0].id)
    covered = [
        {"op": "set", "kind": "box", "id": box.id, "set": {"cover": "in_use"}} for box in job.boxes if box.outdoors
    ]
    assert [item.code for item in plan(edited(job, *covered)).findings if item.severity != "note"] == []


def test_boards_want_flush_drywall_a_quarter_inch_back_at_most() -> None:
    """314.20: flush with combustible finish, set back 1/4 in at most in what does not burn."""
    base = DEN + 'set receptacle north 17 5/8" out 1/4"'
    assert not found(built(base), "box-set-out")
    assert found(built(base + "; frame north boards"), "box-set-out")
    assert found(built(DEN + 'set receptacle north 17 5/8" out 1/8"'), "box-set-out")


def test_a_deep_box_in_a_furred_wall_is_told_what_is_clear() -> None:
    said = found(built(CASES["box-too-deep"]), "box-too-deep")[0]
    assert said.measured == "2 3/4″"
    assert said.limit == "2″"
    assert said.mends[0].label == "Use Shallow 4 in square 18 in³"


def carried(job: Job, name: str, text: str) -> Job:
    """The job with a circuit of one box, and with the way that it takes from the first panel, as walked."""
    ends = {node.name: node.id for node in job.nodes}
    ident = f"c-{len(job.circuits)}"
    way = {"id": f"way{len(job.ways)}", "name": f"Way {len(job.ways)}", "start": job.panels[0].id}
    circuit = {"id": ident, "name": f"Circuit {len(job.circuits)}", "panel": job.panels[0].id}
    return edited(
        job,
        {"op": "add", "kind": "circuit", "item": circuit | {"chain": [{"box": ends[name], "path": []}]}},
        {"op": "add", "kind": "way", "item": way},
        {"op": "route", "circuit": ident, "box": ends[name], "path": [way["id"]]},
        {"op": "walk", "way": way["id"], "text": text},
    )


def test_box_fill_counts_what_the_hops_bring() -> None:
    """Two 12-2 cables on one receptacle without clamps: 4 × 2.25 + 2 × 2.25 + one ground 2.25 = 15.75 in³, in an
    18 in³ box; a third cable makes it 20.25 (314.16(B), arithmetic): too much for a box that was said to be one of
    18, and of 20.3 where nobody said which."""
    job = built(DEN + "panel north 8'; set receptacle south 15 5/8\" as R-9")
    for index, text in enumerate(["down 4' stud wall in 12-2; over 12' to R-9", "over 12' attic in 12-2 to R-9",
                                  "up 4' attic in 12-2; over 12' to R-9"]):  # fmt: skip
        job = carried(job, "R-9", text)
        if not index:
            continue
        figure = next(b for r in plan(job).rooms for b in r.boxes if b.name == "R-9").figures[0]
        assert figure.value == (15.75 if index == 1 else 20.25)
    (taken,) = (b for r in plan(job).rooms for b in r.boxes if b.name == "R-9")
    assert not found(job, "box-full") and taken.model == "Single-gang 20.3 in³"
    box = next(item for item in job.boxes if item.name == "R-9")
    job = edited(job, {"op": "set", "kind": "box", "id": box.id, "set": {"model": "single-18"}})
    full = found(job, "box-full")[0]
    assert full.mends[0].label == "Single-gang 20.3 in³"
    assert not found(edited(job, *full.mends[0].edits), "box-full")


def test_a_panel_stands_in_no_door() -> None:
    said = found(built(DEN + "panel south 4'"), "box-in-opening")
    assert said[0].about == "panel" and "stands in a door" in said[0].title
    assert not found(built(DEN + "panel south 8'"), "box-in-opening")


def test_air_tight_boxes_where_the_shop_wants_them() -> None:
    job = built(DEN + 'set receptacle north 17 5/8"')
    assert not found(job, "air-seal")
    cold = edited(job, {"op": "set_job", "set": {"habits": {**job.habits.model_dump(), "air_tight_outside": True}}})
    assert found(cold, "air-seal")


def test_a_box_used_by_a_way_is_not_removed_silently() -> None:
    job = built(DEN + "panel north 8'; set receptacle south 15 5/8\" as R-9")
    way = {"id": "way1", "name": "Den", "start": job.panels[0].id}
    walk = {"op": "walk", "way": "way1", "text": "over 12' stud wall in 12-2 to R-9"}
    job = edited(job, {"op": "add", "kind": "way", "item": way}, walk)
    with pytest.raises(ValueError, match="used by Den"):
        edited(job, {"op": "drop", "kind": "box", "id": job.boxes[0].id})
    with pytest.raises(ValueError, match="R-9"):
        edited(job, {"op": "clear_room", "room": job.rooms[0].id})


def test_a_light_whose_wall_is_moved_past_it_is_told_and_brought_back() -> None:
    job = built("room Den 12' x 12'; set light 11' x 6'")
    assert not found(job, "box-off-room")
    walls = {"op": "move_wall", "room": job.rooms[0].id, "side": 1}
    assert not found(edited(job, {**walls, "by_in": -12.0}), "box-off-room")
    moved = edited(job, {**walls, "by_in": -18.0})
    (said,) = found(moved, "box-off-room")
    mended = edited(moved, *said.mends[0].edits)
    assert not found(mended, "box-off-room")
    assert (mended.boxes[0].x_in, mended.boxes[0].y_in) == (63, 72)


@pytest.mark.parametrize(
    ("x_in", "taken"), [(0.0, True), (143.0, True), (144.0, True), (145.0, False), (-1.0, False)]
)
def test_a_box_typed_outside_of_its_room_is_refused_at_its_place(x_in: float, taken: bool) -> None:
    job = built("room Den 12' x 12'")
    item = {"kind": "light", "room": job.rooms[0].id, "x_in": x_in, "y_in": 72.0}
    if taken:
        assert edited(job, {"op": "add", "kind": "box", "item": item}).boxes[0].x_in == x_in
        return
    with pytest.raises(EditError, match="is not inside Den, 12′ by 12′") as refused:
        edited(job, {"op": "add", "kind": "box", "item": item})
    assert refused.value.key.endswith("x_in")


@pytest.mark.parametrize(
    ("text", "word"), [("set light 6' x 5'13", "13"), ("set light 6' x 50'", "50'"), ("set light 6' x", "")]
)
def test_a_wrong_second_reading_is_the_one_that_is_blamed(text: str, word: str) -> None:
    job = built("room Den 12' x 12'")
    with pytest.raises(TextError) as refused:
        edited(job, {"op": "say", "text": text, "room": job.rooms[0].id})
    assert refused.value.at is not None
    assert text[refused.value.at :] == word
    assert "wall" not in str(refused.value)
