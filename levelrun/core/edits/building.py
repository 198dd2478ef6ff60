"""Edits of the building: walls moved and framed, rooms filled with boxes and cleared."""

from __future__ import annotations

from typing import Any

from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.placing import fill
from levelrun.core.codebook import Codebook
from levelrun.core.edits.models import ClearRoom, FillRoom, MoveWall, SetSide
from levelrun.core.edits.parts import add_part, made, users_of, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Room, Side
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.sharing import mates

FRAMING = ("stud", "spacing_in", "first_stud_in", "bearing", "insulation")
LEAST_WALL_IN = 12.0


def room_of(job: Job, room_id: str) -> Room:
    """The room with this id. Raises EditError."""
    try:
        return job.room(room_id)
    except KeyError:
        raise EditError(f"no room {room_id!r} in this job", key="room", value=room_id) from None


def _check_side(room: Room, side: int) -> None:
    if side >= len(room.corners):
        raise EditError(
            f"{room.name} has no wall {side}", key="side", value=side, allowed=[f"0 to {len(room.corners) - 1}"]
        )


def _level_rooms(job: Job, room: Room) -> tuple[Room, ...]:
    return tuple(item for item in job.rooms if item.level == room.level)


def move_wall(job: Job, edit: MoveWall) -> Job:
    """A wall moved square to itself, with the walls that back onto it; no wall may end up shorter than 12 in."""
    room = room_of(job, edit.room)
    _check_side(room, edit.side)
    shared = mates(_level_rooms(job, room))[room.id, edit.side]
    moves = {room.id: [(edit.side, edit.by_in)]}
    for mate in shared:
        moves.setdefault(mate.room, []).append((mate.side, -edit.by_in))
    rooms = tuple(_moved(item, moves[item.id]) if item.id in moves else item for item in job.rooms)
    return with_parts(job, rooms=rooms)


def _moved(room: Room, moves: list[tuple[int, float]]) -> Room:
    corners = list(room.corners)
    count = len(corners)
    for side, by in moves:
        out = walls_of(room)[side].out
        for index in (side, (side + 1) % count):
            x, y = corners[index]
            corners[index] = (round((x + out[0] * by) * 16) / 16, round((y + out[1] * by) * 16) / 16)
    moved = room.model_copy(update={"corners": tuple(corners)})
    for before, wall in zip(walls_of(room), walls_of(moved), strict=True):
        turned = before.along[0] * wall.along[0] + before.along[1] * wall.along[1] < 0.5
        if wall.length_in < LEAST_WALL_IN or turned:
            raise EditError(
                f"the {wall.name} wall of {room.name} would be {wall.length_in:.0f} in; allowed: 12 in or more",
                key="by_in",
                value=moves[0][1],
                allowed=["walls of 12 in or more"],
            )
    return moved


def set_side(job: Job, edit: SetSide) -> Job:
    """Fields of one wall, or of all walls of a room; what is framing is set on the other face too."""
    room = room_of(job, edit.room)
    if edit.side is not None:
        _check_side(room, edit.side)
    shared = mates(_level_rooms(job, room))
    framing = {key: value for key, value in edit.set.items() if key in FRAMING}
    wanted: dict[str, dict[int, dict[str, Any]]] = {room.id: {}}
    for side in range(len(room.sides)) if edit.side is None else [edit.side]:
        wanted[room.id][side] = edit.set
        for mate in shared[room.id, side] if framing else ():
            wanted.setdefault(mate.room, {}).setdefault(mate.side, framing)
    rooms = tuple(_framed(item, wanted[item.id]) if item.id in wanted else item for item in job.rooms)
    return with_parts(job, rooms=rooms)


def _framed(room: Room, wanted: dict[int, dict[str, Any]]) -> Room:
    sides = tuple(
        made(Side, {**side.model_dump(), **wanted[index]}, "set") if index in wanted else side
        for index, side in enumerate(room.sides)
    )
    return room.model_copy(update={"sides": sides})


def fill_room(job: Job, edit: FillRoom, book: Codebook) -> Job:
    """The room with the boxes that it still lacked. Raises EditError where it lacks none."""
    room = room_of(job, edit.room)
    placed = fill(room_view(job, book, room.id))
    if not placed:
        raise EditError(f"{room.name} lacks no box by the rules of its use", key="room", value=room.name)
    for item in placed:
        job = add_part(job, book, "box", item.item(room.id, job.structure_of(room.level).id))
    return job


def clear_room(job: Job, edit: ClearRoom) -> Job:
    """The job without a room and what is in it. Raises EditError that names what uses its boxes."""
    room = room_of(job, edit.room)
    inside = [node for node in job.nodes if node.room == room.id]
    users = [f"{node.name} ({user})" for node in inside for user in users_of(job, node.id)]
    if users:
        raise EditError(
            f"{room.name} holds boxes in use: {', '.join(users[:4])}; take those off first",
            key="room",
            value=room.name,
        )
    gone = {node.id for node in inside}
    return with_parts(
        job,
        rooms=tuple(item for item in job.rooms if item.id != room.id),
        openings=tuple(item for item in job.openings if item.room != room.id),
        fixtures=tuple(item for item in job.fixtures if item.room != room.id),
        boxes=tuple(item for item in job.boxes if item.id not in gone),
        panels=tuple(item for item in job.panels if item.id not in gone),
    )
