"""Boxes that a sentence names by what they are and where: the lights in Bath, Bedroom, all receptacles."""

from __future__ import annotations

from levelrun.core.boxes.contexts import room_contexts
from levelrun.core.boxes.parts import LAMPS, PLUGS
from levelrun.core.boxes.things import CALLED, OUTDOORS, SERVES
from levelrun.core.circuits.arranging import arranged
from levelrun.core.job import Box, Circuit, Panel, Room
from levelrun.core.site.scene import SceneReader

LIT = (*LAMPS, "switch")  # lights are wired with what switches them
GROUPS: dict[str, tuple[str, ...]] = {
    **{f"{plug}{s}": PLUGS for plug in ("receptacle", "outlet", "plug") for s in ("", "s")},
    "lights and switches": LIT, "lights": LIT, "light": LIT,
    "lighting": LIT, "fan": LIT, "switches": ("switch",), "fans": LIT, "smoke alarms": ("smoke",),
    "alarms": ("smoke",), "lights and alarms": (*LIT, "smoke"),
    **{f"{out} {plug}": PLUGS for out in OUTDOORS for plug in ("outlet", "outlets", "receptacle", "receptacles")},
    **dict.fromkeys(("everything", "all boxes", "boxes", "every box"), ()),
}  # fmt: skip
SERVED = {
    **dict.fromkeys(("counter outlets", "counter receptacles", "counter outlet"), "counter"),
    **SERVES, **{word: serves for word, serves in CALLED.items() if serves},
}  # fmt: skip


def group_said(reader: SceneReader) -> tuple[str, list[Box]] | None:
    """What is wanted of boxes by their kind and room, and those of them that are on no circuit: the lights in Bath
    and Hall, bedroom receptacles, all lights. None where no such words stand here. Refuses where none is left."""
    start = reader.pos
    every = reader.phrase(("all", "all the", "all of")) is not None
    rooms = _rooms(reader)
    word = reader.phrase((*GROUPS, *SERVED))
    title = reader.text[start : reader.pos]
    if word is not None and not rooms and reader.phrase(("in", "of")) is not None:
        rooms = _rooms(reader)
        if not rooms:
            reader.expect(reader.scene.rooms())
            raise reader.fail("a room by its name")
        title = ", ".join(room.name for room in rooms) + f" {word}" * (word not in ("everything", "boxes"))
    if word is None and not rooms:
        reader.pos = start
        return None
    wanted = _Wanted(word or "")
    if not rooms and not every and not wanted.anywhere and reader.scene.room is not None:
        rooms = [reader.scene.room]
    job, own = reader.scene.job, {room.id for room in rooms}
    wired = {hop.box for circuit in job.circuits for hop in circuit.chain}
    free = [box for box in job.boxes if box.id not in wired and (not own or box.room in own)]
    found = [box for box in free if wanted.meant(box)]
    found = _with_switches(found, free, wanted)
    if not found:
        what = title.strip().removeprefix("the ")
        none = wanted.serves and not any(box.serves == wanted.serves for box in job.boxes)
        none_yet = f"no box serves the {what} yet: say `outlet behind the {what}`, or `{what} outlet` and its wall"
        raise reader.refuse(none_yet if none else f"{title.strip()}: no such box is on no circuit", start)
    return title.strip(), found


def _with_switches(found: list[Box], free: list[Box], wanted: _Wanted) -> list[Box]:
    """Outlets that a switch works go with the switches of their room: with these on the circuit of its lights, where
    it has lights, else with its outlets."""
    lit = {box.room for box in free if box.kind in LAMPS}
    if wanted.kinds == LIT:
        rooms = {box.room for box in found}
        return [*found, *(box for box in free if box.switched and box.room in rooms and box.room in lit)]
    found = [box for box in found if not (box.switched and box.room in lit) or not wanted.kinds]
    rooms = {box.room for box in found if box.switched}
    return [*found, *(box for box in free if box.kind == "switch" and box.room in rooms and box not in found)]


class _Wanted:
    """What boxes a word means: of a kind, that serve an appliance, outdoors; all where no word is said."""

    def __init__(self, word: str) -> None:
        self.serves = SERVED.get(word, "")
        self.kinds = GROUPS.get(word, ())
        self.out = word.split()[0] in OUTDOORS if word else False

    @property
    def anywhere(self) -> bool:
        """Whether it is meant of all rooms where none is named."""
        return self.out or bool(self.serves)

    def meant(self, box: Box) -> bool:
        """Whether a box is one of them."""
        if self.serves:
            return box.serves == self.serves
        kind = box.kind in self.kinds if self.kinds else box.kind not in ("junction", "disconnect")
        return kind and (box.outdoors or not self.out)


def _rooms(reader: SceneReader) -> list[Room]:
    """Rooms by name, with `and` between them."""
    rooms, found = reader.scene.rooms(), list[Room]()
    boxes = {name.lower() for name in reader.boxes()}
    named = [name for name in rooms if name.lower() not in boxes]
    while (word := reader.phrase(named)) is not None:
        found.append(rooms[word])
        before = reader.pos
        if reader.phrase(["and"]) is None or not reader.sees(named):
            reader.pos = before
            break
    return found


def hops_of(
    reader: SceneReader, panel: Panel, boxes: list[Box], circuit: Circuit | None = None
) -> list[dict[str, str | None]]:
    """The hops of these boxes in a sensible order, behind those that the circuit has."""
    job = reader.scene.job
    before = circuit.chain[-1].box if circuit is not None and circuit.chain else None
    order = arranged(job, reader.scene.book, room_contexts(job, {}), panel, boxes)
    return [{"box": box, "after": after or before} for box, after in order]
