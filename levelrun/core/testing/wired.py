"""A circuit as a network of its conductors: from the source through feeders to every box, with its joints and loads.

Resistance of conductors: chapter 9 table 8, direct current at 75 °C, brought to another temperature by its note 2
(α = 0.00323 for copper, 0.00330 for aluminum, from memory). A joint is reckoned at 3 mΩ, the source at 15 mΩ a leg:
common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from levelrun.core.circuits.circuit_plan import ChainRow, CircuitPlan
from levelrun.core.circuits.feeders import feeders_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import resistance
from levelrun.core.errors import UnknownKeyError
from levelrun.core.job import Circuit, Job
from levelrun.core.kept import kept_hash
from levelrun.core.trade.nodal import Branch, Network, Source

ALPHA = {"cu": 0.00323, "al": 0.00330}
COLD_C, HOT_C = 20.0, 75.0
JOINT_OHM, SOURCE_OHM, BOND_OHM = 0.003, 0.015, 0.0005
EARTH, OPEN_OHM = "earth", 1e8
COUPLED_OHM = 1.2e7  # an open wire beside a live one: what lets a high-impedance meter read some tens of volts
HOTS = ("hot", "hot2")
WIRES = (*HOTS, "neutral", "ground")


@dataclass(frozen=True, kw_only=True)
class Span:
    """One cable of a circuit: from a box (or its panel) to a box, feet, its wires' size and metal, its ground's size;
    which wires it has."""

    start: str
    box: str
    feet: float
    size: str
    ground: str
    material: str
    wires: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class Wired:
    """A circuit as it is wired. `panel`: the id of its panel; `feeders`: the spans from the source to that panel, in
    order; loads: watts by box; joined: the panels where neutral and ground are joined, one if all is right; trips:
    the breaker, amperes; `known`: every length is."""

    circuit: str
    panel: str
    source: str
    feeders: tuple[Span, ...]
    spans: tuple[Span, ...]
    loads: tuple[tuple[str, float], ...]
    volts: int
    volts_read: float = 120.0
    joined: tuple[str, ...] = ()
    known: bool = True
    book: Codebook = field(repr=False)

    __hash__ = kept_hash

    @property
    def boxes(self) -> list[str]:
        """Its boxes, in the order of the chain."""
        return [span.box for span in self.spans]

    @property
    def hots(self) -> tuple[str, ...]:
        """Its hot wires."""
        return ("hot", "hot2") if self.volts != 120 else ("hot",)

    @property
    def neutral(self) -> bool:
        """Whether it has a neutral."""
        return any("neutral" in span.wires for span in self.spans)

    def path(self, box: str) -> list[Span]:
        """The spans from its panel to a box."""
        by_box = _by_box(self.spans)
        found: list[Span] = []
        at = box
        while at in by_box and len(found) <= len(self.spans):
            found.append(by_box[at])
            at = by_box[at].start
        return found[::-1]

    def feet(self, box: str) -> float:
        """How far a box lies from its panel along the cable."""
        return sum(span.feet for span in self.path(box))

    def long(self, box: str) -> str:
        """That in words."""
        return f"{self.feet(box):.0f} ft" if self.known else "a length that is not known"

    @property
    def far(self) -> str:
        """The box that lies farthest."""
        return max(self.boxes, key=self.feet, default="")


@lru_cache(maxsize=1024)
def _by_box(spans: tuple[Span, ...]) -> Mapping[str, Span]:
    return {span.box: span for span in spans}


def wired_of(
    job: Job, book: Codebook, circuit: Circuit, plans: Mapping[str, CircuitPlan], volts_read: float = 120.0
) -> Wired:
    """A circuit of a job as it is wired."""
    own = plans[circuit.id]
    feeders = list(_feeders(job, circuit.panel, plans))
    source = feeders[0][0].panel if feeders else circuit.panel
    partner = next((c for c in job.circuits if c.id == circuit.partner), None)
    shared = {hop.box for hop in partner.chain} if partner is not None else set()
    if partner is not None and own.chain and not shared & {row.box for row in own.chain}:
        shared = {own.chain[0].box}
    spans = tuple(_span(circuit, row, row.box in shared) for row in own.chain)
    return Wired(
        circuit=circuit.id,
        panel=circuit.panel,
        source=source,
        feeders=tuple(_end_to_end(feed, plan) for feed, plan in feeders),
        spans=spans,
        loads=tuple((row.box, row.watts) for row in own.chain if row.watts > 0),
        volts=circuit.volts,
        volts_read=volts_read,
        joined=(source,),
        known=all(row.length_in is not None for row in own.chain),
        book=book,
    )


def _feeders(job: Job, panel: str, plans: Mapping[str, CircuitPlan]) -> Iterator[tuple[Circuit, CircuitPlan]]:
    """The feeders from the source to a panel, the first one first."""
    found: list[tuple[Circuit, CircuitPlan]] = []
    at, feeders = panel, feeders_of(job)
    while (feed := feeders.get(at)) is not None and len(found) < 6:
        found.append((feed, plans[feed.id]))
        at = feed.panel
    yield from reversed(found)


def _span(circuit: Circuit, row: ChainRow, shared: bool) -> Span:
    """A hop with its wires; where it shares its neutral, the hot of the other circuit is the second."""
    hots = HOTS if circuit.volts != 120 or shared else HOTS[:1]
    words = row.words.split(", ")
    neutral = ("neutral",) if "neutral" in words or (circuit.volts == 120) else ()
    ground = ("ground",) if row.ground else ()
    return Span(
        start=row.after or circuit.panel,
        box=row.box,
        feet=(row.length_in or 0.0) / 12,
        size=row.size,
        ground=row.ground,
        material=circuit.material,
        wires=(*hots, *neutral, *ground),
    )


def _end_to_end(feed: Circuit, plan: CircuitPlan) -> Span:
    """A feeder as one span from panel to panel."""
    rows = {row.box: row for row in plan.chain}
    feet, at, row = 0.0, feed.feeds, None
    while at in rows:
        row = rows[at]
        feet += (row.length_in or 0.0) / 12
        at = row.after
    first = plan.chain[0] if plan.chain else None
    return Span(
        start=feed.panel,
        box=feed.feeds or "",
        feet=feet,
        size=feed.wire_size,
        ground=first.ground if first is not None else "",
        material=feed.material,
        wires=WIRES,
    )


@dataclass(frozen=True, kw_only=True)
class State:
    """How the circuit stands while it is read: its breaker on, its loads on (all of them, or one more of so many
    watts at a box), how warm its wires are."""

    on: bool = True
    loaded: bool = False
    extra_w: float = 0.0
    extra_at: str = ""
    celsius: float = COLD_C


def ohms_of(book: Codebook, size: str, material: str, feet: float, celsius: float) -> float:
    """The resistance of a wire at a temperature."""
    try:
        per_kft = resistance(book, size, material)
    except UnknownKeyError:
        return 0.0
    return per_kft * feet / 1000 * (1 + ALPHA[material] * (celsius - HOT_C))


def along(wired: Wired, box: str, wire: str, celsius: float) -> float:
    """The resistance of one wire from the panel to a box, joints and all: what is read where no other path is."""
    return sum(
        ohms_of(
            wired.book,
            (span.ground if wire == "ground" else span.size) or span.size,
            span.material,
            span.feet,
            celsius,
        )
        + JOINT_OHM
        for span in wired.path(box)
    )


def at(box: str, wire: str) -> str:
    """The node of a wire in a box."""
    return f"{box}.{wire}"


def branches(wired: Wired, state: State, changed: Iterable[Branch] = ()) -> list[Branch]:
    """All conductors and loads as branches; `changed` stand in the place of those between the same two nodes."""
    found: dict[tuple[str, str], Branch] = {}

    def put(item: Branch) -> None:
        found[item.a, item.b] = item

    for panel in wired.joined:
        put(Branch(at(panel, "neutral"), at(panel, "ground"), BOND_OHM))
    put(Branch(at(wired.source, "ground"), EARTH, BOND_OHM))
    for item in _conductors(wired, wired.feeders, state, breaker=True):
        put(item)
    for item in _conductors(wired, wired.spans, state, breaker=state.on):
        put(item)
    if state.loaded:
        for item in _loads(wired, state):
            put(item)
    if not state.on and wired.far:
        put(Branch(at(wired.source, "hot"), at(wired.far, "hot"), COUPLED_OHM))
    for item in changed:
        put(item)
    return list(found.values())


def _conductors(wired: Wired, spans: Sequence[Span], state: State, *, breaker: bool) -> Iterator[Branch]:
    panels = {wired.panel, wired.source, *(span.box for span in wired.feeders)}
    for span in spans:
        for wire in span.wires:
            size = span.ground if wire == "ground" else span.size
            ohms = ohms_of(wired.book, size or span.size, span.material, span.feet, state.celsius) + JOINT_OHM
            cut = wire in HOTS and span.start in panels and span.box not in panels and not breaker
            start, end = at(span.start, wire), at(span.box, wire)
            yield Branch(start, end, OPEN_OHM if cut else ohms)


def _loads(wired: Wired, state: State) -> Iterator[Branch]:
    ends = ("hot", "hot2") if wired.volts != 120 else ("hot", "neutral")
    volts = wired.volts
    for box, watts in wired.loads:
        yield Branch(at(box, ends[0]), at(box, ends[1]), volts**2 / watts)
    if state.extra_w and state.extra_at:
        yield Branch(f"{state.extra_at}.{ends[0]}", f"{state.extra_at}.plug", volts**2 / state.extra_w)
        yield Branch(f"{state.extra_at}.plug", at(state.extra_at, ends[1]), BOND_OHM)


def network(wired: Wired, state: State, changed: Iterable[Branch] = ()) -> Network:
    """The circuit with its source on: two legs of one transformer against the neutral."""
    source = wired.source
    volts = wired.volts_read
    legs = [
        Source(at(source, "hot"), at(source, "neutral"), volts, SOURCE_OHM),
        Source(at(source, "hot2"), at(source, "neutral"), -volts, SOURCE_OHM),
    ]
    return Network(branches(wired, state, changed), legs, EARTH)


def warmer(state: State) -> State:
    """The same with its wires at 75 °C."""
    return replace(state, celsius=HOT_C)
