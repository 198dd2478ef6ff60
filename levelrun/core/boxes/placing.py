"""Where new boxes go: the fewest receptacles on sensible studs, switches at the latch side, a light in the middle."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from levelrun.core.boxes.alarm_spots import alarm_spot
from levelrun.core.boxes.catalogue import usual_model
from levelrun.core.boxes.covering import Spot, fewest
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.islands import Island, islands
from levelrun.core.boxes.parts import LAMPS
from levelrun.core.boxes.spacing import SPACED, CounterSpace, Space, counter_spaces, wall_place, wall_spaces
from levelrun.core.boxes.wet import may_stand
from levelrun.core.job import Box, Fixture
from levelrun.core.site.faces import Face, Seen
from levelrun.core.site.framing import STUD_IN, STUDDED

TRIM_IN = 4.5
STEP_IN = 4.0
SWITCH_IN = 4.5
LIT = ("common", "kitchen", "dining", "bedroom", "bath", "hall", "stairs", "laundry", "utility", "garage", "shop",
       "storage", "basement", "porch")  # fmt: skip
ONE_RECEPTACLE = ("laundry", "garage", "basement", "porch")
PANEL_IN = 4.0  # beside a panel, for cables that come down into it: common practice, no source
PLUGGED_LAMPS = ("common", "dining", "bedroom")
WITHIN = ("bath", "closet")  # rooms that one comes to from another
HALL_IN = 120.0
BAY_HIGHEST_IN = 66.0
IN_THE_WAY = ("furniture", "refrigerator", "water_heater", "heater")


@dataclass(frozen=True, kw_only=True)
class Placement:
    """A new box: where, and why there. On a wall `side` and `at_in`, else `x_in` and `y_in`; `height_in` over the
    main floor, where it hangs by no pole."""

    kind: str
    why: str
    side: int | None = None
    at_in: float | None = None
    x_in: float | None = None
    y_in: float | None = None
    serves: str = ""
    blocking: bool = False
    ways: int = 2
    gangs: int = 1
    height_in: float | None = None

    def item(self, room: str, structure: str) -> dict[str, Any]:
        """The box as the item of an `add` edit; id, name and height come when it is added."""
        placed: dict[str, Any] = {"kind": self.kind, "room": room, "structure": structure}
        for key in ("side", "at_in", "x_in", "y_in", "height_in"):
            if (value := getattr(self, key)) is not None:
                placed[key] = value
        if self.serves:
            placed["serves"] = self.serves
        if self.blocking:
            placed["blocking"] = True
        if self.ways != 2:
            placed["ways"] = self.ways
        return placed


def on_studs(view: RoomView, face: Face, low: float, high: float, wide: float) -> Iterator[tuple[float, float]]:
    """Middles of boxes nailed to a stud between two places of a wall, each with a cost: less is better.

    A box beside a door's trimmer would sit under its trim; behind a door's swing or furniture it is hard to reach.
    Walls without studs (log, block) take any place.
    """
    half = wide / 2
    if face.side.stud not in STUDDED:
        at = low + half
        while at <= high - half + 1e-9:
            yield at, _cost(view, face, at)
            at += STEP_IN
        return
    yield from (spot for spot in _by_studs(view, face, wide) if low + half - 1e-6 <= spot[0] <= high - half + 1e-6)


@lru_cache(maxsize=1024)
def _by_studs(view: RoomView, face: Face, wide: float) -> list[tuple[float, float]]:
    """All the places beside the studs of a wall. Kept for the view at hand: every space and switch asks."""
    half, found = wide / 2, []
    middles = [stud.at_in for stud in face.full_studs]
    openings = _low(face)
    for stud in face.full_studs:
        for at in (stud.left_in - half, stud.right_in + half):
            if not -1e-6 <= at - half <= face.wall.length_in - wide + 1e-6:
                continue
            if _meets(middles, at, half + STUD_IN / 2 - 1e-6):
                continue
            if not any(o.at_in - TRIM_IN < at + half and at - half < o.to_in + TRIM_IN for o in openings):
                found.append((at, _cost(view, face, at)))
    return found


def _meets(middles: list[float], at: float, within: float) -> bool:
    """Whether one of the studs, their middles from left to right, stands nearer than `within`."""
    index = bisect_right(middles, at - within)
    return index < len(middles) and middles[index] < at + within


def _low(face: Face) -> list[Seen]:
    return [o for o in face.openings if o.sill_in < 24]


def _cost(view: RoomView, face: Face, at: float) -> float:
    cost = 0.0
    for item in face.fixtures:
        if item.kind in IN_THE_WAY and item.at_in <= at <= item.at_in + item.width_in:
            cost += 3
    for panel in view.context.panels:
        if panel.side == face.wall.index and panel.at_in is not None:
            cost += 3 * (abs(at - panel.at_in) < panel.width_in / 2 + PANEL_IN)
    for door in face.openings:
        if door.kind == "door" and door.swings_in:
            left = door.hinge == "left"
            low = door.at_in - door.width_in if left else door.to_in
            cost += 2 * (low <= at <= low + door.width_in)
    return cost + 0.2 * (min(at, face.wall.length_in - at) < 8)


def for_wall_space(view: RoomView, space: Space) -> list[Placement]:
    """The fewest new receptacles that leave nothing of a wall space out of reach; empty where none would."""
    reach = view.book.number("receptacle_reach_in")
    wide = usual_model(view.book, "receptacle", 1).wide_in
    spots: list[Spot] = []
    for face, start in zip(view.faces, view.starts, strict=True):
        for turn in (0.0, view.around_in):
            low, high = space.from_in - start - turn, space.to_in - start - turn
            if high <= 0 or low >= face.wall.length_in:
                continue
            found = on_studs(view, face, max(low, 0.0), min(high, face.wall.length_in), wide)
            spots += [Spot(start + turn + at - space.from_in, cost) for at, cost in found]
    standing = {box.id: wall_place(view, box) or 0.0 for box in view.boxes}
    for box in space.receptacles:
        spots.append(Spot((standing[box] - space.from_in) % view.around_in, 0.0, True))
    chosen = fewest(space.length_in, reach, spots) or []
    placed = []
    for spot in chosen:
        if not spot.fixed:
            face, at = view.on_wall(space.from_in + spot.at_in)
            placed.append(
                Placement(
                    kind="receptacle",
                    why="no point of this wall over 6 ft from one",
                    side=face.wall.index,
                    at_in=tape(at),
                )
            )
    return placed


def for_counter(view: RoomView, space: CounterSpace) -> list[Placement]:
    """The fewest new receptacles over a counter: on studs where studs will do, else on blocking."""
    reach = view.book.number("counter_reach_in")
    face = view.faces[space.side]
    wide = usual_model(view.book, "receptacle", 1).wide_in
    fixed = [Spot((box.at_in or 0.0) - space.from_in, 0.0, True) for box in view.boxes if box.id in space.receptacles]
    studs = [
        Spot(at - space.from_in, cost)
        for at, cost in on_studs(view, face, space.from_in, space.to_in, wide)
        if not _in_window(face, at)
    ]
    length = space.to_in - space.from_in
    blocked = [Spot(at, 5.0) for at in _steps(wide / 2, length - wide / 2)]
    blocked = [spot for spot in blocked if not _in_window(face, spot.at_in + space.from_in)]
    chosen = fewest(length, reach, [*fixed, *studs])
    with_blocks = fewest(length, reach, [*fixed, *studs, *blocked])
    if chosen is None or (with_blocks is not None and len(with_blocks) < len(chosen)):
        chosen = with_blocks
    on = {spot.at_in for spot in studs}
    return [
        Placement(
            kind="receptacle",
            why="no point of this counter over 24 in from one",
            side=space.side,
            at_in=tape(space.from_in + spot.at_in),
            serves="counter",
            blocking=spot.at_in not in on,
        )
        for spot in chosen or []
        if not spot.fixed
    ]


def _steps(low: float, high: float) -> Iterable[float]:
    at = low
    while at <= high + 1e-9:
        yield at
        at += 2.0


def _in_window(face: Face, at: float) -> bool:
    return any(o.at_in - 3 < at < o.to_in + 3 and o.sill_in < 46 < o.head_in for o in face.openings)


def tape(inches: float) -> float:
    """To the sixteenth, as it is read on a tape."""
    return round(inches * 16) / 16


def basins_lacking(view: RoomView) -> list[tuple[Face, Fixture]]:
    """Basins with no receptacle within reach on their wall."""
    reach = view.book.number("basin_reach_in")
    return [
        (face, item)
        for face in view.faces
        for item in face.fixtures
        if item.kind == "basin" and not _basin_served(view, face, item.at_in, item.at_in + item.width_in, reach)
    ]


def for_basin(view: RoomView, face: Face, item: Fixture) -> list[Placement]:
    """A receptacle on the stud nearest to a basin, out of the tub and shower zone; empty where there is no such."""
    reach = view.book.number("basin_reach_in")
    wide = usual_model(view.book, "receptacle", 1).wide_in
    low, high = item.at_in - reach + 2, item.at_in + item.width_in + reach - 2
    dry = [
        (at, cost)
        for at, cost in on_studs(view, face, max(low, 0), min(high, face.wall.length_in), wide)
        if may_stand(view, face, at)
    ]
    edges = (item.at_in - 2, item.at_in + item.width_in + 2)
    best = min(dry, key=lambda spot: min(abs(spot[0] - edge) for edge in edges) + spot[1], default=None)
    if best is None:
        return []
    return [Placement(kind="receptacle", why="within 36 in of the basin", side=face.wall.index, at_in=tape(best[0]))]


def _basin_served(view: RoomView, face: Face, low: float, high: float, reach: float) -> bool:
    """A receptacle on this wall or one adjacent, within reach of the basin's edge (210.52(D))."""
    for box in view.boxes:
        spot = view.spot(box)
        if box.kind != "receptacle" or box.side is None or spot is None or box.outdoors:
            continue
        along = min(max(face.wall.distance(spot), low), high)
        x, y = face.wall.at(along)
        if (x - spot[0]) ** 2 + (y - spot[1]) ** 2 <= reach**2 + 1e-6:
            return True
    return False


