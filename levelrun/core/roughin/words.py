"""Sentences of the record: what was done at a box, what was torqued, which wall is shut, where things went, what an
inspector found; and the question what is behind a spot."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from levelrun.core.job import Box, Panel, Room, Visit
from levelrun.core.roughin.asked import whats_behind
from levelrun.core.roughin.edits import ASKS
from levelrun.core.roughin.steps import MAYBE, cards_of, is_made_up, left_out, needed_steps, open_nodes
from levelrun.core.roughin.surfaces import level_of, surface_of
from levelrun.core.site.faces import faces, level_parts
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import Said, SceneReader

HOUR = re.compile(r"(?:[01]?\d|2[0-3]):[0-5]\d")
THINGS = ("cable", "pipe", "box", "duct", "water", "wood", "other")
VISITS = ("insulation", "drywall", "backfill", "power", "final")
OPENINGS = {"door": "door", "window": "window", "glass door": "glass_door", "garage door": "garage_door",
            "opening": "opening"}  # fmt: skip


def _rest(reader: SceneReader, word: str = "because") -> str:
    if not reader.phrase([word]):
        return ""
    end = reader.line_end()
    said = reader.text[reader.pos : end].strip()
    reader.pos = end
    return said


def _node(reader: SceneReader) -> Box | Panel:
    nodes = {node.name: node for node in reader.scene.job.nodes}
    return nodes[reader.need(nodes, "a box or panel by its name")]


def tick(reader: SceneReader) -> Said:
    """tick BOX [jacket, free …] [on 2026-05-12]: steps that are done at a box or panel; none named: all of them."""
    return _ticked(reader, True)


def untick(reader: SceneReader) -> Said:
    """untick BOX [jacket …]: steps that are not done after all; none named: all of them."""
    return _ticked(reader, False)


def _ticked(reader: SceneReader, done: bool) -> Said:
    node = _node(reader)
    steps = {step.removeprefix("ask_").replace("_", " "): step for step in (*needed_steps(node), *MAYBE, *ASKS)}
    named: list[str] = []
    while (word := reader.phrase(steps)) is not None:
        named.append(steps[word])
        reader.phrase(["and"])
    if not named:
        reader.expect([*steps, "on"])
    on = reader.on_day()
    edit: dict[str, Any] = {
        "op": "do_card",
        "node": node.id,
        "steps": named or list(needed_steps(node)),
        "done": done,
    }
    return Said([{**edit, "on": on}])


def made(reader: SceneReader) -> Said:
    """made up BOX [on 2026-05-12]; made up all in ROOM: every step of it is done."""
    if not reader.phrase(["all in"]):
        return _ticked(reader, True)
    room = reader.room_named()
    job = reader.scene.job
    on = reader.on_day()
    cards, gone = cards_of(job), left_out(job)
    own = [node for node in open_nodes(job, cards) if node.room == room.id and node.id not in gone]
    own = [node for node in own if isinstance(node, Box) and not is_made_up(node, cards.get(node.id))]
    if not own:
        raise reader.refuse(f"nothing in {room.name} is open")
    edits = [
        {"op": "do_card", "node": node.id, "steps": list(needed_steps(node)), "done": True, "on": on} for node in own
    ]
    return Said(edits, room=room.id)


def torque(reader: SceneReader) -> Said:
    """torque PANEL SPACE|main 35 [label 36] [on 2026-05-12]: pound-inches as read, and what the label asks."""
    node = _node(reader)
    job = reader.scene.job
    labels = [reader.circuit_label(c) for c in job.circuits if c.panel == node.id]
    at = reader.need(("main", *labels), "main, or the spaces of a circuit")
    read = reader.number("pound-inches", 0, 1000)
    reader.phrase(["lb-in", "in-lb", "inch pounds"])
    asked = None
    if reader.phrase(["label"]):
        asked = reader.number("pound-inches of the label", 1, 1000)
        reader.phrase(["lb-in", "in-lb", "inch pounds"])
    return Said(
        [{"op": "torque", "node": node.id, "at": at, "lb_in": read, "label_lb_in": asked, "on": reader.on_day()}]
    )


def _surface(reader: SceneReader) -> tuple[Room, str]:
    """ROOM north, ROOM ceiling; without the room the one looked at."""
    rooms = reader.scene.rooms()
    word = reader.phrase(rooms)
    room = rooms[word] if word is not None else reader.scene.room
    if room is None:
        reader.expect(list(rooms))
        raise reader.fail("a room by its name, and which of its walls")
    flat = reader.phrase(["ceiling", "floor"])
    if flat is not None:
        return room, flat
    reader.expect([*(wall.name for wall in walls_of(room)), "ceiling", "floor"])
    wall = reader.wall(room)
    reader.phrase(["wall"])
    return room, str(wall.index)


def shut(reader: SceneReader) -> Said:
    """shut [ROOM] north|ceiling [on 2026-05-12] [because ...]: a wall is closed; while it waits, say why."""
    room, surface = _surface(reader)
    edit = {"op": "close_wall", "room": room.id, "surface": surface, "on": reader.on_day()}
    why = _rest(reader)
    return Said([{**edit, **({"why": why} if why else {})}], room=room.id)


def reopen(reader: SceneReader) -> Said:
    """reopen [ROOM] north|ceiling: a wall that was shut is open again."""
    room, surface = _surface(reader)
    return Said([{"op": "open_wall", "room": room.id, "surface": surface}], room=room.id)


def _spot(reader: SceneReader, room: Room, surface: str) -> tuple[float, float]:
    """4'2 [from the door|right|left] at 40": along the wall, then over the floor."""
    along = reader.position()
    if reader.phrase(["from the", "from"]):
        along = _from(reader, room, surface, along)
    reader.need(("at",), "at and how high over the floor")
    return along, reader.position()


