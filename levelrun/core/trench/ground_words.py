"""Sentences about electrodes and the service of a building."""

from __future__ import annotations

import re
from typing import Any

from levelrun.core.job import Structure
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.trench.yard import standing, yard_of


def rods(reader: SceneReader) -> Said:
    """rods 2 at BUILDING [8' apart] [30 ohms]: driven beside its wall."""
    return rods_at(reader, int(reader.number("how many rods", 0, 8)))


def rods_at(reader: SceneReader, count: int) -> Said:
    """What follows a count of rods: the building, how far apart, their ohms. The one building that is fed from
    another without saying so."""
    structure = _fed_alone(reader)
    if structure is None or reader.sees(["at"]):
        reader.need(("at",), "at and a building")
        names = reader.buildings()
        structure = names[reader.need(names, "a building")]
    apart, ohms = 96.0, None
    while not reader.over():
        start = reader.pos
        number = re.match(r"\s*(\d+(?:\.\d+)?)\s*ohms?\b", reader.text[start:])
        if number:
            ohms, reader.pos = float(number[1]), start + number.end()
            continue
        apart = reader.length()
        reader.need(("apart",), "apart")
    here = yard_of(reader.scene.job).building(structure.id) or standing(structure, ())
    left, low, _, _ = here.shape.bounds
    known = sum(item.structure == structure.id and item.kind == "rod" for item in reader.scene.job.electrodes)
    made = [
        {"structure": structure.id, "x_in": left + 24 + (known + number) * apart, "y_in": low - 24, "ohms": ohms}
        for number in range(count)
    ]  # fmt: skip
    return Said([{"op": "add", "kind": "electrode", "item": item} for item in made])


def _fed_alone(reader: SceneReader) -> Structure | None:
    """The one building whose panel a panel of another building feeds."""
    job = reader.scene.job
    ends = [(job.node(c.panel).structure, job.node(c.feeds).structure) for c in job.circuits if c.feeds is not None]
    fed = {there for here, there in ends if here != there}
    return job.structure(fed.pop()) if len(fed) == 1 else None


def footing(reader: SceneReader) -> Said:
    """footing electrode at BUILDING: a steel bar in the footing, that is there."""
    reader.need(("at",), "at and a building")
    names = reader.buildings()
    structure = names[reader.need(names, "a building")]
    return Said([{"op": "add", "kind": "electrode", "item": {"structure": structure.id, "kind": "footing"}}])


def service(reader: SceneReader) -> Said:
    """service BUILDING overhead|underground [200 A] [wire 4/0] [held 14' high] [meter 5'6]."""
    names = reader.buildings()
    structure = names[reader.need(names, "a building")]
    item: dict[str, Any] = {"structure": structure.id}
    item["entry"] = reader.need(("overhead", "underground"), "overhead or underground")
    while not reader.over():
        start = reader.pos
        amps = re.match(r"\s*(\d+)\s*a(?:mps?)?\b", reader.text[start:], re.IGNORECASE)
        if amps:
            item["rating_a"], reader.pos = float(amps[1]), start + amps.end()
            continue
        word = reader.need(("wire", "held", "meter", "200 A"), "amperes, wire, held or meter")
        if word == "wire":
            item["wire_size"] = reader.token("a wire size", "/-")
            item["material"] = reader.phrase(["cu", "al"]) or "al"
        elif word == "held":
            item["attach_in"] = reader.length()
            reader.phrase(["high"])
        else:
            item["meter_in"] = reader.length()
    known = next((own for own in reader.scene.job.services if own.structure == structure.id), None)
    if known is not None:
        values = {key: value for key, value in item.items() if key != "structure"}
        return Said([{"op": "set", "kind": "service", "id": known.id, "set": values}])
    return Said([{"op": "add", "kind": "service", "item": item}])


VERBS = {"rods": rods, "footing electrode": footing, "service": service}
