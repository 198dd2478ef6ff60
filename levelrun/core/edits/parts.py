"""Parts of a job added, changed and removed; ids and names made by counting."""

from __future__ import annotations

from typing import Any, TypeVar

from pydantic import ValidationError

from levelrun.core.boxes.catalogue import box_models
from levelrun.core.boxes.pole import hung
from levelrun.core.codebook import Codebook
from levelrun.core.edits.models import Drop, Set
from levelrun.core.errors import EditError
from levelrun.core.job import Box, Circuit, Fixture, Frozen, Job, Opening, Panel, Room, Run, Structure
from levelrun.core.site.framing import finish_in

PARTS: dict[str, tuple[str, type[Frozen]]] = {
    "structure": ("structures", Structure),
    "room": ("rooms", Room),
    "opening": ("openings", Opening),
    "fixture": ("fixtures", Fixture),
    "panel": ("panels", Panel),
    "box": ("boxes", Box),
    "run": ("runs", Run),
    "circuit": ("circuits", Circuit),
}
LETTERS = {
    "receptacle": "R", "switch": "S", "light": "L", "fan": "F", "smoke": "SM", "junction": "J", "device": "D",
    "equipment": "E", "disconnect": "DS",
}  # fmt: skip
Part = TypeVar("Part", bound=Frozen)


def made(model: type[Part], values: dict[str, Any], where: str) -> Part:
    """A part from plain values. Raises EditError that names the field."""
    try:
        return model.model_validate(values)
    except ValidationError as error:
        raise refused(error, where) from None


def refused(error: ValidationError, where: str) -> EditError:
    """The first fault of a part, as an EditError."""
    first = error.errors()[0]
    key = ".".join(str(part) for part in (where, *first["loc"]) if part != "")
    message = str(first["msg"]).removeprefix("Value error, ")
    return EditError(f"{first['loc'][-1] if first['loc'] else where}: {message}", key=key, value=first["input"])


def with_parts(job: Job, **values: Any) -> Job:
    """The job with some fields changed, its references checked again."""
    whole = {name: getattr(job, name) for name in Job.model_fields}
    try:
        return Job.model_validate({**whole, **values})
    except ValidationError as error:
        raise refused(error, "job") from None


def find(job: Job, kind: str, part_id: str) -> tuple[str, type[Frozen], int]:
    """Field, model and place of a part. Raises EditError."""
    field, model = PARTS[kind]
    for index, part in enumerate(getattr(job, field)):
        if part.id == part_id:
            return field, model, index
    raise EditError(f"no {kind} {part_id!r} in this job", key="id", value=part_id)


def add_part(job: Job, book: Codebook, kind: str, item: dict[str, Any]) -> Job:
    """The job with a new part: id, name and height of a box made where they are not given."""
    field, model = PARTS[kind]
    values = {"id": next_id(job, kind[0]), **item}
    if kind in ("box", "panel"):
        values = _placed(job, book, kind, values)
    if kind == "room" and "sides" not in values and isinstance(values.get("corners"), list | tuple):
        values["sides"] = [{} for _ in values["corners"]]
    return with_parts(job, **{field: (*getattr(job, field), made(model, values, "item"))})


def _placed(job: Job, book: Codebook, kind: str, values: dict[str, Any]) -> dict[str, Any]:
    room = next((item for item in job.rooms if item.id == values.get("room")), None)
    if room is not None and "structure" not in values:
        values["structure"] = job.structure_of(room.level).id
    if "name" not in values:
        values["name"] = next_name(job, "P" if kind == "panel" else LETTERS.get(str(values.get("kind")), "J"))
    side = values.get("side")
    if kind == "box" and room is not None and isinstance(side, int) and 0 <= side < len(room.sides):
        values.setdefault("set_out_in", 0.0 if values.get("outdoors") else finish_in(room.sides[side]))
    if kind == "box" and room is not None and "height_in" not in values:
        level = next(item for item in job.structure_of(room.level).levels if item.id == room.level)
        on_ceiling = values.get("kind") in ("light", "fan", "smoke") or values.get("serves") == "opener"
        up = level.height_in if on_ceiling and values.get("side") is None else 24.0
        values["height_in"] = level.floor_in + up
        box = made(Box, values, "item")
        values["height_in"] = _hung(job, book, box)
    elif kind == "box" and room is not None:
        values.setdefault("fixed", True)
    return values


