"""What lies between buildings, planned: what is said of it for the whole plan, and one line or building whole."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.job import Job, Trench
from levelrun.core.kept import Standing
from levelrun.core.measure import show, show_inches, shown_in
from levelrun.core.rulebook import judged
from levelrun.core.trench import figures
from levelrun.core.trench.costs import Connection, Option, connections_of, earth_of, options_of
from levelrun.core.trench.drawn import LongSection, SpanSection, section_of, span_section
from levelrun.core.trench.electrodes import GroundFacts, grounds_of
from levelrun.core.trench.facts import Lain, TrenchFacts
from levelrun.core.trench.order import TrenchStep, hold_of, steps_of, ticks
from levelrun.core.trench.risers import RiserRow, riser_rows
from levelrun.core.trench.rules import dig, ground, risers, spans
from levelrun.core.trench.rules.spans import SpanFacts
from levelrun.core.trench.yard import ground_along, long_in, yard_of
from levelrun.core.ways.facts import WayContext

RULES = (*dig.RULES, *risers.RULES)


@dataclass(frozen=True, kw_only=True)
class Outside:
    """All that lies between the buildings of a job, with what is said of it: trenches, spans and buildings by id."""

    trenches: dict[str, TrenchFacts]
    spans: dict[str, SpanFacts]
    grounds: dict[str, GroundFacts]
    said: dict[str, tuple[Finding, ...]]

    @property
    def findings(self) -> list[Finding]:
        """All that is said."""
        return [item for own in self.said.values() for item in own]


_said = Standing[tuple[Finding, ...]](512)
_facts = Standing[TrenchFacts](128)


def plan_outside(job: Job, book: Codebook, contexts: Sequence[WayContext]) -> Outside:
    """What lies between buildings. What is said of one stands while nothing that it touches changes."""
    inside: dict[str, list[WayContext]] = {}
    for context in contexts:
        for laid in context.laid:
            inside.setdefault(laid.trench.id, []).append(context)
    ground_ = (job.structures, yard_of(job))
    trenches, spans_, said = dict[str, TrenchFacts](), dict[str, SpanFacts](), dict[str, tuple[Finding, ...]]()
    for trench in job.trenches:
        own = tuple(inside.get(trench.id, ()))
        source = (book, trench, job.holds, job.habits, *ground_, *own)
        facts = _facts.get(
            trench.id, source, lambda t=trench, o=own: TrenchFacts(book, job, t, yard_of(job),
            o)  # type: ignore[misc]
        )  # fmt: skip
        trenches[trench.id] = facts
        said[trench.id] = _said.get(trench.id, (facts,), lambda f=facts: tuple(judged(book, RULES, f)))  # type: ignore[misc]
    for span in job.spans:
        hung = SpanFacts(book, job, span)
        spans_[span.id] = hung
        source = (book, span, job.habits, *ground_, *(way for way, _ in hung.held))
        said[span.id] = _said.get(span.id, source, lambda f=hung: tuple(judged(book, spans.RULES, f)))  # type: ignore[misc]
    grounds: dict[str, GroundFacts] = {}
    for item in grounds_of(book, job):
        key = f"ground {item.structure.id}"
        grounds[item.structure.id] = item
        source = (book, job.circuits, job.panels, job.electrodes, job.services, job.boxes, *ground_)
        said[key] = _said.get(key, source, lambda f=item: tuple(judged(book, ground.RULES, f)))  # type: ignore[misc]
    return Outside(trenches=trenches, spans=spans_, grounds=grounds, said=said)


@dataclass(frozen=True, kw_only=True)
class LineSummary:
    """A trench, a span, a building's electrodes, or a hold as a row."""

    id: str
    kind: str
    name: str
    text: str
    verdict: str


@dataclass(frozen=True, kw_only=True)
class LainRow:
    """A thing in a trench: what it is, what it carries, the cover over it and what it needs, at the worst place."""

    way: str
    way_name: str
    name: str
    carries: str
    cover_text: str
    needed_text: str
    short: bool


@dataclass(frozen=True, kw_only=True)
class TrenchPlan:
    """All of one trench."""

    id: str
    name: str
    long_text: str
    figures: list[Figure]
    lain: list[LainRow]
    section: LongSection
    steps: list[TrenchStep]
    held: bool
    options: list[Option]
    connections: list[Connection]
    risers: list[RiserRow]
    earth: list[str]
    ticket: str
    findings: list[Finding]


