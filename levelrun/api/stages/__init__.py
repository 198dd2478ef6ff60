"""The views of the stages: one file a subject, each a Pydantic model of the plan and of what is looked at."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache
from typing import TYPE_CHECKING, Annotated, Any, Literal

from fastapi import APIRouter, Query, Request, Response
from pydantic import BaseModel

from levelrun.api.common import JobId, jobs_of, json_answer
from levelrun.api.looking import Look, Planned, forget, planned_of
from levelrun.api.stages import boxes, buy, circuits, pipe, rough_in, runs, start, test, trench, walls
from levelrun.api.stages.boxes import BoxesView, boxes_view
from levelrun.api.stages.buy import BuyView, buy_view
from levelrun.api.stages.circuits import CircuitsView, DirectoryView, circuits_view, directory_view
from levelrun.api.stages.pipe import PipeView, pipe_view
from levelrun.api.stages.rough_in import RoughInView, rough_in_view
from levelrun.api.stages.runs import RunsView, runs_view
from levelrun.api.stages.test import TestView, test_view
from levelrun.api.stages.trench import OutsideView, outside_view
from levelrun.api.stages.walls import WallsView, walls_view

VIEWS: dict[str, tuple[type[BaseModel], Callable[[Planned, Look], BaseModel]]] = {
    "walls": (WallsView, walls_view),
    "boxes": (BoxesView, boxes_view),
    "circuits": (CircuitsView, circuits_view),
    "runs": (RunsView, runs_view),
    "pipe": (PipeView, pipe_view),
    "trench": (OutsideView, outside_view),
    "buy": (BuyView, buy_view),
    "rough_in": (RoughInView, rough_in_view),
    "test": (TestView, test_view),
    "directory": (DirectoryView, directory_view),
}
if TYPE_CHECKING:
    StageName = str
else:
    StageName = Literal[tuple(VIEWS)]

router = APIRouter()
for _subject in (walls, boxes, circuits, runs, pipe, trench, buy, rough_in, test, start):
    router.include_router(_subject.router)


@lru_cache(maxsize=16)
def view_of(planned: Planned, stage: str, look: Look) -> BaseModel:
    """The view of a stage. The last ones are kept: the next answer is what changed from them."""
    return VIEWS[stage][1](planned, look)


def forget_views() -> None:
    """Makes every view anew: something that they hang on, and no edit, has changed."""
    forget()
    view_of.cache_clear()


def _route(stage: str) -> Callable[..., Any]:
    def stage_view(request: Request, job_id: JobId, look: Annotated[Look, Query()]) -> Response:
        record = jobs_of(request).get(job_id)
        return json_answer(request, view_of(planned_of(record.job), stage, look), record.revision)

    stage_view.__doc__ = f"The view of {stage}: what `look` names whole, all else as rows."
    return stage_view


for _stage, (_model, _) in VIEWS.items():
    router.add_api_route(
        f"/api/jobs/{{job_id}}/stages/{_stage}",
        _route(_stage),
        response_model=_model,
        tags=["stages"],
        operation_id=f"stage_{_stage}",
    )
