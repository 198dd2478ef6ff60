"""A line that goes on from the one before: outlet to outlet, disconnect to machine; and what begins at the panel."""

from __future__ import annotations

import pytest

from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan
from levelrun.core.say import suggest_words
from levelrun.core.site.naming import Scene
from levelrun.exchange.text import read_text
from tests.conftest import built, found

HOUSE = built("panel H 200a 40 spaces taken 1-10")


def hops(job: Job) -> list[list[tuple[str, str]]]:
    names = {node.id: node.name for node in job.nodes}
    return [[(names[hop.after or c.panel], names[hop.box]) for hop in c.chain] for c in job.circuits]


@pytest.mark.parametrize("joint", [", ", " then ", ", then ", ", and "])
def test_an_outlet_after_an_outlet_hangs_on_it(joint: str) -> None:
    job = built(f"from H 20' stud wall to outlet{joint}12' stud wall to outlet", HOUSE)
    assert hops(job) == [[("H", "R-1"), ("R-1", "R-2")]]


def test_then_and_commas_in_one_line() -> None:
    line = (
        "from H 20' stud wall to bath outlet, then 6' stud wall to bath light, 8' stud wall then 4' attic to bath fan"
    )
    assert hops(built(line, HOUSE)) == [[("H", "R-1"), ("R-1", "L-1"), ("L-1", "F-1")]]


@pytest.mark.parametrize("joint", ["; ", "\n"])
def test_a_new_sentence_begins_at_the_panel(joint: str) -> None:
    job = built(f"from H 20' stud wall to outlet{joint}12' stud wall to outlet", HOUSE)
    assert hops(job) == [[("H", "R-1")], [("H", "R-2")]]


# what is named second has a breaker of its own
APART = {
    "a machine of 240 V": "from H 20' stud wall to outlet, 30' attic to dryer",
    "behind a machine": "from H 35' basement to range, 12' basement to outlet",
    "a breaker is said": "from H 20' stud wall to outlet, 12' stud wall to outlet 15a",
    "it says where it begins": "from H 20' stud wall to outlet, from H 12' stud wall to outlet",
    "a feeder": "from H 20' stud wall to outlet, 40' crawl to sub-panel S 60a",
}


@pytest.mark.parametrize("name", APART)
def test_what_has_a_breaker_of_its_own_comes_from_the_panel(name: str) -> None:
    assert [own[0][0] for own in hops(built(APART[name], HOUSE))] == ["H", "H"]


def test_behind_a_sub_panel_a_line_begins_there() -> None:
    job = built("from H 40' crawl to sub-panel S 60a, 12' stud wall to outlet", HOUSE)
    assert hops(job) == [[("H", "S")], [("S", "R-1")]]


WHIPS = {
    "in one line": "from H 18' attic, down 8' outside in emt 3/4 to disconnect, 5' whip to heat pump mca 21.5 max 35",
    "the machine stands there": "heat pump mca 21.5 max 35\n"
    "from H 18' attic, down 8' outside in emt 3/4 to disconnect, 5' whip to heat pump",
    "line by line": "from H 18' attic, down 8' outside in emt 3/4 to disconnect\n"
    "from disconnect 5' whip to heat pump mca 21.5 max 35",
}


@pytest.mark.parametrize("name", WHIPS)
def test_a_disconnect_and_its_whip_are_one_circuit_of_the_machine(name: str) -> None:
    """21.5 A ask No. 10 in NM-B (60 C column: 30 A), a breaker of 35 A at most, outdoors a GFCI (210.8(F))."""
    job = HOUSE
    for line in WHIPS[name].splitlines():
        job = built(line, job)
    (circuit,) = job.circuits
    assert (circuit.wire_size, circuit.breaker_a, circuit.protection) == ("10", 35.0, "gfci")
    assert [kind for kind in ("disconnect", "equipment") if sum(b.kind == kind for b in job.boxes) != 1] == []
    assert job.ways[-1].legs[-1].method == "LFNC", "a whip is flexible"
    assert plan(job).stops == 0
    assert plan(job).circuits[0].summary.load_a == pytest.approx(21.5 / 1.25, abs=0.01)


def test_a_breaker_that_was_said_at_the_disconnect_stays() -> None:
    job = built("from H 20' wall to disconnect on a 25a breaker, 5' whip to heat pump mca 14 max 30", HOUSE)
    assert job.circuits[0].breaker_a == 25.0


@pytest.mark.parametrize(("said", "wants"), [("sub-panel S 100a", 100.0), ("sub-panel S", 60.0)])
def test_a_feeder_is_as_large_as_the_panel_that_it_feeds(said: str, wants: float) -> None:
    job = built(f"{said} in the basement", HOUSE)
    for line in ("feed S from H", "from H 30' basement in ser to S"):
        assert built(line, job).circuits[0].breaker_a == wants
    assert built("feed S from H 60a", job).circuits[0].breaker_a == 60.0


def test_each_switch_has_lights_of_its_own() -> None:
    job = read_text(
        "cabin 16' x 20'\npanel C 60a 8 spaces on the north wall\ndoor on the south wall\n"
        "light in the middle of the ceiling with a switch by the door\nporch light with a switch by the door\n"
        "put the lights on a 15 amp circuit\n"
    )
    kinds = {box.name: (box.kind, box.outdoors) for box in job.boxes}
    (own,) = hops(job)
    fed = {to: start for start, to in own}
    lights = [name for name, (kind, _) in kinds.items() if kind == "light"]
    switches = {fed[name] for name in lights}
    assert len(lights) == len(switches) == 2 and all(kinds[name][0] == "switch" for name in switches)
    assert not found(job, "box-in-box") and plan(job).stops == 0


@pytest.mark.parametrize(
    ("typed", "at", "word"),
    [
        ("from H 20' stud wall to bath outlet, 6' stud w", "stud w", "stud wall"),
        ("from H 20' stud wall to bath outlet then 6' stud wall to bath li", "li", "light"),
        ("from H 20' stud wall to bath outlet, 6' stud wall to wat", "wat", "water heater"),
        ("from H 8' up the wall, 24' att", "att", "attic"),
    ],
)
def test_the_line_that_is_being_typed_is_completed(typed: str, at: str, word: str) -> None:
    found, options = suggest_words(Scene(job=HOUSE, book=job_book(HOUSE), verb="from"), typed, "runs")
    assert word in options and found == typed.rindex(at)
