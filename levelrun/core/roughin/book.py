"""The handover book: for its owner, what is behind every wall of a room or a building, and what may come later."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from levelrun.core.circuits.planned import PanelPlan
from levelrun.core.job import Job, Photo, Room
from levelrun.core.measure import show, shown_in
from levelrun.core.roughin.parts import Built
from levelrun.core.roughin.planned import RoughIn
from levelrun.core.roughin.steps import left_out, wired
from levelrun.core.roughin.surfaces import level_of, nodes_on, place_name, readings_of
from levelrun.core.roughin.waits import counted
from levelrun.core.roughin.xray import XRay, readings

MOST_SPARE = 4


@dataclass(frozen=True, kw_only=True)
class BookLine:
    """A line of a page: what it is, and where or how much."""

    name: str
    text: str


@dataclass(frozen=True, kw_only=True)
class BookPhoto:
    """A photo of a page, by the name of its file, with its place."""

    id: str
    text: str


@dataclass(frozen=True, kw_only=True)
class BookPage:
    """One surface: its x-ray, what stands in it with two readings each, what went otherwise, its photos."""

    title: str
    xray: XRay
    readings: list[BookLine]
    otherwise: list[BookLine]
    photos: list[BookPhoto]
    closed: str


@dataclass(frozen=True, kw_only=True)
class DirectoryLine:
    """A breaker, and what goes dark with it."""

    panel: str
    label: str
    name: str
    breaker: str
    dark: str


@dataclass(frozen=True, kw_only=True)
class Book:
    """The whole book. later: what may be added, and what may not be promised; seen: inspections with their
    results."""

    title: str
    of: str
    directory: list[DirectoryLine]
    pages: list[BookPage]
    loose: list[BookLine]
    outside: list[BookLine]
    later: list[BookLine]
    seen: list[BookLine]
    open: list[str]
    caution: str


CAUTION = (
    "What is drawn is what was recorded, where it was recorded. Before you cut or drill: switch off, prove it dead, "
    "and open a small hole to look. New circuits want a permit and, when in doubt, a licensed electrician."
)


def book_of(record: RoughIn, structure: str, room: str | None = None) -> Book:
    """The book of a building, or of one of its rooms. Raises KeyError where it is not there."""
    job = record.job
    building = job.structure(structure)
    levels = {level.id for level in building.levels}
    rooms = [item for item in job.rooms if item.level in levels and room in (None, item.id)]
    if room is not None and not rooms:
        raise KeyError(room)
    with shown_in(record.book.units):
        return Book(
            title=job.name,
            of=building.name if room is None else f"{building.name}, {rooms[0].name}",
            directory=list(_directory(record, structure, {item.id for item in rooms}, room is not None)),
            pages=[page for item in rooms for page in _pages(record, item)],
            loose=list(_loose(record, structure)) if room is None else [],
            outside=list(_outside(job, structure)) if room is None else [],
            later=list(_later(record, structure)),
            seen=list(_seen(job, structure)),
            open=[f"{h.title}: {counted(h.waits)}" for h in record.holds if h.place == structure and not h.lifted],
            caution=CAUTION,
        )


def _directory(record: RoughIn, structure: str, rooms: set[str], one: bool) -> Iterator[DirectoryLine]:
    nodes = {node.id: node for node in record.job.nodes}
    plans = {item.summary.id: item for item in record.circuits}
    for circuit in record.job.circuits:
        here = [nodes[hop.box] for hop in circuit.chain]
        near = any(node.room in rooms for node in here) if one else any(n.structure == structure for n in here)
        if near or (not one and nodes[circuit.panel].structure == structure):
            plan = plans[circuit.id]
            yield DirectoryLine(
                panel=nodes[circuit.panel].name, label=plan.summary.label or "?", name=circuit.name,
                breaker=f"{circuit.breaker_a:g} A, {circuit.poles}-pole, {circuit.protection}", dark=plan.dark,
            )  # fmt: skip


def _pages(record: RoughIn, room: Room) -> Iterator[BookPage]:
    job = record.job
    level, gone = level_of(job, room), left_out(job)
    nodes = nodes_on(job)
    closed = {(item.room, item.surface): item for item in job.closings}
    for surface in [*(str(side) for side in range(len(room.corners))), "ceiling", "floor"]:
        shown = record.xray(room.id, surface)
        own = [node for node in nodes.get((room.id, surface), []) if node.id not in gone]
        photos = [photo for photo in job.photos if (photo.room, photo.surface) == (room.id, surface)]
        if shown is None or not (own or photos or shown.cables or shown.extras):
            continue
        shut = closed.get((room.id, surface))
        standing = {node.id for node in nodes.get((room.id, surface), [])}
        lines = [(node.name, readings_of(node, room, level)) for node in own]
        yield BookPage(
            title=place_name(job, room.id, surface),
            xray=shown,
            readings=[BookLine(name=name, text=readings(*at, surface)) for name, at in lines if at is not None],
            otherwise=[_went(job, item, surface) for item in job.built if _is_of(item, room.id, surface, standing)],
            photos=[BookPhoto(id=photo.id, text=_photo_text(photo, surface)) for photo in photos],
            closed=f"closed {shut.on}".strip() + (f": {shut.why}" if shut.why else "") if shut else "",
        )  # fmt: skip


def _is_of(item: Built, room: str, surface: str, standing: set[str]) -> bool:
    return (item.room, item.surface) == (room, surface) if item.room is not None else item.node in standing


def _went(job: Job, item: Built, surface: str) -> BookLine:
    name = next((node.name for node in job.nodes if node.id == item.node), "")
    circuit = next((c.name for c in job.circuits if c.id == item.circuit), "")
    what = f"cable of {circuit} to {name}" if circuit else name or item.remarks or item.what
    at = "; then ".join(readings(*point, surface) for point in item.points)
    if item.state == "left_out":
        return BookLine(name=what, text=f"left out{', ' + item.on if item.on else ''}. {item.remarks}".strip())
    if item.was is not None:
        return BookLine(name=what, text=f"built {at}; planned {readings(*item.was, surface)}")
    return BookLine(name=what, text=f"{'not planned, ' if item.state == 'extra' else ''}{at}")


def _photo_text(photo: Photo, surface: str) -> str:
    return ", ".join(t for t in (readings(photo.at_in, photo.height_in, surface), photo.on, photo.remarks) if t)


def _loose(record: RoughIn, structure: str) -> Iterator[BookLine]:
    """What is wired and stands in no drawn room: where it is, in words."""
    reached, gone = wired(record.job), left_out(record.job)
    for node in record.job.nodes:
        if node.structure == structure and node.room is None and node.id in reached and node.id not in gone:
            yield BookLine(name=node.name, text=node.where or "where it is was not said")


def _outside(job: Job, structure: str) -> Iterator[BookLine]:
    for trench in job.trenches:
        if structure not in (trench.start, trench.end):
            continue
        depths = [item.depth_in for item in trench.readings]
        read = f"{show(min(depths))} deep at its least, {len(depths)} readings" if depths else "no depth was read"
        yield BookLine(name=trench.name, text=read)


def _later(record: RoughIn, structure: str) -> Iterator[BookLine]:
    panels = {panel.id: panel for panel in record.job.panels}
    for item in record.panels:
        if panels[item.id].structure == structure:
            yield BookLine(name=item.name, text=_spare(item, panels[item.id].main_a or panels[item.id].bus_a))
    most = record.job.habits.boxes_per_circuit
    for plan in record.circuits:
        summary = plan.summary
        circuit = next(c for c in record.job.circuits if c.id == summary.id)
        if panels[circuit.panel].structure != structure or circuit.feeds is not None or circuit.volts != 120:
            continue
        room = most - summary.boxes
        left = 0.8 * summary.breaker_a - summary.load_a
        if room > 0 and left > 1.5 and not summary.stops:
            yield BookLine(
                name=f"{summary.label or '?'} {summary.name}",
                text=f"about {min(room, int(left // 1.5), MOST_SPARE)} more outlets: {summary.load_a:.1f} A expected "
                f"of {summary.breaker_a:g} A. Small-appliance, bath and laundry circuits feed nothing else.",
            )  # fmt: skip


def _spare(item: PanelPlan, main_a: float) -> str:
    drawing = item.drawing
    left = main_a - item.load.amps
    free = f"{drawing.free} spaces free, {drawing.free_pairs} pairs for two poles"
    if left <= 0:
        return f"{free}; by the load calculation no amperes are left of {main_a:g} A: ask before anything is added"
    return f"{free}; by the load calculation {left:.0f} A of {main_a:g} A are left, not all of it on one leg"


def _seen(job: Job, structure: str) -> Iterator[BookLine]:
    names = {item.id: item.name for item in job.trenches if structure in (item.start, item.end)}
    for visit in job.visits:
        if visit.place == structure or visit.place in names:
            found = sum(fault.visit == visit.id for fault in job.faults)
            told = f"{visit.result or 'to come'}{', ' + visit.who if visit.who else ''}"
            of = f", {names[visit.place]}" if visit.place in names else ""
            yield BookLine(
                name=f"{visit.on or 'no day yet'}, {visit.kind}{of}",
                text=f"{told}{f', {found} found' if found else ''}",
            )  # fmt: skip
