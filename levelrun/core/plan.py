"""plan(job, codebook) -> Plan: the one line from what the user said to all that follows.

Circuits and what they carry, the ways that their hops take, what enters each box, rooms, circuits judged: each step
knows what the steps before it found, and none goes back.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field

from levelrun.core.boxes.planned import Building, plan_building
from levelrun.core.boxes.room_plan import PlannedRoom
from levelrun.core.buying.planned import Buying
from levelrun.core.buying.takeoff import Found
from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.loads import all_loads
from levelrun.core.circuits.planned import Known, LooseBox, PanelPlan, plan_wiring
from levelrun.core.codebook import Codebook
from levelrun.core.findings import SEVERITY_ORDER, Finding
from levelrun.core.job import Job, job_book
from levelrun.core.kept import Standing
from levelrun.core.pipe.planned import judge_pipe
from levelrun.core.roughin.planned import RoughIn, record_findings
from levelrun.core.testing.planned import Proof
from levelrun.core.trench.planned import Outside, plan_outside
from levelrun.core.ways.contexts import weave
from levelrun.core.ways.drawing import DrawnWay, DrawnWays, drawn_ways, of_circuit
from levelrun.core.ways.entering import entering
from levelrun.core.ways.facts import WayContext
from levelrun.core.ways.lengths import Cut
from levelrun.core.ways.planned import PlannedWay, WayPlan, WaySummary, leg_alternatives, plan_way
from levelrun.core.ways.unwalked import Cuts, unwalked_cuts

__all__ = [
    "Plan",
    "PlannedWay",
    "RuleChange",
    "WayPlan",
    "WaySummary",
    "compare",
    "job_book",
    "leg_alternatives",
    "names_of",
    "plan",
    "plan_way",
    "plan_whole",
    "way_contexts",
]


@dataclass(frozen=True, kw_only=True)
class Plan:
    """The whole plan of a job. `walked`: what each of `ways` was planned from."""

    rules: str
    rules_title: str
    ways: list[PlannedWay]
    walked: list[WayContext]
    drawn: DrawnWays
    outside: Outside = field(compare=False)
    buying: Buying = field(compare=False)
    record: RoughIn = field(compare=False)
    testing: Proof = field(compare=False)
    rooms: list[PlannedRoom]
    circuits: list[CircuitPlan]
    unwalked: dict[str, Cuts]
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
    loads = all_loads(job, book)
    woven = weave(job, book, loads)
    ways = [plan_way(book, context) for context in woven.contexts]
    drawn = drawn_ways(book, job, woven)
    every: list[PlannedWay | DrawnWay] = [*ways, *drawn.ways.values()]
    entered = entering(book, job, woven)
    into = entered.boxes
    building = plan_building(job, book, into)
    known = Known(loads=loads, laid=woven.laid, lies=entered.lies, cuts=_cuts(every))
    wiring = plan_wiring(job, book, building.contexts, known)
    unwalked = unwalked_cuts(book, job, woven.laid, wiring.circuits)
    said = [item for way in every for item in way.findings]
    said += _of_pipe(book, woven.contexts, drawn)
    outside = plan_outside(job, book, woven.contexts)
    buying = Buying(
        job,
        book,
        Found(
            contexts=woven.contexts,
            ways=ways,
            drawn=drawn,
            entering=into,
            circuits=wiring.circuits,
            unwalked=unwalked,
            outside=outside,
        ),
    )
    said += buying.findings if buying.begun else []
    said += record_findings(job, book)
    testing = Proof(job=job, book=book, circuits=wiring.circuits, panels=wiring.panels)
    said += testing.findings if job.measured else []
    said += [*outside.findings, *drawn.findings, *building.findings, *wiring.findings]
    findings = sorted(said, key=lambda item: SEVERITY_ORDER[item.severity])
    planned = Plan(
        rules=book.rules,
        rules_title=book.title,
        ways=ways,
        walked=woven.contexts,
        drawn=drawn,
        outside=outside,
        buying=buying,
        testing=testing,
        record=RoughIn(
            job=job,
            book=book,
            entering=into,
            contexts=building.contexts,
            circuits=wiring.circuits,
            panels=wiring.panels,
            drawn=drawn,
            said=findings,
        ),
        rooms=building.rooms,
        circuits=wiring.circuits,
        unwalked=unwalked,
        panels=wiring.panels,
        loose=wiring.loose,
        findings=findings,
        stops=sum(item.severity == "stop" for item in findings),
        checks=sum(item.severity == "check" for item in findings),
    )
    return planned, building


def _of_pipe(book: Codebook, walked: Sequence[WayContext], drawn: DrawnWays) -> Iterator[Finding]:
    """What is said of pipe as it is bent, cut, hung and pulled."""
    for context in walked:
        yield from judge_pipe(book, context)
    for way in drawn.ways.values():
        found = judge_pipe(book, way.context)
        if found:
            yield from of_circuit(found, way.found)


Pieces = tuple[tuple[str, int, float], ...]
_pieces = Standing[Pieces](2048)


def _cuts(ways: Sequence[PlannedWay | DrawnWay]) -> dict[str, Pieces]:
    """The pieces to cut for each circuit along its ways: what, how many, inches. The same ones while none changes."""
    found: dict[str, list[Cut]] = {}
    for way in ways:
        for cut in way.cuts:
            found.setdefault(cut.circuit, []).append(cut)
    return {
        circuit: _pieces.get(
            circuit,
            tuple(cuts),
            lambda cuts=cuts: tuple((cut.item, cut.pieces, cut.cut_in) for cut in cuts),  # type: ignore[misc]
        )
        for circuit, cuts in found.items()
    }


def way_contexts(job: Job, book: Codebook) -> list[WayContext]:
    """Every way with what lies in it, walked and found."""
    woven = weave(job, book, all_loads(job, book))
    return [*woven.contexts, *(item for own in woven.drawn.values() for item in own)]


@dataclass(frozen=True, kw_only=True)
class RuleChange:
    """A finding that comes or goes when the rules change. `side` is comes or goes."""

    side: str
    subject: str
    name: str
    leg: int | None
    severity: str
    title: str
    section: str


def compare(before: Job, after: Job) -> list[RuleChange]:
    """Findings that differ between two states of a job, notes left out: what goes first, then what comes."""
    names = {**names_of(before), **names_of(after)}
    old, new = plan(before).findings, plan(after).findings
    found: list[RuleChange] = []
    for side, these, those in (("goes", old, new), ("comes", new, old)):
        known = {_same(item) for item in those}
        found += [
            RuleChange(
                side=side,
                subject=f.subject,
                name=names.get(f.subject, f.subject),
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
    named = (*job.structures, *job.rooms, *job.nodes, *job.circuits, *job.ways, *job.lines)
    return {item.id: item.name for item in named}


def _same(item: Finding) -> tuple[str, str, int | None, str]:
    return (item.subject, item.code, item.leg, item.limit)
