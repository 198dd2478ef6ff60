"""The drawing of a pull: its sticks with pieces, marks and straps, its bends as a budget, in plain inches."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from levelrun.core.pipe.assembly import ENDS
from levelrun.core.pipe.cutting import CutList, Stick
from levelrun.core.pipe.layout import Layout, PipePiece, by_shape
from levelrun.core.pipe.marks import Mark, called, eighth
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.holding import held
from levelrun.core.ways.pulls import Pull


@dataclass(frozen=True, kw_only=True)
class DrawnPiece:
    """A piece on its stick: from and to inches from its left end, as cut. mine: of the pull looked at; left, right:
    what its ends go into; straps: from the left end of the piece."""

    number: int
    pull: int
    from_in: float
    to_in: float
    length_text: str
    left: str
    right: str
    mine: bool
    marks: list[Mark]
    straps: list[float]


@dataclass(frozen=True, kw_only=True)
class DrawnStick:
    """A stick: its length, its pieces, what is left over."""

    number: int
    pipe: str
    method: str
    length_in: float
    pieces: list[DrawnPiece]
    left_in: float
    left_text: str
    bell: bool
    note: str


@dataclass(frozen=True, kw_only=True)
class Spent:
    """A part of the bend budget: what, how many degrees, which leg."""

    text: str
    deg: float
    leg: int


@dataclass(frozen=True, kw_only=True)
class DrawnElbow:
    """A factory bend between two pieces."""

    text: str
    after: int
    leg: int


@dataclass(frozen=True, kw_only=True)
class PullDrawing:
    """The sticks of a pull in the order in which they are put up; elbows by the piece that they follow; the bend
    budget; `corners`: along the pipe of the pull, where its legs begin, and its end."""

    sticks: list[DrawnStick]
    elbows: list[DrawnElbow]
    spent: list[Spent]
    limit_deg: float
    length_in: float
    corners: list[float]


def drawing_of(view: WayView, pull: Pull, layout: Layout, cuts: CutList, marks: Sequence[list[Mark]]) -> PullDrawing:
    """The drawing of a pull; `marks`: those of each of its pieces."""
    straps = straps_in(view, layout)
    sticks = [stick for stick in cuts.sticks if any(cut.pull == pull.index for cut in stick.cuts)]
    sticks.sort(key=lambda stick: min(cut.piece for cut in stick.cuts if cut.pull == pull.index))
    return PullDrawing(
        sticks=[_stick(pull, layout, stick, straps, marks) for stick in sticks],
        elbows=[
            DrawnElbow(
                text=f"{called(elbow.made)} elbow", leg=elbow.made.turn.leg,
                after=sum(piece.to_in <= elbow.made.bend.middle_in for piece in layout.pieces) - 1,
            )
            for elbow in layout.elbows
        ],
        spent=list(_spent(layout)),
        limit_deg=pull.total.limit_deg,
        length_in=layout.line.length_in,
        corners=list(layout.line.starts_in),
    )  # fmt: skip


def _stick(pull: Pull, layout: Layout, stick: Stick, straps: list[float], marks: Sequence[list[Mark]]) -> DrawnStick:
    pieces: list[DrawnPiece] = []
    for cut in stick.cuts:
        mine = cut.pull == pull.index
        piece = layout.pieces[cut.piece] if mine else None
        pieces.append(
            DrawnPiece(
                number=cut.piece + 1, pull=cut.pull, from_in=cut.from_in, to_in=cut.to_in,
                length_text=eighth(cut.to_in - cut.from_in), left=ENDS[piece.left] if piece else "",
                right=ENDS[piece.right] if piece else "", mine=mine,
                marks=marks[cut.piece] if piece else [],
                straps=_within(piece, straps) if piece else [],
            )
        )  # fmt: skip
    bell = any(layout.pieces[cut.piece].bell for cut in stick.cuts if cut.pull == pull.index)
    ends = "1 end" if stick.threads == 1 else f"{stick.threads} ends"
    note = f"{ends} to thread, or threadless fittings" if stick.threads else ""
    return DrawnStick(
        number=stick.number, pipe=f"{stick.method} {stick.size}″", method=stick.method, length_in=stick.length_in,
        pieces=pieces, left_in=stick.left_in, left_text=eighth(stick.left_in), bell=bell, note=note,
    )  # fmt: skip


def _within(piece: PipePiece, straps: list[float]) -> list[float]:
    return [piece.along(at) for at in straps if piece.from_in <= at <= piece.to_in]


def straps_in(view: WayView, layout: Layout) -> list[float]:
    """Where straps stand along the pipe of a pull, inches from its start."""
    found: list[float] = []
    for index in range(layout.first, layout.last + 1):
        hold = held(view, index)
        if hold.kind != "strap":
            continue
        start, end = layout.line.starts_in[index - layout.first : index - layout.first + 2]
        share = (end - start) / view.way.legs[index].length_in
        found += [start + at * share for at in hold.positions_in]
    return found


def _spent(layout: Layout) -> Iterator[Spent]:
    for group in by_shape(layout.bends):
        degrees = sum(made.bend.angle_deg for made in group)
        yield Spent(text=called(group[0]), deg=round(degrees, 2), leg=group[0].turn.leg)
