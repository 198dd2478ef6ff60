"""Walk shorthand: a way as an electrician says it, read and written.

    over 43' trench 16" deep in pvc40 3/4 to LB

A leg is a direction (none: over) and a length, then in any order: the place, `N deep`, `in METHOD SIZE`, facts (wet,
guarded, above a drive, clear 12' ...), `with` bends, `to` what stands at its end. Legs are parted by a new line, `;`,
`then`, a comma, `and`, or a direction. The place or the direction may be said first or last, with the small words of
speech: `12' of attic, 8' down the wall`, `down the wall 8'`.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, methods, place, places, raceway_sizes
from levelrun.core.errors import TextError
from levelrun.core.measure import format_inches, format_length
from levelrun.core.ways.method_words import WalkReader, bare_size, method_here, method_said
from levelrun.core.ways.next_leg import FILLERS, FISH, GO, deep, goes_on, through
from levelrun.core.ways.parts import Shape
from levelrun.core.ways.shape_words import bends_said, write_bends, write_shape
from levelrun.core.words import BREAK, NUMBER

THROUGH_FLOOR = tuple(f"through the {floor}" for floor in ("floor", "subfloor", "ceiling"))
COME_TO = ("attic", "ceiling_joists", "crawl_space", "basement", "trench", "roof")  # what a leg may end in
FISHED = ("fished in", "fished", "snaked", "in the closed wall", "in a closed wall")
DUG_IN = 72.0  # a figure over it is no depth that goes without saying so
ENDS = {"lb": "LB", "body": "body", "conduit body": "body", "coupling": "coupling"}
FACT_WORDS: dict[str, tuple[str, Any]] = {
    "wet": ("moisture", "wet"),
    "damp": ("moisture", "damp"),
    "dry": ("moisture", "dry"),
    "hit": ("damage", True),
    "guarded": ("damage", False),
    "exposed": ("exposed", True),
    "concealed": ("exposed", False),
    "sun": ("sunlight", True),
    "shade": ("sunlight", False),
    "insulated": ("insulation", True),
    "uninsulated": ("insulation", False),
    "in rock": ("rock", True),
    "above people": ("beneath", "walk"),
    "above a drive": ("beneath", "drive"),
    "above a street": ("beneath", "street"),
    "above a roof": ("beneath", "roof"),
}
ABOVE_WORDS = {
    "under open ground": "open_ground",
    "under 2 in concrete": "concrete_2in",
    "under a building": "under_building",
    "under a slab": "slab_4in",
    "under a street": "street",
    "under a driveway": "driveway",
}
_NUMBER_NEXT = re.compile(r"[\s,]*\d")
_HEAT = re.compile(
    r"\s*(?:(?P<named>ambient)\s+|at\s+)?(?P<n>-?\d+(?:\.\d+)?)\s*°?\s*(?P<unit>[cf](?![-\w]))?", re.IGNORECASE
)
_CORD = re.compile(
    r"\s*(?:(?:flexible|extension|power|rubber)\s+cord|s(?:jt?|t|eo?)?o{0,2}w?\s+cord|cord)\b", re.IGNORECASE
)
_MARKS = re.compile(r"""(?=\s*(?:$|\n|;|,|\bthen\b|\bin\b|\bwith\b))""")


@dataclass(frozen=True, kw_only=True)
class WalkLeg:
    """A leg as said. What was not said is None or empty."""

    go: str
    length_in: float
    place: str | None = None
    method: str | None = None
    size: str | None = None
    depth_in: float | None = None
    to: str | None = None
    bends_deg: tuple[float, ...] = ()
    shapes: tuple[Shape, ...] = ()
    radius_in: float | None = None
    feed: str = ""
    sleeve: bool = False
    met: bool = False
    stands_off: bool = False
    expansion: bool = False
    ribbon: bool = False
    fished: bool = False
    supposed: bool = False
    facts: dict[str, Any] = field(default_factory=dict)


def parse_walk(book: Codebook, text: str, names: Sequence[str] = ()) -> list[WalkLeg]:
    """Legs of a walk text. `names` are boxes and panels that `to` may name with spaces in them.

    Raises TextError with `at`, the character position in `text`, and what was expected there.
    """
    return _read(WalkReader(book, text, names))


def suggest(book: Codebook, text: str, names: Sequence[str] = ()) -> tuple[int, list[str]]:
    """Where the word being typed starts, and the words that may stand there."""
    reader = WalkReader(book, text, names)
    return reader.options_after(lambda: _read(reader), text)


def _read(reader: WalkReader) -> list[WalkLeg]:
    legs: list[WalkLeg] = []
    while True:
        while match := BREAK.match(reader.text, reader.pos):
            reader.pos = match.end()
        reader.skip()
        if reader.at_end() and legs:
            return legs
        reader.phrase(["walk"])
        fished = reader.phrase(FISH) is not None
        leg = _leg(reader)
        legs.append(replace(leg, fished=True) if fished else leg)


def _leg(reader: WalkReader) -> WalkLeg:
    reader.expect(GO)
    go = reader.phrase(GO)
    leg = WalkLeg(go=go or "over", length_in=0.0)
    begun = go is not None
    if (thick := through(reader)) > 0:
        return replace(leg, place="stud_wall", length_in=thick)
    while True:  # the method and the place before how far
        if (said := _method_first(reader)) is not None:
            leg = replace(leg, method=said[0], size=said[1])
        elif _NUMBER_NEXT.match(reader.text, reader.pos) is not None:
            break
        elif reader.phrase(FILLERS) is None:
            reader.phrase(["in"])
            word = reader.phrase(reader.place_words) if leg.place is None else None
            if word is None and not begun:
                raise reader.fail("a direction: up, down, over, left or right")
            if word is None:
                break
            leg = replace(leg, place=reader.place_words[word])
        begun = True
    reader.skip()
    begin = reader.pos
    leg = replace(leg, length_in=reader.length())
    if leg.length_in <= 0:
        raise TextError("a leg is longer than 0", key="text", value="0", at=reader.origin[begin])
    while True:
        reader.expect(_items(reader, leg))
        if reader.at_end() or BREAK.match(reader.text, reader.pos) or goes_on(reader, leg.method is not None):
            return leg
        if go is None and (go := reader.phrase(GO)) is not None:
            leg = replace(leg, go=go)
            continue
        leg = _item(reader, leg)


def _method_first(reader: WalkReader) -> tuple[str, str | None] | None:
    """The method of a leg that is said before how far it goes: in 3/4 emt 25', 12-2 35'. A size of cable alone is one
    where a length follows."""
    start = reader.pos
    reader.phrase(("in", "some", "using"))
    said = method_here(reader)
    if said is None and (bare := bare_size(reader)) is not None and reader.sees_length():
        said = bare
    if said is None:
        reader.pos = start
    return said


def _items(reader: WalkReader, leg: WalkLeg) -> list[str]:
    """What may stand next, for completion: what is still missing comes first."""
    options: list[str] = []
    if leg.method and not leg.size and method(reader.book, leg.method).kind == "raceway":
        options += [pipe.size for pipe in raceway_sizes(reader.book, leg.method)]
    if leg.place is None:
        options += [p.words[0] for p in places(reader.book).values()]
    elif leg.depth_in is None and place(reader.book, leg.place).above:
        options.append('18" deep')
    if leg.method is None:
        options += [f"in {m.words[0]}" for m in methods(reader.book).values()]
    if leg.to is None:
        options += ["to LB", "to coupling", "to body", *(f"to {name}" for name in sorted(reader.names))]
    return [
        *options,
        "with box offset",
        'with offset 4"',
        'with saddle 2"',
        "with bend 45",
        *FACT_WORDS,
        "sleeve",
    ]


def _item(reader: WalkReader, leg: WalkLeg) -> WalkLeg:
    if leg.place is None and reader.phrase(THROUGH_FLOOR) is not None:
        return replace(leg, place="stud_wall")
    if reader.phrase(FILLERS):
        return leg
    if word := reader.phrase(ABOVE_WORDS):
        return replace(leg, facts={**leg.facts, "above": ABOVE_WORDS[word]})
    if word := reader.phrase(reader.place_words):
        if leg.place is not None:
            raise reader.fail("one place for a leg")
        return replace(leg, place=reader.place_words[word])
    if word := reader.phrase(FACT_WORDS):
        key, value = FACT_WORDS[word]
        return replace(leg, facts={**leg.facts, key: value})
    if reader.phrase(["sleeve"]):
        return replace(leg, sleeve=True)
    if reader.phrase(["condition met"]):
        return replace(leg, met=True)
    if reader.phrase(["expansion fitting"]):
        return replace(leg, expansion=True)
    if reader.phrase(["stood off"]):
        return replace(leg, stands_off=True)
    if reader.phrase(["ribbon"]):
        return replace(leg, ribbon=True)
    if reader.phrase(FISHED):
        return replace(leg, fished=True)
    if reader.phrase(["supposed"]):
        return replace(leg, supposed=True)
    if reader.phrase(["in"]):
        while reader.phrase(("the", "a", "an")):
            pass
        if leg.place is None and (word := reader.phrase(reader.place_words)):
            return replace(leg, place=reader.place_words[word])
        if leg.place is None and leg.depth_in is None and (dug := _dug(reader)) is not None:
            return replace(leg, place=dug[0], depth_in=dug[1])
        key, size = method_said(reader)
        return replace(leg, method=key, size=size)
    if reader.phrase(["with"]):
        shapes, angles = bends_said(reader)
        return replace(leg, shapes=leg.shapes + shapes, bends_deg=leg.bends_deg + angles)
    if reader.phrase(["sweep"]):
        return replace(leg, radius_in=reader.length())
    if reader.phrase(["fed at"]):
        return replace(leg, feed=reader.need(("start", "end"), "the end where wire goes in: start or end"))
    if reader.phrase(["to"]):
        return leg if _comes_to(reader) else replace(leg, to=_target(reader))
    if (degrees := _degrees(reader)) is not None:
        return replace(leg, facts={**leg.facts, "ambient_c": degrees})
    if reader.phrase(["ambient"]):
        raise reader.fail("degrees from -40 to 90 C, -40 to 194 F")
    if reader.phrase(["raised"]):
        return replace(leg, facts={**leg.facts, "above_roof_in": reader.length()})
    if reader.phrase(["clear"]):
        return replace(leg, facts={**leg.facts, "clear_in": reader.length()})
    if reader.phrase(["deep"]):
        return replace(leg, depth_in=reader.length())
    if leg.method is None and (said := method_here(reader)) is not None:
        return replace(leg, method=said[0], size=said[1])
    if NUMBER.match(reader.text, reader.pos):
        return _number(reader, leg)
    if _CORD.match(reader.text, reader.pos) is not None:
        cord = "flexible cord is no wiring of a building (NEC 400.12): it hangs behind a plug; say a cable or a pipe"
        raise TextError(cord, key="text", value=reader.text[reader.pos :][:60], at=reader.origin[reader.pos])
    if reader.sees(("floor joists", "floor")):
        reader.expect(("crawl", "basement", "ceiling joists"))
        raise reader.fail("the joists of which floor: crawl, basement or ceiling joists")
    raise reader.fail('a place, a depth, "in" a method, "with" bends or "to" an end')


def _number(reader: WalkReader, leg: WalkLeg) -> WalkLeg:
    """A second figure of a leg: how deep; under ground also without its word, where it is no farther than one digs
    by hand; or the cable, by its size alone at the end of the leg: 35' crawl 12-2."""
    start = reader.pos
    if leg.method is None and (said := bare_size(reader)) is not None:
        if not reader.sees(["deep"]) and not (leg.place and place(reader.book, leg.place).above):
            return replace(leg, method=said[0], size=said[1])
        reader.pos = start
    depth = reader.length()
    reader.expect(["deep"])
    dug = leg.place is not None and bool(place(reader.book, leg.place).above) and depth <= DUG_IN
    if not deep(reader) and (not dug or leg.depth_in is not None):
        raise reader.fail('"deep" after a second length, or a comma or `then` before the next leg')
    return replace(leg, depth_in=depth)


