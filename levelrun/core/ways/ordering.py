"""The order of a circuit's boxes over the ways that the frame gives: shortest, or clockwise as the walls go."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from levelrun.core.circuits.routing import EXACT_TO, least_length, path_length, shortest_order
from levelrun.core.codebook import Codebook
from levelrun.core.job import Box, Circuit, Job, Panel
from levelrun.core.measure import show
from levelrun.core.site.geometry import walls_of
from levelrun.core.ways.frame.ends import end_of
from levelrun.core.ways.frame.found import frames_of
from levelrun.core.ways.frame.route import kept_route

FAR_IN = 1200.0  # what is told of two boxes between which nothing is known, so that they come last
FREE = ("receptacle", "device", "junction", "equipment", "smoke", "disconnect", "tail")


@dataclass(frozen=True, kw_only=True)
class Order:
    """An order of the boxes of a circuit. `less_in`: inches less than now; `proof`: how near it is to the least."""

    key: str
    name: str
    boxes: tuple[str, ...]
    names: tuple[str, ...]
    length_in: float
    less_in: float
    text: str
    proof: str
    edits: tuple[dict[str, Any], ...]


def distances(job: Job, book: Codebook) -> Callable[[str, str], float | None]:
    """Inches of cable between two boxes or panels, by the way that the frame gives; None where it gives none."""
    frames, nodes = frames_of(job, book), {node.id: node for node in job.nodes}
    school = job.habits.routing.school

    def far(a: str, b: str) -> float | None:
        start, end = nodes.get(a), nodes.get(b)
        if start is None or end is None or not start.room or not end.room or start.structure != end.structure:
            return None
        frame = frames.get(start.structure)
        if frame is None:
            return None
        taken = kept_route(frame, end_of(frame, start), end_of(frame, end), school)
        return None if taken is None else taken.length_in

    return far


def orders_of(job: Job, book: Codebook, circuit: Circuit) -> list[Order]:
    """Orders for the boxes of a circuit that stand in a row from the panel and work nothing: switches keep their
    lights. None where fewer than two boxes may change places."""
    nodes: dict[str, Box | Panel] = {node.id: node for node in job.nodes}
    row = [hop.box for hop in circuit.chain]
    boxes = [nodes[box] for box in row]
    if len(row) < 2 or circuit.feeds or any(not isinstance(b, Box) or b.kind not in FREE for b in boxes):
        return []
    if any(hop.path for hop in circuit.chain):
        return []
    known = distances(job, book)

    def distance(a: str | None, b: str) -> float:
        found = known(a or circuit.panel, b)
        return FAR_IN if found is None else found

    now = sum(distance(hop.after, hop.box) for hop in circuit.chain)
    shortest = shortest_order(row, distance)
    round_ = _clockwise(job, row, nodes, distance)
    found = []
    for key, name, order in (("loop", "Shortest", shortest), ("clockwise", "Clockwise", round_)):
        length = path_length(order, distance)
        found.append(
            Order(
                key=key, name=name, boxes=tuple(order), names=tuple(nodes[box].name for box in order),
                length_in=length, less_in=now - length, text=_text(now - length),
                proof=_proof(row, length, distance) if key == "loop" else "",
                edits=({"op": "chain", "circuit": circuit.id, "boxes": list(order)},),
            )
        )  # fmt: skip
    return found


def _text(less: float) -> str:
    inches = round(less)
    if not inches:
        return "as long as now"
    return f"{show(abs(inches))} {'less' if inches > 0 else 'more'} than now"


def _proof(row: list[str], length: float, distance: Callable[[str | None, str], float]) -> str:
    if len(row) <= EXACT_TO:
        return "the least that there is"
    bound = least_length(row, distance)
    over = 100 * (length / bound - 1) if bound else 0.0
    return f"no order is more than {over:.0f} % shorter"


def _clockwise(
    job: Job, row: list[str], nodes: dict[str, Box | Panel], distance: Callable[[str | None, str], float]
) -> list[str]:
    """Room by room, each begun at the box nearest to where the cable comes from, then clockwise along its walls."""
    rooms = {room.id: room for room in job.rooms}
    at: dict[str, list[tuple[float, str]]] = {}
    for box in row:
        node = nodes[box]
        room = rooms.get(node.room or "")
        along = 0.0
        if room is not None and node.side is not None and node.at_in is not None:
            along = sum(wall.length_in for wall in walls_of(room)[: node.side]) + node.at_in
        at.setdefault(node.room or "", []).append((along, box))
    order: list[str] = []
    before: str | None = None
    while at:
        _, home = min(
            ((distance(before, box), room) for room, own in at.items() for _, box in own), key=lambda item: item[0]
        )
        own = [box for _, box in sorted(at.pop(home))]
        start = min(range(len(own)), key=lambda i: distance(before, own[i]))
        order += own[start:] + own[:start]
        before = order[-1]
    return order
