"""Edits of runs: legs, what stands at their ends, walk text."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from levelrun.core.boxes.parts import Box
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method, wire_sizes
from levelrun.core.editing import Changes, EditBase, PartKind, Said, fields_text, made, next_id, next_name, with_parts
from levelrun.core.errors import EditError, TextError
from levelrun.core.job import Job
from levelrun.core.part import Id, Name
from levelrun.core.runs.geometry import lay_out
from levelrun.core.runs.parts import Joint, Leg, LegFacts, Run
from levelrun.core.runs.walk import ENDS, WalkLeg, parse_walk
from levelrun.core.trade.pipe.fill import Wires, smallest_size

LegNumber = Annotated[int, Field(ge=0, le=200)]


class AddLeg(EditBase):
    """Insert a leg before position `at`; at the end where `at` is null."""

    op: Literal["add_leg"]
    run: Id
    at: LegNumber | None = None
    leg: Leg

    def title(self) -> str:
        return "add leg"

    def apply(self, job: Job, book: Codebook) -> Job:
        return with_legs(job, self.run, lambda old: inserted(old, self.at, [self.leg]))


class SetLeg(EditBase):
    """Change fields of one leg."""

    op: Literal["set_leg"]
    run: Id
    leg: LegNumber
    set: Changes

    def title(self) -> str:
        return f"leg {self.leg + 1}: {fields_text(self.set)}"

    def apply(self, job: Job, book: Codebook) -> Job:
        changed = made(Leg, {**leg_of(job, self.run, self.leg).model_dump(), **self.set}, "set")
        return with_legs(job, self.run, lambda old: (*old[: self.leg], changed, *old[self.leg + 1 :]))


class DropLeg(EditBase):
    """Remove one leg."""

    op: Literal["drop_leg"]
    run: Id
    leg: LegNumber

    def title(self) -> str:
        return f"remove leg {self.leg + 1}"

    def apply(self, job: Job, book: Codebook) -> Job:
        leg_of(job, self.run, self.leg)
        return with_legs(job, self.run, lambda old: (*old[: self.leg], *old[self.leg + 1 :]))


class PutBox(EditBase):
    """Put a junction box at the end of a leg: `name`, or the next free J-n."""

    op: Literal["put_box"]
    run: Id
    leg: LegNumber
    name: Name | None = None

    def title(self) -> str:
        return f"box after leg {self.leg + 1}"

    def apply(self, job: Job, book: Codebook) -> Job:
        leg_of(job, self.run, self.leg)
        return end_leg(job, self.run, self.leg, self.name or next_name(job, "J"))


class EndLeg(EditBase):
    """Say what stands at the end of a leg: LB, body, coupling, nothing (empty), or a box by name."""

    op: Literal["end_leg"]
    run: Id
    leg: LegNumber
    to: Annotated[str, Field(max_length=60)]

    def title(self) -> str:
        return f"leg {self.leg + 1} ends at {self.to or 'nothing'}"

    def apply(self, job: Job, book: Codebook) -> Job:
        leg_of(job, self.run, self.leg)
        return end_leg(job, self.run, self.leg, self.to)


class Walk(EditBase):
    """Add legs from walk text. `at` inserts before that leg; `replace` empties the run first."""

    op: Literal["walk"]
    run: Id
    text: Said
    at: LegNumber | None = None
    replace: bool = False

    def title(self) -> str:
        return f"walk {self.text.strip().splitlines()[0][:40]}" if self.text.strip() else "walk"

    def apply(self, job: Job, book: Codebook) -> Job:
        return walk(job, self, book)


KINDS = (PartKind(name="run", field="runs", model=Run, letter="w"),)
EDITS = (AddLeg, SetLeg, DropLeg, PutBox, EndLeg, Walk)


def run_of(job: Job, run_id: str) -> Run:
    """The run with this id. Raises EditError."""
    try:
        return job.run(run_id)
    except KeyError:
        raise EditError(f"no run {run_id!r} in this job", key="run", value=run_id) from None


def leg_of(job: Job, run_id: str, index: int) -> Leg:
    """One leg of a run. Raises EditError that says how many there are."""
    run = run_of(job, run_id)
    if index >= len(run.legs):
        raise EditError(
            f"no leg {index + 1} in {run.name!r}; it has {len(run.legs)}",
            key="leg",
            value=index,
            allowed=[f"0 to {len(run.legs) - 1}"],
        )
    return run.legs[index]


def with_legs(job: Job, run_id: str, change: Any) -> Job:
    """The job with the legs of one run changed."""
    run = run_of(job, run_id)
    legs = change(run.legs)
    if len(legs) > 200:
        raise EditError("a run has 200 legs at most", key="leg", value=len(legs), allowed=["up to 200"])
    changed = run.model_copy(update={"legs": tuple(legs)})
    return with_parts(job, runs=tuple(changed if item.id == run_id else item for item in job.runs))


def inserted(legs: tuple[Leg, ...], at: int | None, new: Sequence[Leg]) -> tuple[Leg, ...]:
    """Legs with new ones before place `at`, or last."""
    where = len(legs) if at is None else min(at, len(legs))
    return (*legs[:where], *new, *legs[where:])


def end_leg(job: Job, run_id: str, index: int, to: str) -> Job:
    """The job with something else at the end of a leg."""
    job, joint = _joint(job, run_id, index, to)
    leg = leg_of(job, run_id, index).model_copy(update={"end": joint})
    return with_legs(job, run_id, lambda legs: (*legs[:index], leg, *legs[index + 1 :]))


def _joint(job: Job, run_id: str, index: int, to: str) -> tuple[Job, Joint]:
    """What `to` names, made where it does not exist yet: a junction box at the height reached."""
    word = to.strip()
    if not word or word.lower() == "none":
        return job, Joint()
    if word.lower() in ENDS:
        return job, Joint(kind=ENDS[word.lower()].lower())
    for node in job.nodes:
        if node.name.casefold() == word.casefold():
            return job, Joint(kind="box", node=node.id)
    run = run_of(job, run_id)
    start = job.node(run.start)
    known = [leg.end.node for leg in run.legs[:index] if leg.end.node]
    near = job.node(known[-1]) if known else start
    height = lay_out(run, start.height_in)[index].y1
    box = made(
        Box,
        {
            "id": next_id(job, "b"),
            "name": word,
            "structure": near.structure,
            "height_in": min(max(height, -1200), 6000),
        },
        "to",
    )
    return with_parts(job, boxes=(*job.boxes, box)), Joint(kind="box", node=box.id)


def walk(job: Job, edit: Walk, book: Codebook) -> Job:
    """The job with legs added from walk text."""
    names = [node.name for node in job.nodes]
    said = parse_walk(book, edit.text, names)
    if edit.replace:
        job = with_legs(job, edit.run, lambda legs: ())
    at = edit.at
    for walked in said:
        run = run_of(job, edit.run)
        where = len(run.legs) if at is None else min(at, len(run.legs))
        leg = _from_walk(book, run, run.legs[where - 1] if where else None, walked, edit.text)
        job = with_legs(job, edit.run, lambda legs, w=where, new=leg: inserted(legs, w, [new]))
        if walked.to:
            job = end_leg(job, edit.run, where, walked.to)
        at = None if at is None else at + 1
    return job


def _from_walk(book: Codebook, run: Run, before: Leg | None, said: WalkLeg, text: str) -> Leg:
    """A whole leg from what was said; what was not said is as on the leg before."""
    place = said.place or (before.place if before else None)
    key = said.method or (before.method if before else None)
    for value, what in ((place, "where the leg lies"), (key, "in what: `in 12-2`, `in emt 3/4`")):
        if value is None:
            raise TextError(f"say {what}", key="text", value=text, at=len(text))
    size = said.size or (before.size if before and before.method == key else None) or _usual(book, run, key or "")
    return made(
        Leg,
        {
            "go": said.go,
            "length_in": said.length_in,
            "place": place,
            "method": key,
            "size": size,
            "depth_in": said.depth_in,
            "bends_deg": said.bends_deg,
            "sleeve": said.sleeve,
            "met": said.met,
            "expansion": said.expansion,
            "ribbon": said.ribbon,
            "facts": LegFacts(**said.facts),
        },
        "text",
    )


def _usual(book: Codebook, run: Run, key: str) -> str:
    """Size of a method that was named without one: the circuit's cable, or the smallest pipe that fits."""
    if method(book, key).kind != "raceway":
        return f"{run.wire_size}-{run.conductors}"
    if run.wire_size not in wire_sizes(book):
        return ""
    return smallest_size(book, key, [Wires(run.insulation, run.wire_size, run.conductors + 1)]) or ""
