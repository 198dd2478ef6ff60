"""The way of a hop through the frame: the shortest in the eyes of a school, straightened, with what it takes."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from itertools import pairwise
from operator import itemgetter

import rustworkx as rx

from levelrun.core.kept import kept_hash
from levelrun.core.ways.frame.ends import Corner, End, Reach, back, clear_at, reaches, square_in, straight
from levelrun.core.ways.frame.graph import SCHOOLS, SIXTEENTH, Frame, Weights
from levelrun.core.ways.frame.prices import Work

HIGH_IN = 6.0  # ends so far over the hole line are worth boring for at their own height
Spot = tuple[float, float, float]


@dataclass(frozen=True)
class Piece:
    """A straight piece of a way: from a to b over the main floor; the wall it lies in (-1: none), the joists."""

    a: Spot
    b: Spot
    line: int
    plane: str

    __hash__ = kept_hash

    @property
    def upright(self) -> bool:
        """Whether it goes up or down."""
        return abs(self.a[2] - self.b[2]) > SIXTEENTH / 2

    @property
    def length_in(self) -> float:
        """Inches."""
        return math.dist(self.a, self.b)


@dataclass(frozen=True, kw_only=True, eq=False)
class Route:
    """A way through the frame. dollars and minutes by the shop's habits."""

    pieces: tuple[Piece, ...]
    work: Work
    dollars: float
    minutes: float

    @cached_property
    def lines(self) -> frozenset[int]:
        """The walls that it lies in, by number."""
        return frozenset(piece.line for piece in self.pieces if piece.line >= 0)

    @property
    def length_in(self) -> float:
        """Inches as it lies."""
        return sum(piece.length_in for piece in self.pieces)


@lru_cache(maxsize=16384)
def kept_route(frame: Frame, a: End, b: End, school: str) -> Route | None:
    """The way from one end to the other by a school. Kept while the frame and the ends are the same."""
    return route(frame, a, b, school)


def route(frame: Frame, a: End, b: End, school: str, by: Sequence[End] = ()) -> Route | None:
    """The way from one end to the other by a school, through the places named in `by`; None where there is none."""
    found: list[Route] = []
    for start, end in pairwise((a, *by, b)):
        part = _between(frame, start, end, start.school or end.school or school)
        if part is None:
            return None
        found.append(part)
    pieces = tuple(piece for part in found for piece in part.pieces)
    if len(found) == 1 and pieces:
        return found[0]
    return routed(frame, pieces or (_through(frame, a),))


def _through(frame: Frame, end: End) -> Piece:
    """Straight through the wall, between two boxes that stand back to back; an inch in the joists between two that
    hang at one spot."""
    x, y = end.at
    if end.open:
        plane = next((plane for _, plane in frame.planes_at(end.level)), None)
        z, name = (plane.z_in, plane.level.id) if plane is not None else (end.low_in, "")
        return Piece((x - 0.5, y, z), (x + 0.5, y, z), -1, name)
    line = frame.lines[end.line]
    half = max(line.depth_in, 1.0) / 2
    dx, dy = line.across[0] * half, line.across[1] * half
    return Piece((x - dx, y - dy, end.low_in), (x + dx, y + dy, end.low_in), end.line, "")


def routed(frame: Frame, pieces: tuple[Piece, ...]) -> Route:
    """A way of these pieces, with what it takes."""
    work = _work(frame, pieces)
    prices = frame.parts.prices
    return Route(pieces=pieces, work=work, dollars=prices.dollars(work), minutes=prices.minutes(work))


def _between(frame: Frame, a: End, b: End, school: str) -> Route | None:
    """The cheapest way in the eyes of a school: straight along one wall, by one plane, or by the graph; as it is told
    once it is straightened. Where both ends stand over the hole line, through the studs is looked at too: holes there
    are bored higher than the graph has them."""
    seen = SCHOOLS.index(school)
    found = [min(straight(frame, a, b), key=lambda item: item[0][seen], default=None), _shortest(frame, a, b, seen)]
    high = school == "cheapest" and min(a.high_in, b.high_in) > frame.highest_hole_in + HIGH_IN
    if high:
        found.append(_shortest(frame, a, b, SCHOOLS.index("studs")))
    ways = [
        (cost[seen], _lifted(frame, _straightened(frame, list(_pieces(corners)))))
        for cost, corners in filter(None, found)
    ]
    if not ways:
        return None
    if school != "cheapest":
        return routed(frame, tuple(min(ways, key=lambda item: item[0])[1]))
    return min((routed(frame, tuple(pieces)) for _, pieces in ways), key=lambda item: item.dollars)


