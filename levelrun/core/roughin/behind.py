"""What is behind a spot of a wall, and whether a screw may go there.

How near is too near is the shop's habit (`Habits.roughin.clear_in`); a hole drilled by the limits lies 1 1/4 in
behind the stud's face or has a plate (300.4(A)), which a screw through the finish may not rely on.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from shapely.geometry import LineString, box
from shapely.geometry import Point as Spot
from shapely.ops import nearest_points

from levelrun.core.measure import show_inches
from levelrun.core.roughin.xray import XRay, readings
from levelrun.core.site.framing import STUD_IN
from levelrun.core.site.geometry import Point

LOOKED_IN = 12.0  # so far round a spot is told


@dataclass(frozen=True, kw_only=True)
class Near:
    """Something near a spot: how far off, at which side."""

    kind: str
    name: str
    off_in: float
    text: str


@dataclass(frozen=True, kw_only=True)
class Behind:
    """The answer for a spot: the verdict (stop: do not drive a screw; check: only a short one, or nothing holds it;
    fine), in words, and what is near, the nearest first."""

    at_in: float
    height_in: float
    readings: str
    verdict: str
    text: str
    near: list[Near]


def behind(shown: XRay, at_in: float, height_in: float, clear_in: float) -> Behind:
    """What is behind a spot of a surface."""
    near = sorted(_near(shown, (at_in, height_in)), key=lambda item: item.off_in)
    live = [item for item in near if item.kind in ("cable", "box", "pipe", "extra", "panel")]
    wood = any(item.kind in ("stud", "joist") and item.off_in == 0 for item in near)
    if live and live[0].off_in < clear_in:
        verdict, text = "stop", f"No screw here: {live[0].name} is {_off(live[0].off_in)}."
    elif wood:
        first = f"; the nearest wire is {_off(live[0].off_in)}" if live else ""
        verdict, text = "fine", f"Wood behind it, nothing within {show_inches(clear_in)}{first}."
    else:
        first = f" The nearest wire is {_off(live[0].off_in)}." if live else ""
        verdict, text = "check", f"Nothing to hold a screw here: between the framing.{first}"
    return Behind(
        at_in=at_in, height_in=height_in, readings=readings(at_in, height_in, shown.surface), verdict=verdict,
        text=text, near=[item for item in near if item.off_in <= LOOKED_IN],
    )  # fmt: skip


def _off(off_in: float) -> str:
    return "right behind it" if off_in < 1 / 16 else f"{show_inches(off_in)} off"


def _near(shown: XRay, spot: Point) -> Iterator[Near]:
    for rect in shown.framing:
        off = _to_rect(spot, (rect.x0, rect.y0, rect.x1, rect.y1))
        if off <= 16:
            yield _told(
                rect.kind if rect.kind == "joist" else "stud", _wood(rect.kind), off, spot, rect.x0 + STUD_IN / 2
            )
    for item in shown.boxes:
        if item.state != "left_out":
            kind = "panel" if item.kind == "panel" else "box"
            off = _to_rect(spot, (item.x0, item.y0, item.x1, item.y1))
            yield _told(kind, item.name, off, spot, (item.x0 + item.x1) / 2)
    for cable in shown.cables:
        if cable.state != "left_out":
            off, at = _to_line(spot, cable.points)
            kind = "cable" if cable.wire else "pipe"
            went = ", as it was built" if cable.state == "moved" else ""
            yield _told(kind, f"{kind} {cable.letter}{went}", off, spot, at)
    for extra in shown.extras:
        off, at = _to_line(spot, extra.points)
        yield _told("extra", extra.text, off, spot, at)


def _wood(kind: str) -> str:
    return "joist" if kind == "joist" else "stud" if kind in ("stud", "end") else f"{kind} stud"


def _told(kind: str, name: str, off: float, spot: Point, at: float) -> Near:
    side = "" if off == 0 or abs(at - spot[0]) < 0.5 else ", to the right" if at > spot[0] else ", to the left"
    text = "here" if off < 1 / 16 else f"{show_inches(off)} off{side}"
    return Near(kind=kind, name=name, off_in=off, text=text)


def _to_rect(spot: Point, rect: tuple[float, float, float, float]) -> float:
    return float(box(*rect).distance(Spot(spot)))


def _to_line(spot: Point, points: Sequence[Point]) -> tuple[float, float]:
    """How far a line of corners is off, and where along the wall it is nearest."""
    line = LineString(points) if len(points) > 1 else Spot(points[0])
    nearest = nearest_points(line, Spot(spot))[0]
    return float(line.distance(Spot(spot))), float(nearest.x)
