"""The price book that ships: what must hold of any price book, and what the trade knows of prices."""

from __future__ import annotations

from collections import defaultdict
from itertools import pairwise

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from levelrun.core.boxes.catalogue import box_models
from levelrun.core.buying.items import Item
from levelrun.core.buying.planned import Buying
from levelrun.core.buying.prices import Offer, bagged, price_book, shipped
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable_sizes, wire_sizes
from levelrun.core.job import Job
from levelrun.core.plan import plan
from levelrun.core.trade.conductors.ampacity import ampacity
from levelrun.samples import SAMPLES, sample


def test_a_larger_pack_never_costs_more_a_foot_or_piece(book: Codebook) -> None:
    for item, offers in shipped(book).items():
        by: dict[str, list[Offer]] = defaultdict(list)
        for offer in offers:
            by[offer.supplier].append(offer)
        for own in by.values():
            rates = [offer.each for offer in sorted(own)]
            assert all(b <= a * 1.001 + 0.006 for a, b in pairwise(rates)), item


def test_a_thing_goes_by_one_unit_and_every_price_is_over_nothing(book: Codebook) -> None:
    for item, offers in shipped(book).items():
        assert len({offer.unit for offer in offers}) == 1 and all(offer.dollars > 0 for offer in offers), item


def cheapest(book: Codebook, item: str) -> float:
    return min(offer.each for offer in shipped(book)[item])


def test_cable_and_wire_cost_more_as_they_grow(book: Codebook) -> None:
    order = wire_sizes(book)
    for metal in ("", " al"):
        rates = [cheapest(book, f"{size} wire{metal}") for size in order if f"{size} wire{metal}" in shipped(book)]
        assert rates == sorted(rates)
    for method in ("NM-B", "UF-B", "MC"):
        sizes = [size for size in cable_sizes(book, method) if size.endswith("-2")]
        rates = [cheapest(book, f"{size} {method}") for size in sizes]
        assert rates == sorted(rates)


def test_aluminum_is_about_half_of_copper_by_ampacity(book: Codebook) -> None:
    """Common practice, no source: a foot of aluminum that carries as much costs 0.3 to 0.65 of copper."""
    for copper, aluminum in (("6", "4"), ("4", "2"), ("2", "1/0"), ("1/0", "3/0"), ("3/0", "250")):
        carries = [
            ampacity(book, size, metal, 75, 30.0, 3).base_a for size, metal in ((copper, "cu"), (aluminum, "al"))
        ]
        assert carries[1] >= carries[0] * 0.97
        ratio = cheapest(book, f"{aluminum} wire al") / cheapest(book, f"{copper} wire")
        assert 0.25 <= ratio <= 0.65, copper


def test_a_coil_is_cheaper_than_its_feet_and_shops_differ_up_to_eight_to_one(book: Codebook) -> None:
    """Common practice, no source."""
    offers = {(o.supplier, o.pack): o for o in shipped(book)["12-2 NM-B"]}
    assert offers["supply house", 250.0].dollars < 250 * offers["supply house", 1.0].dollars
    most = max(
        max(o.each for o in own) / min(o.each for o in own) for own in shipped(book).values() if own[0].unit == "ft"
    )
    assert 3 <= most <= 8


def test_everything_that_the_samples_take_has_a_price(book: Codebook) -> None:
    for key in SAMPLES:
        bare = [order.row.item.key for order in plan(sample(key)).buying.orders if order.dollars is None]
        assert bare == [], key


def test_every_box_of_the_catalogue_is_sold(book: Codebook) -> None:
    assert all(f"box {key}" in shipped(book) for key in box_models(book))


def test_what_the_shop_says_goes_before_what_ships(book: Codebook) -> None:
    said = {"id": "pr1", "item": "box single-18", "supplier": "big store", "dollars": 0.5, "on": "2026-05-03"}
    job = Job.model_validate({"name": "J", "prices": [said]})
    offers = price_book(book, job).of(Item("boxes", "box single-18"))
    assert next(o for o in offers if o.supplier == "big store" and o.pack == 1).dollars == 0.5
    assert price_book(book, Job(name="J")).of(Item("boxes", "box single-18")) != offers


OFFERS = st.lists(
    st.tuples(st.integers(1, 12), st.integers(1, 400)), min_size=1, max_size=4, unique_by=lambda item: item[0]
)


@settings(max_examples=80)
@given(st.integers(0, 40), OFFERS)
def test_bags_hold_the_count_for_the_least_money(count: int, packs: list[tuple[int, int]]) -> None:
    """Against every number of each bag."""
    offers = tuple(Offer(float(size), cents / 100, "shop") for size, cents in sorted(packs))
    found = bagged(count, offers)
    assert found is not None and sum(o.pack * n for o, n in found.packs) >= count

    def best(left: int, at: int) -> float:
        if left <= 0:
            return 0.0
        if at == len(offers):
            return float("inf")
        most = -(-left // int(offers[at].pack))
        return min(n * offers[at].dollars + best(left - n * int(offers[at].pack), at + 1) for n in range(most + 1))

    assert found.dollars == pytest.approx(best(count, 0))


def test_nothing_is_bought_of_what_nobody_offers() -> None:
    assert bagged(4, ()) is None


def test_a_plan_without_a_word_of_buying_counts_nothing() -> None:
    """What is bought is worked out only when it is asked for: an edit of a wall does not wait for it."""
    fresh: Buying = plan(sample("house")).buying
    assert not fresh.begun and "taken" not in vars(fresh)
