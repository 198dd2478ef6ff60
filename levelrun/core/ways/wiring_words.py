"""The sentence that wires what is on no circuit yet, as it would be proposed."""

from __future__ import annotations

from collections.abc import Mapping

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.circuits.proposer import Proposal, proposing
from levelrun.core.site.naming import spaces_text
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.ways.ordering import distances

ALL = ("everything", "all", "the rest", "the house", "all boxes", "every box", "circuits")
TO_CODE = tuple(f"{verb}circuits {how}" for verb in ("", "make ", "all ") for how in ("to code", "as needed"))


def wired(reader: SceneReader) -> Said | None:
    """Wire everything; wire Kitchen; propose circuits: the circuits that would be proposed, all taken at once."""
    whole = reader.phrase(TO_CODE)
    verb = whole or reader.phrase(("wire up", "wire", "propose"))
    if verb is None:
        return None
    rooms, job, book = reader.scene.rooms(), reader.scene.job, reader.scene.book
    about = None
    if whole is None and reader.phrase(ALL) is None and not (verb == "propose" and reader.over()):
        word = reader.phrase(rooms)
        if word is None:
            return None
        about = rooms[word]
    if not reader.over():
        return None
    if not job.panels:
        raise reader.refuse("there is no panel yet: set one with `panel` and a wall", reader.pos)
    if about is not None:
        job = job.model_copy(update={"boxes": tuple(box for box in job.boxes if box.room == about.id)})
    found = [item for _, item in proposing(job, book, room_contexts(job, {}), distances(job, book))]
    if not found:
        raise reader.refuse("every box is on a circuit already", reader.pos)
    panels = {panel.id: panel.name for panel in job.panels}
    listed = ", ".join(f"{item.name} {_where(item, panels)}" for item in found)
    told = [f"{len(found)} circuit{'s' * (len(found) > 1)}: {listed}"]
    return Said([edit for item in found for edit in item.edits], panel=found[0].panel, told=told)


def _where(item: Proposal, panels: Mapping[str, str]) -> str:
    if item.space is None:
        return "on no space"
    return f"on {spaces_text(item.space, item.poles, item.half)} of {panels[item.panel]}"
