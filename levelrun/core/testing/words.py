"""Sentences of proof: what was read, of which circuit or panel, where."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Panel
from levelrun.core.site.scene import IS, Said, SceneReader
from levelrun.core.testing.edits import MEGOHMS, OHMS, VOLTS, WORDS, kind_of

NUMBER = re.compile(r"(\d+(?:\.\d+)?)\s*(?:V|volts|ohms?|Ω|megohms?|MΩ)?(?![\w.])", re.IGNORECASE)
AT_A_BOX = ("gfci", "dies", "three_way", "interlock", "rod")
YES = {"yes": "yes", "done": "yes", "trips": "yes", "tripped": "yes", "works": "yes", "dead": "yes", "off": "yes",
       "ok": "yes", "okay": "yes", "good": "yes", "passes": "yes", "passed": "yes", "tested": "yes"}  # fmt: skip
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
LEAST_BETWEEN_LEGS_V = 180.0  # what is read between the legs is over this, to neutral under it
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
    edits, by = [_reading(reader, own, box, step)], dict[str, Any]()
    while not reader.over():
        reader.phrase(["and"])
        last = edits[-1]
        if "value" in last and reader.sees(STEPS):  # hot to ground 121 too: the same meter, the same day
            edits.append(_reading(reader, own, "", ""))
        elif last["step"] == "legs" and (both := _both_legs(reader, last)) is not None:
            edits[-1:] = both
        elif (word := reader.need((*METERS, "on", "by"), "which meter, on and a day, or by whom")) in METERS:
            by["meter"] = METERS[word]
        elif word == "by":
            by["who"] = reader.name(("on",))
        else:
            by["on"] = reader.day()
    return Said([{**edit, **by} for edit in edits])


def _reading(reader: SceneReader, own: Circuit | Panel, box: str, step: str) -> dict[str, Any]:
    """What was read, at which box, and the reading."""
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
        edit["word"] = {**YES, **NO}[reader.need((*NO, *YES), "yes or no")]
        return edit
    reader.skip()
    reader.expect(["a number"])
    if (match := reader.take(NUMBER)) is None:
        raise reader.fail("a number")
    return {**edit, "value": float(match[1])}


def _both_legs(reader: SceneReader, edit: dict[str, Any]) -> list[dict[str, Any]] | None:
    """Legs 121 and 122: two readings to neutral, leg A first. None where no second one stands here."""
    reader.skip()
    match = NUMBER.match(reader.text, reader.pos)
    if match is None or max(float(edit["value"]), float(match[1])) >= LEAST_BETWEEN_LEGS_V:
        return None
    reader.pos = match.end()
    return [{**edit, "step": "leg_a"}, {**edit, "step": "leg_b", "value": float(match[1])}]


_SLASHED = re.compile(
    r"\s*(?P<a>1\d\d(?:\.\d+)?)\s*/\s*(?P<b>1\d\d(?:\.\d+)?)(?:\s*/\s*(?P<c>2\d\d(?:\.\d+)?))?(?![\d/])"
)
_PLAIN = re.compile(r"\s*(?P<n>\d{2,3}(?:\.\d+)?)\s*(?:v|volts)?\s*(?=$|\n|;|,|on\b|by\b)", re.IGNORECASE)


def _by_its_size(reader: SceneReader, own: Circuit | Panel) -> Said | None:
    """Reads 121/122/243: the legs of a panel, A first; dryer reads 241: between the lines of a circuit of 240 V,
    which is told. None where no such figures stand here."""
    reader.skip()
    if isinstance(own, Panel):
        if (found := reader.take(_SLASHED)) is None:
            return None
        steps = [("leg_a", found["a"]), ("leg_b", found["b"]), ("legs", found["c"])]
        return Said([
            {"op": "measure", "of": own.id, "step": step, "value": float(value)} for step, value in steps if value
        ])  # fmt: skip
    plain = _PLAIN.match(reader.text, reader.pos)
    if plain is None or own.volts != 240 or float(plain["n"]) < LEAST_BETWEEN_LEGS_V:
        return None
    reader.pos = plain.start("n")
    said = _measured(reader, own, "", "line_line")
    return replace(said, told=[f"{plain['n']} V is taken to be from line to line of {own.name}"])


def read_of(reader: SceneReader) -> Said | None:
    """14 hot to neutral 121; Panel H legs 247; the GFCI at C-1 trips; C-1 gfci tripped; H reads 121/122/243."""
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
        if own is not None and step is None and reader.sees(STEPS) and not reader.sees(AT_A_BOX):
            said = _measured(reader, own)
            name = reader.circuit_label(own)
            return replace(said, told=[f"{box.name} is on {name}: a reading of that circuit"])
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
    if step is None and (first := _step_first(reader, boxes)) is not None:
        return first
    found = _named(reader)
    word = reader.phrase(found)
    if word is None or step is not None:
        return None
    read = reader.phrase(READS[-4:])
    reader.phrase(READS)
    if not reader.sees(STEPS):
        return _by_its_size(reader, found[word]) if read or isinstance(found[word], Panel) else None
    try:
        return _measured(reader, found[word])
    except TextError:
        if reader.scene.verb in ("", "measure"):
            raise
        return None  # 14 gfci 20a: of a circuit that is being made


def _step_first(reader: SceneReader, boxes: dict[str, Box]) -> Said | None:
    """Hot to neutral at R-1 121; leg to leg 243: of the box named, of the only panel. None where no such one is."""
    start = reader.pos
    word = reader.phrase(STEPS)
    if word is None or STEPS[word] in AT_A_BOX:
        reader.pos = start
        return None
    step = STEPS[word]
    found = _named(reader)
    at = reader.phrase(("at", "of", "on", "in"))
    if at is not None and (name := reader.phrase(boxes)) is not None:
        own: Circuit | Panel | None = reader.circuit_of(boxes[name])
    elif at is not None and (name := reader.phrase(found)) is not None:
        own = found[name]
    else:
        panels = reader.scene.job.panels
        own = panels[0] if len(panels) == 1 and step in ("legs", "leg_a", "leg_b") else None
    if own is None:
        reader.pos = start
        return None
    return _measured(reader, own, "", step)


VERBS = {"measure": measure}
SPOKEN = (read_of,)
