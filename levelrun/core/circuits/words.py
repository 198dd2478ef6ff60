"""Sentences about circuits: made, put on a space, chained, split, fed, protected."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from difflib import get_close_matches
from typing import Any

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.circuits.grouped import SERVED, group_said, hops_of
from levelrun.core.circuits.parts_said import KNOWN, PARTS, UNIT, circuit_part, method_for, wire_for
from levelrun.core.circuits.places import box_places
from levelrun.core.circuits.protection import wanted_protection
from levelrun.core.circuits.spaces import breaker_asked, given_back, occupied
from levelrun.core.circuits.usual import usual, usual_of
from levelrun.core.editing import next_id
from levelrun.core.job import Box, Circuit, Panel
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.trade.conductors.sizing import breaker_ratings, standard_breaker

_SPACE = re.compile(r"(?:on\s+)?(?:space\s+)?\d", re.IGNORECASE)
_SECOND = re.compile(r"(?P<mark>/|\s*(?:,|and\b|&)\s*)(?P<n>\d+)(?![\w'\"])", re.IGNORECASE)
# What may follow the name of a machine: a figure, a part of its circuit, its boxes.
_GOES_ON = re.compile(
    rf"\s*,?\s*(?:[\d:\"#]|(?:on|in|from|for|as|{'|'.join(map(re.escape, KNOWN))}|continuous)\b)", re.IGNORECASE
)
_LABEL = re.compile(r"[A-Za-z]{1,3}-\d+")  # as boxes are called: no name of a circuit unless it is said to be one
STOPS = ("put", "on", "after", "in")


def circuit(reader: SceneReader) -> Said:
    """circuit [in PANEL] 14 20a [240v] [gfci|afci|dual] [mca N] [mocp N] [load N] [as NAME]: BOX BOX …: its boxes in
    order; the space and what the breaker is in any order. Where no panel is said, that of the building in which all
    of its boxes stand: a building has one supply (225.30)."""
    return circuit_with(reader, {})


def circuit_with(reader: SceneReader, item: dict[str, Any]) -> Said:
    """A circuit of which something was said before its word: a 20 amp gfci circuit ..."""
    said = reader.sees(["in"])
    panel = _panel(reader)
    name, group, chain, serves = "", "", list[Box](), ""
    while not reader.over() or not (item or name or chain):
        if reader.text.startswith(":", reader.pos):
            reader.pos += 1
            group = _named(reader, chain) or group
        elif not said and (source := _source(reader)) is not None:
            panel, said = source, True
        elif (serves and _own_load(reader, item)) or (not reader.over() and circuit_part(reader, item)):
            continue
        elif reader.sees(reader.boxes()) or reader.phrase(["for"]):
            group = _named(reader, chain) or group
        elif not name and not chain and (what := _machine(reader)) is not None:
            name, serves = what[:1].upper() + what[1:], SERVED[what]
        elif reader.over() or ("space" not in item and _SPACE.match(reader.text, reader.pos)):
            _space(reader, item)
        else:
            name = _name(reader)
    if serves and not chain:
        _as_usual(reader, serves, item)
    return new_circuit(reader, item, name, group, chain, None if said else home_of(reader, panel, chain), panel)


def _source(reader: SceneReader) -> Panel | None:
    """From a panel: said behind what the circuit is for. None where that is not said here."""
    start = reader.pos
    if reader.phrase(["from"]) is not None and (panel := reader.a_panel()) is not None:
        return panel
    reader.pos = start
    return None


def _machine(reader: SceneReader) -> str | None:
    """A machine by its word, where no more of a name follows it: a dryer, and no Dryer vent."""
    start = reader.pos
    word = reader.phrase(SERVED)
    if word is not None and not reader.over() and _GOES_ON.match(reader.text, reader.pos) is None:
        reader.pos = start
        return None
    return word


def _own_load(reader: SceneReader, item: dict[str, Any]) -> bool:
    """Amperes that no breaker has, of a circuit for a machine: what that draws; and that it is on for hours, as
    such machines are."""
    if reader.phrase(("continuous", "continuous load")) is not None:
        return True
    reader.skip()
    match = UNIT.match(reader.text, reader.pos)
    made = breaker_ratings(reader.scene.book)
    if match is None or match["unit"].lower().startswith("v") or float(match["n"]) in made:
        return False
    reader.pos = match.end()
    item["load_a"] = float(match["n"])
    return True


def _as_usual(reader: SceneReader, serves: str, item: dict[str, Any]) -> None:
    """What a circuit for an appliance of which no box stands yet usually is, where nobody said otherwise."""
    row = usual(reader.scene.book, serves)
    if item.get("volts", row.volts) == row.volts:
        item.setdefault("volts", row.volts)
        item.setdefault("poles", row.poles)
        item.setdefault("neutral", row.neutral)
        item.setdefault("nameplate", row.nameplate)
        load = item.get("load_a")
        if load is not None:
            item.setdefault(
                "breaker_a", standard_breaker(reader.scene.book, load * (1.25 if row.continuous else 1.0))
            )
        item.setdefault("breaker_a", row.breaker_a)


def new_circuit(
    reader: SceneReader,
    item: dict[str, Any],
    name: str,
    group: str,
    chain: list[Box],
    home: Panel | None,
    panel: Panel,
) -> Said:
    """A circuit of which so much was said, with what follows. `group`: by what its boxes were named, which are then
    put in a sensible order; `home`: the panel where they stand, where that is another."""
    if len(chain) == 1:
        _for_one(reader, chain[0], item)
    if item.get("volts") == 240:
        item.setdefault("poles", 2)
    item.setdefault("method", method_for(reader.scene.book))
    if "wire_size" not in item:
        item["wire_size"] = wire_for(reader, item)
    grouped, group = bool(group), group.removeprefix("the ")
    name = name or group[:1].upper() + group[1:60]
    item |= {"panel": (home or panel).id, "name": name or "Circuit"}
    told = put_in(reader, home or panel, item)
    item["name"] = name or f"Circuit {item['space']}"
    if home is not None:
        told.append(f"{item['name']} is in {home.name}, where its boxes stand; say `in {panel.name}` otherwise")
    ident = next_id(reader.scene.job, "c")
    after = [None, *(box.id for box in chain)]
    row = [{"box": box.id, "after": last} for box, last in zip(chain, after, strict=False)]
    hops = hops_of(reader, home or panel, chain) if grouped else row
    told += _protected(reader, home or panel, item, chain, hops)
    if grouped:
        item["chain"] = hops
    edits: list[dict[str, Any]] = [{"op": "add", "kind": "circuit", "item": {"id": ident, **item}}]
    if chain and not grouped:
        edits.append({"op": "chain", "circuit": ident, "boxes": [box.id for box in chain]})
    return Said(edits, panel=item["panel"], told=told)


def _for_one(reader: SceneReader, box: Box, item: dict[str, Any]) -> None:
    """What the appliance at the only box of a circuit usually wants of it, where nobody said otherwise."""
    usual = usual_of(reader.scene.book, box)
    if usual.own and "breaker_a" not in item and item.get("volts", usual.volts) == usual.volts:
        item["breaker_a"] = usual.breaker_a
    if usual.own and "volts" not in item and item.get("poles", usual.poles) == usual.poles:
        item |= {"volts": usual.volts, "poles": usual.poles}
        item.setdefault("neutral", usual.neutral)
        item.setdefault("nameplate", usual.nameplate)


def _protected(
    reader: SceneReader, panel: Panel, item: dict[str, Any], chain: list[Box], hops: list[dict[str, str | None]]
) -> list[str]:
    """The protection that its boxes ask of the breaker by their places, where nobody said which it has; told."""
    if "protection" in item or not chain:
        return []
    job, book = reader.scene.job, reader.scene.book
    made = Circuit.model_validate({**item, "id": next_id(job, "c"), "name": "new", "chain": hops})
    places = box_places(book, room_contexts(job, {}), job)
    item["protection"] = wanted_protection(book, job, panel, made, tuple(chain), places)
    words = {"gfci": "a GFCI breaker", "afci": "an arc-fault breaker", "dual": "a dual-function breaker", "plain": ""}
    asked = words[item["protection"]]
    return [f"{asked}, as the places of its boxes ask; say `plain` where it is none"] if asked else []


def _named(reader: SceneReader, chain: list[Box]) -> str:
    """Boxes of a circuit, by name one after another, or by their kind and room: what those are called."""
    group = None if reader.sees(reader.boxes()) else group_said(reader)
    if group is None:
        chain += _boxes(reader, chain)
        return ""
    chain += [box for box in group[1] if box not in chain]
    while reader.phrase(["and"]) is not None and (more := group_said(reader)) is not None:
        chain += [box for box in more[1] if box not in chain]
    return group[0]


def put_in(reader: SceneReader, panel: Panel, item: dict[str, Any]) -> list[str]:
    """Its space where none was said: the first that is free, told. Refuses where none is."""
    if "space" in item:
        return []
    made = Circuit.model_validate({"id": next_id(reader.scene.job, "c"), **item})
    place = occupied(panel, reader.scene.job.circuits).place_for(made)
    if place is None:
        reader.expect(["a space of the panel"])
        raise reader.fail(f"a space of {panel.name}: none is known to be free")
    item |= {"space": place[0], "half": place[1]}
    return [f"on space {place[0]}{place[1]} of {panel.name}, the first that is free"]


def home_of(reader: SceneReader, panel: Panel, chain: Sequence[Box], unfed: bool = False) -> Panel | None:
    """The one panel of the building in which all boxes stand, where it is fed and that is another building than the
    panel's. `unfed`: also a sub-panel whose feeder is not said yet."""
    where = {box.structure for box in chain} - {panel.structure}
    if len(where) != 1 or any(box.structure == panel.structure for box in chain):
        return None
    found = [item for item in reader.scene.job.panels if item.structure in where]
    fed = {circuit.feeds for circuit in reader.scene.job.circuits}
    return found[0] if len(found) == 1 and (found[0].id in fed or (unfed and not found[0].bonded)) else None


