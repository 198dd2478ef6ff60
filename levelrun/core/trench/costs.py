"""What a trench costs in hours and dollars, as it lies and otherwise; and the same connection over the air, in cable,
or in larger wire. Hours and dollars are common practice, no source: for comparing, not for bidding."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

from levelrun.core.circuits.loads import HopWires
from levelrun.core.circuits.lugs import too_big, usual_lugs
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Mend
from levelrun.core.measure import show_inches
from levelrun.core.trade.conductors.sizing import Demand, choose
from levelrun.core.trade.digging import Earth, earth
from levelrun.core.trade.drop import drop
from levelrun.core.trade.methods.verdicts import judge, work_of
from levelrun.core.trench.facts import Lain, TrenchFacts
from levelrun.core.trench.feeding import hung_size
from levelrun.core.trench.rules.dig import change
from levelrun.core.ways.alternatives import cost
from levelrun.core.ways.laid import Profile, short_stretches
from levelrun.core.ways.mends import protect, rewire, size_for, use_method
from levelrun.core.ways.rules.cover import needed_cover

OTHERS = ("PVC40", "RMC", "UF-B", "USE-2")
CABLES = ("UF-B", "USE-2")
CONCRETE_IN = 2.0


@dataclass(frozen=True, kw_only=True)
class Option:
    """One way to make a trench legal: what it takes, how deep, with the edit that does it. Dollars of material."""

    key: str
    label: str
    cover_in: float
    hours: float
    dollars: float
    here: bool
    mend: Mend | None


@dataclass(frozen=True, kw_only=True)
class Connection:
    """One way to bring the feed over: hours, dollars of material, working days of waiting, drop in per cent at the
    breaker's rating and at the real load; what can be added later."""

    key: str
    label: str
    hours: float
    dollars: float
    wait_days: float
    drop_breaker: float | None
    drop_load: float | None
    later: str
    takes: str
    here: bool
    mend: Mend | None


def earth_of(facts: TrenchFacts, profile: Profile) -> Earth:
    """What the trench takes with its bottom at this profile."""
    outers = [item.outer_in for item in facts.lain]
    trench = facts.trench
    return earth(facts.book, profile, trench.width_in, trench.dig, trench.bedding_in, outers)


def profile_for(facts: TrenchFacts, needs: Sequence[float]) -> Profile:
    """Its bottom where every piece is as deep as it must be, and no deeper."""
    thick = max((item.outer_in for item in facts.lain), default=1.0) + facts.trench.bedding_in
    found: Profile = []
    for piece, need in zip(facts.pieces, needs, strict=True):
        found += [(piece.start_in, need + thick), (piece.end_in, need + thick)]
    return found


def _needs(facts: TrenchFacts, need: Callable[[Lain, int], float | None]) -> list[float] | None:
    """The most that each piece needs, by what each thing in it would need; None where one may not lie there."""
    found: list[float] = []
    for number in range(len(facts.pieces)):
        own = [need(item, item.legs[number]) for item in facts.lain]
        if any(value is None for value in own):
            return None
        found.append(max([value for value in own if value is not None], default=facts.needed[number]))
    return found


def _cover(item: Lain, index: int, **how: Any) -> float | None:
    found = needed_cover(item.view, index, **how)
    return found.cover_in if found else None


def _dug(facts: TrenchFacts, needs: Sequence[float]) -> tuple[float, float]:
    """Hours and dollars of earth: digging, filling, ribbon, sand, hire."""
    book, found = facts.book, earth_of(facts, profile_for(facts, needs))
    dollars = facts.long_in / 12 * book.number("ribbon_dollar_per_ft")
    dollars += found.sand_ft3 * book.number("sand_dollar_per_ft3")
    if facts.trench.dig == "machine":
        dollars += book.number("machine_day_dollars")
    return found.dig_hours + found.fill_hours, dollars