def _shortest(frame: Frame, a: End, b: End, seen: int) -> tuple[Weights, tuple[Corner, ...]] | None:
    """The shortest way by the graph, both ends put into it for as long as it is asked."""
    from_a, from_b = reaches(frame, a), reaches(frame, b)
    if not from_a or not from_b:
        return None
    with frame.lock:
        graph = frame.graph
        start, end = graph.add_node(-1), graph.add_node(-2)
        graph.add_edges_from([(start, item.node, item.cost) for item in from_a])
        graph.add_edges_from([(end, item.node, item.cost) for item in from_b])
        found = rx.dijkstra_shortest_paths(graph, start, target=end, weight_fn=itemgetter(seen))
        path = list(found[end]) if end in found else None
        graph.remove_nodes_from([start, end])
    if path is None:
        return None
    inner = path[1:-1]
    head = _least(from_a, inner[0], seen)
    tail = _least(from_b, inner[-1], seen)
    corners = list(head.corners)
    costs = [head.cost, tail.cost]
    for p, q in pairwise(inner):
        corners += _step(frame, p, q)
        costs.append(min(frame.graph.get_all_edge_data(p, q), key=itemgetter(seen)))
    whole = (sum(c[0] for c in costs), sum(c[1] for c in costs), sum(c[2] for c in costs), sum(c[3] for c in costs))
    return whole, (*corners, *back(tail.corners))


def _least(found: Sequence[Reach], node: int, seen: int) -> Reach:
    return min((item for item in found if item.node == node), key=lambda item: item.cost[seen])


def _step(frame: Frame, p: int, q: int) -> list[Corner]:
    """The corners from one node of the graph to the next, the first left out."""
    a, b = frame.nodes[p], frame.nodes[q]
    if a.line >= 0 and a.line == b.line:
        span = frame.spans[a.line][frame.span_at(a.line, (a.t + b.t) / 2)]
        z = a.z if span.z_in is None else span.z_in
        return [(a.x, a.y, z, a.line), (b.x, b.y, z, a.line), (b.x, b.y, b.z, a.line)]
    if a.line >= 0 and b.line >= 0:
        return [(b.x, a.y, b.z, a.line), (b.x, b.y, b.z, b.line)]
    if a.line >= 0:
        return [(a.x, a.y, b.z, a.line), (b.x, a.y, b.z, -1), (b.x, b.y, b.z, -1)]
    if b.line >= 0:
        return [(b.x, a.y, a.z, -1), (b.x, b.y, a.z, -1), (b.x, b.y, b.z, b.line)]
    return [(b.x, a.y, a.z, -1), (b.x, b.y, a.z, -1), (b.x, b.y, b.z, -1)]


def _sixteenth(inches: float) -> float:
    return round(inches / SIXTEENTH) * SIXTEENTH


def _pieces(corners: Sequence[Corner]) -> Iterator[Piece]:
    """Straight pieces between corners, to the sixteenth."""
    before: Spot | None = None
    for x, y, z, line in corners:
        here = (_sixteenth(x), _sixteenth(y), _sixteenth(z))
        if before is not None and here != before:
            yield Piece(before, here, line, "")
        before = here


