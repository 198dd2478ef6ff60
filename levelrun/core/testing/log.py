"""The log: every reading in the order it was taken, and what was not tested."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.job import Measured
from levelrun.core.testing.planned import Proof
from levelrun.core.testing.steps import INSULATION_READY, Step
from levelrun.core.testing.verdicts import verdict_of

NOT_TESTED = "not tested"
OPTIONAL = (INSULATION_READY, "insulation")


@dataclass(frozen=True, kw_only=True)
class LogRow:
    """A reading as it is signed off; of a step that nobody did its verdict is `not tested`."""

    of: str
    name: str
    step: str
    title: str
    reading: str
    unit: str
    low: float | None
    high: float | None
    verdict: str
    text: str
    meter: str
    on: str
    hour: str
    who: str
    remarks: str


def log_of(testing: Proof) -> list[LogRow]:
    """Circuit by circuit, then panels: what was read, then what was not."""
    return list(_rows(testing))


def _rows(testing: Proof) -> Iterator[LogRow]:
    job = testing.job
    for of in [*(c.id for c in job.circuits), *(p.id for p in job.panels)]:
        steps = {step.key: step for step in testing.steps(of)}
        read = [item for item in job.measured if item.of == of]
        for item in read:
            yield _row(testing, of, steps.get(item.step), item)
        done = {item.step for item in read}
        for key, step in steps.items():
            if key not in done and key not in OPTIONAL:
                yield _row(testing, of, step, None)


def _row(testing: Proof, of: str, step: Step | None, item: Measured | None) -> LogRow:
    said = verdict_of(step, item) if step is not None else None
    if item is None:
        reading = ""
    elif step is not None and item.value is None:
        reading = step.words[0] if item.word == "yes" else step.words[1]
    else:
        reading = item.word or f"{item.value:g}"
    return LogRow(
        of=of, name=testing.names[of], step=step.key if step else item.step if item else "",
        title=step.title if step else "a step that is no longer there", reading=reading,
        unit=step.unit if step else "", low=step.low if step else None, high=step.high if step else None,
        verdict=NOT_TESTED if item is None else (said.verdict if said else ""), text=said.text if said else "",
        meter=item.meter if item else "", on=item.on if item else "", hour=item.hour if item else "",
        who=item.who if item else "", remarks=item.remarks if item else "",
    )  # fmt: skip
