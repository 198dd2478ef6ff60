"""A panel as it is spoken of: its amperes first, its spaces before what they are, where it stands in a house."""

from __future__ import annotations

import pytest

from levelrun.core.errors import TextError
from levelrun.core.job import Panel
from levelrun.core.plan import plan
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
    """In the garage is a place of the house; one that stands apart is called so."""
    job = built("100 amp sub-panel G in the garage, 12 spaces")
    assert (job.panels[-1].bonded, job.panels[-1].disconnect_elsewhere) == (False, True)
    assert [item.name for item in job.structures] == ["House"] and job.panels[-1].where == "garage"
    assert built("100 amp sub-panel G in the detached garage").structures[-1].name == "Detached garage"
    job = built("structure house; structure garage; 100 amp sub-panel G in the garage")
    assert job.panels[-1].structure == job.structures[-1].id


@pytest.mark.parametrize(
    ("said", "field", "value"),
    [
        ("main at the bottom", "main_at", "bottom"), ("top fed", "main_at", "top"),
        ("main lugs only", "main_a", None),
        ("no ground bar", "ground_bar", False), ("bonding screw out", "bonded", False),
        ("main disconnect outside", "disconnect_elsewhere", True),
    ],
)  # fmt: skip
def test_what_it_has_is_said_in_three_shapes(said: str, field: str, value: object) -> None:
    """In its own sentence, of it, and before it."""
    for text in (f"panel H 200a 30 spaces, {said}", f"panel H 200a; H has {said}", f"panel H 200a; {said} of H"):
        assert getattr(panel(text), field) == value


def test_a_screw_that_was_left_in_is_found_when_the_panel_is_fed() -> None:
    """Feeding a panel takes the screw out that nobody spoke of, and leaves the one that was said to be in."""
    feed = "panel M 200a 40 spaces; panel K 60a 8 spaces; {}feed K from M 50a"
    assert panel(feed.format("")).bonded is False
    for said in ("bond screw left in K; ", "K bonding strap still in; "):
        job = built(feed.format(said))
        assert job.panels[-1].bonded
        assert any(item.code == "bonded-sub" for item in plan(job).findings)


def test_all_but_two_is_a_count_and_all_but_a_space_is_that_space() -> None:
    assert panel("panel H 100a 16 spaces all taken but two").free_said == 2
    assert panel("panel H 100a 16 spaces all taken but 15 and 16").taken == tuple(range(1, 15))


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
