"""Pencil marks for hand bends. Exact trigonometry; the chart's multiplier stands beside it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import raceway
from levelrun.core.errors import LevelRunError, unknown
from levelrun.core.trade.pipe.make import least_radius_in, make_of, shoe_of

KINDS = ("box_offset", "offset", "stub", "saddle3", "saddle4", "rolling_offset", "kick", "back_to_back")
BOX_FIRST_IN = 2.0
BOX_BETWEEN_IN = 2.5
BOX_ANGLE = 10.0


@dataclass(frozen=True, kw_only=True)
class HandBend:
    """Marks in inches from the end of the stick, the angle at each, how much the stick shrinks, the rise made.

    true_offset_in: how far aside in all, of a rolling offset across both ways; gain_in: how much less pipe the bends
    take than their straights to the corner; of a 90° to its back.
    """

    marks_in: list[float]
    angles_deg: list[float]
    shrink_in: float
    rise_in: float
    chart_multiplier: float | None
    rule: str
    note: str
    true_offset_in: float = 0.0
    gain_in: float = 0.0


def hand_bend(
    book: Codebook,
    kind: str,
    raceway_key: str,
    size: str,
    rise_in: float | None = None,
    angle_deg: float | None = None,
    distance_in: float | None = None,
    width_in: float | None = None,
    roll_in: float | None = None,
) -> HandBend:
    """Marks of a bend.

    rise_in: how far aside; angle_deg: of each bend, under 90 (the middle one of a three-bend
    saddle); of a stub 90; distance_in: to the
    obstacle, or the length of the stub, or from back to back; width_in: of what a four-bend saddle crosses;
    roll_in: of a rolling offset, how far aside the other way.
    Raises LevelRunError that names the key where a needed one is missing.
    """
    if kind not in KINDS:
        raise unknown("kind", kind, KINDS)
    raceway(book, raceway_key, size)
    if kind in ("stub", "back_to_back"):
        length = _need("distance_in", distance_in, kind)
        if angle_deg not in (None, 90):
            raise _angle(angle_deg, kind, "90")
        made = _stub(book, raceway_key, size, length) if kind == "stub" else _back_to_back(length)
        return replace(made, true_offset_in=made.rise_in, gain_in=_gain(book, raceway_key, size, [90.0]))
    if angle_deg is not None and angle_deg >= 90:
        raise _angle(angle_deg, kind, "under 90")
    made = _aside(book, kind, rise_in, angle_deg, distance_in, width_in, roll_in)
    true = math.hypot(made.rise_in, roll_in or 0.0) if kind == "rolling_offset" else made.rise_in
    return replace(made, true_offset_in=true, gain_in=_gain(book, raceway_key, size, made.angles_deg))


def _aside(
    book: Codebook,
    kind: str,
    rise_in: float | None,
    angle_deg: float | None,
    distance_in: float | None,
    width_in: float | None,
    roll_in: float | None,
) -> HandBend:
    """What goes aside by bends under 90°."""
    if kind == "box_offset":
        return _box_offset(book, rise_in, angle_deg or BOX_ANGLE)
    rise = _need("rise_in", rise_in, kind)
    if kind == "offset":
        return _offset(book, rise, angle_deg or 30.0, distance_in)
    if kind == "rolling_offset":
        true = math.hypot(rise, _need("roll_in", roll_in, kind))
        made = _offset(book, true, angle_deg or 30.0, distance_in)
        return replace(made, rise_in=rise, rule=f"trigonometry: true offset √(rise² + roll²); {made.rule}")
    if kind == "kick":
        return _kick(book, rise, angle_deg or 30.0)
    if kind == "saddle3":
        return _saddle3(book, rise, angle_deg or 45.0, _need("distance_in", distance_in, kind))
    return _saddle4(
        book, rise, angle_deg or 30.0, _need("distance_in", distance_in, kind), _need("width_in", width_in, kind)
    )


def _gain(book: Codebook, key: str, size: str, angles_deg: Sequence[float]) -> float:
    """How much less pipe bends take than their straights to the corner: 2R·tan(angle/2) − R·angle each, inches; of a
    90° to its back, as benders print it: 2(R + half the outside) − πR/2."""
    shoe, make = shoe_of(book, key, size), make_of(book, key, size)
    radius = shoe.radius_in if shoe else least_radius_in(book, size, True)
    if list(angles_deg) == [90.0]:
        return 2 * (radius + (make.outer_in / 2 if make else 0.0)) - math.pi / 2 * radius
    halves = [math.radians(angle) / 2 for angle in angles_deg]
    return sum(2 * radius * (math.tan(half) - half) for half in halves)


def _kick(book: Codebook, rise: float, angle: float) -> HandBend:
    between, shrink = _legs(rise, angle)
    return HandBend(
        marks_in=[between],
        angles_deg=[angle],
        shrink_in=shrink,
        rise_in=rise,
        chart_multiplier=_chart(book, angle),
        rule="trigonometry: rise / sin",
        note="the mark, from the back of the 90° or from the end that goes aside",
    )


def _back_to_back(distance: float) -> HandBend:
    return HandBend(
        marks_in=[distance],
        angles_deg=[90.0],
        shrink_in=0.0,
        rise_in=distance,
        chart_multiplier=None,
        rule="bender star: common practice, no source",
        note="the star on the mark, from the back of the first 90°; the hook looks away from it",
    )


def _angle(value: float | None, kind: str, allowed: str) -> LevelRunError:
    return LevelRunError(
        f"angle_deg {value:g} for {kind}; allowed: {allowed}", key="angle_deg", value=value, allowed=[allowed]
    )


def _need(key: str, value: float | None, kind: str) -> float:
    if value is None:
        raise LevelRunError(f"{key} is needed for {kind}; allowed: inches over 0", key=key, allowed=["over 0"])
    return value


def _legs(rise: float, angle: float) -> tuple[float, float]:
    """Distance between marks and shrink of one offset."""
    radians = math.radians(angle)
    return rise / math.sin(radians), rise * math.tan(radians / 2)


def _chart(book: Codebook, angle: float) -> float | None:
    row = book.table("bend-multipliers").find(f"{angle:g}")
    return float(row["multiplier"]) if row else None


def _box_offset(book: Codebook, rise: float | None, angle: float) -> HandBend:
    between = BOX_BETWEEN_IN if rise is None else rise / math.sin(math.radians(angle))
    made = between * math.sin(math.radians(angle))
    return HandBend(
        marks_in=[BOX_FIRST_IN, BOX_FIRST_IN + between],
        angles_deg=[angle, angle],
        shrink_in=made * math.tan(math.radians(angle) / 2),
        rise_in=made,
        chart_multiplier=_chart(book, angle),
        rule="common practice, no source",
        note="marks from the end that goes into the box",
    )


def _offset(book: Codebook, rise: float, angle: float, distance: float | None) -> HandBend:
    between, shrink = _legs(rise, angle)
    far = between if distance is None else distance + shrink
    return HandBend(
        marks_in=[_positive(far - between), far],
        angles_deg=[angle, angle],
        shrink_in=shrink,
        rise_in=rise,
        chart_multiplier=_chart(book, angle),
        rule="trigonometry: rise / sin, rise · tan(half)",
        note="marks from the start of the stick"
        if distance is None
        else "the far mark lies at the obstacle plus shrink",
    )


def _positive(mark: float) -> float:
    if mark < 0:
        raise LevelRunError(
            f"distance_in is too short: the first mark would fall {-mark:.2f} in before the stick",
            key="distance_in",
            value=mark,
            allowed=["a longer distance, a steeper angle, or less rise"],
        )
    return mark


def _stub(book: Codebook, key: str, size: str, length: float) -> HandBend:
    table = book.table("bender")
    if table.find(key, size) is None:
        made = [f"{row['raceway']} {row['size']}" for row in table.rows]
        raise LevelRunError(
            f"no hand bender for {key} {size}; allowed: {', '.join(made)}",
            key="raceway" if not any(row["raceway"] == key for row in table.rows) else "size",
            value=f"{key} {size}",
            allowed=made,
        )
    take_up = float(table.get(key, size)["take_up_in"])
    return HandBend(
        marks_in=[_positive(length - take_up)],
        angles_deg=[90.0],
        shrink_in=take_up,
        rise_in=length,
        chart_multiplier=None,
        rule="bender take-up: common practice, no source",
        note=f"take-up {take_up:g} in off the stub length",
    )


def _saddle3(book: Codebook, rise: float, angle: float, distance: float) -> HandBend:
    outer = angle / 2
    between, shrink = _legs(rise, outer)
    middle = distance + shrink
    return HandBend(
        marks_in=[_positive(middle - between), middle, middle + between],
        angles_deg=[outer, angle, outer],
        shrink_in=2 * shrink,
        rise_in=rise,
        chart_multiplier=_chart(book, outer),
        rule="trigonometry: outer marks rise / sin(half angle) from the middle",
        note="the middle mark lies at the obstacle's centre plus shrink",
    )


def _saddle4(book: Codebook, rise: float, angle: float, distance: float, width: float) -> HandBend:
    between, shrink = _legs(rise, angle)
    near = distance + shrink
    far = near + width
    return HandBend(
        marks_in=[_positive(near - between), near, far, far + between],
        angles_deg=[angle] * 4,
        shrink_in=2 * shrink,
        rise_in=rise,
        chart_multiplier=_chart(book, angle),
        rule="trigonometry: two offsets, the obstacle's width between",
        note="the second mark lies at the obstacle plus shrink",
    )
