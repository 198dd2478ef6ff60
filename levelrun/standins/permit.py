"""The permit desk. `PermitDesk` is what a desk must do; `SimulatedPermitDesk` answers as one would, sends nobody."""

from __future__ import annotations

import zlib
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Protocol

HOURS = ("09:00", "10:30", "13:00", "14:30")
WAIT_DAYS, OFFERED = 2, 3
INSPECTOR = "inspector of the simulated desk"


@dataclass(frozen=True, kw_only=True)
class Offer:
    """An hour that the desk offers. `simulated`: nobody comes."""

    on: str
    hour: str
    ticket: str
    desk: str
    simulated: bool


@dataclass(frozen=True, kw_only=True)
class Outcome:
    """How a visit ended: passed, or failed with what was found."""

    result: str
    who: str
    found: tuple[str, ...]
    simulated: bool


class PermitDesk(Protocol):
    """A desk that gives dates for inspections and tells how they ended."""

    def offers(self, called: date, wanted: date, what: str) -> list[Offer]:
        """Hours on and after the day wanted. Raises ValueError for a day that is past."""

    def outcome(self, ticket: str, waits: list[str]) -> Outcome:
        """How the visit with this ticket ended."""


class SimulatedPermitDesk:
    """Offers the next working days after two for its post; passes what waits for nothing, else fails it by the first
    thing that it waits for, as an inspector would."""

    def offers(self, called: date, wanted: date, what: str) -> list[Offer]:
        """Three hours on three working days."""
        if wanted < called:
            raise ValueError(f"{wanted.isoformat()} is past; allowed: {called.isoformat()} and after")
        first, left = called, WAIT_DAYS
        while left:
            first += timedelta(days=1)
            left -= first.weekday() < 5
        day, found = max(first, wanted), list[Offer]()
        while len(found) < OFFERED:
            if day.weekday() < 5:
                number = zlib.crc32(f"{what} {day.isoformat()}".encode())
                found.append(
                    Offer(
                        on=day.isoformat(), hour=HOURS[number % len(HOURS)],
                        ticket=f"SIM-{day:%y%m%d}-{number % 10_000:04d}", desk="permit desk", simulated=True,
                    )
                )  # fmt: skip
            day += timedelta(days=1)
        return found

    def outcome(self, ticket: str, waits: list[str]) -> Outcome:
        """Passed where nothing waits."""
        found = tuple(waits[:2])
        return Outcome(result="failed" if found else "passed", who=INSPECTOR, found=found, simulated=True)