@dataclass(frozen=True, kw_only=True)
class SpanPlan:
    """All of one span."""

    id: str
    name: str
    long_text: str
    wires: str
    figures: list[Figure]
    section: SpanSection
    work: list[str]
    findings: list[Finding]


@dataclass(frozen=True, kw_only=True)
class RodRow:
    """An electrode as a row."""

    id: str
    kind: str
    text: str
    wire: str
    ohms: float | None
    driven_on: str
    bonded: bool


@dataclass(frozen=True, kw_only=True)
class GroundPlan:
    """The electrodes of a building, and its service."""

    id: str
    name: str
    fed_text: str
    rods: list[RodRow]
    figures: list[Figure]
    service: str | None
    findings: list[Finding]


def about_trench(outside: Outside, trench: str, of_ways: Iterable[Finding]) -> list[Finding]:
    """What is said of a trench: its own findings, and those of its ways that are mended here."""
    facts = outside.trenches[trench]
    ways = {item.way for item in facts.lain}
    lain = {(item.way, index) for item in facts.lain for index in item.legs}
    own = [item for item in of_ways if item.stage == "trench" and (item.subject, item.leg) in lain]
    rest = [item for item in outside.said[trench] if item.about == "trench" or item.subject in ways]
    return sorted([*own, *rest], key=lambda item: ("stop", "check", "note").index(item.severity))


def trench_plan(outside: Outside, trench: str, of_ways: Iterable[Finding]) -> TrenchPlan:
    """All of one trench. `of_ways`: what is said of the ways of the job."""
    facts = outside.trenches[trench]
    with shown_in(facts.book.units):
        return TrenchPlan(
            id=trench, name=facts.trench.name, long_text=show(round(facts.long_in)),
            figures=figures.of_trench(facts), lain=[_lain(facts, item) for item in facts.lain],
            section=section_of(facts), steps=_steps(facts), held=hold_of(facts.job, facts.trench) is None,
            options=options_of(facts), connections=connections_of(facts), risers=riser_rows(facts),
            earth=_earth(facts), ticket=_ticket(facts.trench), findings=about_trench(outside, trench, of_ways),
        )  # fmt: skip


def _lain(facts: TrenchFacts, item: Lain) -> LainRow:
    margins = []
    for piece, need in zip(facts.pieces, item.needs, strict=True):
        if need is not None and item.cover:
            inside = [depth for at, depth in item.cover if piece.start_in <= at <= piece.end_in]
            least = min([figures.cover_at(item, piece.start_in), figures.cover_at(item, piece.end_in), *inside])
            margins.append((least - need.cover_in, least, need.cover_in))
    needs = [need.cover_in for need in item.needs if need is not None]
    worst_ = min(margins, default=None)
    return LainRow(
        way=item.way, way_name=item.view.way.name, name=item.name, carries=item.carries,
        cover_text=show_inches(worst_[1]) if worst_ else "not said",
        needed_text=show_inches(worst_[2] if worst_ else max(needs, default=0.0)),
        short=worst_ is not None and worst_[0] < -1e-6,
    )  # fmt: skip


def _steps(facts: TrenchFacts) -> list[TrenchStep]:
    over = show_inches(facts.book.number("ribbon_over_in"))
    waits = f"about {facts.book.number('marks_wait_days'):g} working days"
    count = len(facts.trench.readings)
    texts = {
        "marks": _ticket(facts.trench) or ("" if "marks" in ticks(facts.trench) else waits),
        "dig": f"to {show_inches(round(facts.deepest_in))}, {facts.trench.dig}",
        "tubes": f"{count} reading{'' if count == 1 else 's'}" if count else "one every 15′ and at each end",
        "lay": "a second pipe for later costs little now; data in a pipe of its own, apart",
        "inspection": "nothing is covered before it",
        "ribbon": f"{over} or more over it",
    }
    return steps_of(facts.job, facts.trench, texts)


def _ticket(trench: Trench) -> str:
    if not trench.ticket:
        return ""
    return f"ticket {trench.ticket}, good {trench.ticket_from} to {trench.ticket_to}"


