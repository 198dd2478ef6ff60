"""The sentence that sets boxes, its parts in any order: what, where along which wall, how high, on which circuit."""

from __future__ import annotations

import math
from typing import Any

from levelrun.core.boxes.beside import (
    ALL_ROUND,
    LOW_SILL_IN,
    Spot,
    asked_for,
    at_door,
    at_panel,
    at_thing,
    away_from_door,
    every,
    free_spot,
    middle_of,
    near_middle,
    spread,
)
from levelrun.core.boxes.catalogue import UNNAILED, box_models, usual_model
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.placing import on_studs
from levelrun.core.boxes.pole import centre_of
from levelrun.core.boxes.things import CALLED, SERVES, TOOLS, gangs_said, kind_said, rated, settled
from levelrun.core.job import PoleMark, Room
from levelrun.core.measure import show, show_inches
from levelrun.core.site.framing import NAIL_IN, STUDDED
from levelrun.core.site.geometry import Wall, is_inside, walls_of
from levelrun.core.site.scene import CENTRE, ON, Said, SceneReader, on_a_wall, walls_by_name

WORDS = ("at", "in", "height", "on", "as", "for", "gangs", "outside", "blocked", "box", "out", "exactly")
APART_IN = 24.0  # two things on one ceiling whose places nobody said: common practice, no source
OVERHEAD = ("light", "fan", "smoke")  # hang in the middle of the ceiling where no place is said
CEILING = ("in the ceiling", "on the ceiling", "under the ceiling", "overhead")
MOST_GANGS = 6
STUD = ("on the next stud", "on a stud", "next stud")
MORE = (*WORDS, *STUD, "every")


def set_box(reader: SceneReader) -> Said:
    """set KIND [ROOM] WALL PLACE [at HEIGHT] [for USE] [N gangs] [outside] [blocked] [box MODEL] [on 9] [as NAME]
    [in ROOM]

    Parts stand in any order. Several at once: every 6 ft along north south. To a stud: on the next stud; a place
    within 2 in of one goes there by habit, unless it is said exactly. On the ceiling: set light centre, or set light
    6' x 5' (from the west and the south wall). In several rooms, or in every bedroom, the same in each.
    """
    each, start = reader.rooms_listed(), reader.pos
    if not each:
        return _set_each(reader, None)
    edits, told = list[dict[str, Any]](), list[str]()
    reader.each = tuple(each)
    try:
        for room in each:
            reader.pos = start
            said = _set_each(reader, room)
            if any(edit["op"] != "add" for edit in said.edits):
                raise reader.refuse("say a circuit for the boxes of one room; of several afterwards", start)
            edits += said.edits
            told += said.told
    finally:
        reader.each = ()
    return Said(edits, room=each[-1].id, told=told)


def _set_each(reader: SceneReader, room: Room | None) -> Said:
    """What a sentence sets, each kind that it names: a light and a switch; a porch light."""
    named = reader.phrase(reader.scene.rooms()) if room is None else None
    room = reader.scene.rooms()[named] if named is not None else room
    found: list[tuple[int, dict[str, Any], int | None]] = []
    while not found or reader.phrase(["and"]) is not None:
        item: dict[str, Any] = {}
        begin = reader.pos
        found.append((begin, item, kind_said(reader, item)))
    after, edits, told, about = reader.pos, list[dict[str, Any]](), list[str](), room
    for begin, item, count in found:
        reader.pos = after
        said = _set_in(reader, room, item, count, begin)
        edits += said.edits
        told += said.told
        about = about or next((one for one in reader.scene.job.rooms if one.id == said.room), None)
    return Said(edits, room=about.id if about is not None else None, told=told)


def _set_in(reader: SceneReader, room: Room | None, item: dict[str, Any], count: int | None, begin: int) -> Said:
    """What follows a kind, in this room or in the one that the sentence is about."""
    if count == -1 and room is not None and item["kind"] not in ("receptacle", "switch"):
        count = None  # smoke alarms in two rooms: one in each
    named = reader.phrase(reader.scene.rooms()) if room is None else None
    about = room or (reader.scene.rooms()[named] if named is not None else reader.room())
    item["room"] = about.id
    where = _Where(reader, about, item, count)
    said: dict[str, Any] = {}
    while not reader.over() or not where.spots:
        if reader.over():
            where.unsaid()
            break
        reader.expect(MORE)
        if gangs_said(reader, item) or rated(reader, item):
            continue
        if reader.phrase(["of"]) is not None:
            reader.again(about)
            continue
        if not where.spots and where.read():
            continue
        word = reader.phrase(MORE)
        if word is None and where.spots and (high := _high(reader)) is not None:
            said["height"] = high
            continue
        if word is None and where.spots:
            raise reader.fail(", ".join(MORE))
        if word is None:
            where.along()
        elif word == "every":
            where.spots = every(reader, about)
        elif word in STUD:
            said["stud"] = True
        else:
            _said(reader, about, item, said, word)
    if "name" in item and len(where.spots) > 1:
        raise reader.refuse(f"{len(where.spots)} boxes cannot all be called {item['name']}")
    said["told"] = where.told
    return _made(reader, about, settled(reader, item, begin), where.spots, said)


