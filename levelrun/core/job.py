"""The job: what the user said. Everything else follows from it through `plan`.

Lengths are inches, loads amperes, angles degrees. Models are frozen and refuse unknown keys.
"""

from __future__ import annotations

import unicodedata
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StrictBool, StringConstraints, model_validator

FORMAT = "levelrun-job"
FORMAT_VERSION = 1

Go = Literal["up", "down", "over", "left", "right"]
PlaceKey = Literal[
    "stud_wall", "ceiling_joists", "attic", "crawl_space", "basement", "room_surface", "shop_surface",
    "masonry_inside", "outside_wall", "roof", "trench", "driveway_trench", "under_building", "under_slab",
    "overhead", "equipment_tail",
]  # fmt: skip
MethodKey = Literal[
    "EMT", "RMC", "IMC", "PVC40", "PVC80", "ENT", "FMC", "LFMC", "LFNC",
    "NM-B", "UF-B", "MC", "AC", "SER", "OVERHEAD",
]  # fmt: skip
AboveKey = Literal["open_ground", "concrete_2in", "under_building", "slab_4in", "street", "driveway"]
JointKind = Literal["none", "box", "lb", "body", "coupling"]
StructureKind = Literal["house", "shop", "cabin", "shed", "yard"]
BoxKind = Literal["junction", "device", "equipment", "disconnect"]


def _plain(text: str) -> str:
    bad = [char for char in text if unicodedata.category(char) in ("Cc", "Cs", "Co", "Cn")]
    if bad:
        raise ValueError(f"has a character that cannot be printed: {bad[0]!r}")
    return text


Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60), AfterValidator(_plain)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=500), AfterValidator(_plain)]
Id = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,40}$")]
Size = Annotated[str, StringConstraints(pattern=r"^[0-9/-]{0,8}$")]
Inches = Annotated[float, Field(strict=True, ge=0, le=120_000, allow_inf_nan=False)]
Height = Annotated[float, Field(strict=True, ge=-1200, le=6000, allow_inf_nan=False)]


class Frozen(BaseModel):
    """Base of the job's parts: immutable, unknown keys refused, no NaN."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class Structure(Frozen):
    """A building, or the yard. Heights in inches from its main floor, up positive."""

    id: Id
    name: Name
    kind: StructureKind = "house"
    grade_in: Height = Field(-18, description="Outside ground, from the main floor")
    ceiling_in: Height = Field(96, description="Underside of the ceiling, from the main floor")
    under_floor_in: Height | None = Field(
        None, description="Crawl or basement floor, from the main floor; null where there is none"
    )


class Panel(Frozen):
    """A panel. `height_in` is its lower edge over the structure's main floor."""

    id: Id
    name: Name
    structure: Id
    height_in: Height = 48


class Box(Frozen):
    """A box, disconnect or piece of equipment at which a run may end."""

    id: Id
    name: Name
    structure: Id
    kind: BoxKind = "junction"
    height_in: Height = 16
    clamps: StrictBool = Field(True, description="Has cable clamps; false for a plastic single-gang box without")


class Joint(Frozen):
    """What stands at the end of a leg. `node` names a box or panel where kind is box."""

    kind: JointKind = "none"
    node: Id | None = None

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
    above: AboveKey | None = None


class Leg(Frozen):
    """One direction, one length, one place, one method."""

    go: Go
    length_in: Annotated[float, Field(strict=True, gt=0, le=120_000, allow_inf_nan=False)]
    place: PlaceKey
    method: MethodKey
    size: Size = ""
    depth_in: Inches | None = Field(None, description="Grade to the top of the pipe or cable, taped")
    bends_deg: tuple[Annotated[float, Field(strict=True, gt=0, le=180)], ...] = Field(
        (), max_length=12, description="Bends within the leg: offsets, saddles"
    )
    sleeve: StrictBool = Field(False, description="The pipe only guards a cable that goes on through it")
    met: StrictBool = Field(False, description="The condition under which the method may go here is met")
    ribbon: StrictBool = Field(False, description="Warning ribbon lies over this leg")
    expansion: StrictBool = Field(False, description="An expansion fitting stands in this leg")
    facts: LegFacts = LegFacts()
    end: Joint = Joint()


