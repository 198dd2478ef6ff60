"""A mend never makes the plan worse: after it the finding is gone, and no stop stands that did not stand before."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.samples import SAMPLES, sample
from tests.conftest import LONG, built, edited, one_way
from tests.core.boxes.test_rules import CASES as OF_BOXES
from tests.core.circuits.test_circuit_rules import CASES as OF_CIRCUITS
from tests.core.test_kept_plans import changed_demo, edits
from tests.core.ways.test_plan_way import CASES as OF_RUNS

JOBS: dict[str, Job] = (
    {f"circuits {code}": job for code, job in OF_CIRCUITS.items()}
    | {f"runs {code}": one_way(text, **circuit) for code, (text, circuit) in OF_RUNS.items()}
    | {f"boxes {code}": built(text) for code, text in OF_BOXES.items()}
    | {f"sample {key}": sample(key) for key in SAMPLES}
)
# What a mend may bring to light, because it was hidden behind what it mends.
UNCOVERED = {"size-unknown", "circuit-unplaced", "panel-short"}
# Questions: what is answered may be the bad news.
QUESTIONS = {"roof-heat", "service-unsaid"}


def stops(job: Job) -> dict[tuple[str, str], Finding]:
    return {(item.code, item.subject): item for item in plan(job).findings if item.severity == "stop"}


def made_by(job: Job, mend: Mend) -> dict[tuple[str, str], str]:
    """The stops that stand after a mend and did not stand before."""
    before, after = stops(job), stops(edited(job, *mend.edits))
    fresh = {key: found.title for key, found in after.items() if key not in before}
    return {key: title for key, title in fresh.items() if key[0] not in UNCOVERED}


@pytest.mark.parametrize("name", JOBS)
def test_no_mend_makes_a_new_stop(name: str) -> None:
    job = JOBS[name]
    for item in plan(job).findings:
        for mend in item.mends if item.code not in QUESTIONS else ():
            assert not made_by(job, mend), (item.code, mend.label)


@settings(max_examples=LONG or 10, suppress_health_check=list(HealthCheck))
@given(changes=st.lists(edits(), min_size=1, max_size=4), pick=st.randoms(use_true_random=False))
def test_no_mend_of_any_job_makes_a_new_stop_or_leaves_its_finding(changes: list[dict[str, Any]], pick: Any) -> None:
    job = changed_demo(changes)
    offered = [(f, m) for f in plan(job).findings for m in f.mends if f.code not in QUESTIONS]
    for item, mend in pick.sample(offered, min(len(offered), 10)):
        assert not made_by(job, mend), (item.code, mend.label)
        left = {(f.code, f.subject, f.leg, f.title, f.measured) for f in plan(edited(job, *mend.edits)).findings}
        assert (item.code, item.subject, item.leg, item.title, item.measured) not in left, (item.code, mend.label)
