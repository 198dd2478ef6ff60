"""Where the boxes of a sentence go: beside a door or a thing, along a wall, overhead; told where nobody said."""

from __future__ import annotations

import math
import re
from typing import Any

from levelrun.core.boxes.alarm_spots import alarm_spot, near_steam
from levelrun.core.boxes.at_ends import at_ends, in_corner
from levelrun.core.boxes.beside import (
    LOW_SILL_IN,
    Spot,
    asked_for,
    at_door,
    at_panel,
    at_thing,
    away_from_door,
    free_spot,
    lacking,
    near_middle,
    over_island,
)
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.over_doors import opener_for, over_door
from levelrun.core.boxes.parts import OVERHEAD
from levelrun.core.boxes.placing import switch_spot, tape
from levelrun.core.boxes.spreading import ALL_ROUND, CASED_IN, in_line, middle_of, spread, stepped
from levelrun.core.job import Room
from levelrun.core.measure import show
from levelrun.core.site.geometry import Wall, is_inside
from levelrun.core.site.scene import CENTRE, ON, ROWS, SceneReader, walls_by_name

APART_IN = 24.0  # two things on one ceiling whose places nobody said: common practice, no source
AS_ASKED = ("to code", "per code", "by code", "as needed", "where needed")
IN_ROWS = (*(f"in {rows}" for rows in ROWS), "evenly spaced", "spaced evenly")
IN_LINE = (
    "down the middle",
    "down the center",
    "down the centre",
    "in a line",
    "in one line",
    "in a row",
    "in one row",
)
CEILING = ("in the ceiling", "on the ceiling", "under the ceiling", "overhead")
_WALLS = ("along the walls", "on the walls", "around the room", "around the walls", "around", "out")
SPREAD = tuple(f"spread{evenly} {where}" for evenly in ("", " evenly") for where in _WALLS)
OVER_THE_FLOOR = ("high", "up", "off the floor", "over the floor", "above the floor")  # behind a height
_HEIGHT = re.compile(rf"""\s*at\s+\d[\d\s'"./-]*(?:ft|in)?\s*(?:{"|".join(OVER_THE_FLOOR)})\b""", re.IGNORECASE)
MOST_GANGS = 6


