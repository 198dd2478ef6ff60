"""What the terminals of panels and breakers take."""

from __future__ import annotations

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Panel


def usual_lugs(book: Codebook, of: str, amps: float) -> str:
    """The biggest wire that a main or a breaker of so many amperes usually takes; empty over the last row, where it
    is not known. The first row rated as much or more. Typical, no source: the label decides."""
    rows = (row for row in book.table("lugs").rows if row["of"] == of)
    return next((row["takes"] for row in rows if float(row["up_to_a"]) >= amps), "")


def lugs_of(book: Codebook, panel: Panel) -> str:
    """The biggest wire for the main lugs of a panel: as said, else as usual for its main, or its bus where it has
    none."""
    return panel.lug_max or usual_lugs(book, "main", panel.main_a or panel.bus_a)


def too_big(book: Codebook, wire: str, takes: str) -> bool:
    """Whether a wire is bigger than what a terminal takes; one that is not known takes any."""
    order = wire_sizes(book)
    return wire in order and takes in order and order.index(wire) > order.index(takes)
