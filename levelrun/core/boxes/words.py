"""Sentences about boxes and panels: rooms filled, panels on a wall or in words."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.boxes.setting import set_box
from levelrun.core.editing import next_id
from levelrun.core.site.building_words import new_building
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import SHORT, Said, SceneReader

_SPACES = re.compile(r"(\d+)(?:\s*-\s*(\d+))?(?!\s*(?:a|amps?|spaces?|free)\b)(?![\w'\"])")
_COUNT = re.compile(
    r"(?P<n>\d+(?:\.\d+)?|one|two|three|four|six|eight)\s*(?P<unit>a|amps?|spaces?|free)\b", re.IGNORECASE
)
COUNTS = {"one": "1", "two": "2", "three": "3", "four": "4", "six": "6", "eight": "8"}
PANEL_WORDS = ("at", "spaces", "main", "lugs", "bonded", "sub", "as")


def fill(reader: SceneReader) -> Said:
    """fill [in ROOM|every room]: the boxes that a room still lacks."""
    if reader.phrase(["every room", "all"]):
        level = reader.level()
        rooms = [room for room in reader.scene.job.rooms if room.level == level.id]
    else:
        rooms = [reader.room_named() if not reader.over() and not _in(reader) else reader.room()]
    return Said([{"op": "fill_room", "room": room.id} for room in rooms], room=rooms[0].id if rooms else None)


def _in(reader: SceneReader) -> bool:
    start = reader.pos
    found = reader.phrase(["in"]) is not None
    reader.pos = start
    return found


def panel(reader: SceneReader) -> Said:
    """panel WALL PLACE [at HEIGHT] [spaces N] [main N a|lugs] [bonded|sub] [as NAME]: its lower edge at HEIGHT.

    Where no room is drawn: panel NAME [200a] [30 spaces] [taken 1-14 17] [2 free] [in shop] [at garage wall].
    """
    if not _on_a_wall(reader):
        return panel_in_words(reader)
    about = reader.room()
    face = reader.wall(about)
    item: dict[str, Any] = {"room": about.id, "side": face.index, "at_in": reader.length()}
    level = next(lv for s in reader.scene.job.structures for lv in s.levels if lv.id == about.level)
    item["height_in"] = level.floor_in + 48.0
    while not reader.over():
        word = reader.need((*PANEL_WORDS, "taken"), "at, spaces, taken, main, lugs, bonded, sub or as")
        if word == "at":
            item["height_in"] = level.floor_in + reader.length()
        elif word == "as":
            item["name"] = reader.name(PANEL_WORDS)
        else:
            said_of_panel(reader, item, word)
    if item["at_in"] > face.length_in:
        raise reader.refuse(f"{item['at_in']:g} in is past the {face.name} wall, {face.length_in:g} in long")
    return Said([{"op": "add", "kind": "panel", "item": item}], room=about.id)


def _on_a_wall(reader: SceneReader) -> bool:
    """Whether the sentence goes on with a room or one of its walls."""
    start = reader.pos
    room = reader.scene.room
    if reader.phrase(["in"]):
        found = reader.phrase(reader.scene.rooms()) is not None
    else:
        names = [wall.name for wall in walls_of(room)] if room else []
        found = reader.over() or reader.phrase([*names, *(SHORT if names else ())]) is not None
    reader.pos = start
    return found


def said_of_panel(reader: SceneReader, item: dict[str, Any], word: str) -> None:
    """What a panel is, wherever it stands."""
    if word == "spaces":
        item["spaces"] = int(reader.number("a count of spaces", 1, 84))
    elif word == "taken":
        item["taken"] = _taken(reader)
    elif word == "main" and reader.phrase(["lugs"]):
        item["main_a"] = None
    elif word == "main":
        item["main_a"] = item["bus_a"] = reader.number("amperes", 0, 1200)
        reader.phrase(["a", "amps"])
    elif word == "lugs":
        item["main_a"] = None
    elif word in ("bonded", "sub"):
        item |= {"bonded": word == "bonded", "disconnect_elsewhere": word == "sub"}


def _taken(reader: SceneReader) -> list[int]:
    """Spaces and ranges of spaces: 1-14 17 19."""
    reader.expect(["1-14 17 19"])
    found: list[int] = []
    reader.skip()
    while match := _SPACES.match(reader.text, reader.pos):
        first, last = int(match[1]), int(match[2] or match[1])
        if not 1 <= first <= last <= 84:
            raise reader.refuse(f"{match[0].strip()}: spaces are 1 to 84, the lower one first", reader.pos)
        found += range(first, last + 1)
        reader.pos = match.end()
        reader.skip()
    if not found:
        raise reader.fail("spaces such as 1-14 17 19")
    return sorted(set(found))


def panel_in_words(reader: SceneReader) -> Said:
    """A panel that stands in no drawn room."""
    job = reader.scene.job
    item: dict[str, Any] = {"name": reader.token("a name"), "height_in": 48.0}
    edits: list[dict[str, Any]] = []
    structure = job.structures[0].id if job.structures else ""
    while not reader.over():
        reader.expect(["200a", "30 spaces", "taken", "2 free", "in", "at", "main", "lugs", "bonded", "sub"])
        count = _COUNT.match(reader.text, reader.pos)
        if count is not None:
            _counted(reader, item, count)
            continue
        word = reader.need(
            ("in", "at", "taken", "spaces", "main", "lugs", "bonded", "sub"), "amperes, spaces or taken"
        )
        if word == "at":
            item["where"] = reader.name(("in", "taken", "spaces", "main", "lugs", "bonded", "sub"))
        elif word == "in":
            structure, made = structure_in_words(reader)
            edits += made
        else:
            said_of_panel(reader, item, word)
    if not structure:
        structure, _, made = new_building(reader, "house", "House")
        edits += made
    spaces = item.get("spaces", max([20, *item.get("taken", ())]))
    item |= {"structure": structure, "spaces": spaces, "neutral_holes": max(20, spaces)}
    if any(space > spaces for space in item.get("taken", ())):
        raise reader.refuse(f"space {max(item['taken'])} is past the {spaces} spaces of {item['name']}")
    ident = next_id(job, "p")
    edits.append({"op": "add", "kind": "panel", "item": {"id": ident, **item}})
    return Said(edits, panel=ident)


def _counted(reader: SceneReader, item: dict[str, Any], count: re.Match[str]) -> None:
    unit, number = count["unit"].lower(), COUNTS.get(count["n"].lower(), count["n"])
    amount = float(number)
    start, reader.pos = reader.pos, count.end()
    if unit.startswith("a"):
        if not 0 < amount <= 1200:
            raise reader.refuse(f"{number} A: 1 to 1200", start)
        item["main_a"] = item["bus_a"] = amount
    elif unit.startswith("space"):
        if not 2 <= amount <= 84:
            raise reader.refuse(f"{number} spaces: 2 to 84", start)
        item["spaces"] = int(amount)
    else:
        item["free_said"] = int(amount)


def structure_in_words(reader: SceneReader) -> tuple[str, list[dict[str, Any]]]:
    """A structure by its name, or by its kind: the one there is, else a new one."""
    named = {item.name: item.id for item in reader.scene.job.structures}
    kinds = {"house": "house", "shop": "shop", "cabin": "cabin", "shed": "shed", "garage": "shop", "barn": "shop"}
    word = reader.need([*named, *(kind for kind in kinds if kind not in {n.lower() for n in named})], "a building")
    if word in named:
        return named[word], []
    ident, _, made = new_building(reader, kinds[word], word.capitalize())
    return ident, made


VERBS: dict[str, Callable[[SceneReader], Said]] = {"set": set_box, "fill": fill, "panel": panel}
