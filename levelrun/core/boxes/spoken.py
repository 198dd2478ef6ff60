"""Sentences about boxes that begin with the box, or with the verb of everyday: what it is, where it goes."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any, get_args

from levelrun.core.boxes.outside import outdoors
from levelrun.core.boxes.panel_spoken import panel_here, panel_is, the_panel
from levelrun.core.boxes.parts import Nema
from levelrun.core.boxes.qualities import BOXES, of_it
from levelrun.core.boxes.setting import at_mark, room_before, set_box
from levelrun.core.boxes.things import KINDS, PROTECTION, SERVES, gangs_said, kind_said
from levelrun.core.boxes.things import SPOKEN as KINDS_SPOKEN
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Panel
from levelrun.core.site.geometry import STEPS, Wall, walls_of
from levelrun.core.site.marking import ALIKE as ALIKE_THINGS
from levelrun.core.site.marking import PLUGGED_IN
from levelrun.core.site.scene import Said, SceneReader, walls_by_name

ALIKE = ("outlets", "receptacles", "plugs", "switches")
LINKS = ("is", "to be", "to", "becomes", "a", "an", "into", "needs", "wants", "should be", "gets", "has", "have")
KIND_WORDS = {**KINDS, **KINDS_SPOKEN}
NEMAS = tuple(word for word in get_args(Nema) if word)
WAYS = {
    "3-way": 3,
    "three-way": 3,
    "3 way": 3,
    "three way": 3,
    "4-way": 4,
    "four-way": 4,
    "4 way": 4,
    "single-pole": 2,
}
APPLIANCES = {word: ALIKE_THINGS.get(word, word) for word in (*PLUGGED_IN, "fridge", "stove")}
ALONGSIDE = ("microwave", "disposal", "disposer")  # what may be named with them
_DRAWS = re.compile(
    r"(?:draws\s+|load\s+(?:of\s+)?)(?P<n>\d+(?:\.\d+)?)\s*(?P<unit>watts?|w|amps?|a)\b", re.IGNORECASE
)
_BREAKER = re.compile(r"\s*\d{1,2}(?:/\d{1,2})?\s+\d+\s*(?:a|amps?)\b", re.IGNORECASE)
REST = ("outlet", "receptacle", "device", "box", "and", "switch")
HIGH = ("high", "up", "over the floor", "off the floor", "to the center", "to center")


def described(reader: SceneReader) -> Said | None:
    """R-1 is a gfci; make R-2 a two-gang box; R-3 is a 14-50 for range; R-4 is outside; L-1 is a fan."""
    reader.phrase(("make", "change", "turn"))
    box = _box(reader)
    if box is None:
        return None
    while reader.phrase(LINKS) is not None:
        pass
    item: dict[str, Any] = {}
    while not reader.over():
        if gangs_said(reader, item):
            continue
        if (word := reader.phrase(PROTECTION)) is not None:
            item["protects"] = PROTECTION[word]
        elif (word := reader.phrase(NEMAS)) is not None:
            item["nema"] = word
        elif (word := reader.phrase(WAYS)) is not None and box.kind == "switch":
            item["ways"] = WAYS[word]
        elif (drawn := _DRAWS.match(reader.text, reader.pos)) is not None:
            on = reader.circuit_of(box)
            volts = on.volts if on is not None else 120
            item["load_w"] = float(drawn["n"]) * (1 if drawn["unit"].lower().startswith("w") else volts)
            reader.pos = drawn.end()
        elif reader.phrase(("for", "serves")) is not None:
            item["serves"] = SERVES[reader.need(SERVES, "what it serves")]
        elif (word := reader.phrase(BOXES)) is not None:
            item |= BOXES[word]
        elif reader.phrase(("outside", "outdoors")) is not None:
            item["outdoors"] = True
        elif not item and (word := reader.phrase(KIND_WORDS)) is not None:
            item |= {key: value for key, value in KIND_WORDS[word].items() if value != getattr(box, key)}
            if not item:
                raise reader.refuse(f"{box.name} is that already")
        elif not item or reader.phrase(REST) is None:
            return None
    return Said([{"op": "set", "kind": "box", "id": box.id, "set": item}]) if item else None


def placed(reader: SceneReader) -> Said | None:
    """Raise R-1 to 44"; R-1 is 44" high, at 44"; move R-1 to 4' from the right, 1' left, 2' north; move the panel to
    the north wall at 4'."""
    verb = reader.phrase(("raise", "lower", "move"))
    node: Box | Panel | None = _box(reader) or the_panel(reader)
    if node is None:
        return None
    at = False
    while (word := reader.phrase((*LINKS[:3], "goes to", "goes", "at", "on"))) is not None:
        at |= word in ("at", "goes to")
    walls = walls_by_name(reader.scene.job.room(node.room)) if node.room is not None else {}
    if (verb == "move" or isinstance(node, Panel)) and (word := reader.phrase(walls)) is not None:
        return _onto(reader, node, walls[word])
    if not reader.sees_length():
        return None
    inches = reader.length()
    if verb == "move" and (way := reader.phrase((*STEPS, "left", "right"))) is not None:
        return _shifted(reader, node, inches, way)
    if isinstance(node, Panel):
        return _set(node, at_in=_along(reader, node, inches, reader.corner())) if verb == "move" else None
    if reader.phrase(HIGH) is not None or verb in ("raise", "lower"):
        return _set(node, height_in=_height(reader, node, inches), fixed=True)
    if (corner := reader.corner()) or verb == "move":
        return _set(node, at_in=_along(reader, node, inches, corner))
    return _set(node, height_in=_height(reader, node, inches), fixed=True) if at and reader.over() else None


