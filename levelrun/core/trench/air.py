"""A span as it hangs: its shape on a hot day, what lies under it, how hard it pulls in ice and wind."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from shapely import LineString
from shapely import Point as Shape

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job, Span
from levelrun.core.measure import feet
from levelrun.core.trade.clearance import clearance
from levelrun.core.trade.span import STRUNG_F, Hung, hung, loading, tension_lb, warmed
from levelrun.core.trench.parts import District
from levelrun.core.trench.yard import Yard, along, ground_along, long_in, shape_of
from levelrun.core.ways.laid import between

STEP_IN = 6.0
VOLTS = 240.0
RANK = {"walk": 0, "drive": 1, "street": 2, "roof": 3}
OVER_TEXT = {"walk": "ground where people walk", "drive": "the drive", "street": "the street", "roof": "a roof"}


@dataclass(frozen=True, kw_only=True)
class Beneath:
    """The place under a span where it has least to spare: what lies there, how far along, how high over it, how much
    is wanted."""

    over: str
    name: str
    at_in: float
    clear_in: float
    needed_in: float
    rule: str


@dataclass(frozen=True, kw_only=True)
class Messenger:
    """Cabled wires on a messenger: pounds a foot, diameter over all, breaking strength."""

    weight_lb_ft: float
    diameter_in: float
    breaking_lb: float


@dataclass(frozen=True, kw_only=True)
class Hanging:
    """A span as it hangs. Heights of its ends are over the site's zero; `strung` on a mild day, `hot` on a hot one;
    `pull_lb` None where the cold would pull it straight, or where its wire is not in the table."""

    start_in: float
    end_in: float
    sag_in: float
    strung: Hung
    hot: Hung
    messenger: Messenger | None
    strung_lb: float | None
    pull_lb: float | None
    limit_lb: float | None
    too_tight: bool

    def height_in(self, at_in: float) -> float:
        """How high it hangs on a hot day, over the site's zero."""
        return self.start_in + 12 * self.hot.height_ft(at_in / 12)


def messenger(book: Codebook, size: str) -> Messenger | None:
    """The wires of a cable such as 4-3. Exact; None where the table has none."""
    gauge, _, count = size.partition("-")
    row = book.table("messenger").find(gauge, count)
    if row is None:
        return None
    return Messenger(
        weight_lb_ft=float(row["weight_lb_ft"]), diameter_in=float(row["diameter_in"]),
        breaking_lb=float(row["breaking_lb"]),
    )  # fmt: skip


def hanging(job: Job, book: Codebook, yard: Yard, span: Span, size: str) -> Hanging | None:
    """A span as it hangs, or None while the height of an end is not said."""
    if span.start_end.height_in is None or span.end_end.height_in is None:
        return None
    ground = ground_along(yard, span.points, span.start, span.end)
    heights = (ground[0][1] + span.start_end.height_in, ground[-1][1] + span.end_end.height_in)
    return _hanging(book, heights, long_in(span.points), span.sag_in, size, job.habits.district)


@lru_cache(maxsize=256)
def _hanging(
    book: Codebook, heights: tuple[float, float], long: float, sag: float | None, size: str, district: District
) -> Hanging | None:
    sag_in = sag if sag is not None else long * book.number("span_sag_percent") / 100
    try:
        strung = hung(feet(long), feet(heights[1] - heights[0]), feet(sag_in))
    except LevelRunError:
        return None
    hot = warmed(strung, book.number("span_hot_f") - STRUNG_F) or strung
    wire = messenger(book, size)
    on = loading(book, district)
    pull = tension_lb(strung, wire.weight_lb_ft, on, wire.diameter_in) if wire else None
    return Hanging(
        start_in=heights[0], end_in=heights[1], sag_in=sag_in, strung=strung, hot=hot, messenger=wire,
        strung_lb=tension_lb(strung, wire.weight_lb_ft) if wire else None, pull_lb=pull,
        limit_lb=wire.breaking_lb * book.number("messenger_share_percent") / 100 if wire else None,
        too_tight=wire is not None and pull is None,
    )  # fmt: skip


def hangs_over(job: Job, book: Codebook, yard: Yard, span: Span, size: str) -> Beneath | None:
    """Where a span has least to spare over what lies under it; None while its ends have no height."""
    shape = hanging(job, book, yard, span, size)
    if shape is None:
        return None
    return min(beneath(book, yard, span, shape), key=lambda item: item.clear_in - item.needed_in)


def beneath(book: Codebook, yard: Yard, span: Span, shape: Hanging) -> list[Beneath]:
    """The lowest place of a span over each thing under it, and over the open ground."""
    line, long = LineString(span.points), long_in(span.points)
    ground = ground_along(yard, span.points, span.start, span.end)
    under = [(part.kind, part.name, shape_of(part)) for part in yard.parts if part.kind in ("drive", "street")]
    crossed = [(kind, name, area) for kind, name, area in under if line.intersects(area)]
    own = [item.shape for item in yard.buildings if item.structure.id in (span.start, span.end)]
    found: dict[str, Beneath] = {}
    steps = max(int(long / STEP_IN), 1)
    for number in range(steps + 1):
        at = min(number * long / steps, long)
        place = Shape(along(span.points, at))
        if any(area.contains(place) for area in own) and 0 < number < steps:
            continue
        here = [(kind, name) for kind, name, area in crossed if area.intersects(place)]
        over, name = max(here, key=lambda item: RANK[item[0]], default=("walk", ""))
        row = clearance(book, over, VOLTS)
        clear = shape.height_in(at) - between(ground, at)
        if name not in found or clear < found[name].clear_in:
            found[name] = Beneath(
                over=over, name=name, at_in=at, clear_in=clear, needed_in=12 * row.least_ft, rule=row.rule
            )  # fmt: skip
    return list(found.values())


def crossed_buildings(yard: Yard, span: Span) -> list[str]:
    """Buildings that a span passes over, beside those of its ends."""
    line = LineString(span.points)
    return [
        item.structure.name
        for item in yard.buildings
        if item.structure.id not in (span.start, span.end) and line.intersects(item.shape)
    ]


def over_pools(yard: Yard, span: Span) -> list[str]:
    """Pools under a span or within 10 ft of it, level."""
    line = LineString(span.points)
    return [part.name for part in yard.parts if part.kind == "pool" and line.distance(shape_of(part)) < 120]