class _Where:
    """Where the boxes of a sentence go. `count`: how many, -1 where several were said, None for one."""

    def __init__(self, reader: SceneReader, about: Room, item: dict[str, Any], count: int | None) -> None:
        self.reader, self.about, self.item, self.count = reader, about, item, count
        self.spots: list[Spot] = []
        self.told: list[str] = []

    def read(self) -> bool:
        """A place that is said by what is beside it, or by its wall; whether one stands here."""
        reader, about = self.reader, self.about
        self.spots = away_from_door(reader, about) or at_door(reader, about, self.item)
        if self.spots and self.item["kind"] == "switch" and 1 < (self.count or 0) <= MOST_GANGS:
            self.item["gangs"] = self.count  # two switches by a door stand in one box
        if not self.spots:
            self.spots = at_thing(reader, about, self.item, self.count == -1)
        if not self.spots:
            self.spots = at_panel(reader, about, self.item)
        if not self.spots and reader.phrase(CEILING) is not None:
            self.spots = away_from_door(reader, about)
            if not self.spots:
                self.overhead()
        begin = reader.pos
        walls = walls_by_name(about)
        if not self.spots and (word := reader.phrase(ON)) is not None:  # on the north wall
            if reader.sees((*walls, *CENTRE)):
                self.along()
            elif reader.phrase(("all walls", "every wall", *((about.name,) if word == "along" else ()))) is not None:
                self.needed()
            else:
                reader.pos = begin
        if not self.spots and reader.phrase((*ALL_ROUND, "to code", "as needed", "where needed")) is not None:
            if reader.sees(reader.scene.rooms()):
                reader.again(about)
            self.needed()
        return bool(self.spots)

    def needed(self) -> None:
        """As the code asks."""
        self.spots = asked_for(self.reader, self.about, self.item["kind"])

    def along(self) -> None:
        """A wall and a place along it; only a wall: in its middle, or so many spread along it, which is told."""
        reader, walls = self.reader, walls_by_name(self.about)
        start = reader.pos
        word = reader.phrase(walls)
        if word is not None and reader.phrase(["of"]) is not None:
            reader.again(self.about)
        reader.phrase(["at"])
        if word is None or reader.sees_length() or reader.sees(CENTRE) or self.count == -1:
            reader.pos = start
            self.spots = [_where(reader, self.about)]
            return
        wall, count = walls[word], self.count or 1
        reader.pos = start
        reader.phrase(walls)
        view = room_view(reader.scene.job, reader.scene.book, self.about.id)
        if count == 1:
            spot = near_middle(view, wall, self.item["kind"], self.item.get("gangs", 1))
            if spot is None:
                raise reader.refuse(f"no place is free on the {wall.name} wall: say how far from a corner", start)
            self.spots = [spot]
            middle = abs(spot["at_in"] - wall.length_in / 2) < 1e-6
            where = (
                "in the middle of" if middle else f"at {show(spot['at_in'])}, the nearest free place to the middle of"
            )
            self.told.append(f"{where} the {wall.name} wall; say how far from a corner where it does not stand there")
            return
        self.spots = spread(reader, self.about, count, wall)
        doors = [door for door in view.faces[wall.index].openings if door.sill_in < LOW_SILL_IN]
        if any(door.at_in < spot["at_in"] < door.to_in for door in doors for spot in self.spots):
            raise reader.refuse(f"a door is in the way on the {wall.name} wall: say how far from a corner", start)
        places = ", ".join(show(spot["at_in"]) for spot in self.spots)
        self.told.append(f"{count} spread along the {wall.name} wall, at {places}")

    def unsaid(self) -> None:
        """No place was said: under the ceiling what hangs there, else as the code asks, where that is one place or
        several were said."""
        reader, about, kind = self.reader, self.about, self.item["kind"]
        if kind in OVERHEAD:
            self.overhead()
        elif self.count is None and kind != "switch":
            self.free()
        elif kind in ("receptacle", "switch"):
            self.needed()
            if self.count not in (None, -1, len(self.spots)):
                wanted = len(self.spots)
                self.spots = []
                raise reader.refuse(
                    f"{about.name} lacks {wanted} by the rules of its use, not {self.count}: say where"
                )
        else:
            raise reader.fail(f"a wall of {about.name}")

    def overhead(self) -> None:
        """Under the ceiling: in its middle, several in rows."""
        reader, about, count = self.reader, self.about, self.count or 1
        if count > 1:
            self.spots = spread(reader, about, count, None)
            self.told.append(
                f"{count} in even rows under the ceiling of {about.name}; say where each hangs otherwise"
            )
        else:
            self.spots = [_free(reader, about)]
            self.told.append(f"in the middle of the ceiling of {about.name}; say where it hangs otherwise")

    def free(self) -> None:
        """One thing in a room: on a stud where a wall is free, which is told."""
        reader, about = self.reader, self.about
        view = room_view(reader.scene.job, reader.scene.book, about.id)
        spot = free_spot(view, self.item["kind"], self.item.get("gangs", 1))
        if spot is None:
            raise reader.fail(f"a wall of {about.name}")
        wall = view.faces[spot["side"]].wall.name
        self.spots = [spot]
        self.told.append(f"on the {wall} wall at {show(spot['at_in'])}, where it is free; say where it is otherwise")


