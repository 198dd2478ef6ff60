"""Several of a kind at the end of one line: 3 outlets 12' apart, one behind the other."""

from __future__ import annotations

import re
from itertools import pairwise
from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method
from levelrun.core.editing import next_id
from levelrun.core.job import Job
from levelrun.core.measure import show
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.kinds import ALARMS, FANS, LIGHTS, LIGHTS_OUT, WAYS
from levelrun.core.words import COUNTS

NUMBERS = {word: n for word, n in COUNTS.items() if n > 1}
_ONES = (
    "outlet", "receptacle", "plug", *LIGHTS, *LIGHTS_OUT, *FANS, *ALARMS, "baseboard heater", "wall heater", "heater",
)  # fmt: skip
ONE_OF = {f"{word}s": word for word in (*_ONES, *WAYS) if not word.endswith(("s", "switch"))} | {
    f"{word}es": word for word in WAYS if word.endswith("switch")
}
COUNT = rf"(?:[2-9]|1[0-2]|{'|'.join(NUMBERS)})"
_COUNT = re.compile(rf"(?P<n>{COUNT})\s+(?=[a-z0-9])", re.IGNORECASE)
OF_THEM = re.compile(rf"(?P<n>{COUNT})\s+of\s+them\b", re.IGNORECASE)
_APART = re.compile(
    r"(?:(?:then|and|each|every|at|spaced)\s+)*(?P<far>\d[\d\s'\"./-]*?(?:'|\"|ft\b|feet\b|in\b))\s*"
    r"(?:apart|between(?:\s+(?:them|each))?|from\s+(?:each|one)\s+(?:other|another))\b",
    re.IGNORECASE,
)
# Behind the legs of a line: 40' crawl then 12' apart.
APART = rf"[\s,]+(?={_APART.pattern})"


def count_here(reader: SceneReader, things: re.Pattern[str]) -> int:
    """How many of `things` stand at the end, where that is said here, taken; else 1."""
    reader.skip()
    found = _COUNT.match(reader.text, reader.pos)
    if found is None and things.match(reader.text, reader.pos) is not None:  # garage outlets, 4 of them
        later = OF_THEM.search(reader.text, reader.pos, reader.line_end())
        return _number(later) if later is not None else 1
    if found is None or things.match(reader.text, found.end()) is None:
        return 1
    reader.pos = found.end()
    return _number(found)


def _number(found: re.Match[str]) -> int:
    return NUMBERS.get(found["n"].lower()) or int(found["n"])


def apart_here(reader: SceneReader) -> float | None:
    """How far apart they are, where that is said here, taken."""
    return length_in(reader, _APART)


def length_in(reader: SceneReader, pattern: re.Pattern[str]) -> float | None:
    """The length `far` in a pattern that stands here, taken; None where it does not."""
    if (found := reader.take(pattern)) is None:
        return None
    reader.pos = found.start("far")
    inches = reader.length()
    reader.pos = found.end()
    return inches


def behind(
    job: Job, book: Codebook, said: Asked, edits: list[dict[str, Any]], on: tuple[str, str]
) -> tuple[list[dict[str, Any]], str, str]:
    """The edits that put the others behind the first, each on the cable or pipe from the one before; the last of
    them, and what is told. on: the circuit, and the first of them."""
    circuit, ident = on
    first, *others = alike(job, said, edits, ident)
    ids = [item["id"] for item in others]
    boxes = [{"op": "add", "kind": "box", "item": item} for item in others]
    piped = _in_pipe(book, said, edits, [first, *others], circuit)
    chain = {"op": "chain", "circuit": circuit, "boxes": ids, "after": first["id"]}
    if said.apart_in is None:
        told = f"how far apart they are is not said: `{first['name']} to {others[0]['name']} is 12'`"
    else:
        told = f"{said.count} of them, {show(said.apart_in)} from one to the next"
        chain |= {} if piped else {"length_in": said.apart_in}
    return [*boxes, chain, *piped], ids[-1], told


def added(edits: list[dict[str, Any]], kind: str) -> list[dict[str, Any]]:
    """The parts of a kind that these edits put there."""
    return [edit["item"] for edit in edits if edit["op"] == "add" and edit["kind"] == kind]


def alike(job: Job, said: Asked, edits: list[dict[str, Any]], ident: str) -> list[dict[str, Any]]:
    """The box `ident` that these edits put there, and the others of its kind that the line wants behind it."""
    first = next(item for item in added(edits, "box") if item["id"] == ident)
    taken = {node.name for node in job.nodes} | {item["name"] for item in added(edits, "box")}
    letter = first["name"].partition("-")[0] if "-" in first["name"] else first["name"]
    names = (name for n in range(1, 9999) if (name := f"{letter}-{n}") not in taken)
    had = [item["id"] for item in added(edits, "box")]
    begin = max(int(next_id(job, "b")[1:]), *(int(ident[1:]) for ident in had)) + 1
    return [first, *({**first, "id": f"b{begin + n}", "name": next(names)} for n in range(said.count - 1))]


def _in_pipe(
    book: Codebook, said: Asked, edits: list[dict[str, Any]], boxes: list[dict[str, Any]], circuit: str
) -> list[dict[str, Any]]:
    """The pipe from one to the next, as the leg before them; none where cable goes there."""
    way = next(iter(added(edits, "way")), None)
    if said.apart_in is None or way is None or method(book, way["legs"][-1]["method"]).kind != "raceway":
        return []
    made = list[dict[str, Any]]()
    for item in ways_on(way, boxes, said.apart_in):
        made.append({"op": "add", "kind": "way", "item": item})
        made.append({"op": "route", "circuit": circuit, "box": item["legs"][0]["end"]["node"], "path": [item["id"]]})
    return made


def ways_on(way: dict[str, Any], boxes: list[dict[str, Any]], apart_in: float) -> list[dict[str, Any]]:
    """The ways from one box to the next, as the last leg of the way to the first."""
    like = {key: way["legs"][-1][key] for key in ("place", "method", "size", "depth_in", "facts", "supposed")}
    number, made = int(way["id"][1:]), list[dict[str, Any]]()
    for n, (before, box) in enumerate(pairwise(boxes), start=1):
        end = {"kind": "box", "node": box["id"]}
        leg = {"go": "over", "length_in": apart_in, **like, "end": end}
        item = {"id": f"w{number + n}", "name": f"{before['name']} to {box['name']}", "start": before["id"]}
        made.append({**item, "legs": [leg]})
    return made
