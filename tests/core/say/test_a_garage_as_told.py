"""A detached garage from its doors to its feeder, as it is told line after line, with its numbers by hand."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import built

GARAGE = """panel H 200a 40 spaces taken 1-26
detached garage 22x24
two 9' doors on the south wall
man door on the east wall
two windows on the north wall
sub panel G 60a 12 spaces inside next to the man door
outlets every 6' along the walls at 48"
four 4 ft led strips in two rows
lights over the garage doors
light over the man door
switch by the man door for the lights, switch by the man door for the outside lights
opener outlet on the ceiling for each garage door
14-50 for the charger on the west wall
outlet outside by the man door
garage circuit 20a
lights circuit 15a
ev charger circuit 50a
from H 12' basement, then through the wall, 65' in a trench 18" deep in 1-1/4 pvc, up 4' outside wall in pvc80 to G
wire everything"""


def test_a_garage_is_wired_from_its_own_panel_and_fed_in_one_pipe() -> None:
    job = read_text(GARAGE)
    panels = {panel.id: panel.name for panel in job.panels}
    circuits = {c.name: c for c in job.circuits}
    assert {name: panels[c.panel] for name, c in circuits.items()} == {
        "Garage": "G", "Lights": "G", "Vehicle charging": "G", "G feeder": "H",
    }  # fmt: skip
    wired = [hop.box for c in job.circuits for hop in c.chain]
    assert len(wired) == len(set(wired)) and {box.id for box in job.boxes} <= {*wired}
    (feeder,) = [way for way in job.ways if way.legs and way.legs[0].place == "basement"]
    assert [leg.size for leg in feeder.legs] == ["1-1/4"] * 4  # one pipe, of the size that was said of the trench
    assert sum(leg.length_in for leg in feeder.legs) == (12 + 65 + 4) * 12 + 8
    planned = plan(job)
    assert not [item.title for item in planned.findings if item.severity == "stop"]
    # 50 A on No. 6 in cable (60 C: 55 A); the feeder's 60 A on No. 6 as the next size up of 55 (240.4(B))
    assert circuits["Vehicle charging"].wire_size == circuits["G feeder"].wire_size == "6"


def test_openers_hang_as_far_in_as_is_the_habit() -> None:
    job = read_text("\n".join(GARAGE.splitlines()[:12]))
    openers = [box for box in job.boxes if box.serves == "opener"]
    assert sorted((box.x_in, box.y_in) for box in openers) == [(66.0, 132.0), (198.0, 132.0)]
    assert "opener-near" not in {item.code for item in plan(job).findings}


SHOP = built("room Shop 24x30 as shop\ntwo 9' doors on the south wall\nman door on the east wall")


@pytest.mark.parametrize(
    ("text", "side"),
    [
        ("panel G 60a 12 spaces next to the man door", 1),
        ("panel G 60a 12 spaces just inside the east door", 1),
        ("60 amp sub panel G by the door", 1),
    ],
)
def test_a_panel_is_set_by_the_door_that_people_go_by(text: str, side: int) -> None:
    job, _ = said_on(SHOP, text, Looked(room=SHOP.rooms[0].id))
    (panel,), (door,) = job.panels, [item for item in job.openings if item.kind == "door"]
    assert panel.side == door.side == side
    assert not door.at_in - 7 < (panel.at_in or 0) < door.at_in + door.width_in + 7
    with pytest.raises(TextError, match="2 such doors: say which"):
        said_on(SHOP, "panel G 60a 12 spaces next to the garage door", Looked(room=SHOP.rooms[0].id))


@pytest.mark.parametrize("works", ["the light and the fan", "the outside lights", "both", "the shop lights and fan"])
def test_a_switch_for_lights_of_its_room(works: str) -> None:
    job, _ = said_on(SHOP, f"switch by the man door for {works}", Looked(room=SHOP.rooms[0].id))
    assert [box.kind for box in job.boxes] == ["switch"]
    with pytest.raises(TextError):
        said_on(SHOP, "switch by the man door for the dust", Looked(room=SHOP.rooms[0].id))


def test_an_opener_hangs_before_the_only_garage_door() -> None:
    """Nobody says where: 11 ft in from the door, in its middle (common practice, no source)."""
    job = read_text("garage 24x24\n16' overhead door on the south wall\nopener")
    (box,) = job.boxes
    assert (box.serves, box.side, box.x_in, box.y_in) == ("opener", None, 144, 132)
    with pytest.raises(LevelRunError, match="2 such doors: say which, or `each`"):
        read_text("garage 24x24\ntwo 9' overhead doors on the south wall\nopener")
