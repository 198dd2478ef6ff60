"""The space before a panel in which nothing stands (110.26(A)), and what of a room does."""

from __future__ import annotations

from levelrun.core.boxes.facts import RoomView
from levelrun.core.job import Fixture
from levelrun.core.site.faces import Face

WIDE_IN, DEEP_IN, TALL_IN = 30.0, 36.0, 78.0  # 110.26(A)(1) to (3), condition 1


def in_the_way(view: RoomView, face: Face, low: float, high: float) -> tuple[Fixture, float] | None:
    """The first thing of the room that stands in the space before its wall from one place to another, inches, with
    how far it stands off that wall; None where nothing does."""
    for other in view.faces:
        for item in other.fixtures:
            corners = [
                other.wall.at(at, -deep)
                for at in (item.at_in, item.at_in + item.width_in)
                for deep in (item.off_in, item.off_in + item.depth_in)
            ]
            along, deep = [face.wall.distance(c) for c in corners], [face.wall.into(c) for c in corners]
            if max(along) > low + 0.1 and min(along) < high - 0.1 and min(deep) < DEEP_IN - 0.1:
                return item, min(deep)
    return None
