"""What the inspector said on the phone, typed as it was said: which number it is, who said it, and that the plan goes
by it."""

from __future__ import annotations

import pytest

from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.exchange.text import read_text, write_text
from tests.conftest import found

PANEL = "panel H 200a 30 spaces"


def noted(text: str, *more: str) -> Job:
    return read_text("\n".join((text, PANEL, *more)))


@pytest.mark.parametrize(
    ("text", "notes"),
    [
        ("all pipe here", [("pipe_only", 1, "authority")]),
        ("all pipe, no cable, in this city", [("pipe_only", 1, "city")]),
        ("no romex", [("pipe_only", 1, "authority")]),
        ("the inspector wants everything in conduit", [("pipe_only", 1, "inspector")]),
        ("they want all pipe", [("pipe_only", 1, "authority")]),
        ("schedule 80 outside", [("pvc80_outside", 1, "authority")]),
        ("Schedule 80 below 8 ft, says the inspector", [("riser_guard_in", 96, "inspector")]),
        ("ribbon over every trench", [("ribbon_over_every_trench", 1, "authority")]),
        ("1½ PVC for the feeder", [("feeder_pipe_least_in", 1.5, "authority")]),
        ("the county requires 1-1/4 pvc for the feeder", [("feeder_pipe_least_in", 1.25, "county")]),
        ('the inspector says staple in 6"', [("cable_first_support_most_in", 6, "inspector")]),
        ("the inspector says staples every 4'", [("cable_spacing_most_in", 48, "inspector")]),
        ('inspector wants 24" in the trench', [("cover_least_in", 24, "inspector")]),
        ('local note: 24" deep', [("cover_least_in", 24, "authority")]),
        ('they want 8" of wire in every box', [("free_from_sheath_in", 8, "authority")]),
        ("the inspector wants 3 kitchen circuits", [("kitchen_circuits", 3, "inspector")]),
        (
            'the inspector wants 24" of cover and ribbon over every trench',
            [("cover_least_in", 24, "inspector"), ("ribbon_over_every_trench", 1, "inspector")],
        ),
    ],
)
def test_as_it_is_said(text: str, notes: list[tuple[str, float, str]]) -> None:
    job = noted(text)
    assert [(note.key, note.value, note.who) for note in job.notes] == notes
    assert read_text(write_text(job)).notes == job.notes  # and it travels with the job


def test_when_it_was_said_and_that_a_later_word_takes_its_place() -> None:
    job = noted('the inspector wants 24" of cover, 2026-11-02\nthe inspector wants 30" of cover')
    assert [(note.value, note.when) for note in job.notes] == [(30, "")]
    assert noted('the inspector wants 24" of cover, 2026-11-02').notes[0].when == "2026-11-02"


@pytest.mark.parametrize(
    ("text", "rules"),
    [
        ("by the 2020 code", "us-2020"),
        ("2020 nec", "us-2020"),
        ("canadian code", "ca-2021"),
        ("code 2023", "us-2023"),
    ],
)
def test_the_edition_of_the_code(text: str, rules: str) -> None:
    assert noted(text).rules == rules


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("2017 code", "no rules of 2017"), ("the inspector wants it painted green", "what a local note says"),
        ("24\" deep", ""), ("staples every 4'", ""),  # nobody is named who says it
    ],
)  # fmt: skip
def test_what_is_no_local_note(text: str, told: str) -> None:
    with pytest.raises(LevelRunError, match=told):
        noted(text)


@pytest.mark.parametrize(
    "line",
    ["outlet 20' stud wall", "range 50a 30' basement", "4 outlets 12' apart 40' attic", "sub-panel 60a 40' crawl"],
)
def test_all_pipe_is_planned_in_pipe(line: str) -> None:
    """What nobody said a method of is decided anew by the one setting; a cable that was said is a stop."""
    job = noted("all pipe in this city", line)
    assert {circuit.method for circuit in job.circuits} == {"raceway"}
    assert not found(job, "method-not-allowed")
    assert noted("schedule 80 outside", line).circuits[0].method != "raceway"  # the near miss
    assert found(noted("all pipe in this city", "12-2 nm 20' stud wall to outlet"), "method-not-allowed")


def test_all_pipe_where_circuits_are_proposed() -> None:
    room = ("bedroom 12x12", "door on south", "panel P 100a on the west wall", "outlets to code", "light",
            "switch by the door", "wire everything")  # fmt: skip
    for text, method in (("all pipe here", "raceway"), ("ribbon over every trench", "NM-B")):
        job = read_text("\n".join((text, *room)))
        assert {circuit.method for circuit in job.circuits} == {method}
        assert not [item.title for item in plan(job).findings if item.severity == "stop"]


@pytest.mark.parametrize(("text", "size"), [("1-1/2 pvc for feeders", "1-1/2"), ("ribbon over every trench", "3/4")])
def test_the_feeder_pipe_that_is_wanted_here_is_what_is_planned(text: str, size: str) -> None:
    job = noted(text, "60a feeder to the shed 100' trench in pvc", "from H 40' trench in pvc to outlet 20a")
    assert [way.legs[0].size for way in job.ways] == [size, "1/2"]  # a branch circuit keeps its own
    assert not found(job, "pipe-under-note")


def test_who_said_it_stands_beside_the_number() -> None:
    job = noted('the inspector wants 24" of cover', "outlet 20a gfci 40' trench 12\" deep")
    (short,) = found(job, "cover-short")
    assert short.section.endswith("local note, inspector") and short.limit == "24″"
