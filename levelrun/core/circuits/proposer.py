"""Circuits proposed from rooms and boxes: what the code wants first, then lights apart from receptacles, outdoors
apart, few circuits, no floor dark at one trip, short home runs; each with its reason."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import partial
from math import ceil
from typing import Any

from levelrun.core.boxes.facts import RoomContext
from levelrun.core.boxes.parts import PLUGS, is_worked
from levelrun.core.circuits.arranging import FAR_IN, Far, far_of, in_order
from levelrun.core.circuits.distance import stands
from levelrun.core.circuits.grouping import fewest_groups
from levelrun.core.circuits.parts_said import method_for
from levelrun.core.circuits.places import box_places
from levelrun.core.circuits.protection import wanted_protection
from levelrun.core.circuits.rules.house import House, house_of
from levelrun.core.circuits.spaces import Occupied, occupied, spaces_of
from levelrun.core.circuits.usual import PLANNED_PART, expected_w, is_continuous, title_of, usual_of, watts
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.trade.conductors.sizing import Demand, choose, standard_breaker

Weight = Callable[[Box], int]


@dataclass(frozen=True, kw_only=True)
class Proposal:
    """One circuit proposed: its fields, its boxes in order, why, and the cable that it takes, inches, as far as it is
    known. `unknown`: of how many cables it is not, since an end stands in no drawn room."""

    key: str
    name: str
    panel: str
    space: int | None
    half: str
    poles: int
    volts: int
    breaker_a: float
    wire_size: str
    protection: str
    neutral: bool
    nameplate: bool
    boxes: tuple[str, ...]
    after: tuple[tuple[str, str | None], ...]
    reason: str
    section: str
    length_in: float
    method: str = "NM-B"
    unknown: int = 0

    @property
    def edits(self) -> list[dict[str, Any]]:
        """What accepting it does: the circuit, its chain, its space."""
        item = {
            "id": self.key, "name": self.name, "panel": self.panel, "poles": self.poles, "volts": self.volts,
            "breaker_a": self.breaker_a, "wire_size": self.wire_size, "protection": self.protection,
            "neutral": self.neutral, "nameplate": self.nameplate, "space": self.space, "half": self.half,
            "method": self.method, "chain": [{"box": box, "after": after} for box, after in self.after],
        }  # fmt: skip
        return [{"op": "add", "kind": "circuit", "item": item}]


@dataclass(frozen=True, kw_only=True)
class Group:
    """Boxes that go on one circuit, before its wire and space are settled."""

    name: str
    boxes: tuple[Box, ...]
    reason: str
    section: str
    breaker_a: float = 20.0
    lights: bool = False


def propose(job: Job, book: Codebook, rooms: Sequence[RoomContext], far: Far | None = None) -> list[Proposal]:
    """Circuits for every box that is on none, panel by panel."""
    return [proposal for _, proposal in proposing(job, book, rooms, far)]


def proposing(
    job: Job, book: Codebook, rooms: Sequence[RoomContext], far: Far | None = None, kitchens: int = 0
) -> Iterator[tuple[int, Proposal]]:
    """The same one by one as each is settled, with the count of all, so that long work shows how far it is. `far`:
    inches of cable from one box or panel to another, where the frame knows it; `kitchens`: on how many circuits what
    stands in a kitchen goes, where that is said."""
    house = house_of(job, book)
    where = stands(job, book, rooms)
    unwired = {box.id for box in house.loose if box.kind != "junction"}
    loose = [box for box in job.boxes if box.id in unwired]
    by_panel: dict[str, list[Box]] = {}
    for box in loose:
        panel = _panel_for(job, box)
        if panel is not None:
            by_panel.setdefault(panel.id, []).append(box)
    groups = [
        (panel, group)
        for panel in job.panels
        if panel.id in by_panel
        for group in _groups(book, job, house, by_panel[panel.id], kitchens)
    ]
    free = {panel.id: occupied(panel, job.circuits) for panel in job.panels}
    places = box_places(book, rooms, job)
    taken, number = set(job.ids()), 1
    for panel, group in groups:
        while f"c{number}" in taken:
            number += 1
        settled = _settled(book, job, panel, group, far_of(where, far), free, f"c{number}")
        number += 1
        circuit = Circuit.model_validate(settled.edits[0]["item"])
        wanted = wanted_protection(book, job, panel, circuit, group.boxes, places)
        yield len(groups), replace(settled, protection=wanted)


def _panel_for(job: Job, box: Box) -> Panel | None:
    """The panel of the box's own structure, else the first of the job."""
    own = [panel for panel in job.panels if panel.structure == box.structure]
    return next(iter(own or job.panels), None)


