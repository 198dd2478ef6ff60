"""Boxes that stand in no drawn room: what holds without walls is worked out for them too."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from levelrun.core.boxes.catalogue import BoxModel
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.holding import HOLLOW, clear_in, held_model
from levelrun.core.boxes.rules.fill import fill_figure, fill_rule
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
        """The catalogue row of a box, as `held_model` finds it."""
        return held_model(self.book, box, self.entering.get(box.id, ()), clear_in(box, self.side))


def loose_boxes(
    book: Codebook, job: Job, entering: Mapping[str, tuple[Entering, ...]]
) -> tuple[list[Figure], list[Finding]]:
    """Box fill of every box in no room, as figure and finding. Equipment has a compartment of its own."""
    figures: list[Figure] = []
    findings: list[Finding] = []
    for box in job.boxes:
        asked = box.old and not box.model  # what an old box holds is asked, not taken
        if box.room is None and box.kind in HOLLOW and entering.get(box.id) and not asked:
            figure, said = _filled(book, box, entering[box.id])
            figures += [figure] if figure else []
            findings += said
    return figures, findings


@keeping(1024)
def _filled(book: Codebook, box: Box, entering: tuple[Entering, ...]) -> tuple[Figure | None, tuple[Finding, ...]]:
    view = LooseView(book, (box,), {box.id: entering})
    figure = fill_figure(view, box)
    if figure is not None:  # several stand in one list
        figure = replace(figure, label=f"{box.name} fill, {view.model(box).name}")
    return figure, tuple(judged(book, (fill_rule,), view))


@keeping(4096)
def fill_of(book: Codebook, box: Box, side: Side | None, entering: tuple[Entering, ...]) -> Figure | None:
    """The fill of one box by what enters it, in the wall where it stands; None where nothing of it counts."""
    return fill_figure(LooseView(book, (box,), {box.id: entering}, side), box)
