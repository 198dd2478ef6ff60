"""The steps of making up a box or panel, in order, and whether one is made up.

What a step asks in numbers is the rule set's: jacket a quarter inch in (314.17), conductors 6 in free and 3 past the
opening (300.14), grounds joined (250.148). The order is common practice, no source.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelrun.core.boxes.parts import PLUGS
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Card, Habits, Job, Panel
from levelrun.core.kept import Standing
from levelrun.core.measure import show_inches

LETTERED, JACKET, FREE, GROUNDS, JOINTS, MARKED = "lettered", "jacket", "free", "grounds", "joints", "marked"
CAPPED, FOLD, TAILS = "capped", "fold", "tails"
OF_BOX = (JACKET, FREE, GROUNDS, JOINTS, FOLD)
OF_END = (FREE,)  # equipment, disconnects and tails are landed after the walls are shut
OF_PANEL = ("grounds_in", "neutrals_in", "hots_in", "torqued", "directory")
MAYBE = (LETTERED, MARKED, CAPPED)  # asked where they apply; a box is made up without
FOLDS = {
    "accordion": ("Folded like an accordion", "a router that cuts the board only nicks the ends"),
    "roll": ("Rolled tight to the back", "out of reach of the router that cuts the board"),
}
# What two of the steps are where no cable comes in, only pipe. Common practice, no source.
IN_PIPE = {
    LETTERED: ("Lettered at both ends", "two of one colour are soon taken for each other", ""),
    JACKET: ("Ends of the pipe smooth, bushing on", "an edge skins the wire that is drawn over it", ""),
}


@dataclass(frozen=True, kw_only=True)
class CardStep:
    """A step of a card: its title, why it is so, the section where there is one, the day that it was done; needed: it
    is not made up without."""

    key: str
    title: str
    why: str
    section: str
    done: bool
    on: str
    needed: bool = True


def needed_steps(node: Box | Panel) -> tuple[str, ...]:
    """The steps without which it is not made up."""
    if isinstance(node, Panel):
        return OF_PANEL
    if node.kind in ("equipment", "disconnect", "tail"):
        return OF_END
    return (*OF_BOX, TAILS) if node.kind in (*PLUGS, "switch", "light", "fan", "smoke") else OF_BOX


def cards_of(job: Job) -> dict[str, Card]:
    """The card of each node that has one."""
    return {card.node: card for card in job.cards}


_wired = Standing[frozenset[str]](4)


def wired(job: Job) -> frozenset[str]:
    """Boxes and panels that a circuit reaches: there is something to make up in them."""
    return _wired.get(None, (job.circuits,), lambda: frozenset(_reached(job)))


def _reached(job: Job) -> Iterator[str]:
    for circuit in job.circuits:
        if circuit.chain or circuit.feeds:
            yield circuit.panel
        if circuit.feeds:
            yield circuit.feeds
        for hop in circuit.chain:
            yield hop.box
            if hop.after is not None:
                yield hop.after


def left_out(job: Job) -> frozenset[str]:
    """Boxes that were left out."""
    return frozenset(
        item.node for item in job.built if item.state == "left_out" and item.circuit is None and item.node
    )


def is_made_up(node: Box | Panel, card: Card | None) -> bool:
    """Whether every needed step is ticked."""
    done = {tick.step for tick in card.done} if card is not None else set()
    return set(needed_steps(node)) <= done


def open_nodes(job: Job, cards: Mapping[str, Card] | None = None) -> list[Box | Panel]:
    """What is wired, was not left out, and is not made up yet."""
    own, reached, gone = cards_of(job) if cards is None else cards, wired(job), left_out(job)
    return [
        node
        for node in job.nodes
        if node.id in reached and node.id not in gone and not is_made_up(node, own.get(node.id))
    ]


def titles(book: Codebook, habits: Habits) -> dict[str, tuple[str, str, str]]:
    """Every step: its title, why, its section."""
    jacket, free = book.scalar("jacket_into_box_in"), book.scalar("free_from_sheath_in")
    past = book.scalar("free_past_box_in")
    fold, why = FOLDS[habits.roughin.fold]
    return {
        LETTERED: ("Lettered at both ends", "before anything is stripped: later all jackets look alike", ""),
        JACKET: (f"Jacket {show_inches(jacket.value)} in or more", "the clamp holds the jacket, not the wires",
                 jacket.section),
        FREE: (f"{show_inches(free.value)} free, {show_inches(past.value)} past the face", "cut to one length",
               free.section),
        GROUNDS: ("Grounds joined, first to the back", "no device may break them", "250.148"),
        JOINTS: ("Joints made, each pulled at", "a wire that comes out in the hand was never in", "110.14(B)"),
        MARKED: ("White re-marked as hot", "whoever opens it must see that it is none", "200.7(C)"),
        CAPPED: ("Unused wires capped", "a bare end finds a live one", "110.14(B)"),
        FOLD: (fold, why, ""),
        TAILS: ("Only tails left for the device", "trim is then a screwdriver's work", ""),
        "grounds_in": ("Grounds landed", "first in, last out", "250.148"),
        "neutrals_in": ("Neutrals landed, one a screw", "two under one screw come loose", "408.41"),
        "hots_in": ("Hots landed", "on the breaker of their own circuit", "110.14(A)"),
        "torqued": ("Torqued to the label, read and written down", "loose terminations burn houses", "110.14(D)"),
        "directory": ("Directory filled in", "legible, and true", "408.4(A)"),
    }  # fmt: skip