def _straightened(frame: Frame, pieces: list[Piece]) -> list[Piece]:
    """The same way without what is there and back: in each plane square across, along each wall in one piece."""
    found: list[Piece] = []
    index = 0
    while index < len(pieces):
        piece = pieces[index]
        plane = frame.heights.get(round(piece.a[2] / SIXTEENTH)) if not piece.upright and piece.line < 0 else None
        last = index
        while last + 1 < len(pieces) and _goes_on(piece, pieces[last + 1], plane is not None):
            last += 1
        start, end = piece.a, pieces[last].b
        if plane is not None:
            between = square_in(plane, start[:2], end[:2])
            if between is None:
                found += [Piece(p.a, p.b, -1, plane.level.id) for p in pieces[index : last + 1]]
            else:
                spots = [start, *((x, y, start[2]) for x, y in between), end]
                found += [Piece(p, q, -1, plane.level.id) for p, q in pairwise(spots) if p != q]
        elif start != end:
            found.append(Piece(start, end, piece.line, ""))
        index = last + 1
    return found if len(found) == len(pieces) else _straightened(frame, found)


def _goes_on(piece: Piece, after: Piece, in_plane: bool) -> bool:
    """Whether a piece after lies in the same plane, or in the same line of the same wall."""
    if after.upright != piece.upright or after.line != piece.line:
        return False
    if in_plane:
        return after.a[2] == piece.a[2]
    if piece.upright:
        return True
    if piece.line >= 0:
        return after.a[2] == piece.a[2]
    return False


def _lifted(frame: Frame, pieces: list[Piece]) -> list[Piece]:
    """The same way with its holes bored higher, where it comes down to the hole line only to go up again."""
    for index, piece in enumerate(pieces):
        if not piece.upright or piece.line < 0 or piece.b[2] >= piece.a[2]:
            continue
        last = index + 1
        while last < len(pieces) and not pieces[last].upright and pieces[last].line >= 0:
            last += 1
        if last == len(pieces) or last == index + 1 or not pieces[last].upright or pieces[last].line < 0:
            continue
        z, level = min(piece.a[2], pieces[last].b[2]), pieces[index + 1 : last]
        if z > piece.b[2] and all(_clear(frame, item, z) for item in level):
            raised = [Piece((*p.a[:2], z), (*p.b[:2], z), p.line, "") for p in level]
            ends = [
                Piece(piece.a, raised[0].a, piece.line, ""),
                Piece(raised[-1].b, pieces[last].b, pieces[last].line, ""),
            ]
            whole = [*pieces[:index], ends[0], *raised, ends[1], *pieces[last + 1 :]]
            return _lifted(frame, [item for item in whole if item.a != item.b])
    return pieces


def _clear(frame: Frame, piece: Piece, z: float) -> bool:
    line = frame.lines[piece.line]
    return clear_at(line, line.place(piece.a[:2]), line.place(piece.b[:2]), z)


def _work(frame: Frame, pieces: Sequence[Piece]) -> Work:
    """What a way takes, counted on the pieces as they lie."""
    work = Work()
    before: Piece | None = None
    for piece in pieces:
        work.length_in += piece.length_in
        if piece.line >= 0 and not frame.lines[piece.line].studded:
            work.surface_in += piece.length_in
        if piece.upright:
            _upright_work(frame, piece, work)
        elif piece.line >= 0:
            line = frame.lines[piece.line]
            t0, t1, z = line.place(piece.a[:2]), line.place(piece.b[:2]), piece.a[2] - line.level.floor_in
            work.studs += len(line.bored(t0, t1, z))
            low, high = min(t0, t1), max(t0, t1)
            aside = abs(piece.a[2] - frame.hole_in(line)) > 1
            work.headers += aside and any(s.from_in < high and low < s.to_in for s in line.across_stops)
        elif piece.plane:
            work.joists += frame.planes[piece.plane].joists(piece.a[:2], piece.b[:2])
        if before is not None and before.line >= 0 <= piece.line != before.line:
            work.corners += 1
        before = piece
    return work


def _upright_work(frame: Frame, piece: Piece, work: Work) -> None:
    low, high = sorted((piece.a[2], piece.b[2]))
    for plane in frame.planes.values():
        if low - SIXTEENTH <= plane.z_in <= high + SIXTEENTH:
            work.plates += 1 if piece.line >= 0 else 0
            work.trips += 0.5 if plane.place != "ceiling_joists" else 0.0
    if piece.line >= 0:
        line = frame.lines[piece.line]
        t = line.place(piece.a[:2])
        work.fished += line.shut_between(t - 1, t + 1) == "closed"