def _dug(reader: WalkReader) -> tuple[str, float] | None:
    """A place under ground behind its depth: in an 18" deep trench. None, and nothing taken, where none is here."""
    start = reader.pos
    if reader.sees_length():
        depth = reader.length()
        deep(reader)
        words = {word: key for word, key in reader.place_words.items() if place(reader.book, key).above}
        if (word := reader.phrase(words)) is not None:
            return words[word], depth
    reader.pos = start
    return None


def _target(reader: WalkReader) -> str:
    reader.expect(["LB", "body", "coupling", *sorted(reader.names)])
    if word := reader.phrase([*ENDS, *reader.names]):
        return ENDS.get(word, word)
    reader.phrase(["box"])
    if word := reader.phrase(reader.names):
        return word
    start = reader.pos
    match = _MARKS.search(reader.text, start)
    name = reader.text[start : match.start() if match else len(reader.text)].strip()
    if not name:
        raise reader.fail("what stands at the end: LB, body, coupling, or a box")
    reader.pos = start + len(reader.text[start : match.start() if match else None].rstrip())
    return name


def _comes_to(reader: WalkReader) -> bool:
    """Whether a leg is said to come to where the next one lies: down 6' to the crawl space, 30' crawl space."""
    start = reader.pos
    reader.phrase(["the"])
    word = reader.phrase(word for word, key in reader.place_words.items() if key in COME_TO)
    found = word is not None and not reader.ended() and (reader.over() or goes_on(reader, cabled=False))
    if not found:
        reader.pos = start
    return found


