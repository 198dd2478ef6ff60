"""What stands at the end of a line that starts a job: 50 amp garage outlet, charger 48a, sub-panel S."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Any

from levelrun.core.boxes.machines import BY_NAME, called
from levelrun.core.boxes.things import PLUGS, VOLTS, bare_volts
from levelrun.core.circuits.parts_said import UNIT, circuit_part
from levelrun.core.codebook import load
from levelrun.core.errors import TextError
from levelrun.core.site.naming import SMALL, SUB_PANELS
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import (
    BUILDINGS,
    CALLED,
    ENDS,
    NOT_HELD,
    OFFERED,
    OUTDOOR,
    PLUGGED,
    QUALIFIED,
    USES,
    VEHICLE_PLUG,
    WIRED,
)  # fmt: skip
from levelrun.core.start.several import ONE_OF, count_here

BEFORE = (
    *SMALL, "my", "new", "dedicated", "separate", "electric", "detached", "another", "one more", "its own",
    "their own", "own", "second", "third", "backup", "portable", "master", "primary", "guest", "spare", "kids",
    "upstairs", "downstairs", "half", "built-in", "built in", "workbench", "bench",
)  # fmt: skip
ROOMS = {**USES, **CALLED}
STANDS = (*ENDS, *PLUGGED, *WIRED)
WITHIN = tuple(word for word in STANDS if word not in ENDS or not ENDS[word].feeds)  # what stands in a building
OF_120 = {*PLUGGED, *(word for word in STANDS if (WIRED.get(word) or ENDS.get(word, ENDS["range"])).volts == 120)}
USUAL_PANEL = "S"  # what a sub-panel is called where no name is said
OUTSIDE = ("outside", "outdoor", "outdoors")
TWO_POLE = ("2 pole", "2-pole", "two pole", "two-pole", "double pole", "double-pole")
MANY = (
    "outlets", "receptacles", "plugs", "lights", "fans", "alarms", "smoke alarms", "smoke detectors", "heaters",
    *(word for word in ONE_OF if word not in STANDS),
)  # fmt: skip


def any_of(words: Iterable[str]) -> str:
    """A pattern for one of these words, the longest first."""
    return "|".join(re.escape(word) for word in sorted(words, key=len, reverse=True))


_COUNT = r"(?:\d{1,2}(?![\s-]*poles?\b)|two|three|four|five|six|some)"
_WHERE = rf"(?:(?:{any_of((*ROOMS, *OUTSIDE))})\s+)?"
_MANY = re.compile(rf"(?:{_COUNT}\s+)?{_WHERE}(?P<what>{any_of(MANY)})\b|{_COUNT}\s+(?=[a-z])", re.IGNORECASE)
# A thing that may stand at the end, with what is said before it.
_WHAT = any_of((*STANDS, *MANY, *ONE_OF, *NOT_HELD))
PLUG_NAMES = tuple(str(row["nema"]) for row in load().table("nema").rows)
# A configuration before its outlet.
_CONFIGURED = rf"(?:nema\s+)?(?:{any_of(PLUG_NAMES)})\s+(?=(?:outlet|receptacle|plug)\b)"
_PLUG = re.compile(_CONFIGURED, re.IGNORECASE)
_QUALITY = rf"(?:(?:{any_of(QUALIFIED)})\s+)*"
_FIRST = rf"(?:(?:{any_of((*BEFORE, *QUALIFIED, *TWO_POLE))})\s+|{UNIT.pattern}\s+|{_CONFIGURED}|{VOLTS}\s+)*"
THING = rf"(?:{_COUNT}\s+)?{_FIRST}(?:{_COUNT}\s+)?{_WHERE}{_QUALITY}(?:{_WHAT})\b"
_PLURAL = re.compile(rf"{_FIRST}{_WHERE}{_QUALITY}(?:{any_of(ONE_OF)})\b", re.IGNORECASE)
_CIRCUIT = re.compile(
    rf"(?:(?:{any_of(BEFORE)})\s+|{UNIT.pattern}\s+)*(?:circuit\s+(?:for|to|in)\b|(?:{any_of(ROOMS)})\s+circuit\b)",
    re.IGNORECASE,
)
_THING = re.compile(THING, re.IGNORECASE)
_NAMED = re.compile(
    rf"(?:(?:{any_of(BEFORE)})\s+|{UNIT.pattern}\s+)*(?!box\b|panel\b)(?P<name>[a-z][a-z' -]*?[a-z])(?![\w'-])"
    r"(?=\s*(?:$|[,;:\d]|(?:in|on|at|for|with|from|as|outside)\b))",
    re.IGNORECASE,
)
BEGUN = re.compile(rf"\bto\s+(?:(?:{any_of(BEFORE)})\s+)*{_WHERE}", re.IGNORECASE)


_GFCI = re.compile(
    rf"(?:(?:{any_of(BEFORE)})\s+|{UNIT.pattern}\s+)*{_WHERE}(?:gfci|gfi)s?\b(?=\s*(?:$|[,;:\n\d]|(?:in|at|on|by|from|outside)\b))",
    re.IGNORECASE,
)


_LATER = re.compile(rf"(?:\bto\s+|,\s*){THING}", re.IGNORECASE)


def end_here(reader: SceneReader) -> bool:
    """Whether what stands at the end is named here; a gfci is an outlet, where nothing else is named on the line."""
    reader.skip()
    if any(pattern.match(reader.text, reader.pos) is not None for pattern in (_THING, _CIRCUIT)):
        return True
    bare = _GFCI.match(reader.text, reader.pos)
    return bare is not None and _LATER.search(reader.text, bare.end(), reader.line_end()) is None


def end(reader: SceneReader, said: Asked, before: Sequence[int] = ()) -> Asked:
    """What stands at the end, the room or the outdoors said before it: bath outlet. `before`: where amperes and volts
    were passed over earlier in the line."""
    plug, more = "", dict[str, Any]()  # a configuration, and fields of the box, said before its word
    figures: list[int] = []  # where amperes and volts stand before it: what they are, its kind tells
    said = replace(said, count=count_here(reader, _PLURAL))
    while True:
        if reader.sees(BY_NAME):  # a name that begins like something else: electric furnace, garage heater
            break
        reader.skip()
        if _PLUG.match(reader.text, reader.pos) is not None:
            reader.phrase(["nema"])
            plug = reader.need(PLUG_NAMES, "a configuration of receptacle")
            continue
        if reader.phrase(TWO_POLE) is not None:
            said = replace(said, circuit={"volts": 240, **said.circuit})
            continue
        if (volts := bare_volts(reader)) is not None:
            said = replace(said, circuit={**said.circuit, "volts": volts})
            continue
        if (match := reader.take(UNIT)) is not None:
            figures.append(match.start())
        elif not _quality(reader, more) and reader.phrase(BEFORE) is None:
            break
    if said.count == 1:
        one_thing(reader)
    said = _qualified(_kind(reader, said, more), more)
    said = configured(reader, said, plug) if plug else said
    stop = reader.pos
    for reader.pos in (*figures, *before):
        said = _figure(reader, said)
    reader.pos = stop
    return said


def _quality(reader: SceneReader, more: dict[str, Any]) -> bool:
    """One thing that is said of an outlet before its word, taken into the fields of its box."""
    word = reader.phrase(QUALIFIED)
    more |= QUALIFIED[word] if word is not None else {}
    return word is not None


def _qualified(said: Asked, more: dict[str, Any]) -> Asked:
    """With what was said before its word: of an outlet its own protection; of what has none, that of its breaker."""
    box = said.kind.box
    if not more or not box:
        return said
    if "protects" in more and box["kind"] != "receptacle":
        return replace(said, circuit={"protection": more["protects"], **said.circuit})
    return replace(said, kind=replace(said.kind, box={**box, **more}))


def one_thing(reader: SceneReader) -> None:
    """Refuses several things at the end of one line, and what there are no rules for here."""
    reader.expect(OFFERED)
    many = None if reader.sees(BY_NAME) else _MANY.match(reader.text, reader.pos)
    if many is not None:
        raise several(reader, reader.text[reader.pos : reader.line_end()])
    begin = reader.pos
    word = reader.phrase(NOT_HELD)
    if word is not None:
        reader.pos = begin
        raise reader.refuse(NOT_HELD[word])


def unknown(reader: SceneReader, at: int, what: str) -> TextError:
    """The refusal of what stands at the end and is none of the things that are known: an outlet or a machine for it
    is. `what`: what is expected, while it is no more than the beginning of one that is known."""
    found = _NAMED.match(reader.text, at, reader.line_end())
    name = found["name"].strip() if found is not None else ""
    if not name or any(word.startswith(name.casefold()) for word in map(str.casefold, STANDS)):
        return reader.fail(what)
    ways = [f"outlet for {name}", f"machine for {name}"]
    what = f"what stands at the end, {name!r}, is not known here"
    message = f"{what}: say `{ways[0]}` where it is plugged in, `{ways[1]}` where it is wired"
    return reader.refuse(message, at, [*ways, *OFFERED])


def several(reader: SceneReader, named: str) -> Exception:
    """The refusal of a line to several things."""
    things = re.split(r"\s+(?=\d)|[;,]", named.strip(), maxsplit=1)[0]
    if (plural := _PLURAL.match(things)) is not None:
        things = plural.group(0)
        return reader.refuse(f"say how many: `3 {things}`, and how far apart where that is known: `12' apart`")
    words = [re.sub(r"^an?\s+", "", word.strip().lower()) for word in things.split(" and ")]
    share = len(words) > 1 and all(word in OF_120 for word in words)
    both = f"; where they are on one circuit: `{things} on one circuit`" if share else ""
    return reader.refuse(
        f"a line goes to one thing, not to {things!r}: say it to the first, then go on from its box, as in "
        f"`from R-1 8' stud wall to outlet`{both}"
    )


def _figure(reader: SceneReader, said: Asked) -> Asked:
    """Amperes or volts: of what is on for its own load, a charger's 48 A, that load; else of the circuit."""
    if said.kind.load_first and (load := amperes(reader)) is not None:
        return replace(said, load_a=load, either=True)
    item = dict(said.circuit)
    circuit_part(reader, item)
    return replace(said, circuit=item)


