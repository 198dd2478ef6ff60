"""Where a leg of a walk ends: the next one begins behind a comma, a direction, or a place with its own length."""

from __future__ import annotations

import re

from levelrun.core.codebook.lookups import place
from levelrun.core.ways.method_words import WalkReader, bare_size, method_here
from levelrun.core.words import BREAK

GO = ("up", "down", "over", "left", "right", "back")
FILLERS = (
    "the",
    "a",
    "an",
    "of",
    "on",
    "at",
    "along",
    "through",
    "across",
    "inside",
    "for",
    "about",
    "away",
    "apart",
    "long",
    "out",
)
AND = ("and", "plus", "&")
WALL_IN = 8.0  # through a framed wall and what is on it, where nobody says how thick: common practice, no source
THROUGH = ("across", "through", "along", "over")
FLOOR_IN = 12.0  # through joists, a floor and a plate, where nobody says how thick: common practice, no source
FLOORS = ("floor", "subfloor", "ceiling", "floor joists")
WALLS = ("stud_wall", "outside_wall", "masonry_inside", "room_surface", "shop_surface")
FISH = ("fish", "snake", "fished", "snaked")  # before how far
_COMMA_NEXT = re.compile(r"\s*,")
_LENGTH_NEXT = re.compile(r"\s+\d")


def through(reader: WalkReader) -> float:
    """How far it is through a wall or a floor that is gone through, taken, where no length of it is said: out through
    the wall, down 3' outside; up through the floor. 0 where none stands here."""
    start = reader.pos
    said = [word for word in ("out", "through") if reader.phrase([word]) is not None]
    while said and reader.phrase(("of", "the", "a", "an")) is not None:
        pass
    floor = bool(said) and reader.phrase(FLOORS) is not None
    word = reader.phrase(reader.place_words) if said and not floor else None
    wall = word is not None and reader.place_words[word] in WALLS
    if (floor or wall) and (reader.over() or reader.sees(["to"]) or goes_on(reader, cabled=False)):
        return FLOOR_IN if floor else WALL_IN
    reader.pos = start
    return 0.0


def goes_on(reader: WalkReader, cabled: bool) -> bool:
    """Whether the next leg begins here: after a comma or `and`, with a direction right before its length, or with a
    length and its place or direction right behind it. A length that is followed by `deep` is none."""
    start = reader.pos
    comma = reader.text[:start].rstrip().endswith(",")
    apart = reader.phrase(AND) is not None or comma
    begin = reader.pos
    if ((apart or reader.sees(["out"])) and through(reader)) or crosses(reader):
        reader.pos = begin
        return True
    if method_here(reader) is not None:  # the cable of the leg before, or of the one that begins with it
        leg = apart and reader.sees_length()
        reader.pos = begin if leg else start
        return leg
    if bare_size(reader) is not None:
        ends = reader.ended() or BREAK.match(reader.text, reader.pos) is not None
        turns = not cabled and reader.phrase(GO) is not None
        if ends or (turns and _LENGTH_NEXT.match(reader.text, reader.pos) is not None):
            # 40' attic, 12-2: nobody ends on 12 ft 2 of no place; 22' joists 12-2, down 4': what follows is a leg
            reader.pos = start
            return False
    reader.pos = begin
    if apart:
        reader.phrase(FISH)
    goes = reader.phrase(GO) is not None
    if goes and through(reader):
        reader.pos = begin
        return True
    if goes and _COMMA_NEXT.match(reader.text, reader.pos):  # 6' up, 40' attic: which way the leg before goes
        reader.pos = start
        return False
    words = (*FILLERS, *reader.place_words)
    while apart and reader.phrase(words) is not None:
        pass
    leg = reader.sees_length()
    if leg:
        reader.length()
        leg = not deep(reader) and (apart or goes or reader.sees((*GO, *words)))
    reader.pos = begin if leg else start
    return leg


def crosses(reader: WalkReader) -> bool:
    """Whether a place is gone through here of which the length stands behind it: up 8' across the attic 12'. Under
    ground that may be how deep it is."""
    if reader.phrase(THROUGH) is None:
        return False
    while reader.phrase(("the", "a", "an")) is not None:
        pass
    word = reader.phrase(reader.place_words)
    if word is None or place(reader.book, reader.place_words[word]).above:
        return False
    if (
        _LENGTH_NEXT.match(reader.text, reader.pos) is None
        or bare_size(reader) is not None
        or not reader.sees_length()
    ):
        return False
    reader.length()
    return not reader.sees(
        (*GO, *FILLERS, *reader.place_words)
    )  # 12' over the ceiling 8' down: that is the next one's


def deep(reader: WalkReader) -> bool:
    """Whether a length is said to be how deep, its word taken."""
    return reader.phrase(["deep"]) is not None
