"""Other things at the end of one line, each behind the one before: to a switch and a light."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from levelrun.core.boxes.edits import LETTERS
from levelrun.core.editing import next_id
from levelrun.core.job import Job
from levelrun.core.measure import show
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.ends import OUTSIDE, end, end_here
from levelrun.core.start.kinds import KINDS
from levelrun.core.start.made import USUAL_HEIGHT_IN
from levelrun.core.start.several import added, apart_here, length_in

# What hangs in one chain of 120 V: no machine of its own.
CHAINED = ("receptacle", "switch", "light", "fan", "smoke")
# What wants a circuit of its own hangs behind another where it is said that both are on one.
TOGETHER = tuple(f"on {the} circuit" for the in ("one", "the same", "a single", "1"))
_TOGETHER = re.compile("|".join(TOGETHER), re.IGNORECASE)
# Before each of them: and; a comma, which was passed over, where `and` is to come.
_NEXT = re.compile(
    r"and\b(?:\s+(?:on\s+)?to\b)?\s*|(?<=,)\s*(?=[^;\n]*\band\b)|(?<=,\s)(?=[^;\n]*\band\b)", re.IGNORECASE
)
_FAR = re.compile(
    r"[\s,]*(?P<far>\d[\d\s'\"./-]*?(?:'|\"|ft\b|feet\b|in\b))\s*(?:away|farther|further|beyond|on|from\s+it|from\s+there)"
    r"(?:\s+on)?(?=\s*(?:$|[,;\n]|and\b))",
    re.IGNORECASE,
)


def more_here(reader: SceneReader, said: Asked) -> Asked | None:
    """What stands behind the end of a line and is said here with it, taken; None where nothing is that may hang so.
    How far it is from the one before may follow: 12' away."""
    found = _NEXT.match(reader.text, reader.pos, reader.line_end())
    alike = _TOGETHER.search(reader.text, reader.pos, reader.line_end()) is not None
    if found is None or said.there is not None or not _chained(said, alike):
        return None
    begin, reader.pos = reader.pos, found.end()
    other = end(reader, Asked(kind=KINDS[0], panel=said.panel, legs=[])) if end_here(reader) else None
    if other is None or not _chained(other, alike) or other.circuit:
        reader.pos = begin
        return None
    if (far := length_in(reader, _FAR)) is not None:
        other = replace(other, behind_in=far)
    if reader.phrase(OUTSIDE) is not None:
        other = replace(other, outdoors=True)
    if other.count > 1 and (apart := apart_here(reader)) is not None:
        other = replace(other, apart_in=apart)
    return other


def hung_behind(
    job: Job, said: Asked, edits: list[dict[str, Any]], on: str, last: str
) -> tuple[list[dict[str, Any]], str, list[str]]:
    """The edits that put what else stands at the end behind it, one behind the other; the last of them, and what is
    told of how far they are. on: the circuit; last: the box before them."""
    boxes = added(edits, "box")
    names = {node.id: node.name for node in job.nodes} | {item["id"]: item["name"] for item in boxes}
    number = max(int(next_id(job, "b")[1:]), *(int(item["id"][1:]) + 1 for item in boxes), 1)
    like = {
        "structure": said.structure or said.begin.structure, "where": said.where,
        "height_in": next((item["height_in"] for item in boxes if item["id"] == last), USUAL_HEIGHT_IN),
    }  # fmt: skip
    found: list[dict[str, Any]] = []
    told: list[str] = []
    for other in said.more:
        box = {**like, **other.kind.box, "use": other.use or said.use}
        box["outdoors"] = other.outdoors or box.get("outdoors", False)
        letter = LETTERS[box["kind"]]
        for length in (other.behind_in, *[other.apart_in] * (other.count - 1)):
            ident, before = f"b{number}", names[last]
            name = next(name for n in range(1, 9999) if (name := f"{letter}-{n}") not in names.values())
            hop: dict[str, Any] = {"op": "chain", "circuit": on, "boxes": [ident], "after": last}
            if length is None:
                told.append(f"how far from {before} to {name}? say it: `{before} to {name} is 12'`")
            else:
                hop["length_in"] = length
                told.append(f"{name} is {show(length)} behind {before}")
            found += [{"op": "add", "kind": "box", "item": {"id": ident, "name": name, **box}}, hop]
            names[ident], last, number = name, ident, number + 1
    return found, last, told


def _chained(said: Asked, alike: bool) -> bool:
    kind = said.kind
    return (
        kind.volts == 120
        and not (kind.feeds or kind.whip)
        and kind.box.get("kind") in CHAINED
        and (alike or not kind.box.get("serves"))
    )
