"""What is said of readings: outside of their window, a ghost, a tester that nobody proved."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding
from levelrun.core.job import Job, Measured
from levelrun.core.testing.codes import finding
from levelrun.core.testing.steps import Step
from levelrun.core.testing.verdicts import verdict_of


@dataclass(frozen=True)
class ReadFacts:
    """What was read of each circuit and panel: its steps, its name, the last reading of each step."""

    book: Codebook
    job: Job
    steps: Mapping[str, Sequence[Step]]
    names: Mapping[str, str]
    last: Mapping[str, Mapping[str, Measured]]


def reading_rule(facts: ReadFacts) -> Iterator[Finding]:
    """A reading outside of its window."""
    panels = {panel.id for panel in facts.job.panels}
    for of, steps in facts.steps.items():
        last = facts.last[of]
        for step in steps:
            said = verdict_of(step, last.get(step.key))
            if said.verdict not in ("stop", "check") or (said.verdict == "check" and step.key != "dead"):
                continue
            window = "" if step.high is None else f"{step.low:.4g} to {step.high:.4g} {step.unit}"
            value = last[step.key].value
            yield finding(
                "reading-off" if said.verdict == "stop" else "ghost-voltage",
                of,
                None,
                f"{facts.names[of]}: {step.title}",
                said.text,
                step.section or "common practice, no source",
                measured="" if value is None else f"{value:g} {step.unit}",
                limit=window,
                about="panel" if of in panels else "circuit",
            )


def proved_rule(facts: ReadFacts) -> Iterator[Finding]:
    """Dead by a tester that was not proved before and after."""
    for of, steps in facts.steps.items():
        last = facts.last[of]
        if "dead" not in last or not any(step.key == "dead" for step in steps):
            continue
        missing = [key for key in ("tester", "again") if last.get(key) is None or last[key].word != "yes"]
        if missing:
            told = {"tester": "before", "again": "after"}
            yield finding(
                "not-proved",
                of,
                None,
                f"{facts.names[of]}: read dead, the tester not proved {' and '.join(told[key] for key in missing)}",
                "A dead tester says dead. Until it is proved both times, take the wires as live.",
                "NFPA 70E 120.5",
                about="circuit",
            )


RULES = (reading_rule, proved_rule)
