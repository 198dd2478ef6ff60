"""Local notes as one TOML file, so that they travel from job to job."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence

import tomli_w
from pydantic import ValidationError

from levelrun.core.errors import LevelRunError
from levelrun.core.job import LocalNote

FORMAT = "levelrun-notes"
MAX_BYTES = 200_000
LINE = re.compile(r"\s*(?:#.*|\[\[ *note *\]\]\s*(?:#.*)?|[A-Za-z0-9_-]{1,60}\s*=\s*[^\s\[{].*)?")


class NotesFileError(LevelRunError):
    """A notes file was refused."""


def write_notes(notes: Sequence[LocalNote]) -> str:
    """Notes as TOML text: a `[[note]]` each."""
    listed = [note.model_dump(mode="json") for note in notes]
    return tomli_w.dumps({"format": FORMAT, "format_version": 1, "note": listed})


def read_notes(text: str) -> tuple[LocalNote, ...]:
    """Notes from TOML text. Raises NotesFileError that names the place."""
    if len(text) > MAX_BYTES:
        raise NotesFileError(f"the file is over {MAX_BYTES // 1000} kB", key="text")
    for number, line in enumerate(text.splitlines(), 1):
        if not LINE.fullmatch(line):  # keys in keys would cost the square of their length in memory
            said = line.strip()[:40]
            raise NotesFileError(f"line {number}: {said!r}; allowed: [[note]], or key = value", key="text")
    try:
        raw = tomllib.loads(text)
    except (tomllib.TOMLDecodeError, RecursionError) as error:
        raise NotesFileError(f"not TOML: {error}", key="text") from None
    if raw.get("format") != FORMAT or raw.get("format_version") != 1:
        raise NotesFileError(f"not a notes file; allowed: format {FORMAT!r}, format_version 1", key="format")
    listed = raw.get("note", [])
    if not isinstance(listed, list) or len(listed) > 60:
        raise NotesFileError("note: a list of up to 60", key="note")
    found = []
    for index, item in enumerate(listed):
        try:
            found.append(LocalNote.model_validate(_as_float(item)))
        except ValidationError as error:
            first = error.errors()[0]
            key = ".".join(str(part) for part in ("note", index, *first["loc"]))
            raise NotesFileError(f"{key}: {first['msg']}", key=key, value=first["input"]) from None
    return tuple(found)


def _as_float(item: object) -> object:
    if isinstance(item, dict) and type(item.get("value")) is int:
        return {**item, "value": float(item["value"])}
    return item
