"""The rule set as entries that can be searched: every number, table row and condition with its source."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.codebook import Codebook

MOST = 80
LISTS = ("price-book", "connectors", "section-titles", "not-judged")  # lists of their own, not what the rule set says


@dataclass(frozen=True, kw_only=True)
class Entry:
    """One thing the rule set says. `kind` is number, row or table; `doubt` is what its file is not sure of."""

    kind: str
    name: str
    value: str
    section: str
    text: str
    source: str
    basis: str
    check: str
    doubt: str


@lru_cache(maxsize=32)
def entries(book: Codebook) -> tuple[Entry, ...]:
    """Every entry: single numbers first, then tables row by row."""
    found = [
        Entry(
            kind="number",
            name=scalar.key.replace("_", " "),
            value=f"{scalar.value:g} {scalar.unit}",
            section=scalar.section,
            text=scalar.text,
            source=scalar.note or scalar.source,
            basis=scalar.basis,
            check="",
            doubt="",
        )
        for scalar in book.scalars.values()
    ]
    for table in (table for table in book.tables.values() if table.name not in LISTS):
        head = table.head
        for row in table.rows:
            key = " ".join(row[k] for k in head.keys if row[k])
            rest = {k: v for k, v in row.items() if k not in head.keys and k not in ("section", "text") and v}
            found.append(
                Entry(
                    kind="row",
                    name=f"{table.name}: {key}".replace("_", " "),
                    value=", ".join(f"{k.replace('_', ' ')} {v}" for k, v in rest.items()),
                    section=row.get("section") or head.table,
                    text=row.get("text") or head.table,
                    source=f"{head.source}; {head.table}",
                    basis=head.basis,
                    check=head.check,
                    doubt="; ".join(head.unsure),
                )
            )
    return tuple(found)


def search(book: Codebook, query: str) -> list[Entry]:
    """Entries in which every word of the query stands, the closest first: section, then name, then the rest."""
    words = query.lower().replace(";", " ").replace(",", " ").split()
    scored = []
    for position, entry in enumerate(entries(book)):
        section, name = entry.section.lower(), entry.name.lower()
        whole = " ".join((section, name, entry.value, entry.text, entry.source)).lower().replace("_", " ")
        if all(word in whole for word in words):
            score = sum(3 * (word in section) + 2 * (word in name) for word in words)
            scored.append((-score, entry.kind != "number", position, entry))
    return [item[-1] for item in sorted(scored, key=lambda item: item[:3])[:MOST]]