def _space(reader: SceneReader, item: dict[str, Any]) -> None:
    """The space of a breaker, or both of two poles: 14, on 14, 14/16."""
    reader.phrase(("on space", "space", "on"))
    item["space"] = int(reader.number("a space of the panel", 0, 84))
    second = _SECOND.match(reader.text, reader.pos)
    if second is not None and second["mark"] != "/" and int(second["n"]) != item["space"] + 2:
        second = None  # two spaces that lie apart: what follows is something else
    if second is not None:
        reader.pos = second.end()
        item |= {"poles": 2, "volts": 240, "neutral": item.get("neutral", False)}


def _name(reader: SceneReader) -> str:
    """What a circuit is called: after `as`, in double quotes, before a colon, or words of which the first begins with
    a capital. A word that is nearly one that the sentence knows is that one mistyped."""
    marked = reader.phrase(("as", "called", "named")) is not None
    start = reader.pos
    reader.expect(["as and a name", '"a name"'])
    if reader.text[reader.pos : reader.pos + 1] == '"':
        return reader.token("a name")
    end = reader.text.find(":", reader.pos)
    stop = min(reader.line_end(), end if end >= 0 else len(reader.text))
    ends = (PARTS, _boxes_next(reader))
    stop = min([stop, *(part.start() for end_of in ends if (part := end_of.search(reader.text, reader.pos, stop)))])
    said = reader.text[reader.pos : stop].strip()
    if not said:
        raise reader.fail("a name")
    first = said.split()[0]
    if not marked and _LABEL.fullmatch(first):
        reader.expected = (start, list(reader.boxes()))
        raise reader.fail("a box by its name; a name in double quotes")
    if not marked and len(said.split()) > 1 and first.casefold() in {name.casefold() for name in reader.panels()}:
        reader.expected = (start, [*KNOWN, "as"])
        raise reader.fail(f"a word of the circuit, or `as` and a name; {first} is a panel")
    near = get_close_matches(first.lower(), KNOWN, n=1, cutoff=0.7)
    if not marked and (near or not (first[0].isupper() or stop == end)):
        reader.expected = (start, near or [*KNOWN, "as"])
        raise reader.fail(f"{near[0] if near else 'a word of the circuit'}, or `as` and a name")
    reader.pos = stop
    return said[:60]


