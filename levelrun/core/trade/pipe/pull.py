"""Pull force along a pipe, from both ends."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import MATERIALS, check_wire, conductor
from levelrun.core.errors import unknown

COPPER_LB_PER_CMIL_FT = 3.027e-6
ALUMINUM_LB_PER_CMIL_FT = 0.9200e-6
STRANDING = 1.02
INSULATION_LB_PER_IN3 = 0.047


@dataclass(frozen=True)
class Section:
    """A straight (inches along, inches climbed, down negative) or a bend (degrees, radius in inches)."""

    straight_in: float = 0.0
    climb_in: float = 0.0
    bend_deg: float = 0.0
    radius_in: float = 0.0


@dataclass(frozen=True)
class PullWires:
    """Equal wires to pull."""

    insulation: str
    size: str
    material: str
    count: int


@dataclass(frozen=True)
class CurvePoint:
    """Tension after so many inches from the fed end."""

    at_in: float
    lb: float


@dataclass(frozen=True, kw_only=True)
class PullForce:
    """Pounds at the pulled end, fed at the start (forward) or at the end (reverse). `feed` is the easier.

    The corrected ones count how the wires wedge in the pipe; null where no pipe is named. Side wall is the corrected
    one where there is one.
    """

    forward_lb: float
    reverse_lb: float
    feed: str
    sidewall_lb_per_ft: float
    limit_lb: float
    weight_lb_per_ft: float
    weight_factor: float | None
    corrected_forward_lb: float | None
    corrected_reverse_lb: float | None
    curve_forward: list[CurvePoint]
    curve_reverse: list[CurvePoint]
    rule: str


def wire_weight(book: Codebook, wires: PullWires) -> float:
    """Pounds a foot of one wire: metal by its circular mils and density, insulation by its ring of plastic.

    Source: density of copper 0.321 and aluminum 0.0975 lb/in³; plastic 0.047 lb/in³, typical.
    """
    if wires.material not in MATERIALS:
        raise unknown("material", wires.material, MATERIALS)
    check_wire(book, wires.size, wires.material)
    mils = float(book.table("ch9-table8").get(wires.size)["area_cmil"])
    metal = mils * (COPPER_LB_PER_CMIL_FT if wires.material == "cu" else ALUMINUM_LB_PER_CMIL_FT) * STRANDING
    ring = conductor(book, wires.insulation, wires.size).area_in2 - conductor(book, "BARE", wires.size).area_in2
    return metal + max(ring, 0.0) * 12 * INSULATION_LB_PER_IN3


def weight_factor(book: Codebook, wires: Sequence[PullWires], inner_in: float) -> float:
    """By how much more wires press on the wall than their weight, as they wedge against each other: 1 for one wire,
    two and three by their closed forms, four in a diamond, 1.4 for more where that is more.

    inner_in: inside diameter of the pipe, inches. Wires that do not go side by side are counted as the worst that
    does. Source: the usual formulas for cable pulling, from memory; for more than four, common practice, no source.
    """
    count = sum(w.count for w in wires)
    if count < 2:
        return 1.0
    widest = max(conductor(book, w.insulation, w.size).diameter_in for w in wires)
    share = min((widest / (inner_in - widest)) if inner_in > widest else 1.0, 0.99)
    if count == 2:
        return 1 / math.sqrt(1 - share**2)
    cradled = 1 + 4 / 3 * share**2
    if count == 3:
        return cradled
    diamond = 1 + 2 * share**2
    return diamond if count == 4 else max(diamond, 1.4)


def pull_limit(book: Codebook, wires: Sequence[PullWires]) -> float:
    """Most the conductors bear, all sharing alike: 0.008 lb a circular mil of copper, 0.006 of aluminum."""
    limits = {"cu": book.number("pull_copper_lb_per_cmil"), "al": book.number("pull_aluminum_lb_per_cmil")}
    mils = {row["size"]: float(row["area_cmil"]) for row in book.table("ch9-table8").rows}
    return sum(w.count * mils[w.size] * limits[w.material] for w in wires)


def pull(
    book: Codebook,
    sections: Sequence[Section],
    wires: Sequence[PullWires],
    friction: float,
    start_lb: float = 0.0,
    inner_in: float | None = None,
) -> PullForce:
    """Tension by the two formulas: T·e^(μφ) round a bend, T + wL(μ·level + climb) along a straight, never under 0.

    The weight is that of all wires. With the inside diameter of the pipe also corrected for how they lie: the factor
    multiplies the friction, on the straight and in the exponent. Side wall is tension over radius, worst bend.
    """
    weight = sum(wire_weight(book, w) * w.count for w in wires)
    back = [Section(s.straight_in, -s.climb_in, s.bend_deg, s.radius_in) for s in reversed(sections)]
    forward, side_forward = _curve(sections, weight, friction, start_lb)
    reverse, side_reverse = _curve(back, weight, friction, start_lb)
    factor = None if inner_in is None else weight_factor(book, wires, inner_in)
    corrected: tuple[float | None, float | None] = (None, None)
    if factor is not None:
        there, side_forward = _curve(sections, weight, friction * factor, start_lb)
        again, side_reverse = _curve(back, weight, friction * factor, start_lb)
        corrected = (there[-1].lb, again[-1].lb)
    feed = "start" if forward[-1].lb <= reverse[-1].lb else "end"
    return PullForce(
        forward_lb=forward[-1].lb,
        reverse_lb=reverse[-1].lb,
        feed=feed,
        sidewall_lb_per_ft=side_forward if feed == "start" else side_reverse,
        limit_lb=pull_limit(book, wires),
        weight_lb_per_ft=weight,
        weight_factor=factor,
        corrected_forward_lb=corrected[0],
        corrected_reverse_lb=corrected[1],
        curve_forward=forward,
        curve_reverse=reverse,
        rule="closed form; limits are common practice, no source",
    )


def _curve(
    sections: Sequence[Section], weight: float, friction: float, start_lb: float
) -> tuple[list[CurvePoint], float]:
    tension, at, side = start_lb, 0.0, 0.0
    points = [CurvePoint(0.0, tension)]
    for section in sections:
        if section.bend_deg:
            angle = math.radians(section.bend_deg)
            tension *= math.exp(friction * angle)
            at += section.radius_in * angle
            side = max(side, tension / (section.radius_in / 12)) if section.radius_in else side
        if section.straight_in:
            level = math.sqrt(max(section.straight_in**2 - section.climb_in**2, 0.0))
            tension = max(tension + weight * (friction * level + section.climb_in) / 12, 0.0)
            at += section.straight_in
        points.append(CurvePoint(at, tension))
    return points, side
