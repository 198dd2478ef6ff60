"""The cut list as rows: each piece with its stick, its length, its marks and what its ends go into."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook import Codebook
from levelrun.core.pipe.assembly import ENDS
from levelrun.core.pipe.cutting import cut_list
from levelrun.core.pipe.facts import piped
from levelrun.core.pipe.marks import eighth, marks_of
from levelrun.core.ways.facts import WayContext


@dataclass(frozen=True, kw_only=True)
class CutRow:
    """A piece to cut. length_in is unrounded; marks: what is pencilled on it; left_over: of its stick, on the last
    piece of each."""

    way: str
    pipe: str
    stick: int
    pull: int
    piece: int
    length_in: float
    length: str
    marks: str
    left_end: str
    right_end: str
    left_over: str


def cut_rows(book: Codebook, context: WayContext) -> list[CutRow]:
    """The pieces of a way, stick by stick."""
    pipe = piped(book, context)
    layouts = {pull.index: layout for pull, layout in pipe.laid}
    rows: list[CutRow] = []
    for stick in cut_list(pipe.view, list(layouts.items())).sticks:
        for cut in stick.cuts:
            layout = layouts[cut.pull]
            piece = layout.pieces[cut.piece]
            marks = [
                f"{mark.angle_deg:.3g}° {mark.sign} at {mark.at_text} {mark.text}"
                for mark in marks_of(pipe.view, layout, piece)
            ]
            rows.append(
                CutRow(
                    way=context.way.name, pipe=f"{stick.method} {stick.size}", stick=stick.number, pull=cut.pull + 1,
                    piece=cut.piece + 1, length_in=round(piece.length_in, 4),
                    length="whole stick" if piece.bell else eighth(piece.length_in),
                    marks="; ".join(marks),
                    left_end=ENDS[piece.left], right_end="bell" if piece.bell else ENDS[piece.right],
                    left_over=eighth(stick.left_in) if cut is stick.cuts[-1] else "",
                )
            )  # fmt: skip
    return rows
