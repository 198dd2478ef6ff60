"""Sentences of the entry line: what they build, where they fail, what they offer next."""

from __future__ import annotations

import pytest
from pydantic import TypeAdapter

from levelrun.core.codebook import Codebook
from levelrun.core.edits import Edit, apply_told
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.say import Scene, suggest_words
from tests.conftest import built, edited

TWO = "room Common 20' x 12'; "


def test_the_sentences_of_the_guide_build_what_they_say() -> None:
    job = built(
        TWO + "room kitchen 14' x 12' east of common; door south 3' at 34\"; window north 5' x 4' at 4' sill 32\""
    )
    kitchen = job.rooms[1]
    assert (kitchen.use, kitchen.corners[0]) == ("kitchen", (243.5, 144))
    door, window = job.openings
    assert (door.at_in, door.width_in, door.side) == (34, 36, 2)
    assert (window.at_in, window.sill_in, window.head_in) == (48, 32, 80)
    placed = built("set receptacle south 7'6 at 16\"", job, room=kitchen.id).boxes[0]
    assert (placed.side, placed.at_in, placed.height_in) == (2, 90, 16 - 3.75 / 2)


@pytest.mark.parametrize(
    ("typed", "at", "told"),
    [
        ('north 17 5/8"', 17.625, False),  # beside the stud at 16, nailed as it is
        ('north 19"', 17.875, True),
        ('north 19 7/8"', 17.875, True),
        ('north 20"', 20.0, False),  # farther than the habit reaches
        ('north 19" exactly', 19.0, False),
        ('north 19" blocked', 19.0, False),
        ('north 19" outside', 19.0, False),
        ('north 20" on the next stud', 17.875, False),  # asked for, so not told
    ],
)
def test_a_typed_place_goes_to_the_stud_beside_it_and_says_so(typed: str, at: float, told: bool) -> None:
    job = built("structure house House; room Den 12' x 12'", Job(name="Built"))
    line = {"op": "say", "text": f"set receptacle {typed}", "room": job.rooms[0].id}
    said = TypeAdapter(list[Edit]).validate_python([line])
    after, words = apply_told(job, said)
    assert after.boxes[0].at_in == at
    if typed == 'north 19"':
        assert words == ["north 1′ 7″ typed, set beside the stud at 1′ 5 7/8″"]
    assert bool(words) is told
    free = edited(job, {"op": "set_job", "set": {"habits": job.habits.model_dump() | {"stud_within_in": 0}}})
    if told:
        assert apply_told(free, said)[0].boxes[0].at_in != at


def test_a_stage_s_own_verb_may_be_left_out() -> None:
    job = built("bed 1 12'4 x 3.2 m west of common", built(TWO), verb="room")
    assert job.rooms[1].name == "Bed 1"
    assert job.rooms[1].corners[1][1] == pytest.approx(3200 / 25.4, abs=1 / 16)
    boxed = built("light 6' x 5'", job, room=job.rooms[0].id, verb="set").boxes[0]
    assert (boxed.x_in, boxed.y_in, boxed.height_in) == (72, 60, 96)


@pytest.mark.parametrize(
    ("text", "at", "words"),
    [
        ("room Bed 12' x 12' est of Common", 19, "east of a room"),
        ("rom Bed 12' x 12'", 0, "one of room, wall"),
        ("door sooth 3'", 5, "a wall of Common"),
        ("window north 5' x 4' at", 23, "a length"),
        ("set recepticle south 3'", 4, "receptacle, switch"),
        ("set receptacle south 25'", 15, "past the south wall"),
        ("door south 25' at 1'", 5, "does not fit the south wall"),
        ("room Common 9' x 9'", 0, "'Common' on this level already"),
        ("room Bed 12' x 12'; mark bazin north", 25, "what stands there"),
    ],
)
def test_a_word_that_cannot_be_read_is_shown_where_it_stands(text: str, at: int, words: str) -> None:
    job = built(TWO)
    with pytest.raises(TextError) as refused:
        built(text, job, room=job.rooms[0].id)
    assert words in refused.value.message
    if words not in ("'Common' on this level already", "past the south wall", "does not fit the south wall"):
        assert refused.value.at == at


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("", "room"),
        ("wi", "window"),
        ("window so", "south"),
        ("room Bed 12' x 12' ea", "east of"),
        ("room Bed 12' x 12' east of ", "Common"),
        ("fill; mark sh", "shower valve"),
        ("set receptacle south 3' for dis", "dishwasher"),
    ],
)
def test_what_may_stand_next_is_offered(book: Codebook, text: str, expected: str) -> None:
    job = built(TWO)
    assert expected in suggest_words(Scene(job=job, book=book, room_id=job.rooms[0].id), text, "walls")[1]


def test_a_sentence_that_fails_leaves_nothing_of_the_ones_before() -> None:
    job = built(TWO)
    with pytest.raises(LevelRunError):
        built("set light centre; set receptacle up 3'", job, room=job.rooms[0].id)
    assert job.boxes == ()


def test_levels_and_structures() -> None:
    job = built("level crawl below 44\" height 32\"; room Crawl 20' x 12'")
    assert job.structures[0].under_floor_in == -44
    assert job.rooms[0].use == "crawl"
    assert job.rooms[0].sides[0].finish == "none"
    shed = built("structure shed Cold store grade 4\" at 60' east 20' north; room Store 10' x 8'", job)
    assert (shed.structures[1].x_in, shed.structures[1].y_in, shed.structures[1].grade_in) == (720, 240, -4)
    assert shed.structure_of(shed.rooms[1].level).name == "Cold store"
