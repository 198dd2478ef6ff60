"""The job as one: what the user said. Everything else follows from it through `plan`."""

from __future__ import annotations

from collections import Counter
from typing import Annotated, Literal

from annotated_types import MaxLen
from pydantic import Field, model_validator

from levelrun.core.boxes.parts import Box, Panel
from levelrun.core.buying.parts import Price, Purchase, Stock, Want
from levelrun.core.circuits.parts import Circuit
from levelrun.core.job.shop import Habits, LocalNote
from levelrun.core.part import Frozen, Name, Text
from levelrun.core.roughin.parts import Built, Card, Closing, Fault, Hold, Photo, Visit
from levelrun.core.site.parts import Fixture, Opening, Room, Structure
from levelrun.core.testing.parts import Measured
from levelrun.core.trench.parts import Electrode, Service, Span, Trench, YardPart
from levelrun.core.ways.parts import Way

FORMAT = "levelrun-job"
FORMAT_VERSION = 3
MOST_LEGS, MOST_HOPS, MOST_IN_A_ROOM = 2000, 2000, 300
PARTS = (
    "structures", "rooms", "openings", "fixtures", "panels", "boxes", "yard", "trenches", "spans", "ways", "circuits",
    "electrodes", "services", "holds", "prices", "stock", "wants", "purchases", "cards", "built", "closings",
    "photos", "visits", "faults", "measured",
)  # fmt: skip


