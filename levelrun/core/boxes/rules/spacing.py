"""Rules about how many boxes a room needs and where: receptacles in reach, lights, switches, alarms."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.boxes.codes import finding
from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.mends import add_all, set_box
from levelrun.core.boxes.placing import (
    at_least_one,
    basins_lacking,
    ceiling,
    counts_for_bay,
    for_basin,
    for_counter,
    for_wall_space,
    near_door,
    switches,
    ways_in,
)
from levelrun.core.boxes.spacing import SPACED, counter_spaces, wall_spaces
from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.site.geometry import area_ft2

FOYER_FT2, FOYER_WIDE_IN, FOYER_WALL_IN = 60.0, 72.0, 36.0
WALK_THROUGH = ("hall", "stairs")


def _about_room(view: RoomView, code: str, title: str, text: str, section: str, **more: object) -> Finding:
    return finding(code, view.room.id, None, title, text, section, about="room", room=view.room.id, **more)


def wall_rule(view: RoomView) -> Iterator[Finding]:
    """No point along the floor line over 6 ft from a receptacle (210.52(A))."""
    if view.room.use not in SPACED or not view.dwelling:
        return
    reach = view.book.scalar("receptacle_reach_in")
    for space in wall_spaces(view):
        if not space.missing:
            continue
        short = sum(b - a for a, b in space.missing)
        face, at = view.on_wall(space.missing[0][0])
        yield _about_room(
            view,
            "wall-no-receptacle",
            f"{show(short)} of wall, no receptacle",
            f"{face.wall.name.capitalize()} wall from {show(at)} on: over {show(reach.value)} from a receptacle.",
            reach.section,
            measured=show(max(b - a for a, b in space.missing)),
            limit=show(reach.value),
            mends=add_all(view, for_wall_space(view, space)),
        )


def counter_rule(view: RoomView) -> Iterator[Finding]:
    """No point of a counter over 24 in from a receptacle (210.52(C))."""
    reach = view.book.scalar("counter_reach_in")
    for space in counter_spaces(view):
        if not space.missing:
            continue
        name = view.faces[space.side].wall.name
        short = sum(b - a for a, b in space.missing)
        yield _about_room(
            view,
            "counter-no-receptacle",
            f"{show(short)} of counter, no receptacle",
            f"{name.capitalize()} counter, {show(space.from_in)} to {show(space.to_in)}: a point of it is over "
            f"{show_inches(reach.value)} from one.",
            reach.section,
            measured=show(short),
            limit=show_inches(reach.value),
            mends=add_all(view, for_counter(view, space)),
        )


def foyer_rule(view: RoomView) -> Iterator[Finding]:
    """An entry hall over 60 ft² that is no hallway: a receptacle in each wall space of 3 ft or more (210.52(I))."""
    xs, ys = [x for x, _ in view.room.corners], [y for _, y in view.room.corners]
    wide = min(max(xs) - min(xs), max(ys) - min(ys)) >= FOYER_WIDE_IN
    if view.room.use != "hall" or not view.dwelling or not wide or area_ft2(view.room.corners) <= FOYER_FT2:
        return
    bare = [space for space in wall_spaces(view) if space.length_in >= FOYER_WALL_IN and not space.receptacles]
    if bare:
        placed = [item for space in bare for item in for_wall_space(view, space)]
        yield _about_room(
            view,
            "foyer-asked",
            f"{len(bare)} wall{'s' * (len(bare) > 1)} of {view.room.name} without a receptacle: is it a foyer?",
            "Over 60 ft² and no part of a hallway: one in each wall space of 3 ft or more.",
            "210.52(I)",
            measured=str(len(bare)),
            limit="0",
            mends=add_all(view, placed),
        )


def bath_rule(view: RoomView) -> Iterator[Finding]:
    """A receptacle within 36 in of each basin (210.52(D))."""
    if view.room.use != "bath":
        return
    reach = view.book.scalar("basin_reach_in")
    for face, basin in basins_lacking(view):
        yield _about_room(
            view,
            "bath-no-receptacle",
            "No receptacle by the basin",
            f"{face.wall.name.capitalize()} wall: one within {show_inches(reach.value)} of each basin, "
            "out of the tub and shower zone.",
            reach.section,
            limit=show_inches(reach.value),
            mends=add_all(view, for_basin(view, face, basin)),
        )


def one_rule(view: RoomView) -> Iterator[Finding]:
    """Laundry, garage bays, basement, long halls, outbuildings: one at least (210.52(F), (G), (H))."""
    placed = at_least_one(view)
    if not placed:
        return
    section = {"laundry": "210.52(F)", "hall": "210.52(H)", "porch": "210.52(E)(3)"}.get(view.room.use, "210.52(G)")
    have = sum(counts_for_bay(view, box) for box in view.boxes)
    yield _about_room(
        view,
        "room-no-receptacle",
        f"A {view.room.use} wants a receptacle",
        "One in each bay." if view.room.bays > 1 else "None stands here yet.",
        section,
        measured=str(have),
        limit=str(have + len(placed)),
        mends=add_all(view, placed),
    )


def light_rule(view: RoomView) -> Iterator[Finding]:
    """A lighting outlet in every room, an alarm in every bedroom and hall (210.70, IRC R314)."""
    for placed in ceiling(view):
        light = placed.kind == "light"
        yield _about_room(
            view,
            "room-no-light" if light else "smoke-missing",
            "No light here" if light else "No smoke alarm here",
            "Every room wants a lighting outlet with a switch."
            if light
            else "One in every bedroom and in the hall outside, interconnected.",
            "210.70(A)" if light else "IRC R314",
            mends=add_all(view, [placed], "a light" if light else "an alarm"),
        )


def switch_rule(view: RoomView) -> Iterator[Finding]:
    """A switch at the latch side of the door; at both ends of stairs and walk-throughs."""
    missing = switches(view)
    for placed in missing:
        through = placed.ways > 2
        yield _about_room(
            view,
            "three-way" if through else "room-no-switch",
            f"No switch {placed.why}",
            "Two ways lead through here: a three-way at each, so that nobody walks back in the dark."
            if through
            else "A hand reaches for it as the door opens.",
            "210.70(A); common practice, no source" if through else "210.70(A)",
            mends=add_all(
                view, [placed], {2: "a switch", 3: "a three-way switch"}.get(placed.ways, "a four-way switch")
            ),
        )
    yield from _hinge_side(view)
    yield from _two_ways(view)


def _hinge_side(view: RoomView) -> Iterator[Finding]:
    for box in view.boxes:
        for face, door in view.doors:
            if box.kind != "switch" or box.at_in is None or door.kind != "door" or not door.swings_in:
                continue
            if not near_door(box.side, box.at_in, face, door):
                continue
            if (box.at_in > door.to_in) == (door.hinge == "right") and not _at_other_door(view, box.id, door.id):
                yield finding(
                    "switch-hinge-side",
                    box.id,
                    None,
                    f"{box.name} is behind the open door",
                    f"The door is hung on the {door.hinge}: the latch side is the {door.latch}.",
                    "common practice, no source",
                    about="box",
                    room=view.room.id,
                )


def _at_other_door(view: RoomView, box_id: str, door_id: str) -> bool:
    box = next(item for item in view.boxes if item.id == box_id)
    return any(near_door(box.side, box.at_in, face, door) for face, door in view.doors if door.id != door_id)


def _two_ways(view: RoomView) -> Iterator[Finding]:
    at_doors = [box for box in view.boxes if box.kind == "switch"]
    ways = ways_in(view)
    if view.room.use in WALK_THROUGH and len(ways) > 1 and len(at_doors) > 1 and all(b.ways == 2 for b in at_doors):
        yield _about_room(
            view,
            "three-way",
            "Two switches, neither a three-way",
            "Both ends work the same light only as three-ways with travellers between.",
            "210.70(A)(2) for stairs of six risers; common practice, no source"
            if view.room.use == "stairs"
            else "common practice, no source",
            mends=[Mend("Make them three-ways", [set_box(box, ways=3) for box in at_doors])],
        )


RULES: tuple[Rule[RoomView], ...] = (
    wall_rule,
    counter_rule,
    foyer_rule,
    bath_rule,
    one_rule,
    switch_rule,
    light_rule,
)
