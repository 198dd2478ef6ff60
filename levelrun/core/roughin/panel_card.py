"""How a panel is made up: in which order, which wire on which bar under which screw, what is torqued, what stays
live.

One neutral under a screw (408.41); grounds so many under a screw as its label lists, told here one a screw. Screws
are numbered from the end of the bar that is nearest to the main.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import TypedDict

from levelrun.core.circuits.feeders import feeders_of
from levelrun.core.codebook import Codebook
from levelrun.core.job import Card, Circuit, Job, Panel
from levelrun.core.roughin.asks import Ask, panel_asks
from levelrun.core.roughin.steps import OF_PANEL, CardStep, titles


@dataclass(frozen=True, kw_only=True)
class Screw:
    """One circuit as it lands: hots on its breaker, neutral and ground under their screws; torque: what was read on
    its breaker, pound-inches; label: what its label asks, null where nobody typed it; off: the two are apart."""

    circuit: str
    label: str
    name: str
    hots: str
    neutral: str
    ground: str
    aluminum: bool
    at: str
    torque: float | None
    asked: float | None
    off: bool


@dataclass(frozen=True, kw_only=True)
class PanelCard:
    """A panel as it is made up. live: what stays live, before a hand goes in."""

    node: str
    name: str
    sub: bool
    where: str
    bond: str
    bars: str
    live: str
    screws: list[Screw]
    mains: Screw | None
    steps: list[CardStep]
    asks: list[Ask]
    made: bool


def panel_card(
    book: Codebook,
    job: Job,
    panel: Panel,
    sub: bool,
    grounds: Mapping[str, str],
    labels: Mapping[str, str],
    card: Card | None,
    where: str,
) -> PanelCard:
    """The card of one panel. `grounds`: the ground of each circuit's home run, by its id."""
    own = sorted((c for c in job.circuits if c.panel == panel.id), key=lambda c: (c.space or 99, c.half))
    feed = feeders_of(job).get(panel.id)
    done = {tick.step: tick.on for tick in card.done} if card is not None else {}
    told = titles(book, job.habits)
    steps = [
        CardStep(
            key=key, title=told[key][0], why=told[key][1],
            section=book.told(told[key][2]), done=key in done,
            on=done.get(key, ""),
        )
        for key in OF_PANEL
    ]  # fmt: skip
    return PanelCard(
        node=panel.id, name=panel.name, sub=sub, where=where, bond=_bond(panel, sub), bars=_bars(panel, sub),
        live=_live(panel, sub), screws=list(_screws(job, panel, own, grounds, labels, card, sub)),
        mains=_mains(job, panel, feed, card), steps=steps, asks=panel_asks(book, job, panel, sub, card),
        made=all(step.done for step in steps),
    )  # fmt: skip


def _bond(panel: Panel, sub: bool) -> str:
    if sub:
        return "Sub-panel: neutral and ground stay apart. The bonding screw comes right out, not only loose."
    if panel.disconnect_elsewhere is None:
        return "Does the service disconnect stand here, or ahead of it? Ask first: only there is it bonded."
    return "The service disconnect is here: the bonding screw or strap is in, once, as its label shows."


def _bars(panel: Panel, sub: bool) -> str:
    if panel.ground_bar:
        return "Grounds on the ground bar, neutrals on the neutral bar."
    if sub:
        return "No ground bar: one comes in first, screwed to the cabinet."
    return "No ground bar of its own: grounds on the neutral bar, each under its own screw, while it is bonded here."


def _live(panel: Panel, sub: bool) -> str:
    if sub:
        return "With its own main off, its lugs and feeder stay live. Off and locked where the feeder starts."
    if panel.main_a is None:
        return "Lugs only: all of it is live until the disconnect ahead of it is off and locked."
    if panel.disconnect_elsewhere:
        return "With this main off its lugs stay live until the disconnect ahead of it is off."
    return "With the main off, the lugs above it and the wires to them stay live. Only the utility takes them dead."


def _screws(
    job: Job,
    panel: Panel,
    own: Sequence[Circuit],
    grounds: Mapping[str, str],
    labels: Mapping[str, str],
    card: Card | None,
    sub: bool,
) -> Iterator[Screw]:
    neutral = ground = 0
    bar = "ground bar" if panel.ground_bar or sub else "neutral bar"
    shared: set[str] = set()
    for circuit in own:
        here = grounds.get(circuit.id, "")
        lands = circuit.neutral and circuit.id not in shared
        if circuit.neutral and circuit.partner:
            shared.add(circuit.partner)
        neutral += lands
        ground += bool(here)
        at = labels.get(circuit.id) or circuit.id
        size = f"{circuit.wire_size}{' al' if circuit.material == 'al' else ''}"
        yield Screw(
            circuit=circuit.id, label=labels.get(circuit.id, "?") or "?", name=circuit.name,
            hots=f"{circuit.poles} of {size} on {circuit.breaker_a:g} A",
            neutral=f"screw {neutral}" if lands else "with its partner" if circuit.neutral else "none: no neutral",
            ground=f"{here}, {bar} screw {ground}" if here else "none runs with it",
            aluminum=circuit.material == "al", at=at, **_torque(job, card, at),
        )  # fmt: skip


def _mains(job: Job, panel: Panel, feed: Circuit | None, card: Card | None) -> Screw | None:
    size = f"{feed.wire_size}{' al' if feed.material == 'al' else ''}" if feed is not None else ""
    return Screw(
        circuit=feed.id if feed is not None else "", label="main", name=feed.name if feed is not None else "its feed",
        hots=f"2 of {size} on the main lugs" if size else "on the main lugs",
        neutral="neutral lug", ground="ground bar lug" if feed is not None else "",
        aluminum=feed is not None and feed.material == "al", at="main", **_torque(job, card, "main"),
    )  # fmt: skip


class _Read(TypedDict):
    torque: float | None
    asked: float | None
    off: bool


def _torque(job: Job, card: Card | None, at: str) -> _Read:
    read = next((t for t in card.torque if t.at == at), None) if card is not None else None
    asked = read.label_lb_in if read is not None else None
    return {
        "torque": read.lb_in if read is not None else None,
        "asked": asked,
        "off": read is not None and off_label(job, read.lb_in, asked),
    }


def off_label(job: Job, read: float, asked: float | None) -> bool:
    """Whether a torque is farther from its label than the shop lets it be."""
    return asked is not None and abs(read - asked) > asked * job.habits.roughin.off_percent / 100 + 1e-9
