"""Box fill from what enters: conductors, clamps, devices, grounds (314.16(B))."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Mapping
from functools import lru_cache
from typing import Protocol

from levelrun.core.boxes.catalogue import BoxModel, next_volume
from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.mends import set_box
from levelrun.core.boxes.volume import BoxVolume, Counted, box_volume
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.findings import Figure, Finding, Mend
from levelrun.core.job import Box
from levelrun.core.rulebook import Rule
from levelrun.core.site.faces import Face
from levelrun.core.site.framing import depth_of

STRAPPED = ("receptacle", "switch", "device")
BIGGEST = "6"


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


def needed_volume(view: Filling, box: Box) -> BoxVolume | None:
    """Cubic inches that what enters asks, line by line; None where nothing is known to enter, or wire over No. 6
    (which goes by 314.28)."""
    entering = view.entering.get(box.id, ())
    order = wire_sizes(view.book)
    if not entering or box.kind == "tail" or any(order.index(item.size) > order.index(BIGGEST) for item in entering):
        return None
    sizes = sorted({item.size for item in entering}, key=order.index)
    wires = [Counted(size, sum(item.count for item in entering if item.size == size)) for size in sizes]
    grounds = [item.ground for item in entering if item.ground]
    devices = [Counted(sizes[-1], box.gangs)] if box.kind in STRAPPED else []
    clamps = view.model(box).clamps and any(item.cable for item in entering)
    ground = Counted(max(grounds, key=order.index), len(grounds)) if grounds else None
    return box_volume(view.book, wires, devices, ground, clamps)


@lru_cache(maxsize=2048)
def fill_figure(view: Filling, box: Box) -> Figure | None:
    """Box fill with its reason, for the vial. Kept for the view at hand."""
    needed = needed_volume(view, box)
    if needed is None:
        return None
    model = view.model(box)
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
        clear = 99.0 if side is None else depth_of(side) if box.clear_in is None else box.clear_in
        bigger = next_volume(view.book, box, figure.value, clear + box.set_out_in)
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
        yield finding(
            "box-full",
            box.id,
            None,
            f"{box.name} is too full by {figure.value - figure.limit:g} in³",
            f"{len(view.entering[box.id])} cables ask {figure.value:g} in³; {view.model(box).name} holds "
            f"{figure.limit:g}.",
            "314.16(B)",
            about="box",
            room=box.room or "",
            measured=f"{figure.value:g} in³",
            limit=f"{figure.limit:g} in³",
            mends=mends,
        )


def _gangs(box: Box, gangs: int) -> int:
    """A two-gang box under a one-gang device keeps one device: a blank or plaster ring covers the rest."""
    return box.gangs if gangs > box.gangs else gangs


RULES: tuple[Rule[RoomView], ...] = (fill_rule,)
