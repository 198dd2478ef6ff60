"""Rules over all circuits: boxes on none or on two, circuits every dwelling wants, one trip too many."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property, lru_cache

from levelrun.core.boxes.parts import LAMPS, PLUGS, is_worked
from levelrun.core.circuits.codes import finding
from levelrun.core.circuits.spaces import called
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Circuit, Job, Panel, Room, Structure
from levelrun.core.kept import Standing
from levelrun.core.rulebook import Rule
from levelrun.core.site.geometry import walls_of
from levelrun.core.site.lived import dwellings

FOR_PANELS = ("utility", "garage", "basement", "laundry", "shop", "storage")
NOT_FOR_PANELS = ("bath", "closet", "stairs", "crawl", "attic")
WIRED = ("receptacle", "switch", "light", "fan", "smoke", "equipment", "device", "tail")


@dataclass(frozen=True, eq=False, slots=True)
class Wired:
    """A box as the rules over all circuits know it: what it is, and in which room, not where it stands there."""

    id: str
    name: str
    kind: str
    serves: str
    room: str | None
    structure: str
    worked: bool


@lru_cache(maxsize=4096)
def _wired(id_: str, name: str, kind: str, serves: str, room: str | None, structure: str, worked: bool) -> Wired:
    """The same one for the same words."""
    return Wired(id_, name, kind, serves, room, structure, worked)


@dataclass(frozen=True, kw_only=True, eq=False)
class House:
    """A job's circuits and boxes, looked up both ways. The same one until a circuit, a room, a panel or what a box is
    changes: a box that moves along its wall changes nothing here."""

    book: Codebook
    structures: tuple[Structure, ...]
    rooms: dict[str, Room]
    panels: dict[str, Panel]
    circuits: tuple[Circuit, ...]
    boxes: dict[str, Wired]
    on: dict[str, list[Circuit]]
    lived: dict[str, bool | None]

    @cached_property
    def wired(self) -> list[tuple[Wired, Room | None, list[Circuit]]]:
        """Every box that is on a circuit, with its room."""
        boxes, rooms = self.boxes, self.rooms
        return [(boxes[at], rooms.get(boxes[at].room or ""), own) for at, own in self.on.items() if at in boxes]

    @cached_property
    def loose(self) -> list[Wired]:
        """Boxes in rooms that want wire and are on no circuit."""
        boxes = self.boxes.values()
        return [box for box in boxes if box.room is not None and box.kind in WIRED and box.id not in self.on]

    @cached_property
    def levels(self) -> dict[str, Structure]:
        """The structure that each level belongs to."""
        return {level.id: item for item in self.structures for level in item.levels}


_houses = Standing[House](1)


def house_of(job: Job, book: Codebook) -> House:
    """The look-ups of a job."""
    boxes = [
        _wired(box.id, box.name, box.kind, box.serves, box.room, box.structure, is_worked(box)) for box in job.boxes
    ]
    lived = dwellings(job)

    def made() -> House:
        on: dict[str, list[Circuit]] = {}
        for circuit in job.circuits:
            for box in dict.fromkeys(hop.box for hop in circuit.chain):
                on.setdefault(box, []).append(circuit)
        return House(
            book=book,
            structures=job.structures,
            rooms={room.id: room for room in job.rooms},
            panels={panel.id: panel for panel in job.panels},
            circuits=job.circuits,
            boxes={box.id: box for box in boxes},
            on=on,
            lived=lived,
        )

    return _houses.get(None, (book, job.structures, job.rooms, job.panels, job.circuits, lived, *boxes), made)


def unplaced_rule(house: House) -> Iterator[Finding]:
    """A panel in no room, where its circuits go to rooms of its building that are drawn: no way and no length is
    known of its home runs."""
    for panel in house.panels.values():
        drawn = [room for room in house.rooms.values() if house.levels[room.level].id == panel.structure]
        own = [circuit for circuit in house.circuits if circuit.panel == panel.id and not circuit.feeds]
        into = [
            hop.box
            for circuit in own
            for hop in circuit.chain
            if not hop.after and not hop.path and hop.box in house.boxes and house.boxes[hop.box].room
        ]
        if panel.room is not None or not drawn or not into:
            continue
        room = min(drawn, key=lambda item: (item.use not in FOR_PANELS, item.use in NOT_FOR_PANELS))
        side = max(range(len(room.sides)), key=lambda index: walls_of(room)[index].length_in)
        at = walls_of(room)[side].length_in / 2
        edit = {"op": "set", "kind": "panel", "id": panel.id, "set": {"room": room.id, "side": side, "at_in": at}}
        yield finding(
            "panel-unplaced", panel.id, None, f"{panel.name} stands in no room",
            f"{len(into)} home {'run has' if len(into) == 1 else 'runs have'} no way and no length until it does.",
            "common practice, no source", about="panel",
            mends=[Mend(f"{walls_of(room)[side].name.capitalize()} wall of {room.name}", [edit])],
        )  # fmt: skip


def twice_rule(house: House) -> Iterator[Finding]:
    for box, _, circuits in house.wired:
        if len(circuits) < 2 or all(c.partner in {other.id for other in circuits} for c in circuits):
            continue  # two that share a neutral meet where one cable ends for both
        box_id = box.id
        mends = [
            Mend(f"Keep it on {called(keep)}", [
                {"op": "unchain", "boxes": [box_id]}, {"op": "chain", "circuit": keep.id, "boxes": [box_id]},
            ])
            for keep in circuits[:2]
        ]  # fmt: skip
        names = [c.name for c in circuits]
        told = " and ".join(names if len(names) < 4 else [", ".join(names[:2]), f"{len(names) - 2} more"])
        yield finding(
            "box-twice", box_id, None, f"{box.name} is on {told}",
            "Allowed: each neutral grouped with its own hots, both breakers off before the box is opened.",
            "200.4(B)", about="box", room=box.room or "", measured=f"{len(circuits)} circuits", limit="1",
            mends=mends,
        )  # fmt: skip


def loose_rule(house: House) -> Iterator[Finding]:
    by_structure: dict[str, list[Wired]] = {}
    for box in house.loose:
        by_structure.setdefault(box.structure, []).append(box)
    names = {item.id: item.name for item in house.structures}
    for structure, boxes in by_structure.items():
        yield finding(
            "box-loose", structure, None,
            f"{names[structure]}: {len(boxes)} box{'es' * (len(boxes) > 1)} on no circuit",
            ", ".join(box.name for box in boxes[:8]) + (" and more" if len(boxes) > 8 else ""),
            "common practice, no source", about="circuits", room=boxes[0].room or "",
            measured=str(len(boxes)), limit="0",
        )  # fmt: skip


def wanted_rule(house: House) -> Iterator[Finding]:
    """Two small-appliance circuits for a kitchen, one 20 A each for laundry, bath and garage (210.11(C))."""
    lived = {level.id for item in house.structures if house.lived[item.id] is not False for level in item.levels}
    powered = {box.structure for box, _, _ in house.wired}
    fed = {level.id for item in house.structures if item.id in powered for level in item.levels}
    every = house.rooms.values()
    rooms = [room for room in every if room.level in lived or (room.use == "garage" and room.level in fed)]
    wanted = (("kitchen", int(house.book.number("kitchen_circuits")), "210.11(C)(1)"), ("laundry", 1, "210.11(C)(2)"),
              ("bath", 1, "210.11(C)(3)"), ("garage", 1, "210.11(C)(4)"))  # fmt: skip
    serving_use: dict[str, set[str]] = {}
    uses = {use for use, _, _ in wanted}
    for box, room, circuits in house.wired:
        if room is None or room.use not in uses:
            continue
        if box.kind not in PLUGS or box.serves not in ("", "counter", "washer"):
            continue
        serving_use.setdefault(room.use, set()).update(c.id for c in circuits if c.breaker_a >= 20)
    for use, least, section in wanted:
        here = {room.id: room for room in rooms if room.use == use}
        if not here:
            continue
        serving = serving_use.get(use, set())
        if len(serving) < least:
            room = next(iter(here.values()))
            yield finding(
                "circuits-wanted", house.levels[room.level].id, None,
                f"The {use} has {len(serving)} of {least} 20 A circuit{'s' * (least > 1)}",
                "Propose circuits, or split its receptacles.", section, about="circuits", room=room.id,
                measured=str(len(serving)), limit=str(least),
            )  # fmt: skip


def switch_rule(house: House) -> Iterator[Finding]:
    """A lamp whose room has switches, on a circuit that has none."""
    switches: dict[str, list[Wired]] = {}
    for box in house.boxes.values():
        if box.kind == "switch" and box.room is not None and box.id in house.on:
            switches.setdefault(box.room, []).append(box)
    for circuit in house.circuits:
        own = [house.boxes[hop.box] for hop in circuit.chain if hop.box in house.boxes]
        apart = [box for box in own if box.worked and box.room in switches]
        if not apart or any(box.kind == "switch" for box in own):
            continue
        lamp = min(apart, key=lambda item: item.name)
        there = switches[lamp.room or ""][0]
        other = house.on[there.id][0]
        yield finding(
            "switch-apart", circuit.id, None, f"{lamp.name} is on {circuit.name}, its switch on {other.name}",
            f"{there.name} is a switch of its room. No switch stands on the circuit of the light.", "404.2, 300.3(B)",
            about="circuit", measured=circuit.name, limit=other.name,
            mends=[Mend(f"{lamp.name} after {there.name}", [
                {"op": "chain", "circuit": other.id, "boxes": [lamp.id], "after": there.id},
            ])],
        )  # fmt: skip


def dark_rule(house: House) -> Iterator[Finding]:
    """A floor whose lights all hang on one circuit, where it has three lit rooms or more; two where its outlets hang
    on it too: one trip and everything is dark."""
    by_level: dict[str, dict[str, set[str]]] = {}
    for box, room, own in house.wired:
        if box.kind in LAMPS and room is not None:
            lit = by_level.setdefault(room.level, {})
            lit.setdefault(own[0].id, set()).add(room.id)
    for level, circuits in by_level.items():
        if len(circuits) != 1:
            continue
        circuit = next(c for c in house.circuits if c.id in circuits)
        plugs = any(house.boxes[hop.box].kind in PLUGS for hop in circuit.chain if hop.box in house.boxes)
        if len(circuits[circuit.id]) >= (2 if plugs else 3):
            yield finding(
                "all-dark", circuit.id, None, f"One trip of {circuit.name} darkens the whole floor",
                f"{len(circuits[circuit.id])} rooms of {house.levels[level].name} have no other light.",
                "common practice, no source", about="circuit",
            )  # fmt: skip


def old_outlets_rule(house: House) -> Iterator[Finding]:
    """What stands in an existing building already is not known: who replaces or draws it out is reminded."""
    new = {box.structure for box, _, _ in house.wired if box.kind in PLUGS}
    for structure in house.structures:
        if structure.existing and structure.id in new:
            yield finding(
                "old-outlets", structure.id, None, f"{structure.name}: what replaces an old outlet",
                "Tamper-resistant, protected as the place asks today; without a ground only a GFCI that is marked "
                "so. An old circuit drawn out by more than 6 ft wants arc-fault protection.",
                "406.4(D), 210.12(E)", about="structure",
            )  # fmt: skip


RULES: tuple[Rule[House], ...] = (
    unplaced_rule,
    twice_rule,
    loose_rule,
    wanted_rule,
    switch_rule,
    dark_rule,
    old_outlets_rule,
)