class Where:
    """Where the boxes of a sentence go. `count`: how many, -1 where several were said, None for one."""

    def __init__(self, reader: SceneReader, about: Room, item: dict[str, Any], count: int | None) -> None:
        self.reader, self.about, self.item, self.count = reader, about, item, count
        self.spots: list[Spot] = []
        self.told: list[str] = []

    def read(self) -> bool:
        """A place that is said by what is beside it, or by its wall; whether one stands here."""
        reader, about = self.reader, self.about
        self.spots = over_door(reader, about, self.item, self.count, self.told)
        self.spots = self.spots or opener_for(reader, about, self.item, self.told)
        self.spots = self.spots or away_from_door(reader, about) or at_door(reader, about, self.item, self.told)
        self.spots = self.spots or at_ends(reader, about, self.item)
        self.spots = self.spots or in_corner(reader, about, self.item["kind"] in OVERHEAD)
        if self.spots and self.item["kind"] == "switch" and 1 < (self.count or 0) <= MOST_GANGS:
            self.item["gangs"] = self.count  # two switches by a door stand in one box
        if not self.spots and self.item["kind"] in (*OVERHEAD, "receptacle"):
            self.spots = over_island(reader, about, self.item, max(self.count or 1, 1))
        if not self.spots:
            self.spots = at_thing(reader, about, self.item, self.count)
        if not self.spots:
            self.spots = at_panel(reader, about, self.item)
        if not self.spots and self.item["kind"] in OVERHEAD and reader.phrase(IN_LINE) is not None:
            self.spots = in_line(reader, about, max(self.count or 1, 1))
        if not self.spots and (reader.phrase(CEILING) is not None or self.in_rows()):
            self.spots = away_from_door(reader, about)
            if not self.spots:
                self.overhead()
        begin = reader.pos
        walls = walls_by_name(about)
        if not self.spots and (word := reader.phrase(ON)) is not None:  # on the north wall
            if reader.sees((*walls, *CENTRE)):
                self.along()
            elif reader.phrase(("each wall", "each of the walls", "every wall")) is not None and self.count != -1:
                self.on_each()
            elif reader.phrase(("all walls", "every wall", *((about.name,) if word == "along" else ()))) is not None:
                self.needed()
            else:
                reader.pos = begin
        if not self.spots and (self.count or 0) > 1 and reader.phrase(SPREAD) is not None:
            self.free(self.count or 1)
        if not self.spots and reader.phrase((*ALL_ROUND, *AS_ASKED)) is not None:
            if reader.sees(reader.scene.rooms()):
                reader.again(about)
            self.needed()
        return bool(self.spots)

    def on_each(self) -> None:
        """So many spread along each wall, none in a door."""
        view = room_view(self.reader.scene.job, self.reader.scene.book, self.about.id)
        for wall in walls_by_name(self.about).values():
            if any(spot["side"] == wall.index for spot in self.spots):
                continue  # a wall is named twice, in short too
            doors = [door for door in view.faces[wall.index].openings if door.sill_in < LOW_SILL_IN]
            free = [
                spot for spot in spread(self.reader, self.about, self.count or 1, wall)
                if not any(door.at_in - CASED_IN < spot["at_in"] < door.to_in + CASED_IN for door in doors)
            ]  # fmt: skip
            self.spots += free
        self.told.append(f"{len(self.spots)} spread along the walls of {self.about.name}, none in a door")

    def in_rows(self) -> bool:
        """In two rows, as several hang anyway."""
        if self.item["kind"] not in OVERHEAD or (self.count or 1) < 2:
            return False
        return self.reader.phrase(IN_ROWS) is not None

    def needed(self) -> None:
        """As the code asks."""
        self.spots = asked_for(self.reader, self.about, self.item["kind"])

    def along(self) -> None:
        """A wall and a place along it; only a wall: in its middle, or so many spread along it, which is told."""
        reader, walls = self.reader, walls_by_name(self.about)
        start = reader.pos
        word = reader.phrase(walls)
        if word is not None and reader.phrase(["of"]) is not None:
            reader.again(self.about)
        if word is not None and reader.phrase(["every"]) is not None:
            self.spots = stepped(reader, self.about, reader.length(), [walls[word]])
            return
        # Of what hangs at 60" high no place along the wall is said.
        high = word is not None and _HEIGHT.match(reader.text, reader.pos) is not None
        if not high:
            reader.phrase(["at"])
        if word is None or (reader.sees_length() and not high) or reader.sees(CENTRE) or self.count == -1:
            reader.pos = start
            self.spots = [_where(reader, self.about)]
            return
        wall, count = walls[word], self.count or 1
        reader.pos = start
        reader.phrase(walls)
        view = room_view(reader.scene.job, reader.scene.book, self.about.id)
        if count == 1:
            spot = near_middle(view, wall, self.item["kind"], self.item.get("gangs", 1))
            if spot is None:
                raise reader.refuse(f"no place is free on the {wall.name} wall: say how far from a corner", start)
            self.spots = [spot]
            middle = abs(spot["at_in"] - wall.length_in / 2) < 1e-6
            where = (
                "in the middle of" if middle else f"at {show(spot['at_in'])}, the nearest free place to the middle of"
            )
            self.told.append(f"{where} the {wall.name} wall; say how far from a corner where it does not stand there")
            return
        self.spots = spread(reader, self.about, count, wall)
        doors = [door for door in view.faces[wall.index].openings if door.sill_in < LOW_SILL_IN]
        if any(door.at_in < spot["at_in"] < door.to_in for door in doors for spot in self.spots):
            raise reader.refuse(f"a door is in the way on the {wall.name} wall: say how far from a corner", start)
        places = ", ".join(show(spot["at_in"]) for spot in self.spots)
        self.told.append(f"{count} spread along the {wall.name} wall, at {places}")

    def unsaid(self) -> None:
        """No place was said: under the ceiling what hangs there, else as the code asks, where that is one place or
        several were said."""
        reader, about, kind = self.reader, self.about, self.item["kind"]
        self.spots = opener_for(reader, about, self.item, self.told)
        if self.spots:
            return
        if kind in OVERHEAD and self.item.get("outdoors"):
            self.outside()
        elif kind in OVERHEAD:
            self.overhead()
        elif self.count is None and kind != "switch":
            self.free()
        elif kind == "receptacle" and (self.count or 0) > 1 and not lacking(reader, about, kind):
            self.free(self.count or 1)
        elif kind in ("receptacle", "switch"):
            self.needed()
            if self.count not in (None, -1, len(self.spots)):
                self.told.append(f"{about.name} lacks {len(self.spots)} by the rules of its use, not {self.count}")
                self.spots = []
                self.free(self.count or 1)
        else:
            raise reader.fail(f"a wall of {about.name}")

    def outside(self) -> None:
        """A light outdoors: beside a door that leads there, on the outer face of its wall."""
        reader, about = self.reader, self.about
        view = room_view(reader.scene.job, reader.scene.book, about.id)
        for face, door in sorted(view.doors, key=lambda pair: pair[1].kind == "garage_door"):
            at = switch_spot(view, face, door) if view.beside(door) == "outdoors" else None
            if at is not None:
                self.spots = [{"side": face.wall.index, "at_in": at}]
                self.told.append(f"outside, beside the {face.wall.name} door; say where it hangs otherwise")
                return
        street = walls_by_name(about).get("south")
        if (self.count or 0) > 1 and street is not None and view.faces[street.index].outside:
            self.spots = spread(reader, about, self.count or 1, street)
            self.told.append(f"outside, along the south wall of {about.name}; say where they hang otherwise")
            return
        raise reader.fail(f"a wall of {about.name}, or the door that it hangs beside")

    def overhead(self) -> None:
        """Under the ceiling: in its middle, several in rows."""
        reader, about, count = self.reader, self.about, self.count or 1
        if count > 1:
            self.spots = spread(reader, about, count, None)
            self.told.append(
                f"{count} in even rows under the ceiling of {about.name}; say where each hangs otherwise"
            )
        else:
            spot, view = _free(reader, about), room_view(reader.scene.job, reader.scene.book, about.id)
            if self.item["kind"] == "smoke" and any(near_steam(view, (spot["x_in"], spot["y_in"]))):
                x, y = alarm_spot(view)
                spot = {"x_in": tape(x), "y_in": tape(y)}
            self.spots = [spot]
            where = "in" if spot == middle_of(about) else "off"
            self.told.append(f"{where} the middle of the ceiling of {about.name}; say where it hangs otherwise")

    def free(self, count: int = 1) -> None:
        """Things in a room of which nobody says where: each on a stud where a wall is free, which is told."""
        reader, about = self.reader, self.about
        view = room_view(reader.scene.job, reader.scene.book, about.id)
        for _ in range(count):
            spot = free_spot(view, self.item["kind"], self.item.get("gangs", 1), self.spots)
            if spot is None:
                raise reader.fail(f"a wall of {about.name}")
            wall = view.faces[spot["side"]].wall.name
            self.spots.append(spot)
            self.told.append(
                f"on the {wall} wall of {about.name} at {show(spot['at_in'])}, where it is free; say where it is "
                "otherwise"
            )


