"""The building planned: every room with its boxes, every level as drawn, every structure as a whole."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.boxes.entering import from_runs
from levelrun.core.boxes.plan import RoomPlanned, plan_room
from levelrun.core.boxes.room import RoomContext, RoomView
from levelrun.core.boxes.rules_structure import alarm_rule, outdoor_rule
from levelrun.core.codebook import Codebook
from levelrun.core.drawing.floor import DrawnRoom, drawn_room
from levelrun.core.drawing.round import WalkRound, walk_round
from levelrun.core.findings import Finding
from levelrun.core.job import Job
from levelrun.core.measure import shown_in
from levelrun.core.plan.circuits import from_circuits
from levelrun.core.site.checks import level_findings
from levelrun.core.site.faces import level_parts


@dataclass(frozen=True)
class Building:
    """All rooms planned and all findings about the building, with the contexts that they were planned from."""

    contexts: list[RoomContext]
    rooms: list[RoomPlanned]
    findings: list[Finding]


def plan_building(job: Job, book: Codebook) -> Building:
    """Plans every room. Rooms and levels that did not change are not computed again."""
    entering = from_runs(book, job)
    for box, items in from_circuits(book, job).items():
        entering.setdefault(box, []).extend(items)
    found = room_contexts(job, entering)
    rooms = [plan_room(book, context) for context in found]
    findings = [item for room in rooms for item in room.findings]
    for parts in level_parts(job).values():
        findings += level_findings(parts)
    by_structure: dict[str, list[RoomContext]] = {}
    for context in found:
        by_structure.setdefault(context.structure.id, []).append(context)
    for contexts in by_structure.values():
        findings += _structure_findings(book, tuple(contexts))
    return Building(found, rooms, findings)


@lru_cache(maxsize=64)
def _structure_findings(book: Codebook, contexts: tuple[RoomContext, ...]) -> tuple[Finding, ...]:
    with shown_in(book.units):
        views = [RoomView(book, context) for context in contexts]
        said = (*outdoor_rule(views), *alarm_rule(views))
        return tuple(replace(item, section=book.cite(item.section)) for item in said)


@lru_cache(maxsize=1024)
def draw_room(book: Codebook, context: RoomContext) -> DrawnRoom:
    """A room for the plan of its level."""
    with shown_in(book.units):
        return drawn_room(RoomView(book, context), plan_room(book, context).summary.verdict)


@lru_cache(maxsize=256)
def draw_round(book: Codebook, context: RoomContext) -> WalkRound:
    """A room's walls unrolled."""
    with shown_in(book.units):
        planned = plan_room(book, context)
        return walk_round(RoomView(book, context), {box.id: box.verdict for box in planned.boxes})
