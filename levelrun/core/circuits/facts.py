"""One circuit with everything that a rule about it may ask."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from levelrun.core.boxes.parts import PLUGS
from levelrun.core.circuits.cables import CableNeed, cable_needs
from levelrun.core.circuits.chain import Link, Tree, tree_of
from levelrun.core.circuits.spaces import label
from levelrun.core.circuits.usual import expected_w, is_continuous, usual_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Box, Circuit, Habits, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.trade.drop import drop

NEXT_ROOM = 20.0
GIVES: dict[str, frozenset[str]] = {
    "gfci": frozenset({"gfci"}), "afci": frozenset({"afci"}), "dual": frozenset({"gfci", "afci"}),
    "plain": frozenset(), "": frozenset(),
}  # fmt: skip
# Home runs behind which the first outlet may give arc-fault protection; of a raceway it is asked what it is made of.
OUTLET_AFCI = ("MC", "AC", "raceway")


@dataclass(frozen=True, kw_only=True)
class BoxPlace:
    """Of a box: its room, what the room is for, and what kind of structure it is in."""

    room: str
    room_name: str
    use: str
    structure: str
    structure_kind: str
    level: str
    level_kind: str
    damp: bool
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
        return {box.id: expected_w(self.book, box) for box in self.context.boxes}

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
        key = (at_breaker, size or self.circuit.wire_size)
        if key not in self._percents:
            self._percents[key] = self._percents_of(*key)
        return self._percents[key].get(box)

    @cached_property
    def _percents(self) -> dict[tuple[bool, str], dict[str, float]]:
        return {}

    def _percents_of(self, at_breaker: bool, size: str) -> dict[str, float]:
        """The drop to each box, parents before children; boxes beyond a length that is not known are left out."""
        if size not in wire_sizes(self.book):
            return {}
        volts = float(self.circuit.volts)
        found: dict[str, float] = {}
        for link in self.tree.links:
            before = 0.0 if link.after is None else found.get(link.after)
            if link.length_in is None or before is None:
                continue
            amps = self.circuit.breaker_a if at_breaker else self.amps_in(link)
            one = drop(self.book, volts, amps, link.length_in / 12, size, self.circuit.material)
            found[link.box] = before + one.drop_percent
        return found

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
        """What the device of a box gives onward: an arc-fault outlet only behind a metal home run (210.12(A))."""
        given = GIVES[box.protects]
        return given if self.circuit.method in OUTLET_AFCI else given - {"afci"}

    def amps_in(self, link: Link) -> float:
        """Amperes expected in one link: everything downstream of it."""
        return self._amps[link.box]

    @cached_property
    def _amps(self) -> dict[str, float]:
        below, loads, volts = self.tree.below, self.loads, self.circuit.volts
        return {link.box: sum(loads.get(box, 0.0) for box in below(link.box)) / volts for link in self.tree.links}

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