def _hung(job: Job, book: Codebook, box: Box) -> float:
    """The height of a box by the story pole, or the one it has."""
    if box.room is None or box.fixed or (box.model and box.model not in box_models(book)):
        return box.height_in
    room = job.room(box.room)
    level = next(item for item in job.structure_of(room.level).levels if item.id == room.level)
    own = [item for item in job.fixtures if item.room == room.id]
    found = hung(book, job.habits.pole, box, room, level, own)
    return box.height_in if found is None else found


def rehung(job: Job, book: Codebook, only: set[str] | None = None) -> Job:
    """Every box that is not fixed at the height that the story pole gives it now."""
    boxes = []
    for box in job.boxes:
        height = box.height_in if only is not None and box.id not in only else _hung(job, book, box)
        boxes.append(box if height == box.height_in else box.model_copy(update={"height_in": height}))
    return with_parts(job, boxes=tuple(boxes))


def set_part(job: Job, book: Codebook, edit: Set) -> Job:
    """The job with fields of one part changed. A box whose height is typed keeps it; else the pole decides."""
    field, model, index = find(job, edit.kind, edit.id)
    parts = list(getattr(job, field))
    if edit.set.get("id", edit.id) != edit.id:
        raise EditError("an id is not changed; change the name", key="set.id", value=edit.set["id"])
    values = {**parts[index].model_dump(), **edit.set}
    if edit.kind == "box" and "height_in" in edit.set and values.get("room") and "fixed" not in edit.set:
        values["fixed"] = True
    parts[index] = made(model, values, "set")
    changed = with_parts(job, **{field: tuple(parts)})
    moved = {"room", "side", "at_in", "kind", "gangs", "model", "fixed", "outdoors", "serves"} & set(edit.set)
    return rehung(changed, book, {edit.id}) if edit.kind == "box" and moved else changed


def users_of(job: Job, part_id: str) -> list[str]:
    """Names of what uses a part, so that it is not removed silently."""
    users = [run.name for run in job.runs if part_id in (run.start, *(leg.end.node for leg in run.legs))]
    users += [node.name for node in job.nodes if part_id in (node.structure, node.room)]
    users += [f"circuit {c.name}" for c in job.circuits if part_id in (c.panel, c.feeds, *(h.box for h in c.chain))]
    users += [room.name for room in job.rooms if any(level.id == room.level for level in _levels(job, part_id))]
    standing: tuple[Opening | Fixture, ...] = (*job.openings, *job.fixtures)
    return users + [part.kind.replace("_", " ") for part in standing if part.room == part_id]


def _levels(job: Job, structure_id: str) -> tuple[Any, ...]:
    return next((item.levels for item in job.structures if item.id == structure_id), ())


def drop_part(job: Job, edit: Drop) -> Job:
    """The job without one part. Raises EditError that names what still uses it."""
    field, _, index = find(job, edit.kind, edit.id)
    users = users_of(job, edit.id)
    if users:
        part = getattr(job, field)[index]
        raise EditError(
            f"{edit.kind} {getattr(part, 'name', edit.kind)!r} is used by {', '.join(users[:4])}; change those first",
            key="id",
            value=edit.id,
        )
    parts = getattr(job, field)
    return with_parts(job, **{field: (*parts[:index], *parts[index + 1 :])})


def next_name(job: Job, letter: str) -> str:
    """The next free name J-1, J-2 … of a kind."""
    taken = {node.name.casefold() for node in job.nodes}
    number = 1
    while f"{letter}-{number}".casefold() in taken:
        number += 1
    return f"{letter}-{number}"


def next_id(job: Job, letter: str) -> str:
    """The next free id such as b7, by counting: the core has no clock and no dice."""
    taken = set(job.ids())
    number = 1
    while f"{letter}{number}" in taken:
        number += 1
    return f"{letter}{number}"
