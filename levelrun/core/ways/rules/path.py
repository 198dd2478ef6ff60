"""Rules about the path: ends, joints, bends, pulls, heights that meet."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView, joined
from levelrun.core.ways.forces import force_of
from levelrun.core.ways.geometry import entered_in
from levelrun.core.ways.mends import add_leg, at_tape, bigger_pipe, put_box, riser, set_leg, sleeve, under_ground
from levelrun.core.ways.points import bent_deg, places, pull_points
from levelrun.core.ways.pulls import Pull, pulls_of
from levelrun.core.ways.rules.cover import lies_deep
from levelrun.core.ways.unsaid import LEAST_IN

CLOSURE_IN = 1.0
APART_IN = 12.0


def ends_rule(view: WayView) -> Iterator[Finding]:
    """A way has legs, and its last leg ends at something."""
    way = view.way
    if not way.legs:
        yield finding("way-empty", way.id, None, "No legs yet", "Walk it: type the first leg below.", "300.14")
    elif view.joint_after(len(way.legs) - 1) not in ("box", "panel"):
        yield finding(
            "open-end",
            way.id,
            len(way.legs) - 1,
            "The way ends in the open",
            "Say what stands at the end: a box, a panel or the equipment.",
            "300.15",
            mends=[Mend("Put a box here", [put_box(view, len(way.legs) - 1)])],
        )


def _share_couplings(view: WayView, index: int) -> bool:
    """PVC of either wall is glued into the same fittings."""
    return {view.methods[index].family, view.methods[index + 1].family} == {"pvc"}


def joints_rule(view: WayView) -> Iterator[Finding]:
    """Cable against pipe wants a box; pipe against other pipe a fitting. PVC 40 and 80 share their couplings."""
    for index in range(len(view.way.legs) - 1):
        joint = view.joint_after(index)
        if joint in ("box", "panel"):
            continue
        leg, after = view.way.legs[index], view.way.legs[index + 1]
        piped, piped_after = view.piped(index), view.piped(index + 1)
        if piped != piped_after or (not piped and _cable(view, index) != _cable(view, index + 1)):
            yield _box_needed(view, index, joint)
        elif piped and joint == "none" and leg.method != after.method and not _share_couplings(view, index):
            yield finding(
                "joint-missing",
                view.way.id,
                index,
                f"{view.methods[index].name} meets {view.methods[index + 1].name}",
                "Two kinds of pipe want a listed fitting between them.",
                "300.15",
                mends=[Mend("Coupling here", [set_leg(view, index, end={"kind": "coupling", "node": None})])],
            )


def _cable(view: WayView, index: int) -> tuple[str, str]:
    leg = view.way.legs[index]
    return view.guarded(index) if leg.sleeve else (leg.method, leg.size)


def _box_needed(view: WayView, index: int, joint: str) -> Finding:
    a, b = view.methods[index].name, view.methods[index + 1].name
    at_lb = " An LB is no place for a splice." if joint in ("lb", "body") else ""
    return finding(
        "box-needed",
        view.way.id,
        index,
        f"{a} meets {b}: a box goes here",
        f"Cable ends and single wires begin: splice in a box that stays reachable.{at_lb}",
        "300.15, 314.29",
        measured=joint if joint != "none" else "no box",
        limit="a box",
        mends=_boxed(view, index),
    )


def _boxed(view: WayView, index: int) -> list[Mend]:
    """A box where two legs meet; where one of them lies in the earth, with the riser that keeps it out of there."""
    sleeves = (sleeve(view, index, index + 1), sleeve(view, index + 1, index))
    if sleeved := [mend for mend in sleeves if mend is not None]:
        return sleeved
    low = [i in under_ground(view, index) for i in (index, index + 1)]
    label = f"Put a box at {at_tape(view, index)}"
    if not any(low):
        return [Mend(label, [put_box(view, index)])]
    buried, over = (index, index + 1) if low[0] else (index + 1, index)
    ground, beside = view.ground_in(over), view.placed[over]
    if all(low) or ground is None:
        return []
    height = (beside.y0 if low[0] else beside.y1) - ground
    long = height + lies_deep(view, buried)
    made = riser(view, buried, "up" if low[0] else "down", long)
    if height < LEAST_IN or made is None:
        return []
    climbs = add_leg(view, index + 1, **made)
    edits = [climbs, put_box(view, index + 1)] if low[0] else [put_box(view, index), climbs]
    return [Mend(f"{label}, with a riser of {show(round(long))}", edits)]


def buried_point_rule(view: WayView) -> Iterator[Finding]:
    """No box or conduit body at the bottom of a trench."""
    legs = view.way.legs
    for index in range(len(legs) - 1):
        if view.joint_after(index) not in ("box", "lb", "body"):
            continue
        below = under_ground(view, index)
        if below:
            yield finding(
                "pull-point-buried",
                view.way.id,
                below[0],
                f"{view.joint_name(index)} stands under ground",
                "A box or conduit body stays reachable: sweep up to the wall and put it there.",
                "314.29",
                measured="under ground",
                limit="reachable",
                mends=[Mend("Take a sweep instead", [set_leg(view, index, end={"kind": "none", "node": None})])],
            )


def path_rule(view: WayView) -> Iterator[Finding]:
    """Between two boxes on the plan the path taped is no shorter than they stand apart, across and up."""
    spots = dict(view.context.spots)
    at, length, rise = view.way.start, 0.0, 0.0
    for index, leg in enumerate(view.way.legs):
        vertical = view.placed[index].vertical
        length, rise = length + leg.length_in, rise + (0.0 if not vertical else leg.length_in)
        node = leg.end.node
        if node is None:
            continue
        if at in spots and node in spots:
            (x0, y0), (x1, y1) = spots[at], spots[node]
            apart = math.hypot(x1 - x0, y1 - y0)
            across = length - rise
            if across < apart - max(APART_IN, 0.02 * apart):
                yield finding(
                    "path-short", view.way.id, index,
                    f"{show(round(apart - across))} short of where {view.nodes[node].name} stands",
                    f"{show(across)} are taped across; on the plan it is {show(round(apart))} from "
                    f"{view.nodes[at].name} in a straight line.", "common practice, no source",
                    measured=show(across), limit=show(round(apart)),
                )  # fmt: skip
        at, length, rise = node, 0.0, 0.0


def turn_back_rule(view: WayView) -> Iterator[Finding]:
    """A leg straight back on the one before is a slip."""
    for placed in view.placed:
        if placed.bend_deg == 180:
            yield finding(
                "turn-back",
                view.way.id,
                placed.index,
                "This leg goes straight back",
                f"It goes {placed.leg.go} right after the leg before went the other way.",
                "common practice, no source",
                measured="180°",
                limit="90°",
            )


def pull_rules(view: WayView) -> Iterator[Finding]:
    """Fill, jam and bends of every pull, and the order of work."""
    found = pulls_of(view)
    for pull in found:
        yield from _fill(view, pull)
        if not pull.total.ok:
            yield _bends(view, pull)
        else:
            yield from _hard(view, pull)
    long = next((pull for pull in found if pull.last > pull.first), None)
    if long is not None:
        yield finding(
            "whole-pull",
            view.way.id,
            long.first,
            "Finish each pull of pipe before wire goes in",
            "Pipe is complete between pull points first. Threading piece by piece, as many do, "
            "skins insulation and hides a bad joint.",
            "300.18(A)",
        )


def _fill(view: WayView, pull: Pull) -> Iterator[Finding]:
    filled = pull.fill
    if filled is None or filled.limit_percent is None:
        return
    mend = bigger_pipe(view, pull.first, pull.last)
    if not filled.fits:
        yield finding(
            "fill-over",
            view.way.id,
            pull.tight_leg,
            f"Pull {pull.index + 1} is too full",
            f"{filled.percent:.0f} % of the pipe is wire; {filled.limit_percent:g} % is the most.",
            filled.rule,
            measured=f"{filled.percent:.1f} %",
            limit=f"{filled.limit_percent:g} %",
            mends=[mend] if mend else [],
        )
    elif filled.jam_risk and pull.total.total_deg > 0:
        yield finding(
            "jam",
            view.way.id,
            pull.tight_leg,
            f"Pull {pull.index + 1}: three wires may wedge",
            f"Inner diameter is {filled.jam_ratio:.2f} times a wire; keep away from 2.8 to 3.2.",
            view.book.scalar("jam_low").section,
            measured=f"{filled.jam_ratio:.2f}",
            limit="under 2.8 or over 3.2",
        )


def _hard(view: WayView, pull: Pull) -> Iterator[Finding]:
    """Two pairs of hands, and what wires and their insulation bear in the worst bend."""
    found = force_of(view, pull.first, pull.last)
    if found is None or (pull.fill is not None and not pull.fill.fits):
        return
    book, pounds = view.book, found.lb
    two, wall = book.scalar("hand_two_lb"), book.scalar("sidewall_lb_per_ft")
    judged = (
        (pounds, found.limit_lb, "lb", "more than its wires bear", wall.section),
        (found.sidewall_lb_per_ft, wall.value, "lb/ft", "pressed too hard in its bend", wall.section),
        (pounds, two.value, "lb", "too hard for two pairs of hands", two.section),
    )
    for value, limit, unit, words, section in judged:
        if value > limit + 1e-9:
            yield finding(
                "pull-hard",
                view.way.id,
                pull.first,
                f"Pull {pull.index + 1} is {words}",
                f"{pounds:.0f} lb at the pulled end, {found.sidewall_lb_per_ft:.0f} lb/ft in the worst bend, as "
                "wires wedge. A pull point half way, a wider sweep, a bigger pipe, or a tugger that shows its pull.",
                section,
                measured=f"{value:.0f} {unit}",
                limit=f"{limit:.0f} {unit}",
                mends=_eased(view, pull),
            )
            return


def _eased(view: WayView, pull: Pull) -> list[Mend]:
    """The other end where that is borne; else the fewest pull points that leave pulls which hands and wires bear."""
    found = force_of(view, pull.first, pull.last)
    two, wall = view.book.number("hand_two_lb"), view.book.number("sidewall_lb_per_ft")
    mends: list[Mend] = []
    if found is not None and found.feed != found.easier:
        other = found.start if found.feed == "end" else found.end
        if other.lb <= min(two, found.limit_lb) and other.sidewall_lb_per_ft <= wall:
            mends.append(feed_at(view, pull.first, pull.last, found.easier))
    points = pull_points(view, pull.first, pull.last, two)
    if points is not None and points.legs:
        mends.append(with_points(view, points.legs))
    return mends


def feed_at(view: WayView, first: int, last: int, end: str) -> Mend:
    """Mend that feeds a pull at its other end."""
    name = view.joint_name(first - 1) if end == "start" else view.joint_name(last)
    return Mend(f"Feed at {name or f'its {end}'}", [set_leg(view, first, feed=end)])


def with_points(view: WayView, legs: Sequence[int]) -> Mend:
    """Mend that puts pull points at the ends of legs: an LB round a corner, else a body."""
    kinds = ["lb" if view.placed[index + 1].bend_deg == 90 else "body" for index in legs]
    label = (
        f"Add {'an LB' if kinds[0] == 'lb' else 'a pull body'} at {at_tape(view, legs[0])}"
        if len(legs) == 1
        else f"Add {len(legs)} pull points, at {joined([at_tape(view, index) for index in legs])}"
    )
    edits = [set_leg(view, i, end={"kind": kind, "node": None}) for i, kind in zip(legs, kinds, strict=True)]
    return Mend(label, edits)


def _bends(view: WayView, pull: Pull) -> Finding:
    total, limit = pull.total.total_deg, pull.total.limit_deg
    return finding(
        "bends-over",
        view.way.id,
        pull.first,
        f"Pull {pull.index + 1} bends {total - limit:g}° too much",
        f"{total:g}° between {pull.start or 'its start'} and {pull.end or 'its end'}; {limit:g}° is the most. "
        "A box or an LB starts a new count.",
        pull.total.rule,
        measured=f"{total:g}°",
        limit=f"{limit:g}°",
        mends=_pull_points(view, pull),
    )


def _pull_points(view: WayView, pull: Pull) -> list[Mend]:
    """The fewest points that bring it under; beside them the next best place for one."""
    best = pull_points(view, pull.first, pull.last, view.book.number("hand_two_lb"))
    best = best or pull_points(view, pull.first, pull.last, math.inf)
    mends = [with_points(view, best.legs)] if best is not None and best.legs else []
    options: list[tuple[float, int]] = []
    for index in places(view, pull.first, pull.last):
        worst = max(bent_deg(view, pull.first, index), bent_deg(view, index + 1, pull.last))
        if worst <= pull.total.limit_deg and (best is None or best.legs != (index,)):
            options.append((worst, index))
    return mends + [with_points(view, [index]) for _, index in sorted(options)[: 2 - len(mends)]]


def closure_rule(view: WayView) -> Iterator[Finding]:
    """Heights taped along a way inside one structure meet the height of its end."""
    end = view.end
    if end is None or end.structure != view.start.structure or end.id == view.start.id:
        return
    reached = view.placed[-1].met_y
    low, high = entered_in(end, view.way.legs[-1].end.edge)
    off = reached - min(max(reached, low), high)
    if abs(off) <= CLOSURE_IN:
        return
    yield finding(
        "height-closure",
        view.way.id,
        len(view.way.legs) - 1,
        f"Heights miss {end.name} by {show(abs(off))}",
        f"The legs end {show(abs(off))} {'above' if off > 0 else 'below'} where {end.name} stands "
        f"({show(end.height_in)} over the floor).",
        "common practice, no source",
        measured=show(reached),
        limit=show(end.height_in),
        mends=_closing(view, off),
    )


def _closing(view: WayView, off: float) -> list[Mend]:
    """The last upright leg longer. Never shorter than taped: a cable cut short is bought twice."""
    for placed in reversed(view.placed):
        if not placed.vertical:
            continue
        length = placed.leg.length_in + (-off if placed.leg.go == "up" else off)
        if length > placed.leg.length_in:
            label = f"Set leg {placed.index + 1} to {show(length)}"
            return [Mend(label, [set_leg(view, placed.index, length_in=length)])]
    return []


RULES: tuple[Rule[WayView], ...] = (
    ends_rule,
    joints_rule,
    buried_point_rule,
    pull_rules,
    turn_back_rule,
    path_rule,
    closure_rule,
)
