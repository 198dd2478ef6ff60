"""What to cut: each cable and each set of wires of a hop, whole, with its breakdown."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from levelrun.core.circuits.loads import HopWires, strand_name
from levelrun.core.circuits.makeup import makeup_in, piece_in, to_the_foot
from levelrun.core.findings import Figure
from levelrun.core.job import Box, Habits, Panel
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
        if size:
            yield cable_named(kind, size, item.wires.material)
        return
    hots = (item.wires.conductors - item.wires.neutral) * ("hots" in roles)
    neutral = "neutral" in roles
    wires = item.wires if "ground" in roles else replace(item.wires, ground="")
    yield from wires_named(Lying(wires=wires, conductors=hots + neutral, neutral=neutral, shares=False))


def cable_named(kind: str, size: str, material: str) -> Named:
    """A cable as it is cut. Hung cable is of aluminum anyway."""
    metal = " al" if material == "al" and kind != "OVERHEAD" else ""
    return f"{size} {'quadplex' if kind == 'OVERHEAD' else kind}{metal}", ()


def wires_named(own: Lying) -> Iterator[Named]:
    """The single wires of a hop, kind by kind, as they are cut."""
    for one in strands_of([own]):
        if one.colours:
            yield strand_name(one.wires.size, one.wires.insulation, one.material), one.colours


def _called(named: Named) -> str:
    what, colours = named
    return f"{what}: {', '.join(colours)}" if colours else what


def _makeup(view: WayView, node: Panel | Box | None, outdoors: bool) -> float:
    return makeup_in(view.book, view.habits, node, outdoors) if node is not None else 0.0


def _cut(view: WayView, item: Carried, named: Named, run: _Run, number: int) -> Cut:
    first, last = run.legs[0], run.legs[-1]
    begin = view.nodes.get(view.node_at(first + item.back))
    stop = run.end if run.beyond_in else view.nodes.get(view.node_at(last + (not item.back)))
    return cut_of(
        view.habits, item.wires, named,
        [(node, _makeup(view, node, view.facts[leg].outdoors)) for node, leg in ((begin, first), (stop, last))],
        sum(view.way.legs[index].length_in for index in run.legs) + run.beyond_in,
        legs=(min(run.legs), max(run.legs)), beyond_in=run.beyond_in, number=number,
    )  # fmt: skip


def cut_of(
    habits: Habits, wires: HopWires, named: Named, ends: Sequence[tuple[Panel | Box | None, float]], path: float, *,
    legs: tuple[int, int] = (0, 0), beyond_in: float = 0.0, number: int = 0,
) -> Cut:  # fmt: skip
    """A piece of a hop: its path with what both ends take (each with its make-up, inches), a loop and waste (300.14;
    shop habits). Rounded up to the foot."""
    (what, colours), ((begin, start), (stop, end)) = named, ends
    name = _called(named)
    waste = habits.waste_percent / 100 * path
    exact = piece_in(habits, path, start, end)
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
            **({"of it in the ways after this": show(beyond_in)} if beyond_in else {}),
            f"make-up at {start_name}": show(start),
            f"make-up at {end_name}": show(end),
            "loop": show(habits.loop_in),
            f"waste {habits.waste_percent:g} %": show(waste),
            "exact": show(exact),
        },
        rule="300.14; shop habits",
        basis="practice",
    )
    return Cut(
        item=name,
        what=what,
        colours=colours,
        circuit=wires.circuit,
        box=wires.box,
        title=wires.title,
        pieces=len(colours) or 1,
        first=legs[0],
        last=legs[1],
        start=start_name,
        end=end_name,
        path_in=path,
        beyond_in=beyond_in,
        start_makeup_in=start,
        end_makeup_in=end,
        loop_in=habits.loop_in,
        waste_in=waste,
        exact_in=exact,
        cut_in=cut,
        figure=figure,
    )
