"""A reading against its window: fine, check or stop, and in words by how much."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.job import Measured
from levelrun.core.testing.steps import GHOST_V, MOST_GHOST_V, Step


@dataclass(frozen=True, kw_only=True)
class Verdict:
    """What is said of a reading: fine, check or stop; in words."""

    verdict: str
    text: str


def verdict_of(step: Step, reading: Measured | None) -> Verdict:
    """What is said of the last reading of a step; empty where there is none."""
    if reading is None:
        return Verdict(verdict="", text="")
    if step.kind == "word":
        good = reading.word == "yes"
        return Verdict(verdict="fine" if good else "stop", text="" if good else f"{step.title}: {step.words[1]}")
    value = reading.value
    if value is None or step.low is None or step.high is None:
        return Verdict(verdict="check", text="no window: a length of this circuit is not known")
    if step.key == "dead" and value > step.high:
        if reading.meter == "high" and GHOST_V < value <= MOST_GHOST_V:
            return Verdict(
                verdict="check",
                text=f"{value:g} V on a high-impedance meter: a ghost voltage? Read it with a low-impedance tester "
                "or a load. Not dead, not live, until then.",
            )
        return Verdict(
            verdict="stop", text=f"{value:g} V: not dead. Hands off; another breaker feeds it, or its own."
        )
    shown = f"{value:g} {step.unit}"
    if value > step.high:
        return Verdict(verdict="stop", text=f"{shown}: {_far(value - step.high)} {step.unit} over {_far(step.high)}")
    if value < step.low:
        return Verdict(verdict="stop", text=f"{shown}: {_far(step.low - value)} {step.unit} under {_far(step.low)}")
    return Verdict(verdict="fine", text="")


def _far(value: float) -> str:
    return f"{value:.1f}" if value < 100 else f"{value:.0f}"
