"""Sentences with the small words of speech, and in the order of speech: the same is made as by the shortest ones."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from tests.conftest import built

JOB = built(
    "room Kitchen 12' x 14'; room Den 10' x 10' east of Kitchen; panel Main 200a 30 spaces in Kitchen south 2';"
    "set receptacle north 5' as R-1; set receptacle north 9' as R-2; set switch in Kitchen south 8' as S-1;"
    "set light centre as L-1"
)
KITCHEN, DEN = JOB.rooms
LOOK = Looked(room=KITCHEN.id, level=KITCHEN.level, panel=JOB.panels[0].id)


def made(text: str) -> dict[str, Any]:
    job: Job = said_on(JOB, text, LOOK)[0]
    return job.model_dump()


SAME = {
    "door in the south wall, 3' wide, 2' from the left": "door south 3' at 2'",
    "a door on the south wall of the Den 2'8 at 1'": "door in Den south 2'8 at 1'",
    "window in the east wall 4' wide at 3' sill 30\"": "window east 4' at 3' sill 30\"",
    "window north 3' wide centered": "window north 3'",
    "close the north wall of Den": "close north in Den",
    "mark a sink on the north wall at 3'": "mark sink north at 3'",
    "mark counter north 6' at 1' in Den": "mark counter in Den north 6' at 1'",
    "room bath 5' by 8' west of the kitchen": "room bath 5' x 8' west of Kitchen",
    "set a receptacle on the north wall 4' from the left": "set receptacle north 4'",
    "set receptacle 4' along the north wall": "set receptacle north 4'",
    "set receptacle on the north wall of Den at 4'": "set receptacle in Den north 4'",
    "set outlets every 5' along the north and the south wall": "set receptacle every 5' along north south",
    "set a light in the middle of Den": "set light in Den centre",
    "set ceiling light in the middle": "set light centre",
    "set 3-way switch south 3'": "set three-way south 3'",
    "set 2-gang switch south 3'": "set switch south 3' 2 gangs",
    "set smoke detector in Den centre": "set smoke in Den centre",
    "set outlet for the refrigerator north 2'": "set receptacle north 2' for refrigerator",
    "circuit 1 20 amp gfci for R-1 and R-2 as Counter": "circuit 1 20a gfci as Counter: R-1 R-2",
    "circuit 20a on space 5 R-1, R-2": "circuit 5 20a: R-1 R-2",
    "circuit 5 20a Counter R-1 R-2": "circuit 5 20a Counter: R-1 R-2",
    "circuit Lights 15a 9: S-1 L-1": "circuit 9 15a Lights: S-1 L-1",
    "circuit 5: R-1 > R-2 20a gfci": "circuit 5 20a gfci: R-1 R-2",
}


@pytest.mark.parametrize(("spoken", "short"), SAME.items(), ids=SAME)
def test_the_same_is_made(spoken: str, short: str) -> None:
    assert made(spoken) == made(short)


YARD = built("structure shop Kiln shop at 60' east; structure shed Pump house at 90' east")


@pytest.mark.parametrize(
    ("text", "ends"),
    [
        ("trench from the house to the shop", ["House", "Kiln shop"]),
        ("trench house to Kiln shop", ["House", "Kiln shop"]),
        ("trench house to cabin 40'", ["House", "Cabin"]),  # none is there: it comes to stand at its end
    ],
)
def test_a_building_is_called_by_its_last_word(text: str, ends: list[str]) -> None:
    """A shop that is there is the shop; `house` is House, not Pump house."""
    job = built(text, YARD)
    (trench,) = job.trenches
    assert [job.structure(one or "").name for one in (trench.start, trench.end)] == ends
    buildings = [item for item in job.structures if item.kind != "yard"]
    assert len(buildings) == (4 if "Cabin" in ends else 3)


@pytest.mark.parametrize(
    ("text", "at_in"),
    [
        ("set receptacle north 4' from the right exactly", 144 - 48),
        ("set receptacle north 4' from the right corner exactly", 144 - 48),
        ("door north 3' at 2' from the right", 144 - 24 - 36),
        ("door north 3' at centre", 54),
        ("mark counter north 5' at 1' from the right", 144 - 12 - 60),
    ],
)
def test_a_reading_from_the_right_corner_is_to_the_near_edge(text: str, at_in: float) -> None:
    """The kitchen's north wall is 144 in; an opening and a counter end there, a box is read to its middle."""
    job = said_on(JOB, text, LOOK)[0]
    fresh = [part for kind in ("boxes", "openings", "fixtures") for part in getattr(job, kind)
             if part not in getattr(JOB, kind)]  # fmt: skip
    assert fresh[-1].at_in == at_in


