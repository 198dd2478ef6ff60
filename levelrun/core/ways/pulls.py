"""Pulls: the pipe between two pull points, with its fill, bends and section."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook.lookups import conductor, raceway
from levelrun.core.errors import UnknownKeyError
from levelrun.core.findings import Figure
from levelrun.core.rulebook import sourced
from levelrun.core.trade.pipe.bends import Bends, bends
from levelrun.core.trade.pipe.fill import Fill, fill, used_area
from levelrun.core.trade.pipe.packing import pack
from levelrun.core.ways.facts import PULL_POINTS, WayView
from levelrun.core.ways.forces import bare_lb, force_of
from levelrun.core.ways.line import degrees_in


@dataclass(frozen=True)
class BendAt:
    """A bend of a pull: at which leg (its start for a corner), degrees, kind corner or within."""

    leg: int
    deg: float
    kind: str


@dataclass(frozen=True)
class WireSpot:
    """A wire in a section, inches from the centre of the pipe."""

    x: float
    y: float
    r: float
    colour: str
    label: str


@dataclass(frozen=True)
class Section:
    """A pipe cut through: inner diameter and the wires as they lie. Empty wires: they do not fit."""

    inner_in: float
    title: str
    wires: list[WireSpot]


@dataclass(frozen=True, kw_only=True)
class Pull:
    """A pull from one pull point to the next. Legs are first to last, inclusive; inches, degrees, pounds by hand at
    the pulled end, and the end that is fed: as said, else the easier; None where no wires or no size are known."""

    index: int
    first: int
    last: int
    start: str
    end: str
    length_in: float
    bends: list[BendAt]
    total: Bends
    tight_leg: int
    fill: Fill | None
    section: Section | None
    figures: list[Figure]
    hand_lb: float | None
    feed: str | None


@lru_cache(maxsize=64)
def pulls_of(view: WayView) -> list[Pull]:
    """Every pull of a way, in order. Kept for the view at hand: rules and the plan both ask."""
    found: list[Pull] = []
    first: int | None = None
    for index in range(len(view.way.legs)):
        if not view.piped(index):
            first = None
            continue
        first = index if first is None else first
        ends = index + 1 == len(view.way.legs) or not view.piped(index + 1)
        if ends or view.joint_after(index) in (*PULL_POINTS, "panel"):
            found.append(_pull(view, len(found), first, index))
            first = None
    return found


def _pull(view: WayView, number: int, first: int, last: int) -> Pull:
    legs = view.way.legs[first : last + 1]
    turned = _bends(view, first, last)
    total = bends(view.book, [bend.deg for bend in turned], view.methods[first].bend_section)
    tight, filled = _tightest(view, first, last)
    force = force_of(view, first, last)
    return Pull(
        index=number,
        first=first,
        last=last,
        start=view.joint_name(first - 1),
        end=view.joint_name(last),
        length_in=sum(leg.length_in for leg in legs),
        bends=turned,
        total=total,
        tight_leg=tight,
        fill=filled,
        section=section_of(view, tight) if filled else None,
        figures=sourced(
            view.book,
            [*_figures(view, number, total, filled, turned, tight), *_force(view, number, first, last)],
        ),
        hand_lb=force.lb if force else None,
        feed=force.feed if force else None,
    )


def _bends(view: WayView, first: int, last: int) -> list[BendAt]:
    turned: list[BendAt] = []
    for index in range(first, last + 1):
        corner = view.placed[index].bend_deg
        if index > first and corner:
            turned.append(BendAt(index, corner, "corner"))
        turned += [BendAt(index, angle, "within") for angle in degrees_in(view, index)]
    return turned


def _tightest(view: WayView, first: int, last: int) -> tuple[int, Fill | None]:
    best: tuple[int, Fill | None] = (first, None)
    length = sum(leg.length_in for leg in view.way.legs[first : last + 1])
    ends = (view.joint_before(first), view.joint_after(last))
    nipple = length <= view.book.number("nipple_in") and set(ends) <= {"box", "panel"}
    seen: set[tuple[object, ...]] = set()
    for index in range(first, last + 1):
        leg = view.way.legs[index]
        kind = (leg.method, leg.size, *view.wires(index))
        if kind in seen:
            continue
        seen.add(kind)
        try:
            filled = (
                fill(view.book, leg.method, leg.size, view.wires(index), nipple=nipple) if view.lying(index) else None
            )
        except UnknownKeyError:
            continue
        if filled is not None and (best[1] is None or filled.percent > best[1].percent):
            best = (index, filled)
    return best


def section_of(view: WayView, index: int) -> Section:
    """The pipe of a leg cut through, its wires in the colours they have."""
    leg = view.way.legs[index]
    pipe = raceway(view.book, leg.method, leg.size)
    each = [
        (
            conductor(view.book, s.wires.insulation, s.wires.size).diameter_in,
            f"{s.wires.size} {s.wires.insulation}",
            c,
        )
        for s in view.strands(index)
        for c in s.colours
    ]
    spots = pack(pipe.inner_in, [diameter for diameter, _, _ in each]) or []
    return Section(
        pipe.inner_in,
        f"{view.methods[index].name} {leg.size}",
        [
            WireSpot(x, y, r, colour, f"{colour} {label}")
            for (x, y, r), (_, label, colour) in zip(spots, each, strict=False)
        ],
    )


def _figures(
    view: WayView, number: int, total: Bends, filled: Fill | None, turned: list[BendAt], tight: int
) -> list[Figure]:
    basis = view.book.table("methods").head.basis
    degrees = Figure(
        key=f"pull-{number}-bends",
        label="Bends",
        value=total.total_deg,
        text=f"{total.total_deg:g}°",
        unit="deg",
        formula="sum of every bend between two pull points, box offsets too",
        inputs={f"leg {bend.leg + 1}, {bend.kind}": f"{bend.deg:g}°" for bend in turned} or {"bends": "none"},
        rule=total.rule,
        basis=basis,
        limit=total.limit_deg,
        limit_text=f"{total.limit_deg:g}°",
    )
    if filled is None or filled.limit_percent is None:
        return [degrees]
    wires = view.wires(tight)
    leg = view.way.legs[tight]
    return [
        Figure(
            key=f"pull-{number}-fill",
            label="Fill",
            value=filled.percent,
            text=f"{filled.percent:.0f} %",
            unit="%",
            formula="wire area / inside area of the tightest pipe of the pull",
            inputs={
                **{f"{w.count} × {w.size} {w.insulation}": f"{used_area(view.book, [w], []):g} in²" for w in wires},
                f"{view.methods[tight].name} {leg.size}, inside": f"{filled.total_in2:g} in²",
                "used": f"{filled.used_in2:.4f} in²",
                "unrounded": f"{filled.percent:.3f} %",
            },
            rule=f"{filled.rule}, 4, 5",
            basis=basis,
            limit=filled.limit_percent,
            limit_text=f"{filled.limit_percent:g} %",
        ),
        degrees,
    ]


def _force(view: WayView, number: int, first: int, last: int) -> list[Figure]:
    """Pull by hand, fed as it is, by the equation of the rope."""
    book, found = view.book, force_of(view, first, last)
    if found is None:
        return []
    people = view.habits.piping.people
    hand = book.scalar("hand_one_lb" if people == 1 else "hand_two_lb")
    ends = {"start": view.joint_name(first - 1) or "the start", "end": view.joint_name(last) or "the end"}
    said = "as said" if view.way.legs[first].feed else "the easier"
    return [
        Figure(
            key=f"pull-{number}-force",
            label="By hand",
            value=found.lb,
            text=f"{found.lb:.0f} lb",
            unit="lb",
            formula="dT/ds = W · climb + wμN: N the force on the wall, of weight across the pipe and T/R in a bend",
            inputs={
                f"fed at {ends['start']}, its start": f"{found.start.lb:.1f} lb",
                f"fed at {ends['end']}, its end": f"{found.end.lb:.1f} lb",
                f"fed at, {said}": f"{ends[found.feed]}, its {found.feed}",
                "weight of the wires, W": f"{found.weight_lb_per_ft:.3f} lb/ft",
                "wedged in the pipe, w": f"{found.factor:.2f}",
                "friction, μ": f"{found.friction.usual:g}, {view.habits.piping.lube}; "
                f"met from {found.friction.low:g} to {found.friction.high:g}",
                "without the wedging": f"{bare_lb(view, first, last, found):.1f} lb",
                "side wall, worst bend": f"{found.sidewall_lb_per_ft:.0f} lb/ft",
                "conductors bear": f"{found.limit_lb:.0f} lb",
                "one person, two": f"{book.number('hand_one_lb'):g} lb, {book.number('hand_two_lb'):g} lb",
                "not counted": "the stiffness of large and solid wire, which the hand feels first",
            },
            rule=hand.section,
            basis=hand.basis,
            limit=hand.value,
            limit_text=f"{hand.value:g} lb",
        )
    ]
