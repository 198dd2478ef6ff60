"""Pencil marks for hand bends. Exact trigonometry; the chart's multiplier stands beside it."""

from __future__ import annotations

import math
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import raceway
from levelrun.core.errors import LevelRunError, unknown

KINDS = ("box_offset", "offset", "stub", "saddle3", "saddle4")
BOX_FIRST_IN = 2.0
BOX_BETWEEN_IN = 2.5
BOX_ANGLE = 10.0


@dataclass(frozen=True, kw_only=True)
class HandBend:
    """Marks in inches from the end of the stick, the angle at each, how much the stick shrinks, the rise made."""

    marks_in: list[float]
    angles_deg: list[float]
    shrink_in: float
    rise_in: float
    chart_multiplier: float | None
    rule: str
    note: str


def hand_bend(
    book: Codebook,
    kind: str,
    raceway_key: str,
    size: str,
    rise_in: float | None = None,
    angle_deg: float | None = None,
    distance_in: float | None = None,
    width_in: float | None = None,
) -> HandBend:
    """Marks of a bend.

    rise_in: how far aside; angle_deg: of each bend, under 90 (the middle one of a three-bend
    saddle); of a stub 90; distance_in: to the
    obstacle, or the length of the stub; width_in: of what a four-bend saddle crosses.
    Raises LevelRunError that names the key where a needed one is missing.
    """
    if kind not in KINDS:
        raise unknown("kind", kind, KINDS)
    raceway(book, raceway_key, size)
    if kind == "stub":
        length = _need("distance_in", distance_in, kind)
        if angle_deg not in (None, 90):
            raise _angle(angle_deg, kind, "90")
        return _stub(book, raceway_key, size, length)
    if angle_deg is not None and angle_deg >= 90:
        raise _angle(angle_deg, kind, "under 90")
    if kind == "box_offset":
        return _box_offset(book, rise_in, angle_deg or BOX_ANGLE)
    rise = _need("rise_in", rise_in, kind)
    if kind == "offset":
        return _offset(book, rise, angle_deg or 30.0, distance_in)
    if kind == "saddle3":
        return _saddle3(book, rise, angle_deg or 45.0, _need("distance_in", distance_in, kind))
    return _saddle4(
        book, rise, angle_deg or 30.0, _need("distance_in", distance_in, kind), _need("width_in", width_in, kind)
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