def _free(reader: SceneReader, about: Room) -> Spot:
    """The middle of a ceiling; where something hangs there, beside it along the longer side of the room."""
    hung = [(box.x_in, box.y_in) for box in reader.scene.job.boxes if box.room == about.id and box.x_in is not None]
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    along = "x_in" if max(xs) - min(xs) >= max(ys) - min(ys) else "y_in"
    spot = middle_of(about)
    while any(math.dist((x or 0, y or 0), (spot["x_in"], spot["y_in"])) < APART_IN for x, y in hung):
        beside = {**spot, along: spot[along] + APART_IN}
        if not is_inside(about.corners, (beside["x_in"], beside["y_in"])):
            return middle_of(about)
        spot = beside
    return spot


def _where(reader: SceneReader, about: Room) -> Spot:
    """A place on a wall, in the middle, or by two readings."""
    if reader.phrase(CENTRE):
        reader.phrase(("of the ceiling", "of the room", "ceiling"))
        return middle_of(about)
    start = reader.pos
    try:
        across = reader.length()
        reader.need(("x", "by"), "x")
    except ValueError:
        reader.pos = start
        face, at = _on_wall(reader, about)
        if not 0 <= at <= face.length_in:
            raise reader.refuse(
                f"{at:g} in is past the {face.name} wall of {about.name}, {face.length_in:g} in long"
            ) from None
        return {"side": face.index, "at_in": at}
    up = reader.length()
    spot = {"x_in": min(x for x, _ in about.corners) + across, "y_in": min(y for _, y in about.corners) + up}
    if not is_inside(about.corners, (spot["x_in"], spot["y_in"])):
        raise reader.refuse(f"{show(across)} x {show(up)} is not inside {about.name}")
    return spot


def _on_wall(reader: SceneReader, about: Room) -> tuple[Wall, float]:
    """A wall and a place along it, either first: north 4', 4' along the north wall."""
    if reader.sees_length():
        at = reader.length()
        corner = reader.corner()
        face = reader.wall(about)
        return face, reader.from_left(face, at, corner or reader.corner())
    face = reader.wall(about)
    reader.phrase(["at"])
    return face, reader.along(face)
