"""The line that starts a job: from a panel along a way to what stands at its end, in one sentence."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace

from levelrun.core.boxes.setting import SERVES
from levelrun.core.circuits.words import UNIT, circuit_part
from levelrun.core.job import Panel
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.start.kinds import BUILDINGS, ENDS, USES, Kind
from levelrun.core.start.made import Asked, edits_for
from levelrun.core.ways.walk import WalkLeg, suggest
from levelrun.core.ways.words import read_legs

_TO = re.compile(
    rf"\bto\s+(?=(?:{'|'.join(re.escape(word) for word in sorted(ENDS, key=len, reverse=True))})\b)", re.I
)
_FOR = re.compile(r"(?P<name>[^;\n\d\"]+?)(?=\s+(?:\d|as\b|in\b|outside\b|at\b|on\b|load\b)|\s*(?:$|;|\n))")
_GOES = re.compile(r"\d|(?:up|down|over|left|right|back)\b", re.IGNORECASE)
MORE = ("for", "in garage", "outside", "as", "on", "spaces", "at")
ABOUT = ("for", "in", "outside", "outdoors", "as", "on", "spaces", "at", "hardwired")


def start(reader: SceneReader) -> Said:
    """from [PANEL] [up|down] LENGTH PLACE [in METHOD] [then ...] to WHAT [50a] [240v] [for NAME 36a] [in garage]

    WHAT: outlet, machine, vehicle, range, dryer, heat pump, water heater, generator inlet, pump, sub-panel NAME,
    building NAME.
    """
    panel = _panel(reader)
    legs = _legs(reader)
    kind, word = _end(reader)
    said = Asked(kind=kind, panel=panel, legs=legs, building=BUILDINGS.get(word, ""))
    if kind.feeds:
        said = replace(said, fed=_new_name(reader, "a name for it", word.capitalize() if word in BUILDINGS else ""))
    elif kind.load_first:
        said = replace(said, load_a=_amps(reader))
    while not reader.over():
        said = _about(reader, said)
    return Said(edits_for(reader.scene.job, reader.scene.book, said), panel=panel.id)


def _panel(reader: SceneReader) -> Panel:
    panels = {panel.name: panel for panel in reader.scene.job.panels}
    if not panels:
        reader.expect(["panel"])
        raise reader.refuse("there is no panel yet: say `panel H 200a 30 spaces` first", allowed=["panel"])
    short = {name.lower().removeprefix("panel ").strip(): panel for name, panel in panels.items()}
    named = {**{key: panel for key, panel in short.items() if key}, **panels}
    start_at = reader.pos
    reader.phrase(["panel"])
    reader.expect([f"panel {name}" if not name.lower().startswith("panel") else name for name in panels])
    word = reader.phrase(named)
    if word is None:
        reader.pos = start_at
        word = reader.phrase(named)
    if word is None and len(panels) == 1 and _GOES.match(reader.text, reader.pos) is not None:
        return next(iter(panels.values()))
    if word is None:
        raise reader.fail("a panel by its name")
    return named[word]


def _legs(reader: SceneReader) -> list[WalkLeg]:
    """The legs up to `to` and what stands there; a length alone goes straight on."""
    reader.skip()
    begin = reader.pos
    rest = reader.text[begin : reader.line_end()]
    match = _TO.search(rest)
    said = rest[: match.start()] if match else rest
    legs = read_legs(reader, said, begin)
    if match is None:
        at, options = suggest(reader.scene.book, said)
        reader.pos = begin + len(said)
        ends = [option for option in options if not option.startswith("to ")]
        last = [found.end() for found in re.finditer(r"\bto\s+", said)] if legs[-1].to else []
        where = begin + last[-1] if last else begin + at
        words = list(ENDS) if last else [f"to {word}" for word in ENDS]
        reader.expected = (where, [*words, *ends])
        raise reader.fail("`to` and what stands at the end: outlet, vehicle, range, heat pump, sub-panel …")
    reader.pos = begin + match.end()
    return legs


def _end(reader: SceneReader) -> tuple[Kind, str]:
    word = reader.need(ENDS, "what stands at the end")
    return ENDS[word], word


def _new_name(reader: SceneReader, what: str, usual: str) -> str:
    """A name: one word, or several in quotes."""
    reader.expect([what])
    if UNIT.match(reader.text, reader.pos) is not None or reader.over():
        if usual:
            return usual
        raise reader.fail(what)
    return reader.token(what)


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
    if circuit_part(reader, item, MORE):
        return replace(said, circuit=item)
    word = reader.need(ABOUT, "amperes, volts, `for` a name, `in` a room, `as` a name")
    return ABOUT_WORDS[word](reader, said)


def _for(reader: SceneReader, said: Asked) -> Asked:
    reader.expect(["planer 36a"])
    reader.skip()
    match = _FOR.match(reader.text, reader.pos)
    if match is None:
        raise reader.fail("what it is for")
    reader.pos = match.end()
    load = _amps(reader)
    name = match["name"].strip()
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
    named = {item.name: item.id for item in reader.scene.job.structures}
    word = reader.need([*USES, *named], "a room or a building: garage, kitchen, bath")
    return replace(said, use=USES[word]) if word in USES else replace(said, structure=named[word])


def _outside(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, outdoors=True)


def _as(reader: SceneReader, said: Asked) -> Asked:
    return replace(said, box_name=_new_name(reader, "a name", ""))


def _on(reader: SceneReader, said: Asked) -> Asked:
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
