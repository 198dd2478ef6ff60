"""Rooms on circuits: the fewest groups that hold no more than so many outlets each; exact for a house's counts."""

from __future__ import annotations

from collections.abc import Sequence

EXACT_TO = 14


def fewest_groups(sizes: Sequence[int], most: int, least_groups: int = 1) -> list[list[int]]:
    """Indexes of `sizes` in groups whose sums are `most` at the most: the fewest groups, `least_groups` where there
    are as many things. Exact up to 14 things by branch and bound; more by the largest first. A single thing over
    `most` stands alone."""
    order = sorted(range(len(sizes)), key=lambda i: (-sizes[i], i))
    greedy = _largest_first(order, sizes, most)
    best = greedy if len(sizes) > EXACT_TO else _exact(order, sizes, most, greedy)
    wanted = min(least_groups, len(sizes))
    while len(best) < wanted:
        widest = max(best, key=len)
        half = widest[::2], widest[1::2]
        best = [group for group in best if group is not widest] + [list(half[0]), list(half[1])]
    return [sorted(group) for group in sorted(best, key=min)]


def _largest_first(order: Sequence[int], sizes: Sequence[int], most: int) -> list[list[int]]:
    groups: list[list[int]] = []
    for index in order:
        home = next((g for g in groups if sum(sizes[i] for i in g) + sizes[index] <= most), None)
        if home is None:
            groups.append([index])
        else:
            home.append(index)
    return groups


def _exact(order: Sequence[int], sizes: Sequence[int], most: int, start: list[list[int]]) -> list[list[int]]:
    best = start
    floor = max(-(-sum(min(s, most) for s in sizes) // most), 1)

    def place(at: int, groups: list[list[int]], sums: list[int]) -> None:
        nonlocal best
        if len(groups) >= len(best) or len(best) <= floor:
            return
        if at == len(order):
            best = [list(group) for group in groups]
            return
        index = order[at]
        tried: set[int] = set()
        for g, total in enumerate(sums):
            if total + sizes[index] <= most and total not in tried:
                tried.add(total)
                groups[g].append(index)
                sums[g] += sizes[index]
                place(at + 1, groups, sums)
                sums[g] -= sizes[index]
                groups[g].pop()
        groups.append([index])
        sums.append(sizes[index])
        place(at + 1, groups, sums)
        groups.pop()
        sums.pop()

    place(0, [], [])
    return best
