"""Sentences about circuits that begin with what they are about, or with the verb of everyday."""

from __future__ import annotations

from typing import Any

from levelrun.core.circuits.words import circuit_part, known_circuits, put_on
from levelrun.core.job import Circuit
from levelrun.core.site.scene import Said, SceneReader

CALLED = ("circuit", "breaker")
BECOMES = ("is", "to be", "becomes", "to", "on", "a", "an")
ONTO = ("goes on", "go on", "is on", "are on", "belongs on", "belong on", "onto", "on", "to")
OFF = ("off", "comes off", "come off", "is off", "are off", "from")


def moved(reader: SceneReader) -> Said | None:
    """Move circuit 14 to 9; 14 goes on 9."""
    said = reader.phrase(("move", "put")) is not None
    found = _circuit(reader)
    if found is None:
        return None
    if reader.phrase(("goes on", "goes to")) is None and (not said or reader.phrase(("to", "on", "in")) is None):
        return None
    return put_on(reader, found)


def changed(reader: SceneReader) -> Said | None:
    """Make 14 a 15 amp gfci; circuit 14 is 15 amps; change breaker 9 to dual."""
    said = reader.phrase(("make", "change")) is not None
    named = reader.sees(CALLED)
    found = _circuit(reader)
    if found is None or not (said or named or reader.sees(BECOMES[:3])):
        return None
    while reader.phrase(BECOMES) is not None:
        pass
    item: dict[str, Any] = {}
    while not reader.over() and circuit_part(reader, item):
        reader.phrase(("and", "breaker", "circuit"))
    if not item or not reader.over():
        return None
    if item.get("volts") == 240:
        item.setdefault("poles", 2)
    return Said([{"op": "set", "kind": "circuit", "id": found.id, "set": item}], panel=found.panel)


def chained(reader: SceneReader) -> Said | None:
    """R-1 and R-2 go on 9; add R-1 to 9; take R-1 off 9."""
    boxes = reader.boxes()
    reader.phrase(("add", "take", "put"))
    own: list[str] = []
    while (word := reader.phrase(boxes)) is not None:
        own.append(boxes[word].id)
        reader.phrase(["and"])
    if not own:
        return None
    if reader.phrase(OFF) is not None:
        if not reader.over() and _circuit(reader) is None:
            return None
        return Said([{"op": "unchain", "boxes": own}])
    if reader.phrase(ONTO) is None or (found := _circuit(reader)) is None or not reader.over():
        return None
    after = found.chain[-1].box if found.chain and found.chain[-1].box not in own else None
    return Said([{"op": "chain", "circuit": found.id, "boxes": own, "after": after}], panel=found.panel)


def _circuit(reader: SceneReader) -> Circuit | None:
    reader.phrase(CALLED)
    known = known_circuits(reader)
    word = reader.phrase(known)
    return known[word] if word is not None else None


SPOKEN = (moved, changed, chained)
