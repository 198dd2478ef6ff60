"""The walk-round: all walls of a room unrolled, clockwise from its first, as plain coordinates.

Inches: x along the walls from the left, y over the room's floor. Everything is to one scale.
"""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.boxes.facts import RoomView
from levelrun.core.boxes.spacing import SPACED, counter_spaces, wall_spaces
from levelrun.core.job import Pole
from levelrun.core.measure import show, show_inches
from levelrun.core.site.framing import STUD_IN, depth_of, finish_in


@dataclass(frozen=True, kw_only=True)
class RoundWall:
    """One wall: from x0 to x1, its name, what is behind it, and how it is built."""

    side: int
    x0: float
    x1: float
    name: str
    behind: str
    build: str
    stud: str
    outside: bool


@dataclass(frozen=True, kw_only=True)
class RoundRect:
    """A rectangle: stud, opening, fixture or box. `id` where it can be taken hold of; `side` its wall."""

    id: str
    kind: str
    label: str
    side: int
    x0: float
    y0: float
    x1: float
    y1: float


@dataclass(frozen=True, kw_only=True)
class RoundBox:
    """A box on a wall, its outside to scale. `verdict`: stop, check or fine."""

    id: str
    name: str
    kind: str
    side: int
    x0: float
    y0: float
    x1: float
    y1: float
    gangs: int
    outdoors: bool
    marked: bool
    verdict: str


@dataclass(frozen=True)
class Reach:
    """A stretch of the floor line or of a counter: kind reached, missing or breaks."""

    x0: float
    x1: float
    kind: str
    y: float
    text: str


@dataclass(frozen=True)
class PoleLine:
    """A mark of the story pole."""

    y: float
    text: str
    use: str


@dataclass(frozen=True)
class HoleRun:
    """A stretch of the hole line between two boxes or openings, and the studs that it is drilled through."""

    x0: float
    x1: float
    at: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class WalkRound:
    """The whole elevation of a room."""

    length_in: float
    height_in: float
    walls: tuple[RoundWall, ...]
    studs: tuple[RoundRect, ...]
    openings: tuple[RoundRect, ...]
    fixtures: tuple[RoundRect, ...]
    boxes: tuple[RoundBox, ...]
    reach: tuple[Reach, ...]
    pole: tuple[PoleLine, ...]
    hole_line_in: float
    holes: tuple[HoleRun, ...]


OVER_IN = 12.0  # drawn over a box that hangs higher than the ceiling: at the top of stairs


def walk_round(view: RoomView, verdicts: dict[str, str]) -> WalkRound:
    """The elevation of a room; `verdicts` by box id."""
    pole = view.context.habits.pole
    ceiling = view.context.level.height_in
    high = [
        view.over_floor(box) + OVER_IN
        for box in view.boxes
        if box.side is not None and view.over_floor(box) > ceiling
    ]
    return WalkRound(
        length_in=view.around_in,
        height_in=max([ceiling, *high]),
        walls=tuple(_wall(view, index) for index in range(len(view.faces))),
        studs=tuple(_studs(view)),
        openings=tuple(_openings(view)),
        fixtures=tuple(_fixtures(view)),
        boxes=tuple(_boxes(view, verdicts)),
        reach=tuple(_reach(view)),
        pole=tuple(_pole(pole)),
        hole_line_in=pole.hole_line_in,
        holes=tuple(_holes(view, pole.hole_line_in)),
    )


def _wall(view: RoomView, index: int) -> RoundWall:
    face, start = view.faces[index], view.starts[index]
    rooms = dict.fromkeys(view.names.get(mate.room, "") for mate in face.mates)
    behind = "outside wall" if face.outside else "to " + ", ".join(name for name in rooms if name)
    side = face.side
    words: list[str] = [side.stud if side.stud != "open" else "open, no wall"]
    if face.studs:
        words[0] += f" at {show_inches(side.spacing_in)}"
    if finish_in(side):
        words.append(f"{side.finish} {show_inches(finish_in(side))}")
    if side.insulation != "none":
        words.append(side.insulation)
    if side.bearing:
        words.append("bearing")
    return RoundWall(
        side=index,
        x0=start,
        x1=start + face.wall.length_in,
        name=face.wall.name,
        behind=behind,
        build=", ".join(words),
        stud=face.side.stud,
        outside=face.outside,
    )


def _studs(view: RoomView) -> list[RoundRect]:
    return [
        RoundRect(
            id="",
            kind=stud.kind,
            label="",
            side=face.wall.index,
            x0=start + stud.left_in,
            y0=stud.foot_in,
            x1=start + stud.right_in,
            y1=stud.top_in,
        )
        for face, start in zip(view.faces, view.starts, strict=True)
        for stud in face.studs
    ]


def _openings(view: RoomView) -> list[RoundRect]:
    return [
        RoundRect(
            id=item.id,
            kind=item.kind,
            label=item.kind.replace("_", " "),
            side=face.wall.index,
            x0=start + item.at_in,
            y0=item.sill_in,
            x1=start + item.to_in,
            y1=item.head_in,
        )
        for face, start in zip(view.faces, view.starts, strict=True)
        for item in face.openings
    ]


