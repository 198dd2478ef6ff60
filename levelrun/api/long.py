"""What takes long, as functions that the worker process finds without the web around them."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.circuits.proposer import Proposal, proposing
from levelrun.core.job import Job, job_book
from levelrun.core.plan import plan_whole
from levelrun.core.ways.ordering import distances
from levelrun.exchange import dxf


def proposed(job: Job) -> Iterator[tuple[int, Proposal]]:
    """Circuits for the boxes that are on none, one by one, each with the count of all."""
    book = job_book(job)
    return proposing(job, book, plan_whole(job, book)[1].contexts, distances(job, book))


def ready() -> str:
    """Loads what the first work would wait for; the unit of it that takes longest."""
    return dxf.__name__
