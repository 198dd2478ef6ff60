"""The price book as CSV: out whole or as said, in row by row; the truck book likewise."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from typing import Any

from levelrun.core.buying.listed import TruckRow
from levelrun.core.buying.prices import PriceBook
from levelrun.core.errors import LevelRunError
from levelrun.exchange.sheet import as_csv

COLUMNS = ("item", "supplier", "pack", "unit", "dollars", "on", "out", "days")
TRUCK = ("item", "amount", "unit", "why")
MOST_ROWS = 2000


def write_prices(prices: PriceBook, said_only: bool) -> str:
    """The price book with a head row: what the shop said, or all with what ships (`basis` invented)."""
    rows = [
        (item, o.supplier, f"{o.pack:g}", o.unit, f"{o.dollars:.2f}", o.on, "yes" if o.out else "", f"{o.days or ''}",
         "said" if o.said else "invented")
        for item, own in prices.offers.items()
        for o in own
        if o.said or not said_only
    ]  # fmt: skip
    return as_csv((*COLUMNS, "basis"), rows)


def write_truck(rows: Iterable[TruckRow]) -> str:
    """What is on the truck after a job, with a head row."""
    return as_csv(TRUCK, [(row.item, f"{row.amount:g}", row.unit, row.why) for row in rows])


def read_prices(text: str) -> list[dict[str, Any]]:
    """Prices from CSV, as the rows of one edit; rows whose basis is `invented` are left out, since they ship. Raises
    LevelRunError that names the row and the column, or the columns that are wanted."""
    rows = _rows(text, ("item", "supplier", "dollars"), COLUMNS)
    found: list[dict[str, Any]] = []
    for number, row in rows:
        if row.get("basis") == "invented":
            continue
        found.append(
            {
                "item": row["item"], "supplier": row["supplier"], "pack": _number(number, row, "pack", 1.0),
                "unit": row.get("unit") or "each", "dollars": _number(number, row, "dollars", None),
                "on": row.get("on", ""), "out": row.get("out", "").lower() in ("yes", "true", "1", "x"),
                "days": int(_number(number, row, "days", 0.0)),
            }
        )  # fmt: skip
    if not found:
        raise LevelRunError("no price in this file: every row is one that ships, or there is none", key="file")
    return found


def read_truck(text: str) -> list[dict[str, Any]]:
    """What is on the truck from CSV, as edits. Raises LevelRunError that names the row."""
    return [
        {"op": "have", "item": row["item"], "amount": _number(number, row, "amount", None),
         "remarks": row.get("why", "")}
        for number, row in _rows(text, ("item", "amount"), TRUCK)
    ]  # fmt: skip


def _rows(text: str, wanted: Sequence[str], known: Sequence[str]) -> list[tuple[int, dict[str, str]]]:
    reader = csv.DictReader(io.StringIO(text.lstrip("\ufeff")))
    columns = [name.strip().lower() for name in reader.fieldnames or ()]
    missing = [name for name in wanted if name not in columns]
    if missing:
        raise LevelRunError(
            f"row 1: columns {', '.join(columns) or 'none'}; wanted: {', '.join(wanted)}, and where known "
            f"{', '.join(name for name in known if name not in wanted)}",
            key="file", value=", ".join(columns)[:200], allowed=list(known),
        )  # fmt: skip
    found = []
    for number, row in enumerate(reader, start=2):
        cells = {name.strip().lower(): (value or "").strip() for name, value in row.items() if isinstance(name, str)
                 and (value is None or isinstance(value, str))}  # fmt: skip
        cells = {name: value[1:] if value[:2] in ("'=", "'+", "'-", "'@") else value for name, value in cells.items()}
        if any(cells.values()):
            found.append((number, cells))
        if len(found) > MOST_ROWS:
            raise LevelRunError(f"row {number}: a file has {MOST_ROWS} rows at most", key="file")
    return found


def _number(number: int, row: dict[str, str], key: str, usual: float | None) -> float:
    said = row.get(key, "").replace("$", "").replace(",", "")
    if not said and usual is not None:
        return usual
    try:
        value = float(said)
    except ValueError:
        value = float("nan")
    if not 0 <= value < 1e6 or (usual is None and value <= 0):
        raise LevelRunError(
            f"row {number}: {key} {row.get(key, '')!r}; allowed: a number over 0", key=f"rows.{number}.{key}",
            value=row.get(key, ""), allowed=["a number over 0"],
        )  # fmt: skip
    return value
