"""The box schedule as CSV: one row a box, as it is set on the frame."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence

from levelrun.core.boxes.schedule import ScheduleRow

COLUMNS = (
    "structure", "level", "room", "box", "kind", "wall", "from_left_corner", "nailed_to", "bottom", "middle", "top",
    "box_model", "gangs", "depth", "set_out", "circuit", "marked",
)  # fmt: skip
RISKY = ("=", "+", "-", "@", "\t")


def write_schedule(rows: Sequence[ScheduleRow]) -> str:
    """The schedule as CSV with a head row. A cell that a spreadsheet would read as a formula is quoted with '."""
    stream = io.StringIO()
    writer = csv.writer(stream, lineterminator="\n")
    writer.writerow(COLUMNS)
    for row in rows:
        writer.writerow([_safe(str(getattr(row, name))) for name in COLUMNS])
    return stream.getvalue()


def _safe(cell: str) -> str:
    return f"'{cell}" if cell.startswith(RISKY) else cell
