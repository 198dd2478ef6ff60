"""A line with commas that is several sentences: each is read, none is guessed, and what is wrong is told where it
stands."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError
from levelrun.core.say import MOST_COMMAS, clauses
from levelrun.exchange.text import JobTextError, read_text


def test_a_line_of_several_sentences_is_that_of_several_lines() -> None:
    one = read_text(
        "room Kitchen 14' x 11', window north 4' to 7' sill 42\", door south 8' wide 32\"\n"
        "counter north, counter east"
    )
    lines = [
        "room Kitchen 14' x 11'",
        "window north 4' to 7' sill 42\"",
        "door south 8' wide 32\"",
        "counter north",
        "counter east",
    ]
    assert one == read_text("\n".join(lines))


def test_a_comma_inside_of_a_sentence_parts_nothing() -> None:
    """The longest that is a sentence is taken first: a panel with its places stays one."""
    job = read_text('panel "A, B" 200a, 30 spaces, taken 1-4, 7 and 9, in the garage')
    assert [(item.name, item.taken, item.where) for item in job.panels] == [("A, B", (1, 2, 3, 4, 7, 9), "garage")]


def test_what_is_wrong_in_the_second_is_told_there_and_nothing_is_done() -> None:
    text = "room Bath 8' x 5'\nvanity south 1' to 3', tiolet south 5'"
    with pytest.raises(JobTextError) as refused:
        read_text(text)
    (error,) = refused.value.errors
    assert error.line == 2 and error.at >= len("vanity south 1' to 3',")
    job = read_text(text.splitlines()[0])
    with pytest.raises(LevelRunError):
        said_on(job, text.splitlines()[1], Looked(room=job.rooms[0].id))
    assert not job.fixtures


@pytest.mark.parametrize("text", ["no comma", "a,b\nc", "a, b; c", "," * (MOST_COMMAS + 1), '"a, b"'])
def test_what_is_not_taken_apart(text: str) -> None:
    assert clauses(text) == []


def test_the_parts_stand_where_they_stood() -> None:
    text = 'one "x, y", two, three'
    assert [text[begin:end].strip() for begin, end in clauses(text)] == ['one "x, y"', "two", "three"]
