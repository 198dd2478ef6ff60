"""Sentences that put up a building: by its kind, its name, its size where it is one room."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from levelrun.core.editing import next_id
from levelrun.core.job import Job, Structure
from levelrun.core.site.building_words import (
    LEVELS,
    UNDRAWN_IN,
    UP,
    east_north,
    level_of,
    new_building,
    usual_level,
)
from levelrun.core.site.called import BUILDINGS, use_of
from levelrun.core.site.frame_words import CENTRES, FRAMES, STUDS
from levelrun.core.site.geometry import STEPS, Point, rectangle
from levelrun.core.site.room_words import made_room, size
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.words import COUNTS

ADD = ("add", "make", "build", "put up", "put")
OLD = ("existing", "old work")
ABOUT = ("grade", "at", *OLD, "dwelling", "not dwelling", "with", "called", "named", "as")
ATTACHED = ("garage", "workshop", "shop")
KINDLY = ("sleeping", "full", "finished", "unfinished", "walk-out")  # before a level, with nothing for a rule in it
FRAMED = ("stud walls", "stud framed", "wood framed", "wood frame", "framed walls", "ceilings", "ceiling")
# Without the compass a plan has the street in the south: common practice, no source.
ANYWHERE = "east of"  # of a building of which only is said how far it stands from another; told
SIDES = {"behind": "north", "in back of": "north", "at the back of": "north", "in front of": "south"}
_OFF_ANOTHER = re.compile(
    rf"\d\s*(?:'|ft|feet)\s*(?:(?:{'|'.join(STEPS)})\s+of|{'|'.join(SIDES)}|from|away\s+from)\s+(?:the\s+)?"
    r"(?P<of>\w[\w-]*)",
    re.IGNORECASE,
)
NUMBERS = {**{word: n for word, n in COUNTS.items() if n <= 3}, "single": 1, "double": 2}
_STORIES = re.compile(
    rf"(?P<n>[1-3]|{'|'.join(NUMBERS)})[\s-]*(?:stor(?:ey|y|eys|ies)|floors?|levels?)\b", re.IGNORECASE
)
_NAME_LIKE = re.compile(r'[A-Z"]')
# In a year that is past it was built, whatever its wiring: 1965, built in 1920s.
_BUILT = re.compile(r"(?:built\s+)?(?:in\s+)?(?:the\s+)?(?P<year>(?:18|19|20)\d\d)s?\b(?!\s*['\"x])", re.IGNORECASE)


def structure(reader: SceneReader) -> Said:
    """structure KIND [NAME] [24' x 30'] [at X east Y north] [existing] [dwelling|not dwelling] [with basement]: a
    building with a main floor; `grade 18"` below it. Of a size it is one room, until its rooms are drawn."""
    return built(reader, reader.need(BUILDINGS, "house, shop, cabin, shed, garage or barn"), {}, None)


def building(reader: SceneReader) -> Said | None:
    """A house; shop 24' x 30'; add a 12' x 16' shed called Cold store. What could be a room where rooms are drawn is
    one."""
    added = reader.phrase(ADD) is not None
    added |= reader.phrase(("a", "an", "new")) is not None
    said: dict[str, Any] = {"existing": True} if reader.phrase((*OLD, "old")) else {}
    if (year := _year(reader)) is not None:  # a 1920s bungalow
        reader.pos, said["existing"] = year.end(), True
    start = reader.pos
    said |= _stories(reader)
    if said.get("stories") and not reader.sees(BUILDINGS):
        reader.pos = start
        return None
    apart = reader.phrase(("new", "detached")) is not None or _stands_off(reader)
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
    if reader.text.startswith(":", reader.pos):  # cabin: what follows stands in it
        reader.pos += 1
        if not reader.over():
            return None
    there = word in {name.lower() for name in reader.buildings()}
    if (plain and drawn) or (there and not name_like and not reader.sees(ABOUT)):
        return None  # the room of a building that is called so
    if plain and not (
        reader.over() or reader.sees_length() or reader.sees(STUDS) or _year(reader) or _storied(reader)
    ):
        return None
    return built(reader, word, said, sized)


def _stands_off(reader: SceneReader) -> bool:
    """Whether the sentence says how far it is from another building: 40' east of the house."""
    end = reader.line_end()
    known = {name.casefold() for name in reader.buildings()} or {"house"}
    return any(match["of"].casefold() in known for match in _OFF_ANOTHER.finditer(reader.text, reader.pos, end))


