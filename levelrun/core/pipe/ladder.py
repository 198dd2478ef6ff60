"""The size ladder of a pull: each made size, what it holds, how hard it pulls, what it costs, what it buys."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from levelrun.core.codebook.lookups import raceway_sizes, wire_sizes
from levelrun.core.errors import UnknownKeyError
from levelrun.core.findings import Mend
from levelrun.core.job import Leg
from levelrun.core.trade.pipe.fill import Fill, Wires, fill
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.forces import curve_of, force_of
from levelrun.core.ways.mends import set_leg
from levelrun.core.ways.points import bent_deg
from levelrun.core.ways.pulls import Pull

MOST_OVER = 3  # sizes told over the smallest legal one
LARGE_FROM = "6"


@dataclass(frozen=True, kw_only=True)
class Rung:
    """One size. lb: at the pulled end, fed at the end that is easier now; dollars: material and labour of the pipe;
    buys: what it buys, in words; here: it is the size now. first: smallest, kindest or cheapest, empty for none."""

    size: str
    fits: bool
    percent: float
    limit_percent: float
    lb: float | None
    sidewall_lb_per_ft: float | None
    jams: bool
    dollars: float
    minutes: float
    buys: list[str]
    first: list[str]
    here: bool
    mend: Mend | None


def ladder_of(view: WayView, pull: Pull) -> list[Rung]:
    """The rungs from one under the smallest legal size to three over it, and today's."""
    here = {leg.size for leg in _legs(view, pull)}
    sizes = _sizes(view, pull)
    fills = {size: _fill(view, pull, size) for size in sizes}
    legal = _legal(fills)
    if not legal:
        return []
    low = sizes.index(legal[0])
    told = sizes[max(low - 1, 0) : low + 1 + MOST_OVER]
    told += [size for size in sizes if size in here and size not in told]
    rungs = [rung for size in told if (rung := _rung(view, pull, size, fills[size], legal[0], here)) is not None]
    return _named(rungs)


def _legal(fills: Mapping[str, Fill | None]) -> list[str]:
    """The sizes that hold the wires, smallest first."""
    return [size for size, own in fills.items() if own is not None and own.fits]


def _legs(view: WayView, pull: Pull) -> tuple[Leg, ...]:
    return view.way.legs[pull.first : pull.last + 1]


def _sizes(view: WayView, pull: Pull) -> list[str]:
    """Sizes in which every pipe of the pull is made."""
    methods = dict.fromkeys(leg.method for leg in _legs(view, pull))
    made = [[pipe.size for pipe in raceway_sizes(view.book, key)] for key in methods]
    return [size for size in made[0] if all(size in other for other in made)]


def _fill(view: WayView, pull: Pull, size: str) -> Fill | None:
    """The fill of the tightest pipe of the pull in another size."""
    try:
        found = [fill(view.book, key, size, wires) for key, wires in _kinds(view, pull)]
    except UnknownKeyError:
        return None
    return max(found, key=lambda item: item.percent, default=None)


def _kinds(view: WayView, pull: Pull) -> list[tuple[str, tuple[Wires, ...]]]:
    """Each kind of pipe of a pull with the wires in it, once."""
    legs = view.way.legs
    return list(
        dict.fromkeys(
            (legs[i].method, tuple(view.wires(i))) for i in range(pull.first, pull.last + 1) if view.lying(i)
        )
    )


def resized(view: WayView, pull: Pull, size: str) -> WayView:
    """The way with this pull in another size."""
    legs = tuple(
        leg.model_copy(update={"size": size}) if pull.first <= index <= pull.last else leg
        for index, leg in enumerate(view.way.legs)
    )
    way = view.way.model_copy(update={"legs": legs})
    return WayView(view.book, replace(view.context, way=way))


