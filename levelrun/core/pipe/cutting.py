"""The cut list of a way: which piece comes from which stick, kind by kind of pipe, at the least number of sticks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from levelrun.core.pipe.layout import Layout, PipePiece, made_of
from levelrun.core.trade.pipe.sticks import packed
from levelrun.core.ways.facts import WayView


@dataclass(frozen=True, kw_only=True)
class CutPiece:
    """A piece of a pull on its stick: where it begins and ends on it, inches from the end that is cut first."""

    pull: int
    piece: int
    from_in: float
    to_in: float


@dataclass(frozen=True, kw_only=True)
class Stick:
    """A stick with what is cut from it. left_in: left over; threads: cut ends that want a thread or a threadless
    fitting; number counts the sticks of a way."""

    number: int
    method: str
    size: str
    length_in: float
    cuts: tuple[CutPiece, ...]
    left_in: float
    threads: int


@dataclass(frozen=True, kw_only=True)
class CutList:
    """The sticks of a way. proven: no cutting takes fewer of any kind; bound: how many any cutting takes at least."""

    sticks: tuple[Stick, ...]
    proven: bool
    bound: int


def cut_list(view: WayView, layouts: Sequence[tuple[int, Layout]]) -> CutList:
    """The pieces of all pulls of a way cut from sticks; a piece that ends in the bell of its stick is a stick by
    itself, any other is cut from what a stick has without its bell or coupling."""
    kinds: dict[tuple[str, str], list[tuple[int, int, PipePiece]]] = {}
    for pull, layout in layouts:
        for number, piece in enumerate(layout.pieces):
            if not piece.too_long:
                kinds.setdefault((piece.method, piece.size), []).append((pull, number, piece))
    sticks: list[Stick] = []
    proven, bound = True, 0
    for (method, size), items in kinds.items():
        make = made_of(view, items[0][2].leg)
        steel = method in ("RMC", "IMC")
        whole = [item for item in items if item[2].length_in > make.stick_in - make.end_in + 1e-6]
        rest = [item for item in items if item not in whole]
        for item in whole:
            sticks.append(_stick(method, size, make.stick_in, [item], 0))
        usable = make.stick_in - make.end_in
        found = packed(tuple(round(piece.length_in, 4) for _, _, piece in rest), usable)
        proven, bound = proven and found.proven, bound + found.bound + len(whole)
        for stick in found.sticks:
            own = sorted((rest[i] for i in stick), key=lambda item: item[:2])
            cut = sum(2 for _ in own) - 1 if steel else 0  # the stick's own thread serves one end
            sticks.append(_stick(method, size, make.stick_in, own, cut))
    sticks.sort(key=lambda stick: (stick.cuts[0].pull, stick.cuts[0].piece))
    numbered = tuple(replace(stick, number=number + 1) for number, stick in enumerate(sticks))
    return CutList(sticks=numbered, proven=proven, bound=bound)


def _stick(
    method: str, size: str, length_in: float, items: Sequence[tuple[int, int, PipePiece]], threads: int
) -> Stick:
    at, cuts = 0.0, []
    for pull, piece, own in items:
        cuts.append(CutPiece(pull=pull, piece=piece, from_in=at, to_in=at + own.length_in))
        at += own.length_in
    return Stick(
        number=0, method=method, size=size, length_in=length_in, cuts=tuple(cuts),
        left_in=max(length_in - at, 0.0), threads=threads,
    )  # fmt: skip
