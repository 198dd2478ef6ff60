"""Buildings, rooms, doors and what stands along walls, as they are said: each place by hand."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text
from tests.conftest import built

# Kitchen 12' by 14', Den east of it; faced from inside, the left corner of a north wall is its west one.
HOME = built("room Kitchen 12' x 14'; room Den 10' x 10' east of Kitchen; room Dining room 12' x 9' north of Kitchen")
KITCHEN, DEN, DINING = HOME.rooms


def said(text: str, job: Job = HOME, room: str = KITCHEN.id) -> Job:
    return said_on(job, text, Looked(room=room, level=KITCHEN.level))[0]


@pytest.mark.parametrize(
    ("text", "kind", "name", "levels"),
    [
        ("house", "house", "House", ["floor"]),
        ("a cabin with a loft and a crawl space", "cabin", "Cabin", ["crawl", "floor", "loft"]),
        ('shed "Pump house"', "shed", "Pump house", ["floor"]),
        ("structure garage", "shop", "Garage", ["floor"]),
        ("add a detached garage called Barn", "shop", "Barn", ["floor"]),
        ("existing house", "house", "House", ["floor"]),
        ("house Old House existing", "house", "Old House", ["floor"]),
        ("house; House has a basement", "house", "House", ["basement", "floor"]),
        ('house; crawl space under House, 32" high', "house", "House", ["crawl", "floor"]),
    ],
)
def test_a_building_by_its_kind(text: str, kind: str, name: str, levels: list[str]) -> None:
    building = read_text("\n".join(text.split("; "))).structures[0]
    assert (building.kind, building.name) == (kind, name)
    assert [level.kind for level in building.levels] == levels
    assert building.existing == ("existing" in text)


@pytest.mark.parametrize(
    ("text", "room", "use"),
    [
        ("shop 24' x 30'", "Shop", "shop"),
        ("a 22' x 24' garage", "Garage", "garage"),
        ("cabin Bunk 16' x 20'", "Bunk", "bedroom"),
        ("structure shed 8' x 10' existing", "Shed", "storage"),
    ],
)
def test_a_building_of_a_size_is_one_room(text: str, room: str, use: str) -> None:
    job = read_text(text)
    assert [(item.name, item.use) for item in job.rooms] == [(room, use)]
    assert len(job.structures) == 1


def test_its_rooms_take_the_place_of_the_one_room() -> None:
    job = read_text("cabin 16' x 20'\nroom Great 16' x 14' in Cabin\nroom Bath 8' x 6' north of Great")
    assert [room.name for room in job.rooms] == ["Great", "Bath"]
    kept = read_text("cabin 16' x 20'\nreceptacle north 5'\nroom Bath 8' x 6' north of Cabin")
    assert [room.name for room in kept.rooms] == ["Cabin", "Bath"]  # something stands in it: it stays


@pytest.mark.parametrize(
    ("line", "buildings", "rooms"),
    [
        ("garage 22' x 22'", ["House"], ["Garage"]),
        ("a 12' x 14' workshop", ["House"], ["Workshop"]),
        ("detached garage 22' x 22'", ["House", "Garage"], ["Garage"]),
        ("a new 22' x 22' garage", ["House", "Garage"], ["Garage"]),
        ("garage Barn 22' x 22'", ["House", "Barn"], ["Barn"]),
        ("shed 8' x 10'", ["House", "Shed"], ["Shed"]),
    ],
)
def test_a_garage_is_a_room_of_the_house_unless_it_is_said_to_stand_apart(
    line: str, buildings: list[str], rooms: list[str]
) -> None:
    job = read_text(f"house\n{line}")
    assert [item.name for item in job.structures] == buildings
    assert [room.name for room in job.rooms] == rooms
    there = read_text(f"house House existing\n{line}")  # a house that is not this job's work takes no room
    assert len(there.structures) == 2


def test_a_room_where_rooms_are_drawn_is_no_building() -> None:
    """On Walls the stage's own verb is `room`: where a house stands, `shop 24' x 30'` is a room of it."""
    job = said_on(HOME, "shop 24' x 30'", Looked(level=KITCHEN.level), "room")[0]
    assert len(job.structures) == 1 and job.rooms[-1].name == "Shop"


@pytest.mark.parametrize(
    ("name", "use"),
    [
        ("Bathroom", "bath"), ("Master bath", "bath"), ("Powder room", "bath"), ("Hall closet", "closet"),
        ("Hallway", "hall"), ("Foyer", "hall"), ("Laundry room", "laundry"), ("Mudroom", "laundry"),
        ("Bed 2", "bedroom"), ("Nursery", "bedroom"), ("Garage bath", "bath"), ("Patio", "porch"),
        ("Kitchenette", "kitchen"), ("Breakfast nook", "dining"), ("Cellar", "basement"), ("Snug", "common"),
    ],
)  # fmt: skip
def test_a_room_is_for_what_the_last_word_of_its_name_says(name: str, use: str) -> None:
    assert said(f"room {name} 8' x 9'").rooms[-1].use == use


