"""The laser tape. `Tape` is what a device must do; `SimulatedTape` walks round a room and reads its walls."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol


@dataclass(frozen=True)
class Reading:
    """One reading in inches. `simulated` is True for what no device measured."""

    inches: float
    device: str
    simulated: bool


class Tape(Protocol):
    """A device that reads a distance when asked."""

    def read(self) -> Reading:
        """The next reading."""


ROOM_IN = (168.0, 144.0, 168.0, 144.0, 34.0, 36.0, 48.0, 60.0, 90.0, 16.0)
OFF_IN = (0.0, 0.0625, -0.0625, 0.125, 0.0)


class SimulatedTape:
    """Reads the walls of an invented room again and again, each reading off by up to an eighth, as a hand is."""

    def __init__(self, lengths_in: Sequence[float] = ROOM_IN) -> None:
        self._next = zip(itertools.cycle(lengths_in), itertools.cycle(OFF_IN), strict=False)

    def read(self) -> Reading:
        """The next wall of the invented room."""
        length, off = next(self._next)
        return Reading(length + off, "laser tape", True)
