"""What a typed sentence is about, and a reader that knows it."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from levelrun.core.job import Level, Room
from levelrun.core.site.geometry import STEPS, Wall, walls_of
from levelrun.core.site.naming import COMPASS, SHORT, NamingReader
from levelrun.core.words import BREAK

IS = ("is", "are", "was", "were", "has been", "have been", "gets", "got", "now")
ON = ("on", "in", "along", "at", "against")
EVERY = ("every", "each", "all")
CENTRE = ("centre", "center", "centred", "centered", "middle")
LEFT = ("from left", "from the left", "from the left corner", "from the corner", "from corner")
RIGHT = ("from right", "from the right", "from the right corner")


@dataclass(frozen=True)
class Said:
    """The edits of one sentence, what it makes the next sentence be about, and what is told of it beside its edits:
    where a typed place went. `node`: what stands at the end of a line."""

    edits: list[dict[str, Any]] = field(default_factory=list)
    room: str | None = None
    level: str | None = None
    panel: str | None = None
    node: str | None = None
    told: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Along:
    """A place along a wall as it is said: inches from a corner, the left one where none is named; or its centre."""

    inches: float
    corner: str = ""


class SceneReader(NamingReader):
    """A reader that knows the rooms of a job, their walls and places along them."""

    each: tuple[Room, ...] = ()  # rooms of which one sentence says the same

    def room(self) -> Room:
        """The room that a sentence is about: `in NAME` where it stands here, the one that is named later on, else the
        one looked at."""
        start = self.pos
        if self.phrase(["in"]):
            walls = COMPASS if self.scene.room is None else walls_by_name(self.scene.room)
            if not self.sees((*walls, *CENTRE, "ceiling", *ROWS, *CORNERS)):
                return self.room_named()
            self.pos = start  # in the north wall, in the middle, in the ceiling, in two rows
        ahead = self.room_ahead()
        if ahead is not None:
            return ahead
        if self.scene.room is None:
            self.expect(["in a room"])
            raise self.refuse("no room is chosen: say `in` and its name", allowed=list(self.scene.rooms()))
        return self.scene.room

    def room_named(self) -> Room:
        """A room by its name."""
        rooms = self.scene.rooms()
        return rooms[self.need(rooms, "a room by its name")]

    def room_ahead(self) -> Room | None:
        """The room that this sentence names later on, after `in` or `of`; None where it names none."""
        end = BREAK.search(self.text, self.pos)
        start, rooms = self.pos, self.scene.rooms()
        named = False  # a name may have an `of` of its own
        for match in _IN.finditer(self.text, start, end.start() if end else len(self.text)):
            named |= match["as"] is not None
            self.pos = match.end()
            name = self.phrase(rooms) if match["in"] or (match["of"] and not named) else None
            self.pos = start
            if name is not None:
                return rooms[name]
        return None

    @property
    def everywhere(self) -> bool:
        """Whether the sentence says the same of every room."""
        return _EVERYWHERE.search(self.text, self.pos, self.line_end()) is not None

    def rooms_listed(self) -> list[Room]:
        """The rooms of a sentence that names several after `in`, one after another: in bedroom 1, bedroom 2 and hall,
        in every bedroom, in all rooms. Empty where it names one, or none."""
        end = BREAK.search(self.text, self.pos)
        start, rooms = self.pos, self.scene.rooms()
        found: list[Room] = []
        if self.everywhere:
            return list(self.scene.job.rooms)
        for match in _IN.finditer(self.text, start, end.start() if end else len(self.text)):
            if match["in"] and not found:
                self.pos = match.end()
                every = self.sees(EVERY)
                found = self._rooms_here(rooms)
                found = found if every or len(found) > 1 else []
        self.pos = start
        return found

    def _rooms_here(self, rooms: dict[str, Room]) -> list[Room]:
        """Rooms by name with commas or `and` between them, or every one of a use, taken."""
        if self.phrase(EVERY) is not None:
            now, job = self.scene.level, self.scene.job
            levels = {level.id for level in job.structure_of(now.id).levels} if now is not None else set()
            here = [room for room in job.rooms if room.level in levels]
            uses = {word: room.use for room in here for word in (room.use, f"{room.use}s")}
            word = self.phrase(("room", "rooms", *uses))
            return [room for room in here if word in ("room", "rooms") or (word and room.use == uses[word])]
        found: list[Room] = []
        while (name := self.phrase(rooms)) is not None:
            found.append(rooms[name])
            before = self.pos
            self.phrase(["and"])
            if not self.sees(rooms):
                self.pos = before
                break
        return found

    def length(self) -> float:
        """A length. Where a room is named after it, its `in` is that of the room: 4'6 in Kitchen."""
        inches = super().length()
        if self.text[: self.pos].lower().endswith("in") and self.sees(self.scene.rooms()):
            self.pos -= len("in")
        return inches

    def again(self, room: Room) -> None:
        """The room once more, after `in` or `of`; one of those of which the same is said. Refuses another one."""
        if self.each and room in self.each:
            self._rooms_here(self.scene.rooms())
            return
        if self.room_named() is not room:
            raise self.refuse(f"it is in {room.name} already; allowed: one room")

    def wall(self, room: Room) -> Wall:
        """A wall of a room: north, n, south 2, on the north wall of NAME."""
        walls, start = walls_by_name(room), self.pos
        if self.phrase(ON) is not None and not self.sees(walls):
            self.pos = start
        face = walls[self.need(walls, f"a wall of {room.name}")]
        if self.phrase(["of"]) is not None:
            self.again(room)
        return face

    def sees_along(self) -> bool:
        """Whether a place along a wall stands here that can be nothing else: centre, or a length from a corner."""
        start, found = self.pos, self.sees(CENTRE)
        if not found and self.sees_length():
            self.length()
            found = self.corner() != ""
        self.pos = start
        return found

    def corner(self) -> str:
        """The corner of a wall that a place is counted from, taken: left, right, or the way that it lies, as in from
        the south corner. Empty where none is named."""
        if self.phrase(RIGHT) is not None:
            return "right"
        if self.phrase(LEFT) is not None:
            return "left"
        self.skip()
        if (match := _CORNER.match(self.text, self.pos)) is None:
            return ""
        self.expect(())
        self.pos = match.end()
        return match["way"].lower()

    def from_left(self, face: Wall, at: float, corner: str, width: float = 0.0) -> float:
        """A place counted from a corner, from the left one as one faces the wall: to the near edge of what is so
        wide. Refuses what is past the wall, and a corner that it has not."""
        if corner in STEPS:
            ends = [sum(p * q for p, q in zip(face.at(t), STEPS[corner], strict=True)) for t in (0.0, face.length_in)]
            if abs(ends[0] - ends[1]) < face.length_in / 4:
                raise self.refuse(f"the {face.name} wall has no {corner} corner; allowed: from the left, the right")
            corner = "right" if ends[1] > ends[0] else "left"
        if corner == "right":
            if at + width > face.length_in:
                raise self.refuse(f"{at:g} in is past the {face.name} wall, {face.length_in:g} in long")
            return face.length_in - at - width
        return at

    def along(self, face: Wall, width: float = 0.0) -> float:
        """A place along a wall from its left corner as one faces it, inches; `from the right` from the other one, to
        the near edge of what is so wide; `centre`."""
        return self.along_at(face, self.place_along(), width)

    def place_along(self) -> Along:
        """A place along a wall as it is said."""
        self.expect(["a length: 5'4, 64\", 5-4, 1.6 m", "centre"])
        if self.phrase(CENTRE) is not None:
            return Along(0.0, "centre")
        return Along(self.length(), self.corner())

    def along_at(self, face: Wall, said: Along, width: float = 0.0) -> float:
        """Where that is on this wall, from its left corner as one faces it."""
        if said.corner == "centre":
            return (face.length_in - width) / 2
        return self.from_left(face, said.inches, said.corner, width)

    def level(self) -> Level:
        """The level looked at. Refuses where there is none."""
        if self.scene.level is None:
            self.expect(["structure"])
            raise self.refuse("there is no level yet: say `structure` and its name first")
        return self.scene.level


