"""From a job to its rooms: what each one touches."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomContext, RoomView, viewed
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Habits, Job, Level, Panel, Room, Structure
from levelrun.core.kept import Standing
from levelrun.core.site.faces import Face, LevelParts, faces, level_parts
from levelrun.core.site.lived import dwellings

_rooms = Standing[RoomContext](1024)


def room_contexts(job: Job, entering: Mapping[str, tuple[Entering, ...]]) -> list[RoomContext]:
    """Every room of a job, in its order, with what it touches."""
    parts = level_parts(job)
    structures = {level.id: _with_level(item, level) for item in job.structures for level in item.levels}
    around = {level: _around(item) for level, item in parts.items()}
    boxes: dict[str, list[Box]] = {}
    panels: dict[str, list[Panel]] = {}
    for box in job.boxes:
        if box.room is not None:
            boxes.setdefault(box.room, []).append(box)
    for panel in job.panels:
        if panel.room is not None:
            panels.setdefault(panel.room, []).append(panel)
    lived = dwellings(job)
    found = []
    for room in job.rooms:
        structure, here = structures[room.level], around[room.level][room.id]
        standing, cabinets = tuple(boxes.get(room.id, ())), tuple(panels.get(room.id, ()))
        received = tuple([(box.id, entering[box.id]) for box in standing if box.id in entering])
        level = parts[room.level].level
        found.append(
            _context(job.habits, room, level, structure, here, standing, cabinets, received, lived[structure.id])
        )
    return found


@dataclass(frozen=True, eq=False)
class _Around:
    """A room's walls, and the rooms behind them and behind its doors, by id: what they are called and are for."""

    faces: tuple[Face, ...]
    names: tuple[tuple[str, str], ...]
    uses: tuple[tuple[str, str], ...]


@lru_cache(maxsize=128)
def _around(parts: LevelParts) -> dict[str, _Around]:
    """What is round every room of a level. Kept while the level stands."""
    rooms = {room.id: room for room in parts.rooms}
    found: dict[str, _Around] = {}
    for ident, own in faces(parts).items():
        behind = {mate.room for face in own for mate in face.mates}
        keys = sorted(behind | {opening.to_room for face in own for opening in face.openings})
        near = [rooms[key] for key in keys if key in rooms]
        found[ident] = _Around(own, tuple((r.id, r.name) for r in near), tuple((r.id, r.use) for r in near))
    return found


def _context(
    habits: Habits,
    room: Room,
    level: Level,
    structure: Structure,
    here: _Around,
    boxes: tuple[Box, ...],
    panels: tuple[Panel, ...],
    entering: tuple[tuple[str, tuple[Entering, ...]], ...],
    lived: bool | None,
) -> RoomContext:
    """A room with what it touches: the same one while all of that is the same."""

    def made() -> RoomContext:
        return RoomContext(
            room=room,
            level=level,
            structure=structure,
            habits=habits,
            faces=here.faces,
            boxes=boxes,
            panels=panels,
            entering=entering,
            names=here.names,
            lived=lived,
            uses=here.uses,
        )

    comes = [item for _, items in entering for item in (None, *items)]
    source = (room, structure, habits, *here.faces, None, *boxes, None, *panels, *comes)
    return _rooms.get((room.id, here.names, lived, here.uses), source, made)


@lru_cache(maxsize=256)
def _with_level(structure: Structure, level: Level) -> Structure:
    """A structure with one of its levels alone, so that a change of another does not reach a room here."""
    return structure.model_copy(update={"levels": (level,)})


def room_view(job: Job, book: Codebook, room_id: str) -> RoomView:
    """One room as a view, without what enters its boxes. Raises KeyError."""
    context = next((item for item in room_contexts(job, {}) if item.room.id == room_id), None)
    if context is None:
        raise KeyError(room_id)
    return viewed(book, context)