class Job(Frozen):
    """The whole job as one file. `format_version` grows when an older reader could not read it."""

    format: Literal["levelrun-job"] = "levelrun-job"
    format_version: Annotated[int, Field(strict=True, ge=1)] = FORMAT_VERSION
    name: Name
    rules: Literal["us-2023", "us-2020", "ca-2021"] = "us-2023"
    remarks: Text = ""
    habits: Habits = Habits()
    notes: tuple[LocalNote, ...] = Field((), max_length=60)
    structures: tuple[Structure, ...] = Field((), max_length=60)
    rooms: tuple[Room, ...] = Field((), max_length=300)
    openings: tuple[Opening, ...] = Field((), max_length=1000)
    fixtures: tuple[Fixture, ...] = Field((), max_length=1000)
    panels: tuple[Panel, ...] = Field((), max_length=60)
    boxes: tuple[Box, ...] = Field((), max_length=1500)
    yard: tuple[YardPart, ...] = Field((), max_length=120)
    trenches: tuple[Trench, ...] = Field((), max_length=40)
    spans: tuple[Span, ...] = Field((), max_length=40)
    ways: tuple[Way, ...] = Field((), max_length=300)
    circuits: tuple[Circuit, ...] = Field((), max_length=300)
    electrodes: tuple[Electrode, ...] = Field((), max_length=120)
    services: tuple[Service, ...] = Field((), max_length=20)
    holds: tuple[Hold, ...] = Field((), max_length=120)
    prices: tuple[Price, ...] = Field((), max_length=2000)
    stock: tuple[Stock, ...] = Field((), max_length=300)
    wants: tuple[Want, ...] = Field((), max_length=300)
    purchases: tuple[Purchase, ...] = Field((), max_length=2000)
    cards: tuple[Card, ...] = Field((), max_length=1600)
    built: tuple[Built, ...] = Field((), max_length=600)
    closings: tuple[Closing, ...] = Field((), max_length=3000)
    photos: tuple[Photo, ...] = Field((), max_length=2000)
    visits: tuple[Visit, ...] = Field((), max_length=300)
    faults: tuple[Fault, ...] = Field((), max_length=600)
    measured: tuple[Measured, ...] = Field((), max_length=6000)

    @model_validator(mode="after")
    def _whole(self) -> Job:
        if self.format_version > FORMAT_VERSION:
            raise ValueError(
                f"format_version {self.format_version} comes from a newer Level Run; allowed: up to {FORMAT_VERSION}"
            )
        return self.checked()

    def checked(self) -> Job:
        """The job itself, where its parts fit together. Raises ValueError that says what does not."""
        for field in PARTS:
            most = next(rule.max_length for rule in Job.model_fields[field].metadata if isinstance(rule, MaxLen))
            _few(field, len(getattr(self, field)), most, "the job")
        _few("legs", sum(len(way.legs) for way in self.ways), MOST_LEGS, "the job")
        _few("chain", sum(len(circuit.chain) for circuit in self.circuits), MOST_HOPS, "the job")
        _unique("id", self.ids())
        _unique("name", [node.name.casefold() for node in self.nodes])
        self._references()
        return self

    def _references(self) -> None:
        """Each reference is looked up in place, since this is asked at every edit; `_unknown` says what is wrong."""
        structures = {item.id for item in self.structures}
        levels = {level.id for item in self.structures for level in item.levels}
        rooms = {room.id: room for room in self.rooms}
        panels = {item.id for item in self.panels}
        nodes = panels | {box.id for box in self.boxes}
        ways = {way.id for way in self.ways}
        lines = {item.id for item in self.lines}
        for room in self.rooms:
            if room.level not in levels:
                raise _unknown("level", room.name, room.level)
        standing: tuple[Opening | Fixture, ...] = (*self.openings, *self.fixtures)
        for part in standing:
            if part.room not in rooms:
                raise _unknown("room", part.kind, part.room)
            _on_side(part.kind, part.side, rooms[part.room])
        crowd: Counter[str] = Counter()
        for node in self.nodes:
            if node.structure not in structures:
                raise _unknown("structure", node.name, node.structure)
            if node.room is not None:
                if node.room not in rooms:
                    raise _unknown("room", node.name, node.room)
                _on_side(node.name, node.side, rooms[node.room])
                crowd[node.room] += 1
        for room_id, count in crowd.items():
            _few("boxes", count, MOST_IN_A_ROOM, rooms[room_id].name)
        for way in self.ways:
            if way.start not in nodes:
                raise _unknown("start", way.name, way.start)
            for index, leg in enumerate(way.legs):
                if leg.end.node is not None and leg.end.node not in nodes:
                    raise _unknown(f"legs.{index}.end.node", way.name, leg.end.node)
                if leg.along is not None and leg.along not in lines:
                    raise _unknown(f"legs.{index}.along", way.name, leg.along)
        for circuit in self.circuits:
            if circuit.panel not in panels:
                raise _unknown("panel", circuit.name, circuit.panel)
            if circuit.feeds is not None and circuit.feeds not in panels:
                raise _unknown("feeds", circuit.name, circuit.feeds)
            for hop in circuit.chain:
                if hop.box not in nodes:
                    raise _unknown("chain", circuit.name, hop.box)
                for way_id in hop.path:
                    if way_id not in ways:
                        raise _unknown("path", circuit.name, way_id)

        self._outside(structures, ways)

    def _outside(self, structures: set[str], ways: set[str]) -> None:
        """What lies between buildings names buildings and ways that are there."""
        for line in self.lines:
            for key, at in (("start", line.start), ("end", line.end)):
                if at is not None and at not in structures:
                    raise _unknown(key, line.name, at)
        for trench in self.trenches:
            for index, reading in enumerate(trench.readings):
                if reading.way is not None and reading.way not in ways:
                    raise _unknown(f"readings.{index}.way", trench.name, reading.way)
        about: tuple[Electrode | Service, ...] = (*self.electrodes, *self.services)
        for item in about:
            if item.structure not in structures:
                raise _unknown("structure", item.id, item.structure)
        held = {trench.id for trench in self.trenches}
        for hold in self.holds:
            if hold.place not in (held if hold.kind == "backfill" else structures):
                raise _unknown("place", hold.kind, hold.place)
        for visit in self.visits:
            if visit.place not in (held if visit.kind == "backfill" else structures):
                raise _unknown("place", f"visit {visit.kind}", visit.place)
        self._remembered(held)
        tested = {circuit.id for circuit in self.circuits} | {panel.id for panel in self.panels}
        for read in self.measured:
            if read.of not in tested:
                raise _unknown("of", f"reading {read.id}", read.of)

    def _remembered(self, trenches: set[str]) -> None:
        """What is remembered of the work is about something that is there."""
        if not (self.cards or self.built or self.closings or self.photos or self.faults):
            return
        rooms = {room.id: room for room in self.rooms}
        nodes = {node.id for node in self.nodes}
        circuits = {circuit.id for circuit in self.circuits}
        visits = {visit.id for visit in self.visits}
        _unique("card of", [card.node for card in self.cards])
        _unique("closed", [f"{item.room} {item.surface}" for item in self.closings])
        known = (("card", self.cards), ("built", self.built), ("fault", self.faults), ("photo", self.photos))
        for name, about in known:
            for item in about:
                if item.node is not None and item.node not in nodes:
                    raise _unknown("node", f"{name} {item.id}", item.node)
        for own in self.built:
            if own.circuit is not None and own.circuit not in circuits:
                raise _unknown("circuit", f"built {own.id}", own.circuit)
        placed: tuple[Built | Closing | Photo, ...] = (*self.built, *self.closings, *self.photos)
        for spot in placed:
            if spot.room is None:
                continue
            if spot.room not in rooms:
                raise _unknown("room", spot.id, spot.room)
            _on_side(spot.id, int(spot.surface) if spot.surface.isdigit() else None, rooms[spot.room])
        for photo in self.photos:
            if photo.trench is not None and photo.trench not in trenches:
                raise _unknown("trench", f"photo {photo.id}", photo.trench)
        for fault in self.faults:
            if fault.visit not in visits:
                raise _unknown("visit", f"fault {fault.id}", fault.visit)

    @property
    def nodes(self) -> tuple[Panel | Box, ...]:
        """Panels, then boxes: whatever a way may start or end at."""
        return self.panels + self.boxes

    @property
    def lines(self) -> tuple[Trench | Span, ...]:
        """Trenches, then spans: whatever a leg may lie along."""
        return (*self.trenches, *self.spans)

    def ids(self) -> list[str]:
        """Every id in use, one after another."""
        levels = (level.id for item in self.structures for level in item.levels)
        return [*levels, *(item.id for field in PARTS for item in getattr(self, field))]

    def node(self, node_id: str) -> Panel | Box:
        """The panel or box with this id. Raises KeyError."""
        for item in self.nodes:
            if item.id == node_id:
                return item
        raise KeyError(node_id)

    def room(self, room_id: str) -> Room:
        """The room with this id. Raises KeyError."""
        for item in self.rooms:
            if item.id == room_id:
                return item
        raise KeyError(room_id)

    def structure(self, structure_id: str) -> Structure:
        """The structure with this id. Raises KeyError."""
        for item in self.structures:
            if item.id == structure_id:
                return item
        raise KeyError(structure_id)

    def structure_of(self, level_id: str) -> Structure:
        """The structure that a level belongs to. Raises KeyError."""
        for item in self.structures:
            if any(level.id == level_id for level in item.levels):
                return item
        raise KeyError(level_id)

    def trench(self, trench_id: str) -> Trench:
        """The trench with this id. Raises KeyError."""
        for item in self.trenches:
            if item.id == trench_id:
                return item
        raise KeyError(trench_id)

    def way(self, way_id: str) -> Way:
        """The way with this id. Raises KeyError."""
        for item in self.ways:
            if item.id == way_id:
                return item
        raise KeyError(way_id)


def _few(what: str, count: int, most: int, where: str) -> None:
    if count > most:
        raise ValueError(f"{what}: {count} in {where}; allowed: up to {most}")


def _unique(what: str, values: list[str]) -> None:
    if len(set(values)) == len(values):
        return
    seen: set[str] = set()
    for value in values:
        if value in seen:
            raise ValueError(f"{what} {value!r} stands twice; every {what} is used once")
        seen.add(value)


def _on_side(owner: str, side: int | None, room: Room) -> None:
    if side is not None and side >= len(room.corners):
        raise ValueError(f"side {side} of {owner!r}: {room.name!r} has walls 0 to {len(room.corners) - 1}")


def _unknown(key: str, owner: str, value: str) -> ValueError:
    return ValueError(f"{key} {value!r} of {owner!r} does not exist in this job")
