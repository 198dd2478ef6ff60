"""Offsets, saddles and kicks as corners of a straight leg: how far along it, and how far aside."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from levelrun.core.errors import LevelRunError
from levelrun.core.measure import show

USUAL_DEG = {"box_offset": 10.0, "offset": 30.0, "saddle3": 45.0, "saddle4": 30.0, "kick": 30.0, "rolling": 30.0}
BOX_RISE_IN = 2.5 * math.sin(math.radians(10))  # marks 2½ in apart at 10°: common practice, no source
BOX_END_IN = 2.0
MOST_DEG = {"saddle3": 90.0}


@dataclass(frozen=True, kw_only=True)
class ShapeIn:
    """A shape in a leg. at_in: along the leg to where it is done (offset, rolling), to the middle of what it crosses
    (three bends), to the near edge of it (four bends), to the bend (kick). roll_in: of a rolling offset the other way
    aside. Angle of each bend, of the middle one where there are three."""

    kind: str
    at_in: float
    rise_in: float
    angle_deg: float
    roll_in: float = 0.0
    width_in: float = 0.0

    @property
    def true_in(self) -> float:
        """How far aside in all: of a rolling offset across both ways."""
        return math.hypot(self.rise_in, self.roll_in)


@dataclass(frozen=True)
class Spot:
    """A corner: inches along the leg, inches aside as the rise goes, inches aside as the roll goes."""

    along_in: float
    rise_in: float
    roll_in: float


def degrees_of(shape: ShapeIn) -> tuple[float, ...]:
    """The bends of a shape, in order, degrees."""
    a = shape.angle_deg
    return {"saddle3": (a / 2, a, a / 2), "saddle4": (a, a, a, a), "kick": (a,)}.get(shape.kind, (a, a))


def run_in(shape: ShapeIn) -> float:
    """How far along the leg one slope of a shape goes, inches."""
    outer = shape.angle_deg / 2 if shape.kind == "saddle3" else shape.angle_deg
    return shape.true_in / math.tan(math.radians(outer))


def corners(shape: ShapeIn) -> list[Spot]:
    """The corners of a shape, first to last. Trigonometry: run is true offset / tan(angle)."""
    run, at, rise, roll = run_in(shape), shape.at_in, shape.rise_in, shape.roll_in
    aside = Spot(at, rise, roll)
    if shape.kind == "kick":
        return [Spot(at, 0.0, 0.0)]
    if shape.kind == "saddle3":
        return [Spot(at - run, 0.0, 0.0), aside, Spot(at + run, 0.0, 0.0)]
    if shape.kind == "saddle4":
        far = at + shape.width_in
        return [Spot(at - run, 0.0, 0.0), aside, Spot(far, rise, 0.0), Spot(far + run, 0.0, 0.0)]
    return [Spot(at - run, 0.0, 0.0), aside]


def span_in(shape: ShapeIn) -> tuple[float, float]:
    """How far a shape reaches before its place and beyond it, inches along the leg."""
    spots = corners(replace(shape, at_in=0.0))
    beyond = run_in(shape) if shape.kind == "kick" else spots[-1].along_in
    return -spots[0].along_in, beyond


def check_shape(shape: ShapeIn, leg_in: float, key: str = "shapes") -> None:
    """Raises LevelRunError that names the field where a shape cannot be made in a leg of that length."""
    most = MOST_DEG.get(shape.kind, 89.0)
    if not 1 <= shape.angle_deg <= most:
        raise _no(f"angle {shape.angle_deg:g}° for {named(shape.kind)}; allowed: 1 to {most:g}°", f"{key}.angle_deg")
    if shape.true_in <= 0:
        raise _no(f"rise 0 for {named(shape.kind)}; allowed: over 0", f"{key}.rise_in")
    if shape.kind == "saddle4" and shape.width_in <= 0:
        raise _no("width 0 for a four-bend saddle; allowed: the width of what it crosses, over 0", f"{key}.width_in")
    before, beyond = span_in(shape)
    first, last = shape.at_in - before, shape.at_in + beyond
    long = before + beyond
    if long > leg_in + 1e-6:
        raise _no(
            f"{named(shape.kind)} of {show(shape.true_in)} at {shape.angle_deg:g}° takes {show(long)} of a leg of "
            f"{show(leg_in)}; allowed: less rise, a steeper angle, or a longer leg",
            f"{key}.angle_deg",
        )
    if first < -1e-6 or last > leg_in + 1e-6:
        low, high = before, leg_in - beyond
        raise _no(
            f"at {show(shape.at_in)} {named(shape.kind)} runs out of a leg of {show(leg_in)}; "
            f"allowed: {show(max(low, 0))} to {show(high)}",
            f"{key}.at_in",
        )


def _no(message: str, key: str) -> LevelRunError:
    return LevelRunError(message, key=key)


def named(kind: str) -> str:
    """A shape in words."""
    return {
        "box_offset": "a box offset", "offset": "an offset", "saddle3": "a three-bend saddle",
        "saddle4": "a four-bend saddle", "kick": "a kick", "rolling": "a rolling offset",
    }[kind]  # fmt: skip


def parallel_shift_in(apart_in: float, angle_deg: float) -> float:
    """How much farther along the marks of an offset stand on the next of several pipes side by side, so that they
    stay evenly apart: spacing · tan(angle/2). Source: trigonometry."""
    return apart_in * math.tan(math.radians(angle_deg) / 2)


def grouped(bends_deg: Sequence[float]) -> list[tuple[str, tuple[float, ...]]]:
    """Bare angles as the shapes that they usually are: 10 10 a box offset, 30 30 an offset, 22½ 45 22½ a saddle;
    else one bend each, "bend"."""
    found: list[tuple[str, tuple[float, ...]]] = []
    left = list(bends_deg)
    while left:
        a = left[0]
        if len(left) > 3 and left[:4] == [a] * 4 and a != 10:
            take, kind = 4, "saddle4"
        elif len(left) > 2 and left[2] == a and left[1] == 2 * a:
            take, kind = 3, "saddle3"
        elif len(left) > 1 and left[1] == a and a < 90:
            take, kind = 2, "box_offset" if a == 10 else "offset"
        else:
            take, kind = 1, "bend"
        found.append((kind, tuple(left[:take])))
        del left[:take]
    return found
