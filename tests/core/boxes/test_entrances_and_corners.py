"""Lights at entrances, ceiling boxes, counters round a corner, several boxes off their studs at once."""

from __future__ import annotations

import pytest

from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.spacing import counter_spaces, wall_spaces
from levelrun.core.codebook import load
from levelrun.core.job import Job
from tests.conftest import built, edited, found

DOOR = "room Den 14' x 12'; door south 3' at 34\""


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (DOOR, True),
        (DOOR + "; set light south 7' outside", False),
        (DOOR + "; set light north 7' outside", True),  # at the other side of the house
        ("room Den 14' x 12'; room Hall 8' x 12' east of Den; door in Den east 3'", False),  # between two rooms
        (
            "room Den 14' x 12'; room Porch 8' x 12' east of Den; door in Den east 3'; set light in Porch centre",
            False,
        ),
        ("room Garage 20' x 20'; garage door south 9'", False),
        ("structure shop Shop; room Den 14' x 12'; door south 3'", False),
        ("level crawl; room Crawl 14' x 12'; door south 3'", False),
    ],
)
def test_an_entrance_has_a_light_outside(text: str, said: bool) -> None:
    job = built(text) if not text.startswith("structure") else built(text, Job(name="One"))
    assert bool(found(job, "entrance-no-light")) is said


def test_the_light_that_is_offered_stands_beside_the_door_and_in_no_opening() -> None:
    job = built(DOOR + "; window south 2' x 3' at 6'")
    mended = edited(job, *found(job, "entrance-no-light")[0].mends[0].edits)
    assert not found(mended, "box-in-opening") and not found(mended, "entrance-no-light")
    assert mended.boxes[-1].at_in == 22.0  # a foot left of the door: the window stands right of it


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("room Bed 12' x 12'; set light centre", False),  # the usual box is chosen with that in mind
        ("room Bed 12' x 12'; set light centre box octagon-21", True),
        ("room Bed 12' x 12'; set light centre box fan-21", False),
        ("room Bath 12' x 12'; set light centre box octagon-21", False),
        ("room Bed 12' x 12'; set light north 5' box octagon-21", False),  # on a wall
    ],
)
def test_a_ceiling_box_where_a_fan_may_hang(text: str, said: bool) -> None:
    assert bool(found(built(text), "ceiling-box")) is said


CORNER = "room Kitchen 12' x 12'; mark counter north 12' at 0; mark counter east 6' at {at}; "


@pytest.mark.parametrize(
    ("at", "outlet", "reached"),
    [
        ('25"', "3' 1\"", False),  # 37 in round the corner
        ('0"', '13"', True),  # the last 11 in of the north counter are 24 in from it at most
        ('60"', '62"', False),  # a counter that does not reach into the corner
    ],
)
def test_a_counter_goes_on_round_its_corner(at: str, outlet: str, reached: bool) -> None:
    """The last receptacle of the north wall stands 109 in along: 24 in on is 133, 11 in short of the corner."""
    text = CORNER.format(at=at).replace("at 0;", 'at 0";')
    text += "; ".join(f'set receptacle north {x}" at 42" for counter' for x in (20, 65, 109))
    text += f'; set receptacle east {outlet} at 42" for counter'
    job = built(text)
    spaces = counter_spaces(room_view(job, load(), job.rooms[0].id))
    north = next(space for space in spaces if space.side == 0)
    assert (not north.missing) is reached


def test_wall_behind_a_refrigerator_with_its_own_outlet_is_no_wall_space() -> None:
    """Six inches beside it are left, under the 2 ft from which wall counts."""
    text = "room Kitchen 12' x 12'; mark cabinet north 9' at 0\"; mark refrigerator north 30\" at 9'"
    bare, own = built(text), built(text + "; set receptacle north 9' 8\" for refrigerator")
    lengths = [[round(s.length_in) for s in wall_spaces(room_view(j, load(), j.rooms[0].id))] for j in (bare, own)]
    assert lengths[0] != lengths[1] and sum(lengths[0]) - sum(lengths[1]) == 30


def test_several_boxes_off_their_studs_are_one_finding_with_one_mend() -> None:
    text = "room Den 24' x 12'; " + "; ".join(f"set receptacle north {at}'" for at in (1, 3, 7, 9))
    (said,) = found(built(text), "boxes-off-studs")
    assert said.measured == "4" and not found(built(text), "box-off-stud")
    mended = edited(built(text), *said.mends[0].edits)
    assert not found(mended, "boxes-off-studs") and not found(mended, "box-off-stud")
    few = built("room Den 24' x 12'; set receptacle north 1'; set receptacle north 3'")
    assert len(found(few, "box-off-stud")) == 2 and not found(few, "boxes-off-studs")