def _from(reader: SceneReader, room: Room, surface: str, reading: float) -> float:
    """A reading from something else than the left corner, as it is along the wall."""
    parts = level_parts(reader.scene.job)[room.level]
    if not surface.isdigit():
        reader.need(("west", "left"), "west, for a ceiling or floor")
        return reading
    face = faces(parts)[room.id][int(surface)]
    here = {
        word: o for word, kind in OPENINGS.items() for o in face.openings if o.kind == kind
    }  # fmt: skip
    word = reader.need(("left", "right", *here), "left, right, or an opening of this wall")
    reader.phrase(["corner"])
    if word == "left":
        return reading
    if word == "right":
        return face.wall.length_in - reading
    opening = here[word]
    side = reader.phrase(["to the left", "to the right"])
    left = side == "to the left" or (side is None and opening.to_in + reading > face.wall.length_in)
    return opening.at_in - reading if left else opening.to_in + reading


def behind(reader: SceneReader) -> Said:
    """behind [ROOM] north 4'2 [from the door] at 40": what is there, and whether a screw may go in."""
    room, surface = _surface(reader)
    at, height = _spot(reader, room, surface)
    scene = reader.scene
    answer = whats_behind(scene.job, scene.book, room.id, surface, at, height)
    near = "; ".join(f"{item.name} {item.text}" for item in answer.near[:4])
    return Said([], room=room.id, told=[f"{answer.readings}: {answer.text} {near}".strip()])


def built(reader: SceneReader) -> Said:
    """built BOX 4'2 at 40" [on 2026-05-12]; built CIRCUIT to BOX in [ROOM] north: 0 at 36", 4'2 at 36": where a box
    or a cable really went."""
    job = reader.scene.job
    nodes = {node.name: node for node in job.nodes}
    circuits = {circuit.name: circuit for circuit in job.circuits}
    circuits |= {reader.circuit_label(c): c for c in job.circuits if c.space and c.panel == _panel(reader)}
    word = reader.need([*nodes, *circuits], "a box, or a circuit and to which box")
    if word in nodes:
        node = nodes[word]
        if node.room is None:
            raise reader.refuse(f"{node.name} stands in no drawn room")
        room = job.room(node.room)
        at, height = _spot(reader, room, surface_of(node, level_of(job, room)))
        return Said([{"op": "built_box", "node": node.id, "at_in": at, "height_in": height, "on": reader.on_day()}])
    circuit = circuits[word]
    reader.need(("to",), "to and the box that the cable goes to")
    names = {nodes_name(job.nodes, hop.box): hop.box for hop in circuit.chain}
    box = names[reader.need(names, "a box of this circuit")]
    reader.need(("in",), "in and a wall")
    room, surface = _surface(reader)
    reader.colon()
    points = _corners(reader, room, surface, 2)
    edit = {"op": "built_cable", "circuit": circuit.id, "box": box, "room": room.id, "surface": surface}
    return Said([{**edit, "points": points, "on": reader.on_day()}], room=room.id)


def nodes_name(nodes: tuple[Box | Panel, ...], ident: str) -> str:
    """The name of a node by its id."""
    return next((node.name for node in nodes if node.id == ident), ident)


def _panel(reader: SceneReader) -> str:
    return reader.scene.panel.id if reader.scene.panel is not None else ""


def _corners(reader: SceneReader, room: Room, surface: str, least: int) -> list[tuple[float, float]]:
    points = [_spot(reader, room, surface)]
    while reader.phrase(["to", "and"]) is not None or len(points) < least:
        points.append(_spot(reader, room, surface))
    return points


def left(reader: SceneReader) -> Said:
    """left out BOX [on 2026-05-12] [because ...]: it was not set."""
    node = _node(reader)
    return Said([{"op": "left_out", "node": node.id, "on": reader.on_day(), "why": _rest(reader)}])


def after_all(reader: SceneReader) -> Said:
    """set after all BOX: it was left out, and is there now."""
    return Said([{"op": "left_out", "node": _node(reader).id, "out": False}])


def extra(reader: SceneReader) -> Said:
    """extra pipe in [ROOM] north: 2' at 10" [to 5' at 10"] [on 2026-05-12] [called ...]: not planned, and there."""
    what = reader.need(THINGS, "what it is")
    reader.need(("in",), "in and a wall")
    room, surface = _surface(reader)
    reader.colon()
    points = _corners(reader, room, surface, 1)
    edit = {"op": "extra", "room": room.id, "surface": surface, "what": what, "points": points, "on": reader.on_day()}
    return Said([{**edit, "remarks": _rest(reader, "called")}], room=room.id)


