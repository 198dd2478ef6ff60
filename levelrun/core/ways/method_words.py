"""A method in a walk text: 12-2, uf 10/2, 3/4 emt, pvc 40 1, after `in` or where it is said by itself."""

from __future__ import annotations

import re
from collections.abc import Sequence

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, methods, places, raceway_sizes
from levelrun.core.errors import TextError
from levelrun.core.words import NUMBER, Reader

PIPE = ("conduit", "pipe", "tubing")
METALS = ("al", "aluminum", "aluminium", "copper", "cu")  # of the wires, which are the circuit's to say
CABLE = ("cable", "with ground", "w/ ground", "w/g", "wire", *METALS)
SIZES = ("12-2", "14-2")
_CABLE_SIZE = re.compile(
    r"(?P<hot>\d+/0|\d+)-(?P=hot)-(?:\d+/0|\d+)-(?:\d+/0|\d+)(?![\w/-])"  # 2-2-4-6: hots, neutral, ground
    r"|(?P<wire>\d+/0|\d+)-(?P<count>\d)(?![\w/-])|(?P<slash>14|12|10|8|6)/(?P<of>[2-4])(?![\w/-])"
)
_FEET = re.compile(r"\s*(?:'|ft\b|feet\b|foot\b)", re.IGNORECASE)


class WalkReader(Reader):
    """A reader that knows the places and methods of a rule set, and the names of boxes and panels."""

    def __init__(self, book: Codebook, text: str, names: Sequence[str]) -> None:
        super().__init__(text)
        self.book = book
        self.names = sorted(names, key=len, reverse=True)
        self.place_words = {word: p.place for p in places(book).values() for word in p.words}
        self.place_words |= {key.replace("_", " "): key for key in places(book)}
        self.method_words = {word: m.key for m in methods(book).values() for word in (*m.words, m.key.lower())}


def method_ahead(book: Codebook, text: str) -> tuple[str, str | None, int] | None:
    """The method and size that a text begins with, and where they end; None where it begins with none."""
    reader = WalkReader(book, text, ())
    reader.phrase(("some", "in", "using"))
    said = method_here(reader)
    return None if said is None else (*said, reader.pos)


def method_said(reader: WalkReader) -> tuple[str, str | None]:
    """A method and its size, either first, behind `in`. Raises TextError."""
    size = _size_and_metal(reader)
    options = [m.words[0] for m in methods(reader.book).values()] + ([] if size else list(SIZES))
    reader.expect(options)
    word = _word(reader)
    if word is None:
        pipe_size = _pipe_size(reader, "EMT") if size is None else None
        reader.expect(options)
        word = _word(reader) if pipe_size else None
        if word is None and size is None:
            raise reader.fail("a method")
        if word is None:
            _cable(reader)
            return "NM-B", size
        reader.phrase(PIPE)
        return reader.method_words[word], pipe_size
    return _sized(reader, word, size)


def method_here(reader: WalkReader) -> tuple[str, str | None] | None:
    """A method that is said by itself, without `in`; None, and nothing taken, where none stands here. A size of cable
    alone is none: 12-2 may be 12 ft 2."""
    start, expected = reader.pos, reader.expected
    said = _here(reader)
    if said is None:
        reader.pos, reader.expected = start, expected
    return said


def _here(reader: WalkReader) -> tuple[str, str | None] | None:
    size = _size_and_metal(reader)
    word = _word(reader)
    if size is not None:
        if word is not None and method(reader.book, reader.method_words[word]).kind != "raceway":
            return _sized(reader, word, size)
        return ("NM-B", size) if word is None and _cable(reader) else None
    if word is None:
        pipe_size = _pipe_size_here(reader)
        word = _word(reader) if pipe_size else None
        if word is None or method(reader.book, reader.method_words[word]).kind != "raceway":
            return None
        reader.phrase(PIPE)
        return reader.method_words[word], pipe_size
    return _sized(reader, word, None)


def bare_size(reader: WalkReader) -> tuple[str, str] | None:
    """Building cable by its size alone: 12-2. None, and nothing taken, where none stands here."""
    size = cable_size(reader)
    return None if size is None else ("NM-B", size)


def _size_and_metal(reader: WalkReader) -> str | None:
    """The size of a cable, and the metal of its wires where a method follows: 2-2-2-4 al ser."""
    size = cable_size(reader)
    if size is not None:
        start = reader.pos
        reader.phrase(METALS)
        method_at = reader.pos
        reader.pos = method_at if _word(reader) is not None else start
    return size


def cable_size(reader: WalkReader) -> str | None:
    """The size of a cable where it stands here: 12-2, 10/3."""
    reader.skip()
    match = _CABLE_SIZE.match(reader.text, reader.pos)
    if not match or match.group(0) in ("1-1", "2-1", "3-1") or _FEET.match(reader.text, match.end()):
        return None
    reader.pos = match.end()
    if match["hot"]:
        return f"{match['hot']}-3"
    return f"{match['wire'] or match['slash']}-{match['count'] or match['of']}"


def _sized(reader: WalkReader, word: str, size: str | None) -> tuple[str, str | None]:
    """A method by its word, with the size behind it where none was said before."""
    key = reader.method_words[word]
    if method(reader.book, key).kind == "raceway":
        reader.phrase(PIPE)
        size = _pipe_size(reader, key)
        reader.phrase(PIPE)
        return key, size
    size = size or cable_size(reader)
    _cable(reader)
    return key, size


def _cable(reader: WalkReader) -> bool:
    """Takes what may be said behind the size of a cable; whether any was."""
    start = reader.pos
    while reader.phrase(CABLE):
        pass
    return reader.pos > start


def _word(reader: WalkReader) -> str | None:
    """The word of a method; a figure of its own that is how far it goes is none of it: pvc 80'."""
    start = reader.pos
    word = reader.phrase(reader.method_words)
    if word is None:
        at = reader.pos
        if reader.phrase(METALS) is not None:  # aluminum quadplex
            word = reader.phrase(reader.method_words)
        reader.pos = at if word is None else reader.pos
    if word is not None and word[-1].isdigit() and _FEET.match(reader.text, reader.pos):
        reader.pos = start
        word = reader.phrase([item for item in reader.method_words if not item[-1].isdigit()])
    return word


def _pipe_size(reader: WalkReader, key: str) -> str | None:
    sizes = [pipe.size for pipe in raceway_sizes(reader.book, key)]
    reader.expect(sizes)
    spaced = {size.replace("-", " "): size for size in sizes if "-" in size}
    start = reader.pos
    word = reader.phrase([*sizes, *spaced])
    if word and _FEET.match(reader.text, reader.pos):  # how far it goes: emt 4'
        reader.pos, word = start, None
    if word is None and NUMBER.match(reader.text, reader.pos) and not reader.sees_length():
        raise reader.fail(f"a trade size of {key}")
    if word and reader.phrase(["inch"]) is None and reader.text.startswith('"', reader.pos):
        reader.pos += 1
    return spaced.get(word, word) if word else None


def _pipe_size_here(reader: WalkReader) -> str | None:
    """A trade size that is said before its pipe; None, and nothing taken, where none stands here."""
    start = reader.pos
    try:
        return _pipe_size(reader, "EMT")
    except TextError:
        reader.pos = start
        return None
