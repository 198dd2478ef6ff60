"""What to cut: each cable and each set of wires, from box to box, with its breakdown."""

from __future__ import annotations

import math
from dataclasses import dataclass

from levelrun.core.findings import Figure
from levelrun.core.job import Box, Panel
from levelrun.core.measure import show
from levelrun.core.runs.facts import RunView


@dataclass(frozen=True, kw_only=True)
class Cut:
    """One piece to cut. Inches; `cut_in` is rounded up to the whole foot, `exact_in` is not."""

    item: str
    pieces: int
    first: int
    last: int
    start: str
    end: str
    path_in: float
    start_makeup_in: float
    end_makeup_in: float
    loop_in: float
    waste_in: float
    exact_in: float
    cut_in: float
    figure: Figure


def cuts_of(view: RunView) -> list[Cut]:
    """Every piece of cable and wire of a run. Wires run on through LBs and bodies, not through boxes."""
    found: list[Cut] = []
    first = 0
    for index in range(len(view.run.legs)):
        last = index + 1 == len(view.run.legs)
        if last or view.joint_after(index) in ("box", "panel") or _kind(view, index) != _kind(view, index + 1):
            found += _cuts(view, first, index, len(found))
            first = index + 1
    return found


def _kind(view: RunView, index: int) -> tuple[str, str]:
    if view.piped(index):
        return ("wires", "")
    leg = view.run.legs[index]
    return view.carried(index) if leg.sleeve else (leg.method, leg.size)


def _cuts(view: RunView, first: int, last: int, number: int) -> list[Cut]:
    kind, size = _kind(view, first)
    if kind != "wires":
        name = {"OVERHEAD": "quadplex"}.get(kind, kind)
        return [_cut(view, f"{size} {name}".strip(), 1, first, last, number)]
    colours = view.colours
    cuts: list[Cut] = []
    for wires in view.wires:
        taken, colours = colours[: wires.count], colours[wires.count :]
        item = f"{wires.size} {wires.insulation}{' al' if view.run.material == 'al' else ''}: {', '.join(taken)}"
        cuts.append(_cut(view, item, wires.count, first, last, number + len(cuts)))
    return cuts


def _makeup(view: RunView, joint_leg: int, outdoors: bool) -> float:
    """Free length at an end. joint_leg: the leg whose end it is, -1 for the start of the run."""
    node = view.start if joint_leg < 0 else view.nodes.get(view.run.legs[joint_leg].end.node or "")
    if node is None:
        return 0.0
    if isinstance(node, Panel):
        return view.habits.panel_makeup_in
    least = view.book.number("free_from_sheath_in")
    if outdoors or (isinstance(node, Box) and node.kind in ("equipment", "disconnect")):
        return max(view.habits.outside_makeup_in, least)
    return max(view.habits.box_makeup_in, least)


def _cut(view: RunView, item: str, pieces: int, first: int, last: int, number: int) -> Cut:
    path = sum(leg.length_in for leg in view.run.legs[first : last + 1])
    start = _makeup(view, first - 1, view.facts[first].outdoors)
    end = _makeup(view, last, view.facts[last].outdoors)
    loop = view.habits.loop_in
    waste = view.habits.waste_percent / 100 * path
    exact = path + start + end + loop + waste
    cut = math.ceil(exact / 12 - 1e-9) * 12
    names = view.joint_name(first - 1) or "joint", view.joint_name(last) or "open end"
    figure = Figure(
        key=f"cut-{number}",
        label=f"Cut, {item}",
        value=exact,
        text=show(cut),
        unit="in",
        formula="path + make-up at both ends + loop + waste, rounded up to the foot",
        inputs={
            "path": show(path),
            f"make-up at {names[0]}": show(start),
            f"make-up at {names[1]}": show(end),
            "loop": show(loop),
            f"waste {view.habits.waste_percent:g} %": show(waste),
            "exact": show(exact),
        },
        rule="300.14; shop habits",
        basis="practice",
    )
    return Cut(
        item=item,
        pieces=pieces,
        first=first,
        last=last,
        start=names[0],
        end=names[1],
        path_in=path,
        start_makeup_in=start,
        end_makeup_in=end,
        loop_in=loop,
        waste_in=waste,
        exact_in=exact,
        cut_in=cut,
        figure=figure,
    )
