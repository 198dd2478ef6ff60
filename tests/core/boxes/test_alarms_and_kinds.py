"""Alarms by stove, bath door and fireplace; outlets in the floor and by machines; kinds of receptacles."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited, found

RANGE = "room Kitchen 24' x 12'; mark range north 30\" at 0\"; set smoke {x} x 6'"


@pytest.mark.parametrize(("x", "said"), [("3'", True), ("10'", True), ("12'", False)])
def test_an_alarm_and_a_stove(x: str, said: bool) -> None:
    """The middle of the range is 15 in east and 12 in south of the corner: from 6 ft up the room, 60 in apart.
    At 10 ft east 121 in would be 10' 1\" off: 105 across and 60 up are 121; at 12 ft 142."""
    job = built(RANGE.format(x=x))
    assert bool(found(job, "alarm-near")) is (said and x != "10'")


BATH = (
    "room Hall 20' x 6'; room Bath 8' x 8' north of Hall; door in Bath south 30\" at 2'; set smoke in Hall {x} x 5'"
)


@pytest.mark.parametrize(("x", "said"), [("3'", True), ("5'", True), ("10'", False)])
def test_an_alarm_and_a_bath_door(x: str, said: bool) -> None:
    assert bool(found(built(BATH.format(x=x)), "alarm-near")) is said
    other = BATH.replace("Bath", "Office")
    assert not found(built(other.format(x=x)), "alarm-near"), "steam comes from baths only"


FIRE = "room Bed 12' x 12'; set smoke 3' x 3'; room Hall 6' x 12' east of Bed; set smoke in Hall 3' x 6'"


@pytest.mark.parametrize(
    ("more", "said"),
    [("", False), ("; mark fireplace east 4'", True), ("; room Garage 12' x 12' east of Hall", True),
     ("; room Shop 12' x 12' east of Hall", False)],
)  # fmt: skip
def test_carbon_monoxide_where_something_burns(more: str, said: bool) -> None:
    job = built(FIRE + more)
    assert bool(found(job, "monoxide")) is said
    if said:
        mended = edited(job, *found(job, "monoxide")[0].mends[0].edits)
        assert not found(mended, "monoxide") and sum(box.monoxide for box in mended.boxes) == 1


@pytest.mark.parametrize(("feet", "said"), [(20, False), (25, False), (27, True)])
def test_a_receptacle_within_25_ft_of_what_is_mended(feet: int, said: bool) -> None:
    job = built(f"room Long 40' x 12'; set equipment north 2' for furnace; set receptacle north {2 + feet}'")
    assert bool(found(job, "service-outlet")) is said


def test_the_wall_to_a_garage_is_told_and_no_other() -> None:
    text = "room Den 12' x 12'; room Garage 20' x 12' east of Den; set receptacle in Den {wall} 17 5/8\""
    assert found(built(text.format(wall="east")), "fire-wall")
    assert not found(built(text.format(wall="north")), "fire-wall")
    assert not found(built(text.format(wall="east").replace("Garage", "Office")), "fire-wall")


@pytest.mark.parametrize(("off", "counts"), [('12"', True), ('18"', True), ('20"', False)])
def test_an_outlet_in_the_floor_counts_within_18_in_of_the_wall(off: str, counts: bool) -> None:
    """The outlet in front of the middle of a wall reaches all of its 12 ft."""
    inches = float(off.rstrip('"'))
    job = built("room Den 12' x 12'")
    item = {"kind": "receptacle", "room": job.rooms[0].id, "x_in": 72.0, "y_in": 144.0 - inches, "height_in": 0.0}
    with_floor = edited(job, {"op": "add", "kind": "box", "item": item})
    before, after = (found(j, "wall-no-receptacle") for j in (job, with_floor))
    assert (before != after) is counts


def kinds(job: Job) -> str:
    lines = {line.label: line.text for room in plan(job).rooms for box in room.boxes for line in box.lines}
    return lines.get("Receptacle of a kind that is", "")


@pytest.mark.parametrize(
    ("text", "kind"),
    [
        ("room Den 12' x 12'; set receptacle north 2'", "tamper-resistant"),
        ("room Den 12' x 12'; set receptacle north 2' at 5'10", ""),
        ("room Den 12' x 12'; set receptacle north 2' for dryer", ""),
        ("room Den 12' x 12'; set receptacle north 2' outside", "tamper-resistant, weather-resistant"),
        ("structure shop Shop; room Bay 12' x 12'; set receptacle north 2'", ""),
        ("structure shop Shop; room Bay 12' x 12'; place wet; set receptacle north 2'", "weather-resistant"),
    ],
)
def test_the_kind_of_receptacle_by_its_place(text: str, kind: str) -> None:
    """406.12: up to 5½ ft in a dwelling, not behind what is moved with effort; 406.9: damp and wet places."""
    assert kinds(built(text, Job(name="One")) if text.startswith("structure") else built(text)) == kind


@pytest.mark.parametrize(("use", "rules", "said"), [("crawl", "us-2023", True), ("hall", "us-2023", False)])
def test_a_light_in_a_crawl_space_is_protected(use: str, rules: str, said: bool) -> None:
    text = (
        f"room Low 12' x 12' as {use}; panel west 4' as P; set light centre as L; circuit in P 1 15a afci as Low: L"
    )
    job = edited(built(text), {"op": "set_job", "set": {"rules": rules}})
    assert bool([item for item in found(job, "gfci-missing") if "L in" in item.text]) is said
