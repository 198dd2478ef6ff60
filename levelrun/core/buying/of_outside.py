"""What trenches and spans take: ribbon, sand, tubes, concrete; heads, hooks, clamps, splices."""

from __future__ import annotations

import math
from collections.abc import Iterator

from levelrun.core.buying.items import Item, each, fitting
from levelrun.core.buying.lines import At, Line, Lines
from levelrun.core.codebook import Codebook
from levelrun.core.trench.costs import CONCRETE_IN, earth_of
from levelrun.core.trench.facts import TrenchFacts
from levelrun.core.trench.risers import riser_rows
from levelrun.core.trench.rules.spans import SpanFacts

TUBE_EVERY_IN = 180.0  # a sight tube every so far, and at each end: common practice, no source
BAG_FT3 = 0.45  # what a 60 lb bag of concrete makes: common practice, no source


def lines_of_trench(facts: TrenchFacts) -> Lines:
    """What goes into a trench beside its pipe and cable."""
    return tuple(_of_trench(facts))


def _of_trench(facts: TrenchFacts) -> Iterator[Line]:
    trench = facts.trench
    at = At("trench", trench.id, trench.name, stage="trench")
    feet = math.ceil(facts.long_in * 1.05 / 12)
    yield Line(Item("trench", "warning ribbon", "ft"), float(feet), at, "a foot over what lies there")
    yield Line(
        each("trench", "sight tube"), math.ceil(facts.long_in / TUBE_EVERY_IN) + 1, at, "every 15 ft, each end"
    )
    yield Line(each("fees", "call for utility marks"), 1, at, "before the first spade")
    own = earth_of(facts, facts.bottom)
    if own.sand_ft3:
        yield Line(each("trench", "bedding sand, ft³"), math.ceil(own.sand_ft3), at, "under what lies there")
    if trench.concrete:
        ft3 = facts.long_in * trench.width_in * CONCRETE_IN / 1728
        yield Line(each("trench", "concrete, 60 lb bag"), math.ceil(ft3 / BAG_FT3), at, "2 in over the pipe")
    if trench.dig == "machine":
        yield Line(each("fees", "trencher, a day"), 1, at, "hired")
    for row in riser_rows(facts):
        yield Line(each("trench", "duct seal and caulk, an end"), 1, at, row.name)


def lines_of_span(book: Codebook, facts: SpanFacts) -> Lines:
    """What a span hangs from and is spliced with, at both ends."""
    if not facts.held:
        return ()
    span = facts.span
    at = At("span", span.id, span.name, stage="trench")
    wires = int(facts.size.partition("-")[2] or 2) + 1
    gauge = facts.size.partition("-")[0]
    found = [
        Line(each("trench", f"wedge clamp {gauge}"), 2, at, "holds the messenger"),
        Line(each("trench", "insulated hook"), 2, at, "in the framing, not in the siding"),
        Line(each("trench", f"listed splice {gauge}"), 2 * wires, at, f"{wires} wires at both ends"),
    ]
    for end in (span.start_end, span.end_end):
        found.append(Line(fitting("mast", end.mast or "1-1/4", "weatherhead"), 1, at, f"{wires} wires"))
    return tuple(found)
