"""The order of boxes in a chain: the shortest cable from the panel through all of them, or clockwise as walls go."""

from __future__ import annotations

from collections.abc import Callable, Sequence

EXACT_TO = 9
Distance = Callable[[str | None, str], float]


def shortest_order(boxes: Sequence[str], distance: Distance) -> list[str]:
    """Boxes in the order of the shortest path from the panel (None) through all, ending anywhere.

    Exact up to nine boxes (dynamic programming over subsets); more by the nearest next box, then by turning
    stretches round for as long as that shortens the path.
    """
    if len(boxes) <= EXACT_TO:
        return _exact(list(boxes), distance)
    return _turned(_nearest(list(boxes), distance), distance)


def path_length(order: Sequence[str], distance: Distance) -> float:
    """Inches of a path from the panel through the boxes in order."""
    return sum(distance(before, box) for before, box in zip((None, *order), order, strict=False))


def _exact(boxes: list[str], distance: Distance) -> list[str]:
    if not boxes:
        return []
    count = len(boxes)
    first = [distance(None, box) for box in boxes]
    between = [[distance(a, b) if a != b else 0.0 for b in boxes] for a in boxes]
    best: dict[tuple[int, int], tuple[float, int]] = {(1 << i, i): (first[i], -1) for i in range(count)}
    for seen in range(1, 1 << count):
        for last in range(count):
            found = best.get((seen, last))
            if found is None:
                continue
            for nxt in range(count):
                if seen & 1 << nxt:
                    continue
                key, length = (seen | 1 << nxt, nxt), found[0] + between[last][nxt]
                if key not in best or length < best[key][0]:
                    best[key] = (length, last)
    whole = (1 << count) - 1
    last = min(range(count), key=lambda i: best[whole, i][0])
    order: list[str] = []
    seen = whole
    while last >= 0:
        order.append(boxes[last])
        before = best[seen, last][1]
        seen, last = seen & ~(1 << last), before
    return order[::-1]


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
