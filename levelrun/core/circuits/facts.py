"""One circuit with everything that a rule about it may ask."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from levelrun.core.circuits.cables import CableNeed, cable_needs
from levelrun.core.circuits.chain import Link, Tree, tree_of
from levelrun.core.circuits.spaces import label
from levelrun.core.circuits.usual import is_continuous, usual_of, watts
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Box, Circuit, Habits, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.trade.drop import drop

NEXT_ROOM = 20.0
PLUGS = ("receptacle", "device")


@dataclass(frozen=True, kw_only=True)
class BoxPlace:
    """Of a box: its room, what the room is for, and what kind of structure it is in."""

    room: str
    room_name: str
    use: str
    structure: str
    structure_kind: str
    level: str
    sink_near: bool
    tub_near: bool


@dataclass(frozen=True, kw_only=True)
class CircuitContext:
    """What a circuit touches. Hashable, so that an unchanged circuit is not planned again."""

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
        return f"{label(self.circuit)} {self.circuit.name}".strip()

    @cached_property
    def boxes(self) -> dict[str, Box]:
        """Its boxes by id."""
        return {box.id: box for box in self.context.boxes}

    @cached_property
    def places(self) -> dict[str, BoxPlace]:
        """Where its boxes stand, by box id; boxes in no room are left out."""
        return dict(self.context.places)

    @cached_property
    def tree(self) -> Tree:
        """Its boxes in order."""
        return tree_of(self.circuit, dict(self.context.lengths))

    @cached_property
    def needs(self) -> dict[str, CableNeed]:
        """The wires of each cable, by the box that it goes to."""
        return cable_needs(self.circuit, self.tree, self.boxes)

    @cached_property
    def loads(self) -> dict[str, float]:
        """Watts expected at each box."""
        return {box.id: watts(self.book, box) for box in self.context.boxes}

    @property
    def load_a(self) -> float:
        """Amperes expected on the whole circuit; of a feeder what the panel that it feeds expects."""
        if self.circuit.feeds is not None:
            return self.context.fed_load_a
        return sum(self.loads.values()) / self.circuit.volts

    @property
    def continuous_a(self) -> float:
        """The part of it that stays on for three hours or more."""
        on = (box for box in self.context.boxes if is_continuous(self.book, box))
        return sum(self.loads[box.id] for box in on) / self.circuit.volts

    @cached_property
    def plugs(self) -> list[Box]:
        """Its receptacles."""
        return [box for box in self.context.boxes if box.kind in PLUGS]

    def dedicated(self, box: Box) -> bool:
        """Whether its appliance usually has a circuit of its own."""
        return usual_of(self.book, box).own

    def percent_at(self, box: str, at_breaker: bool, size: str | None = None) -> float | None:
        """Drop from the panel to a box in per cent: with the load of every box downstream in each link, or with the
        whole breaker rating to that box. None where a length on the way is not known."""
        size = size or self.circuit.wire_size
        if size not in wire_sizes(self.book):
            return None
        volts = float(self.circuit.volts)
        total = 0.0
        for link in self.tree.path(box):
            if link.length_in is None:
                return None
            amps = self.circuit.breaker_a if at_breaker else self.amps_in(link)
            total += drop(self.book, volts, amps, link.length_in / 12, size, self.circuit.material).drop_percent
        return total

    def amps_in(self, link: Link) -> float:
        """Amperes expected in one link: everything downstream of it."""
        return sum(self.loads.get(box, 0.0) for box in self.tree.below(link.box)) / self.circuit.volts

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
