"""plan(job, codebook) -> Plan: the one way from what the user said to all that follows."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.boxes.planned import Building, plan_building
from levelrun.core.boxes.room_plan import RoomPlanned
from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.entering import from_circuits
from levelrun.core.circuits.planned import LooseBox, PanelPlan, plan_wiring
from levelrun.core.codebook import Codebook
from levelrun.core.findings import SEVERITY_ORDER, Finding
from levelrun.core.job import Job, job_book
from levelrun.core.runs.entering import from_runs
from levelrun.core.runs.planned import RunPlan, RunSummary, contexts, leg_alternatives, plan_run

__all__ = [
    "Plan",
    "RuleChange",
    "RunPlan",
    "RunSummary",
    "compare",
    "contexts",
    "job_book",
    "leg_alternatives",
    "names_of",
    "plan",
    "plan_run",
    "plan_whole",
]


@dataclass(frozen=True, kw_only=True)
class Plan:
    """The whole plan of a job."""

    rules: str
    rules_title: str
    summaries: list[RunSummary]
    runs: list[RunPlan]
    rooms: list[RoomPlanned]
    circuits: list[CircuitPlan]
    panels: list[PanelPlan]
    loose: list[LooseBox]
    findings: list[Finding]
    stops: int
    checks: int


def plan(job: Job, book: Codebook | None = None) -> Plan:
    """Plans a whole job. What did not change is not computed again."""
    return plan_whole(job, book or job_book(job))[0]


def plan_whole(job: Job, book: Codebook) -> tuple[Plan, Building]:
    """The plan, and the building with what its rooms were planned from, for drawing."""
    runs = [plan_run(book, context) for context in contexts(job)]
    entering = from_runs(book, job)
    for box, items in from_circuits(book, job).items():
        entering.setdefault(box, []).extend(items)
    building = plan_building(job, book, entering)
    wiring = plan_wiring(job, book, building.contexts)
    said = [*(item for run in runs for item in run.findings), *building.findings, *wiring.findings]
    findings = sorted(said, key=lambda item: SEVERITY_ORDER[item.severity])
    planned = Plan(
        rules=book.rules,
        rules_title=book.title,
        summaries=[run.summary for run in runs],
        runs=runs,
        rooms=building.rooms,
        circuits=wiring.circuits,
        panels=wiring.panels,
        loose=wiring.loose,
        findings=findings,
        stops=sum(item.severity == "stop" for item in findings),
        checks=sum(item.severity == "check" for item in findings),
    )
    return planned, building


@dataclass(frozen=True, kw_only=True)
class RuleChange:
    """A finding that comes or goes when the rules change. `way` is comes or goes."""

    way: str
    run: str
    run_name: str
    leg: int | None
    severity: str
    title: str
    section: str


def compare(before: Job, after: Job) -> list[RuleChange]:
    """Findings that differ between two states of a job, notes left out: what goes first, then what comes."""
    names = {**names_of(before), **names_of(after)}
    old, new = plan(before).findings, plan(after).findings
    found: list[RuleChange] = []
    for way, these, those in (("goes", old, new), ("comes", new, old)):
        known = {_same(item) for item in those}
        found += [
            RuleChange(
                way=way,
                run=f.subject,
                run_name=names[f.subject],
                leg=f.leg,
                severity=f.severity,
                title=f.title,
                section=f.section,
            )
            for f in these
            if f.severity != "note" and _same(f) not in known
        ]
    return found


def names_of(job: Job) -> dict[str, str]:
    """What each part of a job is called, by its id."""
    named = (*job.structures, *job.rooms, *job.nodes, *job.circuits)
    runs = {run.id: f"{run.circuit} {run.name}".strip() for run in job.runs}
    return {**{item.id: item.name for item in named}, **runs}


def _same(item: Finding) -> tuple[str, str, int | None, str]:
    return (item.subject, item.code, item.leg, item.limit)
