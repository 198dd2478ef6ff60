"""The price book: what ships, with what the shop said laid over it; offers of a thing, supplier by supplier."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import lru_cache

from levelrun.core.buying.items import Item
from levelrun.core.codebook import Codebook
from levelrun.core.job import Job, Price
from levelrun.core.kept import Standing

MOST_COUNTED = 5000


@dataclass(frozen=True, order=True)
class Offer:
    """A pack of something at a supplier: feet of a coil or pieces in a bag, dollars. said: by the shop, else it is
    the invented figure that ships. out: not on the shelf; days: how long it takes then."""

    pack: float
    dollars: float
    supplier: str
    unit: str = "each"
    said: bool = False
    on: str = ""
    out: bool = False
    days: int = 0

    @property
    def each(self) -> float:
        """Dollars of one piece or foot."""
        return self.dollars / self.pack


@dataclass(frozen=True, eq=False)
class PriceBook:
    """Offers by the name under which a thing is priced."""

    offers: dict[str, tuple[Offer, ...]]

    def of(self, item: Item, supplier: str = "") -> tuple[Offer, ...]:
        """The offers of a thing in its own unit: of one supplier, or of all."""
        own = self.offers.get(item.key) or self.offers.get(item.price_key, ())
        return tuple(o for o in own if o.unit == item.unit and supplier in ("", o.supplier))

    @property
    def suppliers(self) -> list[str]:
        """Every supplier, in order."""
        return list(dict.fromkeys(offer.supplier for own in self.offers.values() for offer in own))


@lru_cache(maxsize=16)
def shipped(book: Codebook) -> dict[str, tuple[Offer, ...]]:
    """The prices that ship: invented, plausible, for comparing."""
    found: dict[str, list[Offer]] = {}
    for row in book.table("price-book").rows:
        offer = Offer(float(row["pack"]), float(row["dollars"]), row["supplier"], row["unit"])
        found.setdefault(row["item"], []).append(offer)
    return {item: tuple(own) for item, own in found.items()}


_books = Standing[PriceBook](16)


def price_book(book: Codebook, job: Job) -> PriceBook:
    """The price book of a job. Kept while nothing in it changes."""
    return _books.get(book.rules, (book, job.prices), lambda: _laid_over(shipped(book), job.prices))


def _laid_over(base: dict[str, tuple[Offer, ...]], said: Iterable[Price]) -> PriceBook:
    """What the shop said goes before what ships, pack by pack and supplier by supplier; of two the later day."""
    offers = {item: {(o.supplier, o.pack, o.unit): o for o in own} for item, own in base.items()}
    for price in sorted(said, key=lambda item: item.on):
        own = offers.setdefault(price.item, {})
        own[price.supplier, price.pack, price.unit] = Offer(
            price.pack, price.dollars, price.supplier, price.unit, True, price.on, price.out, price.days
        )
    return PriceBook({item: tuple(sorted(own.values())) for item, own in offers.items()})


@dataclass(frozen=True)
class Bagged:
    """Packs that together hold a count: each with how many of it, and the dollars in all."""

    packs: tuple[tuple[Offer, int], ...]
    dollars: float


@lru_cache(maxsize=4096)
def bagged(count: int, offers: tuple[Offer, ...]) -> Bagged | None:
    """The cheapest packs that hold `count` pieces: exact, by dynamic programming over how many are still wanted; None
    where nothing is offered."""
    if not offers:
        return None
    if count > MOST_COUNTED:  # whole packs of the cheapest a piece first
        best = min(offers, key=lambda o: o.each)
        many = math.floor((count - MOST_COUNTED) / best.pack) + 1
        rest = bagged(max(int(count - many * best.pack), 0), offers)
        assert rest is not None
        return _joined([(best, many), *rest.packs])
    least: list[tuple[float, Offer | None]] = [(0.0, None)]
    for wanted in range(1, count + 1):
        least.append(min(((least[max(wanted - int(o.pack), 0)][0] + o.dollars, o) for o in offers if o.pack >= 1),
                         key=lambda item: (item[0], -item[1].pack)))  # fmt: skip
    taken: list[tuple[Offer, int]] = []
    left = count
    while left > 0:
        offer = least[left][1]
        assert offer is not None
        taken.append((offer, 1))
        left -= int(offer.pack)
    return _joined(taken)


def _joined(packs: Sequence[tuple[Offer, int]]) -> Bagged:
    many: dict[Offer, int] = {}
    for offer, count in packs:
        many[offer] = many.get(offer, 0) + count
    return Bagged(
        tuple(sorted(many.items(), reverse=True)), round(sum(o.dollars * n for o, n in many.items()), 2)
    )  # fmt: skip
