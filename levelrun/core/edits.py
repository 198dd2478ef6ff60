"""Edits of a job: plain data in, a new job out. Mends, the entry line and forms all come through here."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Any, Literal, TypeVar

from pydantic import BaseModel, Field, ValidationError

from levelrun.core.codebook import Codebook, load, notable
from levelrun.core.codebook.lookups import method, wire_sizes
from levelrun.core.errors import EditError, WalkError
from levelrun.core.job import Box, Frozen, Id, Job, Joint, Leg, LegFacts, Name, Panel, Run, Structure
from levelrun.core.pipe.fill import Wires, smallest_size
from levelrun.core.runs.geometry import lay_out
from levelrun.core.runs.walk import ENDS, WalkLeg, parse_walk

Kind = Literal["structure", "panel", "box", "run"]
PARTS: dict[str, tuple[str, type[Frozen]]] = {
    "structure": ("structures", Structure),
    "panel": ("panels", Panel),
    "box": ("boxes", Box),
    "run": ("runs", Run),
}
Part = TypeVar("Part", bound=Frozen)
LegNumber = Annotated[int, Field(ge=0, le=200)]
Changes = Annotated[dict[str, Any], Field(max_length=40)]


class SetJob(Frozen):
    """Change the job itself: name, rules, remarks, habits (whole)."""

    op: Literal["set_job"]
    set: Changes


class Add(Frozen):
    """Add a structure, panel, box or run."""

    op: Literal["add"]
    kind: Kind
    item: Changes


class Set(Frozen):
    """Change fields of a structure, panel, box or run."""

    op: Literal["set"]
    kind: Kind
    id: Id
    set: Changes


class Drop(Frozen):
    """Remove a structure, panel, box or run that nothing uses."""

    op: Literal["drop"]
    kind: Kind
    id: Id


class AddLeg(Frozen):
    """Insert a leg before position `at`; at the end where `at` is null."""

    op: Literal["add_leg"]
    run: Id
    at: LegNumber | None = None
    leg: Leg


class SetLeg(Frozen):
    """Change fields of one leg."""

    op: Literal["set_leg"]
    run: Id
    leg: LegNumber
    set: Changes


class DropLeg(Frozen):
    """Remove one leg."""

    op: Literal["drop_leg"]
    run: Id
    leg: LegNumber


class PutBox(Frozen):
    """Put a junction box at the end of a leg: `name`, or the next free J-n."""

    op: Literal["put_box"]
    run: Id
    leg: LegNumber
    name: Name | None = None


class EndLeg(Frozen):
    """Say what stands at the end of a leg: LB, body, coupling, nothing (empty), or a box by name."""

    op: Literal["end_leg"]
    run: Id
    leg: LegNumber
    to: Annotated[str, Field(max_length=60)]


class Walk(Frozen):
    """Add legs from walk text. `at` inserts before that leg; `replace` empties the run first."""

    op: Literal["walk"]
    run: Id
    text: Annotated[str, Field(max_length=20_000)]
    at: LegNumber | None = None
    replace: bool = False


Edit = Annotated[
    SetJob | Add | Set | Drop | AddLeg | SetLeg | DropLeg | PutBox | EndLeg | Walk, Field(discriminator="op")
]


class EditList(BaseModel):
    """Several edits that stand or fall together."""

    edits: list[Edit] = Field(min_length=1, max_length=500)


def apply(job: Job, edits: Sequence[Edit], book: Codebook | None = None) -> Job:
    """The job after the edits, all or none. Raises EditError or WalkError that names the field."""
    book = book or load(job.rules)
    for edit in edits:
        job = _apply(job, edit, book)
    return job


def _apply(job: Job, edit: Edit, book: Codebook) -> Job:
    match edit:
        case SetJob():
            values = {key: edit.set[key] for key in edit.set}
            _check_notes(values.get("notes"), load(values.get("rules", job.rules)))
            _only(values, ("name", "rules", "remarks", "habits", "notes"))
            return _job(job, **values)
        case Add():
            field, model = PARTS[edit.kind]
            return _job(job, **{field: (*getattr(job, field), _made(model, edit.item, "item"))})
        case Set():
            return _set(job, edit)
        case Drop():
            return _drop(job, edit)
        case AddLeg():
            return _with_legs(job, edit.run, lambda legs: _inserted(legs, edit.at, [edit.leg]))
        case SetLeg():
            leg = _leg(job, edit.run, edit.leg)
            made = _made(Leg, {**leg.model_dump(), **edit.set}, "set")
            return _with_legs(job, edit.run, lambda legs: (*legs[: edit.leg], made, *legs[edit.leg + 1 :]))
        case DropLeg():
            _leg(job, edit.run, edit.leg)
            return _with_legs(job, edit.run, lambda legs: (*legs[: edit.leg], *legs[edit.leg + 1 :]))
        case PutBox():
            _leg(job, edit.run, edit.leg)
            return _end_leg(job, edit.run, edit.leg, edit.name or next_box_name(job))
        case EndLeg():
            _leg(job, edit.run, edit.leg)
            return _end_leg(job, edit.run, edit.leg, edit.to)
        case Walk():
            return _walk(job, edit, book)


def _check_notes(notes: Any, book: Codebook) -> None:
    """Every note is on a number that a note may change."""
    for index, note in enumerate(notes or ()):
        key = note.get("key") if isinstance(note, dict) else None
        if key is not None and key not in notable(book):
            raise EditError(
                f"key {key!r} is no number that a local note may change",
                key=f"set.notes.{index}.key",
                value=key,
                allowed=sorted(notable(book)),
            )


def _only(values: dict[str, Any], allowed: tuple[str, ...]) -> None:
    for key in values:
        if key not in allowed:
            raise EditError(
                f"{key!r} cannot be set here; allowed: {', '.join(allowed)}",
                key=f"set.{key}",
                value=values[key],
                allowed=allowed,
            )


def _made(model: type[Part], values: dict[str, Any], where: str) -> Part:
    try:
        return model.model_validate(values)
    except ValidationError as error:
        raise _refused(error, where) from None


def _refused(error: ValidationError, where: str) -> EditError:
    first = error.errors()[0]
    key = ".".join(str(part) for part in (where, *first["loc"]) if part != "")
    message = str(first["msg"]).removeprefix("Value error, ")
    return EditError(f"{first['loc'][-1] if first['loc'] else where}: {message}", key=key, value=first["input"])


def _job(job: Job, **values: Any) -> Job:
    """The job with some fields changed, its references checked again."""
    whole = {name: getattr(job, name) for name in Job.model_fields}
    try:
        return Job.model_validate({**whole, **values})
    except ValidationError as error:
        raise _refused(error, "job") from None


def _find(job: Job, kind: str, part_id: str) -> tuple[str, type[Frozen], int]:
    field, model = PARTS[kind]
    for index, part in enumerate(getattr(job, field)):
        if part.id == part_id:
            return field, model, index
    raise EditError(f"no {kind} {part_id!r} in this job", key="id", value=part_id)


def _set(job: Job, edit: Set) -> Job:
    field, model, index = _find(job, edit.kind, edit.id)
    parts = list(getattr(job, field))
    if edit.set.get("id", edit.id) != edit.id:
        raise EditError("an id is not changed; change the name", key="set.id", value=edit.set["id"])
    parts[index] = _made(model, {**parts[index].model_dump(), **edit.set}, "set")
    return _job(job, **{field: tuple(parts)})


def _drop(job: Job, edit: Drop) -> Job:
    field, _, index = _find(job, edit.kind, edit.id)
    users = [run.name for run in job.runs if edit.id in (run.start, *(leg.end.node for leg in run.legs))]
    users += [node.name for node in job.nodes if node.structure == edit.id]
    if users:
        raise EditError(
            f"{edit.kind} {getattr(job, field)[index].name!r} is used by {', '.join(users[:4])}; change those first",
            key="id",
            value=edit.id,
        )
    parts = getattr(job, field)
    return _job(job, **{field: (*parts[:index], *parts[index + 1 :])})


def _run(job: Job, run_id: str) -> Run:
    try:
        return job.run(run_id)
    except KeyError:
        raise EditError(f"no run {run_id!r} in this job", key="run", value=run_id) from None


def _leg(job: Job, run_id: str, index: int) -> Leg:
    run = _run(job, run_id)
    if index >= len(run.legs):
        raise EditError(
            f"no leg {index + 1} in {run.name!r}; it has {len(run.legs)}",
            key="leg",
            value=index,
            allowed=[f"0 to {len(run.legs) - 1}"],
        )
    return run.legs[index]


def _with_legs(job: Job, run_id: str, change: Any) -> Job:
    run = _run(job, run_id)
    legs = change(run.legs)
    if len(legs) > 200:
        raise EditError("a run has 200 legs at most", key="leg", value=len(legs), allowed=["up to 200"])
    changed = run.model_copy(update={"legs": tuple(legs)})
    return _job(job, runs=tuple(changed if item.id == run_id else item for item in job.runs))


def _inserted(legs: tuple[Leg, ...], at: int | None, new: Sequence[Leg]) -> tuple[Leg, ...]:
    where = len(legs) if at is None else min(at, len(legs))
    return (*legs[:where], *new, *legs[where:])


def next_box_name(job: Job) -> str:
    """The next free name J-1, J-2 …"""
    taken = {node.name.casefold() for node in job.nodes}
    number = 1
    while f"j-{number}" in taken:
        number += 1
    return f"J-{number}"


def next_id(job: Job, letter: str) -> str:
    """The next free id such as b7, by counting: the core has no clock and no dice."""
    taken = set(job.ids())
    number = 1
    while f"{letter}{number}" in taken:
        number += 1
    return f"{letter}{number}"


def _end_leg(job: Job, run_id: str, index: int, to: str) -> Job:
    job, joint = _joint(job, run_id, index, to)
    leg = _leg(job, run_id, index).model_copy(update={"end": joint})
    return _with_legs(job, run_id, lambda legs: (*legs[:index], leg, *legs[index + 1 :]))


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
    run = _run(job, run_id)
    start = job.node(run.start)
    known = [leg.end.node for leg in run.legs[:index] if leg.end.node]
    near = job.node(known[-1]) if known else start
    height = lay_out(run, start.height_in)[index].y1
    box = _made(
        Box,
        {
            "id": next_id(job, "b"),
            "name": word,
            "structure": near.structure,
            "height_in": min(max(height, -1200), 6000),
        },
        "to",
    )
    return _job(job, boxes=(*job.boxes, box)), Joint(kind="box", node=box.id)


def _walk(job: Job, edit: Walk, book: Codebook) -> Job:
    names = [node.name for node in job.nodes]
    said = parse_walk(book, edit.text, names)
    if edit.replace:
        job = _with_legs(job, edit.run, lambda legs: ())
    at = edit.at
    for walked in said:
        run = _run(job, edit.run)
        where = len(run.legs) if at is None else min(at, len(run.legs))
        leg = _from_walk(book, run, run.legs[where - 1] if where else None, walked, edit.text)
        job = _with_legs(job, edit.run, lambda legs, w=where, new=leg: _inserted(legs, w, [new]))
        if walked.to:
            job = _end_leg(job, edit.run, where, walked.to)
        at = None if at is None else at + 1
    return job


def _from_walk(book: Codebook, run: Run, before: Leg | None, said: WalkLeg, text: str) -> Leg:
    """A whole leg from what was said; what was not said is as on the leg before."""
    place = said.place or (before.place if before else None)
    key = said.method or (before.method if before else None)
    for value, what in ((place, "where the leg lies"), (key, "in what: `in 12-2`, `in emt 3/4`")):
        if value is None:
            raise WalkError(f"say {what}", key="text", value=text, at=len(text))
    size = said.size or (before.size if before and before.method == key else None) or _usual(book, run, key or "")
    return _made(
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


def describe(edits: Sequence[Edit]) -> str:
    """A short name of an edit for undo, such as "leg 5: depth 18″"."""
    edit = edits[0]
    match edit:
        case SetJob():
            text = f"job {', '.join(edit.set)}"
        case Add():
            text = f"add {edit.kind} {edit.item.get('name', '')}"
        case Set():
            text = f"{edit.kind} {', '.join(key.removesuffix('_in').replace('_', ' ') for key in edit.set)}"
        case Drop():
            text = f"remove {edit.kind}"
        case AddLeg():
            text = "add leg"
        case SetLeg():
            what = ", ".join(key.removesuffix("_in").replace("_", " ") for key in edit.set)
            text = f"leg {edit.leg + 1}: {what}"
        case DropLeg():
            text = f"remove leg {edit.leg + 1}"
        case PutBox():
            text = f"box after leg {edit.leg + 1}"
        case EndLeg():
            text = f"leg {edit.leg + 1} ends at {edit.to or 'nothing'}"
        case Walk():
            text = f"walk {edit.text.strip().splitlines()[0][:40]}" if edit.text.strip() else "walk"
    more = f" and {len(edits) - 1} more" if len(edits) > 1 else ""
    return (text + more)[:80]