def _laid(facts: TrenchFacts, key: str | None = None) -> tuple[float, float] | None:
    """Hours and dollars of what lies in it, with its risers; in another method where `key` says so."""
    hours = dollars = 0.0
    for item in facts.lain:
        for index in item.legs:
            leg = item.view.way.legs[index]
            name = key or leg.method
            size = leg.size if name == leg.method else size_for(item.view, index, name)
            if not size:
                return None
            dollars += cost(item.view, index, name, size)
            hours += work_of(facts.book, name).minutes_per_ft * leg.length_in / 12 / 60
        hours += 2 * facts.book.number("riser_hours")
        dollars += 2 * facts.book.number("riser_dollars")
    return hours, dollars


def options_of(facts: TrenchFacts) -> list[Option]:
    """Ways to make it legal, the cheapest first, at the shop's hourly rate."""
    if not facts.lain:
        return []
    found: list[Option] = []
    now = _needs(facts, _cover)
    own = _laid(facts)
    if now is not None and own is not None:
        found.append(_option(facts, "deeper", _deep(facts, now), now, own, [_dig(facts, now)]))
        if not facts.trench.concrete and all(item.piped for item in facts.lain):
            found += _in_concrete(facts, own)
        found += _protected(facts, own)
    for key in OTHERS:
        found += _other(facts, key)
    rate = facts.lain[0].view.habits.dollars_per_hour
    return sorted(found, key=lambda item: item.dollars + item.hours * rate)


def _deep(facts: TrenchFacts, needs: Sequence[float]) -> str:
    names = dict.fromkeys(item.name for item in facts.lain)
    return f"{', '.join(names)} at {show_inches(max(needs))}"


def _dig(facts: TrenchFacts, needs: Sequence[float]) -> dict[str, object]:
    return {"op": "dig", "trench": facts.trench.id, "depth_in": max(needs)}


def _option(
    facts: TrenchFacts, key: str, label: str, needs: Sequence[float], laid: tuple[float, float],
    edits: list[dict[str, object]], more: tuple[float, float] = (0.0, 0.0),
) -> Option:  # fmt: skip
    hours, dollars = _dug(facts, needs)
    return Option(
        key=key, label=label, cover_in=max(needs), hours=hours + laid[0] + more[0],
        dollars=dollars + laid[1] + more[1], here=key == "deeper",
        mend=Mend(label, edits) if edits else None,
    )  # fmt: skip


def _in_concrete(facts: TrenchFacts, laid: tuple[float, float]) -> list[Option]:
    def need(item: Lain, index: int) -> float | None:
        open_ = item.view.facts[index].above == "open_ground"
        return _cover(item, index, above="concrete_2in") if open_ else _cover(item, index)

    needs = _needs(facts, need)
    if needs is None or max(needs) >= max(facts.needed) - 1e-6:
        return []
    ft3 = facts.long_in * facts.trench.width_in * CONCRETE_IN / 1728
    more = (ft3 / facts.book.number("concrete_ft3_per_h"), ft3 * facts.book.number("concrete_dollar_per_ft3"))
    edits: list[dict[str, object]] = [change(facts, concrete=True)]
    if not _deep_enough(facts, needs):
        edits.append(_dig(facts, needs))
    label = f"2″ of concrete over it, {show_inches(max(needs))}"
    return [_option(facts, "concrete", label, needs, laid, edits, more)]


def _deep_enough(facts: TrenchFacts, needs: Sequence[float]) -> bool:
    """Whether it lies deep enough as it is for these needs."""
    return all(
        bool(item.cover) and not short_stretches(item.cover, piece.start_in, piece.end_in, need)
        for piece, need in zip(facts.pieces, needs, strict=True)
        for item in facts.lain
    )


def _protected(facts: TrenchFacts, laid: tuple[float, float]) -> list[Option]:
    wires = {
        w.circuit: w for item in facts.lain for w in item.view.circuits(item.laid.first, item.laid.last).values()
    }
    bare = [w for w in wires.values() if not w.gfci]
    needs = _needs(facts, lambda item, index: _cover(item, index, gfci=True))
    if not bare or needs is None or max(needs) >= max(facts.needed) - 1e-6:
        return []
    edits: list[dict[str, object]] = [protect(w) for w in bare]
    if not _deep_enough(facts, needs):
        edits.append(_dig(facts, needs))
    more = (0.25, facts.book.number("gfci_breaker_dollars") * len(bare))
    label = f"GFCI at the breaker, {show_inches(max(needs))}"
    return [_option(facts, "gfci", label, needs, laid, edits, more)]