def _rung(view: WayView, pull: Pull, size: str, own: Fill | None, legal: str, here: set[str]) -> Rung | None:
    if own is None or own.limit_percent is None:
        return None
    is_here = here == {size}
    now = force_of(view, pull.first, pull.last)
    curve = curve_of(
        view if is_here else resized(view, pull, size), pull.first, pull.last, now.easier if now else "start"
    )
    dollars, minutes = _cost(view, pull, size)
    changes = [set_leg(view, i, size=size) for i in range(pull.first, pull.last + 1) if view.way.legs[i].size != size]
    room = own.fits and _room(view, pull, size)
    one = view.book.number("hand_one_lb")
    buys = ["legal"] if own.fits and size == legal else []
    if own.fits and curve is not None and curve.lb <= one and own.percent <= 0.75 * own.limit_percent:
        buys.append("comfortable")
    if room:
        buys.append("room for one more circuit")
    return Rung(
        size=size, fits=own.fits, percent=own.percent, limit_percent=own.limit_percent,
        lb=curve.lb if curve is not None and own.fits else None,
        sidewall_lb_per_ft=curve.sidewall_lb_per_ft if curve is not None and own.fits else None,
        jams=own.jam_risk and bent_deg(view, pull.first, pull.last) > 0, dollars=dollars, minutes=minutes, buys=buys,
        first=[], here=is_here, mend=Mend(f"Use {size}″", changes) if changes and own.fits else None,
    )  # fmt: skip


def _room(view: WayView, pull: Pull, size: str) -> bool:
    """Whether the wires of one more circuit as its smallest go in; the ground serves both."""
    order = wire_sizes(view.book)
    lying = [item for index in range(pull.first, pull.last + 1) for item in view.lying(index)]
    least = min(lying, key=lambda item: (order.index(item.wires.wire_size), item.conductors), default=None)
    if least is None:
        return False
    more = Wires(least.wires.insulation, least.wires.wire_size, least.conductors)
    return all(fill(view.book, key, size, [*wires, more]).fits for key, wires in _kinds(view, pull))


def _cost(view: WayView, pull: Pull, size: str) -> tuple[float, float]:
    """Dollars of pipe and labour, and minutes. Source: the illustrative table of pipe prices."""
    table, dollars, minutes = view.book.table("pipe-price"), 0.0, 0.0
    for leg in _legs(view, pull):
        row = table.find(leg.method, size)
        if row is not None:
            dollars += float(row["dollar_per_ft"]) * leg.length_in / 12
            minutes += float(row["minutes_per_ft"]) * leg.length_in / 12
    return dollars + minutes / 60 * view.habits.dollars_per_hour, minutes


def _named(rungs: list[Rung]) -> list[Rung]:
    """Smallest: the first that is legal; cheapest: the least dollars of those; kindest: the first that pulls no
    harder than a tenth over the easiest of all."""
    legal = [rung for rung in rungs if rung.fits]
    if not legal:
        return rungs
    names: dict[str, list[str]] = {}
    names.setdefault(legal[0].size, []).append("smallest")
    names.setdefault(min(legal, key=lambda rung: rung.dollars).size, []).append("cheapest")
    known = [rung for rung in legal if rung.lb is not None]
    if known:
        least = min(rung.lb or 0.0 for rung in known)
        kind = next(rung for rung in known if (rung.lb or 0.0) <= 1.1 * least + 0.5)
        names.setdefault(kind.size, []).append("kindest")
    return [replace(rung, first=names.get(rung.size, [])) for rung in rungs]


def over_habit(view: WayView, pull: Pull) -> str | None:
    """The size that the habit of one over asks for where four No. 6 or larger go round two bends and the pipe is the
    smallest legal; None where it asks nothing."""
    if view.habits.piping.size != "one_over" or pull.fill is None or not pull.fill.fits:
        return None
    order = wire_sizes(view.book)
    wires = view.wires(pull.tight_leg)
    many = sum(w.count for w in wires if order.index(w.size) >= order.index(LARGE_FROM))
    corners = sum(bend.deg >= 45 for bend in pull.bends)
    if many < view.book.number("oversize_from_wires") or corners < 2:
        return None
    here = {leg.size for leg in _legs(view, pull)}
    legal = _legal({size: _fill(view, pull, size) for size in _sizes(view, pull)})
    return legal[1] if len(legal) > 1 and here == {legal[0]} else None
