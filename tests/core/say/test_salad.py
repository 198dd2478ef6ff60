"""Words thrown together, and good sentences with words left out, doubled or put elsewhere: each is read or refused
with a place in it, none breaks and none hangs."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.say import SENTENCES
from levelrun.core.start.kinds import ENDS, PLUGGED, USES
from levelrun.samples import sample
from tests.core.roughin.test_spoken_record import READ
from tests.core.roughin.test_spoken_record import SAID as RECORD
from tests.core.say.test_spoken import DEN, JOB, SAME
from tests.core.site.test_spoken_building import SAID as BUILDING
from tests.core.start.test_said import SAID
from tests.core.trench.test_spoken_yard import SHOP, YARD

SMALL = [
    *("the", "a", "of", "and", "in", "on", "at", "for", "as", "to", "from", "along", "through", ",", ":", ";", ">"),
    *("then", "up", "down", "over", "every", "out", "x"),
]
PLACES = [
    "north",
    "south wall",
    "Den",
    "Kitchen",
    "Main",
    "panel",
    "centre",
    "from the right",
    "attic",
    "wall",
    "trench",
]
COUNTS = ["4'", "4'6", '18"', "12", "20a", "240v", "14/2", "12-2", "3/4", "18.4", "2 gangs", "0'", "9999999999", "½"]
REST = ["deep", "in emt", "1 inch", "pvc", "mca", "max", "R-1", "R-9", '"Lamp', '"Lamp"', "wide", "gfci", "space"]
WORDS = [*SMALL, *PLACES, *COUNTS, *REST, *list(ENDS)[:12], *list(PLUGGED)[:4], *list(USES)[:6]]
GOOD = [*SAME, *SAME.values(), *(f"from {text}" for text in (*SAID, *SAID.values()))]
LOOKED = Looked(room=DEN.id, level=DEN.level, panel=JOB.panels[0].id)


def read(text: str) -> None:
    try:
        said_on(JOB, text, LOOKED)
    except TextError as refused:
        assert refused.at is None or 0 <= refused.at <= len(text), text
    except LevelRunError:
        pass


@given(st.sampled_from(["", *SENTENCES]), st.lists(st.sampled_from(WORDS), max_size=9))
def test_any_words_are_read_or_refused(head: str, words: list[str]) -> None:
    read(" ".join([head, *words]).strip())


@given(st.sampled_from(GOOD), st.data())
def test_a_good_sentence_with_words_amiss_is_read_or_refused(good: str, data: st.DataObject) -> None:
    words = good.split()
    for _ in range(data.draw(st.integers(1, 3))):
        at = data.draw(st.integers(0, len(words) - 1))
        words[at : at + 1] = data.draw(
            st.sampled_from([[], [words[at]] * 2, [words[at], words[0]]]) | st.sampled_from(WORDS).map(lambda w: [w])
        )
        if not words:
            return
    read(" ".join(words))


@pytest.mark.parametrize("good", GOOD)
def test_a_sentence_cut_off_anywhere_is_read_or_refused(good: str) -> None:
    """As it is typed, at every third letter: over all of them each letter of a word is the last one somewhere."""
    for end in range(1 + len(good) % 3, len(good), 3):
        read(good[:end])


DEMO = sample("quince-hollow")
SPOKEN = [*BUILDING, *YARD, *SHOP, *RECORD, *READ]


@given(st.sampled_from(SPOKEN), st.sampled_from(SPOKEN), st.integers(0, 12), st.integers(0, 12))
def test_two_halves_of_what_is_spoken_are_read_or_refused(first: str, second: str, cut: int, on: int) -> None:
    """The beginning of one sentence with the end of another: told in words, and nothing is half done."""
    text = " ".join([*first.split()[:cut], *second.split()[on:]])
    try:
        job, _ = said_on(DEMO, text, Looked(panel="ph"))
        assert Job.model_validate(job.model_dump()) == job
    except TextError as refused:
        assert refused.at is None or 0 <= refused.at <= len(text), text
    except LevelRunError:
        pass