def switches(view: RoomView) -> list[Placement]:
    """A switch at the latch side of each door that has none near; three-way where two ways lead through."""
    if view.room.use not in LIT or view.room.use == "porch":
        return []
    doors = ways_in(view)
    through = len(doors) > 1 and view.room.use in ("common", "kitchen", "dining", "hall", "stairs", "garage", "shop")
    serving = doors if through else doors[:1]
    placed: list[Placement] = []
    ends = sum(box.kind == "switch" and box.ways == 3 for box in view.boxes)
    for face, door in serving:
        if any(near_door(box.side, box.at_in, face, door) for box in view.boxes if box.kind == "switch"):
            continue
        spot = switch_spot(view, face, door)
        if spot is not None:
            why = f"at the latch side of the {face.wall.name} door, to {view.beside(door)}"
            ways = 2 if not through else 3 if ends < 2 else 4
            ends += ways == 3
            placed.append(Placement(kind="switch", why=why, side=face.wall.index, at_in=tape(spot), ways=ways))
    return placed


def ways_in(view: RoomView) -> list[tuple[Face, Seen]]:
    """Doors by which one comes into a room: not those on to a bath or a closet, unless it has no other."""
    doors = [(f, o) for f, o in view.doors if o.kind != "garage_door"]
    return [(f, o) for f, o in doors if view.uses.get(o.to_room) not in WITHIN] or doors


