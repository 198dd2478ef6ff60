"""The line that starts a job: from a panel along a way to what stands at its end, in one sentence."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace

from levelrun.core.errors import LevelRunError
from levelrun.core.job import Box, Panel
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.start.asked import Asked, goes_on
from levelrun.core.start.either import breaker_or_load
from levelrun.core.start.line import Line
from levelrun.core.start.made import edits_for
from levelrun.core.start.more import hung_behind
from levelrun.core.start.multiwire import on_two, shared_well
from levelrun.core.start.old import joined_to
from levelrun.core.start.opening import ASKED, metal_of
from levelrun.core.start.protecting import protect
from levelrun.core.start.several import added, behind
from levelrun.core.start.sized import of_motor, of_table, rated_switch
from levelrun.core.start.there import is_alike
from levelrun.core.start.volts import with_volts


def start(reader: SceneReader) -> Said:
    """from [PANEL|BOX] [up|down] LENGTH PLACE [in METHOD] [, ...] to [bath] WHAT [50a] [for NAME 36a] [in garage]

    WHAT: outlet, machine, vehicle, range, dryer, heat pump, water heater, generator inlet, pump, sub-panel NAME,
    building NAME, dishwasher. Its parts stand in any order: where it begins, the legs, what stands at the end, the
    cable, and what is said of each. From a box, its circuit is drawn out.
    """
    at = reader.pos
    before = joined_to(reader)
    if before is not None:  # from where the line before ended, where that may be
        with suppress(LevelRunError):
            said = _started(reader, before)
            if said is not None:
                return said
    reader.pos = at
    said = _started(reader, None)
    assert said is not None
    return said


def _started(reader: SceneReader, before: Box | Panel | None) -> Said | None:
    """The line, from what stands at the end of the one before; None where it does not go on from there."""
    at = reader.pos
    if not reader.sees({**reader.panels(), **reader.boxes()}):  # from A: no article
        reader.phrase(ASKED)
    line = Line(reader, before)
    while not reader.over():
        line.part()
    line.spaced()
    if line.stood is not None and not line.said.legs and not line.ended:  # only what is there
        was = line.stood
        return Said(was.edits, panel=was.panel.id, node=was.box.id, told=was.told)
    if not line.said.legs and line.ended and not reader.scene.verb and (of_it := _more_of(reader, line.said)):
        return of_it
    asked = line.whole()
    if before is not None and not goes_on(asked):
        return None
    if (metal := metal_of(reader.text[at : reader.line_end()])) and "material" not in asked.circuit:
        asked = replace(asked, circuit={**asked.circuit, "material": metal})
    if asked.multiwire:
        asked = shared_well(reader, asked)
    said, told = with_volts(asked)
    said = rated_switch(said)
    if said.load_w is not None:  # once its volts are known
        said = replace(said, load_a=said.load_w / float(said.circuit.get("volts", said.kind.volts)))
    said, taken = breaker_or_load(reader.scene.book, said)
    said, more = of_motor(reader.scene.book, said)
    told = [*line.told, *told, *taken, *more, *of_table(said)]
    stood = line.stood.edits if line.stood is not None else []
    if line.raised is not None:
        stood = [*stood, {"op": "add", "kind": "structure", "item": line.raised.model_dump()}]
    edits = [*stood, *edits_for(line.job, reader.scene.book, said)]
    for edit in edits:
        if edit["op"] == "put_box":
            told.append(
                f"a junction box stands at the end of leg {edit['leg'] + 1}, where cable meets something else"
            )
    if said.switched_before:
        told.append("the way leads to its switch, which stands before it; how far it is from there is not said yet")
    elif said.switched:
        told.append("its switch hangs behind it, no way to that is said: `from` it, how far and `to switch`")
    made = [edit["item"]["id"] for edit in edits if edit["op"] == "add" and edit["kind"] in ("box", "panel")]
    made = made[:-1] if said.switched and not said.switched_before else made  # it goes on from the light
    end = said.there.node.id if said.there is not None else made[-1] if made else None
    if said.multiwire:
        protect(line.job, reader.scene.book, said, edits)
        edits, end, spaced = on_two(line.job, reader.scene.book, said, edits, made[-1])
        told = [*told, spaced]
    elif said.count > 1 and made:
        on = said.on.id if said.on is not None else str(added(edits, "circuit")[0]["id"])
        others, end, spaced = behind(line.job, reader.scene.book, said, edits, (on, made[-1]))
        edits, told = [*edits, *others], [*told, spaced]
    if said.more and end is not None:
        on = said.on.id if said.on is not None else str(added(edits, "circuit")[0]["id"])
        hung, end, far = hung_behind(line.job, said, edits, on, end)
        edits, told = [*edits, *hung], [*told, *far]
    if not said.multiwire:
        protect(line.job, reader.scene.book, said, edits)
    return Said(edits, panel=said.panel.id, node=end, told=told)


def _more_of(reader: SceneReader, said: Asked) -> Said | None:
    """Of a job as text a line without a way about what stands there already: what it says of that one's circuit. None
    where no such thing stands there, or several do."""
    alike = [box for box in reader.scene.job.boxes if said.kind.box.get("serves") and is_alike(box, said.kind)]
    circuit = reader.circuit_of(alike[0]) if len(alike) == 1 else None
    if circuit is None:
        return None
    values = dict(said.circuit) | ({"load_a": said.load_a} if said.load_a is not None else {})
    if not values:
        raise reader.refuse(f"{alike[0].name}, on {circuit.name}, stands there already", 0)
    edit = {"op": "set", "kind": "circuit", "id": circuit.id, "set": values}
    return Said([edit], panel=circuit.panel, told=[f"said of {circuit.name}, which is there already"])


VERBS: dict[str, Callable[[SceneReader], Said]] = {"from": start}
