"""What a box usually draws, and the circuit its appliance usually gets."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from math import ceil

from levelrun.core.boxes.parts import PLUGS
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit
from levelrun.core.trade.conductors.sizing import standard_breaker
from levelrun.core.trade.motors import CONDUCTOR

_CALLED = re.compile(r"[a-z]{3}")  # in the name of a box that somebody gave it
LEAST_RANGE_W = 8750.0


@dataclass(frozen=True, kw_only=True)
class Usual:
    """A row of the table of loads: watts expected, and the circuit of an appliance."""

    use: str
    title: str
    watts: float
    continuous: bool
    own: bool
    volts: int
    poles: int
    breaker_a: float
    neutral: bool
    nema: str
    nameplate: bool


@lru_cache(maxsize=1024)
def usual(book: Codebook, use: str) -> Usual:
    """One row by use: exact; raises UnknownKeyError that lists all."""
    row = book.table("loads").get(use)
    return Usual(
        use=use,
        title=row["title"],
        watts=float(row["watts"]),
        continuous=row["continuous"] == "yes",
        own=row["own"] == "yes",
        volts=int(row["volts"]),
        poles=int(row["poles"]),
        breaker_a=float(row["breaker_a"]),
        neutral=row["neutral"] == "yes",
        nema=row["nema"],
        nameplate=row["nameplate"] == "yes",
    )


HEATER, HEATERS_A = "space_heater", 30.0  # two and more heaters of rooms on one circuit: so much at most (424.4(A))
SHARED_W = 1200.0  # half of 20 A at 120 V: what is fastened in place may take beside others (210.23(A)(2))
PLANNED_PART = 0.8  # of its rating what an outlet for one machine is taken to draw: common practice, no source


def usual_of(book: Codebook, box: Box) -> Usual:
    """The row of a box: by what it serves, else by its kind. A receptacle of 240 V, or of over 20 A, is for one
    machine: a circuit of its own by its configuration. So is one for a machine that draws more than others leave it,
    as a machine that is wired."""
    if box.nema and not box.serves and box.kind in PLUGS:
        return _for_one(book, box.nema)
    if box.kind in PLUGS and not box.serves and (box.load_w or 0.0) > SHARED_W:
        return replace(usual(book, "receptacle"), watts=float(box.load_w or 0.0), own=True)
    if box.kind == "equipment" and not box.serves and (box.load_w or 0.0) > SHARED_W:
        return _machine(book, float(box.load_w or 0.0))
    return usual(book, box.serves or box.kind)


@lru_cache(maxsize=64)
def _for_one(book: Codebook, nema: str) -> Usual:
    plain = usual(book, "receptacle")
    row = book.table("nema").get(nema)
    volts, amps = int(row["volts"]), float(row["amps"])
    if volts == 120 and amps <= 20:
        return plain
    return replace(
        plain, title=f"Outlet {nema}", watts=PLANNED_PART * volts * amps, own=True, volts=volts,
        poles=2 if volts == 240 else 1, breaker_a=amps, neutral=row["neutral"] == "yes", nema=nema,
    )  # fmt: skip


@lru_cache(maxsize=256)
def _machine(book: Codebook, watts: float) -> Usual:
    """A wired machine of so many watts: of 240 V over what 20 A carry at 120 V, its breaker the next over 125 %."""
    volts = 240 if watts > PLANNED_PART * 120 * 20 else 120
    plain = usual(book, "equipment")
    return replace(
        plain, watts=watts, own=True, volts=volts, poles=2 if volts == 240 else 1, neutral=volts == 120,
        breaker_a=max(standard_breaker(book, 1.25 * watts / volts), 20.0),
    )  # fmt: skip


def title_of(book: Codebook, box: Box) -> str:
    """What a circuit for one box is called: by the name that somebody gave the box, else by the appliance there."""
    usual = usual_of(book, box)
    return box.name if _CALLED.search(box.name) or not (usual.own or box.serves) else usual.title


def watts(book: Codebook, box: Box) -> float:
    """Load expected at a box: as said, else as usual."""
    return usual_of(book, box).watts if box.load_w is None else box.load_w


def expected_w(book: Codebook, box: Box) -> float:
    """Load that a box puts on its circuit at once: its watts, but a range by table 220.55 note 4, 8 kW up to 12 kW
    and 5 % more for each kilowatt or major fraction over (210.19(C))."""
    said = watts(book, box)
    demand = 8000.0 * (1 + 0.05 * max(int((said - 12_000) / 1000 + 0.5), 0))
    return min(said, demand) if box.serves == "range" and said >= LEAST_RANGE_W else said


def plated(book: Codebook, circuit: Circuit, boxes: Sequence[Box]) -> tuple[Box, ...]:
    """The boxes of a circuit, the one machine whose nameplate is said with the watts that follow from it: its minimum
    ampacity is 125 % of its motor and all of what else it draws (440.33), so that a machine that is one motor draws a
    1.25th of it. As they are where its watts are said, where several machines stand, and for a welder, whose plate
    says less than it draws (630.11). Of several outlets of a shop one is used at a time."""
    boxes = _one_at_a_time(book, boxes)
    said = circuit.least_ampacity_a
    drawing = [box for box in boxes if watts(book, box) or (box.kind == "equipment" and box.serves)]
    drawing = drawing or [box for box in boxes if box.kind == "disconnect"]  # what it turns off stands nowhere yet
    if said is None or len(drawing) != 1 or drawing[0].load_w is not None or drawing[0].serves == "welder":
        return tuple(boxes)
    machine = drawing[0].model_copy(update={"load_w": ceil(10 * said / CONDUCTOR * circuit.volts) / 10})
    return tuple(machine if box is drawing[0] else box for box in boxes)


def at_will(book: Codebook, box: Box) -> bool:
    """Whether it is an outlet for one machine by its configuration, of which nobody says which or what that draws."""
    return bool(box.nema) and box.load_w is None and not box.serves and usual_of(book, box).own


def _one_at_a_time(book: Codebook, boxes: Sequence[Box]) -> Sequence[Box]:
    """The boxes of a circuit, where several outlets stand each for one machine by its configuration and nobody says
    for which, with the load of the greatest and last of them alone: one plugs in at a time (common practice, no
    source). That they share is asked."""
    alike = [box for box in boxes if at_will(book, box)]
    if len(alike) < 2:
        return boxes
    used = max(reversed(alike), key=lambda box: watts(book, box))
    idle = {box.id for box in alike if box is not used}
    return [box.model_copy(update={"load_w": 0.0}) if box.id in idle else box for box in boxes]


def is_continuous(book: Codebook, box: Box) -> bool:
    """Whether its load stays on for three hours or more: as said, else as usual."""
    return usual_of(book, box).continuous if box.continuous is None else box.continuous


def nema_of(book: Codebook, box: Box) -> str:
    """The configuration of its receptacle: as said, else as usual; empty where it has none."""
    if box.nema or box.kind not in ("receptacle", "device"):
        return box.nema
    return usual_of(book, box).nema
