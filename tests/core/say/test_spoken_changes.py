"""Changes as they are spoken: the thing first, or the verb of everyday; the same as in the words of the guide."""

from __future__ import annotations

import pytest

from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.samples import sample
from tests.conftest import built, edited

DEMO = sample("quince-hollow")


def test_of_circuits() -> None:
    """Each spoken sentence makes the same job as the short one."""
    said = {
        "move circuit 14 to 16": "put 14 on 16",
        "14 goes on space 16": "put 14 on 16",
        "put breaker 14 in space 16": "put 14 on 16",
        "make 9 a 15 amp": "change circuit Common room: breaker 15",
        "circuit 9 is 15 amps": "change circuit Common room: breaker 15",
        "change 9 to a 15 amp arc fault breaker": "change circuit Common room: breaker 15, protection afci",
        "put 9 on a 15 amp breaker": "change circuit Common room: breaker 15",
        "replace breaker 9 with an arc fault": "change circuit Common room: protection afci",
        "9 is 15 amps now": "change circuit Common room: breaker 15",
        "9 is 10-2": "change circuit Common room: wire size 10",
        "make breaker 14 dual function": "change circuit Cold-store shed: protection dual",
        "R-1 goes on 7": "chain R-1 on 7",
        "add R-1 and R-2 to 7": "chain R-1 R-2 on 7",
        "R-1, R-2 and R-4 go on circuit 7": "chain R-1 R-2 R-4 on 7",
        "take R-1 off 9": "unchain R-1",
        "R-1 off": "unchain R-1",
        "add a 20 amp circuit called Den for R-1 and R-2": "circuit 19 20a as Den: R-1 R-2",
        "a new 20 amp gfci circuit for R-5": "circuit 20a gfci for R-5",
        "add a circuit 20a afci Den: R-1 R-2": "circuit 20a afci as Den: R-1 R-2",
        "a 50 amp 240 volt circuit called Welder": "circuit 50a 240v as Welder",
        "circuit 9 feeds R-8": "chain R-8 on 9",
        "put R-1 after R-2 on 9": "chain R-1 on 9 after R-2",
        "R-1 comes after R-2": "chain R-1 on 9 after R-2",
        "9 and 11 share a neutral": "pair 9 with 11",
        "tie 9 and 11": "pair 9 with 11",
        "a 60 amp feeder to Panel S": "feed Panel S from Panel H 19 60a",
        "feed panel S from panel H with 60 amps": "feed Panel S from Panel H 19 60a",
        "label 9 Den plugs": 'change circuit Common room: name "Den plugs"',
        "rename circuit 9 to Den plugs": 'change circuit Common room: name "Den plugs"',
    }
    for spoken, short in said.items():
        assert built(spoken, DEMO) == built(short, DEMO) != DEMO, spoken


def test_of_boxes() -> None:
    """Heights are those of the story pole's mark, the top of the box: 44 in is a middle of 42 1/8."""
    said = {
        "raise R-1 to 44\"": "change R-1: height 42.125 in, fixed yes",
        "R-1 is 44\" high": "change R-1: height 42.125 in, fixed yes",
        "R-1 at 44\"": "change R-1: height 42.125 in, fixed yes",
        "lower S-2 to 42\" off the floor": "change S-2: height 40.125 in, fixed yes",
        "move R-1 to 5'": "change R-1: at 60 in",
        "move R-1 to 2' from the right": "change R-1: at 216 in",  # of a wall of 20 ft
        "move R-1 to the east wall, 3' from the right": "change R-1: side 1, at 108 in",
        "move R-1 to the east wall": "change R-1: side 1, at 72 in",  # its middle, and that is told
        "make R-1 a gfci outlet": "change R-1: protects gfci",
        "turn R-1 into a gfci": "change R-1: protects gfci",
        "R-1 needs a gfci": "change R-1: protects gfci",
        "L-1 is a fan": "change L-1: kind fan",
        "L-1 should be a ceiling fan": "change L-1: kind fan",
        "R-1 is ground fault": "change R-1: protects gfci",
        "R-10 is a 5-20": "change R-10: nema 5-20",
        "S-1 is double gang": "change S-1: gangs 2",
        "make R-1 a two-gang box for dishwasher": "change R-1: gangs 2, serves dishwasher",
        "R-3 is outside": "change R-3: outdoors yes",
        "R-1 draws 900 watts": "change R-1: load 900",
        "the kiln draws 45 amps": "change box Kiln: load 10800",  # of 240 V
        "S-1 is a 3-way switch": "change S-1: ways 3",
        "R-1 is called Den plug": "change R-1: name \"Den plug\"",
    }  # fmt: skip
    for spoken, short in said.items():
        assert built(spoken, DEMO) == built(short, DEMO) != DEMO, spoken


def test_a_box_that_is_removed_leaves_its_circuit_whole() -> None:
    """What hangs on behind it hangs on what was before it."""
    chain = next(c for c in DEMO.circuits if c.name == "Common room").chain
    boxes = {box.name: box.id for box in DEMO.boxes}
    at = [hop.box for hop in chain].index(boxes["R-1"])
    job = built("remove R-1", DEMO)
    left = next(c for c in job.circuits if c.name == "Common room").chain
    assert [hop.box for hop in left] == [hop.box for hop in chain if hop.box != boxes["R-1"]]
    behind = [hop.box for hop in chain if hop.after == boxes["R-1"]]
    assert all(hop.after == chain[at].after for hop in left if hop.box in behind)
    assert "R-1" not in {box.name for box in job.boxes}
    assert plan(job).circuits


