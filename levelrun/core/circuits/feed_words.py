"""Sentences about what a panel is fed by, and about circuits that share a neutral."""

from __future__ import annotations

from typing import Any

from levelrun.core.circuits.parts_said import UNIT, circuit_part, method_for, wire_for
from levelrun.core.circuits.words import known_circuit, put_in
from levelrun.core.editing import next_id
from levelrun.core.job import Circuit, Job, Panel, Trench
from levelrun.core.site.scene import Said, SceneReader

USUAL_A = 60.0  # of a feeder to a small panel: common practice, no source


def feed(reader: SceneReader) -> Said:
    """feed PANEL from [PANEL] 1 60a [wire 6]: a double-pole feeder of the panel named or looked at, four wires."""
    panels = reader.panels()
    fed = panels[reader.need(panels, "a panel by its name")]
    reader.need(("from",), "from and a space")
    named = reader.phrase([name for name, panel in panels.items() if panel.id != fed.id])
    return feeder(reader, fed, panels[named] if named else None, {})


def feeder(reader: SceneReader, fed: Panel, source: Panel | None, said: dict[str, Any]) -> Said:
    """What follows a panel that is fed and the one that feeds it: a space, else the first that is free; what the
    breaker is. `said`: what stood before."""
    source = source or reader.scene.panel
    if source is None or source.id == fed.id:
        raise reader.refuse("look at the panel that feeds it first, or name it after `from`")
    item: dict[str, Any] = {
        "panel": source.id, "poles": 2, "volts": 240, "feeds": fed.id, "name": f"{fed.name} feeder",
        "breaker_a": feeding_a(fed), "method": method_for(reader.scene.book, "SER"), **said,
    }  # fmt: skip
    reader.phrase(("space", "on space", "on"))
    reader.skip()
    if UNIT.match(reader.text, reader.pos) is None and reader.phrase(["with"]) is None and not reader.over():
        item["space"] = int(reader.number("a space", 0, 84))
    while not reader.over():
        reader.phrase(("with", "and"))
        if not circuit_part(reader, item):
            raise reader.fail("amperes, wire, how many wires, or aluminum")
    item.setdefault("wire_size", wire_for(reader, item))
    told = put_in(reader, source, item)
    edits: list[dict[str, Any]] = [
        {"op": "add", "kind": "circuit", "item": {"id": next_id(reader.scene.job, "c"), **item}}
    ]
    ident = edits[0]["item"]["id"]
    laid = _as_meant(reader.scene.job, source, fed, ident)
    if laid is not None:
        line, edit = laid
        return Said(
            [*edits, *screw_out(fed), edit], panel=source.id,
            told=[*told, f"it goes through {line.name}, as was said of that trench"],
        )  # fmt: skip
    return Said([*edits, *screw_out(fed)], panel=source.id, told=told)


def between(job: Job, one: Panel, other: Panel) -> list[Trench]:
    """The trenches from the building of a panel to that of another."""
    return [line for line in job.trenches if {line.start, line.end} == {one.structure, other.structure}]


def _as_meant(job: Job, source: Panel, fed: Panel, circuit: str) -> tuple[Trench, dict[str, Any]] | None:
    """The one trench between the buildings of two panels with the edit that lays a feeder in it, where it was said
    with the trench how deep or in what pipe that goes, and nothing lies there yet; else None."""
    lines = between(job, source, fed)
    if len(lines) != 1 or any(leg.along == lines[0].id for way in job.ways for leg in way.legs):
        return None
    (line,) = lines
    said = {"depth_in": line.meant_in, "method": line.meant_method, "size": line.meant_size}
    lay = {key: value for key, value in said.items() if value not in (None, "")}
    return (line, {"op": "lay_feed", "along": line.id, "circuit": circuit, **lay}) if lay else None


def feeding_a(fed: Panel) -> float:
    """The breaker of a feeder of which nobody said it: the main that was said of the panel it feeds; else 60 A."""
    return fed.main_a if fed.main_a is not None and fed.main_a == fed.bus_a else USUAL_A


def screw_out(fed: Panel) -> list[dict[str, Any]]:
    """The edit that takes the bonding screw out of a panel that is fed; none where it is out, or is said to be left
    in."""
    if not fed.bonded or fed.disconnect_elsewhere:
        return []
    return [{"op": "set", "kind": "panel", "id": fed.id, "set": {"bonded": False}}]


def pair(reader: SceneReader) -> Said:
    """pair 9 with 11: two circuits that share a neutral, handles tied."""
    one = known_circuit(reader)
    if reader.phrase(["and"]) is None:
        reader.need(("with",), "with and a circuit")
    return paired(reader, one, known_circuit(reader))


def paired(reader: SceneReader, one: Circuit, two: Circuit) -> Said:
    """Two circuits that share a neutral."""
    if one.id == two.id:
        raise reader.refuse("a circuit cannot share with itself")
    return Said(
        [
            {"op": "set", "kind": "circuit", "id": a.id, "set": {"partner": b.id, "tied": True}}
            for a, b in ((one, two), (two, one))
        ],
        panel=one.panel,
    )


VERBS = {"feed": feed, "pair": pair}
