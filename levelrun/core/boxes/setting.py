"""The sentence that sets boxes, its parts in any order: what, where along which wall, how high, on which circuit."""

from __future__ import annotations

import math
import re
from dataclasses import replace
from typing import Any

from levelrun.core.boxes.beside import Spot, lacking
from levelrun.core.boxes.catalogue import UNNAILED, box_models, usual_model
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.edits import BOX
from levelrun.core.boxes.machines import BY_NAME, called
from levelrun.core.boxes.outside import entrance_room, mended
from levelrun.core.boxes.placing import on_studs
from levelrun.core.boxes.pole import centre_of
from levelrun.core.boxes.rules.dwelling import sleeping_rule
from levelrun.core.boxes.spreading import every
from levelrun.core.boxes.things import CALLED, HALF, OF_MACHINES, SERVES, gangs_said, kind_said, rated, settled
from levelrun.core.boxes.whereabouts import AS_ASKED, OVER_THE_FLOOR, Where
from levelrun.core.editing import add_part
from levelrun.core.job import Job, PoleMark, Room
from levelrun.core.measure import show, show_inches
from levelrun.core.site.framing import NAIL_IN, STUDDED
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import EVERYWHERE, Said, SceneReader, on_a_wall, walls_by_name

USUAL_AT_IN = 48.0  # a mark of the story pole is that of no box which hangs higher than a room
WORDS = ("at", "in", "height", "on", "as", "for", "gangs", "outside", "blocked", "box", "out", "exactly")
# What a switch works, which is wired by kind: each switch of a room has lights of its own.
_WORKS = re.compile(
    r"(?:both|them|(?:the\s+)?(?:(?:all|other|ceiling|vanity|bath|exhaust|recessed|can|pot|outside|outdoor|exterior|"
    r"porch|flood|coach|barn|yard|shop|strip|led|closet|entry|wall|main|center|middle)\s+)*"
    r"(?:lights?|fans?|pendants?|cans|sconces?|chandelier|strips?|floods?)"
    rf"|(?:the\s+)?(?:(?:{'|'.join(HALF)})\s+)?(?:outlets?|receptacles?|plugs?))\b",
    re.IGNORECASE,
)
TV = tuple(f"{at} {the}{tv}" for at in ("behind", "for") for the in ("the ", "a ") for tv in ("tv", "television"))
TV_IN = 60.0  # behind a screen that hangs on the wall: common practice, no source
_EACH = ("every floor", "each floor", "every level", "each level", "all floors", "all levels")
EVERY_FLOOR = tuple(f"on {each}" for each in _EACH)
PASSED = ("hall", "stairs", "common", "dining", "bedroom", "utility", "storage", "basement")
STUD = ("on the next stud", "on a stud", "next stud")
MORE = (*WORDS, *STUD, "every")


def set_box(reader: SceneReader) -> Said:
    """set KIND [ROOM] WALL PLACE [at HEIGHT] [for USE] [N gangs] [outside] [blocked] [box MODEL] [on 9] [as NAME]
    [in ROOM]

    Parts stand in any order. Several at once: every 6 ft along north south. To a stud: on the next stud; a place
    within 2 in of one goes there by habit, unless it is said exactly. On the ceiling: set light centre, or set light
    6' x 5' (from the west and the south wall). In several rooms, or in every bedroom, the same in each.
    """
    each, start, everywhere = reader.rooms_listed() or _of_each_floor(reader), reader.pos, reader.everywhere
    if not each:
        return _set_each(reader, None, everywhere=False)
    edits, told = list[dict[str, Any]](), list[str]()
    reader.each = tuple(each)
    try:
        for room in each:
            reader.pos = start
            said = _set_each(reader, room, everywhere)
            if any(edit["op"] != "add" for edit in said.edits):
                raise reader.refuse("say a circuit for the boxes of one room; of several afterwards", start)
            edits += said.edits
            told += said.told
    finally:
        reader.each = ()
    if everywhere and any(edit["item"]["kind"] == "smoke" for edit in edits):
        edits += _outside_bedrooms(reader, each, edits)
    if everywhere and not edits:
        raise reader.refuse("no room lacks any of it by the rules of its use", start)
    return Said(edits, room=each[-1].id, told=told)


