"""Faults that are met: what each does to a circuit, and which a circuit may have."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.job import Box, Circuit, Job
from levelrun.core.testing.wired import BOND_OHM, EARTH, HOTS, JOINT_OHM, OPEN_OHM, State, Wired, at, ohms_of
from levelrun.core.trade.nodal import Branch

LOOSE_OHMS = tuple(round(0.15 * 1.4**n, 3) for n in range(12))
NAIL_OHMS = 2000.0
SOUND_OHMS = 5e7

TITLES = {
    "loose_neutral": "Loose neutral at {box}",
    "loose_hot": "Loose hot at {box}",
    "open_ground": "Ground open at {box}",
    "open_neutral": "Neutral open at {box}",
    "open_hot": "Hot open at {box}",
    "reversed": "Hot and neutral swapped at {box}",
    "bootleg": "Ground tied to neutral at {box}",
    "smaller": "Smaller wire in the cable to {box}",
    "nail": "A nail through the cable to {box}",
    "same_leg": "Both circuits of the shared neutral on one leg",
    "joined": "Neutral and ground joined in the sub-panel",
    "other_breaker": "Fed by another breaker than its own",
    "swapped_load": "Line and load swapped at {box}",
    "dead_gfci": "The ground-fault device at {box} does not trip",
    "crossed": "Travellers crossed at {box}",
}
PRIOR = tuple(TITLES)


@dataclass(frozen=True, kw_only=True)
class Fault:
    """A fault: its kind, the box where it is (empty: in the panel), and how many ohms it is, where it has some."""

    kind: str
    box: str = ""
    ohms: float = 0.0

    @property
    def key(self) -> str:
        """Its kind and place: what may be named."""
        return f"{self.kind}:{self.box}" if self.box else self.kind


def title(fault: Fault, names: dict[str, str]) -> str:
    """A fault in words."""
    return TITLES[fault.kind].format(box=names.get(fault.box, fault.box))


def faults_of(job: Job, circuit: Circuit, wired: Wired) -> list[Fault]:
    """Every fault that a circuit may have, one for each kind and place: all are held equally likely."""
    return list(_faults(job, circuit, wired))


def _faults(job: Job, circuit: Circuit, wired: Wired) -> Iterator[Fault]:
    boxes: dict[str, Box] = {box.id: box for box in job.boxes}
    if not wired.spans:
        return
    for span in wired.spans:
        box = boxes.get(span.box)
        if "neutral" in span.wires:
            yield Fault(kind="loose_neutral", box=span.box, ohms=0.8)
            yield Fault(kind="open_neutral", box=span.box)
        yield Fault(kind="loose_hot", box=span.box, ohms=0.8)
        yield Fault(kind="open_hot", box=span.box)
        if "ground" in span.wires:
            yield Fault(kind="open_ground", box=span.box)
            yield Fault(kind="nail", box=span.box, ohms=NAIL_OHMS)
        if _smaller(wired, span.size):
            yield Fault(kind="smaller", box=span.box)
        if (
            box is not None
            and box.kind in ("receptacle", "device")
            and "neutral" in span.wires
            and wired.volts == 120
        ):
            yield Fault(kind="reversed", box=span.box)
            if "ground" in span.wires:
                yield Fault(kind="bootleg", box=span.box)
        if box is not None and box.protects in ("gfci", "dual"):
            yield Fault(kind="dead_gfci", box=span.box)
            if any(other.start == span.box for other in wired.spans):
                yield Fault(kind="swapped_load", box=span.box)
        if box is not None and box.kind == "switch" and box.ways > 2:
            yield Fault(kind="crossed", box=span.box)
    if circuit.partner is not None:
        yield Fault(kind="same_leg")
    if wired.feeders:
        yield Fault(kind="joined")
    if circuit.protection in ("gfci", "dual"):
        yield Fault(kind="dead_gfci")
    yield Fault(kind="other_breaker")


def _smaller(wired: Wired, size: str) -> str:
    order = wire_sizes(wired.book)
    return order[order.index(size) - 1] if size in order and order.index(size) > order.index("14") else ""


def with_fault(wired: Wired, state: State, fault: Fault | None) -> tuple[Wired, State, list[Branch]]:
    """A circuit and its state as the fault leaves them, and the branches that it changes."""
    if fault is None:
        return wired, state, []
    span = next((item for item in wired.spans if item.box == fault.box), None)
    if fault.kind == "same_leg":
        first = wired.spans[0]
        return (
            wired,
            state,
            [
                Branch(at(wired.panel, "hot2"), at(first.box, "hot2"), OPEN_OHM),
                Branch(at(wired.panel, "hot"), at(first.box, "hot2"), _wire(wired, first, state) + JOINT_OHM),
            ],
        )
    if fault.kind == "joined":
        return replace(wired, joined=(*wired.joined, wired.panel)), state, []
    if fault.kind == "other_breaker":
        return wired, replace(state, on=True), []
    if span is None:
        return wired, state, []
    if fault.kind == "smaller":
        spans = tuple(
            replace(item, size=_smaller(wired, item.size)) if item is span else item for item in wired.spans
        )
        return replace(wired, spans=spans), state, []
    if fault.kind == "bootleg":
        return (
            wired,
            state,
            [
                Branch(at(span.start, "ground"), at(span.box, "ground"), OPEN_OHM),
                Branch(at(span.box, "neutral"), at(span.box, "ground"), BOND_OHM),
            ],
        )
    if fault.kind == "nail":
        return wired, state, [Branch(at(span.box, "hot"), at(span.box, "ground"), fault.ohms or NAIL_OHMS)]
    wire = {
        "loose_neutral": "neutral",
        "open_neutral": "neutral",
        "loose_hot": "hot",
        "open_hot": "hot",
        "open_ground": "ground",
    }.get(fault.kind)
    if wire is None:
        return wired, state, []  # it changes no conductor, but what a device does or where its screws are
    more = OPEN_OHM if fault.kind.startswith("open") else fault.ohms
    breaker_off = wire in HOTS and not state.on and span.start == wired.panel
    if breaker_off:
        return wired, state, []
    ohms = _wire(wired, span, state, wire) + JOINT_OHM + more
    return wired, state, [Branch(at(span.start, wire), at(span.box, wire), ohms)]


def _wire(wired: Wired, span: object, state: State, wire: str = "hot") -> float:
    from levelrun.core.testing.wired import Span

    assert isinstance(span, Span)
    size = (span.ground or span.size) if wire == "ground" else span.size
    return ohms_of(wired.book, size, span.material, span.feet, state.celsius)


def screw(fault: Fault | None, box: str, wire: str) -> str:
    """The wire that is really on a screw: swapped, hot and neutral change places."""
    if fault is not None and fault.kind == "reversed" and fault.box == box:
        return {"hot": "neutral", "neutral": "hot"}.get(wire, wire)
    return wire


__all__ = ["EARTH", "LOOSE_OHMS", "PRIOR", "Fault", "faults_of", "screw", "title", "with_fault"]
