"""The pull on the wires of a raceway, from both ends: how hard, with what is not known of the friction."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import raceway
from levelrun.core.errors import UnknownKeyError
from levelrun.core.job import Habits
from levelrun.core.trade.pipe.pull import PullWires, pull_limit, weight_factor, wire_weight
from levelrun.core.trade.pipe.tension import Curve, Piece, reverse_of, tension
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.line import line_of


@dataclass(frozen=True)
class Friction:
    """Friction with a lubricant: the least and the most that is met, and what is reckoned with."""

    low: float
    usual: float
    high: float


@dataclass(frozen=True, kw_only=True)
class Force:
    """A pull of wires as they wedge in their pipe. start, end: the curve where it is fed there; feed: the end that is
    said, else the easier; limit_lb: what the wires bear."""

    start: Curve
    end: Curve
    feed: str
    easier: str
    friction: Friction
    weight_lb_per_ft: float
    factor: float
    limit_lb: float

    @property
    def fed(self) -> Curve:
        """The curve as it is fed."""
        return self.start if self.feed == "start" else self.end

    @property
    def lb(self) -> float:
        """Pounds at the pulled end, fed as it is."""
        return self.fed.lb

    @property
    def sidewall_lb_per_ft(self) -> float:
        """Pressed in the worst bend, fed as it is."""
        return self.fed.sidewall_lb_per_ft


def friction_of(book: Codebook, habits: Habits, wires: Sequence[PullWires]) -> Friction:
    """Friction with the shop's lubricant, of the roughest jacket in the pipe. Source: common practice."""
    lube = habits.piping.lube
    rows = [book.table("friction").get(lube, w.insulation if w.insulation != "BARE" else "XHHW-2") for w in wires]
    row = max(rows, key=lambda r: float(r["usual"]))
    usual = book.number("friction") if lube == "gel" else float(row["usual"])
    return Friction(min(float(row["low"]), usual), usual, max(float(row["high"]), usual))


def wires_in(view: WayView, index: int) -> list[PullWires]:
    """The wires of a leg in pipe, as they are pulled."""
    return [PullWires(s.wires.insulation, s.wires.size, s.material, s.wires.count) for s in view.strands(index)]


def inner_in(view: WayView, first: int, last: int) -> float:
    """Inside of the narrowest pipe of a pull. Raises UnknownKeyError for a size that is not made."""
    return min(raceway(view.book, leg.method, leg.size).inner_in for leg in view.way.legs[first : last + 1])


@dataclass(frozen=True, eq=False)
class _Load:
    """What is pulled through what: the pieces of the pipe from its start, pounds a foot, how wires wedge."""

    pieces: Sequence[Piece]
    wires: list[PullWires]
    weight_lb_per_ft: float
    factor: float
    friction: Friction

    def curve(self, fed: str) -> Curve:
        """The pull fed at one end, at usual friction."""
        pieces = self.pieces if fed == "start" else reverse_of(self.pieces)
        return tension(pieces, self.weight_lb_per_ft, self.friction.usual * self.factor)


def _load_of(view: WayView, first: int, last: int) -> _Load | None:
    wires, line = wires_in(view, first), line_of(view, first, last)
    if not wires or line is None:
        return None
    try:
        weight = sum(wire_weight(view.book, w) * w.count for w in wires)
        factor = weight_factor(view.book, wires, inner_in(view, first, last))
    except UnknownKeyError:
        return None
    return _Load(line.pieces, wires, weight, factor, friction_of(view.book, view.habits, wires))


@lru_cache(maxsize=256)
def force_of(view: WayView, first: int, last: int) -> Force | None:
    """The pull of these legs, wires wedged in the narrowest of its pipes. None where no wires or no size are known.
    Kept for the view at hand: figures and rules both ask."""
    load = _load_of(view, first, last)
    if load is None:
        return None
    start, end = load.curve("start"), load.curve("end")
    easier = "start" if start.lb <= end.lb + 1e-9 else "end"
    return Force(
        start=start, end=end, feed=view.way.legs[first].feed or easier, easier=easier, friction=load.friction,
        weight_lb_per_ft=load.weight_lb_per_ft, factor=load.factor, limit_lb=pull_limit(view.book, load.wires),
    )  # fmt: skip


def curve_of(view: WayView, first: int, last: int, fed: str) -> Curve | None:
    """The pull of legs first to last fed at one end, at usual friction. None where no wires or no size are known."""
    load = _load_of(view, first, last)
    return None if load is None else load.curve(fed)


def bare_lb(view: WayView, first: int, last: int, force: Force) -> float:
    """The same pull if wires did not wedge, pounds."""
    line = line_of(view, first, last)
    assert line is not None
    pieces = line.pieces if force.feed == "start" else reverse_of(line.pieces)
    return tension(pieces, force.weight_lb_per_ft, force.friction.usual).lb
