"""The order in which the pipe of a pull is put together, piece by piece, with the marks to line up."""

from __future__ import annotations

from collections.abc import Sequence

from levelrun.core.pipe.cutting import CutList
from levelrun.core.pipe.layout import Layout, PipePiece
from levelrun.core.pipe.marks import Mark, eighth
from levelrun.core.ways.facts import WayView

ENDS = {
    "box": "connector and bushing at the box", "panel": "connector and bushing at the panel", "lb": "LB",
    "body": "body", "coupling": "coupling", "changeover": "changeover fitting", "elbow": "elbow", "none": "open end",
}  # fmt: skip


def assembly_of(
    view: WayView, pull: int, layout: Layout, cuts: CutList, marks: Sequence[list[Mark]], end: str
) -> list[str]:
    """The steps: cut and ream, bend, dry-fit from the start on, then make each joint for good."""
    from_stick = {(cut.pull, cut.piece): stick.number for stick in cuts.sticks for cut in stick.cuts}
    steps: list[str] = []
    for number, piece in enumerate(layout.pieces):
        stick = from_stick.get((pull, number))
        took = f", stick {stick}" if stick is not None else ""
        cut = f"Piece {number + 1}: {_length(piece)}{took}, both ends reamed"
        bent = "; ".join(_bend(mark) for mark in marks[number])
        steps.append(f"{cut}. {bent[:1].upper() + bent[1:]}." if bent else f"{cut}.")
    steps.append(f"Dry-fit it from {_joined(layout)}, strap it loosely, and look along it.")
    plastic = any(view.methods[i].family == "pvc" for i in range(layout.first, layout.last + 1))
    if plastic:
        steps.append(
            "Pencil a line across every joint. Apart again, clean, primer where the cement asks for it, cement, push "
            "in with a quarter turn to the line, hold half a minute; joint after joint from the fixed end."
        )
    if any(view.methods[i].family == "steel" for i in range(layout.first, layout.last + 1)):
        steps.append("Make every steel joint wrench-tight: it is the ground path. Bushing at each end.")
    if view.habits.piping.order == "glue_first":
        steps.append(f"The whole pull is made up and strapped to {end or 'its end'} before any wire goes in.")
    else:
        steps.append("This shop threads wire piece by piece and glues after: keep wire and jacket off wet cement.")
    return steps


def _length(piece: PipePiece) -> str:
    if piece.bell:
        return f"a whole stick of {piece.method} {piece.size}″, its bell ahead"
    if abs(piece.length_in - 120.0) < 1 / 16:
        return f"a whole stick of {piece.method} {piece.size}″"
    return f"{piece.method} {piece.size}″, cut {eighth(piece.length_in)}"


def _bend(mark: Mark) -> str:
    where = f"{mark.sign} at {mark.at_text}" if mark.to_in is None else f"heat {mark.at_text} to {eighth(mark.to_in)}"
    way = f", {mark.text}" if mark.text else ""
    return f"{mark.angle_deg:.3g}°, {where}{way}"


def _joined(layout: Layout) -> str:
    first = ENDS[layout.pieces[0].left] if layout.pieces else ""
    last = ENDS[layout.pieces[-1].right] if layout.pieces else ""
    return f"{first} to {last}"
