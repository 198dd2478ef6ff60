"""A wall, ceiling or floor as an x-ray to true scale: what stands and lies behind it, planned or as it was built.

Inches: x along the wall from its left corner as faced, of a ceiling or floor east from the room's west; y over the
floor, of a ceiling or floor north from the room's south, seen from above.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace

from shapely.geometry import LineString, Polygon

from levelrun.core.boxes.drawn.round import WalkRound
from levelrun.core.boxes.facts import RoomContext, viewed
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Built, Job, Panel, Photo, Room
from levelrun.core.measure import show, show_inches
from levelrun.core.roughin.surfaces import CEILING, FLOOR, readings_of, surface_name, surface_of, surface_sizes
from levelrun.core.site.geometry import Point
from levelrun.core.ways.frame.drawn import PlanCable
from levelrun.core.ways.inside import InTheWalls

PIPE_WIRE = ""
EDGE_IN = 0.05


@dataclass(frozen=True, kw_only=True)
class XRect:
    """A rectangle: stud, joist, opening, fixture. `id` where it can be pointed at."""

    id: str
    kind: str
    label: str
    x0: float
    y0: float
    x1: float
    y1: float


@dataclass(frozen=True, kw_only=True)
class XBox:
    """A box or panel, its outside to scale; state: open, made, left_out; moved: it went elsewhere than planned."""

    id: str
    name: str
    kind: str
    x0: float
    y0: float
    x1: float
    y1: float
    gangs: int
    state: str
    moved: bool
    readings: str


@dataclass(frozen=True, kw_only=True)
class XCable:
    """A cable or pipe with its letter; wire: its gauge, empty for pipe; state: planned, moved, left_out, extra."""

    circuit: str
    box: str
    letter: str
    name: str
    wire: str
    state: str
    points: tuple[Point, ...]


@dataclass(frozen=True, kw_only=True)
class XHole:
    """A hole in a stud with so many cables; plate: it is near a face, and a steel plate guards it."""

    x: float
    y: float
    bit_in: float
    count: int
    plate: bool


@dataclass(frozen=True, kw_only=True)
class XExtra:
    """Something that is there and was not planned."""

    id: str
    what: str
    text: str
    points: tuple[Point, ...]


@dataclass(frozen=True, kw_only=True)
class XPhoto:
    """A photo where it is pinned."""

    id: str
    x: float
    y: float
    number: int
    text: str


@dataclass(frozen=True, kw_only=True)
class XRay:
    """The whole surface. marks: of what hangs in a ceiling, its two readings for the floor below."""

    room: str
    surface: str
    title: str
    edges: str
    wide_in: float
    tall_in: float
    outline: tuple[Point, ...]
    framing: tuple[XRect, ...]
    openings: tuple[XRect, ...]
    fixtures: tuple[XRect, ...]
    boxes: tuple[XBox, ...]
    cables: tuple[XCable, ...]
    holes: tuple[XHole, ...]
    staples: tuple[Point, ...]
    extras: tuple[XExtra, ...]
    photos: tuple[XPhoto, ...]
    marks: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class Seen:
    """What an x-ray is drawn from beside the room: ways, what was made up, what was recorded."""

    book: Codebook
    job: Job
    context: RoomContext
    round: WalkRound
    inside: InTheWalls
    over: list[PlanCable]
    letters: Mapping[tuple[str, str], str]
    made: frozenset[str]
    gone: frozenset[str]


def xray(seen: Seen, surface: str) -> XRay:
    """The x-ray of one surface."""
    room, level = seen.context.room, seen.context.level
    wide, tall = surface_sizes(room, level, surface)
    shown = _wall(seen, int(surface)) if surface.isdigit() else _flat(seen, surface)
    built = [item for item in seen.job.built if (item.room, item.surface) == (room.id, surface)]
    cables = tuple(_as_built(seen, shown.cables, built))
    boxes = tuple(_boxes(seen, surface, built))
    return XRay(
        room=room.id,
        surface=surface,
        title=f"{room.name}, {surface_name(room, surface)}: what is behind it",
        edges="from the left corner and the floor" if surface.isdigit() else "from the west and the south wall",
        wide_in=wide,
        tall_in=tall,
        outline=_outline(room, surface, wide, tall),
        framing=shown.framing,
        openings=shown.openings,
        fixtures=shown.fixtures,
        boxes=boxes,
        cables=cables,
        holes=shown.holes,
        staples=shown.staples,
        extras=tuple(_extra(item) for item in built if item.state == "extra"),
        photos=tuple(_photos(seen.job.photos, room.id, surface)),
        marks=tuple(f"{box.name}: {box.readings}" for box in boxes) if surface == CEILING else (),
    )


@dataclass(frozen=True, kw_only=True)
class _Shown:
    framing: tuple[XRect, ...] = ()
    openings: tuple[XRect, ...] = ()
    fixtures: tuple[XRect, ...] = ()
    cables: tuple[XCable, ...] = ()
    holes: tuple[XHole, ...] = ()
    staples: tuple[Point, ...] = ()


def _outline(room: Room, surface: str, wide: float, tall: float) -> tuple[Point, ...]:
    if surface.isdigit():
        return ((0, 0), (wide, 0), (wide, tall), (0, tall))
    west, south = min(x for x, _ in room.corners), min(y for _, y in room.corners)
    return tuple((x - west, y - south) for x, y in room.corners)


def _wall(seen: Seen, side: int) -> _Shown:
    wall = seen.round.walls[side]
    x0, x1 = wall.x0, wall.x1

    def inside(x: float) -> bool:
        return x0 - EDGE_IN <= x <= x1 + EDGE_IN

    def rect(item: object) -> XRect:
        got = vars(item)
        return XRect(
            id=got["id"], kind=got["kind"], label=got["label"], x0=got["x0"] - x0, x1=got["x1"] - x0,
            y0=got["y0"], y1=got["y1"],
        )  # fmt: skip

    return _Shown(
        framing=tuple(rect(item) for item in seen.round.studs if item.side == side),
        openings=tuple(rect(item) for item in seen.round.openings if item.side == side),
        fixtures=tuple(rect(item) for item in seen.round.fixtures if item.side == side),
        cables=tuple(
            XCable(
                circuit=c.circuit, box=c.box, letter=seen.letters.get((c.circuit, c.box), "?"), name=c.name,
                wire=c.wire, state="planned", points=tuple((x - x0, y) for x, y in c.points),
            )
            for c in seen.inside.cables
            if all(inside(x) for x, _ in c.points)
        ),
        holes=tuple(
            XHole(x=h.x - x0, y=h.y, bit_in=h.bit_in, count=h.count, plate=h.plate)
            for h in seen.inside.holes
            if inside(h.x)
        ),
        staples=tuple((x - x0, y) for x, y in seen.inside.staples if inside(x)),
    )  # fmt: skip


def _flat(seen: Seen, surface: str) -> _Shown:
    room, level = seen.context.room, seen.context.level
    west, south = min(x for x, _ in room.corners), min(y for _, y in room.corners)
    wide, tall = surface_sizes(room, level, surface)
    shape = Polygon(room.corners)
    at = "over" if surface == CEILING else "under"
    cables = []
    for one in seen.over:
        if one.at != at or len(one.points) < 2:
            continue
        cut = LineString(one.points).intersection(shape)
        for piece in getattr(cut, "geoms", [cut]):
            if piece.geom_type == "LineString" and piece.length > EDGE_IN:
                cables.append(
                    XCable(
                        circuit=one.circuit, box=one.box, letter=seen.letters.get((one.circuit, one.box), "?"),
                        name=one.circuit, wire=one.wire, state="planned",
                        points=tuple((x - west, y - south) for x, y in piece.coords),
                    )
                )  # fmt: skip
    return _Shown(
        framing=tuple(_joists(level.joists, level.joist_spacing_in, wide, tall)) if surface == CEILING else (),
        cables=tuple(cables),
    )


def _joists(way: str, spacing: float, wide: float, tall: float) -> Iterator[XRect]:
    """Joists on the spacing of the level, the first at an edge: where they really lie is taped."""
    for number in range(math.ceil((tall if way == "x" else wide) / spacing)):
        low, high = number * spacing, number * spacing + 1.5
        x0, x1, y0, y1 = (0, wide, low, high) if way == "x" else (low, high, 0, tall)
        yield XRect(id="", kind="joist", label="", x0=x0, x1=min(x1, wide), y0=y0, y1=min(y1, tall))


def _boxes(seen: Seen, surface: str, built: Iterable[Built]) -> Iterator[XBox]:
    room, level = seen.context.room, seen.context.level
    moved = {item.node for item in built if item.state == "moved" and item.circuit is None}
    nodes: tuple[Box | Panel, ...] = (*seen.context.boxes, *seen.context.panels)
    for node in nodes:
        at = readings_of(node, room, level)
        if at is None or surface_of(node, level) != surface:
            continue
        if isinstance(node, Box):
            model = viewed(seen.book, seen.context).model(node)
            wide, tall, foot = model.wide_in, model.tall_in, at[1] - model.tall_in / 2
        else:
            wide, tall, foot = node.width_in, node.tall_in, at[1]
        state = "left_out" if node.id in seen.gone else "made" if node.id in seen.made else "open"
        yield XBox(
            id=node.id, name=node.name, kind=node.kind if isinstance(node, Box) else "panel",
            x0=at[0] - wide / 2, x1=at[0] + wide / 2, y0=foot, y1=foot + tall,
            gangs=node.gangs if isinstance(node, Box) else 1, state=state, moved=node.id in moved,
            readings=readings(at[0], at[1], surface),
        )  # fmt: skip


def readings(at_in: float, height_in: float, surface: str) -> str:
    """Two readings in words, to the sixteenth."""
    if surface.isdigit():
        return f"{show(at_in)} from the left, {show_inches(height_in)} over the floor"
    return f"{show(at_in)} from the west wall, {show(height_in)} from the south wall"


def _as_built(seen: Seen, planned: Iterable[XCable], built: Iterable[Built]) -> Iterator[XCable]:
    """Cables as they went: what was recorded here goes before what was planned; what was left out says so."""
    went = {(item.circuit, item.node): item for item in built if item.circuit is not None and item.state == "moved"}
    left = {(item.circuit, item.node) for item in seen.job.built if item.circuit and item.state == "left_out"}
    for cable in planned:
        key = (cable.circuit, cable.box)
        if key in left:
            yield replace(cable, state="left_out")
        elif key not in went:
            yield cable
    for (circuit, node), item in went.items():
        assert circuit is not None and node is not None
        wire = next((c.wire for c in planned if (c.circuit, c.box) == (circuit, node)), _gauge(seen.job, circuit))
        yield XCable(
            circuit=circuit, box=node, letter=seen.letters.get((circuit, node), "?"), name=item.remarks or circuit,
            wire=wire, state="moved", points=item.points,
        )  # fmt: skip


def _gauge(job: Job, circuit: str) -> str:
    return next((item.wire_size for item in job.circuits if item.id == circuit), "")


def _extra(item: Built) -> XExtra:
    text = item.remarks or {"wood": "blocking", "water": "water pipe", "other": "something"}.get(item.what, item.what)
    return XExtra(id=item.id, what=item.what, text=text, points=item.points)


def _photos(photos: Iterable[Photo], room: str, surface: str) -> Iterator[XPhoto]:
    own = [photo for photo in photos if (photo.room, photo.surface) == (room, surface)]
    for number, photo in enumerate(own, start=1):
        yield XPhoto(
            id=photo.id, x=photo.at_in, y=photo.height_in, number=number,
            text=f"{readings(photo.at_in, photo.height_in, surface)}{', ' + photo.on if photo.on else ''}",
        )  # fmt: skip


def is_flat(surface: str) -> bool:
    """Whether a surface is a ceiling or a floor."""
    return surface in (CEILING, FLOOR)
