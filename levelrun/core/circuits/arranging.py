"""In which order the boxes of one circuit are wired, and what hangs on what."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from levelrun.core.boxes.facts import RoomContext
from levelrun.core.boxes.parts import is_worked
from levelrun.core.circuits.distance import Stand, square, stands
from levelrun.core.circuits.routing import shortest_order
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Job, Panel

Far = Callable[[str, str], float | None]
Distance = Callable[[str | None, str], float]
FAR_IN = 600.0


def arranged(
    job: Job, book: Codebook, rooms: Sequence[RoomContext], panel: Panel, boxes: Sequence[Box]
) -> list[tuple[str, str | None]]:
    """Boxes for one circuit, each with that before it: outlets one after another from the panel, then the lights by
    room, fed from the last of them through their switches."""
    known = far_of(stands(job, book, rooms), None)

    def distance(a: str | None, b: str) -> float:
        found = known(a or panel.id, b)
        return FAR_IN if found is None else found

    lit = [box for box in boxes if box.kind in ("switch", "smoke") or is_worked(box)]
    plugs = [box for box in boxes if box not in lit]
    found: list[tuple[str, str | None]] = []
    for own, lights in ((plugs, False), (lit, True)):
        if own:
            last = found[-1][0] if found else None
            found += [(box, after or last) for box, after in in_order(own, lights, distance)]
    return found


def far_of(where: Mapping[str, Stand], far: Far | None) -> Far:
    """Inches between two: through the frame, else square across."""

    def found(a: str, b: str) -> float | None:
        known = far(a, b) if far is not None else None
        if known is None and a in where and b in where:
            return square(where[a], where[b])
        return known

    return found


def in_order(boxes: Sequence[Box], lights: bool, distance: Distance) -> list[tuple[str, str | None]]:
    """Boxes of one circuit, each with that before it: receptacles one after another; lights by room: power to the
    switch, from it to its lights, on to the next."""
    if not lights:
        order = shortest_order([box.id for box in boxes], distance)
        return list(zip(order, (None, *order[:-1]), strict=True))
    rooms: dict[str, list[Box]] = {}
    for box in boxes:
        rooms.setdefault(box.room or "", []).append(box)
    heads = {room: _head(own) for room, own in rooms.items()}
    by_head = {head.id: room for room, head in heads.items()}
    order = shortest_order(list(by_head), distance)
    # A switch behind a light would be one for that light: rooms without a switch come last, behind the last that has.
    order.sort(key=lambda head: heads[by_head[head]].kind != "switch")
    found: list[tuple[str, str | None]] = []
    before: str | None = None
    for head in order:
        room = by_head[head]
        found.append((head, before))
        own = _from_head(rooms[room], heads[room], distance)
        found += own
        if heads[room].kind == "switch" or before is None:
            unswitched = [box.id for box in rooms[room] if not is_worked(box) and box.id in dict(own)]
            before = next((box for box, _ in reversed(own) if box in unswitched), head)
    return found


def _head(boxes: Sequence[Box]) -> Box:
    """Where power enters a room of lights: its first switch, else its first light."""
    return min(boxes, key=lambda box: (box.kind != "switch", -box.ways if box.kind == "switch" else 0))


def _from_head(boxes: Sequence[Box], head: Box, distance: Distance) -> list[tuple[str, str | None]]:
    """The rest of a room: three-ways in a row from the head, lights one after another from the last of them, as they
    hang nearest; what is always live, alarms and other switches, in a row from the head: no box is crowded. Where
    several switches stand, each has lights of its own."""
    ways = [box for box in boxes if box.kind == "switch" and box.ways > 2 and box.id != head.id]
    ways.sort(key=lambda box: -box.ways)
    found: list[tuple[str, str | None]] = []
    last = head.id
    if head.kind == "switch" and head.ways > 2:
        for box in ways:
            found.append((box.id, last))
            last = box.id
    lamps = [box for box in boxes if is_worked(box) and box.id != head.id]
    plain = [box for box in (head, *boxes) if box.kind == "switch" and box.ways == 2]
    slots = [box.id for box in dict.fromkeys(plain) for _ in range(box.gangs)] if head in plain else [last]
    for last, group in zip(slots, _shared_out(lamps, len(slots)), strict=False):
        left = [box.id for box in group]
        while left:
            nearest = min(left, key=lambda box: distance(last, box))
            found.append((nearest, last))
            left.remove(nearest)
            last = nearest
    done, live = {head.id, *(box for box, _ in found)}, head.id
    for box in sorted(boxes, key=lambda box: box.kind == "switch"):
        if box.id not in done:
            found.append((box.id, live))
            live = box.id
    return found


def _shared_out(lamps: Sequence[Box], count: int) -> list[list[Box]]:
    """Lights for so many switches: those of the room, its fans, those outdoors; the most of one kind are parted where
    there are more switches, the last kinds hang together where there are fewer."""
    kinds = [
        [box for box in lamps if not box.outdoors and box.kind != "fan"],
        [box for box in lamps if not box.outdoors and box.kind == "fan"],
        [box for box in lamps if box.outdoors],
    ]
    found = [own for own in kinds if own]
    while len(found) > count:
        found = [*found[:-2], [*found[-2], *found[-1]]]
    while len(found) < min(count, len(lamps)):
        most = max(range(len(found)), key=lambda at: len(found[at]))
        half = (len(found[most]) + 1) // 2
        found[most : most + 1] = [found[most][:half], found[most][half:]]
    return found