def test_a_name_may_have_an_of_of_its_own() -> None:
    job = said_on(JOB, "set light centre as Lamp of Den", LOOK)[0]
    assert (job.boxes[-1].name, job.boxes[-1].room) == ("Lamp of Den", KITCHEN.id)
    job = said_on(JOB, "set light in the middle of Den as Lamp", LOOK)[0]
    assert (job.boxes[-1].name, job.boxes[-1].room) == ("Lamp", DEN.id)


def test_a_gfci_receptacle_protects_what_is_behind_it() -> None:
    assert made("set a gfci outlet north 3'")["boxes"][-1]["protects"] == "gfci"
    assert made("set an outlet north 3'")["boxes"][-1]["protects"] == ""


def test_a_circuit_without_a_space_takes_the_first_free_one_and_tells_it() -> None:
    job, looked = said_on(JOB, "circuit 20a Counter: R-1 R-2; circuit 30a 240v Dryer", LOOK)
    assert [circuit.space for circuit in job.circuits] == [1, 2]
    asked = "a dual-function breaker, as the places of its boxes ask; say `plain` where it is none"
    free = "on space {} of Main, the first that is free"
    assert looked.told == (free.format(1), asked, free.format(2))
    assert [circuit.protection for circuit in job.circuits] == ["dual", "plain"]
    assert all(box.id in [hop.box for hop in job.circuits[0].chain] for box in job.boxes[:2])


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("set receptacle north wall 30' from the right", "past the north wall, 144 in long"),
        ("set receptacle the wall 4'", "a wall of Kitchen"),
        ("door south 12' at 1' from the right", "past the south wall"),
        ("door south 3' 6'8", "say .at. before its place"),  # a height without its x is no place
        ("circuit 5 20a Counter: R-1 R-9", "a box by its name"),
        ("circuit 5 20a: R-1 R-1", "a box by its name"),
        ("set light in the", "a room by its name"),
    ],
)
def test_what_is_not_there_is_refused(text: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        made(text)


WORKSHOP = built("room Workshop 16' x 12'")


@pytest.mark.parametrize(
    ("where", "side", "at_in"),
    [
        ("on the north wall 4'", 0, 48.0), ("on the north wall of Workshop, 4' from the left", 0, 48.0),
        ("north wall 4' from the right", 0, 144.0), ("in Workshop on the east wall 3'", 1, 36.0),
        ("along the west wall 3' of Workshop at 5'", 3, 36.0), ("on the south wall, in the middle", 2, 96.0),
        ("in Workshop north", 0, 96.0), ("on the east wall", 1, 72.0),
    ],
)  # fmt: skip
def test_a_panel_stands_on_a_wall_as_it_is_spoken(where: str, side: int, at_in: float) -> None:
    room = WORKSHOP.rooms[0].id
    for text in (f"panel H 200a 30 spaces {where}", f"panel H {where} 200a 30 spaces"):
        job, look = said_on(WORKSHOP, text, Looked(room=room), "room")
        (panel,) = job.panels
        assert (panel.name, panel.room, panel.side, panel.at_in) == ("H", room, side, at_in), text
        assert (panel.main_a, panel.spaces) == (200, 30)
        unsaid = where in ("in Workshop north", "on the east wall")
        assert any("middle" in told for told in look.told) is unsaid, "a place that nobody said is told"


def test_a_panel_in_a_drawn_room_stands_where_that_is_free_and_in_words_is_in_none() -> None:
    job, look = said_on(WORKSHOP, "panel H 200a in Workshop", Looked())
    (panel,) = job.panels
    assert panel.room is not None and any("it stands" in told for told in look.told)
    with pytest.raises(TextError, match="past the north wall"):
        built("panel H 200a on the north wall of Workshop 44'", WORKSHOP)
    (panel,) = built("panel H 200a at the garage wall", WORKSHOP).panels
    assert panel.room is None and panel.where == "garage wall"
