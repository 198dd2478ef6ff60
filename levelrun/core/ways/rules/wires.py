"""Rules about what lies in a way: whether it gets there, ampacity, cable by circuit, grounds, hot roofs."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import replace

from levelrun.core.circuits.loads import HopWires
from levelrun.core.codebook.lookups import cable, cable_sizes, made_size, wire_sizes
from levelrun.core.errors import LevelRunError, UnknownKeyError
from levelrun.core.findings import Finding, Mend
from levelrun.core.rulebook import Rule
from levelrun.core.trade.conductors.sizing import MILD_C, Demand, choose, deciding, next_rating, usable
from levelrun.core.ways.carried import Lying
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.mends import Edit, end_at, facts_with, rewire, set_leg, wire_name


def reach_rule(view: WayView) -> Iterator[Finding]:
    """A hop that takes this way starts and ends on it."""
    if not view.way.legs:
        return
    last = len(view.way.legs) - 1
    for item in view.context.carried:
        if item.reaches:
            continue
        box = view.nodes[item.wires.box]
        mends = (
            [] if view.way.legs[last].end.node else [Mend(f"It ends at {box.name}", [end_at(view, last, box.name)])]
        )
        yield finding(
            "way-short",
            view.way.id,
            last,
            f"It does not get to {box.name}",
            f"{item.wires.title} goes this way to {box.name}, which stands nowhere on it. Walk on, or say where it "
            "ends.",
            "300.15",
            measured=view.joint_name(last) or "open end",
            limit=box.name,
            mends=mends,
        )


def carries_rule(view: WayView) -> Iterator[Finding]:
    """A way that no circuit takes."""
    if view.way.legs and not view.context.carried:
        yield finding(
            "way-idle",
            view.way.id,
            None,
            "Nothing lies in it yet",
            "No circuit takes this way: wire, fill and cover by circuit cannot be judged. A spare pipe is fine.",
            "common practice, no source",
        )


def ampacity_rule(view: WayView) -> Iterator[Finding]:
    """The wire as it lies, leg by leg, against load and breaker; of each hop the leg that decides speaks, of each
    circuit the weakest of these. Short hot parts are weighed within the way."""
    parts: dict[tuple[str, str], list[tuple[float, int, Lying]]] = {}
    for index in view.unlike:
        for item in view.lying(index):
            try:
                amps = usable(view.book, view.demand(index, item), item.wires.wire_size)
            except UnknownKeyError:
                continue  # a size that is not made: said elsewhere
            except LevelRunError:
                amps = 0.0  # hotter than its insulation takes
            parts.setdefault((item.wires.circuit, item.wires.box), []).append((amps, index, item))
    weakest: dict[str, tuple[float, int, Lying]] = {}
    for (circuit, _), found in parts.items():
        part = found[deciding(view.book, [a for a, _, _ in found], [view.alike[i] for _, i, _ in found])]
        if circuit not in weakest or part[0] < weakest[circuit][0]:
            weakest[circuit] = part
    for amps, index, item in weakest.values():
        yield from _judged(view, amps, index, item)


def _short(view: WayView, amps: float, w: HopWires) -> float:
    """What a wire that carries so much is too small for: its load, its nameplate, its breaker; 0 where it is not."""
    need = max(w.load_a, w.least_a)
    if need > amps + 1e-9:
        return need
    return w.breaker_a if not w.nameplate and next_rating(view.book, amps) < w.breaker_a else 0.0


def _judged(view: WayView, amps: float, index: int, item: Lying) -> Iterator[Finding]:
    w, facts = item.wires, view.facts[index]
    most = _short(view, amps, w)
    if not most:
        return
    if facts.outdoors and view.way.legs[index].facts.ambient_c is None and not view.on_sunny_roof(index):
        mild = replace(view.demand(index, item), ambient_c=MILD_C)
        if not _short(view, usable(view.book, mild, w.wire_size), w):
            yield _if_hot(view, amps, index, item)
            return
    wants = "The load is" if most == w.load_a else "Its nameplate asks" if most == w.least_a else "The breaker is"
    yield finding(
        "ampacity-short",
        view.way.id,
        index,
        f"{view.called(w)}{wire_name(w, w.wire_size)} carries {amps:.0f} A here",
        f"{wants} {most:g} A. {facts.title} at {view.heat_c(index):g} °C, "
        f"{view.current_carrying(index, item)} wires that carry current.",
        "310.16, 310.14(A)(2), 110.14(C), 240.4",
        measured=f"{amps:.1f} A",
        limit=f"{most:g} A",
        mends=_wire_for(view, view.demand(index, item), item.wires),
    )


def _if_hot(view: WayView, amps: float, index: int, item: Lying) -> Finding:
    """Too small only in a heat that nobody said: asked, not stopped."""
    here = [
        i for i in view.indexes
        if view.facts[i].outdoors and view.way.legs[i].facts.ambient_c is None and view.facts[i].ambient_c > MILD_C
    ]  # fmt: skip
    mild = Mend(f"It stays under {MILD_C:g} °C there", [
        set_leg(view, i, facts=facts_with(view, i, ambient_c=MILD_C)) for i in here
    ])  # fmt: skip
    heat = view.heat_c(index)
    return finding(
        "heat-unsaid",
        view.way.id,
        index,
        f"Does it get {heat:g} °C there?",
        f"{view.called(item.wires)}{wire_name(item.wires, item.wires.wire_size)} on {item.wires.breaker_a:g} A is "
        f"enough at {MILD_C:g} °C; at {heat:g} °C, as {view.facts[index].title.lower()} is taken to be until it is "
        f"said, it carries {amps:.0f} A.",
        "310.15(B), 310.14(A)(2)",
        measured=f"{amps:.1f} A",
        limit=f"{item.wires.breaker_a:g} A",
        mends=[mild, *_wire_for(view, view.demand(index, item), item.wires)],
    )


def _wire_for(view: WayView, demand: Demand, wires: HopWires) -> list[Mend]:
    try:
        size = choose(view.book, replace(demand, breaker_a=max(demand.breaker_a or 0, demand.load_a))).size
    except LevelRunError:
        return []
    if not cables_made(view, wires, size):
        return []
    return [Mend(f"Wire it in {wire_name(wires, size)}", [rewire(wires, size)])]


def cables_made(view: WayView, wires: HopWires, size: str) -> bool:
    """Whether every cable of a circuit in this way is made in that gauge."""
    for index in view.indexes:
        if view.methods[index].kind == "raceway":
            continue
        for group, _ in view.cables(index):
            if any(item.wires.circuit == wires.circuit for item in group):
                count = sum(item.conductors for item in group)
                if made_size(view.book, view.way.legs[index].method, size, count) is None:
                    return False
    return True


def ground_rule(view: WayView) -> Iterator[Finding]:
    """A cable's own ground against what its circuit wants, grown with wires that grew for drop."""
    order = wire_sizes(view.book)
    for index, leg in enumerate(view.way.legs):
        if view.methods[index].kind != "cable":
            continue
        for group, size in view.cables(index):
            w = group[0].wires
            if size not in cable_sizes(view.book, leg.method) or not w.ground or w.wire_size not in order:
                continue
            own = cable(view.book, leg.method, size).ground
            if order.index(own) < order.index(w.ground):
                yield finding(
                    "ground-small",
                    view.way.id,
                    index,
                    f"{view.called(w)}{size} carries a {own} ground",
                    f"Wires grown for drop want their ground grown too: {w.ground} here. "
                    "Single wires in pipe bring it.",
                    "250.122(B)",
                    measured=own,
                    limit=w.ground,
                )


