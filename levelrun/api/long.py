"""What takes long, as functions that the worker process finds without the web around them."""

from __future__ import annotations

from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from dataclasses import dataclass
from queue import Empty, Queue
from time import monotonic

from levelrun.core.circuits.proposer import Proposal, proposing
from levelrun.core.job import Job, job_book
from levelrun.core.others.weighed import Weighed, weighing
from levelrun.core.plan import plan_whole
from levelrun.core.trade.coils import Coil, CoilPlan, planned
from levelrun.core.ways.ordering import distances


def proposed(job: Job) -> Iterator[tuple[int, Proposal]]:
    """Circuits for the boxes that are on none, one by one, each with the count of all."""
    book = job_book(job)
    return proposing(job, book, plan_whole(job, book)[1].contexts, distances(job, book))


def weighed_ways(job: Job) -> Iterator[tuple[int, Weighed]]:
    """The job as planned, then its other ways, each with the count of all."""
    return weighing(job)


@dataclass(frozen=True)
class ProvingPart:
    """How far a search for coils is, and at its end the plan."""

    share: float
    text: str
    plan: CoilPlan | None = None


SECONDS, MOST_SETS = 15.0, 5000


def proving(
    cuts: tuple[float, ...], coils: tuple[Coil, ...], foot: float | None, have: tuple[float, ...]
) -> Iterator[ProvingPart]:
    """The cheapest coils searched at leisure, with how far it is: twice a second while it works."""
    started, parts = monotonic(), Queue[ProvingPart]()

    def told(share: float, text: str) -> None:
        parts.put(ProvingPart(share, text))

    with ThreadPoolExecutor(1) as pool:
        found = pool.submit(
            planned, cuts, coils, foot, have, MOST_SETS, lambda: monotonic() - started > SECONDS, told
        )  # fmt: skip
        while not found.done():
            with suppress(Empty):
                part = parts.get(timeout=0.5)
                while not parts.empty():
                    part = parts.get()
                yield part
        yield ProvingPart(1.0, "done", found.result())


def ready() -> str:
    """Loads what the first work would wait for; the unit of it that takes longest."""
    import ezdxf

    return str(ezdxf.__name__)
