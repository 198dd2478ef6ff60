"""The box schedule as CSV: one row a box, as it is set on the frame."""

from __future__ import annotations

from collections.abc import Sequence

from levelrun.core.boxes.schedule import ScheduleRow
from levelrun.exchange.sheet import as_csv

COLUMNS = (
    "structure", "level", "room", "box", "kind", "wall", "from_left_corner", "nailed_to", "bottom", "middle", "top",
    "box_model", "gangs", "depth", "set_out", "circuit", "marked",
)  # fmt: skip


def write_schedule(rows: Sequence[ScheduleRow]) -> str:
    """The schedule as CSV with a head row."""
    return as_csv(COLUMNS, [[str(getattr(row, name)) for name in COLUMNS] for row in rows])
