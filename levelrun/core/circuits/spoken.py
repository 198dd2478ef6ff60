"""Sentences about circuits that begin with what they are about, or with the verb of everyday."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from levelrun.core.circuits.feed_words import feeder, paired
from levelrun.core.circuits.grouped import group_said, hops_of
from levelrun.core.circuits.owned import owned, roomed
from levelrun.core.circuits.parts_said import UNIT, circuit_part, wire_for
from levelrun.core.circuits.usual import title_of
from levelrun.core.circuits.words import circuit_with, home_of, known_circuits, new_circuit, put_on
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Panel
from levelrun.core.site.scene import Said, SceneReader

CALLED = ("circuit", "breaker")
METHOD_WORDS = {"nm": "NM-B", "nm-b": "NM-B", "building cable": "NM-B", "mc": "MC", "armored cable": "MC", "ac": "AC"}
BECOMES = ("is", "to be", "becomes", "to", "on", "a", "an", "with", "in", "wired in")
_CABLE = re.compile(r"(?P<wire>14|12|10|8|6|4|2)-[2-4](?![\w'\"/-])")
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
    if reader.sees(("a", "an")) or UNIT.match(reader.text, reader.pos):
        return None  # put 9 on a 15 amp breaker: no other space
    return put_on(reader, found)


def changed(reader: SceneReader) -> Said | None:
    """Make 14 a 15 amp gfci; circuit 14 is 15 amps; change breaker 9 to dual; 14 is 12-2; put 9 on a 15 amp one."""
    said = reader.phrase(("make", "change", "replace", "put")) is not None
    named = reader.sees(CALLED)
    found = _circuit(reader)
    if found is None or not (said or named or reader.sees(BECOMES[:3])):
        return None
    while reader.phrase(BECOMES) is not None:
        pass
    item: dict[str, Any] = {}
    while not reader.over():
        if (cable := reader.take(_CABLE)) is not None:
            item["wire_size"] = cable["wire"]
        elif not circuit_part(reader, item):
            break
        reader.phrase(("and", "breaker", "circuit", "now"))
    if not item or not reader.over():
        return None
    if item.get("volts") == 240:
        item.setdefault("poles", 2)
    return Said([{"op": "set", "kind": "circuit", "id": found.id, "set": item}], panel=found.panel)


def swapped(reader: SceneReader) -> Said | None:
    """Swap 9 and 11; swap breakers 14 and 16: each on the other's space."""
    if reader.phrase(("swap", "switch", "exchange")) is None:
        return None
    reader.phrase(("circuits", "breakers"))
    one = _circuit(reader)
    joined = one is not None and reader.phrase(("and", "with")) is not None
    reader.skip()
    at = reader.pos
    two = _circuit(reader) if joined else None
    if one is None or two is None or not reader.over():
        return None
    if one.poles != two.poles or one.panel != two.panel:
        raise reader.refuse(f"{one.name} and {two.name} do not fit each other's space", at)
    edits = [
        {"op": "set", "kind": "circuit", "id": item.id, "set": {"space": other.space, "half": other.half}}
        for item, other in ((one, two), (two, one))
    ]
    return Said(edits, panel=one.panel)


def chained(reader: SceneReader) -> Said | None:
    """R-1 and R-2 go on 9; add R-1 to 9; take R-1 off 9; the lights in Bath go on 9."""
    reader.phrase(("add", "take", "put"))
    own = reader.boxes_said()
    if not own:
        return _grouped(reader)
    if reader.phrase(OFF) is not None:
        if not reader.over() and _circuit(reader) is None:
            return None
        return Said([{"op": "unchain", "boxes": [box.id for box in own]}])
    if reader.phrase(ONTO) is None:
        return None
    on = reader.circuit_of(own[0])
    if len(own) == 1 and own[0].old and on is not None and on.space is None:  # R-1 is on 5: that is its breaker
        return put_on(reader, on)
    if (found := _circuit(reader)) is None or not reader.over():
        return None
    return _onto(found, own)


def _grouped(reader: SceneReader) -> Said | None:
    """The lights in Bath go on 9; put Bedroom on 9: those that are on no circuit, in a sensible order."""
    start = reader.pos
    try:
        group = group_said(reader)
    except TextError:
        group = None
    if group is None or reader.phrase(ONTO) is None or (found := _circuit(reader)) is None or not reader.over():
        reader.pos = start
        return None
    panel = next(panel for panel in reader.scene.job.panels if panel.id == found.panel)
    hops = [*(hop.model_dump() for hop in found.chain), *hops_of(reader, panel, group[1], found)]
    return Said([{"op": "set", "kind": "circuit", "id": found.id, "set": {"chain": hops}}], panel=found.panel)


