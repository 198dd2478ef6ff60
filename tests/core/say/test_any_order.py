"""The parts of a sentence stand in any order: whatever is said first, the same thing is made."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Job, Panel
from tests.conftest import built

KITCHEN = built("room Kitchen 12' x 14'; room Den 10' x 10'; panel Main 200a 30 spaces in Kitchen south 2'")
LOOKED = {"room": KITCHEN.rooms[0].id, "panel": KITCHEN.panels[0].id}


def last(job: Job, kind: str) -> dict[str, Any]:
    part: Panel | Box | Circuit = getattr(job, kind)[-1]
    return part.model_dump(exclude={"id"})


PARTS: dict[str, tuple[str, str, list[str]]] = {
    "a panel on a wall": (
        "panels", "panel Sub", ["100a", "12 spaces", "taken 1 3-5", "in Kitchen east 3'", "at 54\"", "bonded"],
    ),
    "a panel with lugs": ("panels", "panel", ["as Barn", "main lugs", "8 spaces", "north 2'", "sub"]),
    "a panel in words": ("panels", "panel GP", ["60a", "8 spaces", "2 free", "in shop", "at west wall", "taken 2"]),
    "a circuit": ("circuits", "circuit", ["18", "20a", "gfci", "wire 10", "load 12a", 'as "Counter"']),
    "two poles": ("circuits", "circuit in Main", ["20/22", "30a", "240v", "mca 22.5", "no neutral", 'as "Pump"']),
    "a box": ("boxes", "set receptacle", ["north 5'6", "in Den", "2 gangs", "height 44\"", "for counter", "as Left"]),
}  # fmt: skip


@pytest.mark.parametrize("kind, head, parts", PARTS.values(), ids=list(PARTS))
@given(data=st.data())
def test_the_same_is_made(kind: str, head: str, parts: list[str], data: st.DataObject) -> None:
    turned = data.draw(st.permutations(parts))
    made = built(" ".join([head, *turned]), KITCHEN, **LOOKED)
    assert last(made, kind) == last(built(" ".join([head, *parts]), KITCHEN, **LOOKED), kind)


def test_main_and_sub_are_names_where_they_stand_first() -> None:
    job = built("panel Main 150a; panel Sub main lugs sub", Job(name="Two"))
    main, sub = job.panels
    assert (main.name, main.main_a, sub.name, sub.main_a, sub.bonded) == ("Main", 150, "Sub", None, False)


@pytest.mark.parametrize(
    ("text", "name", "side", "at_in"),
    [
        ("set receptacle Den west 4'", "Den", 3, 48),
        ("set receptacle in Den west 4'", "Den", 3, 48),
        ("set receptacle west 4'", "Kitchen", 3, 48),
        ("set receptacle at west 4' at 18\"", "Kitchen", 3, 48),
    ],
)
def test_a_box_goes_to_the_room_that_is_said(text: str, name: str, side: int, at_in: float) -> None:
    box = built(text + " exactly", KITCHEN, **LOOKED).boxes[-1]
    room = next(room for room in KITCHEN.rooms if room.id == box.room)
    assert (room.name, box.side, box.at_in) == (name, side, at_in)


def test_a_room_that_is_said_after_its_wall_is_the_one() -> None:
    """Its own wall is measured, 10 ft long, not that of the room looked at, 12 ft."""
    panel = built("panel Sub 60a north 9' in Den", KITCHEN, **LOOKED).panels[-1]
    assert (panel.room, panel.at_in) == (KITCHEN.rooms[1].id, 108)
    assert built("panel Sub 60a north 4'6 in Den", KITCHEN, **LOOKED).panels[-1].at_in == 54
    with pytest.raises(TextError, match="past the north wall, 120 in long"):
        built("panel Sub 60a north 11' in Den", KITCHEN, **LOOKED)


def test_a_panel_of_nearly_the_same_name_is_told() -> None:
    two = built('panel "Panel Studio" 60a in Den north 2\'', KITCHEN, **LOOKED)
    look = Looked(room=two.rooms[1].id)
    assert said_on(two, "panel Studio 60a 8 spaces north 6'", look)[1].told == (
        "Panel Studio stays as it is; Studio is a second panel",
    )
    assert said_on(two, "panel Stud 60a 8 spaces north 6'", look)[1].told == ()


STUDIO = built("panel H 200a\nfrom H 70' trench 18\" deep in 1 inch pvc to a studio 60a")


def test_a_room_is_drawn_in_the_building_of_its_name_and_its_panel_goes_on_a_wall() -> None:
    """The feeder has made the building and its panel; looked at is the house."""
    house, studio = STUDIO.structures
    looked = Looked(level=house.levels[0].id)
    drawn, after = said_on(STUDIO, "room Studio 14' x 10'; panel Studio south 2' 8 spaces", looked)
    room = drawn.rooms[0]
    assert (
        room.level == studio.levels[0].id and after.told[0] == "Studio is drawn in the building of its name, Studio"
    )
    panel = drawn.panels[1]
    assert (panel.id, panel.name, panel.room) == (STUDIO.panels[1].id, "Panel Studio", room.id)
    assert (panel.spaces, panel.main_a) == (8, 60) and len(drawn.panels) == 2
    assert drawn.circuits == STUDIO.circuits


@pytest.mark.parametrize(
    ("text", "building"),
    [
        ("room Den 14' x 10'", "House"),
        ("room Den 14' x 10' in Studio", "Studio"),
        ("room Studio 14' x 10' in House", "House"),
        ("room Studio 14' x 10'; room Bath 5' x 8' east of Studio", "Studio"),
    ],
)
def test_a_room_goes_where_it_is_said_to(text: str, building: str) -> None:
    job, _ = said_on(STUDIO, text, Looked(level=STUDIO.structures[0].levels[0].id))
    assert {job.structure_of(room.level).name for room in job.rooms} == {building}


def test_a_room_beside_another_is_on_its_level_whatever_is_looked_at() -> None:
    job, _ = said_on(STUDIO, "room Den 14' x 10'", Looked(level=STUDIO.structures[0].levels[0].id))
    job, _ = said_on(job, "room Hall 5' x 10' east of Den", Looked(level=STUDIO.structures[1].levels[0].id))
    assert {room.level for room in job.rooms} == {STUDIO.structures[0].levels[0].id}


@pytest.mark.parametrize(
    ("text", "at", "told"),
    [
        ("panel Sub 100a in Kitchen north 40'", None, "past the north wall"),
        ("panel Sub 100a north 2' at north wall", None, "it stands on the north wall"),
        ("panel Sub 12 spaces north 2' taken 14", None, "space 14 is past the 12 spaces of Sub"),
        ("panel 100a north 4", 18, "has no unit"),
        ("panel Sub north 2' grey", 19, "amperes, spaces, taken or where it stands"),
        ("panel in Folly 3 100a", 9, "a building"),
        ("panel Sub 60a north 2' in shop", None, "no drawn room and has no north wall"),
        ("circuit", 7, "a space of the panel"),
        ("circuit 20a R-9", 12, "a box by its name"),
        ("circuit 20a 18 19", 15, "a word of the circuit"),
        ("circuit 14 20a gfi Kitchen", 15, "gfci"),
        ("set receptacle west 4' in Den in Kitchen", 33, "it is in Den already"),
        ("set receptacle west 11' in Den as Lamp", None, "past the west wall of Den"),
        ("panel main 60a north 9'", None, "there is a panel Main already"),
        ("set receptacle Dem west 4'", 15, "a wall of Kitchen"),
    ],
)
def test_what_is_wrong_is_pointed_at(text: str, at: int | None, told: str) -> None:
    with pytest.raises(TextError, match=told) as refused:
        built(text, KITCHEN, **LOOKED)
    assert at is None or refused.value.at == at
