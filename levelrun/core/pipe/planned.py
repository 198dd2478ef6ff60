"""Pipe planned: what is said of it for the whole plan, and all of one way for the stage where it is looked at."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.errors import UnknownKeyError
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.kept import Standing
from levelrun.core.measure import show, shown_in
from levelrun.core.pipe.assembly import assembly_of
from levelrun.core.pipe.bend_list import BendRow, bend_list
from levelrun.core.pipe.cutting import cut_list
from levelrun.core.pipe.drawn import PullDrawing, drawing_of
from levelrun.core.pipe.facts import PipeView, piped
from levelrun.core.pipe.ladder import Rung, ladder_of
from levelrun.core.pipe.living import Care, Expansion, care_of, expansions
from levelrun.core.pipe.marks import marks_of
from levelrun.core.pipe.pulling import HowPulled, end_names, how_pulled
from levelrun.core.pipe.rules import bends, life, pulling
from levelrun.core.rulebook import judged, keeping
from levelrun.core.trade.pipe.fill import fill
from levelrun.core.ways.facts import WayContext, in_pipe
from levelrun.core.ways.lengths import Cut, Through, coming_through, cuts_of
from levelrun.core.ways.pulls import Pull, Section

RULES = (*bends.RULES, *pulling.RULES, *life.RULES)


@dataclass(frozen=True, kw_only=True)
class WireRow:
    """Wires of a pull to cut: what, how many, how long, in which colours. Of those that come from the way before,
    where they were cut, no length."""

    what: str
    circuit: str
    pieces: int
    cut_in: float
    cut_text: str


@dataclass(frozen=True, kw_only=True)
class FillRow:
    """One kind of pipe in a pull with what lies in it. Per cent of its inside; limit of the code."""

    pipe: str
    percent: float
    limit_percent: float
    fits: bool


@dataclass(frozen=True, kw_only=True)
class PullSummary:
    """A pull as a row: whose it is, its verdict, its length."""

    way: str
    way_name: str
    index: int
    name: str
    first: int
    last: int
    verdict: str
    length_in: float
    length_text: str
    circuits: list[str]


@dataclass(frozen=True, kw_only=True)
class PullPlan:
    """All of one pull: its pipe as drawn, its bends, its wires, how it is pulled, its ladder, what keeps it, the
    order of work, what is said of it."""

    summary: PullSummary
    pipe: str
    section: Section | None
    fills: list[FillRow]
    figures: list[Figure]
    drawing: PullDrawing | None
    bends: list[BendRow]
    how: HowPulled | None
    ladder: list[Rung]
    wires: list[WireRow]
    expansions: list[Expansion]
    cares: list[Care]
    order: list[str]
    findings: list[Finding]
    sticks: int
    couplings: int
    proven: bool
    bound: int


def has_pipe(book: Codebook, context: WayContext) -> bool:
    """Whether wires lie in pipe anywhere in a way."""
    return any(in_pipe(book, leg) for leg in context.way.legs)


@keeping(4096)
def judge_pipe(book: Codebook, context: WayContext) -> tuple[Finding, ...]:
    """What is said of the pipe of a way. Kept for as long as nothing that it touches changes."""
    if not has_pipe(book, context):
        return ()
    return tuple(judged(book, RULES, piped(book, context)))


def summaries(book: Codebook, context: WayContext, said: tuple[Finding, ...]) -> list[PullSummary]:
    """The pulls of a way as rows; `said`: all findings about the way."""
    pipe = piped(book, context)
    return [_summary(pipe, pull, _own(pull, said)) for pull in pipe.pulls]


def _own(pull: Pull, said: tuple[Finding, ...]) -> list[Finding]:
    return [item for item in said if any(item.covers(index) for index in range(pull.first, pull.last + 1))]


def _summary(pipe: PipeView, pull: Pull, own: list[Finding]) -> PullSummary:
    way = pipe.view.way
    ends = " to ".join(end_names(pipe.view, pull).values())
    return PullSummary(
        way=way.id, way_name=way.name, index=pull.index, name=ends, first=pull.first, last=pull.last,
        verdict=worst(own), length_in=pull.length_in, length_text=show(round(pull.length_in)),
        circuits=list(pipe.view.circuits(pull.first, pull.last)),
    )  # fmt: skip


_plans = Standing[PullPlan](256)


def plan_pull(book: Codebook, context: WayContext, index: int, said: tuple[Finding, ...]) -> PullPlan:
    """All of one pull of a way; `said`: all findings about the way. Kept for as long as nothing changes."""

    def made() -> PullPlan:
        with shown_in(book.units):
            return _plan(book, context, index, said)

    return _plans.get((context.way.id, index), (book, context, *said), made)


def _plan(book: Codebook, context: WayContext, index: int, said: tuple[Finding, ...]) -> PullPlan:
    pipe = piped(book, context)
    view, pull = pipe.view, pipe.pulls[index]
    layouts = [(own.index, layout) for own, layout in pipe.laid]
    cuts = cut_list(view, layouts)
    layout = next((item for number, item in layouts if number == index), None)
    marks = [marks_of(view, layout, piece) for piece in layout.pieces] if layout is not None else []
    own = _own(pull, said)
    numbers = range(pull.first, pull.last + 1)
    names = dict.fromkeys(f"{view.methods[i].name} {view.way.legs[i].size}″" for i in numbers)
    return PullPlan(
        summary=_summary(pipe, pull, own),
        pipe=", ".join(names),
        section=pull.section,
        fills=_fills(pipe, pull),
        figures=pull.figures,
        drawing=drawing_of(view, pull, layout, cuts, marks) if layout is not None else None,
        bends=bend_list(view, layout) if layout is not None else [],
        how=how_pulled(view, pull),
        ladder=ladder_of(view, pull),
        wires=_wires(pipe, pull),
        expansions=expansions(view, pull),
        cares=care_of(view, pull),
        order=assembly_of(view, index, layout, cuts, marks, pull.end) if layout is not None else [],
        findings=own,
        sticks=len({stick.number for stick in cuts.sticks for cut in stick.cuts if cut.pull == index}),
        couplings=layout.couplings if layout is not None else 0,
        proven=cuts.proven,
        bound=cuts.bound,
    )


def _fills(pipe: PipeView, pull: Pull) -> list[FillRow]:
    """The fill of each kind of pipe in a pull, with the most that lies in it; a nipple as the pull is judged."""
    rows: dict[str, FillRow] = {}
    view = pipe.view
    for index in range(pull.first, pull.last + 1):
        leg = view.way.legs[index]
        name = f"{view.methods[index].name} {leg.size}″"
        try:
            nipple = pull.fill is not None and pull.fill.limit_percent == view.book.number("fill_nipple")
            own = fill(view.book, leg.method, leg.size, view.wires(index), nipple=nipple)
        except UnknownKeyError:
            continue
        if own.limit_percent is not None and (name not in rows or rows[name].percent < own.percent):
            rows[name] = FillRow(pipe=name, percent=own.percent, limit_percent=own.limit_percent, fits=own.fits)
    return list(rows.values())


def _wires(pipe: PipeView, pull: Pull) -> list[WireRow]:
    """The single wires that go through a pull, longest first."""

    def inside(item: Cut | Through) -> bool:
        return item.first <= pull.first and pull.last <= item.last and ":" in item.item

    rows = [
        WireRow(what=cut.item, circuit=cut.title, pieces=cut.pieces, cut_in=cut.cut_in, cut_text=show(cut.cut_in))
        for cut in cuts_of(pipe.view)
        if inside(cut)
    ]
    come = [
        WireRow(what=item.item, circuit=item.title, pieces=item.pieces, cut_in=0.0, cut_text="")
        for item in coming_through(pipe.view)
        if inside(item)
    ]
    return sorted([*rows, *come], key=lambda row: -row.cut_in)
