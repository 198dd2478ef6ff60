"""What the authority says, in a sentence: all pipe in this city; the inspector wants 24" of cover; ribbon over every
trench; by the 2020 code. It becomes a local note on a number of the rule set, or sets which rules the job goes by."""

from __future__ import annotations

import re
from dataclasses import asdict
from typing import Any, Literal, NamedTuple

from levelrun.core.codebook import LocalRule, notable, rule_sets, with_notes
from levelrun.core.site.scene import Said, SceneReader

_WHO = (
    r"(?:(?:building|electrical|city|county|local|code)\s+)?(?:inspector|department|official|office)|city|county|"
    r"town(?:ship)?|village|state|authority|ahj|power\s+company|utility|local\s+code|they"
)
_SAYS = r"wants?|says?|said|told\s+(?:me|us)|asks?\s+for|asked\s+for|requires?|insists?\s+on|needs?"
_LEAD = re.compile(
    rf"(?:(?:the|my|our)\s+)?(?P<who>{_WHO})\s+(?:here\s+)?(?:{_SAYS})(?:\s+to\s+(?:see|have|use))?\s*[:,]?\s+"
    r"|local\s+(?:note|rule)\s*[:,]\s*",
    re.IGNORECASE,
)
_TAIL = re.compile(
    rf"[\s,]*(?:(?:in|by|per|for)\s+(?:this|the|our)\s+(?P<where>{_WHO})|(?:says?|said)\s+(?:the\s+)?(?P<who>{_WHO})"
    r"|(?:around\s+)?here|(?:on\s+)?(?P<when>\d{4}-\d{2}-\d{2}))\b",
    re.IGNORECASE,
)
_AND = re.compile(r"[\s,]*(?:and\s+)?", re.IGNORECASE)
_NO_CABLE = r"no\s+(?:cables?|romex|nm(?:-b)?)(?:\s+allowed)?"
_PIPE = r"(?:pipe|conduit|raceway)s?"
_80 = r"(?:sch(?:edule)?\.?\s*80|pvc\s*80)(?:\s+pvc)?"
_LONG = r"(?P<long>\d[\d\s'./-]*(?:\"|'|\s*(?:inch(?:es)?|in|feet|ft)\b))"
_ANYONE = "authority"  # where nobody says who
_CODE = re.compile(
    r"(?:(?:by|under|on|use|we\s+are\s+on)\s+)?(?:the\s+)?(?:(?P<year>20\d\d)\s+(?:nec|code|rules)|"
    r"(?:nec|code)\s+(?P<same>20\d\d)|(?P<ca>canadian)\s+(?:electrical\s+)?code)\s*$",
    re.IGNORECASE,
)


class _Note(NamedTuple):
    """What is said: the number of the rule set that it is, what it counts, and whether it is meant so where nobody is
    named who says it."""

    pattern: re.Pattern[str]
    key: str
    counts: Literal["yes", "length", "number"]
    alone: bool


def _note(key: str, counts: Literal["yes", "length", "number"], alone: bool, *patterns: str) -> list[_Note]:
    return [_Note(re.compile(pattern, re.IGNORECASE), key, counts, alone) for pattern in patterns]


NOTES = (
    *_note(
        "pipe_only", "yes", True,
        rf"(?:(?:all|everything|all\s+(?:the\s+)?wiring)\s+(?:(?:must|has\s+to)\s+be\s+)?(?:in\s+)?{_PIPE}|{_PIPE}\s+only"
        rf"|only\s+{_PIPE})(?:[\s,]+(?:and\s+)?{_NO_CABLE})?\b",
        rf"{_NO_CABLE}\b(?:[\s,]+(?:all\s+)?{_PIPE}(?:\s+only)?)?",
    ),
    *_note(
        "pvc80_outside", "yes", True,
        rf"{_80}\s+(?:outside|outdoors|on\s+(?:the\s+|all\s+)?(?:outside\s+walls?|risers?)"
        r"|where(?:ver)?\s+it\s+(?:is\s+)?(?:exposed|shows))\b",
    ),
    *_note("riser_guard_in", "length", True, rf"{_80}\s+(?:below|up\s+to|to|under)\s+{_LONG}"),
    *_note(
        "ribbon_over_every_trench", "yes", True,
        r"(?:warning\s+|caution\s+)?(?:ribbon|tape)\s+(?:over|in|on|above)\s+(?:every|each|all|any|the)\s+"
        r"(?:trench(?:es)?|runs?|pipes?)\b",
    ),
    *_note(
        "cable_first_support_most_in", "length", False,
        rf"(?:first\s+)?(?:staples?|stapled|supported)\s+(?:within|in|at)\s+{_LONG}"
        r"(?:\s+(?:of|from)\s+(?:the\s+|a\s+|every\s+)?box(?:es)?)?",
    ),
    *_note("cable_spacing_most_in", "length", False, rf"(?:staples?|stapled|supported)\s+every\s+{_LONG}"),
    *_note(
        "cover_least_in", "length", False,
        rf"(?:the\s+)?(?:pipe|trench(?:es)?|cover)\s+(?:of\s+|to\s+be\s+)?{_LONG}(?:\s+(?:deep|down))?",
        rf"{_LONG}\s*(?:deep|down|of\s+cover|cover|in\s+the\s+(?:trench|ground))(?:\s+trench(?:es)?)?\b",
    ),
    *_note(
        "feeder_pipe_least_in", "number", True,
        r"(?P<n>\d[-\s]\d/\d|\d½|\d/\d|\d)\s*(?:\"|inch\b|in\b)?\s*(?:pvc|pipe|conduit|emt)?\s+(?:for|on)\s+"
        r"(?:the\s+|a\s+|every\s+|any\s+)?feeders?\b",
    ),
    *_note(
        "free_from_sheath_in", "length", False,
        rf"{_LONG}\s+of\s+(?:free\s+)?(?:wires?|conductors?)\s+(?:in|at|out\s+of)\s+(?:every|each|the|all)\s+box(?:es)?\b",
    ),
    *_note(
        "kitchen_circuits", "number", False, r"(?P<n>[2-6])\s+(?:kitchen|counter|small[\s-]appliance)\s+circuits\b"
    ),
)  # fmt: skip
SAID = (
    "all pipe, no cable", "schedule 80 outside", "schedule 80 below 8 ft", "ribbon over every trench", '24" of cover',
    'staples within 6"', "staples every 4 ft", "1-1/2 pvc for the feeder", '8" of wire in every box',
    "3 kitchen circuits",
)  # fmt: skip


