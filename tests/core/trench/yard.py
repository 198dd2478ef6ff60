"""Yards to test with: a house and a shop, a trench between them, a feeder in it."""

from __future__ import annotations

from typing import Any

from levelrun.core.job import Job
from tests.conftest import edited

FEED = [
    "panel H in house 200a 40 spaces", "panel S in shop 60a 8 spaces",
    "trench house east to shop west 60'", "feed S from H 1 60a wire 6", "lay S feeder in House to Shop",
]  # fmt: skip
BRANCH = [
    "panel H in house 200a 40 spaces", "trench house west to shed east 43'", "set junction at wall in shed named J-9",
]  # fmt: skip
SPAN = [
    "panel H in house 200a 40 spaces", "panel S in shop 60a 8 spaces", "feed S from H 1 60a wire 6",
    "span house east to shop west 18' high and 16' high",
]  # fmt: skip


def yard(*lines: str, name: str = "Yard") -> Job:
    """A job after sentences, one after another."""
    job = Job(name=name)
    for line in lines:
        job = edited(job, {"op": "say", "text": line})
    return job


def said(job: Job, *lines: str) -> Job:
    """The job after more sentences."""
    for line in lines:
        job = edited(job, {"op": "say", "text": line})
    return job


def changed(job: Job, kind: str, **values: Any) -> Job:
    """The job with fields of its first trench, span, electrode or service changed."""
    field = {"trench": "trenches", "span": "spans", "electrode": "electrodes", "service": "services"}[kind]
    part = getattr(job, field)[0]
    return edited(job, {"op": "set", "kind": kind, "id": part.id, "set": values})


def in_air(job: Job | None = None, size: str = "4-3") -> Job:
    """A feeder over the air, hung on its span."""
    job = job or yard(*SPAN)
    house, shop = (panel.id for panel in job.panels)
    text = (
        "up 10' outside in rmc 1-1/4 to J-1 then over 60' overhead in quadplex "
        f"{size} to J-2 then down 8' outside in pvc80 1-1/4 to S"
    )
    job = edited(
        job,
        {"op": "add", "kind": "way", "item": {"id": "air", "name": "Over", "start": house}},
        {"op": "walk", "way": "air", "text": text},
    )
    feeder = job.circuits[0]
    del shop
    job = edited(job, {"op": "route", "circuit": feeder.id, "box": feeder.chain[-1].box, "path": ["air"]})
    return edited(job, {"op": "lay", "along": job.spans[0].id, "way": "air"})
