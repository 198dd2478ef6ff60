"""Ticks of the list: which of them hold, and what was bought by them."""

from __future__ import annotations

from collections.abc import Iterable

from levelrun.core.job import Job, Purchase

Ticked = tuple[str, str, float]
DONE = ("bought", "received")


def latest(job: Job) -> dict[Ticked, Purchase]:
    """The tick that holds of each thing, supplier and pack: the latest by its time, of equal ones the last."""
    found: dict[Ticked, Purchase] = {}
    for tick in job.purchases:
        key = (tick.item, tick.supplier, tick.pack)
        if key not in found or tick.at >= found[key].at:
            found[key] = tick
    return found


def bought_of(ticks: Iterable[Purchase]) -> dict[str, list[Purchase]]:
    """What was bought and not taken back, by the thing."""
    found: dict[str, list[Purchase]] = {}
    for tick in ticks:
        if tick.state in DONE and tick.amount and tick.supplier:
            found.setdefault(tick.item, []).append(tick)
    return found
