"""From a job to its rooms: what each one touches."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomContext, RoomView
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Job, Level, Panel, Structure
from levelrun.core.site.faces import faces, level_parts


def room_contexts(job: Job, entering: Mapping[str, Sequence[Entering]]) -> list[RoomContext]:
    """Every room of a job, in its order, with what it touches."""
    parts = level_parts(job)
    structures = {level.id: item for item in job.structures for level in item.levels}
    boxes: dict[str, list[Box]] = {}
    panels: dict[str, list[Panel]] = {}
    for box in job.boxes:
        if box.room is not None:
            boxes.setdefault(box.room, []).append(box)
    for panel in job.panels:
        if panel.room is not None:
            panels.setdefault(panel.room, []).append(panel)
    names = {room.id: room.name for room in job.rooms}
    found = []
    for room in job.rooms:
        level = parts[room.level]
        own = faces(level)[room.id]
        around = {mate.room for face in own for mate in face.mates} | {o.to_room for f in own for o in f.openings}
        standing = tuple(boxes.get(room.id, ()))
        found.append(
            RoomContext(
                room=room,
                level=level.level,
                structure=_with_level(structures[room.level], level.level),
                habits=job.habits,
                faces=own,
                boxes=standing,
                panels=tuple(panels.get(room.id, ())),
                entering=tuple((box.id, tuple(entering[box.id])) for box in standing if box.id in entering),
                names=tuple(sorted((key, names[key]) for key in around if key in names)),
            )
        )
    return found


@lru_cache(maxsize=256)
def _with_level(structure: Structure, level: Level) -> Structure:
    """A structure with one of its levels alone, so that a change of another does not reach a room here."""
    return structure.model_copy(update={"levels": (level,)})


def room_view(job: Job, book: Codebook, room_id: str) -> RoomView:
    """One room as a view, without what enters its boxes. Raises KeyError."""
    context = next((item for item in room_contexts(job, {}) if item.room.id == room_id), None)
    if context is None:
        raise KeyError(room_id)
    return RoomView(book, context)
