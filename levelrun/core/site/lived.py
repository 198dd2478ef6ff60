"""Which buildings are lived in, and what is asked of a building before its boxes are laid out."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from dataclasses import replace
from functools import lru_cache

from levelrun.core.findings import Finding
from levelrun.core.job import Job, Structure
from levelrun.core.kept import Standing

COOKING = ("range",)
WASHING = ("tub", "shower", "toilet")
# What is missing from a building: of one that is not laid out yet it is asked, of one that is not ours nothing is.
WANTED = frozenset({
    "wall-no-receptacle", "counter-no-receptacle", "bath-no-receptacle", "room-no-receptacle", "room-no-light",
    "room-no-switch", "three-way", "smoke-missing", "outdoor-receptacles", "circuits-wanted", "entrance-no-light",
    "fan-box", "box-loose", "all-dark", "dwelling-unsaid", "service-small", "island-no-receptacle",
    "island-provision", "foyer-asked",
})  # fmt: skip


_lived = Standing[dict[str, bool | None]](1)


def dwellings(job: Job) -> dict[str, bool | None]:
    """Of each structure, by id, whether it is lived in: as said; else a house is; a cabin, or any other building, is
    where people sleep, cook and wash. None: a cabin of which this is not known, or another building that has all.
    Asked of one job by rooms, boxes, panels and feeders: found once."""
    return _lived.get(None, (job.structures, job.rooms, job.fixtures), lambda: _dwellings(job))


def _dwellings(job: Job) -> dict[str, bool | None]:
    levels = {level.id: item.id for item in job.structures for level in item.levels}
    uses: dict[str, set[str]] = {}
    at: dict[str, str] = {}
    for room in job.rooms:
        at[room.id] = levels[room.level]
        uses.setdefault(at[room.id], set()).add(room.use)
    for fixture in job.fixtures:
        if fixture.kind in (*COOKING, *WASHING):
            uses[at[fixture.room]].add("kitchen" if fixture.kind in COOKING else "bath")
    return {item.id: lived_in(item, frozenset(uses.get(item.id, ()))) for item in job.structures}


@lru_cache(maxsize=512)
def lived_in(structure: Structure, uses: Collection[str]) -> bool | None:
    """Whether one structure is lived in, by what its rooms are for."""
    if structure.dwelling is not None:
        return structure.dwelling
    if structure.kind in ("house", "yard"):
        return structure.kind == "house"
    whole = {"bedroom", "kitchen", "bath"} <= set(uses)
    if structure.kind == "cabin":
        return True if whole else None
    return None if whole else False


def as_laid_out(
    found: Iterable[Finding], structure: Structure, lived: bool | None, laid_out: bool
) -> Iterator[Finding]:
    """Findings as they are told of a building: what is missing is a question until its boxes are laid out, or while
    nobody has said that it is lived in; of a building that is not this job's it is not told."""
    for item in found:
        if item.code not in WANTED:
            yield item
        elif structure.existing:
            continue
        elif item.severity == "stop" and not (laid_out or structure.laid_out):
            yield replace(item, severity="check", text=f"{item.text} Not laid out yet?")
        elif item.severity == "stop" and lived is None:
            yield replace(item, severity="check", text=f"{item.text} Is it lived in?")
        else:
            yield item
