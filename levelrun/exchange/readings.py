"""Readings as CSV: every one with its window, verdict, when and by whom; what was not tested stands at the end."""

from __future__ import annotations

import csv
import io

from levelrun.core.testing.log import LogRow

FIELDS = ("tested", "step", "reading", "unit", "low", "high", "verdict", "meter", "on", "hour", "who", "remarks")


def write_readings(rows: list[LogRow]) -> str:
    """The log as CSV."""
    out = io.StringIO()
    writer = csv.DictWriter(out, FIELDS)
    writer.writeheader()
    for row in rows:
        writer.writerow(
            {
                "tested": row.name, "step": row.title, "reading": row.reading, "unit": row.unit,
                "low": _edge(row.low), "high": _edge(row.high),
                "verdict": row.verdict, "meter": row.meter, "on": row.on, "hour": row.hour, "who": row.who,
                "remarks": row.remarks,
            }
        )  # fmt: skip
    return out.getvalue()


def _edge(value: float | None) -> str:
    return "" if value is None else f"{value:.4g}"