def near_door(side: int | None, at: float | None, face: Face, door: Seen) -> bool:
    """Whether a place on a wall is at a door: within 2 ft of either jamb."""
    return side == face.wall.index and at is not None and door.at_in - 24 <= at <= door.to_in + 24


def switch_spot(view: RoomView, face: Face, door: Seen) -> float | None:
    """Where along its wall a switch stands beside a door: on a stud, at the latch side where it can. None where no
    stud is near."""
    wide = usual_model(view.book, "switch", 1).wide_in
    options = [
        (0 if (door.latch == "right") == (at > door.to_in) else 1, abs(at - _jamb(door, at)), at)
        for at, _ in on_studs(view, face, 0.0, face.wall.length_in, wide)
        if near_door(face.wall.index, at, face, door) and not _in_window(face, at)
    ]
    return min(options)[2] if options else None


def _jamb(door: Seen, at: float) -> float:
    return door.to_in if at > door.to_in else door.at_in


def ceiling(view: RoomView) -> list[Placement]:
    """A light in the middle of a lit room that has none, and a smoke alarm in a bedroom or hall that has none."""
    placed: list[Placement] = []
    x, y = middle(view)
    if view.room.use in LIT and not any(lights(view, box) for box in view.boxes):
        placed.append(Placement(kind="light", why="in the middle of the ceiling", x_in=x, y_in=y))
    dwelling = view.dwelling
    if dwelling and view.room.use in ("bedroom", "hall") and not any(box.kind == "smoke" for box in view.boxes):
        x, y = alarm_spot(view)
        placed.append(Placement(kind="smoke", why="one in every bedroom and outside it", x_in=tape(x), y_in=tape(y)))
    return placed


