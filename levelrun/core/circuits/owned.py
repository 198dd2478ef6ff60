"""A circuit said behind what it is for: fridge, on its own circuit; range on the west wall 50a."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from levelrun.core.boxes.edits import BOX
from levelrun.core.boxes.parts import PLUGS
from levelrun.core.boxes.setting import set_box
from levelrun.core.boxes.things import SERVES
from levelrun.core.circuits.grouped import group_said
from levelrun.core.circuits.parts_said import circuit_part
from levelrun.core.circuits.usual import title_of, usual_of
from levelrun.core.circuits.words import home_of, new_circuit
from levelrun.core.editing import add_part, next_id
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Room
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.trade.conductors.sizing import breaker_ratings

_OWN = ("its own", "their own", "the same", "a dedicated", "a separate", "a new", "one", "an", "a")
# How such a circuit is said, behind `on`.
OWN_CIRCUIT = (
    r"(?:(?:its|their)\s+own\b(?!\s+switch)|(?:an?|one|the\s+same)\s+(?:new\s+|dedicated\s+|separate\s+)?"
    r"(?:(?:\d+\s*(?:volts?|v)\s+)?\d+[\s-]*(?:amps?|a)\b(?:\s+(?:gfci|afci|dual))?\s*)?(?:circuit|breaker)\b)"
)
_BARE = re.compile(r"(?P<n>\d+)(?=\s*(?:circuit\b|breaker\b|$|[,;\n]))", re.IGNORECASE)


def owned(reader: SceneReader) -> Said | None:
    """On its own 20 amp circuit; its own 20; 50a: behind the sentence that set what the circuit is for. None where
    no sentence before it set a box, or marked what takes an outlet."""
    scene = reader.scene
    meant = {*scene.made, scene.node_id}
    boxes = [box for box in scene.job.boxes if box.id in meant and reader.circuit_of(box) is None]
    outlet = _at_what_was_marked(reader) if not boxes else []
    if outlet:
        there = add_part(scene.job, scene.book, BOX, outlet[0]["item"])
        boxes, reader.scene = [there.boxes[-1]], replace(scene, job=there)
    try:
        said = _on_a_circuit(reader, boxes) if boxes else None
    finally:
        reader.scene = scene
    return replace(said, edits=[*outlet, *said.edits]) if said is not None else None


PLUGS_ONLY = ("laundry", "garage", "kitchen", "dining")  # whose circuits the code keeps for receptacles (210.11(C))


def roomed(reader: SceneReader) -> Said | None:
    """Bath circuit 20a; a 15 amp bedroom circuit, afci: what of a room is on no circuit yet; of a laundry, a garage
    its receptacles. Lights circuit 15a, dryer circuit. None where no such words stand here."""
    reader.phrase(("add", "put in", "run"))
    reader.phrase(("a", "an", "the"))
    reader.phrase(("new", "dedicated", "separate"))
    item: dict[str, Any] = {}
    while circuit_part(reader, item):
        pass
    group = _of_a_room(reader) or _of_the_building(reader)
    if group is None or reader.phrase(("circuit", "breaker")) is None:
        return None
    while circuit_part(reader, item):
        pass
    if not reader.over() or (panel := reader.scene.panel) is None:
        return None
    (name, boxes), rooms = group, {room.name.casefold() for room in reader.scene.job.rooms}
    if not boxes:
        raise reader.refuse(f"{name}: no box is on no circuit; set its outlets first", reader.pos)
    one = title_of(reader.scene.book, boxes[0]) if len(boxes) == 1 and name.casefold() not in rooms else ""
    return new_circuit(reader, item, one, name, boxes, home_of(reader, panel, boxes, unfed=True), panel)


def _of_a_room(reader: SceneReader) -> tuple[str, list[Box]] | None:
    """A room before the word circuit, and what of it is on none; None where no room stands here."""
    rooms, start = reader.scene.rooms(), reader.pos
    word = reader.phrase(rooms)
    if word is None or not reader.sees(("circuit", "breaker")):
        reader.pos = start
        return None
    about = rooms[word]
    kinds = PLUGS if about.use in PLUGS_ONLY else ()
    return about.name, [
        box for box in reader.scene.job.boxes
        if box.room == about.id and (box.kind in kinds or not kinds) and box.kind not in ("junction", "disconnect")
        and not _apart(reader, about, box) and reader.circuit_of(box) is None
    ]  # fmt: skip


def _of_the_building(reader: SceneReader) -> tuple[str, list[Box]] | None:
    """Lights, outlets, a dryer before the word circuit: all of the building looked at that are on none."""
    scene = reader.scene
    reader.scene = replace(scene, room_id=None, level_id=scene.level.id if scene.level is not None else None)
    try:
        found = group_said(reader)
    except TextError:
        return None
    finally:
        reader.scene = scene
    if found is None or scene.level is None:
        return found
    here = scene.job.structure_of(scene.level.id).id
    own = [box for box in found[1] if box.structure == here]
    return found[0], own or found[1]


def _apart(reader: SceneReader, about: Room, box: Box) -> bool:
    """Whether a box wants a circuit of its own; a washer is what the laundry's circuit is for."""
    usual = usual_of(reader.scene.book, box)
    return usual.own and (about.use != "laundry" or usual.volts != 120)


def _at_what_was_marked(reader: SceneReader) -> list[dict[str, Any]]:
    """The outlet behind the appliance that the sentence before marked on a wall; empty where it marked none."""
    scene = reader.scene
    marked = [item for item in scene.job.fixtures if item.id in scene.made and item.kind in SERVES]
    if len(marked) != 1:
        return []
    other = SceneReader(f"{marked[0].kind} outlet behind the {marked[0].kind}")
    other.scene = replace(scene, room_id=marked[0].room)
    (edit,) = set_box(other).edits
    return [{**edit, "item": {"id": next_id(scene.job, "b"), **edit["item"]}}]


def _on_a_circuit(reader: SceneReader, boxes: list[Box]) -> Said | None:
    reader.phrase(["on"])
    said = reader.phrase(_OWN) is not None
    while reader.phrase(("new", "dedicated", "separate")) is not None:
        said = True
    item: dict[str, Any] = {}
    reader.skip()
    if said and (bare := _BARE.match(reader.text, reader.pos)) is not None:
        made = breaker_ratings(reader.scene.book)
        if float(bare["n"]) not in made:
            raise reader.refuse(f"{bare['n']} A is no breaker", reader.pos, [f"{rating:g}a" for rating in made])
        item["breaker_a"], reader.pos = float(bare["n"]), bare.end()
    while circuit_part(reader, item):
        pass
    said |= bool(item)
    reader.phrase(("circuit", "breaker"))
    if not said or not reader.over():
        return None
    panel = reader.scene.panel
    if panel is None:
        raise reader.refuse("there is no panel yet: set one in Boxes with `panel` and a wall")
    alone = len(boxes) == 1
    return new_circuit(
        reader, item, title_of(reader.scene.book, boxes[0]) if alone else "", "" if alone else _group(boxes), boxes,
        home_of(reader, panel, boxes, unfed=True), panel,
    )  # fmt: skip


def _group(boxes: list[Box]) -> str:
    """By what several boxes are named together."""
    kinds = {box.kind for box in boxes}
    return {"light": "Lights", "receptacle": "Outlets", "fan": "Fans"}.get(kinds.pop(), "") or "Boxes"
