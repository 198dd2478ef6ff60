"""Rules about ways that draw themselves: none to be had, longer than a coil, holes too large or too many, plates."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from levelrun.core.circuits.rules.supply import INDOORS
from levelrun.core.codebook import Codebook
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Level, Room
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.site.geometry import walls_of
from levelrun.core.trade.holes import bored_hole
from levelrun.core.ways.codes import finding
from levelrun.core.ways.drilling import MOST_IN_A_STUD, Drilled, Hole, bit_for
from levelrun.core.ways.frame.found import Found
from levelrun.core.ways.frame.lines import Line

COIL_IN = 3000.0  # 250 ft: the coil that shops keep, common practice, no source
FISH = "334.30(B)(1)"


@dataclass(frozen=True, kw_only=True, eq=False)
class Hopped:
    """A hop as it was found under a rule set, with what it is called: its circuit and its two ends."""

    book: Codebook
    found: Found
    title: str
    start: str
    end: str
    method: str
    cut_in: float | None


def no_way_rule(hop: Hopped) -> Iterator[Finding]:
    """A hop to which the frame gives no way: what is closed round its ends, and the wall to open."""
    one = hop.found
    if one.frame is None or one.route is not None:
        return
    shut = list(dict.fromkeys(shut.why for line in one.frame.lines for shut in line.shut))
    text = f"No way through this frame gets from {hop.start} to {hop.end}"
    mends = [
        Mend(
            f"Open the {name} of {room}", [{"op": "set_side", "room": ident, "side": side, "set": {"closed": False}}]
        )
        for ident, side, room, name in _closed_sides(one)
    ]
    yield finding(
        "way-none", one.circuit, None, f"No way to {hop.end}",
        f"{text}{': ' + '; '.join(shut[:3]) if shut else ''}. Its length is not known. Another level, "
        "a box on another wall, or walk it leg by leg.", "common practice, no source",
        about="circuit", mends=mends[:2],
    )  # fmt: skip


def _closed_sides(one: Found) -> Iterator[tuple[str, int, str, str]]:
    assert one.frame is not None
    for line in one.frame.lines:
        for member in line.members:
            for side, room, faces in one.frame.rooms[member.room].closed:
                if side == member.side:
                    yield member.room, side, room, f"{faces} wall"


def apart_rule(hop: Hopped) -> Iterator[Finding]:
    """To another building: straight, until its way is walked. Building cable is stopped by its circuit."""
    if hop.found.why != "between buildings" or hop.method in INDOORS:
        return
    yield finding(
        "way-apart", hop.found.circuit, None, f"To {hop.end} it is not drawn yet",
        f"{hop.end} stands in another building: its length is taken straight across, without trench, riser or span. "
        "Walk its way.", "common practice, no source", about="circuit",
    )  # fmt: skip


def long_rule(hop: Hopped) -> Iterator[Finding]:
    """One piece longer than the coil that is sold: a cable is never spliced to fit."""
    if hop.cut_in is None or hop.cut_in <= COIL_IN:
        return
    yield finding(
        "way-long", hop.found.circuit, None, f"{show(hop.cut_in)} to {hop.end} in one piece",
        f"A coil holds {show(COIL_IN)}: take it off a reel, or set a box on the way.",
        "common practice, no source", measured=show(hop.cut_in), limit=show(COIL_IN), about="circuit",
    )  # fmt: skip


def fished_rule(hop: Hopped) -> Iterator[Finding]:
    """A stretch fished through what is closed is held by nothing, which is allowed there alone (334.30(B)(1))."""
    if hop.found.route is None or not hop.found.route.work.fished:
        return
    if hop.method == "raceway":
        yield finding(
            "pipe-closed", hop.found.circuit, None, f"Pipe to {hop.end} through a closed wall",
            "A stick is not fished through what is finished: open it, take the face of the wall, or flexible pipe or "
            "cable there.", "common practice, no source", about="circuit",
        )  # fmt: skip
    else:
        yield finding(
            "way-fished", hop.found.circuit, None, f"Fished to {hop.end}",
            "Through a finished wall cable is fished and held by nothing there; an old-work box with its own clamp "
            "holds its end.", FISH, about="circuit",
        )  # fmt: skip


def bend_rule(hop: Hopped) -> Iterator[Finding]:
    """Round a corner a cable bends no tighter than five times its thickness (334.24); a flat one bends flat."""
    one = hop.found
    if one.frame is None or one.route is None or not one.route.work.corners or not one.narrow_in:
        return
    room = min(one.frame.lines[piece.line].depth_in for piece in one.route.pieces if piece.line >= 0)
    need = hop.book.number("cable_bend_diameters") * one.narrow_in
    if need > room + 1e-9:
        edits = [{"op": "bend", "circuit": one.circuit, "box": one.box, "school": "over", "via": []}]
        yield finding(
            "bend-tight", one.circuit, None, f"Tight round the corner to {hop.end}",
            f"It bends in {show_inches(need)}; the wall is {show_inches(room)} deep. Two holes well apart that meet "
            "in a wide curve, or over the top.", hop.book.scalar("cable_bend_diameters").section,
            measured=show_inches(room), limit=show_inches(need), about="circuit",
            mends=[Mend("Up and over", edits)],
        )  # fmt: skip


def joist_rule(hop: Hopped) -> Iterator[Finding]:
    """The hole that a cable takes in a joist: a third of its depth, 2 in from both sides (IRC R502.8)."""
    one = hop.found
    if one.frame is None or one.route is None or not one.wide_in:
        return
    bit = bit_for((one.wide_in,))
    for piece in one.route.pieces:
        plane = one.frame.planes.get(piece.plane)
        if plane is None or plane.level.joist_kind != "solid" or not plane.joists(piece.a[:2], piece.b[:2]):
            continue
        hole = bored_hole(hop.book, "joist", plane.level.joist_depth_in, bit)
        if hole.allowed is False:
            yield finding(
                "hole-large", one.circuit, None, f"A {show_inches(bit)} hole is too large for the joists",
                f"To {hop.end} the cable goes through joists {show_inches(plane.level.joist_depth_in)} deep: "
                f"{show_inches(hole.max_hole_in or 0.0)} is the most. Along them, or through the studs.", hole.rule,
                measured=show_inches(bit), limit=show_inches(hole.max_hole_in or 0.0), about="circuit",
            )  # fmt: skip
            return


HOP_RULES: tuple[Rule[Hopped], ...] = (no_way_rule, apart_rule, long_rule, fished_rule, bend_rule, joist_rule)


def hole_rules(wall: Drilled, room: str, name: str) -> Iterator[Finding]:
    """Holes of one wall: too large for its studs, too many in one, near the edge."""
    large = [hole for hole in wall.holes if hole.limits.allowed is False]
    if large:
        yield _too_large(large[0], len(large), room, name)
    counts: dict[float, int] = {}
    for hole in wall.holes:
        counts[hole.stud.at_in] = counts.get(hole.stud.at_in, 0) + 1
    most = max(counts.values(), default=0)
    if most > MOST_IN_A_STUD:
        yield finding(
            "holes-many", room, None, f"{most} holes in one stud of the {name}",
            "Each is within the limit; together they weaken it. Take a cable over the top, or ask.",
            "common practice, no source", measured=str(most), limit=str(MOST_IN_A_STUD), about="room", room=room,
        )  # fmt: skip
    if wall.line.stud == "metal" and wall.holes:
        yield finding(
            "hole-grommets", room, None, f"Grommets in the metal studs of the {name}",
            "A listed bushing in each hole before the cable is pulled.", "300.4(B)(1)", about="room", room=room,
        )  # fmt: skip
    plated = sum(hole.limits.plate_needed for hole in wall.holes)
    if plated:
        yield finding(
            "hole-plates", room, None, f"{plated} holes of the {name} want a plate",
            "Less than 1¼ in of wood stays at their edge: a steel plate 1/16 in thick over each.", "300.4(A)(1)",
            measured=show_inches(min(hole.limits.edge_in for hole in wall.holes)), limit="1¼″",
            about="room", room=room,
        )  # fmt: skip


def _too_large(hole: Hole, count: int, room: str, name: str) -> Finding:
    most = hole.limits.max_hole_in or 0.0
    return finding(
        "hole-large", room, None, f"A {show_inches(hole.bit_in)} hole is too large for the {name}",
        f"{count} studs: {show_inches(most)} is the most that a stud of that depth bears. Another way for the cable, "
        "deeper studs, or a stud shoe that is made for it.", hole.limits.rule,
        measured=show_inches(hole.bit_in), limit=show_inches(most), about="room", room=room,
    )  # fmt: skip


def chart_rule(levels: Mapping[str, Level], taken: Mapping[str, str]) -> Iterator[Finding]:
    """Made joists are bored by their maker's chart alone. `taken`: a circuit that goes through the joists of
    each level."""
    for level, circuit in taken.items():
        if levels[level].joist_kind == "i_joist":
            yield finding(
                "joist-chart", circuit, None, f"Holes in the I-joists over {levels[level].name.lower()}",
                "Through the web alone, where the maker's chart has them; never through a flange. Ask for the chart.",
                "maker's chart", about="circuit",
            )  # fmt: skip


def wall_name(line: Line, rooms: Mapping[str, Room]) -> str:
    """What a wall is called: by the way it faces in the room that has its first face."""
    member = line.members[0]
    return f"{_faced(rooms[member.room], member.side)} of {rooms[member.room].name}"


def _faced(room: Room, side: int) -> str:
    return f"{walls_of(room)[side].name} wall"