def _fixtures(view: RoomView) -> list[RoundRect]:
    found = []
    for face, start in zip(view.faces, view.starts, strict=True):
        for item in face.fixtures:
            if item.off_in:
                continue  # an island stands before no wall
            foot = item.height_in - 5 if item.kind == "shower_valve" else 0.0
            top = item.height_in + 5 if item.kind == "shower_valve" else item.height_in
            found.append(
                RoundRect(
                    id=item.id,
                    kind=item.kind,
                    label=item.kind.replace("_", " "),
                    side=face.wall.index,
                    x0=start + item.at_in,
                    y0=foot,
                    x1=start + item.at_in + item.width_in,
                    y1=top,
                )
            )
    return found


def _boxes(view: RoomView, verdicts: dict[str, str]) -> list[RoundBox]:
    found = []
    for box in view.boxes:
        at = view.unrolled(box)
        if at is None or box.side is None:
            continue
        model = view.model(box)
        up = view.over_floor(box)
        half, tall = model.wide_in / 2, model.tall_in / 2
        found.append(
            RoundBox(
                id=box.id,
                name=box.name,
                kind=box.kind,
                side=box.side,
                x0=at - half,
                y0=up - tall,
                x1=at + half,
                y1=up + tall,
                gangs=box.gangs,
                outdoors=box.outdoors,
                marked=box.marked,
                verdict=verdicts.get(box.id, "fine"),
            )
        )
    for panel in view.context.panels:
        at = view.unrolled(panel)
        if at is not None and panel.side is not None:
            up, half = view.over_floor(panel), panel.width_in / 2
            found.append(
                RoundBox(
                    id=panel.id,
                    name=panel.name,
                    kind="panel",
                    side=panel.side,
                    x0=at - half,
                    y0=up,
                    x1=at + half,
                    y1=up + panel.tall_in,
                    gangs=1,
                    outdoors=False,
                    marked=True,
                    verdict=verdicts.get(panel.id, "fine"),
                )
            )
    return found


def _reach(view: RoomView) -> list[Reach]:
    found: list[Reach] = []
    if view.room.use in SPACED:
        for space in wall_spaces(view):
            if space.counts:
                found += _pieces(view, space.from_in, space.to_in, "reached", 0.0)
            for low, high in space.missing:
                found += _pieces(view, low, high, "missing", 0.0)
    for counter in counter_spaces(view):
        start = view.starts[counter.side]
        found.append(Reach(start + counter.from_in, start + counter.to_in, "reached", 36.0, ""))
        for low, high in counter.missing:
            found.append(Reach(start + low, start + high, "missing", 36.0, f"{show(high - low)} of counter"))
    return found


def _pieces(view: RoomView, low: float, high: float, kind: str, y: float) -> list[Reach]:
    """A stretch that may run on past the end of the unrolled room, in the pieces that are drawn."""
    around = view.around_in
    text = f"{show(high - low)} of wall, no receptacle" if kind == "missing" else ""
    if high <= around + 1e-6:
        return [Reach(low, high, kind, y, text)]
    if low >= around:
        return [Reach(low - around, high - around, kind, y, text)]
    longer = around - low >= high - around
    return [
        Reach(low, around, kind, y, text if longer else ""),
        Reach(0.0, high - around, kind, y, "" if longer else text),
    ]


def _pole(pole: Pole) -> list[PoleLine]:
    marks = {name: getattr(pole, name) for name in ("receptacle", "switch", "counter", "wall_light")}
    found = [PoleLine(mark.at_in, show_inches(mark.at_in), name) for name, mark in marks.items()]
    found.append(PoleLine(pole.hole_line_in, show_inches(pole.hole_line_in), "hole line"))
    return sorted(found, key=lambda line: -line.y)


def _holes(view: RoomView, height: float) -> list[HoleRun]:
    """The hole line between the outermost boxes of each wall; it stops where an opening reaches below it."""
    found: list[HoleRun] = []
    for face, start in zip(view.faces, view.starts, strict=True):
        own = [box.at_in for box in view.boxes if box.side == face.wall.index and box.at_in is not None]
        if len(own) < 2 or depth_of(face.side) == 0:
            continue
        cuts = [o for o in face.openings if o.sill_in <= height <= o.head_in]
        edges = [min(own), *(edge for o in cuts for edge in (o.at_in, o.to_in)), max(own)]
        for from_in, to_in in zip(edges[::2], edges[1::2], strict=True):
            low, high = max(from_in, min(own)), min(to_in, max(own))
            at = tuple(
                start + stud.at_in
                for stud in face.studs
                if low < stud.at_in < high
                and stud.foot_in <= height - STUD_IN
                and stud.top_in >= height + STUD_IN
                and stud.kind != "trimmer"
            )
            if at:
                found.append(HoleRun(start + low, start + high, at))
    return found
