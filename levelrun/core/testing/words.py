"""Sentences of proof: what was read, of which circuit or panel, where."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.errors import TextError
from levelrun.core.job import Circuit, Panel
from levelrun.core.site.scene import IS, Said, SceneReader
from levelrun.core.testing.edits import MEGOHMS, OHMS, VOLTS, WORDS, kind_of

NUMBER = re.compile(r"(\d+(?:\.\d+)?)\s*(?:V|volts|ohms?|Ω|megohms?|MΩ)?(?![\w.])", re.IGNORECASE)
AT_A_BOX = ("gfci", "dies", "three_way", "interlock", "rod")
YES = {"yes": "yes", "done": "yes", "trips": "yes", "tripped": "yes", "works": "yes", "dead": "yes", "off": "yes"}
NO = {"no": "no", "not done": "no", "does not": "no", "not dead": "no", "not off": "no", "does not trip": "no"}
METERS = {"low impedance": "low", "low": "low", "high impedance": "high", "high": "high", "simulated": "simulated"}
# Other words for what is read.
CALLED = {
    "line_neutral": ("hot to neutral", "hot neutral", "line to neutral"),
    "line_ground": ("hot to ground", "hot ground", "line to ground"),
    "line_line": ("hot to hot", "line to line"),
    "legs": ("leg to leg",),
    "leg_a": ("leg a to neutral",),
    "leg_b": ("leg b to neutral",),
    "neutral_ground": ("neutral to ground",),
    "ground": ("ground continuity", "continuity"),
}  # fmt: skip
READS = (*IS, "reads", "read", "measured", "measures")
STEPS = {key.replace("_", " "): key for key in (*VOLTS, *OHMS, *MEGOHMS, *WORDS)} | {
    word: key for key, words in CALLED.items() for word in words
}


def measure(reader: SceneReader) -> Said:
    """measure CIRCUIT|PANEL STEP 123.1 [low|high] [on 2026-06-01] [by WHO]; measure 14 gfci C-1 trips: a reading."""
    found = _named(reader)
    reader.phrase(("circuit", "breaker"))
    return _measured(reader, found[reader.need(found, "a circuit or a panel")])


def _named(reader: SceneReader) -> dict[str, Circuit | Panel]:
    """What is tested, as it is called: panels, circuits by name, those of the panel looked at by their spaces."""
    circuits = {circuit.name: circuit for circuit in reader.scene.job.circuits}
    return {**reader.panels(), **circuits, **reader.spaced()}


def _measured(reader: SceneReader, own: Circuit | Panel, box: str = "", step: str = "") -> Said:
    """What follows a circuit or panel: what was read, at which box, the reading, the meter, the day and by whom."""
    reader.phrase(READS)
    step = step or STEPS[reader.need(STEPS, "what was read")]
    if step in AT_A_BOX and not box:
        reader.phrase(["at"])
        job = reader.scene.job
        names = {node.name: node.id for node in job.nodes} | {rod.id: rod.id for rod in job.electrodes}
        word = reader.phrase(names)
        box = names[word] if word is not None else ""
    reader.phrase(READS)
    edit: dict[str, Any] = {"op": "measure", "of": own.id, "step": f"{step}:{box}" if box else step}
    if kind_of(step) == "word":
        word = reader.need((*NO, *YES), "yes or no")
        edit["word"] = {**YES, **NO}[word]
    else:
        reader.skip()
        reader.expect(["a number"])
        match = NUMBER.match(reader.text, reader.pos)
        if match is None:
            raise reader.fail("a number")
        reader.pos = match.end()
        edit["value"] = float(match[1])
    while not reader.over():
        word = reader.need((*METERS, "on", "by"), "which meter, on and a day, or by whom")
        if word in METERS:
            edit["meter"] = METERS[word]
        elif word == "by":
            edit["who"] = reader.name(("on",))
        else:
            edit["on"] = reader.day()
    return Said([edit])


def read_of(reader: SceneReader) -> Said | None:
    """14 hot to neutral 121; Panel H legs 247; the GFCI at C-1 trips; C-1 gfci tripped."""
    boxes = reader.boxes()
    step = reader.phrase(AT_A_BOX[:2])
    if step is not None:
        reader.phrase(["at", "of"])
    reader.phrase(("circuit", "breaker"))
    if (word := reader.phrase(boxes)) is not None:
        box = boxes[word]
        own = reader.circuit_of(box)
        reader.phrase(READS)
        step = step or reader.phrase(AT_A_BOX[:2])
        if (
            own is not None
            and step is None
            and NUMBER.match(reader.text, reader.pos + 1)
            and not reader.sees_length()
        ):
            name = reader.circuit_label(own)
            raise reader.refuse(
                f"{box.name} is on {name}: say what was read of it, such as `{name} line neutral 121`"
            )
        if own is None or step is None or reader.over():
            return None
        return _measured(reader, own, box.id, step)
    found = _named(reader)
    word = reader.phrase(found)
    if word is None or step is not None:
        return None
    reader.phrase(READS)
    if not reader.sees(STEPS):
        return None
    try:
        return _measured(reader, found[word])
    except TextError:
        if reader.scene.verb in ("", "measure"):
            raise
        return None  # 14 gfci 20a: of a circuit that is being made


VERBS = {"measure": measure}
SPOKEN = (read_of,)
