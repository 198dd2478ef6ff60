"""Legs of ways laid in trenches and spans: written anew from the line whenever it, the yard or a building changes.

What is said of such a leg stays with it: its method, its size, what stands at its end. Its length, its place and its
corners are the trench's; its depth is what was read there, or else as it was set.
"""

from __future__ import annotations

from typing import Any

from levelrun.core.codebook import Codebook
from levelrun.core.editing import with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Leg, Span, Trench, Way, job_book
from levelrun.core.trench.air import hangs_over
from levelrun.core.trench.line import PLACES, pieces_of
from levelrun.core.trench.yard import Yard, long_in, yard_of
from levelrun.core.ways.laid import Profile, between, laid_legs, readings_of, runs_back
from levelrun.core.ways.parts import Joint

IN_EARTH = ("trench", "driveway_trench", "under_building", "under_slab")
IN_AIR = ("overhead",)
OWN = ("length_in", "place")


def line_of(job: Job, ident: str) -> Trench | Span:
    """The trench or span with this id. Raises EditError."""
    for item in job.lines:
        if item.id == ident:
            return item
    raise EditError(f"no trench or span {ident!r} in this job", key="along", value=ident)


def with_way(job: Job, changed: Way) -> Job:
    """The job with one way as it now is."""
    return with_parts(job, ways=tuple(changed if way.id == changed.id else way for way in job.ways))


def least_between(profile: Profile, first: float, last: float) -> float:
    """The least of a profile between two places."""
    inside = [depth for at, depth in profile if first <= at <= last]
    return min([between(profile, first), between(profile, last), *inside])


def settled(before: Job, after: Job, book: Codebook) -> Job:
    """The job with every laid leg as its trench or span has it. Raises EditError where an edit would change what the
    line decides. The same job where nothing of this changed."""
    watched = ("trenches", "spans", "yard", "structures", "rooms", "ways")
    if all(getattr(before, name) is getattr(after, name) for name in watched):
        return after
    if not any(leg.along for way in after.ways for leg in way.legs):
        return after
    stood, yard = yard_of(before), yard_of(after)
    old = {way.id: way for way in before.ways}
    lines = {item.id: item for item in before.lines}
    still = before.structures is after.structures and stood is yard
    for line in after.lines:
        same = lines.get(line.id) is line
        for way in after.ways:
            if same and still and old.get(way.id) is way:
                continue  # it lay so before
            if not laid_legs(way, line.id):
                continue
            if same and old.get(way.id) is not way:
                _refuse(old.get(way.id), way, line)
                after = _set_aside(after, line, old.get(way.id), way, yard)
            after = _laid(after, line, after.way(way.id), yard, book)
    return after


def settle(job: Job) -> Job:
    """A job as it was read, with every laid leg as its trench or span has it. Raises EditError where a way does not
    lie in its line in one piece."""
    if not any(leg.along for way in job.ways for leg in way.legs):
        return job
    yard, book = yard_of(job), job_book(job)
    for line in job.lines:
        for way in job.ways:
            if laid_legs(way, line.id):
                _one_piece(way, line)
                job = _laid(job, line, job.way(way.id), yard, book)
    return job


def _one_piece(way: Way, line: Trench | Span) -> list[int]:
    """The legs of a way in a line, which follow one another with nothing between them."""
    own = laid_legs(way, line.id)
    if own != list(range(own[0], own[-1] + 1)):
        raise EditError(
            f"{way.name} lies in {line.name} in one piece: take it out of there first", key="leg", value=own[0]
        )
    inner = next((index for index in own[:-1] if way.legs[index].end.kind != "none"), None)
    if inner is not None:
        raise EditError(
            f"leg {inner + 1} of {way.name} ends within {line.name}: end the trench there and begin another, or take "
            "the way out of it", key="leg", value=inner,
        )  # fmt: skip
    return own


def _refuse(old: Way | None, way: Way, line: Trench | Span) -> None:
    """An edit of a laid leg that changes what the line decides, or that tears it apart."""
    own = _one_piece(way, line)
    before = laid_legs(old, line.id) if old else []
    if old is None or len(before) != len(own):
        if before:
            raise EditError(
                f"leg {own[0] + 1} of {way.name} lies in {line.name}: take it out of there before legs are added or "
                "removed", key="leg", value=own[0],
            )  # fmt: skip
        return
    for was, now in zip(before, own, strict=True):
        for name in OWN:
            if getattr(old.legs[was], name) != getattr(way.legs[now], name):
                called = "length" if name == "length_in" else name
                raise EditError(
                    f"leg {now + 1} of {way.name} lies in {line.name}: its {called} is that of the "
                    f"{'trench' if isinstance(line, Trench) else 'span'}; change it there",
                    key=f"set.{name}", value=getattr(way.legs[now], name),
                )  # fmt: skip


