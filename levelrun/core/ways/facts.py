"""One way with everything a rule about it may ask: the facts of its legs, its ends, what lies in it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import takewhile

from levelrun.core.circuits.loads import HopWires
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import Method, PlaceFacts, made_size, method, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Habits, Leg, Panel, Structure, Way
from levelrun.core.kept import kept_hash
from levelrun.core.trade.conductors.sizing import Demand, choose
from levelrun.core.trade.methods.facts import CHANGEABLE, facts_of
from levelrun.core.trade.pipe.fill import Wires
from levelrun.core.ways.carried import Carried, Lying, Strands, cable_name, largest_ground, lying_in, strands_of
from levelrun.core.ways.geometry import Placed, laid_out, leaves_at
from levelrun.core.ways.laid import LaidIn

PULL_POINTS = ("box", "lb", "body")
OPEN = ("trench", "driveway_trench", "under_building", "under_slab", "overhead")
WALLS, OUTSIDE, THROUGH_IN = ("stud_wall", "outside_wall", "masonry_inside"), ("outside_wall", "trench", "roof"), 14.0
SINGLE = ("span", "buried_feeder")  # families of wires that are cabled but not jacketed: rated as wires in pipe are
BEYOND = ("ceiling_joists", "attic", "crawl_space", "basement")
BUNDLED_IN = 24.0  # cables side by side for longer than this carry less (310.15(C)(1))


def in_pipe(book: Codebook, leg: Leg) -> bool:
    """Whether single wires lie in a leg: a raceway that is not the sleeve of a cable."""
    return method(book, leg.method).kind == "raceway" and not leg.sleeve


@dataclass(frozen=True, kw_only=True)
class WayContext:
    """What a way touches in its job. Hashable, so that an unchanged way is not planned again.

    `spots`: where its boxes and panels stand on the site, inches east and north, for those that are on a plan.
    `beside`: of a way that drew itself, the wires of other cables that carry current and share its holes in studs;
    `holes`: for each of its legs the holes that it goes through, inches along it; `laid`: the trenches it lies in.
    """

    way: Way
    habits: Habits
    structures: tuple[Structure, ...]
    nodes: tuple[Panel | Box, ...]
    carried: tuple[Carried, ...]
    spots: tuple[tuple[str, tuple[float, float]], ...] = ()
    beside: int = 0
    holes: tuple[tuple[float, ...], ...] = ()
    laid: tuple[LaidIn, ...] = ()

    __hash__ = kept_hash


@lru_cache(maxsize=512)
def _made_with(book: Codebook, key: str, wire: str, count: int) -> str:
    """The smallest wire from this one on that a cable with so many is made with: 2 for a 3 that nobody makes; itself
    where there is none."""
    order = wire_sizes(book)
    return next((size for size in order[order.index(wire) :] if made_size(book, key, size, count)), wire)


@dataclass(frozen=True, eq=False)
class WayView:
    """A way laid out under a rule set."""

    book: Codebook
    context: WayContext

    @cached_property
    def way(self) -> Way:
        """The way."""
        return self.context.way

    @property
    def habits(self) -> Habits:
        """The shop's habits."""
        return self.context.habits

    @cached_property
    def nodes(self) -> dict[str, Panel | Box]:
        """Panels and boxes that the way touches, by id."""
        return {node.id: node for node in self.context.nodes}

    @cached_property
    def structures(self) -> dict[str, Structure]:
        """Structures that the way touches, by id."""
        return {item.id: item for item in self.context.structures}

    @property
    def start(self) -> Panel | Box:
        """The panel or box where the way starts."""
        return self.nodes[self.way.start]

    @property
    def end(self) -> Panel | Box | None:
        """The panel or box where the last leg ends, or None."""
        node = self.way.legs[-1].end.node if self.way.legs else None
        return self.nodes[node] if node else None

    @cached_property
    def left_at_in(self) -> float:
        """Where the way leaves its start."""
        return leaves_at(self.way, self.start, self.end)

    @cached_property
    def placed(self) -> list[Placed]:
        """The legs laid out."""
        return laid_out(self.way, self.left_at_in, self.nodes, self.structures)

    @cached_property
    def facts(self) -> list[PlaceFacts]:
        """Facts of each leg's place with the changes said."""
        return [self._facts(index) for index in range(len(self.way.legs))]

    def _facts(self, index: int) -> PlaceFacts:
        leg = self.way.legs[index]
        said = {key: getattr(leg.facts, key) for key in CHANGEABLE}
        if said["damage"] is None and self._through_a_wall(index):
            said["damage"] = False
        if said["damage"] is None and leg.place == "outside_wall" and self._over_reach(index):
            said["damage"] = False
        return facts_of(self.book, leg.place, said)

    def _through_a_wall(self, index: int) -> bool:
        """A short level leg from inside to outside: what goes through a wall is in no place where it can be hit."""
        leg = self.way.legs[index]
        if leg.go in ("up", "down") or leg.length_in > THROUGH_IN or leg.place not in WALLS:
            return False
        beside = [self.way.legs[i].place for i in (index - 1, index + 1) if 0 <= i < len(self.way.legs)]
        return len(beside) == 2 and len({place in OUTSIDE for place in beside}) == 2

    def _over_reach(self, index: int) -> bool:
        """The whole leg stands 8 ft or more over known ground, where nothing is said to hit it (300.5(D)(1))."""
        grade = self.ground_in(index)
        foot = min(self.placed[index].y0, self.placed[index].y1)
        return grade is not None and foot - grade >= self.book.number("riser_guard_in")

    def ground_in(self, index: int) -> float | None:
        """Outside ground at a leg, in the heights of the strip: at the start's structure until the way has been
        out in the earth or the air, then at the end's; None where no structure is known."""
        been_out = any(leg.place in OPEN for leg in self.way.legs[:index])
        node = self.end if been_out else self.start
        structure = self.structures.get(node.structure) if node else None
        if node is None or structure is None:
            return None
        base = self.placed[-1].met_y - node.height_in if been_out and node.structure != self.start.structure else 0.0
        return base + structure.grade_in

    @cached_property
    def methods(self) -> list[Method]:
        """Method of each leg."""
        return [method(self.book, leg.method) for leg in self.way.legs]

    def in_trench(self, index: int) -> bool:
        """Whether a leg lies in a trench, which speaks for its depth, its ribbon and its marks."""
        return any(item.first <= index <= item.last for item in self.context.laid)

    def piped(self, index: int) -> bool:
        """Single wires in a pipe here: a raceway that is not the sleeve of a cable."""
        return self._piped[index]

    @cached_property
    def _piped(self) -> list[bool]:
        return [in_pipe(self.book, leg) for leg in self.way.legs]

    def guarded(self, index: int) -> tuple[str, str]:
        """Method and size of the cable that a sleeve guards: that of the nearest cable leg before, else after; first
        those that no box parts from it."""
        back, on = range(index - 1, -1, -1), range(index + 1, len(self.way.legs))
        whole_back = takewhile(lambda i: self.joint_after(i) != "box", back)
        whole_on = takewhile(lambda i: self.joint_after(i - 1) != "box", on)
        for other in (*whole_back, *whole_on, *back, *on):
            if self.methods[other].kind != "raceway":
                return self.way.legs[other].method, self.way.legs[other].size
        here = self.lying(index)
        return "NM-B", cable_name(here[:1]) if here else ""

    def joint_before(self, index: int) -> str:
        """Kind of what stands at the start of a leg: panel, box, lb, body, coupling or none."""
        if index == 0:
            return "panel" if isinstance(self.start, Panel) else "box"
        return self.joint_after(index - 1)

    def joint_after(self, index: int) -> str:
        """Kind of what stands at the end of a leg."""
        end = self.way.legs[index].end
        if end.node and isinstance(self.nodes[end.node], Panel):
            return "panel"
        return end.kind

    def node_at(self, place: int) -> str:
        """The box or panel after so many legs, 0 the start; empty where none stands there."""
        return self.way.start if place == 0 else self.way.legs[place - 1].end.node or ""

    def joint_name(self, index: int) -> str:
        """Name of what stands at the end of leg `index`; -1 is the start of the way."""
        if index < 0:
            return self.start.name
        end = self.way.legs[index].end
        if end.node:
            return self.nodes[end.node].name
        return {"lb": "LB", "body": "body", "coupling": "coupling", "none": ""}[end.kind]

    def lying(self, index: int) -> tuple[Lying, ...]:
        """The hops in one leg, in the order of the circuits."""
        return self._lying[index]

    @cached_property
    def _lying(self) -> list[tuple[Lying, ...]]:
        return [lying_in([c for c in self.context.carried if c.first <= i <= c.last]) for i in self.indexes]

    @property
    def indexes(self) -> range:
        """The numbers of its legs, from 0."""
        return range(len(self.way.legs))

    def cables(self, index: int) -> list[tuple[tuple[Lying, ...], str]]:
        """The cables of a leg that is no pipe: each with its hops (two where a neutral is shared) and its size. One
        alone is of the size said; of a bundle each is of its own circuit's."""
        groups: list[list[Lying]] = []
        for item in self.lying(index):
            mate = next((g for g in groups if len(g) == 1 and g[0].wires.circuit == item.wires.partner), None)
            if mate is not None and not item.neutral:
                mate.append(item)
            else:
                groups.append([item])
        size = self.way.legs[index].size
        return [(tuple(group), size if len(groups) == 1 else cable_name(group)) for group in groups]

    def strands(self, index: int) -> list[Strands]:
        """Single wires of a leg when in pipe, kind by kind, with one ground for all."""
        return self._strands[index]

    @cached_property
    def _strands(self) -> list[list[Strands]]:
        order = wire_sizes(self.book)
        return [strands_of(self.lying(index), order) for index in self.indexes]

    def grounds(self, index: int, item: Lying) -> bool:
        """Whether a hop brings the ground of a leg in pipe."""
        return largest_ground(self.lying(index), wire_sizes(self.book)) is item

    def wires(self, index: int) -> list[Wires]:
        """Single wires of a leg when in pipe."""
        return [item.wires for item in self.strands(index)]

    def through_plate(self, index: int) -> bool:
        """Whether an upright leg in a stud wall goes on through its plate: into joists, an attic, a crawl space."""
        if not self.placed[index].vertical or self.way.legs[index].place != "stud_wall":
            return False
        return any(self.way.legs[i].place in BEYOND for i in (index - 1, index + 1) if i in self.indexes)

    def sealed(self, index: int) -> bool:
        """Whether more than two cables lie in one hole that is foamed or caulked, or touch in insulation (334.80)."""
        if len(self.context.carried) <= 2:
            return False
        tight = self.facts[index].insulation or self.through_plate(index)
        return bool(tight) and self.way.legs[index].method == "NM-B" and len(self.cables(index)) > 2

    def current_carrying(self, index: int, item: Lying) -> int:
        """Wires that carry current beside those of a hop: all in its pipe, all of a bundle, else its own cable's."""
        here, leg = self.lying(index), self.way.legs[index]
        if self.piped(index) or leg.length_in > BUNDLED_IN or self.sealed(index):
            own = sum(other.counted for other in here)
        else:
            cables = self.cables(index)
            own = next((sum(i.counted for i in group) for group, _ in cables if item in group), item.counted)
        bored = leg.place == "stud_wall" and not self.placed[index].vertical
        return own + (self.context.beside if bored else 0)

    @property
    def unlike(self) -> Iterable[int]:
        """The first leg of each kind: of legs that ask the same of their wires one speaks for all."""
        return self.alike.keys()

    @cached_property
    def alike(self) -> dict[int, float]:
        """The first leg of each kind, with the length of all legs of it, inches."""
        kinds: dict[tuple[object, ...], int] = {}
        lengths: dict[int, float] = {}
        for index, leg in enumerate(self.way.legs):
            long = leg.length_in > BUNDLED_IN
            key = (leg.method, leg.size, leg.sleeve, leg.facts, long, leg.place, self.placed[index].vertical)
            here = tuple([c.first <= index <= c.last for c in self.context.carried])
            first = kinds.setdefault((*key, self.sealed(index), here), index)
            lengths[first] = lengths.get(first, 0.0) + leg.length_in
        return lengths

    def demand(self, index: int, item: Lying) -> Demand:
        """What the wire of a hop must carry in one leg, and in what heat."""
        w = item.wires
        return Demand(
            load_a=w.load_a,
            breaker_a=w.breaker_a,
            volts=w.volts,
            material=w.material,
            wiring="raceway"
            if self.piped(index) or self.methods[index].family in SINGLE
            else self.cable_method(index),
            insulation=w.insulation,
            minimum_ampacity_a=max(w.least_a, w.load_a) if w.least_a else None,
            ambient_c=self.heat_c(index),
            current_carrying=self.current_carrying(index, item),
        )

    def on_sunny_roof(self, index: int) -> bool:
        """Whether a leg lies over a roof in the sun; XHHW-2 in pipe does not mind (310.15(B)(2))."""
        here = self.lying(index)
        free = self.piped(index) and bool(here) and all(item.wires.insulation == "XHHW-2" for item in here)
        return self.way.legs[index].place == "roof" and bool(self.facts[index].sunlight) and not free

    def heat_c(self, index: int) -> float:
        """Air around the wire of a leg, °C, with what a hot roof adds where it is said to lie close over it."""
        up = self.way.legs[index].facts.above_roof_in
        low = up is not None and up < self.book.number("roof_low_in") and self.on_sunny_roof(index)
        return self.facts[index].ambient_c + (self.book.number("roof_adder_c") if low else 0.0)

    def cable_method(self, index: int) -> str:
        """Cable of a leg, its own or the one in its sleeve."""
        return self.guarded(index)[0] if self.way.legs[index].sleeve else self.way.legs[index].method

    def least_wire(self, carried: Carried) -> str:
        """Smallest wire that all but drop would take on every leg of a hop, of those that its cable is made with:
        growth over it is for drop."""
        order = wire_sizes(self.book)
        found = [order[0]]
        for index in self.unlike:
            if not carried.first <= index <= carried.last:
                continue
            item = next(i for i in self.lying(index) if _same(i.wires, carried.wires))
            demand = self.demand(index, item)
            try:
                size = choose(self.book, within(demand, item.wires)).size
                cabled = self.methods[index].kind == "cable"
                count = item.wires.conductors
                found.append(_made_with(self.book, self.cable_method(index), size, count) if cabled else size)
            except LevelRunError:
                continue
        return max(found, key=order.index)

    def circuits(self, first: int = 0, last: int | None = None) -> dict[str, HopWires]:
        """The circuits in legs first to last, by id."""
        stop = len(self.way.legs) if last is None else last + 1
        return {item.wires.circuit: item.wires for index in range(first, stop) for item in self.lying(index)}

    def called(self, wires: HopWires) -> str:
        """A circuit before what is said of it, where several lie in the way; else nothing."""
        return f"{wires.title}: " if len(self.circuits()) > 1 else ""


