"""The building planned: every room with its boxes, every level as drawn, every structure as a whole."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.boxes.drawn.floor import DrawnRoom, drawn_room
from levelrun.core.boxes.drawn.round import WalkRound, walk_round
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomContext, viewed
from levelrun.core.boxes.loose import Apart, loose_boxes
from levelrun.core.boxes.room_plan import PlannedRoom, plan_room
from levelrun.core.boxes.rules import alarms, dwelling
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding
from levelrun.core.job import Job
from levelrun.core.rulebook import judged, keeping
from levelrun.core.site.faces import level_parts
from levelrun.core.site.lived import as_laid_out
from levelrun.core.site.planned import level_findings


@dataclass(frozen=True)
class Building:
    """All rooms planned and all findings about the building, with the contexts that they were planned from.
    `apart`: the boxes in no room."""

    contexts: list[RoomContext]
    rooms: list[PlannedRoom]
    findings: list[Finding]
    apart: list[Apart]

    @property
    def loose(self) -> list[Figure]:
        """The fill of boxes in no room."""
        return [row.figure for row in self.apart if row.figure is not None]


def plan_building(job: Job, book: Codebook, entering: Mapping[str, tuple[Entering, ...]]) -> Building:
    """Plans every room, with what enters its boxes. What did not change is not computed again."""
    found = room_contexts(job, entering)
    rooms = [plan_room(book, context) for context in found]
    findings = [item for room in rooms for item in room.findings]
    for parts in level_parts(job).values():
        findings += level_findings(book, parts)
    by_structure: dict[str, list[RoomContext]] = {}
    for context in found:
        by_structure.setdefault(context.structure.id, []).append(context)
    for contexts in by_structure.values():
        findings += _structure_findings(book, tuple(contexts))
    apart, said = loose_boxes(book, job, entering)
    return Building(found, rooms, [*findings, *said], apart)


@keeping(64)
def _structure_findings(book: Codebook, contexts: tuple[RoomContext, ...]) -> tuple[Finding, ...]:
    said = judged(book, (*dwelling.RULES, *alarms.OF_STRUCTURES), [viewed(book, context) for context in contexts])
    return tuple(as_laid_out(said, contexts[0].structure, contexts[0].lived, False))


@keeping(1024)
def draw_room(book: Codebook, context: RoomContext) -> DrawnRoom:
    """A room for the plan of its level."""
    return drawn_room(viewed(book, context), plan_room(book, context).summary.verdict)


@keeping(256)
def draw_round(book: Codebook, context: RoomContext) -> WalkRound:
    """A room's walls unrolled."""
    return walk_round(viewed(book, context), plan_room(book, context).verdicts)
