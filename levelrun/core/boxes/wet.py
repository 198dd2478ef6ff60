"""The zone of a tub or shower, in which no receptacle stands (406.9(C)), and the wall that may have one all the same
where a bath is too small to keep out of it.

The exception of 406.9(C) from memory: where a bathroom is smaller than the zone asks, the receptacle may stand
opposite the rim or threshold, on the farthest wall of the room.
"""

from __future__ import annotations

from functools import lru_cache

from levelrun.core.boxes.facts import RoomView
from levelrun.core.site.faces import Face

ZONE_IN = 36.0
STEP_IN = 3.0  # how closely walls are looked at


def from_water(view: RoomView, spot: tuple[float, float]) -> float:
    """How far a spot of the room is from the nearest tub or shower, on the floor, inches; infinite without one."""
    x, y = spot
    least = float("inf")
    for other in view.faces:
        for item in other.fixtures:
            if item.kind in ("tub", "shower"):
                along = min(max(other.wall.distance((x, y)), item.at_in), item.at_in + item.width_in)
                away = other.wall.into(spot)
                px, py = other.wall.at(along, -min(max(away, 0.0), item.depth_in))
                least = min(least, ((px - x) ** 2 + (py - y) ** 2) ** 0.5)
    return least


def near_water(view: RoomView, spot: tuple[float, float], within: float = ZONE_IN) -> bool:
    """Whether a spot of the room is nearer than `within` inches to a tub or shower (406.9(C): 3 ft on the floor)."""
    return from_water(view, spot) < within - 1e-6


def may_stand(view: RoomView, face: Face, at: float) -> bool:
    """Whether a receptacle may stand at a place of a wall: out of the zone, or on the farthest wall of a bath that
    has no place out of it."""
    return not near_water(view, face.wall.at(at)) or face.wall.index == far_wall(view)


@lru_cache(maxsize=256)
def far_wall(view: RoomView) -> int | None:
    """The wall farthest from the tub or shower, by its middle, where no wall has a place out of the zone; None where
    one has. Kept for the view at hand."""
    if view.room.use != "bath":
        return None
    farthest: list[tuple[float, int]] = []
    for face in view.faces:
        long = face.wall.length_in
        for step in range(int(long // STEP_IN) + 1):
            at = step * STEP_IN
            shut = any(item.at_in <= at <= item.to_in and item.sill_in < ZONE_IN for item in face.openings)
            if not shut and not near_water(view, face.wall.at(at)):
                return None
        farthest.append((from_water(view, face.wall.at(long / 2)), face.wall.index))
    return max(farthest)[1] if farthest else None
