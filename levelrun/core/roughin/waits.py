"""What a wall waits for before it is closed, and a hold before it is lifted: all of it from what was recorded."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, field

from levelrun.core.job import Box, Fault, Hold, Job, Panel, Photo, Trench, Visit
from levelrun.core.kept import Standing
from levelrun.core.roughin.parts import HoldKind
from levelrun.core.roughin.steps import cards_of, is_made_up, left_out, open_nodes, wired
from levelrun.core.roughin.surfaces import level_of, nodes_on, place_name, surface_of
from levelrun.core.trench.order import before_lifting, ticks

KINDS: tuple[HoldKind, ...] = ("insulation", "drywall", "power")
BACKFILL: HoldKind = "backfill"
TITLES = {
    "insulation": "Before insulation", "drywall": "Before drywall", "backfill": "Before backfill",
    "power": "Before power",
}  # fmt: skip
MOST_NAMED = 4


@dataclass(frozen=True, kw_only=True)
class Wait:
    """One thing that is waited for, and where it is: a box or panel, a surface of a room, a trench, what a visit
    found."""

    kind: str
    text: str
    node: str = ""
    room: str = ""
    surface: str = ""
    trench: str = ""
    fault: str = ""


@dataclass(frozen=True, kw_only=True)
class HoldRow:
    """A hold: held or lifted; what it waits for; the visit that is next, or was last."""

    key: str
    kind: HoldKind
    place: str
    title: str
    where: str
    lifted: bool
    lifted_text: str
    waits: list[Wait]
    waits_text: str
    visit: str
    visit_text: str
    failed: bool


@dataclass(frozen=True, kw_only=True)
class SurfaceRow:
    """A surface with something in it: how many of its boxes are made up, what it waits for, whether it is closed and
    was closed too early. photos: how many are pinned to it."""

    room: str
    surface: str
    name: str
    room_name: str
    group: str
    structure: str
    boxes: int
    made: int
    photos: int
    closed: bool
    closed_on: str
    why: str
    waits: list[Wait]
    verdict: str = field(default="fine")


_surfaces = Standing[list[SurfaceRow]](4)


def surfaces(job: Job) -> list[SurfaceRow]:
    """Every surface that a circuit reaches, or that was closed or photographed, room by room in their order."""
    source = (
        job.structures, job.rooms, job.panels, job.boxes, job.circuits, job.cards, job.built, job.closings,
        job.photos, job.faults, job.visits, job.habits,
    )  # fmt: skip
    return _surfaces.get(None, source, lambda: list(_surface_rows(job)))


def closed_surfaces(job: Job) -> list[SurfaceRow]:
    """The surfaces that are closed: what is asked of a record at every edit, without all others."""
    return list(_surface_rows(job, {(item.room, item.surface) for item in job.closings})) if job.closings else []


def _surface_rows(job: Job, within: Set[tuple[str, str]] | None = None) -> Iterator[SurfaceRow]:
    reached, gone, cards = wired(job), left_out(job), cards_of(job)
    standing = {
        key: [node for node in own if node.id in reached and node.id not in gone]
        for key, own in nodes_on(job).items()
    }
    closed = {(item.room, item.surface): item for item in job.closings}
    photos: dict[tuple[str, str], list[Photo]] = {}
    for photo in job.photos:
        if photo.room is not None:
            photos.setdefault((photo.room, photo.surface), []).append(photo)
    faults: dict[str, list[Fault]] = {}
    for fault in job.faults:
        if fault.node is not None and not fault.seen_on:
            faults.setdefault(fault.node, []).append(fault)
    structures = {level.id: (item, level) for item in job.structures for level in item.levels}
    for room in job.rooms:
        structure, level = structures[room.level]
        keys = [*(str(side) for side in range(len(room.corners))), "ceiling", "floor"]
        for surface in keys:
            if within is not None and (room.id, surface) not in within:
                continue
            own = standing.get((room.id, surface), [])
            if not own and (room.id, surface) not in closed and (room.id, surface) not in photos:
                continue
            made = [node for node in own if is_made_up(node, cards.get(node.id))]
            pinned, shut = photos.get((room.id, surface), []), closed.get((room.id, surface))
            name = place_name(job, room.id, surface)
            waits = list(_surface_waits(job, room.id, surface, own, made, pinned, faults))
            yield SurfaceRow(
                room=room.id, surface=surface, name=name.partition(", ")[2].capitalize(), room_name=room.name,
                group=f"{structure.name}, {level.name.lower()}: {room.name}", structure=structure.id,
                boxes=len(own), made=len(made), photos=len(pinned), closed=shut is not None,
                closed_on=shut.on if shut else "", why=shut.why if shut else "", waits=waits,
                verdict="stop" if shut and waits else "check" if waits else "fine",
            )  # fmt: skip


def _surface_waits(
    job: Job,
    room: str,
    surface: str,
    own: Sequence[Box | Panel],
    made: Sequence[Box | Panel],
    photos: Sequence[Photo],
    faults: Mapping[str, Sequence[Fault]],
) -> Iterator[Wait]:
    done = {node.id for node in made}
    for node in own:
        if isinstance(node, Box) and node.id not in done:
            yield Wait(kind="box", text=f"{node.name} is not made up", node=node.id, room=room, surface=surface)
        for fault in faults.get(node.id, ()):
            yield Wait(
                kind="fault", text=f"found by the inspector at {node.name}: {fault.text}", node=node.id,
                room=room, surface=surface, fault=fault.id,
            )  # fmt: skip
    if own and not photos and job.habits.roughin.photos and surface != "floor":
        yield Wait(kind="photo", text="no photo shows what is in it", room=room, surface=surface)


def waits_of(job: Job, room: str, surface: str) -> list[Wait]:
    """What one surface waits for; nothing where nothing is in it."""
    return next((row.waits for row in surfaces(job) if (row.room, row.surface) == (room, surface)), [])


def named(texts: Sequence[str]) -> str:
    """Some in words: three, and how many more."""
    if len(texts) <= MOST_NAMED:
        return ", ".join(texts)
    return f"{', '.join(texts[: MOST_NAMED - 1])} and {len(texts) - MOST_NAMED + 1} more"


COUNTED = {
    "box": ("box open", "boxes open"), "photo": ("photo missing", "photos missing"),
    "fault": ("thing found and open", "things found and open"), "panel": ("panel open", "panels open"),
}  # fmt: skip


def counted(waits: Sequence[Wait]) -> str:
    """What is waited for, counted by kind: the many first, then what is said in words of its own."""
    many: dict[str, int] = {}
    told: list[str] = []
    for wait in waits:
        if wait.kind in COUNTED:
            many[wait.kind] = many.get(wait.kind, 0) + 1
        else:
            told.append(wait.text)
    parts = [f"{n} {COUNTED[kind][n > 1]}" for kind, n in many.items()]
    return ", ".join([*parts, *told]) or "the inspection alone"


def holds(job: Job, stops: Mapping[str, int]) -> list[HoldRow]:
    """Every hold of a job, building by building, then its trenches. `stops`: how many stops of the plan there are in
    each building."""
    found: list[HoldRow] = []
    reached = wired(job)
    rows = surfaces(job)
    for structure in job.structures:
        if structure.existing or not any(n.structure == structure.id and n.id in reached for n in job.nodes):
            continue
        for kind in KINDS:
            if kind == "insulation" and not _insulated(job, structure.id):
                continue
            boxed = any(isinstance(n, Box) and n.structure == structure.id and n.id in reached for n in job.nodes)
            if kind == "drywall" and not boxed:
                continue
            waits = list(_building_waits(job, kind, structure.id, rows, stops.get(structure.id, 0)))
            found.append(_row(job, kind, structure.id, structure.name, waits))
    found += [
        _row(job, BACKFILL, trench.id, trench.name, list(_trench_waits(job, trench))) for trench in job.trenches
    ]
    return found


def _insulated(job: Job, structure: str) -> bool:
    levels = {level.id for item in job.structures if item.id == structure for level in item.levels}
    return any(side.insulation != "none" for room in job.rooms if room.level in levels for side in room.sides)


def _building_waits(
    job: Job, kind: HoldKind, structure: str, rows: Sequence[SurfaceRow], stops: int
) -> Iterator[Wait]:
    own = [row for row in rows if row.structure == structure]
    rooms = {room.id: room for room in job.rooms}
    if stops and kind != "power":
        yield Wait(kind="stop", text=f"{stops} stop{'s' * (stops > 1)} of the plan in this building")
    before = {"drywall": "insulation", "power": "drywall"}.get(kind)
    asked = before == "drywall" or _insulated(job, structure)
    if before and asked and own and lifted(job, before, structure) is None:
        yield Wait(kind="hold", text=f"the hold before {before} is not lifted")
    if kind == "power":
        yield from (
            Wait(kind="panel", text=f"{node.name} is not made up", node=node.id, room=node.room or "")
            for node in open_nodes(job)
            if node.structure == structure and isinstance(node, Panel)
        )
        yield from _faults(job, ("power", "final"), structure)
        return
    wanted = [
        row
        for row in own
        if kind == "drywall"
        or (row.surface.isdigit() and rooms[row.room].sides[int(row.surface)].insulation != "none")
    ]
    yield from (wait for row in wanted for wait in row.waits)
    if kind == "drywall":  # boxes in no drawn room are made up before the walls are shut too
        yield from (
            Wait(kind="box", text=f"{node.name} is not made up", node=node.id)
            for node in open_nodes(job)
            if node.structure == structure and isinstance(node, Box) and node.room is None
        )
    yield from _faults(job, (kind,), structure)


def _faults(job: Job, kinds: tuple[str, ...], place: str) -> Iterator[Wait]:
    """What a visit found at no box in a room: those in rooms are waited for where they stand."""
    visits = {visit.id for visit in job.visits if visit.kind in kinds and visit.place == place}
    roomed = {node.id for node in job.nodes if node.room is not None}
    for fault in job.faults:
        if fault.visit in visits and not fault.seen_on and fault.node not in roomed:
            yield Wait(kind="fault", text=f"found by the inspector: {fault.text}", fault=fault.id)


def _trench_waits(job: Job, trench: Trench) -> Iterator[Wait]:
    done, missing = ticks(trench), before_lifting(trench)
    if missing:
        yield Wait(kind="trench", text=f"{missing.replace('_', ' ')} comes first", trench=trench.id)
    elif not trench.readings:
        yield Wait(kind="tubes", text="no depth is read: sight tubes, or a tape", trench=trench.id)
    if "photo" not in done and not any(photo.trench == trench.id for photo in job.photos):
        yield Wait(kind="photo", text="no photo of the open trench", trench=trench.id)
    yield from _faults(job, (BACKFILL,), trench.id)


def lifted(job: Job, kind: str, place: str) -> Hold | None:
    """A hold where it was lifted, else None: it holds."""
    return next((h for h in job.holds if (h.kind, h.place) == (kind, place) and h.lifted_by), None)


def last_visit(job: Job, kind: str, place: str) -> Visit | None:
    """The last inspection that looks at this: by its day, of equal days the one that was said last."""
    own = [visit for visit in job.visits if (visit.kind, visit.place) == (kind, place)]
    return max(enumerate(own), key=lambda item: (item[1].on, item[0]))[1] if own else None


def open_faults(job: Job, kind: str, place: str) -> list[Fault]:
    """What was found at visits of this kind here and not seen to be mended."""
    visits = {visit.id for visit in job.visits if (visit.kind, visit.place) == (kind, place)}
    return [fault for fault in job.faults if fault.visit in visits and not fault.seen_on]


def _row(job: Job, kind: HoldKind, place: str, where: str, waits: list[Wait]) -> HoldRow:
    hold, visit = lifted(job, kind, place), last_visit(job, kind, place)
    failed = visit is not None and visit.result == "failed"
    return HoldRow(
        key=f"{kind}.{place}", kind=kind, place=place, title=TITLES[kind], where=where, lifted=hold is not None,
        lifted_text=f"by {hold.lifted_by}{', ' + hold.lifted_on if hold.lifted_on else ''}" if hold else "",
        waits=[] if hold else waits, waits_text="" if hold else counted(waits),
        visit=visit.id if visit else "", visit_text=visit_text(visit) if visit else "",
        failed=failed,
    )  # fmt: skip


def visit_text(visit: Visit) -> str:
    """An inspection in words."""
    when = " ".join(part for part in (visit.on, visit.hour) if part) or "no day yet"
    told = f"inspection {visit.result}, {when}" if visit.result else f"inspection {when}"
    return f"{told}, {visit.who}" if visit.who else told


def surface_at(job: Job, node: Box | Panel) -> str:
    """The surface of a node that stands in a room; empty otherwise."""
    if node.room is None:
        return ""
    return surface_of(node, level_of(job, job.room(node.room)))
