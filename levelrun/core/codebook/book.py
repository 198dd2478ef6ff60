"""A rule set as one object: its tables and scalars, overlays already laid on."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from pathlib import Path

from levelrun.core.codebook.tables import Scalar, Table, merge, read_scalars, read_table
from levelrun.core.errors import LevelRunError, UnknownKeyError, unknown

DATA = Path(__file__).parent / "data"
PRACTICE = "practice"
DEFAULT_RULES = "us-2023"
TRADE = "common practice"


@dataclass(frozen=True, kw_only=True)
class LocalRule:
    """A local note on one scalar: who said it, when, why, and whether the authority approved a looser rule."""

    key: str
    value: float
    who: str
    when: str
    why: str
    approved: bool


@dataclass(frozen=True)
class NoteStatus:
    """What became of a local note: `way` is tighter, looser or same; a looser one counts only if approved."""

    rule: LocalRule
    was: float
    way: str
    applied: bool


@dataclass(frozen=True, kw_only=True, eq=False)
class Codebook:
    """Everything a plan looks up. Compared by identity: `load` gives one object a rule set.

    own: how the sections of another country's book begin; a finding without such a section is no stop of it. on: the
    day that is asked for, as 2026-09-01; empty: none.
    """

    rules: str
    title: str
    long_title: str
    units: str
    tables: Mapping[str, Table] = field(repr=False)
    scalars: Mapping[str, Scalar] = field(repr=False)
    own: str = ""
    notes: tuple[NoteStatus, ...] = ()
    on: str = ""

    def in_force(self, day: str) -> bool:
        """Whether what comes into force on `day` (2026-09-01; empty: always) is, on the day that is asked for. Where
        no day is asked for, everything is."""
        return not day or not self.on or day <= self.on

    def table(self, name: str) -> Table:
        """A table by its name without the set's prefix, such as "ch9-table8"."""
        if name not in self.tables:
            raise unknown("table", name, sorted(self.tables))
        return self.tables[name]

    def scalar(self, key: str) -> Scalar:
        """A number of the rule set with its section."""
        if key not in self.scalars:
            raise unknown("scalar", key, sorted(self.scalars))
        return self.scalars[key]

    def cite(self, section: str) -> str:
        """A US 2023 section as this rule set has it, part by part; what it has no word for stays."""
        table = self.tables.get("sections")
        if table is None:
            return section
        if row := table.find(section):
            return row["section"]
        parts = [table.find(part) for part in section.split(", ")]
        shown = [row["section"] if row else part for row, part in zip(parts, section.split(", "), strict=True)]
        return ", ".join(dict.fromkeys(shown))

    def covered(self, section: str) -> str:
        """What of a section is this set's own word, or nobody's but the trade's; empty where it has none: what is
        said there comes from the set that this one is laid over, and is a question here."""
        if not self.own or section == f"{TRADE}, no source":
            return self.cite(section)
        table = self.tables["sections"]
        plain = section.replace(f"{TRADE}, no source", TRADE)
        parts = [section] if table.find(section) else re.split(r"[;,] ", plain)
        shown = [row["section"] if (row := table.find(part)) else part for part in parts]
        return ", ".join(dict.fromkeys(part for part in shown if part.startswith(self.own) or TRADE in part))

    def told(self, section: str) -> str:
        """A section beside a number: as this set has it, else whose number it is."""
        return self.covered(section) or f"not covered by {self.title}; US: {section}"

    def number(self, key: str) -> float:
        """The bare value of a scalar."""
        return self.scalar(key).value


@lru_cache(maxsize=64)
def as_of(book: Codebook, on: str) -> Codebook:
    """A rule set on a day (2026-09-01; empty: on none): rules that begin later are not asked yet."""
    return replace(book, on=on) if on else book


def rule_sets() -> list[str]:
    """Names of the rule sets that ship, without shop practice."""
    return sorted(path.parent.name for path in DATA.glob("*/set.toml") if path.parent.name != PRACTICE)


@lru_cache(maxsize=16)
def load(rules: str = DEFAULT_RULES) -> Codebook:
    """A rule set by name, its bases and shop practice laid under it. Raises UnknownKeyError."""
    if rules not in rule_sets():
        known = rule_sets()
        raise UnknownKeyError(
            f"rules {rules!r} is not a rule set here; allowed: {', '.join(known)}",
            key="rules",
            value=rules,
            allowed=known,
        )
    about = _about(rules)
    chain = [rules]
    while base := _about(chain[-1])["base"]:
        chain.append(base)
    tables: dict[str, Table] = {}
    scalars: dict[str, Scalar] = {}
    for name in (PRACTICE, *reversed(chain)):
        for table in _own_tables(name):
            tables[table.name] = merge(tables[table.name], table) if table.name in tables else table
        for path in sorted((DATA / name).glob("*-scalars.toml")):
            scalars |= read_scalars(path)
    return Codebook(
        rules=rules,
        title=about["title"],
        long_title=about["long_title"],
        units=about["units"],
        own=about.get("own", ""),
        tables=tables,
        scalars=scalars,
    )


def _about(name: str) -> dict[str, str]:
    return tomllib.loads((DATA / name / "set.toml").read_text(encoding="utf-8"))


@lru_cache(maxsize=16)
def _own_tables(name: str) -> tuple[Table, ...]:
    return tuple(read_table(path, name) for path in sorted((DATA / name).glob("*.csv")))


@lru_cache(maxsize=64)
def with_notes(book: Codebook, rules: tuple[LocalRule, ...]) -> Codebook:
    """A rule set with local notes laid on. A note that loosens a rule counts only where it is approved.

    Raises LevelRunError for a number that no local note may change.
    """
    if not rules:
        return book
    scalars = dict(book.scalars)
    statuses: list[NoteStatus] = []
    for rule in rules:
        scalar = _noted(book, rule.key)
        was = scalars[rule.key].value
        looser = rule.value > was if scalar.tighter == "lower" else rule.value < was
        way = "same" if rule.value == was else "looser" if looser else "tighter"
        applied = way == "tighter" or (way == "looser" and rule.approved)
        statuses.append(NoteStatus(rule, was, way, applied))
        if applied:
            by = ", ".join(word for word in ("local note", rule.who, rule.when) if word)
            scalars[rule.key] = replace(
                scalar, value=rule.value, section=f"{scalar.section}; {by}", note=by, basis="local note"
            )
    return replace(book, title=_title(book, statuses), scalars=scalars, notes=tuple(statuses))


def notable(book: Codebook) -> dict[str, Scalar]:
    """The numbers that a local note may change."""
    return {key: scalar for key, scalar in book.scalars.items() if scalar.tighter}


def _noted(book: Codebook, key: str) -> Scalar:
    known = notable(book)
    if key not in known:
        raise LevelRunError(
            f"key {key!r} is no number that a local note may change; allowed: {', '.join(sorted(known))}",
            key="key",
            value=key,
            allowed=sorted(known),
        )
    return known[key]


def _title(book: Codebook, statuses: list[NoteStatus]) -> str:
    count = sum(status.applied for status in statuses)
    return f"{book.title} + {count} local note{'s' * (count != 1)}" if count else book.title
