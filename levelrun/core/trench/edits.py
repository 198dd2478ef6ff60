"""Edits of what lies between buildings: what is laid in a trench or span, how deep it is dug, steps ticked, holds."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, next_id, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Electrode, Hold, Job, Leg, Service, Span, Tick, Trench, YardPart
from levelrun.core.part import Id, Size, Text
from levelrun.core.roughin.parts import Day
from levelrun.core.trench.feeding import fed
from levelrun.core.trench.laying import IN_AIR, IN_EARTH, line_of, with_way
from levelrun.core.trench.order import HELD, STEPS, before_lifting, skipped_before
from levelrun.core.ways.edits import way_of
from levelrun.core.ways.laid import laid_legs
from levelrun.core.ways.parts import MethodKey


class Lay(EditBase):
    """Lay the legs of a way that go through the earth into a trench, or those in the air onto a span: the longest
    row of them in no other. Their length and place follow from it from then on."""

    op: Literal["lay"]
    along: Id
    way: Id
    depth_in: Annotated[float, Field(ge=0, le=600)] | None = None

    def title(self) -> str:
        return "lay it in the trench"

    def apply(self, job: Job, book: Codebook) -> Job:
        line = line_of(job, self.along)
        way = way_of(job, self.way)
        if laid_legs(way, line.id):
            raise EditError(f"{way.name} lies in {line.name} already", key="way", value=way.id)
        first, last = _row(way.legs, IN_EARTH if isinstance(line, Trench) else IN_AIR, way.name)
        values: dict[str, Any] = {"along": line.id}
        if self.depth_in is not None:
            values["depth_in"] = self.depth_in
        legs = [
            leg.model_copy(update=values) if first <= index <= last else leg for index, leg in enumerate(way.legs)
        ]
        return with_way(job, way.model_copy(update={"legs": tuple(legs)}))


class LayFeed(EditBase):
    """Walk the first hop of a circuit through a trench: its riser down, its pipe in the trench, its riser up, in the
    smallest size that its wires fit, one over where the habit says so is asked for later. `size` empty: that size."""

    op: Literal["lay_feed"]
    along: Id
    circuit: Id
    method: MethodKey = "PVC40"
    size: Size = ""
    depth_in: Annotated[float, Field(ge=0, le=600)] | None = None

    def title(self) -> str:
        return "lay the feed in the trench"

    def apply(self, job: Job, book: Codebook) -> Job:
        return fed(job, book, self.along, self.circuit, (self.method, self.size), self.depth_in)


class LiftOut(EditBase):
    """Take a way out of a trench or span: its legs stay as they are, and may be changed again."""

    op: Literal["lift_out"]
    along: Id
    way: Id

    def title(self) -> str:
        return "take it out of the trench"

    def apply(self, job: Job, book: Codebook) -> Job:
        return let_go(job, self.along, self.way)


class Dig(EditBase):
    """Dig to another depth: the cover over a way in a trench, or over all in it. What was read there before is no
    longer so, and what was done after digging is to be done again."""

    op: Literal["dig"]
    trench: Id
    depth_in: Annotated[float, Field(ge=0, le=600)]
    way: Id | None = None

    def title(self) -> str:
        return f"dig to {self.depth_in:g} in"

    def apply(self, job: Job, book: Codebook) -> Job:
        trench = trench_of(job, self.trench)
        for way in job.ways:
            if self.way in (None, way.id) and laid_legs(way, trench.id):
                legs = (
                    leg.model_copy(update={"depth_in": self.depth_in}) if leg.along == trench.id else leg
                    for leg in way.legs
                )
                job = with_way(job, way.model_copy(update={"legs": tuple(legs)}))
        kept = tuple(r for r in trench.readings if self.way is not None and r.way not in (None, self.way))
        again = STEPS.index("dig")
        done = tuple(tick for tick in trench.done if STEPS.index(tick.step) <= again)
        job = _with_trench(job, trench.model_copy(update={"readings": kept, "done": done}))
        return with_parts(job, holds=tuple(hold for hold in job.holds if hold.place != trench.id))


class DoStep(EditBase):
    """Tick a step of a trench, or take the tick off. Past a step that is held, or out of turn, only with a reason."""

    op: Literal["do_step"]
    trench: Id
    step: Literal[STEPS]  # type: ignore[valid-type]
    done: bool = True
    on: Day = ""
    why: Text = ""

    def title(self) -> str:
        return f"{self.step.replace('_', ' ')} {'done' if self.done else 'not done'}"

    def apply(self, job: Job, book: Codebook) -> Job:
        trench = trench_of(job, self.trench)
        others = tuple(tick for tick in trench.done if tick.step != self.step)
        if not self.done:
            return _with_trench(job, trench.model_copy(update={"done": others}))
        if self.step == HELD:
            raise EditError("an inspection is done by lifting its hold: say who saw it", key="step", value=self.step)
        missing = skipped_before(job, trench, self.step)
        if missing and not self.why.strip():
            named = " and ".join(step.replace("_", " ") for step in missing)
            raise EditError(
                f"{named} comes first: do that, or say why this is done without it", key="why", value="",
                allowed=["a reason"],
            )  # fmt: skip
        tick = Tick(step=self.step, on=self.on, why=self.why if missing else "")
        return _with_trench(job, trench.model_copy(update={"done": (*others, tick)}))


class LiftHold(EditBase):
    """Lift the hold of a trench: who saw it, on which day. An empty name puts the hold back."""

    op: Literal["lift_hold"]
    trench: Id
    by: Annotated[str, Field(max_length=60)]
    on: Day = ""
    remarks: Text = ""

    def title(self) -> str:
        return "lift the hold" if self.by.strip() else "hold it again"

    def apply(self, job: Job, book: Codebook) -> Job:
        trench = trench_of(job, self.trench)
        if self.by.strip() and (missing := before_lifting(trench)):
            raise EditError(
                f"there is nothing to see yet: {missing.replace('_', ' ')} comes first", key="trench", value=missing
            )
        others = tuple(hold for hold in job.holds if hold.place != trench.id)
        if not self.by.strip():
            return with_parts(job, holds=others)
        hold = Hold(id=next_id(job, "h"), place=trench.id, lifted_by=self.by, lifted_on=self.on, remarks=self.remarks)
        return with_parts(job, holds=(*others, hold))


def trench_of(job: Job, ident: str) -> Trench:
    """The trench with this id. Raises EditError."""
    try:
        return job.trench(ident)
    except KeyError:
        raise EditError(f"no trench {ident!r} in this job", key="trench", value=ident) from None


def _with_trench(job: Job, changed: Trench) -> Job:
    return with_parts(job, trenches=tuple(changed if item.id == changed.id else item for item in job.trenches))


def _row(legs: tuple[Leg, ...], places: tuple[str, ...], name: str) -> tuple[int, int]:
    """The longest row of level legs in these places that lie in nothing yet."""
    rows: list[tuple[float, int, int]] = []
    for index, leg in enumerate(legs):
        if leg.place not in places or leg.go in ("up", "down") or leg.along is not None:
            continue
        if rows and rows[-1][2] == index - 1 and legs[index - 1].end.kind == "none":
            length, first, _ = rows[-1]
            rows[-1] = (length + leg.length_in, first, index)
        else:
            rows.append((leg.length_in, index, index))
    if not rows:
        where = "the air" if places == IN_AIR else "the earth"
        raise EditError(f"{name} has no level leg in {where} to lay there", key="way", value=name)
    _, first, last = max(rows, key=lambda row: row[0])
    return first, last


def let_go(job: Job, ident: str, way_id: str | None = None) -> Job:
    """The job with no leg in a trench or span, or none of one way."""
    for way in job.ways:
        if way_id in (None, way.id) and laid_legs(way, ident):
            legs = (leg.model_copy(update={"along": None}) if leg.along == ident else leg for leg in way.legs)
            job = with_way(job, way.model_copy(update={"legs": tuple(legs)}))
    return with_parts(job, holds=tuple(h for h in job.holds if h.place != ident)) if way_id is None else job


KINDS = (
    PartKind(name="yard", field="yard", model=YardPart, letter="y"),
    PartKind(name="trench", field="trenches", model=Trench, letter="t", let_go=let_go),
    PartKind(name="span", field="spans", model=Span, letter="n", let_go=let_go),
    PartKind(name="electrode", field="electrodes", model=Electrode, letter="e"),
    PartKind(name="service", field="services", model=Service, letter="q"),
    PartKind(name="hold", field="holds", model=Hold, letter="h"),
)
EDITS = (Lay, LayFeed, LiftOut, Dig, DoStep, LiftHold)
