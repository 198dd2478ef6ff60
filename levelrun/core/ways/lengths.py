"""What to cut: each cable and each set of wires of a hop, whole, with its breakdown."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import takewhile

from levelrun.core.circuits.makeup import makeup_in, piece_in, to_the_foot
from levelrun.core.findings import Figure
from levelrun.core.measure import show
from levelrun.core.ways.carried import Carried, Lying, strands_of
from levelrun.core.ways.facts import WayView


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


def cuts_of(view: WayView) -> list[Cut]:
    """Every piece of cable and wire that starts in this way, hop by hop. Wires go on through LBs, bodies and boxes
    that they pass, and from pipe into pipe; a cable that becomes another is cut there. Of two circuits that share a
    neutral in one cable, the first has it."""
    found: list[Cut] = []
    for item in view.context.carried:
        first = item.first
        for index in range(item.first, item.last + 1):
            last = index == item.last
            if last or _kind(view, index, item) != _kind(view, index + 1, item):
                if first > item.first or item.begins:
                    found += _cuts(view, item, first, index, len(found))
                first = index + 1
    return found


def _own(view: WayView, index: int, item: Carried) -> Lying:
    same = (item.wires.circuit, item.wires.box)
    return next(i for i in view.lying(index) if (i.wires.circuit, i.wires.box) == same)


def _kind(view: WayView, index: int, item: Carried) -> tuple[str, str]:
    """Wires in pipe, or the cable by method and size; no size where it shares the cable of another circuit."""
    if view.piped(index):
        return ("wires", "")
    leg, own = view.way.legs[index], _own(view, index, item)
    if leg.sleeve:
        return view.guarded(index)
    size = next((size for group, size in view.cables(index) if group[0] == own), "")
    return (leg.method, size)


def _cuts(view: WayView, item: Carried, first: int, last: int, number: int) -> list[Cut]:
    kind, size = _kind(view, first, item)
    if kind != "wires":
        name = {"OVERHEAD": "quadplex"}.get(kind, kind)
        metal = " al" if item.wires.material == "al" and kind != "OVERHEAD" else ""  # hung cable is aluminum anyway
        return [_cut(view, item, (f"{size} {name}{metal}", ()), (first, last), number)] if size else []
    cuts: list[Cut] = []
    own = _own(view, first, item)
    brings = any(view.grounds(index, _own(view, index, item)) for index in range(first, last + 1))
    if not brings:  # another hop brings a larger one all the way
        own = replace(own, wires=replace(own.wires, ground=""))
    beside = takewhile(lambda other: other.wires is not item.wires, view.lying(first))
    for strands in strands_of([own], before=sum(other.conductors - other.neutral for other in beside)):
        named = (wire_name(strands.wires.size, strands.wires.insulation, strands.material), strands.colours)
        cuts.append(_cut(view, item, named, (first, last), number + len(cuts)))
    return cuts


def wire_name(size: str, insulation: str, material: str) -> str:
    """What a single wire is called."""
    return f"{size} {insulation}{' al' if material == 'al' else ''}"


def _makeup(view: WayView, node: str, outdoors: bool) -> float:
    found = view.nodes.get(node)
    return makeup_in(view.book, view.habits, found, outdoors) if found is not None else 0.0


def _cut(
    view: WayView, item: Carried, named: tuple[str, tuple[str, ...]], span: tuple[int, int], number: int
) -> Cut:  # fmt: skip
    (what, colours), (first, last) = named, span
    name = f"{what}: {', '.join(colours)}" if colours else what
    beyond = item.beyond_in if last == item.last else 0.0
    path = sum(leg.length_in for leg in view.way.legs[first : last + 1]) + beyond
    ends = [view.node_at(first), view.node_at(last + 1)]
    if ends[0] == item.wires.box or ends[1] == item.wires.start:
        ends.reverse()
    if beyond:
        ends[1] = item.ends_at
    start = _makeup(view, ends[0], view.facts[first].outdoors)
    end = _makeup(view, ends[1], view.facts[last].outdoors)
    loop = view.habits.loop_in
    waste = view.habits.waste_percent / 100 * path
    exact = piece_in(view.habits, path, start, end)
    cut = to_the_foot(exact)
    names = [view.nodes[node].name if node in view.nodes else "" for node in ends]
    start_name, end_name = names[0] or "joint", names[1] or "open end"
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
        first=first,
        last=last,
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
