"""A circuit's boxes as a tree from the panel: order, branches, faults, and how far each lies."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from levelrun.core.job import Circuit, Hop


@dataclass(frozen=True)
class Link:
    """One cable of the tree: from the box `after` (None: the panel) to `box`, `depth` links from the panel."""

    box: str
    after: str | None
    depth: int
    length_in: float | None


@dataclass(frozen=True)
class Tree:
    """The boxes that hang together, parents before children; `broken`: boxes that hang on nothing, or on a loop."""

    links: tuple[Link, ...]
    broken: tuple[str, ...]

    @cached_property
    def _hanging(self) -> dict[str | None, list[Link]]:
        found: dict[str | None, list[Link]] = {}
        for link in self.links:
            found.setdefault(link.after, []).append(link)
        return found

    def children(self, box: str | None) -> list[Link]:
        """What hangs on a box, or on the panel."""
        return self._hanging.get(box, [])

    @cached_property
    def _walked(self) -> tuple[list[str], dict[str, tuple[int, int]]]:
        """The boxes each followed by all that hangs on it, and where in that order each with what hangs on it stands:
        what is downstream of a box is then one slice."""
        order: list[str] = []
        spans: dict[str, tuple[int, int]] = {}
        waiting: list[tuple[str, bool]] = [(link.box, False) for link in reversed(self.children(None))]
        while waiting:
            box, done = waiting.pop()
            if done:
                spans[box] = (spans[box][0], len(order))
                continue
            spans[box] = (len(order), len(order))
            order.append(box)
            waiting.append((box, True))
            waiting += [(link.box, False) for link in reversed(self.children(box))]
        return order, spans

    def below(self, box: str) -> list[str]:
        """A box and everything downstream of it."""
        order, spans = self._walked
        start, end = spans[box]
        return order[start:end]

    @cached_property
    def _by_box(self) -> dict[str, Link]:
        return {link.box: link for link in self.links}

    def path(self, box: str) -> list[Link]:
        """The links from the panel to a box; none to a box that hangs on nothing."""
        found: list[Link] = []
        at: str | None = box if box in self._by_box else None
        while at is not None:
            found.append(self._by_box[at])
            at = self._by_box[at].after
        return found[::-1]


def tree_of(circuit: Circuit, lengths: Mapping[tuple[str | None, str], float]) -> Tree:
    """The chain of a circuit as a tree. A box named twice hangs where it is named first."""
    hops: dict[str, Hop] = {}
    for hop in circuit.chain:
        hops.setdefault(hop.box, hop)
    placed: list[Link] = []
    depth: dict[str | None, int] = {None: 0}
    waiting = list(hops.values())
    while True:
        ready = [hop for hop in waiting if hop.after in depth]
        if not ready:
            return Tree(tuple(placed), tuple(hop.box for hop in waiting))
        for hop in ready:
            depth[hop.box] = depth[hop.after] + 1
            length = hop.length_in if hop.length_in is not None else lengths.get((hop.after, hop.box))
            placed.append(Link(hop.box, hop.after, depth[hop.box], length))
        waiting = [hop for hop in waiting if hop.box not in depth]
