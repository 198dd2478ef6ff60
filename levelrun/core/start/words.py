"""The line that starts a job: from a panel along a way to what stands at its end, in one sentence."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import replace

from levelrun.core.boxes.setting import SERVES
from levelrun.core.circuits.words import UNIT, circuit_part
from levelrun.core.codebook.lookups import places
from levelrun.core.errors import TextError
from levelrun.core.job import Box, Circuit, Panel
from levelrun.core.site.scene import SMALL, Said, SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import (
    BUILDINGS,
    CALLED,
    ENDS,
    KINDS,
    NOT_HELD,
    OFFERED,
    PLUGGED,
    USES,
    WIRED,
    Kind,
)  # fmt: skip
from levelrun.core.start.made import edits_for
from levelrun.core.start.opening import FIGURES, cable_first, in_cable, opened
from levelrun.core.start.sized import of_240
from levelrun.core.ways.walk import GO, WalkLeg, parse_walk, suggest
from levelrun.core.ways.words import read_legs

BEFORE = (*SMALL, "my", "new")
ROOMS = {**USES, **CALLED}
STANDS = (*ENDS, *PLUGGED, *WIRED)
WITHIN = tuple(word for word in STANDS if word not in ENDS or not ENDS[word].feeds)  # what stands in a building
PLUGS = ("outlet", "receptacle", "plug")
OUTSIDE = ("outside", "outdoor", "outdoors")


def _any(words: Iterable[str]) -> str:
    return "|".join(re.escape(word) for word in sorted(words, key=len, reverse=True))


MANY = ("outlets", "receptacles", "plugs", "lights", "fans", "alarms", "smoke alarms", "smoke detectors", "heaters")
_COUNT = r"(?:\d{1,2}|two|three|four|five|six|some)"
_MANY = re.compile(
    rf"(?:{_COUNT}\s+)?(?:(?:{_any((*ROOMS, *OUTSIDE))})\s+)?(?P<what>{_any(MANY)})\b|{_COUNT}\s+(?=[a-z])",
    re.IGNORECASE,
)
# To what a leg goes no farther: a 50 amp garage outlet.
_TO = re.compile(
    rf"\bto\s+(?=(?:(?:{_any(BEFORE)})\s+|{UNIT.pattern}\s+)*(?:{_COUNT}\s+)?"
    rf"(?:(?:{_any((*ROOMS, *OUTSIDE))})\s+)?(?:{_any((*STANDS, *MANY, *NOT_HELD))})\b)",
    re.IGNORECASE,
)
_BEGUN = re.compile(rf"\bto\s+(?:(?:{_any(BEFORE)})\s+)*(?:(?:{_any((*ROOMS, *OUTSIDE))})\s+)?", re.IGNORECASE)
_FOR = re.compile(r"(?P<name>[^;\n\d\"]+?)(?=\s+(?:\d|as\b|in\b|outside\b|at\b|on\b|load\b)|\s*(?:$|;|\n))")
_WATTS = re.compile(r"(?P<n>\d+(?:\.\d+)?)\s*(?P<unit>kw|watts?|w)\b", re.IGNORECASE)
_THROUGH = ("along", "through", "across")
MORE = ("for", "in garage", "outside", "as", "on", "spaces", "at")
ABOUT = ("for", "in", "outside", "outdoors", "as", "on", "spaces", "at", "hardwired")


def start(reader: SceneReader) -> Said:
    """from [PANEL|BOX] [up|down] LENGTH PLACE [in METHOD] [, ...] to [bath] WHAT [50a] [for NAME 36a] [in garage]

    WHAT: outlet, machine, vehicle, range, dryer, heat pump, water heater, generator inlet, pump, sub-panel NAME,
    building NAME, dishwasher. It may be said first, the legs after all that is said of it. From a box, its circuit is
    drawn out.
    """
    cable = opened(reader)
    panel, box, on = _begin(reader)
    cable = cable or cable_first(reader)
    end_first = not _leg_here(reader)
    if end_first:
        reader.phrase(["to"])
    legs = [] if end_first else in_cable(_legs(reader), cable)
    said = _end(reader, Asked(kind=KINDS[0], panel=panel, legs=legs, box=box, on=on))
    while not reader.over() and not (end_first and _legs_begin(reader)):
        said = _about(reader, said)
    if end_first:
        said = replace(said, legs=in_cable(_legs_after(reader), cable))
        while not reader.over():
            said = _about(reader, said)
    said, told = of_240(said)
    if said.load_w is not None:  # once its volts are known
        said = replace(said, load_a=said.load_w / float(said.circuit.get("volts", said.kind.volts)))
    edits = edits_for(reader.scene.job, reader.scene.book, said)
    for edit in edits:
        if edit["op"] == "put_box":
            told.append(
                f"a junction box stands at the end of leg {edit['leg'] + 1}, where cable meets something else"
            )
    return Said(edits, panel=panel.id, told=told)


def _leg_here(reader: SceneReader) -> bool:
    """Whether a leg begins here: with a direction, a length or a place."""
    known = places(reader.scene.book).values()
    return reader.sees_length() or reader.sees((*GO, *_THROUGH, *(word for item in known for word in item.words)))


def _legs_begin(reader: SceneReader) -> bool:
    """Whether the legs begin here, after a colon or without; the colon is taken."""
    colon = reader.text.startswith(":", reader.pos)
    reader.pos += colon
    return colon or _leg_here(reader)


def _begin(reader: SceneReader) -> tuple[Panel, Box | None, Circuit | None]:
    """Where it begins: a panel; or a box, with its panel and the circuit that is drawn out."""
    panels = reader.scene.job.panels
    if not panels:
        reader.expect(["panel"])
        raise reader.refuse("there is no panel yet: say `panel H 200a 30 spaces` first", allowed=["panel"])
    offered = [p.name if p.name.lower().startswith("panel") else f"panel {p.name}" for p in panels]
    if (panel := reader.a_panel(offered)) is not None:
        return panel, None, None
    if (name := reader.phrase(reader.boxes())) is not None:
        return _from_box(reader, reader.boxes()[name])
    if len(panels) == 1 and _goes(reader):
        return panels[0], None, None
    raise reader.fail("a panel or a box by its name")


def _goes(reader: SceneReader) -> bool:
    """Whether a leg, or what stands at the end, begins here."""
    figure = UNIT.match(reader.text, reader.pos) is not None
    return figure or _leg_here(reader) or reader.sees(("to", *BEFORE, *ROOMS, *OUTSIDE, *STANDS))


def _from_box(reader: SceneReader, box: Box) -> tuple[Panel, Box, Circuit]:
    job = reader.scene.job
    found = [circuit for circuit in job.circuits if any(hop.box == box.id for hop in circuit.chain)]
    if len(found) != 1:
        on = " and ".join(circuit.name for circuit in found) or "no circuit"
        raise reader.refuse(f"{box.name} is on {on}; allowed: a box of one circuit, or a panel")
    return next(panel for panel in job.panels if panel.id == found[0].panel), box, found[0]


def _legs(reader: SceneReader) -> list[WalkLeg]:
    """The legs up to `to` and what stands there; a length alone goes straight on."""
    reader.skip()
    begin = reader.pos
    rest = reader.text[begin : reader.line_end()]
    match = _TO.search(rest)
    said = rest[: match.start()] if match else rest
    if match is None:
        _not_known(reader, said, begin)
    legs = read_legs(reader, said, begin)
    if match is None:
        at, options = suggest(reader.scene.book, said)
        reader.pos = begin + len(said)
        ends = [option for option in options if not option.startswith("to ")]
        last = [found.end() for found in _BEGUN.finditer(said)] if legs[-1].to else []
        where = begin + last[-1] if last else begin + at
        words = list(OFFERED) if last else [f"to {word}" for word in OFFERED]
        reader.expected = (where, [*words, *ends])
        raise reader.fail("`to` and what stands at the end: outlet, vehicle, range, heat pump, sub-panel …")
    reader.pos = begin + match.end()
    return legs


def _not_known(reader: SceneReader, said: str, begin: int) -> None:
    """Refuses what a line goes to last that is no end it knows, where what stands before it is a way: to ceiling
    roses in the den. A box, a body or an elbow of a leg is none."""
    found = next(reversed(list(_BEGUN.finditer(said))), None)
    if found is None or not said[found.end() :].strip():
        return
    if _is_way(reader, said[: found.start()]) and not _is_way(reader, said):
        reader.pos = begin + found.end()
        reader.expected = (reader.pos, list(OFFERED))
        raise reader.fail("what stands at the end: outlet, vehicle, range, fan, sub-panel …")


def _is_way(reader: SceneReader, text: str) -> bool:
    try:
        return bool(parse_walk(reader.scene.book, text))
    except TextError:
        return False


def _legs_after(reader: SceneReader) -> list[WalkLeg]:
    """The legs where they are said last: up to the end of the sentence, or to figures that are no lengths."""
    reader.expect(["20' stud wall"])
    if reader.over():
        raise reader.fail("how far it is and through what: 20' stud wall")
    begin, end = reader.pos, reader.line_end()
    figures = FIGURES.search(reader.text, begin, end)
    reader.pos = figures.start() if figures is not None else end
    return read_legs(reader, reader.text[begin : reader.pos], begin)


def _end(reader: SceneReader, said: Asked) -> Asked:
    """What stands at the end, the room or the outdoors said before it: bath outlet."""
    figures: list[int] = []  # where amperes and volts stand before it: what they are, its kind tells
    while True:
        reader.skip()
        if (match := UNIT.match(reader.text, reader.pos)) is not None:
            figures.append(reader.pos)
            reader.pos = match.end()
        elif reader.phrase(BEFORE) is None:
            break
    _one_thing(reader)
    said = _kind(reader, said)
    end = reader.pos
    for reader.pos in figures:
        said = _figure(reader, said)
    reader.pos = end
    return said


def _one_thing(reader: SceneReader) -> None:
    """Refuses several things at the end of one line, and what there are no rules for here."""
    reader.expect(OFFERED)
    many = _MANY.match(reader.text, reader.pos)
    if many is not None:
        named = reader.text[reader.pos : reader.line_end()].split(";")[0].strip()
        raise reader.refuse(
            f"a line goes to one thing, not to {named!r}: say it to the first, then go on from its box, as in "
            "`from R-1 8' stud wall to outlet`"
        )
    begin = reader.pos
    word = reader.phrase(NOT_HELD)
    if word is not None:
        reader.pos = begin
        raise reader.refuse(NOT_HELD[word])


def _figure(reader: SceneReader, said: Asked) -> Asked:
    """Amperes or volts: of what is on for its own load, a charger's 48 A, that load; else of the circuit."""
    if said.kind.load_first and (load := _amps(reader)) is not None:
        return replace(said, load_a=load)
    item = dict(said.circuit)
    circuit_part(reader, item)
    return replace(said, circuit=item)


