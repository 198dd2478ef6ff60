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
    """Pounds at the pulled end, fed at the start (forward) or at the end (reverse). `feed` is the easier."""

    forward_lb: float
    reverse_lb: float
    feed: str
    sidewall_lb_per_ft: float
    limit_lb: float
    weight_lb_per_ft: float
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
) -> PullForce:
    """Tension by the two formulas: T·e^(μφ) round a bend, T + wL(μ·level + climb) along a straight, never under 0.

    The weight is that of all wires; no extra for how they lie. Side wall is tension over radius, worst bend.
    """
    weight = sum(wire_weight(book, w) * w.count for w in wires)
    back = [Section(s.straight_in, -s.climb_in, s.bend_deg, s.radius_in) for s in reversed(sections)]
    forward, side_forward = _curve(sections, weight, friction, start_lb)
    reverse, side_reverse = _curve(back, weight, friction, start_lb)
    feed = "start" if forward[-1].lb <= reverse[-1].lb else "end"
    return PullForce(
        forward_lb=forward[-1].lb,
        reverse_lb=reverse[-1].lb,
        feed=feed,
        sidewall_lb_per_ft=side_forward if feed == "start" else side_reverse,
        limit_lb=pull_limit(book, wires),
        weight_lb_per_ft=weight,
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
