"""Which legs of which ways a hop takes: from the box where it starts to the box that it goes to."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from levelrun.core.ways.parts import Way


@dataclass(frozen=True)
class Stretch:
    """Legs first to last of one way. `reaches`: both of its ends stand on the way; `back`: it is gone through against
    the way, from its last leg to its first."""

    way: str
    first: int
    last: int
    reaches: bool
    back: bool = False

    @property
    def legs(self) -> range:
        """The numbers of its legs, as they are gone through."""
        return gone_through(self.first, self.last, self.back)


def gone_through(first: int, last: int, back: bool) -> range:
    """The numbers of legs first to last, in the order of the way or back."""
    legs = range(first, last + 1)
    return legs[::-1] if back else legs


def points(way: Way) -> list[tuple[int, str]]:
    """The boxes and panels along a way, each with how many legs lie before it."""
    found = [(0, way.start)]
    return found + [(index + 1, leg.end.node) for index, leg in enumerate(way.legs) if leg.end.node is not None]


def stretches(ways: Mapping[str, Way], path: Sequence[str], start: str, box: str) -> tuple[Stretch, ...]:
    """The stretches of a hop, way by way. Where two ways meet is the first box of the next that stands on this one.
    Where an end stands on no way, the stretch goes on to the end of the way: it is not walked that far yet."""
    found: list[Stretch] = []
    at = start
    for index, name in enumerate(path):
        way = ways[name]
        here = points(way)
        target = box if index + 1 == len(path) else _meeting(here, points(ways[path[index + 1]]))
        enter = next((place for place, node in here if node == at), None)
        begin = enter or 0
        leaves = [place for place, node in here if node == target and place != begin]
        beyond = [place for place in leaves if place > begin]
        leave = min(beyond) if beyond else max(leaves) if leaves else len(way.legs)
        first, last = min(begin, leave), max(begin, leave) - 1
        found.append(Stretch(name, first, last, enter is not None and bool(leaves), leave < begin))
        at = target or ""
    return tuple(found)


def _meeting(here: Sequence[tuple[int, str]], after: Sequence[tuple[int, str]]) -> str | None:
    """The box where a way goes over into the next: an end of the next before a box in its middle."""
    nodes = {node for _, node in here}
    ends = [after[0][1], after[-1][1], *(node for _, node in after)]
    return next((node for node in ends if node in nodes), None)