def local_note(reader: SceneReader) -> Said | None:
    """What the authority says, one thing or several, with who says it and when where that is said. None where no such
    words stand here. Refuses what no local note says."""
    reader.skip()
    if (code := _CODE.match(reader.text, reader.pos, reader.line_end())) is not None:
        return _by(reader, code)
    lead = _LEAD.match(reader.text, reader.pos, reader.line_end())
    who = _named(lead["who"]) if lead is not None else ""
    reader.pos = lead.end() if lead is not None else reader.pos
    when, found = "", list[tuple[_Note, float]]()
    while not reader.over():
        reader.skip()
        if (tail := _TAIL.match(reader.text, reader.pos)) is not None:
            named = tail["who"] or tail["where"]
            who, when, reader.pos = _named(named) if named else who, tail["when"] or when, tail.end()
            continue
        note, match = next(
            ((n, m) for n in NOTES if (m := n.pattern.match(reader.text, reader.pos)) is not None), (None, None)
        )
        if note is None or match is None:
            if lead is None:
                return None
            reader.expect(SAID)
            raise reader.fail(f"what a local note says: {', '.join(SAID[:4])} …")
        found.append((note, _counted(reader, note, match)))
        ends = _AND.match(reader.text, match.end())
        reader.pos = ends.end() if ends is not None else match.end()
    if not found or not (who or all(note.alone for note, _ in found)):
        return None
    return _laid_on(reader, found, who or _ANYONE, when)


def _named(who: str | None) -> str:
    """Who says it; they are the authority."""
    return who.strip().lower() if who and who.lower() != "they" else _ANYONE


def _counted(reader: SceneReader, note: _Note, match: re.Match[str]) -> float:
    """The number that is said: 1 for what is or is not so, inches, or a size of pipe."""
    if note.counts == "yes":
        return 1.0
    if note.counts == "length":
        reader.pos = match.start("long")
        return reader.length()
    whole, _, part = match["n"].replace("½", "-1/2").replace(" ", "-").rpartition("-")
    over, _, under = part.partition("/")
    return float(whole or 0) + float(over) / float(under or 1)


def _by(reader: SceneReader, code: re.Match[str]) -> Said:
    """The rule set by its year."""
    year = code["year"] or code["same"]
    known = [name for name in rule_sets() if name.startswith("ca-" if code["ca"] else f"us-{year}")]
    if not known:
        raise reader.refuse(f"no rules of {year} ship with this", allowed=rule_sets())
    reader.pos = code.end()
    return Said([{"op": "set_job", "set": {"rules": known[0]}}])


def _laid_on(reader: SceneReader, found: list[tuple[_Note, float]], who: str, when: str) -> Said:
    """The edit that keeps these notes, in place of those on the same numbers, and what is told of each."""
    job, book, told = reader.scene.job, reader.scene.book, list[str]()
    notes: list[dict[str, Any]] = [n.model_dump() for n in job.notes if n.key not in {note.key for note, _ in found}]
    taken = {str(note["id"]) for note in notes}
    idents = (f"n{number}" for number in range(1, 999) if f"n{number}" not in taken)
    for note, value in found:
        rule = LocalRule(key=note.key, value=value, who=who, when=when, why="", approved=False)
        notes.append({"id": next(idents), **asdict(rule)})
        status, scalar = with_notes(book, (rule,)).notes[-1], notable(book)[note.key]
        was = f", the book {status.was:g}" if status.was else ""
        much = "" if note.counts == "yes" else f" {value:g} {scalar.unit}{was}:"
        what = f"local note of the {who}:{much} {scalar.text.removeprefix('1: ')}"
        told.append(what if status.way != "looser" else f"{what} Looser than the book: it wants approval in writing")
    return Said([{"op": "set_job", "set": {"notes": notes}}], told=told)
