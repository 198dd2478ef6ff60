"""Pipe as it is sold and bent: outsides, sticks, sockets, benders, radii."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method

FACTORY_DEG = (90.0, 45.0, 30.0, 22.5)
STIFF = ("steel", "pvc")  # families that come in sticks; the rest comes in coils and bends by itself


@dataclass(frozen=True, kw_only=True)
class Make:
    """A pipe of one size. Inches; see the head of the table `pipe-make` for what each is."""

    outer_in: float
    stick_in: float
    socket_in: float
    end_in: float
    wall_in: float
    straight_in: float
    body_in: float
    back_in: float


@dataclass(frozen=True)
class Shoe:
    """A hand bender: take-up of a 90° stub, radius to the centre line, least straight beyond a bend. Inches."""

    take_up_in: float
    radius_in: float
    grip_in: float

    def lead_in(self, outer_in: float) -> float:
        """How far before the bend begins the arrow stands: what the take-up is more than radius and half the
        outside."""
        return self.take_up_in - self.radius_in - outer_in / 2


@lru_cache(maxsize=256)
def make_of(book: Codebook, key: str, size: str) -> Make | None:
    """A pipe as it is sold. Exact; None for what comes in coils or is not made."""
    row = book.table("pipe-make").find(key, size)
    if row is None:
        return None
    return Make(**{name: float(row[name]) for name in Make.__dataclass_fields__})


@lru_cache(maxsize=256)
def shoe_of(book: Codebook, key: str, size: str) -> Shoe | None:
    """The hand bender for a pipe. Exact; None where it is too thick to be bent by hand, or is plastic."""
    row = book.table("bender").find(key, size)
    return None if row is None else Shoe(float(row["take_up_in"]), float(row["radius_in"]), float(row["grip_in"]))


@lru_cache(maxsize=256)
def least_radius_in(book: Codebook, size: str, one_shot: bool) -> float:
    """Least radius to the centre line. Exact size. Source: chapter 9 table 2: one shot and full shoe benders and
    factory elbows, or other bends. Raises KeyError-like UnknownKeyError for a size that is not made."""
    row = book.table("ch9-table2-radius").get(size)
    return float(row["one_shot_in" if one_shot else "other_in"])


@lru_cache(maxsize=512)
def how_bent(book: Codebook, key: str, size: str, angle_deg: float, in_leg: bool) -> str:
    """How a bend is made: hand (by its bender), factory (an elbow), heat (plastic), flexible (by itself).

    in_leg: one of an offset or saddle, not a corner between legs.
    """
    family = method(book, key).family
    if family not in STIFF:
        return "flexible"
    if shoe_of(book, key, size) is not None:
        return "hand"
    if family == "pvc" and (in_leg or not any(abs(angle_deg - a) < 0.6 for a in FACTORY_DEG)):
        return "heat"
    return "factory"


@lru_cache(maxsize=512)
def usual_radius_in(book: Codebook, key: str, size: str, how: str) -> float:
    """The radius that a bend made so has: of the shoe; of a factory elbow the one-shot one; of heat the other."""
    shoe = shoe_of(book, key, size)
    if how == "hand" and shoe is not None:
        return shoe.radius_in
    return least_radius_in(book, size, how == "factory")
