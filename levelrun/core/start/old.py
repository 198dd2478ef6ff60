"""A line that begins at what was there before: from an existing outlet on 5, which is drawn out."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from levelrun.core.boxes.edits import LETTERS
from levelrun.core.circuits.parts_said import circuit_part, wire_for
from levelrun.core.circuits.spaces import given_back, spaces_of
from levelrun.core.editing import next_id, next_name
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.site.naming import SMALL
from levelrun.core.site.scene import SceneReader
from levelrun.core.start.ends import ROOMS

OLD = ("existing", "old")
KINDS = {
    "outlet": "receptacle", "receptacle": "receptacle", "plug": "receptacle", "light": "light", "switch": "switch",
    "junction box": "junction", "box": "junction", "switch box": "switch", "outlet box": "receptacle",
    "light box": "light", "fixture": "light", "ceiling box": "light",
}  # fmt: skip
KINDS |= {f"{word}s": kind for word, kind in KINDS.items()}
TWO_PRONG = ("two prong", "two-prong", "2 prong", "2-prong", "ungrounded")
SWAP = ("replace", "swap out", "swap", "change out", "change")
_GFCI = ("gfci outlets", "gfci receptacles", "gfci outlet", "gfci receptacle", "gfcis", "gfci")
BY_GFCI = tuple(f"{led} {the}{gfci}" for led in ("with", "for", "to") for the in ("", "a ") for gfci in _GFCI)
USUAL_A = 15.0  # an old circuit of which nobody said the breaker


def joined_to(reader: SceneReader) -> Box | Panel | None:
    """What a line goes on from that names no beginning: what stands at the end of the one that it is joined to, or
    the old box that was set last and from which nothing goes on yet. None where there is none."""
    scene = reader.scene
    if scene.node_id is not None:
        return scene.job.node(scene.node_id)
    last = scene.job.boxes[-1] if scene.job.boxes else None
    if last is None or not last.old or (on := reader.circuit_of(last)) is None:
        return None
    return last if on.chain[-1].box == last.id else None


@dataclass(frozen=True)
class Stood:
    """What was there: its box and its circuit, the edits that say so, and what is told of it."""

    panel: Panel
    box: Box
    on: Circuit
    edits: list[dict[str, Any]]
    told: list[str]


def old_here(reader: SceneReader) -> Stood | None:
    """An existing outlet in the bedroom on 5, 15a; replace a two-prong outlet with a gfci: its parts in any order.
    None where none is named here. Where the breaker is not said its circuit has no space, which a finding asks."""
    start = reader.pos
    swapped = old = reader.phrase(SWAP) is not None
    reader.phrase(SMALL)
    old |= reader.phrase(OLD) is not None
    use = reader.phrase(ROOMS)
    old |= reader.phrase(OLD) is not None
    item: dict[str, Any] = {"equipment_ground": False} if reader.phrase(TWO_PRONG) is not None else {}
    old |= bool(item)
    kind = reader.phrase(KINDS)
    if kind is None and swapped and reader.phrase(["it"]) is not None:
        kind = "outlet"
    if kind is None:
        reader.pos = start
        return None
    use, space = _parts(reader, item, use)
    protects = ""
    if swapped and KINDS[kind] == "receptacle" and reader.phrase(BY_GFCI) is not None:
        protects = "gfci"
        use, more = _parts(reader, item, use)
        space = space if more is None else more
    elif swapped:
        reader.pos = start
        return None
    job, panel = reader.scene.job, reader.scene.panel
    if not old and (space is None or panel is None or _circuit_on(job, panel, space) is not None):
        reader.pos = start  # the light on 5, where nothing of this job is on 5, was there before
        return None
    if panel is None:
        raise reader.refuse("there is no panel yet: say `panel H 100a 16 spaces` first", start)
    last = joined_to(reader) if swapped and not use and space is None else None
    if isinstance(last, Box) and last.old and last.kind == KINDS[kind] and (on := reader.circuit_of(last)):
        edit = {"op": "set", "kind": "box", "id": last.id, "set": {"protects": protects}}
        return Stood(panel, last, on, [edit], [])
    letter = LETTERS[KINDS[kind]]
    box = Box(
        id=next_id(job, "b"), name=next_name(job, letter), structure=panel.structure, kind=KINDS[kind], old=True,
        use=ROOMS[use] if use else "", protects=protects,
    )  # fmt: skip
    add = {"op": "add", "kind": "box", "item": box.model_dump(exclude_defaults=True)}
    there = _circuit_on(job, panel, space) if space is not None else None
    if there is not None:
        return Stood(panel, box, there, [add, {"op": "chain", "circuit": there.id, "boxes": [box.id]}], [])
    told = []
    if "breaker_a" not in item:
        item["breaker_a"] = USUAL_A
        which = f"circuit {space}" if space is not None else "its circuit"
        told.append(f"{which} is taken to be of 15 A on No. 14: read the breaker and look at the wire")
    name = f"Circuit {space}" if space is not None else f"Circuit of {box.name}"
    item = {
        "id": next_id(job, "c"), "name": name, "panel": panel.id, "space": space,
        "wire_size": wire_for(reader, item), **item, "chain": [{"box": box.id, "after": None}],
    }  # fmt: skip
    circuit = Circuit.model_validate(item)
    edits = [
        add,
        *(given_back(panel, space) if space is not None else []),
        {"op": "add", "kind": "circuit", "item": item},
    ]
    return Stood(panel, box, circuit, edits, told)


def _circuit_on(job: Job, panel: Panel, space: int) -> Circuit | None:
    return next((c for c in job.circuits if c.panel == panel.id and space in spaces_of(c)), None)


def _parts(reader: SceneReader, item: dict[str, Any], use: str | None) -> tuple[str | None, int | None]:
    """Its room, and the space of its breaker; amperes, wire and whether it has a ground go to the circuit."""
    space: int | None = None
    while True:
        start = reader.pos
        if reader.phrase(["in"]) is not None and (word := reader.phrase(ROOMS)) is not None:
            use = word
            continue
        reader.pos = start
        if reader.phrase(("on circuit", "on space", "on breaker", "on")) is not None:
            reader.skip()
            space = int(reader.number("a space of the panel", 0, 84))
            continue
        reader.pos = start
        if not circuit_part(reader, item):
            reader.pos = start
            return use, space
        reader.phrase(("breaker", "circuit"))


def with_it(job: Job, stood: Stood) -> Job:
    """The job as its edits leave it, so far as the rest of the line asks: ids and names are taken."""
    others = tuple(c for c in job.circuits if c.id != stood.on.id)
    return job.model_copy(update={"boxes": (*job.boxes, stood.box), "circuits": (*others, stood.on)})
