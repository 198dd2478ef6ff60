"""Sentences of the record: what was done at a box, what was torqued, which wall is shut, where things went, what an
inspector found; and the question what is behind a spot."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.job import Box, Panel, Room
from levelrun.core.roughin.asked import whats_behind
from levelrun.core.roughin.edits import ASKS
from levelrun.core.roughin.named import node_of, nodes_named
from levelrun.core.roughin.steps import MAYBE, cards_of, is_made_up, left_out, needed_steps, open_nodes
from levelrun.core.roughin.surfaces import level_of, surface_of
from levelrun.core.roughin.visit_words import VISITED
from levelrun.core.site.faces import faces, level_parts
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.site.words import OPENINGS

THINGS = ("cable", "pipe", "box", "duct", "water", "wood", "other")
ALL_IN = ("all in", "all boxes in", "everything in", "all of")
_POUNDS_NEXT = re.compile(r"\d+(?:\.\d+)?\s*(?:lb-in|in-lbs?|inch[- ]pounds)\b", re.IGNORECASE)
POUNDS = ("in-lbs", "lb-in", "in-lb", "inch pounds", "inch-pounds", "pound-inches", "pound inches")


def _rest(reader: SceneReader, word: str = "because") -> str:
    if not reader.phrase([word]):
        return ""
    end = reader.line_end()
    said = reader.text[reader.pos : end].strip()
    reader.pos = end
    return said


def tick(reader: SceneReader) -> Said:
    """tick BOX [jacket, free …] [on 2026-05-12]: steps that are done at a box or panel; none named: all of them."""
    return ticked(reader, node_of(reader))


def untick(reader: SceneReader) -> Said:
    """untick BOX [jacket …]: steps that are not done after all; none named: all of them."""
    return ticked(reader, node_of(reader), done=False)


def steps_of(node: Box | Panel) -> dict[str, str]:
    """The steps of a card by their words."""
    return {step.removeprefix("ask_").replace("_", " "): step for step in (*needed_steps(node), *MAYBE, *ASKS)}


def ticked(reader: SceneReader, node: Box | Panel, done: bool = True) -> Said:
    """What follows a box or panel: steps, none for all of them, and the day."""
    steps = steps_of(node)
    named: list[str] = []
    while (word := reader.phrase(steps)) is not None:
        named.append(steps[word])
        reader.phrase(["and"])
    reader.phrase(["done"])
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
    """made up BOX [on 2026-05-12], make up BOX; made up all in ROOM: every step of it is done."""
    rooms = reader.scene.rooms()
    if not reader.phrase(ALL_IN) and (reader.sees(nodes_named(reader)) or not reader.sees(rooms)):
        return ticked(reader, node_of(reader))
    return made_in(reader, reader.room_named())


def made_in(reader: SceneReader, room: Room) -> Said:
    """All open boxes of a room, and the day."""
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
    node = node_of(reader)
    screws = screws_of(reader, node)
    reader.skip()
    if not reader.sees(screws) and _POUNDS_NEXT.match(reader.text, reader.pos) is not None:
        return torqued(reader, node, "main")  # 250 in-lb, with its unit: of the panel that is its main
    return torqued(reader, node, reader.need(screws, "main, or the spaces of a circuit"))


def screws_of(reader: SceneReader, node: Box | Panel) -> tuple[str, ...]:
    """What is torqued in a panel: its main, each circuit by its spaces."""
    return ("main", *(reader.circuit_label(c) for c in reader.scene.job.circuits if c.panel == node.id))


def torqued(reader: SceneReader, node: Box | Panel, at: str) -> Said:
    """What follows a screw: as read, what the label asks, and the day."""
    reader.phrase(["to", "at"])
    read = reader.number("pound-inches", 0, 1000)
    reader.phrase(POUNDS)
    asked = None
    if reader.phrase(["label"]):
        asked = reader.number("pound-inches of the label", 1, 1000)
        reader.phrase(POUNDS)
    return Said(
        [{"op": "torque", "node": node.id, "at": at, "lb_in": read, "label_lb_in": asked, "on": reader.on_day()}]
    )


def surface(reader: SceneReader) -> tuple[Room, str]:
    """ROOM north, ROOM ceiling, the north wall of ROOM; without the room the one looked at."""
    rooms = reader.scene.rooms()
    word = reader.phrase(rooms)
    room = rooms[word] if word is not None else reader.room_ahead() or reader.scene.room
    if room is None:
        reader.expect(list(rooms))
        raise reader.fail("a room by its name, and which of its walls")
    flat = reader.phrase(["ceiling", "floor"])
    if flat is not None:
        if reader.phrase(["of", "in"]) is not None:
            reader.again(room)
        return room, flat
    reader.expect([*(wall.name for wall in walls_of(room)), "ceiling", "floor"])
    wall = reader.wall(room)
    reader.phrase(["wall"])
    return room, str(wall.index)


def shut(reader: SceneReader) -> Said:
    """shut [ROOM] north|ceiling [on 2026-05-12] [because ...]: a wall is closed; while it waits, say why."""
    return closed(reader, *surface(reader))


def closed(reader: SceneReader, room: Room, side: str) -> Said:
    """What follows a wall that is shut: the day, and why it is shut all the same."""
    edit = {"op": "close_wall", "room": room.id, "surface": side, "on": reader.on_day()}
    why = _rest(reader)
    return Said([{**edit, **({"why": why} if why else {})}], room=room.id)


def reopen(reader: SceneReader) -> Said:
    """reopen [ROOM] north|ceiling: a wall that was shut is open again."""
    return opened(*surface(reader))


def opened(room: Room, side: str) -> Said:
    """A wall that is open again."""
    return Said([{"op": "open_wall", "room": room.id, "surface": side}], room=room.id)


def _spot(reader: SceneReader, room: Room, surface: str) -> tuple[float, float]:
    """4'2 [from the door|right|left] at 40", at 4'2 up 40": along the wall, then over the floor."""
    reader.phrase(["at"])
    along = reader.position()
    if reader.phrase(["from the", "from"]):
        along = _from(reader, room, surface, along)
    if reader.phrase(["up", "and"]) is None:
        reader.need(("at",), "at and how high over the floor")
    height = reader.position()
    reader.phrase(["up", "high", "over the floor", "off the floor"])
    return along, height


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
    room, side = surface(reader)
    at, height = _spot(reader, room, side)
    scene = reader.scene
    answer = whats_behind(scene.job, scene.book, room.id, side, at, height)
    near = "; ".join(f"{item.name} {item.text}" for item in answer.near[:4])
    return Said([], room=room.id, told=[f"{answer.readings}: {answer.text} {near}".strip()])


