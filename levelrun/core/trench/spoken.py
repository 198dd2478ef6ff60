"""Sentences about the yard as they are spoken: the reading, the building or the count first."""

from __future__ import annotations

import re

from levelrun.core.site.scene import IS, Said, SceneReader
from levelrun.core.trench.fed_words import fed_in
from levelrun.core.trench.ground_words import rods_at
from levelrun.core.trench.parts import SERVICES
from levelrun.core.trench.words import done_of, read, span, trench, trench_here
from levelrun.core.trench.yard_words import MEASURE, grade_of, long
from levelrun.core.words import COUNTS

LINES = {f"{kind} {word}": kind for kind in SERVICES for word in ("line", "pipe", "main", "lines")}
DRIVES = {"driveway": "drive", "walkway": "path", "sidewalk": "path", "road": "street"}
COUNTED = {**COUNTS, "a": 1}
_RODS = re.compile(
    rf"(?:(?P<n>\d+|{'|'.join(COUNTED)})\s+)?(?:ground(?:ing)?\s+)?rods?\s+(?=at\b)|(?P<m>\d+|{'|'.join(COUNTED)})\s+"
    r"ground(?:ing)?\s+rods?\b\s*", re.IGNORECASE,
)  # fmt: skip
STEPS = {
    "marked": "marks", "marked out": "marks", "dug": "dig", "laid": "lay", "photographed": "photo", "filled": "fill",
    "backfilled": "fill",
}  # fmt: skip


def rods(reader: SceneReader) -> Said | None:
    """Two ground rods at the shop, 8' apart."""
    if (said := reader.take(_RODS)) is None:
        return None
    count = (said["n"] or said["m"] or "two").lower()
    return rods_at(reader, COUNTED.get(count) or int(count))


def lines(reader: SceneReader) -> Said | None:
    """A water line 42" deep from street to house; a driveway 12' wide from the street to the shop."""
    word = reader.phrase((*LINES, *DRIVES))
    return long(LINES.get(word) or DRIVES[word])(reader) if word is not None else None


def dug_from(reader: SceneReader) -> Said | None:
    """Dig from the house to the shop; an overhead span from the shop to the cabin 18' high."""
    word = reader.phrase(("dig a trench", "dig", "overhead span", "overhead line", "aerial span"))
    if word is None or not reader.sees(("from", *reader.buildings())):
        return None
    return trench(reader) if word.startswith("dig") else span(reader)


def depth(reader: SceneReader) -> Said | None:
    """17" at 12'; cover is 17" at 12' of House to shed; the trench is 22" at 10' and 24" at 40'."""
    named = reader.phrase(("cover", "depth", "the trench", "trench")) is not None
    reader.phrase(IS)
    start = reader.pos
    if MEASURE.match(reader.text, start) is None or not reader.sees_length():
        return None
    reader.length()
    reader.phrase(["deep"])
    along = reader.phrase(["at"]) is not None and reader.sees_length()
    reader.pos = start
    return read(reader) if along and (named or reader.scene.job.trenches) else None


def ground(reader: SceneReader) -> Said | None:
    """The shed grade is -14"."""
    names = reader.buildings()
    word = reader.phrase(names)
    if word is None or reader.phrase(("grade", "ground")) is None:
        return None
    reader.phrase((*IS, "at"))
    return grade_of(reader, names[word])


def worked(reader: SceneReader) -> Said | None:
    """House to shed was dug on 2026-05-08; marked on 2026-05-01; the marks are done."""
    own = {item.name: item for item in reader.scene.job.trenches}
    subject = reader.phrase(("trench", "we", "utilities", "utility marks", "marks", "lines"))
    word = reader.phrase(own)
    reader.phrase(IS)
    step = reader.phrase(STEPS)
    if step is None and subject in ("marks", "utility marks") and reader.phrase(("done", "made", "on", "there")):
        step = "marked"
    if step is None:
        return None
    reader.phrase(("it", "trench"))
    word = word or reader.phrase(own)
    return done_of(reader, own[word] if word is not None else trench_here(reader, ("of",)), STEPS[step])


SPOKEN = (fed_in, rods, lines, dug_from, depth, ground, worked)
