"""The sentence that sets boxes, its parts in any order: what, where along which wall, how high, on which circuit."""

from __future__ import annotations

import math
import re
from typing import Any

from levelrun.core.boxes.catalogue import UNNAILED, box_models, usual_model
from levelrun.core.boxes.contexts import room_view
from levelrun.core.boxes.placing import on_studs
from levelrun.core.boxes.pole import centre_of
from levelrun.core.job import PoleMark, Room
from levelrun.core.measure import show
from levelrun.core.site.framing import NAIL_IN, STUDDED
from levelrun.core.site.geometry import Wall, is_inside, walls_of
from levelrun.core.site.scene import CENTRE, LEFT, ON, RIGHT, Said, SceneReader, on_a_wall, walls_by_name

KINDS: dict[str, dict[str, Any]] = {
    "receptacle": {"kind": "receptacle"}, "outlet": {"kind": "receptacle"},
    "switch": {"kind": "switch"}, "three-way": {"kind": "switch", "ways": 3},
    "four-way": {"kind": "switch", "ways": 4},
    "light": {"kind": "light"}, "fan": {"kind": "fan"}, "smoke": {"kind": "smoke"}, "alarm": {"kind": "smoke"},
    "junction": {"kind": "junction"}, "disconnect": {"kind": "disconnect"}, "equipment": {"kind": "equipment"},
    "tail": {"kind": "tail"},
}  # fmt: skip
SPOKEN: dict[str, dict[str, Any]] = {
    "receptacles": {"kind": "receptacle"}, "outlets": {"kind": "receptacle"},
    "gfci receptacle": {"kind": "receptacle", "protects": "gfci"},
    "gfci outlet": {"kind": "receptacle", "protects": "gfci"},
    "switches": {"kind": "switch"}, "three-way switch": {"kind": "switch", "ways": 3},
    "3-way": {"kind": "switch", "ways": 3}, "3-way switch": {"kind": "switch", "ways": 3},
    "four-way switch": {"kind": "switch", "ways": 4}, "4-way": {"kind": "switch", "ways": 4},
    "4-way switch": {"kind": "switch", "ways": 4}, "lights": {"kind": "light"}, "ceiling light": {"kind": "light"},
    "ceiling fan": {"kind": "fan"}, "smoke alarm": {"kind": "smoke"}, "smoke detector": {"kind": "smoke"},
    "junction box": {"kind": "junction"}, "gfci": {"kind": "receptacle", "protects": "gfci"},
    "plug": {"kind": "receptacle"}, "plugs": {"kind": "receptacle"},
}  # fmt: skip
SERVES = {
    "counter": "counter", "range": "range", "cooktop": "cooktop", "oven": "oven", "dryer": "dryer",
    "washer": "washer", "refrigerator": "refrigerator", "dishwasher": "dishwasher", "disposer": "disposer",
    "microwave": "microwave", "bath heater": "bath_heater", "water heater": "water_heater",
    "space heater": "space_heater", "air conditioner": "air_conditioner", "opener": "opener", "vehicle": "vehicle",
    "pump": "pump", "generator": "generator", "kiln": "kiln", "welder": "welder", "furnace": "furnace",
    "heat cable": "heat_cable",
}  # fmt: skip
SPOKEN |= {
    f"{word} {plug}": {"kind": "receptacle", "serves": SERVES[word]}
    for word in ("range", "dryer", "washer", "refrigerator", "dishwasher", "microwave", "counter")
    for plug in ("outlet", "receptacle", "plug")
}
# Protection by all its names.
PROTECTION = {
    "gfci": "gfci", "ground fault": "gfci", "ground-fault": "gfci", "afci": "afci", "arc fault": "afci",
    "arc-fault": "afci", "dual": "dual", "dual function": "dual", "dual-function": "dual",
}  # fmt: skip
WORDS = ("at", "in", "height", "on", "as", "for", "gangs", "outside", "blocked", "box", "out", "exactly")
APART_IN = 24.0  # two things on one ceiling whose places nobody said: common practice, no source
ALL_ROUND = ("around", "all round", "all around")
OVERHEAD = ("light", "fan", "smoke")  # hang in the middle of the ceiling where no place is said
STUD = ("on the next stud", "on a stud", "next stud")
MORE = (*WORDS, *STUD, "every")
NUMBERS = {"one": 1, "single": 1, "two": 2, "double": 2, "three": 3, "four": 4}
_GANGS = re.compile(rf"(?:an?\s+)?(?P<n>[1-6]|{'|'.join(NUMBERS)})[\s-]*gangs?\b", re.IGNORECASE)
Spot = dict[str, Any]


