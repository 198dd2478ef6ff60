"""Which wires go on in one piece: the hots, the neutral and the ground of a hop, each for itself.

Where two hops lie in one pipe one ground serves both, and of two that share a neutral the second brings none: its own
begins where that of the other ends. So what a hop does not bring on one stretch may be wanted on the next; and a
neutral or a ground that serves another hop is joined in the box where that one begins or ends.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal

from levelrun.core.codebook import Codebook
from levelrun.core.ways.carried import Carried, Lying, Piece, cable_name
from levelrun.core.ways.facts import WayContext, WayView, rewired, viewed
from levelrun.core.ways.stretch import Stretch

Hop = tuple[str, str]  # a circuit, and the box that one of its hops goes to
Role = Literal["hots", "neutral", "ground"]
ROLES: tuple[Role, ...] = ("hots", "neutral", "ground")


@dataclass(frozen=True)
class Place:
    """One leg of a hop, gone through against its way or not."""

    view: WayView
    leg: int
    back: bool

    @property
    def after(self) -> str:
        """The box or panel where the hop leaves the leg; empty where none stands there."""
        return self.view.node_at(self.leg + (not self.back))


def places(view: WayView, part: Stretch | Carried) -> list[Place]:
    """The legs of a hop in one way, in the order in which it goes through them."""
    return [Place(view, leg, part.back) for leg in part.legs]


def own_in(place: Place, hop: Hop) -> Lying:
    """A hop in one leg in which it lies."""
    return next(item for item in place.view.lying(place.leg) if (item.wires.circuit, item.wires.box) == hop)


def kind_in(place: Place, hop: Hop) -> tuple[str, str]:
    """Wires in pipe, or the cable by method and size; no size where it lies in the cable of another circuit."""
    view, index = place.view, place.leg
    if view.piped(index):
        return ("wires", "")
    leg = view.way.legs[index]
    if leg.sleeve:
        return view.guarded(index)
    if len(view.context.carried) == 1:
        return (leg.method, leg.size)
    own = own_in(place, hop)
    return (leg.method, next((size for group, size in view.cables(index) if group[0] == own), ""))


def lies_as(legs: Sequence[Place], hop: Hop) -> tuple[str, ...]:
    """What a hop is along its legs, as it is bought: 12-2; 12-3 where two share one cable; 12 in pipe, then 12-2."""
    return tuple(dict.fromkeys(_named(place, hop) for place in legs))


def _named(place: Place, hop: Hop) -> str:
    view, own = place.view, own_in(place, hop)
    if view.piped(place.leg):
        return own.wires.piped
    if view.way.legs[place.leg].sleeve:
        return view.guarded(place.leg)[1] or cable_name([own])
    size = next(size for group, size in view.cables(place.leg) if own in group) or cable_name([own])
    return size if "-" in size else f"{size} {view.way.legs[place.leg].method}"


def brings(place: Place, hop: Hop, role: Role) -> bool:
    """Whether a hop brings this into a leg: its hots, or its cable, always; in pipe a neutral where it is not the
    second of two that share one, and the ground where it is the one for all (250.122(C))."""
    if role == "hots":
        return True
    if not place.view.piped(place.leg):
        return False
    own = own_in(place, hop)
    return own.neutral if role == "neutral" else place.view.grounds(place.leg, own)


def goes_on(a: Place, b: Place, hop: Hop, role: Role) -> bool:
    """Whether what a hop brings into both of two legs, one after the other, is one piece: both are pipe or both the
    same cable, and nothing else is joined to it between them."""
    alike = kind_in(a, hop) == kind_in(b, hop) and brings(a, hop, role) and brings(b, hop, role)
    return alike and not (role != "hots" and a.after and _serves(a, b, hop, role))


def _serves(a: Place, b: Place, hop: Hop, role: Role) -> bool:
    """Whether another hop begins or ends between two legs that has its neutral or its ground from this one."""
    partner = own_in(a, hop).wires.partner
    for other in (*a.view.lying(a.leg), *b.view.lying(b.leg)):
        wires = other.wires
        if a.after not in (wires.start, wires.box) or (wires.circuit, wires.box) == hop:
            continue
        if wires.ground if role == "ground" else wires.neutral and wires.circuit == partner:
            return True
    return False


def runs_in(legs: Sequence[Place], hop: Hop, role: Role) -> list[list[Place]]:
    """The legs of a hop in one way, parted where one piece of this ends and the next begins; not those into which it
    brings none."""
    found: list[list[Place]] = []
    for number, place in enumerate(legs):
        if not brings(place, hop, role):
            continue
        if number and goes_on(legs[number - 1], place, hop, role):
            found[-1].append(place)
        else:
            found.append([place])
    return found


def continued(
    book: Codebook, contexts: Sequence[WayContext], hops: Mapping[Hop, tuple[Stretch, ...]]
) -> list[WayContext]:
    """The ways, each hop in them with what of it comes from the way before and what goes on into the next. `hops`:
    the stretches that each takes."""
    by_way = {item.way.id: item for item in contexts}
    found: dict[str, dict[Hop, Carried]] = {}
    for hop, path in hops.items():
        if len(path) > 1:
            own = _along(book, hop, path, tuple([by_way[part.way] for part in path]))
            for part, item in zip(path, own, strict=True):
                found.setdefault(part.way, {})[hop] = item
    return [
        _pieced(book, item, tuple([found[item.way.id].get(own.hop, own) for own in item.carried]))
        if item.way.id in found else item for item in contexts
    ]  # fmt: skip


@lru_cache(maxsize=2048)
def _pieced(book: Codebook, context: WayContext, carried: tuple[Carried, ...]) -> WayContext:
    return rewired(book, context, carried, same_wires=True)


@lru_cache(maxsize=2048)
def _along(
    book: Codebook, hop: Hop, path: tuple[Stretch, ...], contexts: tuple[WayContext, ...]
) -> tuple[Carried, ...]:  # fmt: skip
    """A hop in each of its ways, what is one piece joined where two ways meet."""
    parts = [places(viewed(book, context), part) for context, part in zip(contexts, path, strict=True)]
    return tuple(
        replace(
            next(item for item in context.carried if item.hop == hop),
            hots=_piece(parts, index, hop, "hots"),
            neutral=_piece(parts, index, hop, "neutral"),
            ground=_piece(parts, index, hop, "ground"),
        )
        for index, context in enumerate(contexts)
    )


def _piece(parts: Sequence[Sequence[Place]], index: int, hop: Hop, role: Role) -> Piece:
    """What a hop brings into a way, with how far it goes on from there."""

    def joined(number: int) -> bool:
        before, after = parts[number - 1], parts[number]
        return bool(before and after) and goes_on(before[-1], after[0], hop, role)

    beyond, end = 0.0, None
    for number in range(index + 1, len(parts)):
        if not joined(number):
            break
        run = runs_in(parts[number], hop, role)[0]
        view = run[-1].view
        beyond += sum(view.way.legs[place.leg].length_in for place in run)
        end = view.nodes.get(run[-1].after)
        if len(run) < len(parts[number]):
            break
    return Piece(begins=index == 0 or not joined(index), beyond_in=beyond, end=end)
