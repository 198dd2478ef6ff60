"""How each row of a take-off is bought: from which supplier, in which packs, what it costs, what is left over."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from levelrun.core.buying.items import Item
from levelrun.core.buying.prices import Offer, PriceBook, bagged
from levelrun.core.buying.takeoff import Row, TakeOff
from levelrun.core.buying.ticks import bought_of, latest
from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Job, Purchase, Stock, Want
from levelrun.core.trade.coils import Coil, CoilPlan, coil_plan
from levelrun.core.trade.pipe.sticks import packed

FREE = ("call for utility marks",)
SHORT = 1e-6


@dataclass(frozen=True, kw_only=True)
class Bought:
    """So many packs of one size from a supplier."""

    supplier: str
    pack: float
    unit: str
    count: int
    dollars: float
    said: bool = False
    on: str = ""

    @property
    def total(self) -> float:
        """Dollars of all of them."""
        return self.dollars * self.count


@dataclass(frozen=True, kw_only=True)
class Bar:
    """A coil or stick with what is cut from it, longest first: numbers of the row's lines. left: feet or inches.
    have: it was there already. supplier: empty for that."""

    length: float
    price: float
    cuts: tuple[int, ...]
    left: float
    have: bool = False


@dataclass(frozen=True, kw_only=True, eq=False)
class Order:
    """A row as it is bought. count: pieces, feet or sticks to have in all; dollars before tax, None where something
    of it has no price. bars: coils or sticks with their cuts; by_foot: cuts from a shop's reel. short: feet of cuts
    that what is said to be bought does not hold,
    and what they cost on top (in `dollars`).
    out_days: how long what is not on the shelf takes."""

    row: Row
    item: Item
    count: float
    bought: tuple[Bought, ...]
    bars: tuple[Bar, ...]
    by_foot: tuple[int, ...]
    dollars: float | None
    proven: bool
    bound: float
    had: float = 0.0
    short: float = 0.0
    short_dollars: float = 0.0
    long: tuple[int, ...] = ()
    out_days: int = 0
    want: Want | None = None

    @property
    def each(self) -> float:
        """Dollars of one foot, piece or inch that goes in."""
        amount = self.row.amount
        return (self.dollars or 0.0) / amount if amount else 0.0

    @property
    def feet_left(self) -> float:
        """What is left of bought coils, feet."""
        return sum(bar.left for bar in self.bars if not bar.have)


def orders_of(job: Job, book: Codebook, taken: TakeOff, prices: PriceBook) -> list[Order]:
    """Every row as it is bought, by what is said of it, else the cheapest."""
    wants = {want.item: want for want in job.wants}
    stock: dict[str, list[Stock]] = {}
    for item in job.stock:
        stock.setdefault(item.item, []).append(item)
    held = bought_of(latest(job).values())
    return [_with_held(job, book, row, prices, (wants, stock, held)) for row in taken.rows.values()]


Said = tuple[Mapping[str, Want], Mapping[str, Sequence[Stock]], Mapping[str, Sequence[Purchase]]]


def _with_held(job: Job, book: Codebook, row: Row, prices: PriceBook, said: Said) -> Order:
    """One row with what was bought of it already: that is there, and stays where and at what it was bought, whatever
    is cheapest since; the rest is bought beside it."""
    wants, stock, held = said
    own = held.get(row.item.key, ())
    if not own:
        return order_of(job, book, row, prices, wants, stock)
    feet = row.item.cut
    there = [
        Stock(id=f"{tick.id}-{n}", item=row.item.key, amount=tick.pack if feet and tick.pack > 1 else
              tick.amount * tick.pack)
        for tick in own
        for n in range(int(tick.amount) if feet and tick.pack > 1 else 1)
    ]  # fmt: skip
    free = {key: want for key, want in wants.items() if key != row.item.key or not want.packs}
    found = order_of(job, book, row, prices, free, {row.item.key: [*stock.get(row.item.key, ()), *there]})
    bought = tuple(_ticked(tick, row.item, prices) for tick in own)
    spent = sum(one.total for one in bought)
    lengths = [part.amount for part in there]
    bars = []
    for bar in found.bars:
        ours = bar.have and bar.length in lengths
        if ours:
            lengths.remove(bar.length)
        bars.append(replace(bar, have=False) if ours else bar)
    had = sum(part.amount for part in stock.get(row.item.key, ()))
    return replace(
        found, bought=(*bought, *found.bought), dollars=None if found.dollars is None else found.dollars + spent,
        bars=tuple(bars), had=min(found.had, had), want=wants.get(row.item.key),
    )  # fmt: skip


def _ticked(tick: Purchase, item: Item, prices: PriceBook) -> Bought:
    """What was bought, at what was paid for it, else at its price."""
    known = next((o.dollars for o in prices.of(item, tick.supplier) if o.pack == tick.pack), 0.0)
    dollars = tick.paid / tick.amount if tick.paid is not None else known
    return Bought(
        supplier=tick.supplier, pack=tick.pack, unit=item.unit, count=int(tick.amount), dollars=dollars, said=True,
        on=tick.at[:10],
    )  # fmt: skip


def order_of(
    job: Job, book: Codebook, row: Row, prices: PriceBook, wants: Mapping[str, Want],
    stock: Mapping[str, Sequence[Stock]],
) -> Order:  # fmt: skip
    """One row as it is bought."""
    want = wants.get(row.item.key) or wants.get(row.item.price_key)
    item = replace(row.item, key=want.instead, priced_as="") if want is not None and want.instead else row.item
    if (fee := _fee(job, book, row)) is not None:
        return _plain(row, item, row.amount, fee)
    offers, days = _on_sale(prices.of(item, (want.supplier if want else "") or job.habits.buying.supplier))
    if not offers and not (want and want.supplier):
        offers, days = _on_sale(prices.of(item))
    have = tuple(part.amount for part in stock.get(row.item.key, ()))
    if item.cut:
        found = _coils(row, item, offers, have, want)
    elif item.stick_in:
        found = _sticks(row, item, offers, have)
    else:
        found = _counted(row, item, offers, have)
    return replace(found, out_days=days, want=want)


def _fee(job: Job, book: Codebook, row: Row) -> float | None:
    """Dollars of what no supplier sells."""
    if row.item.key in FREE:
        return 0.0
    if row.item.key == "permit":
        return job.habits.buying.permit_dollars
    return book.number("machine_day_dollars") * row.amount if row.item.key == "trencher, a day" else None


def _plain(row: Row, item: Item, count: float, dollars: float | None) -> Order:
    return Order(
        row=row, item=item, count=count, bought=(), bars=(), by_foot=(), dollars=dollars, proven=True,
        bound=dollars or 0.0,
    )  # fmt: skip


def _on_sale(offers: Iterable[Offer]) -> tuple[tuple[Offer, ...], int]:
    """What is on the shelf; where nothing is, what can be had later, and in how many days."""
    own = tuple(offers)
    here = tuple(offer for offer in own if not offer.out)
    return (here, 0) if here or not own else (own, min(offer.days for offer in own))


@lru_cache(maxsize=2048)
def _cheapest(offers: tuple[Offer, ...]) -> tuple[Offer, ...]:
    """Of packs of one size the cheapest."""
    best: dict[float, Offer] = {}
    for offer in offers:
        if offer.pack not in best or offer.dollars < best[offer.pack].dollars:
            best[offer.pack] = offer
    return tuple(best.values())


CoilQuestion = tuple[tuple[float, ...], tuple[Coil, ...], float | None, tuple[float, ...]]


def question_of(job: Job, prices: PriceBook, order: Order) -> CoilQuestion:
    """What is asked of the search for coils of a row: cuts, coils, the price of a foot, what is on the truck."""
    supplier = (order.want.supplier if order.want else "") or job.habits.buying.supplier
    offers, _ = _on_sale(prices.of(order.item, supplier))
    if not offers:
        offers, _ = _on_sale(prices.of(order.item))
    coils, foot = coils_for(offers, order.want)
    have = tuple(part.amount for part in job.stock if part.item == order.row.item.key)
    long = set(order.long)
    return tuple(cut for i, cut in enumerate(order.row.cuts) if i not in long), coils, foot, have


def coils_for(offers: tuple[Offer, ...], want: Want | None) -> tuple[tuple[Coil, ...], float | None]:
    """Coils to choose from, and the price of a foot from a shop's reel where it is sold so: only that where it is
    said so, only the packs that are said where some are."""
    best = _cheapest(offers)
    foot = next((offer.dollars for offer in best if offer.pack == 1), None)
    if want is not None and want.by_foot and foot is not None:
        return (), foot
    return tuple(Coil(offer.pack, offer.dollars) for offer in best if offer.pack > 1), foot


def _coils(row: Row, item: Item, offers: tuple[Offer, ...], have: tuple[float, ...], want: Want | None) -> Order:
    cuts = row.cuts
    if want is not None and want.packs:
        return _said(row, item, offers, have, want)
    coils, foot = coils_for(offers, want)
    most = max([c.length_ft for c in coils] + list(have), default=0.0)
    long = tuple(i for i, cut in enumerate(cuts) if foot is None and cut > most + SHORT)
    if not offers or len(long) == len(cuts):
        return replace(_plain(row, item, row.amount, None), long=long if offers else ())
    own = [i for i in range(len(cuts)) if i not in long]
    plan = coil_plan(tuple(cuts[i] for i in own), coils, foot, have)
    return replace(coiled(row, item, offers, plan, own), long=long)


def coiled(row: Row, item: Item, offers: tuple[Offer, ...], plan: CoilPlan, own: Sequence[int]) -> Order:
    """A row bought as a plan of coils says. own: the line of each cut of the plan."""
    best = {offer.pack: offer for offer in _cheapest(offers)}
    many: dict[float, int] = {}
    for coil in plan.coils:
        if not coil.have:
            many[coil.length_ft] = many.get(coil.length_ft, 0) + 1
    bought = [_bought(best[length], count) for length, count in many.items()]
    by_foot = tuple(own[i] for i in plan.by_foot)
    if by_foot:
        bought.append(_bought(best[1.0], math.ceil(sum(row.cuts[i] for i in by_foot))))
    return Order(
        row=row, item=item, count=row.amount, bought=tuple(bought),
        bars=tuple(
            Bar(length=coil.length_ft, price=coil.price, cuts=tuple(own[i] for i in coil.cuts), left=coil.left_ft,
                have=coil.have)
            for coil in plan.coils
        ),
        by_foot=by_foot, dollars=round(sum(item.total for item in bought), 2), proven=plan.proven, bound=plan.bound,
        had=sum(coil.length_ft - coil.left_ft for coil in plan.coils if coil.have),
    )  # fmt: skip


def _bought(offer: Offer, count: int) -> Bought:
    return Bought(
        supplier=offer.supplier, pack=offer.pack, unit=offer.unit, count=count, dollars=offer.dollars,
        said=offer.said, on=offer.on,
    )  # fmt: skip


def _said(row: Row, item: Item, offers: tuple[Offer, ...], have: tuple[float, ...], want: Want) -> Order:
    """The packs that the list says, and how much of the cuts they do not hold: each cut whole, the longest packing
    that is found."""
    best = {offer.pack: offer for offer in _cheapest(offers)}
    bought = tuple(
        _bought(best[pack.size], pack.count) if pack.size in best
        else Bought(supplier="", pack=pack.size, unit="ft", count=pack.count, dollars=0.0)
        for pack in want.packs
    )  # fmt: skip
    sizes = tuple(pack.size for pack in want.packs for _ in range(pack.count))
    plan = _into(row.cuts, (*have, *sizes))
    lacking = sum(row.cuts[i] for i in plan.by_foot)
    known = all(pack.size in best for pack in want.packs)
    rest = _rest(tuple(row.cuts[i] for i in plan.by_foot), offers)
    spare = list(have)
    bars = []
    for coil in plan.coils:
        had = coil.length_ft in spare
        if had:
            spare.remove(coil.length_ft)
        offer = best.get(coil.length_ft)
        price = 0.0 if had or offer is None else offer.dollars
        bars.append(Bar(length=coil.length_ft, price=price, cuts=coil.cuts, left=coil.left_ft, have=had))
    said = round(sum(one.total for one in bought), 2)
    dollars = round(said + rest, 2) if known and rest is not None else None
    return Order(
        row=row, item=item, count=row.amount, bought=bought, bars=tuple(bars), by_foot=(), dollars=dollars,
        proven=plan.proven, bound=dollars or 0.0, short=lacking, short_dollars=rest or 0.0,
    )  # fmt: skip


def _rest(cuts: tuple[float, ...], offers: tuple[Offer, ...]) -> float | None:
    """What the cuts that are not held cost on top, so that no total is too low; None where nobody sells them."""
    if not cuts:
        return 0.0
    coils, foot = coils_for(offers, None)
    try:
        return coil_plan(cuts, coils, foot).cost
    except LevelRunError:
        return None


@lru_cache(maxsize=512)
def _into(cuts: tuple[float, ...], coils: tuple[float, ...]) -> CoilPlan:
    """As many feet of cuts as some coils hold: what does not go in would be bought at a dollar a foot."""
    return coil_plan(cuts, (), 1.0, coils)


def needed(cuts: tuple[float, ...], coils: tuple[float, ...]) -> float:
    """Feet of cuts that some coils do not hold."""
    if not coils:
        return sum(cuts)
    return sum(cuts[i] for i in _into(cuts, coils).by_foot)


def _sticks(row: Row, item: Item, offers: tuple[Offer, ...], have: tuple[float, ...]) -> Order:
    """Sticks over the whole job. What is on the truck is whole sticks."""
    try:
        plan = packed(tuple(round(piece, 4) for piece in row.cuts), item.stick_in)
    except LevelRunError:
        return _plain(row, item, row.amount / item.stick_in, None)
    had = min(int(sum(have)), len(plan.sticks))
    count = len(plan.sticks) - had
    bags = bagged(count, offers)
    bars = tuple(
        Bar(length=item.stick_in, price=0.0, cuts=cuts, left=left)
        for cuts, left in zip(plan.sticks, plan.left_in, strict=True)
    )
    return Order(
        row=row, item=item, count=len(plan.sticks),
        bought=tuple(_bought(o, n) for o, n in bags.packs) if bags else (), bars=bars, by_foot=(),
        dollars=bags.dollars if bags else None, proven=plan.proven, bound=plan.bound, had=float(had),
    )  # fmt: skip


def _counted(row: Row, item: Item, offers: tuple[Offer, ...], have: tuple[float, ...]) -> Order:
    count = math.ceil(row.amount - SHORT)
    had = min(sum(have), count)
    bags = bagged(math.ceil(count - had), offers)
    found = _plain(row, item, count, bags.dollars if bags else None)
    return replace(found, bought=tuple(_bought(o, n) for o, n in bags.packs) if bags else (), had=had)