def cable_rule(view: WayView) -> Iterator[Finding]:
    """Every cable has the gauge and the count of wires of its circuit."""
    order = wire_sizes(view.book)
    for index, leg in enumerate(view.way.legs):
        if view.methods[index].kind == "raceway":
            continue
        for group, size in view.cables(index):
            gauge, _, count = size.partition("-")
            w, needed = group[0].wires, sum(item.conductors for item in group)
            if gauge not in order or w.wire_size not in order:
                continue
            wanted = f"{w.wire_size}-{max(needed, int(count or 0))}"
            made = wanted in cable_sizes(view.book, leg.method)
            use = Mend(f"Use {wanted} {view.methods[index].name}", [set_leg(view, index, size=wanted)])
            mends = [use] if made else []
            if order.index(gauge) < order.index(w.wire_size):
                yield finding(
                    "wire-smaller",
                    view.way.id,
                    index,
                    f"{view.called(w)}{size} on a {w.wire_size} circuit",
                    f"This leg is {gauge}, the circuit is {w.wire_size}: same gauge all the way, whips too.",
                    "240.4, 110.14",
                    measured=gauge,
                    limit=w.wire_size,
                    mends=mends,
                )
            if int(count or 0) < needed:
                yield finding(
                    "wires-short",
                    view.way.id,
                    index,
                    f"{view.called(w)}{size} is a wire short",
                    f"The circuit needs {needed} wires and ground; this cable has {count or 0}.",
                    "300.3(B), 200.7",
                    measured=count or "0",
                    limit=f"{needed}",
                    mends=mends,
                )


def roof_rule(view: WayView) -> Iterator[Finding]:
    """Pipe and cable on a roof in the sun: how high over it decides how hot they get (310.15(B)(2))."""
    legs = view.way.legs
    low = [i for i in view.indexes if view.on_sunny_roof(i) and legs[i].facts.above_roof_in is None]
    if not low:
        return
    adder, least = view.book.scalar("roof_adder_c"), view.book.number("roof_low_in")

    def raised(to: float) -> list[Edit]:
        return [set_leg(view, i, facts=facts_with(view, i, above_roof_in=to)) for i in low]

    flat = _flat_on(view, low, adder.value)
    yield finding(
        "roof-heat",
        view.way.id,
        low[0],
        "How far is it off the roof?",
        f"Under {least:g} in over a roof in the sun it lies {adder.value:g} °C hotter: its wire carries far less.",
        adder.section,
        last=low[-1],
        mends=[Mend("On blocks, 3″ up", raised(3.0))]
        + ([Mend(f"Flat on the roof{flat[0]}", [*raised(0.0), *flat[1]])] if flat is not None else []),
    )


def _flat_on(view: WayView, low: Sequence[int], adder_c: float) -> tuple[str, list[Edit]] | None:
    """What a way flat on the roof wants of the wires in it, in words and as edits; None where no wire is enough."""
    said, edits = "", list[Edit]()
    for index in low:
        for item in view.lying(index):
            hot = replace(view.demand(index, item), ambient_c=view.heat_c(index) + adder_c)
            with suppress(LevelRunError):
                if not _short(view, usable(view.book, hot, item.wires.wire_size), item.wires):
                    continue
            mends = _wire_for(view, hot, item.wires)
            if not mends:
                return None
            said, edits = f"{said}: {mends[0].label[:1].lower()}{mends[0].label[1:]}", [*edits, *mends[0].edits]
        if edits:
            break  # the legs of one way lie in one heat
    return said, edits


RULES: tuple[Rule[WayView], ...] = (
    reach_rule,
    carries_rule,
    roof_rule,
    ampacity_rule,
    cable_rule,
    ground_rule,
)