def _shifted(reader: SceneReader, node: Box | Panel, inches: float, way: str) -> Said:
    """So far aside of where it is: along its wall, or under the ceiling by the compass."""
    if node.room is None:
        raise reader.refuse(f"{node.name} stands in no drawn room")
    if node.side is None or node.at_in is None:
        if way not in STEPS:
            raise reader.refuse(f"{node.name} hangs on no wall: say north, east, south or west")
        dx, dy = STEPS[way]
        return _set(node, x_in=(node.x_in or 0.0) + dx * inches, y_in=(node.y_in or 0.0) + dy * inches)
    wall = walls_of(reader.scene.job.room(node.room))[node.side]
    if way in STEPS:
        along = sum(p * q for p, q in zip(STEPS[way], wall.along, strict=True))
        if abs(along) < 0.7:
            raise reader.refuse(f"{node.name} is on the {wall.name} wall: it goes left or right along it")
        way = "right" if along > 0 else "left"
    at = node.at_in + (inches if way == "right" else -inches)
    if not 0 <= at <= wall.length_in:
        raise reader.refuse(f"{at:g} in is past the {wall.name} wall, {wall.length_in:g} in long")
    return _set(node, at_in=at)


def heights(reader: SceneReader) -> Said | None:
    """Raise all outlets to 50"; the switches in Hall are at 44": those of a kind, all or of a room, each to what the
    story pole marks of it. What serves an appliance stays where that is plugged in."""
    verb = reader.phrase(("raise", "lower", "set", "put", "make"))
    every = reader.phrase(("all", "all the", "every")) is not None
    kind = KINDS_SPOKEN.get(reader.phrase(ALIKE) or "", {}).get("kind")
    if kind is None:
        return None
    about = reader.room_ahead() or (None if every else reader.scene.room)
    if reader.phrase(("in", "of")) is not None and about is not None:
        reader.again(about)
    while reader.phrase(("are", "is", "to", "at", "go to", "should be")) is not None:
        pass
    if not reader.sees_length():
        return None
    inches = reader.length()
    reader.phrase(HIGH)
    if not reader.over():
        return None
    found = [
        box for box in reader.scene.job.boxes
        if box.kind == kind and box.side is not None and box.serves in ("", "counter")
        and (about is None or box.room == about.id)
    ]  # fmt: skip
    if not found:
        if verb is None:
            return None
        raise reader.refuse(f"{about.name if about is not None else 'the job'} has no such box")
    edits = [edit for box in found for edit in _set(box, height_in=_height(reader, box, inches), fixed=True).edits]
    return Said(edits, told=[f"{len(found)} boxes: {', '.join(box.name for box in found[:6])}"])


def marked(reader: SceneReader) -> Said | None:
    """Mark R-1 and R-2; check off R-3: they are marked on the frame. On Boxes also R-1 is marked."""
    said = reader.phrase(("mark", "check off", "check")) is not None
    own = reader.boxes_said()
    behind = reader.scene.verb == "set" and reader.phrase(("is marked", "are marked", "marked")) is not None
    if not own or not (said or behind) or not reader.over():
        return None
    return Said([{"op": "set", "kind": "box", "id": box.id, "set": {"marked": True}} for box in own])


def _box(reader: SceneReader) -> Box | None:
    reader.phrase(["box"])
    boxes = reader.boxes()
    word = reader.phrase(boxes)
    return boxes[word] if word is not None else _on_its_wall(reader)


