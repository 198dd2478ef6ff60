"""Buying planned: the take-off, how each row is bought, what is said of it. Worked out when it is asked for, since a
plan of wires and boxes does not hang on prices; what is said of it counts once buying has begun."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from levelrun.core.buying.ordering import Order, orders_of
from levelrun.core.buying.prices import PriceBook, price_book
from levelrun.core.buying.rules import RULES, BuyingFacts
from levelrun.core.buying.takeoff import Found, TakeOff, take_off
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.core.measure import shown_in
from levelrun.core.rulebook import judged


@dataclass(frozen=True, eq=False)
class Buying:
    """All that is bought for a job."""

    job: Job
    book: Codebook
    found: Found

    @cached_property
    def taken(self) -> TakeOff:
        """Everything counted."""
        return take_off(self.job, self.book, self.found)

    @cached_property
    def prices(self) -> PriceBook:
        """What it costs where."""
        return price_book(self.book, self.job)

    @cached_property
    def orders(self) -> list[Order]:
        """Every row as it is bought."""
        return orders_of(self.job, self.book, self.taken, self.prices)

    @cached_property
    def findings(self) -> list[Finding]:
        """What is said of it."""
        with shown_in(self.book.units):
            return judged(self.book, RULES, BuyingFacts(self.book, self.job, self.prices, self.orders))

    @property
    def begun(self) -> bool:
        """Whether anything was said of buying: a price, what is on the truck, how a row is bought, a tick."""
        return bool(self.job.prices or self.job.stock or self.job.wants or self.job.purchases)

    @property
    def dollars(self) -> float:
        """All that has a price, before tax."""
        return sum(order.dollars or 0.0 for order in self.orders)