def _groups(book: Codebook, job: Job, house: House, boxes: Sequence[Box], kitchens: int) -> Iterator[Group]:
    left = {box.id: box for box in boxes}

    def take(wanted: Callable[[Box], bool]) -> list[Box]:
        found = [box for box in left.values() if wanted(box)]
        for box in found:
            del left[box.id]
        return found

    def use(box: Box) -> str:
        room = house.rooms.get(box.room or "")
        return room.use if room else ""

    for box in take(lambda b: usual_of(book, b).own):
        title = title_of(book, box)
        yield Group(
            name=title, boxes=(box,), reason=f"{title}: a circuit of its own", section="common practice, no source"
        )
    most = _most(book, job)
    weight = partial(_weight, book, most, 20.0)
    counters = take(lambda b: b.kind in PLUGS and b.serves == "counter")
    dining = take(lambda b: b.kind in PLUGS and use(b) in ("kitchen", "dining") and not (b.outdoors or b.switched))
    yield from _kitchen(book, counters, dining, kitchens)
    for room_use, words, section in (
        ("bath", "20 A for the baths, nothing else on it", "210.11(C)(3)"),
        ("laundry", "20 A for the laundry, nothing else on it", "210.11(C)(2)"),
        ("garage", "20 A for the garage", "210.11(C)(4)"),
    ):
        own = take(_plugs_of(use, room_use))
        for part in _parts(weight, own, most):
            yield Group(name=room_use.capitalize(), boxes=tuple(part), reason=words, section=section)
    out = take(lambda b: (b.outdoors or use(b) == "porch") and b.kind in PLUGS)
    for part in _parts(weight, out, most):
        yield Group(
            name="Outdoors",
            boxes=tuple(part),
            reason="apart, so that a wet trip darkens nothing",
            section="common practice, no source",
        )
    yield from _lights(job, house, take(lambda b: b.kind in ("switch", "smoke") or is_worked(b)), most)
    rest = list(left.values())
    reason = "rooms side by side, no more than the habit"
    yield from _by_rooms(house, rest, most, "Outlets", reason, False, 20.0)


def _plugs_of(use: Callable[[Box], str], wanted: str) -> Callable[[Box], bool]:
    return lambda box: box.kind in PLUGS and use(box) == wanted and not (box.outdoors or box.switched)


def _most(book: Codebook, job: Job) -> int:
    return int(book.number("outlets_per_circuit")) or job.habits.boxes_per_circuit


def _weight(book: Codebook, most: int, breaker: float, box: Box) -> int:
    """For how many outlets a box counts on a circuit that may have `most`: one, none for a switch, and more where it
    draws more than its part of the 80 % of its breaker that are planned; all where it draws more than these."""
    part_w = PLANNED_PART * 120 * breaker / most
    return 0 if box.kind == "switch" else min(max(ceil(watts(book, box) / part_w), 1), most)


def _parts(weight: Weight, boxes: Sequence[Box], most: int) -> list[list[Box]]:
    """The boxes in their order, on circuits that hold no more than they may."""
    parts: list[list[Box]] = []
    for box in boxes:
        if not parts or sum(map(weight, parts[-1])) + weight(box) > most:
            parts.append([])
        parts[-1].append(box)
    return parts


