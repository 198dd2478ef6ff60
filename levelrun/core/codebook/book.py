"""A rule set as one object: its tables and scalars, overlays already laid on."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache
from pathlib import Path

from levelrun.core.codebook.tables import Scalar, Table, merge, read_scalars, read_table
from levelrun.core.errors import UnknownKeyError, unknown

DATA = Path(__file__).parent / "data"
PRACTICE = "practice"
DEFAULT_RULES = "us-2023"


@dataclass(frozen=True, eq=False)
class Codebook:
    """Everything a plan looks up. Compared by identity: `load` gives one object a rule set."""

    rules: str
    title: str
    long_title: str
    units: str
    tables: Mapping[str, Table] = field(repr=False)
    scalars: Mapping[str, Scalar] = field(repr=False)

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

    def number(self, key: str) -> float:
        """The bare value of a scalar."""
        return self.scalar(key).value


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
    return Codebook(rules, about["title"], about["long_title"], about["units"], tables, scalars)


def _about(name: str) -> dict[str, str]:
    return tomllib.loads((DATA / name / "set.toml").read_text(encoding="utf-8"))


@lru_cache(maxsize=16)
def _own_tables(name: str) -> tuple[Table, ...]:
    return tuple(read_table(path, name) for path in sorted((DATA / name).glob("*.csv")))
