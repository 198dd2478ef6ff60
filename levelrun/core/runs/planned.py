"""Runs planned: each with what it touches, kept for as long as nothing of that changes."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.job import Box, Job, Panel, Run
from levelrun.core.measure import show, show_inches, shown_in
from levelrun.core.rulebook import judged, keeping
from levelrun.core.runs.alternatives import Alternative, alternatives
from levelrun.core.runs.drawn import Strip, strip_of
from levelrun.core.runs.facts import RunContext, RunView, Upstream
from levelrun.core.runs.fittings import fittings
from levelrun.core.runs.holding import Held, held
from levelrun.core.runs.lengths import Cut, cuts_of
from levelrun.core.runs.pulls import Pull, pulls_of
from levelrun.core.runs.rules import circuit, path, place
from levelrun.core.runs.voltage import run_drop
from levelrun.core.runs.walk import WalkLeg, write_leg
from levelrun.core.site.geometry import Point
from levelrun.core.site.spots import spots

RULES = (*path.RULES, *place.RULES, *circuit.RULES)


@dataclass(frozen=True, kw_only=True)
class LegPlan:
    """One leg as planned. Inches; `remark` is the short last word of its row, `verdict` its colour."""

    index: int
    text: str
    length_text: str
    depth_text: str
    place_title: str
    method_name: str
    end_name: str
    verdict: str
    remark: str
    held: Held
    cover_in: float | None
    pull: int | None
    facts: dict[str, str | float | bool | None]
    figures: list[Figure]
    fittings: list[str]


@dataclass(frozen=True, kw_only=True)
class RunSummary:
    """A row of the run list."""

    id: str
    name: str
    circuit: str
    group: str
    verdict: str
    stops: int
    checks: int
    length_in: float
    length_text: str


@dataclass(frozen=True, kw_only=True)
class RunPlan:
    """Everything that follows for one run."""

    summary: RunSummary
    legs: list[LegPlan]
    pulls: list[Pull]
    cuts: list[Cut]
    figures: list[Figure]
    findings: list[Finding]
    strip: Strip
    walk: str


def contexts(job: Job) -> list[RunContext]:
    """For each run what it touches: its boxes and panels, their structures, and the runs before it."""
    nodes: dict[str, Panel | Box] = {node.id: node for node in job.nodes}
    feeding: dict[str, Run] = {}
    for run in job.runs:
        for leg in run.legs:
            if leg.end.node and leg.end.node not in feeding:
                feeding[leg.end.node] = run
    where = spots(job)
    return [_context(job, run, nodes, feeding, where) for run in job.runs]


def _context(
    job: Job, run: Run, nodes: dict[str, Panel | Box], feeding: dict[str, Run], where: dict[str, Point]
) -> RunContext:
    touched = dict.fromkeys([run.start, *(leg.end.node for leg in run.legs if leg.end.node)])
    own = tuple(nodes[node] for node in touched)
    used = dict.fromkeys(node.structure for node in own)
    upstream, group = _upstream(run, nodes, feeding)
    return RunContext(
        run=run,
        habits=job.habits,
        structures=tuple(item for item in job.structures if item.id in used),
        nodes=own,
        upstream=upstream,
        group=group,
        spots=tuple((node, where[node]) for node in touched if node in where),
    )


def _upstream(run: Run, nodes: dict[str, Panel | Box], feeding: dict[str, Run]) -> tuple[tuple[Upstream, ...], str]:
    """The chain of runs back to the first panel; the group is the panel that the run hangs on."""
    chain: list[Upstream] = []
    seen = {run.id}
    node = run.start
    group = ""
    while True:
        at = nodes[node]
        if isinstance(at, Panel) and not group:
            group = at.name
        before = feeding.get(node)
        if before is None or before.id in seen:
            break
        seen.add(before.id)
        chain.append(_stretch(before, node, feeder=bool(group)))
        node = before.start
    return tuple(chain), group or "No panel yet"


def _stretch(run: Run, node: str, feeder: bool) -> Upstream:
    length = 0.0
    for leg in run.legs:
        length += leg.length_in
        if leg.end.node == node:
            break
    return Upstream(
        name=run.name,
        volts=run.volts,
        breaker_a=run.breaker_a,
        load_a=run.load_a,
        length_ft=length / 12,
        size=run.wire_size,
        material=run.material,
        feeder=feeder,
    )


@keeping(2048)
def plan_run(book: Codebook, context: RunContext) -> RunPlan:
    """Plans one run. Kept for as long as nothing that it touches changes."""
    view = RunView(book, context)
    found = judged(book, RULES, view)
    pulls = pulls_of(view)
    holds = [held(view, i) for i in range(len(view.run.legs))]
    by_leg = [worst([f for f in found if f.covers(i)]) for i in range(len(view.run.legs))]
    drops = run_drop(view)
    legs = [_leg(view, i, by_leg[i], holds[i], found, pulls) for i in range(len(view.run.legs))]
    return RunPlan(
        summary=_summary(view, found),
        legs=legs,
        pulls=pulls,
        cuts=cuts_of(view),
        figures=[drops.as_loaded, drops.at_breaker] if drops else [],
        findings=found,
        strip=strip_of(view, by_leg, holds, pulls),
        walk="\n".join(leg.text for leg in legs),
    )


def leg_alternatives(book: Codebook, context: RunContext, index: int) -> list[Alternative]:
    """What may go on one leg of a run."""
    with shown_in(book.units):
        return alternatives(RunView(book, context), index)


def _summary(view: RunView, found: list[Finding]) -> RunSummary:
    length = sum(leg.length_in for leg in view.run.legs)
    return RunSummary(
        id=view.run.id,
        name=view.run.name,
        circuit=view.run.circuit,
        group=view.context.group,
        verdict=worst(found),
        stops=sum(f.severity == "stop" for f in found),
        checks=sum(f.severity == "check" for f in found),
        length_in=length,
        length_text=show(round(length)),
    )


def _leg(view: RunView, index: int, verdict: str, hold: Held, found: list[Finding], pulls: list[Pull]) -> LegPlan:
    leg, facts = view.run.legs[index], view.facts[index]
    needed = place.needed_cover(view, index)
    pull = next((p.index for p in pulls if p.first <= index <= p.last), None)
    return LegPlan(
        index=index,
        text=write_leg(view.book, _as_walk(view, index)),
        length_text=show(leg.length_in),
        depth_text="" if leg.depth_in is None else show_inches(leg.depth_in),
        place_title=facts.title,
        method_name=view.methods[index].name,
        end_name=view.joint_name(index),
        verdict=verdict,
        remark=_remark(view, index, hold, found),
        held=hold,
        cover_in=needed.cover_in if needed and not view.placed[index].vertical else None,
        pull=pull,
        facts={
            "moisture": facts.moisture,
            "exposed": facts.exposed,
            "damage": facts.damage,
            "sunlight": facts.sunlight,
            "ambient_c": facts.ambient_c,
            "insulation": facts.insulation,
            "above": facts.above,
        },
        figures=_cover_figure(view, index),
        fittings=fittings(view, index),
    )


def _cover_figure(view: RunView, index: int) -> list[Figure]:
    """Cover taped against cover needed, for a level leg in the earth."""
    needed, leg = place.needed_cover(view, index), view.run.legs[index]
    if needed is None or leg.depth_in is None or view.placed[index].vertical or not needed.cover_in:
        return []
    run = view.run
    return [
        Figure(
            key=f"cover-{index}",
            label="Cover",
            value=leg.depth_in,
            text=show_inches(leg.depth_in),
            unit="in",
            formula="row by what lies above, the least of the columns that apply",
            inputs={
                "above": view.facts[index].above.replace("_", " "),
                "method": view.methods[index].name,
                "column": needed.column.replace("_", " "),
                "circuit": f"{run.volts} V, {run.breaker_a:g} A, {'' if run.gfci else 'no '}GFCI upstream",
                **({"note": needed.note} if needed.note else {}),
            },
            rule=needed.rule,
            basis=view.book.table("300-5-cover").head.basis,
            limit=needed.cover_in,
            limit_text=show_inches(needed.cover_in),
            low_is_bad=True,
            beyond_text=f"{show_inches(needed.cover_in - leg.depth_in)} short"
            if leg.depth_in < needed.cover_in
            else "",
        )
    ]


def _remark(view: RunView, index: int, hold: Held, found: list[Finding]) -> str:
    own = [f for f in found if f.covers(index) and f.severity != "note"]
    if own and own[0].code in ("cover-short", "cover-missing"):
        return f"cover {own[0].measured}, needs {own[0].limit}"
    if own:
        return own[0].title
    leg = view.run.legs[index]
    if leg.depth_in is not None and not view.placed[index].vertical:
        return f"{show_inches(leg.depth_in)} deep"
    return hold.text


def _as_walk(view: RunView, index: int) -> WalkLeg:
    leg = view.run.legs[index]
    return WalkLeg(
        go=leg.go,
        length_in=leg.length_in,
        place=leg.place,
        method=leg.method,
        size=leg.size or None,
        depth_in=leg.depth_in,
        to=view.joint_name(index) or None,
        bends_deg=leg.bends_deg,
        sleeve=leg.sleeve,
        met=leg.met,
        expansion=leg.expansion,
        ribbon=leg.ribbon,
        facts={key: value for key, value in leg.facts.model_dump().items() if value is not None},
    )
