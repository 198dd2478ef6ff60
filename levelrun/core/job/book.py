"""The rule set that a job goes by: its own, with its local notes laid on."""

from __future__ import annotations

from levelrun.core.codebook import Codebook, LocalRule, as_of, load, with_notes
from levelrun.core.job.whole import Job


def job_book(job: Job, on: str = "") -> Codebook:
    """The job's rule set with its local notes laid on, on a day where one is asked for."""
    rules = (
        LocalRule(key=n.key, value=n.value, who=n.who, when=n.when, why=n.why, approved=n.approved) for n in job.notes
    )
    return as_of(with_notes(load(job.rules), tuple(rules)), on)
