"""A panel as it is spoken of: its amperes first, its spaces before what they are, where it stands in a house."""

from __future__ import annotations

import pytest

from levelrun.core.errors import TextError
from levelrun.core.job import Panel
from tests.conftest import built


def panel(text: str) -> Panel:
    return built(text).panels[-1]


SIXTEEN = tuple(range(1, 17))


@pytest.mark.parametrize(
    ("text", "name", "main", "spaces", "taken", "free"),
    [
        ("a 200 amp panel H with 30 spaces", "H", 200, 30, (), None),
        ("a 200 amp panel H with 30 spaces, 1-16 taken", "H", 200, 30, SIXTEEN, None),
        ("200 amp panel, 30 spaces, 2 free, called H", "H", 200, 30, (), 2),
        ("panel H 200 amp, 30 spaces, spaces 1-16 taken", "H", 200, 30, SIXTEEN, None),
        ("panel H 150a 24 spaces 1-16 and 18 used", "H", 150, 24, (*SIXTEEN, 18), None),
        ("panel H 100a 12 spaces taken 1-4, 7 and 9", "H", 100, 12, (1, 2, 3, 4, 7, 9), None),
        ("panel H 100a 12 spaces only 3 and 5 free", "H", 100, 12, (1, 2, 4, 6, 7, 8, 9, 10, 11, 12), None),
        ("panel H 100a full except 3 and 5, 12 circuits", "H", 100, 12, (1, 2, 4, 6, 7, 8, 9, 10, 11, 12), None),
        ("panel H 100a 4 space only 2 free", "H", 100, 4, (1, 3, 4), None),
        ("panel H 200a 30 spaces 14 free", "H", 200, 30, (), 14),
        ("main panel 200a 30 spaces", "Main", 200, 30, (), None),
        ("panel called H 200a 30 spaces", "H", 200, 30, (), None),
    ],
)
def test_what_it_is(text: str, name: str, main: float, spaces: int, taken: tuple[int, ...], free: int | None) -> None:
    found = panel(text)
    assert (found.name, found.main_a, found.bus_a, found.spaces) == (name, main, main, spaces)
    assert (found.taken, found.free_said) == (taken, free)


@pytest.mark.parametrize(
    ("text", "where"),
    [("a 200 amp panel in the basement called H", "basement"), ("panel H 100a in utility room", "utility room")],
)
def test_where_it_stands_in_a_house_that_is_not_drawn(text: str, where: str) -> None:
    found = panel(text)
    assert (found.where, found.room) == (where, None)


def test_a_sub_panel_is_fed() -> None:
    job = built("100 amp sub-panel G in the garage, 12 spaces")
    assert (job.panels[-1].bonded, job.panels[-1].disconnect_elsewhere) == (False, True)
    assert job.structures[-1].name == "Garage"


@pytest.mark.parametrize(
    ("text", "told", "word"),
    [
        ("panel H 200a 30 spaces, 14 used", "14 spaces, or space 14", ""),
        ("panel H 200a only 17 and 19 free", "say how many spaces it has", ""),
        ("panel H 200a 30 spaces, 16-1 taken", "the lower one first", "16-1"),
        ("panel H 200a 12 spaces, 1-16 taken", "space 16 is past the 12 spaces", ""),
        ("panel H 200a 30 spaces taken", "spaces such as 1-14", ""),
    ],
)
def test_what_could_be_meant_otherwise_is_asked(text: str, told: str, word: str) -> None:
    with pytest.raises(TextError, match=told) as refused:
        built(text)
    if word:
        assert refused.value.at == text.index(word)
