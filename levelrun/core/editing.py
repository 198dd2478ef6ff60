"""What every edit is made of: the base of an edit, kinds of parts, parts added and changed with their references
checked, ids and names made by counting."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from typing import Annotated, Any, TypeVar

from pydantic import Field, ValidationError

from levelrun.core.codebook import Codebook
from levelrun.core.errors import EditError
from levelrun.core.job import PARTS, Circuit, Fixture, Job, Opening
from levelrun.core.part import Frozen

Part = TypeVar("Part", bound=Frozen)
Changes = Annotated[dict[str, Any], Field(max_length=60)]
Said = Annotated[str, Field(max_length=20_000)]


class EditBase(Frozen):
    """One edit, as plain data with an `op`. It knows its name for undo and how it is applied."""

    def title(self) -> str:
        """A short name for undo, such as "leg 5: depth"."""
        raise NotImplementedError

    def apply(self, job: Job, book: Codebook) -> Job:
        """The job after the edit. `book` is the job's own. Raises EditError or TextError that names the field."""
        raise NotImplementedError

    def apply_told(self, job: Job, book: Codebook) -> tuple[Job, tuple[str, ...]]:
        """The job after the edit, and what is told of it where it went otherwise than typed."""
        return self.apply(job, book), ()


@dataclass(frozen=True, kw_only=True)
class PartKind:
    """A kind of part that is added, changed and removed by edits.

    field: of the job; letter: of its ids; stand: fills in what a new one does not say; settle: puts right what
    follows from a change of `keys` of one part; let_go: lets what names a part go on without it; links: the fields by
    which one may come not to fit the others, all of them where none are named.
    """

    name: str
    field: str
    model: type[Frozen]
    letter: str
    stand: Callable[[Job, Codebook, dict[str, Any]], dict[str, Any]] | None = None
    settle: Callable[[Job, Codebook, str, set[str]], Job] | None = None
    let_go: Callable[[Job, str], Job] | None = None
    links: frozenset[str] | None = None


def fields_text(names: Iterable[str]) -> str:
    """Names of fields as they are said: `height_in` is height."""
    return ", ".join(name.removesuffix("_in").replace("_", " ") for name in names)


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
    """The job with some fields changed, its references checked again. Parts that are models already are not looked
    into once more: each was checked when it was made."""
    if all(name in PARTS and all(isinstance(part, Frozen) for part in value) for name, value in values.items()):
        try:
            return job.model_copy(update=values).checked()
        except ValueError as error:
            raise EditError(f"job: {error}", key="job") from None
    whole = {name: getattr(job, name) for name in Job.model_fields}
    try:
        return Job.model_validate({**whole, **values})
    except ValidationError as error:
        raise refused(error, "job") from None


def placed_in(job: Job, kind: PartKind, part_id: str) -> int:
    """Where a part stands among its kind. Raises EditError."""
    for index, part in enumerate(getattr(job, kind.field)):
        if part.id == part_id:
            return index
    raise EditError(f"no {kind.name} {part_id!r} in this job", key="id", value=part_id)


def add_part(job: Job, book: Codebook, kind: PartKind, item: dict[str, Any]) -> Job:
    """The job with a new part; its id is made where it is not given."""
    values = {"id": next_id(job, kind.letter), **item}
    if kind.stand is not None:
        values = kind.stand(job, book, values)
    return with_parts(job, **{kind.field: (*getattr(job, kind.field), made(kind.model, values, "item"))})


def set_part(job: Job, book: Codebook, kind: PartKind, part_id: str, changes: dict[str, Any]) -> Job:
    """The job with fields of one part changed."""
    index = placed_in(job, kind, part_id)
    parts = list(getattr(job, kind.field))
    if changes.get("id", part_id) != part_id:
        raise EditError("an id is not changed; change the name", key="set.id", value=changes["id"])
    parts[index] = made(kind.model, {**parts[index].model_dump(), **changes}, "set")
    values = {kind.field: tuple(parts)}
    fits = kind.links is not None and not kind.links & changes.keys()
    changed = job.model_copy(update=values) if fits else with_parts(job, **values)
    return kind.settle(changed, book, part_id, set(changes)) if kind.settle else changed


def drop_part(job: Job, kind: PartKind, part_id: str) -> Job:
    """The job without one part. Raises EditError that names what still uses it, where it cannot go on without."""
    index = placed_in(job, kind, part_id)
    job = kind.let_go(job, part_id) if kind.let_go else job
    job = forgotten(job, part_id)
    users = users_of(job, part_id)
    parts = getattr(job, kind.field)
    if users:
        raise EditError(
            f"{kind.name} {getattr(parts[index], 'name', kind.name)!r} is used by {', '.join(users[:4])}; "
            "change those first",
            key="id",
            value=part_id,
        )
    return with_parts(job, **{kind.field: (*parts[:index], *parts[index + 1 :])})


def forgotten(job: Job, part_id: str) -> Job:
    """The job without what was remembered of a part alone: its card, where it went, that it is closed, its visits.
    Photos and what a visit found stay, and are about no place any more."""
    visits = tuple(visit for visit in job.visits if part_id not in (visit.id, visit.place))
    kept = {visit.id for visit in visits}
    faults = tuple(fault for fault in job.faults if fault.visit in kept)
    changed = {
        "cards": tuple(card for card in job.cards if card.node != part_id),
        "built": tuple(item for item in job.built if part_id not in (item.node, item.circuit, item.room)),
        "closings": tuple(item for item in job.closings if item.room != part_id),
        "photos": tuple(
            photo.model_copy(update={"room": None, "trench": None, "node": None})
            if part_id in (photo.room, photo.trench, photo.node)
            else photo
            for photo in job.photos
        ),
        "visits": visits,
        "faults": tuple(f.model_copy(update={"node": None}) if f.node == part_id else f for f in faults),
        "holds": tuple(hold for hold in job.holds if hold.place != part_id),
        "measured": tuple(m for m in job.measured if part_id != m.of and m.step.partition(":")[2] != part_id),
    }
    changed = {key: value for key, value in changed.items() if value != getattr(job, key)}
    return job.model_copy(update=changed) if changed else job


def users_of(job: Job, part_id: str) -> list[str]:
    """Names of what uses a part, so that it is not removed silently."""
    users = [way.name for way in job.ways if part_id in (way.start, *(leg.end.node for leg in way.legs))]
    users += [node.name for node in job.nodes if part_id in (node.structure, node.room)]
    users += [f"circuit {c.name}" for c in job.circuits if part_id in (c.panel, c.feeds, *_named(c))]
    users += [room.name for room in job.rooms if any(level.id == room.level for level in _levels(job, part_id))]
    standing: tuple[Opening | Fixture, ...] = (*job.openings, *job.fixtures)
    users += [line.name for line in job.lines if part_id in (line.start, line.end)]
    users += [f"electrode {item.id}" for item in job.electrodes if item.structure == part_id]
    users += [f"service {item.id}" for item in job.services if item.structure == part_id]
    users += [trench.name for trench in job.trenches if part_id in {item.way for item in trench.readings}]
    return users + [part.kind.replace("_", " ") for part in standing if part.room == part_id]


def _named(circuit: Circuit) -> Iterator[str]:
    for hop in circuit.chain:
        yield from (hop.box, *hop.path)


def _levels(job: Job, structure_id: str) -> tuple[Any, ...]:
    return next((item.levels for item in job.structures if item.id == structure_id), ())


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
