"""What enters a box asks for cubic inches (314.16(B)), and the box that is taken where nobody said which."""

from __future__ import annotations

from functools import lru_cache

from levelrun.core.boxes.catalogue import BoxModel, grown, metal_model, model_of
from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.volume import BoxVolume, Counted, box_volume
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.errors import UnknownKeyError
from levelrun.core.job import Box, Job
from levelrun.core.site.framing import depth_of
from levelrun.core.site.parts import Side

STRAPPED = ("receptacle", "switch", "device")
HOLLOW = (*STRAPPED, "junction", "light", "fan", "smoke")
BIGGEST = "6"
DEEP_IN = 99.0  # behind a box that stands in no drawn wall


def needed_volume(book: Codebook, box: Box, entering: tuple[Entering, ...], *, clamps: bool) -> BoxVolume | None:
    """Cubic inches that what enters asks, line by line; None where nothing is known to enter, or wire over No. 6
    (which goes by 314.28). clamps: the box has some inside."""
    order = wire_sizes(book)
    if not entering or box.kind == "tail" or any(order.index(item.size) > order.index(BIGGEST) for item in entering):
        return None
    sizes = sorted({item.size for item in entering}, key=order.index)
    wires = [Counted(size, sum(item.count for item in entering if item.size == size)) for size in sizes]
    grounds = [item.ground for item in entering if item.ground]
    devices = [Counted(sizes[-1], box.gangs)] if box.kind in STRAPPED else []
    ground = Counted(max(grounds, key=order.index), len(grounds)) if grounds else None
    return box_volume(book, wires, devices, ground, clamps and any(item.cable for item in entering))


def side_of(job: Job, box: Box) -> Side | None:
    """The wall of a drawn room in which a box stands; None where it stands in none."""
    return None if box.room is None or box.side is None else job.room(box.room).sides[box.side]


def clear_in(box: Box, side: Side | None) -> float:
    """How deep a box may be where it stands: what is clear in its wall, and how far it stands out of it."""
    clear = DEEP_IN if side is None else depth_of(side) if box.clear_in is None else box.clear_in
    return clear + box.set_out_in


@lru_cache(maxsize=8192)
def held_model(book: Codebook, box: Box, entering: tuple[Entering, ...], most_depth_in: float) -> BoxModel:
    """The catalogue row of a box: the one that is said; else the usual one, or the smallest of its gangs that holds
    what enters and fits the wall, of its form if one does; of metal where metal enters (314.3). The usual one where
    none does, or where an unknown one is said (a finding tells)."""
    try:
        now = model_of(book, box)
    except UnknownKeyError:
        return model_of(book, box.model_copy(update={"model": ""}))
    if box.model or box.old or box.kind not in HOLLOW:
        return now
    if any(item.metal for item in entering) or (box.outdoors and box.surface):
        now = metal_model(book, box, now)

    def holds(model: BoxModel) -> bool:
        needed = needed_volume(book, box, entering, clamps=model.clamps)
        return needed is None or needed.needed_in3 <= model.volume_in3 + 1e-9

    if holds(now):
        return now
    return next((model for model in grown(book, box, now, most_depth_in) if holds(model)), now)


def model_in(book: Codebook, box: Box, entering: tuple[Entering, ...], side: Side | None) -> BoxModel:
    """The catalogue row of a box in its wall, as `held_model` finds it; side: None where it stands in none."""
    return held_model(book, box, entering, clear_in(box, side))
