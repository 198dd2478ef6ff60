"""What lies in a way: hops as they are carried along its legs, side by side in one leg, wire by wire in pipe."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from levelrun.core.circuits.loads import HopWires, hot_colours
from levelrun.core.job import Box, Panel
from levelrun.core.kept import kept_hash
from levelrun.core.trade.pipe.fill import Wires
from levelrun.core.ways.stretch import gone_through


@dataclass(frozen=True, kw_only=True)
class Piece:
    """What of a hop is one piece from way to way. begins: it starts in this way, else it comes from the one before;
    beyond_in: inches of it in the ways after this one, where it ends at `end`."""

    begins: bool = True
    beyond_in: float = 0.0
    end: Panel | Box | None = None


WHOLE = Piece()


@dataclass(frozen=True, kw_only=True)
class Carried:
    """One hop where it lies in a way: legs first to last, gone through `back` to front where it goes against the way.

    reaches: both of its ends stand on the way, or on the ways before and after. hots, neutral, ground: each as a
    piece that may go on into the next way; a cable is as its hots.
    """

    wires: HopWires
    first: int
    last: int
    reaches: bool
    back: bool = False
    hots: Piece = WHOLE
    neutral: Piece = WHOLE
    ground: Piece = WHOLE

    __hash__ = kept_hash

    @property
    def hop(self) -> tuple[str, str]:
        """Its circuit and the box that it goes to."""
        return self.wires.circuit, self.wires.box

    @property
    def legs(self) -> range:
        """The numbers of its legs, as they are gone through."""
        return gone_through(self.first, self.last, self.back)


@dataclass(frozen=True, kw_only=True)
class Lying:
    """A hop in one leg: of two circuits that share a neutral, the second brings none of its own."""

    wires: HopWires
    conductors: int
    neutral: bool
    shares: bool

    @property
    def counted(self) -> int:
        """Wires that count for bundling: not the neutral that carries only what two legs differ by (310.15(E)(1)),
        which one between two legs of a wye and one of mostly electronic loads is not ((E)(2), (3)); of travellers
        the one in use; never a ground (310.15(F))."""
        w = self.wires
        balanced = self.shares or (w.volts == 240 and self.conductors > 2)
        light = self.neutral and balanced and not w.nonlinear
        return self.conductors - w.idle - light


@dataclass(frozen=True, kw_only=True)
class Strands:
    """Single wires of one kind in a pipe, with their colours: hots, then neutral, then ground."""

    wires: Wires
    material: str
    colours: tuple[str, ...]


def lying_in(carried: Sequence[Carried]) -> tuple[Lying, ...]:
    """Hops side by side, the neutral that two share counted once."""
    return tuple(_lying(carried))


def _lying(carried: Sequence[Carried]) -> Iterator[Lying]:
    neutrals: set[str] = set()
    here = {item.wires.circuit for item in carried if item.wires.neutral}
    for item in carried:
        w = item.wires
        second = w.neutral and w.partner in neutrals
        if w.neutral:
            neutrals.add(w.circuit)
        yield Lying(
            wires=w,
            conductors=w.conductors - second,
            neutral=w.neutral and not second,
            shares=w.partner is not None and w.partner in here,
        )


def alone(wires: HopWires) -> Lying:
    """A hop beside which nothing lies."""
    return Lying(wires=wires, conductors=wires.conductors, neutral=wires.neutral, shares=False)


def cable_name(group: Sequence[Lying]) -> str:
    """The size of a cable that carries these hops: gauge and count without ground."""
    return f"{group[0].wires.wire_size}-{sum(item.conductors for item in group)}"


def strands_of(lying: Sequence[Lying], order: Sequence[str] = ()) -> list[Strands]:
    """Single wires of some hops, kind by kind; one ground for all of them, the largest (250.122(C)). `order`: wire
    sizes, smallest first; without it every circuit brings its own."""
    found: dict[tuple[str, str, str], list[str]] = {}
    grounding = largest_ground(lying, order) if order else None
    for item in lying:
        w = item.wires
        count = item.conductors - item.neutral
        colours = hot_colours(w.hue, count) + ["white"] * item.neutral
        found.setdefault((w.insulation, w.wire_size, w.material), []).extend(colours)
        if w.ground and (grounding is None or item is grounding):
            found.setdefault((w.insulation, w.ground, w.material), []).append("green")
    return [
        Strands(wires=Wires(kind, size, len(colours)), material=material, colours=tuple(colours))
        for (kind, size, material), colours in found.items()
    ]


def largest_ground(lying: Sequence[Lying], order: Sequence[str]) -> Lying | None:
    """Of hops in one pipe that which brings the ground for all: the largest, of copper before aluminum, of equal ones
    the first."""
    known = [item for item in lying if item.wires.ground in order]
    return max(known, key=lambda i: (order.index(i.wires.ground), i.wires.material == "cu"), default=None)
