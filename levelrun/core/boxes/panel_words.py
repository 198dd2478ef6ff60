"""The sentence of a panel: what it is, and where it stands, on a wall of a drawn room or in words."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from levelrun.core.boxes.beside import panel_spot
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.panel_place import beside_door, by_the_door, structure_in_words
from levelrun.core.boxes.panel_spaces import (
    COUNT,
    EXCEPT,
    FULL,
    LENGTH,
    Spaces,
    counted,
    counted_here,
    said_of_panel,
)
from levelrun.core.boxes.qualities import PANELS
from levelrun.core.editing import next_id
from levelrun.core.job import Panel, Room
from levelrun.core.measure import show
from levelrun.core.site.building_words import new_building
from levelrun.core.site.called import BUILDINGS
from levelrun.core.site.geometry import Wall, walls_of
from levelrun.core.site.naming import SUB_PANELS, bare_panel
from levelrun.core.site.scene import CENTRE, IS, Said, SceneReader, on_a_wall, walls_by_name

# The height of its lower edge, in inches or said to be one; feet after a wall are a place along it.
_EDGE = re.compile(
    r"""\d+(?:\.\d+)?\s*(?:"|in\b)|[\d'"\s./-]+(?:ft\s*)?(?:high|up|off the floor|over the floor)\b""", re.IGNORECASE
)
_OF_IT = re.compile(rf"\s*of\s+(?:the\s+)?(?P<what>{'|'.join(BUILDINGS)})\b", re.IGNORECASE)
_LETTER = re.compile(r"[NESW]\s+(?!wall\b)")
BESIDE = ("on", "along", "against")  # before a wall; at goes before what is said in words
WORDS = (
    "in", "at", "as", "called", "named", "taken", *EXCEPT, "free spaces", "spaces", "main",
    "lugs", "bonded", "sub",
)  # fmt: skip
# Places of a building that is not drawn.
INSIDE = (
    "basement", "cellar", "utility room", "laundry room", "laundry", "closet", "hall", "hallway", "kitchen",
    "mud room", "crawl space", "attic", "pantry", "bedroom", "garage",
)  # fmt: skip
OUTSIDE = tuple(f"{word}{by}" for by in (" with the meter", " by the meter", " at the meter", " under the meter", "")
                for word in ("outside", "outdoors"))  # fmt: skip
FUSES = ("fuse box", "fuse panel", "fuses", "with fuses")
OUT_OF_IT = tuple(f"outside {of}{the}{what}" for of in ("", "of ") for the in ("", "the ") for what in (
    "house", "building", "garage", "shop", "cabin",
))  # fmt: skip
FOLLOWS = (*FULL, *BESIDE, *SUB_PANELS, *FUSES, *OUTSIDE, "with", "and", "has")  # behind a panel without a name
KINDS = (
    "panel", "fuse box", "fuse panel", "main panel", "main breaker panel", "breaker panel", "load center",
    "breaker box", "panel box", "electrical panel", "electric panel", "service panel", "service",
)  # fmt: skip
EDGE_IN = 48.0  # its lower edge over the floor where nothing is said


def panel(reader: SceneReader) -> Said:
    """panel [NAME] [200a] [30 spaces] [taken 1-14 17] [2 free] [main 200|lugs] [bonded|sub] [as NAME], in any order.

    Where: on a wall [in ROOM] WALL [PLACE] [at HEIGHT of its lower edge], as on the north wall of Den 4' from
    the right; else in words [in shop] [at garage wall]. Without a place it stands in the middle of the wall, and
    that is told.
    """
    said = _Panel(reader)
    while not reader.over():
        said.read()
    return said.whole()


def spoken_panel(
    reader: SceneReader, plain: bool = False, within: int | None = None, called: str = ""
) -> Said | None:
    """200 amp panel [called] M ...; sub-panel G in the garage: a panel whose amperes, or that it is fed, come before
    its name. None where none stands here. plain: one of which neither is said too; within: where the word stands for
    what it is in, said before it; called: its name, where it stands in no room yet and a wall is said."""
    count = reader.take(COUNT)
    kind = reader.phrase((*SUB_PANELS, "main panel") if count is None and not plain else (*SUB_PANELS, *KINDS))
    if kind is None:
        return None
    reader.phrase(("called", "named", "as"))
    if not reader.scene.job.panels:
        reader.phrase((*IS, "has"))  # the panel is 200 amps
    said, behind = _Panel(reader), reader.pos
    if within is not None:
        reader.pos = within
        said.inside()
        said.item.setdefault("name", reader.text[within : reader.pos].strip().capitalize())
        reader.pos = behind
    if count is not None:
        reader.pos = count.start()
        counted(reader, said.item, count)
        reader.pos = behind
    if kind in SUB_PANELS:
        said_of_panel(reader, said.item, "sub")
    while not reader.over():
        said.read()
    if called and said.wall:
        said.item.setdefault("name", called)
    if kind == "main panel":
        said.item.setdefault("name", "Main")
    return said.whole()


class _Panel:
    """What a sentence has said of a panel so far."""

    def __init__(self, reader: SceneReader) -> None:
        self.reader = reader
        self.item: dict[str, Any] = {}
        self.edits: list[dict[str, Any]] = []
        self.room: Room | None = reader.room_ahead() or reader.scene.room
        self.wall = ""
        self.told: list[str] = []
        self.structure = ""
        self.within = False  # a drawn room is said in which it stands
        self.spaces = Spaces(reader, self.item)
        reader.phrase(("called", "named"))
        if reader.sees(IS):
            names = [item.name for item in reader.scene.job.panels]
            raise reader.refuse("say which panel, by its name, before what is said of it", reader.pos, names)
        if not self._known():
            self.item["name"] = reader.token("a name")

    def _walls(self) -> dict[str, Wall]:
        return walls_by_name(self.room) if self.room is not None else {}

    def _known(self) -> bool:
        """Whether the sentence begins with a word of its own, so that its name is not said first. Main and Sub are
        what panels are called."""
        reader = self.reader
        words = [*self._walls(), *(word for word in WORDS if word not in ("main", "sub")), *FOLLOWS]
        return (
            reader.over()
            or COUNT.match(reader.text, self._next()) is not None
            or (reader.sees(words) and not self._letter())
        )

    def _letter(self) -> bool:
        """Whether a capital stands here that is its name, though a wall is called so in short: S, with no length."""
        found = _LETTER.match(self.reader.text, self._next())
        if found is None:
            return False
        text, end = self.reader.text, found.end()
        return COUNT.match(text, end) is not None or LENGTH.match(text, end) is None

    def read(self) -> None:
        """One thing that is said."""
        reader, walls = self.reader, self._walls() if not self.wall else {}
        reader.expect(["200a", "30 spaces", "2 free", *WORDS, *walls])
        if reader.phrase(("with", "and", "has", *IS)) is not None:
            return None
        if (has := reader.phrase(PANELS)) is not None:
            self.item |= PANELS[has]
            return None
        if self.spaces.here():
            return None
        if reader.phrase(SUB_PANELS) is not None:
            return said_of_panel(reader, self.item, "sub")
        if reader.phrase(FUSES) is not None:
            self.told.append("in a fuse box no breaker fits: what is added wants fuses of its own, or a new panel")
            return None
        if counted_here(reader, self.item):
            return None
        if self.room is not None and not self.wall and (face := by_the_door(reader, self.room)) is not None:
            self.wall, self.item["at_in"] = face.name, beside_door(reader, self.room, face)
            return None
        start = reader.pos
        if walls and reader.phrase(BESIDE) is not None and not reader.sees(walls):
            reader.pos = start
        if not self.wall and (where := self._somewhere()) is not None:  # 200a, basement; on the garage wall
            self.item["where"], self.room = where, None
            return None
        word = reader.need((*WORDS, *walls), "amperes, spaces, taken or where it stands")
        if word in walls:
            self._along(word)
        elif word == "in":
            self.inside()
        elif word in (*EXCEPT, "free spaces"):
            self.spaces.all_but(word)
        elif word in ("as", "called", "named"):
            if str(self.item.get("name", "")).lower() == "sub":  # it was no name
                said_of_panel(reader, self.item, "sub")
            self.item["name"] = reader.name((*WORDS, "with"), self._ends())
        elif word == "at" and LENGTH.match(reader.text, self._next()):
            self.item["over_in"] = reader.length()
            reader.phrase(("high", "up", "off the floor", "over the floor"))
        elif word == "at":
            self.item["where"] = reader.name(WORDS, COUNT.pattern)
        else:
            said_of_panel(reader, self.item, word)
        return None

    def _somewhere(self) -> str | None:
        """A place of a building that is not drawn, or a wall of it."""
        reader, start = self.reader, self.reader.pos
        on = reader.phrase((*BESIDE, "at", "in")) is not None
        reader.phrase(["the"])
        walls = [f"{room} wall" for room in (*INSIDE, "outside", "back", "front", "shop", "barn", "shed")]
        where = reader.phrase(walls) or (None if on else reader.phrase(INSIDE))
        out = where is None and reader.phrase(OUT_OF_IT if on else (*OUT_OF_IT, *OUTSIDE)) is not None
        if out:
            where = "outside"
            wall = [f"{way} wall" for way in ("north", "east", "south", "west", "back", "front")]
            begin = reader.pos
            reader.phrase((*BESIDE, "at"))
            if (side := reader.phrase(wall)) is None:
                reader.pos = begin
            else:
                where = f"outside, {side}"
        if where is None:
            reader.pos = start
        elif (of := _OF_IT.match(reader.text, reader.pos)) is not None:  # the outside wall of the garage
            reader.pos, where = of.end(), f"{where} of the {of['what'].lower()}"
        return where

    def _along(self, word: str) -> None:
        """The wall by its word, and where along it; the room once more between the two or behind."""
        reader, face = self.reader, self._walls()[word]
        self.wall = word
        self._of_the_room()
        start = reader.pos
        before = reader.phrase(("in", "at"))
        along = (
            before == "at" and LENGTH.match(reader.text, self._next()) and not _EDGE.match(reader.text, reader.pos)
        )
        if before is not None and not along and not reader.sees(CENTRE):
            reader.pos = start
        counted = COUNT.match(reader.text, self._next())
        if self._by_a_door(face):
            pass
        elif reader.sees(CENTRE) or (LENGTH.match(reader.text, reader.pos) and counted is None):
            self.item["at_in"] = reader.along(face)
        else:
            self._placed([face])
        self._of_the_room()

    def _by_a_door(self, face: Wall) -> bool:
        """Beside the door of its wall, which is told."""
        if self.room is None or by_the_door(self.reader, self.room, face) is None:
            return False
        at = self.item["at_in"] = beside_door(self.reader, self.room, face)
        self.told.append(f"beside the {face.name} door at {show(at)}; say how far from a corner where it is not")
        return True

    def _of_the_room(self) -> None:
        if self.room is not None and self.reader.phrase(["of"]) is not None:
            self.reader.again(self.room)

    def _ends(self) -> str:
        """What a name ends at: a count, a wall and a place along it."""
        walls = self._walls()
        return f"{COUNT.pattern}|{on_a_wall(walls)}" if walls else COUNT.pattern

    def _next(self) -> int:
        self.reader.skip()
        return self.reader.pos

    def inside(self) -> None:
        """The room or the building that stands here: where it is."""
        rooms = self.reader.scene.rooms()
        name = self.reader.phrase(rooms)
        built = {name.casefold() for name in self.reader.buildings()}
        inside = [word for word in INSIDE if word not in built]
        if name is None and (where := self.reader.phrase(inside)) is not None:
            self.item["where"] = where
            self.room = None
        elif name is None:
            self.structure, made = structure_in_words(self.reader)
            self.edits += made
            self.room = None
        else:
            self.room, self.within = rooms[name], True

    def _placed(self, walls: Sequence[Wall]) -> None:
        """Where nobody said it: in the middle of a wall, or where that is free; told."""
        room = self.room
        assert room is not None
        spot = panel_spot(room_view(self.reader.scene.job, self.reader.scene.book, room.id), walls)
        if spot is None:
            where = f"the {walls[0].name} wall" if len(walls) == 1 else room.name
            raise self.reader.refuse(f"no place of 30 in is free on {where}: say how far from a corner")
        wall, at = spot
        self.wall, self.item["at_in"] = wall.name, at
        where = "in the middle of" if abs(at - wall.length_in / 2) < 1e-6 else f"at {show(at)} on"
        self.told += [f"it stands {where} the {wall.name} wall; say how far from a corner where it does not"]

    def whole(self) -> Said:
        """The panel, once all is said of it; in a room of which no wall is said where one is free."""
        if not self.wall and self.within and self.room is not None:
            self._placed(sorted(walls_of(self.room), key=lambda wall: -wall.length_in))
        return self.on_a_wall() if self.wall else self.in_words()

    def on_a_wall(self) -> Said:
        """A panel of a drawn room."""
        self.spaces.close()
        room, item = self.room, dict(self.item)
        if room is None or self.wall not in self._walls():
            where = room.name if room is not None else "it stands in no drawn room and"
            raise self.reader.refuse(f"{where} has no {self.wall} wall", allowed=list(self._walls()))
        face = self._walls()[self.wall]
        level = next(lv for s in self.reader.scene.job.structures for lv in s.levels if lv.id == room.level)
        if item["at_in"] > face.length_in:
            raise self.reader.refuse(f"{item['at_in']:g} in is past the {face.name} wall, {face.length_in:g} in long")
        if item.pop("where", None) is not None:
            raise self.reader.refuse(f"it stands on the {face.name} wall; allowed after at: the height of its edge")
        height = level.floor_in + item.pop("over_in", EDGE_IN)
        item |= {"room": room.id, "side": face.index, "height_in": height}
        _within(self.reader, item)
        undrawn = self._undrawn(item)
        if undrawn is not None:
            item.pop("name")
            told = [f"{undrawn.name} stands on the {face.name} wall of {room.name} now", *self.told]
            return Said([{"op": "set", "kind": "panel", "id": undrawn.id, "set": item}], room=room.id, told=told)
        told = [*alike(self.reader, item), *self.told]
        return Said([{"op": "add", "kind": "panel", "item": item}], room=room.id, told=told)

    def _undrawn(self, item: dict[str, Any]) -> Panel | None:
        """The panel of this name that stands in no room yet: a wall is where it goes."""
        name = str(item.get("name", ""))
        return next(
            (p for p in self.reader.scene.job.panels if p.room is None and bare_panel(p.name) == bare_panel(name)),
            None,
        )

    def in_words(self) -> Said:
        """A panel that stands in no drawn room."""
        self.spaces.close()
        reader, job, item = self.reader, self.reader.scene.job, dict(self.item)
        if "name" not in item and self.room is not None:
            raise reader.fail(f"a wall of {self.room.name}, or a name")
        item["height_in"] = item.pop("over_in", EDGE_IN)
        structure = self.structure or (job.structures[0].id if job.structures else "")
        if not structure:
            structure, _, made = new_building(reader, "house", "House")
            self.edits += made
        spaces, told = self.spaces.count()
        self.told += told
        item |= {"structure": structure, "spaces": spaces, "neutral_holes": max(20, spaces)}
        _within(reader, item)
        ident = next_id(job, "p")
        add = {"op": "add", "kind": "panel", "item": {"id": ident, **item}}
        return Said([*self.edits, add], panel=ident, told=[*alike(reader, item), *self.told])


def alike(reader: SceneReader, item: dict[str, Any]) -> list[str]:
    """What is told where a panel of nearly this name is there already; one of the very name is refused."""
    name = str(item.get("name", ""))
    for there in reader.scene.job.panels:
        if there.name.lower() == name.lower():
            raise reader.refuse(f"there is a panel {there.name} already; allowed: another name")
        if bare_panel(there.name) == bare_panel(name):
            return [f"{there.name} stays as it is; {name} is a second panel"]
    return []


def _within(reader: SceneReader, item: dict[str, Any]) -> None:
    """Refuses a space in use that the panel has not."""
    spaces = item.get("spaces")
    if spaces is not None and any(space > spaces for space in item.get("taken", ())):
        raise reader.refuse(
            f"space {max(item['taken'])} is past the {spaces} spaces of {item.get('name', 'the panel')}"
        )
