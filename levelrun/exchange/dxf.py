"""A level's plan as DXF, and rooms read from a DXF drawing. ezdxf reads and writes the file itself; it is loaded when
the first drawing comes or goes, as it takes longer to load than most of the rest."""

from __future__ import annotations

import io
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING, Any

from shapely import LineString, Point, Polygon, STRtree, polygonize, unary_union

from levelrun.core.boxes.drawn.floor import DrawnRoom
from levelrun.core.errors import LevelRunError
from levelrun.core.site.geometry import clockwise

if TYPE_CHECKING:
    from ezdxf.document import Drawing
    from ezdxf.entities import DXFEntity

UNITS: dict[int, tuple[str, float]] = {
    1: ("inches", 1.0), 2: ("feet", 12.0), 4: ("millimetres", 1 / 25.4), 5: ("centimetres", 10 / 25.4),
    6: ("metres", 1000 / 25.4),
}  # fmt: skip
LEAST_FT2, MOST_FT2 = 4.0, 20_000.0
MOST_ENTITIES = 50_000
MOST_ROOMS = 200
MOST_LINES, MOST_MEETINGS = 10_000, 10_000
LAYERS = {"rooms": 8, "walls": 7, "openings": 30, "fixtures": 52, "boxes": 5, "names": 3}


class DxfError(LevelRunError):
    """A drawing was refused."""


@dataclass(frozen=True)
class LayerFound:
    """A layer of a drawing: what of it can be read, and what not, by kind."""

    name: str
    outlines: int
    lines: int
    texts: int
    skipped: dict[str, int]


@dataclass(frozen=True)
class DxfFound:
    """What a drawing holds. `units` is empty where it names none; sizes in its own units."""

    units: str
    layers: list[LayerFound]
    wide: float
    deep: float


@dataclass(frozen=True)
class DxfRoom:
    """A room read: its name where a text stands in it, its corners in inches."""

    name: str
    corners: tuple[tuple[float, float], ...]


def read_drawing(data: bytes) -> Drawing:
    """A DXF file. Raises DxfError for what is no DXF, damaged past reading, or too much."""
    import ezdxf
    from ezdxf import recover

    if not data.strip():
        raise DxfError("the file is empty", key="file")
    try:
        document, _ = recover.read(io.BytesIO(data))
    except (OSError, ezdxf.DXFError, ValueError, IndexError, KeyError) as error:
        raise DxfError(f"not a DXF drawing that can be read: {str(error)[:120]}", key="file") from None
    count = len(document.modelspace())
    if count > MOST_ENTITIES:
        raise DxfError(f"the drawing has {count} parts; allowed: up to {MOST_ENTITIES}", key="file", value=count)
    return document


def inspect(data: bytes) -> DxfFound:
    """Layers, units and extent of a drawing, before anything of it is brought in."""
    document = read_drawing(data)
    layers: dict[str, Counter[str]] = {}
    points: list[tuple[float, float]] = []
    for entity in document.modelspace():
        kind = "outline" if _outline(entity) else "line" if _segments(entity) else entity.dxftype()
        layers.setdefault(entity.dxf.layer, Counter())[kind] += 1
        points += _outline(entity) or [p for pair in _segments(entity) for p in pair]
    if not layers:
        raise DxfError("the drawing holds nothing in its model space", key="file")
    xs, ys = [p[0] for p in points] or [0.0], [p[1] for p in points] or [0.0]
    return DxfFound(
        UNITS.get(document.header.get("$INSUNITS", 0), ("", 0.0))[0],
        [_layer(name, counts) for name, counts in sorted(layers.items())],
        max(xs) - min(xs),
        max(ys) - min(ys),
    )


def _layer(name: str, counts: Counter[str]) -> LayerFound:
    texts = counts["TEXT"] + counts["MTEXT"]
    known = ("outline", "line", "TEXT", "MTEXT")
    skipped = {kind: count for kind, count in counts.items() if kind not in known}
    return LayerFound(name, counts["outline"], counts["line"], texts, skipped)


def read_rooms(data: bytes, layers: Sequence[str], units: str) -> list[DxfRoom]:
    """Rooms on the chosen layers: closed outlines, and what lines enclose. `units` as confirmed by the user.

    Raises DxfError that names units or layers that are not there, or where nothing is enclosed.
    """
    factor = dict(UNITS.values()).get(units)
    if factor is None:
        names = [name for name, _ in UNITS.values()]
        raise DxfError(f"units {units!r}; allowed: {', '.join(names)}", key="units", value=units, allowed=names)
    space = list(read_drawing(data).modelspace())
    known = {entity.dxf.layer for entity in space}
    missing = [layer for layer in layers if layer not in known]
    if missing or not layers:
        raise DxfError(
            f"layer {missing[0]!r} is not in the drawing" if missing else "choose a layer at least",
            key="layers", value=missing[:1], allowed=sorted(known),
        )  # fmt: skip
    chosen = [entity for entity in space if entity.dxf.layer in layers]
    outlines = [Polygon(points) for entity in chosen if (points := _outline(entity)) and len(points) > 2]
    lines = [LineString(pair) for entity in chosen for pair in _segments(entity) if pair[0] != pair[1]]
    outlines += list(polygonize([unary_union(_bearable(lines))]).geoms) if lines else []
    sound = [shape for shape in outlines if shape.is_valid and _size_ok(shape.area * factor**2 / 144)]
    if not sound:
        raise DxfError(
            "nothing on these layers encloses a room of 4 to 20,000 square feet; is the unit right?", key="units",
            value=units,
        )  # fmt: skip
    if len(sound) > MOST_ROOMS:
        raise DxfError(
            f"{len(sound)} closed outlines; allowed: up to {MOST_ROOMS}. Choose fewer layers", key="layers"
        )
    return _named(sound, space, factor)