def _earth(facts: TrenchFacts) -> list[str]:
    own = earth_of(facts, facts.bottom)
    long = show(round(facts.long_in * 1.05))
    found = [
        f"Spoil {own.dug_ft3:.0f} ft³",
        f"{facts.trench.dig} {own.dig_hours:.1f} h, fill {own.fill_hours:.1f} h",
        f"ribbon {long}",
    ]
    if own.sand_ft3:
        found.append(f"sand {own.sand_ft3:.0f} ft³")
    return [*found, f"{own.left_ft3:.1f} ft³ left over"]


def span_plan(outside: Outside, span: str) -> SpanPlan:
    """All of one span."""
    facts = outside.spans[span]
    line = facts.span
    with shown_in(facts.book.units):
        profile = ground_along(facts.yard, line.points, line.start, line.end)
        names = [f"{way.name}" for way, _ in facts.held]
        return SpanPlan(
            id=span, name=line.name, long_text=show(round(long_in(line.points))),
            wires=f"{facts.size} on its messenger: {', '.join(names)}" if names else "nothing hangs on it yet",
            figures=figures.of_span(facts), section=span_section(facts, profile), work=_span_work(facts),
            findings=list(outside.said[span]),
        )  # fmt: skip


def _span_work(facts: SpanFacts) -> list[str]:
    count = int(facts.size.partition("-")[2] or 2)
    return [
        f"A head for {count + 1} wires at each end, under the attachment or with a drip loop that hangs lower.",
        "About 3′ of slack in each drip loop; the entrance pipe is caulked round, not the head.",
        "Messenger on an insulated hook or a wire holder in the framing, not in the siding. It is the ground: the "
        "neutral is insulated.",
        "Cable on the wall is strapped within 12″ of the head, then every 30″.",
        "Come in where the panel can be met: the nearer, the less wire ahead of its handle.",
    ]


def ground_plan(outside: Outside, building: str) -> GroundPlan:
    """The electrodes and the service of a building."""
    facts = outside.grounds[building]
    with shown_in(facts.book.units):
        fed = [f"{c.name}, {c.breaker_a:g} A" for c in (*facts.feeders, *facts.branches)]
        otherwise = "its own service" if facts.service else "fed by nothing"
        return GroundPlan(
            id=building, name=facts.structure.name,
            fed_text=f"fed by {', '.join(fed)}" if fed else otherwise,
            rods=[
                RodRow(
                    id=e.id, kind=ground.KINDS[e.kind], text=show(e.length_in) if e.kind == "rod" else "",
                    wire=e.wire or facts.usual_wire(e), ohms=e.ohms, driven_on=e.driven_on, bonded=e.bonded,
                )
                for e in facts.electrodes
            ],
            figures=figures.of_ground(facts), service=facts.service.id if facts.service else None,
            findings=list(outside.said[f"ground {building}"]),
        )  # fmt: skip


def rows_of(outside: Outside, of_ways: Sequence[Finding]) -> list[LineSummary]:
    """Everything as rows, kind by kind, what holds the worst first."""
    rank = {"stop": 0, "check": 1, "fine": 2}
    found: list[list[LineSummary]] = [[], [], [], []]
    for ident, facts in outside.trenches.items():
        said = about_trench(outside, ident, of_ways)
        name, trench = facts.trench.name, facts.trench
        found[0].append(_row(ident, "trench", name, show(round(facts.long_in)), said))
        if hold_of(facts.job, trench) is None and not {"fill", "rest"} & {tick.step for tick in trench.done}:
            open_ = any(tick.step == "dig" for tick in trench.done)
            row = LineSummary(id=ident, kind="hold", name=f"Backfill, {name}", text="", verdict="check")
            found[3] += [row] if open_ else []
    for ident, span in outside.spans.items():
        found[1].append(
            _row(ident, "span", span.span.name, show(round(long_in(span.span.points))), outside.said[ident])
        )
    for ident, own in outside.grounds.items():
        if own.wants or own.electrodes:
            rods = [e for e in own.electrodes if e.kind == "rod"]
            others = [ground.KINDS[e.kind].split()[0] for e in own.electrodes] or ["none"]
            text = f"{len(rods)} rod{'' if len(rods) == 1 else 's'}" if rods else others[0]
            found[2].append(_row(ident, "ground", own.structure.name, text, outside.said[f"ground {ident}"]))
    return [row for group in found for row in sorted(group, key=lambda row: rank[row.verdict])]


def _row(ident: str, kind: str, name: str, text: str, said: Iterable[Finding]) -> LineSummary:
    return LineSummary(id=ident, kind=kind, name=name, text=text, verdict=worst(said))
