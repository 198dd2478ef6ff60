"""What to cut: each cable and each set of wires of a hop, whole, with its breakdown."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from levelrun.core.circuits.makeup import makeup_in, piece_in, to_the_foot
from levelrun.core.findings import Figure
from levelrun.core.job import Box, Panel
from levelrun.core.measure import show
from levelrun.core.ways.carried import WHOLE, Carried, Lying, Piece, strands_of
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.pieces import ROLES, Place, Role, kind_in, places, runs_in


@dataclass(frozen=True, kw_only=True)
class Cut:
    """One piece to cut. Inches; `cut_in` is rounded up to the whole foot, `exact_in` is not; `beyond_in` of its path
    lies in the ways after this one. `circuit` and `box` name the hop that it is for. what: the cable or the wire
    alone; colours: of each wire, none of a cable."""

    item: str
    what: str
    colours: tuple[str, ...]
    circuit: str
    box: str
    title: str
    pieces: int
    first: int
    last: int
    start: str
    end: str
    path_in: float
    beyond_in: float
    start_makeup_in: float
    end_makeup_in: float
    loop_in: float
    waste_in: float
    exact_in: float
    cut_in: float
    figure: Figure


@dataclass(frozen=True)
class _Run:
    """Legs, as they are gone through, in which one piece lies, whether it begins there, and what of it lies in the
    ways after these."""

    legs: tuple[int, ...]
    begins: bool
    beyond_in: float
    end: Panel | Box | None


Named = tuple[str, tuple[str, ...]]  # a cable, or a kind of wire with the colours of each


@dataclass(frozen=True)
class Through:
    """Wires that come from the way before, where they were cut, and lie in legs first to last of this one."""

    item: str
    title: str
    pieces: int
    first: int
    last: int


def cuts_of(view: WayView) -> list[Cut]:
    """Every piece of cable and wire that starts in this way, hop by hop. Wires go on through LBs, bodies and boxes
    that they pass, and from pipe into pipe; a cable that becomes another is cut there. Of two circuits that share a
    neutral, and of all in one pipe that share a ground, the first has it for as far as it goes."""
    begun = ((item, named, run) for item, named, run in _pieces(view) if run.begins)
    return [_cut(view, *piece, number) for number, piece in enumerate(begun)]


def coming_through(view: WayView) -> list[Through]:
    """The wires in pipe, and the cables, that were cut in the way before."""
    return [
        Through(_called(named), item.wires.title, len(named[1]) or 1, min(run.legs), max(run.legs))
        for item, named, run in _pieces(view)
        if not run.begins
    ]


def _pieces(view: WayView) -> Iterator[tuple[Carried, Named, _Run]]:
    for item in view.context.carried:
        legs = places(view, item)
        runs = {role: [_run(item, run, getattr(item, role)) for run in runs_in(legs, item.hop, role)]
                for role in ROLES}  # fmt: skip
        every = dict.fromkeys(run for role in ROLES for run in runs[role])
        for run in sorted(every, key=lambda run: item.legs.index(run.legs[0])):
            what = [role for role in ROLES if run in runs[role]]
            yield from ((item, named, run) for named in _named(view, item, run, what))


def _run(item: Carried, run: Sequence[Place], piece: Piece) -> _Run:
    legs = tuple(place.leg for place in run)
    on = piece if legs[-1] == item.legs[-1] else WHOLE
    return _Run(legs, legs[0] != item.legs[0] or piece.begins, on.beyond_in, on.end)


def _named(view: WayView, item: Carried, run: _Run, roles: Sequence[Role]) -> Iterator[Named]:
    """What lies in a run: its cable, or its single wires kind by kind; nothing where it lies in another's cable."""
    first = run.legs[0]
    kind, size = kind_in(Place(view, first, item.back), item.hop)
    if kind != "wires":
        name = {"OVERHEAD": "quadplex"}.get(kind, kind)
        metal = " al" if item.wires.material == "al" and kind != "OVERHEAD" else ""  # hung cable is aluminum anyway
        if size:
            yield f"{size} {name}{metal}", ()
        return
    hots = (item.wires.conductors - item.wires.neutral) * ("hots" in roles)
    neutral = "neutral" in roles
    wires = item.wires if "ground" in roles else replace(item.wires, ground="")
    own = Lying(wires=wires, conductors=hots + neutral, neutral=neutral, shares=False)
    for one in strands_of([own]):
        if one.colours:
            yield wire_name(one.wires.size, one.wires.insulation, one.material), one.colours


def wire_name(size: str, insulation: str, material: str) -> str:
    """What a single wire is called."""
    return f"{size} {insulation}{' al' if material == 'al' else ''}"


def _called(named: Named) -> str:
    what, colours = named
    return f"{what}: {', '.join(colours)}" if colours else what


def _makeup(view: WayView, node: Panel | Box | None, outdoors: bool) -> float:
    return makeup_in(view.book, view.habits, node, outdoors) if node is not None else 0.0


def _cut(view: WayView, item: Carried, named: Named, run: _Run, number: int) -> Cut:
    (what, colours), (first, last) = named, (run.legs[0], run.legs[-1])
    name = _called(named)
    beyond = run.beyond_in
    path = sum(view.way.legs[index].length_in for index in run.legs) + beyond
    begin = view.nodes.get(view.node_at(first + item.back))
    stop = run.end if beyond else view.nodes.get(view.node_at(last + (not item.back)))
    start = _makeup(view, begin, view.facts[first].outdoors)
    end = _makeup(view, stop, view.facts[last].outdoors)
    loop = view.habits.loop_in
    waste = view.habits.waste_percent / 100 * path
    exact = piece_in(view.habits, path, start, end)
    cut = to_the_foot(exact)
    start_name, end_name = begin.name if begin else "joint", stop.name if stop else "open end"
    figure = Figure(
        key=f"cut-{number}",
        label=f"Cut, {name}",
        value=exact,
        text=show(cut),
        unit="in",
        formula="path + make-up at both ends + loop + waste, rounded up to the foot",
        inputs={
            "path": show(path),
            **({"of it in the ways after this": show(beyond)} if beyond else {}),
            f"make-up at {start_name}": show(start),
            f"make-up at {end_name}": show(end),
            "loop": show(loop),
            f"waste {view.habits.waste_percent:g} %": show(waste),
            "exact": show(exact),
        },
        rule="300.14; shop habits",
        basis="practice",
    )
    return Cut(
        item=name,
        what=what,
        colours=colours,
        circuit=item.wires.circuit,
        box=item.wires.box,
        title=item.wires.title,
        pieces=len(colours) or 1,
        first=min(run.legs),
        last=max(run.legs),
        start=start_name,
        end=end_name,
        path_in=path,
        beyond_in=beyond,
        start_makeup_in=start,
        end_makeup_in=end,
        loop_in=loop,
        waste_in=waste,
        exact_in=exact,
        cut_in=cut,
        figure=figure,
    )
