"""The price desk of a supply house. `PriceDesk` is what a desk must do; `SimulatedPriceDesk` answers as one would:
some things are out and come later, some are another price today, of some it offers another."""

from __future__ import annotations

import zlib
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Protocol

OUT_OF = 12  # one of so many things is out
LONGEST_DAYS = 21


@dataclass(frozen=True, kw_only=True)
class Asked:
    """What is asked for: a pack of a thing at a supplier, and the price known of it."""

    item: str
    supplier: str
    pack: float
    unit: str
    dollars: float


@dataclass(frozen=True, kw_only=True)
class Quote:
    """What a desk answers. dollars: of the pack today; out: not on the shelf, `days` until it is; instead: what it
    offers in its place, empty for nothing."""

    item: str
    supplier: str
    pack: float
    unit: str
    dollars: float
    out: bool
    days: int
    instead: str
    on: date
    desk: str
    simulated: bool


class PriceDesk(Protocol):
    """A desk that tells prices."""

    def ask(self, rows: Sequence[Asked], on: date) -> list[Quote]:
        """A quote for each row."""


class SimulatedPriceDesk:
    """By thing and day: within 9 % of the known price; about one thing in twelve is out for some days."""

    def ask(self, rows: Sequence[Asked], on: date) -> list[Quote]:
        """Quotes as a desk would give them."""
        return [self._quote(row, on) for row in rows]

    def _quote(self, row: Asked, on: date) -> Quote:
        dice = zlib.crc32(f"{row.item}|{row.supplier}|{on:%Y%m}".encode())
        change = (dice % 19 - 9) / 100
        out = dice // 19 % OUT_OF == 0
        return Quote(
            item=row.item, supplier=row.supplier, pack=row.pack, unit=row.unit,
            dollars=max(round(row.dollars * (1 + change), 2), 0.01), out=out,
            days=3 + dice // 300 % (LONGEST_DAYS - 2) if out else 0,
            instead=_another(row.item) if out else "", on=on, desk="supply-house price desk", simulated=True,
        )  # fmt: skip


def _another(item: str) -> str:
    """What a desk would offer in its place: the next deeper box, a fitting of the next kind. Empty for nothing."""
    return {
        "box single-18": "box single-20", "box single-20": "box single-22", "box double-32": "box double-42",
        "small twist-on connector": "medium twist-on connector", "blank cover 1-gang": "gasketed blank cover 1-gang",
    }.get(item, "")  # fmt: skip
