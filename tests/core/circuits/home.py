"""A small home said in sentences, to hang circuits on: what the tests of circuits and panels start from."""

from __future__ import annotations

from typing import Any

from levelrun.core.job import Job
from tests.conftest import built, edited

HOME = (
    "room Den 14' x 12'; door south 3' at 34\"; set receptacle north 17 5/8\" as R-1; "
    "set receptacle north 6'6 1/8 as R-2; set switch south 80 1/8\" as S-1; set light centre as L-1; "
    "set receptacle north 10'6 outside as O-1; panel west 4' spaces 20 as P; "
    "room Bath 9' x 8' east of Den; door west 2'6 at 2'; set receptacle east 3' as B-1; set light centre as L-2; "
    "room Kitchen 12' x 12' south of Den; mark counter south 10' at 1'; set receptacle south 4' for counter as K-1; "
    "set receptacle north 2' as K-2; set receptacle east 3' for range as RG; set receptacle east 8' for dryer as DR; "
    "set equipment west 3' for generator as GE; set light centre as L-3; set three-way west 8' as S-3; "
    "structure shed Shed at 60' east 0' north; room Store 10' x 8'; panel north 4' spaces 8 sub as Q; "
    "set receptacle east 3' as SH"
)


def home(text: str = "", **panels: dict[str, Any]) -> Job:
    job = built(HOME)
    for name, values in panels.items():
        ident = next(p.id for p in job.panels if p.name == name)
        job = edited(job, {"op": "set", "kind": "panel", "id": ident, "set": values})
    first = next(p.id for p in job.panels if p.name == "P")
    return built(text, job, panel=first, verb="circuit") if text else job


def case(text: str, *sets: tuple[str, str, dict[str, Any]], **panels: dict[str, Any]) -> Job:
    job = home(text, **panels)
    for kind, name, values in sets:
        parts = {"box": job.boxes, "circuit": job.circuits, "panel": job.panels}[kind]
        ident = next(part.id for part in parts if part.name == name)
        job = edited(job, {"op": "set", "kind": kind, "id": ident, "set": values})
    return job
