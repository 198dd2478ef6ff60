"""Ways planned: each with what lies in it, kept for as long as nothing of that changes."""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.measure import show, show_inches, shown_in
from levelrun.core.rulebook import judged, keeping, sourced, with_source
from levelrun.core.ways.alternatives import Alternative, alternatives
from levelrun.core.ways.drawn import strip_of
from levelrun.core.ways.facts import WayContext, WayView, viewed
from levelrun.core.ways.fittings import fittings
from levelrun.core.ways.holding import Held, held
from levelrun.core.ways.lengths import Cut, cuts_of
from levelrun.core.ways.pulls import Pull, pulls_of
from levelrun.core.ways.rules import cover, large, path, place, plates, risers, wires
from levelrun.core.ways.strip import Strip
from levelrun.core.ways.walk import WalkLeg, write_leg

# What can be wrong with a way that the frame gave: its ends meet, nothing of it lies in the open or the earth.
DRAWN_RULES = (
    *(place.method_rule, place.size_rule, place.sleeve_rule),
    *(wires.ampacity_rule, wires.cable_rule, wires.ground_rule),
)
RULES = (*path.RULES, *place.RULES, *cover.RULES, *risers.RULES, *large.RULES, *plates.RULES, *wires.RULES)


@dataclass(frozen=True, kw_only=True)
class LegPlan:
    """One leg as planned. Inches; `lies_in`: its method and size; `remark` is the short last word of its row,
    `verdict` its colour."""

    index: int
    text: str
    length_text: str
    depth_text: str
    place_title: str
    method_name: str
    lies_in: str
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
class WaySummary:
    """A way as a row. `circuits`: those that lie in it, by id."""

    id: str
    name: str
    circuits: list[str]
    verdict: str
    stops: int
    checks: int
    length_in: float
    length_text: str


@dataclass(frozen=True, kw_only=True)
class WayPlan:
    """Everything that follows for one way, as it is looked at."""

    summary: WaySummary
    legs: list[LegPlan]
    pulls: list[Pull]
    cuts: list[Cut]
    findings: list[Finding]
    strip: Strip
    walk: str


@dataclass(frozen=True, kw_only=True)
class PlannedWay:
    """What another part of a job asks of a way: its row, the pieces to cut, what is said of it. Its legs, pulls and
    strip are worked out when they are looked at."""

    summary: WaySummary
    cuts: list[Cut]
    findings: list[Finding]
    view: WayView = field(repr=False, compare=False)

    @cached_property
    def whole(self) -> WayPlan:
        """Everything that follows for it."""
        with shown_in(self.view.book.units):
            return _whole(self)

    @property
    def legs(self) -> list[LegPlan]:
        """Its legs as planned."""
        return self.whole.legs

    @property
    def pulls(self) -> list[Pull]:
        """Its pulls as planned."""
        return self.whole.pulls

    @property
    def strip(self) -> Strip:
        """Its strip."""
        return self.whole.strip

    @property
    def walk(self) -> str:
        """Its legs as sentences, a line each."""
        return self.whole.walk


@dataclass(frozen=True, eq=False)
class Judged:
    """What is said of a way that drew itself, and the pieces to cut along it: what another part of the job asks."""

    findings: list[Finding]
    cuts: list[Cut]


@keeping(4096)
def judge_drawn(book: Codebook, context: WayContext) -> Judged:
    """What stops or asks of a way that drew itself. Kept for as long as nothing that it touches changes; its strip is
    drawn, and its notes are said, when it is looked at."""
    view = viewed(book, context)
    rules = (*DRAWN_RULES, path.pull_rules) if any(view.piped(i) for i in view.indexes) else DRAWN_RULES
    return Judged(judged(book, rules, view), cuts_of(view))


@keeping(2048)
def plan_way(book: Codebook, context: WayContext) -> PlannedWay:
    """Plans one way. Kept for as long as nothing that it touches changes."""
    view = viewed(book, context)
    found = judged(book, RULES, view)
    return PlannedWay(summary=_summary(view, found), cuts=cuts_of(view), findings=found, view=view)


