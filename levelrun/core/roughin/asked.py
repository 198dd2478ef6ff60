"""The x-ray of a surface straight from a job: for a question that is asked before anything is planned."""

from __future__ import annotations

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.boxes.facts import RoomContext
from levelrun.core.boxes.planned import draw_round
from levelrun.core.circuits.loads import all_loads
from levelrun.core.circuits.spaces import label
from levelrun.core.codebook import Codebook
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.measure import shown_in
from levelrun.core.roughin.behind import Behind, behind
from levelrun.core.roughin.edits import within
from levelrun.core.roughin.steps import cards_of, is_made_up, left_out
from levelrun.core.roughin.xray import Seen, XRay, is_flat, xray
from levelrun.core.ways.contexts import weave
from levelrun.core.ways.drawing import DrawnWays, drawn_ways
from levelrun.core.ways.frame.drawn import plan_cables
from levelrun.core.ways.inside import in_the_walls
from levelrun.core.ways.pull_list import letters_of


def seen_of(job: Job, book: Codebook, drawn: DrawnWays, context: RoomContext, surface: str) -> Seen:
    """What the x-ray of a surface is drawn from."""
    cards = cards_of(job)
    return Seen(
        book=book,
        job=job,
        context=context,
        round=draw_round(book, context),
        inside=in_the_walls(book, drawn, context),
        over=plan_cables(drawn.every, context.level.id) if is_flat(surface) else [],
        letters=letters_of(job, {c.id: label(c) for c in job.circuits}),
        made=frozenset(node.id for node in job.nodes if is_made_up(node, cards.get(node.id))),
        gone=left_out(job),
    )


def asked_xray(job: Job, book: Codebook, room: str, surface: str) -> XRay:
    """The x-ray of one surface of a job. Raises EditError for a room that is not there."""
    drawn = drawn_ways(book, job, weave(job, book, all_loads(job, book)))
    context = next((item for item in room_contexts(job, {}) if item.room.id == room), None)
    if context is None:
        raise EditError(f"no room {room!r} in this job", key="room", value=room)
    return xray(seen_of(job, book, drawn, context, surface), surface)


def whats_behind(job: Job, book: Codebook, room: str, surface: str, at_in: float, height_in: float) -> Behind:
    """What is behind a spot of a surface. Raises EditError for a spot outside of it."""
    within(job, room, surface, ((at_in, height_in),))
    with shown_in(book.units):
        shown = asked_xray(job, book, room, surface)
        return behind(shown, at_in, height_in, job.habits.roughin.clear_in)