def _outside_bedrooms(reader: SceneReader, each: list[Room], edits: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """The alarms outside of bedrooms that buildings lack beside those that these edits set (IRC R314.3)."""
    job = reader.scene.job
    scene = replace(reader.scene, job=_with(reader, edits))
    owners = dict.fromkeys(job.structure_of(room.level).id for room in each)
    return [edit for owner in owners for edit in mended(scene, owner, sleeping_rule)[1]]


def _of_each_floor(reader: SceneReader) -> list[Room]:
    """Where it is said of every floor: of each level with rooms the one by which most pass. Empty where it is not."""
    if re.search(rf"\b(?:{'|'.join(EVERY_FLOOR)})\b", reader.text[reader.pos : reader.line_end()], re.I) is None:
        return []
    job = reader.scene.job
    found: list[Room] = []
    for level in (level for structure in job.structures for level in structure.levels):
        here = [room for room in job.rooms if room.level == level.id]
        order = {use: number for number, use in enumerate(PASSED)}
        if here and level.kind not in ("crawl", "attic"):
            found.append(min(here, key=lambda room: order.get(room.use, len(PASSED))))
    return found


def _set_each(reader: SceneReader, room: Room | None, everywhere: bool) -> Said:
    """What a sentence sets, each kind that it names: a light and a switch; a porch light."""
    named = room_before(reader) if room is None else None
    room = reader.scene.rooms()[named] if named is not None else room
    found: list[tuple[int, dict[str, Any], int | None]] = []
    while not found or reader.phrase(["and"]) is not None:
        item: dict[str, Any] = {}
        begin = reader.pos
        found.append((begin, item, kind_said(reader, item)))
    after, scene = reader.pos, reader.scene
    try:
        return _one_by_one(reader, room, everywhere, found, after)
    finally:
        reader.scene = scene


def _one_by_one(
    reader: SceneReader,
    room: Room | None,
    everywhere: bool,
    found: list[tuple[int, dict[str, Any], int | None]],
    after: int,
) -> Said:
    """Each kind of a sentence with what follows them all; what is set sees what was set before it."""
    edits, told, about = list[dict[str, Any]](), list[str](), room
    for begin, item, count in found:
        reader.pos = after
        if everywhere and room is not None and not lacking(reader, room, item["kind"]):
            reader.pos = reader.line_end()
            continue  # of several rooms what one lacks is set there
        said = _set_in(reader, room, item, (count, begin), everywhere)
        edits += said.edits
        told += said.told
        if len(found) > 1:
            reader.scene = replace(reader.scene, job=_with(reader, said.edits))
        about = about or next((one for one in reader.scene.job.rooms if one.id == said.room), None)
    return Said(edits, room=about.id if about is not None else None, told=told)


def _with(reader: SceneReader, edits: list[dict[str, Any]]) -> Job:
    """The job with the boxes that these edits add."""
    job = reader.scene.job
    for edit in edits:
        if edit["op"] == "add":
            job = add_part(job, reader.scene.book, BOX, edit["item"])
    return job


def room_before(reader: SceneReader) -> str | None:
    """The room that is named before a thing, taken: porch light; not of a machine called so, a garage heater."""
    return None if reader.sees(OF_MACHINES) else reader.phrase(reader.scene.rooms())


def _set_in(
    reader: SceneReader, room: Room | None, item: dict[str, Any], asked: tuple[int | None, int], everywhere: bool
) -> Said:
    """What follows a kind, in this room or in the one that the sentence is about."""
    count, begin = asked
    if count == -1 and room is not None and item["kind"] not in ("receptacle", "switch"):
        count = None  # smoke alarms in two rooms: one in each
    named = reader.phrase(reader.scene.rooms()) if room is None else None
    told = list[str]()
    about = (
        room
        or (reader.scene.rooms()[named] if named is not None else None)
        or entrance_room(reader, bool(item.get("outdoors")), told)
    )
    about = about or reader.room()
    item["room"] = about.id
    where = Where(reader, about, item, count)
    where.told += told
    if everywhere:
        where.needed()
    said: dict[str, Any] = {}
    while not reader.over() or not where.spots:
        while reader.phrase((*EVERYWHERE, *EVERY_FLOOR, *(AS_ASKED if everywhere else ()))) is not None:
            pass
        if reader.over():
            where.unsaid()
            break
        reader.expect(MORE)
        if gangs_said(reader, item) or rated(reader, item):
            continue
        if reader.phrase(["of"]) is not None:
            reader.again(about)
            continue
        if item["kind"] == "receptacle" and reader.phrase(TV) is not None:
            item.setdefault("name", "TV")
            said.setdefault("height", TV_IN)
            where.told.append(f"{show_inches(TV_IN)} high, as behind a screen on the wall; say how high otherwise")
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
        reader.phrase(OVER_THE_FLOOR)
    elif word == "for" and item["kind"] == "switch" and _works(reader, about):
        pass
    elif word == "for":
        served = {**CALLED, **SERVES}
        what = reader.need((*served, *BY_NAME), "what it serves")
        item |= {"serves": served[what]} if what in served else {**BY_NAME[what].box, "name": called(what), **item}
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


def _works(reader: SceneReader, about: Room) -> bool:
    """What a switch works, taken where it stands here: lights and fans of its own room."""
    start, end = reader.pos, -1
    while True:
        reader.phrase([f"the {about.name}", about.name])
        reader.skip()
        if (works := _WORKS.match(reader.text, reader.pos)) is None:
            break
        reader.pos = end = works.end()
        reader.phrase(["and"])
    reader.pos = start if end < 0 else end
    return end >= 0


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
        over = own.pop("over_in", 0.0)  # at the top of stairs: as high over the floor that is there
        if "height" in said:
            own["height_in"] = level.floor_in + over + at_mark(reader, own["kind"], "side" in own, said["height"])
        elif over:
            pole = job.habits.pole
            mark = {"switch": pole.switch, "light": pole.wall_light}.get(own["kind"], pole.receptacle)
            own["height_in"] = level.floor_in + over + at_mark(reader, own["kind"], True, mark.at_in)
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
    tall, least = usual_model(reader.scene.book, kind, 1).tall_in, min(typed, USUAL_AT_IN)
    return centre_of(PoleMark(mark=mark, at_in=least), tall) + typed - least


def _circuit(reader: SceneReader) -> str:
    labels = {reader.circuit_label(circuit): circuit.id for circuit in reader.scene.job.circuits}
    labels |= {circuit.name: circuit.id for circuit in reader.scene.job.circuits}
    return labels[reader.need(labels, "a circuit by its space, or its name")]


def _last(reader: SceneReader, circuit_id: str) -> str | None:
    circuit = next(item for item in reader.scene.job.circuits if item.id == circuit_id)
    return circuit.chain[-1].box if circuit.chain else None


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