ROWS = ("rows", "row", "a row", "one row", *(f"{count} rows" for count in ("two", "three", "four", "2", "3", "4")))
CORNERS = (
    "corner",
    *(f"{a}{b}{c}{d} corner" for a in ("north", "south") for b in ("", " ", "-") for c in ("east", "west")
      for d in ("", "ern")),
)  # fmt: skip
EVERYWHERE = ("everywhere", "throughout", "throughout the house", "in the whole house", "all through the house")
_EVERYWHERE = re.compile(
    rf"\b(?:{'|'.join(EVERYWHERE)})\b|\b(?:alarms|detectors)\s+(?=(?:to|per|by)\s+code\b)", re.IGNORECASE
)
_IN = re.compile(r'"[^"\n]*"|(?P<in>\bin\s)|(?P<of>\bof\s)|(?P<as>\bas\s)', re.IGNORECASE)
_CORNER = re.compile(
    r"from\s+(?:the\s+)?(?P<way>north|south|east|west)(?:ern)?(?:\s+(?:corner|end|side|wall))?\b", re.IGNORECASE
)


def walls_by_name(room: Room) -> dict[str, Wall]:
    """The walls of a room as they are called: north, south 2, n."""
    walls = {wall.name: wall for wall in walls_of(room)}
    return {**walls, **{key: walls[full] for key, full in SHORT.items() if full in walls}}


def on_a_wall(walls: Iterable[str]) -> str:
    """The pattern of a wall and a place along it: north 5', on the north wall 5'."""
    return rf"(?:(?:{'|'.join(ON)})\s+)?(?:the\s+)?(?:{'|'.join(map(re.escape, walls))})(?:\s+wall)?\s+\d"