def set_box(reader: SceneReader) -> Said:
    """set KIND [ROOM] WALL PLACE [at HEIGHT] [for USE] [N gangs] [outside] [blocked] [box MODEL] [on 9] [as NAME]
    [in ROOM]

    Parts stand in any order. Several at once: every 6 ft along north south. To a stud: on the next stud; a place
    within 2 in of one goes there by habit, unless it is said exactly. On the ceiling: set light centre, or set light
    6' x 5' (from the west and the south wall).
    """
    item = _kind(reader)
    named = reader.phrase(reader.scene.rooms())
    about = reader.scene.rooms()[named] if named is not None else reader.room()
    item["room"] = about.id
    spots: list[Spot] = []
    said: dict[str, Any] = {}
    while not reader.over() or not spots:
        if reader.over() and item["kind"] in OVERHEAD:
            spots = [_free(reader, about)]
            said["told"] = f"in the middle of the ceiling of {about.name}; say where it hangs otherwise"
            break
        reader.expect(MORE)
        if gangs_said(reader, item):
            continue
        if reader.phrase(["of"]) is not None:
            reader.again(about)
            continue
        begin = reader.pos
        if not spots and reader.phrase(ON) is not None:  # on the north wall
            if reader.sees((*walls_by_name(about), *CENTRE)):
                spots = [_where(reader, about)]
                continue
            reader.pos = begin
        word = reader.phrase(MORE)
        if word is None and spots:
            raise reader.fail(", ".join(MORE))
        if word is None:
            spots = [_where(reader, about)]
        elif word == "every":
            spots = _every(reader, about)
        elif word in STUD:
            said["stud"] = True
        else:
            _said(reader, about, item, said, word)
    if "name" in item and len(spots) > 1:
        raise reader.refuse(f"{len(spots)} boxes cannot all be called {item['name']}")
    return _made(reader, about, item, spots, said)


def _kind(reader: SceneReader) -> dict[str, Any]:
    """What is set, its gangs before it."""
    item: dict[str, Any] = {}
    while gangs_said(reader, item):
        pass
    reader.expect(KINDS)
    word = reader.phrase((*KINDS, *SPOKEN))
    if word is None:
        raise reader.fail("receptacle, switch, light or another box")
    return {**item, **(KINDS.get(word) or SPOKEN[word])}


def gangs_said(reader: SceneReader, item: dict[str, Any]) -> bool:
    """A count of gangs, where one stands here."""
    reader.skip()
    if (gangs := _GANGS.match(reader.text, reader.pos)) is None:
        return False
    reader.pos = gangs.end()
    said = gangs["n"].lower()
    item["gangs"] = int(NUMBERS.get(said, said))
    return True


def _said(reader: SceneReader, about: Room, item: dict[str, Any], said: dict[str, Any], word: str) -> None:
    """One part of the sentence that is no place."""
    if word == "gangs":
        item["gangs"] = int(reader.number("a count of gangs", 0, 6))
    elif word in ("at", "height"):
        said["height"] = reader.length()
    elif word == "for":
        item["serves"] = SERVES[reader.need(SERVES, "what it serves")]
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
    told: list[str] = [said["told"]] if "told" in said else []
    last = _last(reader, circuit) if circuit else None
    free = (f"b{n}" for n in range(1, 9999) if f"b{n}" not in set(job.ids()))
    for spot in spots:
        place = _on_stud(reader, about, item, spot, said)
        if place != spot and "stud" not in said:
            told.append(_moved(about, spot, place))
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


def _moved(about: Room, typed: Spot, place: Spot) -> str:
    """Where a box went that was typed beside a stud."""
    wall = walls_of(about)[place["side"]].name
    return f"{wall} {show(typed['at_in'])} typed, set beside the stud at {show(place['at_in'])}"


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


def middle_of(about: Room) -> Spot:
    """The middle of a room."""
    xs, ys = [x for x, _ in about.corners], [y for _, y in about.corners]
    return {"x_in": (min(xs) + max(xs)) / 2, "y_in": (min(ys) + max(ys)) / 2}


def _where(reader: SceneReader, about: Room) -> Spot:
    """A place on a wall, in the middle, or by two readings."""
    if reader.phrase(CENTRE):
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
        corner = reader.phrase((*LEFT, *RIGHT))
        face = reader.wall(about)
        return face, face.length_in - at if corner in RIGHT else at
    face = reader.wall(about)
    reader.phrase(["at"])
    return face, reader.along(face)


def _every(reader: SceneReader, about: Room) -> list[Spot]:
    """A box at each so many feet along walls, counted from the left corner of each, none in a door."""
    step = reader.length()
    if step < 6:
        raise reader.refuse(f"every {step:g} in: 6 in at least")
    named = walls_by_name(about)
    begin = reader.pos
    if reader.phrase(("along", "on")) is None and not (reader.over() or reader.sees((*ALL_ROUND, "in", "of"))):
        reader.need(("along",), "along and walls")
    chosen: list[Wall] = []
    while (word := reader.phrase(named)) is not None:
        chosen.append(named[word])
        reader.phrase(["and"])
    if not chosen:  # every 6 ft in Kitchen: all round
        reader.pos = begin
        if reader.phrase(("along", "on")) is not None:
            reader.need(named, f"a wall of {about.name}")
        if reader.phrase(ALL_ROUND) is not None and reader.sees(reader.scene.rooms()):
            reader.again(about)
        chosen = list(walls_of(about))
    view = room_view(reader.scene.job, reader.scene.book, about.id)
    spots: list[Spot] = []
    for wall in dict.fromkeys(chosen):
        doors = [(o.at_in, o.to_in) for o in view.faces[wall.index].openings if o.sill_in < 12]
        count = int((wall.length_in - 1) // step)
        places = [step * n for n in range(1, count + 1)]
        spots += [
            {"side": wall.index, "at_in": at} for at in places if not any(low <= at <= high for low, high in doors)
        ]
    if not spots:
        raise reader.refuse(f"no place every {show(step)} along {', '.join(wall.name for wall in chosen)}")
    return spots


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