@pytest.mark.parametrize(
    "text", ["laundry room 8' x 10'", "a master bath 8' x 10'", "bedroom 2 8' x 10'", "the rec room 8' x 10'"]
)
def test_a_room_by_its_name_and_size(text: str) -> None:
    room = said(text).rooms[-1]
    assert room.name.lower() in text and max(x for x, _ in room.corners) - min(x for x, _ in room.corners) == 96


@pytest.mark.parametrize("text", ["rom Bed 12' x 12'", "window north 5' x 4' at", "snug 8' x 10'", "counter 8' x 2'"])
def test_words_that_are_no_room_become_no_room(text: str) -> None:
    with pytest.raises(LevelRunError):
        said(text)


def test_a_room_in_the_basement() -> None:
    job = said("room Den 2 20' x 14' in the basement")
    level = next(item for item in job.structures[0].levels if item.kind == "basement")
    assert job.rooms[-1].level == level.id
    again = said("room Store 8' x 8' in the basement", job)
    assert [item.kind for item in again.structures[0].levels].count("basement") == 1


def test_a_room_of_another_size_moves_two_walls() -> None:
    job = said("Kitchen is 15' x 13'")
    xs, ys = ([corner[axis] for corner in job.rooms[0].corners] for axis in (0, 1))
    assert (max(xs) - min(xs), max(ys) - min(ys)) == (180.0, 156.0)
    east = min(x for x, _ in job.rooms[1].corners)
    assert east == 180 + 3.5  # the other face of the wall went along
    with pytest.raises(LevelRunError, match="so large already"):
        said("make Kitchen 12' x 14'")


