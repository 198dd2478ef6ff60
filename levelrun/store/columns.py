"""The columns of each table, worked out from the models: a field more is a column more.

Numbers, text and ticks are columns of their own kind; what is a list or a model is JSON in one column; a few are
tables of their own (levels, legs, hops) or are laid flat (the end of a leg).
"""

from __future__ import annotations

import json
import types
from dataclasses import dataclass
from typing import Annotated, Any, Literal, Union, get_args, get_origin

from pydantic import BaseModel

from levelrun.core.job import Job
from levelrun.core.part import Frozen
from levelrun.core.subjects import KINDS

Row = dict[str, Any]
KEYS = ("job_id", "place")
CHILD_TABLES = {"levels": ("level", "structure_id"), "legs": ("leg", "way_id"), "chain": ("hop", "circuit_id")}
FLAT = {("leg", "end")}
# `place` is the order of a row; `where` and `end` are words of SQL
RENAMED = {
    ("leg", "place"): "lies_in", ("box", "where"): "where_said", ("panel", "where"): "where_said",
    ("trench", "end"): "ends_at", ("span", "end"): "ends_at", ("hold", "place"): "holds",
    ("price", "on"): "said_on", ("built", "on"): "seen_on", ("closing", "on"): "closed_on",
    ("photo", "on"): "taken_on", ("visit", "place"): "visits", ("visit", "on"): "comes_on",
    ("measured", "of"): "tested", ("measured", "on"): "read_on",
}  # fmt: skip


@dataclass(frozen=True)
class Column:
    """One column: its name in SQL, the path of its field in a part, and how it is stored."""

    name: str
    path: tuple[str, ...]
    stored: Literal["plain", "bool", "json"]

    def to_sql(self, part: Row) -> Any:
        """The value to bind."""
        value: Any = part
        for key in self.path:
            value = value[key]
        if self.stored == "json":
            return json.dumps(_said(value))
        return value

    def from_sql(self, value: Any) -> Any:
        """The value as a part has it."""
        if value is None or self.stored == "plain":
            return value
        return bool(value) if self.stored == "bool" else json.loads(value)


@dataclass(frozen=True)
class Child:
    """A list of a part that is a table of its own, with a column that names its owner."""

    field: str
    table: str
    owner: str
    columns: tuple[Column, ...]


@dataclass(frozen=True)
class Table:
    """A kind of part: its field in the job, its table, its model, its columns, and its child where it has one."""

    field: str
    table: str
    model: type[Frozen]
    columns: tuple[Column, ...]
    child: Child | None


def _said(value: Any) -> Any:
    """A model as JSON without what was not said."""
    return {key: item for key, item in value.items() if item is not None} if isinstance(value, dict) else value


def _plain(annotation: Any) -> Any:
    """An annotation without Annotated and without None."""
    if get_origin(annotation) is Annotated:
        return _plain(get_args(annotation)[0])
    if get_origin(annotation) in (Union, types.UnionType):
        kinds = [item for item in get_args(annotation) if item is not type(None)]
        return _plain(kinds[0]) if len(kinds) == 1 else annotation
    return annotation


def _stored(annotation: Any) -> Literal["plain", "bool", "json"]:
    plain = _plain(annotation)
    if plain is bool:
        return "bool"
    words = get_origin(plain) in (Union, types.UnionType) and all(
        get_origin(kind) is Literal for kind in get_args(plain)
    )
    if plain in (int, float, str) or get_origin(plain) is Literal or words:
        return "plain"
    return "json"


def columns_of(model: type[BaseModel], table: str) -> tuple[Column, ...]:
    """The columns of a model, its child lists left out."""
    found: list[Column] = []
    for name, field in model.model_fields.items():
        if name in CHILD_TABLES:
            continue
        if (table, name) in FLAT:
            inner = _plain(field.annotation)
            found += [
                Column(f"{name}_{key}", (name, key), _stored(part.annotation))
                for key, part in inner.model_fields.items()
            ]
            continue
        found.append(Column(RENAMED.get((table, name), name), (name,), _stored(field.annotation)))
    return tuple(found)


def _child(model: type[Frozen]) -> Child | None:
    for name, field in model.model_fields.items():
        if name in CHILD_TABLES:
            table, owner = CHILD_TABLES[name]
            inner = get_args(_plain(field.annotation))[0]
            return Child(name, table, owner, columns_of(inner, table))
    return None


TABLES: dict[str, Table] = {
    kind.field: Table(kind.field, kind.name, kind.model, columns_of(kind.model, kind.name), _child(kind.model))
    for kind in sorted(KINDS.values(), key=lambda kind: list(Job.model_fields).index(kind.field))
}
HEAD: tuple[Column, ...] = tuple(
    column
    for column in columns_of(Job, "job")
    if column.name not in TABLES and column.name not in ("format", "format_version")
)