def _high(reader: SceneReader) -> float | None:
    """A height behind the place: 48" high, 4' up. None, and nothing taken, where none stands here."""
    start = reader.pos
    if reader.sees_length():
        inches = reader.length()
        if reader.phrase(("high", "up", "off the floor", "over the floor", "above the floor")) is not None:
            return inches
    reader.pos = start
    return None


def _said(reader: SceneReader, about: Room, item: dict[str, Any], said: dict[str, Any], word: str) -> None:
    """One part of the sentence that is no place."""
    if word == "gangs":
        item["gangs"] = int(reader.number("a count of gangs", 0, 6))
    elif word in ("at", "height"):
        said["height"] = reader.length()
    elif word == "for":
        served = {**CALLED, **SERVES}
        what = reader.need((*served, *TOOLS), "what it serves")
        item |= {"serves": served[what]} if what in served else {"name": what.capitalize()}
    elif word == "out":
        item["set_out_in"] = reader.length()
    elif word == "outside":
        item["outdoors"] = True
    elif word == "blocked":
        item["blocking"] = True
    elif word == "exactly":
        said["exactly"] = True
    elif word == "box":
        item["model"] = reader.need(box_models(reader.scene.book), "a box of the catalogue")
    elif word == "in":
        reader.again(about)
    elif word == "as":
        item["name"] = reader.name(MORE, rf"[1-6]\s*gangs?\b|{on_a_wall(walls_by_name(about))}")
    elif word == "on":
        said["circuit"] = _circuit(reader)


def _made(reader: SceneReader, about: Room, item: dict[str, Any], spots: list[Spot], said: dict[str, Any]) -> Said:
    """The edits: each box at its place, one after another onto the circuit that was named."""
    job = reader.scene.job
    level = next(lv for s in job.structures for lv in s.levels if lv.id == about.level)
    circuit: str | None = said.get("circuit")
    edits: list[dict[str, Any]] = []
    told: list[str] = list(said["told"])
    last = _last(reader, circuit) if circuit else None
    free = (f"b{n}" for n in range(1, 9999) if f"b{n}" not in set(job.ids()))
    places = [_on_stud(reader, about, item, spot, said) for spot in spots]
    told += _moved(about, spots, places) if "stud" not in said else []
    for place in places:
        own = {**item, **place}
        if "height" in said:
            own["height_in"] = level.floor_in + at_mark(reader, own["kind"], "side" in own, said["height"])
        if circuit is None:
            edits.append({"op": "add", "kind": "box", "item": own})
            continue
        ident = next(free)
        edits.append({"op": "add", "kind": "box", "item": {"id": ident, **own}})
        edits.append({"op": "chain", "circuit": circuit, "boxes": [ident], "after": last})
        last = ident
    return Said(edits, room=about.id, told=told)


def _moved(about: Room, spots: list[Spot], places: list[Spot]) -> list[str]:
    """Where boxes went that were typed beside a stud: each of one or two, of more how many and how far."""
    moved = [(typed, place) for typed, place in zip(spots, places, strict=True) if typed != place]
    if len(moved) > 2:
        most = max(abs(typed["at_in"] - place["at_in"]) for typed, place in moved)
        return [
            f"{len(moved)} of {len(spots)} set beside their studs, at most {show_inches(most)} off what was typed"
        ]
    walls = walls_of(about)
    return [
        f"{walls[place['side']].name} {show(typed['at_in'])} typed, set beside the stud at {show(place['at_in'])}"
        for typed, place in moved
    ]


