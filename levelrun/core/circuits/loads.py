"""What a circuit carries, hop by hop: its wires, its amperes, and the protection that stands before each."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.circuits.cables import CableNeed, cable_needs
from levelrun.core.circuits.chain import Link, Tree, tree_of
from levelrun.core.circuits.spaces import label
from levelrun.core.circuits.usual import expected_w, is_continuous, plated
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import made_size
from levelrun.core.job import Box, Circuit, Hop, Job
from levelrun.core.kept import Standing, kept_hash
from levelrun.core.rulebook import keeping

GIVES: dict[str, frozenset[str]] = {
    "gfci": frozenset({"gfci"}), "afci": frozenset({"afci"}), "dual": frozenset({"gfci", "afci"}),
    "plain": frozenset(), "": frozenset(),
}  # fmt: skip
# Home runs behind which the first outlet may give arc-fault protection; of a raceway it is asked what it is made of.
OUTLET_AFCI = ("MC", "AC", "raceway")
HOTS = ("black", "red", "blue", "brown")


def hot_colours(hue: int, count: int) -> list[str]:
    """The colours of so many hots in pipe, from `hue` on."""
    return [HOTS[(hue + n) % len(HOTS)] for n in range(count)]


@dataclass(frozen=True, kw_only=True)
class HopWires:
    """The wires of one hop, as the way that they lie in, the boxes at both ends and the lists see them.

    continuous_a: what of its load may stay on; conductors: hots and neutral; ground: empty where none
    runs with it; gfci: protection stands before this hop. idle: wires of it that carry nothing while the others do
    (one of two travellers, a signal); nonlinear: its neutral carries current though hots of both legs are there;
    hue: where the colours of its hots in pipe begin among those of the trade, apart from what lies beside it;
    least_a: what the nameplate asks the wire to carry, 0 where none is said; words: what each of its wires is for.
    """

    circuit: str
    label: str
    name: str
    start: str
    box: str
    after: str | None
    volts: int
    breaker_a: float
    load_a: float
    continuous_a: float
    wire_size: str
    material: str
    insulation: str
    conductors: int
    neutral: bool
    grounded: bool
    ground: str
    nameplate: bool
    protection: str
    gfci: bool
    partner: str | None
    method: str
    feeds: bool
    idle: int = 0
    nonlinear: bool = False
    least_a: float = 0.0
    words: tuple[str, ...] = ()
    hue: int = 0

    __hash__ = kept_hash

    @property
    def title(self) -> str:
        """Its circuit as it is called: 14 Cold-store shed."""
        return f"{self.label} {self.name}".strip()

    @property
    def cabled(self) -> str:
        """The size of a cable of its own, whether or not it is made: 12-2."""
        return f"{self.wire_size}-{self.conductors}"

    @property
    def piped(self) -> str:
        """What it is in pipe: 12 in pipe."""
        return f"{self.wire_size} in pipe"


def strand_name(size: str, insulation: str, material: str) -> str:
    """What a single wire is called: 12 THWN-2."""
    return f"{size} {insulation}{' al' if material == 'al' else ''}"


def cable_of(book: Codebook, wires: HopWires) -> str:
    """The size of the cable of a hop as it is made and bought: 4-3 where it takes a 4-2, which nobody makes. The next
    count up; as it takes it where none with so many is made."""
    return made_size(book, wires.method, wires.wire_size, wires.conductors) or wires.cabled


@dataclass(frozen=True, eq=False)
class CircuitLoads:
    """A circuit with its boxes: everything that does not ask how far they stand apart."""

    book: Codebook
    circuit: Circuit
    own: tuple[Box, ...]
    fed_load_a: float

    @cached_property
    def boxes(self) -> dict[str, Box]:
        """Its boxes by id."""
        return {box.id: box for box in self.own}

    @cached_property
    def hops(self) -> dict[str, Hop]:
        """Its hops by the box that they go to."""
        found: dict[str, Hop] = {}
        for hop in self.circuit.chain:
            found.setdefault(hop.box, hop)
        return found

    @cached_property
    def taken(self) -> tuple[str, ...]:
        """The ways that its hops take, by id, each once."""
        return tuple(dict.fromkeys(way for hop in self.circuit.chain for way in hop.path))

    @cached_property
    def tree(self) -> Tree:
        """Its boxes in order."""
        return tree_of(self.circuit, {})

    @cached_property
    def needs(self) -> dict[str, CableNeed]:
        """The wires of each cable, by the box that it goes to."""
        return cable_needs(self.circuit, self.tree, self.boxes)

    @cached_property
    def loads(self) -> dict[str, float]:
        """Watts expected at each box, by what stands there."""
        return {box.id: expected_w(self.book, box) for box in plated(self.book, self.circuit, self.own)}

    @cached_property
    def by_boxes_a(self) -> float:
        """Amperes that its boxes expect; of a feeder what the panel that it feeds expects."""
        if self.circuit.feeds is not None:
            return self.fed_load_a
        return sum(self.loads.values()) / self.circuit.volts

    @property
    def load_a(self) -> float:
        """Amperes expected on the whole circuit: as said, else by its boxes."""
        return self.by_boxes_a if self.circuit.load_a is None else self.circuit.load_a

    @property
    def share(self) -> float:
        """What was said over what its boxes expect; 1 where nothing was said."""
        return self.load_a / self.by_boxes_a if self.by_boxes_a else 1.0

    @cached_property
    def continuous_a(self) -> float:
        """The part of it that stays on for three hours or more."""
        on = (box for box in self.own if is_continuous(self.book, box))
        return self.share * sum(self.loads[box.id] for box in on) / self.circuit.volts

    def amps_in(self, link: Link) -> float:
        """Amperes expected in one link: everything downstream of it. Where the load was said and no box expects
        any, all of it in every link."""
        return self._amps[link.box]

    @cached_property
    def _amps(self) -> dict[str, float]:
        if self.circuit.feeds is not None or not self.by_boxes_a:
            return {link.box: self.load_a for link in self.tree.links}
        below, loads, volts = self.tree.below, self.loads, self.circuit.volts
        return {
            link.box: self.share * sum(loads.get(box, 0.0) for box in below(link.box)) / volts
            for link in self.tree.links
        }

    def given(self, box: str) -> frozenset[str]:
        """The protection that reaches a box: from the breaker, and from devices in the chain up to its own."""
        return self._given.get(box, GIVES[self.circuit.protection])

    @cached_property
    def _given(self) -> dict[str, frozenset[str]]:
        found: dict[str, frozenset[str]] = {}
        for link in self.tree.links:
            before = GIVES[self.circuit.protection] if link.after is None else found[link.after]
            device = self.boxes.get(link.box)
            found[link.box] = before | self._by_device(device) if device else before
        return found

    def _by_device(self, box: Box) -> frozenset[str]:
        """What the device of a box gives onward: an arc-fault outlet only behind a metal home run (210.12(A)), or at
        an outlet of a circuit that is drawn out (210.12(E))."""
        given = GIVES[box.protects]
        return given if self.circuit.method in OUTLET_AFCI or box.old else given - {"afci"}

    @cached_property
    def wires(self) -> dict[str, HopWires]:
        """The wires of its hops, by the box that each goes to; grounds are worked out later, from how they lie."""
        return {link.box: self._wires(link) for link in self.tree.links}

    def _wires(self, link: Link) -> HopWires:
        c, hop, need = self.circuit, self.hops[link.box], self.needs[link.box]
        count = max(need.count, hop.conductors or 0)
        return HopWires(
            circuit=c.id,
            label=label(c),
            name=c.name,
            start=link.after or c.panel,
            box=link.box,
            after=link.after,
            volts=c.volts,
            breaker_a=c.breaker_a,
            load_a=self.amps_in(link),
            continuous_a=min(self.continuous_a, self.amps_in(link)),
            wire_size=hop.wire_size or c.wire_size,
            material=c.material,
            insulation=c.insulation,
            conductors=count,
            neutral="neutral" in need.words,
            grounded=c.equipment_ground,
            ground="",
            nameplate=c.nameplate,
            protection=c.protection,
            gfci="gfci" in (GIVES[c.protection] if link.after is None else self.given(link.after)),
            partner=c.partner,
            method=c.method,
            feeds=c.feeds is not None,
            idle=max(need.words.count("traveller") - 1, 0) + need.words.count("interconnect"),
            nonlinear=c.nonlinear,
            least_a=c.least_ampacity_a or 0.0,
            words=need.words + ("spare",) * (count - need.count),
        )


@keeping(2048)
def loads_of(book: Codebook, circuit: Circuit, own: tuple[Box, ...], fed_load_a: float) -> CircuitLoads:
    """A circuit with its boxes. Kept for as long as neither changes."""
    return CircuitLoads(book, circuit, own, fed_load_a)


_standing = Standing[CircuitLoads](2048)


def all_loads(job: Job, book: Codebook) -> dict[str, CircuitLoads]:
    """Every circuit with its boxes, by id; feeders with what the panels that they feed expect."""
    boxes = {box.id: box for box in job.boxes}
    own = {
        c.id: tuple(boxes[h] for h in dict.fromkeys(hop.box for hop in c.chain) if h in boxes) for c in job.circuits
    }

    def standing(c: Circuit, fed_a: float) -> CircuitLoads:
        return _standing.get((c.id, fed_a), (book, c, *own[c.id]), lambda: loads_of(book, c, own[c.id], fed_a))

    found = {c.id: standing(c, 0.0) for c in job.circuits if c.feeds is None}
    expected = expected_a(job, found)
    for c in job.circuits:
        if c.feeds is not None:
            found[c.id] = standing(c, expected.get(c.feeds, 0.0))
    return found


def expected_a(job: Job, branches: Mapping[str, CircuitLoads]) -> dict[str, float]:
    """Amperes at 240 V that each panel expects, the panels that it feeds included: of a feeder whose load was said,
    that."""
    own: dict[str, float] = {}
    feeders: dict[str, list[Circuit]] = {}
    for circuit in job.circuits:
        if circuit.feeds is not None:
            feeders.setdefault(circuit.panel, []).append(circuit)
        else:
            va = branches[circuit.id].load_a * circuit.volts
            own[circuit.panel] = own.get(circuit.panel, 0.0) + va / 240

    def whole(panel: str, seen: frozenset[str]) -> float:
        total = own.get(panel, 0.0)
        for item in feeders.get(panel, ()):
            if item.load_a is not None:
                total += item.load_a * item.volts / 240
            elif item.feeds is not None and item.feeds not in seen:
                total += whole(item.feeds, seen | {item.feeds})
        return total

    return {panel.id: whole(panel.id, frozenset({panel.id})) for panel in job.panels}


# What a hop is along its way as it is bought, by the box that it goes to: 12-2; 12-3 where two share one cable; 12 in
# pipe, then 12-2.
LaidAs = tuple[str, tuple[str, ...]]


@dataclass(frozen=True, kw_only=True)
class Laid:
    """A hop as it lies: its wires with their ground; its inches and the methods of its legs, where a way is said."""

    wires: HopWires
    length_in: float | None
    methods: tuple[str, ...]