def _year(reader: SceneReader) -> re.Match[str] | None:
    return _BUILT.match(reader.text, _next(reader))


def _next(reader: SceneReader) -> int:
    reader.skip()
    return reader.pos


def built(reader: SceneReader, word: str, item: dict[str, Any], sized: Point | None) -> Said:
    """What follows the kind of a building; `item` and `sized`: what was said before it."""
    scene = reader.scene
    try:
        home = _home(reader)  # seen by what follows, as long as this sentence is read
        said = _built(reader, word, item, sized)
    finally:
        reader.scene = scene
    return replace(said, edits=[*home, *said.edits])


def _built(reader: SceneReader, word: str, item: dict[str, Any], sized: Point | None) -> Said:
    name, levels, side = "", list(UP[: item.pop("stories", 1) - 1]), dict[str, Any]()
    apart: tuple[float, str, Structure] | None = None
    while not reader.over():
        if (year := _year(reader)) is not None:
            reader.pos, item["existing"] = year.end(), True
            continue
        if stories := _stories(reader):
            levels += UP[: stories["stories"] - 1]
            continue
        if not reader.sees(STUDS) and reader.sees_length():
            start, off = reader.pos, _apart(reader)
            apart = off or apart
            if off is None and (high := _ceiling(reader)) is not None:
                item["high"] = high
                continue
            if off is None and sized is not None:
                reader.pos = start
                raise reader.fail("its name, what it has, or how far it is `north of` a building")
            sized = sized if off is not None else size(reader)
            continue
        if (stud := reader.phrase(STUDS)) is not None:
            side |= _studs(reader, stud)
            continue
        if reader.phrase(("and", "has", *FRAMED)) is not None:
            continue
        said = reader.phrase(ABOUT)
        if said in (None, "called", "named", "as"):
            if name or (said is None and _NAME_LIKE.match(reader.text, _next(reader)) is None):
                reader.expect(ABOUT)
                raise reader.fail(
                    "its size, existing, with a level, studs, how far from a building, or `called` a name"
                )
            name = reader.name(ABOUT, r"\d[\d\s'\"./-]*(?:ft|m)?\s*(?:x|by)\b")
        elif said == "with":
            if (stud := reader.phrase(STUDS)) is not None:
                side |= _studs(reader, stud)
                continue
            levels += _levels_with(reader, item)
            while reader.phrase(["and"]) is not None:
                levels += _levels_with(reader, item)
        elif said == "grade":
            item["grade_in"] = -reader.length()
        elif said in OLD:
            item["existing"] = True
        elif said in ("dwelling", "not dwelling"):
            item["dwelling"] = said == "dwelling"
        else:
            item["x_in"], item["y_in"] = east_north(reader)
    if apart is not None:
        item["x_in"], item["y_in"] = _off(reader.scene.job, *apart, sized or UNDRAWN_IN)
    if side and sized is None:
        raise reader.refuse("say its size first, as 24' x 30', or draw its rooms: studs are those of walls")
    return _made(reader, word, name, item, sized, levels, side)


def _home(reader: SceneReader) -> list[dict[str, Any]]:
    """The house from which a building stands off, put up where none is there yet: it is no work of this job."""
    text = reader.text[reader.pos : reader.line_end()]
    if reader.scene.job.structures or not any(m["of"].casefold() == "house" for m in _OFF_ANOTHER.finditer(text)):
        return []
    _, _, made = new_building(reader, "house", "House", {"existing": True})
    there = Structure.model_validate(made[0]["item"])
    job = reader.scene.job.model_copy(update={"structures": (there,)})
    reader.scene = replace(reader.scene, job=job)
    return made


def _ceiling(reader: SceneReader) -> float | None:
    """How high its rooms are: 8' ceilings, 9' high. None, and nothing taken, where another length stands."""
    start = reader.pos
    inches = reader.length()
    if reader.phrase(("high ceilings", "high ceiling", "ceilings", "ceiling", "high walls", "high", "tall")) is None:
        reader.pos = start
        return None
    return inches


_CENTRES = re.compile(
    r"(?:at\s+|,\s*)?(?P<n>\d+(?:\.\d+)?)\s*(?:\"|in\b)?\s*(?:o\.?c\.?(?!\w)|on cent(?:er|re)s?\b)", re.IGNORECASE
)