def at_mark(reader: SceneReader, kind: str, on_wall: bool, typed: float) -> float:
    """A height as typed to the middle of the box: it means what the story pole's mark for such a box means."""
    pole = reader.scene.job.habits.pole
    mark = pole.switch.mark if kind == "switch" else pole.receptacle.mark
    if kind not in ("switch", "receptacle") or not on_wall:
        return typed
    tall = usual_model(reader.scene.book, kind, 1).tall_in
    return centre_of(PoleMark(mark=mark, at_in=min(typed, 144)), tall)


def _circuit(reader: SceneReader) -> str:
    labels = {reader.circuit_label(circuit): circuit.id for circuit in reader.scene.job.circuits}
    labels |= {circuit.name: circuit.id for circuit in reader.scene.job.circuits}
    return labels[reader.need(labels, "a circuit by its space, or its name")]


def _last(reader: SceneReader, circuit_id: str) -> str | None:
    circuit = next(item for item in reader.scene.job.circuits if item.id == circuit_id)
    return circuit.chain[-1].box if circuit.chain else None


def _free(reader: SceneReader, about: Room) -> Spot:
    """The middle of a ceiling; where something hangs there, beside it along the longer side of the room."""
    hung = [(box.x_in, box.y_in) for box in reader.scene.job.boxes if box.room == about.id and box.x_in is not None]
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    along = "x_in" if max(xs) - min(xs) >= max(ys) - min(ys) else "y_in"
    spot = middle_of(about)
    while any(math.dist((x or 0, y or 0), (spot["x_in"], spot["y_in"])) < APART_IN for x, y in hung):
        beside = {**spot, along: spot[along] + APART_IN}
        if not is_inside(about.corners, (beside["x_in"], beside["y_in"])):
            return middle_of(about)
        spot = beside
    return spot


def _where(reader: SceneReader, about: Room) -> Spot:
    """A place on a wall, in the middle, or by two readings."""
    if reader.phrase(CENTRE):
        reader.phrase(("of the ceiling", "of the room", "ceiling"))
        return middle_of(about)
    start = reader.pos
    try:
        across = reader.length()
        reader.need(("x", "by"), "x")
    except ValueError:
        reader.pos = start
        face, at = _on_wall(reader, about)
        if not 0 <= at <= face.length_in:
            raise reader.refuse(
                f"{at:g} in is past the {face.name} wall of {about.name}, {face.length_in:g} in long"
            ) from None
        return {"side": face.index, "at_in": at}
    up = reader.length()
    spot = {"x_in": min(x for x, _ in about.corners) + across, "y_in": min(y for _, y in about.corners) + up}
    if not is_inside(about.corners, (spot["x_in"], spot["y_in"])):
        raise reader.refuse(f"{show(across)} x {show(up)} is not inside {about.name}")
    return spot


def _on_wall(reader: SceneReader, about: Room) -> tuple[Wall, float]:
    """A wall and a place along it, either first: north 4', 4' along the north wall."""
    if reader.sees_length():
        at = reader.length()
        corner = reader.corner()
        face = reader.wall(about)
        return face, reader.from_left(face, at, corner or reader.corner())
    face = reader.wall(about)
    reader.phrase(["at"])
    return face, reader.along(face)


def _on_stud(reader: SceneReader, about: Room, item: dict[str, Any], spot: Spot, said: dict[str, Any]) -> Spot:
    """The place beside the stud that is nearest to the one typed: any where a stud is asked for, else one within the
    shop's habit. What is nailed to no stud, or said exactly, stays."""
    within = math.inf if said.get("stud") else reader.scene.job.habits.stud_within_in
    nailed = not any(item.get(key) for key in ("outdoors", "blocking")) and item["kind"] not in UNNAILED
    if "side" not in spot or said.get("exactly") or not (nailed or said.get("stud")):
        return spot
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    face = view.faces[spot["side"]]
    if face.side.stud not in STUDDED and not said.get("stud"):
        return spot
    wide = usual_model(reader.scene.book, item["kind"], item.get("gangs", 1)).wide_in
    found = [at for at, _ in on_studs(view, face, 0.0, face.wall.length_in, wide)]
    nearest = min(found, key=lambda at: abs(at - spot["at_in"]), default=spot["at_in"])
    at = round(nearest * 16) / 16
    off = abs(at - spot["at_in"])
    stands = off <= NAIL_IN and not said.get("stud")  # near enough to be nailed as it is
    return spot if stands or off > within + 1e-6 else {**spot, "at_in": at}
