"""Drawings of what lies between buildings, in inches: the yard from above, and the long section of one line.

x east and y north on the yard; along the line and up from the site's zero in a section. No pixels.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from shapely import MultiPolygon, Polygon, unary_union

from levelrun.core.job import Job
from levelrun.core.measure import show, show_inches
from levelrun.core.site.geometry import Point
from levelrun.core.trench.air import Beneath, Hanging
from levelrun.core.trench.facts import Lain, TrenchFacts
from levelrun.core.trench.parts import AREAS, SERVICES
from levelrun.core.trench.rules.risers import risers_of
from levelrun.core.trench.rules.spans import SpanFacts
from levelrun.core.trench.yard import Yard, along, face_middle, long_in, nearest_face, shape_of, yard_of
from levelrun.core.ways.laid import Profile, between, short_stretches

ABOVE_TEXT = {
    "open_ground": "open ground", "concrete_2in": "2″ concrete", "under_building": "building", "slab_4in": "slab",
    "street": "street", "driveway": "drive",
}  # fmt: skip
EDGE_IN = 120.0
CURVE_STEPS = 48


@dataclass(frozen=True, kw_only=True)
class YardShape:
    """A building or a thing of the yard: rings or one line, and where its name stands. `drawn` False: a stand-in."""

    id: str
    kind: str
    name: str
    rings: list[list[Point]]
    line: list[Point]
    at: Point
    text: str
    drawn: bool


@dataclass(frozen=True, kw_only=True)
class YardLine:
    """A trench or span on the yard."""

    id: str
    kind: str
    name: str
    points: list[Point]
    width_in: float
    verdict: str
    text: str


@dataclass(frozen=True, kw_only=True)
class YardMark:
    """A reading or a rod on the yard."""

    kind: str
    id: str
    at: Point
    text: str
    fine: bool


@dataclass(frozen=True, kw_only=True)
class YardDrawing:
    """The yard: what stands and lies there; left, low, right, high of all that matters."""

    shapes: list[YardShape]
    lines: list[YardLine]
    marks: list[YardMark]
    bounds: tuple[float, float, float, float]


@dataclass(frozen=True, kw_only=True)
class SectionPipe:
    """One thing in a trench: its top along it, how thick it is, where it is short of its cover."""

    way: str
    name: str
    text: str
    top: Profile
    outer_in: float
    short: list[tuple[float, float]]


@dataclass(frozen=True, kw_only=True)
class SectionMark:
    """A reading: how far along, where the ground and the top lie, what was read, whether it is enough."""

    at_in: float
    ground_in: float
    top_in: float
    text: str
    by: str
    fine: bool


@dataclass(frozen=True, kw_only=True)
class SectionCrossing:
    """A service that crosses: where along, how high, as a word. `z_in` None while its depth is not said."""

    kind: str
    name: str
    at_in: float
    z_in: float | None
    text: str


@dataclass(frozen=True, kw_only=True)
class SectionEnd:
    """What stands at an end of a section: the riser's foot and top, its guard, its name."""

    name: str
    at_in: float
    foot_in: float
    top_in: float
    method: str


@dataclass(frozen=True, kw_only=True)
class CoverBand:
    """A stretch under one thing, with what it wants over it."""

    start_in: float
    end_in: float
    kind: str
    text: str
    needed_in: float


@dataclass(frozen=True, kw_only=True)
class LongSection:
    """The long section of a trench."""

    long_in: float
    ground: Profile
    bottom: Profile
    needed: Profile
    ribbon: Profile
    ribbon_text: str
    bands: list[CoverBand]
    pipes: list[SectionPipe]
    marks: list[SectionMark]
    crossings: list[SectionCrossing]
    ends: list[SectionEnd]
    low_in: float
    high_in: float


@dataclass(frozen=True, kw_only=True)
class SpanUnder:
    """A place under a span: how far along, the ground there, how high it hangs, what is wanted."""

    at_in: float
    ground_in: float
    clear_in: float
    needed_in: float
    text: str
    fine: bool


@dataclass(frozen=True, kw_only=True)
class SpanSection:
    """The long section of a span: the ground, the wire on a hot day and as strung, what is under it. Empty curves
    while the height of an end is not said."""

    long_in: float
    ground: Profile
    hot: Profile
    strung: Profile
    under: list[SpanUnder]
    names: list[str]
    low_in: float
    high_in: float


def yard_drawing(job: Job, lines: Sequence[YardLine], marks: Sequence[YardMark]) -> YardDrawing:
    """The yard of a job. `lines`: its trenches and spans with their verdicts."""
    yard = yard_of(job)
    return YardDrawing(
        shapes=_shapes(yard), lines=list(lines), marks=list(marks),
        bounds=_bounds(yard, [point for line in lines for point in line.points]),
    )  # fmt: skip


