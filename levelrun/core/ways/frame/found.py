"""The way of every hop that nobody walked: found in the frame of its building, anew for each state of the job."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

from levelrun.core.circuits.loads import CircuitLoads, HopWires, cable_of
from levelrun.core.circuits.parts import Via
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import (
    cable,
    cable_sizes,
    ground_size,
    method,
    raceway_sizes,
    wire_sizes,
)
from levelrun.core.job import Box, Habits, Hop, Job, Panel, Structure, Way
from levelrun.core.kept import Lasting, Standing
from levelrun.core.site.faces import LevelParts, level_parts
from levelrun.core.site.framing import Stud
from levelrun.core.trade.pipe.fill import Wires, smallest_size
from levelrun.core.trade.pipe.make import make_of
from levelrun.core.ways.frame.building import frame_of, parts_of
from levelrun.core.ways.frame.ends import End, end_of
from levelrun.core.ways.frame.graph import Frame
from levelrun.core.ways.frame.legs import Cabled, as_way, without_stubs
from levelrun.core.ways.frame.lines import Line
from levelrun.core.ways.frame.prices import SLEEVE, prices_of
from levelrun.core.ways.frame.route import Route, kept_route, route

MOST_IN_AN_ID, MOST_IN_A_NAME = 40, 60
ARMOURED = ("MC", "AC")


@dataclass(frozen=True)
class Bored:
    """A stud that a way goes through: its wall's number in the frame, the height over the level's floor, the piece of
    the route."""

    line: int
    stud: Stud
    height_in: float
    piece: int


@dataclass(frozen=True, kw_only=True, eq=False)
class Found:
    """The way of one hop. `wire`: its gauge; `way`: as legs, None where nothing gets there or no pipe
    holds its wires;
    `pieces`: for each leg those of the route; `wide_in`, `narrow_in`: the two sides of its cable, 0 where they
    are not known. `rides_with`: the hop, by circuit and box, in whose cable it lies where the two share a neutral.
    `why`: what keeps it from having a way, else empty."""

    circuit: str
    box: str
    wire: str
    frame: Frame | None
    route: Route | None
    way: Way | None
    pieces: tuple[tuple[int, ...], ...] = ()
    wide_in: float = 0.0
    narrow_in: float = 0.0
    rides_with: tuple[str, str] | None = None
    why: str = ""

    @property
    def ident(self) -> str:
        """What its way is called where it is drawn: by the way, or by its hop where no pipe is laid yet."""
        return self.way.id if self.way is not None else f"{self.circuit}.{self.box}"

    @property
    def bored(self) -> tuple[Bored, ...]:
        """Every stud that it goes through, from its start to its end."""
        return _bored(self.frame, self.route) if self.frame is not None and self.route is not None else ()

    @cached_property
    def holes(self) -> tuple[tuple[float, ...], ...]:
        """For each leg of the way the holes in studs and joists that it goes through, inches along the leg."""
        if self.frame is None or self.route is None:
            return ()
        frame, pieces = self.frame, self.route.pieces
        at: dict[int, list[float]] = {}
        for bored in self.bored:
            line, piece = frame.lines[bored.line], pieces[bored.piece]
            at.setdefault(bored.piece, []).append(abs(bored.stud.at_in - line.place(piece.a[:2])))
        for index, piece in enumerate(pieces):
            count = frame.planes[piece.plane].joists(piece.a[:2], piece.b[:2]) if piece.plane else 0
            at.setdefault(index, []).extend(piece.length_in * (n + 0.5) / count for n in range(count))
        found: list[tuple[float, ...]] = []
        for own in self.pieces:
            walked, holes = 0.0, []
            for index in own:
                holes += [walked + along for along in at.get(index, ())]
                walked += pieces[index].length_in
            found.append(tuple(sorted(round(along, 2) for along in holes)))
        return tuple(found)


@lru_cache(maxsize=16384)
def _bored(frame: Frame, taken: Route) -> tuple[Bored, ...]:
    found: list[Bored] = []
    for index, piece in enumerate(taken.pieces):
        if piece.line < 0 or piece.upright:
            continue
        line = frame.lines[piece.line]
        z = piece.a[2] - line.level.floor_in
        studs = line.bored(line.place(piece.a[:2]), line.place(piece.b[:2]), z)
        found += [Bored(piece.line, stud, z, index) for stud in studs]
    return tuple(found)


def way_id(circuit: str, box: str) -> str:
    """The name of a derived way, the same for as long as its hop is there."""
    return f"w-{circuit}-{box}"[:MOST_IN_AN_ID]


_made_from = lru_cache(maxsize=64)(parts_of)
_frames = lru_cache(maxsize=64)(frame_of)


def frames_of(job: Job, book: Codebook) -> dict[str, Frame]:
    """The frame of every building that has rooms drawn, by structure. The same one while its walls are the same."""
    parts = level_parts(job)
    return {item.id: frame for item in job.structures if (frame := _frame(job.habits, book, item, parts)) is not None}


def _frame(habits: Habits, book: Codebook, structure: Structure, parts: Mapping[str, LevelParts]) -> Frame | None:
    levels = tuple(parts[level.id] for level in structure.levels)
    if not any(item.rooms for item in levels):
        return None
    return _frames(_made_from(levels, habits.pole.hole_line_in, prices_of(book, habits)))


Own = dict[str, Found]
_found = Standing[Found](8192)
_own = Standing[Own](2048)
_ways = Lasting[Way](8192)


def found_ways(job: Job, book: Codebook, loads: Mapping[str, CircuitLoads]) -> dict[str, Own]:
    """The way of every hop between two things that stand in rooms, which takes no walked way and whose length nobody
    taped; by circuit and box. A circuit keeps the same answer while nothing that it touches changes."""
    frames = frames_of(job, book)
    nodes: dict[str, Box | Panel] = {node.id: node for node in job.nodes}
    here = _Here(book, job.habits.routing.school, frames, nodes, riders_of(loads))
    common = (book, job.habits.routing, *frames.values())
    return {
        name: _own.get(
            name,
            (item, loads.get(item.circuit.partner or ""), *_ends(item, nodes), *common),
            lambda item=item: _of_circuit(here, item),  # type: ignore[misc]
        )
        for name, item in loads.items()
    }


def _ends(item: CircuitLoads, nodes: Mapping[str, Box | Panel]) -> tuple[Box | Panel | None, ...]:
    return nodes[item.circuit.panel], nodes.get(item.circuit.feeds or "")


def riders_of(loads: Mapping[str, CircuitLoads]) -> dict[tuple[str, str], HopWires]:
    """Home runs that ride in the cable of the circuit with which they share a neutral, by the circuit and box that
    they ride with: both go from the panel to the same box, in cable."""
    found: dict[tuple[str, str], HopWires] = {}
    for name, item in loads.items():
        other = loads.get(item.circuit.partner or "")
        if other is None or other.circuit.partner != name or other.circuit.id > name:
            continue
        for box, wires in item.wires.items():
            mate = other.wires.get(box)
            if mate is None or wires.after or mate.after or wires.method != mate.method or wires.method == "raceway":
                continue
            if not item.hops[box].path and not other.hops[box].path and wires.start == mate.start:
                found[other.circuit.id, box] = wires
    return found


@dataclass(frozen=True)
class _Here:
    """What the ways of all circuits are found from."""

    book: Codebook
    school: str
    frames: Mapping[str, Frame]
    nodes: Mapping[str, Box | Panel]
    riders: Mapping[tuple[str, str], HopWires]


def _stood(end: Box | Panel) -> bool:
    """Whether its cable is there already and goes as it goes: nobody knows where."""
    return isinstance(end, Box) and end.old


def _of_circuit(here: _Here, item: CircuitLoads) -> Own:
    own: Own = {}
    for box, wires in item.wires.items():
        hop, start, end = item.hops[box], here.nodes[wires.start], here.nodes[box]
        if hop.path or hop.length_in is not None or start.room is None or end.room is None or _stood(end):
            continue
        frame, other = here.frames.get(start.structure), here.frames.get(end.structure)
        if frame is None or other is None:
            continue
        if wires.partner and here.riders.get((wires.partner, box)) is wires:
            own[box] = Found(
                circuit=wires.circuit, box=box, wire=wires.wire_size, frame=None, route=None, way=None,
                rides_with=(wires.partner, box),
            )  # fmt: skip
            continue
        school = hop.school or here.school
        rider = here.riders.get((wires.circuit, box))
        if rider is not None:
            wires = replace(wires, conductors=wires.conductors + rider.conductors - 1)
        key = (wires.circuit, box, school, wires.title, wires.method, wires.wire_size, wires.conductors)
        own[box] = _found.get(
            key,
            (here.book, frame, other, start, end, hop.via),
            lambda f=frame, o=other, s=start, e=end, h=hop, w=wires, c=school: _one(  # type: ignore[misc]
                f, o, s, e, h, w, c, here.book
            ),
        )
    return own


def _one(
    frame: Frame, other: Frame, start: Box | Panel, end: Box | Panel, hop: Hop, wires: HopWires, school: str,
    book: Codebook,
) -> Found:  # fmt: skip
    bare = Found(
        circuit=wires.circuit, box=hop.box, wire=wires.wire_size, frame=None, route=None, way=None,
        why="between buildings",
    )  # fmt: skip
    if frame is not other:
        return bare
    a, b = (end_of(frame, node) for node in (start, end))
    by = tuple(via_of(frame, index, point) for index, point in enumerate(hop.via))
    through = [item for item in by if item is not None]
    taken = route(frame, a, b, school, through) if through else kept_route(frame, a, b, school)
    if taken is None:
        return replace(bare, frame=frame, why="nothing gets there")
    there = replace(bare, frame=frame, route=taken, why="")
    if wires.method == "raceway":
        return _in_pipe(there, frame, taken, a, b, wires, book)
    if method(book, wires.method).kind != "cable":
        return there
    size = cable_of(book, wires)
    lain = Cabled(wires.method, size, sleeve_of(book, wires.method, size))
    name = f"{wires.title} to {end.name}"[:MOST_IN_A_NAME]
    drawn = as_way(frame, taken.pieces, a, b, way_id(wires.circuit, hop.box), name, lain)
    way = _ways.same(drawn.way.id, drawn.way)  # a wall that moved leaves most ways as they were, leg for leg
    if size not in cable_sizes(book, wires.method):
        return replace(there, way=way, pieces=drawn.pieces)
    made = cable(book, wires.method, size)
    return replace(there, way=way, pieces=drawn.pieces, wide_in=made.wide_in, narrow_in=made.narrow_in)


def _in_pipe(there: Found, frame: Frame, taken: Route, a: End, b: End, wires: HopWires, book: Codebook) -> Found:
    """The way of a hop whose wires take a raceway: steel tubing of the smallest size that holds them."""
    size = tubing_of(book, wires.insulation, wires.wire_size, wires.conductors, wires.breaker_a, wires.material)
    if not size:
        return there
    name = f"{wires.title} to {b.name}"[:MOST_IN_A_NAME]
    drawn = without_stubs(
        as_way(frame, taken.pieces, a, b, way_id(wires.circuit, there.box), name, Cabled(SLEEVE, size, ""))
    )
    make, way = make_of(book, SLEEVE, size), _ways.same(drawn.way.id, drawn.way)
    return replace(there, way=way, pieces=drawn.pieces, wide_in=make.outer_in if make else 0.0)


@lru_cache(maxsize=512)
def tubing_of(book: Codebook, insulation: str, wire: str, count: int, breaker_a: float, material: str) -> str:
    """The smallest steel tubing that holds the wires of a hop and their ground; empty where none does."""
    if wire not in wire_sizes(book):
        return ""
    ground = ground_size(book, breaker_a, material)
    return smallest_size(book, SLEEVE, [Wires(insulation, wire, count), Wires(insulation, ground, 1)]) or ""


@lru_cache(maxsize=512)
def sleeve_of(book: Codebook, key: str, size: str) -> str:
    """The smallest steel tubing through which a cable without armour passes with a tenth to spare; empty for armour
    and for a cable that is not made."""
    if key in ARMOURED or size not in cable_sizes(book, key):
        return ""
    wide = cable(book, key, size).wide_in
    return next((pipe.size for pipe in raceway_sizes(book, SLEEVE) if pipe.inner_in >= 1.1 * wide), "")


def via_of(frame: Frame, index: int, point: Via) -> End | None:
    """A place that the user drew a way through, in the frame: in the wall nearest to it, or in the joists. None where
    that level has no such place any more."""
    spot = (point.x_in, point.y_in)
    if point.at != "wall":
        plane = dict(frame.planes_at(point.level)).get(point.at)
        return None if plane is None else _via(index, point, spot, plane.z_in, -1, 0.0)
    near = [(i, line) for i, line in enumerate(frame.lines) if line.level.id == point.level]
    if not near:
        return None
    number, line = min(near, key=lambda item: _off(item[1], spot))
    t = min(max(line.place(spot), line.from_in), line.to_in)
    return _via(index, point, line.point(t), frame.hole_in(line), number, t)


def _off(line: Line, spot: tuple[float, float]) -> float:
    t = min(max(line.place(spot), line.from_in), line.to_in)
    x, y = line.point(t)
    return math.dist((x, y), spot)


def _via(index: int, point: Via, spot: tuple[float, float], z: float, line: int, t: float) -> End:
    return End(
        node=f"via-{index}", name="", level=point.level, x=spot[0], y=spot[1], low_in=z, high_in=z, line=line, t=t,
        open=line < 0, school="studs" if point.at == "wall" else point.at,
    )  # fmt: skip
