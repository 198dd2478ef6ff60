"""The order of boxes in a chain: the shortest cable from the panel through all of them, or clockwise as walls go."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np
from numpy.typing import NDArray

EXACT_TO = 12
ASCENT = 60
Floats = NDArray[np.float64]
Distance = Callable[[str | None, str], float]


def shortest_order(boxes: Sequence[str], distance: Distance) -> list[str]:
    """Boxes in the order of the shortest path from the panel (None) through all, ending anywhere.

    Exact up to twelve boxes (dynamic programming over subsets); more by the nearest next box, then by turning
    stretches round for as long as that shortens the path.
    """
    if len(boxes) <= EXACT_TO:
        return _exact(list(boxes), distance)
    return _turned(_nearest(list(boxes), distance), distance)


def path_length(order: Sequence[str], distance: Distance) -> float:
    """Inches of a path from the panel through the boxes in order."""
    return sum(distance(before, box) for before, box in zip((None, *order), order, strict=False))


def _exact(boxes: list[str], distance: Distance) -> list[str]:
    """Held and Karp's dynamic programming over subsets (1962), the last boxes of one subset side by side."""
    if not boxes:
        return []
    count = len(boxes)
    between = np.array([[distance(a, b) if a != b else 0.0 for b in boxes] for a in boxes])
    best = np.full((1 << count, count), np.inf)
    came = np.full((1 << count, count), -1)
    best[[1 << i for i in range(count)], range(count)] = [distance(None, box) for box in boxes]
    outside = np.array([[not seen >> i & 1 for i in range(count)] for seen in range(1 << count)])
    bits = 1 << np.arange(count)
    for seen in range(1, 1 << count):
        free = np.flatnonzero(outside[seen])
        if not free.size:
            continue
        onward = best[seen][:, None] + between[:, free]
        last = onward.argmin(axis=0)
        length = onward[last, np.arange(free.size)]
        to = seen | bits[free]
        shorter = length < best[to, free]
        best[to[shorter], free[shorter]] = length[shorter]
        came[to[shorter], free[shorter]] = last[shorter]
    seen = (1 << count) - 1
    at = int(best[seen].argmin())
    order: list[str] = []
    while at >= 0:
        order.append(boxes[at])
        seen, at = seen & ~(1 << at), int(came[seen, at])
    return order[::-1]


def least_length(boxes: Sequence[str], distance: Distance) -> float:
    """Inches that no path from the panel through all boxes is shorter than: the best that Held and Karp's ascent
    over spanning trees (1970) finds in some steps. A box may be the end, so that only degrees over two count."""
    names: list[str | None] = [None, *boxes]
    count = len(names)
    if count < 3:
        return path_length(boxes, distance)
    length = np.array([[0.0 if b is None or a == b else distance(a, b) for b in names] for a in names])
    length[:, 0] = length[0, :]
    weight, best, step = np.zeros(count), 0.0, float(length[0, 1:].mean()) / 8
    for _ in range(ASCENT):
        cost = length + weight[:, None] + weight[None, :]
        total, degree = _tree(cost)
        best = max(best, total - float(2 * weight[1:].sum() + weight[0]) + _ends(weight))
        slope = degree - 2
        slope[0] = degree[0] - 1
        weight = np.maximum(weight + step * slope, 0.0)
        step *= 0.93
    return best


def _ends(weight: Floats) -> float:
    """A path has one free end, whose weight is counted once too often at the most by the least weight."""
    return float(weight[1:].min())


def _tree(cost: Floats) -> tuple[float, Floats]:
    """Prim's least spanning tree: its length, and how many of its branches meet at each box."""
    count = len(cost)
    inside = np.zeros(count, dtype=bool)
    near, came = cost[0].copy(), np.zeros(count, dtype=int)
    inside[0], near[0] = True, np.inf
    degree, total = np.zeros(count), 0.0
    for _ in range(count - 1):
        at = int(np.where(inside, np.inf, near).argmin())
        total += float(near[at])
        degree[[at, came[at]]] += 1
        inside[at] = True
        closer = cost[at] < near
        near[closer], came[closer] = cost[at][closer], at
    return total, degree


def _nearest(boxes: list[str], distance: Distance) -> list[str]:
    left, order = list(boxes), []
    at: str | None = None
    while left:
        box = min(left, key=lambda item: distance(at, item))
        left.remove(box)
        order.append(box)
        at = box
    return order


def _turned(order: list[str], distance: Distance) -> list[str]:
    """2-opt: a stretch turned round wherever that makes the path shorter."""
    improved = True
    while improved:
        improved = False
        for i in range(len(order) - 1):
            before = order[i - 1] if i else None
            for j in range(i + 1, len(order)):
                after = order[j + 1] if j + 1 < len(order) else None
                now = distance(before, order[i]) + (distance(order[j], after) if after else 0.0)
                turned = distance(before, order[j]) + (distance(order[i], after) if after else 0.0)
                if turned < now - 1e-6:
                    order[i : j + 1] = order[i : j + 1][::-1]
                    improved = True
    return order
