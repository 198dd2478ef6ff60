"""The list as a supply house fills it: by supplier, in the order of shelves, each row with its ticks; what goes back
to the truck when the job is done."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from levelrun.core.buying.items import SHELF_NAMES
from levelrun.core.buying.ordering import Bought, Order
from levelrun.core.buying.planned import Buying
from levelrun.core.buying.shown import pack_text
from levelrun.core.buying.ticks import Ticked, latest
from levelrun.core.job import Purchase

NOBODY = "nobody sells it"
FREE = "asked for"


@dataclass(frozen=True, kw_only=True)
class ListRow:
    """A row of the list: what, how many packs of which size at which price, for which places, what was ticked."""

    item: str
    key: str
    priced_as: str
    shelf: str
    supplier: str
    count: int
    pack: float
    unit: str
    packs: str
    each: float
    dollars: float | None
    places: str
    state: str
    ticks: list[Purchase]


@dataclass(frozen=True, kw_only=True)
class SupplierList:
    """All that is bought at one supplier. dollars: before tax."""

    supplier: str
    rows: list[ListRow]
    dollars: float


@dataclass(frozen=True, kw_only=True)
class TruckRow:
    """What is on the truck after the job: feet of a leftover, or pieces that were not used."""

    item: str
    amount: float
    unit: str
    why: str


def lists_of(buying: Buying) -> list[SupplierList]:
    """The list by supplier."""
    ticks = latest(buying.job)
    by: dict[str, list[ListRow]] = {}
    for order in buying.orders:
        own = [tick for tick in buying.job.purchases if tick.item == order.row.item.key]
        for row in _rows(order, ticks, own):
            by.setdefault(row.supplier, []).append(row)
    last = (FREE, NOBODY)
    names = sorted(by, key=lambda name: (name in last, name))
    return [
        SupplierList(supplier=name, rows=by[name], dollars=round(sum(row.dollars or 0.0 for row in by[name]), 2))
        for name in names
    ]


def _rows(order: Order, held: Mapping[Ticked, Purchase], ticks: list[Purchase]) -> list[ListRow]:
    item, asked = order.row.item, order.want.instead if order.want else ""
    if not order.bought and order.had and order.dollars == 0:
        return []
    supplier = NOBODY if order.dollars is None else FREE
    plain = Bought(supplier=supplier, pack=1.0, unit=item.unit, count=int(order.count), dollars=0.0)
    found: list[ListRow] = []
    for one in order.bought or (plain,):
        sold = one is not plain
        key = (one.supplier if sold else "", one.pack)
        tick = held.get((item.key, *key))
        found.append(
            ListRow(
                item=f"{asked} (for {item.title})" if asked else item.title, key=item.key,
                priced_as=order.item.price_key, shelf=SHELF_NAMES[item.shelf], supplier=one.supplier or NOBODY,
                count=one.count, pack=one.pack, unit=one.unit, packs=pack_text(one), each=one.dollars,
                dollars=round(one.total, 2) if sold else order.dollars, places=_places(order),
                state=tick.state if tick else "open",
                ticks=[own for own in ticks if (own.supplier, own.pack) == key],
            )
        )  # fmt: skip
    return found


def _places(order: Order) -> str:
    names = list(dict.fromkeys(line.at.name for line in order.row.lines))
    more = f" and {len(names) - 4} more" if len(names) > 4 else ""
    return ", ".join(names[:4]) + more


def truck_after(buying: Buying) -> list[TruckRow]:
    """What is on the truck once all is cut: what was not used, and leftovers that are long enough to keep."""
    least = buying.job.habits.buying.leftover_ft
    found: list[TruckRow] = []
    used: dict[str, float] = {}
    for order in buying.orders:
        key = order.row.item.key
        if order.item.cut:
            for bar in order.bars:
                if bar.left >= least:
                    found.append(TruckRow(item=key, amount=float(int(bar.left)), unit="ft", why="left of a coil"))
                if bar.have:
                    used[f"{key} {bar.length:g}"] = used.get(f"{key} {bar.length:g}", 0) + 1
        else:
            used[key] = order.had
            spare = sum(one.count * one.pack for one in order.bought) + order.had - order.count
            if spare >= 1 and order.bought:
                found.append(TruckRow(item=key, amount=float(int(spare)), unit="each", why="left of a pack"))
    for part in buying.job.stock:
        piece = f"{part.item} {part.amount:g}"
        if used.get(piece, 0) > 0:
            used[piece] -= 1
        elif used.get(part.item, 0) > 0:
            left = max(part.amount - used[part.item], 0.0)
            used[part.item] = max(used[part.item] - part.amount, 0.0)
            if left:
                found.append(TruckRow(item=part.item, amount=left, unit="each", why="not used"))
        else:
            found.append(TruckRow(item=part.item, amount=part.amount, unit="", why="not used"))
    return found
