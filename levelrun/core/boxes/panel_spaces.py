"""What is counted of a panel in words: amperes, spaces, which are taken and which are free."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.site.scene import SceneReader

_SPACES = r"\d+(?:\s*-\s*\d+)?(?!\s*(?:a|amps?|spaces?|circuits?|free)\b)(?![\w'\"])"
_LIST = re.compile(rf"{_SPACES}(?:[\s,]+(?:and\s+)?{_SPACES})*", re.IGNORECASE)
COUNT = re.compile(
    r"(?P<n>\d+(?:\.\d+)?|one|two|three|four|six|eight)[\s-]*(?P<unit>a|amps?|spaces?|circuits?|free)\b",
    re.IGNORECASE,
)
# Spaces before what they are: 1-16 and 18 taken, only 17 and 19 free.
LISTED = re.compile(
    r"(?:only\s+)?(?:spaces?\s+)?(?P<list>\d+(?:\s*-\s*\d+)?(?:[\s,]+(?:and\s+)?\d+(?:\s*-\s*\d+)?)*)"
    r"\s+(?:are\s+|is\s+)?(?P<what>taken|used|in use|full|free|open)\b", re.IGNORECASE,
)  # fmt: skip
# Free ones before their spaces: 3 free: 20 22 24.
OPENED = re.compile(
    r"(?:only\s+)?(?:(?:\d+|one|two|three|four|six)\s+)?(?:free|open)(?:\s+spaces)?\s*(?:are\b|:)?\s*"
    rf"(?={_LIST.pattern})", re.IGNORECASE,
)  # fmt: skip
FREE = re.compile(
    r"(?:only\s+)?(?P<n>\d+|one|two|three|four|six|eight)\s+(?:(?:open|free|empty|spare)\b(?:\s+(?:spaces?|slots?))?|"
    r"(?:spaces?|slots?)\s+(?:are\s+)?(?:free|open|left|empty))\b", re.IGNORECASE,
)  # fmt: skip
# The spaces at its foot: the last two spaces open, bottom 4 free.
LOWEST = re.compile(
    r"(?:the\s+)?(?:last|bottom|lowest)\s+(?P<n>\d+|two|three|four|six|eight)\s+(?:(?:spaces?|slots?)\s+)?(?:are\s+)?"
    r"(?:open|free|empty|left)\b", re.IGNORECASE,
)  # fmt: skip
LENGTH = re.compile(r"[-+]?\d")
COUNTS = {"one": "1", "two": "2", "three": "3", "four": "4", "six": "6", "eight": "8"}
# Before the spaces that are free, all others taken.
EXCEPT = tuple(
    f"{all_}{taken} {but}" for all_ in ("", "all ", "all spaces ") for taken in ("full", "taken", "used")
    for but in ("except", "but", "except for")
)  # fmt: skip
# Nothing is free in it.
FULL = tuple(f"{word}{end}" for end in (" up", "") for word in (
    "full", "all full", "all spaces taken", "all taken", "no spaces free", "no free spaces", "no space free",
    "none free", "no spaces left", "no room left",
))  # fmt: skip


def said_of_panel(reader: SceneReader, item: dict[str, Any], word: str) -> None:
    """What a panel is, wherever it stands."""
    if word == "spaces":
        item["spaces"] = int(reader.number("a count of spaces", 1, 84))
    elif word == "taken":
        item["taken"] = taken(reader)
    elif word == "main":
        if reader.phrase(("breaker panel", "breaker")) is not None and not _amperes_next(reader):
            return  # its amperes were said before, or are those of its name
        item["main_a"] = item["bus_a"] = reader.number("amperes", 0, 1200)
        reader.phrase(["a", "amps"])
    elif word == "lugs":
        item["main_a"] = None
    elif word in ("bonded", "sub"):
        item |= {"bonded": word == "bonded", "disconnect_elsewhere": word == "sub"}


def _amperes_next(reader: SceneReader) -> bool:
    """Whether amperes stand here: main breaker 100a, main breaker 100; no count of spaces."""
    reader.skip()
    count = COUNT.match(reader.text, reader.pos)
    return (
        count["unit"].lower().startswith("a")
        if count is not None
        else LENGTH.match(reader.text, reader.pos) is not None
    )


def taken(reader: SceneReader) -> list[int]:
    """Spaces and ranges of spaces: 1-14 17 and 19."""
    reader.expect(["1-14 17 19"])
    reader.phrase(["spaces"])
    reader.skip()
    listed = _LIST.match(reader.text, reader.pos)
    if listed is None:
        raise reader.fail("spaces such as 1-14 17 19")
    found = ranges(reader, listed[0], reader.pos)
    reader.pos = listed.end()
    return found


def ranges(reader: SceneReader, said: str, at: int) -> list[int]:
    """The spaces of a list that stands at a place of the text."""
    found: set[int] = set()
    for match in re.finditer(r"(\d+)(?:\s*-\s*(\d+))?", said):
        first, last = int(match[1]), int(match[2] or match[1])
        if not 1 <= first <= last <= 84:
            raise reader.refuse(f"{match[0]}: spaces are 1 to 84, the lower one first", at + match.start())
        found.update(range(first, last + 1))
    return sorted(found)


def counted(reader: SceneReader, item: dict[str, Any], count: re.Match[str]) -> None:
    unit, number = count["unit"].lower(), COUNTS.get(count["n"].lower(), count["n"])
    amount = float(number)
    start, reader.pos = reader.pos, count.end()
    if unit.startswith("a"):
        if not 0 < amount <= 1200:
            raise reader.refuse(f"{number} A: 1 to 1200", start)
        item["main_a"] = item["bus_a"] = amount
    elif unit.startswith(("space", "circuit")):
        if not 2 <= amount <= 84:
            raise reader.refuse(f"{number} spaces: 2 to 84", start)
        item["spaces"] = int(amount)
    else:
        item["free_said"] = int(amount)


def counted_here(reader: SceneReader, item: dict[str, Any]) -> bool:
    """Amperes, or a count of spaces or of free ones, where one stands here."""
    reader.skip()
    if (free := FREE.match(reader.text, reader.pos)) is not None and OPENED.match(reader.text, reader.pos) is None:
        item["free_said"], reader.pos = int(COUNTS.get(free["n"].lower(), free["n"])), free.end()
        return True
    count = COUNT.match(reader.text, reader.pos)
    if count is not None:
        counted(reader, item, count)
    return count is not None
