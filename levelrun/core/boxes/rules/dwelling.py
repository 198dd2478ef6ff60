"""Rules about a whole dwelling: receptacles outdoors at front and back, an alarm on every level."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from levelrun.core.boxes.alarm_spots import alarm_spot
from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.placing import Placement, on_studs, tape
from levelrun.core.findings import Finding, Mend
from levelrun.core.rulebook import Rule
from levelrun.core.site.faces import Face, Seen

GRADE_REACH_IN = 78.0
LAST_FOR_ALARMS = {"kitchen": 2, "laundry": 1, "utility": 1, "garage": 3, "porch": 4}
OPPOSITE = {"north": "south", "south": "north", "east": "west", "west": "east"}
BESIDE_IN, HALF_IN = 12.0, 3.0
NOT_OUTSIDE = ("bedroom", "closet", "bath")


def outdoor_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """A dwelling has an outdoor receptacle at front and at back, on two sides at least (210.52(E))."""
    lived = [view for view in views if view.context.level.kind == "floor" and view.room.use != "porch"]
    if not lived or not lived[0].dwelling:
        return
    ways = {
        view.faces[box.side].wall.name.partition(" ")[0]
        for view in views
        for box in view.boxes
        if box.outdoors and box.kind == "receptacle" and box.side is not None
        if box.height_in - view.context.structure.grade_in <= GRADE_REACH_IN
    }
    porches = [v for v in views if v.room.use == "porch" and any(b.kind == "receptacle" for b in v.boxes)]
    if len(porches) >= 2 or (porches and ways) or any(OPPOSITE.get(way) in ways for way in ways):
        return
    structure = lived[0].context.structure
    spot = _spot(lived, ways)
    mends = []
    if spot is not None:
        view, face, at = spot
        placed = Placement(
            kind="receptacle", why="outdoors, front and back", side=face.wall.index, at_in=round(at * 16) / 16
        )
        item = {**placed.item(view.room.id, structure.id), "outdoors": True, "cover": "in_use"}
        mends.append(Mend(f"Add one on the {face.wall.name} face", [{"op": "add", "kind": "box", "item": item}]))
    yield finding(
        "outdoor-receptacles",
        structure.id,
        None,
        f"{structure.name}: {1 if ways or porches else 0} of 2 receptacles outdoors, front and back",
        "One at the front, one at the back, reachable from the ground, 6 ft 6 in up at most.",
        "210.52(E)(1)",
        about="structure",
        room=lived[0].room.id,
        measured=", ".join(sorted(ways)) or "none",
        limit="front and back",
        mends=mends,
    )


def _spot(views: Sequence[RoomView], ways: set[str]) -> tuple[RoomView, Face, float] | None:
    """A stud on the longest outside wall that faces a way not served yet."""
    faces = [
        (face.wall.length_in, index, view, face)
        for index, view in enumerate(views)
        for face in view.faces
        if face.outside and (OPPOSITE.get(face.wall.name.partition(" ")[0]) in ways or not ways)
    ]
    for _, _, view, face in sorted(faces, key=lambda item: (-item[0], item[1], item[3].wall.index)):
        spots = sorted(
            on_studs(view, face, 0, face.wall.length_in, 2.25), key=lambda s: abs(s[0] - face.wall.length_in / 2)
        )
        if spots:
            return view, face, spots[0][0]
    return None


def alarm_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """A dwelling with bedrooms has an alarm on every level that is lived on (IRC R314.3)."""
    if not views or not views[0].dwelling:
        return
    if not any(view.room.use == "bedroom" for view in views):
        return
    levels = {
        view.context.level.id: view for view in views if view.context.level.kind in ("floor", "loft", "basement")
    }
    for level_id, view in levels.items():
        here = [item for item in views if item.context.level.id == level_id]
        sleeping = any(item.room.use in ("bedroom", "hall") for item in here)
        if not sleeping and not any(box.kind == "smoke" for item in here for box in item.boxes):
            yield finding(
                "smoke-missing",
                view.context.structure.id,
                None,
                f"{view.context.structure.name}, {view.context.level.name.lower()}: no smoke alarm",
                "One on every level, interconnected.",
                "IRC R314",
                about="structure",
                room=view.room.id,
            )


def sleeping_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """An alarm outside each sleeping area, in a room that the bedroom opens into, however called (IRC R314.3)."""
    if not views or not views[0].dwelling:
        return
    by_id = {view.room.id: view for view in views}
    told: set[str] = set()
    for bedroom in views:
        if bedroom.room.use != "bedroom":
            continue
        doors = dict.fromkeys(opening.to_room for _, opening in bedroom.doors)
        outside = [by_id[room] for room in doors if room in by_id and by_id[room].room.use not in NOT_OUTSIDE]
        if not outside or any(box.kind == "smoke" for view in outside for box in view.boxes):
            continue
        near = min(outside, key=lambda view: LAST_FOR_ALARMS.get(view.room.use, 0))
        if near.room.id in told:
            continue
        told.add(near.room.id)
        x, y = alarm_spot(near)
        placed = Placement(kind="smoke", why="outside the bedroom", x_in=tape(x), y_in=tape(y))
        item = placed.item(near.room.id, near.context.structure.id)
        yield finding(
            "smoke-missing",
            near.context.structure.id,
            None,
            f"No smoke alarm outside {bedroom.room.name}",
            f"One in {near.room.name}, in the vicinity of the bedroom door, joined to the others.",
            "IRC R314.3",
            about="structure",
            room=near.room.id,
            mends=[Mend(f"Add one in {near.room.name}", [{"op": "add", "kind": "box", "item": item}])],
        )


def lived_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """Whether a building is lived in decides what it wants: asked where neither its kind nor its rooms say it."""
    if not views or views[0].context.lived is not None:
        return
    structure = views[0].context.structure
    said = {"op": "set", "kind": "structure", "id": structure.id}
    yield finding(
        "dwelling-unsaid",
        structure.id,
        None,
        f"Is {structure.name} lived in?",
        "A dwelling is where people sleep, cook and wash. Receptacles, alarms and arc-fault protection hang on it.",
        "Article 100",
        about="structure",
        room=views[0].room.id,
        mends=[
            Mend("Yes, a dwelling", [{**said, "set": {"dwelling": True}}]),
            Mend("No", [{**said, "set": {"dwelling": False}}]),
        ],
    )


def _beside_door(face: Face, door: Seen) -> float:
    """A place for a light a foot beside a door, at its latch first, where no other opening is."""
    right, left = door.to_in + BESIDE_IN, door.at_in - BESIDE_IN
    for at in (right, left) if door.latch == "right" else (left, right):
        clear = all(o.to_in <= at - HALF_IN or o.at_in >= at + HALF_IN for o in face.openings)
        if clear and HALF_IN <= at <= face.wall.length_in - HALF_IN:
            return at
    return min(right, face.wall.length_in - HALF_IN)


def entrance_rule(views: Sequence[RoomView]) -> Iterator[Finding]:
    """A light outside at each outside door of a dwelling, on the floor at ground level (210.70(A)(2))."""
    if not views or not views[0].dwelling:
        return
    by_id = {view.room.id: view for view in views}
    for view in views:
        if view.context.level.kind != "floor" or view.context.level.floor_in != 0 or view.room.use == "porch":
            continue
        for face, door in view.doors:
            porch = by_id.get(door.to_room)
            if door.kind == "garage_door" or (door.to_room and (porch is None or porch.room.use != "porch")):
                continue
            outside = [b for b in view.boxes if b.kind == "light" and b.outdoors and b.side == face.wall.index]
            under = [b for b in porch.boxes if b.kind == "light"] if porch else []
            if outside or under:
                continue
            at = _beside_door(face, door)
            item = {
                "kind": "light", "room": view.room.id, "structure": view.context.structure.id,
                "side": face.wall.index, "at_in": at, "outdoors": True,
                "height_in": view.context.level.floor_in + 72.0,
            }  # fmt: skip
            yield finding(
                "entrance-no-light",
                view.context.structure.id,
                None,
                f"No light outside the {face.wall.name} door of {view.room.name}",
                "A switched lighting outlet at the outside of each entrance at ground level.",
                "210.70(A)(2)",
                about="structure",
                room=view.room.id,
                mends=[Mend("A light beside the door", [{"op": "add", "kind": "box", "item": item}])],
            )


RULES: tuple[Rule[Sequence[RoomView]], ...] = (lived_rule, entrance_rule, outdoor_rule, alarm_rule, sleeping_rule)
