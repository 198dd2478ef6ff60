"""What may go on a leg: every method with its verdict, size, cover, cost and the edit that takes it."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, raceway, wire_sizes
from levelrun.core.findings import Mend
from levelrun.core.measure import show_inches
from levelrun.core.trade.methods.verdicts import Answer, Verdict, ranked, work_of
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.mends import size_for, use_method
from levelrun.core.ways.rules.cover import needed_cover

PIPE_REFERENCE = "3/4"
ANSWERS: tuple[Answer, ...] = ("yes", "if", "no")
NOT_MADE = "no size made for this circuit"


@dataclass(frozen=True, kw_only=True)
class Alternative:
    """One method on one leg. dollars and minutes are for the leg, common practice; None where it has no size."""

    method: str
    name: str
    verdict: Answer
    text: str
    section: str
    current: bool
    dollars: float | None
    minutes: float | None
    change: int
    mend: Mend | None


def alternatives(view: WayView, index: int) -> list[Alternative]:
    """Every method for a leg: yes before if before no, cheapest first, of each what is made for the circuit before
    what is not; what is there now is marked."""
    verdicts = ranked(view.book, view.facts[index], view.habits.dollars_per_hour)
    found = [_alternative(view, index, verdict) for verdict in verdicts]
    return sorted(found, key=lambda item: (ANSWERS.index(item.verdict), item.dollars is None and not item.current))


def _alternative(view: WayView, index: int, verdict: Verdict) -> Alternative:
    leg = view.way.legs[index]
    current = verdict.method == leg.method
    may = not current and verdict.verdict != "no"
    mend = use_method(view, index, verdict.method) if may else None
    size = leg.size if current else (size_for(view, index, verdict.method) or "") if may else ""
    dollars = cost(view, index, verdict.method, size) if size else None
    minutes = work_of(view.book, verdict.method).minutes_per_ft * leg.length_in / 12 if size else None
    return Alternative(
        method=verdict.method,
        name=_title(view, verdict, size),
        verdict=verdict.verdict,
        text=_text(view, index, verdict, dollars, minutes, buried=bool(size) and may and mend is None),
        section=verdict.because[0].rule,
        current=current,
        dollars=dollars,
        minutes=minutes,
        change=work_of(view.book, verdict.method).change,
        mend=mend,
    )


def _title(view: WayView, verdict: Verdict, size: str) -> str:
    if not size:
        return verdict.name
    return (
        f"{verdict.name}, {size}″"
        if method(view.book, verdict.method).kind == "raceway"
        else f"{size} {verdict.name}"
    )


def _text(
    view: WayView, index: int, verdict: Verdict, dollars: float | None, minutes: float | None, buried: bool
) -> str:
    if verdict.verdict == "no":
        return verdict.because[0].text
    if dollars is None and verdict.method != view.way.legs[index].method:
        return NOT_MADE
    parts: list[str] = []
    needed = needed_cover(view, index, verdict.method)
    taped = view.way.legs[index].depth_in
    if needed is not None and needed.cover_in > 0:
        deep = taped is not None and taped >= needed.cover_in and verdict.method != view.way.legs[index].method
        parts.append(f"{show_inches(needed.cover_in)} cover" + (", deep enough as taped" if deep else ""))
    if verdict.verdict == "if":
        parts.append(f"needs {' and '.join(verdict.needs)}")
    if dollars is not None and minutes is not None:
        parts.append(f"${dollars:.0f} · {minutes:.0f} min")
    if buried:
        parts.append("its box would stand under ground: walk the whole way in it, risers too")
    return " · ".join(parts) or NOT_MADE


def cost(view: WayView, index: int, key: str, size: str) -> float:
    """Dollars of material for a leg, common practice: pipe by its inside with its wires, cable by its copper."""
    feet = view.way.legs[index].length_in / 12
    base: float = work_of(view.book, key).dollar_per_ft
    if method(view.book, key).kind == "raceway":
        scale = raceway(view.book, key, size).inner_in / raceway(view.book, key, PIPE_REFERENCE).inner_in
        wires = sum(_wire(view.book, s.wires.size, s.material) * s.wires.count for s in view.strands(index))
        return feet * (base * float(scale**1.3) + wires)
    gauge, _, count = size.partition("-")
    reference = float(view.book.table("wire").get("12")["cu"]) * 3  # the base is that of a 12-2 in copper
    if gauge not in wire_sizes(view.book):
        return feet * base
    here = view.lying(index)
    metal: float = _wire(view.book, gauge, here[0].wires.material if here else "cu")
    metal *= int(count or 2) + 1
    return feet * base * metal / reference


def _wire(book: Codebook, size: str, material: str) -> float:
    return float(book.table("wire").get(size)[material])