def _shapes(yard: Yard) -> list[YardShape]:
    found = [
        YardShape(
            id=item.structure.id, kind="building", name=item.structure.name, rings=_rings(item.shape), line=[],
            at=(item.shape.centroid.x, item.shape.centroid.y), text="" if item.drawn else "not drawn yet",
            drawn=item.drawn,
        )
        for item in yard.buildings
    ]  # fmt: skip
    for part in yard.parts:
        shape = shape_of(part)
        service = part.kind in SERVICES
        deep = f", {show_inches(part.depth_in)}" if part.depth_in is not None else ""
        text = f"{show(part.height_in)}" if part.kind == "spot" else f"{part.name.lower()}{deep if service else ''}"
        middle = along(part.points, 0.0) if service else (shape.centroid.x, shape.centroid.y)
        found.append(
            YardShape(
                id=part.id, kind=part.kind, name=part.name, rings=[] if service else _rings(shape),
                line=list(part.points) if service else [], at=middle, text=text, drawn=True,
            )
        )  # fmt: skip
    return found


def _rings(shape: Polygon | MultiPolygon) -> list[list[Point]]:
    """The outline of a shape, its holes left out."""
    parts = shape.geoms if isinstance(shape, MultiPolygon) else [shape]
    return [[(x, y) for x, y in part.exterior.coords[:-1]] for part in parts]


def _bounds(yard: Yard, points: Sequence[Point]) -> tuple[float, float, float, float]:
    """What matters: buildings, trenches, spans and areas; long lines run out of the picture."""
    shapes = [item.shape for item in yard.buildings]
    shapes += [shape_of(p) for p in yard.parts if p.kind in (*AREAS, "tree", "spot")]
    left, low, right, high = unary_union(shapes).bounds if shapes else (0.0, 0.0, 480.0, 360.0)
    xs, ys = [left, right, *(x for x, _ in points)], [low, high, *(y for _, y in points)]
    return (min(xs) - EDGE_IN, min(ys) - EDGE_IN, max(xs) + EDGE_IN, max(ys) + EDGE_IN)


def section_of(facts: TrenchFacts) -> LongSection:
    """The long section of a trench."""
    ground = facts.ground

    def under(profile: Profile) -> Profile:
        cuts = sorted({at for at, _ in ground} - {at for at, _ in profile})
        whole = sorted([*profile, *((at, between(profile, at)) for at in cuts)], key=lambda item: item[0])
        return [(at, between(ground, at) - depth) for at, depth in whole]

    needed = [(at, need) for p, need in zip(facts.pieces, facts.needed, strict=True) for at in (p.start_in, p.end_in)]
    bottom = under(facts.bottom)
    over = facts.book.number("ribbon_over_in")
    covers = [item for item in facts.lain if item.cover]
    ribbon = [(at, max(facts.top_at(at) - over, 0.0)) for at, _ in facts.bottom] if covers else []
    least = min((depth for _, depth in ribbon), default=0.0)
    ends = [end for item in facts.lain[:1] for end in _ends(facts, item)]
    heights = [z for _, z in (*ground, *bottom)] + [end.top_in for end in ends]
    return LongSection(
        long_in=facts.long_in, ground=ground, bottom=bottom, needed=under(needed),
        ribbon=under(ribbon) if ribbon else [],
        ribbon_text=f"ribbon, {show_inches(round(least))} deep" if ribbon else "",
        bands=[
            CoverBand(start_in=p.start_in, end_in=p.end_in, kind=p.above, text=p.under or ABOVE_TEXT[p.above],
            needed_in=need)
            for p, need in zip(facts.pieces, facts.needed, strict=True)
        ],
        pipes=[_pipe(facts, item, under(item.cover)) for item in facts.lain if item.cover],
        marks=_marks(facts), crossings=_crossings(facts), ends=ends,
        low_in=min(heights) - 8, high_in=max(heights) + 4,
    )  # fmt: skip


def _pipe(facts: TrenchFacts, item: Lain, top: Profile) -> SectionPipe:
    return SectionPipe(
        way=item.way, name=item.name, text=item.carries, top=top, outer_in=item.outer_in, short=_short(facts, item)
    )  # fmt: skip


def _short(facts: TrenchFacts, item: Lain) -> list[tuple[float, float]]:
    """From where to where it lies less deep than it must."""
    found: list[tuple[float, float]] = []
    for piece, need in zip(facts.pieces, item.needs, strict=True):
        if need is None:
            continue
        for first, last, _ in short_stretches(item.cover, piece.start_in, piece.end_in, need.cover_in):
            if found and abs(found[-1][1] - first) < 1e-6:
                found[-1] = (found[-1][0], last)
            else:
                found.append((first, last))
    return found


