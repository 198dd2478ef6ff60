"""Panels and boxes: whatever a run may start or end at, and where each stands."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StrictBool, StringConstraints, model_validator

from levelrun.core.part import Frozen, Height, Id, Inches, Name, Size, plain
from levelrun.core.site.parts import Coordinate, RoomUse

BoxKind = Literal[
    "receptacle", "switch", "light", "fan", "smoke", "junction", "device", "equipment", "disconnect", "tail"
]  # fmt: skip
Cover = Literal["", "flat", "damp", "in_use"]
PLUGS = ("receptacle", "device")
LAMPS = ("light", "fan")
SWITCHABLE = ("receptacle", "equipment")  # what beside these a switch may work
OVERHEAD = (*LAMPS, "smoke")  # hang under a ceiling where no place is said
GEAR = ("furnace", "air_conditioner")  # what heats and cools, and is mended where it stands
Serves = Literal[
    "", "counter", "range", "cooktop", "oven", "dryer", "washer", "refrigerator", "dishwasher", "disposer",
    "microwave", "bath_heater", "water_heater", "space_heater", "air_conditioner", "opener", "vehicle", "pump",
    "generator", "kiln", "welder", "furnace", "heat_cable", "sump_pump", "floor_heat",
]  # fmt: skip
Nema = Literal[
    "", "5-15", "5-20", "6-15", "6-20", "6-30", "6-50", "10-30", "10-50", "14-30", "14-50", "L5-30", "L14-30", "TT-30"
]  # fmt: skip
Switched = Literal["", "half", "whole"]
Amperes = Annotated[float, Field(strict=True, gt=0, le=1200, allow_inf_nan=False)]
Watts = Annotated[float, Field(strict=True, ge=0, le=100_000, allow_inf_nan=False)]


class Stood(Frozen):
    """A thing with a place. On a wall: `room`, `side` and `at_in`, its centre from the left corner as faced.

    Not on a wall: `room`, `x_in`, `y_in` in the structure's own plan. `height_in` is over the structure's main floor.
    """

    id: Id
    name: Name
    structure: Id
    room: Id | None = None
    side: Annotated[int, Field(strict=True, ge=0, le=39)] | None = None
    at_in: Inches | None = None
    x_in: Coordinate | None = None
    y_in: Coordinate | None = None
    where: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), AfterValidator(plain)] = Field(
        "", description="Where it stands in words, where no room is drawn: garage wall"
    )

    @model_validator(mode="after")
    def _one_place(self) -> Stood:
        wall = self.side is not None and self.at_in is not None and self.x_in is None and self.y_in is None
        open_ = self.side is None and self.at_in is None and self.x_in is not None and self.y_in is not None
        if self.room is not None and not (wall or open_):
            raise ValueError("room: a place in a room is either side and at_in, or x_in and y_in")
        if self.room is None and any(v is not None for v in (self.side, self.at_in, self.x_in, self.y_in)):
            raise ValueError("room: say the room that side, at_in, x_in and y_in belong to")
        return self


class Panel(Stood):
    """A panel. `height_in` is its lower edge over the structure's main floor."""

    height_in: Height = 48
    width_in: Annotated[float, Field(strict=True, ge=3, le=48)] = 14.5
    tall_in: Annotated[float, Field(strict=True, ge=3, le=60)] = 30
    spaces: Annotated[int, Field(strict=True, ge=2, le=84)] = 20
    main_a: Amperes | None = Field(100, description="Main breaker in the panel; null: lugs only")
    bus_a: Amperes = 125
    main_at: Literal["top", "bottom"] = "top"
    taken: tuple[Annotated[int, Field(strict=True, ge=1, le=84)], ...] = Field(
        (), max_length=84, description="Spaces where breakers of other work stand"
    )
    free_said: Annotated[int, Field(strict=True, ge=0, le=84)] | None = Field(
        None, description="How many spaces are free, where that is all that is known; null: by what stands there"
    )
    tandem_spaces: tuple[Annotated[int, Field(strict=True, ge=1, le=84)], ...] = Field((), max_length=84)
    bonded: StrictBool = Field(True, description="Bonding screw or strap in: neutral joined to the cabinet")
    disconnect_elsewhere: StrictBool | None = Field(
        None,
        description="The service disconnect stands ahead of it, outdoors or in another enclosure; null: not said",
    )
    ground_bar: StrictBool = Field(True, description="Has a ground bar of its own")
    neutral_holes: Annotated[int, Field(strict=True, ge=0, le=120)] = 20
    ground_holes: Annotated[int, Field(strict=True, ge=0, le=120)] | None = Field(
        None, description="Holes of its ground bar; null: not counted"
    )
    hole_max: Size = Field("", description="Biggest wire that a hole of its bars takes; empty: not said")
    make: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), AfterValidator(plain)] = Field(
        "", description="Make and series, as its label says"
    )
    lug_max: Size = Field("", description="Biggest wire that its main lugs take; empty: as usual for its main")
    set_out_in: Annotated[float, Field(strict=True, ge=0, le=6)] | None = Field(
        None, description="Of a panel in the wall: how far its edge stands proud of the stud; null: on the surface"
    )
    calculation: Literal["standard", "optional"] = "standard"
    floor_area_ft2: Annotated[float, Field(strict=True, ge=0, le=20_000)] | None = Field(
        None, description="Of the dwelling it serves; null: as drawn"
    )


