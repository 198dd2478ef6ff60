"""The ways that drew themselves, as a plan has them: what is said of each, what it takes, what is cut for it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace

from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box, Job, Panel
from levelrun.core.kept import Standing
from levelrun.core.rulebook import judged, keeping
from levelrun.core.ways.contexts import LaidCircuit, Woven
from levelrun.core.ways.drilling import Drilled
from levelrun.core.ways.facts import WayContext
from levelrun.core.ways.frame.found import Found
from levelrun.core.ways.frame.lines import Line
from levelrun.core.ways.lengths import Cut
from levelrun.core.ways.planned import judge_drawn
from levelrun.core.ways.rules.frame import HOP_RULES, Hopped, chart_rule, hole_rules, wall_name


@dataclass(frozen=True, kw_only=True, eq=False)
class DrawnWay:
    """A way found through the frame. `findings` speak of its circuit, since nobody drew the way that they are about;
    its strip is planned when it is looked at."""

    context: WayContext
    found: Found
    findings: list[Finding]
    cuts: list[Cut]


@dataclass(frozen=True, eq=False)
class DrawnWays:
    """All that drew itself in a job: ways by id, each hop as it was found by circuit and box, holes by wall; what is
    said of hops and holes."""

    ways: dict[str, DrawnWay]
    found: dict[str, dict[str, Found]]
    walls: dict[Line, Drilled]
    findings: list[Finding]

    @property
    def every(self) -> list[Found]:
        """Every hop as it was found, circuit by circuit."""
        return [one for own in self.found.values() for one in own.values()]


@dataclass(frozen=True, eq=False)
class _OfCircuit:
    """The ways that one circuit was given, and what is said of its hops."""

    ways: dict[str, DrawnWay]
    findings: list[Finding]


_circuits = Standing[_OfCircuit](2048)


def drawn_ways(book: Codebook, job: Job, woven: Woven) -> DrawnWays:
    """Every way that drew itself. What is said of a circuit stands while nothing that it touches changes."""
    nodes: dict[str, Box | Panel] = {node.id: node for node in job.nodes}
    ways: dict[str, DrawnWay] = {}
    said: list[Finding] = []
    for circuit in job.circuits:
        name = circuit.id
        contexts, own, lying = woven.drawn[name], woven.found[name], woven.lying[name]
        if not own:
            continue
        kept = _circuits.get(
            name,
            (book, contexts, own, lying, nodes[circuit.panel]),
            lambda c=contexts, o=own, y=lying: _of_circuit(book, nodes, c, o, y),  # type: ignore[misc]
        )
        ways |= kept.ways
        said += kept.findings
    rooms = {room.id: room for room in job.rooms}
    for line, wall in woven.walls.items():
        said += _of_wall(book, wall, line.members[0].room, wall_name(line, rooms))
    said += judged(book, (_chart,), (job, woven.found))
    return DrawnWays(ways, woven.found, woven.walls, said)


def _of_circuit(
    book: Codebook,
    nodes: Mapping[str, Box | Panel],
    contexts: list[WayContext],
    own: Mapping[str, Found],
    lying: LaidCircuit,
) -> _OfCircuit:
    by_id = {one.way.id: one for one in own.values() if one.way is not None}
    ways = {item.way.id: _drawn(book, item, by_id[item.way.id]) for item in contexts}
    said: list[Finding] = []
    for box, one in own.items():
        wires = lying.laid[box].wires
        way = ways.get(one.way.id) if one.way is not None else None
        cut = max((item.cut_in for item in way.cuts), default=None) if way is not None else None
        said += _of_hop(book, one, wires.title, nodes[wires.start].name, nodes[box].name, wires.method, cut)
    return _OfCircuit(ways, said)


@keeping(8192)
def _of_hop(
    book: Codebook, one: Found, title: str, start: str, end: str, method: str, cut_in: float | None
) -> tuple[Finding, ...]:
    hop = Hopped(book=book, found=one, title=title, start=start, end=end, method=method, cut_in=cut_in)
    return tuple(judged(book, HOP_RULES, hop))


@keeping(1024)
def _of_wall(book: Codebook, wall: Drilled, room: str, name: str) -> tuple[Finding, ...]:
    return tuple(judged(book, (lambda item: hole_rules(item, room, name),), wall))


def _chart(facts: tuple[Job, dict[str, dict[str, Found]]]) -> Iterator[Finding]:
    job, found = facts
    levels = {level.id: level for item in job.structures for level in item.levels}
    if not any(level.joist_kind == "i_joist" for level in levels.values()):
        return
    taken: dict[str, str] = {}
    for one in (one for own in found.values() for one in own.values()):
        for piece in one.route.pieces if one.route is not None else ():
            plane = one.frame.planes.get(piece.plane) if one.frame is not None else None
            if plane is not None and plane.joists(piece.a[:2], piece.b[:2]):
                taken.setdefault(piece.plane, one.circuit)
    yield from chart_rule(levels, taken)


@keeping(4096)
def _drawn(book: Codebook, context: WayContext, found: Found) -> DrawnWay:
    said = judge_drawn(book, context)
    return DrawnWay(context=context, found=found, findings=of_circuit(said.findings, found), cuts=said.cuts)


def of_circuit(said: Iterable[Finding], found: Found) -> list[Finding]:
    """What stops or asks of a way that drew itself, as it is said of its circuit."""
    return [
        replace(item, subject=found.circuit, about="circuit", leg=None, last=None, mends=_kept_first(item, found))
        for item in said
        if item.severity != "note"
    ]


def _kept_first(item: Finding, found: Found) -> list[Mend]:
    """Mends of a way that nobody walked: it is kept first, so that there is a way to mend."""
    if found.way is None:
        return []
    keep = {"op": "keep", "circuit": found.circuit, "box": found.box, "id": found.way.id}
    return [replace(mend, edits=[keep, *mend.edits]) for mend in item.mends]
