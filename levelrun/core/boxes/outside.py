"""What is said of the outside of a house: outlets front and back, what stands by its front and back doors."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from levelrun.core.boxes.contexts import room_contexts, room_view
from levelrun.core.boxes.edits import BOX
from levelrun.core.boxes.facts import RoomView, viewed
from levelrun.core.boxes.rules.dwelling import outdoor_rule
from levelrun.core.editing import add_part
from levelrun.core.job import Job, Room
from levelrun.core.rulebook import Rule
from levelrun.core.site.naming import Scene
from levelrun.core.site.scene import Said, SceneReader

OUTLETS = tuple(
    f"{out} {plug}s" for out in ("outdoor", "outside", "exterior") for plug in ("outlet", "receptacle", "plug")
)
ROUND = ("front and back", "at the front and the back", "at front and back", "to code", "by code", "as needed")
MOST = 12  # mends one after another
_DOOR = re.compile(
    r"\b(?:by|at|beside|next to|near|over|above|outside(?:\s+of)?)\s+(?:the\s+)?(?P<which>front|back|entry)\s+door\b",
    re.IGNORECASE,
)
# Into what a front door leads first, and a back door: common practice, no source.
FRONT = ("hall", "common", "dining", "bedroom", "utility", "laundry", "kitchen")


def mended(scene: Scene, structure: str, rule: Rule[Sequence[RoomView]]) -> tuple[Job, list[dict[str, Any]]]:
    """What a building lacks by a rule about all of it, as that rule's own mends set it one after another, and the job
    with them."""
    job, edits = scene.job, list[dict[str, Any]]()
    for _ in range(MOST):
        views = [viewed(scene.book, item) for item in room_contexts(job, {}) if item.structure.id == structure]
        found = next((item for item in rule(views) if item.mends), None)
        if found is None:
            break
        edits += found.mends[0].edits
        job = add_part(job, scene.book, BOX, found.mends[0].edits[0]["item"])
    return job, edits


def outdoors(reader: SceneReader) -> Said | None:
    """Outdoor outlets front and back: those that the house lacks by 210.52(E). None where no such words stand here.
    Refuses a building that is no dwelling, or lacks none."""
    reader.phrase(("add", "put", "set"))
    reader.phrase(("2", "two"))
    scene = reader.scene
    if reader.phrase(OUTLETS) is None or reader.phrase(ROUND) is None or not reader.over() or scene.level is None:
        return None
    owner = scene.job.structure_of(scene.level.id)
    job, edits = mended(scene, owner.id, outdoor_rule)
    if not edits:
        raise reader.refuse(f"{owner.name} lacks no outlet outdoors by the rules of a dwelling", reader.pos)
    walls = " and ".join(box.name for box in job.boxes[len(scene.job.boxes) :])
    return Said(
        edits, room=scene.room_id, told=[f"{walls} on the longest outside walls; say where they are otherwise"]
    )


def entrance_room(reader: SceneReader, out: bool, told: list[str]) -> Room | None:
    """The room of the front or the back door that a sentence names, where it names no room and the one looked at has
    no outside door, or what is set stands out of doors; told. None where it is the one looked at, or none is
    named."""
    scene = reader.scene
    found = _DOOR.search(reader.text, reader.pos, reader.line_end())
    if found is None or scene.level is None or reader.room_ahead() is not None:
        return None
    here = {level.id for level in scene.job.structure_of(scene.level.id).levels}
    porches = {room.id for room in scene.job.rooms if room.use == "porch"}
    rooms = []
    for room in (room for room in scene.job.rooms if room.level in here):
        doors = room_view(scene.job, scene.book, room.id).doors
        if any(door.kind != "garage_door" and door.to_room in ("", *porches) for _, door in doors):
            rooms.append(room)
    if not rooms or (scene.room in rooms and not out):
        return None
    order = sorted(rooms, key=lambda room: FRONT.index(room.use) if room.use in FRONT else len(FRONT))
    about = order[-1 if found["which"].lower() == "back" else 0]
    if len(rooms) > 1:
        told.append(f"the {found['which'].lower()} door is taken to be that of {about.name}; say `in` where not")
    return about
