"""Sentences about pipe: what each does, and where one that cannot be is refused."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.pipe.words import VERBS
from levelrun.exchange.text import read_text, write_text
from tests.conftest import edited, one_way

TEXT = "up 4' block wall in emt 3/4; over 18'; left 9' to J-1; over 9' to C-1"


def said(text: str, **about: Any) -> Job:
    return edited(one_way(TEXT), {"op": "say", "text": text, **about})


def leg(job: Job, number: int) -> Any:
    return job.ways[0].legs[number - 1]


def test_a_bend_is_added_to_what_is_there() -> None:
    job = said('bend leg 2 of Way: offset 4" at 30 after 60"; bend leg 2 of Way: saddle 2" after 12\' upward')
    first, second = leg(job, 2).shapes
    assert (first.kind, first.rise_in, first.angle_deg, first.at_in, first.toward) == ("offset", 4, 30, 60, "outward")
    assert (second.kind, second.rise_in, second.at_in, second.toward) == ("saddle3", 2, 144, "upward")
    assert leg(edited(job, {"op": "say", "text": "unbend leg 2 of Way"}), 2).shapes == ()


def test_the_way_looked_at_needs_no_name() -> None:
    assert leg(said("bend leg 4: bend 45", way="w"), 4).bends_deg == (45.0,)
    with pytest.raises(LevelRunError, match="say `of` and its name"):
        said("bend leg 4: bend 45")


def test_a_pull_is_fed_by_what_stands_there() -> None:
    assert leg(said("feed pull 1 of Way at J-1"), 1).feed == "end"
    assert leg(said("feed pull 2 of Way at start"), 4).feed == "start"
    back = edited(said("feed pull 2 of Way at start"), {"op": "say", "text": "feed pull 2 of Way at the easier end"})
    assert leg(back, 4).feed == ""


def test_a_size_is_that_of_the_whole_pull() -> None:
    assert [item.size for item in said("size pull 1 of Way 1").ways[0].legs] == ["1", "1", "1", "3/4"]


def test_a_pull_point_is_an_lb_round_a_corner_else_a_body() -> None:
    assert leg(said("pull point after leg 2 of Way"), 2).end.kind == "lb"
    straight = one_way("over 9' block wall in emt 3/4; over 9' to C-1")
    body = edited(straight, {"op": "say", "text": "pull point after leg 1 of Way"})
    assert leg(body, 1).end.kind == "body"


REFUSED = {
    "bend leg 9 of Way: offset 4\"": (9, "has 4 legs"),
    "bend leg 2 of Wey: offset 4\"": (14, "a way by its name"),
    "bend leg 2 of Way: wiggle 4\"": (19, "box offset, offset"),
    "bend leg 2 of Way: rolling offset 6\"": (36, "how far the other way"),
    "bend leg 2 of Way: offset 0\"": (28, "greater than 0"),
    "bend leg 1 of Way: offset 20\" at 10": (None, "a steeper angle"),
    "feed pull 3 of Way at start": (10, "has 2 pulls"),
    "feed pull 1 of Way at J-9": (22, "start, end, or what stands there"),
    "size pull 1 of Way 7/8": (19, "a trade size of EMT"),
    "pull point after leg 4 of Way": (None, "ends there"),
}  # fmt: skip


@pytest.mark.parametrize("text", REFUSED)
def test_what_cannot_be_is_refused_where_it_stands(text: str) -> None:
    at, words = REFUSED[text]
    with pytest.raises(LevelRunError, match=words) as refused:
        said(text)
    if at is not None:
        assert refused.value.at == at


def test_every_verb_is_in_a_test() -> None:
    tried = " ".join([*REFUSED, "unbend leg 2"])
    assert all(verb in tried for verb in VERBS)


def test_what_is_said_of_pipe_comes_back_from_text() -> None:
    job = said(
        'bend leg 2 of Way: rolling offset 6" and 4" at 45 after 60"; bend leg 1 of Way: box offset 1/2"; '
        "feed pull 1 of Way at end"
    )
    job = edited(
        job,
        {"op": "set", "kind": "way", "id": "w", "set": {"day_f": 55.0}},
        {"op": "set_leg", "way": "w", "leg": 2, "set": {"radius_in": 24.0, "stands_off": True}},
        {"op": "set", "kind": "circuit", "id": "k", "set": {"nonlinear": True}},
        {"op": "set_job", "set": {"habits": {"piping": {"order": "thread_first", "lube": "paste"}}}},
    )
    assert read_text(write_text(job)) == job
