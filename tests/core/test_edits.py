"""Edits: all or none, refused at the field."""

from typing import Any

import pytest
from pydantic import ValidationError

from levelrun.core.errors import LevelRunError
from tests.conftest import edited, one_way

WALK = "down 4' stud wall in 12-2; over 10' crawl to J-1"


def test_to_an_unknown_name_makes_a_box_at_the_height_reached() -> None:
    job = one_way(WALK)
    box = job.boxes[-1]
    assert (box.name, box.structure, box.height_in) == ("J-1", "h", 0)
    assert job.ways[0].legs[1].end.node == box.id
    again = edited(job, {"op": "end_leg", "way": "w", "leg": 0, "to": "j-1"})
    assert len(again.boxes) == len(job.boxes)


def test_what_is_not_said_is_as_on_the_leg_before() -> None:
    leg = one_way(WALK).ways[0].legs[1]
    assert (leg.method, leg.size) == ("NM-B", "12-2")


def test_legs_go_in_before_and_come_out() -> None:
    job = edited(one_way(WALK), {"op": "walk", "way": "w", "text": "left 2'", "at": 1})
    assert [leg.go for leg in job.ways[0].legs] == ["down", "left", "over"]
    assert len(edited(job, {"op": "drop_leg", "way": "w", "leg": 1}).ways[0].legs) == 2


@pytest.mark.parametrize(
    ("edit", "key"),
    [
        ({"op": "set_leg", "way": "w", "leg": 0, "set": {"length_in": -1}}, "set.length_in"),
        ({"op": "set_leg", "way": "w", "leg": 0, "set": {"length_in": float("nan")}}, "set.length_in"),
        ({"op": "set_leg", "way": "w", "leg": 0, "set": {"length_in": True}}, "set.length_in"),
        ({"op": "set_leg", "way": "w", "leg": 0, "set": {"colour": "red"}}, "set.colour"),
        ({"op": "set_leg", "way": "w", "leg": 9, "set": {}}, "leg"),
        ({"op": "set_leg", "way": "nobody", "leg": 0, "set": {}}, "way"),
        ({"op": "set", "kind": "way", "id": "w", "set": {"start": "nowhere"}}, "job"),
        ({"op": "set", "kind": "way", "id": "w", "set": {"breaker_a": 0}}, "set.breaker_a"),
        ({"op": "drop", "kind": "panel", "id": "p"}, "id"),
        ({"op": "drop", "kind": "structure", "id": "h"}, "id"),
        ({"op": "add", "kind": "box", "item": {"id": "x", "name": "c-1", "structure": "h"}}, "job"),
        ({"op": "add", "kind": "box", "item": {"id": "x", "name": "a\u0000b", "structure": "h"}}, "item.name"),
        ({"op": "set_job", "set": {"format": "other"}}, "set.format"),
        ({"op": "walk", "way": "w", "text": "over 4' trnch"}, "text"),
    ],
    ids=lambda v: v.get("op", "") if isinstance(v, dict) else v,
)
def test_a_bad_edit_names_its_field(edit: dict[str, Any], key: str) -> None:
    with pytest.raises(LevelRunError) as refused:
        edited(one_way(WALK), edit)
    assert refused.value.key == key


def test_an_unknown_op_is_no_edit() -> None:
    with pytest.raises(ValidationError):
        edited(one_way(""), {"op": "burn"})
