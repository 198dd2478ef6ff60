"""Where boxes go that are said by what they are beside: a door, a basin; or spread evenly, or as the code asks."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any

from levelrun.core.boxes.catalogue import usual_model
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.parts import OVERHEAD
from levelrun.core.boxes.placing import fill, on_studs, switch_spot, tape, ways_in
from levelrun.core.boxes.things import SERVES
from levelrun.core.boxes.wet import may_stand
from levelrun.core.boxes.working_space import WIDE_IN, in_the_way
from levelrun.core.job import Box, Fixture, Room
from levelrun.core.measure import show
from levelrun.core.site.faces import Face, Seen
from levelrun.core.site.geometry import Wall, is_inside
from levelrun.core.site.marking import NAMED
from levelrun.core.site.scene import SceneReader
from levelrun.core.site.words import DOORS, OPENINGS

Spot = dict[str, Any]
CABINET_IN, PANEL_HEIGHTS = 10.0, (42.0, 84.0)  # half a panel and a box beside it; over the floor, where one hangs
OUTSIDE_DOORS = ("entry door", "front door", "back door", "outside door", "exterior door", "walk door", "man door")
INSIDE_DOORS = ("interior door",)
_AT_DOOR = re.compile(
    rf"(?P<how>by|at|beside|next to|near|inside|outside(?:\s+of)?)\s+"
    rf"(?:(?P<all>both|each|every|all)\s+)?(?:the\s+|a\s+)?"
    rf"(?:(?P<wall>north|south|east|west)\s+(?:and\s+(?:the\s+)?(?P<more>north|south|east|west)\s+)?)?"
    rf"(?P<kind>{DOORS})s?\b(?:\s+to\s+(?:the\s+)?(?=\w))?",
    re.IGNORECASE,
)
_AT_THING = re.compile(
    r"(?P<how>by|at|beside|next to|near|above|over|behind|under"
    r"|(?:to\s+|on\s+)?(?:the\s+)?(?P<hand>left|right)(?:\s+side)?\s+of)\s+(?:the\s+|a\s+)?"
    rf"(?P<kind>{'|'.join(sorted((*NAMED, 'mirror', 'medicine cabinet'), key=len, reverse=True))})\b",
    re.IGNORECASE,
)
_BY_APPLIANCE = re.compile(
    r"(?:by|beside|next to|near|(?:to\s+)?(?:the\s+)?(?P<hand>left|right)\s+of)\s+(?:the\s+)?"
    rf"(?P<serves>{'|'.join(sorted((word for word in SERVES if word != 'counter'), key=len, reverse=True))})\b",
    re.IGNORECASE,
)
MIRRORED = {"mirror": "basin", "medicine cabinet": "basin"}  # over a basin hangs a mirror
ABREAST_IN = 30.0  # from a machine to the one beside it: common practice, no source
_OVER_ISLAND = re.compile(r"(?:over|above)\s+(?:the\s+)?(?:island|peninsula)\b", re.IGNORECASE)
_AT_ISLAND = re.compile(r"(?:on|in|at|by|over|above)\s+(?:the\s+)?(?:island|peninsula)\b", re.IGNORECASE)
_FROM_DOOR = re.compile(rf"(?:in|back|away)?\s*from\s+(?:the\s+)?(?P<kind>{DOORS})\b", re.IGNORECASE)
LOW_SILL_IN = 24.0  # an opening that begins lower leaves no wall for an outlet
APART_IN = 16.0  # two things on one wall whose places nobody said: common practice, no source
ASIDE = ("basin", "sink")  # what is over them is a mirror or a window: a receptacle stands beside


def at_door(reader: SceneReader, about: Room, item: dict[str, Any], told: list[str]) -> list[Spot]:
    """By the door, by the south door, at both doors: on the latch side, on a stud. Empty where no door is named.
    Of several a switch goes by the one that leads not on to a bath or a closet, which is told. Refuses where several
    could be meant."""
    reader.skip()
    found = _AT_DOOR.match(reader.text, reader.pos)
    if found is None:
        return []
    start, reader.pos = reader.pos, found.end()
    if found["how"].lower().startswith("outside"):
        item["outdoors"] = True
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    word = found["kind"].lower()
    kind = None if word == "door" else OPENINGS[word]
    doors = [(face, door) for face, door in view.doors if kind in (None, door.kind)]
    if kind is None:  # a garage door is called so, unless there is but one other and both are meant
        walked = [pair for pair in doors if pair[1].kind != "garage_door"]
        doors = doors if found["all"] and len(walked) < 2 else walked or doors
    if word in OUTSIDE_DOORS or word in INSIDE_DOORS:
        porches = {room.id for room in reader.scene.job.rooms if room.use == "porch"}
        doors = [pair for pair in doors if (pair[1].to_room in ("", *porches)) == (word in OUTSIDE_DOORS)]
    if found["wall"]:
        walls = {found["wall"].lower(), (found["more"] or "").lower()}
        doors = [pair for pair in doors if pair[0].wall.name.split()[0] in walls]
    if found[0].rstrip().lower().endswith(" to"):
        beyond = {view.beside(door): (face, door) for face, door in doors}
        doors = [beyond[reader.need(beyond, "where that door leads to")]]
    if (found["all"] or "").lower() == "both" and len(doors) > 2:  # of more the two that one comes in by
        ways = [pair for pair in ways_in(view) if pair in doors and pair[1].kind != "opening"]
        doors = ways if len(ways) == 2 else doors
    if not doors:
        raise reader.refuse(f"{about.name} has no such door", start, [door_text(view, *pair) for pair in view.doors])
    every = found["all"] or found["more"]
    if len(doors) > 1 and not every and item["kind"] == "switch":
        ways = [pair for pair in ways_in(view) if pair in doors]
        if len(ways) == 1:
            doors = ways
            told.append(f"by the {door_text(view, *doors[0])}; say which where it is another")
    if len(doors) > 1 and not every:
        named = [door_text(view, *pair) for pair in doors]
        raise reader.refuse(
            f"{about.name} has {len(doors)} such doors: say which, as by the {named[0]}", start, named
        )
    spots = []
    for face, door in doors:
        at = switch_spot(view, face, door)
        if at is not None and item["kind"] == "switch":
            at = _apart(view, face, door, at)
        if at is None:
            raise reader.refuse(f"there is no room beside the {door_text(view, face, door)}", start)
        spots.append({"side": face.wall.index, "at_in": tape(at)})
    if len(spots) > 1 and item["kind"] == "switch":
        for number, spot in enumerate(spots):
            spot["ways"] = 3 if number in (0, len(spots) - 1) else 4
    return spots


def _apart(view: RoomView, face: Face, door: Seen, at: float) -> float | None:
    """The place of a switch by a door; where a box stands there already the nearest free one on a stud."""
    wide = usual_model(view.book, "switch", 1).wide_in
    taken = [
        (box.at_in, view.model(box).wide_in)
        for box in view.boxes
        if box.side == face.wall.index and box.kind == "switch"
    ]

    def free(spot: float) -> bool:
        return all(other is None or abs(spot - other) >= (wide + own) / 2 for other, own in taken)

    spots = [spot for spot in _studs_beside(view, face, door.at_in, door.to_in, wide) if free(spot)]
    return at if free(at) else min(spots, key=lambda spot: abs(spot - at), default=None)


def door_text(view: RoomView, face: Face, door: Seen) -> str:
    """A door by its wall, its kind and where it leads."""
    return f"{face.wall.name} {door.kind.replace('_', ' ')} to {view.beside(door)}"


def at_panel(reader: SceneReader, about: Room, item: dict[str, Any]) -> list[Spot]:
    """By the panel: on the nearest stud beside it. Empty where no panel is named. Refuses one of another room."""
    start = reader.pos
    if reader.phrase(("by", "beside", "next to", "near")) is None:
        return []
    own = {panel.name: panel for panel in reader.scene.job.panels if panel.room == about.id}
    known = {"panel": next(iter(own.values()))} if len(own) == 1 else {}
    word = reader.phrase({**known, **own, **{f"panel {name}": panel for name, panel in own.items()}})
    if word is None:
        reader.pos = start
        return []
    panel = known.get(word) or own[word.removeprefix("panel ")]
    if panel.side is None or panel.at_in is None:
        raise reader.refuse(f"{panel.name} stands on no wall of {about.name}", start)
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    wide = usual_model(view.book, item["kind"], item.get("gangs", 1)).wide_in
    off = (panel.width_in + wide) / 2
    spots = _studs_beside(view, view.faces[panel.side], panel.at_in - off, panel.at_in + off, wide)
    return [_nearest(reader, view.faces[panel.side], spots, panel.name, start)]


def _studs_beside(view: RoomView, face: Face, low: float, high: float, wide: float) -> list[float]:
    """Middles of boxes on studs outside of two places of a wall, the nearest to either first."""
    spots = (at for at, _ in on_studs(view, face, 0.0, face.wall.length_in, wide) if not low < at < high)
    return sorted(spots, key=lambda at: min(abs(at - low), abs(at - high)))


def _nearest(reader: SceneReader, face: Face, spots: list[float], what: str, start: int) -> Spot:
    if not spots:
        raise reader.refuse(f"there is no stud beside {what}; say how far along the wall", start)
    return {"side": face.wall.index, "at_in": tape(spots[0])}


def at_thing(reader: SceneReader, about: Room, item: dict[str, Any], count: int | None) -> list[Spot]:
    """By the basin, above the counters, behind the refrigerator: what is marked along a wall; several over counters
    as many as they want; over it under the ceiling what hangs there, but over a basin on the wall. Empty where none
    is named. Refuses what is marked nowhere, or twice."""
    reader.skip()
    found = _AT_THING.match(reader.text, reader.pos)
    if found is None:
        return _by_appliance(reader, about)
    start, reader.pos = reader.pos, found.end()
    if count == -1 and found["kind"].lower().startswith("counter"):
        return asked_for(reader, about, "receptacle", "counter")
    kind = MIRRORED.get(found["kind"].lower()) or NAMED[found["kind"].lower()]
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    if not any(thing.kind == kind.replace(" ", "_") for face in view.faces for thing in face.fixtures):
        reader.pos = start
        if beside_it := _by_appliance(reader, about):
            return beside_it
        reader.pos = found.end()
    face, thing = _marked(reader, view, kind, "say the wall and how far along", start)
    if item["kind"] == "receptacle" and kind in SERVES and kind != "counter":
        item.setdefault("serves", SERVES[kind])
    low, high = thing.at_in, thing.at_in + thing.width_in
    beside = found["how"].lower() not in ("above", "over", "behind", "under")
    if item["kind"] == "receptacle" and (beside or kind in ASIDE):
        wide = usual_model(view.book, "receptacle", item.get("gangs", 1)).wide_in
        spots = _studs_beside(view, face, low, high, wide)
        dry = [at for at in spots if may_stand(view, face, at)]
        hand = (found["hand"] or "").lower()
        if hand:
            dry = [at for at in dry if (at > high if hand == "right" else at < low)] or dry
        return [_nearest(reader, face, dry, f"the {kind}", start)]
    if item["kind"] in OVERHEAD and kind != "basin" and not beside:
        lamps = max(count or 1, 1)
        shares = [(number + 0.5) / lamps for number in range(lamps)]
        places = [face.wall.at(low + share * (high - low), -thing.off_in - thing.depth_in / 2) for share in shares]
        return [{"x_in": tape(x), "y_in": tape(y)} for x, y in places]
    at = (low + high) / 2
    if item["kind"] == "receptacle" and kind != "range":  # on the nearest stud behind it; a range has its own zone
        studs = on_studs(view, face, low, high, usual_model(view.book, "receptacle", item.get("gangs", 1)).wide_in)
        at = min((place for place, _ in studs), key=lambda place: abs(place - at), default=at)
    return [{"side": face.wall.index, "at_in": at}]


def _by_appliance(reader: SceneReader, about: Room) -> list[Spot]:
    """Next to the washer: beside the only box that serves it, a machine's width on. Empty where none is named."""
    reader.skip()
    found = _BY_APPLIANCE.match(reader.text, reader.pos)
    if found is None:
        return []
    serves = SERVES[found["serves"].lower()]
    own = [box for box in reader.scene.job.boxes if box.room == about.id and box.serves == serves]
    if len(own) != 1 or own[0].side is None or own[0].at_in is None:
        return []
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    long, at = view.faces[own[0].side].wall.length_in, own[0].at_in
    hand = (found["hand"] or "").lower() or ("right" if at + ABREAST_IN < long else "left")
    at += ABREAST_IN * (1 if hand == "right" else -1)
    if not 0 < at < long:
        raise reader.refuse(f"no machine's width is free {hand} of the {found['serves'].lower()}: say a wall")
    reader.pos = found.end()
    return [{"side": own[0].side, "at_in": at}]