def _bearable(lines: list[LineString]) -> list[LineString]:
    """The lines, where they are a plan's: walls meet; thousands of crossings would take for ever."""
    if len(lines) > MOST_LINES:
        raise DxfError(f"{len(lines)} lines; allowed: up to {MOST_LINES}. Choose fewer layers", key="layers")
    tree, meetings = STRtree(lines), 0
    for at in range(0, len(lines), 50):
        some = lines[at : at + 50]
        meetings += tree.query(some, predicate="intersects").shape[1] - len(some)
        if meetings > 2 * MOST_MEETINGS:
            raise DxfError(f"lines that meet over {MOST_MEETINGS} times. Choose fewer layers", key="layers")
    return lines


def _size_ok(square_feet: float) -> bool:
    return LEAST_FT2 <= square_feet <= MOST_FT2


def _named(shapes: Sequence[Any], space: Iterable[DXFEntity], factor: float) -> list[DxfRoom]:
    words = [entity for entity in space if entity.dxftype() in ("TEXT", "MTEXT")]
    largest_first = sorted(words, key=_letter_height, reverse=True)
    texts = [(word, _place(entity)) for entity in largest_first if (word := _text(entity))]
    places = STRtree([Point(at) for _, at in texts])
    rooms: list[DxfRoom] = []
    used: set[str] = set()
    ordered = sorted(shapes, key=lambda shape: (-shape.bounds[3], shape.bounds[0]))
    for index, shape in enumerate(ordered, 1):
        inside = places.query(shape, predicate="contains")
        name = (texts[min(inside)][0] if len(inside) else f"Room {index}")[:60]
        name = name if name.casefold() not in used else f"{name[:54]} {index}"
        used.add(name.casefold())
        corners = [(_sixteenth(x * factor), _sixteenth(y * factor)) for x, y in shape.simplify(1e-6).exterior.coords]
        rooms.append(DxfRoom(name, clockwise(corners[:-1])))
    return rooms


def _sixteenth(inches: float) -> float:
    return round(inches * 16) / 16


def _text(entity: DXFEntity) -> str:
    raw = entity.plain_text() if entity.dxftype() == "MTEXT" else entity.dxf.text
    return " ".join("".join(char for char in str(raw) if char.isprintable() or char.isspace()).split())


def _letter_height(entity: DXFEntity) -> float:
    """A room's name is the largest text in it."""
    return float(entity.dxf.char_height if entity.dxftype() == "MTEXT" else entity.dxf.height)


def _place(entity: DXFEntity) -> tuple[float, float]:
    at = entity.dxf.insert
    return float(at[0]), float(at[1])


def _outline(entity: DXFEntity) -> list[tuple[float, float]]:
    if entity.dxftype() == "LWPOLYLINE" and entity.closed:
        return [(float(x), float(y)) for x, y in entity.get_points("xy")]
    if entity.dxftype() == "POLYLINE" and entity.is_closed:
        return [(float(p[0]), float(p[1])) for p in entity.points()]
    return []


def _segments(entity: DXFEntity) -> list[tuple[tuple[float, float], tuple[float, float]]]:
    if entity.dxftype() == "LINE":
        a, b = entity.dxf.start, entity.dxf.end
        return [((float(a[0]), float(a[1])), (float(b[0]), float(b[1])))]
    if entity.dxftype() == "LWPOLYLINE" and not entity.closed:
        points = [(float(x), float(y)) for x, y in entity.get_points("xy")]
        return list(pairwise(points))
    return []


def write_plan(rooms: Sequence[DrawnRoom]) -> str:
    """A level as DXF in inches: outlines, wall faces, openings, what stands along walls, boxes with their names."""
    import ezdxf

    document = ezdxf.new("R2010", units=1)
    for name, color in LAYERS.items():
        document.layers.add(name, color=color)
    space = document.modelspace()
    for room in rooms:
        space.add_lwpolyline(room.corners, close=True, dxfattribs={"layer": "rooms"})
        _label(space, room.name, room.middle, 8, "names")
        for wall in room.walls:
            space.add_lwpolyline(wall.quad, close=True, dxfattribs={"layer": "walls"})
        for opening in room.openings:
            space.add_lwpolyline(opening.quad, close=True, dxfattribs={"layer": "openings"})
        for fixture in room.fixtures:
            space.add_lwpolyline(fixture.quad, close=True, dxfattribs={"layer": "fixtures"})
        for box in room.boxes:
            space.add_circle((box.x, box.y), 2, dxfattribs={"layer": "boxes"})
            _label(space, box.name, (box.x + box.look[0] * 6 + 3, box.y + box.look[1] * 6), 4, "boxes")
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()


def _label(space: Any, text: str, at: tuple[float, float], height: float, layer: str) -> None:
    space.add_text(text, height=height, dxfattribs={"layer": layer, "insert": at})
