"""Burial cover: table 300.5(A)."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cover_row, method, methods
from levelrun.core.errors import NotBuriableError

GFCI_MAX_VOLTS = 120.0
GFCI_MAX_AMPS = 20.0
LOW_VOLTAGE = 30.0


@dataclass(frozen=True)
class Cover:
    """Least cover in inches from finished grade to the top, and the column that gave it."""

    cover_in: float
    column: str
    rule: str
    note: str


def cover(book: Codebook, method_key: str, above: str, volts: float, amps: float, gfci: bool) -> Cover:
    """Least burial cover. Exact row; the least of the columns that apply.

    gfci: protection stands upstream of the buried part of a residential branch circuit.
    Raises UnknownKeyError for what is not in the table, NotBuriableError for a method that may not be buried.
    """
    row = cover_row(book, above)
    own = method(book, method_key).cover_column
    if not own:
        allowed = [key for key, item in methods(book).items() if item.cover_column]
        raise NotBuriableError(
            f"method {method_key} may not be buried; allowed: {', '.join(allowed)}",
            key="method",
            value=method_key,
            allowed=allowed,
        )
    columns = [own]
    if gfci and volts <= GFCI_MAX_VOLTS and amps <= GFCI_MAX_AMPS:
        columns.append("gfci_branch")
    if volts <= LOW_VOLTAGE:
        columns.append("low_voltage")
    best = min(columns, key=lambda column: float(row[column]))
    least = book.scalar("cover_least_in")
    if least.value > float(row[best]):
        return Cover(least.value, "cover_least_in", least.section, "")
    return Cover(float(row[best]), best, "300.5(A)", _note(own, above, best))


def _note(own: str, above: str, best: str) -> str:
    if above == "under_building" and own == "direct_cable":
        return "under a building the cable lies in a raceway (300.5(C))"
    if best == "low_voltage":
        return "landscape lighting and irrigation of 30 V or less, with UF or other identified cable"
    if best == "gfci_branch":
        return "residential branch circuit, 120 V, 20 A or less, GFCI upstream"
    return ""