def _marked(reader: SceneReader, view: RoomView, kind: str, else_: str, start: int) -> tuple[Face, Fixture]:
    """The one thing of a kind that is marked in a room, with its wall. Refuses none and several: `else_` says what to
    do."""
    there = [(face, thing) for face in view.faces for thing in face.fixtures if thing.kind == kind.replace(" ", "_")]
    if len(there) != 1:
        said = f"{len(there)} of them are" if there else "none is"
        raise reader.refuse(f"{kind}: {said} marked in {view.room.name}; {else_}", start)
    return there[0]


def over_island(reader: SceneReader, about: Room, item: dict[str, Any], count: int) -> list[Spot]:
    """Over the island: so many lights in a row along the middle of its top; outlets on it, which serve a counter.
    Empty where none is named. Refuses one that is marked nowhere, or twice."""
    reader.skip()
    outlet = item["kind"] == "receptacle"
    found = (_AT_ISLAND if outlet else _OVER_ISLAND).match(reader.text, reader.pos)
    if found is None:
        return []
    start, reader.pos = reader.pos, found.end()
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    (face, island), spots = _marked(reader, view, "island", "mark it first", start), list[Spot]()
    if outlet:
        item.setdefault("serves", "counter")
    for share in ((number + 0.5) / count for number in range(count)):
        long = island.width_in >= island.depth_in
        along, deep = (share, 0.5) if long else (0.5, share)
        x, y = face.wall.at(island.at_in + along * island.width_in, -island.off_in - deep * island.depth_in)
        spots.append({"x_in": tape(x), "y_in": tape(y)})
    return spots


