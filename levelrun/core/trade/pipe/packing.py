"""Circles in a circle: how wires lie in a pipe, lowest place first, as gravity has them.

The largest goes in first; each next one takes the lowest spot that touches two others or the wall.
Where that fails, a second try lays a ring along the wall first. For up to seven equal circles this finds
the known densest packings; for more it may ask for a little more room than the best known, never less.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

TOUCH = 1e-9
Spot = tuple[float, float, float]


def _meet(x0: float, y0: float, r0: float, x1: float, y1: float, r1: float) -> list[tuple[float, float]]:
    gap = math.hypot(x1 - x0, y1 - y0)
    if gap < TOUCH or gap > r0 + r1 + TOUCH or gap < abs(r0 - r1) - TOUCH:
        return []
    along = (r0**2 - r1**2 + gap**2) / (2 * gap)
    side = math.sqrt(max(r0**2 - along**2, 0.0))
    ux, uy = (x1 - x0) / gap, (y1 - y0) / gap
    mx, my = x0 + along * ux, y0 + along * uy
    return [(mx - side * uy, my + side * ux), (mx + side * uy, my - side * ux)]


def _free(x: float, y: float, r: float, inner: float, placed: Sequence[Spot]) -> bool:
    slack = 1e-7 * inner
    return math.hypot(x, y) + r <= inner + slack and all(
        math.hypot(x - px, y - py) >= r + pr - slack for px, py, pr in placed
    )


def _candidates(r: float, inner: float, placed: Sequence[Spot]) -> list[tuple[float, float]]:
    found = [(0.0, r - inner)]
    for index, (px, py, pr) in enumerate(placed):
        found += _meet(0.0, 0.0, inner - r, px, py, pr + r)
        for qx, qy, qr in placed[:index]:
            found += _meet(px, py, pr + r, qx, qy, qr + r)
    return found


def _preference(c: tuple[float, float], r: float, inner: float, wall_first: bool) -> tuple[bool, float, float]:
    off_wall = inner - r - math.hypot(*c) > 1e-6 * inner
    return wall_first and off_wall, round(c[1] / inner, 7), round(c[0] / inner, 7)


@lru_cache(maxsize=4096)
def _pack(inner_radius: float, radii: tuple[float, ...], wall_first: bool) -> tuple[Spot, ...] | None:
    placed: list[Spot] = []
    for r in radii:
        if r > inner_radius + TOUCH:
            return None
        spots = [c for c in _candidates(r, inner_radius, placed) if _free(*c, r, inner_radius, placed)]
        if not spots:
            return None
        x, y = min(spots, key=lambda c: _preference(c, r, inner_radius, wall_first))
        placed.append((x, y, r))
    return tuple(placed)


def pack(inner_in: float, diameters_in: Sequence[float]) -> list[Spot] | None:
    """Centres and radii (inches, centre of the pipe is 0, 0) in the order given, or None where it does not fit."""
    order = sorted(range(len(diameters_in)), key=lambda i: -diameters_in[i])
    radii = tuple(diameters_in[i] / 2 for i in order)
    placed = _pack(inner_in / 2, radii, False) or _pack(inner_in / 2, radii, True)
    if placed is None:
        return None
    back: list[Spot] = [(0.0, 0.0, 0.0)] * len(order)
    for spot, index in zip(placed, order, strict=True):
        back[index] = spot
    return back


def fits_inside(inner_in: float, diameters_in: Sequence[float]) -> bool:
    """Whether circles of these diameters go side by side through a hole, inches."""
    return pack(inner_in, diameters_in) is not None


def least_radius(radii: Sequence[float]) -> float:
    """Smallest enclosing radius that this way of packing finds, same unit, to 1e-6 of it."""
    low, high = max(radii), 2 * sum(radii)
    while high - low > 1e-7 * high:
        middle = (low + high) / 2
        if pack(2 * middle, [2 * r for r in radii]) is None:
            low = middle
        else:
            high = middle
    return high
