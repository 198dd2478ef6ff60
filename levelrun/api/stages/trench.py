"""The view of Trench: all between buildings as rows, the yard drawn, the one looked at whole; all for the sheets."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Any

from fastapi import APIRouter, Query, Request
from fastapi.responses import Response
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from levelrun.api.common import FILE_BODY, JobId, attachment, jobs_of
from levelrun.api.looking import ORDER, Look, Planned, planned_of
from levelrun.core.job import Trench
from levelrun.core.measure import shown_in
from levelrun.core.trench.drawn import (
    YardDrawing,
    YardLine,
    YardMark,
    meter_marks,
    reading_marks,
    yard_drawing,
)
from levelrun.core.trench.feeding import crossing_hops
from levelrun.core.trench.planned import (
    GroundPlan,
    LineSummary,
    SpanPlan,
    TrenchPlan,
    ground_plan,
    rows_of,
    span_plan,
    trench_plan,
)
from levelrun.core.trench.walked import Walked, walked_out
from levelrun.exchange.dxf_yard import read_yard, write_yard

router = APIRouter(prefix="/api", tags=["trench"])


class OutsideView(BaseModel):
    """Trenches, spans, electrodes and holds as rows, worst first within each; the yard; the one looked at whole."""

    rows: list[LineSummary]
    yard: YardDrawing
    trench: TrenchPlan | None
    span: SpanPlan | None
    ground: GroundPlan | None
    loose: list[str]
    walked: list[Walked]


class OutsideSheet(BaseModel):
    """All trenches, spans and electrodes whole, with the yard: for print."""

    yard: YardDrawing
    trenches: list[TrenchPlan]
    spans: list[SpanPlan]
    grounds: list[GroundPlan]


def outside_view(planned: Planned, look: Look) -> OutsideView:
    """The view of Trench: what is asked for, else the worst of all."""
    outside, said = planned.plan.outside, planned.plan.findings
    with shown_in(planned.book.units):
        rows = rows_of(outside, said)
    chosen = _chosen(rows, look.line or _of_way(planned, look.way))
    kind = chosen.kind if chosen else ""
    return OutsideView(
        rows=rows,
        yard=_yard(planned, rows),
        trench=trench_plan(outside, chosen.id, said) if chosen and kind in ("trench", "hold") else None,
        span=span_plan(outside, chosen.id) if chosen and kind == "span" else None,
        ground=ground_plan(outside, chosen.id) if chosen and kind == "ground" else None,
        loose=_loose(planned),
        walked=_walked(planned),
    )


def _chosen(rows: Iterable[LineSummary], wanted: str | None) -> LineSummary | None:
    own = [row for row in rows if row.kind != "hold"]
    exact = [row for row in own if row.id == wanted]
    return next(iter(exact), None) or min(own, key=lambda row: ORDER[row.verdict], default=None)


def _of_way(planned: Planned, way: str | None) -> str | None:
    """The trench that a way lies in, where one is looked at."""
    trenches = planned.plan.outside.trenches.items()
    return next((ident for ident, facts in trenches for item in facts.lain if item.way == way), None)


def _yard(planned: Planned, rows: Iterable[LineSummary]) -> YardDrawing:
    job, outside = planned.job, planned.plan.outside
    verdicts = {(row.kind, row.id): (row.verdict, row.text) for row in rows}
    lines = [
        YardLine(
            id=line.id, kind=kind, name=line.name, points=list(line.points), verdict=verdicts[kind, line.id][0],
            text=verdicts[kind, line.id][1], width_in=line.width_in if isinstance(line, Trench) else 0.0,
        )
        for line in job.lines
        for kind in ("trench" if isinstance(line, Trench) else "span",)
    ]  # fmt: skip
    marks = [
        YardMark(kind="rod", id=item.id, at=(item.x_in, item.y_in), text=item.kind.replace("_", " "), fine=True)
        for item in job.electrodes
        if item.kind in ("rod", "plate")
    ]
    marks += meter_marks(job)
    with shown_in(planned.book.units):
        marks += [mark for facts in outside.trenches.values() for mark in reading_marks(facts)]
        return yard_drawing(job, lines, marks)


def _loose(planned: Planned) -> list[str]:
    """Circuits that cross to another building and are walked nowhere: what may be laid."""
    job = planned.job
    return [c.name for c in job.circuits if any(not hop.path for hop in crossing_hops(job, c))]


def _walked(planned: Planned) -> list[Walked]:
    with shown_in(planned.book.units):
        return list(walked_out(planned.job))


@router.get("/jobs/{job_id}/outside")
def outside_sheet(request: Request, job_id: JobId) -> OutsideSheet:
    """Every trench, span and electrode of a job whole: the trench sheet, the locate ticket, the rod record."""
    planned = planned_of(jobs_of(request).get(job_id).job)
    outside, said = planned.plan.outside, planned.plan.findings
    with shown_in(planned.book.units):
        rows = rows_of(outside, said)
    return OutsideSheet(
        yard=_yard(planned, rows),
        trenches=[trench_plan(outside, ident, said) for ident in outside.trenches],
        spans=[span_plan(outside, ident) for ident in outside.spans],
        grounds=[ground_plan(outside, row.id) for row in rows if row.kind == "ground"],
    )


@router.get("/jobs/{job_id}/yard.dxf")
def yard_dxf(request: Request, job_id: JobId) -> Response:
    """The yard as DXF, in inches: a layer a kind."""
    text = write_yard(jobs_of(request).get(job_id).job)
    return Response(text, media_type="image/vnd.dxf", headers=attachment("yard.dxf"))


class YardFound(BaseModel):
    """Things of the yard of a drawing as the edits that bring them in, all or none."""

    edits: list[dict[str, Any]]
    label: str


@router.post("/dxf/yard", openapi_extra=FILE_BODY)
async def dxf_yard(request: Request, units: Annotated[str, Query(max_length=20)]) -> YardFound:
    """Drives, services and areas from a drawing, by the names of its layers. Nothing is kept: the caller makes the
    edits."""
    parts = await run_in_threadpool(request.app.state.worker.run, read_yard, await request.body(), units)
    edits = [
        {
            "op": "add",
            "kind": "yard",
            "item": {"kind": p.kind, "name": p.kind.capitalize(), "points": p.points, "width_in": p.width_in},
        }
        for p in parts
    ]
    return YardFound(edits=edits, label=f"bring in {len(parts)} things of the yard")
