"""The voltage meter. `Meter` is what a meter must do; `SimulatedMeter` reads the circuit as it is planned, with a
fault where one is hidden: nodal analysis, nothing measured."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from levelrun.core.testing.faults import Fault
from levelrun.core.testing.reading import Probe, read
from levelrun.core.testing.where import reading_text
from levelrun.core.testing.wired import Wired


@dataclass(frozen=True, kw_only=True)
class MeterReading:
    """A reading: its value in its unit, null where it is over the range; in words. `simulated`: nothing was
    measured."""

    value: float | None
    text: str
    simulated: bool


class Meter(Protocol):
    """A meter with two leads."""

    def read(self, wired: Wired, probe: Probe, fault: Fault | None, impedance: str) -> MeterReading:
        """What it shows. Raises ValueError where both leads are on one point."""


class SimulatedMeter:
    """Shows what the model of the circuit gives, to three figures, as a meter has them."""

    def read(self, wired: Wired, probe: Probe, fault: Fault | None, impedance: str = "low") -> MeterReading:
        """What it shows."""
        value = read(wired, probe, fault, impedance)
        if value == float("inf"):
            return MeterReading(value=None, text="over the range: no path", simulated=True)
        shown = round(value, 2 if value < 10 else 1 if value < 1000 else 0)
        return MeterReading(value=shown, text=reading_text(probe.kind, shown, shown), simulated=True)