def lights(view: RoomView, box: Box) -> bool:
    """Whether a box is a lighting outlet of its room: a lamp, a fan; in a habitable room of a dwelling that is no
    kitchen also an outlet that a switch works (210.70(A)(1) exception 1)."""
    plugged = view.dwelling and view.room.use in PLUGGED_LAMPS
    return box.kind in LAMPS or (plugged and box.kind == "receptacle" and box.switched != "")


def middle(view: RoomView) -> tuple[float, float]:
    """The middle of the room's outline."""
    xs = [x for x, _ in view.room.corners]
    ys = [y for _, y in view.room.corners]
    return tape((min(xs) + max(xs)) / 2), tape((min(ys) + max(ys)) / 2)


def for_island(view: RoomView, island: Island) -> list[Placement]:
    """The receptacles that an island still wants, side by side in its top."""
    count, top = island.lacking, view.context.level.floor_in + island.fixture.height_in
    spots = [island.spot((number + 0.5) / count) for number in range(count)]
    why = f"in the top of the {island.name}"
    return [Placement(kind="receptacle", why=why, x_in=x, y_in=y, height_in=top, serves="counter") for x, y in spots]


def counts_for_bay(view: RoomView, box: Box) -> bool:
    """A receptacle that is there for anybody: not one for an opener or a charger, in a garage 5½ ft up at most."""
    if box.kind != "receptacle" or (box.outdoors and view.room.use != "porch"):
        return False
    return view.room.use != "garage" or (box.serves == "" and view.over_floor(box) <= BAY_HIGHEST_IN)


def at_least_one(view: RoomView) -> list[Placement]:
    """One receptacle where a room of its use wants one at all (210.52(F), (G), (H)): on the longest free wall."""
    use = view.room.use
    hall = use == "hall" and max(face.wall.length_in for face in view.faces) >= HALL_IN
    wanted = max(view.room.bays, 1) if use == "garage" else 1 if use in ONE_RECEPTACLE or hall else 0
    have = sum(counts_for_bay(view, box) for box in view.boxes)
    wide = usual_model(view.book, "receptacle", 1).wide_in
    placed: list[Placement] = []
    longest = sorted(view.faces, key=lambda face: -face.wall.length_in)
    for face in longest[: max(wanted - have, 0)]:
        spots = [
            (abs(at - face.wall.length_in / 2) + 20 * cost, at)
            for at, cost in on_studs(view, face, 0, face.wall.length_in, wide)
        ]
        if spots:
            placed.append(
                Placement(
                    kind="receptacle", why=f"a {use} wants one", side=face.wall.index, at_in=tape(min(spots)[1])
                )
            )
    return placed


def fill(view: RoomView) -> list[Placement]:
    """Everything that a room still lacks: receptacles, switches, a light, an alarm."""
    placed: list[Placement] = []
    if view.room.use in SPACED:
        for space in wall_spaces(view):
            if space.missing:
                placed += for_wall_space(view, space)
    for counter in counter_spaces(view):
        if counter.missing:
            placed += for_counter(view, counter)
    for island in islands(view):
        placed += for_island(view, island)
    if view.room.use == "bath":
        for face, basin in basins_lacking(view):
            placed += for_basin(view, face, basin)
    placed += at_least_one(view)
    return [*placed, *switches(view), *ceiling(view)]