def _kind(reader: SceneReader, said: Asked) -> Asked:
    """What it is by its word: bath outlet, charger 48a, a circuit for something that is plugged in."""
    if reader.phrase(["circuit"]) is not None and reader.sees(["for"]):
        return replace(said, kind=ENDS["outlet"])
    begin = reader.pos
    where = reader.phrase((*ROOMS, *OUTSIDE))
    if where is not None and not reader.sees(STANDS):  # a garage that is another building
        reader.pos, where = begin, None
    if where is not None:
        said = replace(said, outdoors=True) if where in OUTSIDE else replace(said, use=ROOMS[where])
    reader.expect(OFFERED)
    word = reader.phrase(STANDS)
    if word is None:
        raise reader.fail("what stands at the end")
    if word in BUILDINGS and reader.sees(WITHIN):
        return _kind(reader, replace(said, structure=_standing(reader, word)))
    if word in PLUGGED:
        outlet = ENDS["outlet"]
        kind = replace(outlet, box={**outlet.box, **PLUGGED[word]})
        return replace(said, kind=kind, name=word.capitalize())
    kind = WIRED.get(word) or ENDS[word]
    name = word[:1].upper() + word[1:] if word in WIRED else ""
    said = replace(said, kind=kind, building=BUILDINGS.get(word, ""), name=name)
    if kind.box.get("kind") == "receptacle" and word not in PLUGS:
        reader.phrase(PLUGS)  # a dryer outlet
    if kind.feeds:
        return replace(said, fed=_new_name(reader, "a name for it", word.capitalize() if word in BUILDINGS else ""))
    if kind.load_first:
        reader.phrase(["of"])
        return replace(said, load_a=_amps(reader))
    return said


