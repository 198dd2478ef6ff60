"""Each sentence by what it makes, in feet and inches, metric, and with its words in another order."""

from __future__ import annotations

from typing import Any

import pytest

from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.fields import fields_of
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.subjects import KINDS, SENTENCES
from tests.conftest import built, edited

START = "room Den 14' x 12'; room Bath 8' x 9' east of Den; panel in Den west 4' spaces 20 as P; "

# sentence: kind of part, its field: value of the part made last
MADE: dict[str, tuple[str, dict[str, Any]]] = {
    "door south 3' at 34\"": ("openings", {"kind": "door", "width_in": 36, "at_in": 34}),
    "door south 900 mm at 1 m": ("openings", {"kind": "door", "width_in": 35.4331, "at_in": 39.3701}),
    "window north 4' x 3' at 5' sill 36\"": ("openings", {"kind": "window", "sill_in": 36, "head_in": 72}),
    "garage door west 9' at 1'": ("openings", {"kind": "garage_door", "width_in": 108}),
    "glass door west 6' at 1' hinge right": ("openings", {"kind": "glass_door", "hinge": "right"}),
    "mark island north 5' at 3'": ("fixtures", {"kind": "island", "off_in": 67, "depth_in": 36}),
    "mark island north 5' at 3' off 70\"": ("fixtures", {"kind": "island", "off_in": 70}),
    "mark peninsula north 3' at 3'": ("fixtures", {"kind": "island", "off_in": 0, "depth_in": 60}),
    "mark counter north 6' at 2'": ("fixtures", {"kind": "counter", "at_in": 24, "width_in": 72}),
    "mark tub east 5' at 1'": ("fixtures", {"kind": "tub", "at_in": 12, "width_in": 60}),
    "set receptacle north 5'": ("boxes", {"kind": "receptacle", "side": 0, "at_in": 60}),
    "set receptacle north 5' for range as RG": ("boxes", {"serves": "range", "name": "RG"}),
    "set receptacle north 5' 3 gangs exactly": ("boxes", {"at_in": 60, "gangs": 3}),
    "set receptacle north 5'3 2 gangs exactly": ("boxes", {"at_in": 63, "gangs": 2}),
    'set receptacle at 16" as "R-9" north 7\'6': ("boxes", {"at_in": 90, "name": "R-9"}),
    "set receptacle outside for pump north 3'": ("boxes", {"outdoors": True, "serves": "pump", "at_in": 36}),
    "set receptacle north 5' on the next stud": ("boxes", {"at_in": 62.125}),
    "set receptacle every 4' along north south": ("boxes", {"side": 2, "at_in": 144}),
    "set light centre": ("boxes", {"kind": "light", "side": None}),
    "set three-way west 2'": ("boxes", {"kind": "switch", "ways": 3}),
    "set receptacle south 3' outside": ("boxes", {"outdoors": True}),
    "panel east 3' spaces 12 sub as Q": ("panels", {"spaces": 12, "bonded": False, "disconnect_elsewhere": True}),
    "panel east 3' spaces 30 main 200a as Q": ("panels", {"spaces": 30, "main_a": 200}),
    "panel east 3' main lugs as Q": ("panels", {"main_a": None}),
    "room Hall 4' x 20' west of Den": ("rooms", {"name": "Hall", "use": "hall"}),
    "room Cold 3 m x 2.5 m south of Den as storage": ("rooms", {"name": "Cold", "use": "storage"}),
    "structure shed Shed at 60' east 0' north": ("structures", {"kind": "shed", "x_in": 720, "y_in": 0}),
    "circuit in P 5 20a gfci Den": ("circuits", {"space": 5, "breaker_a": 20, "protection": "gfci", "name": "Den"}),
    "circuit in P 5/7 50a with neutral Range": ("circuits", {"poles": 2, "volts": 240, "neutral": True}),
    "circuit in P 5 15a Lights": ("circuits", {"wire_size": "14"}),
    "circuit in P 5/7 40a mca 24 mocp 40 Pump": ("circuits", {"nameplate": True, "least_ampacity_a": 24}),
}


def last(job: Job, kind: str) -> Any:
    return getattr(job, kind)[-1]


@pytest.mark.parametrize("text", MADE)
def test_a_sentence_makes_what_it_says(text: str) -> None:
    kind, values = MADE[text]
    part = last(built(START + text), kind)
    for name, value in values.items():
        found = getattr(part, name)
        assert found == (pytest.approx(value, abs=1 / 16) if isinstance(value, float) else value), name


REFUSED = {
    'set receptacle every 4" along north': 21,
    "set receptacle every 4' along northh": 30,
    "set receptacle every 4' along north as R-1": None,
    "set receptacle north 5' colour red": 24,
    "door sooth 3' at 34\"": 5,
    "door south 3' at 34": 19,
    "set receptacle north 50'": None,
    "set receptacle north 5' for rang": 28,
    "panel east 3' spaces 200": None,
    "circuit in P 5 22a Den": None,
    "circuit in P 5 20a Den: R-9": None,
    "put 5 on 7": None,
    "feed Z from 1 60a": 5,
    "structure bam Shed": None,
    "room Den 14' x 12'": None,
}


