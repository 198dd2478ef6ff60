"""The sentence that wires what is on no circuit yet, as it would be proposed."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.boxes.parts import PLUGS
from levelrun.core.boxes.things import NUMBERS
from levelrun.core.circuits.parts_said import circuit_part
from levelrun.core.circuits.proposer import Proposal, proposing
from levelrun.core.job import Job
from levelrun.core.site.naming import spaces_text
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.ways.ordering import distances

NO_PANEL = "there is no panel yet: set one with `panel` and a wall"
_WHOSE = ("small appliance", "small-appliance", "kitchen counter", "counter", "countertop", "kitchen")
COUNTERS = tuple(f"{whose} circuit{s}" for whose in _WHOSE for s in ("", "s"))
_COUNT = re.compile(rf"(?P<n>[1-6]|{'|'.join(NUMBERS)})\s+", re.IGNORECASE)
ALL = ("everything", "all", "the rest", "the house", "all boxes", "every box", "circuits")
TO_CODE = tuple(f"{verb}circuits {how}" for verb in ("", "make ", "all ") for how in ("to code", "as needed"))


def wired(reader: SceneReader) -> Said | None:
    """Wire everything; wire Kitchen; propose circuits: the circuits that would be proposed, all taken at once."""
    whole = reader.phrase(TO_CODE)
    verb = whole or reader.phrase(("wire up", "wire", "propose"))
    if verb is None:
        return None
    rooms, job = reader.scene.rooms(), reader.scene.job
    about = None
    if whole is None and reader.phrase(ALL) is None and not (verb == "propose" and reader.over()):
        word = reader.phrase(rooms)
        if word is None:
            return None
        about = rooms[word]
    if not reader.over():
        return None
    if not job.panels:
        raise reader.refuse(NO_PANEL, reader.pos)
    if about is not None:
        job = job.model_copy(update={"boxes": tuple(box for box in job.boxes if box.room == about.id)})
    return _taken(reader, job)


def counters(reader: SceneReader) -> Said | None:
    """Two small appliance circuits; kitchen counter circuits: what stands at the counters and the walls of a kitchen
    and is on no circuit yet, shared out over so many. None where no such words stand here."""
    reader.phrase(("add", "put in", "run"))
    reader.phrase(("a", "an", "the"))
    several = reader.take(_COUNT)
    count = NUMBERS.get(several["n"].lower()) or int(several["n"]) if several is not None else 0
    item: dict[str, Any] = {}
    while circuit_part(reader, item):
        pass
    if reader.phrase(COUNTERS) is None:
        return None
    while circuit_part(reader, item):
        pass
    named = reader.phrase(reader.scene.rooms()) if reader.phrase(("for", "in")) is not None else None
    if not reader.over():
        return None
    if item.get("breaker_a", 20.0) != 20:
        raise reader.refuse(f"{item['breaker_a']:g} A: counters are on 20 A (210.11(C)(1))", reader.pos, ["20a"])
    job, rooms = reader.scene.job, reader.scene.rooms()
    uses = {room.id: room.use for room in job.rooms}
    own = [
        box for box in job.boxes
        if box.kind in PLUGS and not box.outdoors and box.serves in ("", "counter")
        and (box.serves or uses.get(box.room or "") in ("kitchen", "dining"))
        and (named is None or box.room == rooms[named].id) and reader.circuit_of(box) is None
    ]  # fmt: skip
    if not own:
        none_left = "no outlet of a counter is without a circuit; say `outlets above the counters` first"
        raise reader.refuse(none_left, reader.pos)
    if not job.panels:
        raise reader.refuse(NO_PANEL, reader.pos)
    job = job.model_copy(update={"boxes": (*(b for b in job.boxes if reader.circuit_of(b) is not None), *own)})
    return _taken(reader, job, min(count, len(own)))


def _taken(reader: SceneReader, job: Job, kitchens: int = 0) -> Said:
    """All circuits that would be proposed for these boxes."""
    book = reader.scene.book
    found = [item for _, item in proposing(job, book, room_contexts(job, {}), distances(job, book), kitchens)]
    if not found:
        return Said([], told=["every box is on a circuit already"])
    panels = {panel.id: panel.name for panel in job.panels}
    listed = ", ".join(f"{item.name} {_where(item, panels)}" for item in found)
    told = [f"{len(found)} circuit{'s' * (len(found) > 1)}: {listed}"]
    return Said([edit for item in found for edit in item.edits], panel=found[0].panel, told=told)


def _where(item: Proposal, panels: Mapping[str, str]) -> str:
    if item.space is None:
        return "on no space"
    return f"on {spaces_text(item.space, item.poles, item.half)} of {panels[item.panel]}"