def lacking(reader: SceneReader, about: Room, kind: str, serves: str = "") -> list[Spot]:
    """The places of what a room still lacks of a kind: the fewest receptacles, a switch at the latch side; `serves`:
    only of what serves that. Empty where it lacks none."""
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    placed = [item.item("", "") for item in fill(view) if item.kind == kind and serves in ("", item.serves)]
    return [
        {key: value for key, value in place.items() if key not in ("kind", "room", "structure")} for place in placed
    ]


def asked_for(reader: SceneReader, about: Room, kind: str, serves: str = "") -> list[Spot]:
    """The places of what a room still lacks of a kind, as `lacking` finds them. Refuses where it lacks none."""
    spots = lacking(reader, about, kind, serves)
    if not spots:
        what = f"{serves} {kind}".strip()
        if kind == "switch" and not room_view(reader.scene.job, reader.scene.book, about.id).doors:
            raise reader.refuse(
                f"{about.name} has no door, by which a switch goes: say a door, as `door south 2'`, or a wall for it "
                "and how far along"
            )
        raise reader.refuse(f"{about.name} lacks no {what} by the rules of its use: say a wall and how far along")
    return spots


def free_spot(view: RoomView, kind: str, gangs: int, more: Sequence[Spot] = ()) -> Spot | None:
    """On the longest wall that has a place: on a stud near its middle, apart from what stands there already. Of
    several each on another wall for as long as there is one; `more`: where those before it stand."""
    wide = usual_model(view.book, kind, gangs).wide_in
    taken = [(box.side, box.at_in or 0.0) for box in view.boxes] + [(spot["side"], spot["at_in"]) for spot in more]
    had = [spot["side"] for spot in more]
    for face in sorted(view.faces, key=lambda face: (had.count(face.wall.index), -face.wall.length_in)):
        middle, index = face.wall.length_in / 2, face.wall.index
        spots = [
            (abs(at - middle) + 20 * cost, at)
            for at, cost in on_studs(view, face, 0.0, face.wall.length_in, wide)
            if all(side != index or abs(at - other) > APART_IN for side, other in taken) and may_stand(view, face, at)
        ]
        if spots:
            return {"side": index, "at_in": tape(min(spots)[1])}
    return None


