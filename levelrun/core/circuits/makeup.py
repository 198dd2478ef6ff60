"""Free length that is left at the end of a cable or wire."""

from __future__ import annotations

import math

from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Habits, Panel


def makeup_in(book: Codebook, habits: Habits, node: Box | Panel, outdoors: bool) -> float:
    """Inches of make-up at a panel, a box, or equipment and whatever is outdoors, by the shop's habits; in a box
    never under the free conductor that 300.14 asks."""
    if isinstance(node, Panel):
        return habits.panel_makeup_in
    least = book.number("free_from_sheath_in")
    if node.kind == "tail" and node.spare_in is not None:
        return max(node.spare_in, least)
    if outdoors or node.kind in ("equipment", "disconnect", "tail"):
        return max(habits.outside_makeup_in, least)
    return max(habits.box_makeup_in, least)


def left_free_at(book: Codebook, habits: Habits, node: Box | Panel) -> float:
    """The make-up at what no way goes to: outdoors where it stands outdoors itself."""
    return makeup_in(book, habits, node, isinstance(node, Box) and node.outdoors)


def piece_in(habits: Habits, path_in: float, start_in: float, end_in: float) -> float:
    """Inches of one piece as it is cut: its path, the make-up at both ends, a loop, waste on the path. Unrounded."""
    return path_in * (1 + habits.waste_percent / 100) + start_in + end_in + habits.loop_in


def to_the_foot(length_in: float) -> float:
    """Rounded up to whole feet, in inches: what is cut and bought is never short."""
    return math.ceil(length_in / 12 - 1e-9) * 12
