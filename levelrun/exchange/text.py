"""A job as text: one sentence a line, in the words of the entry lines; `#` starts a remark.

What a whole job is written as is the same door: `job` says what it is called and its habits, `part` is a line for
each part with its fields in words, so that every job can be written, compared line by line and read back to the very
same. At a desk one writes sentences; both may stand in one text.
"""

from __future__ import annotations

import re
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from typing import Any

from pydantic import ValidationError

from levelrun.core.editing import made, with_parts
from levelrun.core.edits import EDITS, Looked, apply, said_on
from levelrun.core.errors import EditError, LevelRunError, TextError
from levelrun.core.job import PARTS, Job
from levelrun.core.part import Frozen
from levelrun.core.saying import read_fields, said_of, write_fields
from levelrun.core.subjects import KINDS
from levelrun.core.trench.laying import settle
from levelrun.core.words import Reader

_REMARK = re.compile(r'^((?:[^"#]|"(?:[^"\\]|\\.)*")*?)(?:^|(?<=\s))#.*$')
_HEAD = re.compile(r"^job\b\s*:?\s*", re.IGNORECASE)
_NAMED = re.compile(r'"(?P<quoted>[^"\n]+)"|(?P<plain>[^"\[\]{},:\n]+)')
_PART = re.compile(r"^part\s+(?P<kind>[a-z]+)\s+(?P<id>[A-Za-z0-9_-]{1,40})\s*:?\s*", re.IGNORECASE)
HEAD = ("name", "rules", "remarks", "habits", "notes")
BESIDE = ("prices", "purchases")  # what is said of money and when is no sentence of the plan
MAX_LINES = 5000


@dataclass(frozen=True)
class LineError:
    """What is wrong with one line: its number from 1, the character where, and what was expected."""

    line: int
    at: int
    message: str
    allowed: list[str]


class JobTextError(LevelRunError):
    """Some lines of a job cannot be read. `errors`: each of them; `right`: the numbers of the lines that are."""

    def __init__(self, errors: list[LineError], right: list[int]) -> None:
        first = errors[0]
        super().__init__(f"line {first.line}: {first.message}", key="text", allowed=first.allowed, at=first.at)
        self.errors, self.right = errors, right


@dataclass(frozen=True)
class Told:
    """What is told of a line that was read: what was filled in where nobody said it."""

    line: int
    text: str


def read_text(text: str, rules: str | None = None) -> Job:
    """A job from its text, line by line, each on the job as those before left it; the room, level and panel that a
    line is about stay looked at. Raises JobTextError that names every line that cannot be read."""
    return reading(text, rules)[0]


def reading(text: str, rules: str | None = None) -> tuple[Job, list[Told]]:
    """The same, with what is told of its lines."""
    lines = text.splitlines()
    if len(lines) > MAX_LINES:
        raise JobTextError([LineError(MAX_LINES + 1, 0, f"a job has {MAX_LINES} lines at most", [])], [])
    job = Job(name="Job as text")
    if rules is not None:
        job = apply(job, EDITS.validate_python([{"op": "set_job", "set": {"rules": rules}}]))
    errors: list[LineError] = []
    right: list[int] = []
    looked, told = Looked(), list[Told]()
    parts: list[tuple[int, str, Frozen]] = []
    for number, line in enumerate([*lines, ""], start=1):
        said = _plain(line)
        is_part = _PART.match(said) is not None
        try:
            if is_part:
                parts.append((number, *_part(said)))
            elif parts and (said.strip() or number > len(lines)):
                job, parts = _joined(job, parts), []
            if said.strip() and not is_part:
                known = len(looked.told)
                job, looked = _said(job, said, looked)
                told += [Told(number, item) for item in looked.told[known:]]
            if said.strip():
                right.append(number)
        except LevelRunError as error:
            at = error.at if error.at is not None else 0
            wrong = parts[0][0] if parts and not isinstance(error, TextError) else number
            errors.append(LineError(min(wrong, len(lines)), at, error.message, [str(w) for w in error.allowed][:20]))
            parts = []
    if errors:
        raise JobTextError(errors, right)
    try:
        return settle(job), told
    except EditError as error:
        raise JobTextError([LineError(len(lines), 0, error.message, [])], right) from None