def near_middle(view: RoomView, wall: Wall, kind: str, gangs: int) -> Spot | None:
    """One thing on a wall of which nobody said where: in its middle, else on the nearest stud where no opening is and
    nothing stands. None where the wall has no such place."""
    face, middle = view.faces[wall.index], wall.length_in / 2
    wide = usual_model(view.book, kind, gangs).wide_in
    taken = [box.at_in for box in view.boxes if box.side == wall.index and box.at_in is not None]
    hung = [(p.at_in - p.width_in / 2, p.at_in + p.width_in / 2) for p in view.context.panels
            if p.side == wall.index and p.at_in is not None]  # fmt: skip
    hung += [(item.at_in, item.to_in) for item in face.openings if item.sill_in < LOW_SILL_IN]

    def free(at: float) -> bool:
        return all(abs(at - other) >= wide for other in taken) and all(
            not low - wide / 2 < at < high + wide / 2 for low, high in hung
        )

    if free(middle):
        return {"side": wall.index, "at_in": middle}
    spots = [at for at, _ in on_studs(view, face, 0.0, wall.length_in, wide) if free(at)]
    best = min(spots, key=lambda at: abs(at - middle), default=None)
    return None if best is None else {"side": wall.index, "at_in": tape(best)}


def _as_high(view: RoomView, box: Box) -> bool:
    """Whether a box hangs where a panel would: what is lower stands under it."""
    low, high = PANEL_HEIGHTS
    return low < view.over_floor(box) < high


