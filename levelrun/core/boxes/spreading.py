"""Boxes that are spread: evenly along a wall, in rows under a ceiling, every so many feet."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.placing import tape
from levelrun.core.boxes.pole import WORK_ROOMS
from levelrun.core.job import Room
from levelrun.core.measure import show
from levelrun.core.site.faces import Seen
from levelrun.core.site.geometry import Wall, is_inside, walls_of
from levelrun.core.site.scene import SceneReader, walls_by_name

CASED_IN = 6.0  # beside a door or a window its casing, and the half of a box
Spot = dict[str, Any]
_WALLS = ("all walls", "all the walls", "every wall", "the walls", "walls")
ALL_WALLS = tuple(f"{on}{walls}" for on in ("", "along ", "on ") for walls in _WALLS)
ALL_ROUND = ("around", "all round", "all around")


def spread(reader: SceneReader, about: Room, count: int, wall: Wall | None) -> list[Spot]:
    """So many spread evenly, half a space from the ends: along a wall, else in rows under the ceiling with spaces as
    square as may be (common practice, no source)."""
    if wall is not None:
        step = wall.length_in / count
        return [{"side": wall.index, "at_in": tape(step * (n + 0.5))} for n in range(count)]
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    wide, deep = max(xs) - min(xs), max(ys) - min(ys)
    rows = min(
        (n for n in range(1, count + 1) if count % n == 0),
        key=lambda n: max(wide * n / count / (deep / n), deep / n / (wide * n / count)),
    )
    return _grid(reader, about, count // rows, rows, "even rows")


def in_line(reader: SceneReader, about: Room, count: int) -> list[Spot]:
    """So many under the ceiling in one line down the middle, the longer way of the room, half a space from the
    ends."""
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    across = max(xs) - min(xs) >= max(ys) - min(ys)
    return _grid(reader, about, count if across else 1, 1 if across else count, "one line")


def _grid(reader: SceneReader, about: Room, each: int, rows: int, called: str) -> list[Spot]:
    """So many in each of so many rows under the ceiling, half a space from the walls. Refuses where one of them would
    hang outside of the room."""
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    wide, deep = max(xs) - min(xs), max(ys) - min(ys)
    spots = [
        {"x_in": min(xs) + wide * (i + 0.5) / each, "y_in": min(ys) + deep * (j + 0.5) / rows}
        for j in range(rows)
        for i in range(each)
    ]
    if not all(is_inside(about.corners, (spot["x_in"], spot["y_in"])) for spot in spots):
        raise reader.refuse(
            f"{each * rows} of them in {called} do not all hang inside {about.name}: say where each hangs"
        )
    return spots


def middle_of(about: Room) -> Spot:
    """The middle of a room."""
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    return {"x_in": (min(xs) + max(xs)) / 2, "y_in": (min(ys) + max(ys)) / 2}


def _beside(at: float, windows: Sequence[Seen]) -> float:
    """A place along a wall; beside the window that it would be in, on the nearer side."""
    for window in windows:
        low, high = window.at_in - CASED_IN, window.to_in + CASED_IN
        if low < at < high:
            return low if at - low <= high - at else high
    return at


def every(reader: SceneReader, about: Room) -> list[Spot]:
    """A box at each so many feet along walls, counted from the left corner of each, none in a door or a panel."""
    step = reader.length()
    if reader.phrase(ALL_WALLS) is not None:
        return stepped(reader, about, step, list(walls_of(about)))
    named = walls_by_name(about)
    begin = reader.pos
    if reader.phrase(("along", "on")) is None and not (reader.over() or reader.sees((*ALL_ROUND, "in", "of", "at"))):
        reader.need(("along",), "along and walls")
    chosen: list[Wall] = []
    while (word := reader.phrase(named)) is not None:
        chosen.append(named[word])
        reader.phrase(["and"])
    if not chosen:  # every 6 ft in Kitchen: all round
        reader.pos = begin
        if reader.phrase(("along", "on")) is not None:
            reader.need(named, f"a wall of {about.name}")
        if reader.phrase(ALL_ROUND) is not None and reader.sees(reader.scene.rooms()):
            reader.again(about)
        chosen = list(walls_of(about))
    return stepped(reader, about, step, chosen)


def stepped(reader: SceneReader, about: Room, step: float, chosen: list[Wall]) -> list[Spot]:
    """A box at each so many inches along these walls, none in a door or a panel; beside a window that it would stand
    in."""
    if step < 6:
        raise reader.refuse(f"every {step:g} in: 6 in at least")
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    spots: list[Spot] = []
    panels = [(p.side, p.at_in or 0.0, p.width_in / 2 + 2) for p in view.context.panels]
    for wall in dict.fromkeys(chosen):
        hung = [(at - half, at + half) for side, at, half in panels if side == wall.index]
        doors = hung + [(o.at_in, o.to_in) for o in view.faces[wall.index].openings if o.sill_in < 12]
        count = int((wall.length_in - 1) // step)
        pole = reader.scene.job.habits.pole
        mark = (pole.garage if about.use in WORK_ROOMS else pole.receptacle).at_in
        windows = [o for o in view.faces[wall.index].openings if 12 <= o.sill_in < mark < o.head_in]
        places = [_beside(step * n, windows) for n in range(1, count + 1)]
        spots += [
            {"side": wall.index, "at_in": at} for at in places if not any(low <= at <= high for low, high in doors)
        ]
    if not spots:
        raise reader.refuse(f"no place every {show(step)} along {', '.join(wall.name for wall in chosen)}")
    return spots
