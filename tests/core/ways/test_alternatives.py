"""What else may go on a leg: ranked, priced, and true to the verdicts when it is taken."""

from __future__ import annotations

import pytest

from levelrun.core.codebook import Codebook
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan, way_contexts
from levelrun.core.ways.alternatives import Alternative, alternatives, cost
from levelrun.core.ways.facts import WayView
from levelrun.samples import SAMPLES, sample
from tests.conftest import edited, one_way

ORDER = {"yes": 0, "if": 1, "no": 2}
LEGS = {
    "attic": "over 20' attic in 12-2 to C-1",
    "trench": "over 20' trench 24\" deep in pvc40 3/4 to C-1",
    "outside wall": "over 10' outside in pvc80 3/4 to C-1",
    "shop wall": "over 10' shop wall in emt 1/2 to C-1",
    "crawl space": "over 10' crawl in 12-2 to C-1",
    "roof": "over 10' roof raised 4\" in emt 3/4 to C-1",
    "equipment": "over 4' tail in lfmc 1/2 to C-1",
}


def options(job: Job, leg: int = 0) -> list[Alternative]:
    return alternatives(WayView(job_book(job), way_contexts(job, job_book(job))[0]), leg)


@pytest.mark.parametrize("place", LEGS)
def test_yes_before_if_before_no_and_the_one_there_is_marked(place: str) -> None:
    job = one_way(LEGS[place])
    found = options(job)
    verdicts = [ORDER[item.verdict] for item in found]
    assert verdicts == sorted(verdicts)
    assert [item.method for item in found if item.current] == [job.ways[0].legs[0].method]
    assert len({item.method for item in found}) == len(found) == 16
    for item in found:
        assert item.section and item.text
        assert (item.mend is None) is (item.current or item.verdict == "no" or item.dollars is None)


@pytest.mark.parametrize("place", LEGS)
def test_what_is_taken_is_there_and_judged_as_it_was_said(place: str) -> None:
    job = one_way(LEGS[place])
    for item in options(job):
        if item.mend is None:
            continue
        taken = edited(job, *item.mend.edits)
        assert taken.ways[0].legs[0].method == item.method
        codes = {finding.code for finding in plan(taken).findings if finding.leg == 0}
        assert "method-not-allowed" not in codes, item.name
        assert item.verdict == "yes" or "method-condition" in codes or item.verdict == "if", item.name
        if item.verdict == "yes":
            assert "method-condition" not in codes, item.name


@pytest.mark.parametrize("place", LEGS)
def test_twice_the_leg_costs_twice(place: str) -> None:
    short = options(one_way(LEGS[place]))
    feet = LEGS[place].split("'")[0].split()[-1]
    long = options(one_way(LEGS[place].replace(f"{feet}'", f"{2 * int(feet)}'", 1)))
    prices = {item.method: (item.dollars, item.minutes) for item in long}
    for item in short:
        dollars, minutes = prices[item.method]
        if item.dollars is not None and dollars is not None:
            assert dollars == pytest.approx(2 * item.dollars)
            assert minutes == pytest.approx(2 * (item.minutes or 0.0))


def test_a_bigger_pipe_and_a_thicker_cable_cost_more(book: Codebook) -> None:
    job = one_way("over 20' attic in emt 3/4 to C-1")
    view = WayView(book, way_contexts(job, job_book(job))[0])
    pipes = [cost(view, 0, "EMT", size) for size in ("1/2", "3/4", "1", "1-1/4", "2")]
    cables = [cost(view, 0, "NM-B", f"{size}-2") for size in ("14", "12", "10", "8", "6")]
    assert pipes == sorted(pipes) and cables == sorted(cables)
    assert cost(view, 0, "NM-B", "12-3") > cost(view, 0, "NM-B", "12-2")
    assert cost(view, 0, "NM-B", "12-2") == pytest.approx(20 * 0.80), "the foot price of the table"


@pytest.mark.parametrize("key", SAMPLES)
def test_every_leg_of_every_sample_has_its_alternatives(key: str) -> None:
    job = sample(key)
    for context in way_contexts(job, job_book(job)):
        view = WayView(job_book(job), context)
        for index in range(len(context.way.legs)):
            assert any(item.current for item in alternatives(view, index))