def _standing(reader: SceneReader, word: str) -> str:
    """The building of an end that stands in another one: a shed light. Refuses one that is not there yet."""
    found = {name.lower(): item for name, item in reader.buildings().items()}.get(word.lower())
    if found is None:
        name = word.capitalize()
        raise reader.refuse(
            f"no {word} stands in this job yet: say `structure {BUILDINGS[word]} {name}` first, or feed a panel "
            f"there: `to {word} {name} 60a`"
        )
    return found.id


def _new_name(reader: SceneReader, what: str, usual: str) -> str:
    """A name: one word, or several in quotes."""
    reader.expect([what])
    reader.phrase(("called", "named", "of"))
    reader.skip()
    if UNIT.match(reader.text, reader.pos) is not None or reader.over():
        if usual:
            return usual
        raise reader.fail(what)
    return reader.token(what)


def _watts(reader: SceneReader) -> float | None:
    """Watts, where they stand here: 1500 W, 1.5 kW."""
    reader.skip()
    match = _WATTS.match(reader.text, reader.pos)
    if match is None:
        return None
    reader.pos = match.end()
    return float(match["n"]) * (1000 if match["unit"].lower() == "kw" else 1)


def _amps(reader: SceneReader) -> float | None:
    reader.skip()
    match = UNIT.match(reader.text, reader.pos)
    if match is None or match["unit"].lower().startswith("v"):
        return None
    reader.pos = match.end()
    return float(match["n"])


