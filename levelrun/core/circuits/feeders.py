"""Which circuit feeds which panel."""

from __future__ import annotations

from collections.abc import Mapping

from levelrun.core.job import Circuit, Job
from levelrun.core.kept import Standing

_feeders = Standing[Mapping[str, Circuit]](1)


def feeders_of(job: Job) -> Mapping[str, Circuit]:
    """The feeder of each panel that has one, by the panel's id; the first where two are said to feed it."""
    return _feeders.get(0, (job.circuits,), lambda: {c.feeds: c for c in reversed(job.circuits) if c.feeds})