@pytest.mark.parametrize("word", ["remove", "delete"])
@pytest.mark.parametrize(("what", "field"), [("circuit 9", "circuits"), ("the trench House to shed", "trenches")])
def test_what_nothing_needs_is_removed(word: str, what: str, field: str) -> None:
    job = built(f"{word} {what}", DEMO)
    assert len(getattr(job, field)) == len(getattr(DEMO, field)) - 1


def test_doors_and_windows_are_removed_by_their_wall() -> None:
    for text, gone in (
        ("delete the window in Utility", "o11"),
        ("remove the window in the north wall of Kitchen", "o7"),
    ):
        assert {o.id for o in DEMO.openings} - {o.id for o in built(text, DEMO).openings} == {gone}


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("remove the door in Common room", "has 3 such doors: say its wall"),
        ("remove the door in Bath", "has no such door"),
        ("put R-1 after R-5 on 9", "R-5 is on 12"),
        ("remove the kitchen", "is used by K-1"),
        ("remove panel H", "is used by"),
        ("remove R-99", "what is removed, by its name"),
        ("rename electrode e1 to Rod", "what is renamed|has no name"),
        ("move R-1 to 40'", "past the .* wall, 240 in long"),
        ("R-1 is for supper", "what it serves"),
        ("R-1 is", "expected a sentence"),
        ("R-1 is 121", "say what was read"),
        ("make 9 nice", "expected a sentence"),
    ],
)
def test_what_cannot_be_is_refused_in_words(text: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        built(text, DEMO)


def test_a_circuit_that_is_made_is_no_reading(  # its own verb stands at the front of the stage's line
) -> None:
    job = edited(DEMO, {"op": "say", "text": "17 gfci 20a as Test", "verb": "circuit", "panel": "ph"})
    made = next(c for c in job.circuits if c.name == "Test")
    assert (made.space, made.protection, job.measured) == (17, "gfci", DEMO.measured)


def test_cables_of_a_house_that_is_not_drawn_are_taped_from_box_to_box() -> None:
    """32 ft and 12 ft, each with 42 or 8 at its start, 8 at its end, a loop of 6 and 5 %: 384 + 56 = 440, 462, 39 ft;
    144 + 22 = 166, 174.3, 15 ft."""
    house = built("panel H 100a 12 spaces in house; from H 5' stud wall to outlet in hall")
    job = edited(house, {"op": "unchain", "boxes": [house.boxes[0].id]})
    job = built("add a 20 amp afci circuit called Hall for R-1", job)
    more = {"id": "b9", "name": "R-2", "structure": job.boxes[0].structure, "kind": "receptacle", "use": "hall"}
    job = built("R-2 goes on Hall", edited(job, {"op": "add", "kind": "box", "item": more}))
    job = built("panel H to R-1 is 32'; R-2 to R-1 is 12' apart", job)
    hops = next(circuit for circuit in job.circuits if circuit.name == "Hall").chain
    assert [hop.length_in for hop in hops] == [384.0, 144.0]
    found = next(item for item in plan(job).circuits if item.summary.name == "Hall")
    assert found.cables == ["54 ft of 12-2 NM-B"]
    with pytest.raises(LevelRunError, match="no cable goes from H to R-2"):
        built("panel H to R-2 is 9'", job)
    with pytest.raises(LevelRunError, match="its legs say how long"):
        built("panel H to K-1 is 9'", DEMO)


def test_several_sentences_each_see_what_the_one_before_left() -> None:
    job = built("rename R-1 to Den plug; Den plug is gfci; take Den plug off 9; remove Den plug", DEMO)
    assert isinstance(job, Job) and "Den plug" not in {box.name for box in job.boxes}
    assert len(job.boxes) == len(DEMO.boxes) - 1


def test_two_breakers_swap_their_spaces() -> None:
    before = {item.id: (item.space, item.half) for item in DEMO.circuits}
    one, two = (next(item for item in DEMO.circuits if item.space == space and item.poles == 1) for space in (9, 11))
    for said in ("swap 9 and 11", "switch breakers 9 and 11", "swap 11 with 9"):
        after = {item.id: (item.space, item.half) for item in built(said, DEMO).circuits}
        assert after == {**before, one.id: before[two.id], two.id: before[one.id]}, said
    wide = next(item for item in DEMO.circuits if item.poles == 2 and item.panel == one.panel)
    with pytest.raises(LevelRunError, match="do not fit each other's space"):
        built(f"swap 9 and {wide.space}/{wide.space + 2}", DEMO)


@pytest.mark.parametrize("said", ["move the north wall of Kitchen 1' out", "move the north wall of Kitchen out 1'"])
def test_a_wall_moves_out_by_a_length_on_either_side(said: str) -> None:
    assert built(said, DEMO) == built("move north out 1'", DEMO, room="m2") != DEMO


def test_is_is_no_name_of_a_panel() -> None:
    """`the panel is 100 amps` put up a panel called `is`."""
    with pytest.raises(LevelRunError, match="say which panel") as refused:
        built("the panel is 100 amps", DEMO)
    assert "Panel H" in refused.value.allowed
    with pytest.raises(LevelRunError, match="L-1 is that already"):
        built("L-1 is a light", DEMO)


def test_what_begins_no_sentence_is_told_in_a_line() -> None:
    """It named all sixty verbs."""
    with pytest.raises(LevelRunError, match="what it is about and what it is, or one of") as refused:
        built("gizmo R-1", DEMO)
    assert len(refused.value.message) < 220 and len(refused.value.allowed) > 40