def _whole(way: PlannedWay) -> WayPlan:
    view, found = way.view, way.findings
    book, pulls = view.book, pulls_of(view)
    holds = [with_source(book, held(view, i)) for i in range(len(view.way.legs))]
    by_leg = [worst([f for f in found if f.covers(i)]) for i in range(len(view.way.legs))]
    legs = [_leg(view, i, by_leg[i], holds[i], found, pulls) for i in range(len(view.way.legs))]
    return WayPlan(
        summary=way.summary,
        legs=legs,
        pulls=pulls,
        cuts=way.cuts,
        findings=found,
        strip=strip_of(view, by_leg, holds, pulls),
        walk="\n".join(leg.text for leg in legs),
    )


def leg_alternatives(book: Codebook, context: WayContext, index: int) -> list[Alternative]:
    """What may go on one leg of a way."""
    with shown_in(book.units):
        return alternatives(viewed(book, context), index)


def _summary(view: WayView, found: list[Finding]) -> WaySummary:
    length = sum(leg.length_in for leg in view.way.legs)
    return WaySummary(
        id=view.way.id,
        name=view.way.name,
        circuits=list(view.circuits()),
        verdict=worst(found),
        stops=sum(f.severity == "stop" for f in found),
        checks=sum(f.severity == "check" for f in found),
        length_in=length,
        length_text=show(round(length)),
    )


def _leg(view: WayView, index: int, verdict: str, hold: Held, found: list[Finding], pulls: list[Pull]) -> LegPlan:
    leg, facts = view.way.legs[index], view.facts[index]
    needed = cover.needed_cover(view, index)
    pull = next((p.index for p in pulls if p.first <= index <= p.last), None)
    return LegPlan(
        index=index,
        text=write_leg(view.book, _as_walk(view, index)),
        length_text=show(leg.length_in),
        depth_text="" if leg.depth_in is None else show_inches(leg.depth_in),
        place_title=facts.title,
        method_name=view.methods[index].name,
        lies_in=f"{view.methods[index].words[0].upper()} {view.way.legs[index].size}".strip(),
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
        figures=sourced(view.book, _cover_figure(view, index)),
        fittings=fittings(view, index),
    )


def _cover_figure(view: WayView, index: int) -> list[Figure]:
    """Cover taped against cover needed, for a level leg in the earth."""
    needed, leg = cover.needed_cover(view, index), view.way.legs[index]
    if needed is None or leg.depth_in is None or view.placed[index].vertical or not needed.cover_in:
        return []
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
                **_for_circuits(view, index),
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


def _for_circuits(view: WayView, index: int) -> dict[str, str]:
    """What the cover is asked for: the circuits in a leg."""
    here = {item.wires.circuit: item.wires for item in view.lying(index)}
    told = {
        f"circuit {w.title}": f"{w.volts} V, {w.breaker_a:g} A, {'' if w.gfci else 'no '}GFCI upstream"
        for w in here.values()
    }
    return told or {"circuit": "none yet: taken as 240 V without GFCI"}


def _remark(view: WayView, index: int, hold: Held, found: list[Finding]) -> str:
    own = [f for f in found if f.covers(index) and f.severity != "note"]
    if own and own[0].code in ("cover-short", "cover-missing"):
        return f"cover {own[0].measured}, needs {own[0].limit}"
    if own:
        return own[0].title
    leg = view.way.legs[index]
    if leg.depth_in is not None and not view.placed[index].vertical:
        return f"{show_inches(leg.depth_in)} deep"
    return hold.text


def _as_walk(view: WayView, index: int) -> WalkLeg:
    leg = view.way.legs[index]
    return WalkLeg(
        go=leg.go,
        length_in=leg.length_in,
        place=leg.place,
        method=leg.method,
        size=leg.size or None,
        depth_in=leg.depth_in,
        to=view.joint_name(index) or None,
        bends_deg=leg.bends_deg,
        shapes=leg.shapes,
        radius_in=leg.radius_in,
        feed=leg.feed,
        sleeve=leg.sleeve,
        met=leg.met,
        stands_off=leg.stands_off,
        expansion=leg.expansion,
        ribbon=leg.ribbon,
        fished=leg.fished,
        supposed=leg.supposed,
        facts={key: value for key, value in leg.facts.model_dump().items() if value is not None},
    )
