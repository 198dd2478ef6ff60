"""One-tap repairs of a way, as plain edits. A mend that changes a method brings the boxes it needs."""

from __future__ import annotations

from typing import Any

from levelrun.core.circuits.loads import HopWires
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import cable_sizes, method, raceway_sizes, wire_sizes
from levelrun.core.findings import Mend
from levelrun.core.measure import show
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.trade.methods.verdicts import ranked
from levelrun.core.trade.pipe.fill import Wires, sleeve_size, smallest_size
from levelrun.core.ways.facts import WayView

Edit = dict[str, Any]
GUARDS = {"PVC40": "PVC80", "PVC80": "PVC80", "RMC": "RMC", "IMC": "IMC"}  # what stands up to a blow (300.5(D)(4))
SLEEVE_IN_EARTH = "PVC80"
FEEDER = "buried_feeder"  # cabled of aluminum only: common practice, no source


def set_leg(view: WayView, index: int, **values: Any) -> Edit:
    """Edit that changes fields of one leg."""
    return {"op": "set_leg", "way": view.way.id, "leg": index, "set": values}


def facts_with(view: WayView, index: int, **changes: object) -> dict[str, object]:
    """What is said of the place of a leg, with some of it changed."""
    return {**view.way.legs[index].facts.model_dump(), **changes}


def rewire(wires: HopWires, size: str) -> Edit:
    """Edit that takes another wire size on a whole circuit, cables included, pipes grown where they must."""
    return {"op": "rewire", "circuit": wires.circuit, "size": size}


def protect(wires: HopWires) -> Edit:
    """Edit that puts ground-fault protection at the breaker of a circuit."""
    better = "dual" if wires.protection == "afci" else "gfci"
    return {"op": "set", "kind": "circuit", "id": wires.circuit, "set": {"protection": better}}


def end_at(view: WayView, index: int, name: str) -> Edit:
    """Edit that says what stands at the end of a leg."""
    return {"op": "end_leg", "way": view.way.id, "leg": index, "to": name}


def put_box(view: WayView, index: int) -> Edit:
    """Edit that puts the next free junction box at the end of a leg."""
    return {"op": "put_box", "way": view.way.id, "leg": index}


def riser(view: WayView, index: int, go: str, length_in: float) -> dict[str, Any] | None:
    """The leg by which what is buried in leg `index` goes up or down: pipe that stands up to a blow, in the size of
    the trench; for a cable the smallest that it passes through, as its sleeve. None where there is no such pipe."""
    leg, book = view.way.legs[index], view.book
    piped = view.methods[index].kind == "raceway"
    guard = GUARDS.get(leg.method, "") if piped else SLEEVE_IN_EARTH
    size: str | None = leg.size
    if piped and guard:  # schedule 80 is narrower inside than schedule 40
        sizes = [pipe.size for pipe in raceway_sizes(book, guard)]
        least = smallest_size(book, guard, view.wires(index))
        size = max(size, least, key=sizes.index) if size in sizes and least in sizes else None
    else:
        size = sleeve_size(book, guard, leg.method, leg.size)
    if not guard or size not in {pipe.size for pipe in raceway_sizes(book, guard)}:
        return None
    return {
        "go": go, "length_in": float(round(length_in)), "place": "outside_wall", "method": guard, "size": size,
        "sleeve": not piped,
    }  # fmt: skip


def sleeve(view: WayView, index: int, other: int) -> Mend | None:
    """Mend that makes pipe beside cable that lies in the earth its sleeve, grown where the cable would not pass; None
    where the pipe does not rise, or no size of it takes the cable."""
    leg, lies = view.way.legs[index], view.way.legs[other]
    if not view.placed[index].vertical or not is_buried(view.facts[other]) or not view.piped(index):
        return None
    least = sleeve_size(view.book, leg.method, lies.method, lies.size)
    sizes = [pipe.size for pipe in raceway_sizes(view.book, leg.method)]
    if least is None or view.piped(other):
        return None
    size = leg.size if leg.size in sizes and sizes.index(leg.size) >= sizes.index(least) else least
    grown = f", {size}″" if size != leg.size else ""
    return Mend(f"The cable goes up in it, as its sleeve{grown}", [set_leg(view, index, sleeve=True, size=size)])


def add_leg(view: WayView, at: int, **leg: Any) -> Edit:
    """Edit that puts a leg before place `at`."""
    return {"op": "add_leg", "way": view.way.id, "at": at, "leg": leg}


