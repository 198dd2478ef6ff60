"""Edits of what is said of buying: prices, the truck, how a row is bought, ticks of the list."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool

from levelrun.core.buying.parts import Item, Moment, Pack, Price, Purchase, Stock, Unit, Want
from levelrun.core.buying.prices import shipped
from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, made, next_id, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.part import Supplier
from levelrun.core.roughin.parts import Day, Who

MOST_TIMES = 20.0  # a price so many times another of the same thing is asked about


class Buy(EditBase):
    """Say how a row is bought: only what is named changes. With nothing left to say it is bought where it is
    cheapest again."""

    op: Literal["buy"]
    item: Item
    supplier: Supplier | None = None
    packs: Annotated[tuple[Pack, ...], Field(max_length=12)] | None = None
    by_foot: StrictBool | None = None
    instead: Annotated[str, Field(max_length=60)] | None = None
    needed_on: Day | None = None
    due_on: Day | None = None

    def title(self) -> str:
        return f"how {self.item} is bought"

    def apply(self, job: Job, book: Codebook) -> Job:
        known = next((want for want in job.wants if want.item == self.item), None)
        said = {k: v for k, v in self.model_dump(exclude={"op", "item"}).items() if v is not None}
        if said.get("packs"):
            said["by_foot"] = False
        if said.get("instead") == self.item:
            raise EditError("instead: the thing itself", key="instead", value=self.item)
        before = known.model_dump() if known else {"id": next_id(job, "v"), "item": self.item}
        want = made(Want, {**before, **said}, "want")
        others = tuple(item for item in job.wants if item.item != self.item)
        empty = want == Want(id=want.id, item=want.item)
        return with_parts(job, wants=others if empty else (*others, want))


class SayPrice(EditBase):
    """Say what a pack costs at a supplier: the price of the same pack there is replaced."""

    op: Literal["price"]
    item: Item
    supplier: Supplier
    pack: Annotated[float, Field(gt=0, le=10_000)] = 1
    unit: Unit = "each"
    dollars: Annotated[float, Field(gt=0, le=100_000)]
    on: Day = ""
    out: StrictBool = False
    days: Annotated[int, Field(ge=0, le=400)] = 0

    def title(self) -> str:
        return f"price of {self.item}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return with_price(job, book, self.model_dump(exclude={"op"}))


class SayPrices(EditBase):
    """Say many prices at once, all or none."""

    op: Literal["prices"]
    rows: Annotated[tuple[dict[str, Any], ...], Field(min_length=1, max_length=2000)]

    def title(self) -> str:
        return f"{len(self.rows)} prices"

    def apply(self, job: Job, book: Codebook) -> Job:
        for number, row in enumerate(self.rows):
            try:
                job = with_price(job, book, {key: value for key, value in row.items() if value is not None})
            except EditError as error:
                raise EditError(
                    f"row {number + 1}: {error.message}", key=f"rows.{number}.{error.key}", value=error.value,
                    allowed=error.allowed,
                ) from None  # fmt: skip
        return job


def with_price(job: Job, book: Codebook, values: dict[str, Any]) -> Job:
    """The job with a price. Raises EditError where the unit is not that of the thing, or where the price is out of
    all proportion to the others of it."""
    price = made(Price, {"id": next_id(job, "pr"), **values}, "price")
    if not price.supplier:
        raise EditError("supplier: say whose price it is", key="supplier", value="")
    known = [(o.unit, o.dollars / o.pack) for o in shipped(book).get(price.item, ())]
    known += [(p.unit, p.dollars / p.pack) for p in job.prices if p.item == price.item]
    units = {unit for unit, _ in known}
    if units and price.unit not in units:
        raise EditError(
            f"{price.item} goes by {_per(next(iter(units)))}, not by {_per(price.unit)}", key="unit",
            value=price.unit,
            allowed=sorted(units),
        )  # fmt: skip
    each = price.dollars / price.pack
    rates = [rate for _, rate in known]
    if rates and not min(rates) / MOST_TIMES <= each <= max(rates) * MOST_TIMES:
        low, high = min(rates) / MOST_TIMES, max(rates) * MOST_TIMES
        raise EditError(
            f"{each:.2f} $ a {_per(price.unit)} of {price.item}: others are {min(rates):.2f} to {max(rates):.2f}; "
            f"allowed: {low:.2f} to {high:.2f}", key="dollars", value=price.dollars,
        )  # fmt: skip
    same = (price.item, price.supplier, price.pack, price.unit)
    others = tuple(p for p in job.prices if (p.item, p.supplier, p.pack, p.unit) != same)
    return with_parts(job, prices=(*others, price))


def _per(unit: str) -> str:
    return "foot" if unit == "ft" else "piece"


class Have(EditBase):
    """Say what is on the truck: a piece of so many feet, or so many pieces; 0 takes all of it off."""

    op: Literal["have"]
    item: Item
    amount: Annotated[float, Field(ge=0, le=10_000)]
    remarks: Annotated[str, Field(max_length=500)] = ""

    def title(self) -> str:
        return f"{self.item} on the truck"

    def apply(self, job: Job, book: Codebook) -> Job:
        if not self.amount:
            return with_parts(job, stock=tuple(item for item in job.stock if item.item != self.item))
        part = Stock(id=next_id(job, "k"), item=self.item, amount=self.amount, remarks=self.remarks)
        return with_parts(job, stock=(*job.stock, part))


class TickRow(EditBase):
    """Tick a row of the list: bought, received, taken back, or open again. What was paid for so many packs of a size
    becomes the price of it there."""

    op: Literal["tick_row"]
    item: Item
    state: Literal["open", "bought", "received", "returned"] = "bought"
    at: Moment = ""
    who: Who = ""
    supplier: Supplier = ""
    amount: Annotated[float, Field(ge=0, le=10_000)] = 0
    pack: Annotated[float, Field(gt=0, le=10_000)] = 1
    unit: Unit = "each"
    paid: Annotated[float, Field(ge=0, le=100_000)] | None = None
    priced_as: Annotated[str, Field(max_length=60)] = ""

    def title(self) -> str:
        return f"{self.item}: {self.state}"

    def apply(self, job: Job, book: Codebook) -> Job:
        tick = Purchase(
            id=next_id(job, "u"), item=self.item, state=self.state, at=self.at, who=self.who, supplier=self.supplier,
            pack=self.pack, amount=self.amount, paid=self.paid,
        )  # fmt: skip
        job = with_parts(job, purchases=(*job.purchases, tick))
        if not self.paid or not self.amount or not self.supplier or self.state == "returned":
            return job
        return with_price(
            job, book, {
                "item": self.priced_as or self.item, "supplier": self.supplier, "pack": self.pack, "unit": self.unit,
                "dollars": round(self.paid / self.amount, 4), "on": self.at[:10],
            },
        )  # fmt: skip


KINDS = (
    PartKind(name="price", field="prices", model=Price, letter="pr", links=frozenset()),
    PartKind(name="stock", field="stock", model=Stock, letter="k", links=frozenset()),
    PartKind(name="want", field="wants", model=Want, letter="v", links=frozenset()),
    PartKind(name="purchase", field="purchases", model=Purchase, letter="u", links=frozenset()),
)
EDITS = (Buy, SayPrice, SayPrices, Have, TickRow)