class Run(Frozen):
    """From a panel or box through legs to a box or panel, with the circuit it carries."""

    id: Id
    name: Name
    circuit: Annotated[str, StringConstraints(strip_whitespace=True, max_length=12), AfterValidator(_plain)] = ""
    start: Id
    volts: Literal[120, 208, 240] = 120
    breaker_a: Annotated[float, Field(strict=True, gt=0, le=400)] = 20
    load_a: Annotated[float, Field(strict=True, ge=0, le=400)] = Field(0, description="Load really expected")
    wire_size: Size = "12"
    material: Literal["cu", "al"] = "cu"
    insulation: Literal["THWN-2", "XHHW-2"] = "THWN-2"
    conductors: Annotated[int, Field(strict=True, ge=2, le=9)] = Field(
        2, description="Hots and neutral, without ground"
    )
    neutral: StrictBool = Field(True, description="One of the conductors is a neutral")
    nameplate: StrictBool = Field(
        False, description="Motor or air conditioner: wire and breaker go by its nameplate (240.4(G))"
    )
    gfci: StrictBool = Field(False, description="GFCI protection stands upstream of this run")
    legs: tuple[Leg, ...] = Field((), max_length=200)


class Habits(Frozen):
    """Shop habits: common practice, no source. Changed once, they travel with the job."""

    panel_makeup_in: Inches = 42
    box_makeup_in: Inches = 8
    outside_makeup_in: Inches = 12
    loop_in: Inches = 6
    waste_percent: Annotated[float, Field(strict=True, ge=0, le=50)] = 5
    first_staple_in: Annotated[float, Field(strict=True, gt=0, le=12)] = 8
    staple_spacing_in: Annotated[float, Field(strict=True, gt=0, le=54)] = 48
    temperature_swing_f: Annotated[float, Field(strict=True, ge=0, le=200)] = 100
    dollars_per_hour: Annotated[float, Field(strict=True, ge=0, le=1000)] = 65


class LocalNote(Frozen):
    """A local rule: a number of the rule set as the authority here wants it, with who said so and when."""

    id: Id
    key: Annotated[str, StringConstraints(pattern=r"^[a-z0-9_]{1,60}$")]
    value: Annotated[float, Field(strict=True, ge=-1e6, le=1e6, allow_inf_nan=False)]
    who: Name
    when: Annotated[str, StringConstraints(pattern=r"^\d{4}-\d{2}-\d{2}$")]
    why: Text = ""
    approved: StrictBool = Field(False, description="The authority approved it in writing; without, it never loosens")


class Job(Frozen):
    """The whole job as one file. `format_version` grows when an older reader could not read it."""

    format: Literal["levelrun-job"] = "levelrun-job"
    format_version: Annotated[int, Field(strict=True, ge=1)] = FORMAT_VERSION
    name: Name
    rules: Literal["us-2023", "us-2020", "ca-2021"] = "us-2023"
    remarks: Text = ""
    habits: Habits = Habits()
    notes: tuple[LocalNote, ...] = Field((), max_length=60)
    structures: tuple[Structure, ...] = Field((), max_length=60)
    panels: tuple[Panel, ...] = Field((), max_length=60)
    boxes: tuple[Box, ...] = Field((), max_length=2000)
    runs: tuple[Run, ...] = Field((), max_length=500)

    @model_validator(mode="after")
    def _whole(self) -> Job:
        if self.format_version > FORMAT_VERSION:
            raise ValueError(
                f"format_version {self.format_version} comes from a newer Level Run; allowed: up to {FORMAT_VERSION}"
            )
        _unique("id", self.ids())
        _unique("name", [node.name.casefold() for node in self.nodes])
        structures = {item.id for item in self.structures}
        nodes = {item.id for item in self.nodes}
        for node in self.nodes:
            _known("structure", node.name, node.structure, structures)
        for run in self.runs:
            _known("start", run.name, run.start, nodes)
            for index, leg in enumerate(run.legs):
                if leg.end.node is not None:
                    _known(f"legs.{index}.end.node", run.name, leg.end.node, nodes)
        return self

    @property
    def nodes(self) -> tuple[Panel | Box, ...]:
        """Panels, then boxes: whatever a run may start or end at."""
        return self.panels + self.boxes

    def ids(self) -> list[str]:
        """Every id in use, one after another."""
        return [
            *(item.id for item in self.structures),
            *(item.id for item in self.nodes),
            *(item.id for item in self.runs),
        ]

    def node(self, node_id: str) -> Panel | Box:
        """The panel or box with this id. Raises KeyError."""
        for item in self.nodes:
            if item.id == node_id:
                return item
        raise KeyError(node_id)

    def run(self, run_id: str) -> Run:
        """The run with this id. Raises KeyError."""
        for item in self.runs:
            if item.id == run_id:
                return item
        raise KeyError(run_id)


def _unique(what: str, values: list[str]) -> None:
    seen: set[str] = set()
    for value in values:
        if value in seen:
            raise ValueError(f"{what} {value!r} stands twice; every {what} is used once")
        seen.add(value)


def _known(key: str, owner: str, value: str, known: set[str]) -> None:
    if value not in known:
        raise ValueError(f"{key} {value!r} of {owner!r} does not exist in this job")
