"""Rules about what is bought: coils that hold the cuts, kinds that are sold, prices, aluminum, back orders."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from levelrun.core.boxes.joints import LISTED
from levelrun.core.buying.codes import finding
from levelrun.core.buying.items import Item
from levelrun.core.buying.ordering import Order, coils_for
from levelrun.core.buying.prices import PriceBook
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Job, Pack
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.trade.coils import coil_plan

SOLD_CUT = "common practice, no source"


@dataclass(frozen=True, eq=False)
class BuyingFacts:
    """A job with every row as it is bought."""

    book: Codebook
    job: Job
    prices: PriceBook
    orders: Sequence[Order]


def buy(item: str, **how: object) -> dict[str, object]:
    """Edit that says how a row is bought."""
    return {"op": "buy", "item": item, **how}


def packs_text(packs: Sequence[Pack]) -> str:
    """Packs as they are read aloud: 250 + 100 + 100."""
    return " + ".join(f"{pack.size:g}" for pack in packs for _ in range(pack.count))


def coil_rule(facts: BuyingFacts) -> Iterator[Finding]:
    """The packs that the list says hold every cut."""
    for order in facts.orders:
        want, item = order.want, order.row.item
        if want is None or not want.packs or order.short <= 1e-6 or not item.cut:
            continue
        said = packs_text(want.packs)
        coils = "coil" if sum(pack.count for pack in want.packs) == 1 else "coils"
        yield finding(
            "coil-short", item.key, None, f"{item.key}: {_short(order)}",
            f"The list says {said} ft in {sum(pack.count for pack in want.packs)} {coils}. The cuts come to "
            f"{show(order.row.amount * 12)}.",
            SOLD_CUT, about="item", measured=show(order.row.amount * 12), limit=f"{said} ft",
            mends=list(_enough(facts, order)),
        )  # fmt: skip


def _short(order: Order) -> str:
    return f"short by {show(order.short * 12)}"


def _enough(facts: BuyingFacts, order: Order) -> Iterator[Mend]:
    item, want = order.item, order.want
    supplier = (want.supplier if want else "") or facts.job.habits.buying.supplier
    offers = tuple(o for o in facts.prices.of(item, supplier) if not o.out) or facts.prices.of(item)
    coils, foot = coils_for(offers, None)
    have = tuple(part.amount for part in facts.job.stock if part.item in (item.key, item.price_key))
    if coils and max(order.row.cuts) <= max(coil.length_ft for coil in coils):
        plan = coil_plan(order.row.cuts, coils, None, have)
        packs = _packs([coil.length_ft for coil in plan.coils if not coil.have])
        if packs:
            yield Mend(
                f"Buy {packs_text(packs)}",
                [buy(order.row.item.key, packs=[pack.model_dump() for pack in packs], by_foot=False)],
            )
    if foot is not None:
        feet = show(order.row.amount * 12)
        yield Mend(f"By the foot, {feet}", [buy(order.row.item.key, packs=[], by_foot=True)])


def _packs(lengths: Sequence[float]) -> list[Pack]:
    return [Pack(size=size, count=lengths.count(size)) for size in sorted(set(lengths), reverse=True)]


def long_rule(facts: BuyingFacts) -> Iterator[Finding]:
    """Every cut comes off a coil that is sold."""
    for order in facts.orders:
        if not order.long:
            continue
        cut = max(order.row.cuts[i] for i in order.long)
        longest = max((o.pack for o in facts.prices.of(order.item)), default=0.0)
        yield finding(
            "cut-long", order.row.item.key, None, f"{order.row.item.key}: a cut of {show(cut * 12)}",
            f"The longest coil that is sold is {longest:g} ft, and nobody sells it by the foot.", SOLD_CUT,
            about="item", measured=show(cut * 12), limit=f"{longest:g} ft",
        )  # fmt: skip


def price_rule(facts: BuyingFacts) -> Iterator[Finding]:
    """Everything has a price; of cable, wire and pipe that means that it is sold at all."""
    for order in facts.orders:
        if order.dollars is not None or order.long:
            continue
        item = order.item
        made = item.cut or bool(item.stick_in)
        code, title = ("not-sold", "is not sold") if made else ("no-price", "has no price")
        text = "No supplier of the price book has it." if made else "The total is too low by it."
        near = _instead(facts, item) if made else []
        yield finding(
            code, order.row.item.key, None, f"{order.row.item.key} {title}", text, SOLD_CUT, about="item",
            measured=amount_text(order), mends=[
                Mend(f"Take {other}", [buy(order.row.item.key, instead=other)]) for other in near
            ],
        )  # fmt: skip


def _instead(facts: BuyingFacts, item: Item) -> list[str]:
    """Cable of the same kind with the next wires more, where it is sold."""
    size, _, kind = item.key.partition(" ")
    gauge, dash, count = size.partition("-")
    if not dash or not count.isdigit():
        return []
    other = f"{gauge}-{int(count) + 1} {kind}"
    return [other] if facts.prices.of(Item(item.shelf, other, item.unit)) else []


def amount_text(order: Order) -> str:
    """How much of a row there is, in its unit."""
    if order.row.item.cut:
        return show(order.row.amount * 12)
    if order.row.item.stick_in:
        sticks = int(order.count)
        return f"{sticks} stick{'s' * (sticks != 1)}"
    return f"{order.count:g}"


def aluminum_rule(facts: BuyingFacts) -> Iterator[Finding]:
    """Aluminum is joined only by what is listed for it."""
    for order in facts.orders:
        want = order.want
        if order.row.item.key != LISTED or want is None or not want.instead or "alumin" in want.instead.lower():
            continue
        places = ", ".join(dict.fromkeys(line.at.name for line in order.row.lines))
        yield finding(
            "fitting-al", order.row.item.key, None, f"{want.instead} on aluminum",
            f"At {places} aluminum is joined: a connector that is not listed for it loosens and heats.",
            "110.14(B)", about="item", measured=want.instead, limit="listed for aluminum",
            mends=[Mend("Take the listed one", [buy(order.row.item.key, instead="")])],
        )  # fmt: skip


def order_rule(facts: BuyingFacts) -> Iterator[Finding]:
    """What is not on the shelf comes before it is needed."""
    for order in facts.orders:
        want, days = order.want, order.out_days
        needed, due = (want.needed_on, want.due_on) if want else ("", "")
        late = bool(needed and due and due > needed)
        if not late and not (days and not (needed and due)):
            continue
        when = f"It comes {due}, needed {needed}." if late else f"Nobody has it on the shelf: {days} days."
        asked = " Say when it is needed and when it comes." if not late else ""
        yield finding(
            "back-order", order.row.item.key, None, f"{order.row.item.key}: back order", when + asked, SOLD_CUT,
            about="item", measured=due or f"{days} days", limit=needed or "not said",
        )  # fmt: skip


RULES: tuple[Rule[BuyingFacts], ...] = (coil_rule, long_rule, price_rule, aluminum_rule, order_rule)
