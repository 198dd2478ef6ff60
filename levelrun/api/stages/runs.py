"""The view of Runs: every run as a row, the one looked at whole; what may go on one leg."""

from __future__ import annotations

from fastapi import APIRouter, Request
from pydantic import BaseModel

from levelrun.api.common import JobId, jobs_of
from levelrun.api.looking import ORDER, Look, Planned
from levelrun.core.errors import EditError
from levelrun.core.job import job_book
from levelrun.core.plan import RunPlan, RunSummary, contexts, leg_alternatives
from levelrun.core.runs.alternatives import Alternative

router = APIRouter(prefix="/api/jobs", tags=["runs"])


class RunsView(BaseModel):
    """Runs as rows, the one looked at whole."""

    summaries: list[RunSummary]
    focus: RunPlan | None


def runs_view(planned: Planned, look: Look) -> RunsView:
    """The view of Runs: the run asked for, else the worst."""
    runs = planned.plan.runs
    chosen = next((item for item in runs if item.summary.id == look.run), None)
    worst = min(runs, key=lambda item: ORDER[item.summary.verdict], default=None)
    return RunsView(summaries=planned.plan.summaries, focus=chosen or worst)


@router.get("/{job_id}/runs/{run_id}/legs/{leg}/alternatives")
def alternatives(request: Request, job_id: JobId, run_id: str, leg: int) -> list[Alternative]:
    """What may go on one leg, best first."""
    job = jobs_of(request).get(job_id).job
    for context in contexts(job):
        if context.run.id == run_id and 0 <= leg < len(context.run.legs):
            return leg_alternatives(job_book(job), context, leg)
    raise EditError(f"no leg {leg + 1} of run {run_id!r} in this job", key="leg", value=leg)
