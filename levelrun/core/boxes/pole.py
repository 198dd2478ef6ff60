"""The story pole: at what height a box hangs, by what it is and what stands below it."""

from __future__ import annotations

from collections.abc import Iterable

from levelrun.core.boxes.catalogue import model_of
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Fixture, Level, Pole, PoleMark, Room

WORK_ROOMS = ("garage", "shop")
TOPS = ("counter", "basin", "sink")
BEHIND = ("dishwasher", "disposer", "range")  # under a counter, or low behind what stands there: common practice


def pole_use(box: Box, room: Room, fixtures: Iterable[Fixture]) -> str | None:
    """The mark of the story pole that a box hangs by, or None for what hangs by no mark (ceilings, equipment)."""
    if box.side is None or box.at_in is None:
        return None
    if box.kind == "switch":
        return "switch"
    if box.kind == "light":
        return "wall_light"
    if box.kind != "receptacle":
        return None
    if box.outdoors:
        return "outdoor"
    if box.serves in BEHIND:
        return "receptacle"
    under = [f.kind for f in fixtures if f.side == box.side and f.at_in <= box.at_in <= f.at_in + f.width_in]
    near = [f for f in fixtures if f.kind == "basin" and f.side == box.side and _near(f, box.at_in)]
    if room.use == "bath" and (near or any(kind in TOPS for kind in under)):
        return "vanity"
    if any(kind in TOPS for kind in under) or box.serves == "counter":
        return "counter"
    return "garage" if room.use in WORK_ROOMS else "receptacle"


def _near(fixture: Fixture, at: float) -> bool:
    return fixture.at_in - 36 <= at <= fixture.at_in + fixture.width_in + 36


def centre_of(mark: PoleMark, tall_in: float) -> float:
    """Height of the middle of a box over the floor."""
    return mark.at_in + {"bottom": tall_in / 2, "centre": 0.0, "top": -tall_in / 2}[mark.mark]


def hung(book: Codebook, pole: Pole, box: Box, room: Room, level: Level, fixtures: Iterable[Fixture]) -> float | None:
    """Height of a box's middle over the structure's main floor by the pole; None where no mark applies."""
    use = pole_use(box, room, fixtures)
    if use is None:
        return None
    return level.floor_in + centre_of(getattr(pole, use), model_of(book, box).tall_in)
