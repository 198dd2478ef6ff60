"""Sentences about circuits: made, put on a space, chained, split, fed, protected."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Sequence
from difflib import get_close_matches
from typing import Any

from levelrun.core.boxes.setting import PROTECTION
from levelrun.core.circuits.spaces import occupied
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.editing import next_id
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Circuit, Panel
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.trade.conductors.sizing import Demand, choose

UNIT = re.compile(r"(?P<n>\d+(?:\.\d+)?)\s*(?P<unit>amps\b|amp\b|a\b|volts\b|volt\b|v\b)", re.IGNORECASE)
# What a name ends at: another part of its circuit behind it.
PARTS = re.compile(
    r"\s(?=(?:gfci|afci|dual|(?:arc|ground)[ -]fault|with neutral|no neutral|nameplate|(?:mca|mocp|load|wire) \d)\b|"
    + UNIT.pattern
    + ")",
    re.IGNORECASE,
)
# What a nameplate calls its two figures.
LEAST = ("mca", "minimum circuit ampacity", "minimum ampacity", "min ampacity", "least ampacity")
LARGEST = ("mocp", "mop", "maximum breaker", "max breaker", "largest breaker", "max fuse", "maximum", "max")
_FIGURE = "|".join((*LEAST, *LARGEST))
# 18.4 mca, 25 max; 25 amp max where no figure follows that would be the one meant.
_NAMEPLATE = re.compile(
    rf"(?P<n>\d+(?:\.\d+)?)\s*(?:(?P<word>{_FIGURE})\b|(?:amps?|a)\s+(?P<said>{_FIGURE})\b(?!\s*\d))", re.IGNORECASE
)
# A wire by its size: #6, 6 awg copper, no. 1 al, 6 thhn.
_COVER = "thhn|thwn-2|thwn|xhhw-2|xhhw"
_GAUGE = re.compile(
    r"(?:(?:#\s*|no\.\s*)(?P<marked>\d+(?:/0)?)(?:\s*(?:awg|gauge)\b)?"
    rf"|(?P<plain>\d+(?:/0)?)\s*(?:awg\b|gauge\b|(?=(?:{_COVER})\b)))"
    rf"(?:\s+(?P<metal>copper|cu|alumin(?:i)?um|al)\b)?(?:\s*(?P<cover>{_COVER})\b)?(?:\s+(?:wires?|conductors?)\b)?",
    re.IGNORECASE,
)
_SPACE = re.compile(r"(?:on\s+)?(?:space\s+)?\d", re.IGNORECASE)
_LABEL = re.compile(r"[A-Za-z]{1,3}-\d+")  # as boxes are called: no name of a circuit unless it is said to be one
STOPS = ("put", "on", "after", "in")
BREAKERS = {**PROTECTION, "plain": "plain"}
KNOWN = (
    *BREAKERS, "aluminum", "aluminium", "with neutral", "no neutral", "wire", "nameplate", "load",
    *LEAST, *LARGEST,
)  # fmt: skip
OFFERED = (
    "mca 24", "mocp 40", "load 12a", "nameplate", "15a", "20a", "30a", "40a", "50a", "60a", "100a", "120v", "240v",
    "gfci", "afci", "dual", "aluminum", "with neutral", "no neutral",
)  # fmt: skip


def circuit(reader: SceneReader) -> Said:
    """circuit [in PANEL] 14 20a [240v] [gfci|afci|dual] [mca N] [mocp N] [load N] [as NAME]: BOX BOX …: its boxes in
    order; the space and what the breaker is in any order. Where no panel is said, that of the building in which all
    of its boxes stand: a building has one supply (225.30)."""
    return circuit_with(reader, {})


def circuit_with(reader: SceneReader, item: dict[str, Any]) -> Said:
    """A circuit of which something was said before its word: a 20 amp gfci circuit ..."""
    said = reader.sees(["in"])
    panel = _panel(reader)
    name, chain = "", list[Box]()
    while not reader.over() or not (item or name or chain):
        if reader.text.startswith(":", reader.pos):
            reader.pos += 1
            chain += _boxes(reader, chain)
        elif not reader.over() and circuit_part(reader, item):
            continue
        elif reader.sees(reader.boxes()) or reader.phrase(["for"]):
            chain += _boxes(reader, chain)
        elif reader.over() or ("space" not in item and _SPACE.match(reader.text, reader.pos)):
            _space(reader, item)
        else:
            name = _name(reader)
    if item.get("volts") == 240:
        item.setdefault("poles", 2)
    if "wire_size" not in item:
        item["wire_size"] = wire_for(reader, item)
    home = None if said else _home(reader, panel, chain)
    item |= {"panel": (home or panel).id, "name": name or "Circuit"}
    told = put_in(reader, home or panel, item)
    item["name"] = name or f"Circuit {item['space']}"
    if home is not None:
        told.append(f"{item['name']} is in {home.name}, where its boxes stand; say `in {panel.name}` otherwise")
    ident = next_id(reader.scene.job, "c")
    edits: list[dict[str, Any]] = [{"op": "add", "kind": "circuit", "item": {"id": ident, **item}}]
    if chain:
        edits.append({"op": "chain", "circuit": ident, "boxes": [box.id for box in chain]})
    return Said(edits, panel=item["panel"], told=told)


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


def _home(reader: SceneReader, panel: Panel, chain: list[Box]) -> Panel | None:
    """The one panel of the building in which all boxes stand, where it is fed and that is another building than the
    panel's."""
    where = {box.structure for box in chain} - {panel.structure}
    if len(where) != 1 or any(box.structure == panel.structure for box in chain):
        return None
    found = [item for item in reader.scene.job.panels if item.structure in where]
    fed = {circuit.feeds for circuit in reader.scene.job.circuits}
    return found[0] if len(found) == 1 and found[0].id in fed else None


