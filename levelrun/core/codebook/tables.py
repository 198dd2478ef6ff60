"""Reading one data file: the head that says where it comes from, then the rows."""

from __future__ import annotations

import csv
import tomllib
from collections.abc import Iterable
from dataclasses import dataclass, field
from pathlib import Path

from levelrun.core.errors import unknown

HEAD_KEYS = ("source", "table", "basis", "date", "keys", "check")
Row = dict[str, str]


@dataclass(frozen=True, kw_only=True)
class TableHead:
    """Where a table comes from. `basis` is from memory, published, practice or typical."""

    file: str
    source: str
    table: str
    basis: str
    date: str
    keys: tuple[str, ...]
    check: str
    units: str = ""
    rounding: str = "exact row, no interpolation"
    overlay: str = ""
    notes: tuple[str, ...] = ()
    unsure: tuple[str, ...] = ()


@dataclass(frozen=True)
class Table:
    """A table as read: `rows` in file order, cells as text."""

    name: str
    head: TableHead
    columns: tuple[str, ...]
    rows: tuple[Row, ...]
    _by_key: dict[tuple[str, ...], Row] = field(default_factory=dict, compare=False, repr=False)

    def __post_init__(self) -> None:
        for row in self.rows:
            self._by_key[tuple(row[key] for key in self.head.keys)] = row

    def find(self, *key: str) -> Row | None:
        """The row whose key columns equal `key`, or None. Exact, never nearest."""
        return self._by_key.get(key)

    def get(self, *key: str) -> Row:
        """The row whose key columns equal `key`. Raises UnknownKeyError that lists the last column's keys."""
        row = self._by_key.get(key)
        if row is None:
            options = dict.fromkeys(k[-1] for k in self._by_key if k[:-1] == key[:-1])
            raise unknown(self.head.keys[-1], key[-1], options)
        return row

    def at_least(self, column: str, wanted: float) -> Row | None:
        """The first row whose `column` is `wanted` or more: next size up, never nearest."""
        return next((row for row in self.rows if float(row[column]) >= wanted), None)


@dataclass(frozen=True, kw_only=True)
class Scalar:
    """One number of a rule set with its section and what it means.

    `tighter` says which way is stricter (lower, higher), empty where a local note may not change it;
    `note` names the local note that set it.
    """

    key: str
    value: float
    unit: str
    section: str
    basis: str
    text: str
    source: str
    tighter: str = ""
    note: str = ""


def read_table(path: Path, prefix: str) -> Table:
    """One CSV file. Raises ValueError where the head lacks a line."""
    lines = path.read_text(encoding="utf-8").splitlines()
    head = _head([line for line in lines if line.startswith("#")], path.name)
    reader = csv.DictReader(line for line in lines if line and not line.startswith("#"))
    rows = tuple(reader)
    return Table(path.stem.removeprefix(prefix + "-"), head, tuple(reader.fieldnames or ()), rows)


def _head(lines: Iterable[str], file: str) -> TableHead:
    many: dict[str, list[str]] = {}
    for line in lines:
        key, _, value = line.lstrip("# ").partition(":")
        many.setdefault(key.strip(), []).append(value.strip())
    missing = [key for key in HEAD_KEYS if key not in many]
    if missing:
        raise ValueError(f"{file}: head lacks {', '.join(missing)}")
    one = {key: values[0] for key, values in many.items()}
    return TableHead(
        file=file,
        source=one["source"],
        table=one["table"],
        basis=one["basis"],
        date=one["date"],
        keys=tuple(one["keys"].split(",")),
        check=one["check"],
        units=one.get("units", ""),
        rounding=one.get("rounding", "exact row, no interpolation"),
        overlay=one.get("overlay", ""),
        notes=tuple(many.get("note", ())),
        unsure=tuple(many.get("unsure", ())),
    )


def merge(base: Table, over: Table) -> Table:
    """`over` laid on `base`: rows of the same key replaced, new ones after them; `overlay: table` replaces all."""
    if over.head.overlay == "table":
        return over
    keys = base.head.keys
    fresh = {tuple(row[key] for key in keys): row for row in over.rows}
    kept = [{**row, **fresh.pop(tuple(row[key] for key in keys), {})} for row in base.rows]
    return Table(base.name, over.head, base.columns, (*kept, *fresh.values()))


def read_scalars(path: Path) -> dict[str, Scalar]:
    """All scalars of one TOML file; the file's head comments give source and basis."""
    text = path.read_text(encoding="utf-8")
    head: dict[str, str] = {}
    for line in text.splitlines():
        if not line.startswith("#"):
            break
        key, _, value = line.lstrip("# ").partition(":")
        head[key.strip()] = value.strip()
    return {
        key: Scalar(
            key=key,
            value=float(entry["value"]),
            unit=entry["unit"],
            section=entry["section"],
            basis=entry.get("basis", head["basis"]),
            text=entry["text"],
            source=head["source"],
            tighter=entry.get("tighter", ""),
        )
        for key, entry in tomllib.loads(text).items()
    }
