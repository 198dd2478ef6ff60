"""Ways: the paths that hops of circuits take, leg by leg."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool, model_validator

from levelrun.core.part import Frozen, Id, Inches, Name, Size

Go = Literal["up", "down", "over", "left", "right", "back"]
PlaceKey = Literal[
    "stud_wall", "ceiling_joists", "attic", "crawl_space", "basement", "room_surface", "shop_surface",
    "masonry_inside", "outside_wall", "roof", "trench", "driveway_trench", "under_building", "under_slab",
    "overhead", "equipment_tail",
]  # fmt: skip
MethodKey = Literal[
    "EMT", "RMC", "IMC", "PVC40", "PVC80", "ENT", "FMC", "LFMC", "LFNC",
    "NM-B", "UF-B", "MC", "AC", "SER", "USE-2", "OVERHEAD",
]  # fmt: skip
AboveKey = Literal["open_ground", "concrete_2in", "under_building", "slab_4in", "street", "driveway"]
EdgeKey = Literal["", "top", "bottom", "side", "back"]
JointKind = Literal["none", "box", "lb", "body", "coupling"]


class Joint(Frozen):
    """What stands at the end of a leg. `node` names a box or panel where kind is box, `edge` where it is entered."""

    kind: JointKind = "none"
    node: Id | None = None
    edge: EdgeKey = Field("", description="Edge of the box or panel that it enters; empty: the nearest")

    @model_validator(mode="after")
    def _box_has_node(self) -> Joint:
        if (self.kind == "box") != (self.node is not None):
            raise ValueError("node: a joint of kind box names a box or panel, any other kind names none")
        return self


class LegFacts(Frozen):
    """Facts of the place that differ from what such a place usually is. Null: as usual."""

    moisture: Literal["dry", "damp", "wet"] | None = None
    exposed: StrictBool | None = None
    damage: StrictBool | None = None
    sunlight: StrictBool | None = None
    ambient_c: Annotated[float, Field(strict=True, ge=-40, le=90)] | None = None
    insulation: StrictBool | None = None
    above_roof_in: Inches | None = Field(None, description="On a roof in the sun: from the roof to its underside")
    above: AboveKey | None = None
    beneath: Literal["walk", "drive", "street", "roof"] | None = Field(None, description="What a span hangs over")
    clear_in: Inches | None = Field(None, description="Of a span: its lowest point over that")
    rock: StrictBool | None = Field(None, description="Solid rock, with 2 in of concrete over the pipe down to it")


ShapeKind = Literal["box_offset", "offset", "saddle3", "saddle4", "kick", "rolling"]
Toward = Literal["outward", "inward", "leftward", "rightward", "upward", "downward", "onward", "backward"]
Aside = Annotated[float, Field(strict=True, gt=0, le=240, allow_inf_nan=False)]


class Shape(Frozen):
    """An offset, saddle or kick in a leg: how far aside, by what angle, where. What is not said is as usual.

    `toward`: outward and inward are away from the wall and to it; left and right as one walks along the leg; up and
    down of a level leg; onward and backward, along the wall, of an upright one.
    """

    kind: ShapeKind
    rise_in: Aside | None = Field(None, description="How far aside it brings the pipe")
    angle_deg: Annotated[float, Field(strict=True, ge=1, le=90)] | None = Field(
        None, description="Angle of each bend; of three, of the middle one; empty: the usual"
    )
    at_in: Inches | None = Field(
        None, description="Along the leg to where it is done, or to what it crosses; empty: at the box, else half way"
    )
    width_in: Aside | None = Field(None, description="Width of what a four-bend saddle crosses")
    roll_in: Aside | None = Field(None, description="Of a rolling offset: how far it goes the other way")
    toward: Toward = "outward"


class Leg(Frozen):
    """One direction, one length, one place, one method."""

    go: Go
    length_in: Annotated[float, Field(strict=True, ge=0.0625, le=120_000, allow_inf_nan=False)]
    place: PlaceKey
    method: MethodKey
    size: Size = ""
    depth_in: Inches | None = Field(None, description="Grade to the top of the pipe or cable, taped")
    bends_deg: tuple[Annotated[float, Field(strict=True, ge=1, le=180)], ...] = Field(
        (), max_length=12, description="Bends within the leg of which only the angles are known"
    )
    shapes: tuple[Shape, ...] = Field((), max_length=6, description="Offsets, saddles and kicks within the leg")
    radius_in: Annotated[float, Field(strict=True, ge=1, le=240)] | None = Field(
        None, description="Radius of the bend into this leg, to its middle; empty: as its bender or elbow makes it"
    )
    feed: Literal["", "start", "end"] = Field(
        "", description="Of the pull that begins with this leg: where wire goes in; empty: at the easier end"
    )
    sleeve: StrictBool = Field(False, description="The pipe only guards a cable that goes on through it")
    met: StrictBool = Field(False, description="The condition under which the method may go here is met")
    ribbon: StrictBool = Field(False, description="Warning ribbon lies over this leg")
    fished: StrictBool = Field(False, description="Fished through what is closed: held by nothing (334.30(B))")
    supposed: StrictBool = Field(
        False, description="Nobody said where it lies: its place is the usual one, and is asked"
    )
    stands_off: StrictBool = Field(False, description="Strapped on blocks or strut, for what comes over the wall")
    expansion: StrictBool = Field(False, description="An expansion fitting stands in this leg")
    along: Id | None = Field(
        None, description="Trench or span in which it lies: its length, place and depth are that one's"
    )
    facts: LegFacts = LegFacts()
    end: Joint = Joint()


class Way(Frozen):
    """A path that cables or pipes take: from a panel or box through legs to a box or panel. What lies in it are the
    hops of circuits that name it."""

    id: Id
    name: Name
    start: Id
    start_edge: EdgeKey = Field("", description="Edge of the box or panel that it leaves; empty: the nearest")
    day_f: Annotated[float, Field(strict=True, ge=-40, le=140)] | None = Field(
        None, description="How warm it is on the day its pipe is put up, °F"
    )
    legs: tuple[Leg, ...] = Field((), max_length=200)