def _marks(facts: TrenchFacts) -> list[SectionMark]:
    found = []
    for reading in facts.trench.readings:
        own = [item for item in facts.lain if reading.way in (None, item.way)]
        number = next((i for i, p in enumerate(facts.pieces) if reading.at_in <= p.end_in + 1e-6), -1)
        needs = [item.needs[number] for item in own]
        need = max([n.cover_in for n in needs if n is not None], default=facts.needed[number])
        ground = between(facts.ground, reading.at_in)
        found.append(
            SectionMark(
                at_in=reading.at_in, ground_in=ground, top_in=ground - reading.depth_in,
                text=show_inches(reading.depth_in), by=reading.by, fine=reading.depth_in >= need - 1e-6,
            )
        )  # fmt: skip
    return found


def reading_marks(facts: TrenchFacts) -> list[YardMark]:
    """The readings of a trench as they lie on the yard."""
    return [
        YardMark(
            kind=mark.by, id=facts.trench.id, at=along(facts.trench.points, mark.at_in), text=mark.text,
            fine=mark.fine,
        )
        for mark in _marks(facts)
    ]  # fmt: skip


def meter_marks(job: Job) -> list[YardMark]:
    """Where the service of each building comes in: at the wall that looks to the street."""
    yard = yard_of(job)
    street = next((shape_of(part).centroid for part in yard.parts if part.kind == "street"), None)
    found: list[YardMark] = []
    for item in job.services:
        building = yard.building(item.structure)
        if building is not None:
            to = (street.x, street.y) if street is not None else (0.0, building.shape.bounds[3] + 1)
            at = face_middle(building.shape, nearest_face(building.shape, to))
            text = f"meter, {item.rating_a:g} A"
            found.append(YardMark(kind="meter", id=item.structure, at=at, text=text, fine=True))
    return found


def _crossings(facts: TrenchFacts) -> list[SectionCrossing]:
    return [
        SectionCrossing(
            kind=one.part.kind, name=one.part.name, at_in=one.at_in,
            z_in=between(facts.ground, one.at_in) - one.part.depth_in if one.part.depth_in is not None else None,
            text=f"{one.part.name} {facts.side_text(one)}",
        )
        for one in facts.crossings
        if one.beside_in is None
    ]  # fmt: skip


def _ends(facts: TrenchFacts, item: Lain) -> list[SectionEnd]:
    """The risers of what lies in a trench first, at its start and its end."""
    found: list[SectionEnd] = []
    for index in risers_of(item):
        before = index < item.laid.first
        at_start = before != item.laid.back
        at = 0.0 if at_start else facts.long_in
        foot = between(facts.ground, at) - (between(item.cover, at) if item.cover else facts.needed_at(at))
        leg = item.view.way.legs[index]
        joint = item.view.joint_name(index - 1) if before else item.view.joint_name(index)
        place = facts.trench.start if at_start else facts.trench.end
        building = facts.yard.building(place)
        bare = joint in ("", "LB", "body", "coupling")
        named = f"{building.structure.name} {joint}".strip() if bare and building else joint
        found.append(
            SectionEnd(
                name=named, at_in=at, foot_in=foot, top_in=foot + leg.length_in, method=item.view.methods[index].name
            )
        )  # fmt: skip
    return found


def span_section(facts: SpanFacts, ground: Profile) -> SpanSection:
    """The long section of a span."""
    long = long_in(facts.span.points)
    hot = _curve(facts.shape, long, True)
    heights = [z for _, z in (*ground, *hot)]
    return SpanSection(
        long_in=long, ground=ground, hot=hot, strung=_curve(facts.shape, long, False),
        under=[_under(item, ground) for item in facts.under], names=[name for _, name, _ in facts.ends],
        low_in=min(heights) - 12, high_in=max(heights) + 24,
    )  # fmt: skip


def _curve(shape: Hanging | None, long: float, hot: bool) -> Profile:
    if shape is None:
        return []
    wire = shape.hot if hot else shape.strung
    places = (long * number / CURVE_STEPS for number in range(CURVE_STEPS + 1))
    return [(at, shape.start_in + 12 * wire.height_ft(at / 12)) for at in places]


def _under(item: Beneath, ground: Profile) -> SpanUnder:
    fine = item.clear_in >= item.needed_in - 1e-6
    text = f"{show(round(item.clear_in))} over {item.name.lower() or 'the ground'}"
    return SpanUnder(
        at_in=item.at_in, ground_in=between(ground, item.at_in), clear_in=item.clear_in, needed_in=item.needed_in,
        text=text, fine=fine,
    )  # fmt: skip
