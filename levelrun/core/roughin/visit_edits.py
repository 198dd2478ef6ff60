"""Edits of inspections: how one ended, what it found, what is mended; holds of buildings."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, StrictBool

from levelrun.core.codebook import Codebook
from levelrun.core.editing import EditBase, PartKind, made, next_id, set_part, with_parts
from levelrun.core.errors import EditError
from levelrun.core.job import Fault, Hold, Job, Visit
from levelrun.core.part import Id, Text
from levelrun.core.roughin.parts import Day, Who
from levelrun.core.roughin.waits import lifted, named, open_faults


class LiftBuilding(EditBase):
    """Lift a hold of a building: who saw it, on which day. What was found at its visits and not seen again keeps it;
    an empty name holds it again."""

    op: Literal["lift_building"]
    kind: Literal["insulation", "drywall", "power"]
    structure: Id
    by: Annotated[str, Field(max_length=60)]
    on: Day = ""
    remarks: Text = ""

    def title(self) -> str:
        return f"lift the hold before {self.kind}" if self.by.strip() else f"hold it before {self.kind}"

    def apply(self, job: Job, book: Codebook) -> Job:
        left = open_faults(job, self.kind, self.structure)
        if self.by.strip() and left:
            raise EditError(
                f"the last visit found {named([f.text for f in left])}: it holds until that is mended and seen again",
                key="by", value=self.by,
            )  # fmt: skip
        spot = (self.kind, self.structure)
        others = tuple(hold for hold in job.holds if (hold.kind, hold.place) != spot)
        if not self.by.strip():
            return with_parts(job, holds=others)
        values = {
            "id": next_id(job, "h"), "kind": self.kind, "place": self.structure, "lifted_by": self.by,
            "lifted_on": self.on, "remarks": self.remarks,
        }  # fmt: skip
        return with_parts(job, holds=(*others, made(Hold, values, "hold")))


class EndVisit(EditBase):
    """Say how an inspection ended, who came, and what was found. Passed, it lifts its hold, and what was found before
    and mended counts as seen; failed, the hold stays."""

    op: Literal["end_visit"]
    visit: Id
    result: Literal["passed", "failed"]
    who: Who = ""
    on: Day = ""
    found: Annotated[tuple[dict[str, Any], ...], Field(max_length=40)] = ()

    def title(self) -> str:
        return f"inspection {self.result}"

    def apply(self, job: Job, book: Codebook) -> Job:
        visit = visit_of(job, self.visit)
        if self.result == "failed" and not self.found and not open_faults(job, visit.kind, visit.place):
            raise EditError("say what was found: a failed visit without it asks for nothing", key="found", value=[])
        day = self.on or visit.on
        job = set_part(
            job, book, VISIT, visit.id, {"result": self.result, "who": self.who or visit.who, "on": day}
        )  # fmt: skip
        for item in self.found:
            values = {"id": next_id(job, "g"), "visit": visit.id, **item}
            job = with_parts(job, faults=(*job.faults, made(Fault, values, "found")))
        if self.result == "failed":
            return job
        unmended = [f.text for f in open_faults(job, visit.kind, visit.place) if not f.mended_on]
        if unmended:
            raise EditError(f"{named(unmended)}: not mended, so it cannot have passed", key="result", value="passed")
        seen = {fault.id for fault in open_faults(job, visit.kind, visit.place)}
        faults = tuple(
            made(Fault, {**f.model_dump(), "seen_on": max(day, f.mended_on)}, "fault") if f.id in seen else f
            for f in job.faults
        )
        job = with_parts(job, faults=faults)
        by = self.who or visit.who or "the inspector"
        if visit.kind == "final" or lifted(job, visit.kind, visit.place) is not None:
            return job
        hold = {"id": next_id(job, "h"), "kind": visit.kind, "place": visit.place, "lifted_by": by, "lifted_on": day}
        kept = tuple(h for h in job.holds if (h.kind, h.place) != (visit.kind, visit.place))
        return with_parts(job, holds=(*kept, made(Hold, hold, "hold")))


class MendFault(EditBase):
    """Say that what was found is mended, by whom and when; or that it is not."""

    op: Literal["mend_fault"]
    fault: Id
    mended: StrictBool = True
    on: Day = ""
    by: Who = ""

    def title(self) -> str:
        return "mended" if self.mended else "not mended"

    def apply(self, job: Job, book: Codebook) -> Job:
        if self.mended and not self.on:
            raise EditError("on: say the day that it was mended", key="on", value="")
        values = {"mended_on": self.on, "mended_by": self.by} if self.mended else {"mended_on": "", "seen_on": ""}
        return set_part(job, book, FAULT, self.fault, values)


def visit_of(job: Job, ident: str) -> Visit:
    """An inspection. Raises EditError."""
    found = next((visit for visit in job.visits if visit.id == ident), None)
    if found is None:
        raise EditError(f"no inspection {ident!r} in this job", key="visit", value=ident)
    return found


def _no_visit(job: Job, part_id: str) -> Job:
    return with_parts(job, faults=tuple(fault for fault in job.faults if fault.visit != part_id))


FAULT = PartKind(name="fault", field="faults", model=Fault, letter="g")
VISIT = PartKind(name="visit", field="visits", model=Visit, letter="o", let_go=_no_visit)
EDITS = (LiftBuilding, EndVisit, MendFault)