def _where(reader: SceneReader, kind: str) -> str:
    """The building or trench that a visit or hold is about; without it the only one."""
    job = reader.scene.job
    own = {t.name: t.id for t in job.trenches} if kind == "backfill" else {s.name: s.id for s in job.structures}
    word = reader.phrase(own)
    if word is not None:
        return own[word]
    if len(own) == 1:
        return next(iter(own.values()))
    what = "a trench" if kind == "backfill" else "a building"
    raise reader.fail(f"{what} by its name: {', '.join(own)}" if own else f"{what}: there is none yet")


def visit(reader: SceneReader) -> Said:
    """visit drywall HOUSE on 2026-05-12 [9:00] [by WHO]: an inspection that is to come."""
    kind = reader.need(VISITS, "what it looks at")
    item: dict[str, Any] = {"kind": kind, "place": _where(reader, kind)}
    item["on"] = reader.on_day()
    reader.skip()
    match = HOUR.match(reader.text, reader.pos)
    if match is not None:
        reader.pos = match.end()
        item["hour"] = match[0].zfill(5)
    if reader.phrase(["by"]):
        item["who"] = reader.name()
    return Said([{"op": "add", "kind": "visit", "item": item}])


def _last(reader: SceneReader, kind: str, place: str) -> Visit:
    own = [v for v in reader.scene.job.visits if (v.kind, v.place) == (kind, place) and not v.result]
    if not own:
        raise reader.refuse("no such inspection is to come: say visit, what it looks at, and when", allowed=["visit"])
    return min(own, key=lambda v: v.on or "9")


def passed(reader: SceneReader) -> Said:
    """passed drywall HOUSE [by WHO] [on 2026-05-12]: the inspection that was to come; its hold is lifted."""
    kind = reader.need(VISITS, "what it looked at")
    own = _last(reader, kind, _where(reader, kind))
    who = reader.name(("on",)) if reader.phrase(["by"]) else ""
    return Said([{"op": "end_visit", "visit": own.id, "result": "passed", "who": who, "on": reader.on_day()}])


def failed(reader: SceneReader) -> Said:
    """failed drywall HOUSE: staple 14" from S-2 [at BOX] [by 314.17]: what was found; its hold stays."""
    kind = reader.need(VISITS, "what it looked at")
    own = _last(reader, kind, _where(reader, kind))
    reader.colon()
    nodes = {node.name: node for node in reader.scene.job.nodes}
    text = _quoted(reader)
    item: dict[str, Any] = {"text": text}
    if reader.phrase(["at"]):
        item["node"] = nodes[reader.need(nodes, "a box or panel by its name")].id
    if reader.phrase(["by"]):
        item["section"] = reader.token("a section", ".()-")
    return Said([{"op": "end_visit", "visit": own.id, "result": "failed", "found": [item], "on": reader.on_day()}])


def _quoted(reader: SceneReader) -> str:
    """What was found, in double quotes."""
    reader.expect(['"what was found"'])
    match = re.compile(r'"([^"\n]{1,300})"').match(reader.text, reader.pos)
    if match is None:
        raise reader.fail("what was found, in double quotes")
    reader.pos = match.end()
    return match[1]


def mended(reader: SceneReader) -> Said:
    """mended [BOX] on 2026-05-12 [by WHO]: what was found there, or the only thing found, is mended."""
    job = reader.scene.job
    still = [fault for fault in job.faults if not fault.mended_on]
    at = {node.name: node.id for node in job.nodes if any(f.node == node.id for f in still)}
    word = reader.phrase(at)
    own = [fault for fault in still if word is None or fault.node == at[word]]
    if word is None and len(own) > 1:
        reader.expect(list(at))
        raise reader.fail("at which box")
    if not own:
        raise reader.refuse("nothing that was found is open")
    on = reader.on_day()
    if not on:
        reader.expect(["on 2026-05-12"])
        raise reader.fail("on and the day")
    by = reader.name() if reader.phrase(["by"]) else ""
    return Said([{"op": "mend_fault", "fault": fault.id, "on": on, "by": by} for fault in own])


def lift(kind: str) -> Callable[[SceneReader], Said]:
    """lift drywall [HOUSE] by WHO [on 2026-05-12]: the hold of a building, by whoever saw it."""

    def read(reader: SceneReader) -> Said:
        place = _where(reader, kind)
        reader.need(("by",), "by and who saw it")
        who = reader.name(("on",))
        return Said([{"op": "lift_building", "kind": kind, "structure": place, "by": who, "on": reader.on_day()}])

    read.__doc__ = lift.__doc__
    return read


VERBS = {
    "tick": tick, "untick": untick, "made up": made, "torque": torque, "shut": shut, "reopen": reopen,
    "behind": behind, "built": built, "left out": left, "set after all": after_all, "extra": extra,
    "visit": visit, "passed": passed, "failed": failed, "mended": mended,
    **{f"lift {kind}": lift(kind) for kind in ("insulation", "drywall", "power")},
}  # fmt: skip
