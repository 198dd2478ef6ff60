"""Edits of what was read."""

from __future__ import annotations

from typing import Literal

from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, made, next_id, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Measured
from levelrun.core.part import Id, Text
from levelrun.core.roughin.parts import Day, Hour, Who
from levelrun.core.testing.parts import Meter, StepKey, Word

VOLTS = (
    "dead",
    "line_neutral",
    "line_ground",
    "line_line",
    "legs",
    "loaded",
    "neutral_ground",
    "leg_a",
    "leg_b",
)
OHMS, MEGOHMS = ("ground", "rod"), ("insulation", "apart")
WORDS = (
    "tester",
    "again",
    "insulation_ready",
    "gfci",
    "dies",
    "three_way",
    "interlock",
    "afci",
    "bond",
)
MOST = {"volts": 1000.0, "ohms": 1e6, "megohms": 100_000.0}
UNITS = {"volts": "V", "ohms": "Ω", "megohms": "MΩ"}


def kind_of(step: str) -> str:
    """volts, ohms, megohms or word. Raises EditError for no such step."""
    name = step.partition(":")[0]
    for kind, names in (("volts", VOLTS), ("ohms", OHMS), ("megohms", MEGOHMS), ("word", WORDS)):
        if name in names:
            return kind
    known = [*VOLTS, *OHMS, *MEGOHMS, *WORDS]
    raise EditError(
        f"{step!r} is no step of proof; allowed: {', '.join(known)}", key="step", value=step, allowed=known
    )


class Measure(EditBase):
    """Write down a reading of a step: a number in its unit, or a word. Insulation only once its electronics are off
    the circuit."""

    op: Literal["measure"]
    of: Id
    step: StepKey
    value: float | None = None
    word: Word = ""
    meter: Meter = ""
    on: Day = ""
    hour: Hour = ""
    who: Who = ""
    remarks: Text = ""

    def title(self) -> str:
        return f"reading: {self.step.partition(':')[0].replace('_', ' ')}"

    def apply(self, job: Job, book: Codebook) -> Job:
        kind = kind_of(self.step)
        if self.of not in {c.id for c in job.circuits} | {p.id for p in job.panels}:
            raise EditError(f"no circuit or panel {self.of!r} in this job", key="of", value=self.of)
        self._about(job)
        if kind == "word" and not self.word:
            raise EditError("word: say yes or no", key="word", value=self.word, allowed=["yes", "no"])
        if kind != "word":
            _number(kind, self.value)
        ready = [m.word for m in job.measured if m.of == self.of and m.step == "insulation_ready"]
        if self.step == "insulation" and (not ready or ready[-1] != "yes"):
            raise EditError(
                "insulation is read at 500 V: first electronics, GFCI, AFCI, dimmers, alarms and surge devices come "
                "off the circuit, and that is ticked",
                key="step",
                value=self.step,
            )
        values = {**self.model_dump(exclude={"op"}), "id": next_id(job, "m")}
        values |= {"value": None} if kind == "word" else {"word": ""}
        return with_parts(job, measured=(*job.measured, made(Measured, values, "reading")))

    def _about(self, job: Job) -> None:
        about = self.step.partition(":")[2]
        known = {node.id for node in job.nodes} | {rod.id for rod in job.electrodes}
        if about and about not in known:
            raise EditError(f"the box {about!r} of this reading is gone", key="step", value=self.step)


def _number(kind: str, value: float | None) -> None:
    if value is None:
        raise EditError(f"value: say {UNITS[kind]}", key="value", value=None)
    if not 0 <= value <= MOST[kind]:
        raise EditError(
            f"{value:g} {UNITS[kind]}: allowed: 0 to {MOST[kind]:g}",
            key="value",
            value=value,
            allowed=[f"0 to {MOST[kind]:g}"],
        )


KINDS = (PartKind(name="measured", field="measured", model=Measured, letter="m"),)
EDITS = (Measure,)