def amperes(reader: SceneReader) -> float | None:
    """Amperes, where they stand here."""
    reader.skip()
    match = UNIT.match(reader.text, reader.pos)
    if match is None or match["unit"].lower().startswith("v"):
        return None
    reader.pos = match.end()
    return float(match["n"])


def _kind(reader: SceneReader, said: Asked, more: dict[str, Any]) -> Asked:
    """What it is by its word: bath outlet, charger 48a, a circuit for something that is plugged in."""
    if reader.phrase(["circuit"]) is not None and reader.sees(("for", "to", "in")):
        return _on_circuit(reader, said, more)
    begin = reader.pos
    where = None if reader.sees(WITHIN) else reader.phrase((*ROOMS, *OUTSIDE))
    if where in ROOMS and reader.phrase(["circuit"]) is not None:  # a bathroom circuit
        return replace(said, kind=ENDS["outlet"], use=ROOMS[where])
    while where is not None and _quality(reader, more):
        pass  # a bath gfci outlet
    bare = more.get("protects") == "gfci"  # it is an outlet
    if where is not None and not bare and not reader.sees((*STANDS, *ONE_OF)):  # a garage that is another building
        reader.pos, where = begin, None
    if where is not None:
        said = replace(said, outdoors=True) if where in OUTSIDE else replace(said, use=ROOMS[where])
    reader.expect(OFFERED)
    word = reader.phrase((*STANDS, *ONE_OF) if said.count > 1 else STANDS)
    if word is None and more.get("protects") == "gfci":  # a bath gfci
        word = PLUGS[0]
    if word is None:
        raise unknown(reader, reader.pos, "what stands at the end")
    word = ONE_OF.get(word, word) if said.count > 1 else word
    if word in BUILDINGS and reader.sees(WITHIN):
        return _kind(reader, standing_in(reader, said, word), more)
    if word in OUTDOOR:
        said = replace(said, outdoors=True)
    if word in PLUGGED:
        if reader.sees(MANY):  # counter outlets
            raise several(reader, reader.text[begin : reader.line_end()])
        reader.phrase((*PLUGS, "circuit"))  # a freezer outlet
        outlet = ENDS["outlet"]
        kind = replace(outlet, box={**outlet.box, **PLUGGED[word]})
        return replace(said, kind=kind, name=word.capitalize())
    kind = WIRED.get(word) or ENDS[word]
    if word in BY_NAME and kind.key == "machine" and reader.phrase(PLUGS):  # a compressor outlet
        kind = replace(ENDS["outlet"], box={**kind.box, "kind": "receptacle"}, volts=kind.volts, neutral=kind.neutral)
    name = called(word) if word in WIRED else ""
    said = replace(said, kind=kind, building=BUILDINGS.get(word, ""), name=name)
    if kind.key == "vehicle" and reader.phrase(PLUGS):
        return replace(said, kind=VEHICLE_PLUG, name="Vehicle outlet")
    if kind.box.get("kind") == "receptacle" and word not in PLUGS:
        reader.phrase(PLUGS)  # a dryer outlet
    called_so = reader.phrase(["circuit"]) is not None  # a dryer circuit, a shed circuit
    if kind.feeds:
        said = replace(said, branch=said.branch or called_so)
        own = word in BUILDINGS and reader.phrase(SUB_PANELS) is not None
        reader.phrase(["feeder"])  # a shop feeder
        stands = reader.buildings().get(word)  # the barn, for a Pole barn
        usual = (stands.name if stands is not None else word.capitalize()) if word in BUILDINGS else USUAL_PANEL
        fed = new_name(reader, "a name for it", usual)
        if own and (there := reader.buildings().get(word) or reader.buildings().get(usual)) is not None:
            return replace(said, kind=ENDS["sub-panel"], building="", structure=there.id, fed=fed)
        return replace(said, fed=fed, building_name=usual if own and fed != usual else said.building_name)
    if kind.load_first:
        drawn = reader.phrase(["of"]) is not None
        start, load = reader.pos, amperes(reader)
        if reader.sees(("breaker", "circuit")):  # a charger, 60 amp breaker: not what it draws
            reader.pos, load = start, None
        return replace(said, load_a=load, either=load is not None and not drawn)
    return said


