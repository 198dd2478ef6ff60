"""Sentences that put up a building: by its kind, its name, its size where it is one room."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.site.building_words import BUILDINGS, LEVELS, east_north, level_of, new_building, usual_level
from levelrun.core.site.geometry import Point, rectangle
from levelrun.core.site.room_words import made_room, size, use_of
from levelrun.core.site.scene import Said, SceneReader

ADD = ("add", "make", "build", "put up", "put")
ABOUT = ("grade", "at", "existing", "dwelling", "not dwelling", "with", "called", "named", "as")
ATTACHED = ("garage", "workshop", "shop")
_NAME_LIKE = re.compile(r'[A-Z"]')


def structure(reader: SceneReader) -> Said:
    """structure KIND [NAME] [24' x 30'] [at X east Y north] [existing] [dwelling|not dwelling] [with basement]: a
    building with a main floor; `grade 18"` below it. Of a size it is one room, until its rooms are drawn."""
    return built(reader, reader.need(BUILDINGS, "house, shop, cabin, shed, garage or barn"), {}, None)


def building(reader: SceneReader) -> Said | None:
    """A house; shop 24' x 30'; add a 12' x 16' shed called Cold store. What could be a room where rooms are drawn is
    one."""
    added = reader.phrase(ADD) is not None
    added |= reader.phrase(("a", "an", "new")) is not None
    said = {"existing": True} if reader.phrase(["existing"]) else {}
    apart = reader.phrase(("new", "detached")) is not None
    sized = size(reader) if reader.sees_length() else None
    word = reader.phrase(BUILDINGS)
    if word is None:
        return None
    name_like = _NAME_LIKE.match(reader.text, _next(reader)) is not None
    plain = not (added or said or name_like or reader.sees(ABOUT))
    drawn = reader.scene.verb == "room" and bool(reader.scene.job.structures)
    at_home = any(item.kind == "house" and not item.existing for item in reader.scene.job.structures)
    if at_home and word in ATTACHED and not (apart or said or name_like or reader.sees(ABOUT)):
        return None  # a room of the house that is drawn, as long as nobody says that it stands apart
    there = word in {name.lower() for name in reader.buildings()}
    if (plain and drawn) or (there and not name_like and not reader.sees(ABOUT)):
        return None  # the room of a building that is called so
    if plain and not (reader.over() or reader.sees_length()):
        return None
    return built(reader, word, said, sized)


def _next(reader: SceneReader) -> int:
    reader.skip()
    return reader.pos


def built(reader: SceneReader, word: str, item: dict[str, Any], sized: Point | None) -> Said:
    """What follows the kind of a building; `item` and `sized`: what was said before it."""
    name, levels = "", list[str]()
    while not reader.over():
        if sized is None and reader.sees_length():
            sized = size(reader)
            continue
        said = reader.phrase(ABOUT)
        if said in (None, "called", "named", "as"):
            if name:
                reader.expect(ABOUT)
                raise reader.fail("grade, at, existing, dwelling, with a level, or a size")
            name = reader.name(ABOUT, r"\d[\d\s'\"./-]*(?:ft|m)?\s*(?:x|by)\b")
        elif said == "with":
            levels.append(reader.need(LEVELS, "a basement, a crawl space, an attic or a loft"))
            while reader.phrase(["and"]) is not None:
                levels.append(reader.need(LEVELS, "a basement, a crawl space, an attic or a loft"))
        elif said == "grade":
            item["grade_in"] = -reader.length()
        elif said == "existing":
            item["existing"] = True
        elif said in ("dwelling", "not dwelling"):
            item["dwelling"] = said == "dwelling"
        else:
            item["x_in"], item["y_in"] = east_north(reader)
    return _made(reader, word, name, item, sized, levels)


def _made(
    reader: SceneReader, word: str, name: str, item: dict[str, Any], sized: Point | None, levels: list[str]
) -> Said:
    taken = {part.name.casefold() for part in reader.scene.job.structures}
    name = name or next(n for n in (word.capitalize(), *(f"{word.capitalize()} {i}" for i in range(2, 99)))
                        if n.casefold() not in taken)  # fmt: skip
    _, floor, made = new_building(reader, BUILDINGS[word], name, item)
    own = made[0]["item"]["levels"]
    number = int(next_id(reader.scene.job, "v")[1:])
    for index, kind in enumerate(dict.fromkeys(levels)):
        own.append({"id": f"v{number + index}", **usual_level(kind)})
    own.sort(key=lambda level: float(level.get("floor_in", 0)))
    if sized is None:
        return Said(made, level=floor)
    told = [f"{name} is one room until its rooms are drawn"]
    return made_room(reader, name, use_of(f"{name} {word}"), rectangle(0.0, 0.0, *sized), floor, made, told)


def with_level(reader: SceneReader) -> Said | None:
    """House has a basement; a crawl space under House, 32" high; second floor over House."""
    names = reader.buildings()
    owner = reader.phrase(names)
    if owner is not None and reader.phrase(("has", "with", "gets")) is None:
        return None
    reader.phrase(("add", "a", "an"))
    kind = reader.phrase([word for word in LEVELS if word != "floor"])
    if kind is None:
        return None
    if owner is None and reader.phrase(("under", "over", "in", "of")) is not None:
        owner = reader.need(names, "a building by its name")
    if owner is None and (reader.scene.verb or not names or not (reader.over() or reader.sees_length())):
        return None  # a room may be called so
    return level_of(reader, names[owner] if owner is not None else next(iter(names.values())), kind)


VERBS = {"structure": structure}
