"""One run with everything a rule about it may ask: the facts of its legs, its ends, its pulls."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import Method, PlaceFacts, ground_size, method, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Habits, Panel, Run, Structure
from levelrun.core.kept import kept_hash
from levelrun.core.runs.geometry import Placed, lay_out
from levelrun.core.trade.conductors.sizing import Demand, choose, upsized_ground
from levelrun.core.trade.methods.facts import CHANGEABLE, facts_of
from levelrun.core.trade.pipe.fill import Wires

PULL_POINTS = ("box", "lb", "body")
OPEN = ("trench", "driveway_trench", "under_building", "under_slab", "overhead")


@dataclass(frozen=True, kw_only=True)
class Upstream:
    """A stretch of wire between the panel and the start of a run: one run before it in the chain."""

    name: str
    volts: float
    breaker_a: float
    load_a: float
    length_ft: float
    size: str
    material: str
    feeder: bool


@dataclass(frozen=True, kw_only=True)
class RunContext:
    """What a run touches in its job. Hashable, so that an unchanged run is not planned again.

    `spots`: where its boxes and panels stand on the site, inches east and north, for those that are on a plan.
    """

    run: Run
    habits: Habits
    structures: tuple[Structure, ...]
    nodes: tuple[Panel | Box, ...]
    upstream: tuple[Upstream, ...]
    group: str
    spots: tuple[tuple[str, tuple[float, float]], ...] = ()

    __hash__ = kept_hash


@dataclass(frozen=True, eq=False)
class RunView:
    """A run laid out under a rule set."""

    book: Codebook
    context: RunContext

    @property
    def run(self) -> Run:
        """The run."""
        return self.context.run

    @property
    def habits(self) -> Habits:
        """The shop's habits."""
        return self.context.habits

    @cached_property
    def nodes(self) -> dict[str, Panel | Box]:
        """Panels and boxes that the run touches, by id."""
        return {node.id: node for node in self.context.nodes}

    @cached_property
    def structures(self) -> dict[str, Structure]:
        """Structures that the run touches, by id."""
        return {item.id: item for item in self.context.structures}

    @property
    def start(self) -> Panel | Box:
        """The panel or box where the run starts."""
        return self.nodes[self.run.start]

    @property
    def end(self) -> Panel | Box | None:
        """The panel or box where the last leg ends, or None."""
        node = self.run.legs[-1].end.node if self.run.legs else None
        return self.nodes[node] if node else None

    @cached_property
    def placed(self) -> list[Placed]:
        """The legs laid out."""
        return lay_out(self.run, self.start.height_in)

    @cached_property
    def facts(self) -> list[PlaceFacts]:
        """Facts of each leg's place with the changes said."""
        return [self._facts(index) for index in range(len(self.run.legs))]

    def _facts(self, index: int) -> PlaceFacts:
        leg = self.run.legs[index]
        said = {key: getattr(leg.facts, key) for key in CHANGEABLE}
        if said["damage"] is None and leg.place == "outside_wall" and self._over_reach(index):
            said["damage"] = False
        return facts_of(self.book, leg.place, said)

    def _over_reach(self, index: int) -> bool:
        """The whole leg stands 8 ft or more over known ground, where nothing is said to hit it (300.5(D)(1))."""
        grade = self.ground_in(index)
        foot = min(self.placed[index].y0, self.placed[index].y1)
        return grade is not None and foot - grade >= self.book.number("riser_guard_in")

    def ground_in(self, index: int) -> float | None:
        """Outside ground at a leg, in the heights of the strip: at the start's structure until the run has been
        out in the earth or the air, then at the end's; None where no structure is known."""
        been_out = any(leg.place in OPEN for leg in self.run.legs[:index])
        node = self.end if been_out else self.start
        structure = self.structures.get(node.structure) if node else None
        if node is None or structure is None:
            return None
        base = self.placed[-1].y1 - node.height_in if been_out and node.structure != self.start.structure else 0.0
        return base + structure.grade_in

    @cached_property
    def methods(self) -> list[Method]:
        """Method of each leg."""
        return [method(self.book, leg.method) for leg in self.run.legs]

    def piped(self, index: int) -> bool:
        """Single wires in a pipe here: a raceway that is not the sleeve of a cable."""
        return self.methods[index].kind == "raceway" and not self.run.legs[index].sleeve

    def carried(self, index: int) -> tuple[str, str]:
        """Method and size of the cable that a sleeve guards: that of the nearest cable leg before, else after."""
        near = [*range(index - 1, -1, -1), *range(index + 1, len(self.run.legs))]
        for other in near:
            if self.methods[other].kind != "raceway":
                return self.run.legs[other].method, self.run.legs[other].size
        return "NM-B", f"{self.run.wire_size}-{self.run.conductors}"

    def joint_before(self, index: int) -> str:
        """Kind of what stands at the start of a leg: panel, box, lb, body, coupling or none."""
        if index == 0:
            return "panel" if isinstance(self.start, Panel) else "box"
        return self.joint_after(index - 1)

    def joint_after(self, index: int) -> str:
        """Kind of what stands at the end of a leg."""
        end = self.run.legs[index].end
        if end.node and isinstance(self.nodes[end.node], Panel):
            return "panel"
        return end.kind

    def joint_name(self, index: int) -> str:
        """Name of what stands at the end of leg `index`; -1 is the start of the run."""
        if index < 0:
            return self.start.name
        end = self.run.legs[index].end
        if end.node:
            return self.nodes[end.node].name
        return {"lb": "LB", "body": "body", "coupling": "coupling", "none": ""}[end.kind]

    @cached_property
    def wires(self) -> list[Wires]:
        """Single wires of this run when in pipe: the circuit and its ground."""
        run = self.run
        ground = self.ground
        if ground == run.wire_size:
            return [Wires(run.insulation, run.wire_size, run.conductors + 1)]
        return [Wires(run.insulation, run.wire_size, run.conductors), Wires(run.insulation, ground, 1)]

    @cached_property
    def ground(self) -> str:
        """Equipment ground of the run by its breaker, never over the hots."""
        return self.ground_for(self.run.wire_size)

    def ground_for(self, size: str) -> str:
        """The ground were the wire of that size: grown with it where it is more than all but drop would take."""
        run = self.run
        order = wire_sizes(self.book)
        if size not in order:
            return ground_size(self.book, run.breaker_a, run.material)
        base = min(self.least_wire, size, key=order.index)
        return upsized_ground(self.book, run.breaker_a, run.material, base, size)

    @cached_property
    def current_carrying(self) -> int:
        """Wires that count for bundling: the neutral of a three-wire circuit does not (310.15(E))."""
        run = self.run
        return run.conductors - 1 if run.neutral and run.conductors > 2 else run.conductors

    def demand(self, index: int) -> Demand:
        """What the wire of one leg must carry, and in what heat."""
        run, key = self.run, self.run.legs[index].method
        return Demand(
            load_a=run.load_a,
            breaker_a=run.breaker_a,
            volts=run.volts,
            material=run.material,
            wiring="raceway" if self.piped(index) or key == "OVERHEAD" else self.carried_method(index),
            insulation=run.insulation,
            ambient_c=self.heat_c(index),
            current_carrying=self.current_carrying,
        )

    def on_sunny_roof(self, index: int) -> bool:
        """Whether a leg lies over a roof in the sun; XHHW-2 in pipe does not mind (310.15(B)(2))."""
        free = self.piped(index) and self.run.insulation == "XHHW-2"
        return self.run.legs[index].place == "roof" and bool(self.facts[index].sunlight) and not free

    def heat_c(self, index: int) -> float:
        """Air around the wire of a leg, °C, with what a hot roof adds where it is said to lie close over it."""
        up = self.run.legs[index].facts.above_roof_in
        low = up is not None and up < self.book.number("roof_low_in") and self.on_sunny_roof(index)
        return self.facts[index].ambient_c + (self.book.number("roof_adder_c") if low else 0.0)

    def carried_method(self, index: int) -> str:
        """Cable of a leg, its own or the one in its sleeve."""
        return self.carried(index)[0] if self.run.legs[index].sleeve else self.run.legs[index].method

    @cached_property
    def least_wire(self) -> str:
        """Smallest wire that all but drop would take on every leg: growth over it is for drop."""
        order = wire_sizes(self.book)
        found = [order[0]]
        for index in range(len(self.run.legs)):
            demand = replace(self.demand(index), load_a=min(self.run.load_a, self.run.breaker_a))
            try:
                found.append(choose(self.book, demand).size)
            except LevelRunError:
                continue
        return max(found, key=order.index)

    @cached_property
    def colours(self) -> list[str]:
        """Wire colours in the order of `wires`: hots, neutral, ground."""
        run = self.run
        hots = ["black", "red", "blue", "brown"]
        count = run.conductors - (1 if run.neutral else 0)
        named = [hots[i % 4] for i in range(count)]
        return [*named, *(["white"] if run.neutral else []), "green"]


def end_kind(view: RunView, joint: str, node: str | None) -> str:
    """The end of a leg as the support rule names it: box_clamped, box_no_clamp, panel or none."""
    if joint in ("none", "coupling"):
        return "none"
    box = view.nodes.get(node) if node else None
    if isinstance(box, Box) and not box.clamps:
        return "box_no_clamp"
    return "panel" if joint == "panel" else "box_clamped"


def joined(words: Sequence[str]) -> str:
    """A list as read aloud: a, b and c."""
    if not words:
        return "none"
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"
