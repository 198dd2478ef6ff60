"""CSV as every list here is written: a head row, and no cell that a spreadsheet would run."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence

RISKY = ("=", "+", "-", "@", "\t", "\r")


def as_csv(head: Sequence[str], rows: Iterable[Sequence[str]]) -> str:
    """Rows as CSV text. A cell that a spreadsheet would read as a formula is quoted with '."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\r\n")  # as RFC 4180 has it; so a lone return is quoted too
    writer.writerow(head)
    for row in rows:
        writer.writerow([f"'{cell}" if cell.startswith(RISKY) else cell for cell in row])
    return stream.getvalue()
