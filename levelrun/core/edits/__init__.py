"""Edits of a job: plain data in, a new job out. Mends, the entry line and forms all come through here."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from pydantic import TypeAdapter

from levelrun.core.codebook import Codebook, load, notable
from levelrun.core.edits import building, circuits, legs, parts
from levelrun.core.edits import models as m
from levelrun.core.edits.describe import describe
from levelrun.core.edits.models import Edit, EditList
from levelrun.core.errors import EditError
from levelrun.core.job import Job, Leg
from levelrun.core.say import Scene, sentences

__all__ = ["Edit", "EditList", "apply", "apply_raw", "describe"]

EDITS: TypeAdapter[list[Edit]] = TypeAdapter(list[Edit])
JOB_FIELDS = ("name", "rules", "remarks", "habits", "notes")


def apply(job: Job, edits: Sequence[Edit], book: Codebook | None = None) -> Job:
    """The job after the edits, all or none. Raises EditError or TextError that names the field."""
    book = book or load(job.rules)
    for edit in edits:
        job = _apply(job, edit, book)
    return job


def apply_raw(job: Job, edits: Sequence[dict[str, Any]]) -> Job:
    """The job after edits given as plain data that this code itself made."""
    return apply(job, EDITS.validate_python(list(edits)))


def _apply(job: Job, edit: Edit, book: Codebook) -> Job:
    match edit:
        case m.SetJob():
            return _set_job(job, edit, book)
        case m.Add():
            return parts.add_part(job, book, edit.kind, edit.item)
        case m.Set():
            return parts.set_part(job, book, edit)
        case m.Drop():
            return parts.drop_part(job, edit)
        case m.Say():
            return _say(job, edit, book)
        case m.MoveWall():
            return building.move_wall(job, edit)
        case m.SetSide():
            return building.set_side(job, edit)
        case m.FillRoom():
            return building.fill_room(job, edit, book)
        case m.ClearRoom():
            return building.clear_room(job, edit)
        case m.Chain():
            return circuits.chain(job, edit)
        case m.Unchain():
            return circuits.unchain(job, edit)
        case m.Put():
            return circuits.put(job, edit)
        case _:
            return _apply_leg(job, edit, book)


def _apply_leg(job: Job, edit: m.AddLeg | m.SetLeg | m.DropLeg | m.PutBox | m.EndLeg | m.Walk, book: Codebook) -> Job:
    match edit:
        case m.AddLeg():
            return legs.with_legs(job, edit.run, lambda old: legs.inserted(old, edit.at, [edit.leg]))
        case m.SetLeg():
            leg = legs.leg_of(job, edit.run, edit.leg)
            made = parts.made(Leg, {**leg.model_dump(), **edit.set}, "set")
            return legs.with_legs(job, edit.run, lambda old: (*old[: edit.leg], made, *old[edit.leg + 1 :]))
        case m.DropLeg():
            legs.leg_of(job, edit.run, edit.leg)
            return legs.with_legs(job, edit.run, lambda old: (*old[: edit.leg], *old[edit.leg + 1 :]))
        case m.PutBox():
            legs.leg_of(job, edit.run, edit.leg)
            return legs.end_leg(job, edit.run, edit.leg, edit.name or parts.next_name(job, "J"))
        case m.EndLeg():
            legs.leg_of(job, edit.run, edit.leg)
            return legs.end_leg(job, edit.run, edit.leg, edit.to)
        case m.Walk():
            return legs.walk(job, edit, book)


def _set_job(job: Job, edit: m.SetJob, book: Codebook) -> Job:
    values = dict(edit.set)
    _check_notes(values.get("notes"), load(values.get("rules", job.rules)))
    for key in values:
        if key not in JOB_FIELDS:
            raise EditError(
                f"{key!r} cannot be set here; allowed: {', '.join(JOB_FIELDS)}",
                key=f"set.{key}",
                value=values[key],
                allowed=JOB_FIELDS,
            )
    changed = parts.with_parts(job, **values)
    return parts.rehung(changed, book) if changed.habits.pole != job.habits.pole else changed


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


def _say(job: Job, edit: m.Say, book: Codebook) -> Job:
    """Sentence by sentence, each on the job as the ones before left it."""
    room, level, panel = edit.room, edit.level, edit.panel
    for read in sentences(edit.text):
        scene = Scene(job, book, room, level, panel, edit.verb)
        said = read(scene)
        job = apply(job, EDITS.validate_python(said.edits), book)
        room = said.room or (None if said.level else room)
        level, panel = said.level or level, said.panel or panel
    return job