def _degrees(reader: WalkReader) -> float | None:
    """How hot it gets, as Celsius, where that stands here: at 40 C, 104 F, ambient 40."""
    said = _HEAT.match(reader.text, reader.pos)
    if said is None or not (said["named"] or said["unit"]):
        return None
    degrees = float(said["n"])
    if (said["unit"] or "").lower() == "f":
        degrees = round((degrees - 32) / 1.8, 1)
    if not -40 <= degrees <= 90:
        raise reader.fail("degrees from -40 to 90 C, -40 to 194 F")
    reader.pos = said.end()
    return degrees


def write_leg(book: Codebook, leg: WalkLeg) -> str:
    """A leg as walk text; `parse_walk` reads it back to the same leg."""
    words = [leg.go, format_length(leg.length_in)]
    if leg.place:
        words.append(place(book, leg.place).words[0])
    if leg.depth_in is not None:
        words += [format_inches(leg.depth_in), "deep"]
    said = {(key, value): word for word, (key, value) in FACT_WORDS.items()}
    said |= {("above", value): word for word, value in ABOVE_WORDS.items()}
    for key, value in leg.facts.items():
        if key == "ambient_c":
            words.append(f"ambient {value:g} C")
        elif key == "above_roof_in":
            words.append(f"raised {format_inches(value)}")
        elif key == "clear_in":
            words += ["clear", format_length(value)]
        else:
            words.append(said[(key, value)])
    if leg.method:
        words += ["in", method(book, leg.method).words[0], leg.size or ""]
    words += [write_bends(leg.bends_deg), *(f"with {write_shape(shape)}" for shape in leg.shapes)]
    words += [f"sweep {format_inches(leg.radius_in)}" if leg.radius_in is not None else ""]
    words += [f"fed at {leg.feed}" if leg.feed else "", "sleeve" if leg.sleeve else ""]
    words += ["condition met" if leg.met else ""]
    words += ["stood off" if leg.stands_off else "", "expansion fitting" if leg.expansion else ""]
    words += ["ribbon" if leg.ribbon else "", "fished" if leg.fished else "", "supposed" if leg.supposed else ""]
    if leg.to:
        words += ["to", leg.to]
    return " ".join(word for word in words if word)
