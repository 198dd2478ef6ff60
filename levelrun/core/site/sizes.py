"""Sizes as they are spoken of rooms and buildings: 14x12, 24 by 30, 24x30x10, in feet without saying so.

Of nothing else two bare numbers are feet: 4x4 is a box in inches, 2x6 is lumber. A size is read as feet where the
word of a room or a building stands right before it or behind it; elsewhere it has no unit and is refused. A unit
of one of its numbers, 24 by 30 m, holds for the others.
"""

from __future__ import annotations

import re

from levelrun.core.site.called import BUILDINGS, USES

FEWEST_FT, MOST_FT = 2.5, 300.0  # under it no room, and the lumber that is called by its inches
_N, _UNIT = r"\d+(?:\.\d+)?", r"(?:\s*(?:'|(?:ft|feet|foot|mm|cm|m)\b))"
_IN = r"(?:(?<=')\s?\d{1,2}(?:\s\d{1,2}/\d{1,2})?(?:\s*(?:\"|in\b))?)?"
_BY = r"\s*(?:[x×]|\bby\b)\s*"
_A, _B, _C = (rf"(?P<{n}>{_N})(?P<{n}u>{_UNIT}?{_IN})" for n in "abc")
_SIZE = re.compile(
    rf"(?<![\w'\"./-]){_A}{_BY}{_B}(?:{_BY}{_C})?"
    r"(?!['\"\w/-]|\.\d|\s*(?:\"|''|in\b(?!\s+[a-z])|inch|\d+(?:\s+\d+/\d+)?\s*\"))",
    re.IGNORECASE,
)
SHALLOW_FT = 2.0  # a closet may be so deep, which is lumber too
_SHALLOW = re.compile(r"\b(?:closet|pantry)\s+$", re.IGNORECASE)
_SPACED = re.compile(r"\s*(?:at|@|16|24|on\s+center)\b", re.IGNORECASE)
_ONLY_UNIT = re.compile(_UNIT, re.IGNORECASE)
_CLOSE = re.compile(r"(?P<unit>(?:'\s?\d{1,2})|'|\"|ft|\d\s?m)x(?=\d)", re.IGNORECASE)
# Of a wall, a box or wood: what is called by inches.
_INCHES = re.compile(
    r"\s*(?:walls?|studs?|joists?|rafters?|posts?|beams?|timbers?|framing|framed|fram(?:e|ing)|lumber|"
    r"(?:\w+\s+)?(?:box(?:es)?|gutters?|wireways?|troughs?|cabinets?|jb|tiles?))\b",
    re.IGNORECASE,
)
_ENDS = re.compile(r"[,;:\n.]|\b(?:in|at|on|to|from|for|with|off|beside|over|under|by|and)\b", re.IGNORECASE)
_WORD = re.compile(r"[a-z]+", re.IGNORECASE)
_LEADS = ("is", "of", "now", "to", "about", "roughly", "around", "a", "an", "called", "as", "it")
ROOMS = {*USES, *(word for name in BUILDINGS for word in name.split()), "room", "island", "area", "space", "addition"}
_BEHIND = 3  # words behind a size, of which one says what it is of: 24x30 metal building


# How much a machine heats, cools or holds, which says nothing to a wire: 3 ton, 24k btu, 12,000 btu, 50 gallon.
_CAPACITY = re.compile(
    r"(?<![\w.-])\d{1,3}(?:(?:,\d{3})+|\.\d+|[\s-]\d/\d)?\s*(?:k\s*)?[\s-]?(?:tons?|btus?(?:/hr?)?)\b", re.IGNORECASE
)


def without_capacity(text: str) -> str:
    """The text with blanks for what machines can do, so that every place in it stays where it was."""
    return _CAPACITY.sub(lambda match: " " * len(match[0]), text)


def feet_said(text: str) -> tuple[str, list[int], dict[int, str]]:
    """The text with the feet of sizes said and blanks round their x, for each of its characters the position it came
    from, and the sizes that were taken to be in feet, by where they stand."""
    text, came_from = _apart(text)
    out, origin, taken, done = "", list[int](), dict[int, str](), 0
    for size in _SIZE.finditer(text):
        said = (size["au"], size["bu"])
        if (all(said) and size["c"] is None) or not _is_of_a_place(text, size):
            continue
        out += text[done : size.start()]
        origin += came_from[done : size.start()]
        if not any(said):
            taken[len(out)] = " x ".join(filter(None, size.group("a", "b", "c")))
        unit = _ONLY_UNIT.match(next(filter(None, said), "'"))[0]  # type: ignore[index]
        for number, behind in zip("abc", (" x ", " ", " high "), strict=True):
            if size[number] is None:
                continue
            own, at = size[number] + size[f"{number}u"], came_from[size.start(number)]
            more = ("" if size[f"{number}u"] else unit) + behind
            out += own + more
            origin += [*range(at, at + len(own)), *[at + len(own) - 1] * len(more)]
        done = size.end()
    return out + text[done:], [*origin, *came_from[done:]], taken


OPENED, WIDEST_FT = ("window", "windows", "door", "doors", "opening"), 20.0  # 36 by 80 are inches


def _is_of_a_place(text: str, size: re.Match[str]) -> bool:
    """Whether a size is that of a room, a building or an island."""
    bare = not (size["au"] or size["bu"])
    behind = text[size.end() :]
    if _INCHES.match(behind) is not None:
        return False
    small = _SHALLOW.search(text[: size.start()]) is not None and _SPACED.match(behind) is None
    least = SHALLOW_FT if small else FEWEST_FT
    if bare and not all(least <= float(number) <= MOST_FT for number in size.group("a", "b")):
        return False
    end = _ENDS.search(behind)
    words = _WORD.findall(behind[: end.start() if end else len(behind)])[:_BEHIND]
    before = _WORD.findall(re.split(r"[;\n]", text[: size.start()])[-1])
    while before and before[-1].lower() in _LEADS:
        before.pop()
    named = [word.lower() for word in (*words[:1], *before[-1:])]
    if bare and any(word in OPENED for word in named):
        return all(float(number) <= WIDEST_FT for number in size.group("a", "b"))
    if any(word.lower() in ROOMS for word in words):
        return True
    return bool(before) and before[-1].lower() in ROOMS


def _apart(text: str) -> tuple[str, list[int]]:
    """With blanks round the x of 14'x12'."""
    out, origin, done = "", list[int](), 0
    for unit in _CLOSE.finditer(text):
        at = unit.end("unit")
        out += text[done:at] + " x "
        origin += [*range(done, at), at, at, at]
        done = unit.end()
    return out + text[done:], [*origin, *range(done, len(text) + 1)]
