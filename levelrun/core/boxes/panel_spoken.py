"""Sentences about panels that begin with the panel, or with what it is."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from levelrun.core.boxes.panel_spaces import counted_here, said_of_panel
from levelrun.core.boxes.panel_words import INSIDE, KINDS, spoken_panel
from levelrun.core.boxes.qualities import PANELS
from levelrun.core.job import Panel
from levelrun.core.site.called import BUILDINGS
from levelrun.core.site.framing import finish_in
from levelrun.core.site.naming import SUB_PANELS
from levelrun.core.site.scene import IS, Said, SceneReader

FLUSH = ("in the wall", "flush", "recessed")
BARE = ("sub-panel", "sub", "bonded", "lugs")


def the_panel(reader: SceneReader) -> Panel | None:
    """A panel by its name, or the only one as the panel."""
    if (found := reader.a_panel()) is not None:
        return found
    panels = reader.scene.job.panels
    return panels[0] if len(panels) == 1 and reader.phrase(["panel"]) is not None else None


JOINS = ("and", "a", "an", "with", "has")


def panel_is(reader: SceneReader) -> Said | None:
    """Panel G is 200 amps; G has 40 spaces; the panel is in the wall, surface mounted, a sub-panel, bonded; replace
    panel G with 200a 40 spaces."""
    replaced = reader.phrase(("replace", "swap", "upgrade")) is not None
    found = the_panel(reader)
    if found is None:
        return None
    if replaced:
        if reader.phrase(("with", "by", "to", "for")) is None:
            return None
        reader.phrase(("new", "a new"))
    elif reader.phrase((*IS, "has", "is a", "is now")) is None and not reader.sees(PANELS):
        return None
    reader.phrase(("a", "an", "now"))
    item: dict[str, Any] = {}
    while not reader.over():
        joins = (*JOINS, "panel", "breaker panel") if replaced else JOINS
        if reader.phrase(joins) is not None or counted_here(reader, item):
            continue
        if (word := reader.phrase(PANELS)) is not None:
            item |= PANELS[word]
            continue
        word = reader.phrase(("surface", *FLUSH, *BARE))
        if word is None:
            return None
        if word == "surface":
            item["set_out_in"] = None
        elif word in FLUSH:
            drawn = found.room is not None and found.side is not None
            side = reader.scene.job.room(found.room or "").sides[found.side or 0] if drawn else None
            item["set_out_in"] = finish_in(side) if side is not None else 0.5
        else:
            said_of_panel(reader, item, "sub" if word == "sub-panel" else word)
    return Said([{"op": "set", "kind": "panel", "id": found.id, "set": item}]) if item else None


HAVE = ("there is", "there's", "i have", "i've got", "i got", "we have", "we've got", "have", "got")


def panel_here(reader: SceneReader) -> Said | None:
    """A 200 amp panel called M with 30 spaces in the Utility, west wall; 100 amp sub-panel G in garage."""
    names = {**reader.buildings(), "house": None}
    owner = reader.phrase(names)
    if owner is not None and reader.phrase(("has", "with")) is None and not reader.sees((*SUB_PANELS, "panel")):
        return None  # pump house sub-panel P: it stands there
    first = not reader.scene.job.panels
    plain, before = owner is not None or first, (*HAVE, "add", "put", "install", "a", "an", "the", "existing", "old")
    while (word := reader.phrase(before)) is not None:
        plain |= word in ("existing", "old")
    reader.skip()
    within, word = reader.pos, reader.phrase((*INSIDE, *BUILDINGS)) if first and owner is None else None
    if word is not None and not reader.sees((*SUB_PANELS, *KINDS)):
        return None
    home, scene = names.get(owner or ""), reader.scene
    if home is not None:
        levels = {level.id for level in home.levels}
        rooms = [room.id for room in scene.job.rooms if room.level in levels]
        if scene.room_id not in rooms:
            reader.scene = replace(scene, room_id=rooms[0] if len(rooms) == 1 else None)
    try:
        there = [panel for panel in scene.job.panels if home is not None and panel.structure == home.id]
        called = there[0].name if len(there) == 1 and there[0].room is None else ""
        said = spoken_panel(reader, plain, within if word is not None else None, called)
    finally:
        reader.scene = scene
    if said is None or home is None:
        return said
    added = [
        {**edit, "item": {**edit["item"], "structure": home.id}} if edit["op"] == "add" and edit["kind"] == "panel"
        and not edit["item"].get("room") else edit for edit in said.edits
    ]  # fmt: skip
    return replace(said, edits=added)
