"""Fields of a part in words, read and written: `height 16 in, serves range, load none`.

Every field that a part has can be said this way, so nothing that a rule reads is without a word. A field is called as
its name is without the unit (`height_in` is height), or by its whole name. Lengths carry their unit; free text stands
in double quotes as JSON writes it; a list or a part inside a part stands in parentheses. What JSON writes (lists,
objects, true, false, null) is read too.
"""

from __future__ import annotations

import json
import re
from bisect import bisect_left
from collections.abc import Callable, Iterable, Mapping
from functools import lru_cache
from typing import Any, Literal, Union, get_args, get_origin

from levelrun.core.errors import MeasureError, TextError
from levelrun.core.fields import bare
from levelrun.core.measure import scan_length
from levelrun.core.part import Frozen
from levelrun.core.words import Reader

UNITS = ("_in", "_a", "_w", "_c", "_f", "_deg", "_ft2")
_NUMBER = re.compile(r"-?\d+(?:\.\d+)?(?:e[+-]?\d+)?(?![\w./'\"])(?:\s*(?:amps?|a|watts?|w|c|f)\b)?", re.IGNORECASE)
_VALUE = re.compile(r"-?\d+(?:\.\d+)?(?:e[+-]?\d+)?", re.IGNORECASE)
_TOKEN = re.compile(r"[\w./+-]+")
_INCHES = re.compile(r"(?P<n>\d+(?:\.\d+)?(?:e[+-]?\d+)?)\s*in\b")
_PLAIN_WORD = re.compile(r"[A-Za-z0-9_./-]{1,60}")
_DECODER = json.JSONDecoder()


@lru_cache(maxsize=64)
def words_of(model: type[Frozen]) -> dict[str, str]:
    """What each field of a part is called, and the name of the field."""
    short: dict[str, list[str]] = {}
    for name in model.model_fields:
        unit = next((unit for unit in UNITS if name.endswith(unit) and len(name) > len(unit) + 1), "")
        short.setdefault(name.removesuffix(unit).replace("_", " "), []).append(name)
    found = {name.replace("_", " "): name for name in model.model_fields}
    return {word: names[0] for word, names in short.items() if len(names) == 1} | found


@lru_cache(maxsize=64)
def _called(model: type[Frozen]) -> dict[str, str]:
    """The shortest word of each field."""
    found: dict[str, str] = {}
    for word, name in words_of(model).items():
        found.setdefault(name, word)
        found[name] = min(found[name], word, key=len)
    return found


def read_fields(
    reader: Reader, model: type[Frozen], over: Callable[[], bool], only: Iterable[str] | None = None
) -> dict[str, Any]:
    """Fields with their values up to where `over` says that they end, as plain data for the model to judge. `only`:
    the names of the fields that may be said. Raises TextError at the word that is no field, or no value of it."""
    allowed = set(model.model_fields if only is None else only)
    words = {word: name for word, name in words_of(model).items() if name in allowed}
    found: dict[str, Any] = {}
    while not over():
        reader.expect(sorted(set(words) - {name.replace("_", " ") for name in allowed} or set(words)))
        word = reader.phrase(words)
        if word is None:
            raise reader.fail("a field")
        name = words[word]
        found[name] = _read(reader, model.model_fields[name].annotation, name)
    return found


def _read(reader: Reader, annotation: Any, name: str) -> Any:
    reader.skip()
    if reader.text[reader.pos : reader.pos + 1] in ("[", "{"):
        return _json(reader, f"the value of {name} as JSON")
    nullable = type(None) in get_args(annotation)
    kind, _ = bare(annotation)
    if nullable and reader.phrase(["none", "null"]):
        return None
    return _read_kind(reader, kind, name)


def _read_kind(reader: Reader, kind: Any, name: str) -> Any:
    choices = _choices(kind)
    if choices:
        return _choice(reader, choices, name)
    if kind is bool:
        return reader.need(("yes", "no", "true", "false"), f"yes or no for {name}") in ("yes", "true")
    if kind in (int, float):
        return _length(reader, name) if name.endswith("_in") else _number(reader, name)
    if kind is str:
        return _text(reader, name)
    if isinstance(kind, type) and issubclass(kind, Frozen):
        return _inside(reader, lambda: read_fields(reader, kind, lambda: _closed(reader)), name)
    inner = [one for one in get_args(kind) if one is not Ellipsis]
    return _list(reader, inner, name)


def _list(reader: Reader, inner: list[Any], name: str) -> list[Any]:
    """Items in parentheses; numbers also without."""
    one, _ = bare(inner[0])
    pairs = len(inner) > 1
    items: list[Any] = []

    def all_items() -> list[Any]:
        while not _closed(reader):
            kind, _ = bare(inner[len(items) % len(inner)] if pairs else inner[0])
            items.append(_read_kind(reader, kind, name))
        return items

    if one in (int, float) and not _at(reader, "("):
        while _VALUE.match(reader.text, reader.pos):
            items.append(_read_kind(reader, one, name))
            reader.skip()
        return items
    found: list[Any] = _inside(reader, all_items, name)
    return found


