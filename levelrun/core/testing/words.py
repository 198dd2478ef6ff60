"""Sentences of proof: what was read, of which circuit or panel, where."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.job import Circuit, Panel
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.testing.edits import MEGOHMS, OHMS, VOLTS, WORDS, kind_of

NUMBER = re.compile(r"(\d+(?:\.\d+)?)\s*(?:V|volts|ohms?|Ω|megohms?|MΩ)?(?![\w.])", re.IGNORECASE)
AT_A_BOX = ("gfci", "dies", "three_way", "interlock", "rod")
YES = {"yes": "yes", "done": "yes", "trips": "yes", "works": "yes", "dead": "yes", "off": "yes"}
NO = {"no": "no", "not done": "no", "does not": "no", "not dead": "no", "not off": "no"}
METERS = {"low impedance": "low", "low": "low", "high impedance": "high", "high": "high", "simulated": "simulated"}


def measure(reader: SceneReader) -> Said:
    """measure CIRCUIT|PANEL STEP 123.1 [low|high] [on 2026-06-01] [by WHO]; measure 14 gfci C-1 trips: a reading."""
    job = reader.scene.job
    found: dict[str, Circuit | Panel] = {panel.name: panel for panel in job.panels}
    found |= {circuit.name: circuit for circuit in job.circuits}
    panel = reader.scene.panel
    found |= {
        reader.circuit_label(c): c for c in job.circuits if c.space and panel is not None and c.panel == panel.id
    }
    own = found[reader.need(found, "a circuit or a panel")]
    steps = {key.replace("_", " "): key for key in (*VOLTS, *OHMS, *MEGOHMS, *WORDS)}
    step = steps[reader.need(steps, "what was read")]
    about = ""
    if step in AT_A_BOX:
        names = {node.name: node.id for node in job.nodes} | {rod.id: rod.id for rod in job.electrodes}
        word = reader.phrase(names)
        about = f":{names[word]}" if word is not None else ""
    edit: dict[str, Any] = {"op": "measure", "of": own.id, "step": f"{step}{about}"}
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


VERBS = {"measure": measure}
