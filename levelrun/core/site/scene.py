"""What a typed sentence is about, and a reader that knows it."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, field
from difflib import get_close_matches
from functools import cached_property, lru_cache
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Job, Level, Panel, Room, Structure
from levelrun.core.site.geometry import STEPS, Wall, walls_of
from levelrun.core.words import BREAK, Reader

SHORT = {"n": "north", "e": "east", "s": "south", "w": "west", "ne": "northeast", "se": "southeast",
         "sw": "southwest", "nw": "northwest"}  # fmt: skip
COMPASS = {*SHORT, *SHORT.values()}
SMALL = ("the", "a", "an")
# Between a thing and what is said of it.
IS = ("is", "are", "was", "were", "has been", "have been", "gets", "got", "now")
ON = ("on", "in", "along", "at", "against")
JOINING = ("circuit", "and", "more", "the", "for", "with")  # in the name of a circuit no word that tells it apart
EVERY = ("every", "each", "all")
CENTRE = ("centre", "center", "centred", "centered", "middle")
LEFT = ("from left", "from the left", "from the left corner", "from the corner", "from corner")
RIGHT = ("from right", "from the right", "from the right corner")


@dataclass(frozen=True, kw_only=True)
class Scene:
    """The job, and the room, level, panel, way and trench that a sentence is about where it names none; `node_id`:
    the box or panel at the end of the line that it goes on from."""

    job: Job
    book: Codebook
    room_id: str | None = None
    level_id: str | None = None
    panel_id: str | None = None
    way_id: str | None = None
    line_id: str | None = None
    node_id: str | None = None
    verb: str = ""

    @cached_property
    def room(self) -> Room | None:
        """The room looked at."""
        return next((room for room in self.job.rooms if room.id == self.room_id), None)

    @cached_property
    def level(self) -> Level | None:
        """The level looked at: that of the room, the one named, else the first floor of the first structure."""
        levels = [level for item in self.job.structures for level in item.levels]
        wanted = self.room.level if self.room else self.level_id
        found = next((level for level in levels if level.id == wanted), None)
        floors = [level for level in levels if level.kind == "floor"]
        return found or next(iter(floors or levels), None)

    @cached_property
    def panel(self) -> Panel | None:
        """The panel looked at, else the first."""
        panels = self.job.panels
        return next((panel for panel in panels if panel.id == self.panel_id), panels[0] if panels else None)

    def rooms(self) -> dict[str, Room]:
        """Rooms by name, the word room at its end left out too, a stair of stairs; of equal names the one on the
        level looked at."""
        level = self.level
        ordered = sorted(self.job.rooms, key=lambda room: level is not None and room.level == level.id)
        named = {room.name: room for room in ordered}
        known = {name.casefold() for name in named}
        short = {name[:-5]: room for name, room in named.items() if name.casefold().endswith(" room")}
        short |= {name[:-1]: room for name, room in named.items() if name.casefold().endswith("stairs")}
        return {**{name: room for name, room in short.items() if name.casefold() not in known}, **named}


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


class SceneReader(Reader):
    """A reader that knows the names of a job."""

    scene: Scene
    verbs: tuple[str, ...] = ()
    each: tuple[Room, ...] = ()  # rooms of which one sentence says the same

    def phrase(self, options: Iterable[str]) -> str | None:
        """The longest of the phrases that stands here, taken; or None. A small word before it is passed over, and the
        word wall after the name of one: the north wall."""
        words, start = tuple(options), self.pos
        found = super().phrase(words)
        if found is None and super().phrase(SMALL) is not None:
            found = super().phrase(words)
        if found is None:
            self.pos = start
            self.skip()
        elif found.split()[0] in COMPASS:
            super().phrase(("wall", "walls"))
        return found

    def expect(self, options: Iterable[str]) -> None:
        """As Reader.expect, behind a small word: what is completed or refused is the word after it."""
        super().expect(options)
        if (small := _SMALL.match(self.text, self.pos)) is not None:
            self.expected = (small.end(), self.expected[1])

    def refuse(self, message: str, at: int | None = None, allowed: list[str] | None = None) -> TextError:
        """A refusal at a place of the text: by default where the last word was read."""
        where = self.expected[0] if at is None else at
        return TextError(
            message, key="text", value=self.text[where:][:60], allowed=allowed or [],
            at=self.origin[min(where, len(self.text))],
        )  # fmt: skip

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

    def panels(self) -> dict[str, Panel]:
        """Panels by name, and by what a name says after the word panel where no other is called so."""
        named = {panel.name: panel for panel in self.scene.job.panels}
        short = {bare_panel(name): panel for name, panel in named.items()}
        whole = {name.lower() for name in named}
        return {**{key: panel for key, panel in short.items() if key and key not in whole}, **named}

    def a_panel(self, offered: Iterable[str] = ()) -> Panel | None:
        """A panel by its name, the word panel before it or not; the only one by that word alone. None where none
        stands here. `offered`: how they are completed, where not by their names."""
        panels, start = self.panels(), self.pos
        word = None if self.sees(panels) else self.phrase(["panel"])
        self.expect(offered or panels)
        name = self.phrase(panels)
        if name is None and word is not None and len(self.scene.job.panels) == 1:
            return self.scene.job.panels[0]
        if name is None:
            self.pos = start
            return None
        return panels[name]

    def buildings(self) -> dict[str, Structure]:
        """Buildings by name, and by the last word of it where that is no other's name: the shop, for Kiln shop."""
        named = {item.name: item for item in self.scene.job.structures if item.kind != "yard"}
        last = [name.split()[-1].lower() for name in named]
        short = {key: item for key, item in zip(last, named.values(), strict=True) if last.count(key) == 1}
        return {**named, **{key: item for key, item in short.items() if key not in {n.lower() for n in named}}}

    def boxes(self) -> dict[str, Box]:
        """Boxes by name; the only one that serves an appliance by that too: the dryer outlet."""
        job = self.scene.job
        served = Counter(box.serves for box in job.boxes if box.serves not in ("", "counter"))
        alone = [box for box in job.boxes if served[box.serves] == 1]
        by_use = {f"{box.serves.replace('_', ' ')} {plug}": box for box in alone for plug in ("outlet", "receptacle")}
        return {**by_use, **{box.name: box for box in job.boxes}}

    def circuits_by_word(self) -> dict[str, Circuit]:
        """Circuits by a word of their name that no other has: the lights circuit."""
        words = {circuit.id: set(circuit.name.lower().split()) for circuit in self.scene.job.circuits}
        every = Counter(word for own in words.values() for word in own)
        return {
            f"{word} circuit": circuit
            for circuit in self.scene.job.circuits
            for word in words[circuit.id]
            if every[word] == 1 and len(word) > 2 and word.isalpha() and word not in JOINING
        }

    def boxes_said(self) -> list[Box]:
        """Boxes by name one after another, with `and` between them or without, up to the first word that is none."""
        boxes, found = self.boxes(), list[Box]()
        while (word := self.phrase(boxes)) is not None:
            found.append(boxes[word])
            self.phrase(["and"])
        return found

    def spaced(self) -> dict[str, Circuit]:
        """The circuits of the panel looked at by their spaces."""
        panel = self.scene.panel
        own = [c for c in self.scene.job.circuits if c.space and panel is not None and c.panel == panel.id]
        return {self.circuit_label(circuit): circuit for circuit in own}

    def circuit_of(self, box: Box) -> Circuit | None:
        """The circuit that a box is on; None where it is on none."""
        return next((c for c in self.scene.job.circuits if any(hop.box == box.id for hop in c.chain)), None)

    def name(self, stops: tuple[str, ...] = (), ends: str = "") -> str:
        """A new name: in double quotes, or all words up to one of `stops`, to what the pattern `ends` is like, or to
        the end of the sentence. A word that is nearly one of `stops`, or a length, is no part of a name: it is
        refused where it stands."""
        self.expect(["a name"])
        if self.text[self.pos : self.pos + 1] == '"':
            return self.token("a name")
        match = _name_end(stops, ends).search(self.text, self.pos)
        said = self.text[self.pos : match.start() if match else None].strip(" ,:")
        if not said:
            raise self.fail("a name")
        end = self.pos + len(self.text[self.pos : match.start() if match else None].rstrip())
        for word in re.finditer(r"\S+", self.text[self.pos : end]):
            near = get_close_matches(word[0].lower(), stops, n=1, cutoff=0.75)
            if word.start() and (near or _MEASURED.match(word[0])):
                self.expected = (self.pos + word.start(), near or list(stops))
                raise self.fail(f"{near[0] if near else 'a word'}, or the name in double quotes")
        self.pos = end
        return said

    def day(self) -> str:
        """A day such as 2026-05-12."""
        self.expect(["2026-05-12"])
        match = _DAY.match(self.text, self.pos)
        if match is None:
            raise self.fail("a day such as 2026-05-12")
        self.pos = match.end()
        return match[0]

    def on_day(self) -> str:
        """`on` and a day; empty where none stands here."""
        return self.day() if self.phrase(["on"]) else ""

    def position(self) -> float:
        """A length that may be 0."""
        return self.length()

    def circuit_label(self, circuit: Circuit) -> str:
        """How a circuit is called: by its spaces."""
        from_space = circuit.space or 0
        if not from_space:
            return circuit.name
        return spaces_text(from_space, circuit.poles, circuit.half)


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
_SMALL = re.compile(rf"(?:{'|'.join(SMALL)})\s+", re.IGNORECASE)
_DAY = re.compile(r"\d{4}-\d{2}-\d{2}")
_MEASURED = re.compile(r"\d+(?:\.\d+)?['\"]|\d+(?:a|v|ft|in)$", re.IGNORECASE)