def _on_circuit(reader: SceneReader, said: Asked, more: dict[str, Any]) -> Asked:
    """What a circuit is for: the thing that is named, else an outlet; in the room it goes to."""
    start = reader.pos
    word = reader.phrase(("for", "to", "in"))
    while reader.phrase(BEFORE):
        pass
    here = reader.pos
    room = reader.phrase(ROOMS)
    if room is not None and not reader.sees(STANDS):  # a circuit to the garage
        return replace(said, kind=ENDS["outlet"], use=ROOMS[room])
    reader.pos = here
    if word != "in" and end_here(reader):
        made = _kind(reader, said, more)
        return replace(made, branch=True) if made.building else made  # a circuit to a shed is no feeder
    reader.pos = start
    return replace(said, kind=ENDS["outlet"])


def standing_in(reader: SceneReader, said: Asked, word: str) -> Asked:
    """The line to an end that stands in a building by its word, a shed light; in one that is not there yet too: its
    legs tell whether that stands apart."""
    found = {name.lower(): item for name, item in reader.buildings().items()}.get(word.lower())
    return replace(said, unbuilt=word) if found is None else replace(said, structure=found.id)


def _goes_on(reader: SceneReader) -> bool:
    """Whether another part of the line stands here, and no name."""
    rest = reader.text[reader.pos : reader.line_end()]
    return reader.sees(("in", "at", "from", "on", "with")) or re.match(r"[\d#:,]", rest) is not None


