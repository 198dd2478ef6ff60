"""The buying list as XLSX, a sheet a supplier, with formulas and their values; and as CSV."""

from __future__ import annotations

import io
import re
from collections.abc import Sequence
from typing import Any

import xlsxwriter

from levelrun.core.buying.budget import Money
from levelrun.core.buying.listed import ListRow, SupplierList
from levelrun.exchange.sheet import RISKY, as_csv

HEAD = ("Shelf", "What", "Packs of", "Unit", "How many", "$ a pack", "$", "Ticked", "Goes to")
WIDTHS = (18, 42, 10, 8, 10, 10, 12, 10, 48)
CSV_HEAD = ("supplier", "shelf", "what", "pack", "unit", "count", "dollars_a_pack", "dollars", "ticked", "goes_to")


def write_list_csv(lists: Sequence[SupplierList]) -> str:
    """The whole list with a head row."""
    rows = [
        (one.supplier, row.shelf, row.item, f"{row.pack:g}", row.unit, f"{row.count}", f"{row.each:.2f}",
         "" if row.dollars is None else f"{row.dollars:.2f}", row.state, row.places)
        for one in lists
        for row in one.rows
    ]  # fmt: skip
    return as_csv(CSV_HEAD, rows)


def write_list(name: str, lists: Sequence[SupplierList], money: Money, tax_percent: float) -> bytes:
    """The list as a workbook: a sheet a supplier in the order of shelves, each with its sum; a first sheet with the
    sums, tax, and all of it. Every formula carries its value, so that a preview without a spreadsheet shows it."""
    stream = io.BytesIO()
    book = xlsxwriter.Workbook(stream, {"in_memory": True, "strings_to_formulas": False, "strings_to_urls": False})
    bold, cash = book.add_format({"bold": True}), book.add_format({"num_format": "#,##0.00"})
    total = book.add_format({"bold": True, "num_format": "#,##0.00", "top": 1})
    front = book.add_worksheet("Sum")
    sums: list[tuple[str, str, float]] = []
    taken: set[str] = {"sum"}
    for one in lists:
        title = _title(one.supplier, taken)
        sheet = book.add_worksheet(title)
        for column, (head, width) in enumerate(zip(HEAD, WIDTHS, strict=True)):
            sheet.write_string(0, column, head, bold)
            sheet.set_column(column, column, width)
        sheet.freeze_panes(1, 0)
        for at, row in enumerate(one.rows, start=1):
            _row(sheet, at, row, cash)
        last = len(one.rows) + 1
        sheet.write_string(last, 1, "Sum before tax", bold)
        sheet.write_formula(last, 6, f"=SUM(G2:G{last})", total, one.dollars)
        sheet.set_landscape()
        sheet.fit_to_pages(1, 0)
        sums.append((one.supplier, f"='{title}'!G{last + 1}", one.dollars))
    front.set_column(0, 0, 34)
    front.set_column(1, 1, 14)
    front.write_string(0, 0, _plain(name), bold)
    for at, (supplier, formula, value) in enumerate(sums, start=1):
        front.write_string(at, 0, _plain(supplier))
        front.write_formula(at, 1, formula, cash, value)
    end = len(sums)
    material = round(sum(value for _, _, value in sums), 2)
    front.write_string(end + 1, 0, "Material before tax", bold)
    front.write_formula(end + 1, 1, f"=SUM(B2:B{end + 1})", total, material)
    front.write_string(end + 2, 0, "Tax, %")
    front.write_number(end + 2, 1, tax_percent)
    front.write_string(end + 3, 0, "Material with tax", bold)
    front.write_formula(
        end + 3, 1, f"=ROUND(B{end + 2}*(1+B{end + 3}/100),2)", total, round(material * (1 + tax_percent / 100), 2)
    )
    front.write_string(end + 5, 0, "Hours, by habit")
    front.write_number(end + 5, 1, round(money.hours, 1))
    front.write_string(end + 6, 0, "Prices that nobody said are invented: ask before you buy.")
    book.close()
    return stream.getvalue()


def _row(sheet: Any, at: int, row: ListRow, cash: Any) -> None:
    sheet.write_string(at, 0, row.shelf)
    sheet.write_string(at, 1, _plain(row.item))
    sheet.write_number(at, 2, row.pack)
    sheet.write_string(at, 3, row.unit)
    sheet.write_number(at, 4, row.count)
    sheet.write_number(at, 5, row.each, cash)
    value = row.dollars or 0.0
    if row.each:
        sheet.write_formula(at, 6, f"=E{at + 1}*F{at + 1}", cash, value)
    else:
        sheet.write_number(at, 6, value, cash)
    sheet.write_string(at, 7, "" if row.state == "open" else row.state)
    sheet.write_string(at, 8, _plain(row.places))


def _title(supplier: str, taken: set[str]) -> str:
    """A name that a sheet may have: no mark that is not allowed, 31 letters, each once."""
    base = re.sub(r"[\[\]:*?/\\']", " ", supplier).strip()[:28] or "supplier"
    title, number = base, 2
    while title.lower() in taken:
        title, number = f"{base} {number}", number + 1
    taken.add(title.lower())
    return title


def _plain(text: str) -> str:
    """A cell that no spreadsheet reads as a formula."""
    return f"'{text}" if text.startswith(RISKY) else text