def _plain(line: str) -> str:
    """A line without its remark: in a sentence from a `#` after a space on (inch marks are no quotes), beside JSON
    from one that stands outside of quotes."""
    if _PART.match(line) or _HEAD.match(line):
        match = _REMARK.match(line)
        return match[1] if match else line
    return re.split(r"(?:^|\s)#", line, maxsplit=1)[0]


def _said(job: Job, said: str, looked: Looked) -> tuple[Job, Looked]:
    head = _HEAD.match(said)
    if head is None:
        return said_on(job, said, looked)
    values = _head(said, head.end())
    return apply(job, EDITS.validate_python([{"op": "set_job", "set": values}])), looked


def _head(said: str, pos: int) -> dict[str, Any]:
    """What is said of the job itself: its fields with their values; or first its name, in quotes or as it stands, up
    to the end of the line. A first word that is nearly a field is that field mistyped."""
    match = _NAMED.match(said, pos)
    first = (said[pos:].split() or [""])[0].casefold()
    if match is None or first in HEAD or get_close_matches(first, HEAD, n=1, cutoff=0.75):
        return _fields(said, pos, Job, HEAD)
    name = (match["quoted"] or match["plain"]).strip()
    return {"name": name, **_fields(said, match.end(), Job, HEAD)}


def _part(said: str) -> tuple[str, Frozen]:
    """One part from its line: the field of the job that it belongs to, and the part."""
    match = _PART.match(said)
    assert match is not None
    kind = KINDS.get(match["kind"].lower())
    if kind is None:
        raise TextError(
            f"expected a kind of part, found {match['kind']!r}", key="text", value=match["kind"], allowed=list(KINDS),
            at=match.start("kind"),
        )  # fmt: skip
    names = [name for name in kind.model.model_fields if name != "id"]
    return kind.field, made(kind.model, {"id": match["id"], **_fields(said, match.end(), kind.model, names)}, "part")


def _fields(said: str, pos: int, model: type[Frozen], names: Sequence[str]) -> dict[str, Any]:
    """Fields with their values, one after another."""
    reader = Reader(said)
    reader.pos = bisect_left(reader.origin, pos)
    return read_fields(reader, model, reader.ended, names)


def _joined(job: Job, parts: list[tuple[int, str, Frozen]]) -> Job:
    """The job with the parts of some lines in a row, their references checked together."""
    more: dict[str, list[Any]] = {}
    for _, field, part in parts:
        more.setdefault(field, []).append(part)
    try:
        return with_parts(job, **{field: (*getattr(job, field), *new) for field, new in more.items()})
    except ValidationError as error:
        raise EditError(str(error), key="text") from None


def write_text(job: Job) -> str:
    """The job as text, a line a part, each after what it names. What is as usual is left out."""
    by_field = {kind.field: name for name, kind in KINDS.items()}
    lines = [f"# {job.name}: a job as text, one part a line. Sentences as they are typed may stand here too."]
    said = job.model_dump(mode="json", exclude_defaults=True, include=set(HEAD))
    head = {key: said[key] for key in HEAD if key in said}
    lines.append("job: " + write_fields({"name": job.name, "rules": job.rules, **head}, Job))
    beside = [
        f"{len(own)} {name}{'s' * (len(own) != 1)}"
        for name, own in (("price", job.prices), ("tick", job.purchases))
        if own
    ]
    if beside:
        lines.append(f"# {' and '.join(beside)} of the buying list are not in this text: they travel in the file.")
    for field in PARTS:
        for part in () if field in BESIDE else getattr(job, field):
            said_words = write_fields(said_of(part), type(part))
            lines.append(f"part {by_field[field]} {part.id}: {said_words}")
    return "\n".join(lines) + "\n"
