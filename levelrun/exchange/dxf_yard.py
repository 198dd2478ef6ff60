"""The yard as DXF and from it: a layer a kind, named `yard-drive`, `yard-water` and so on, or by the kind alone."""

from __future__ import annotations

import io
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING

from levelrun.core.job import Job
from levelrun.core.trench.parts import AREAS, LINES
from levelrun.core.trench.yard import DRIVE_IN, PATH_IN, STREET_IN, shape_of, yard_of
from levelrun.exchange.dxf import UNITS, DxfError, read_drawing

if TYPE_CHECKING:
    from ezdxf.entities import DXFEntity

KINDS = (*LINES, *AREAS)
WIDTHS = {"drive": DRIVE_IN, "street": STREET_IN, "path": PATH_IN}
MOST_PARTS = 100
PREFIX = "yard-"


@dataclass(frozen=True)
class DxfYardPart:
    """A thing of the yard as it was read: its kind, its points in inches, its width where it has one."""

    kind: str
    points: tuple[tuple[float, float], ...]
    width_in: float


def read_yard(data: bytes, units: str) -> list[DxfYardPart]:
    """Things of the yard from the layers that are named for their kinds: lines and open polylines along their middle
    (with the width of the polyline, else as usual), closed polylines as areas. `units` as confirmed by the user.

    Raises DxfError that names units that are not there, or what layers are looked for where none is.
    """
    factor = dict(UNITS.values()).get(units)
    if factor is None:
        names = [name for name, _ in UNITS.values()]
        raise DxfError(f"units {units!r}; allowed: {', '.join(names)}", key="units", value=units, allowed=names)
    found: list[DxfYardPart] = []
    for entity in read_drawing(data).modelspace():
        kind = entity.dxf.layer.lower().removeprefix(PREFIX)
        points = _points(entity, factor) if kind in KINDS else ()
        if len(points) >= (2 if kind in LINES else 3):
            found.append(DxfYardPart(kind, points, _width(entity, kind, factor)))
    if not found:
        raise DxfError(
            "nothing stands on a layer of the yard; layers are named by what lies on them", key="layers",
            allowed=[f"{PREFIX}{kind}" for kind in KINDS],
        )  # fmt: skip
    if len(found) > MOST_PARTS:
        raise DxfError(f"{len(found)} things; allowed: up to {MOST_PARTS}", key="layers", value=len(found))
    return found


def _points(entity: DXFEntity, factor: float) -> tuple[tuple[float, float], ...]:
    """The points of a line or polyline in inches, to a sixteenth, none twice in a row."""
    raw: list[tuple[float, float]] = []
    if entity.dxftype() == "LINE":
        raw = [(entity.dxf.start[0], entity.dxf.start[1]), (entity.dxf.end[0], entity.dxf.end[1])]
    elif entity.dxftype() == "LWPOLYLINE":
        raw = [(x, y) for x, y in entity.get_points("xy")]
    points = [(round(x * factor * 16) / 16, round(y * factor * 16) / 16) for x, y in raw]
    return tuple(points[:1]) + tuple(b for a, b in pairwise(points) if a != b)


def _width(entity: DXFEntity, kind: str, factor: float) -> float:
    drawn = float(entity.dxf.get("const_width", 0.0)) * factor if entity.dxftype() == "LWPOLYLINE" else 0.0
    return drawn if kind in WIDTHS and drawn >= 12 else WIDTHS.get(kind, 0.0)


def write_yard(job: Job) -> str:
    """The yard as DXF in inches: buildings, its things, trenches and spans, each on its layer."""
    import ezdxf

    document = ezdxf.new("R2010", units=1)
    space = document.modelspace()
    for building in yard_of(job).buildings:
        for part in getattr(building.shape, "geoms", [building.shape]):
            space.add_lwpolyline(list(part.exterior.coords)[:-1], close=True, dxfattribs={"layer": "buildings"})
        at = (building.shape.centroid.x, building.shape.centroid.y)
        space.add_text(building.structure.name, height=12, dxfattribs={"layer": "names", "insert": at})
    for thing in job.yard:
        layer = {"layer": f"{PREFIX}{thing.kind}"}
        if thing.kind in KINDS:
            line = space.add_lwpolyline(thing.points, close=thing.kind in AREAS, dxfattribs=layer)
            if thing.kind in WIDTHS:
                line.dxf.const_width = thing.width_in
        else:
            space.add_circle(thing.points[0], max(shape_of(thing).length / 6.2832, 1.0), dxfattribs=layer)
    for own in job.lines:
        kind = "trenches" if own in job.trenches else "spans"
        space.add_lwpolyline(own.points, dxfattribs={"layer": kind})
    stream = io.StringIO()
    document.write(stream)
    return stream.getvalue()
