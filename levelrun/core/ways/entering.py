"""What boxes receive from the hops that start, end or pass in them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import chain, pairwise

from levelrun.core.boxes.entering import Entering
from levelrun.core.boxes.joints import NEUTRAL
from levelrun.core.circuits.loads import HopWires, LaidAs, cable_of
from levelrun.core.codebook import Codebook
from levelrun.core.codebook.lookups import Cable, cable, cable_sizes, method
from levelrun.core.job import Box, Job, Panel
from levelrun.core.kept import Standing
from levelrun.core.ways.carried import Lying
from levelrun.core.ways.contexts import LaidCircuit, Woven
from levelrun.core.ways.facts import WayContext, WayView, viewed
from levelrun.core.ways.pieces import ROLES, Place, Role, brings, goes_on, kind_in, lies_as, own_in, places

Brought = tuple[list[tuple[str, Entering]], tuple[LaidAs, ...]]
_brings = Standing[Brought](2048)


@dataclass(frozen=True)
class Entered:
    """What each box receives, by box id, circuit by circuit; and what each hop is as it lies, by circuit."""

    boxes: dict[str, tuple[Entering, ...]]
    lies: dict[str, tuple[LaidAs, ...]]


def entering(book: Codebook, job: Job, woven: Woven) -> Entered:
    """What the hops bring to boxes, and what they are along their ways."""
    nodes = {node.id: node for node in job.nodes}
    ways = {item.way.id: item for item in chain(woven.contexts, *woven.drawn.values())}
    found: dict[str, list[Entering]] = {}
    lies: dict[str, tuple[LaidAs, ...]] = {}
    for circuit in job.circuits:
        item = woven.lying[circuit.id]
        ends = (nodes[circuit.panel], nodes.get(circuit.feeds or ""))
        taken = [ways[way] for way in item.ways if way in ways]

        def made(item: LaidCircuit = item, taken: Sequence[WayContext] = taken) -> Brought:
            views = {context.way.id: viewed(book, context) for context in taken}
            return list(_brought(book, item, nodes, views)), tuple(_names(book, item, views))

        brought, lies[circuit.id] = _brings.get(circuit.id, (book, item, *ends, None, *taken), made)
        for box, one in brought:
            found.setdefault(box, []).append(one)
    return Entered({box: tuple(items) for box, items in found.items()}, lies)


def _names(book: Codebook, item: LaidCircuit, views: Mapping[str, WayView]) -> Iterator[LaidAs]:
    for box, laid in item.laid.items():
        wires = laid.wires
        if legs := _legs(item, views, box):
            yield box, lies_as(legs, (wires.circuit, box))
        else:
            yield box, (wires.piped if wires.method == "raceway" else cable_of(book, wires),)


def _legs(item: LaidCircuit, views: Mapping[str, WayView], box: str) -> list[Place]:
    """The legs of the hop to a box, way by way."""
    return [place for part in item.paths.get(box, ()) for place in places(views[part.way], part)]


def _brought(
    book: Codebook, item: LaidCircuit, nodes: Mapping[str, Panel | Box], views: Mapping[str, WayView]
) -> Iterator[tuple[str, Entering]]:
    """What the hops of a circuit bring: each to its box, to where it starts, and to the boxes that it passes, where
    some of its wires may be joined."""
    for box, laid in item.laid.items():
        wires = laid.wires
        start, end = nodes[wires.start].name, nodes[wires.box].name
        legs = _legs(item, views, box)
        if not legs:
            yield wires.box, _unwalked(book, wires, "feed", start)
            yield wires.start, _unwalked(book, wires, "load", end)
            continue
        yield wires.box, _entering(book, wires, legs[-1], ROLES, "feed", start)
        yield wires.start, _entering(book, wires, legs[0], ROLES, "load", end)
        seen = {wires.start, wires.box, ""}
        for a, b in pairwise(legs):
            if a.after not in seen:
                yield from ((a.after, one) for one in _between(book, wires, (a, b), (start, end)))
                seen.add(a.after)


def _between(
    book: Codebook, wires: HopWires, legs: tuple[Place, Place], names: tuple[str, str]
) -> Iterator[Entering]:  # fmt: skip
    """What a hop brings to a box on its way: what goes through, and what is joined there and goes on."""
    hop = (wires.circuit, wires.box)
    whole = [role for role in ROLES if goes_on(*legs, hop, role)]
    for side, place, other in zip(("feed", "load"), legs, names, strict=True):
        apart = [role for role in ROLES if role not in whole and brings(place, hop, role)]
        if apart:
            yield _entering(book, wires, place, apart, side, other)
    if whole:
        yield _through(wires, legs[0], whole, names[1])


def _words(wires: HopWires, place: Place, roles: Sequence[Role]) -> tuple[str, ...]:
    """What those wires of a hop are for that belong to these roles; a cable has them all."""
    neutral = own_in(place, (wires.circuit, wires.box)).neutral
    if not place.view.piped(place.leg):
        roles = ROLES
    every = wires.words or ("hot",) * (wires.conductors - wires.neutral) + (NEUTRAL,) * wires.neutral
    return tuple(w for w in every if ("neutral" in roles and neutral if w == NEUTRAL else "hots" in roles))


def _entering(
    book: Codebook, wires: HopWires, place: Place, roles: Sequence[Role], side: str, other: str
) -> Entering:
    """What of a hop begins or ends at one end of a leg."""
    hop = (wires.circuit, wires.box)
    own, (kind, size) = own_in(place, hop), kind_in(place, hop)
    words = _words(wires, place, roles)
    what, count, gauge = "", len(words), wires.wire_size
    if kind == "wires":
        ground = wires.ground if "ground" in roles and brings(place, hop, "ground") else ""
    elif size and (made := _made(book, kind, size)) is not None:
        what, gauge, ground = f"{size} {kind}", made.size.partition("-")[0], made.ground
        count = made.conductors - sum(o.conductors for group, _ in place.view.cables(place.leg)
                                      for o in group[1:] if group[0] == own)  # fmt: skip
    else:
        ground = wires.ground if size else ""
    return replace(
        _plain(wires, side, other), size=gauge, count=count, ground=ground, cable=kind != "wires", words=words,
        what=what, metal=_metal(place), inside=kind != "wires" and not size,
        shared=_shared(wires, own),
    )  # fmt: skip


def _through(wires: HopWires, place: Place, roles: Sequence[Role], other: str) -> Entering:
    own = own_in(place, (wires.circuit, wires.box))
    words, item = _words(wires, place, roles), _plain(wires, "through", other)
    return replace(item, count=len(words), words=words, metal=_metal(place), shared=_shared(wires, own))


def _metal(place: Place) -> bool:
    """Whether a leg is pipe or armour of metal, and not only the sleeve of a cable."""
    return place.view.methods[place.leg].metal and not place.view.way.legs[place.leg].sleeve


def _shared(wires: HopWires, own: Lying) -> str:
    return min(wires.circuit, wires.partner) if wires.partner and own.shares else ""


def _unwalked(book: Codebook, wires: HopWires, side: str, other: str) -> Entering:
    """What a hop brings that lies in no way, by what its circuit says of it."""
    cabled = wires.method != "raceway"
    made = _made(book, wires.method, cable_of(book, wires)) if cabled else None
    ground = wires.ground if made is None else made.ground if wires.grounded else ""
    return replace(
        _plain(wires, side, other), count=wires.conductors, ground=ground, cable=cabled,
        what=f"{made.size} {made.method}" if made is not None else "",
        metal=not cabled or method(book, wires.method).metal,
    )  # fmt: skip


def _plain(wires: HopWires, side: str, other: str) -> Entering:
    return Entering(
        size=wires.wire_size, count=0, ground="", cable=False, side=side, other=other, circuit=wires.label,
        words=wires.words, material=wires.material, hop=(wires.circuit, wires.box), hue=wires.hue,
    )  # fmt: skip


@lru_cache(maxsize=512)
def _made(book: Codebook, key: str, size: str) -> Cable | None:
    """The cable of a leg, where it is one that is made."""
    if method(book, key).kind == "cable" and size in cable_sizes(book, key):
        return cable(book, key, size)
    return None