def on_a_new(reader: SceneReader) -> Said | None:
    """Put the lights on a 15 amp circuit; the outlets go on a 20 amp circuit of their own."""
    reader.phrase(("put", "wire", "add"))
    panel = reader.scene.panel
    try:
        group = group_said(reader)
    except TextError:
        group = None
    if group is None or panel is None or reader.phrase(ONTO) is None:
        return None
    reader.phrase(("one", "a new", "their own", "its own", "a separate", "a dedicated", "a", "an"))
    item: dict[str, Any] = {}
    while circuit_part(reader, item):
        pass
    if reader.phrase(CALLED) is None:
        return None
    reader.phrase(("of their own", "of its own", "by themselves"))
    return new_circuit(reader, item, "", group[0], group[1], home_of(reader, panel, group[1]), panel)


def _onto(found: Circuit, boxes: list[Box]) -> Said:
    """Boxes behind the last one of a circuit."""
    own, last = [box.id for box in boxes], found.chain[-1].box if found.chain else None
    edit = {"op": "chain", "circuit": found.id, "boxes": own, "after": None if last in own else last}
    return Said([edit], panel=found.panel)


def _node(reader: SceneReader) -> Box | Panel | None:
    boxes = reader.boxes()
    word = reader.phrase(boxes)
    return boxes[word] if word is not None else reader.a_panel()


def _circuit(reader: SceneReader) -> Circuit | None:
    reader.phrase(CALLED)
    known = known_circuits(reader)
    word = reader.phrase(known)
    return known[word] if word is not None else None


def added(reader: SceneReader) -> Said | None:
    """Add a 20 amp gfci circuit called Den for R-1 and R-2; a new 50 amp 240 volt circuit."""
    asked = reader.phrase(("add", "put in", "install")) is not None
    reader.phrase(("a", "an"))
    reader.phrase(["new"])
    item: dict[str, Any] = {}
    while circuit_part(reader, item):
        pass
    if reader.phrase(("circuit", "breaker")) is None or not (item or asked):
        return None
    return circuit_with(reader, item)


def fed_by(reader: SceneReader) -> Said | None:
    """Circuit 9 feeds R-1 and R-2; 9 serves R-3."""
    found = _circuit(reader)
    if found is None or reader.phrase(("feeds", "serves", "goes to")) is None:
        return None
    own = reader.boxes_said()
    return _onto(found, own) if own else None


def apart(reader: SceneReader) -> Said | None:
    """Put R-3 on its own circuit; give the dryer outlet its own circuit: taken off the one that it hangs on, on the
    first free space, by what it usually draws."""
    reader.phrase(("put", "give", "move"))
    boxes = reader.boxes()
    word = reader.phrase(boxes)
    if word is None:
        return None
    reader.phrase(("gets", "has", "on", "goes on", "needs", "wants", "is on"))
    if reader.phrase(("its own circuit", "a circuit of its own", "own circuit", "a dedicated circuit")) is None:
        return None
    box, job = boxes[word], reader.scene.job
    now = reader.circuit_of(box)
    if now is not None and len(now.chain) == 1:
        raise reader.refuse(f"{box.name} is alone on {now.name} already", reader.pos)
    panel = next((p for p in job.panels if now is not None and p.id == now.panel), reader.scene.panel)
    if panel is None:
        raise reader.refuse("there is no panel yet: set one in Boxes with `panel` and a wall")
    said = new_circuit(reader, {}, title_of(reader.scene.book, box), "", [box], None, panel)
    off = [{"op": "unchain", "boxes": [box.id]}] if now is not None else []
    return replace(said, edits=[*off, *said.edits])


_PIPE_SIZE = re.compile(r"\s*(?P<n>\d(?:[ -]\d/\d|/\d)?)\s*(?:\"|in\b|inch\b)?(?=\s+[a-z])", re.IGNORECASE)


def every_method(reader: SceneReader) -> Said | None:
    """All circuits in emt; run everything in mc: the wiring method of every circuit of the job."""
    reader.phrase(("run", "wire", "put", "make", "do"))
    if reader.phrase(("all circuits", "every circuit", "everything", "it all", "it", "the whole job")) is None:
        return None
    if reader.phrase(("in", "with")) is None:
        return None
    if (cable := reader.take(_CABLE)) is not None:
        reader.phrase(("cable", "nm", "nm-b", "throughout"))
        return _rewired(reader, cable["wire"])
    size = reader.take(_PIPE_SIZE)
    methods = {**METHOD_WORDS, **dict.fromkeys(("emt", "pipe", "conduit", "raceway", "pvc"), "raceway")}
    method = methods[reader.need(methods, "a wiring method: emt, mc, nm-b")]
    own = [circuit for circuit in reader.scene.job.circuits if circuit.method != method]
    if not own:
        raise reader.refuse("every circuit is wired so already" if reader.scene.job.circuits else "no circuit yet")
    edits = [{"op": "set", "kind": "circuit", "id": circuit.id, "set": {"method": method}} for circuit in own]
    count = f"{len(own)} circuits are" if len(own) > 1 else "one circuit is"
    told = [f"{count} in {method if method != 'raceway' else 'pipe'} now"]
    if size is not None:
        told.append(f"the size of each pipe follows from its wires; {size['n']} in is said of a way")
    return Said(edits, told=told)


