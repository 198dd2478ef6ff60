"""Box fill: the volume that wires, clamps, devices and grounds ask of a box (314.16(B))."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import LevelRunError

GROUNDS_AS_ONE = 4
SHARE_OF_MORE = 0.25
PER_STRAP = 2


@dataclass(frozen=True)
class Counted:
    """Equal wires, or devices by their straps, at a wire size."""

    size: str
    count: int


@dataclass(frozen=True)
class Part:
    """One line of the sum, cubic inches."""

    name: str
    count: float
    each_in3: float
    in3: float


@dataclass(frozen=True)
class BoxVolume:
    """What the box needs, cubic inches, unrounded, line by line."""

    needed_in3: float
    parts: list[Part]
    rule: str


def allowance(book: Codebook, size: str) -> float:
    """Cubic inches of one wire. Exact row of table 314.16(B)(1); raises UnknownKeyError that lists 18 to 6."""
    return float(book.table("314-16-allowance").get(size)["volume_in3"])


def box_volume(
    book: Codebook,
    wires: Sequence[Counted],
    devices: Sequence[Counted] = (),
    grounds: Counted | None = None,
    clamps: bool = False,
    fittings: int = 0,
) -> BoxVolume:
    """Volume needed: one allowance a wire, two a device strap at its wire, one for all clamps, one a fitting,
    one for up to four grounds and a quarter for each more. Source: 314.16(B)(1) to (5)."""
    return _volume(book, tuple(wires), tuple(devices), grounds, clamps, fittings)


@lru_cache(maxsize=1024)
def _volume(
    book: Codebook,
    wires: tuple[Counted, ...],
    devices: tuple[Counted, ...],
    grounds: Counted | None,
    clamps: bool,
    fittings: int,
) -> BoxVolume:
    """The same wires ask for the same room in every box of a house."""
    order = ["18", "16", *wire_sizes(book)]
    parts = [_part(f"{w.count} × {w.size}", w.count, allowance(book, w.size)) for w in wires if w.count]
    present = [w.size for w in wires if w.count] or [d.size for d in devices if d.count]
    if (clamps or fittings) and not present:
        raise LevelRunError(
            "conductors: clamps and fittings count by the largest wire; none is given", key="conductors"
        )
    for size in present:
        allowance(book, size)
    largest = max(present, key=order.index) if present else ""
    if clamps:
        parts.append(_part("clamps", 1, allowance(book, largest)))
    if fittings:
        parts.append(_part("fittings", fittings, allowance(book, largest)))
    for device in devices:
        if device.count:
            name = f"device on {device.count} strap{'s' * (device.count > 1)}"
            parts.append(_part(name, PER_STRAP * device.count, allowance(book, device.size)))
    if grounds and grounds.count:
        shares = 1 + SHARE_OF_MORE * max(grounds.count - GROUNDS_AS_ONE, 0)
        parts.append(_part(f"{grounds.count} grounds", shares, allowance(book, grounds.size)))
    return BoxVolume(sum(part.in3 for part in parts), parts, "314.16(B)")


def _part(name: str, count: float, each: float) -> Part:
    return Part(name, count, each, count * each)
