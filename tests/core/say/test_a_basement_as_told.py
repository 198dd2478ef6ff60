"""A basement that is finished, room by room as it is told; and a deck at a side of a house."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import TextError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import built

BASEMENT = """existing house
basement 24x30
family room 14x24 in the basement
bedroom 10x12 in the basement east of family room
bathroom 10x6 in the basement north of bedroom
laundry 10x8 in the basement north of bathroom
panel H 200a 40 spaces taken 1-24 on the east wall of the laundry
stairs on the west wall of the family room
door between family room and bedroom
door between family room and bathroom
door between family room and laundry
egress window on the east wall of the bedroom
family room: outlets to code, 8 can lights in two rows, dimmer at the bottom of the stairs
bedroom: outlets to code, light, switch by the door, smoke alarm
bathroom: vanity on the east wall, shower on the north wall, gfci by the vanity, fan over the shower
bathroom: light over the mirror, 2 switches by the door
laundry: washer and dryer on the north wall, sink on the west wall, outlet by the sink, light, switch by the door
family room circuit 20a
bedroom circuit 15a
bathroom circuit 20a
laundry circuit 20a
dryer circuit 30a
lights circuit 15a
co alarm in the family room"""


def test_a_basement_without_a_stop() -> None:
    job = read_text(BASEMENT)
    rooms = {room.name: room.id for room in job.rooms}
    circuits = {c.name: c for c in job.circuits}
    assert {name: c.breaker_a for name, c in circuits.items()} == {
        "Family room": 20, "Bedroom": 15, "Bathroom": 20, "Laundry": 20, "Dryer": 30, "Lights": 15,
    }  # fmt: skip
    assert all(c.space is not None and c.space > 24 for c in job.circuits)
    assert not [item.title for item in plan(job).findings if item.severity == "stop"]
    (dimmer,) = [box for box in job.boxes if box.kind == "switch" and box.room == rooms["Family room"]]
    (stairs,) = [item for item in job.fixtures if item.kind == "stairs"]
    off = min(abs((dimmer.at_in or 0) - at) for at in (stairs.at_in, stairs.at_in + stairs.width_in))
    assert dimmer.side == stairs.side and off <= 16
    (alarm,) = [box for box in job.boxes if box.kind == "smoke" and box.room == rooms["Family room"]]
    assert alarm.monoxide
    laundry = {box.id: box for box in job.boxes if box.room == rooms["Laundry"]}
    assert {laundry[hop.box].kind for hop in circuits["Laundry"].chain} == {"receptacle"}  # 210.11(C)(2)


def test_beside_stairs_that_are_not_drawn_is_asked() -> None:
    job = built("room Den 12x12")
    with pytest.raises(TextError, match="is no stairs"):
        said_on(job, "switch at the bottom of the stairs", Looked(room=job.rooms[0].id))


HOUSE = built("room Kitchen 12x12\nroom Hall 8x12 east of Kitchen")  # 144 + 3.5 + 96 wide, 144 deep


@pytest.mark.parametrize(
    ("side", "corner"),
    [("north", (25.75, 147.5)), ("south", (25.75, -147.5)), ("east", (247.0, 0.0)), ("west", (-195.5, 0.0))],
)
def test_a_deck_at_a_side_of_the_house(side: str, corner: tuple[float, float]) -> None:
    job, _ = said_on(HOUSE, f"deck 16x12 on the {side} side of the house", Looked())
    deck = job.rooms[-1]
    assert (min(x for x, _ in deck.corners), min(y for _, y in deck.corners)) == pytest.approx(corner)
    assert said_on(HOUSE, f"deck 16x12 {side} of the house", Looked())[0] == job
    assert deck.use == "porch" and deck.level == HOUSE.rooms[0].level


def test_a_panel_by_a_door_of_its_wall() -> None:
    shop: Job = built("room Shop 24x30 as shop\nman door south 3' at 3'\ngarage door south 9' at 10'")
    job, _ = said_on(
        shop, "panel B 60a 12 spaces on the south wall next to the man door", Looked(room=shop.rooms[0].id)
    )
    assert job.panels[0].side == shop.openings[0].side and 6 * 12 < (job.panels[0].at_in or 0) < 10 * 12
    with pytest.raises(TextError, match="no such doors"):
        said_on(shop, "panel B 60a on the north wall by the door", Looked(room=shop.rooms[0].id))
