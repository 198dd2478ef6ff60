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
from levelrun.core.ways.parts import Shape
from levelrun.core.ways.shape_words import bends_said, write_bends, write_shape
from levelrun.core.words import BREAK, NUMBER, Reader

GO = ("up", "down", "over", "left", "right", "back")
FILLERS = ("the", "a", "an", "of", "on", "at", "along", "through", "across", "inside")
AND = ("and", "plus", "&")
PIPE = ("conduit", "pipe", "tubing")
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
_CABLE_SIZE = re.compile(
    r"(?P<wire>\d+/0|\d+)-(?P<count>\d)(?![\w/-])|(?P<slash>14|12|10|8|6)/(?P<of>[2-4])(?![\w/-])"
)
_HEAT = re.compile(
    r"\s*(?:(?P<named>ambient)\s+|at\s+)?(?P<n>-?\d+(?:\.\d+)?)\s*°?\s*(?P<unit>[cf](?![-\w]))?", re.IGNORECASE
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
    facts: dict[str, Any] = field(default_factory=dict)


class _WalkReader(Reader):
    """A reader that knows the places and methods of a rule set, and the names of boxes and panels."""

    def __init__(self, book: Codebook, text: str, names: Sequence[str]) -> None:
        super().__init__(text)
        self.book = book
        self.names = sorted(names, key=len, reverse=True)
        self.place_words = {word: p.place for p in places(book).values() for word in p.words}
        self.place_words |= {key.replace("_", " "): key for key in places(book)}
        self.method_words = {word: m.key for m in methods(book).values() for word in (*m.words, m.key.lower())}


def parse_walk(book: Codebook, text: str, names: Sequence[str] = ()) -> list[WalkLeg]:
    """Legs of a walk text. `names` are boxes and panels that `to` may name with spaces in them.

    Raises TextError with `at`, the character position in `text`, and what was expected there.
    """
    return _read(_WalkReader(book, text, names))


def suggest(book: Codebook, text: str, names: Sequence[str] = ()) -> tuple[int, list[str]]:
    """Where the word being typed starts, and the words that may stand there."""
    reader = _WalkReader(book, text, names)
    return reader.options_after(lambda: _read(reader), text)


def _read(reader: _WalkReader) -> list[WalkLeg]:
    legs: list[WalkLeg] = []
    while True:
        while match := BREAK.match(reader.text, reader.pos):
            reader.pos = match.end()
        reader.skip()
        if reader.at_end() and legs:
            return legs
        reader.phrase(["walk"])
        legs.append(_leg(reader))


def _leg(reader: _WalkReader) -> WalkLeg:
    reader.expect(GO)
    go = reader.phrase(GO)
    leg = WalkLeg(go=go or "over", length_in=0.0)
    begun = go is not None
    while _NUMBER_NEXT.match(reader.text, reader.pos) is None:  # the place before how far
        if reader.phrase(FILLERS) is None:
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
        if reader.at_end() or BREAK.match(reader.text, reader.pos) or _goes_on(reader):
            return leg
        if go is None and (said := reader.phrase(GO)) is not None:
            go, leg = said, replace(leg, go=said)
            continue
        leg = _item(reader, leg)


def _goes_on(reader: _WalkReader) -> bool:
    """Whether the next leg begins here: after a comma or `and`, with a direction right before its length, or with a
    length and its place or direction right behind it. A length that is followed by `deep` is none."""
    start = reader.pos
    comma = reader.text[:start].rstrip().endswith(",")
    apart = reader.phrase(AND) is not None or comma
    begin = reader.pos
    goes = reader.phrase(GO) is not None
    words = (*FILLERS, *reader.place_words)
    while apart and reader.phrase(words) is not None:
        pass
    leg = reader.sees_length()
    if leg:
        reader.length()
        leg = not _deep(reader) and (apart or goes or reader.sees((*GO, *words)))
    reader.pos = begin if leg else start
    return leg


def _deep(reader: _WalkReader) -> bool:
    return reader.phrase(["deep"]) is not None


def _items(reader: _WalkReader, leg: WalkLeg) -> list[str]:
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


def _item(reader: _WalkReader, leg: WalkLeg) -> WalkLeg:
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
    if reader.phrase(["in"]):
        while reader.phrase(("the", "a", "an")):
            pass
        if leg.place is None and (word := reader.phrase(reader.place_words)):
            return replace(leg, place=reader.place_words[word])
        key, size = _method(reader)
        return replace(leg, method=key, size=size)
    if reader.phrase(["with"]):
        shapes, angles = bends_said(reader)
        return replace(leg, shapes=leg.shapes + shapes, bends_deg=leg.bends_deg + angles)
    if reader.phrase(["sweep"]):
        return replace(leg, radius_in=reader.length())
    if reader.phrase(["fed at"]):
        return replace(leg, feed=reader.need(("start", "end"), "the end where wire goes in: start or end"))
    if reader.phrase(["to"]):
        return replace(leg, to=_target(reader))
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
    if NUMBER.match(reader.text, reader.pos):
        depth = reader.length()
        reader.expect(["deep"])
        if not _deep(reader):
            raise reader.fail('"deep" after a second length, or a comma or `then` before the next leg')
        return replace(leg, depth_in=depth)
    if reader.sees(("floor joists", "floor")):
        reader.expect(("crawl", "basement", "ceiling joists"))
        raise reader.fail("the joists of which floor: crawl, basement or ceiling joists")
    raise reader.fail('a place, a depth, "in" a method, "with" bends or "to" an end')


def _method(reader: _WalkReader) -> tuple[str, str | None]:
    size = _cable_size(reader)
    options = [m.words[0] for m in methods(reader.book).values()] + ([] if size else ["12-2", "14-2"])
    reader.expect(options)
    word = reader.phrase(reader.method_words)
    if word is None:
        pipe_size = _pipe_size(reader, "EMT") if size is None else None
        reader.expect(options)
        word = reader.phrase(reader.method_words) if pipe_size else None
        if word is None and size is None:
            raise reader.fail("a method")
        if word is None:
            reader.phrase(["cable"])
            return "NM-B", size
        reader.phrase(PIPE)
        return reader.method_words[word], pipe_size
    key = reader.method_words[word]
    if method(reader.book, key).kind == "raceway":
        reader.phrase(PIPE)
        size = _pipe_size(reader, key)
        reader.phrase(PIPE)
        return key, size
    size = size or _cable_size(reader)
    reader.phrase(["cable"])
    return key, size


def _cable_size(reader: _WalkReader) -> str | None:
    reader.skip()
    match = _CABLE_SIZE.match(reader.text, reader.pos)
    if not match or match.group(0) in ("1-1", "2-1", "3-1"):
        return None
    reader.pos = match.end()
    return f"{match['wire'] or match['slash']}-{match['count'] or match['of']}"


def _pipe_size(reader: _WalkReader, key: str) -> str | None:
    sizes = [pipe.size for pipe in raceway_sizes(reader.book, key)]
    reader.expect(sizes)
    spaced = {size.replace("-", " "): size for size in sizes if "-" in size}
    word = reader.phrase([*sizes, *spaced])
    if word is None and NUMBER.match(reader.text, reader.pos) and not reader.sees_length():
        raise reader.fail(f"a trade size of {key}")
    if word and reader.phrase(["inch"]) is None and reader.text.startswith('"', reader.pos):
        reader.pos += 1
    return spaced.get(word, word) if word else None


def _target(reader: _WalkReader) -> str:
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


def _degrees(reader: _WalkReader) -> float | None:
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
    words += ["ribbon" if leg.ribbon else ""]
    if leg.to:
        words += ["to", leg.to]
    return " ".join(word for word in words if word)
