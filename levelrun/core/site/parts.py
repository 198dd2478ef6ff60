"""The building by tape: structures, levels, rooms with their walls, openings, what stands along the walls.

A room is the loop of its stud faces, corners clockwise as seen from above (x east, y north), so that each wall
reads left to right as faced from inside. Two rooms whose walls face each other a stud's depth apart share that wall.
"""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, StrictBool, model_validator

from levelrun.core.part import Frozen, Height, Id, Inches, Name

StructureKind = Literal["house", "shop", "cabin", "shed", "yard"]
DWELLINGS = ("house", "cabin")
LevelKind = Literal["crawl", "basement", "floor", "loft", "attic"]
RoomUse = Literal[
    "common", "kitchen", "dining", "bedroom", "bath", "hall", "stairs", "closet", "laundry", "utility", "garage",
    "shop", "storage", "porch", "crawl", "basement", "attic", "pump",
]  # fmt: skip
StudKey = Literal["2x3", "2x4", "2x6", "2x8", "furring", "metal", "log", "block", "open"]
FinishKey = Literal["none", "drywall", "drywall 5/8", "boards", "tile", "stone"]
OpeningKind = Literal["door", "window", "opening", "garage_door", "glass_door"]
FixtureKind = Literal[
    "counter", "sink", "basin", "tub", "shower", "shower_valve", "toilet", "range", "refrigerator", "dishwasher",
    "cabinet", "fireplace", "furniture", "water_heater", "heater", "stairs", "island",
    "pipe", "duct", "clean_out", "flue", "nail", "return_air",
]  # fmt: skip
IN_WALL = ("pipe", "duct", "clean_out", "flue", "nail", "return_air")  # what stands in a wall, behind its finish
MemberKind = Literal["solid", "i_joist", "truss", "laminated"]
Coordinate = Annotated[float, Field(strict=True, ge=-24_000, le=24_000, allow_inf_nan=False)]
Length = Annotated[float, Field(strict=True, ge=0.0625, le=6000, allow_inf_nan=False)]
LONGEST_WALL_IN = 4800.0


class Level(Frozen):
    """One level. Heights in inches; `floor_in` from the structure's main floor, up positive.

    The joists are those over the level: `joists` is the way they run, "x" east and west, "y" north and south.
    """

    id: Id
    name: Name
    kind: LevelKind = "floor"
    floor_in: Height = 0
    height_in: Annotated[float, Field(strict=True, ge=12, le=600)] = Field(96, description="Floor to ceiling framing")
    joists: Literal["x", "y"] = "y"
    joist_depth_in: Annotated[float, Field(strict=True, ge=1, le=36)] = 9.25
    joist_spacing_in: Annotated[float, Field(strict=True, ge=6, le=96)] = 16
    joist_kind: MemberKind = Field("solid", description="What the joists are: sawn, or made by a chart of their own")


class Structure(Frozen):
    """A building, or the yard. `x_in`, `y_in`: where its own origin lies on the site, east and north."""

    id: Id
    name: Name
    kind: StructureKind = "house"
    grade_in: Height = Field(-18, description="Outside ground, from the main floor")
    x_in: Coordinate = 0
    y_in: Coordinate = 0
    dwelling: StrictBool | None = Field(None, description="Lived in; null: by its kind and what stands in it")
    existing: StrictBool = Field(False, description="Existing, not my work: judged only where this job touches it")
    laid_out: StrictBool = Field(False, description="Its boxes are laid out: what is missing is missing")
    ground_in: Height = Field(0, description="Ground at it, over the site's own zero")
    siding_in: Inches | None = Field(
        None, description="How far the finished outside stands proud of the studs: sheathing, siding; null: not said"
    )
    levels: tuple[Level, ...] = Field((), max_length=8)

    @property
    def ceiling_in(self) -> float:
        """Underside of the main floor's ceiling over the main floor; 96 where no level is said."""
        main = next((level for level in self.levels if level.kind == "floor" and level.floor_in == 0), None)
        return main.floor_in + main.height_in if main else 96.0

    @property
    def under_floor_in(self) -> float | None:
        """Floor of the crawl space or basement under the main floor, or None where there is none."""
        under = [level.floor_in for level in self.levels if level.kind in ("crawl", "basement")]
        return min(under) if under else None