def _about(reader: SceneReader, said: Asked) -> Asked:
    """One thing more that is said of the circuit or of what stands at its end."""
    item = dict(said.circuit)
    reader.phrase(("of", "and", "rated"))
    if (watts := _watts(reader)) is not None:
        return replace(said, load_w=watts)
    if circuit_part(reader, item, MORE):
        reader.phrase(("breaker", "circuit"))
        return replace(said, circuit=item)
    word = reader.need(ABOUT, "amperes, volts, `for` a name, `in` a room, `as` a name")
    return ABOUT_WORDS[word](reader, said)


def _for(reader: SceneReader, said: Asked) -> Asked:
    reader.expect(["planer 36a"])
    reader.phrase(BEFORE)
    reader.skip()
    match = _FOR.match(reader.text, reader.pos)
    if match is None:
        raise reader.fail("what it is for")
    reader.pos = match.end()
    load = _amps(reader)
    name = match["name"].strip()
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
    serves = SERVES.get(name)
    return kind if serves is None else replace(kind, box={**kind.box, "serves": serves})


def _in(reader: SceneReader, said: Asked) -> Asked:
    named = {name: item.id for name, item in reader.buildings().items()}
    word = reader.need([*USES, *named, *CALLED], "a room or a building: garage, kitchen, bath")
    return replace(said, use=ROOMS[word]) if word in ROOMS else replace(said, structure=named[word])


def _outside(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, outdoors=True)


def _as(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, box_name=_new_name(reader, "a name", ""))


def _on(reader: SceneReader, said: Asked) -> Asked:
    """The space of the panel, or a breaker: on 12, on a 20a breaker."""
    if reader.phrase(BEFORE) or UNIT.match(reader.text, reader.pos):
        return _about(reader, said)
    space = int(reader.number("a space of the panel", 0, 84))
    return replace(said, circuit={**said.circuit, "space": space})


def _spaces(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, spaces=int(reader.number("a count of spaces", 1, 84)))


def _at(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, where=reader.name(ABOUT))


def _hardwired(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, hardwired=True)


ABOUT_WORDS: dict[str, Callable[[SceneReader, Asked], Asked]] = {
    "for": _for, "in": _in, "outside": _outside, "outdoors": _outside, "as": _as, "on": _on, "spaces": _spaces,
    "at": _at, "hardwired": _hardwired,
}  # fmt: skip
VERBS: dict[str, Callable[[SceneReader], Said]] = {"from": start}