@lru_cache(maxsize=1024)
def viewed(book: Codebook, context: WayContext) -> WayView:
    """A way under a rule set: one view for all that ask."""
    return WayView(book, context)


# What hangs on the legs of a way and where it stands, not on the wires in it.
OF_LEGS = ("nodes", "structures", "left_at_in", "placed", "facts", "methods", "_piped")
OF_WIRES = ("_lying", "_strands", "alike")


def rewired(
    book: Codebook, context: WayContext, carried: tuple[Carried, ...], same_wires: bool = False
) -> WayContext:  # fmt: skip
    """A way with other wires in it, or with the `same_wires` in other pieces. What its view has found of what stays
    is handed on."""
    found = replace(context, carried=carried)
    known = vars(viewed(book, context))
    stays = (*OF_LEGS, *OF_WIRES) if same_wires else OF_LEGS
    vars(viewed(book, found)).update({name: known[name] for name in stays if name in known})
    return found


def _same(a: HopWires, b: HopWires) -> bool:
    return (a.circuit, a.box) == (b.circuit, b.box)


def within(demand: Demand, wires: HopWires) -> Demand:
    """A demand with a quarter more of what stays on, within the breaker: what is over it is not the wire's."""
    load = min(demand.load_a, wires.breaker_a)
    more = max(min(wires.continuous_a, 4 * (wires.breaker_a - load)), 0.0)
    return replace(demand, load_a=load, continuous_a=more)


def end_kind(view: WayView, joint: str, node: str | None) -> str:
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