@pytest.mark.parametrize(
    ("text", "side", "at", "wide", "kind"),
    [
        ("door south 36\" wide at 4'", 2, 48.0, 36.0, "door"),
        ("door south at 4' 36\" wide", 2, 48.0, 36.0, "door"),
        ("door south 4' 36\" wide", 2, 48.0, 36.0, "door"),
        ("walk door east 3' at 2' from the south corner", 1, 168.0 - 24 - 36, 36.0, "door"),
        ("back door on the west wall 3', 2' from the south corner", 3, 24.0, 36.0, "door"),
        ("overhead door north 9' centered", 0, (144 - 108) / 2, 108.0, "garage_door"),
        ("patio door south 6' 1' from the east end", 2, 12.0, 72.0, "glass_door"),
        ('door between Kitchen and Dining 32"', 0, (144 - 32) / 2, 32.0, "door"),
        ('door between Kitchen and Den 32"', 1, 48 + (120 - 32) / 2, 32.0, "door"),
        ("doorway between Kitchen and Den 4' at 5'", 1, 60.0, 48.0, "opening"),
    ],
)
def test_an_opening_as_it_is_said(text: str, side: int, at: float, wide: float, kind: str) -> None:
    """Facing east the left corner is the north one, facing west the south one, facing south the east one. Kitchen and
    Den share the southern ten feet of the east wall of fourteen: 48 to 168 from its north corner."""
    item = said(text).openings[-1]
    assert (item.side, item.at_in, item.width_in, item.kind) == (side, at, wide, kind)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ('door south 30" 36"', "say `at` before its place"),
        ("garage door south at 4'", "how wide it is"),
        ("door north 3' at 2' from the north corner", "the north wall has no north corner"),
        ("door between Den and Dining 3'", "share no wall"),
        ("the east wall is outside, insulated", "Den stands behind the east wall"),
        ("vanity under the window", "has no such window"),
        ("dishwasher next to the sink", "no such thing is marked in Kitchen"),
        ("tub on the north wall 10' from the west corner", "the north wall is 144 in"),
    ],
)
def test_what_cannot_be_is_told(text: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        said(text)


@pytest.mark.parametrize(
    ("text", "kind", "side", "at", "wide"),
    [
        ("counters along the south wall", "counter", 2, 0.0, 144.0),
        ("countertop on the west wall 6' long at 2'", "counter", 3, 24.0, 72.0),
        ("fridge on the east wall at 10'", "refrigerator", 1, 120.0, 36.0),
        ("vanity 30\" wide on the west wall, 1' from the south corner", "basin", 3, 12.0, 30.0),
        ("stove north 3' from the east corner", "range", 0, 144.0 - 36 - 30, 30.0),
        ("a bathtub along the north wall", "tub", 0, (144 - 60) / 2, 60.0),
        ("mark stove north at 2'", "range", 0, 24.0, 30.0),
    ],
)
def test_what_stands_along_a_wall(text: str, kind: str, side: int, at: float, wide: float) -> None:
    item = said(text).fixtures[-1]
    assert (item.kind, item.side, item.at_in, item.width_in) == (kind, side, at, wide)


def test_counters_along_two_walls_and_what_stands_beside_another_thing() -> None:
    job = said("window south 4' centered; counters along the south wall and the west wall; sink under the window")
    assert [(item.kind, item.side) for item in job.fixtures] == [("counter", 2), ("counter", 3), ("sink", 2)]
    assert job.fixtures[2].at_in == (144 - 30) / 2
    right = said("dishwasher next to the sink", job).fixtures[-1]
    left = said("dishwasher beside the sink on the left", job).fixtures[-1]
    assert (right.at_in, left.at_in) == ((144 + 30) / 2, (144 - 30) / 2 - 24)


@pytest.mark.parametrize("text", ["range outlet north 3'", "the kitchen is damp", "dishwasher outlet south 4'"])
def test_what_is_said_of_an_outlet_marks_nothing(text: str) -> None:
    assert not said(text).fixtures


@pytest.mark.parametrize(
    ("text", "stud"), [("concrete walls", "block"), ("2x6 walls", "2x6"), ("steel studs", "metal")]
)
def test_walls_by_what_they_are(text: str, stud: str) -> None:
    assert {side.stud for side in said(text).rooms[0].sides} == {stud}


def test_a_wall_that_is_closed_and_more_is_framed_so() -> None:
    job = said("the south wall is outside, closed, insulated")
    side = job.rooms[0].sides[2]
    assert (side.closed, side.insulation) == (True, "batts")


@pytest.mark.parametrize(
    ("text", "kind", "side", "at", "wide", "head"),
    [
        ("door south 4' 36\"", "door", "south", 48, 36, 82),
        ("door south 30\" 5'", "door", "south", 60, 30, 82),
        ("door south 8' wide 32\"", "door", "south", 96, 32, 82),
        ("door south 32\" wide 6'8 tall at 2'", "door", "south", 24, 32, 80),
        ("window north 4' to 7' sill 42\"", "window", "north", 48, 36, 88),
        ("window west from 3' to 6'6", "window", "west", 36, 42, 82),
        ("overhead door east 10' wide", "garage_door", "east", 24, 120, 82),
        ("door south 2' 30\"", "door", "south", 24, 30, 82),
    ],
)
def test_place_and_width_of_an_opening(text: str, kind: str, side: str, at: float, wide: float, head: float) -> None:
    """Of two lengths what can only be the width of a door is; a span is both."""
    found = said(text).openings[-1]
    walls = {"north": 0, "east": 1, "south": 2, "west": 3}
    assert (found.kind, found.side, found.at_in) == (kind, walls[side], at)
    assert (found.width_in, found.head_in) == (wide, head)


@pytest.mark.parametrize(
    "text", ["door south 3' 6'8", 'door south 30" 36"', "window north 3' 4'", "window north 7' to 4'"]
)
def test_two_lengths_that_could_be_either_are_asked(text: str) -> None:
    with pytest.raises(LevelRunError):
        said(text)


@pytest.mark.parametrize(
    ("text", "kind", "side", "at", "wide"),
    [
        ("range east 5'", "range", 1, 60, 30),
        ("toilet south 2'", "toilet", 2, 24, 20),
        ("sink east 4'", "sink", 1, 48, 30),
        ("vanity south 4' to 8'", "basin", 2, 48, 48),
        ("refrigerator at the west end of the north counter", "refrigerator", 0, 0, 36),
        ("refrigerator at the east end of the north wall", "refrigerator", 0, 108, 36),
        ("dishwasher to the left of the sink", "dishwasher", 3, 36, 24),
        ("dishwasher right of the sink", "dishwasher", 3, 90, 24),
    ],
)
def test_a_thing_by_its_place_alone_a_span_or_what_it_is_beside(
    text: str, kind: str, side: int, at: float, wide: float
) -> None:
    """Kitchen is 12' by 14'; the sink stands on its west wall, 5' to 7'6 from the left."""
    found = said(text, said("sink west 5' to 7'6")).fixtures[-1]
    assert (found.kind, found.side, found.at_in, found.width_in) == (kind, side, at, wide)


@pytest.mark.parametrize(
    "text",
    [
        "tub north 5'",
        "vanity west 3'",
        'range east 30"',
        "counter north 8'",
        "vanity south 8' to 4'",
        "tub north 9' to 13'",
    ],
)
def test_what_could_be_its_width_or_does_not_fit_is_asked(text: str) -> None:
    with pytest.raises(LevelRunError):
        said(text)


def test_a_building_stands_where_it_is_said_to_stand() -> None:
    """A house of 24' by 30' and a barn of 30' by 40' 80' north of it: their middles in a line, 144 - 180 and
    360 + 960 inches."""
    job = read_text("house 24' x 30'\nbarn 30' x 40', 80' north of the house\nshed 8' x 10' 20' east of the house")
    barn, shed = job.structures[1:]
    assert (barn.x_in, barn.y_in) == (144 - 180, 360 + 960)
    assert (shed.x_in, shed.y_in) == (288 + 240, 180 - 60)
    assert barn.name == "Barn"


def test_a_garage_that_stands_off_the_house_is_a_building() -> None:
    """Beside a house that is drawn or not; without how far it is a room of it, as said before."""
    text = "panel M 200a 40 spaces\ngarage 24' x 24'{}, 2x4 studs 16 oc"
    apart = read_text(text.format(", 40' east of the house"))
    assert [item.name for item in apart.structures] == ["House", "Garage"]
    assert apart.structures[1].x_in == 144 + 480  # a house that is not drawn is taken to be 12 ft wide
    assert {side.spacing_in for side in apart.rooms[0].sides} == {16.0}
    assert len(read_text("panel M 200a 40 spaces\ngarage 24' x 24'").structures) == 1


def test_a_basement_is_under_the_house() -> None:
    for text in ("basement 24' x 30' under the house", "house\nbasement 24' x 30'", "basement 24' x 30'"):
        job = read_text(text)
        (room,) = job.rooms
        levels = {level.id: level.kind for item in job.structures for level in item.levels}
        assert (levels[room.level], room.use, len(job.structures)) == ("basement", "basement", 1)


def test_what_its_walls_are_of_is_no_name() -> None:
    job = read_text("shop 24' x 36', block walls\ncabin 16' x 20' with a sleeping loft, 2x6 studs at 24\" oc")
    assert [item.name for item in job.structures] == ["Shop", "Cabin"]
    assert {side.stud for side in job.rooms[0].sides} == {"block"}
    assert {(side.stud, side.spacing_in) for side in job.rooms[1].sides} == {("2x6", 24.0)}
    assert [level.kind for level in job.structures[1].levels] == ["floor", "loft"]


@pytest.mark.parametrize(
    "text", ["house 1965", "house 1920s", "house, built in 1958", "old house", "house 24' x 30' old work"]
)
def test_a_house_of_a_year_that_is_past_stands_there(text: str) -> None:
    assert read_text(text).structures[0].existing


@pytest.mark.parametrize(
    ("text", "word"),
    [("house with green shutters", "green"), ("shop 2x6 studs", "say its size first")],
)
def test_a_word_that_is_not_known_is_no_name(text: str, word: str) -> None:
    with pytest.raises(LevelRunError, match=word):
        read_text(text)


def test_the_same_window_in_two_walls() -> None:
    """Kitchen is 12' by 14': in the middle of the north and of the east wall, 54 and 66 in from the left."""
    found = said("windows north and east 3' wide sill 40\"").openings[-2:]
    assert [(item.kind, item.side, item.at_in, item.width_in) for item in found] == [
        ("window", 0, 54, 36), ("window", 1, 66, 36),
    ]  # fmt: skip


def test_an_island_in_the_middle() -> None:
    """3' by 6' in a room of 12' by 14': 54 in from the south wall's left, 48 in off it."""
    for text in ("island 3' x 6' in the middle", "a 3' x 6' island in the middle of the room"):
        (island,) = said(text).fixtures
        assert (island.kind, island.side, island.at_in, island.width_in) == ("island", 2, 54, 36)
        assert (island.depth_in, island.off_in) == (72, 48)
    with pytest.raises(LevelRunError, match="do not fit Kitchen"):
        said("island 13' x 6' in the middle")


def test_a_wall_is_told_by_the_way_it_faces() -> None:
    """Holes in metal studs: of the north wall, not of a wall by its number."""
    job = read_text(
        "shop 24' x 30', steel walls\npanel P 100a 20 spaces on the north wall 3' from the west corner\n"
        "set receptacle north 20'\ncircuit 1 20a Bay: R-1"
    )
    assert [item.title for item in plan(job).findings if item.code == "hole-grommets"] == [
        "Grommets in the metal studs of the north wall of Shop"
    ]
