"""How a pull is made: the band of its force from both ends, who stands where, rope, lubricant, head."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.measure import show
from levelrun.core.trade.pipe.tension import Curve, reverse_of, tension
from levelrun.core.ways.facts import WayView, joined
from levelrun.core.ways.forces import Force, force_of, wires_in
from levelrun.core.ways.line import line_of
from levelrun.core.ways.points import bent_deg
from levelrun.core.ways.pulls import Pull

LUBES = {"gel": "gel lube", "paste": "wax paste", "dry": "no lube"}
TAIL_IN = 72.0  # rope beyond each end of the pipe
SMALL_TO = "10"
HEAVY_FROM = "6"


@dataclass(frozen=True, kw_only=True)
class BandPoint:
    """Pounds so far from the start of the pull: with least, usual and most friction."""

    at_in: float
    low_lb: float
    usual_lb: float
    high_lb: float


@dataclass(frozen=True, kw_only=True)
class Band:
    """The pull from one end on. fed: start or end; its points run from the start of the pull to its end. sidewall:
    in the worst bend at usual friction, pounds a foot."""

    fed: str
    fed_at: str
    pulled_at: str
    points: list[BandPoint]
    low_lb: float
    usual_lb: float
    high_lb: float
    sidewall_lb_per_ft: float


@dataclass(frozen=True, kw_only=True)
class Limit:
    """What a pull may be, and whether it is within: hands of one or two, rope, grip, wires, side wall."""

    key: str
    name: str
    limit: float
    value: float
    unit: str
    within: bool
    section: str


@dataclass(frozen=True, kw_only=True)
class HowPulled:
    """A pull as it is done. people: 1, 2, or 0 where hands do not do it."""

    bands: list[Band]
    feed: str
    feed_at: str
    pull_at: str
    people: int
    push: bool
    limits: list[Limit]
    lines: list[str]


def end_names(view: WayView, pull: Pull) -> dict[str, str]:
    """What stands at both ends of a pull, told apart: a body by the box or panel that it is nearest to."""
    return {
        "start": _told(view, pull.first, pull.start, "open start"),
        "end": _told(view, pull.last + 1, pull.end, "open end"),
    }


def _told(view: WayView, place: int, name: str, else_: str) -> str:
    if name not in ("LB", "body"):
        return name or else_
    known = [(abs(at - place), at, node) for at in range(len(view.way.legs) + 1) if (node := view.node_at(at))]
    return f"{name} by {view.nodes[min(known)[2]].name}" if known else name


def bands_of(view: WayView, pull: Pull, force: Force) -> list[Band]:
    """The band of a pull fed at its start, and at its end."""
    line = line_of(view, pull.first, pull.last)
    assert line is not None
    back = reverse_of(line.pieces)
    names = end_names(view, pull)
    bands: list[Band] = []
    for fed, pieces, usual in (("start", line.pieces, force.start), ("end", back, force.end)):
        low, high = (
            tension(pieces, force.weight_lb_per_ft, friction * force.factor)
            for friction in (force.friction.low, force.friction.high)
        )
        bands.append(_band(fed, names, low, usual, high))
    return bands


def _band(fed: str, names: dict[str, str], low: Curve, usual: Curve, high: Curve) -> Band:
    other = "end" if fed == "start" else "start"
    whole = usual.points[-1].at_in
    points = [
        BandPoint(at_in=b.at_in if fed == "start" else whole - b.at_in, low_lb=a.lb, usual_lb=b.lb, high_lb=c.lb)
        for a, b, c in zip(low.points, usual.points, high.points, strict=True)
    ]
    return Band(
        fed=fed, fed_at=names[fed], pulled_at=names[other],
        points=points if fed == "start" else points[::-1], low_lb=low.lb, usual_lb=usual.lb, high_lb=high.lb,
        sidewall_lb_per_ft=usual.sidewall_lb_per_ft,
    )  # fmt: skip


def how_pulled(view: WayView, pull: Pull) -> HowPulled | None:
    """How a pull is made. None where no wires or no size are known."""
    force = force_of(view, pull.first, pull.last)
    if force is None:
        return None
    bands = bands_of(view, pull, force)
    band = next(item for item in bands if item.fed == force.feed)
    one, two = (view.book.number(f"hand_{word}_lb") for word in ("one", "two"))
    people = 1 if band.usual_lb <= one else 2 if band.usual_lb <= two else 0
    push = pushed(view, pull, force)
    return HowPulled(
        bands=bands, feed=force.feed, feed_at=band.fed_at, pull_at=band.pulled_at, people=people, push=push,
        limits=_limits(view, force, band), lines=_lines(view, pull, band, people, push),
    )  # fmt: skip


def pushed(view: WayView, pull: Pull, force: Force) -> bool:
    """Whether the fish tape alone does it: short, few bends, a few small wires, one pair of hands."""
    book, wires, order = view.book, wires_in(view, pull.first), wire_sizes(view.book)
    few = sum(w.count for w in wires) <= book.number("push_wires")
    small = all(order.index(w.size) <= order.index(SMALL_TO) for w in wires)
    short = pull.length_in <= book.number("push_max_in")
    bent = bent_deg(view, pull.first, pull.last) <= book.number("push_bends_deg")
    return few and small and short and bent and force.lb <= book.number("hand_one_lb")


def _limits(view: WayView, force: Force, band: Band) -> list[Limit]:
    book = view.book
    rows = [
        ("hand_one_lb", "one person by hand", band.usual_lb),
        ("hand_two_lb", "two by hand", band.usual_lb),
        ("rope_lb", "pull rope, working load", band.usual_lb),
        ("grip_lb", "basket grip", band.usual_lb),
        ("sidewall_lb_per_ft", "side wall, worst bend", band.sidewall_lb_per_ft),
    ]
    found = []
    for key, name, value in rows:
        scalar = book.scalar(key)
        found.append(
            Limit(
                key=key, name=name, limit=scalar.value, value=value, unit="lb/ft" if "sidewall" in key else "lb",
                within=value <= scalar.value + 1e-9, section=scalar.section,
            )
        )  # fmt: skip
    bears = Limit(
        key="wires", name="the wires, or an eye on them", limit=force.limit_lb, value=band.usual_lb, unit="lb",
        within=band.usual_lb <= force.limit_lb + 1e-9, section=book.scalar("pull_copper_lb_per_cmil").section,
    )  # fmt: skip
    return [*found[:4], bears, found[4]]


def _lines(view: WayView, pull: Pull, band: Band, people: int, push: bool) -> list[str]:
    """What is done, line by line."""
    lube = LUBES[view.habits.piping.lube]
    wires, order = wires_in(view, pull.first), wire_sizes(view.book)
    heavy = any(order.index(w.size) >= order.index(HEAVY_FROM) for w in wires)
    count = sum(w.count for w in wires)
    lines = [f"Feed at {band.fed_at}, slack off the reels, the wires kept straight. Pull at {band.pulled_at}."]
    if push:
        lines.append(f"Short and easy: push or draw them with the fish tape alone, {lube} on the first feet.")
        return [*lines, "Head: all wires taped to the hook in one taper, no lump."]
    rope = show(12 * round((pull.length_in + 2 * TAIL_IN) / 12 + 0.49))
    stand = {
        1: "One pulls; a second who feeds and lubes makes it half the work.",
        2: "Two: one pulls hand over hand, one pushes and lubes at the feed.",
        0: "Not by hand: put in a pull point, or take a tugger that shows its pull.",
    }
    lines += [stand[people], f"Rope of {rope}, blown or fished in first; {lube} at the feed, all the way."]
    if count > 4 or heavy:
        steps = joined([f"{4 * i}″" for i in range(min(count, 4))][1:])
        lines.append(f"Head: a basket or a loop on the largest, the rest staggered back {steps}, taped to a taper.")
    else:
        lines.append("Head: wires hooked in a loop, staggered 2″, taped to a taper.")
    return lines
