"""The centre line of a pull in space: its legs with their corners, offsets, saddles and kicks, each with its radius.

Lengths of legs are taped where they stand; a shape leaves what comes after it aside. Of a bend of which only the
angle is known the usual is assumed, and said so.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError, UnknownKeyError
from levelrun.core.measure import show_inches
from levelrun.core.trade.pipe.centreline import (
    FLAT_DEG,
    SHARP_DEG,
    OnStick,
    Vector,
    angle_between,
    cross,
    minus,
    on_stick,
    plus,
    unit,
)
from levelrun.core.trade.pipe.make import how_bent, least_radius_in, shoe_of, usual_radius_in
from levelrun.core.trade.pipe.shapes import (
    BOX_END_IN,
    BOX_RISE_IN,
    USUAL_DEG,
    ShapeIn,
    check_shape,
    corners,
    degrees_of,
    grouped,
    run_in,
    span_in,
)
from levelrun.core.trade.pipe.tension import Piece, pieces_of
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.geometry import COMPASS, TURN
from levelrun.core.ways.parts import Leg, Shape, Toward

SWEEP_OVER_SHOE = 1.5  # a corner that is said wider than so many shoes is bought as a sweep
ASSUMED_IN = {"box_offset": BOX_RISE_IN, "offset": 4.0, "saddle3": 2.0, "saddle4": 4.0, "kick": 4.0, "rolling": 4.0}
UP: Vector = (0.0, 0.0, 1.0)
Frame = tuple[Vector, Vector, Vector]  # ahead, the way aside, the other way aside


@dataclass(frozen=True, kw_only=True)
class Turn:
    """A bend of a pull. kind: corner (into the leg), bend (an angle in it) or the shape that it is of; `part` counts
    within a shape; shape: its number among those said of the leg, None where only angles are known. toward: which way
    it goes. assumed: what nobody said of it is as usual."""

    leg: int
    kind: str
    part: int
    shape: int | None
    angle_deg: float
    radius_in: float
    how: str
    toward: str
    assumed: bool


@dataclass(frozen=True, kw_only=True, eq=False)
class PullLine:
    """A pull as a centre line. turns: by the number of the corner; starts_in: along the pipe where each leg begins,
    and the end."""

    first: int
    points: tuple[Vector, ...]
    turns: dict[int, Turn]
    laid: OnStick
    pieces: tuple[Piece, ...]
    starts_in: tuple[float, ...]

    @property
    def length_in(self) -> float:
        """Pipe from end to end."""
        return self.laid.length_in


@dataclass(frozen=True, kw_only=True)
class InLeg:
    """A shape as it is made in a leg: with what nobody said as usual. number: among the shapes said of the leg."""

    made: ShapeIn
    number: int | None
    toward: str
    assumed: bool


def shapes_in(view: WayView, index: int) -> list[InLeg]:
    """The shapes of a leg, along it: those said, and those of which only the angles are."""
    leg = view.way.legs[index]
    said: list[tuple[Shape, int | None, bool]] = [(shape, n, False) for n, shape in enumerate(leg.shapes)]
    for kind, angles in grouped(leg.bends_deg):
        if kind != "bend":
            shape = Shape(kind=kind, angle_deg=max(angles))
            said.append((shape, None, True))
    return sorted(
        (_in_leg(view, index, *item, place, len(said)) for place, item in enumerate(said)),
        key=lambda item: item.made.at_in,
    )


def degrees_in(view: WayView, index: int) -> list[float]:
    """Every bend within a leg, degrees: bare angles, then those of the shapes that are said."""
    leg = view.way.legs[index]
    said = [item.made for item in shapes_in(view, index) if item.number is not None] if leg.shapes else []
    return [*leg.bends_deg, *(angle for made in said for angle in degrees_of(made))]


def _in_leg(view: WayView, index: int, shape: Shape, number: int | None, bare: bool, place: int, count: int) -> InLeg:
    leg, kind, made = view.way.legs[index], shape.kind, _usual(shape)
    at, toward = shape.at_in, shape.toward
    if kind == "kick":
        at = leg.length_in - run_in(made)
    elif kind == "box_offset" and at is None:
        at, toward = _at_box(view, index, made, toward)
    elif at is None:
        low, high = span_in(made)
        at = leg.length_in * (place + 1) / (count + 1) + (low - high) / 2
    box = kind == "box_offset"
    assumed = (bare and not box) or (not bare and not box and (shape.rise_in is None or shape.at_in is None))
    return InLeg(made=replace(made, at_in=at), number=number, toward=toward, assumed=assumed and kind != "kick")


def _at_box(view: WayView, index: int, made: ShapeIn, toward: Toward) -> tuple[float, Toward]:
    """A box offset stands at the box: at the end of its leg, or at its start where only that ends at one."""
    at_end = view.joint_after(index) in ("box", "panel") or view.joint_before(index) not in ("box", "panel")
    if at_end:
        return view.way.legs[index].length_in - BOX_END_IN, toward
    opposite: dict[Toward, Toward] = {"outward": "inward", "inward": "outward"}
    return BOX_END_IN + run_in(made), opposite.get(toward, toward)


def check_leg(book: Codebook, leg: Leg) -> None:
    """Raises LevelRunError that names the field where a shape cannot be made in a leg, or its radius is too small."""
    for number, shape in enumerate(leg.shapes):
        made = _usual(shape)
        at = shape.at_in
        if at is None or shape.kind == "kick":
            low, high = span_in(made)
            at = (leg.length_in - low - high) / 2 + low if shape.kind != "kick" else leg.length_in - run_in(made)
        check_shape(replace(made, at_in=at), leg.length_in, f"shapes.{number}")
    if leg.radius_in is not None and book.table("ch9-table2-radius").find(leg.size) is not None:
        least = least_radius_in(book, leg.size, True)
        if leg.radius_in < least - 1e-9:
            raise LevelRunError(
                f"radius {show_inches(leg.radius_in)} of a bend in {leg.size}″; allowed: {show_inches(least)} "
                "or more (chapter 9 table 2)",
                key="radius_in", value=leg.radius_in, allowed=[f"{least:g} or more"],
            )  # fmt: skip


def _usual(shape: Shape) -> ShapeIn:
    """A shape with what nobody said as usual, its place left open."""
    rise = shape.rise_in if shape.rise_in is not None else ASSUMED_IN[shape.kind]
    angle = shape.angle_deg if shape.angle_deg is not None else USUAL_DEG[shape.kind]
    width = shape.width_in or (rise if shape.kind == "saddle4" else 0.0)
    return ShapeIn(
        kind=shape.kind, at_in=0.0, rise_in=rise, angle_deg=angle, roll_in=shape.roll_in or 0.0, width_in=width
    )


def _turned(of: Vector, about: Vector, degrees: float) -> Vector:
    """A direction turned about an axis (Rodrigues)."""
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    along = sum(a * b for a, b in zip(of, about, strict=True))
    return plus(plus(plus((0.0, 0.0, 0.0), of, c), cross(about, of), s), about, along * (1 - c))


def frame_of(leg: Leg, heading: Vector, toward: str) -> Frame:
    """Ahead, the way aside that is meant, and the other way aside, of a leg. The wall lies at the right hand."""
    left = cross(UP, heading)
    ahead: Vector = UP if leg.go == "up" else (0.0, 0.0, -1.0) if leg.go == "down" else heading
    upright = leg.go in ("up", "down")
    on = heading if upright else UP
    ways = {
        "outward": left, "leftward": left, "inward": _back(left), "rightward": _back(left),
        "upward": UP if not upright else left, "downward": _back(UP) if not upright else _back(left),
        "onward": on, "backward": _back(on),
    }  # fmt: skip
    aside = ways[toward]
    return ahead, aside, unit(cross(ahead, aside))


def _back(a: Vector) -> Vector:
    return (-a[0], -a[1], -a[2])


@lru_cache(maxsize=256)
def line_of(view: WayView, first: int, last: int) -> PullLine | None:
    """The centre line of the pull of legs first to last. None where a size is not made. Kept for the view at hand."""
    try:
        return _line(view, first, last)
    except UnknownKeyError:
        return None


def _line(view: WayView, first: int, last: int) -> PullLine:
    points: list[Vector] = [(0.0, 0.0, 0.0)]
    turns: dict[int, Turn] = {}
    starts: list[int] = [0]
    turn_deg = 0.0
    for index in range(first, last + 1):
        leg = view.way.legs[index]
        heading = _turned(_heading(view, index), UP, turn_deg)
        if index > first:
            turns[len(points) - 1] = _corner(view, index)
        base = points[-1]
        for spot, turn in _spots(view, index, heading):
            points.append(plus(base, spot))
            turns[len(points) - 1] = turn
        ahead, _, _ = frame_of(leg, heading, "outward")
        end = plus(plus(base, ahead, leg.length_in), _left_aside(view, index, heading))
        bare = [angles[0] for kind, angles in grouped(leg.bends_deg) if kind == "bend"]
        if bare and leg.go not in ("up", "down"):
            middle = plus(base, ahead, leg.length_in / 2)
            for angle in bare:
                points.append(middle)
                turns[len(points) - 1] = _bare(view, index, angle)
                turn_deg += angle
                heading = _turned(heading, UP, angle)
                middle = end = plus(middle, heading, leg.length_in / 2 / len(bare))
        points.append(end)
        starts.append(len(points) - 1)
    turns = _real(points, turns)
    radii = [turns[i].radius_in if i in turns else 0.0 for i in range(len(points))]
    laid = on_stick(points, radii)
    return PullLine(
        first=first, points=tuple(points), turns=turns, laid=laid, pieces=tuple(pieces_of(points, radii)),
        starts_in=_starts(laid, points, starts),
    )  # fmt: skip


def _heading(view: WayView, index: int) -> Vector:
    heading = 0
    for leg in view.way.legs[: index + 1]:
        heading = (heading + TURN.get(leg.go, 0)) % 4
    x, y = COMPASS[heading]
    return (float(x), float(y), 0.0)


def _spots(view: WayView, index: int, heading: Vector) -> Iterator[tuple[Vector, Turn]]:
    """The corners of the shapes of a leg, from its start, each with its bend."""
    leg = view.way.legs[index]
    shift: Vector = (0.0, 0.0, 0.0)
    for item in shapes_in(view, index):
        ahead, aside, other = frame_of(leg, heading, item.toward)
        angles = _angles(item.made)
        for part, spot in enumerate(corners(item.made)):
            at = plus(plus(plus(shift, ahead, spot.along_in), aside, spot.rise_in), other, spot.roll_in)
            yield at, _shaped(view, index, item, part, angles[part])
        if item.made.kind in ("offset", "rolling", "box_offset"):
            shift = plus(plus(shift, aside, item.made.rise_in), other, item.made.roll_in)


def _angles(made: ShapeIn) -> tuple[float, ...]:
    a = made.angle_deg
    return (a / 2, a, a / 2) if made.kind == "saddle3" else (a,) * len(corners(made))


def _left_aside(view: WayView, index: int, heading: Vector) -> Vector:
    """How far aside the shapes of a leg leave its end."""
    leg = view.way.legs[index]
    shift: Vector = (0.0, 0.0, 0.0)
    for item in shapes_in(view, index):
        if item.made.kind in ("offset", "rolling", "box_offset", "kick"):
            _, aside, other = frame_of(leg, heading, item.toward)
            shift = plus(plus(shift, aside, item.made.rise_in), other, item.made.roll_in)
    return shift


def _shaped(view: WayView, index: int, item: InLeg, part: int, angle: float) -> Turn:
    leg = view.way.legs[index]
    how = how_bent(view.book, leg.method, leg.size, angle, True)
    return Turn(
        leg=index, kind=item.made.kind, part=part, shape=item.number, angle_deg=angle,
        radius_in=usual_radius_in(view.book, leg.method, leg.size, how), how=how, toward=item.toward,
        assumed=item.assumed,
    )  # fmt: skip


def _bare(view: WayView, index: int, angle: float) -> Turn:
    leg = view.way.legs[index]
    how = how_bent(view.book, leg.method, leg.size, angle, False)
    radius = usual_radius_in(view.book, leg.method, leg.size, how)
    return Turn(
        leg=index, kind="bend", part=0, shape=None, angle_deg=angle, radius_in=radius, how=how, toward="leftward",
        assumed=True,
    )  # fmt: skip


def _corner_how(view: WayView, leg: Leg) -> str:
    """How a corner is made: a sweep much wider than the shoe of its bender is a factory one, bought and not bent."""
    how = how_bent(view.book, leg.method, leg.size, 90.0, False)
    shoe = shoe_of(view.book, leg.method, leg.size)
    wide = how == "hand" and shoe is not None and (leg.radius_in or 0.0) > SWEEP_OVER_SHOE * shoe.radius_in
    return "factory" if wide else how


def _corner(view: WayView, index: int) -> Turn:
    """The bend into a leg: by its own pipe, of the radius that is said."""
    leg = view.way.legs[index]
    how = _corner_how(view, leg)
    radius = leg.radius_in or usual_radius_in(view.book, leg.method, leg.size, how)
    return Turn(
        leg=index, kind="corner", part=0, shape=None, angle_deg=90.0, radius_in=radius, how=how,
        toward=leg.go, assumed=False,
    )  # fmt: skip


def _real(points: list[Vector], turns: dict[int, Turn]) -> dict[int, Turn]:
    """The bends that there are, each with the angle that its corner really has; none where it runs straight on or
    straight back."""
    found: dict[int, Turn] = {}
    for corner, turn in turns.items():
        angle = angle_between(minus(points[corner], points[corner - 1]), minus(points[corner + 1], points[corner]))
        if FLAT_DEG < angle < SHARP_DEG:
            found[corner] = replace(turn, angle_deg=angle)
    return found


def _starts(laid: OnStick, points: list[Vector], starts: list[int]) -> tuple[float, ...]:
    """Along the pipe where each leg begins: the middle of the bend into it."""
    bends = {bend.corner: bend for bend in laid.bends}
    found: list[float] = []
    at, gained, last = 0.0, 0.0, 0
    for corner in starts:
        while last < corner:
            step = minus(points[last + 1], points[last])
            at += math.sqrt(step[0] ** 2 + step[1] ** 2 + step[2] ** 2)
            last += 1
            if last in bends and last < corner:
                gained += bends[last].gain_in
        own = bends.get(corner)
        found.append(own.middle_in if own else at - gained)
        gained += own.gain_in if own else 0.0
    return tuple(found)
