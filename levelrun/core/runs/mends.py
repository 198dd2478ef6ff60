"""One-tap repairs of a run, as plain edits. A mend that changes a method brings the boxes it needs."""

from __future__ import annotations

from typing import Any

from levelrun.core.codebook.lookups import (
    cable_sizes,
    conductor,
    method,
    raceway_sizes,
    wire_sizes,
)
from levelrun.core.findings import Mend
from levelrun.core.measure import show
from levelrun.core.runs.facts import RunView
from levelrun.core.trade.methods.verdicts import ranked
from levelrun.core.trade.pipe.fill import Wires, smallest_size

Edit = dict[str, Any]


def set_leg(view: RunView, index: int, **values: Any) -> Edit:
    """Edit that changes fields of one leg."""
    return {"op": "set_leg", "run": view.run.id, "leg": index, "set": values}


def facts_with(view: RunView, index: int, **changes: object) -> dict[str, object]:
    """What is said of the place of a leg, with some of it changed."""
    return {**view.run.legs[index].facts.model_dump(), **changes}


def set_run(view: RunView, **values: Any) -> Edit:
    """Edit that changes fields of the run."""
    return {"op": "set", "kind": "run", "id": view.run.id, "set": values}


def put_box(view: RunView, index: int) -> Edit:
    """Edit that puts the next free junction box at the end of a leg."""
    return {"op": "put_box", "run": view.run.id, "leg": index}


def size_for(view: RunView, index: int, key: str) -> str | None:
    """Size in which a method would carry this run on a leg: today's trade size where it will do,
    else the smallest that fits; for a cable the circuit's own. None where none is made."""
    run = view.run
    if method(view.book, key).kind != "raceway":
        wanted = f"{run.wire_size}-{run.conductors}"
        sizes = cable_sizes(view.book, key)
        if wanted in sizes:
            return wanted
        return next((size for size in sizes if _carries(view, size)), None)
    if run.wire_size not in wire_sizes(view.book):
        return None
    least = smallest_size(view.book, key, view.wires)
    sizes = [pipe.size for pipe in raceway_sizes(view.book, key)]
    today = run.legs[index].size
    if least and today in sizes and sizes.index(today) >= sizes.index(least):
        return today
    neighbours = [view.run.legs[i].size for i in (index - 1, index + 1) if 0 <= i < len(run.legs) and view.piped(i)]
    for size in neighbours:
        if least and size in sizes and sizes.index(size) >= sizes.index(least):
            return size
    return least


def _carries(view: RunView, size: str) -> bool:
    gauge, _, count = size.partition("-")
    order = wire_sizes(view.book)
    return (
        view.run.wire_size in order
        and gauge in order
        and order.index(gauge) >= order.index(view.run.wire_size)
        and int(count) >= view.run.conductors
    )


def change_method(view: RunView, first: int, last: int, key: str, size: str) -> list[Edit]:
    """Edits that take another method on legs first to last, with the boxes that the change wants at its ends."""
    edits = [set_leg(view, i, method=key, size=size, sleeve=False, met=False) for i in range(first, last + 1)]
    piped = method(view.book, key).kind == "raceway"
    for leg, other in ((first - 1, first - 1), (last, last + 1)):
        if not (0 <= leg < len(view.run.legs) and 0 <= other < len(view.run.legs)):
            continue
        neighbour = view.run.legs[other]
        splice = view.piped(other) != piped or (not piped and (neighbour.method, neighbour.size) != (key, size))
        if neighbour.sleeve and not piped:
            splice = view.carried(other) != (key, size)
        if splice and view.joint_after(leg) not in ("box", "panel"):
            edits.append(put_box(view, leg))
        elif piped and not splice and neighbour.method != key and view.joint_after(leg) == "none":
            edits.append(set_leg(view, leg, end={"kind": "coupling", "node": None}))
    return edits


def use_method(view: RunView, first: int, key: str, last: int | None = None) -> Mend | None:
    """Mend that takes another method on a leg, or on legs first to last; None where no size of it will do."""
    size = size_for(view, first, key)
    if size is None:
        return None
    name = method(view.book, key).name
    label = f"Use {name} {size}″" if method(view.book, key).kind == "raceway" else f"Use {size} {name}"
    return Mend(label, change_method(view, first, first if last is None else last, key, size))


def best_methods(view: RunView, index: int, count: int, last: int | None = None) -> list[Mend]:
    """Mends to the best-ranked methods that are a plain yes here."""
    found: list[Mend] = []
    for verdict in ranked(view.book, view.facts[index], view.habits.dollars_per_hour):
        if verdict.verdict != "yes" or verdict.method == view.run.legs[index].method:
            continue
        if mend := use_method(view, index, verdict.method, last):
            found.append(mend)
        if len(found) == count:
            break
    return found


def rewire(view: RunView, size: str) -> list[Edit]:
    """Edits that take another wire size on the whole run, cables included, pipes grown where they must."""
    run = view.run
    edits = [set_run(view, wire_size=size)]
    wires = [Wires(run.insulation, size, run.conductors), Wires(run.insulation, view.ground, 1)]
    for index, leg in enumerate(run.legs):
        if not view.piped(index) and not leg.sleeve:
            wanted = f"{size}-{leg.size.partition('-')[2] or run.conductors}"
            if wanted != leg.size and wanted in cable_sizes(view.book, leg.method):
                edits.append(set_leg(view, index, size=wanted))
        elif view.piped(index):
            grown = _grown(view, leg.method, leg.size, wires)
            if grown and grown != leg.size:
                edits.append(set_leg(view, index, size=grown))
    return edits


def _grown(view: RunView, key: str, size: str, wires: list[Wires]) -> str | None:
    least = smallest_size(view.book, key, wires)
    sizes = [pipe.size for pipe in raceway_sizes(view.book, key)]
    if least is None or size not in sizes:
        return None
    return sizes[max(sizes.index(least), sizes.index(size))]


def bigger_pipe(view: RunView, first: int, last: int) -> Mend | None:
    """Mend that takes the smallest pipe size that fits all along a pull."""
    edits: list[Edit] = []
    named = ""
    for index in range(first, last + 1):
        leg = view.run.legs[index]
        size = _grown(view, leg.method, leg.size, view.wires)
        if size is None:
            return None
        if size != leg.size:
            edits.append(set_leg(view, index, size=size))
            named = size
    return Mend(f"Go up to {named} pipe", edits) if edits else None


def wire_name(view: RunView, size: str) -> str:
    """A wire size that exists, for a label."""
    conductor(view.book, view.run.insulation, size)
    return f"{size} {'aluminum' if view.run.material == 'al' else 'copper'}"


def at_tape(view: RunView, index: int) -> str:
    """Tape reading along the strip at the end of a leg."""
    return show(round(view.placed[index].x1))
