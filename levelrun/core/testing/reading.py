"""What a meter reads of a circuit as it is wired, with or without a fault: volts, ohms, insulation, or whether a
device does what it must.

A high-impedance meter is 10 MΩ, a low-impedance one 3 kΩ: common practice, no source. Insulation is read at 500 V
d.c. and no more.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from levelrun.core.testing.faults import SOUND_OHMS, Fault, screw, with_fault
from levelrun.core.testing.wired import State, Wired, at, branches, network
from levelrun.core.trade.nodal import Network, Solved

METERS = {"high": 1e7, "low": 3e3, "simulated": 3e3, "": 3e3}
OVER_LIMIT = 1e6  # an ohmmeter shows no more
MOST_MEGOHMS = 1000.0


@dataclass(frozen=True, kw_only=True)
class Probe:
    """One reading: what kind (volts, ohms, megohms, trips, works), between which screws (box and wire), the breaker
    on or off, with or without load."""

    kind: str
    a: tuple[str, str] = ("", "")
    b: tuple[str, str] = ("", "")
    state: State = State()  # noqa: RUF009

    @property
    def key(self) -> str:
        """What it is, as one word: equal probes have equal keys."""
        on = "on" if self.state.on else "off"
        load = f".{self.state.extra_w:g}" if self.state.loaded else ""
        return f"{self.kind}:{'.'.join(self.a)}-{'.'.join(self.b)}:{on}{load}"


def read(wired: Wired, probe: Probe, fault: Fault | None = None, meter: str = "low") -> float:
    """The reading, in volts, ohms, megohms; 1 or 0 for whether it does what it must. Over the meter's range:
    infinity. Raises ValueError where both leads are on one point."""
    if probe.kind in ("trips", "works", "dies"):
        return _does(wired, probe, fault)
    if probe.a == probe.b:
        raise ValueError("both leads are on one point")
    leads = [_screw(fault, *lead) for lead in (probe.a, probe.b)]
    if probe.kind == "volts":
        return abs(_solved(wired, probe.state, fault).volts(leads[0], leads[1], METERS[meter]))
    off = replace(probe.state, on=False, loaded=False, extra_w=0.0, extra_at="")
    if probe.kind == "megohms":
        wired = replace(wired, joined=())  # its neutral is lifted off the bar first
    dead = _solved(wired, off, fault, True)
    ohms = dead.ohms(leads[0], leads[1]) if all(dead.has(lead) for lead in leads) else float("inf")
    if probe.kind == "megohms":
        path = 1 / (1 / SOUND_OHMS + (1 / ohms if ohms < OVER_LIMIT else 0.0))
        return min(path / 1e6, MOST_MEGOHMS)
    return ohms if ohms < OVER_LIMIT else float("inf")


@lru_cache(maxsize=8192)
def _solved(wired: Wired, state: State, fault: Fault | None, dead: bool = False) -> Solved:
    """A circuit solved in one state. Kept: many readings are of the same one. dead: without its source."""
    changed_wired, changed_state, changed = with_fault(wired, state, fault)
    if dead:
        return Network(branches(changed_wired, replace(changed_state, on=False), changed)).solved()
    return network(changed_wired, changed_state, changed).solved()


def _screw(fault: Fault | None, box: str, wire: str) -> str:
    return at(box, screw(fault, box, wire))


def _does(wired: Wired, probe: Probe, fault: Fault | None) -> float:
    """Whether a device does what it must: trips by its button, takes what hangs on it along, works from every
    place."""
    box = probe.a[0]
    if fault is None:
        return 1.0
    if probe.kind == "trips":
        dead = fault.kind == "dead_gfci" and fault.box in (box, "")
        unfed = fault.kind in ("open_hot", "open_neutral") and fault.box in [s.box for s in wired.path(box)]
        return float(not (dead or unfed))
    if probe.kind == "dies":
        return float(not (fault.kind in ("swapped_load", "dead_gfci") and fault.box in (box, "")))
    return float(not (fault.kind == "crossed" and fault.box == box))
