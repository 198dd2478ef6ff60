"""The pull on wires at every point of a pipe in space, with the band that friction leaves open.

Along the pipe dT/ds = w·sin(climb) + f·N, where N is the force a foot of wire presses on the wall with: of its weight
across the pipe and, in a bend, of the pull towards its middle, added as vectors. On a straight the pull grows by
w(f·level + climb); in a bend the equation is stepped by Runge and Kutta, whatever plane the bend lies in. A rope does
not push: the pull is never under 0. f is the friction times the factor by which wires wedge.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from levelrun.core.trade.pipe.centreline import Vector, cross, dot, minus, on_stick, plus, unit

STEP_DEG = 22.5


@dataclass(frozen=True, kw_only=True)
class Piece:
    """A straight or a bend of a centre line: its inches, its direction at its start; of a bend its radius, its angle
    and the direction to its middle."""

    length_in: float
    ahead: Vector
    radius_in: float = 0.0
    angle_deg: float = 0.0
    inward: Vector = (0.0, 0.0, 0.0)
    corner: int = 0

    def reversed(self) -> Piece:
        """The same piece from its other end."""
        if not self.angle_deg:
            return Piece(length_in=self.length_in, ahead=_back(self.ahead))
        end, inward = turned(self, math.radians(self.angle_deg))
        return Piece(
            length_in=self.length_in, ahead=_back(end), radius_in=self.radius_in, angle_deg=self.angle_deg,
            inward=inward, corner=self.corner,
        )  # fmt: skip


@dataclass(frozen=True)
class Point:
    """Pounds on the wires after so many inches from the fed end."""

    at_in: float
    lb: float


@dataclass(frozen=True)
class Curve:
    """The pull from the fed end on, pounds; the hardest pressed bend, pounds a foot of radius, and its corner."""

    points: tuple[Point, ...]
    sidewall_lb_per_ft: float
    corner: int

    @property
    def lb(self) -> float:
        """At the pulled end."""
        return self.points[-1].lb


def _back(a: Vector) -> Vector:
    return (-a[0], -a[1], -a[2])


def turned(piece: Piece, by: float) -> tuple[Vector, Vector]:
    """Direction, and direction to the middle, after so many radians of a bend."""
    c, s = math.cos(by), math.sin(by)
    ahead = plus(plus((0.0, 0.0, 0.0), piece.ahead, c), piece.inward, s)
    return ahead, plus(plus((0.0, 0.0, 0.0), piece.inward, c), piece.ahead, -s)


def pieces_of(points: Sequence[Vector], radii_in: Sequence[float]) -> list[Piece]:
    """A centre line as straights and bends. A bend that does not fit on its straights keeps its angle."""
    laid = on_stick(points, radii_in)
    ways = [minus(b, a) for a, b in pairwise(points)]
    found: list[Piece] = []
    at = 0.0
    for bend in laid.bends:
        before, after = unit(ways[bend.corner - 1]), unit(ways[bend.corner])
        found.append(Piece(length_in=max(bend.begins_in - at, 0.0), ahead=before))
        inward = unit(cross(unit(cross(before, after)), before))
        found.append(
            Piece(
                length_in=bend.ends_in - bend.begins_in, ahead=before, radius_in=bend.radius_in,
                angle_deg=bend.angle_deg, inward=inward, corner=bend.corner,
            )
        )  # fmt: skip
        at = bend.ends_in
    if ways:
        found.append(Piece(length_in=max(laid.length_in - at, 0.0), ahead=unit(ways[-1])))
    return [piece for piece in found if piece.length_in > 0]


def reverse_of(pieces: Sequence[Piece]) -> list[Piece]:
    """The same pipe from its other end."""
    return [piece.reversed() for piece in reversed(pieces)]


def tension(pieces: Sequence[Piece], weight_lb_per_ft: float, friction: float, start_lb: float = 0.0) -> Curve:
    """The pull along a pipe that is fed at the start of its pieces and pulled at their end. Pounds, inches."""
    weight = weight_lb_per_ft / 12
    lb, at, side, worst = start_lb, 0.0, 0.0, 0
    points = [Point(0.0, lb)]
    for piece in pieces:
        if not piece.angle_deg:
            climb = piece.ahead[2]
            rate = weight * (friction * math.sqrt(max(1 - climb * climb, 0.0)) + climb)
            lb = max(lb + rate * piece.length_in, 0.0)
            at += piece.length_in
            points.append(Point(at, lb))
            continue
        steps = max(math.ceil(piece.angle_deg / STEP_DEG), 2)
        each = math.radians(piece.angle_deg) / steps
        for step in range(steps):
            lb = _stepped(piece, step * each, each, lb, weight, friction)
            at += piece.length_in / steps
            points.append(Point(at, lb))
        pressed = lb / (piece.radius_in / 12) if piece.radius_in else 0.0
        if pressed > side:
            side, worst = pressed, piece.corner
    return Curve(tuple(points), side, worst)


def _stepped(piece: Piece, by: float, each: float, lb: float, weight: float, friction: float) -> float:
    """One step of Runge and Kutta through a bend, by the angle turned."""
    radius = piece.radius_in
    az, iz = weight * piece.ahead[2], weight * piece.inward[2]
    nz = weight * cross(piece.ahead, piece.inward)[2]
    cos, sin, hypot = math.cos, math.sin, math.hypot

    def rate(angle: float, pull: float) -> float:
        c, s = cos(angle), sin(angle)
        pressed = pull / radius if pull > 0 else 0.0
        return radius * (az * c + iz * s + friction * hypot(iz * c - az * s - pressed, nz))

    a = rate(by, lb)
    b = rate(by + each / 2, lb + each / 2 * a)
    c = rate(by + each / 2, lb + each / 2 * b)
    d = rate(by + each, lb + each * c)
    return max(lb + each / 6 * (a + 2 * b + 2 * c + d), 0.0)


def climb_in(pieces: Sequence[Piece]) -> float:
    """How much higher the end of a pipe lies than its start, inches."""
    total = 0.0
    for piece in pieces:
        if piece.angle_deg:
            angle = math.radians(piece.angle_deg)
            total += piece.radius_in * (
                dot(piece.ahead, (0, 0, 1)) * math.sin(angle) + dot(piece.inward, (0, 0, 1)) * (1 - math.cos(angle))
            )
        else:
            total += piece.ahead[2] * piece.length_in
    return total
