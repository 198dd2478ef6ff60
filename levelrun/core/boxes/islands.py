"""Islands and peninsulas: what stands within their outline, and the outlets that they want (210.52(C)(2))."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.spacing import COUNTERED
from levelrun.core.job import Box, Fixture
from levelrun.core.site.faces import Face

OVER_IN, UNDER_IN, EDGE_IN = 20.0, 12.0, 1.0
PROVIDES = ("receptacle", "junction", "tail")


@dataclass(frozen=True)
class Island:
    """An island or a peninsula with what serves it. `wanted`: receptacles that the rule set asks; where it asks none,
    `provided` says whether anything is there or left for one."""

    face: Face
    fixture: Fixture
    outlets: int
    wanted: int
    provided: bool

    @property
    def name(self) -> str:
        """What it is called."""
        return "island" if self.fixture.off_in else "peninsula"

    @property
    def area_ft2(self) -> float:
        """Its top."""
        return self.fixture.width_in * self.fixture.depth_in / 144

    @property
    def lacking(self) -> int:
        """Receptacles to add: what is asked, else one where nothing is provided."""
        return max(self.wanted - self.outlets, 0) if self.wanted else int(not self.provided)

    def spot(self, share: float) -> tuple[float, float]:
        """A place along the middle of its top, from 0 to 1, in the structure's plan."""
        item = self.fixture
        x, y = self.face.wall.at(item.at_in + share * item.width_in, -item.off_in - item.depth_in / 2)
        return round(x * 16) / 16, round(y * 16) / 16


def islands(view: RoomView) -> Iterator[Island]:
    """The islands of a room where food is made in a dwelling. 2020: an outlet for the first 9 ft² of each and for
    each 18 beyond, or a part of them. 2023: an outlet, or provision for one."""
    if not view.dwelling or view.room.use not in COUNTERED:
        return
    first, each = view.book.number("island_first_ft2"), view.book.number("island_each_ft2")
    for face, item in ((f, item) for f in view.faces for item in f.fixtures if item.kind == "island"):
        within = [box for box in view.boxes if _within(view, face, item, box)]
        outlets = sum(box.kind == "receptacle" and _reached(view, item, box) for box in within)
        area = item.width_in * item.depth_in / 144
        wanted = 1 + math.ceil(max(area - first, 0) / each - 1e-9) if first else 0
        yield Island(face, item, outlets, wanted, any(box.kind in PROVIDES for box in within))


def _within(view: RoomView, face: Face, island: Fixture, box: Box) -> bool:
    """Whether a box stands within the outline of an island."""
    spot = view.spot(box)
    if box.side is not None or spot is None:
        return False
    along = face.wall.distance(spot)
    away = face.wall.into(spot)
    inside = island.at_in - EDGE_IN <= along <= island.at_in + island.width_in + EDGE_IN
    return inside and island.off_in - EDGE_IN <= away <= island.off_in + island.depth_in + EDGE_IN


def _reached(view: RoomView, island: Fixture, box: Box) -> bool:
    return -UNDER_IN - 1e-6 <= view.over_floor(box) - island.height_in <= OVER_IN + 1e-6
