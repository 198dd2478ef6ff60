"""From a job to its rooms: what each one touches."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache

from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomContext, RoomView
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Habits, Job, Level, Panel, Room, Structure
from levelrun.core.kept import Standing
from levelrun.core.site.faces import Face, faces, level_parts
from levelrun.core.site.lived import dwellings

_rooms = Standing[RoomContext](1024)


def room_contexts(job: Job, entering: Mapping[str, tuple[Entering, ...]]) -> list[RoomContext]:
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
    uses = {room.id: room.use for room in job.rooms}
    lived = dwellings(job)
    found = []
    for room in job.rooms:
        level = parts[room.level]
        structure = _with_level(structures[room.level], level.level)
        standing, cabinets = tuple(boxes.get(room.id, ())), tuple(panels.get(room.id, ()))
        received = tuple((box.id, entering[box.id]) for box in standing if box.id in entering)
        own = faces(level)[room.id]
        around = tuple((key, names[key]) for key in _around(own) if key in names)
        found.append(
            _context(
                job.habits,
                room,
                level.level,
                structure,
                own,
                standing,
                cabinets,
                received,
                around,
                lived[structure.id],
                tuple((key, uses[key]) for key, _ in around),
            )
        )
    return found


def _context(
    habits: Habits,
    room: Room,
    level: Level,
    structure: Structure,
    own: tuple[Face, ...],
    boxes: tuple[Box, ...],
    panels: tuple[Panel, ...],
    entering: tuple[tuple[str, tuple[Entering, ...]], ...],
    names: tuple[tuple[str, str], ...],
    lived: bool | None,
    uses: tuple[tuple[str, str], ...],
) -> RoomContext:
    """A room with what it touches: the same one while all of that is the same."""
    comes = (item for _, items in entering for item in (None, *items))
    source = (room, structure, habits, own, *boxes, None, *panels, *comes)

    def made() -> RoomContext:
        return RoomContext(
            room=room,
            level=level,
            structure=structure,
            habits=habits,
            faces=own,
            boxes=boxes,
            panels=panels,
            entering=entering,
            names=names,
            lived=lived,
            uses=uses,
        )

    return _rooms.get((room.id, names, lived, uses), source, made)


@lru_cache(maxsize=512)
def _around(own: tuple[Face, ...]) -> tuple[str, ...]:
    """The rooms behind the walls and doors of a room, by id."""
    behind = {mate.room for face in own for mate in face.mates}
    return tuple(sorted(behind | {opening.to_room for face in own for opening in face.openings}))


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