def new_name(reader: SceneReader, what: str, usual: str) -> str:
    """A name: one word, or several in quotes."""
    reader.expect([what])
    reader.phrase(("called", "named", "of"))
    reader.skip()
    if UNIT.match(reader.text, reader.pos) is not None or reader.over() or (usual and _goes_on(reader)):
        if usual:
            return usual
        raise reader.fail(what)
    return reader.token(what)


def configured(reader: SceneReader, said: Asked, name: str) -> Asked:
    """An outlet of a configuration: its volts, its neutral and, where none was said, its amperes."""
    row = reader.scene.book.table("nema").get(name)
    own = {"volts": int(row["volts"]), "neutral": row["neutral"] == "yes", "breaker_a": float(row["amps"])}
    inlet = said.kind.box.get("serves") == "generator"  # its blades are those of the cord, and it is no outlet
    kind = said.kind if inlet else replace(said.kind, box={**said.kind.box, "kind": "receptacle", "nema": name})
    if said.kind.key == "vehicle" and said.load_a in (None, float(row["amps"])):  # 50a is that of the outlet
        kind = replace(VEHICLE_PLUG, box={**VEHICLE_PLUG.box, "nema": name})
        return replace(
            said, kind=kind, load_a=None, name=said.name or "Vehicle outlet", circuit={**own, **said.circuit}
        )
    return replace(said, kind=kind, circuit={**own, **said.circuit})