def _kitchen(book: Codebook, counters: list[Box], dining: list[Box], said: int) -> Iterator[Group]:
    """Two small-appliance circuits or more, or as many as said: the counters shared out by place, the wall outlets
    with them."""
    boxes = [*counters, *dining]
    if not boxes:
        return
    count = said or max(int(book.number("kitchen_circuits")), -(-len(counters) // 4))
    ordered = sorted(boxes, key=lambda b: (b.serves != "counter", b.side or 0, b.at_in or 0.0))
    for index in range(count):
        part = ordered[index::count]
        if part:
            yield Group(
                name=f"Kitchen {'ABCDEF'[index]}",
                boxes=tuple(part),
                reason=f"small-appliance circuit {index + 1} of {count}",
                section="210.11(C)(1), 210.52(B)",
            )


def _lights(job: Job, house: House, boxes: list[Box], most: int) -> Iterator[Group]:
    """Lights with their switches, on two circuits a floor at least where three rooms or more are lit."""
    by_level: dict[str, list[Box]] = {}
    for box in boxes:
        room = house.rooms.get(box.room or "")
        by_level.setdefault(room.level if room else "", []).append(box)
    breaker = 15.0 if job.habits.light_wire == "14" else 20.0
    for here in by_level.values():
        rooms = dict.fromkeys(box.room for box in here if is_worked(box))
        least = 2 if len(rooms) >= 3 else 1
        reason = "lights apart from receptacles" + (", the floor on two" if least > 1 else "")
        yield from _by_rooms(house, here, most, "Lights", reason, True, breaker, least)


def _by_rooms(
    house: House,
    boxes: Sequence[Box],
    most: int,
    name: str,
    reason: str,
    lights: bool,
    breaker: float,
    least: int = 1,
) -> Iterator[Group]:
    """Boxes by room, whole rooms together, on the fewest circuits that hold no more outlets than `most`. The lights
    of one room stay with what switches them, unless the code itself counts (CEC 8-304)."""
    weight = partial(_weight, house.book, most, breaker)
    by_room: dict[str, list[Box]] = {}
    for box in boxes:
        by_room.setdefault(box.room or "", []).append(box)
    parts: list[list[Box]] = []
    together = lights and not house.book.number("outlets_per_circuit")
    for own in by_room.values():
        parted = sum(map(weight, own)) > most and not together
        parts += _parts(weight, own, most) if parted else [own]
    if not parts:
        return
    packed = fewest_groups([sum(map(weight, part)) for part in parts], most, least)
    named: Counter[str] = Counter()
    for indexes in packed:
        own = [box for index in indexes for box in parts[index]]
        rooms = list(dict.fromkeys(house.rooms[box.room].name for box in own if box.room in house.rooms))
        title = f"{name} {', '.join(rooms[:2])}" + (" and more" if len(rooms) > 2 else "")
        named[title] += 1
        title = title if named[title] == 1 else f"{title[:57]} {named[title]}"
        yield Group(
            name=title[:60],
            boxes=tuple(own),
            reason=reason,
            section="common practice, no source",
            breaker_a=breaker,
            lights=lights,
        )


def _settled(
    book: Codebook,
    job: Job,
    panel: Panel,
    group: Group,
    far: Far,
    free: dict[str, Occupied],
    key: str,
) -> Proposal:
    first = usual_of(book, group.boxes[0])
    alone = len(group.boxes) == 1 and first.own
    volts, poles = (first.volts, first.poles) if alone else (120, 1)
    amps = sum(watts(book, box) for box in group.boxes) / volts
    steady = alone and is_continuous(book, group.boxes[0])
    breaker = first.breaker_a if alone else group.breaker_a
    if alone and not first.nameplate:  # what was said of its load may want more than is usual
        least = expected_w(book, group.boxes[0]) / volts * (book.number("continuous_factor") if steady else 1.0)
        breaker = max(breaker, standard_breaker(book, least))
    wire = _wire(book, amps, steady, breaker, volts, job.habits.light_wire if group.lights else "12")

    def distance(a: str | None, b: str) -> float:
        found = far(a or panel.id, b)
        return FAR_IN if found is None else found

    order = in_order(group.boxes, group.lights, distance)
    lengths = [far(after or panel.id, box) for box, after in order]
    circuit = Circuit(
        id=key, name=group.name, panel=panel.id, poles=2 if poles == 2 else 1, breaker_a=breaker,
    )  # fmt: skip
    place = free[panel.id].place_for(circuit)
    if place is not None:
        taken = circuit.model_copy(update={"space": place[0], "half": place[1]})
        for space in spaces_of(taken):
            free[panel.id].at.setdefault(space, []).append(taken)
    return Proposal(
        key=key,
        name=group.name,
        panel=panel.id,
        space=place[0] if place else None,
        half=place[1] if place else "",
        poles=poles,
        volts=volts,
        breaker_a=breaker,
        wire_size=wire,
        protection="plain",
        neutral=first.neutral if alone else True,
        nameplate=first.nameplate if alone else False,
        boxes=tuple(box for box, _ in order),
        after=tuple(order),
        reason=group.reason,
        section=group.section,
        length_in=sum(length for length in lengths if length is not None),
        method=method_for(book),
        unknown=lengths.count(None),
    )


def _wire(book: Codebook, amps: float, steady: bool, breaker: float, volts: int, least: str) -> str:
    demand = Demand(
        load_a=min(amps, breaker),
        continuous=steady and amps * 1.25 <= breaker,
        breaker_a=breaker,
        volts=float(volts),
        wiring=method_for(book),
    )
    size = choose(book, demand).size
    order = [row["size"] for row in book.table("ch9-table8").rows]
    return max((size, least if breaker <= 20 else size), key=order.index) if breaker > 15 else size
