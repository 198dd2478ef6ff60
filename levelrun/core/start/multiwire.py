"""Two circuits that share a neutral at the end of one line: 12-3 multiwire 40' to 4 outlets 6' apart."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any

from levelrun.core.boxes.edits import LETTERS
from levelrun.core.circuits.spaces import occupied
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import method
from levelrun.core.editing import next_id, next_name
from levelrun.core.errors import EditError
from levelrun.core.job import Job
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.asked import Asked
from levelrun.core.start.several import added, alike, ways_on

_WORD = r"(?:multi-?\s?wire|mwbc)"
SHARED = re.compile(
    rf"(?:on\s+|as\s+|in\s+)?(?:an?\s+)?(?:{_WORD}(?:\s+(?:branch\s+)?circuits?)?"
    r"|(?:with\s+|on\s+)?(?:an?\s+)?shared\s+neutral|(?:that\s+)?shar(?:e|ing)\s+(?:a|one|the)\s+neutral)\b",
    re.IGNORECASE,
)


def on_two(
    job: Job, book: Codebook, said: Asked, edits: list[dict[str, Any]], ident: str
) -> tuple[list[dict[str, Any]], str, str]:
    """The edits of a line with its outlets on two circuits by turns, which share their neutral and are tied (210.4);
    the last of the outlets, and what is told. In pipe the wires of each go past the outlets of the other; a cable of
    three wires ends at a junction box, from which each goes on in its own."""
    way = added(edits, "way")[0]
    boxes = alike(job, said, edits, ident)
    piped = method(book, way["legs"][-1]["method"]).kind == "raceway"
    if piped and said.apart_in is None:
        raise EditError(f"how far apart are the {said.count} in the pipe? say it: `6' apart`", key="text")
    hops, more, told = (_piped if piped else _parted)(job, said, way, boxes)
    if added(edits, "circuit")[0].get("protection") == "gfci" and "protection" not in said.circuit:
        edits, guarded = _in_devices(edits, boxes if piped else boxes[:2])
        told += guarded
    one, two = _pair(job, said, added(edits, "circuit")[0])
    circuits = [{**item, "chain": own} for item, own in zip((one, two), hops, strict=True)]
    kept = [edit for edit in edits if edit["op"] != "put_box" and edit.get("kind") not in ("way", "circuit")]
    return (
        [
            *kept,
            *({"op": "add", "kind": "box", "item": box} for box in boxes[1:]),
            *({"op": "add", "kind": kind, "item": item} for kind, item in more),
            *({"op": "add", "kind": "circuit", "item": item} for item in circuits),
            *(
                {"op": "set", "kind": "circuit", "id": a["id"], "set": {"partner": b["id"], "tied": True}}
                for a, b in ((one, two), (two, one))
            ),
            *(edit for edit in edits if edit["op"] == "put_box"),
        ],
        boxes[-1]["id"],
        f"{said.count} of them by turns on two circuits that share a neutral, their handles tied{told}",
    )


Hops = list[list[dict[str, Any]]]
Made = tuple[Hops, list[tuple[str, dict[str, Any]]], str]


def _piped(job: Job, said: Asked, way: dict[str, Any], boxes: list[dict[str, Any]]) -> Made:
    """In pipe: every second outlet on each, past the one between. The last is the first circuit's, whose neutral and
    ground are those of both: they lie in every way."""
    ways = [way, *ways_on(way, boxes, said.apart_in or 0.0)]
    hops: Hops = [[], []]
    for number, box in enumerate(boxes):
        path = [item["id"] for item in ways[max(number - 1, 0) : number + 1]]
        after = boxes[number - 2]["id"] if number > 1 else None
        hops[(len(boxes) - 1 - number) % 2].append({"box": box["id"], "after": after, "path": path})
    return hops, [("way", item) for item in ways], ""


def _parted(job: Job, said: Asked, way: dict[str, Any], boxes: list[dict[str, Any]]) -> Made:
    """In cable: both to a junction box, then each to its own outlets, the first of the one beside that."""
    box = {
        "id": f"b{max(int(box['id'][1:]) for box in boxes) + 1}", "name": next_name(job, LETTERS["junction"]),
        "kind": "junction", "structure": boxes[0]["structure"], "height_in": boxes[0]["height_in"],
        "use": boxes[0]["use"], "where": boxes[0]["where"],
    }  # fmt: skip
    legs = [*way["legs"][:-1], {**way["legs"][-1], "end": {"kind": "box", "node": box["id"]}}]
    hops: Hops = [[{"box": box["id"], "after": None, "path": [way["id"]]}] for _ in range(2)]
    for number, outlet in enumerate(boxes):
        last = number < 2
        far = None if said.apart_in is None else said.apart_in * (number + 1 if last else 2)
        after = box["id"] if last else boxes[number - 2]["id"]
        hops[number % 2].append({"box": outlet["id"], "after": after, "length_in": far})
    told = f"; the cable of three wires ends at {box['name']}, from there each goes on in its own"
    return hops, [("box", box), ("way", {**way, "legs": legs})], told


def _in_devices(edits: list[dict[str, Any]], boxes: list[dict[str, Any]]) -> tuple[list[dict[str, Any]], str]:
    """Ground-fault protection in these outlets, where the place asks for it: no two breakers watch one neutral, nor
    does an outlet watch one that is shared behind it."""
    for box in boxes:
        box["protects"] = "gfci"
    plain = [
        {**edit, "item": {**edit["item"], "protection": "plain"}}
        if edit["op"] == "add" and edit["kind"] == "circuit" else edit for edit in edits
    ]  # fmt: skip
    named = ", ".join(str(box["name"]) for box in boxes)
    return plain, f"; {named} are ground-fault outlets: two such breakers cannot share a neutral"


def _pair(job: Job, said: Asked, one: dict[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    """The two circuits, one space below the other where two such are free."""
    where = occupied(said.panel, job.circuits)
    first = said.circuit.get("space", None if where.asked else next(iter(where.free_pairs), None))
    second = first + 2 if first is not None and first + 2 in where.free else None
    two = f"c{int(next_id(job, 'c')[1:]) + 1}"
    a = {**one, "half": "", "space": first, "name": f"{one['name']} A"}
    return a, {**a, "id": two, "space": second, "name": f"{one['name']} B"}


def shared_well(reader: SceneReader, said: Asked) -> Asked:
    """The line of two circuits, on two spaces one below the other. Refuses what no two of 120 V can share."""
    item = {key: value for key, value in said.circuit.items() if key != "volts"}
    said = replace(said, circuit=item)  # on 9 and 11: of 120 V each
    if said.kind.volts != 120 or said.kind.feeds or said.on is not None or said.there is not None:
        raise reader.refuse(
            "a shared neutral is that of two circuits of 120 V from a panel to outlets of their own", 0
        )
    if said.count < 2:
        raise reader.refuse("two circuits share the neutral: say how many outlets they have: `4 outlets`", 0)
    return said
