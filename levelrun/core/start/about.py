"""What more is said of the circuit of a line that starts a job, or of what stands at its end."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from levelrun.core.boxes.machines import BY_NAME
from levelrun.core.boxes.parts import LAMPS, SWITCHABLE
from levelrun.core.boxes.qualities import BOXES
from levelrun.core.boxes.things import PLUGS, SERVES, horses_said, watts_said
from levelrun.core.circuits.parts_said import LARGEST, LEAST, UNIT, circuit_part
from levelrun.core.site.naming import SUB_PANELS
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.ends import (
    BEFORE,
    PLUG_NAMES,
    ROOMS,
    amperes,
    any_of,
    configured,
    end_here,
    new_name,
    several,
    standing_in,
)
from levelrun.core.start.kinds import BUILDINGS, CALLED, ENDS, NOT_HELD, USES, WIRED, Kind
from levelrun.core.start.more import TOGETHER
from levelrun.core.start.several import apart_here
from levelrun.core.trade.conductors.sizing import breaker_ratings

_FOR = re.compile(
    r"(?P<name>[^;\n\d\"]+?)(?=\s+(?:\d|#|(?:as|in|outside|at|on|load|gfci|afci|dual|hardwired|wire\s+\d|nameplate)\b"
    rf"|(?:{any_of((*LEAST, *LARGEST))})\b)|\s*(?:$|;|\n))",
    re.IGNORECASE,
)
_PLACE = re.compile(
    r"(?:the\s+)?(?P<where>[a-z]+(?:\s+[a-z]+){0,3}?)(?=\s*,\s*\d|\s+\d[\d\s./-]*(?:'|\"|ft\b|feet\b))", re.IGNORECASE
)
_BESIDE = re.compile(
    r"(?:under|by|beside|next to|behind|near|over|above)\s+(?:(?:the|a|my)\s+)?[a-z]+(?:\s+(?!in\b|on\b)[a-z]+)?"
    r"(?=\s*(?:[,;:\n]|$)|\s+(?:in|on|for|\d))",
    re.IGNORECASE,
)
_SECOND = re.compile(r"\s*(?:/|and|&|-)\s*(?P<n>\d{1,2})(?![\d'\"/-])", re.IGNORECASE)
_CIRCUITS = re.compile(r"\s*(?:[2-9]|two|three|four)\s+(?:different\s+|separate\s+)?circuits\b", re.IGNORECASE)
_COUNTED = re.compile(r"\s*(?P<n>[1-9]\d?)[\s-]*(?:spaces?|circuits?)\b", re.IGNORECASE)  # of a sub-panel
SWITCHED = tuple(f"{joins} {a}switch" for joins in ("with", "and", "on")
                 for a in ("", "a ", "its own ", "a wall ", "a dimmer ", "a door ", "a pull ", "its "))  # fmt: skip
# A light that two switches work: they stand before it, one behind the other.
FROM_BOTH_ENDS = re.compile(
    r"(?:with|on)\s+(?:(?:an?\s+pair\s+of|an?|two|2)\s+)?(?:3|three)[\s-]?ways?(?:\s+switch(?:es)?)?"
    r"(?:\s+at\s+(?:each|either|both)\s+(?:ends?|doors?|sides?))?\b|switched\s+(?:from|at)\s+(?:both|two)\s+(?:ends|doors|places)\b",
    re.IGNORECASE,
)
WORKED = (*LAMPS, *SWITCHABLE)
AT_IT = tuple(f"{at} the {what}" for at in ("by", "at", "beside", "near", "over") for what in (
    "door", "counter", "sink", "stairs",
))  # fmt: skip
OUTER = ("outside wall", "outside of the house", "exterior wall", "outer wall")
ROOM_WALLS = tuple(f"{the}{room} wall" for the in ("", "the ") for room in ROOMS)
FACES = ("wall", "walls", "surface", "wall surface")
ON_A_WALL = "shop_surface"  # where it can be hit
WALLS = ("north", "east", "south", "west", "back", "front")
QUALITIES = tuple(word for word in BOXES if "continuous" not in word)
RECEIVING = ("receptacle", "equipment")  # a charger may stand at an outlet
MORE = ("for", "in garage", "outside", "as", "on", "spaces", "at")
ITS_OWN = tuple(f"{on}{own}" for on in ("on ", "") for own in (
    "its own circuit", "own circuit", "a dedicated circuit", "dedicated circuit", "a separate circuit", "dedicated",
))  # fmt: skip
SPACES = ("spaces", "space", "slots", "slot", "breaker")
ABOUT = ("for", "in", "outside", "outdoors", "as", "on", "spaces", "at", "hardwired", "continuous", "nema")


def about(reader: SceneReader, said: Asked) -> Asked:
    """One thing more that is said of the circuit or of what stands at its end."""
    reader.expect([])
    begin = reader.pos
    if said.kind.box.get("kind") in LAMPS and said.kind.volts == 120 and reader.take(FROM_BOTH_ENDS) is not None:
        drawn = {} if said.load_w is None else {"load_w": said.load_w}
        lamp = replace(said, legs=[], circuit={}, more=(), kind=replace(said.kind, box={**said.kind.box, **drawn}))
        said = replace(said, kind=WIRED["3-way switch"], name=said.name or "Light", load_w=None)
        return replace(said, count=2, apart_in=None, more=(lamp, *said.more))
    if said.kind.box.get("kind") in WORKED and said.kind.volts == 120 and reader.phrase(SWITCHED) is not None:
        reader.phrase(AT_IT)
        return replace(said, switched=True)
    if said.count > 1 and (apart := apart_here(reader)) is not None:
        return replace(said, apart_in=apart)
    if said.count > 1 and reader.phrase(["each"]) is not None:
        return said
    if said.building and reader.phrase(SUB_PANELS) is not None:  # a shop 60 amp sub-panel
        return said
    if reader.phrase((*ITS_OWN, *TOGETHER)) is not None:  # as every such line is
        return said
    if (beside := reader.take(_BESIDE)) is not None:  # under the window
        return replace(said, where=beside.group(0).strip())
    joins = reader.phrase(("of", "and", "rated", "with"))
    while joins == "with" and reader.phrase(BEFORE):
        pass
    if joins == "and" and end_here(reader):
        raise several(reader, f"{said.name or said.kind.title} {reader.text[begin : reader.line_end()].lstrip()}")
    machine = said.kind.box.get("kind") in RECEIVING and said.kind.box.get("serves") not in ("", "generator")
    if machine and not said.kind.whip and reader.phrase(PLUGS):
        return replace(
            said, kind=replace(said.kind, box={**said.kind.box, "kind": "receptacle"})
        )  # welder 50a outlet
    if (watts := watts_said(reader)) is not None:
        return replace(said, load_w=watts)
    if (horses := horses_said(reader)) is not None:
        return replace(said, motor_hp=horses)
    own = said.kind.load_first or said.name.casefold() in BY_NAME
    if own and said.load_a is None and (load := _own_load(reader, said.kind)) is not None:
        return replace(said, load_a=load, either=True)
    if (made := _of_circuit(reader, said, MORE)) is not None:
        return made
    if (said.kind.box or said.kind.whip) and (quality := reader.phrase(QUALITIES)) is not None:
        return replace(said, kind=replace(said.kind, box={**said.kind.box, **BOXES[quality]}))
    if said.kind.feeds and (spaces := reader.take(_COUNTED)) is not None:
        return replace(said, spaces=int(spaces["n"]))
    if said.kind.box.get("kind") in RECEIVING and (plug := reader.phrase(PLUG_NAMES)) is not None:
        return configured(reader, said, plug)
    word = reader.need(ABOUT, "amperes, volts, `for` a name, `in` a room, `as` a name")
    return ABOUT_WORDS[word](reader, said)


def _of_circuit(reader: SceneReader, said: Asked, more: tuple[str, ...] = ()) -> Asked | None:
    """With one part of its circuit, where one stands here: 20a, gfci, wire 10. `more`: words that may stand here too,
    for completion."""
    item = dict(said.circuit)
    if not circuit_part(reader, item, more):
        return None
    word = reader.phrase(("breaker", "circuit"))
    return replace(said, circuit=item, branch=said.branch or word == "circuit")


def _own_load(reader: SceneReader, kind: Kind) -> float | None:
    """Amperes that are a machine's own: of what is charged all that are not said to be those of its breaker, of
    another such as no breaker is made for."""
    start = reader.pos
    load = amperes(reader)
    made = breaker_ratings(reader.scene.book)
    if load is None or reader.sees(("breaker", "circuit")) or (kind.key != "vehicle" and load in made):
        reader.pos = start
        return None
    return load


def _for(reader: SceneReader, said: Asked) -> Asked:
    reader.expect(["planer 36a"])
    reader.phrase(BEFORE)
    if (match := reader.take(_FOR)) is None:
        raise reader.fail("what it is for")
    load = amperes(reader)
    name = match["name"].strip(" ,")
    if (why := NOT_HELD.get(name.casefold())) is not None:
        raise reader.refuse(why)
    kind = _serving(said.kind, name.casefold())
    return replace(said, kind=kind, name=name, load_a=said.load_a if load is None else load)


def _serving(kind: Kind, name: str) -> Kind:
    """An outlet or a machine for something that the trade knows is what that is: a dryer wants a neutral and its
    usual load, a kiln is on for hours."""
    known = ENDS.get(name)
    if kind.key not in ("outlet", "machine"):
        return kind
    if known is not None and known.box.get("kind") == kind.box["kind"] and known.key != "outlet":
        return known
    if known is not None and kind.box["kind"] == "disconnect" and known.box.get("kind") == "equipment":
        box = {**known.box, **kind.box, "serves": known.box.get("serves", "")}  # what it turns off says what it is on
        return replace(kind, box=box, least_wire=known.least_wire, breaker_a=known.breaker_a, volts=known.volts)
    serves = SERVES.get(name)
    return kind if serves is None else replace(kind, box={**kind.box, "serves": serves})


def _in(reader: SceneReader, said: Asked) -> Asked:
    named = {name: item.id for name, item in reader.buildings().items()}
    kinds = [word for word in BUILDINGS if word not in ROOMS]
    if reader.phrase(("ceiling", "the ceiling")) is not None:
        return replace(said, where="ceiling")
    word = reader.need([*USES, *named, *CALLED, *kinds], "a room or a building: garage, kitchen, bath")
    if word in ROOMS:
        return replace(said, use=ROOMS[word])
    if word not in named and said.kind.feeds:  # a sub-panel in a shed that is not there yet
        return replace(said, kind=ENDS["building"], building=BUILDINGS[word], building_name=word.capitalize())
    return replace(said, structure=named[word]) if word in named else standing_in(reader, said, word)


def _outside(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, outdoors=True)


def _as(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, box_name=new_name(reader, "a name", ""))


def _on(reader: SceneReader, said: Asked) -> Asked:
    """The space of the panel, or a breaker: on 12, on a 20a breaker."""
    if reader.phrase(OUTER) is not None:
        return replace(said, outdoors=True)
    if reader.phrase(FACES) is not None:  # emt on the wall
        at = next((index for index, leg in enumerate(said.legs) if leg.place), len(said.legs))
        return replace(said, legs=[*(replace(leg, place=ON_A_WALL) for leg in said.legs[:at]), *said.legs[at:]])
    if (wall := reader.phrase(ROOM_WALLS)) is not None:  # on the garage wall
        room = wall.removeprefix("the ").removesuffix(" wall")
        return replace(said, where=f"{room} wall", use=said.use or ROOMS[room])
    if (wall := reader.phrase(WALLS)) is not None:
        reader.phrase(["wall"])
        return replace(said, where=f"{wall} wall")
    if reader.phrase(BEFORE) or UNIT.match(reader.text, reader.pos):
        made = _of_circuit(reader, said)
        if made is None:
            raise reader.fail("amperes of a breaker")
        return made
    if _CIRCUITS.match(reader.text, reader.pos) is not None:
        raise reader.refuse("each circuit is a line of its own; two that share a neutral are `multiwire`")
    reader.phrase(SPACES)
    space = int(reader.number("a space of the panel", 0, 84))
    item = {**said.circuit, "space": space}
    if (two := _SECOND.match(reader.text, reader.pos)) is not None:
        if int(two["n"]) != space + 2:
            raise reader.refuse(f"{space} and {two['n']} are not one below the other: {space} and {space + 2} are")
        item, reader.pos = {"volts": 240, **item}, two.end()
    return replace(said, circuit=item)


def _nema(reader: SceneReader, said: Asked) -> Asked:
    """The receptacle by its configuration: its volts, its neutral and, where none was said, its amperes."""
    return configured(reader, said, reader.need(PLUG_NAMES, "a configuration of receptacle"))


def _spaces(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, spaces=int(reader.number("a count of spaces", 1, 84)))


def _at(reader: SceneReader, said: Asked) -> Asked:
    if (place := reader.take(_PLACE)) is not None:  # at the back door, 25' attic
        return replace(said, where=place["where"])
    return replace(said, where=reader.name(ABOUT))


def _hardwired(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, hardwired=True)


def _continuous(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, kind=replace(said.kind, box={**said.kind.box, "continuous": True}))


ABOUT_WORDS: dict[str, Callable[[SceneReader, Asked], Asked]] = {
    "for": _for, "in": _in, "outside": _outside, "outdoors": _outside, "as": _as, "on": _on, "spaces": _spaces,
    "at": _at, "hardwired": _hardwired, "continuous": _continuous, "nema": _nema,
}  # fmt: skip
