"""The view of Pipe: every pull as a row, the one looked at whole; all pulls for the sheets; the cut list as CSV."""

from __future__ import annotations

from collections.abc import Iterator

from fastapi import APIRouter, Request
from fastapi.responses import Response
from pydantic import BaseModel

from levelrun.api.common import JobId, attachment, jobs_of
from levelrun.api.looking import ORDER, Look, Planned, planned_of, worst_first
from levelrun.core.findings import SEVERITY_ORDER, Finding
from levelrun.core.measure import shown_in
from levelrun.core.pipe.cut_rows import CutRow, cut_rows
from levelrun.core.pipe.planned import PullPlan, PullSummary, has_pipe, judge_pipe, plan_pull, summaries
from levelrun.core.ways.facts import WayContext
from levelrun.exchange.cut_list import write_cut_list

router = APIRouter(prefix="/api/jobs", tags=["pipe"])


class PipeRow(BaseModel):
    """A pull as a row, under what it carries. drawn: the frame gave its way, nobody walked it."""

    way: str
    group: str
    index: int
    name: str
    verdict: str
    length_in: float
    length_text: str
    drawn: bool


class PipeView(BaseModel):
    """Every pull under what it carries, what holds the worst first; the one looked at whole. `drawn`: its way drew
    itself, and is kept before it is changed; `keep`: the edit that does."""

    pulls: list[PipeRow]
    pull: PullPlan | None
    drawn: bool
    keep: dict[str, str] | None


class _Piped:
    """A way with pipe in it, and all that is said of it."""

    def __init__(self, planned: Planned, context: WayContext, said: list[Finding], drawn: bool) -> None:
        self.context, self.drawn = context, drawn
        self.said = tuple(
            sorted([*said, *judge_pipe(planned.book, context)], key=lambda f: SEVERITY_ORDER[f.severity])
        )
        self.rows = summaries(planned.book, context, self.said)


def _piped(planned: Planned) -> Iterator[_Piped]:
    for way, context in zip(planned.plan.ways, planned.plan.walked, strict=True):
        if has_pipe(planned.book, context):
            yield _Piped(planned, context, way.findings, False)
    for one in planned.plan.drawn.ways.values():
        if has_pipe(planned.book, one.context):
            yield _Piped(planned, one.context, [], True)


def pipe_view(planned: Planned, look: Look) -> PipeView:
    """The view of Pipe: the pull asked for, else the worst of its way or circuit, else of all."""
    ways = list(_piped(planned))
    labels = {item.summary.id: item.summary for item in planned.plan.circuits}
    rows: list[tuple[_Piped, PullSummary, PipeRow]] = []
    for item in ways:
        for own in item.rows:
            first = labels.get(own.circuits[0]) if own.circuits else None
            more = f" and {len(own.circuits) - 1} more" if len(own.circuits) > 1 else ""
            group = f"{first.label} {first.name}{more}".strip() if first else own.way_name
            row = PipeRow(
                way=own.way, group=group, index=own.index, name=own.name, verdict=own.verdict,
                length_in=own.length_in, length_text=own.length_text, drawn=item.drawn,
            )  # fmt: skip
            rows.append((item, own, row))
    groups = worst_first((row.group, row.verdict) for _, _, row in rows)
    rows.sort(key=lambda item: groups[item[2].group])
    chosen = _chosen(rows, look)
    if chosen is None:
        return PipeView(pulls=[row for _, _, row in rows], pull=None, drawn=False, keep=None)
    item, own, row = chosen
    keep = None
    if item.drawn:
        found = planned.plan.drawn.ways[own.way].found
        keep = {"op": "keep", "circuit": found.circuit, "box": found.box, "id": own.way}
    return PipeView(
        pulls=[row for _, _, row in rows],
        pull=plan_pull(planned.book, item.context, own.index, item.said),
        drawn=item.drawn,
        keep=keep,
    )


def _chosen(
    rows: list[tuple[_Piped, PullSummary, PipeRow]], look: Look
) -> tuple[_Piped, PullSummary, PipeRow] | None:
    own = [row for row in rows if row[2].way == look.way]
    exact = [row for row in own if str(row[2].index + 1) == look.pull]
    if not exact and look.leg is not None and look.leg.isdecimal():
        exact = [row for row in own if row[1].first < int(look.leg) <= row[1].last + 1]
    of_circuit = [row for row in rows if look.circuit in row[1].circuits] if look.way is None else []
    for some in (exact, own, of_circuit, rows):
        if some:
            return min(some, key=lambda row: ORDER[row[2].verdict])
    return None


@router.get("/{job_id}/pipe")
def pipe_sheet(request: Request, job_id: JobId, way: str | None = None) -> list[PullPlan]:
    """Every pull of a job whole, or those of one way: the stick sheet and the pull sheet."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    return [
        plan_pull(planned.book, item.context, own.index, item.said)
        for item in _piped(planned)
        for own in item.rows
        if way in (None, own.way)
    ]


def rows_of(planned: Planned) -> list[CutRow]:
    """The cut list of a job, stick by stick."""
    with shown_in(planned.book.units):
        return [row for item in _piped(planned) for row in cut_rows(planned.book, item.context)]


@router.get("/{job_id}/cut-list.csv")
def cut_list_csv(request: Request, job_id: JobId) -> Response:
    """The cut list of a job as CSV: a row a piece, stick by stick."""
    text = write_cut_list(rows_of(planned_of(jobs_of(request).get(job_id).job)))
    return Response(text, media_type="text/csv", headers=attachment("cut-list.csv"))
