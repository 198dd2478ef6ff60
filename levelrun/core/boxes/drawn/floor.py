"""The plan of one level as plain coordinates: rooms, walls, openings, boxes. Inches, x east, y north."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomView
from levelrun.core.job import Box
from levelrun.core.measure import show, show_area
from levelrun.core.site.faces import Face, Seen
from levelrun.core.site.framing import depth_of
from levelrun.core.site.geometry import Point, area_ft2


@dataclass(frozen=True, kw_only=True)
class DrawnWall:
    """A wall's face with its thickness behind it; `shared`: another room has the other face."""

    side: int
    name: str
    quad: tuple[Point, ...]
    length_text: str
    outside: bool
    shared: bool
    open: bool
    studs: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class DrawnOpening:
    """An opening: the gap as a quad; a door's leaf and the arc that it sweeps, empty for what has none."""

    id: str
    kind: str
    side: int
    quad: tuple[Point, ...]
    leaf: tuple[Point, ...]
    at_in: float
    width_in: float


@dataclass(frozen=True)
class DrawnFixture:
    """What stands along a wall, as a quad."""

    id: str
    kind: str
    side: int
    quad: tuple[Point, ...]


@dataclass(frozen=True, kw_only=True)
class DrawnBox:
    """A box or panel: where, and which way it looks (into the room)."""

    id: str
    name: str
    kind: str
    ways: int
    x: float
    y: float
    look: Point
    on_wall: bool
    marked: bool


@dataclass(frozen=True, kw_only=True)
class DrawnRoom:
    """One room of the plan. `middle`: where its name goes."""

    id: str
    name: str
    use: str
    size_text: str
    area_ft2: float
    area_text: str
    corners: tuple[Point, ...]
    middle: Point
    verdict: str
    walls: tuple[DrawnWall, ...]
    openings: tuple[DrawnOpening, ...]
    fixtures: tuple[DrawnFixture, ...]
    boxes: tuple[DrawnBox, ...]


def drawn_room(view: RoomView, verdict: str) -> DrawnRoom:
    """A room with all that is drawn of it. Openings are drawn once, by the room that holds them."""
    room = view.room
    xs, ys = [x for x, _ in room.corners], [y for _, y in room.corners]
    wide, deep = max(xs) - min(xs), max(ys) - min(ys)
    boxes = [_box(view, box) for box in view.boxes]
    boxes += [_panel(view, index) for index in range(len(view.context.panels))]
    return DrawnRoom(
        id=room.id,
        name=room.name,
        use=room.use,
        size_text=f"{show(wide)} × {show(deep)}",
        area_ft2=area_ft2(room.corners),
        area_text=show_area(area_ft2(room.corners)),
        corners=room.corners,
        middle=((min(xs) + max(xs)) / 2, (min(ys) + max(ys)) / 2),
        verdict=verdict,
        walls=tuple(_wall(face) for face in view.faces),
        openings=tuple(_opening(face, item) for face in view.faces for item in face.openings if item.own),
        fixtures=tuple(
            DrawnFixture(
                item.id,
                item.kind,
                face.wall.index,
                _quad(face, item.at_in, item.at_in + item.width_in, -item.off_in, -item.off_in - item.depth_in),
            )
            for face in view.faces
            for item in face.fixtures
        ),
        boxes=tuple(item for item in boxes if item is not None),
    )


def _quad(face: Face, low: float, high: float, near: float, far: float) -> tuple[Point, ...]:
    return (face.wall.at(low, near), face.wall.at(high, near), face.wall.at(high, far), face.wall.at(low, far))


def _wall(face: Face) -> DrawnWall:
    thick = face.wall_out if not face.mates else max(face.wall_out, depth_of(face.side))
    reach = 0.0 if face.mates else thick
    return DrawnWall(
        side=face.wall.index,
        name=face.wall.name,
        quad=_quad(face, -reach, face.wall.length_in + reach, 0.0, thick),
        length_text=show(face.wall.length_in),
        outside=face.outside,
        shared=bool(face.mates),
        open=face.side.stud == "open",
        studs=tuple(stud.at_in for stud in face.full_studs if stud.kind in ("stud", "end")),
    )


def _opening(face: Face, item: Seen) -> DrawnOpening:
    leaf: tuple[Point, ...] = ()
    if item.kind == "door":
        hinge, latch = (item.at_in, item.to_in) if item.hinge == "left" else (item.to_in, item.at_in)
        near = 0.0 if item.swings_in else face.wall_out
        swing = -item.width_in if item.swings_in else item.width_in
        leaf = (face.wall.at(hinge, near), face.wall.at(hinge, near + swing), face.wall.at(latch, near))
    quad = _quad(face, item.at_in, item.to_in, 0.0, max(face.wall_out, 3.5))
    return DrawnOpening(
        id=item.id,
        kind=item.kind,
        side=face.wall.index,
        quad=quad,
        leaf=leaf,
        at_in=item.at_in,
        width_in=item.width_in,
    )


def _box(view: RoomView, box: Box) -> DrawnBox | None:
    spot = view.spot(box)
    if spot is None:
        return None
    face = view.faces[box.side] if box.side is not None else None
    turn = -1.0 if not box.outdoors else 1.0
    look = (face.wall.out[0] * turn, face.wall.out[1] * turn) if face else (0.0, 0.0)
    return DrawnBox(
        id=box.id,
        name=box.name,
        kind=box.kind,
        ways=box.ways,
        x=spot[0],
        y=spot[1],
        look=look,
        on_wall=face is not None,
        marked=box.marked,
    )


def _panel(view: RoomView, index: int) -> DrawnBox | None:
    panel = view.context.panels[index]
    spot = view.spot(panel)
    if spot is None or panel.side is None:
        return None
    out = view.faces[panel.side].wall.out
    return DrawnBox(
        id=panel.id,
        name=panel.name,
        kind="panel",
        ways=2,
        x=spot[0],
        y=spot[1],
        look=(-out[0], -out[1]),
        on_wall=True,
        marked=True,
    )
