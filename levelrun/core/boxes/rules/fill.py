"""Box fill from what enters: conductors, clamps, devices, grounds (314.16(B))."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Mapping
from functools import lru_cache
from typing import Protocol

from levelrun.core.boxes.catalogue import BoxModel, metal_model, next_volume
from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.holding import HOLLOW, clear_in, needed_volume
from levelrun.core.boxes.mends import set_box
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Figure, Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule
from levelrun.core.site.faces import Face


class Filling(Hashable, Protocol):
    """Boxes with what enters them: those of a room, or one that stands in none."""

    @property
    def book(self) -> Codebook: ...
    @property
    def boxes(self) -> tuple[Box, ...]: ...
    @property
    def entering(self) -> Mapping[str, tuple[Entering, ...]]: ...
    @property
    def faces(self) -> tuple[Face, ...]: ...
    def model(self, box: Box) -> BoxModel: ...


@lru_cache(maxsize=2048)
def fill_figure(view: Filling, box: Box) -> Figure | None:
    """Box fill with its reason, for the vial. Kept for the view at hand."""
    model = view.model(box)
    needed = needed_volume(view.book, box, view.entering.get(box.id, ()), clamps=model.clamps)
    if needed is None:
        return None
    over = needed.needed_in3 - model.volume_in3
    return Figure(
        key=f"fill-{box.id}",
        label=f"Box fill, {model.name}",
        value=needed.needed_in3,
        text=f"{needed.needed_in3:g} in³",
        unit="in³",
        formula="wires + clamps + two a device strap + grounds, each at its allowance",
        inputs={part.name: f"{part.count:g} × {part.each_in3:g} = {part.in3:g} in³" for part in needed.parts},
        rule=needed.rule,
        basis=view.book.table("314-16-allowance").head.basis,
        limit=model.volume_in3,
        limit_text=f"{model.volume_in3:g} in³",
        beyond_text=f"{over:g} over" if over > 1e-9 else "",
    )


def fill_rule(view: Filling) -> Iterator[Finding]:
    """The box holds what enters it."""
    for box in view.boxes:
        figure = fill_figure(view, box)
        if figure is None or figure.limit is None or figure.value <= figure.limit + 1e-9:
            continue
        side = view.faces[box.side].side if box.side is not None else None
        bigger = next_volume(view.book, box, view.model(box), figure.value, clear_in(box, side))
        mends = (
            [
                Mend(
                    f"{bigger.name}",
                    [set_box(box, model=bigger.key, gangs=max(box.gangs, _gangs(box, bigger.gangs)))],
                )
            ]
            if bigger
            else []
        )
        come = sum(not item.inside for item in view.entering[box.id])
        yield finding(
            "box-full",
            box.id,
            None,
            f"{box.name} is too full by {figure.value - figure.limit:g} in³",
            f"{come} cables ask {figure.value:g} in³; {view.model(box).name} holds {figure.limit:g}.",
            "314.16(B)",
            about="box",
            room=box.room or "",
            measured=f"{figure.value:g} in³",
            limit=f"{figure.limit:g} in³",
            mends=mends,
        )


def metal_rule(view: Filling) -> Iterator[Finding]:
    """Metal pipe and armour are bonded through a box of metal; plastic takes them only where it bonds them inside
    (314.3)."""
    for box in view.boxes:
        model = view.model(box)
        come = [item for item in view.entering.get(box.id, ()) if item.metal]
        if not come or model.metal or box.old or box.kind not in HOLLOW:
            continue
        other = metal_model(view.book, box, model)
        yield finding(
            "box-plastic", box.id, None, f"{box.name} is of plastic, and metal comes into it",
            f"{come[0].what or 'Pipe of metal'} is bonded through a metal box. {model.name} holds it only where it "
            "is made to bond it inside.", "314.3",
            about="box", room=box.room or "", measured="plastic", limit="metal",
            mends=[Mend(other.name, [set_box(box, model=other.key)])] if other.metal else [],
        )  # fmt: skip


def _gangs(box: Box, gangs: int) -> int:
    """A two-gang box under a one-gang device keeps one device: a blank or plaster ring covers the rest."""
    return box.gangs if gangs > box.gangs else gangs


FILLED: tuple[Rule[Filling], ...] = (fill_rule, metal_rule)
RULES: tuple[Rule[RoomView], ...] = FILLED
