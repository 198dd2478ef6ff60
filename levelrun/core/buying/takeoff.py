"""The take-off: everything that a job takes, counted from the plan, each line with its place. Nothing is typed."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, partial
from typing import Protocol

from levelrun.core.boxes.entering import Entering
from levelrun.core.buying.items import SHELVES, Item, each
from levelrun.core.buying.lines import At, Line, Lines
from levelrun.core.buying.of_boxes import lines_of_box
from levelrun.core.buying.of_gear import is_new, lines_of_circuit, lines_of_grounds, lines_of_panel
from levelrun.core.buying.of_outside import lines_of_span, lines_of_trench
from levelrun.core.buying.of_ways import lines_of_cut, lines_of_way
from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Buying, Circuit, Job, Panel, Room
from levelrun.core.kept import Standing
from levelrun.core.site.framing import FINISHES
from levelrun.core.trench.planned import Outside
from levelrun.core.ways.drawing import DrawnWays
from levelrun.core.ways.drilling import Drilled
from levelrun.core.ways.facts import WayContext
from levelrun.core.ways.lengths import Cut
from levelrun.core.ways.unwalked import Cuts

USUAL_FINISH_IN = 0.5  # where no wall is drawn


class Walked(Protocol):
    """A way that was walked, with its cuts."""

    @property
    def cuts(self) -> list[Cut]: ...


@dataclass(frozen=True, kw_only=True)
class Found:
    """What a plan found that is bought: ways with what was planned of each, ways that drew themselves, what enters
    each box, circuits, the pieces of their hops that no way carries, what lies outside."""

    contexts: Sequence[WayContext]
    ways: Sequence[Walked]
    drawn: DrawnWays
    entering: Mapping[str, tuple[Entering, ...]]
    circuits: Sequence[CircuitPlan]
    unwalked: Mapping[str, Cuts]
    outside: Outside


@dataclass(frozen=True, eq=False)
class Row:
    """One thing with all lines of it."""

    item: Item
    lines: Lines

    @cached_property
    def amount(self) -> float:
        """Pieces, or feet; of pipe in sticks inches."""
        return sum(line.amount for line in self.lines)

    @cached_property
    def cuts(self) -> tuple[float, ...]:
        """Feet of each cut, or inches of each piece of a stick, in the order of the lines."""
        return tuple(line.amount for line in self.lines)


@dataclass(frozen=True, eq=False)
class TakeOff:
    """Everything that a job takes, by name, shelf by shelf."""

    rows: dict[str, Row]
    panels_new: tuple[str, ...]


_of_boxes = Standing[Lines](4096)
_of_ways = Standing[Lines](8192)
_of_trenches = Standing[Lines](128)
_of_walls = Standing[Lines](1024)
_rows = Standing[Row](4096)


def take_off(job: Job, book: Codebook, found: Found) -> TakeOff:
    """Counts a job. What did not change is not counted again."""
    groups: list[Lines] = list(_groups(job, book, found))
    lines: dict[str, list[Line]] = {}
    for group in groups:
        for line in group:
            lines.setdefault(line.item.key, []).append(line)
    order = {shelf: number for number, shelf in enumerate(SHELVES)}
    rows = {
        key: _rows.get(key, tuple(own), partial(Row, own[0].item, tuple(own)))
        for key, own in sorted(lines.items(), key=lambda pair: (order[pair[1][0].item.shelf], pair[0]))
    }
    return TakeOff(rows, tuple(panel.id for panel in job.panels if is_new(panel, job.circuits)))


def _groups(job: Job, book: Codebook, found: Found) -> Iterator[Lines]:
    for context, way in zip(found.contexts, found.ways, strict=True):
        made = partial(lines_of_way, book, context, way.cuts, False)
        yield _of_ways.get(context.way.id, (book, context, way), made)
    for ident, own in found.drawn.ways.items():
        yield _of_ways.get(ident, (book, own), partial(lines_of_way, book, own.context, own.cuts, True))
    for wall in found.drawn.walls.values():
        yield _of_walls.get(wall.line, (wall,), partial(_of_wall, wall))
    yield tuple(_fire_stops(found.drawn))
    yield from _boxes(job, book, found)
    yield from _circuits(job, book, found)
    for facts in found.outside.trenches.values():
        yield _of_trenches.get(facts.trench.id, (facts,), partial(lines_of_trench, facts))
    for span in found.outside.spans.values():
        yield lines_of_span(book, span)
    yield tuple(lines_of_grounds(found.outside.grounds))
    if job.circuits:
        yield (Line(each("fees", "permit"), 1, At("job", "", job.name, stage="circuits"), "as the authority says"),)


def _of_wall(wall: Drilled) -> Lines:
    """Nail plates where a hole is near the face, grommets in metal studs."""
    found: list[Line] = []
    room = wall.line.members[0].room if wall.line.members else ""
    at = At("wall", room, wall.line.level.name)
    plates = sum(hole.limits.plate_needed for hole in wall.holes)
    if plates:
        found.append(Line(each("small", "nail plate"), plates, at, "a hole under 1-1/4 in from the face (300.4(A))"))
    metal = len(wall.holes) if wall.line.stud == "metal" else 0
    if metal:
        found.append(Line(each("small", "stud grommet"), metal, at, "metal studs (300.4(B))"))
    return tuple(found)


def _fire_stops(drawn: DrawnWays) -> Iterator[Line]:
    for one in drawn.every:
        plates = one.route.work.plates if one.route is not None else 0
        if plates:
            at = At("circuit", one.circuit, one.ident, circuit=one.circuit)
            yield Line(each("small", "fire-stop, a plate's hole"), plates, at, "sealed at each plate")


def _boxes(job: Job, book: Codebook, found: Found) -> Iterator[Lines]:
    rooms = {room.id: room for room in job.rooms}
    structures = {item.id: item.name for item in job.structures}
    on: dict[str, Circuit] = {}
    for circuit in job.circuits:
        for hop in circuit.chain:
            on.setdefault(hop.box, circuit)
    buying = job.habits.buying
    for box in job.boxes:
        into, owner = found.entering.get(box.id, ()), on.get(box.id)
        room = rooms.get(box.room or "")
        structure = structures[box.structure]
        source = (book, box, room, buying, structure, owner, *into)
        yield _of_boxes.get(box.id, source, partial(_of_box, book, box, into, (room, structure, owner), buying))


def _of_box(
    book: Codebook, box: Box, into: tuple[Entering, ...], stands: tuple[Room | None, str, Circuit | None],
    buying: Buying,
) -> Lines:  # fmt: skip
    """What a box takes where it stands: its room, its building by name, its circuit."""
    room, structure, owner = stands
    side = None if room is None or box.side is None else room.sides[box.side]
    finish = USUAL_FINISH_IN if side is None else FINISHES[side.finish]
    at = At(
        "box", box.id, box.name, room.name if room else box.where, structure, owner.id if owner else "", "boxes"
    )  # fmt: skip
    how = (buying.joints, buying.cables_a_clamp, finish, buying.colour)
    return lines_of_box(book, box, into, at, how, owner.breaker_a if owner else 0.0, side)


def _circuits(job: Job, book: Codebook, found: Found) -> Iterator[Lines]:
    panels = {panel.id: panel for panel in job.panels}
    by_id = {circuit.id: circuit for circuit in job.circuits}
    structures = {item.id: item.name for item in job.structures}
    there: set[tuple[str, str]] = set()  # hops whose cable is in its panel already
    for circuit, planned in zip(job.circuits, found.circuits, strict=True):
        panel = panels[circuit.panel]
        partner, structure = by_id.get(circuit.partner or ""), structures[panel.structure]
        cuts = found.unwalked[circuit.id]
        made = partial(_of_one, circuit, planned, panel, partner, structure, cuts)
        yield _hops.get(circuit.id, (circuit, planned, panel, partner, structure, cuts), made)
        there |= {(circuit.id, row.box) for row in planned.chain if row.old}
    for panel in job.panels:
        at = At("panel", panel.id, panel.name, panel.where, structures[panel.structure], "", "circuits")
        new = is_new(panel, job.circuits)
        into = [
            item.what or f"{item.size}-{item.count} {by_id[item.hop[0]].method}"
            for item in found.entering.get(panel.id, ())
            if item.cable and not item.inside and item.hop not in there
        ]
        yield lines_of_panel(book, panel, new, tuple(into), job.habits.buying.cables_a_clamp, at)


_hops = Standing[Lines](2048)


def _of_one(
    circuit: Circuit, planned: CircuitPlan, panel: Panel, partner: Circuit | None, structure: str, cuts: Cuts
) -> Lines:  # fmt: skip
    """What a circuit takes in its panel, and the cables and wires of hops that no way carries: their length is known,
    or they are not bought."""
    at = At("circuit", circuit.id, circuit.name, "", structure, circuit.id, "circuits")
    old = any(row.old for row in planned.chain)
    pieces = (line for cut in cuts for line in lines_of_cut(cut, at, f"to {cut.end}"))
    return (*lines_of_circuit(circuit, panel, partner, at, old), *pieces)


def by_shelf(rows: Iterable[Row]) -> dict[str, list[Row]]:
    """Rows by shelf, in the order of shelves."""
    found: dict[str, list[Row]] = {shelf: [] for shelf in SHELVES}
    for row in rows:
        found[row.item.shelf].append(row)
    return {shelf: own for shelf, own in found.items() if own}