@pytest.mark.parametrize("text", REFUSED)
def test_a_sentence_that_cannot_be_says_why_and_where(text: str) -> None:
    job = built(START)
    with pytest.raises(LevelRunError) as refused:
        built(text, job, panel=job.panels[0].id, room=job.rooms[0].id)
    assert refused.value.message
    if REFUSED[text] is not None:
        assert getattr(refused.value, "at", None) == REFUSED[text], refused.value.message


def test_every_verb_says_how_it_is_said() -> None:
    for verb, read in SENTENCES.items():
        words = (read.__doc__ or "").split()
        assert words, verb
        assert {verb.split()[0], "kind"} & set((read.__doc__ or "").casefold().split()), verb


@pytest.mark.parametrize("kind", KINDS)
def test_what_a_field_may_hold_is_what_its_model_takes(kind: str) -> None:
    """The words for forms against the models: the least and greatest number pass, one beyond does not."""
    model = KINDS[kind].model
    for word in fields_of(model):
        info = model.model_fields[word.name]
        assert word.type in ("choice", "yes_no", "number", "text", "parts")
        assert (word.type == "choice") is bool(word.choices)
        if word.open:
            assert info.default is None or not info.is_required(), word.name
        if word.type == "number" and word.least is not None and word.most is not None:
            assert word.least < word.most, word.name


def test_choices_are_those_of_the_model() -> None:
    words = {word.name: word for word in fields_of(KINDS["circuit"].model)}
    assert words["protection"].choices == ("plain", "gfci", "afci", "dual")
    assert words["poles"].choices == (1, 2)
    assert words["partner"].open and words["space"].open and not words["breaker_a"].open
    assert (words["space"].least, words["space"].most) == (1, 84)
    assert words["neutral"].type == "yes_no" and words["chain"].type == "parts"


def test_a_feeder_is_fed_from_the_panel_that_is_named() -> None:
    """Whatever panel is looked at; without a name, from that one."""
    job = edited(Job(name="Two"), {"op": "say", "text": "panel Main 200a 30 spaces"},
                 {"op": "say", "text": "panel GP 60a 8 spaces sub"})  # fmt: skip
    main, sub = job.panels
    fed = edited(job, {"op": "say", "text": "feed GP from Main 1 50a", "panel": sub.id}).circuits[0]
    assert (fed.panel, fed.feeds, fed.space, fed.breaker_a) == (main.id, sub.id, 1, 50)
    assert edited(job, {"op": "say", "text": "feed GP from 3 50a", "panel": main.id}).circuits[0].space == 3
    with pytest.raises(TextError, match="name it after"):
        edited(job, {"op": "say", "text": "feed GP from 1 50a", "panel": sub.id})


def test_a_way_is_walked_taken_and_left_in_sentences() -> None:
    job = edited(Job(name="Ways"), {"op": "say", "text": "panel H 200a 30 spaces"},
                 {"op": "say", "text": "from H 20' stud wall in 12-2 to outlet in hall as R-9"},
                 {"op": "say", "text": 'way "Long way" from H: over 30\' attic in 12-2 then down 4\' attic to R-9'},
                 {"op": "say", "text": 'route 1 to R-9 by "Long way"'})  # fmt: skip
    assert [len(way.legs) for way in job.ways] == [1, 2]
    assert job.circuits[0].chain[0].path == (job.ways[1].id,)
    assert plan(job).circuits[0].chain[0].length_in == 34 * 12
    off = edited(job, {"op": "say", "text": "route 1 to R-9 by nothing"})
    assert off.circuits[0].chain[0].path == ()
    longer = edited(job, {"op": "say", "text": 'walk "Long way": over 1\' attic'})
    assert len(longer.ways[1].legs) == 3
    with pytest.raises(TextError) as refused:
        edited(job, {"op": "say", "text": "way W from H: over 3' atic"})
    assert refused.value.at == 22


def test_several_at_once_stand_at_each_step_clear_of_doors_and_hang_on_one_circuit() -> None:
    """A wall of 14 ft with a door from 7' 4" to 10' 4": at 4 and 12 ft, not at 8. Then the south wall whole."""
    text = (
        START
        + "door in Den south 3' at 7'4; circuit in P 1 20a as Den; set receptacle in Den every 4' along south on Den"
    )
    job = built(text)
    assert [box.at_in for box in job.boxes] == [48, 144]
    assert [hop.box for hop in job.circuits[0].chain] == [box.id for box in job.boxes]
    assert job.circuits[0].chain[1].after == job.boxes[0].id