def _boxes_next(reader: SceneReader) -> re.Pattern[str]:
    """A box by its name after a name, or `for` and a box."""
    known = "|".join(re.escape(name) for name in sorted(reader.boxes(), key=len, reverse=True)) or r"(?!)"
    return re.compile(rf"\s(?=(?:for\s+)?(?:{known})(?![\w-]))", re.IGNORECASE)


def _boxes(reader: SceneReader, had: Sequence[Box] = ()) -> list[Box]:
    """Boxes by name, up to the first word that is none."""
    found: list[Box] = []
    known = reader.boxes()
    while not reader.over() and not reader.sees(STOPS) and (not found or _more(reader, known)):
        left = [name for name, box in known.items() if box not in found and box not in had]
        found.append(known[reader.need(left, "a box by its name")])
    return found


def _more(reader: SceneReader, known: Iterable[str]) -> bool:
    """Whether another box is named here, after `and`, `>` or nothing; not where something else of the circuit is."""
    if reader.text.startswith(">", reader.pos):
        reader.pos += 1
        return True
    other = reader.sees(("as", *KNOWN)) or reader.text[reader.pos : reader.pos + 1].isdigit()
    return reader.phrase(["and"]) is not None or reader.sees(known) or not other


def _panel(reader: SceneReader) -> Panel:
    if reader.phrase(["in"]):
        if (found := reader.a_panel()) is None:
            raise reader.fail("a panel by its name")
        return found
    if reader.scene.panel is None:
        reader.expect(["panel"])
        raise reader.refuse("there is no panel yet: set one in Boxes with `panel` and a wall")
    return reader.scene.panel


