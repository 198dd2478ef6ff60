"""Buying as it is shown: rows shelf by shelf, coils and sticks as bars with their cuts, where each thing goes."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.buying.items import SHELF_NAMES
from levelrun.core.buying.ordering import Bar, Bought, Order, needed
from levelrun.core.buying.planned import Buying
from levelrun.core.buying.prices import Offer
from levelrun.core.buying.rules import amount_text
from levelrun.core.buying.ticks import Ticked, latest
from levelrun.core.findings import Finding, worst
from levelrun.core.job import Purchase
from levelrun.core.measure import show, show_inches
from levelrun.core.ways.pull_list import letters_of

GUESS_FT = 250.0  # the coil that is bought by guess


@dataclass(frozen=True, kw_only=True)
class BuyRow:
    """A row of the list: its shelf, how much, in which packs, dollars before tax, its verdict, its last tick."""

    item: str
    title: str
    shelf: str
    amount: str
    packs: str
    dollars: float | None
    verdict: str
    state: str


@dataclass(frozen=True, kw_only=True)
class CutOn:
    """A cut on its bar: where it begins, how long, what is written on it, and the hop that it is for."""

    from_: float
    long: float
    label: str
    text: str
    circuit: str
    box: str


@dataclass(frozen=True, kw_only=True)
class CutBar:
    """A coil or a stick with its cuts. count: so many alike."""

    length: float
    title: str
    price: str
    left: float
    left_text: str
    have: bool
    cuts: list[CutOn]


@dataclass(frozen=True, kw_only=True)
class CutSheet:
    """One kind of cable, wire or pipe with all its coils or sticks. unit ft or in; note: what is bought and whether
    it is proven; guess: what one coil bought by guess would lack; lacking: what is said to be bought lacks."""

    item: str
    title: str
    unit: str
    note: str
    proven: bool
    bars: list[CutBar]
    by_foot: list[CutOn]
    guess: str
    lacking: str
    verdict: str


@dataclass(frozen=True, kw_only=True)
class Place:
    """Where some of a thing goes, and why."""

    kind: str
    ident: str
    name: str
    where: str
    amount: str
    why: str


@dataclass(frozen=True, kw_only=True)
class OfferRow:
    """What a pack costs at a supplier. each: dollars of a foot or piece; said: by the shop, else the figure that
    ships; taken: it is bought so."""

    supplier: str
    pack: float
    pack_text: str
    unit: str
    dollars: float
    each: float
    said: bool
    on: str
    out: bool
    days: int
    taken: bool


@dataclass(frozen=True, kw_only=True)
class BuyItem:
    """One thing whole: how it is bought, where each goes, what it costs where, its ticks, what is said of it."""

    row: BuyRow
    unit: str
    priced_as: str
    instead: str
    by_foot: bool
    needed_on: str
    due_on: str
    said: str
    had: str
    lacking: str
    left: str
    places: list[Place]
    more_places: int
    offers: list[OfferRow]
    ticks: list[Purchase]
    findings: list[Finding]


@dataclass(frozen=True, kw_only=True)
class ShelfSum:
    """A shelf with what it comes to."""

    shelf: str
    name: str
    count: int
    text: str
    dollars: float
    verdict: str


MOST_PLACES = 80


def state_of(order: Order, ticks: Mapping[Ticked, Purchase]) -> str:
    """How far a row is: as its packs are, the least far of them."""
    packs: list[tuple[str, float]] = [(one.supplier, one.pack) for one in order.bought] or [("", 1.0)]
    states = [
        ticks[key].state if (key := (order.row.item.key, supplier, pack)) in ticks else "open"
        for supplier, pack in packs
    ]
    return min(states, key=("open", "returned", "bought", "received").index)


def pack_text(one: Bought) -> str:
    """So many packs: 2 × 250′, 3 × 10."""
    if one.unit == "ft":
        return show(one.count * 12) if one.pack == 1 else f"{one.count} × {show(one.pack * 12)}"
    return f"{one.count}" if one.pack == 1 else f"{one.count} × {one.pack:g}"


def rows_of(buying: Buying, said: Mapping[str, Sequence[Finding]]) -> list[BuyRow]:
    """Every row, shelf by shelf."""
    ticks = latest(buying.job)
    return [row_of(order, said.get(order.row.item.key, ()), ticks) for order in buying.orders]


def row_of(order: Order, said: Sequence[Finding], ticks: Mapping[Ticked, Purchase]) -> BuyRow:
    """One row."""
    item = order.row.item
    return BuyRow(
        item=item.key, title=item.title, shelf=item.shelf, amount=amount_text(order),
        packs=" + ".join(pack_text(one) for one in order.bought), dollars=order.dollars, verdict=worst(said),
        state=state_of(order, ticks),
    )  # fmt: skip


def said_by_item(findings: Iterable[Finding]) -> dict[str, list[Finding]]:
    """Findings about rows, by row."""
    found: dict[str, list[Finding]] = {}
    for item in findings:
        if item.about == "item":
            found.setdefault(item.subject, []).append(item)
    return found


def shelves_of(buying: Buying, rows: Sequence[BuyRow]) -> list[ShelfSum]:
    """The money, shelf by shelf."""
    found: list[ShelfSum] = []
    for shelf, name in SHELF_NAMES.items():
        own = [(order, row) for order, row in zip(buying.orders, rows, strict=True) if row.shelf == shelf]
        if not own:
            continue
        verdicts = {row.verdict for _, row in own}
        count = sum(int(order.count) if not order.item.cut else _coils(order) for order, _ in own)
        feet = sum(one.count for order, _ in own for one in order.bought if one.unit == "ft" and one.pack == 1)
        found.append(
            ShelfSum(
                shelf=shelf, name=name, count=len(own), text=_counted(shelf, count, feet),
                dollars=sum(order.dollars or 0.0 for order, _ in own),
                verdict="stop" if "stop" in verdicts else "check" if "check" in verdicts else "fine",
            )
        )  # fmt: skip
    return found


def _coils(order: Order) -> int:
    return sum(one.count for one in order.bought if one.pack > 1)


def _counted(shelf: str, count: int, feet: int) -> str:
    word = {"cable": "coil", "wire": "coil", "pipe": "stick"}.get(shelf, "")
    if not word:
        return f"{count}"
    parts = [f"{count} {word}{'s' * (count != 1)}"] if count else []
    return ", ".join([*parts, f"{_feet(feet)}"] if feet else parts)


def sheets_of(buying: Buying, labels: Mapping[str, str], shelf: str, rows: Sequence[BuyRow]) -> list[CutSheet]:
    """Everything of a shelf that is cut, each with its bars."""
    letters = letters_of(buying.job, labels)
    return [
        _sheet(order, letters, row)
        for order, row in zip(buying.orders, rows, strict=True)
        if row.shelf == shelf and (order.item.cut or order.item.stick_in)
    ]


def _sheet(order: Order, letters: Mapping[tuple[str, str], str], row: BuyRow) -> CutSheet:
    unit = "in" if order.item.stick_in else "ft"
    bars = [_bar(order, bar, letters, unit) for bar in order.bars]
    by_foot = [_cut(order, i, 0.0, letters, unit) for i in order.by_foot]
    left = sum(bar.left for bar in order.bars if not bar.have)
    if unit == "ft":
        packs = [f"{one.pack:g}" for one in order.bought if one.pack > 1 for _ in range(min(one.count, 6))]
        coils = f"{' + '.join(packs)} ft coil{'s' * (len(packs) > 1)}" if packs else ""
        parts = [coils, f"{_feet(sum(c.long for c in by_foot))} by the foot"
                 if by_foot else "", f"{_feet(left)} left" if left > 0.4 else ""]  # fmt: skip
    else:
        parts = [f"{show_inches(round(left))} left in all"]
    proof = "proved: no cheaper set" if unit == "ft" else "proved: no fewer do"
    if not order.proven:
        proof = f"none can be under ${order.bound:,.2f}" if unit == "ft" else f"{order.bound:g} or more"
    if order.want is not None and order.want.packs:
        proof = "as the list says"
    parts.append(proof if order.dollars is not None and (bars or by_foot) else "")
    return CutSheet(
        item=order.row.item.key, unit=unit, verdict=row.verdict, proven=order.proven,
        title=_titled(order, row.amount, unit),
        note=" · ".join(part for part in parts if part), bars=bars, by_foot=by_foot, guess=_guess(order),
        lacking=f"short by {_feet(order.short)}" if order.short > 1e-6 else "",
    )  # fmt: skip


def _titled(order: Order, amount: str, unit: str) -> str:
    cuts = len(order.row.lines)
    many = f"{cuts} {'piece' if unit == 'in' else 'cut'}{'s' * (cuts != 1)}"
    name = order.row.item.key
    return f"{name.removesuffix(' stick')}: {many} from {amount}" if unit == "in" else f"{name}: {amount} in {many}"


def _guess(order: Order) -> str:
    """What the one coil lacks that is bought by guess, where the cuts are several."""
    told = order.want is not None and (order.want.packs or order.want.by_foot)
    if not order.item.cut or order.item.shelf != "cable" or told or len(order.row.cuts) < 2:
        return ""
    lacks = needed(order.row.cuts, (GUESS_FT,))
    if lacks < 1:
        return ""
    return f"One {_feet(GUESS_FT)} coil, bought by guess, would be short by {_feet(lacks)}."


def _bar(order: Order, bar: Bar, letters: Mapping[tuple[str, str], str], unit: str) -> CutBar:
    at, cuts = 0.0, []
    for number in bar.cuts:
        cuts.append(_cut(order, number, at, letters, unit))
        at += order.row.cuts[number]
    price = "on the truck" if bar.have else f"${bar.price:,.0f}" if bar.price else ""
    return CutBar(
        length=bar.length, title=_long(bar.length, unit), price=price, left=bar.left,
        left_text=f"{_long(bar.left, unit)} left" if bar.left > 0.4 else "", have=bar.have, cuts=cuts,
    )  # fmt: skip


def _cut(order: Order, number: int, at: float, letters: Mapping[tuple[str, str], str], unit: str) -> CutOn:
    line = order.row.lines[number]
    label = letters.get(line.hop, line.at.name) if unit == "ft" else line.at.name
    return CutOn(
        from_=at, long=line.amount, label=label, text=_long(line.amount, unit), circuit=line.hop[0], box=line.hop[1]
    )  # fmt: skip


def _long(value: float, unit: str) -> str:
    return _feet(value) if unit == "ft" else show_inches(round(value * 8) / 8)


def _feet(value: float) -> str:
    return show(round(value * 12))


def item_of(buying: Buying, key: str, said: Mapping[str, list[Finding]]) -> BuyItem | None:
    """One row whole; None where there is none of that name."""
    order = next((one for one in buying.orders if one.row.item.key == key), None)
    if order is None:
        return None
    own = said.get(key, [])
    want = order.want
    lines = order.row.lines
    offers = buying.prices.of(order.item) or buying.prices.of(order.row.item)
    taken = {(one.supplier, one.pack) for one in order.bought}
    return BuyItem(
        row=row_of(order, own, latest(buying.job)), unit=order.item.unit, priced_as=order.item.price_key,
        instead=want.instead if want else "", by_foot=want.by_foot if want else False,
        needed_on=want.needed_on if want else "", due_on=want.due_on if want else "",
        said=_said(order), had=f"{order.had:g}{'′' if order.item.cut else ''} on the truck" if order.had else "",
        lacking=_lacking(order),
        left=f"{_feet(order.feet_left)} left" if order.item.cut and order.feet_left > 0.4 else "",
        places=[_place(order, index) for index in range(min(len(lines), MOST_PLACES))],
        more_places=max(len(lines) - MOST_PLACES, 0),
        offers=[_offer(offer, (offer.supplier, offer.pack) in taken) for offer in offers],
        ticks=[tick for tick in buying.job.purchases if tick.item == key], findings=own,
    )  # fmt: skip


def _lacking(order: Order) -> str:
    return f"${order.short_dollars:,.0f} of it for the {_feet(order.short)} that are short" if order.short else ""


def _said(order: Order) -> str:
    want = order.want
    if want is None:
        return "as is cheapest"
    parts = [
        " + ".join(f"{pack.count} × {pack.size:g}" for pack in want.packs), "by the foot" if want.by_foot else "",
        f"at the {want.supplier}" if want.supplier else "", f"{want.instead} instead" if want.instead else "",
    ]  # fmt: skip
    return ", ".join(part for part in parts if part) or "as is cheapest"


def _place(order: Order, index: int) -> Place:
    line = order.row.lines[index]
    at, item = line.at, order.row.item
    if item.stick_in:
        amount = show_inches(round(line.amount * 8) / 8)
    else:
        amount = _feet(line.amount) if item.cut else f"{line.amount:g}"
    where = ", ".join(part for part in (at.room, at.structure) if part)
    return Place(kind=at.kind, ident=at.ident, name=at.name, where=where, amount=amount, why=line.why)


def _offer(offer: Offer, taken: bool) -> OfferRow:
    text = "by the foot" if offer.pack == 1 and offer.unit == "ft" else f"{offer.pack:g}"
    text += "′" if offer.unit == "ft" and offer.pack != 1 else ""
    return OfferRow(
        supplier=offer.supplier, pack=offer.pack, pack_text=text if text != "1" else "each", unit=offer.unit,
        dollars=offer.dollars, each=offer.each, said=offer.said, on=offer.on, out=offer.out, days=offer.days,
        taken=taken,
    )  # fmt: skip