@lru_cache(maxsize=256)
def _name_end(stops: tuple[str, ...], ends: str) -> re.Pattern[str]:
    words = "|".join(re.escape(word) for word in ("then", *stops))
    like = rf"|\s(?i:{ends})" if ends else ""
    return re.compile(rf"(?=\s*(?:$|\n|;|\b(?:{words})\b){like})")


def spaces_text(space: int, poles: int, half: str) -> str:
    """The spaces of a breaker as they are said: 9, 9b, 1/3."""
    return f"{space}/{space + 2}" if poles == 2 else f"{space}{half}"


def bare_panel(name: str) -> str:
    """What a panel is called, without the word panel."""
    return name.lower().removeprefix("panel ").strip()


def walls_by_name(room: Room) -> dict[str, Wall]:
    """The walls of a room as they are called: north, south 2, n."""
    walls = {wall.name: wall for wall in walls_of(room)}
    return {**walls, **{key: walls[full] for key, full in SHORT.items() if full in walls}}


def on_a_wall(walls: Iterable[str]) -> str:
    """The pattern of a wall and a place along it: north 5', on the north wall 5'."""
    return rf"(?:(?:{'|'.join(ON)})\s+)?(?:the\s+)?(?:{'|'.join(map(re.escape, walls))})(?:\s+wall)?\s+\d"