def known_circuits(reader: SceneReader) -> dict[str, Circuit]:
    """Circuits by name; those of the panel looked at by their spaces, the first of two too."""
    own = reader.spaced()
    named = {str(c.space): c for c in own.values() if c.poles == 2} | reader.circuits_by_word()
    named |= {c.name: c for c in reader.scene.job.circuits}
    return named | own


def known_circuit(reader: SceneReader) -> Circuit:
    """A circuit by its space in the panel looked at, or by its name."""
    named, start = known_circuits(reader), reader.pos
    if reader.phrase(("circuit", "breaker")) and not reader.sees(named):
        reader.pos = start
    return named[reader.need(named, "a circuit by its space, or its name")]


def put(reader: SceneReader) -> Said:
    """put 14 on 9: a breaker on another space; `on 9a`, `on 9b` for the halves of a tandem; `out` takes it out."""
    found = known_circuit(reader)
    if reader.phrase(["out"]):
        return Said([{"op": "put", "circuit": found.id, "space": None}], panel=found.panel)
    if reader.phrase(("in", "to")) is None:
        reader.need(("on",), "on and a space")
    return put_on(reader, found)


def put_on(reader: SceneReader, found: Circuit) -> Said:
    """What follows a circuit that goes to another space: the space, or the half of one."""
    reader.phrase(("space", "spaces"))
    space = int(reader.number("a space", 0, 84))
    half = ""
    if reader.text[reader.pos : reader.pos + 1] in ("a", "b"):
        half = reader.text[reader.pos]
        reader.pos += 1
    job, panel = reader.scene.job, reader.scene.job.node(found.panel)
    assert isinstance(panel, Panel)
    asked = breaker_asked(found, {box.id for box in job.boxes if box.old})
    back = given_back(panel, space) if asked else []  # of the breakers that are there it is that one
    return Said([*back, {"op": "put", "circuit": found.id, "space": space, "half": half}], panel=found.panel)


def chain(reader: SceneReader) -> Said:
    """chain R-1 R-2 on 9 [after S-1]: boxes on a circuit one after another."""
    boxes = _boxes(reader)
    if not boxes:
        raise reader.fail("a box by its name")
    reader.need(("on",), "on and a circuit")
    found = known_circuit(reader)
    after = found.chain[-1].box if found.chain else None
    if reader.phrase(["after"]):
        known = {name: box for name, box in reader.boxes().items() if any(h.box == box.id for h in found.chain)}
        after = known[reader.need(known, f"a box of {found.name}")].id
    if after in {box.id for box in boxes}:
        after = None
    edit = {"op": "chain", "circuit": found.id, "boxes": [box.id for box in boxes], "after": after}
    return Said([edit], panel=found.panel)


def unchain(reader: SceneReader) -> Said:
    """unchain R-1 R-2: boxes off their circuits."""
    boxes = _boxes(reader)
    if not boxes:
        raise reader.fail("a box by its name")
    return Said([{"op": "unchain", "boxes": [box.id for box in boxes]}])


def split(reader: SceneReader) -> Said:
    """split 9 at R-3 [as NAME]: that box and all downstream of it to a new circuit of the same kind."""
    found = known_circuit(reader)
    reader.need(("at",), "at and a box")
    known = {name: box for name, box in reader.boxes().items() if any(h.box == box.id for h in found.chain)}
    first = known[reader.need(known, f"a box of {found.name}")]
    name = reader.name() if reader.phrase(["as"]) else f"{found.name} 2"[:60]
    below, more = {first.id}, True
    while more:
        fresh = {hop.box for hop in found.chain if hop.after in below} - below
        below |= fresh
        more = bool(fresh)
    hops = [h for h in found.chain if h.box in below]
    ident = next_id(reader.scene.job, "c")
    item = found.model_dump() | {
        "id": ident, "name": name, "space": None, "half": "", "partner": None, "tied": False,
        "chain": [{"box": h.box, "after": None if h.box == first.id else h.after} for h in hops],
    }  # fmt: skip
    return Said(
        [
            {"op": "unchain", "boxes": [h.box for h in hops]},
            {"op": "add", "kind": "circuit", "item": item},
        ],
        panel=found.panel,
    )


VERBS: dict[str, Callable[[SceneReader], Said]] = {
    "circuit": circuit,
    "put": put,
    "chain": chain,
    "unchain": unchain,
    "split": split,
}
