"""The record of the work as a plan has it: cards, x-rays, holds, photos; worked out when it is asked for. What is
said of it is said at once, since it hangs on nothing but the record itself."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomContext
from levelrun.core.boxes.holding import HOLLOW, model_in, side_of
from levelrun.core.boxes.loose import fill_of
from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.core.circuits.planned import PanelPlan
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding
from levelrun.core.job import Box, Card, Job, Panel
from levelrun.core.kept import Standing
from levelrun.core.measure import shown_in
from levelrun.core.roughin.asked import seen_of
from levelrun.core.roughin.cards import BoxCard, box_card
from levelrun.core.roughin.panel_card import PanelCard, panel_card
from levelrun.core.roughin.rules import RULES, RecordFacts
from levelrun.core.roughin.steps import cards_of
from levelrun.core.roughin.surfaces import level_of, place_name, readings_of, surface_of
from levelrun.core.roughin.waits import HoldRow, SurfaceRow, holds, surfaces
from levelrun.core.roughin.xray import XRay, readings, xray
from levelrun.core.rulebook import judged
from levelrun.core.site.stands_in import buildings_of
from levelrun.core.ways.drawing import DrawnWays
from levelrun.core.ways.pull_list import letters_of

_said = Standing[list[Finding]](4)


def record_findings(job: Job, book: Codebook) -> list[Finding]:
    """What is said of the record. Kept while nothing of it changes."""
    source = (
        book, job.cards, job.built, job.closings, job.photos, job.visits, job.faults, job.holds, job.habits,
        job.structures, job.rooms, job.boxes, job.panels, job.circuits, job.trenches,
    )  # fmt: skip

    def made() -> list[Finding]:
        with shown_in(book.units):
            return judged(book, RULES, RecordFacts(book, job))

    return _said.get(None, source, made)


@dataclass(frozen=True, eq=False, kw_only=True)
class RoughIn:
    """All that is remembered, and what is made up how."""

    job: Job
    book: Codebook
    entering: Mapping[str, tuple[Entering, ...]]
    contexts: Sequence[RoomContext]
    circuits: Sequence[CircuitPlan]
    panels: Sequence[PanelPlan]
    drawn: DrawnWays
    said: Sequence[Finding]

    @property
    def begun(self) -> bool:
        """Whether anything was recorded."""
        job = self.job
        return bool(job.cards or job.built or job.closings or job.photos or job.visits or job.faults)

    @cached_property
    def labels(self) -> dict[str, str]:
        """What each circuit is called in its panel."""
        return {item.summary.id: item.summary.label for item in self.circuits}

    @cached_property
    def letters(self) -> dict[tuple[str, str], str]:
        """What is written on both ends of each cable."""
        return letters_of(self.job, self.labels)

    @cached_property
    def surfaces(self) -> list[SurfaceRow]:
        """Every surface with something in it."""
        return surfaces(self.job)

    @cached_property
    def holds(self) -> list[HoldRow]:
        """Every hold with what it waits for."""
        return holds(self.job, self.stops)

    @cached_property
    def stops(self) -> dict[str, int]:
        """How many stops of the plan there are in each building, what is said of the record itself left out."""
        at = _places(self.job)
        return dict(
            Counter(
                place
                for item in self.said
                if item.severity == "stop" and item.stage not in ("buy", "rough_in", "test")
                if (place := at.get(item.room) or at.get(item.subject))
            )
        )

    @cached_property
    def _cards(self) -> dict[str, Card]:
        return cards_of(self.job)

    def _volume(self, box: Box) -> str:
        figure = fill_of(self.book, box, side_of(self.job, box), self.entering[box.id]) if self._hollow(box) else None
        if figure is not None and box.old and not box.model:
            return f"{figure.text} asked, its size not said"
        return f"{figure.text} of {figure.limit_text} used" if figure is not None else ""

    def _hollow(self, box: Box) -> bool:
        return box.kind in HOLLOW and bool(self.entering.get(box.id))

    def where(self, node: Box | Panel) -> str:
        """Where a box or panel is, with its readings."""
        if node.room is None:
            return node.where
        room = self.job.room(node.room)
        level = level_of(self.job, room)
        surface, at = surface_of(node, level), readings_of(node, room, level)
        place = place_name(self.job, room.id, surface)
        return f"{place}: {readings(*at, surface)}" if at is not None else place

    def card(self, ident: str) -> BoxCard | PanelCard | None:
        """The card of a box or panel; None where it is gone."""
        node = next((item for item in self.job.nodes if item.id == ident), None)
        if node is None:
            return None
        with shown_in(self.book.units):
            return self._panel(node) if isinstance(node, Panel) else self._box(node)

    def _box(self, box: Box) -> BoxCard:
        into = self.entering.get(box.id, ())
        model = model_in(self.book, box, into, side_of(self.job, box))
        return box_card(
            self.book, self.job, box, model, into, self.letters, self._cards.get(box.id), self.where(box),
            self._volume(box),
        )  # fmt: skip

    def _panel(self, panel: Panel) -> PanelCard:
        planned = next(item for item in self.panels if item.id == panel.id)
        grounds = {item.summary.id: item.chain[0].ground for item in self.circuits if item.chain}
        return panel_card(
            self.book, self.job, panel, planned.drawing.sub, grounds, self.labels, self._cards.get(panel.id),
            self.where(panel),
        )  # fmt: skip

    def xray(self, room: str, surface: str) -> XRay | None:
        """The x-ray of a surface; None where its room is gone."""
        context = next((item for item in self.contexts if item.room.id == room), None)
        if context is None or (surface.isdigit() and int(surface) >= len(context.room.corners)):
            return None
        with shown_in(self.book.units):
            return xray(seen_of(self.job, self.book, self.drawn, context, surface), surface)


def _places(job: Job) -> dict[str, str]:
    """The building of each part that a finding may be about."""
    levels = {level.id: item.id for item in job.structures for level in item.levels}
    found = {item.id: item.id for item in job.structures}
    found |= {room.id: levels[room.level] for room in job.rooms}
    nodes = buildings_of(job)
    found |= nodes
    found |= {circuit.id: nodes[circuit.panel] for circuit in job.circuits}
    found |= {way.id: nodes[way.start] for way in job.ways}
    return found
