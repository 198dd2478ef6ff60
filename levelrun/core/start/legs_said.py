"""The legs of a line that starts a job: where they end, and the refusal of a line that goes to nothing known."""

from __future__ import annotations

import re

from levelrun.core.errors import TextError
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.ends import BEGUN, ROOMS, THING, any_of, unknown
from levelrun.core.start.kinds import OFFERED
from levelrun.core.start.multiwire import SHARED
from levelrun.core.start.opening import FIGURES
from levelrun.core.start.several import APART
from levelrun.core.start.whip import WHIP
from levelrun.core.ways.walk import ENDS, WalkLeg, parse_walk, suggest
from levelrun.core.ways.words import read_legs

# To what a leg goes no farther: a 50 amp garage outlet.
TO_A_THING = re.compile(rf"\bto\s+(?=(?:(?:feed|power|serve)\s+)?{THING})", re.IGNORECASE)
# What was named before its legs, named again behind them; the whip that it comes with.
_AGAIN = re.compile(
    r"[\s,]+(?:to\s+(?:(?:the|its|an?)\s+)?(?:outlet|receptacle|plug|box|it)|(?:then|and)\s+(?:a\s+|its\s+)?whip)\s*$",
    re.IGNORECASE,
)
_SHARED = re.compile(rf"[\s,]+(?={SHARED.pattern})", re.IGNORECASE)
_IN_A_ROOM = re.compile(rf"[\s,]+in\s+(?:(?:the|a|my)\s+)?(?:{any_of(ROOMS)})\s*$", re.IGNORECASE)
_AND_MORE = re.compile(rf"[\s,]+and\s+(?={THING})", re.IGNORECASE)
_SPACED = re.compile(APART, re.IGNORECASE)


def legs_said(reader: SceneReader, ended: bool, named: int | None) -> list[WalkLeg]:
    """The legs, up to `to` and what stands there, to figures that are no lengths, or to the end; a length alone goes
    straight on. `ended`: what stands at the end was said before; `named`: how far on it is named."""
    begin = reader.pos
    rest = reader.text[begin : reader.line_end()]
    to = None if ended else TO_A_THING.search(rest)
    again = _AGAIN.search(rest) if ended else None
    whip, more = (WHIP.search(rest), _AND_MORE.search(rest)) if ended else (None, None)
    stops = (whip, more, FIGURES.search(rest), _SPACED.search(rest), _SHARED.search(rest), to, again)
    ends = [match.start() for match in stops if match is not None] + ([named] if named is not None else [])
    stop = min(ends, default=None)
    said = rest if stop is None else rest[:stop]
    ended |= named is not None
    if not ended and to is None:
        _not_known(reader, said, begin)
    try:
        legs = read_legs(reader, said, begin)
    except TextError:
        room = _IN_A_ROOM.search(said)  # 30' wall in emt in the garage
        if room is None:
            raise
        said = said[: room.start()]
        legs = read_legs(reader, said, begin)
    reader.pos = begin + (len(rest) if again is not None and stop == again.start() else len(said))
    joined = (legs[-1].to or "").casefold() in {*map(str.casefold, ENDS.values()), *map(str.casefold, reader.boxes())}
    if not ended and to is None and (stop is None or (legs[-1].to and not joined)):
        raise no_end(reader, said, named=bool(legs[-1].to))
    return legs


def no_end(reader: SceneReader, legs: str, named: bool = False) -> TextError:
    """The refusal of a line without what stands at its end. legs: what was read of them up to here."""
    begin = reader.pos - len(legs)
    at, options = suggest(reader.scene.book, legs) if legs else (0, [])
    ends = [option for option in options if not option.startswith("to ")]
    last = [found.end() for found in BEGUN.finditer(legs)] if named else []
    words = list(OFFERED) if last else [f"to {word}" for word in OFFERED]
    reader.expected = (begin + (last[-1] if last else at), [*words, *ends])
    what = "`to` and what stands at the end: outlet, vehicle, range, heat pump, sub-panel …"
    return unknown(reader, begin + last[-1], what) if last else reader.fail(what)


def _not_known(reader: SceneReader, said: str, begin: int) -> None:
    """Refuses what a line goes to last that is no end it knows, where what stands before it is a way: to ceiling
    roses in the den. A box, a body or an elbow of a leg is none."""
    found = next(reversed(list(BEGUN.finditer(said))), None)
    if found is None or not said[found.end() :].strip():
        return
    if _is_way(reader, said[: found.start()]) and not _is_way(reader, said):
        reader.pos = begin + found.end()
        reader.expected = (reader.pos, list(OFFERED))
        raise unknown(reader, reader.pos, "what stands at the end: outlet, vehicle, range, fan, sub-panel …")


def _is_way(reader: SceneReader, text: str) -> bool:
    try:
        return bool(parse_walk(reader.scene.book, text))
    except TextError:
        return False
