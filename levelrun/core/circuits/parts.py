"""A circuit: its breaker in a panel, its wire, and the boxes on it in the order the cable goes."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StrictBool

from levelrun.core.boxes.parts import Amperes
from levelrun.core.part import Frozen, Id, Inches, Name, Size

Protection = Literal["plain", "gfci", "afci", "dual"]


class Hop(Frozen):
    """One cable of a chain: to `box`, from the box `after`, or from the panel where it is null."""

    box: Id
    after: Id | None = None
    length_in: Inches | None = Field(None, description="As taped; null: computed from where the boxes stand")


class Circuit(Frozen):
    """A circuit. `space` is its topmost space, null while it has none; two poles take that space and the next down.

    `half`: of a tandem breaker, the upper (a) or lower (b) one. `feeds`: the panel that a feeder goes to.
    """

    id: Id
    name: Name
    panel: Id
    space: Annotated[int, Field(strict=True, ge=1, le=84)] | None = None
    half: Literal["", "a", "b"] = ""
    poles: Literal[1, 2] = 1
    volts: Literal[120, 240] = 120
    breaker_a: Amperes = 20
    protection: Protection = "plain"
    partner: Id | None = Field(None, description="Circuit that shares its neutral (multiwire)")
    tied: StrictBool = Field(False, description="Handle-tied to its partner")
    neutral: StrictBool = Field(True, description="Has a neutral; false for 240 V only")
    wire_size: Size = "12"
    material: Literal["cu", "al"] = "cu"
    method: Literal["NM-B", "UF-B", "MC", "AC", "SER", "raceway"] = "NM-B"
    whip_size: Size = Field("", description="Wire of the last flexible feet to its equipment, where it has such")
    equipment_ground: StrictBool = Field(True, description="An equipment ground runs with it")
    nameplate: StrictBool = Field(False, description="Motor or air conditioner: breaker and wire by its nameplate")
    least_ampacity_a: Amperes | None = Field(None, description="Minimum circuit ampacity on the nameplate")
    largest_breaker_a: Amperes | None = Field(None, description="Maximum overcurrent protection on the nameplate")
    feeds: Id | None = None
    chain: tuple[Hop, ...] = Field((), max_length=200)
