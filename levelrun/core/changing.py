"""Sentences that reach every field of every part: `change R-9: gangs 2, height 48 in`, `part box b9: kind light`."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from levelrun.core.editing import PartKind, made
from levelrun.core.saying import read_fields, words_of
from levelrun.core.site.scene import Said, SceneReader
from levelrun.core.subject import Sentence, Spoken
from levelrun.core.ways.parts import Leg

OWN = ("id",)


def sentences_of(kinds: Mapping[str, PartKind]) -> dict[str, Sentence]:
    """The sentences about the fields of parts of these kinds."""

    def change(reader: SceneReader) -> Said:
        """change NAME: FIELD VALUE, FIELD VALUE ...; change leg 3 of WAY: FIELD VALUE ..."""
        if (leg := _leg(reader)) is not None:
            return leg
        named = _named(reader, kinds)
        kind, part = named[reader.need(named, "what is changed, by its name")]
        reader.colon(words_of(kind.model))
        values = read_fields(reader, kind.model, reader.over, _free(kind))
        if not values:
            raise reader.fail("a field")
        return Said([{"op": "set", "kind": kind.name, "id": part.id, "set": values}])

    def part(reader: SceneReader) -> Said:
        """part KIND ID: FIELD VALUE, ...: a part with every field as it is said, or as usual."""
        kind = kinds[reader.need(kinds, "a kind of part")]
        ident = reader.token("an id")
        reader.colon(words_of(kind.model))
        values = read_fields(reader, kind.model, reader.over, _free(kind))
        whole = made(kind.model, {"id": ident, **values}, "part").model_dump(mode="json")
        return Said([{"op": "add", "kind": kind.name, "item": whole}])

    def remove(reader: SceneReader) -> Said:
        """remove NAME, delete NAME and NAME: a box, a circuit, a room, a way … that nothing else needs."""
        named = _with_spaces(reader, kinds)
        edits: list[dict[str, Any]] = []
        while not edits or reader.phrase(["and"]) is not None or not reader.over():
            kind, part = named[reader.need(named, "what is removed, by its name")]
            if kind.name == "box" and reader.circuit_of(part) is not None:
                edits.append({"op": "unchain", "boxes": [part.id]})
            edits.append({"op": "drop", "kind": kind.name, "id": part.id})
        return Said(edits)

    def rename(reader: SceneReader) -> Said:
        """rename NAME to NEW: another name for what has one."""
        named = _with_spaces(reader, kinds)
        kind, part = named[reader.need(named, "what is renamed, by its name")]
        if "name" not in kind.model.model_fields:
            raise reader.refuse(f"a {kind.name} has no name")
        reader.need(("to", "as"), "to and its new name")
        return Said([{"op": "set", "kind": kind.name, "id": part.id, "set": {"name": reader.name()}}])

    return {"change": change, "part": part, "remove": remove, "delete": remove, "rename": rename}


def spoken_of(kinds: Mapping[str, PartKind]) -> Spoken:
    """The reader of what something is called: R-1 is called Den plug; label 9 Den."""

    def called(reader: SceneReader) -> Said | None:
        asked = reader.phrase(("call", "label")) is not None
        named = _with_spaces(reader, kinds)
        named |= {label: (kinds["circuit"], circuit) for label, circuit in reader.spaced().items()}
        word = reader.phrase(named)
        if word is None or (reader.phrase(("is called", "is named")) is None and not asked):
            return None
        kind, part = named[word]
        if "name" not in kind.model.model_fields:
            return None
        return Said([{"op": "set", "kind": kind.name, "id": part.id, "set": {"name": reader.name()}}])

    return called


def _with_spaces(reader: SceneReader, kinds: Mapping[str, PartKind]) -> dict[str, tuple[PartKind, Any]]:
    """Whatever has a name, and the circuits of the panel looked at by their spaces: circuit 14, breaker 1/3."""
    by_word = {word: (kinds["circuit"], circuit) for word, circuit in reader.circuits_by_word().items()}
    return (
        by_word
        | _named(reader, kinds)
        | {
            f"{word} {label}": (kinds["circuit"], circuit)
            for label, circuit in reader.spaced().items()
            for word in ("circuit", "breaker")
        }
    )


def _free(kind: PartKind) -> list[str]:
    return [name for name in kind.model.model_fields if name not in OWN]


def _named(reader: SceneReader, kinds: Mapping[str, PartKind]) -> dict[str, tuple[PartKind, Any]]:
    """Whatever has a name, by it, with or without quotes: of equal names the box or panel. What has none, by its kind
    and id."""
    job = reader.scene.job
    found: dict[str, tuple[PartKind, Any]] = {}
    for kind in ("electrode", "service"):
        for part in getattr(job, kinds[kind].field):
            found[f"{kind} {part.id}"] = (kinds[kind], part)
    for kind in ("yard", "trench", "span", "way", "circuit", "structure", "room", "panel", "box"):
        for part in getattr(job, kinds[kind].field):
            found |= {part.name: (kinds[kind], part), f'"{part.name}"': (kinds[kind], part)}
            found[f"{kind} {part.name}"] = (kinds[kind], part)
    return found


def _leg(reader: SceneReader) -> Said | None:
    """A leg of a way by its number, where one is named here."""
    start = reader.pos
    ways = {way.name: way for way in reader.scene.job.ways if way.legs}
    if reader.phrase(["leg"]) is None or not ways:
        reader.pos = start
        return None
    number = int(reader.number("the number of a leg", 0, 200))
    reader.need(("of",), "of and a way")
    ways |= {f'"{name}"': way for name, way in ways.items()}
    way = ways[reader.need(ways, "a way by its name")]
    if number > len(way.legs):
        raise reader.refuse(f"{way.name} has {len(way.legs)} legs, not {number}")
    reader.colon(words_of(Leg))
    values = read_fields(reader, Leg, reader.over)
    return Said([{"op": "set_leg", "way": way.id, "leg": number - 1, "set": values}])