def _on_its_wall(reader: SceneReader) -> Box | None:
    """The outlet on the north wall: the only one of its kind there. None where no such words stand here. Refuses
    several."""
    room, start = reader.scene.room, reader.pos
    kind = reader.phrase(("outlet", "receptacle", "plug", "switch")) if room is not None else None
    if room is None or kind is None or reader.phrase(("on", "in")) is None:
        reader.pos = start
        return None
    walls = walls_by_name(room)
    word = reader.phrase(walls)
    if word is None or not (reader.sees((*LINKS, "at", "on")) or reader.sees_length()):
        reader.pos = start
        return None
    job, what = reader.scene.job, KINDS_SPOKEN[kind]["kind"]
    found = [box for box in job.boxes if box.room == room.id and box.side == walls[word].index and box.kind == what]
    if len(found) != 1:
        raise reader.refuse(
            f"{len(found) or 'no'} {kind} is on the {walls[word].name} wall: say which by its name", start,
            [box.name for box in found],
        )  # fmt: skip
    return found[0]


def _set(node: Box | Panel, **values: Any) -> Said:
    return Said([{"op": "set", "kind": "panel" if isinstance(node, Panel) else "box", "id": node.id, "set": values}])


def _onto(reader: SceneReader, box: Box | Panel, face: Wall) -> Said:
    """On another wall of its room: so far along it, else in its middle, which is told."""
    reader.phrase(("at", "of"))
    if reader.over():
        told = [f"{box.name} is in the middle of the {face.name} wall; say how far from a corner where it is not"]
        return replace(_set(box, side=face.index, at_in=face.length_in / 2), told=told)
    at = reader.along(face)
    if at > face.length_in:
        raise reader.refuse(f"{at:g} in is past the {face.name} wall, {face.length_in:g} in long")
    return _set(box, side=face.index, at_in=at)


def _height(reader: SceneReader, box: Box, typed: float) -> float:
    """A height over the floor of its level, to what the story pole marks of such a box."""
    job = reader.scene.job
    room = job.room(box.room) if box.room is not None else None
    floors = {level.id: level.floor_in for s in job.structures for level in s.levels}
    floor = floors[room.level] if room is not None else 0.0
    return floor + at_mark(reader, box.kind, box.side is not None, typed)


def _along(reader: SceneReader, box: Box | Panel, inches: float, corner: str) -> float:
    if box.room is None or box.side is None:
        raise reader.refuse(f"{box.name} stands on no drawn wall")
    wall = walls_of(reader.scene.job.room(box.room))[box.side]
    if inches > wall.length_in:
        raise reader.refuse(f"{inches:g} in is past the {wall.name} wall, {wall.length_in:g} in long")
    return reader.from_left(wall, inches, corner)


def set_here(reader: SceneReader) -> Said | None:
    """A gfci outlet on the north wall of Kitchen, 4' from the left; add a smoke alarm in the hall."""
    if reader.scene.verb in ("", "from") and not reader.scene.job.rooms:
        return None  # the first page, or a line of it: it is an end
    if reader.scene.verb == "circuit" and _BREAKER.match(reader.text, reader.pos) is not None:
        return None  # 2 20a gfci: a space and its breaker, not two outlets
    reader.phrase(("add", "put", "install", "place"))
    start = reader.pos
    room_before(reader)
    try:
        kind_said(reader, {})
    except TextError as error:
        if not error.message.startswith("expected"):
            raise  # 70 lights: it is a box, of which something cannot be
        return None
    reader.pos = start
    return set_box(reader)


def plugged_in(reader: SceneReader) -> Said | None:
    """Fridge; dishwasher and disposal; the range, which is drawn: of what no place is said an outlet behind it, or
    where a wall of the kitchen is free; what has one already is what the sentence goes on about."""
    named = list[str]()
    while (word := reader.phrase((*APPLIANCES, *ALONGSIDE))) is not None:
        named.append(APPLIANCES.get(word) or word)
        reader.phrase(["and"])
    if not reader.over() or not {*named} & {*APPLIANCES.values()}:
        return None
    job = reader.scene.job
    has = [box for box in job.boxes if box.serves == named[0] and reader.circuit_of(box) is None]
    if len(named) == len(has) == 1:
        return Said([], room=has[0].room, node=has[0].id)
    drawn = [item for item in job.fixtures if item.kind == named[0]] if len(named) == 1 else []
    kitchens = [room for room in job.rooms if room.use == "kitchen"]
    now = reader.scene.room
    room = now.id if now is not None and now.use == "kitchen" else kitchens[0].id if len(kitchens) == 1 else None
    room = drawn[0].room if len(drawn) == 1 else room
    if room is None:
        return None
    behind = f" behind the {named[0]}" if len(drawn) == 1 else ""
    other = SceneReader(" and ".join(f"{word} outlet" for word in named) + behind)
    other.scene = replace(reader.scene, room_id=room)
    return set_box(other)


SPOKEN = (plugged_in, outdoors, marked, placed, heights, described, panel_is, of_it, set_here, panel_here)
