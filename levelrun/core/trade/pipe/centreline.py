"""The centre line of a pipe in space: corners, each rounded by a bend, laid out along the straight stick.

A pipe is given by the points where its straight pieces would meet, and by the radius of the bend at each of them. A
bend of radius R through an angle takes R·tan(angle/2) of each straight and puts R·angle of pipe in its place; the
difference is the gain. Roll is how far the plane of a bend is turned from that of the bend before, about the pipe.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

Vector = tuple[float, float, float]
FLAT_DEG, SHARP_DEG = 0.01, 170.0  # a corner under the one is no bend; over the other the pipe runs back on itself


@dataclass(frozen=True, kw_only=True)
class BendOn:
    """A bend on the stick: inches along the pipe from its start to where it begins, to its middle and to where it
    ends; `straight_in`: what is straight before it, negative where it does not fit behind the bend before.

    corner: the number of its point; roll_deg: 0 in the plane of the bend before and the same way, 180 the other way,
    positive as a clock turns seen along the pipe.
    """

    corner: int
    angle_deg: float
    radius_in: float
    begins_in: float
    ends_in: float
    straight_in: float
    roll_deg: float

    @property
    def middle_in(self) -> float:
        """Its middle, inches along the pipe."""
        return (self.begins_in + self.ends_in) / 2

    @property
    def gain_in(self) -> float:
        """How much shorter the pipe is for it than its two straights to the corner."""
        half = math.radians(self.angle_deg) / 2
        return 2 * self.radius_in * (math.tan(half) - half)


@dataclass(frozen=True)
class OnStick:
    """A centre line laid out: its bends in order, the pipe that it takes in inches, what is straight after the last
    bend."""

    bends: tuple[BendOn, ...]
    length_in: float
    last_in: float


def minus(a: Vector, b: Vector) -> Vector:
    """a − b."""
    return (a[0] - b[0], a[1] - b[1], a[2] - b[2])


def plus(a: Vector, b: Vector, times: float = 1.0) -> Vector:
    """a + times · b."""
    return (a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2])


def dot(a: Vector, b: Vector) -> float:
    """a · b."""
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Vector, b: Vector) -> Vector:
    """a × b."""
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def unit(a: Vector) -> Vector:
    """The direction of a; nothing for nothing."""
    size = math.sqrt(dot(a, a))
    return (a[0] / size, a[1] / size, a[2] / size) if size else (0.0, 0.0, 0.0)


def angle_between(a: Vector, b: Vector) -> float:
    """Degrees between two directions."""
    return math.degrees(math.atan2(math.sqrt(dot(cross(a, b), cross(a, b))), dot(a, b)))


def tangent(angle_deg: float, radius_in: float) -> float:
    """What a bend takes of each of its straights, inches."""
    return radius_in * math.tan(math.radians(angle_deg) / 2)


def on_stick(points: Sequence[Vector], radii_in: Sequence[float]) -> OnStick:
    """A centre line laid out along its pipe. `radii_in` is one for each point; those of both ends are not asked."""
    ways = [minus(b, a) for a, b in pairwise(points)]
    along = [math.sqrt(dot(way, way)) for way in ways]
    ahead = [unit(way) for way in ways]
    bends: list[BendOn] = []
    at, used, axis = 0.0, 0.0, None
    for index, length in enumerate(along[:-1]):
        angle = angle_between(ahead[index], ahead[index + 1])
        if not FLAT_DEG < angle < SHARP_DEG:
            at += length - used
            used = 0.0
            continue
        radius = radii_in[index + 1]
        takes = tangent(angle, radius)
        turn = unit(cross(ahead[index], ahead[index + 1]))
        straight = length - used - takes
        before = bends[-1] if bends else None
        begins = at + straight
        since = begins - before.ends_in if before else begins
        bends.append(
            BendOn(
                corner=index + 1,
                angle_deg=angle,
                radius_in=radius,
                begins_in=begins,
                ends_in=begins + radius * math.radians(angle),
                straight_in=since,
                roll_deg=_roll(axis, turn, ahead[index]) if axis else 0.0,
            )
        )
        at, used, axis = bends[-1].ends_in, takes, turn
    last = along[-1] - used if along else 0.0
    end = at + last
    return OnStick(tuple(bends), end, end - (bends[-1].ends_in if bends else 0.0))


def _roll(before: Vector, now: Vector, ahead: Vector) -> float:
    return math.degrees(math.atan2(dot(cross(before, now), ahead), dot(before, now)))
