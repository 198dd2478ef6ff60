"""Margins of trenches, spans and electrodes as figures: each a number with its reason and its red line."""

from __future__ import annotations

from levelrun.core.findings import Figure
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import sourced
from levelrun.core.trench.electrodes import GroundFacts
from levelrun.core.trench.facts import Lain, TrenchFacts
from levelrun.core.trench.rules.spans import SpanFacts
from levelrun.core.trench.yard import long_in
from levelrun.core.ways.laid import between, short_of


def cover_at(item: Lain, at_in: float) -> float:
    """Cover over a thing, so far along."""
    return between(item.cover, at_in)


def of_trench(facts: TrenchFacts) -> list[Figure]:
    """The cover over each thing in a trench where it has least to spare; how deep it is dug."""
    found = [figure for item in facts.lain if (figure := _cover(facts, item)) is not None]
    found.append(
        Figure(
            key="deep", label="dug, unshored", value=facts.deepest_in,
            text=show_inches(round(facts.deepest_in * 2) / 2),
            unit="in",
            formula="the most cover + what lies there + bedding",
            inputs={"bedding": show_inches(facts.trench.bedding_in), "width": show_inches(facts.trench.width_in)},
            rule="OSHA 1926.652(a)(1)", basis="from memory", limit=facts.book.number("guard_trench_from_in"),
            limit_text=show_inches(facts.book.number("guard_trench_from_in")),
        )
    )  # fmt: skip
    return sourced(facts.book, found)


def _cover(facts: TrenchFacts, item: Lain) -> Figure | None:
    rows = []
    for piece, need in zip(facts.pieces, item.needs, strict=True):
        if need is not None and item.cover:
            short, _ = short_of(item.cover, piece.start_in, piece.end_in, need.cover_in + 1000)
            rows.append((1000 - short, need, piece))
    if not rows:
        return None
    margin, need, piece = min(rows, key=lambda row: row[0])
    least = need.cover_in + margin
    return Figure(
        key=f"cover {item.way}", label=item.name, value=least, text=show_inches(least), unit="in",
        formula="grade to the top, the least of what was read or set",
        inputs={"above": piece.under or piece.above.replace("_", " "), "at": show(round(piece.start_in))},
        rule=need.rule, basis="from memory", limit=need.cover_in, limit_text=show_inches(need.cover_in),
        low_is_bad=True, beyond_text=f"{show_inches(-margin)} short" if margin < -1e-6 else "",
    )  # fmt: skip


def of_span(facts: SpanFacts) -> list[Figure]:
    """How high a span hangs over what is under it, its sag, how hard it pulls."""
    shape = facts.shape
    if shape is None:
        return []
    found = [
        Figure(
            key=f"clear {item.name or 'ground'}", label=f"over {item.name.lower() or 'the ground'}",
            value=item.clear_in,
            text=show(round(item.clear_in)), unit="in", formula="the wire on a hot day less the ground under it",
            inputs={"at": show(round(item.at_in)), "hot": f"{facts.book.number('span_hot_f'):g} °F"}, rule=item.rule,
            basis="from memory", limit=item.needed_in, limit_text=show(round(item.needed_in)),
            low_is_bad=True,
            beyond_text=f"{show(round(item.needed_in - item.clear_in))} low"
            if item.clear_in < item.needed_in - 1e-6 else "",
        )
        for item in facts.under
    ]  # fmt: skip
    hot = shape.hot.sag_ft * 12
    found.append(
        Figure(
            key="sag", label="sag, strung and hot", value=hot,
            text=f"{show_inches(round(shape.sag_in))}, {show_inches(round(hot))}", unit="in",
            formula="a catenary; the same wire longer by 10.6e-6 a °F",
            inputs={"span": show(round(long_in(facts.span.points)))},
            rule="common practice, no source", basis="practice",
        )
    )  # fmt: skip
    if shape.pull_lb is not None and shape.limit_lb is not None and shape.messenger is not None:
        wire = shape.messenger
        found.append(
            Figure(
                key="pull", label="pull in ice and wind", value=shape.pull_lb, text=f"{shape.pull_lb:.0f} lb",
                unit="lb",
                formula="(weight, ice and wind) × reach of the catenary in the cold",
                inputs={"weight": f"{wire.weight_lb_ft:g} lb/ft", "over all": f"{wire.diameter_in:g}″",
                        "district": facts.job.habits.district,
                        "as strung": f"{shape.strung_lb or 0:.0f} lb"},
                rule="IEEE C2 rules 250B, 261H", basis="from memory, a planning figure", limit=shape.limit_lb,
                limit_text=f"{shape.limit_lb:.0f} lb",
                beyond_text=f"{shape.pull_lb - shape.limit_lb:.0f} lb over" if shape.pull_lb > shape.limit_lb else "",
            )
        )  # fmt: skip
    return sourced(facts.book, found)


def of_ground(facts: GroundFacts) -> list[Figure]:
    """How far its rods stand apart, and what they would show in ordinary soil."""
    found: list[Figure] = []
    apart, least = facts.apart_in(), facts.book.number("rods_apart_in")
    if apart is not None:
        found.append(
            Figure(
                key="apart", label="rods apart", value=apart, text=show(round(apart)), unit="in",
                formula="the least distance between two", inputs={}, rule="250.53(A)(3)", basis="from memory",
                limit=least,
                limit_text=show(least), low_is_bad=True,
                beyond_text=f"{show(round(least - apart))} short" if apart < least - 1e-6 else "",
            )
        )  # fmt: skip
    shown = facts.expected()
    if shown is not None:
        found.append(
            Figure(
                key="ohms", label="expected, in ordinary soil", value=shown.ohms_all, text=f"{shown.ohms_all:.0f} Ω",
                unit="ohm", formula="Dwight: rods with their images, at the mean potential",
                inputs={"soil": f"{facts.book.number('soil_ohm_m'):g} Ω·m", "one alone": f"{shown.ohms_one:.0f} Ω"},
                rule="IEEE 142", basis="published method, soil by practice",
            )
        )  # fmt: skip
    return sourced(facts.book, found)
