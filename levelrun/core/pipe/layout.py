"""The pipe of a pull in pieces: what is bent in a stick, what is a factory elbow, and where pieces are joined.

A pull is parted at factory elbows and where the kind or size of pipe changes; each part is one pipe with the bends
that are made in it, as long as a tape along it says, plus what goes into fittings. Where it is longer than a stick it
is joined where no bend and no wall is in the way.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

from levelrun.core.job import Leg
from levelrun.core.trade.pipe.centreline import BendOn
from levelrun.core.trade.pipe.make import Make, make_of, shoe_of
from levelrun.core.trade.pipe.sticks import joints
from levelrun.core.ways.facts import OUTSIDE, THROUGH_IN, WayView
from levelrun.core.ways.line import PullLine, Turn, line_of

CLEAR_IN = 1.0  # between a coupling and a bend, over the coupling's own half
LEAST_PIECE_IN, HAIR_IN = 6.0, 0.02


@dataclass(frozen=True, kw_only=True)
class Made:
    """A bend of a pull: where it lies along the pipe of the pull, and how it is made."""

    bend: BendOn
    turn: Turn


@dataclass(frozen=True, kw_only=True)
class PipePiece:
    """A piece of a stick. from_in, to_in: along the pipe of the pull; with what goes into fittings; length_in: as
    cut, the bell of its stick with it. left, right: what is at its ends. bell: the right end is the bell of its
    stick. bends: those made in it. too_long: no stick reaches."""

    method: str
    size: str
    from_in: float
    to_in: float
    length_in: float
    left: str
    right: str
    leg: int
    bends: tuple[Made, ...]
    bell: bool = False
    too_long: bool = False

    def along(self, at_in: float) -> float:
        """A place along the pull as inches from the left end of the piece."""
        return at_in - self.from_in


@dataclass(frozen=True, kw_only=True)
class Elbow:
    """A factory bend: where it begins and ends along the pipe of the pull, its straight ends with it."""

    method: str
    size: str
    from_in: float
    to_in: float
    made: Made


@dataclass(frozen=True, kw_only=True, eq=False)
class Layout:
    """The pipe of a pull: its pieces and elbows in order, all its bends, its line. short: legs at which two fittings
    meet before any pipe comes between, and by how many inches they are too near."""

    first: int
    last: int
    line: PullLine
    pieces: tuple[PipePiece, ...]
    elbows: tuple[Elbow, ...]
    bends: tuple[Made, ...]
    short: tuple[tuple[int, float], ...]

    @property
    def couplings(self) -> int:
        """Couplings that are bought: between pieces without a bell, and at both ends of an elbow without one."""
        count = sum(piece.right == "coupling" and not piece.bell for piece in self.pieces)
        return count + sum(elbow.method[:3] != "PVC" for elbow in self.elbows) * 2


@dataclass(frozen=True, kw_only=True)
class _Part:
    """A stretch of one pipe before it is cut: along the pull, with what stands at its ends and how much more than
    from there to there it is on each side."""

    leg: Leg
    number: int
    from_in: float
    to_in: float
    left: str
    right: str
    before_in: float = 0.0
    after_in: float = 0.0

    @property
    def gap_in(self) -> float:
        """What is between the fittings at its ends, what goes into them left out."""
        return self.to_in - self.from_in + min(self.before_in, 0.0) + min(self.after_in, 0.0)

    @property
    def long_in(self) -> float:
        """How much pipe it is."""
        return self.to_in + self.after_in - self.from_in + self.before_in


def by_shape(bends: Sequence[Made]) -> list[list[Made]]:
    """The bends of a pull in order, those of one offset or saddle together."""
    groups: list[list[Made]] = []
    for made in bends:
        if made.turn.part and groups and groups[-1][0].turn.kind == made.turn.kind:
            groups[-1].append(made)
        else:
            groups.append([made])
    return groups


@lru_cache(maxsize=128)
def layout_of(view: WayView, first: int, last: int) -> Layout | None:
    """The pipe of the pull of legs first to last in pieces; None for what comes in coils or is not made in a size."""
    line = line_of(view, first, last)
    if line is None or any(_make(view, i) is None for i in range(first, last + 1)):
        return None
    bends = tuple(Made(bend=b, turn=line.turns[b.corner]) for b in line.laid.bends)
    elbows = tuple(_elbows(view, bends))
    pieces: list[PipePiece] = []
    shut = shut_in(view, line, bends)
    short: list[tuple[int, float]] = []
    for part in _parts(view, line, bends, elbows, last):
        if part.gap_in < -HAIR_IN:
            short.append((part.number, -part.gap_in))
        elif part.long_in > HAIR_IN:
            pieces += _cut(view, part, bends, shut)
    return Layout(
        first=first, last=last, line=line, pieces=tuple(pieces), elbows=elbows, bends=bends, short=tuple(short)
    )


def _make(view: WayView, index: int) -> Make | None:
    leg = view.way.legs[index]
    return make_of(view.book, leg.method, leg.size)


def made_of(view: WayView, index: int) -> Make:
    """The pipe of a leg as it is sold. Only for legs of a pull that has a layout."""
    found = _make(view, index)
    assert found is not None
    return found


def _elbows(view: WayView, bends: tuple[Made, ...]) -> Iterator[Elbow]:
    for made in bends:
        if made.turn.how == "factory":
            leg, straight = view.way.legs[made.turn.leg], made_of(view, made.turn.leg).straight_in
            yield Elbow(
                method=leg.method, size=leg.size, from_in=made.bend.begins_in - straight,
                to_in=made.bend.ends_in + straight, made=made,
            )  # fmt: skip


def _parts(
    view: WayView, line: PullLine, bends: tuple[Made, ...], elbows: tuple[Elbow, ...], last: int
) -> Iterator[_Part]:
    """The pull parted at elbows and at changes of pipe."""
    at, number, left = 0.0, line.first, _end_name(view, line.first, True)
    before = _end_in(view, line.first, True)
    for index in range(line.first + 1, last + 1):
        leg, was = view.way.legs[index], view.way.legs[index - 1]
        corner = next((b for b in bends if b.turn.leg == index and b.turn.kind == "corner"), None)
        changed = (leg.method, leg.size) != (was.method, was.size)
        forced = changed or was.expansion or view.joint_after(index - 1) == "coupling"
        elbow = next((e for e in elbows if corner is not None and e.made is corner), None)
        if elbow is not None:
            yield _Part(
                leg=was, number=number, from_in=at, to_in=elbow.from_in, left=left, right="elbow", before_in=before,
                after_in=_into(view, index - 1),
            )  # fmt: skip
            at, left, number, before = elbow.to_in, "elbow", index, _into(view, index)
        elif forced:
            spot = line.starts_in[index - line.first]
            if corner is not None:
                shoe, socket = shoe_of(view.book, leg.method, leg.size), made_of(view, index).socket_in
                spot = corner.bend.begins_in - max(shoe.grip_in if shoe else 0.0, CLEAR_IN + socket)
            word = "changeover" if changed and not _shares(view, index) else "coupling"
            yield _Part(leg=was, number=number, from_in=at, to_in=spot, left=left, right=word, before_in=before)
            at, left, number, before = spot, word, index, 0.0
    yield _Part(
        leg=view.way.legs[last], number=number, from_in=at, to_in=line.length_in, left=left,
        right=_end_name(view, last, False), before_in=before, after_in=_end_in(view, last, False),
    )  # fmt: skip


def _shares(view: WayView, index: int) -> bool:
    """Two walls of plastic pipe of one size are glued into the same fittings."""
    legs = view.way.legs
    return legs[index].size == legs[index - 1].size and {
        view.methods[index].family, view.methods[index - 1].family
    } == {"pvc"}  # fmt: skip


def _into(view: WayView, index: int) -> float:
    """What a pipe goes into the bell of a factory elbow; steel is threaded on, end to end."""
    return made_of(view, index).socket_in if view.methods[index].family == "pvc" else 0.0


def _end_name(view: WayView, index: int, start: bool) -> str:
    return view.joint_before(index) if start else view.joint_after(index)


def _end_in(view: WayView, index: int, start: bool) -> float:
    """How much more pipe there is than to the place that was taped, where a pull ends: into a box, short of the
    corner of a body."""
    joint, make = _end_name(view, index, start), made_of(view, index)
    if joint in ("box", "panel"):
        return make.wall_in
    if joint in ("lb", "body"):
        return -(make.back_in if joint == "lb" and _through(view, index) else make.body_in)
    return 0.0


def _through(view: WayView, index: int) -> bool:
    """A leg that goes through a wall enters a body by its back."""
    leg = view.way.legs[index]
    level = leg.go not in ("up", "down")
    inside = [view.way.legs[i].place not in OUTSIDE for i in (index - 1, index + 1) if i in view.indexes]
    return level and leg.length_in <= THROUGH_IN + 48 and leg.place in OUTSIDE and any(inside)


def shut_in(view: WayView, line: PullLine, bends: tuple[Made, ...]) -> list[tuple[float, float]]:
    """Stretches along a pull in which no coupling may stand: bends with room for it, walls that it goes through."""
    found: list[tuple[float, float]] = []
    for made in bends:
        leg = view.way.legs[made.turn.leg]
        shoe = shoe_of(view.book, leg.method, leg.size)
        clear = made_of(view, made.turn.leg).socket_in + (shoe.grip_in if shoe else CLEAR_IN)
        found.append((made.bend.begins_in - clear, made.bend.ends_in + clear))
    for offset, (a, b) in enumerate(pairwise(line.starts_in)):
        leg = view.way.legs[line.first + offset]
        walled = leg.place in ("masonry_inside", "outside_wall", "stud_wall") and leg.length_in <= THROUGH_IN
        if walled and leg.go not in ("up", "down"):
            found.append((a, b))
    return _merged(found)


def _merged(spans: list[tuple[float, float]]) -> list[tuple[float, float]]:
    found: list[tuple[float, float]] = []
    for low, high in sorted(spans):
        if found and low <= found[-1][1]:
            found[-1] = (found[-1][0], max(found[-1][1], high))
        else:
            found.append((low, high))
    return found


def _cut(view: WayView, part: _Part, bends: tuple[Made, ...], shut: list[tuple[float, float]]) -> list[PipePiece]:
    """A stretch of one pipe in pieces of a stick and less."""
    make = made_of(view, part.number)
    start, long = part.from_in - part.before_in, part.long_in
    own = tuple(b for b in bends if b.turn.how != "factory" and part.from_in - 1e-6 < b.bend.middle_in < part.to_in)
    plastic = view.methods[part.number].family == "pvc"
    reach = make.stick_in - (make.end_in if plastic else 0.0)
    spots = joints(long, reach, reach, [(a - start, b - start) for a, b in shut], LEAST_PIECE_IN)
    too_long = spots is None
    edges = [0.0, *(spots or ()), long]
    found: list[PipePiece] = []
    for index, (a, b) in enumerate(pairwise(edges)):
        whole = plastic and not too_long and abs(b - a - reach) < 1e-6 and index < len(edges) - 2
        inside = tuple(m for m in own if start + a <= m.bend.middle_in <= start + b)
        found.append(
            PipePiece(
                method=part.leg.method, size=part.leg.size, from_in=start + a, to_in=start + b,
                length_in=make.stick_in if whole else b - a,
                left=part.left if index == 0 else "coupling",
                right=part.right if index == len(edges) - 2 else "coupling", leg=part.number, bends=inside,
                bell=whole, too_long=too_long and b - a > make.stick_in,
            )
        )  # fmt: skip
    return found
