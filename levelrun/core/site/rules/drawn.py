"""Rules about the building itself: shapes that cross, rooms that overlap, openings that do not fit."""

from __future__ import annotations

from collections.abc import Iterator
from functools import lru_cache

from shapely import Polygon

from levelrun.core.findings import Finding
from levelrun.core.job import Room
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.site.codes import finding
from levelrun.core.site.faces import LevelParts, faces

OVERLAP_IN2 = 36.0
SOURCE = "common practice, no source"


@lru_cache(maxsize=2048)
def outline(room: Room) -> Polygon:
    """A room's outline as a polygon."""
    return Polygon(room.corners)


def shape_rule(parts: LevelParts) -> Iterator[Finding]:
    for room in parts.rooms:
        if not outline(room).is_valid or outline(room).area < 144:
            yield finding(
                "room-shape", room.id, None, f"{room.name}: its walls cross or enclose nothing",
                "Tape it again, corner by corner.", SOURCE, about="room", room=room.id,
            )  # fmt: skip


def overlap_rule(parts: LevelParts) -> Iterator[Finding]:
    sound = [room for room in parts.rooms if outline(room).is_valid]
    for index, room in enumerate(sound):
        for other in sound[:index]:
            if not _boxes_meet(room, other):
                continue
            shared = outline(room).intersection(outline(other)).area
            if shared > OVERLAP_IN2:
                yield finding(
                    "rooms-overlap", room.id, None, f"{room.name} lies over {other.name}",
                    f"They share {shared / 144:.1f} ft². One of them was taped or placed wrong.", SOURCE,
                    about="room", room=room.id, measured=f"{shared / 144:.1f} ft²", limit="0",
                )  # fmt: skip


def _boxes_meet(one: Room, two: Room) -> bool:
    a, b = outline(one).bounds, outline(two).bounds
    return bool(a[0] < b[2] and b[0] < a[2] and a[1] < b[3] and b[1] < a[3])


def opening_rule(parts: LevelParts) -> Iterator[Finding]:
    names = {room.id: room.name for room in parts.rooms}
    for room_id, own in faces(parts).items():
        for face in own:
            last = None
            for item in face.openings:
                kind = item.kind.replace("_", " ")
                if item.own and item.to_in > face.wall.length_in + 0.01:
                    yield finding(
                        "opening-off-wall", room_id, None, f"A {kind} runs past the {face.wall.name} wall",
                        f"It ends at {show(item.to_in)}; the wall is {show(face.wall.length_in)}.", SOURCE,
                        about="room", room=room_id, measured=show(item.to_in), limit=show(face.wall.length_in),
                    )  # fmt: skip
                if not item.own and (item.at_in < -0.01 or item.to_in > face.wall.length_in + 0.01):
                    yield finding(
                        "opening-crosses", room_id, None, f"A {kind} leads half into {names[room_id]}",
                        f"On its {face.wall.name} wall it goes past the corner, into what stands beside.", SOURCE,
                        about="room", room=room_id, measured=f"{show(item.at_in)} to {show(item.to_in)}",
                        limit=f"0 to {show(face.wall.length_in)}",
                    )  # fmt: skip
                if last and item.at_in < last.to_in - 0.01 and item.sill_in < last.head_in:
                    yield finding(
                        "openings-overlap", room_id, None, f"Two openings meet on the {face.wall.name} wall",
                        f"One ends at {show(last.to_in)}, the next begins at {show(item.at_in)}.", SOURCE,
                        about="room", room=room_id,
                    )  # fmt: skip
                last = item


def fixture_rule(parts: LevelParts) -> Iterator[Finding]:
    for room_id, own in faces(parts).items():
        for face in own:
            for item in face.fixtures:
                if item.at_in + item.width_in > face.wall.length_in + 0.01:
                    yield finding(
                        "fixture-off-wall", room_id, None,
                        f"The {item.kind.replace('_', ' ')} runs past the {face.wall.name} wall",
                        f"It ends at {show(item.at_in + item.width_in)}; the wall is {show(face.wall.length_in)}.",
                        SOURCE, about="room", room=room_id,
                    )  # fmt: skip


RULES: tuple[Rule[LevelParts], ...] = (shape_rule, overlap_rule, opening_rule, fixture_rule)