def _other(facts: TrenchFacts, key: str) -> list[Option]:
    if all(item.view.way.legs[index].method == key for item in facts.lain for index in item.legs):
        return []
    for item in facts.lain:
        if any(judge(facts.book, key, item.view.facts[index]).verdict == "no" for index in item.legs):
            return []
    needs = _needs(facts, lambda item, index: _cover(item, index, method=key))
    laid = _laid(facts, key)
    if needs is None or laid is None:
        return []
    edits: list[dict[str, object]] = []
    for item in facts.lain:
        mend = use_method(item.view, item.laid.first, key, item.laid.last)
        if mend is None:
            return []
        edits += mend.edits
    if not _deep_enough(facts, needs):
        edits.append(_dig(facts, needs))
    label = f"{method(facts.book, key).name}, {show_inches(max(needs))}"
    return [_option(facts, key, label, needs, laid, edits)]


def connections_of(facts: TrenchFacts) -> list[Connection]:
    """The same feed brought over: as it is, one size up, stepped up for drop, in cable, over the air."""
    main = max(
        facts.lain, key=lambda item: max((w.breaker_a for w in _wires(item)), default=0.0), default=None
    )  # fmt: skip
    if main is None or not _wires(main):
        return []
    wires = max(_wires(main), key=lambda item: item.breaker_a)
    long_ft = sum(leg.length_in for leg in main.view.way.legs) / 12
    needs, own = _needs(facts, _cover), _laid(facts)
    found: list[Connection] = []
    if needs is not None and own is not None:
        hours, dollars = _dug(facts, needs)
        here = _row(facts, "trench", f"Trench, {main.name}", hours + own[0], dollars + own[1], wires, long_ft, True)
        found.append(here)
        found += _larger(facts, main, wires, long_ft, here)
    cable = next((item for key in CABLES for item in _other(facts, key)), None)
    if cable is not None:
        row = _row(facts, "cable", f"Trench, cable at {show_inches(cable.cover_in)}", cable.hours, cable.dollars,
                   wires, long_ft)  # fmt: skip
        found.append(replace(row, mend=cable.mend, later="nothing: it is dug up again"))
    return [*found, *_overhead(facts, wires, long_ft)]


def _wires(item: Lain) -> list[HopWires]:
    return list(item.view.circuits(item.laid.first, item.laid.last).values())


def _drops(
    book: Codebook, wires: HopWires, long_ft: float, size: str, material: str = ""
) -> tuple[float | None, float | None]:
    """Drop in per cent at the breaker's rating and at the real load, None while none is known, over the whole way."""
    try:
        at_breaker, at_load = (
            drop(book, wires.volts, amps, long_ft, size, material or wires.material).drop_percent
            for amps in (wires.breaker_a, wires.load_a)
        )
    except LevelRunError:
        return None, None
    return at_breaker, at_load if wires.load_a else None


def _row(
    facts: TrenchFacts, key: str, label: str, hours: float, dollars: float, wires: HopWires, long_ft: float,
    here: bool = False, size: str = "",
) -> Connection:  # fmt: skip
    at_breaker, at_load = _drops(facts.book, wires, long_ft, size or wires.wire_size)
    return Connection(
        key=key, label=label, hours=hours, dollars=dollars, wait_days=facts.book.number("marks_wait_days"),
        drop_breaker=at_breaker, drop_load=at_load, later="wires are pulled out and in", takes="", here=here,
        mend=None,
    )  # fmt: skip


