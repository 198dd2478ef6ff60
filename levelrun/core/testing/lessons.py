"""Lessons before the meter, in the order of the work: read a jacket, what a wire and a breaker carry, which pipe is
which, the order of proof. Questions are made from the rule set; answers are worked out, never written down.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import raceway, small_conductor_limit

JACKETS = {"14": "white", "12": "yellow", "10": "orange", "8": "black", "6": "black"}
WIRES = ("14", "12", "10")
PIPE = "3/4"
PIPES = {"PVC40": "PVC schedule 40", "PVC80": "PVC schedule 80", "RMC": "rigid steel"}


@dataclass(frozen=True, kw_only=True)
class Question:
    """A question with its choices; `right` is the number of the right one, `why` says why, with its section."""

    text: str
    choices: tuple[str, ...]
    right: int
    why: str


@dataclass(frozen=True, kw_only=True)
class Lesson:
    """A lesson: its key and title, what it is about."""

    key: str
    title: str
    about: str


LESSONS = (
    Lesson(key="jacket", title="Read a jacket", about="type, gauge, wires, ground, colour"),
    Lesson(key="carry", title="What a wire carries", about="wire, breaker, and 80 % of it"),
    Lesson(key="pipe", title="Which pipe is which", about="by its wall and what it may do"),
    Lesson(key="order", title="The order of proof", about="dead first, and proved"),
)


def questions(book: Codebook, key: str, seed: int) -> list[Question]:
    """The questions of a lesson, in an order that `seed` says. Raises KeyError for no such lesson."""
    dice = random.Random(seed)
    made = list(MAKERS[key](book, dice))
    dice.shuffle(made)
    return made[:6]


def _asked(dice: random.Random, text: str, right: str, wrong: list[str], why: str) -> Question:
    choices = [right, *dict.fromkeys(w for w in wrong if w != right)][:4]
    dice.shuffle(choices)
    return Question(text=text, choices=tuple(choices), right=choices.index(right), why=why)


def _jacket(book: Codebook, dice: random.Random) -> Iterator[Question]:
    for size, colour in list(JACKETS.items())[:3]:
        yield _asked(
            dice,
            f"A {colour} jacket, common in houses since the 2000s: which gauge is most likely inside?",
            f"No. {size}",
            [f"No. {other}" for other in JACKETS],
            "Common practice of makers, no rule: read what is printed on it.",
        )
    for size, count in (("14", 3), ("12", 2), ("10", 3)):
        yield _asked(
            dice,
            f"Printed: {size}-{count} WITH GROUND. How many wires are insulated, and how many in all?",
            f"{count} insulated, {count + 1} in all",
            [
                f"{count + 1} insulated, {count + 1} in all",
                f"{count - 1} insulated, {count} in all",
                f"{count} insulated, {count} in all",
            ],
            "The first number is the gauge, the second counts insulated wires; the ground comes beside them.",
        )
    yield _asked(
        dice,
        "NM-B: the B says that its wires bear 90 °C. Its ampacity is taken at",
        "60 °C",
        ["75 °C", "90 °C", "40 °C"],
        "Building cable is taken at 60 °C; 90 °C only to begin a derating from (334.80).",
    )


def _carry(book: Codebook, dice: random.Random) -> Iterator[Question]:
    for size in WIRES:
        amps = small_conductor_limit(book, size, "cu") or 0.0
        yield _asked(
            dice,
            f"The largest breaker for No. {size} copper in an ordinary branch circuit?",
            f"{amps:g} A",
            [f"{other:g} A" for other in (15, 20, 25, 30, 40)],
            "240.4(D): small conductors have a limit of their own.",
        )
    share = book.number("continuous_percent") / 100
    for amps in (15, 20):
        watts = amps * 120 * share
        yield _asked(
            dice,
            f"A {amps} A circuit of 120 V: how much may stay on for three hours or more?",
            f"{watts:.0f} W",
            [f"{amps * 120:.0f} W", f"{amps * 100:.0f} W", f"{amps * 120 * 0.6:.0f} W"],
            f"{amps} A × 120 V × 80 % = {watts:.0f} W (210.20(A)).",
        )
    yield _asked(
        dice,
        "A wire feels warm at a breaker that holds. First thought?",
        "a loose screw",
        ["a breaker too small", "normal", "too much copper"],
        "Loose terminations burn houses: off, then torque to the label (110.14(D)).",
    )


def _pipe(book: Codebook, dice: random.Random) -> Iterator[Question]:
    for a, b in (("PVC80", "PVC40"), ("RMC", "PVC40"), ("RMC", "PVC80")):
        inner = {key: raceway(book, key, PIPE).inner_in for key in (a, b)}
        thick = min(inner, key=lambda key: inner[key])
        yield _asked(
            dice,
            f"{PIPES[a]} and {PIPES[b]} of {PIPE} in are alike outside: which has the thicker wall?",
            PIPES[thick],
            [PIPES[a], PIPES[b], "both the same", "nobody can tell"],
            f"Inside, {PIPES[a]} is {inner[a]:.3f} in and {PIPES[b]} {inner[b]:.3f} (chapter 9 table 4).",
        )
    yield _asked(
        dice,
        "Where it can be hit, PVC from 18 in below grade to 8 ft up is",
        "schedule 80",
        ["schedule 40", "thin wall of any kind", "sleeved in cable"],
        "300.5(D)(4).",
    )
    yield _asked(
        dice,
        "Inside a pipe outdoors, above ground, the place counts as",
        "wet",
        ["dry", "damp", "as the sky is"],
        "300.9: so no building cable in it; THWN-2 or XHHW-2.",
    )


def _order(book: Codebook, dice: random.Random) -> Iterator[Question]:
    yield _asked(
        dice,
        "Before the wires of a box are touched, what is done first?",
        "the tester is proved on a live source",
        ["the breaker is labelled", "the wires are tested", "the device is taken out"],
        "A dead tester says dead: prove it, test, prove it again.",
    )
    yield _asked(
        dice,
        "A high-impedance meter shows 34 V on a wire whose breaker is off. It is",
        "not known yet: perhaps a ghost",
        ["dead", "live at 34 V", "the neutral"],
        "Wires beside live ones couple some tens of volts: read it with a low-impedance tester or a load.",
    )
    yield _asked(
        dice,
        "With the main off, the lugs above it are",
        "live",
        ["dead", "dead after a minute", "grounded"],
        "A main switches what is after it, not what comes to it.",
    )
    yield _asked(
        dice,
        "Neutral to ground at a loaded outlet should read",
        "about half of the circuit's drop",
        ["exactly 0 V", "120 V", "as much as the source"],
        "The neutral carries the load's current back: its own drop stands there. 0 V is a bootleg ground.",
    )
    yield _asked(
        dice,
        "Before a generator's breaker goes on",
        "the main is off, held by an interlock",
        ["the main stays on", "the neutral is lifted", "the grounds are cut"],
        "Otherwise it feeds the street (702.5).",
    )
    yield _asked(
        dice,
        "An arc-fault breaker is proved by",
        "its own test button",
        ["a plug-in tester", "a short circuit", "switching a lamp"],
        "Plug-in testers do not prove one.",
    )


MAKERS: dict[str, Callable[[Codebook, random.Random], Iterator[Question]]] = {
    "jacket": _jacket,
    "carry": _carry,
    "pipe": _pipe,
    "order": _order,
}
