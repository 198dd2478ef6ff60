"""Methods by place: what the trade takes for granted, and that harsher never allows more."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from levelrun.core.codebook import Codebook, load
from levelrun.core.codebook.lookups import methods, places
from levelrun.core.trade.methods.facts import facts_of
from levelrun.core.trade.methods.verdicts import ORDER, judge, ranked

# What every electrician expects, by article; from memory.
EXPECTED = {
    ("stud_wall", "NM-B"): "yes",
    ("crawl_space", "NM-B"): "if",
    ("trench", "NM-B"): "no",
    ("outside_wall", "NM-B"): "no",
    ("overhead", "NM-B"): "no",
    ("outside_wall", "PVC40"): "if",
    ("outside_wall", "PVC80"): "yes",
    ("trench", "PVC40"): "yes",
    ("trench", "UF-B"): "yes",
    ("under_building", "UF-B"): "if",
    ("trench", "EMT"): "if",
    ("trench", "RMC"): "yes",
    ("trench", "SER"): "no",
    ("trench", "USE-2"): "yes",
    ("driveway_trench", "USE-2"): "yes",
    ("under_building", "USE-2"): "if",
    ("outside_wall", "USE-2"): "if",
    ("crawl_space", "USE-2"): "no",
    ("stud_wall", "USE-2"): "no",
    ("equipment_tail", "USE-2"): "no",
    ("overhead", "USE-2"): "no",
    ("shop_surface", "NM-B"): "if",
    ("shop_surface", "EMT"): "yes",
    ("masonry_inside", "MC"): "if",
    ("equipment_tail", "LFNC"): "yes",
    ("equipment_tail", "FMC"): "no",
    ("overhead", "OVERHEAD"): "yes",
    ("stud_wall", "OVERHEAD"): "no",
    ("outside_wall", "ENT"): "no",
}


@pytest.mark.parametrize(("where", "answer"), EXPECTED.items(), ids=lambda v: str(v))
def test_expected_verdicts(book: Codebook, where: tuple[str, str], answer: str) -> None:
    assert judge(book, where[1], facts_of(book, where[0], {})).verdict == answer


def test_a_damp_crawl_is_no_place_for_building_cable(book: Codebook) -> None:
    assert judge(book, "NM-B", facts_of(book, "crawl_space", {"moisture": "damp"})).verdict == "no"


def test_where_nothing_hits_it_plain_plastic_will_do(book: Codebook) -> None:
    assert judge(book, "PVC40", facts_of(book, "outside_wall", {"damage": False})).verdict == "yes"


@given(st.sampled_from(sorted(places(load()))), st.sampled_from(sorted(methods(load()))), st.data())
def test_a_harsher_place_never_allows_more(place: str, method: str, data: st.DataObject) -> None:
    book = load()
    steps = {
        "moisture": ["dry", "damp", "wet"],
        "damage": [False, True],
        "sunlight": [False, True],
        "ambient_c": [20.0, 45.0, 60.0],
    }
    name = data.draw(st.sampled_from(sorted(steps)))
    others = {key: data.draw(st.sampled_from(values)) for key, values in steps.items() if key != name}
    answers = [judge(book, method, facts_of(book, place, {**others, name: v})).verdict for v in steps[name]]
    if method in ("FMC", "NM-B", "AC") or name != "moisture":
        assert [ORDER[a] for a in answers] == sorted(ORDER[a] for a in answers)
    else:
        assert ORDER[answers[0]] <= ORDER[answers[-1]]


@given(st.sampled_from(sorted(places(load()))), st.booleans(), st.sampled_from(["dry", "damp", "wet"]))
def test_every_answer_has_a_reason_and_the_yeses_come_first(place: str, damage: bool, moisture: str) -> None:
    found = ranked(load(), facts_of(load(), place, {"damage": damage, "moisture": moisture}))
    assert len(found) == 16
    assert [ORDER[v.verdict] for v in found] == sorted(ORDER[v.verdict] for v in found)
    for verdict in found:
        assert verdict.because[0].rule and verdict.because[0].text
        assert (verdict.verdict == "if") == bool(verdict.needs)
