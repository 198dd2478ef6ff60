"""Sentences of the record as they are spoken: they begin with the box, the wall or the building, and say then what
was done or found there. Each reader answers None where a sentence is none of its own."""

from __future__ import annotations

from typing import Any

from levelrun.core.errors import TextError
from levelrun.core.job import Box, Panel
from levelrun.core.roughin.named import nodes_named
from levelrun.core.roughin.visit_words import (
    ROUGH,
    VISITS,
    has_failed,
    has_passed,
    kind_of_visit,
    mended_now,
    place_of,
    to_come,
)  # fmt: skip
from levelrun.core.roughin.words import (
    ALL_IN,
    after_all_of,
    behind,
    built_at,
    closed,
    left_of,
    made_in,
    opened,
    screws_of,
    steps_of,
    surface,
    ticked,
    torqued,
)  # fmt: skip
from levelrun.core.site.naming import COMPASS
from levelrun.core.site.scene import IS, Said, SceneReader

ASKED = ("what is behind", "what's behind", "whats behind", "what is in", "what's in")
MADE = ("made up", "all made up", "done", "all done", "finished", "roughed in", "roughed")
LUGS = ("lugs", "lug", "screws")
MENDED = ("mended", "fixed", "repaired")
OUT = ("left out", "not set", "not installed")
WENT = ("built", "went", "sits", "moved to")
SHUT = ("shut", "closed", "closed up", "covered", "drywalled", "boarded")
OPEN = ("open again", "reopened", "opened again", "opened up")


def of_box(reader: SceneReader) -> Said | None:
    """R-10 is made up on 2026-05-12; R-1 and R-2 are made up; R-1 to R-4 are; Panel H 9 torqued to 20;
    R-11 left out because ...; R-10 was built 4' at 44"."""
    if (screws := _screws_first(reader)) is not None:
        return screws
    reader.phrase(("box", "boxes"))
    nodes = nodes_named(reader)
    word = reader.phrase(nodes)
    if word is None:
        return None
    node = nodes[word]
    more: list[Box | Panel] = [*reader.boxes_up_to(node)] if isinstance(node, Box) else []
    more += _more(reader, nodes)
    if more:
        return _all_made(reader, [node, *more])
    if isinstance(node, Panel) and (screw := reader.phrase(screws_of(reader, node))) is not None:
        reader.phrase(LUGS)
        reader.phrase(IS)
        return torqued(reader, node, screw) if reader.phrase(["torqued"]) else None
    reader.phrase(IS)
    if reader.phrase(MADE) or reader.sees(steps_of(node)):
        return ticked(reader, node)
    if reader.phrase(MENDED):
        return mended_now(reader, [f for f in reader.scene.job.faults if f.node == node.id and not f.mended_on])
    if reader.phrase(OUT):
        return left_of(reader, node)
    if reader.phrase(["set after all", "there after all"]):
        return after_all_of(node)
    return built_at(reader, node) if reader.phrase(WENT) else None


def _screws_first(reader: SceneReader) -> Said | None:
    """Main lugs of G torqued to 250. None where no such words stand here."""
    start = reader.pos
    panels = reader.panels()
    if reader.phrase(("main lugs", "main lug", "lugs", "main")) is not None and reader.phrase(("of", "in", "on")):
        word = reader.phrase(panels)
        reader.phrase(IS)
        if word is not None and reader.phrase(["torqued"]):
            return torqued(reader, panels[word], "main")
    reader.pos = start
    return None


def _more(reader: SceneReader, nodes: dict[str, Box | Panel]) -> list[Box | Panel]:
    """Boxes after the first, with `and` or a comma between them."""
    found: list[Box | Panel] = []
    while True:
        start = reader.pos
        reader.phrase(["and"])
        word = reader.phrase(nodes)
        if word is None:
            reader.pos = start
            return found
        found.append(nodes[word])


def _all_made(reader: SceneReader, nodes: list[Box | Panel]) -> Said | None:
    """Of several boxes the same: made up, or steps of each."""
    reader.phrase(IS)
    start = reader.pos
    edits: list[dict[str, Any]] = []
    for node in nodes:
        reader.pos = start
        if not reader.phrase(MADE) and not reader.sees(steps_of(node)):
            return None
        edits += ticked(reader, node).edits
    return Said(edits)


def of_wall(reader: SceneReader) -> Said | None:
    """The north wall of the Kitchen is closed on 2026-05-20; everything in Kitchen is made up."""
    rooms = reader.scene.rooms()
    reader.phrase(ALL_IN)
    start = reader.pos
    word = reader.phrase(rooms)
    reader.phrase(IS)
    if word is not None and reader.phrase(MADE):
        return made_in(reader, rooms[word])
    reader.pos = start
    if not reader.sees((*rooms, *COMPASS, "ceiling", "floor")):
        return None
    try:
        room, side = surface(reader)
    except TextError:
        return None
    reader.phrase(IS)
    if reader.phrase(SHUT):
        return closed(reader, room, side)
    return opened(room, side) if reader.phrase(OPEN) else None


def asked(reader: SceneReader) -> Said | None:
    """What is behind Kitchen north at 4' up 40"."""
    return behind(reader) if reader.phrase(ASKED) else None


def of_inspection(reader: SceneReader) -> Said | None:
    """Drywall inspection of House on 2026-06-02 10:30; House passed drywall; the drywall inspection failed: ..."""
    job = reader.scene.job
    places = {item.name: item.id for item in job.structures} | {item.name: item.id for item in job.trenches}
    ends = {"passed": has_passed, "failed": has_failed}
    first = reader.phrase(places)
    result = reader.phrase(ends)
    if reader.phrase(["inspection"]):
        reader.expect(VISITS)
        raise reader.refuse(f"which inspection: {', '.join(VISITS)}", allowed=list(VISITS))
    before = reader.pos
    named = reader.phrase((*VISITS, *ROUGH)) is not None
    about = named and (reader.sees(["inspection"]) or result is not None)
    reader.pos = before
    if not about:
        return None
    kind = kind_of_visit(reader)
    reader.phrase(IS)
    result = result or reader.phrase(ends)
    place = places[first] if first is not None else place_of(reader, kind)
    reader.phrase(IS)
    result = result or reader.phrase(ends)
    return ends[result](reader, kind, place) if result is not None else to_come(reader, kind, place)


SPOKEN = (asked, of_inspection, of_box, of_wall)
