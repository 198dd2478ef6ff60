"""Sizes of rooms and buildings without their feet, and what stays inches."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.job import Job
from levelrun.core.site.sizes import feet_said
from tests.conftest import built

EMPTY = built("structure house House")


def size(job: Job) -> tuple[float, float]:
    """Of the last room, east-west by north-south, in feet."""
    xs, ys = zip(*job.rooms[-1].corners, strict=True)
    return (max(xs) - min(xs)) / 12, (max(ys) - min(ys)) / 12


@pytest.mark.parametrize(
    ("said", "feet"),
    [
        ("kitchen 14x12", (14, 12)), ("kitchen 14 x 12", (14, 12)), ("kitchen, 14x12", (14, 12)),
        ("kitchen 14 by 12", (14, 12)), ("12x14 kitchen", (12, 14)), ("room Den 14x12", (14, 12)),
        ("closet 2x6", (2, 6)), ("kitchen 14'x12'", (14, 12)), ("kitchen 14'6x12'6", (14.5, 12.5)),
        ("kitchen 14 x 12'6\"", (14, 12.5)),
        ("kitchen 14.5x12.", (14.5, 12)), ("bath addition 9x7", (9, 7)), ("closet 4x6", (4, 6)),
        ("bedroom 2 12x11", (12, 11)), ("24 by 30 ft shop", (24, 30)), ("den 14 ft x 12", (14, 12)),
    ],
)  # fmt: skip
def test_a_room_is_measured_in_feet_without_saying_so(said: str, feet: tuple[float, float]) -> None:
    job, looked = said_on(EMPTY, said, Looked())
    assert size(job) == pytest.approx(feet)
    bare = "'" not in said and "ft" not in said
    assert any("in feet" in line for line in looked.told) is bare


def test_the_third_is_how_high() -> None:
    job, _ = said_on(EMPTY, "den 14x12x9", Looked())
    assert size(job) == (14, 12) and job.structures[0].levels[0].height_in == 108
    job, _ = said_on(EMPTY, "detached garage 24'x30'x10'", Looked())
    assert job.structures[-1].levels[0].height_in == 120


def test_metres_hold_for_both() -> None:
    job, _ = said_on(EMPTY, "den 4 x 5 m", Looked())
    assert size(job) == pytest.approx((4 / 0.3048, 5 / 0.3048), abs=0.01)


@pytest.mark.parametrize(
    "said", ["4x4 box", "den with 2x6 walls", "closet 2x6 at 16", "12x12 box in the den", "2x4 studs"]
)
def test_what_is_called_by_its_inches_is_no_feet(said: str) -> None:
    text, origin, taken = feet_said(said)
    assert (text, taken) == (said, {}) and origin == list(range(len(said) + 1))
    with pytest.raises(LevelRunError):
        said_on(EMPTY, said, Looked())


@pytest.mark.parametrize("said", ["kitchen 14x12 blue", "den 14'x12' and so on"])
def test_what_is_wrong_behind_it_is_told_where_it_was_typed(said: str) -> None:
    with pytest.raises(TextError) as refused:
        said_on(EMPTY, said, Looked())
    assert said[refused.value.at or 0 :].startswith(("blue", "and so on", "so on"))
