"""The strip of a way, worked out: its bands, legs, marks, depths and floors."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from levelrun.core.codebook.lookups import place
from levelrun.core.job import Panel, Structure
from levelrun.core.measure import show, show_inches
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.geometry import Placed
from levelrun.core.ways.holding import Held
from levelrun.core.ways.pulls import Pull
from levelrun.core.ways.rules.cover import needed_cover
from levelrun.core.ways.strip import Band, Depth, Floor, Mark, Point, PullSpan, Strip, StripLeg, UnsaidClimb
from levelrun.core.ways.unsaid import EARTH

LUMBER = ("stud_wall", "ceiling_joists", "attic", "crawl_space", "basement")
NEAR_IN = 18.0


def strip_of(view: WayView, verdicts: list[str], holds: list[Held], pulls: list[Pull]) -> Strip:
    """The strip of a way. `verdicts` and `holds` are by leg."""
    depths = [d for i in range(len(view.way.legs)) if (d := _depth(view, i))]
    floors = _floors(view, depths)
    path = [view.start.height_in, view.left_at_in, *(y for p in view.placed for y in (p.y0, p.y1, p.met_y))]
    ends = _ends(view)
    path += [mark.y + mark.tall_in for mark in ends if mark.tall_in] + [mark.y for mark in ends]
    ys = path + [d.grade_y for d in depths] + [d.grade_y - (d.needed_in or 0) for d in depths]
    ys += [f.y for f in floors if f.kind != "ceiling" or f.y <= max(path) + NEAR_IN]
    return Strip(
        length_in=view.placed[-1].x1 if view.placed else 0.0,
        low_in=min(ys) - 8,
        high_in=max(ys) + 8,
        bands=_bands(view),
        legs=[_leg(view, i, verdicts[i]) for i in range(len(view.way.legs))],
        marks=ends + _holds(view, holds) + _bends(view, pulls),
        depths=depths,
        floors=floors,
        pulls=[_span(view, pull) for pull in pulls],
        plan=[Point(0.0, 0.0), *(Point(*p.plan1) for p in view.placed)],
        unsaid=[climb for p in view.placed for climb in _unsaid(p)],
    )


def _unsaid(placed: Placed) -> Iterator[UnsaidClimb]:
    for x, y0, y1 in ((placed.x0, placed.from_y, placed.y0), (placed.x1, placed.y1, placed.met_y)):
        if y0 != y1:
            yield UnsaidClimb(placed.index, x, y0, y1, show(round(abs(y1 - y0))))


def _structure(view: WayView, index: int) -> Structure | None:
    """Structure in which an indoor leg lies: the start's until the way has been outdoors, then the end's."""
    if view.facts[index].outdoors and view.way.legs[index].place != "outside_wall":
        return None
    been_out = any(is_buried(view.facts[i]) or view.way.legs[i].place == "overhead" for i in range(index))
    node = (view.end or view.start) if been_out else view.start
    return view.structures.get(node.structure)


def _bands(view: WayView) -> list[Band]:
    bands: list[Band] = []
    for placed in view.placed:
        facts = view.facts[placed.index]
        kind = placed.leg.place
        structure = _structure(view, placed.index)
        name = structure.name if structure else ""
        last = bands[-1] if bands else None
        if last and last.place == kind and last.structure == name:
            bands[-1] = replace(last, x1=placed.x1, legs=[*last.legs, placed.index])
            continue
        look = (
            "earth"
            if kind in EARTH
            else "lumber"
            if kind in LUMBER
            else "concrete"
            if kind == "masonry_inside"
            else "air"
            if kind in ("overhead", "roof")
            else "wall"
        )
        words = [facts.moisture]
        words += ["can be hit"] if facts.damage else ["not said if hit"] if facts.damage is None else []
        bands.append(
            Band(
                x0=placed.x0,
                x1=placed.x1,
                place=kind,
                look=look,
                title=place(view.book, kind).title,
                subtitle=", ".join(words),
                legs=[placed.index],
                structure=name,
                foot_in=_foot(view, placed.index, structure),
            )
        )
    return bands


def _foot(view: WayView, index: int, structure: Structure | None) -> float | None:
    """Ground at the foot of an outside wall, in the heights of the strip."""
    if structure is None or view.way.legs[index].place != "outside_wall":
        return None
    return view.ground_in(index)


def _leg(view: WayView, index: int, verdict: str) -> StripLeg:
    placed, leg, kind = view.placed[index], view.way.legs[index], view.methods[index]
    jacket = "grey" if leg.method == "UF-B" else "6" if leg.method == "USE-2" else leg.size.partition("-")[0]
    return StripLeg(
        index=index,
        x0=placed.x0,
        y0=placed.y0,
        x1=placed.x1,
        y1=placed.y1,
        look="pipe" if kind.kind == "raceway" else "cable",
        wall=kind.wall,
        jacket=jacket,
        verdict=verdict,
    )


def _node_kind(view: WayView, node_id: str) -> str:
    node = view.nodes[node_id]
    kind = getattr(node, "kind", "panel")
    return str(kind) if kind in ("panel", "equipment", "disconnect") else "box"


def _ends(view: WayView) -> list[Mark]:
    start = view.start
    kind = _node_kind(view, start.id)
    tall = start.tall_in if isinstance(start, Panel) else 0.0
    marks = [Mark(x=0.0, y=start.height_in, kind=kind, label=start.name, leg=0, vertical=False, tall_in=tall)]
    for placed in view.placed:
        end = placed.leg.end
        last = placed.index + 1 == len(view.placed)
        kind = _node_kind(view, end.node) if end.node else end.kind
        if kind == "none" and last:
            kind = "open"
        if kind != "none":
            label = view.joint_name(placed.index) or "open end"
            node = view.nodes.get(end.node or "")
            tall = node.tall_in if isinstance(node, Panel) else 0.0
            marks.append(
                Mark(
                    x=placed.x1,
                    y=_lower_edge(view, placed, node) if isinstance(node, Panel) else placed.met_y,
                    tall_in=tall,
                    kind=kind,
                    label="" if kind == "coupling" else label,
                    leg=placed.index,
                    vertical=placed.vertical,
                )
            )
        if placed.fold:
            marks.append(
                Mark(
                    x=placed.x0,
                    y=placed.y0,
                    kind="fold",
                    label=f"turns {placed.fold}",
                    leg=placed.index,
                    vertical=placed.vertical,
                )
            )
    return marks


def _lower_edge(view: WayView, placed: Placed, node: Panel) -> float:
    """The lower edge of a panel at the end of a leg: where it stands, in the structure where the way began; in
    another by the edge that is entered, from above by its top."""
    if node.structure == view.start.structure:
        return node.height_in
    edge = placed.leg.end.edge or {"down": "top", "up": "bottom"}.get(placed.leg.go, "side")
    return placed.met_y - {"top": node.tall_in, "bottom": 0.0}.get(edge, node.tall_in / 2)


def _holds(view: WayView, holds: list[Held]) -> list[Mark]:
    marks: list[Mark] = []
    for placed, hold in zip(view.placed, holds, strict=True):
        for at in hold.positions_in:
            part = at / placed.leg.length_in
            x = placed.x0 + (placed.x1 - placed.x0) * part
            y = placed.y0 + (placed.y1 - placed.y0) * part
            marks.append(Mark(x=x, y=y, kind=hold.kind, label="", leg=placed.index, vertical=placed.vertical))
        if placed.leg.expansion:
            x, y = (placed.x0 + placed.x1) / 2, (placed.y0 + placed.y1) / 2
            marks.append(
                Mark(x=x, y=y, kind="expansion", label="expansion", leg=placed.index, vertical=placed.vertical)
            )
    return marks


def _bends(view: WayView, pulls: list[Pull]) -> list[Mark]:
    marks: list[Mark] = []
    for pull in pulls:
        within: dict[int, list[float]] = {}
        for bend in pull.bends:
            placed = view.placed[bend.leg]
            if bend.kind == "corner":
                marks.append(
                    Mark(
                        x=placed.x0,
                        y=placed.y0,
                        kind="bend",
                        label=f"{bend.deg:g}°",
                        leg=bend.leg,
                        vertical=placed.vertical,
                    )
                )
            else:
                within.setdefault(bend.leg, []).append(bend.deg)
        for leg, degrees in within.items():
            placed = view.placed[leg]
            x, y = (placed.x0 + placed.x1) / 2, (placed.y0 + placed.y1) / 2
            marks.append(Mark(x=x, y=y, kind="bend", label=_degrees(degrees), leg=leg, vertical=placed.vertical))
    return marks


def _degrees(degrees: list[float]) -> str:
    if len(set(degrees)) == 1 and len(degrees) > 1:
        return f"{len(degrees)} × {degrees[0]:g}°"
    return " + ".join(f"{angle:g}°" for angle in degrees)


def _depth(view: WayView, index: int) -> Depth | None:
    placed, leg = view.placed[index], view.way.legs[index]
    if placed.vertical or not is_buried(view.facts[index]):
        return None
    needed = needed_cover(view, index)
    wanted = needed.cover_in if needed else None
    known = leg.depth_in is not None
    structure = view.structures.get(view.start.structure)
    grade = placed.y0 + leg.depth_in if leg.depth_in is not None else (structure.grade_in if structure else 0.0)
    short = wanted - leg.depth_in if wanted is not None and leg.depth_in is not None else 0.0
    return Depth(
        leg=index,
        x0=placed.x0,
        x1=placed.x1,
        grade_y=grade,
        pipe_y=placed.y0,
        taped_in=leg.depth_in,
        needed_in=wanted,
        text=f"{show_inches(leg.depth_in)} to top of {'pipe' if view.piped(index) else 'cable'}"
        if known and leg.depth_in is not None
        else "depth not taped",
        short_text=f"{show_inches(short)} short of cover" if short > 0 else "",
        taped_text=show_inches(leg.depth_in) if leg.depth_in is not None else "",
        needed_text=show_inches(wanted) if wanted is not None else "",
    )


def _floors(view: WayView, depths: list[Depth]) -> list[Floor]:
    floors: list[Floor] = []
    length = view.placed[-1].x1 if view.placed else 0.0
    start = view.structures.get(view.start.structure)
    outs = [p.x0 for p in view.placed if view.facts[p.index].outdoors]
    inside_to = outs[0] if outs else length
    if start and inside_to > 0:
        floors += _of_structure(start, 0.0, inside_to, 0.0)
    end = view.end
    other = view.structures.get(end.structure) if end else None
    if end and other and start and other.id != start.id:
        back = [p.x1 for p in view.placed if view.facts[p.index].outdoors]
        if back and back[-1] < length:
            floors += _of_structure(other, back[-1], length, view.placed[-1].met_y - end.height_in)
    floors += [Floor(d.x0, d.x1, d.grade_y, "grade", "grade") for d in depths]
    return floors


def _of_structure(structure: Structure, x0: float, x1: float, base: float) -> list[Floor]:
    lines = [
        Floor(x0, x1, base, "floor", f"{structure.name}, floor"),
        Floor(x0, x1, base + structure.ceiling_in, "ceiling", "ceiling"),
    ]
    lines += [
        Floor(x0, x1, base + level.floor_in, "floor", level.name.lower())
        for level in structure.levels
        if level.kind in ("loft", "attic", "floor") and level.floor_in
    ]
    under = structure.under_floor_in
    if under is not None:
        lines.append(Floor(x0, x1, base + under, "ground", "crawl floor"))
    lines.append(Floor(x0, x1, base + (structure.grade_in if under is None else under), "soil", "earth"))
    return lines


def _span(view: WayView, pull: Pull) -> PullSpan:
    return PullSpan(
        pull.index,
        view.placed[pull.first].x0,
        view.placed[pull.last].x1,
        f"pull {pull.index + 1} · {show(pull.length_in)} · {pull.total.total_deg:g}° of {pull.total.limit_deg:g}°",
        not pull.total.ok,
    )
