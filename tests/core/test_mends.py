"""A mend never makes the plan worse: after it the finding is gone, and no stop stands that did not stand before."""

from __future__ import annotations

import pytest

from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.samples import SAMPLES, sample
from tests.conftest import built, edited, one_way
from tests.core.boxes.test_rules import CASES as OF_BOXES
from tests.core.circuits.test_circuit_rules import CASES as OF_CIRCUITS
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


@pytest.mark.parametrize("name", JOBS)
def test_no_mend_makes_a_new_stop(name: str) -> None:
    job = JOBS[name]
    before = stops(job)
    for item in plan(job).findings:
        for mend in item.mends if item.code not in QUESTIONS else ():
            after = stops(edited(job, *mend.edits))
            fresh = {key: found.title for key, found in after.items() if key not in before}
            fresh = {key: title for key, title in fresh.items() if key[0] not in UNCOVERED}
            assert not fresh, (item.code, mend.label, fresh)