def built(reader: SceneReader) -> Said:
    """built BOX 4'2 at 40" [on 2026-05-12]; built CIRCUIT to BOX in [ROOM] north: 0 at 36", 4'2 at 36": where a box
    or a cable really went."""
    job = reader.scene.job
    nodes = {node.name: node for node in job.nodes}
    circuits = {circuit.name: circuit for circuit in job.circuits}
    circuits |= reader.spaced()
    word = reader.need([*nodes, *circuits], "a box, or a circuit and to which box")
    if word in nodes:
        return built_at(reader, nodes[word])
    circuit = circuits[word]
    reader.need(("to",), "to and the box that the cable goes to")
    names = {nodes_name(job.nodes, hop.box): hop.box for hop in circuit.chain}
    box = names[reader.need(names, "a box of this circuit")]
    reader.need(("in",), "in and a wall")
    room, side = surface(reader)
    reader.colon()
    points = _corners(reader, room, side, 2)
    edit = {"op": "built_cable", "circuit": circuit.id, "box": box, "room": room.id, "surface": side}
    return Said([{**edit, "points": points, "on": reader.on_day()}], room=room.id)


def built_at(reader: SceneReader, node: Box | Panel) -> Said:
    """What follows a box that went elsewhere: where it is on its wall, and the day."""
    if node.room is None:
        raise reader.refuse(f"{node.name} stands in no drawn room")
    job = reader.scene.job
    room = job.room(node.room)
    at, height = _spot(reader, room, surface_of(node, level_of(job, room)))
    return Said([{"op": "built_box", "node": node.id, "at_in": at, "height_in": height, "on": reader.on_day()}])


def nodes_name(nodes: tuple[Box | Panel, ...], ident: str) -> str:
    """The name of a node by its id."""
    return next((node.name for node in nodes if node.id == ident), ident)


def _corners(reader: SceneReader, room: Room, surface: str, least: int) -> list[tuple[float, float]]:
    points = [_spot(reader, room, surface)]
    while reader.phrase(["to", "and"]) is not None or len(points) < least:
        points.append(_spot(reader, room, surface))
    return points


def left(reader: SceneReader) -> Said:
    """left out BOX [on 2026-05-12] [because ...]: it was not set."""
    return left_of(reader, node_of(reader))


def left_of(reader: SceneReader, node: Box | Panel) -> Said:
    """What follows a box that was not set: the day and why."""
    return Said([{"op": "left_out", "node": node.id, "on": reader.on_day(), "why": _rest(reader)}])


def after_all(reader: SceneReader) -> Said:
    """set after all BOX: it was left out, and is there now."""
    return after_all_of(node_of(reader))


def after_all_of(node: Box | Panel) -> Said:
    """A box that is there after all."""
    return Said([{"op": "left_out", "node": node.id, "out": False}])


def extra(reader: SceneReader) -> Said:
    """extra pipe in [ROOM] north: 2' at 10" [to 5' at 10"] [on 2026-05-12] [called ...]: not planned, and there."""
    what = reader.need(THINGS, "what it is")
    reader.need(("in",), "in and a wall")
    room, side = surface(reader)
    reader.colon()
    points = _corners(reader, room, side, 1)
    edit = {"op": "extra", "room": room.id, "surface": side, "what": what, "points": points, "on": reader.on_day()}
    return Said([{**edit, "remarks": _rest(reader, "called")}], room=room.id)


VERBS = {
    "tick": tick, "untick": untick, "made up": made, "make up": made, "torque": torque, "shut": shut,
    "reopen": reopen, "behind": behind, "built": built, "left out": left, "set after all": after_all, "extra": extra,
    **VISITED,
}  # fmt: skip
