"""Every field has a word: read back as written, said in a sentence, and reached for whatever a rule reads."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.errors import LevelRunError, TextError
from levelrun.core.fields import FieldWord, fields_of
from levelrun.core.job import Box, Circuit, Frozen, Panel, Way
from levelrun.core.plan import plan
from levelrun.core.saying import read_fields, words_of, write_fields
from levelrun.core.site.parts import Room, Structure
from levelrun.core.subjects import KINDS
from levelrun.core.ways.parts import Leg
from levelrun.core.words import Reader
from levelrun.samples import SAMPLES, sample
from tests.conftest import built, edited
from tests.core.circuits.test_circuit_rules import CASES
from tests.core.test_kept_plans import forget

MODELS: dict[str, type[Frozen]] = {**{name: kind.model for name, kind in KINDS.items()}, "leg": Leg}


def back(text: str, model: type[Frozen]) -> dict[str, Any]:
    reader = Reader(text)
    return read_fields(reader, model, reader.ended)


def values_of(word: FieldWord) -> list[Any]:
    found: dict[str, list[Any]] = {
        "choice": list(word.choices),
        "yes_no": [True, False],
        "number": [word.least, word.most, 7.0625, 3],
        "text": ["W1", "two words", 'a "quoted" # word; then, 5′'],
        "parts": [],
    }
    return [value for value in (*found[word.type], *([None] if word.open else [])) if value is not None or word.open]


@pytest.mark.parametrize("kind", MODELS)
def test_every_field_is_read_back_as_it_is_written(kind: str) -> None:
    model = MODELS[kind]
    for word in fields_of(model):
        for value in values_of(word):
            assert back(write_fields({word.name: value}, model), model) == {word.name: value}, word.name


@given(st.floats(allow_nan=False, allow_infinity=False, width=64), st.text(max_size=40))
def test_any_number_and_any_text_come_back(number: float, text: str) -> None:
    said = {"height_in": number, "name": text}
    assert back(write_fields(said, Box), Box) == said


def test_a_field_may_be_called_by_its_name_and_json_is_read_too() -> None:
    told = back('height_in 64, kind "light", outdoors true, load w null', Box)
    assert told == {"height_in": 64, "kind": "light", "outdoors": True, "load_w": None}
    assert back('chain [{"box": "b1"}] space 4', Circuit) == {"chain": [{"box": "b1"}], "space": 4}
    assert back("chain ((box b1) (box b2, after b1, path (w1 w2)))", Circuit)["chain"][1]["path"] == ["w1", "w2"]
    assert back("tandem spaces 11 12 13, main none", Panel) == {"tandem_spaces": [11, 12, 13], "main_a": None}
    assert back("at 5' 4 1/2\", height 1.6 m", Box) == {"at_in": 64.5, "height_in": pytest.approx(62.992, abs=1e-3)}


SAID: dict[str, tuple[str, str, dict[str, Any]]] = {
    "change P: bus 225 a, main none, tandem spaces 11 12": (
        "panels", "P", {"bus_a": 225, "main_a": None, "tandem_spaces": (11, 12)},
    ),
    "change P: make \"Brand-less, series 2\", hole max 4, ground holes 21": (
        "panels", "P", {"make": "Brand-less, series 2", "hole_max": "4", "ground_holes": 21},
    ),
    "change R-1: gangs 2, serves range, continuous no": (
        "boxes", "R-1", {"gangs": 2, "serves": "range", "continuous": False},
    ),
    "change box R-1 surface yes cover in use": ("boxes", "R-1", {"surface": True, "cover": "in_use"}),
    "change R-1: height 3'": ("boxes", "R-1", {"height_in": 36, "fixed": True}),
    "change House: existing yes, grade -30 in": ("structures", "House", {"existing": True, "grade_in": -30}),
    "change Den: moisture damp, ambient 35 c, laid out yes": (
        "rooms", "Den", {"moisture": "damp", "ambient_c": 35, "laid_out": True},
    ),
    "change Lamps: breaker 15, wire size 14, method MC, load 3.5 a": (
        "circuits", "Lamps", {"breaker_a": 15, "wire_size": "14", "method": "MC", "load_a": 3.5},
    ),
    "change Spare: start edge top": ("ways", "Spare", {"start_edge": "top"}),
}  # fmt: skip
HOUSE = (
    "room Den 14' x 12'; set receptacle north 17 5/8\" as R-1; panel west 4' spaces 20 as P; "
    "circuit in P 1 20a as Lamps; "
    "way Spare from P: over 12' stud wall in 12-2 then up 2' stud wall in 12-2"
)


@pytest.mark.parametrize("text", SAID)
def test_a_sentence_changes_what_it_names(text: str) -> None:
    kind, name, values = SAID[text]
    part = next(item for item in getattr(built(text, built(HOUSE)), kind) if item.name == name)
    assert {key: getattr(part, key) for key in values} == values


def test_a_leg_is_changed_by_its_number() -> None:
    job = built("change leg 2 of Spare: length 3' 6\", place attic, met yes", built(HOUSE))
    assert (job.ways[0].legs[1].length_in, job.ways[0].legs[1].place, job.ways[0].legs[1].met) == (42, "attic", True)
    assert job.ways[0].legs[0] == built(HOUSE).ways[0].legs[0]


@pytest.mark.parametrize(
    ("text", "at", "told"),
    [
        ("change P: colour red", 10, "a field"),
        ("change P: bus lots", 14, "a number for bus a"),
        ("change Q: bus 9", 7, "by its name"),
        ("change P: main at middle", 18, "top, bottom"),
        ("change P:", 9, "a field"),
        ("change leg 9 of Spare: met yes", 16, "has 2 legs"),
        ("change R-1: height", 18, "no unit"),
    ],
)
def test_a_wrong_word_is_pointed_at(text: str, at: int, told: str) -> None:
    with pytest.raises(TextError) as refused:
        built(text, built(HOUSE))
    assert refused.value.at == at, refused.value
    assert told in refused.value.message or told == "no unit"


def test_what_the_model_refuses_is_refused_with_its_field() -> None:
    with pytest.raises(LevelRunError, match="gangs"):
        built("change R-1: gangs 9", built(HOUSE))


def test_a_part_in_a_sentence_is_exactly_as_it_is_said() -> None:
    job = built('part box b9: name "X-1", structure s1, kind light, height 20 in', built(HOUSE))
    assert (job.boxes[-1].id, job.boxes[-1].kind, job.boxes[-1].height_in) == ("b9", "light", 20)


def test_whatever_a_rule_reads_can_be_said(monkeypatch: pytest.MonkeyPatch) -> None:
    """Every field of panel, box, circuit, way, leg, room and structure that planning reads, over the demo, the
    samples and the cases of circuits, has a word."""
    read: set[tuple[type, str]] = set()
    models = (Panel, Box, Circuit, Way, Leg, Room, Structure)
    for model in models:
        names = set(model.model_fields)

        def spy(self: Any, name: str, names: set[str] = names, model: type = model) -> Any:
            if name in names:
                read.add((model, name))
            return object.__getattribute__(self, name)

        monkeypatch.setattr(model, "__getattribute__", spy, raising=False)
    forget()
    for key in SAMPLES:
        plan(sample(key))
    for job in list(CASES.values())[::3]:
        plan(edited(job))
    monkeypatch.undo()
    assert len(read) > 110
    unsaid = [(model.__name__, name) for model, name in read if name not in words_of(model).values()]
    assert unsaid == []
    shown = {name for model, name in read if model is Box}
    assert {"kind", "gangs", "protects", "outdoors", "serves", "rating_a"} <= shown