def _larger(facts: TrenchFacts, main: Lain, wires: HopWires, long_ft: float, here: Connection) -> list[Connection]:
    """One size up; and, where the drop at the breaker is over 3 %, the size that keeps it."""
    order, book = wire_sizes(facts.book), facts.book
    if wires.wire_size not in order or not main.piped:
        return []
    sizes = [order[min(order.index(wires.wire_size) + 1, len(order) - 1)]]
    limit = book.number("drop_branch_percent")
    if here.drop_breaker is not None and here.drop_breaker > limit:
        with suppress(LevelRunError):
            sizes.append(
                choose(
                    book,
                    Demand(
                        load_a=wires.breaker_a, breaker_a=wires.breaker_a, volts=wires.volts, material=wires.material,
                        wiring="raceway", insulation=wires.insulation, length_ft=long_ft, drop_limit_percent=limit,
                    ),
                ).size
            )  # fmt: skip
    found: list[Connection] = []
    for size in dict.fromkeys(sizes):
        if size == wires.wire_size:
            continue
        more = _dearer(book, wires, size) * long_ft
        ends = spliced_down(book, wires, size)
        hours = here.hours + 2 * book.number("splice_box_hours") * bool(ends)
        dollars = here.dollars + more + (2 * book.number("splice_box_dollars") + ends * book.number("splice_dollars")
                                         if ends else 0.0)  # fmt: skip
        label = f"Trench, wire of {size}" + (f", spliced down to {wires.wire_size} at both ends" if ends else "")
        row = _row(facts, f"wire-{size}", label, hours, dollars, wires, long_ft, size=size)
        found.append(
            replace(row, takes=_takes(book, size, ends), mend=Mend(f"Wire it in {size}", [rewire(wires, size)]))
        )
    return found


def _takes(book: Codebook, size: str, splices: int) -> str:
    """What a stepped-up feed wants at its ends: boxes, splices, room to bend, the bond screw."""
    if not splices:
        return ""
    room = bending_in(book, size)
    bend = f", {show_inches(room)} to bend {size} in each (312.6)" if room else ""
    return f"2 boxes, {splices} listed splices{bend}; the bonding screw out at the far panel"


def _dearer(book: Codebook, wires: HopWires, size: str) -> float:
    """Dollars a foot that larger hots, neutral and ground cost more."""
    table = book.table("wire")
    one = float(table.get(size)[wires.material]) - float(table.get(wires.wire_size)[wires.material])
    return one * (wires.conductors + 1)


def spliced_down(book: Codebook, wires: HopWires, size: str) -> int:
    """How many splices a stepped-up feed wants at both ends together: none where the usual lugs of its breaker take
    the wire, else one a wire and end (110.14(A))."""
    takes = usual_lugs(book, "breaker", wires.breaker_a)
    return 2 * (wires.conductors + (1 if wires.grounded else 0)) if too_big(book, size, takes) else 0


def bending_in(book: Codebook, size: str) -> float | None:
    """Room to bend a wire at its lug or splice (312.6(A)). Exact row; None for small wire, of which none is asked."""
    row = book.table("312-6-bending").find(size)
    return float(row["space_in"]) if row else None


def _overhead(facts: TrenchFacts, wires: HopWires, long_ft: float) -> list[Connection]:
    """Over the air from wall to wall: cabled aluminium on a bare messenger, a head at each end."""
    book = facts.book
    a, b = facts.trench.points[0], facts.trench.points[-1]
    span_ft = math.dist(a, b) / 12
    cable = hung_size(book, wires)
    if not cable or span_ft * 12 < 36:
        return []
    fits = cable.partition("-")[0]
    count = max(wires.conductors, 2)
    wire = float(book.table("wire").get(fits)["al"]) * (count + 1) * span_ft
    hours = 2 * book.number("head_hours") + book.number("string_hours")
    dollars = 2 * book.number("head_dollars") + wire + (count + 1) * 2 * book.number("splice_dollars")
    at_breaker, at_load = _drops(book, wires, long_ft, fits, "al")
    return [
        Connection(
            key="overhead", label=f"Overhead, {fits} aluminum, two heads", hours=hours, dollars=dollars,
            wait_days=0.0,
            drop_breaker=at_breaker, drop_load=at_load, later="it is taken down for more",
            takes=f"a head for {count + 1} wires and a drip loop at each end", here=False, mend=None,
        )
    ]  # fmt: skip