def _set_aside(job: Job, line: Trench | Span, old: Way | None, way: Way, yard: Yard) -> Job:
    """A depth that was set on a laid leg goes before what was read there: those readings are dropped."""
    if isinstance(line, Span) or old is None or not line.readings:
        return job
    own, before = laid_legs(way, line.id), laid_legs(old, line.id)
    if len(own) != len(before):
        return job
    pieces = pieces_of(yard, line)
    order = list(reversed(own)) if runs_back(job, line, way) else own
    was = list(reversed(before)) if runs_back(job, line, old) else before
    if len(order) != len(pieces):
        return job
    spans = [
        (piece.start_in, piece.end_in)
        for now, then, piece in zip(order, was, pieces, strict=True)
        if way.legs[now].depth_in != old.legs[then].depth_in
    ]
    if not spans:
        return job
    kept = tuple(
        r for r in line.readings
        if r.way not in (None, way.id) or not any(first <= r.at_in <= last for first, last in spans)
    )  # fmt: skip
    changed = line.model_copy(update={"readings": kept})
    return with_parts(job, trenches=tuple(changed if item.id == line.id else item for item in job.trenches))


def _laid(job: Job, line: Trench | Span, way: Way, yard: Yard, book: Codebook) -> Job:
    own = laid_legs(way, line.id)
    old = [way.legs[index] for index in own]
    if isinstance(line, Span):
        new = _hung(job, line, old, book, yard)
    else:
        new = _dug(job, job.trench(line.id), way, old, yard)
    if new == old:
        return job
    legs = (*way.legs[: own[0]], *new, *way.legs[own[-1] + 1 :])
    return with_way(job, way.model_copy(update={"legs": legs}))


def _dug(job: Job, trench: Trench, way: Way, old: list[Leg], yard: Yard) -> list[Leg]:
    """The legs of a way in a trench, piece by piece as it goes."""
    pieces = pieces_of(yard, trench)
    back = runs_back(job, trench, way)
    read = [(item.at_in, item.depth_in) for item in readings_of(trench, way.id)]
    total, long = sum(leg.length_in for leg in old), long_in(trench.points)
    new: list[Leg] = []
    for number, piece in enumerate(reversed(pieces) if back else pieces):
        first, last = (long - piece.end_in, long - piece.start_in) if back else (piece.start_in, piece.end_in)
        like = _like(old, total, (first + last) / 2 / long)
        after = pieces.index(piece) + 1
        turn = (pieces[after].turn_deg if after < len(pieces) else 0.0) if back else piece.turn_deg
        values: dict[str, Any] = {
            "go": old[0].go if number == 0 else "over",
            "length_in": max(piece.length_in, 0.0625),
            "place": PLACES[piece.above],
            "bends_deg": (turn,) if turn else (),
            "depth_in": least_between(read, piece.start_in, piece.end_in) if read else like.depth_in,
            "facts": like.facts.model_copy(update={
                "above": piece.above if piece.above in ("street", "concrete_2in") else None,
                "rock": True if trench.rock and trench.concrete else None,
            }),
            "shapes": old[0].shapes if number == 0 else (),
            "feed": old[0].feed if number == 0 else "",
            "end": Joint(),
        }  # fmt: skip
        new.append(like.model_copy(update=values))
    new[-1] = new[-1].model_copy(update={"end": old[-1].end})
    return new


def _like(old: list[Leg], total: float, share: float) -> Leg:
    """The leg that lay at this share of the way before."""
    at = 0.0
    for leg in old:
        at += leg.length_in
        if at >= share * total:
            return leg
    return old[-1]


def _hung(job: Job, span: Span, old: list[Leg], book: Codebook, yard: Yard) -> list[Leg]:
    """The leg of a way on a span: its length, and the worst place that it hangs over."""
    worst = hangs_over(job, book, yard, span, old[0].size)
    values: dict[str, Any] = {"length_in": round(long_in(span.points) * 16) / 16, "place": "overhead"}
    if worst is not None:
        facts = {"beneath": worst.over, "clear_in": max(round(worst.clear_in * 16) / 16, 0.0)}
        values["facts"] = old[0].facts.model_copy(update=facts)
    return [old[0].model_copy(update={**values, "end": old[-1].end})]