def _space(reader: SceneReader, item: dict[str, Any]) -> None:
    """The space of a breaker, or both of two poles: 14, on 14, 14/16."""
    reader.phrase(("on space", "space", "on"))
    item["space"] = int(reader.number("a space of the panel", 0, 84))
    if reader.text[reader.pos : reader.pos + 1] == "/":
        reader.pos += 1
        reader.number("the second space", 0, 84)
        item |= {"poles": 2, "volts": 240, "neutral": False}


def circuit_part(reader: SceneReader, item: dict[str, Any], more: tuple[str, ...] = ()) -> bool:
    """One of: amperes, volts, protection, wire, nameplate, load, aluminum; whether one stood here. `more`: words that
    may stand here too, for completion."""
    reader.expect([*OFFERED, *(more or ("as and a name", ": boxes"))])
    start = reader.pos
    word = reader.phrase(KNOWN)
    if word in BREAKERS:
        item["protection"] = BREAKERS[word]
    elif word in ("aluminum", "aluminium"):
        item["material"] = "al"
    elif word in ("with neutral", "no neutral"):
        item["neutral"] = word == "with neutral"
    elif word == "nameplate":
        item["nameplate"] = True
    elif word in (*LEAST, *LARGEST):
        item |= {_plate(word): reader.number("amperes on the nameplate", 1, 1200), "nameplate": True}
        reader.phrase(["a", "amps"])
    elif word == "load":
        item["load_a"] = reader.number("amperes really expected", 0, 1200)
        reader.phrase(["a", "amps"])
    elif word == "wire":
        item["wire_size"] = reader.need(wire_sizes(reader.scene.book), "a wire size")
    elif (gauge := _GAUGE.match(reader.text, reader.pos)) is not None:
        known, size = wire_sizes(reader.scene.book), gauge["marked"] or gauge["plain"]
        if size not in known:
            raise reader.refuse(f"{size} is no wire size", start, list(known))
        item["wire_size"] = size
        if gauge["metal"]:
            item["material"] = "al" if gauge["metal"].lower().startswith("al") else "cu"
        if (gauge["cover"] or "").lower().startswith("xhhw"):
            item["insulation"] = "XHHW-2"
        reader.pos = gauge.end()
    elif (plate := _NAMEPLATE.match(reader.text, reader.pos)) is not None:
        reader.number("amperes on the nameplate", 1, 1200)
        item |= {_plate((plate["word"] or plate["said"]).lower()): float(plate["n"]), "nameplate": True}
        reader.pos = plate.end()
    else:
        match = UNIT.match(reader.text, reader.pos)
        if match is None:
            return False
        reader.pos = match.end()
        if match["unit"].lower().startswith("v"):
            if match["n"] not in ("120", "240"):
                raise reader.refuse(f"{match['n']} V: allowed 120 or 240", start, ["120v", "240v"])
            item |= {"volts": int(match["n"])}
        else:
            ratings = [row["rating_a"] for row in reader.scene.book.table("240-6-breakers").rows]
            if f"{float(match['n']):g}" not in {f"{float(r):g}" for r in ratings}:
                raise reader.refuse(f"{match['n']} A is no standard breaker", start, ratings[:12])
            item["breaker_a"] = float(match["n"])
    return True


def _plate(word: str) -> str:
    """The field of a figure on the nameplate."""
    return "least_ampacity_a" if word in LEAST else "largest_breaker_a"


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


def wire_for(reader: SceneReader, item: dict[str, Any]) -> str:
    """The wire that a breaker wants, by the method and the metal that were said."""
    amps = float(item.get("breaker_a", 20.0))
    try:
        return choose(
            reader.scene.book,
            Demand(
                load_a=amps,
                breaker_a=amps,
                wiring=str(item.get("method", "NM-B")),
                material=str(item.get("material", "cu")),
            ),
        ).size
    except LevelRunError:
        return "12"


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
    named = {str(c.space): c for c in own.values() if c.poles == 2} | {c.name: c for c in reader.scene.job.circuits}
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
    return Said([{"op": "put", "circuit": found.id, "space": space, "half": half}], panel=found.panel)


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
