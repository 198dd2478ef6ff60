"""What is said of buying: prices, what is on the truck, how a row is bought, what was ticked off the list."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StrictBool, StringConstraints

from levelrun.core.part import Frozen, Id, Supplier, Text, plain
from levelrun.core.roughin.parts import Day, Who

Item = Annotated[
    str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), AfterValidator(plain)
]  # fmt: skip
Unit = Literal["each", "ft"]
Dollars = Annotated[float, Field(strict=True, gt=0, le=100_000, allow_inf_nan=False)]
Feet = Annotated[float, Field(strict=True, gt=0, le=10_000, allow_inf_nan=False)]
Moment = Annotated[str, StringConstraints(pattern=r"^(\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?Z?)?$")]


class Price(Frozen):
    """What a pack of something costs at a supplier: so many feet of it, or so many pieces. It goes before the price
    that ships. out: not on the shelf there; days: how long it takes then."""

    id: Id
    item: Item
    supplier: Supplier
    pack: Feet = Field(1, description="Feet of a coil, or pieces in a bag; 1: by the foot, or one piece")
    unit: Unit = "each"
    dollars: Dollars
    on: Day = Field("", description="The day of the price; empty: not said")
    out: StrictBool = Field(False, description="Not on the shelf there")
    days: Annotated[int, Field(strict=True, ge=0, le=400)] = Field(0, description="Days until it is there")


class Stock(Frozen):
    """What is on the truck already: a piece of so many feet, or so many pieces."""

    id: Id
    item: Item
    amount: Feet
    remarks: Text = ""


class Pack(Frozen):
    """So many packs of one size."""

    size: Feet
    count: Annotated[int, Field(strict=True, ge=1, le=1000)] = 1


class Want(Frozen):
    """How a row of the list is bought, where that is said: at whose shop, in which packs, by the foot, what instead;
    when it is needed and when it comes."""

    id: Id
    item: Item
    supplier: Supplier = Field("", description="Empty: where it is cheapest")
    packs: tuple[Pack, ...] = Field((), max_length=12, description="As the list says it; empty: the cheapest set")
    by_foot: StrictBool = False
    instead: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), AfterValidator(plain)] = Field(
        "", description="What is taken in its place"
    )
    needed_on: Day = ""
    due_on: Day = Field("", description="The day that a back order comes")


class Purchase(Frozen):
    """A row of the list, ticked: bought, received or taken back, how much, at what price, when and by whom. Of two
    ticks the later one holds; both stay."""

    id: Id
    item: Item
    state: Literal["open", "bought", "received", "returned"] = "bought"
    at: Moment = ""
    who: Who = ""
    supplier: Supplier = ""
    pack: Feet = Field(1, description="Feet of a coil, or pieces in a bag")
    amount: Annotated[float, Field(strict=True, ge=0, le=10_000, allow_inf_nan=False)] = Field(
        0, description="So many packs"
    )
    paid: Annotated[float, Field(strict=True, ge=0, le=100_000, allow_inf_nan=False)] | None = Field(
        None, description="Dollars paid for all of it; null: not said"
    )
