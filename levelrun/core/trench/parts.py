"""What lies between buildings, as the user said it: the yard, trenches, spans, electrodes, the service.

Places are inches east and north on the site. Heights are over the site's own zero, which is the ground at the first
building unless said otherwise.
"""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, StrictBool, model_validator

from levelrun.core.part import Frozen, Height, Id, Inches, Name, Size
from levelrun.core.roughin.parts import Day, Tick
from levelrun.core.site.parts import Coordinate

YardKind = Literal[
    "drive", "street", "path", "slab", "bed", "septic", "pool", "tree", "spot", "gas", "water", "sewer", "phone",
    "power",
]  # fmt: skip
SERVICES = ("gas", "water", "sewer", "phone", "power")
AREAS = ("slab", "bed", "septic", "pool")
LINES = ("drive", "street", "path", *SERVICES)
Spot = tuple[Coordinate, Coordinate]
District = Literal["heavy", "medium", "light"]
LONGEST_IN = 24_000.0


class YardPart(Frozen):
    """A thing of the yard: a line with a width (drive, street, path, a service), an area, a tree, or a height of the
    ground that was taken somewhere."""

    id: Id
    name: Name
    kind: YardKind
    points: tuple[Spot, ...] = Field(min_length=1, max_length=40)
    width_in: Inches = Field(0, description="Of a drive, street or path; of a tree its crown")
    depth_in: Inches | None = Field(None, description="Of a service: from grade to its top; null: not said")
    height_in: Height = Field(0, description="Of a spot: ground there over the site's zero")
    private: StrictBool = Field(False, description="Of a service: behind the meter, marked by nobody but its owner")

    @model_validator(mode="after")
    def _has_a_shape(self) -> YardPart:
        least = 2 if self.kind in LINES else 1 if self.kind in ("tree", "spot") else 3
        if len(self.points) < least:
            raise ValueError(f"points: {len(self.points)} of a {self.kind}; allowed: {least} and more")
        if self.kind in ("drive", "street", "path") and self.width_in < 12:
            raise ValueError(f"width_in {self.width_in:g} of a {self.kind}; allowed: 12 and more")
        return self


class Reading(Frozen):
    """The depth of what lies in a trench, to its top, so far along: by a sight tube, a tape, or rod and level."""

    at_in: Inches
    depth_in: Inches
    by: Literal["tube", "tape", "level"] = "tube"
    way: Id | None = Field(None, description="The way that was read; null: whatever lies in the trench")


class Trench(Frozen):
    """A trench: a line with corners from building to building, and how it is dug. What lies in it are the legs of
    ways that name it. The depth of each stands with its leg; readings go before it."""

    id: Id
    name: Name
    points: tuple[Spot, ...] = Field(min_length=2, max_length=24)
    start: Id | None = Field(None, description="The building that it starts at")
    end: Id | None = Field(None, description="The building that it goes to")
    width_in: Annotated[float, Field(strict=True, ge=2, le=120)] = 8
    dig: Literal["spade", "machine"] = "spade"
    bedding_in: Annotated[float, Field(strict=True, ge=0, le=24)] = Field(0, description="Sand under what lies in it")
    rock: StrictBool = Field(False, description="Solid rock keeps it from its depth")
    concrete: StrictBool = Field(False, description="2 in of concrete lie over what lies in it")
    moves: StrictBool | None = Field(None, description="The soil settles or heaves with frost; null: not said")
    meant_in: Inches | None = Field(None, description="How deep what is to lie in it was said to go; null: not said")
    meant_method: Annotated[str, Field(max_length=20)] = Field(
        "", description="The pipe said for what is to lie in it"
    )
    meant_size: Size = Field("", description="Trade size of that pipe; empty: what holds the wires")
    readings: tuple[Reading, ...] = Field((), max_length=60)
    done: tuple[Tick, ...] = Field((), max_length=20)
    ticket: Annotated[str, Field(max_length=30)] = Field("", description="Number that the marks desk gave")
    ticket_from: Day = Field("", description="The day from which one may dig")
    ticket_to: Day = Field("", description="The last day that the marks are good")

    @model_validator(mode="after")
    def _is_a_line(self) -> Trench:
        length = sum(math.dist(a, b) for a, b in pairwise(self.points))
        if length < 6:
            raise ValueError(f"points: a trench {length:.0f} in long; allowed: 6 and more")
        if length > LONGEST_IN:
            raise ValueError(f"points: a trench {length / 12:.0f} ft long; allowed: up to {LONGEST_IN / 12:.0f}")
        return self


