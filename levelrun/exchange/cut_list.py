"""The cut list as CSV: one row a piece of pipe, stick by stick."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import fields

from levelrun.core.pipe.cut_rows import CutRow
from levelrun.exchange.sheet import as_csv

COLUMNS = tuple(field.name for field in fields(CutRow))


def write_cut_list(rows: Sequence[CutRow]) -> str:
    """The cut list with a head row; `length_in` is unrounded, `length` what a pencil marks."""
    return as_csv(COLUMNS, [[str(getattr(row, name)) for name in COLUMNS] for row in rows])
