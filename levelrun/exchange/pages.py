"""Pages of the documentation that are made from the data: sources, and the catalogue of findings."""

from __future__ import annotations

import re
from pathlib import Path

from levelrun.core.codebook import Codebook, Table, load, rule_sets
from levelrun.core.subjects import CATALOGUE


def write_pages(folder: Path, tests: Path) -> list[Path]:
    """Write sources.md and findings.md into `folder`; `tests` is searched for who checks what."""
    folder.mkdir(parents=True, exist_ok=True)
    pages = {"sources.md": sources_page(Checks(tests)), "findings.md": findings_page()}
    for name, text in pages.items():
        (folder / name).write_text(text, encoding="utf-8")
    return [folder / name for name in pages]


class Checks:
    """Which test files name a table, a number or a section."""

    def __init__(self, tests: Path) -> None:
        self._texts = {
            path.relative_to(tests.parent).as_posix(): path.read_text(encoding="utf-8")
            for path in sorted(tests.rglob("test_*.py"))
        }

    def naming(self, *words: str) -> str:
        """Test files in which one of the words stands, as a list of names, or a dash."""
        found = [name for name, text in self._texts.items() if any(word in text for word in words)]
        return ", ".join(f"`{name}`" for name in found) or "–"


def findings_page() -> str:
    """Every finding code: meaning, why it matters, the usual mend."""
    lines = [
        "# Findings",
        "",
        "Made from the catalogue in `levelrun/core/<subject>/codes.py` by `make docs`.",
        "",
        "*stop*: not allowed, or it would fail. *check*: depends on the authority or on something not entered.",
        "*note*: habit of the trade.",
        "",
        "| code | word | meaning | why | usual mend |",
        "|---|---|---|---|---|",
    ]
    lines += [f"| `{code}` | {e.severity} | {e.meaning} | {e.why} | {e.mend} |" for code, e in CATALOGUE.items()]
    return "\n".join(lines) + "\n"


def sources_page(checks: Checks) -> str:
    """Every table and scalar of every rule set with source, basis, doubts and check."""
    lines = [
        "# Sources",
        "",
        "Made from the data files by `make docs`. *From memory*: written down by heart from the named edition and",
        "checked as said; hold the book beside it before you rely on a cell. *Practice*: common practice, no source.",
        "*Typical*: catalogue sizes that differ by maker.",
    ]
    for name in rule_sets():
        lines += _set(load(name), checks)
    return "\n".join(lines) + "\n"


def _set(book: Codebook, checks: Checks) -> list[str]:
    lines = ["", f"## {book.title}", "", book.long_title, ""]
    unsure = [f"- {table.name}: {doubt}" for table in book.tables.values() for doubt in table.head.unsure]
    lines += ["### Not sure of", "", *(unsure or ["Nothing marked."]), "", "### Tables", ""]
    for table in sorted(book.tables.values(), key=lambda item: _order(item.name)):
        lines += _table(table, checks)
    lines += [
        "### Single numbers",
        "",
        "| key | value | section | basis | what | named in |",
        "|---|---|---|---|---|---|",
    ]
    for scalar in sorted(book.scalars.values(), key=lambda item: item.key):
        lines.append(
            f"| `{scalar.key}` | {scalar.value:g} {scalar.unit} | {scalar.section} | {scalar.basis} | {scalar.text} "
            f"| {checks.naming(scalar.key)} |"
        )
    return lines


def _order(name: str) -> list[int | str]:
    return [int(part) if part.isdigit() else part for part in re.split(r"(\d+)", name)]


def _table(table: Table, checks: Checks) -> list[str]:
    head = table.head
    lines = [
        f"#### {table.name}",
        "",
        f"{head.table}. {head.source}; {head.basis}; {head.date}. `{head.file}`, {len(table.rows)} rows.",
        f"Rounding: {head.rounding}. Checked: {head.check}.",
    ]
    lines += [f"Note: {note}." for note in head.notes]
    lines += ["Structure: `tests/core/codebook/test_tables.py`. Named in: " + checks.naming(table.name) + "."]
    return [*lines, ""]