def panel_spot(view: RoomView, walls: Sequence[Wall]) -> tuple[Wall, float] | None:
    """Where a panel stands of which nobody said it: on the first of these walls that has a place, as near its middle
    as doors, windows and things along it leave 30 in free (110.26(A)(2)). None where none has one."""
    for wall in walls:
        face, half = view.faces[wall.index], WIDE_IN / 2
        taken = [(item.at_in, item.to_in) for item in face.openings]
        taken += [(item.at_in, item.at_in + item.width_in) for item in face.fixtures]
        taken += [
            (item.at_in, item.at_in)
            for item in view.context.panels
            if item.side == wall.index and item.at_in is not None
        ]
        hung = [
            box.at_in
            for box in view.boxes
            if box.side == wall.index and box.at_in is not None and _as_high(view, box)
        ]
        middle = wall.length_in / 2
        last = int(middle - half)
        for off in (sign * inches for inches in range(max(last, 0) + 1) for sign in (1, -1)):
            at = middle + off
            clear = all(high <= at - half or at + half <= low for low, high in taken)
            clear = clear and in_the_way(view, face, at - half, at + half) is None
            if clear and at >= half and all(abs(at - other) > CABINET_IN for other in hung):
                return wall, at
    return None


def away_from_door(reader: SceneReader, about: Room) -> list[Spot]:
    """So far in from a door, in line with its middle: 11' from the overhead door. Empty where no such place is said.
    Refuses a door that the room has not, or two."""
    start = reader.pos
    inches = reader.length() if reader.sees_length() else 0.0
    reader.skip()
    if not inches or (found := _FROM_DOOR.match(reader.text, reader.pos)) is None:
        reader.pos = start
        return []
    reader.pos = found.end()
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    word = found["kind"].lower()
    doors = [(face, door) for face, door in view.doors if word == "door" or door.kind == OPENINGS[word]]
    if word == "door" and any(door.kind == "garage_door" for _, door in doors):
        doors = [pair for pair in doors if pair[1].kind == "garage_door"]
    if len(doors) != 1:
        named = [door_text(view, *pair) for pair in doors]
        raise reader.refuse(f"{about.name} has {len(doors) or 'no'} such door{'s' * (len(doors) > 1)}", start, named)
    face, door = doors[0]
    x, y = face.wall.at((door.at_in + door.to_in) / 2, -inches)
    if not is_inside(about.corners, (x, y)):
        raise reader.refuse(f"{show(inches)} in from that door is out of {about.name}", start)
    return [{"x_in": round(x, 2), "y_in": round(y, 2)}]
