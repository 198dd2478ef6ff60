"""What one line asks for, as it was said."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

from levelrun.core.boxes.parts import Box
from levelrun.core.job import Circuit, Panel
from levelrun.core.start.kinds import Kind
from levelrun.core.start.there import Loose
from levelrun.core.ways.walk import WalkLeg


@dataclass(frozen=True, kw_only=True)
class Asked:
    """What the line says. `circuit`: fields of the circuit as said; `fed`: the name of the panel that it feeds, in a
    new `building`, called like it or by a name of its own; `unbuilt`: the word of a building, not there yet, in which
    its end stands; `box` and `on`: where it begins at a box, that and its circuit, which is drawn out; `there`: what
    stands at its end already; `branch`: it is said to be a circuit, and no feeder; `switched`: a light with a switch
    of its own; `count`: so many of a kind, `apart_in` from one to the next; `multiwire`: on two circuits that share a
    neutral; `whip_in`: how long the whip is behind its disconnect; `either`: the amperes of `load_a` stand bare by
    it, and may be those of its breaker; `more`: what hangs behind it, each `behind_in` from the one before."""

    kind: Kind
    panel: Panel
    legs: list[WalkLeg]
    box: Box | None = None
    on: Circuit | None = None
    there: Loose | None = None
    building: str = ""
    building_name: str = ""
    circuit: dict[str, Any] = field(default_factory=dict)
    name: str = ""
    load_a: float | None = None
    load_w: float | None = None
    motor_hp: float | None = None
    use: str = ""
    structure: str = ""
    where: str = ""
    outdoors: bool = False
    hardwired: bool = False
    box_name: str = ""
    fed: str = ""
    spaces: int | None = None
    unbuilt: str = ""
    branch: bool = False
    switched: bool = False
    count: int = 1
    apart_in: float | None = None
    multiwire: bool = False
    whip_in: float | None = None
    either: bool = False
    more: tuple[Asked, ...] = ()
    behind_in: float | None = None

    @property
    def begin(self) -> Panel | Box:
        """Where its way begins."""
        return self.box or self.panel

    @property
    def switched_before(self) -> bool:
        """Whether the switch that is said stands before it: of a machine that is wired; a lamp has it behind."""
        return self.switched and not self.kind.whip and self.kind.box.get("kind") == "equipment"


def goes_on(said: Asked) -> bool:
    """Whether a line goes on from the box at the end of the one before: an outlet, a light on its circuit, which say
    nothing of a breaker; behind a disconnect whatever it turns off."""
    if said.box is None or said.box.kind == "disconnect":
        return True
    plain = said.kind.volts == 120 and not said.kind.feeds and not said.kind.load_first and not said.circuit
    shared = said.box.serves in ("", "counter") and said.on is not None and said.on.volts == 120
    return plain and shared and said.box.kind != "equipment"
