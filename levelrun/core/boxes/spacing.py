"""Receptacle spacing: wall spaces along the floor line, counter spaces, and what no cord reaches (210.52(A), (C))."""

from __future__ import annotations

import math
from dataclasses import dataclass

from levelrun.core.boxes.covering import out_of_reach
from levelrun.core.boxes.facts import RoomView
from levelrun.core.job import Box
from levelrun.core.site.faces import FLOOR_BREAKS, Face

SPACED = ("common", "kitchen", "dining", "bedroom")
FLOOR_FIXTURES = ("counter", "range", "tub", "shower", "cabinet", "fireplace", "stairs", "sink")
HIGHEST_IN = 66.0
FLOOR_IN, FROM_WALL_IN = 6.0, 18.0
COUNTER_LEAST_IN = 12.0
COUNTER_TOP_IN, OVER_COUNTER_IN = 36.0, 20.0
COUNTERED = ("kitchen", "dining", "common")
CORNER_IN = 26.0  # the depth of a counter: the one round the corner begins where this one ends
COUNTER_PARTS = ("range", "sink")


@dataclass(frozen=True)
class Space:
    """A stretch of wall along the unrolled room, `to_in` past the perimeter where it wraps round the start.

    `missing`: stretches out of reach, in the same measure.
    """

    from_in: float
    to_in: float
    counts: bool
    receptacles: tuple[str, ...]
    missing: tuple[tuple[float, float], ...]

    @property
    def length_in(self) -> float:
        """How long it is."""
        return self.to_in - self.from_in


def wall_spaces(view: RoomView) -> list[Space]:
    """Wall along the floor line between doors and fixed cabinets, round corners; it counts from 2 ft on."""
    breaks = _breaks(view)
    around = view.around_in
    reach, least = view.book.number("receptacle_reach_in"), view.book.number("wall_counts_from_in")
    counted = [(wall_place(view, box) or 0.0, box) for box in view.boxes if serves_wall(view, box)]
    found: list[Space] = []
    for start, end in _between(breaks, around):
        inside = [(_after(start, at, around), box) for at, box in counted if _after(start, at, around) <= end - start]
        missing: list[tuple[float, float]] = []
        if end - start >= least - 1e-6:
            missing = [(start + a, start + b) for a, b in out_of_reach(end - start, reach, [at for at, _ in inside])]
        found.append(Space(start, end, end - start >= least - 1e-6, tuple(b.id for _, b in inside), tuple(missing)))
    return found


def _after(start: float, at: float, around: float) -> float:
    """How far behind `start` a place lies, going clockwise round the room."""
    return (at - start) % around


def serves_wall(view: RoomView, box: Box) -> bool:
    """A receptacle that counts for a wall space: inside, at 66 in or lower, not one for a counter or an appliance,
    nor one that a switch works whole (210.52(2))."""
    return (
        box.kind == "receptacle"
        and wall_place(view, box) is not None
        and not box.outdoors
        and box.serves == ""
        and box.switched != "whole"
        and view.over_floor(box) <= HIGHEST_IN
    )


def wall_place(view: RoomView, box: Box) -> float | None:
    """Where along the unrolled room a box stands: on its wall, or in the floor within 18 in of one (210.52(A)(3));
    None where it counts for no wall."""
    spot = view.spot(box)
    if box.side is not None or spot is None or view.over_floor(box) > FLOOR_IN:
        return view.unrolled(box)
    for face, start in zip(view.faces, view.starts, strict=True):
        at = face.wall.distance(spot)
        if 0 <= at <= face.wall.length_in and math.dist(spot, face.wall.at(at)) <= FROM_WALL_IN + 1e-6:
            return start + at
    return None


def _breaks(view: RoomView) -> list[tuple[float, float]]:
    """What parts wall spaces: doors, fixed cabinets, and a refrigerator that has an outlet of its own."""
    served = any(box.serves == "refrigerator" for box in view.boxes)
    found: list[tuple[float, float]] = []
    for face, start in zip(view.faces, view.starts, strict=True):
        if face.side.stud == "open":
            found.append((start, start + face.wall.length_in))
        found += [(start + low, start + high) for low, high in _passages(face)]
        fixed = [f for f in face.fixtures if f.kind in FLOOR_FIXTURES or (f.kind == "refrigerator" and served)]
        found += [(start + f.at_in, start + f.at_in + f.width_in) for f in fixed]
    return _joined(found)


