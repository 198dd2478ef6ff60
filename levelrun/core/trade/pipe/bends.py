"""Bends between pull points, and the trigonometry of offsets."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from levelrun.core.codebook import Codebook


@dataclass(frozen=True)
class Bends:
    """Bend total of one pull against its limit, degrees."""

    total_deg: float
    limit_deg: float
    ok: bool
    rule: str


def bends(book: Codebook, bends_deg: Sequence[float], section: str = "") -> Bends:
    """Adds every bend between two pull points; box offsets count too. Limit 360°."""
    limit = book.scalar("bend_limit_deg")
    total = math.fsum(bends_deg)
    return Bends(total, limit.value, total <= limit.value + 1e-9, section or limit.section)


def offset_rise(distance_in: float, angle_deg: float) -> float:
    """How far an offset moves the pipe aside, inches, from the distance between its two marks."""
    return distance_in * math.sin(math.radians(angle_deg))
