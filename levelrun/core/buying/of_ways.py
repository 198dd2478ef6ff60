"""What a way takes: its cable and wire cut by cut, its pipe piece by piece, what holds it, what screws on."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from levelrun.core.buying.items import cable, each, fitting, stick, tubing, wire
from levelrun.core.buying.lines import At, Line, Lines
from levelrun.core.codebook import Codebook
from levelrun.core.measure import shown_in
from levelrun.core.pipe.facts import PipeView, piped
from levelrun.core.pipe.layout import Layout
from levelrun.core.pipe.living import LARGE_FROM, expansions
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.trade.pipe.make import STIFF, make_of
from levelrun.core.ways.facts import WayContext, WayView
from levelrun.core.ways.holding import held, stapled
from levelrun.core.ways.lengths import Cut
from levelrun.core.ways.pulls import Pull

BODIES = {"lb": "LB", "body": "conduit body"}


def lines_of_way(book: Codebook, context: WayContext, cuts: Sequence[Cut], drawn: bool) -> Lines:
    """Everything that a way takes. drawn: it drew itself, so its place is its hop's, not a way's."""
    pipe = piped(book, context)
    with shown_in(book.units):
        found = [*_cuts(pipe.view, cuts, drawn), *_holding(pipe.view, drawn)]
        if any(pipe.view.methods[i].kind == "raceway" for i in pipe.view.indexes):
            found += _piped(pipe, drawn)
    return tuple(found)


def _at(view: WayView, drawn: bool, circuit: str = "", name: str = "") -> At:
    own = view.context.carried
    hop = own[0].wires if own else None
    kind, ident = ("circuit", hop.circuit) if drawn and hop else ("way", view.way.id)
    structure = view.structures.get(view.start.structure)
    return At(
        kind, ident, name or view.way.name, "", structure.name if structure else "",
        circuit or (hop.circuit if hop else ""), "runs",
    )  # fmt: skip


def _cuts(view: WayView, cuts: Sequence[Cut], drawn: bool) -> Iterator[Line]:
    for cut in cuts:
        yield from lines_of_cut(cut, _at(view, drawn, cut.circuit, f"{cut.start} to {cut.end}"), cut.title)


def lines_of_cut(cut: Cut, at: At, why: str) -> Iterator[Line]:
    """A piece of cable with its letters at both ends, or wires colour by colour."""
    feet, hop = cut.cut_in / 12, (cut.circuit, cut.box)
    if not cut.colours:
        yield Line(cable(cut.what), feet, at, why, hop)
        yield Line(each("small", "cable label"), 2, at, "lettered at both ends", hop)
    for colour in cut.colours:
        yield Line(wire(cut.what, colour), feet, at, why, hop)


def _holding(view: WayView, drawn: bool) -> Iterator[Line]:
    at = _at(view, drawn)
    staples = stapled(view.book, view.context)
    small, large = 0, 0
    for index in view.indexes:
        leg, kind = view.way.legs[index], view.methods[index].kind
        if kind == "cable" and not leg.sleeve and not leg.fished and not is_buried(view.facts[index]):
            order = ("14", "12", "10")
            if leg.size.partition("-")[0] in order:
                small += len(staples[index])
            else:
                large += len(staples[index])
        if kind == "raceway":
            straps = len(held(view, index).positions_in)
            if straps:
                yield Line(fitting(view.methods[index].name, leg.size, "strap"), straps, at, f"leg {index + 1}")
                if leg.stands_off:
                    yield Line(each("small", "stand-off block"), straps, at, "the pipe stands off the wall")
        if leg.ribbon and leg.along is None:
            yield Line(each("trench", "warning ribbon, 10 ft"), -(-leg.length_in // 120), at, "over the pipe")
    if small:
        yield Line(each("small", "cable staple, small"), small, at, "14 to 10 cable")
    if large:
        yield Line(each("small", "cable staple, large"), large, at, "8 cable and larger")


def _piped(pipe: PipeView, drawn: bool) -> Iterator[Line]:
    view, at = pipe.view, _at(pipe.view, drawn)
    for index in view.indexes:
        leg, method = view.way.legs[index], view.methods[index]
        if method.kind != "raceway":
            continue
        if method.family not in STIFF:
            yield Line(tubing(method.name, leg.size), leg.length_in / 12, at, f"leg {index + 1}")
        elif leg.sleeve:
            yield from _sleeve(view, index, at)
        if leg.end.kind in BODIES:
            yield Line(fitting(method.name, leg.size, BODIES[leg.end.kind]), 1, at, f"end of leg {index + 1}")
        yield from _ends(view, index, at)
    for _, layout in pipe.laid:
        yield from _sticks(view, layout, at)
    for pull in pipe.pulls:
        yield from _of_pull(view, pull, at)


def _sleeve(view: WayView, index: int, at: At) -> Iterator[Line]:
    """A pipe that only guards a cable: in sticks, a bushing at both ends."""
    leg, method = view.way.legs[index], view.methods[index]
    make = make_of(view.book, leg.method, leg.size)
    if make is None:
        return
    item, left = stick(method.name, leg.size, make.stick_in), leg.length_in
    while left > 1e-6:
        piece = min(left, make.stick_in)
        yield Line(item, piece, at, f"guards the cable of leg {index + 1}")
        left -= piece
        if left > 1e-6:
            yield Line(fitting(method.name, leg.size, "coupling"), 1, at, "between sticks")
    yield Line(fitting(method.name, leg.size, "bushing"), 2, at, "both ends of the sleeve")


def _ends(view: WayView, index: int, at: At) -> Iterator[Line]:
    """Connectors where a pipe meets a box, an LB that it is threaded or glued into wants none."""
    leg, method = view.way.legs[index], view.methods[index]
    if leg.sleeve:
        return
    rain = "raintight " if view.facts[index].moisture == "wet" and method.family == "steel" else ""
    ends = []
    if view.joint_before(index) in ("box", "panel"):
        ends.append(view.way.start if index == 0 else view.way.legs[index - 1].end.node)
    if view.joint_after(index) in ("box", "panel"):
        ends.append(leg.end.node)
    order = ("4", "3", "2", "1", "1/0", "2/0", "3/0", "4/0", "250")
    large = any(wires.size in order for wires in view.wires(index)) if view.piped(index) else False
    for node in ends:
        name = view.nodes[node].name if node in view.nodes else ""
        yield Line(fitting(method.name, leg.size, f"{rain}connector"), 1, at, f"at {name}")
        if large and method.family == "steel":
            yield Line(fitting(method.name, leg.size, "insulating bushing"), 1, at, f"No. {LARGE_FROM} and larger")
        elif method.family == "pvc":
            yield Line(fitting(method.name, leg.size, "bushing"), 1, at, f"at {name}")


def _sticks(view: WayView, layout: Layout, at: At) -> Iterator[Line]:
    def named(key: str) -> str:
        return next(view.methods[i].name for i in view.indexes if view.way.legs[i].method == key)

    glued = 0
    for piece in layout.pieces:
        make = make_of(view.book, piece.method, piece.size)
        if make is None or piece.too_long:
            continue
        item = stick(named(piece.method), piece.size, make.stick_in)
        # a piece that keeps its bell or coupling takes the whole stick
        long = make.stick_in if piece.bell or piece.length_in > make.stick_in - make.end_in else piece.length_in
        yield Line(item, long, at, f"legs {layout.first + 1} to {layout.last + 1}")
        glued += 2 if piece.method.startswith("PVC") else 0
        if piece.right == "coupling" and not piece.bell:
            yield Line(fitting(named(piece.method), piece.size, "coupling"), 1, at, "between pieces")
        if piece.right == "changeover":
            yield Line(fitting(named(piece.method), piece.size, "changeover"), 1, at, "to other pipe")
    for elbow in layout.elbows:
        angle = elbow.made.turn.angle_deg
        yield Line(fitting(named(elbow.method), elbow.size, f"elbow {angle:.3g}°"), 1, at, "factory elbow")
        if not elbow.method.startswith("PVC"):
            yield Line(fitting(named(elbow.method), elbow.size, "coupling"), 2, at, "both ends of the elbow")
    if glued:
        yield Line(each("small", "PVC joint, primer and cement"), glued, at, "cleaned, primed, glued, held")


def _of_pull(view: WayView, pull: Pull, at: At) -> Iterator[Line]:
    for item in expansions(view, pull):
        leg = view.way.legs[item.leg]
        yield Line(
            fitting(view.methods[item.leg].name, leg.size, "expansion fitting"), item.count, at,
            f"moves {item.moves_in:.2f} in over {item.length_text}",
        )  # fmt: skip
    if view.habits.piping.lube != "dry" and pull.length_in > 120 and view.piped(pull.first):
        yield Line(each("small", f"pulling lube, {view.habits.piping.lube}, feet of pull"), pull.length_in // 12, at,
                   "per pull")  # fmt: skip