def _passages(face: Face) -> list[tuple[float, float]]:
    return [item.passage for item in face.openings if item.kind in FLOOR_BREAKS]


def _joined(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    joined: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if joined and low <= joined[-1][1] + 1e-6:
            joined[-1] = (joined[-1][0], max(joined[-1][1], high))
        else:
            joined.append((low, high))
    return joined


def _between(breaks: list[tuple[float, float]], around: float) -> list[tuple[float, float]]:
    """What lies between the breaks going round; the last space runs on past the start."""
    if not breaks:
        return [(0.0, around)]
    found = []
    for index, (_, end) in enumerate(breaks):
        following = breaks[index + 1][0] if index + 1 < len(breaks) else breaks[0][0] + around
        if following - end > 1e-6:
            found.append((end, following))
    return found


@dataclass(frozen=True)
class CounterSpace:
    """A stretch of counter on one wall, from the wall's left corner; broken by a range or a sink."""

    side: int
    from_in: float
    to_in: float
    receptacles: tuple[str, ...]
    missing: tuple[tuple[float, float], ...]


def counter_spaces(view: RoomView) -> list[CounterSpace]:
    """Counter along each wall of a dwelling's kitchen, dining or like room, 12 in or wider, and what of it is out of
    reach of a receptacle at most 20 in over it (210.52(C))."""
    reach = view.book.number("counter_reach_in")
    found: list[CounterSpace] = []
    if view.room.use not in COUNTERED or not view.dwelling:
        return found
    for face in view.faces:
        tops = _joined([(f.at_in, f.at_in + f.width_in) for f in face.fixtures if f.kind == "counter"])
        cuts = _joined([(f.at_in, f.at_in + f.width_in) for f in face.fixtures if f.kind in COUNTER_PARTS])
        for low, high in tops:
            for start, end in _cut_out(low, high, cuts):
                if end - start < COUNTER_LEAST_IN - 1e-6:
                    continue
                over = [b for b in view.boxes if _over(view, b, face.wall.index, start, end)]
                places = [(b.at_in or 0.0) - start for b in over] + _round_corners(view, face, start, end)
                missing = out_of_reach(end - start, reach, places)
                found.append(
                    CounterSpace(
                        face.wall.index,
                        start,
                        end,
                        tuple(b.id for b in over),
                        tuple((start + a, start + b) for a, b in missing),
                    )
                )
    return found


def _round_corners(view: RoomView, face: Face, start: float, end: float) -> list[float]:
    """Receptacles over a counter that goes on round a corner, as places along this one: the wall line is measured
    round the corner (210.52(C))."""
    count, here, found = len(view.faces), face.wall.index, []
    after, before = view.faces[(here + 1) % count], view.faces[(here - 1) % count]
    if end >= face.wall.length_in - CORNER_IN and (low := _counter_from(after, 0.0)) is not None:
        on = [b for b in view.boxes if _over(view, b, after.wall.index, low, after.wall.length_in)]
        found += [face.wall.length_in - start + (b.at_in or 0.0) for b in on]
    if start <= CORNER_IN and _counter_from(before, before.wall.length_in) is not None:
        on = [b for b in view.boxes if _over(view, b, before.wall.index, 0.0, before.wall.length_in)]
        found += [(b.at_in or 0.0) - before.wall.length_in - start for b in on]
    return found


def _counter_from(face: Face, corner: float) -> float | None:
    """Where a counter of a wall begins that reaches into its corner at `corner`; None where none does."""
    tops = [(f.at_in, f.at_in + f.width_in) for f in face.fixtures if f.kind == "counter"]
    return next((low for low, high in tops if min(abs(low - corner), abs(high - corner)) <= CORNER_IN), None)


def _over(view: RoomView, box: Box, side: int, start: float, end: float) -> bool:
    return (
        box.kind == "receptacle"
        and box.side == side
        and box.at_in is not None
        and start - 1e-6 <= box.at_in <= end + 1e-6
        and 36 <= view.over_floor(box) <= COUNTER_TOP_IN + OVER_COUNTER_IN
    )


def _cut_out(low: float, high: float, cuts: list[tuple[float, float]]) -> list[tuple[float, float]]:
    found, at = [], low
    for start, end in cuts:
        if end <= low or start >= high:
            continue
        if start > at:
            found.append((at, start))
        at = max(at, end)
    if at < high:
        found.append((at, high))
    return found