class SpanEnd(Frozen):
    """Where a span is held: how high over the ground there, on what, and what stands about."""

    height_in: Inches | None = Field(None, description="Of the attachment over the ground there; null: not said")
    at: Literal["wall", "mast", "pole"] = "wall"
    mast: Size = Field("", description="Trade size of a mast or riser; empty: as its way has it")
    guyed: StrictBool | None = Field(None, description="A mast is braced or guyed; null: not said")
    over_roof_in: Inches | None = Field(
        None, description="How far the span runs over the roof that it ends at, level"
    )
    roof_in12: Annotated[float, Field(strict=True, ge=0, le=36)] | None = Field(
        None, description="Pitch of that roof, inches in a foot"
    )
    roof_clear_in: Inches | None = Field(None, description="How high it hangs over that roof at its lowest")
    window_in: Inches | None = Field(
        None,
        description="To the nearest window that opens, door, porch or balcony under or beside it; null: not said",
    )


class Span(Frozen):
    """Wires hung from one building to another, on a bare messenger. What hangs are the legs of ways that name it."""

    id: Id
    name: Name
    points: tuple[Spot, ...] = Field(min_length=2, max_length=2)
    start: Id | None = None
    end: Id | None = None
    start_end: SpanEnd = SpanEnd()
    end_end: SpanEnd = SpanEnd()
    sag_in: Inches | None = Field(None, description="As strung on a mild day; null: by habit")
    listed: StrictBool | None = Field(None, description="Its splices are listed, and in reach; null: not said")

    @model_validator(mode="after")
    def _is_a_span(self) -> Span:
        length = math.dist(*self.points)
        if length < 36 or length > 4788:
            raise ValueError(f"points: a span of {length / 12:.0f} ft; allowed: 3 to 399 ft, and an engineer beyond")
        return self


class Electrode(Frozen):
    """An electrode of a building: a rod that is driven, or what stands in the earth already."""

    id: Id
    structure: Id
    kind: Literal["rod", "footing", "water_pipe", "plate", "ring", "frame"] = "rod"
    x_in: Coordinate = 0
    y_in: Coordinate = 0
    length_in: Inches = Field(96, description="In the earth")
    diameter_in: Annotated[float, Field(strict=True, ge=0.125, le=12)] = 0.625
    bonded: StrictBool = Field(True, description="Joined to the system")
    wire: Size = Field("", description="Its conductor, copper; empty: as it must be")
    ohms: Annotated[float, Field(strict=True, gt=0, le=100_000)] | None = Field(None, description="As measured alone")
    driven_on: Day = ""


class Service(Frozen):
    """The electrician's part of the service of a building. Null: not said."""

    id: Id
    structure: Id
    entry: Literal["overhead", "underground"] = "overhead"
    rating_a: Annotated[float, Field(strict=True, ge=30, le=1200)] = 200
    wire_size: Size = ""
    material: Literal["cu", "al"] = "al"
    meter_in: Inches | None = Field(None, description="Centre of the meter over the ground")
    attach_in: Inches | None = Field(None, description="Point of attachment over the ground, of an overhead one")
    drip_in: Inches | None = Field(None, description="Lowest of its drip loop over the ground")
    mast: Size = ""
    outside_disconnect: StrictBool | None = None
    stub_set: StrictBool | None = Field(None, description="Pipe through the wall is set before it is foamed")
    water_bond: StrictBool | None = None
    gas_bond: StrictBool | None = None
    intersystem: StrictBool | None = Field(
        None, description="A bar for the bonds of phone, aerial, data stands there"
    )
    surge: StrictBool | None = None