def _inside(reader: Reader, read: Callable[[], Any], name: str) -> Any:
    reader.expect(["("])
    if not _at(reader, "("):
        raise reader.fail(f"( before what {name.replace('_', ' ')} holds")
    reader.pos += 1
    found = read()
    if not _at(reader, ")"):
        reader.expect([")"])
        raise reader.fail(") after it")
    reader.pos += 1
    return found


def _at(reader: Reader, mark: str) -> bool:
    reader.skip()
    return reader.text[reader.pos : reader.pos + 1] == mark


def _closed(reader: Reader) -> bool:
    return _at(reader, ")") or reader.at_end()


def _choices(kind: Any) -> dict[str, Any]:
    """What may be chosen, by how it is said."""
    if get_origin(kind) is Literal:
        return {str(item): item for item in get_args(kind)}
    parts = get_args(kind)
    if get_origin(kind) in (Union,) or (parts and all(get_origin(one) is Literal for one in parts)):
        return {str(item): item for one in parts if get_origin(one) is Literal for item in get_args(one)}
    return {}


def _choice(reader: Reader, choices: Mapping[str, Any], name: str) -> Any:
    spaced = {word.replace("_", " "): value for word, value in choices.items() if word}
    words = list(spaced)
    reader.expect(words)
    if reader.text[reader.pos : reader.pos + 1] == '"':
        return choices.get(said := _quoted(reader), said)
    if "" in choices and reader.phrase(["none"]):
        return ""
    word = reader.phrase(words)
    if word is None:
        raise reader.fail(f"{name.replace('_', ' ')}: one of {', '.join(words[:12])}")
    return spaced[word]


def _number(reader: Reader, name: str) -> int | float:
    reader.expect([f"a number for {name.replace('_', ' ')}"])
    if (match := reader.take(_NUMBER)) is None:
        raise reader.fail(f"a number for {name.replace('_', ' ')}")
    value = _VALUE.match(match.group(0))
    assert value is not None
    text = value.group(0)
    return int(text) if re.fullmatch(r"-?\d{1,300}", text) else float(text)


def _length(reader: Reader, name: str) -> float:
    """A length with its sign; a number without unit is inches."""
    reader.expect([f"a length for {name.removesuffix('_in').replace('_', ' ')}: 5'4, 64\", 1.6 m"])
    sign = -1.0 if reader.text[reader.pos : reader.pos + 1] == "-" else 1.0
    start = reader.pos + (sign < 0)
    if match := _INCHES.match(reader.text, start):
        reader.pos = match.end()
        return sign * float(match["n"])
    try:
        inches, reader.pos = scan_length(reader.text, start, "in")
    except MeasureError as error:
        at = reader.origin[min(error.at or start, len(reader.text))]
        raise TextError(error.message, key="text", value=error.value, allowed=error.allowed, at=at) from None
    return sign * inches


def _text(reader: Reader, name: str) -> str:
    reader.expect(['"in double quotes"'])
    if reader.text[reader.pos : reader.pos + 1] == '"':
        return _quoted(reader)
    if (match := reader.take(_TOKEN)) is None:
        raise reader.fail(f"{name.replace('_', ' ')}: one word, or text in double quotes")
    return match.group(0)


def _quoted(reader: Reader) -> str:
    found = _json(reader, "text in double quotes")
    if not isinstance(found, str):
        raise reader.fail("text in double quotes")
    return found


def _json(reader: Reader, what: str) -> Any:
    """A value as JSON writes it, from the text as it was typed."""
    reader.expect([what])
    start = reader.origin[reader.pos]
    try:
        value, end = _DECODER.raw_decode(reader.raw, start)
    except (ValueError, RecursionError):
        raise reader.fail(what) from None
    reader.pos = bisect_left(reader.origin, end)
    return value


def write_fields(values: Mapping[str, Any], model: type[Frozen]) -> str:
    """Fields in words, one after another; `read_fields` reads them back to the same."""
    called = _called(model)
    return ", ".join(
        f"{called[name]} {_written(value, model.model_fields[name].annotation, name)}"
        for name, value in values.items()
    )


def said_of(part: Frozen) -> dict[str, Any]:
    """The fields of a part that are not as usual, its id left out."""
    said = part.model_dump(mode="json", exclude_defaults=True)
    return {key: value for key, value in said.items() if key != "id"}


def _written(value: Any, annotation: Any, name: str) -> str:
    if value is None:
        return "none"
    kind, _ = bare(annotation)
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        number = f"{int(value)}" if float(value).is_integer() and abs(value) < 1e15 else repr(value)
        return f"{number} in" if name.endswith("_in") and not _choices(kind) else number
    if isinstance(value, str):
        known = value in _choices(kind) and value and not re.search(r"[^\w ./-]", value)
        word = _PLAIN_WORD.fullmatch(value) and value not in ("none", "null") and (known or name not in FREE)
        return value if known or word else json.dumps(value, ensure_ascii=False)
    if isinstance(value, dict):
        return f"({write_fields(value, kind)})"
    inner = [one for one in get_args(kind) if one is not Ellipsis]
    pairs = len(inner) > 1
    items = [_written(v, inner[i % len(inner)] if pairs else inner[0], name) for i, v in enumerate(value)]
    return f"({' '.join(items)})"


FREE = ("name", "remarks", "where", "make", "who", "why")
