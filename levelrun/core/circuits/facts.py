"""One circuit with everything that a rule about it may ask."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from levelrun.core.boxes.parts import PLUGS
from levelrun.core.circuits.cables import CableNeed
from levelrun.core.circuits.chain import Link, Tree, tree_of
from levelrun.core.circuits.loads import CircuitLoads, HopWires, LaidAs, loads_of
from levelrun.core.circuits.makeup import left_free_at
from levelrun.core.circuits.spaces import called
from levelrun.core.circuits.usual import usual_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Box, Circuit, Habits, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.trade.drop import drop

NEXT_ROOM = 20.0


@dataclass(frozen=True, kw_only=True)
class BoxPlace:
    """Of a box: its room, what the room is for, and what kind of structure it is in. by_gear: heating or cooling gear
    stands in its room, which is none to live in."""

    room: str
    room_name: str
    use: str
    structure: str
    structure_kind: str
    dwelling: bool
    level: str
    level_kind: str
    damp: bool
    sink_near: bool
    tub_near: bool
    by_gear: bool = False


@dataclass(frozen=True, kw_only=True)
class CircuitContext:
    """What a circuit touches. Hashable, so that an unchanged circuit is not planned again.

    lengths: inches of its hops by their ends, where known; wires: of each hop, with its ground; methods: by the box
    that a hop goes to, those of the legs that it takes, in order; cuts: pieces along its ways; lies: what each hop is
    there.
    """

    circuit: Circuit
    panel: Panel
    habits: Habits
    boxes: tuple[Box, ...]
    places: tuple[tuple[str, BoxPlace], ...]
    lengths: tuple[tuple[tuple[str | None, str], float], ...]
    feeder_percent: float
    partner: Circuit | None
    fed: Panel | None
    fed_load_a: float
    other_building: bool
    wires: tuple[HopWires, ...] = ()
    methods: tuple[tuple[str, tuple[str, ...]], ...] = ()
    cuts: tuple[tuple[str, int, float], ...] = ()
    lies: tuple[LaidAs, ...] = ()
    whole_dwelling: bool = False
    apart: tuple[tuple[str, float], ...] = ()

    __hash__ = kept_hash


@dataclass(frozen=True, eq=False)
class CircuitView:
    """A circuit under a rule set."""

    book: Codebook
    context: CircuitContext

    @property
    def circuit(self) -> Circuit:
        """The circuit."""
        return self.context.circuit

    @property
    def name(self) -> str:
        """Its spaces and its name."""
        return called(self.circuit)

    @cached_property
    def boxes(self) -> dict[str, Box]:
        """Its boxes by id."""
        return {box.id: box for box in self.context.boxes}

    @cached_property
    def old(self) -> tuple[Box, ...]:
        """Those of its boxes that were there before: then it is a circuit that is drawn out."""
        return tuple(box for box in self.context.boxes if box.old)

    @cached_property
    def places(self) -> dict[str, BoxPlace]:
        """Where its boxes stand, by box id; boxes in no room are left out."""
        return dict(self.context.places)

    @cached_property
    def on(self) -> CircuitLoads:
        """What it carries, hop by hop."""
        return loads_of(self.book, self.circuit, self.context.boxes, self.context.fed_load_a)

    @cached_property
    def tree(self) -> Tree:
        """Its boxes in order, with how far each lies."""
        return tree_of(self.circuit, dict(self.context.lengths))

    @cached_property
    def wires(self) -> dict[str, HopWires]:
        """The wires of each hop, by the box that it goes to."""
        return {wires.box: wires for wires in self.context.wires}

    @cached_property
    def methods(self) -> dict[str, tuple[str, ...]]:
        """The methods of the legs that a hop takes, by the box that it goes to; none where no way is said."""
        return dict(self.context.methods)

    @cached_property
    def lies(self) -> dict[str, tuple[str, ...]]:
        """What each hop is as it lies, by the box that it goes to: 12-2, 12 in pipe."""
        return dict(self.context.lies)

    def node(self, node: str) -> Box | Panel:
        """A box of its chain, its panel, or the panel that it feeds. Raises KeyError."""
        if node in self.boxes:
            return self.boxes[node]
        return {item.id: item for item in (self.context.panel, self.context.fed) if item}[node]

    def name_of(self, node: str) -> str:
        """The name of a box of its chain, or of the panel that it feeds."""
        return self.node(node).name

    @property
    def needs(self) -> dict[str, CableNeed]:
        """The wires of each cable, by the box that it goes to."""
        return self.on.needs

    @property
    def loads(self) -> dict[str, float]:
        """Watts expected at each box."""
        return self.on.loads

    @property
    def load_a(self) -> float:
        """Amperes expected on the whole circuit."""
        return self.on.load_a

    @property
    def continuous_a(self) -> float:
        """The part of it that stays on for three hours or more."""
        return self.on.continuous_a

    def given(self, box: str) -> frozenset[str]:
        """The protection that reaches a box: from the breaker, and from devices in the chain up to its own."""
        return self.on.given(box)

    def amps_in(self, link: Link) -> float:
        """Amperes expected in one link: everything downstream of it."""
        return self.on.amps_in(link)

    @cached_property
    def plugs(self) -> list[Box]:
        """Its receptacles."""
        return [box for box in self.context.boxes if box.kind in PLUGS]

    def dedicated(self, box: Box) -> bool:
        """Whether its appliance usually has a circuit of its own."""
        return usual_of(self.book, box).own

    def makeup(self, link: Link) -> tuple[float, float]:
        """Inches left free at both ends of a hop: current goes through them too; loop and waste it does not."""
        return self._makeup[link.box]

    @cached_property
    def _makeup(self) -> dict[str, tuple[float, float]]:
        return {link.box: self._made_up(link) for link in self.tree.links}

    def _made_up(self, link: Link) -> tuple[float, float]:
        ends = self.node(link.after or self.circuit.panel), self.node(link.box)
        start, end = (left_free_at(self.book, self.context.habits, node) for node in ends)
        return start, end

    def carrying_ft(self, box: str) -> float:
        """Feet of wire to a box with the make-up on the way, where known."""
        return sum((link.length_in or 0.0) + sum(self.makeup(link)) for link in self.tree.path(box)) / 12

    def percent_at(self, box: str, at_breaker: bool, size: str | None = None) -> float | None:
        """Drop from the panel to a box in per cent: with the load of every box downstream in each link, or with the
        whole breaker rating to that box; each hop in its own wire, or all in `size`. None where a length on the way
        is not known."""
        key = (at_breaker, size or "")
        if key not in self._percents:
            self._percents[key] = self._percents_of(*key)
        return self._percents[key].get(box)

    @cached_property
    def _percents(self) -> dict[tuple[bool, str], dict[str, float]]:
        return {}

    def _percents_of(self, at_breaker: bool, size: str) -> dict[str, float]:
        """The drop to each box, parents before children; boxes beyond a length that is not known are left out."""
        volts, known = float(self.circuit.volts), wire_sizes(self.book)
        found: dict[str, float] = {}
        for link in self.tree.links:
            before = 0.0 if link.after is None else found.get(link.after)
            wire = size or self.wires[link.box].wire_size
            if link.length_in is None or before is None or wire not in known:
                continue
            amps = self.circuit.breaker_a if at_breaker else self.amps_in(link)
            length = link.length_in + sum(self.makeup(link))
            one = drop(self.book, volts, amps, length / 12, wire, self.circuit.material)
            found[link.box] = before + one.drop_percent
        return found

    @cached_property
    def farthest(self) -> tuple[str, float] | None:
        """The box with the highest drop as loaded, and that drop."""
        known = [(link.box, self.percent_at(link.box, False)) for link in self.tree.links]
        found = [(box, percent) for box, percent in known if percent is not None]
        return max(found, key=lambda item: item[1], default=None)

    @cached_property
    def length_in(self) -> float:
        """All its cable as it lies, where known."""
        return sum(link.length_in or 0.0 for link in self.tree.links)
