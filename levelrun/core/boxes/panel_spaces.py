"""What is counted of a panel in words: amperes, spaces, which are taken and which are free."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.site.scene import SceneReader
from levelrun.core.words import COUNTS

_NUMBER = rf"\d+|{'|'.join(COUNTS)}"
_SPACES = r"\d+(?:\s*-\s*\d+)?(?!\s*(?:a|amps?|spaces?|circuits?|free)\b)(?![\w'\"])"
_LIST = re.compile(rf"{_SPACES}(?:[\s,]+(?:and\s+)?{_SPACES})*", re.IGNORECASE)
COUNT = re.compile(
    rf"(?P<n>\d+\.\d+|{_NUMBER})[\s-]*(?P<unit>a|amps?|spaces?|circuits?|free)\b",
    re.IGNORECASE,
)
# Spaces before what they are: 1-16 and 18 taken, only 17 and 19 free.
LISTED = re.compile(
    r"(?:only\s+)?(?:spaces?\s+)?(?P<list>\d+(?:\s*-\s*\d+)?(?:[\s,]+(?:and\s+)?\d+(?:\s*-\s*\d+)?)*)"
    r"\s+(?:are\s+|is\s+)?(?P<what>taken|used|in use|full|free|open)\b", re.IGNORECASE,
)  # fmt: skip
# Free ones before their spaces: 3 free: 20 22 24.
OPENED = re.compile(
    rf"(?:only\s+)?(?:(?:{_NUMBER})\s+)?(?:free|open)(?:\s+spaces)?\s*(?:are\b|:)?\s*"
    rf"(?={_LIST.pattern})", re.IGNORECASE,
)  # fmt: skip
FREE = re.compile(
    rf"(?:only\s+)?(?P<n>{_NUMBER})\s+(?:(?:open|free|empty|spare)\b(?:\s+(?:spaces?|slots?))?|"
    r"(?:spaces?|slots?)\s+(?:are\s+)?(?:free|open|left|empty))\b", re.IGNORECASE,
)  # fmt: skip
# The spaces at its foot: the last two spaces open, bottom 4 free.
LOWEST = re.compile(
    rf"(?:the\s+)?(?:last|bottom|lowest)\s+(?P<n>{_NUMBER})\s+(?:(?:spaces?|slots?)\s+)?(?:are\s+)?"
    r"(?:open|free|empty|left)\b", re.IGNORECASE,
)  # fmt: skip
LENGTH = re.compile(r"[-+]?\d")
USUAL_SPACES = 20
# How many spaces a panel has by its main breaker, and panels that are made: common practice, no source.
SPACES_BY_MAIN = ((200.0, 40), (150.0, 30), (125.0, 24))
MADE = (24, 30, 32, 40, 42, 54, 60, 84)
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


def _number(found: re.Match[str]) -> int:
    return int(COUNTS.get(found["n"].lower(), found["n"]))


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
        item["free_said"], reader.pos = _number(free), free.end()
        return True
    count = COUNT.match(reader.text, reader.pos)
    if count is not None:
        counted(reader, item, count)
    return count is not None


class Spaces:
    """What a sentence says of the spaces of a panel, as far as it is read; what is sure is in its `item`."""

    def __init__(self, reader: SceneReader, item: dict[str, Any]) -> None:
        self.reader, self.item = reader, item
        self.full = False
        self.lowest = 0  # how many at its foot are free
        self.open: list[int] = []  # spaces that are said to be free, all others taken

    def here(self) -> bool:
        """Takes which spaces are taken or free, where that is said here."""
        reader = self.reader
        reader.skip()
        if not reader.sees(EXCEPT) and reader.phrase(FULL) is not None:
            self.full = True
        elif (listed := LISTED.match(reader.text, reader.pos)) is not None and self._listed(listed):
            pass
        elif (lowest := reader.take(LOWEST)) is not None:
            self.lowest = _number(lowest)
        elif reader.take(OPENED) is not None:
            self.open += taken(reader)
        else:
            return False
        return True

    def all_but(self, word: str) -> None:
        """The free ones behind a word for it; all but two says how many, not which."""
        few = self.reader.phrase(COUNTS) if word in EXCEPT else None
        if few is not None:
            self.item["free_said"] = COUNTS[few]
        else:
            self.open += taken(self.reader)

    def _listed(self, listed: re.Match[str]) -> bool:
        """Spaces whose word stands behind them. Refuses one number of which it is not known whether it counts."""
        free = listed["what"].lower() in ("free", "open")
        if listed["list"].isdigit() and free and "only" not in listed[0].lower():
            return False  # 2 free: a count
        if listed["list"].isdigit() and not free and not listed[0].lower().startswith("space"):
            number = listed["list"]
            raise self.reader.refuse(
                f"{number} spaces, or space {number}? say `taken {number}` for the space, or how many are free"
            )
        found = ranges(self.reader, listed["list"], listed.start("list"))
        self.reader.pos = listed.end()
        if free:
            self.open += found
        else:
            self.item["taken"] = sorted({*self.item.get("taken", ()), *found})
        return True

    def close(self) -> None:
        """All spaces taken but those that were said to be free."""
        item = self.item
        if self.full and "spaces" in item:
            item["taken"] = list(range(1, item["spaces"] + 1))
        elif self.full:
            item["free_said"] = 0
        if self.lowest and "spaces" in item:
            self.open += range(item["spaces"] - self.lowest + 1, item["spaces"] + 1)
        elif self.lowest:
            item["free_said"] = self.lowest
        if not self.open:
            return
        if "spaces" not in item:
            raise self.reader.refuse("say how many spaces it has, as `30 spaces`: all but the free ones are taken")
        item["taken"] = [n for n in range(1, item["spaces"] + 1) if n not in self.open]

    def count(self) -> tuple[int, list[str]]:
        """How many there are, and what is told of it: as usual for its main where only some are said to be taken."""
        item = self.item
        if "spaces" in item or not item.get("taken"):
            return item.get("spaces", USUAL_SPACES), []
        usual = next((n for amps, n in SPACES_BY_MAIN if float(item.get("main_a") or 0) >= amps), USUAL_SPACES)
        spaces = next((n for n in (usual, *MADE) if n > max(item["taken"])), MADE[-1])
        return spaces, [f"taken to have {spaces} spaces, as nobody said: say how many where it has others"]
