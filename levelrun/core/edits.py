"""Edits of a job: plain data in, a new job out. Mends, the entry line and forms all come through here."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, Literal

from pydantic import Field, TypeAdapter

from levelrun.core.boxes.edits import rehung
from levelrun.core.codebook import Codebook, load, notable
from levelrun.core.editing import Changes, EditBase, Said, add_part, drop_part, fields_text, set_part, with_parts
from levelrun.core.errors import EditError, TextError
from levelrun.core.job import Job, job_book
from levelrun.core.part import Id
from levelrun.core.say import Scene, clauses, sentences
from levelrun.core.subjects import KINDS, SUBJECTS
from levelrun.core.trench.laying import settled

if TYPE_CHECKING:
    KindName = str
else:
    KindName = Literal[tuple(KINDS)]
JOB_FIELDS = ("name", "rules", "remarks", "habits", "notes")


class SetJob(EditBase):
    """Change the job itself: name, rules, remarks, habits (whole)."""

    op: Literal["set_job"]
    set: Changes

    def title(self) -> str:
        return f"job {', '.join(self.set)}"

    def apply(self, job: Job, book: Codebook) -> Job:
        values = dict(self.set)
        _check_notes(values.get("notes"), _book_named(values.get("rules", job.rules)))
        for key in values:
            if key not in JOB_FIELDS:
                raise EditError(
                    f"{key!r} cannot be set here; allowed: {', '.join(JOB_FIELDS)}",
                    key=f"set.{key}",
                    value=values[key],
                    allowed=JOB_FIELDS,
                )
        changed = with_parts(job, **values)
        return rehung(changed, job_book(changed)) if changed.habits.pole != job.habits.pole else changed


class Add(EditBase):
    """Add a part. Its id, and the name and height of a box, come where they are not given."""

    op: Literal["add"]
    kind: KindName
    item: Changes

    def title(self) -> str:
        return f"add {self.kind} {self.item.get('name', '')}".strip()

    def apply(self, job: Job, book: Codebook) -> Job:
        return add_part(job, book, KINDS[self.kind], self.item)


class Set(EditBase):
    """Change fields of a part."""

    op: Literal["set"]
    kind: KindName
    id: Id
    set: Changes

    def title(self) -> str:
        return f"{self.kind} {fields_text(self.set)}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return set_part(job, book, KINDS[self.kind], self.id, self.set)


class Drop(EditBase):
    """Remove a part that nothing uses."""

    op: Literal["drop"]
    kind: KindName
    id: Id

    def title(self) -> str:
        return f"remove {self.kind}"

    def apply(self, job: Job, book: Codebook) -> Job:
        return drop_part(job, KINDS[self.kind], self.id)


class Say(EditBase):
    """Do what a typed line says about building, boxes, circuits, pipe or the yard. `room`, `level`, `panel`, `way`
    and `line` (a trench or span) are what it is about where the line names none; `verb` opens a sentence that has no
    verb of its own."""

    op: Literal["say"]
    text: Said
    room: Id | None = None
    level: Id | None = None
    panel: Id | None = None
    way: Id | None = None
    line: Id | None = None
    verb: Annotated[str, Field(max_length=20)] = ""

    def title(self) -> str:
        return self.text.strip().splitlines()[0] if self.text.strip() else "nothing"

    def apply(self, job: Job, book: Codebook) -> Job:
        """Sentence by sentence, each on the job as the ones before left it."""
        return self.apply_told(job, book)[0]

    def apply_told(self, job: Job, book: Codebook) -> tuple[Job, tuple[str, ...]]:
        """The same, with what is told of it: where a typed place went."""
        looked = Looked(
            room=self.room, level=self.level, panel=self.panel, way=self.way, line=self.line
        )  # fmt: skip
        after, seen = said_on(job, self.text, looked, self.verb)
        return after, seen.told


@dataclass(frozen=True, kw_only=True)
class Looked:
    """What sentences are about where they name nothing, by id; `node`: what stands at the end of the line before,
    from which one that is joined to it goes on; `made`: its parts; `told`: what was told of those before."""

    room: str | None = None
    level: str | None = None
    panel: str | None = None
    way: str | None = None
    line: str | None = None
    node: str | None = None
    made: tuple[str, ...] = ()
    told: tuple[str, ...] = ()


def said_on(job: Job, text: str, looked: Looked, verb: str = "") -> tuple[Job, Looked]:
    """The job after a typed text, and what the next would be about. A line that is no sentence may be several with
    commas between them: each has to be one. Raises TextError with `at`, or EditError."""
    try:
        return _said_on(job, text, looked, verb)
    except TextError as whole:
        pieces = clauses(text)
        if not pieces:
            raise
        return _by_clauses(job, text, looked, verb, pieces, whole)


def _by_clauses(
    job: Job, text: str, looked: Looked, verb: str, pieces: Sequence[tuple[int, int]], whole: TextError
) -> tuple[Job, Looked]:
    """Sentence by sentence between the commas, each the longest that is one. Raises what was wrong with the whole, or
    what stands farther on in a sentence behind the first."""
    wrong, first = whole, 0
    while first < len(pieces):
        for last in range(len(pieces), first, -1):
            if last - first == len(pieces):  # the whole was tried
                continue
            begin, end = pieces[first][0], pieces[last - 1][1]
            try:  # blanks before it, so that places in the text are kept
                job, looked = _said_on(job, " " * begin + text[begin:end], looked, verb, joined=first > 0)
            except TextError as error:
                farther = first > 0 and (error.at or 0) > (wrong.at or 0)
                told = not error.message.startswith("expected") and (error.at or 0) >= (wrong.at or 0)
                wrong = error if (farther or told) and whole.message.startswith("expected") else wrong
            else:
                first = last
                break
        else:
            raise wrong from None
    return job, looked


def _said_on(job: Job, text: str, looked: Looked, verb: str, joined: bool = False) -> tuple[Job, Looked]:
    """`joined`: the first sentence goes on from the one before; the next ones do where `then` stands between."""
    for then, read in sentences(text):
        goes_on = joined or then
        scene = Scene(
            job=job, book=job_book(job), room_id=looked.room, level_id=looked.level, panel_id=looked.panel,
            way_id=looked.way, line_id=looked.line, node_id=looked.node if goes_on else None,
            made=looked.made if goes_on else (), verb=verb,
        )  # fmt: skip
        joined = False
        said = read(scene)
        before, job = set(job.ids()), apply_raw(job, said.edits)
        room = said.room or (None if said.level else looked.room)
        looked = Looked(
            room=room,
            level=said.level or looked.level,
            panel=said.panel or looked.panel,
            way=looked.way,
            line=looked.line,
            node=said.node,
            made=tuple(set(job.ids()) - before),
            told=(*looked.told, *said.told),
        )
    return job, looked


CLASSES: tuple[type[EditBase], ...] = (
    *(SetJob, Add, Set, Drop, Say),
    *(edit for subject in SUBJECTS for edit in subject.edits),
)
if TYPE_CHECKING:
    Edit = EditBase
else:
    Edit = Annotated[reduce(or_, CLASSES), Field(discriminator="op")]
EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])


def apply(job: Job, edits: Sequence[EditBase]) -> Job:
    """The job after the edits, all or none, each by the job's own rule set and notes as the one before left them.
    Raises EditError or TextError that names the field."""
    return apply_told(job, edits)[0]


def apply_told(job: Job, edits: Sequence[EditBase]) -> tuple[Job, list[str]]:
    """The same, with what is told of the edits: where it differs from what was typed."""
    told: list[str] = []
    for edit in edits:
        after, more = edit.apply_told(job, job_book(job))
        # what is said is made of edits that were settled one by one
        job = after if isinstance(edit, Say) else settled(job, after, job_book(after))
        told += more
    return job, told


def apply_raw(job: Job, edits: Sequence[dict[str, Any]]) -> Job:
    """The job after edits given as plain data that this code itself made."""
    return apply(job, EDITS.validate_python(list(edits)))


def describe(edits: Sequence[EditBase]) -> str:
    """A short name of some edits for undo, such as "leg 5: depth and 2 more"."""
    more = f" and {len(edits) - 1} more" if len(edits) > 1 else ""
    return (edits[0].title() + more)[:80]


def _book_named(rules: Any) -> Codebook:
    if not isinstance(rules, str):
        raise EditError(f"rules {rules!r} is no rule set; allowed: the name of one", key="set.rules", value=rules)
    return load(rules)


def _check_notes(notes: Any, book: Codebook) -> None:
    """Every note is on a number that a note may change."""
    if notes is not None and not isinstance(notes, list | tuple):
        raise EditError("notes: a list of local notes is wanted", key="set.notes", value=notes)
    for index, note in enumerate(notes or ()):
        key = note.get("key") if isinstance(note, dict) else None
        if isinstance(key, str) and key not in notable(book):
            raise EditError(
                f"key {key!r} is no number that a local note may change",
                key=f"set.notes.{index}.key",
                value=key,
                allowed=sorted(notable(book)),
            )
