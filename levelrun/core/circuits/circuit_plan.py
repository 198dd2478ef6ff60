"""A circuit planned: findings, margins, its chain with cables and drop, and what goes dark when it trips."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.circuits import protection
from levelrun.core.circuits.chain import Link
from levelrun.core.circuits.facts import CircuitContext, CircuitView
from levelrun.core.circuits.loads import cable_of, strand_name
from levelrun.core.circuits.makeup import piece_in, to_the_foot
from levelrun.core.circuits.rules import chain, old, required, use, wire
from levelrun.core.circuits.spaces import label, leg_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import ground_size
from levelrun.core.findings import Figure, Finding, worst
from levelrun.core.measure import show
from levelrun.core.rulebook import judged, keeping, sourced

RULES = (*wire.RULES, *chain.RULES, *use.RULES, *required.RULES, *protection.RULES, *old.RULES)


@dataclass(frozen=True, kw_only=True)
class ChainRow:
    """One box of a chain: its depth and parent, the cable that reaches it with the ways it takes, the drop there.

    cable: what it is along its ways as it is bought (12-3 where two circuits share one; 12 in pipe); wires: as a
    cable, of the wires that it needs and those that it lies in; size and conductors: its own. cut_in: of a hop that
    no way carries; old: it was there before, with its cable.
    """

    box: str
    name: str
    kind: str
    room: str
    after: str | None
    depth: int
    length_text: str
    length_in: float | None
    cable: str
    wires: str
    size: str
    conductors: int
    words: str
    watts: float
    drop_percent: float | None
    drop_text: str
    over: bool
    protected: str
    ground: str
    cut_in: float | None
    path: list[str]
    old: bool


@dataclass(frozen=True, kw_only=True)
class CircuitSummary:
    """A row of the list of circuits. `length_in` is all its cable as it lies, where known."""

    id: str
    label: str
    name: str
    panel: str
    space: int | None
    half: str
    poles: int
    breaker_a: float
    protection: str
    leg: str
    boxes: int
    load_a: float
    verdict: str
    stops: int
    checks: int


@dataclass(frozen=True)
class Fact:
    """A line of facts."""

    label: str
    text: str


@dataclass(frozen=True, kw_only=True)
class CircuitPlan:
    """Everything that follows for one circuit."""

    summary: CircuitSummary
    findings: list[Finding]
    figures: list[Figure]
    chain: list[ChainRow]
    facts: list[Fact]
    cables: list[str]
    dark: str


@keeping(1024)
def plan_circuit(book: Codebook, context: CircuitContext) -> CircuitPlan:
    """Plans one circuit. Kept for as long as nothing that it touches changes."""
    view = CircuitView(book, context)
    found = judged(book, RULES, view)
    chain = [_row(view, link) for link in view.tree.links]
    return CircuitPlan(
        summary=_summary(view, found),
        findings=found,
        figures=sourced(book, _figures(view)),
        chain=chain,
        facts=_facts(view),
        cables=_cables(view),
        dark=_dark(view),
    )


def _summary(view: CircuitView, found: list[Finding]) -> CircuitSummary:
    c = view.circuit
    return CircuitSummary(
        id=c.id,
        label=label(c),
        name=c.name,
        panel=c.panel,
        space=c.space,
        half=c.half,
        poles=c.poles,
        breaker_a=c.breaker_a,
        protection=c.protection,
        leg="A and B" if c.poles == 2 else leg_of(c.space) if c.space else "",
        boxes=len(view.context.boxes),
        load_a=view.load_a,
        verdict=worst(found),
        stops=sum(item.severity == "stop" for item in found),
        checks=sum(item.severity == "check" for item in found),
    )


def _count(size: str) -> int:
    """The wires of a cable of a size: 3 of 12-3."""
    return int(size.partition("-")[2] or 0)


def _row(view: CircuitView, link: Link) -> ChainRow:
    box_id = link.box
    box, place = view.boxes.get(box_id), view.places.get(box_id)
    wires, lies = view.wires[box_id], view.lies[box_id]
    percent = view.percent_at(box_id, False)
    limit = view.book.number("drop_branch_percent")
    reach = view.given(box_id)
    ways = f", {box.ways}-way" if box and box.kind == "switch" and box.ways > 2 else ""
    return ChainRow(
        box=box_id,
        name=view.name_of(box_id),
        kind=f"{box.kind}{ways}" if box else "panel",
        room=place.room_name if place else "",
        after=link.after,
        depth=link.depth,
        length_text=_length_text(link, box is not None and box.old),
        length_in=link.length_in,
        cable=", then ".join(lies),
        wires=max(wires.cabled, *lies, key=_count),
        size=wires.wire_size,
        conductors=wires.conductors,
        words=", ".join(view.needs[box_id].words),
        watts=view.loads.get(box_id, 0.0),
        drop_percent=percent,
        drop_text="" if percent is None else f"{percent:.1f} %",
        over=percent is not None and percent > limit,
        protected=" and ".join(
            {"gfci": "ground-fault", "afci": "arc-fault"}[kind] for kind in sorted(reach, reverse=True)
        ),
        ground=wires.ground,
        cut_in=None if view.methods.get(box_id) else _derived_cut(view, link),
        path=list(view.on.hops[box_id].path),
        old=box is not None and box.old,
    )


def _length_text(link: Link, old: bool) -> str:
    if old:
        return "was there"
    return show(round(link.length_in)) if link.length_in is not None else "length not known"


def _figures(view: CircuitView) -> list[Figure]:
    c = view.circuit
    share = view.book.scalar("continuous_percent")
    continuous = view.continuous_a > 0
    most = c.breaker_a * share.value / 100 if continuous else c.breaker_a
    shown = (
        max(view.continuous_a, 0.0) if continuous and view.continuous_a * 100 / share.value > view.load_a else None
    )
    value = view.load_a if shown is None else shown
    limit = c.breaker_a if shown is None else most
    figures = [
        Figure(
            key="load", label="Expected load", value=value, text=f"{value:.1f}", unit="A",
            formula="watts of every box on it, divided by the volts; continuous load is held to 80 %",
            inputs={
                "all boxes": f"{view.load_a:.2f} A", "of it continuous": f"{view.continuous_a:.2f} A",
                "breaker": f"{c.breaker_a:g} A", "80 % of it": f"{c.breaker_a * share.value / 100:g} A",
            },
            rule=share.section, basis=share.basis, limit=limit, limit_text=f"{limit:g} A",
        )
    ]  # fmt: skip
    figures += _drop_figures(view)
    outlets = [box for box in view.context.boxes if box.kind not in ("switch", "junction", "disconnect")]
    if c.feeds is None and len(outlets) > 1:
        book = view.book.scalar("outlets_per_circuit")
        most_boxes = int(book.value) or view.context.habits.boxes_per_circuit
        figures.append(
            Figure(
                key="boxes", label="Outlets on it" + ("" if book.value else ", this shop's habit"),
                value=float(len(outlets)), text=str(len(outlets)), unit="",
                formula="receptacles, lights and equipment; switches do not count",
                inputs={"outlets": str(len(outlets))},
                rule=book.section if book.value else "common practice, no source",
                basis=book.basis if book.value else "practice", limit=float(most_boxes), limit_text=str(most_boxes),
            )
        )  # fmt: skip
    return figures


def _drop_figures(view: CircuitView) -> list[Figure]:
    worst_at = view.farthest
    if worst_at is None:
        return []
    limit = view.book.scalar("drop_branch_percent")
    box, loaded = worst_at
    rated = view.percent_at(box, True)
    feet = sum(link.length_in or 0.0 for link in view.tree.path(box)) / 12
    found = []
    for key, words, value in (("drop", "as loaded", loaded), ("drop-breaker", "at the breaker", rated)):
        if value is None:
            continue
        found.append(
            Figure(
                key=key, label=f"Drop to {view.name_of(box)}, {words}", value=value, text=f"{value:.1f} %",
                unit="%", formula="2 · I · L · R / 1000, link by link, each with the load of all downstream"
                if key == "drop" else "2 · I · L · R / 1000 with the whole breaker rating to that box",
                inputs={
                    "cable to it": f"{feet:.1f} ft", "with make-up": f"{view.carrying_ft(box):.1f} ft",
                    "wire": f"{view.circuit.wire_size} {view.circuit.material}",
                    "feeder before it": f"{view.context.feeder_percent:.2f} %", "unrounded": f"{value:.4f} %",
                },
                rule=limit.section, basis=limit.basis, limit=limit.value, limit_text=f"{limit.value:g} %",
                beyond_text=f"{value - limit.value:.1f} % over" if value > limit.value else "",
                advised="informational" in limit.section,
            )
        )  # fmt: skip
    return found


def _facts(view: CircuitView) -> list[Fact]:
    c = view.circuit
    metal = "aluminum" if c.material == "al" else "copper"
    grounds = dict.fromkeys(wires.ground for wires in view.context.wires)
    ground = " and ".join(grounds) or ground_size(view.book, c.breaker_a, c.material)
    found = [
        Fact("Breaker", f"{c.breaker_a:g} A, {c.poles}-pole, {c.protection}"),
        Fact("Wire", f"{c.wire_size} {metal}, " + (f"ground {ground}" if c.equipment_ground else "no ground")),
        Fact("Leg", "A and B" if c.poles == 2 else leg_of(c.space) if c.space else "no space yet"),
    ]
    switches = [box for box in view.context.boxes if box.kind == "switch"]
    if switches:
        bare = [b.name for b in switches if b.id in view.needs and "neutral" not in view.needs[b.id].words]
        found.append(Fact("Neutral at the switches", "yes" if not bare else f"missing at {', '.join(bare)}"))
    if view.tree.links:
        found.append(Fact("Cable as it lies", show(round(view.length_in))))
    found.append(Fact("Cable letters, both ends", f"{label(c) or '?'} · {c.name.upper()[:24]}"))
    return found


def _cables(view: CircuitView) -> list[str]:
    """Cable to cut by kind: the pieces along its ways as they are cut there; of the other hops as they lie, with the
    shop's make-up, loop and waste, each piece rounded up to the foot."""
    walked = {box for box, methods in view.methods.items() if methods}
    totals: dict[tuple[int, str], float] = {}
    for item, pieces, length in view.context.cuts:
        totals[pieces, item] = totals.get((pieces, item), 0.0) + length
    for link in view.tree.links:
        cut = None if link.box in walked else _derived_cut(view, link)
        if cut is None:
            continue
        wires = view.wires[link.box]
        piped = wires.method == "raceway"
        count = wires.conductors + wires.grounded if piped else 1
        single = strand_name(wires.wire_size, wires.insulation, wires.material)
        name = single if piped else f"{cable_of(view.book, wires)} {wires.method}"
        totals[count, name] = totals.get((count, name), 0.0) + cut
    return [
        f"{f'{count} × ' if count > 1 else ''}{total / 12:.0f} ft of {name}"
        for (count, name), total in totals.items()
    ]


def _derived_cut(view: CircuitView, link: Link) -> float | None:
    """What is cut for a hop that no way carries, inches; None where its length is not known."""
    if link.length_in is None:
        return None
    return to_the_foot(piece_in(view.context.habits, link.length_in, *view.makeup(link)))


def _dark(view: CircuitView) -> str:
    if view.circuit.feeds is not None and view.context.fed is not None:
        return f"Everything on {view.context.fed.name}."
    lit = {
        view.places[b.id].room_name for b in view.context.boxes if b.kind in ("light", "fan") and b.id in view.places
    }
    plugged = {view.places[b.id].room_name for b in view.plugs if b.id in view.places}
    parts = []
    if lit:
        parts.append(f"Lights of {', '.join(sorted(lit))}.")
    if plugged:
        parts.append(f"Outlets of {', '.join(sorted(plugged))}.")
    only = sorted(plugged - lit)
    if only and not lit:
        parts.append("Its lights are on other circuits, so no room goes dark.")
    return " ".join(parts) or "Nothing else."
