"""Boxes that stand in no drawn room: what holds without walls is worked out for them too."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from levelrun.core.boxes.catalogue import BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.holding import HOLLOW, model_in
from levelrun.core.boxes.rules.fill import FILLED, fill_figure
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding
from levelrun.core.job import Box, Job
from levelrun.core.rulebook import judged, keeping
from levelrun.core.site.faces import Face
from levelrun.core.site.parts import Side


@dataclass(frozen=True, eq=False)
class LooseView:
    """One box with what enters it, and no walls but the one in which it may stand."""

    book: Codebook
    boxes: tuple[Box, ...]
    entering: Mapping[str, tuple[Entering, ...]]
    side: Side | None = None
    faces: tuple[Face, ...] = ()

    def model(self, box: Box) -> BoxModel:
        """The catalogue row of a box, as `model_in` finds it."""
        return model_in(self.book, box, self.entering.get(box.id, ()), self.side)


@dataclass(frozen=True, kw_only=True)
class Apart:
    """A box in no drawn room, as a row: what it is, where it is said to stand, the box that is taken for it, empty
    for what has a compartment of its own; its fill where cables are known to enter."""

    id: str
    name: str
    what: str
    where: str
    model: str
    cables: int
    figure: Figure | None


def loose_boxes(
    book: Codebook, job: Job, entering: Mapping[str, tuple[Entering, ...]]
) -> tuple[list[Apart], list[Finding]]:
    """Every box in no room with its fill, as row and finding. Equipment has a compartment of its own."""
    rows: list[Apart] = []
    findings: list[Finding] = []
    for box in job.boxes:
        if box.room is not None:
            continue
        into = entering.get(box.id, ())
        row, said = _apart(book, box, into)
        rows.append(row)
        findings += said
    return rows, findings


@keeping(4096)
def _apart(book: Codebook, box: Box, into: tuple[Entering, ...]) -> tuple[Apart, tuple[Finding, ...]]:
    asked = box.old and not box.model  # what an old box holds is asked, not taken
    hollow = box.kind in HOLLOW and not asked
    figure, said = _filled(book, box, into) if hollow and into else (None, ())
    model = model_in(book, box, into, None).name if hollow else ""
    where = box.where or ("outdoors" if box.outdoors else box.use.replace("_", " "))
    more = (box.serves.replace("_", " "), box.protects)
    what = ", ".join(word for word in ("smoke alarm" if box.kind == "smoke" else box.kind, *more) if word)
    cables = sum(not item.inside for item in into)  # one that two circuits share is one
    row = Apart(
        id=box.id, name=box.name, what=what, where=where, model=model, cables=cables, figure=figure
    )  # fmt: skip
    return row, said


@keeping(1024)
def _filled(book: Codebook, box: Box, entering: tuple[Entering, ...]) -> tuple[Figure | None, tuple[Finding, ...]]:
    view = LooseView(book, (box,), {box.id: entering})
    figure = fill_figure(view, box)
    if figure is not None:  # several stand in one list
        figure = replace(figure, label=f"{box.name} fill, {view.model(box).name}")
    return figure, tuple(judged(book, FILLED, view))


@keeping(4096)
def fill_of(book: Codebook, box: Box, side: Side | None, entering: tuple[Entering, ...]) -> Figure | None:
    """The fill of one box by what enters it, in the wall where it stands; None where nothing of it counts."""
    return fill_figure(LooseView(book, (box,), {box.id: entering}, side), box)