def _rewired(reader: SceneReader, wire: str) -> Said:
    """Every branch circuit whose breaker this wire bears, in it; what wants a larger one stays as it is, told."""
    order = wire_sizes(reader.scene.book)
    own = [circuit for circuit in reader.scene.job.circuits if circuit.feeds is None]
    least = {c.id: wire_for(reader, {"breaker_a": c.breaker_a, "material": c.material}) for c in own}
    fits = [c for c in own if order.index(least[c.id]) <= order.index(wire)]
    if not fits:
        raise reader.refuse(f"no circuit may be wired in {wire}" if own else "no circuit yet")
    left = [c.name for c in own if c not in fits]
    told = [f"{len(fits)} circuits are wired in {wire} now"]
    told += [f"left as they are, with breakers that want more: {', '.join(left[:6])}"] if left else []
    return Said([{"op": "rewire", "circuit": c.id, "size": wire} for c in fits if c.wire_size != wire], told=told)


def after(reader: SceneReader) -> Said | None:
    """Put R-1 after R-2; R-1 comes after R-2: on the circuit of R-2, behind it."""
    reader.phrase(("put", "move"))
    boxes = reader.boxes()
    word = reader.phrase(boxes)
    if word is None or reader.phrase(("comes after", "goes after", "is after", "after")) is None:
        return None
    before = reader.phrase(boxes)
    if before is None or before == word:
        return None
    found = reader.circuit_of(boxes[before])
    if found is None:
        raise reader.refuse(f"{before} is on no circuit yet", reader.pos)
    if reader.phrase(["on"]) is not None and _circuit(reader) is not found:
        raise reader.refuse(f"{before} is on {reader.circuit_label(found)}", reader.pos)
    edit = {"op": "chain", "circuit": found.id, "boxes": [boxes[word].id], "after": boxes[before].id}
    return Said([edit], panel=found.panel)


def shared(reader: SceneReader) -> Said | None:
    """9 and 11 share a neutral; tie 9 and 11; share a neutral between 9 and 11."""
    first = reader.phrase(("tie", "share a neutral between", "share the neutral of")) is not None
    one = _circuit(reader)
    if one is None or reader.phrase(("and", "with", "to")) is None or (two := _circuit(reader)) is None:
        return None
    return paired(reader, one, two) if first or reader.phrase(("share a neutral", "are tied")) is not None else None


def fed(reader: SceneReader) -> Said | None:
    """A 60 amp feeder to Panel S; add a feeder from Panel H to Panel S."""
    reader.phrase(("add", "run"))
    reader.phrase(("a", "an"))
    item: dict[str, Any] = {}
    while circuit_part(reader, item):
        pass
    if reader.phrase(["feeder"]) is None:
        return None
    source = reader.a_panel() if reader.phrase(["from"]) is not None else None
    if reader.phrase(("to", "for")) is None:
        return None
    if (target := reader.a_panel()) is None:
        names = reader.buildings()
        word = reader.phrase(names)
        if word is None:
            return None
        own = [panel for panel in reader.scene.job.panels if panel.structure == names[word].id]
        if len(own) != 1:
            there = f"{len(own)} panels: say which" if own else f"no panel: put one there, as `panel S in {word}`"
            raise reader.refuse(f"{word} has {there}")
        target = own[0]
    return feeder(reader, target, source, item)


def taped(reader: SceneReader) -> Said | None:
    """Panel H to R-1 is 32'; R-1 to R-2 is 12': a cable of no drawn house, as it was taped from box to box."""
    one = _node(reader)
    if one is None or reader.phrase(("to", "and")) is None or (two := _node(reader)) is None:
        return None
    reader.phrase(("is", "are", "measures"))
    if not reader.sees_length():
        return None
    at = reader.pos
    inches = reader.length()
    reader.phrase(["apart"])
    ends = {one.id, two.id}
    for found in reader.scene.job.circuits:
        for hop in found.chain:
            if {hop.box, hop.after or found.panel} != ends:
                continue
            if hop.path:
                raise reader.refuse(
                    f"the way from {one.name} to {two.name} is walked: its legs say how long it is", at
                )
            longer = [{**item.model_dump(), **({"length_in": inches} if item is hop else {})} for item in found.chain]
            edit = {"op": "set", "kind": "circuit", "id": found.id, "set": {"chain": longer}}
            return Said([edit], panel=found.panel)
    raise reader.refuse(f"no cable goes from {one.name} to {two.name}", at)


SPOKEN = (
    owned,
    roomed,
    taped,
    moved,
    changed,
    swapped,
    apart,
    chained,
    on_a_new,
    added,
    fed_by,
    after,
    shared,
    fed,
    every_method,
)
