"""Reading a typed line: a cursor that knows what it would have taken where it stands, and completes from it."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from functools import lru_cache

from levelrun.core.errors import MeasureError, TextError
from levelrun.core.measure import scan_length, tidy

SPACE = re.compile(r"[ \t,]+")
# Counts in words, as far as things are counted so.
COUNTS = {word: n for n, word in enumerate(["one", "two", "three", "four", "five", "six", "seven", "eight"], start=1)}
NUMBER = re.compile(r"\d+(?:\.\d+)?")
# Feet before a count of something else: 5' 3 gangs, 3' 12 spaces, 40' 20a take no inches from it.
# And before inches of which there would be a foot or more, or other feet: 4' 36" and 6' 1' are two lengths.
FEET = re.compile(
    r"(?P<ft>\d+(?:\.\d+)?)\s*(?:'|ft\b)(?=\s+(?:\d+(?:\.\d+)?\s*(?:gangs?|spaces?|free|amps?|a|volts?|v|watts?|w)\b"
    r"|(?:1[2-9]|[2-9]\d|\d{3,})\s*(?:\"|in\b)|\d+(?:\.\d+)?\s*(?:'|ft\b)))",
    re.IGNORECASE,
)
STOP = re.compile(r"(?<=[\w'\"′″])\.(?=[ \t]*(?:[\n;]|$))")
BREAK = re.compile(r"\s*(?:\n|;|\bthen\b)\s*")


def _plain(words: str) -> str:
    return re.sub(r"[\s_]+", " ", words.lower())


@lru_cache(maxsize=512)
def _phrases(options: tuple[str, ...]) -> tuple[re.Pattern[str], dict[str, str]]:
    """One pattern for all phrases, the longest first, ending where a word ends; and what each stands for."""
    ordered = sorted(options, key=len, reverse=True)
    whole = "|".join(re.escape(option).replace(r"\ ", r"[\s_]+") for option in ordered) or r"(?!)"
    return re.compile(rf"(?:{whole})(?![\w/-])", re.IGNORECASE), {
        _plain(option): option for option in reversed(ordered)
    }


@lru_cache(maxsize=8)
def _words_with(marks: str) -> re.Pattern[str]:
    return re.compile(rf'"(?P<quoted>[^"\n]{{1,60}})"|(?P<word>[\w{re.escape(marks)}]{{1,60}})')


class Reader:
    """A cursor over the text that knows what it would have taken at the place where it stands."""

    def __init__(self, text: str) -> None:
        self.raw = text
        self.text, self.origin = _tidy_with_origin(text)
        self.pos = 0
        self.expected: tuple[int, list[str]] = (0, [])

    def skip(self) -> None:
        if match := SPACE.match(self.text, self.pos):
            self.pos = match.end()

    def at_end(self) -> bool:
        return self.pos >= len(self.text)

    def expect(self, options: Iterable[str]) -> None:
        self.skip()
        self.expected = (self.pos, list(options))

    def fail(self, what: str) -> TextError:
        at, options = self.expected
        word = (self.text[at:].split() or [""])[0]
        found = f"found {word!r}" if word else "the text ends"
        return TextError(
            f"expected {what}, {found}",
            key="text",
            value=word,
            allowed=options,
            at=self.origin[min(at, len(self.text))],
        )

    def take(self, pattern: re.Pattern[str]) -> re.Match[str] | None:
        """What of a pattern stands here, taken; or None."""
        self.skip()
        if (match := pattern.match(self.text, self.pos)) is not None:
            self.pos = match.end()
        return match

    def phrase(self, options: Iterable[str]) -> str | None:
        """The longest of the phrases that stands here as whole words, taken; or None."""
        self.skip()
        pattern, named = _phrases(tuple(options))
        match = pattern.match(self.text, self.pos)
        if match is None:
            return None
        self.pos = match.end()
        return named[_plain(match.group(0))]

    def sees(self, options: Iterable[str]) -> bool:
        """Whether one of the phrases stands here; it is not taken."""
        start = self.pos
        found = self.phrase(options) is not None
        self.pos = start
        return found

    def need(self, options: Iterable[str], what: str) -> str:
        """One of the phrases, or a refusal that names `what` was expected."""
        self.expect(options)
        word = self.phrase(self.expected[1])
        if word is None:
            raise self.fail(what)
        return word

    def colon(self, after: Iterable[str] = ()) -> None:
        """Takes a colon where one stands; `after`: what may be typed next."""
        self.expect([":"])
        if self.text[self.pos : self.pos + 1] == ":":
            self.pos += 1
        self.expect(after)

    def token(self, what: str, marks: str = "-") -> str:
        """One word of letters, digits and `marks`, or several words in double quotes."""
        self.expect([what])
        match = _words_with(marks).match(self.text, self.pos)
        if match is None:
            raise self.fail(what)
        self.pos = match.end()
        return str(match["quoted"] or match["word"])

    def line_end(self) -> int:
        """Where the line, or the part of it up to a semicolon, ends."""
        ends = (self.text.find(mark, self.pos) for mark in ("\n", ";"))
        return min((at for at in ends if at >= 0), default=len(self.text))

    def breaks(self) -> bool:
        """Skips line breaks, semicolons and `then`; whether the text goes on after them."""
        while match := BREAK.match(self.text, self.pos):
            self.pos = match.end()
        self.skip()
        return not self.at_end()

    def over(self) -> bool:
        """Whether the sentence ends here."""
        self.skip()
        return self.at_end() or BREAK.match(self.text, self.pos) is not None

    def ended(self) -> bool:
        """Whether the text ends here."""
        self.skip()
        return self.at_end()

    def number(self, what: str, low: float, high: float) -> float:
        """A plain number over `low`, up to `high`."""
        self.expect([what])
        match = NUMBER.match(self.text, self.pos)
        if not match or not low < float(match.group(0)) <= high:
            raise self.fail(f"{what} from {low:g} to {high:g}")
        self.pos = match.end()
        return float(match.group(0))

    def options_after(self, read: Callable[[], object], text: str) -> tuple[int, list[str]]:
        """Where the word being typed starts once `read` has read what it can, and what may stand there."""
        at = len(text)
        try:
            read()
            at = self.origin[min(self.expected[0], len(self.text))]
        except TextError as error:
            at = error.at if error.at is not None else at
        typed = text[at:].lower().lstrip()
        return at, [option for option in self.expected[1] if option.lower().startswith(typed)]

    def sees_length(self) -> bool:
        """Whether a length stands here; it is not taken."""
        self.skip()
        if FEET.match(self.text, self.pos):
            return True
        try:
            scan_length(self.text, self.pos)
        except MeasureError:
            return False
        return True

    def length(self) -> float:
        """A length in inches. Raises TextError."""
        self.expect(["a length: 5'4, 64\", 5-4, 1.6 m"])
        if (feet := self.take(FEET)) is not None:
            return 12 * float(feet["ft"])
        try:
            inches, self.pos = scan_length(self.text, self.pos)
        except MeasureError as error:
            at = self.origin[min(error.at or self.pos, len(self.text))]
            raise TextError(error.message, key="text", value=error.value, allowed=error.allowed, at=at) from None
        return inches


def _tidy_with_origin(text: str) -> tuple[str, list[int]]:
    """Tidied text without the full stops of its lines, and for each of its characters the position it came from."""
    out, origin = "", []
    for index, char in enumerate(STOP.sub(" ", text)):
        piece = char if char.isascii() else tidy(char)
        if len(piece) > 1 and out[-1:].isdigit():
            piece = " " + piece
        out += piece
        origin += [index] * len(piece)
    return out, [*origin, len(text)]
