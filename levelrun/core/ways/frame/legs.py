"""A way through the frame as the legs that a walked way has."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Any

from levelrun.core.job import Joint, Leg, LegFacts, Way
from levelrun.core.ways.frame.ends import End
from levelrun.core.ways.frame.graph import Frame
from levelrun.core.ways.frame.prices import SLEEVE
from levelrun.core.ways.frame.route import Piece

LEAST_IN = 1 / 16
STUB_IN = 8.0  # a shorter end is no leg of a pipe
MET = ("crawl_space", "basement")  # cable there is bored through the joists or lies along one (334.15(C))
NO_FACTS, DAMP, NO_JOINT = LegFacts(), LegFacts(moisture="damp"), Joint()
SURFACES = {"block": "masonry_inside", "log": "room_surface"}


@dataclass
class _Stretch:
    go: str
    place: str
    fished: bool
    damp: bool
    length_in: float
    pieces: list[int] = field(default_factory=list)


@dataclass(frozen=True)
class Cabled:
    """What lies in a derived way: the cable; `sleeve` the size of the pipe that guards it on the face of a wall,
    empty where it needs none."""

    method: str
    size: str
    sleeve: str


@dataclass(frozen=True)
class Drawn:
    """A derived way: its legs, and for each leg the pieces of the frame that it is made of, by number."""

    way: Way
    pieces: tuple[tuple[int, ...], ...]


def as_way(frame: Frame, pieces: Sequence[Piece], a: End, b: End, way_id: str, name: str, cable: Cabled) -> Drawn:
    """A way through the frame as legs: one for each direction and place, ending at the box or panel b."""
    stretches = _stretches(frame, pieces)
    last = len(stretches) - 1
    legs = [
        _leg(item.go, item.place, item.fished, item.damp, item.length_in, cable, b.node if index == last else None)
        for index, item in enumerate(stretches)
    ]
    way = Way.model_construct(id=way_id, name=name, start=a.node, start_edge="", legs=tuple(legs))
    return Drawn(way, tuple(tuple(item.pieces) for item in stretches))


def without_stubs(drawn: Drawn) -> Drawn:
    """A way of pipe without the short upright ends by which a cable gets to a box: pipe goes into its side. What they
    were long is put on the legs beside them, so that nothing is cut short."""
    legs, pieces = list(drawn.way.legs), list(drawn.pieces)
    for end, beside in ((-1, -2), (0, 1)):
        if len(legs) < 2 or legs[end].go not in ("up", "down") or legs[end].length_in >= STUB_IN:
            continue
        longer: dict[str, Any] = {"length_in": legs[beside].length_in + legs[end].length_in}
        if end == -1:
            longer["end"] = legs[end].end
        legs[beside] = legs[beside].model_copy(update=longer)
        pieces[beside] = (*pieces[beside], *pieces[end]) if end == -1 else (*pieces[end], *pieces[beside])
        del legs[end], pieces[end]
    return Drawn(drawn.way.model_copy(update={"legs": tuple(legs)}), tuple(pieces))


def _stretches(frame: Frame, pieces: Sequence[Piece]) -> list[_Stretch]:
    found: list[_Stretch] = []
    heading: tuple[float, float] | None = None
    for index, piece in enumerate(pieces):
        place, fished, damp = _lies_in(frame, pieces, index)
        if piece.upright:
            go = "up" if piece.b[2] > piece.a[2] else "down"
            same = bool(found) and found[-1].go == go
        else:
            length = piece.length_in
            ahead = ((piece.b[0] - piece.a[0]) / length, (piece.b[1] - piece.a[1]) / length)
            go = "over" if heading is None else turn(heading, ahead)
            heading, same = ahead, bool(found) and go == "over" and found[-1].go not in ("up", "down")
        last = found[-1] if found else None
        if last is not None and same and (last.place, last.fished, last.damp) == (place, fished, damp):
            last.length_in += piece.length_in
        else:
            last = _Stretch(go, place, fished, damp, piece.length_in)
            found.append(last)
        last.pieces.append(index)
    return found


def turn(heading: tuple[float, float], ahead: tuple[float, float]) -> str:
    """How a level leg goes after one in another heading, as seen from above."""
    cross = heading[0] * ahead[1] - heading[1] * ahead[0]
    dot = heading[0] * ahead[0] + heading[1] * ahead[1]
    if abs(cross) > math.sin(math.radians(30)):
        return "left" if cross > 0 else "right"
    return "over" if dot > 0 else "back"


def _lies_in(frame: Frame, pieces: Sequence[Piece], index: int) -> tuple[str, bool, bool]:
    """The place of a piece as the rules name it; whether it is fished; whether it is damp there."""
    piece = pieces[index]
    if piece.plane:
        plane = frame.planes[piece.plane]
        return plane.place, False, plane.damp
    if piece.line >= 0:
        line = frame.lines[piece.line]
        t = line.place(piece.a[:2])
        fished = piece.upright and line.shut_between(t - 1, t + 1) == "closed"
        return SURFACES.get(line.stud, "stud_wall"), fished, False
    beside = [pieces[i] for i in (index + 1, index - 1) if 0 <= i < len(pieces)]
    near = next((item for item in beside if item.plane), None)
    if piece.length_in <= 24.0 and near is not None:
        return frame.planes[near.plane].place, False, frame.planes[near.plane].damp
    return "room_surface", False, False


@lru_cache(maxsize=16384)
def _leg(go: str, place: str, fished: bool, damp: bool, length_in: float, cable: Cabled, node: str | None) -> Leg:
    guarded = cable.sleeve and place in SURFACES.values()
    values: dict[str, Any] = {
        "go": go,
        "length_in": max(length_in, LEAST_IN),
        "place": place,
        "method": SLEEVE if guarded else cable.method,
        "size": cable.sleeve if guarded else cable.size,
        "depth_in": None,
        "bends_deg": (),
        "sleeve": bool(guarded),
        "met": place in MET,
        "ribbon": False,
        "expansion": False,
        "fished": fished,
        "supposed": False,
        "facts": DAMP if damp else NO_FACTS,
        "end": Joint(kind="box", node=node) if node else NO_JOINT,
    }
    return Leg.model_construct(**values)
