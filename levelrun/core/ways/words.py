"""Sentences about ways: walked, taken by a hop, left by it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from levelrun.core.circuits.words import known_circuit
from levelrun.core.editing import next_id
from levelrun.core.errors import TextError
from levelrun.core.job import Way
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.ways.drawn_words import bend
from levelrun.core.ways.walk import WalkLeg, parse_walk


def way(reader: SceneReader) -> Said:
    """way NAME from NODE: LEG then LEG ...: a new way, walked; way CIRCUIT|BOX by crawl|over top|straight: one that
    draws itself, bent."""
    bent = bend(reader)
    if bent is not None:
        return bent
    name = reader.token("a name for the way", "./-")
    reader.need(("from",), "from and a panel or box")
    nodes = {node.name: node.id for node in reader.scene.job.nodes}
    start = nodes[reader.need(nodes, "a panel or box by its name")]
    ident = next_id(reader.scene.job, "w")
    edits: list[dict[str, Any]] = [
        {"op": "add", "kind": "way", "item": {"id": ident, "name": name, "start": start}},
    ]
    reader.skip()
    if reader.text[reader.pos : reader.pos + 1] == ":":
        reader.pos += 1
        edits.append({"op": "walk", "way": ident, "text": _walk(reader)})
    return Said(edits)


def walk(reader: SceneReader) -> Said:
    """walk NAME: LEG then LEG ...: more legs of a way that is there."""
    found = known_way(reader)
    reader.expect([":"])
    reader.skip()
    if reader.text[reader.pos : reader.pos + 1] != ":":
        raise reader.fail("a colon and legs")
    reader.pos += 1
    return Said([{"op": "walk", "way": found.id, "text": _walk(reader)}])


def _walk(reader: SceneReader) -> str:
    """Legs up to the end of the line, read once so that a wrong word is pointed at."""
    begin, stop = reader.pos, reader.line_end()
    said = reader.text[begin:stop]
    read_legs(reader, said, begin, [node.name for node in reader.scene.job.nodes])
    reader.pos = stop
    return said


def read_legs(reader: SceneReader, said: str, begin: int, names: Sequence[str] = ()) -> list[WalkLeg]:
    """Legs of a walk text that stands in a sentence, or would, from character `begin` of it on: a wrong word is
    pointed at where it stands in the sentence. `begin` is negative by what was put before it. Raises TextError."""
    try:
        return parse_walk(reader.scene.book, said, names)
    except TextError as error:
        at = min(max(begin + (error.at or 0), 0), len(reader.text))
        reader.expected = (at, error.allowed)
        raise TextError(
            error.message, key="text", value=error.value, allowed=error.allowed, at=reader.origin[at]
        ) from None


def route(reader: SceneReader) -> Said:
    """route CIRCUIT to BOX by NAME [NAME ...]: the ways that a hop takes, in order; by nothing: none."""
    circuit = known_circuit(reader)
    reader.need(("to",), "to and a box or panel")
    nodes = {node.name: node.id for node in reader.scene.job.nodes}
    on = {name: ident for name, ident in nodes.items() if any(hop.box == ident for hop in circuit.chain)}
    box = on[reader.need(on, f"a box of {circuit.name}")]
    reader.need(("by",), "by and the ways it takes")
    path: list[str] = []
    if reader.phrase(["nothing"]) is None:
        path.append(known_way(reader).id)
        while not reader.over():
            path.append(known_way(reader).id)
    return Said([{"op": "route", "circuit": circuit.id, "box": box, "path": path}], panel=circuit.panel)


def known_way(reader: SceneReader) -> Way:
    """A way by its name, in quotes or not."""
    ways = {way.name: way for way in reader.scene.job.ways}
    named = {**{f'"{name}"': way for name, way in ways.items()}, **ways}
    return named[reader.need(named, "a way by its name")]


VERBS: dict[str, Callable[[SceneReader], Said]] = {"way": way, "walk": walk, "route": route}