def _levels_with(reader: SceneReader, item: dict[str, Any]) -> list[str]:
    """What it has beside its main floor; how high its rooms are goes to `item`."""
    reader.phrase(KINDLY)
    if reader.sees_length() and (high := _ceiling(reader)) is not None:
        item["high"] = high
        return []
    if stories := _stories(reader):
        return list(UP[: stories["stories"] - 1])
    return [reader.need(LEVELS, "a basement, a crawl space, a second floor, an attic or a loft")]


def _storied(reader: SceneReader) -> re.Match[str] | None:
    return _STORIES.match(reader.text, _next(reader))


def _stories(reader: SceneReader) -> dict[str, Any]:
    """How many floors it has, where that stands here: two-story, 2 floors; empty where it does not."""
    found = _storied(reader)
    if found is None:
        return {}
    reader.pos = found.end()
    said = found["n"].lower()
    return {"stories": int(NUMBERS.get(said, said))}


def _studs(reader: SceneReader, stud: str) -> dict[str, Any]:
    """What its walls are made of, and how far apart their studs are where that is said."""
    side: dict[str, Any] = {"stud": FRAMES[stud]}
    reader.phrase(("studs", "walls", "framing", "construction"))
    if (centres := _CENTRES.match(reader.text, _next(reader))) is not None:
        reader.pos = centres.end()
        return {**side, "spacing_in": float(centres["n"])}
    start = reader.pos
    reader.phrase(["at"])
    if reader.sees_length():
        side["spacing_in"] = reader.length()
        if reader.phrase(CENTRES) is not None:
            return side
        side.pop("spacing_in")
    reader.pos = start
    return side


def _apart(reader: SceneReader) -> tuple[float, str, Structure] | None:
    """How far off it stands, which way and of which building: 80' north of the house. None where a size stands."""
    start = reader.pos
    inches = reader.length()
    way = reader.phrase([f"{step} of" for step in STEPS])
    if way is None and (side := reader.phrase(SIDES)) is not None:
        way = f"{SIDES[side]} of"
    if way is None and reader.phrase(("away from", "from")) is not None:
        way = ANYWHERE
    if way is None:
        reader.pos = start
        return None
    buildings = reader.buildings()
    return inches, way.split()[0], buildings[reader.need(buildings, "a building by its name")]


def _off(job: Job, inches: float, way: str, other: Structure, size: Point) -> Point:
    """The place of a building of a size that is so far off another one, their middles in a line."""
    levels = {level.id for level in other.levels}
    corners = [at for room in job.rooms if room.level in levels for at in room.corners] or [(0.0, 0.0), UNDRAWN_IN]
    lows, highs = ([pick(at[axis] for at in corners) for axis in (0, 1)] for pick in (min, max))
    east, north = (
        (low + high - own) / 2 + step * ((high - low + own) / 2 + inches)
        for low, high, own, step in zip(lows, highs, size, STEPS[way], strict=True)
    )
    return other.x_in + east, other.y_in + north


def _made(
    reader: SceneReader,
    word: str,
    name: str,
    item: dict[str, Any],
    sized: Point | None,
    levels: list[str],
    side: dict[str, Any],
) -> Said:
    taken = {part.name.casefold() for part in reader.scene.job.structures}
    name = name or next(n for n in (word.capitalize(), *(f"{word.capitalize()} {i}" for i in range(2, 99)))
                        if n.casefold() not in taken)  # fmt: skip
    high = item.pop("high", None)
    _, floor, made = new_building(reader, BUILDINGS[word], name, item)
    own = made[0]["item"]["levels"]
    if high is not None:
        own[0]["height_in"] = high
    number = int(next_id(reader.scene.job, "v")[1:])
    for index, kind in enumerate(dict.fromkeys(levels)):
        usual = usual_level(kind, own)
        raised = {"height_in": high} if high is not None and usual["kind"] == "floor" else {}
        own.append({"id": f"v{number + index}", **usual, **raised})
    own.sort(key=lambda level: float(level.get("floor_in", 0)))
    if sized is None:
        return Said(made, level=floor)
    told = [f"{name} is one room until its rooms are drawn"]
    said = made_room(reader, name, use_of(f"{name} {word}"), rectangle(0.0, 0.0, *sized), floor, made, told)
    framed = [{"op": "set_side", "room": said.room, "side": None, "set": side}] if side else []
    return replace(said, edits=[*said.edits, *framed])


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
