"""What rules about trenches look at: a trench with its pieces, what lies in it and how deep, and what it meets."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable, cable_sizes
from levelrun.core.job import Job, Trench
from levelrun.core.measure import show_inches
from levelrun.core.trade.cover import Cover
from levelrun.core.trade.pipe.make import make_of
from levelrun.core.trench.line import Crossing, Piece, crossings, pieces_of
from levelrun.core.trench.yard import Yard, ground_along, long_in
from levelrun.core.ways.facts import WayContext, WayView, viewed
from levelrun.core.ways.laid import LaidIn, Profile, between, cover_along
from levelrun.core.ways.rules.cover import needed_cover

USUAL_OUTER_IN = 1.0


@dataclass(frozen=True, eq=False)
class Lain:
    """A way as it lies in a trench. Lists of its legs and needs go as the trench goes, piece by piece."""

    view: WayView
    laid: LaidIn
    long_in: float

    @property
    def way(self) -> str:
        """Its id."""
        return self.view.way.id

    @property
    def legs(self) -> list[int]:
        """The leg of each piece."""
        own = list(range(self.laid.first, self.laid.last + 1))
        return own[::-1] if self.laid.back else own

    @cached_property
    def needs(self) -> list[Cover | None]:
        """The cover that each piece needs; None where its method may not lie there."""
        return [needed_cover(self.view, index) for index in self.legs]

    @cached_property
    def cover(self) -> Profile:
        """Its cover along the trench; empty where it is not known."""
        own = cover_along(self.view.way, self.laid)
        return [(self.long_in - at, depth) for at, depth in reversed(own)] if self.laid.back else own

    @property
    def piped(self) -> bool:
        """Whether it lies in pipe: in a raceway, or in a sleeve."""
        return self.view.methods[self.laid.first].kind == "raceway"

    @property
    def name(self) -> str:
        """What it is: PVC 40 3/4″, 12-2 UF-B."""
        leg, method = self.view.way.legs[self.laid.first], self.view.methods[self.laid.first]
        return f"{method.name} {leg.size}″" if self.piped else f"{leg.size} {method.name}"

    @property
    def carries(self) -> str:
        """The circuits in it, as they are called."""
        wires = self.view.circuits(self.laid.first, self.laid.last)
        return ", ".join(item.title for item in wires.values()) or self.view.way.name

    @cached_property
    def outer_in(self) -> float:
        """How thick it is."""
        leg, book = self.view.way.legs[self.laid.first], self.view.book
        if self.piped:
            make = make_of(book, leg.method, leg.size)
            return make.outer_in if make else USUAL_OUTER_IN
        known = leg.size in cable_sizes(book, leg.method)
        return cable(book, leg.method, leg.size).wide_in if known else USUAL_OUTER_IN


@dataclass(frozen=True, eq=False)
class TrenchFacts:
    """A trench with everything that a rule about it may ask."""

    book: Codebook
    job: Job
    trench: Trench
    yard: Yard
    contexts: tuple[WayContext, ...]

    @cached_property
    def long_in(self) -> float:
        """Its length."""
        return long_in(self.trench.points)

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """Its pieces by what lies above."""
        return pieces_of(self.yard, self.trench)

    @cached_property
    def lain(self) -> list[Lain]:
        """What lies in it."""
        found = []
        for context in self.contexts:
            laid = next(item for item in context.laid if item.trench.id == self.trench.id)
            found.append(Lain(viewed(self.book, context), laid, self.long_in))
        return found

    @cached_property
    def ground(self) -> Profile:
        """The ground along it, over the site's zero."""
        return ground_along(self.yard, self.trench.points, self.trench.start, self.trench.end)

    @cached_property
    def crossings(self) -> list[Crossing]:
        """The services that it meets."""
        return crossings(self.yard, self.trench, self.book.number("parallel_in"))

    @cached_property
    def needed(self) -> list[float]:
        """The most cover that anything in it needs, piece by piece; as for plastic pipe while nothing lies there."""
        found = []
        for number, piece in enumerate(self.pieces):
            own = [item.needs[number] for item in self.lain if number < len(item.needs)]
            known = [need.cover_in for need in own if need is not None]
            usual = float(self.book.table("300-5-cover").get(piece.above)["other_raceway"])
            found.append(max(known, default=usual))
        return found

    def top_at(self, at_in: float) -> float:
        """The least cover over anything in it, so far along; what is needed there where none is known."""
        known = [between(item.cover, at_in) for item in self.lain if item.cover]
        return min(known) if known else self.needed_at(at_in)

    def needed_at(self, at_in: float) -> float:
        """The most cover that anything needs, so far along."""
        own = (need for piece, need in zip(self.pieces, self.needed, strict=True) if at_in <= piece.end_in + 1e-6)
        return next(own, self.needed[-1])

    def bottom_at(self, at_in: float) -> float:
        """How deep it is dug there: under the deepest thing in it, and its bedding."""
        tops = [between(item.cover, at_in) + item.outer_in for item in self.lain if item.cover]
        deepest = max(tops) if tops else self.needed_at(at_in) + USUAL_OUTER_IN
        return deepest + self.trench.bedding_in

    @cached_property
    def bottom(self) -> Profile:
        """Its bottom along it, under the ground."""
        cuts = {0.0, self.long_in, *(piece.start_in for piece in self.pieces)}
        cuts |= {at for item in self.lain for at, _ in item.cover if 0 <= at <= self.long_in}
        found: Profile = []
        for at in sorted(cuts):
            before, after = self.bottom_at(max(at - 1e-3, 0.0)), self.bottom_at(min(at + 1e-3, self.long_in))
            found.append((at, before))
            if abs(before - after) > 0.05:
                found.append((at, after))
        return found

    @cached_property
    def deepest_in(self) -> float:
        """How deep it is at its deepest."""
        return max(depth for _, depth in self.bottom)

    def side_text(self, crossing: Crossing) -> str:
        """What is known of a service where it crosses: how far over or under what lies in the trench."""
        gap = self.gap_in(crossing)
        if gap is None:
            return "depth not said"
        if gap == 0:
            return "right where it lies"
        return f"{show_inches(gap_shown(gap))} {'below' if gap > 0 else 'above'}"

    def gap_in(self, crossing: Crossing) -> float | None:
        """From what lies in the trench to a service that crosses it: under its lowest if positive, over its top if
        negative. 0 where it goes through it. None where its depth is not said."""
        depth = crossing.part.depth_in
        if depth is None:
            return None
        top = self.top_at(crossing.at_in)
        low = max((between(i.cover, crossing.at_in) + i.outer_in for i in self.lain if i.cover), default=top + 1)
        return depth - low if depth > low else min(depth - top, 0.0)


def gap_shown(gap_in: float) -> float:
    """How far apart, rounded down to the half inch: to the side that asks sooner."""
    return math.floor(abs(gap_in) * 2) / 2