def size_for(view: WayView, index: int, key: str) -> str | None:
    """Size in which a method would carry what lies in a leg: today's trade size where it will do, else the smallest
    that fits; for a cable the circuit's own. None where none is made."""
    here = view.lying(index)
    if method(view.book, key).kind != "raceway":
        return _cable_for(view, index, key) if here else None
    if any(item.wires.wire_size not in wire_sizes(view.book) for item in here):
        return None
    sizes = [pipe.size for pipe in raceway_sizes(view.book, key)]
    least = smallest_size(view.book, key, view.wires(index)) if here else sizes[0]
    today = view.way.legs[index].size
    if least and today in sizes and sizes.index(today) >= sizes.index(least):
        return today
    neighbours = [view.way.legs[i].size for i in (index - 1, index + 1) if i in view.indexes and view.piped(i)]
    for size in neighbours:
        if least and size in sizes and sizes.index(size) >= sizes.index(least):
            return size
    return least


def _cable_for(view: WayView, index: int, key: str) -> str | None:
    group = view.cables(index)[0][0]
    count = sum(item.conductors for item in group)
    sizes, order, gauge = cable_sizes(view.book, key), wire_sizes(view.book), group[0].wires.wire_size
    if method(view.book, key).family == FEEDER and group[0].wires.material != "al":
        return None
    if f"{gauge}-{count}" in sizes:
        return f"{gauge}-{count}"

    def carries(size: str) -> bool:
        own, _, wires = size.partition("-")
        return gauge in order and own in order and order.index(own) >= order.index(gauge) and int(wires) >= count

    return next((size for size in sizes if carries(size)), None)


def change_method(view: WayView, first: int, last: int, key: str, size: str) -> list[Edit]:
    """Edits that take another method on legs first to last, with the boxes that the change wants at its ends."""
    edits = [set_leg(view, i, method=key, size=size, sleeve=False, met=False) for i in range(first, last + 1)]
    piped = method(view.book, key).kind == "raceway"
    for leg, other in ((first - 1, first - 1), (last, last + 1)):
        if not (0 <= leg < len(view.way.legs) and 0 <= other < len(view.way.legs)):
            continue
        neighbour = view.way.legs[other]
        splice = view.piped(other) != piped or (not piped and (neighbour.method, neighbour.size) != (key, size))
        if neighbour.sleeve and not piped:
            splice = view.guarded(other) != (key, size)
        if splice and view.joint_after(leg) not in ("box", "panel"):
            edits.append(put_box(view, leg))
        elif piped and not splice and neighbour.method != key and view.joint_after(leg) == "none":
            edits.append(set_leg(view, leg, end={"kind": "coupling", "node": None}))
    return edits


def use_method(view: WayView, first: int, key: str, last: int | None = None) -> Mend | None:
    """Mend that takes another method on a leg, or on legs first to last; None where no size of it will do, or a box
    would stand under ground."""
    size = size_for(view, first, key)
    if size is None:
        return None
    name = method(view.book, key).name
    label = f"Use {name} {size}″" if method(view.book, key).kind == "raceway" else f"Use {size} {name}"
    edits = change_method(view, first, first if last is None else last, key, size)
    if any(edit["op"] == "put_box" and under_ground(view, edit["leg"]) for edit in edits):
        return None
    return Mend(label, edits)


def under_ground(view: WayView, index: int) -> tuple[int, ...]:
    """The legs that meet at the end of a leg and lie in the earth there: no box stands between them."""
    return tuple(i for i in (index, index + 1) if is_buried(view.facts[i]) and not view.placed[i].vertical)


def best_methods(view: WayView, index: int, count: int, last: int | None = None) -> list[Mend]:
    """Mends to the best-ranked methods that are a plain yes here."""
    found: list[Mend] = []
    for verdict in ranked(view.book, view.facts[index], view.habits.dollars_per_hour):
        if verdict.verdict != "yes" or verdict.method == view.way.legs[index].method:
            continue
        if mend := use_method(view, index, verdict.method, last):
            found.append(mend)
        if len(found) == count:
            break
    return found


def grown(book: Codebook, key: str, size: str, wires: list[Wires]) -> str | None:
    """The size of a pipe that takes these wires: today's where it will do. None where none does."""
    least = smallest_size(book, key, wires)
    sizes = [pipe.size for pipe in raceway_sizes(book, key)]
    if least is None or size not in sizes:
        return None
    return sizes[max(sizes.index(least), sizes.index(size))]


def bigger_pipe(view: WayView, first: int, last: int) -> Mend | None:
    """Mend that takes the smallest pipe size that fits all along a pull."""
    edits: list[Edit] = []
    named = ""
    for index in range(first, last + 1):
        leg = view.way.legs[index]
        size = grown(view.book, leg.method, leg.size, view.wires(index))
        if size is None:
            return None
        if size != leg.size:
            edits.append(set_leg(view, index, size=size))
            named = size
    return Mend(f"Go up to {named} pipe", edits) if edits else None


def wire_name(wires: HopWires, size: str) -> str:
    """A wire size with its metal, for a label."""
    return f"{size} {'aluminum' if wires.material == 'al' else 'copper'}"


def at_tape(view: WayView, index: int) -> str:
    """Tape reading along the strip at the end of a leg."""
    return show(round(view.placed[index].x1))