class Side(Frozen):
    """One wall of a room as framed and finished on this room's side. `first_stud_in` shifts the stud layout."""

    stud: StudKey = "2x4"
    spacing_in: Annotated[float, Field(strict=True, ge=6, le=48)] = 16
    first_stud_in: Annotated[float, Field(strict=True, ge=-24, le=24)] = 0
    bearing: StrictBool = False
    finish: FinishKey = "drywall"
    insulation: Literal["none", "batts", "foam"] = "none"
    closed: StrictBool = Field(False, description="Finished: nothing is drilled in it, cable is only fished")
    avoid: StrictBool = Field(False, description="To be left alone: cables go round it where they can")


class Room(Frozen):
    """A room of a level: corners clockwise, one `Side` a wall. Null facts: as usual for its use."""

    id: Id
    level: Id
    name: Name
    use: RoomUse = "common"
    corners: tuple[tuple[Coordinate, Coordinate], ...] = Field(min_length=3, max_length=40)
    sides: tuple[Side, ...] = ()
    moisture: Literal["dry", "damp", "wet"] | None = None
    damage: StrictBool | None = Field(None, description="Wiring on the surface can be hit here")
    ambient_c: Annotated[float, Field(strict=True, ge=-40, le=90)] | None = None
    laid_out: StrictBool = Field(False, description="Its boxes are laid out: what is missing is missing")
    ceiling_out_in: Inches | None = Field(
        None, description="How far the finished ceiling hangs under its joists: strapping, board; null: not said"
    )
    closed: StrictBool = Field(False, description="Finished: its walls and ceiling are not opened")
    bays: Annotated[int, Field(strict=True, ge=1, le=6)] = Field(1, description="Vehicle bays of a garage")

    @model_validator(mode="after")
    def _a_side_a_corner(self) -> Room:
        if len(self.sides) != len(self.corners):
            raise ValueError(f"sides: {len(self.sides)} for {len(self.corners)} corners; allowed: one a corner")
        for (x, y), (to_x, to_y) in pairwise((*self.corners, self.corners[0])):
            if (long := math.hypot(to_x - x, to_y - y)) > LONGEST_WALL_IN:
                raise ValueError(f"corners: a wall {long / 12:g} ft long; allowed: up to {LONGEST_WALL_IN / 12:g} ft")
        return self


class Opening(Frozen):
    """A door, window or cased opening. `at_in`: its left edge from the left corner of the wall, as faced.

    Of a sliding glass door `hinge` is the half that moves; the fixed half is wall space (210.52(A)(2)).
    """

    id: Id
    room: Id
    side: Annotated[int, Field(strict=True, ge=0, le=39)]
    kind: OpeningKind = "door"
    at_in: Inches
    width_in: Length
    head_in: Length = 82
    sill_in: Inches = 0
    hinge: Literal["left", "right"] = "left"
    swings_in: StrictBool = True

    @model_validator(mode="after")
    def _head_over_sill(self) -> Opening:
        if self.head_in <= self.sill_in:
            raise ValueError(f"head_in {self.head_in:g} is not over the sill {self.sill_in:g}")
        return self


class Fixture(Frozen):
    """What stands or will stand along a wall: a counter, a basin, a shower valve. `depth_in` into the room.

    An island stands `off_in` off its wall; a peninsula is an island that stands at it.
    """

    id: Id
    room: Id
    side: Annotated[int, Field(strict=True, ge=0, le=39)]
    kind: FixtureKind
    at_in: Inches
    width_in: Length
    depth_in: Inches = 24
    off_in: Inches = Field(0, description="How far off its wall an island stands")
    height_in: Inches = Field(36, description="Its top; for a shower valve its centre")
    foot_in: Inches = Field(0, description="Its foot over the floor, where it stands in the wall")
