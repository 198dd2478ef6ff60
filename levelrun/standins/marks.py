"""The utility-marks desk. `MarksDesk` is what a desk must do; `SimulatedDesk` answers as one would, marks nothing."""

from __future__ import annotations

import zlib
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Protocol

COLOURS = {
    "power": "red", "gas": "yellow", "phone": "orange", "water": "blue", "sewer": "green",
    "the digger's own": "white",
}  # fmt: skip


@dataclass(frozen=True, kw_only=True)
class Ticket:
    """What a desk answers: its number, the first day to dig, the last day that the marks are good, the colours of
    paint by service (the uniform colour code of APWA, from memory)."""

    number: str
    good_from: date
    good_to: date
    wait_days: int
    colours: dict[str, str]
    desk: str
    simulated: bool


class MarksDesk(Protocol):
    """A desk that takes a call before digging."""

    def call(self, called: date, where: str, wait_days: int, good_days: int) -> Ticket:
        """A ticket for a place."""


class SimulatedDesk:
    """Gives a number by day and place; the wait is counted in working days, the call's own day not among them."""

    def call(self, called: date, where: str, wait_days: int, good_days: int) -> Ticket:
        """A ticket as a desk would give it."""
        day, left = called, wait_days
        while left:
            day += timedelta(days=1)
            left -= day.weekday() < 5
        number = f"SIM-{called:%y%m%d}-{zlib.crc32(where.encode()) % 10_000:04d}"
        return Ticket(
            number=number, good_from=day, good_to=day + timedelta(days=good_days), wait_days=wait_days,
            colours=COLOURS,
            desk="utility-marks desk", simulated=True,
        )  # fmt: skip
