"""A circuit: its breaker in a panel, its wire, and the boxes on it in the order the cable goes."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool, model_validator

from levelrun.core.boxes.parts import Amperes
from levelrun.core.part import Frozen, Id, Inches, Name, School, Size
from levelrun.core.site.parts import Coordinate

Protection = Literal["plain", "gfci", "afci", "dual"]


class Via(Frozen):
    """A place that a cable is drawn through: a point of a level's plan; in the wall there at its hole line, or in the
    joists over or under the level."""

    level: Id
    x_in: Coordinate
    y_in: Coordinate
    at: Literal["wall", "over", "under"] = "wall"


class Hop(Frozen):
    """One cable of a chain, or its wires in pipe: to `box`, from the box `after`, or from the panel where it is null.

    `box` is a panel where a feeder ends. `path`: the ways that it takes, in order.
    """

    box: Id
    after: Id | None = None
    length_in: Inches | None = Field(None, description="As taped; null: by its ways, else from where the boxes stand")
    path: tuple[Id, ...] = Field((), max_length=20, description="Ways that it takes, in order")
    school: Literal["", School] = Field(
        "", description="How it goes through the frame, where that is not the shop's habit"
    )
    via: tuple[Via, ...] = Field((), max_length=12, description="Places that its way was drawn through, in order")
    pulled_in: Inches | None = Field(None, description="What was cut when it was pulled; null while it is not")
    wire_size: Size = Field("", description="Wire of this stretch, where it is not that of the circuit")
    conductors: Annotated[int, Field(strict=True, ge=2, le=9)] | None = Field(
        None, description="Hots and neutral, without ground, where more run than its boxes ask for"
    )


class Circuit(Frozen):
    """A circuit. `space` is its topmost space, null while it has none; two poles take that space and the next down.

    `half`: of a tandem breaker, the upper (a) or lower (b) one. `feeds`: the panel that a feeder goes to, the last of
    its chain.
    """

    id: Id
    name: Name
    panel: Id
    space: Annotated[int, Field(strict=True, ge=1, le=84)] | None = None
    half: Literal["", "a", "b"] = ""
    poles: Literal[1, 2] = 1
    volts: Literal[120, 208, 240] = 120
    breaker_a: Amperes = 20
    protection: Protection = "plain"
    partner: Id | None = Field(None, description="Circuit that shares its neutral (multiwire)")
    tied: StrictBool = Field(False, description="Handle-tied to its partner")
    neutral: StrictBool = Field(True, description="Has a neutral; false for 240 V only")
    wire_size: Size = "12"
    material: Literal["cu", "al"] = "cu"
    insulation: Literal["THWN-2", "XHHW-2"] = "THWN-2"
    ground_size: Size = Field("", description="Equipment ground, where it is larger than it must be; empty: derived")
    load_a: Annotated[float, Field(strict=True, ge=0, le=1200)] | None = Field(
        None, description="Load really expected; null: by its boxes, or by the panel that it feeds"
    )
    method: Literal["NM-B", "UF-B", "MC", "AC", "SER", "raceway"] = "NM-B"
    whip_size: Size = Field("", description="Wire of the last flexible feet to its equipment, where it has such")
    nonlinear: StrictBool = Field(
        False, description="Mostly electronic or discharge loads: its neutral carries current too"
    )
    equipment_ground: StrictBool = Field(True, description="An equipment ground runs with it")
    nameplate: StrictBool = Field(False, description="Motor or air conditioner: breaker and wire by its nameplate")
    least_ampacity_a: Amperes | None = Field(None, description="Minimum circuit ampacity on the nameplate")
    largest_breaker_a: Amperes | None = Field(None, description="Maximum overcurrent protection on the nameplate")
    locks: StrictBool = Field(False, description="Its breaker can be locked off, with a part that stays on it")
    feeds: Id | None = None
    chain: tuple[Hop, ...] = Field((), max_length=200)

    @model_validator(mode="before")
    @classmethod
    def _ends_at_its_panel(cls, raw: Any) -> Any:
        """The chain of a feeder ends at the panel that it feeds."""
        if not isinstance(raw, dict) or not isinstance(raw.get("feeds"), str):
            return raw
        chain = raw.get("chain", ())
        if not isinstance(chain, list | tuple):
            return raw
        boxes = [hop.get("box") if isinstance(hop, dict) else getattr(hop, "box", None) for hop in chain]
        if raw["feeds"] in boxes:
            return raw
        return {**raw, "chain": (*chain, {"box": raw["feeds"], "after": boxes[-1] if boxes else None})}
