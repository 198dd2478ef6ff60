"""Edits of the building: walls moved and framed."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from levelrun.core.codebook import Codebook
from levelrun.core.editing import Changes, EditBase, PartKind, fields_text, made, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.part import Id
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.parts import Fixture, Opening, Room, Side, Structure
from levelrun.core.site.sharing import mates

SideNumber = Annotated[int, Field(ge=0, le=39)]
FRAMING = ("stud", "spacing_in", "first_stud_in", "bearing", "insulation")
LEAST_WALL_IN = 12.0


class MoveWall(EditBase):
    """Move a wall of a room outward by `by_in` (inward if negative); the other face of a shared wall goes along."""

    op: Literal["move_wall"]
    room: Id
    side: SideNumber
    by_in: Annotated[float, Field(ge=-1200, le=1200, allow_inf_nan=False)]

    def title(self) -> str:
        return f"move a wall {'out' if self.by_in > 0 else 'in'}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return move_wall(job, self)


class SetSide(EditBase):
    """Change how a wall is framed, finished or insulated. Framing holds for both faces of a shared wall."""

    op: Literal["set_side"]
    room: Id
    side: SideNumber | None = None
    set: Changes

    def title(self) -> str:
        return f"wall {fields_text(self.set)}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return set_side(job, self)


def _with_sides(job: Job, book: Codebook, values: dict[str, Any]) -> dict[str, Any]:
    """A new room has a side a corner, as usual where none is said."""
    corners = values.get("corners")
    if "sides" not in values and isinstance(corners, list | tuple):
        return {**values, "sides": [{} for _ in corners]}
    return values


def main_floor(structure: str) -> dict[str, Any]:
    """The main floor that every new building has, as plain data."""
    return {"id": f"{structure}-floor", "name": "Main floor", "kind": "floor", "height_in": 96.0}


STRUCTURE = PartKind(name="structure", field="structures", model=Structure, letter="s")
ROOM = PartKind(name="room", field="rooms", model=Room, letter="r", stand=_with_sides)
OPENING = PartKind(name="opening", field="openings", model=Opening, letter="o")
FIXTURE = PartKind(name="fixture", field="fixtures", model=Fixture, letter="f")
KINDS = (STRUCTURE, ROOM, OPENING, FIXTURE)
EDITS = (MoveWall, SetSide)


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
