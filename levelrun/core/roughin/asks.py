"""What is asked before one acts, at the box or end that it is about: slips that cost the day. Common practice, no
source, but for the sections named."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.catalogue import BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.parts import PLUGS
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Card, Job, Panel

FRAMES = ("range", "cooktop", "oven", "dryer")


@dataclass(frozen=True, kw_only=True)
class Ask:
    """A question before an act: when it is asked, what, why; done once it was answered."""

    key: str
    when: str
    text: str
    why: str
    section: str
    done: bool


def asks_of(
    book: Codebook, job: Job, box: Box, model: BoxModel, entering: Sequence[Entering], card: Card | None
) -> list[Ask]:
    """What is asked at a box."""
    return list(_told(book, _of_box(box, model, entering), card))


def panel_asks(book: Codebook, job: Job, panel: Panel, sub: bool, card: Card | None) -> list[Ask]:
    """What is asked at a panel."""
    return list(_told(book, _of_panel(job, panel, sub), card))


Question = tuple[str, str, str, str, str]


def _told(book: Codebook, questions: Iterator[Question], card: Card | None) -> Iterator[Ask]:
    done = {tick.step for tick in card.done} if card is not None else set()
    for key, when, text, why, section in questions:
        yield Ask(
            key=key, when=when, text=text, why=why, section=book.told(section) if section else "", done=key in done
        )


def _of_box(box: Box, model: BoxModel, entering: Sequence[Entering]) -> Iterator[Question]:
    here = [item for item in entering if item.side != "through"]
    cables = [item for item in here if item.cable]
    if not here:
        return
    if cables and model.metal:
        yield (
            "ask_connector", "before the cable goes in", "Connector on the cable first?",
            "it does not go on over a made-up end", "",
        )  # fmt: skip
    if cables and box.kind in (*PLUGS, "switch", "light", "fan"):
        yield (
            "ask_through", "before the device goes on", "Cable through the box?",
            "a device wired before its box is wired twice", "",
        )  # fmt: skip
    if model.key.startswith("square") and box.kind in PLUGS:
        yield (
            "ask_ring", "before the wires are folded in", "Ring on, for this board?",
            "the lid or the plate stands off by what the ring lacks", "314.20",
        )  # fmt: skip
    if box.serves in FRAMES and any("neutral" in item.words for item in here):
        yield (
            "ask_strap", "before the cord goes on", "Bonding strap out of the frame?",
            "with four wires the frame is on the ground alone", "250.140",
        )  # fmt: skip
    if any(not item.cable for item in here):
        yield (
            "ask_pull", "before a wire goes in", "Pipe whole, glued or tightened, to both ends?",
            "wire first, glue after, and the glue is in the wire", "300.18",
        )  # fmt: skip
    if box.kind == "disconnect":
        yield (
            "ask_line", "before it is landed", "Line on the line side?",
            "swapped, the blades are live with the handle off", "404.6(C)",
        )  # fmt: skip


def _of_panel(job: Job, panel: Panel, sub: bool) -> Iterator[Question]:
    yield (
        "ask_lugs", "before the cover comes off",
        "Where is it dead? With the main off the upper lugs stay live." if not sub
        else "Is its feeder off and locked, where it starts?",
        "a main switches what is after it, not what comes to it", "",
    )  # fmt: skip
    yield (
        "ask_prove", "before a hand goes in", "Tester proved, panel tested, tester proved again?",
        "a dead tester says dead", "",
    )  # fmt: skip
    if sub:
        yield (
            "ask_bond", "before the neutral is landed", "Bonding screw right out, not only loose?",
            "in a sub-panel the neutral touches nothing of the cabinet", "250.24(A)(5)",
        )  # fmt: skip
    if any(c.panel == panel.id and c.poles == 2 and c.feeds is None for c in job.circuits):
        yield (
            "ask_short", "before it is cut", "Long enough for the far bar?",
            "a cable that ends short of its bar is a splice in the panel", "",
        )  # fmt: skip