class Box(Stood):
    """A box, disconnect or piece of equipment. `height_in` is its centre over the structure's main floor."""

    kind: BoxKind = "junction"
    use: RoomUse | Literal[""] = Field("", description="What the place is for, where no room is drawn")
    height_in: Height = 16
    fixed: StrictBool = Field(False, description="Keeps its height when the story pole changes")
    clamps: StrictBool = Field(True, description="Has cable clamps; false for a plastic single-gang box without")
    model: Annotated[str, StringConstraints(max_length=40), AfterValidator(plain)] = Field(
        "", description="Row of the box catalogue; empty: the usual one, or the smallest that holds"
    )
    gangs: Annotated[int, Field(strict=True, ge=1, le=6)] = 1
    ways: Literal[2, 3, 4] = Field(2, description="Of a switch: 2 single-pole, 3 three-way, 4 four-way")
    set_out_in: Annotated[float, Field(strict=True, ge=0, le=6)] = Field(
        0.5, description="How far the face stands proud of the stud"
    )
    clear_in: Inches | None = Field(None, description="Clear depth behind the stud face, where taped")
    blocking: StrictBool = Field(False, description="Stands on blocking or a bar, not on a stud")
    outdoors: StrictBool = Field(False, description="On the outer face of its wall")
    air_tight: StrictBool = Field(False, description="Air-tight, or in a vapour-barrier boot")
    fan_rated: StrictBool = False
    monoxide: StrictBool = Field(False, description="Of an alarm: tells carbon monoxide too")
    serves: Serves = ""
    load_w: Watts | None = Field(None, description="Load really expected; null: as usual for what it is")
    switched: Switched = Field(
        "", description="Of an outlet: what of it a switch works, one half or the whole; empty: always on"
    )
    continuous: StrictBool | None = Field(None, description="Load on for three hours or more; null: as usual for it")
    protects: Literal["", "gfci", "afci", "dual"] = Field("", description="Protection that its device gives onward")
    nema: Nema = Field("", description="Receptacle by its NEMA configuration; empty: as usual for what it serves")
    cover: Cover = Field("", description="Its cover: flat, damp (tight while shut), in use; empty: as usual")
    surface: StrictBool = Field(False, description="On the surface of the wall, not in it")
    rating_a: Amperes | None = Field(None, description="Of a disconnect: its rating; null: not said")
    fused: StrictBool | None = Field(None, description="Of a disconnect: has fuses; null: not said")
    line_at: Literal["", "top", "bottom"] = Field("", description="Of a disconnect: where the line lands")
    spare_in: Inches | None = Field(None, description="Of a tail: what is left hanging; null: as outdoors by habit")
    interlock: StrictBool = Field(False, description="Generator inlet: its breaker is interlocked with the main")
    marked: StrictBool = Field(False, description="Marked on the frame")
    old: StrictBool = Field(False, description="Stood before this job, with its cable: only what is added is judged")


def is_worked(box: Box) -> bool:
    """Whether a switch works it: a lamp, a fan, an outlet that is switched, in part or whole."""
    return box.kind in LAMPS or box.switched != ""


def is_live(box: Box) -> bool:
    """Whether it wants a hot that no switch takes away: all but what a switch works whole."""
    return box.kind not in LAMPS and box.switched != "whole"
