"""Rules about the earth over a way: cover as taped or read, ribbon, marks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from functools import lru_cache

from levelrun.core.codebook.lookups import method as of_method
from levelrun.core.errors import NotBuriableError
from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show, show_inches
from levelrun.core.rulebook import Rule
from levelrun.core.trade.cover import Cover, cover
from levelrun.core.trade.methods.conditions import is_buried
from levelrun.core.trade.methods.verdicts import ranked
from levelrun.core.ways.codes import finding
from levelrun.core.ways.facts import WayView
from levelrun.core.ways.laid import LaidIn, Profile, cover_along, short_of
from levelrun.core.ways.mends import protect, set_leg, use_method


@lru_cache(maxsize=512)
def needed_cover(
    view: WayView, index: int, method: str | None = None, gfci: bool | None = None, above: str | None = None
) -> Cover | None:
    """Cover that a leg needs: the most that any circuit in it asks; an empty pipe as for 240 V. None where it is not
    buried or may not be. Kept for the view at hand."""
    if not is_buried(view.facts[index]):
        return None
    key, above = method or view.way.legs[index].method, above or view.facts[index].above
    if view.way.legs[index].facts.rock and of_method(view.book, key).kind == "raceway":
        least = view.book.scalar("rock_concrete_in")
        return Cover(least.value, "rock", least.section, "2 in of concrete down to solid rock")
    asked = [(i.wires.volts, i.wires.breaker_a, i.wires.gfci if gfci is None else gfci) for i in view.lying(index)]
    try:
        found = [cover(view.book, key, above, *circuit) for circuit in asked or [(240, 100.0, False)]]
    except NotBuriableError:
        return None
    return max(found, key=lambda item: item.cover_in)


def lies_deep(view: WayView, index: int) -> float:
    """How deep what is buried lies, inches: as said, else as deep as its cover asks."""
    depth, needed = view.way.legs[index].depth_in, needed_cover(view, index)
    return depth if depth is not None else needed.cover_in if needed else 0.0


def cover_rule(view: WayView) -> Iterator[Finding]:
    """Taped depth of level legs in the earth against the cover table; like legs in a row speak once."""
    for laid in view.context.laid:
        yield from _in_trench(view, laid)
    for legs, needed in _trenches(view):
        taped = view.way.legs[legs[0]].depth_in
        if taped is None:
            if needed.cover_in > 0:
                yield _cover_missing(view, legs, needed)
        elif taped < needed.cover_in - 1e-6:
            yield _cover_short(view, legs, needed, taped)


def _trenches(view: WayView) -> list[tuple[list[int], Cover]]:
    """Level legs in the earth, those in a row put together where method, depth and what they need are the same."""
    found: list[tuple[list[int], Cover]] = []
    for index, leg in enumerate(view.way.legs):
        needed = needed_cover(view, index)
        if needed is None or view.placed[index].vertical or view.in_trench(index):
            continue
        if found and found[-1][0][-1] == index - 1 and found[-1][1].cover_in == needed.cover_in:
            before = view.way.legs[index - 1]
            if (before.method, before.depth_in) == (leg.method, leg.depth_in):
                found[-1][0].append(index)
                continue
        found.append(([index], needed))
    return found


def _dig_to(view: WayView, legs: list[int], wanted: float) -> Mend:
    return Mend(f"Set depth {show_inches(wanted)}", [set_leg(view, index, depth_in=wanted) for index in legs])


def _cover_missing(view: WayView, legs: list[int], needed: Cover) -> Finding:
    wanted, first = needed.cover_in, legs[0]
    return finding(
        "cover-missing",
        view.way.id,
        first,
        "No depth taped",
        f"{view.methods[first].name} {_over(view, first)} wants {show_inches(wanted)} over its top.",
        needed.rule,
        measured="not taped",
        limit=show_inches(wanted),
        mends=[_dig_to(view, legs, wanted)],
        last=legs[-1],
    )


def _cover_short(view: WayView, legs: list[int], needed: Cover, taped: float) -> Finding:
    wanted, first = needed.cover_in, legs[0]
    mends = [_dig_to(view, legs, wanted)]
    protected = needed_cover(view, first, gfci=True)
    here = {i.wires.circuit: i.wires for index in legs for i in view.lying(index) if not i.wires.gfci}
    if here and protected and protected.cover_in <= taped:
        mends.append(Mend("GFCI at the breaker", [protect(wires) for wires in here.values()]))
    for verdict in ranked(view.book, view.facts[first], view.habits.dollars_per_hour):
        others = [needed_cover(view, index, verdict.method) for index in legs]
        if verdict.verdict == "yes" and all(o and o.cover_in <= taped for o in others) and len(mends) < 3:
            mend = use_method(view, first, verdict.method, legs[-1])
            mends += [mend] if mend else []
    return finding(
        "cover-short",
        view.way.id,
        first,
        f"Dig {show_inches(wanted - taped)} deeper, or change the pipe",
        f"{view.methods[first].name} {_over(view, first)} wants {show_inches(wanted)} over its top. "
        f"Taped: {show_inches(taped)}.",
        needed.rule,
        measured=show_inches(taped),
        limit=show_inches(wanted),
        mends=mends,
        last=legs[-1],
    )


def _in_trench(view: WayView, laid: LaidIn) -> Iterator[Finding]:
    """Legs in a trench, by what was read along it: short by how much, over how many feet."""
    needs = {index: needed_cover(view, index) for index in range(laid.first, laid.last + 1)}
    legs = [index for index, needed in needs.items() if needed is not None]
    if not legs:
        return
    profile = cover_along(view.way, laid)
    most = max((needs[index] for index in legs), key=lambda item: item.cover_in if item else 0.0)
    if not profile:
        bare = [index for index in legs if view.way.legs[index].depth_in is None]
        if bare and most is not None and most.cover_in > 0:
            yield replace(_dug(_cover_missing(view, legs, most), view, laid, most.cover_in), last=legs[-1])
        return
    short, over, worst = 0.0, 0.0, legs[0]
    at = 0.0
    for index in range(laid.first, laid.last + 1):
        needed, long = needs[index], view.way.legs[index].length_in
        if needed is not None:
            deep, length = short_of(profile, at, at + long, needed.cover_in)
            over += length
            if deep > short + 1e-6:
                short, worst = deep, index
        at += long
    needed = needs[worst]
    if short > 1e-6 and needed is not None:
        wanted = max(n.cover_in for n in needs.values() if n is not None)
        said = _cover_short(view, legs, needed, needed.cover_in - short)
        feet = show(round(over)) if over >= 12 else show_inches(over)
        called = "Read" if laid.trench.readings else "Set"
        text = f"{called} at least {show_inches(needed.cover_in - short)}."
        yield replace(
            _dug(said, view, laid, wanted, concrete=_concrete_does(view, laid, profile)),
            title=f"{show_inches(short)} short over {feet}",
            text=f"{view.methods[worst].name} {_over(view, worst)} wants {show_inches(needed.cover_in)} "
            f"over its top. {text}",
        )


def _dug(said: Finding, view: WayView, laid: LaidIn, wanted: float, concrete: bool = False) -> Finding:
    """A finding about depth with the mends of a trench: the trench is dug, not the leg."""
    dig = {"op": "dig", "trench": laid.trench.id, "way": view.way.id, "depth_in": wanted}
    mends = [Mend(f"Dig to {show_inches(wanted)}", [dig]), *said.mends[1:]]
    if concrete:
        edit = {"op": "set", "kind": "trench", "id": laid.trench.id, "set": {"concrete": True}}
        mends.append(Mend("2″ of concrete over it", [edit]))
    return replace(said, mends=mends, stage="trench")


def _concrete_does(view: WayView, laid: LaidIn, profile: Profile) -> bool:
    """Whether 2 in of concrete would make it deep enough as it lies."""
    at = 0.0
    for index in range(laid.first, laid.last + 1):
        above, long = view.facts[index].above, view.way.legs[index].length_in
        needed = needed_cover(view, index, above="concrete_2in" if above == "open_ground" else None)
        if needed is None or short_of(profile, at, at + long, needed.cover_in)[0] > 1e-6:
            return False
        at += long
    return not laid.trench.concrete


def _over(view: WayView, index: int) -> str:
    return {
        "open_ground": "under open ground",
        "concrete_2in": "under 2″ of concrete",
        "under_building": "under a building",
        "slab_4in": "under a 4″ slab",
        "street": "under a street or lot",
        "driveway": "under the driveway",
    }[view.facts[index].above]


def ribbon_rule(view: WayView) -> Iterator[Finding]:
    """Ribbon over every level leg in the earth, where the authority here asks for it."""
    asked = view.book.scalar("ribbon_over_every_trench")
    bare = [
        index
        for index, leg in enumerate(view.way.legs)
        if is_buried(view.facts[index])
        and not view.placed[index].vertical
        and not leg.ribbon
        and not view.in_trench(index)
    ]
    if asked.value and bare:
        yield finding(
            "ribbon",
            view.way.id,
            bare[0],
            "Ribbon over the trench",
            "Warning ribbon lies 12″ or more over the pipe, before the rest is filled.",
            asked.section,
            measured="not recorded",
            limit="ribbon",
            mends=[Mend("The ribbon goes in", [set_leg(view, index, ribbon=True) for index in bare])],
            last=bare[-1],
        )


def marks_rule(view: WayView) -> Iterator[Finding]:
    """Digging anywhere: call for marks first."""
    buried = [index for index in view.indexes if is_buried(view.facts[index]) and not view.in_trench(index)]
    if buried:
        yield finding(
            "marks-first",
            view.way.id,
            buried[0],
            "Call for utility marks before digging",
            "Wait for the marks, lay, photograph with a tape, have it seen, then backfill.",
            "common practice, no source",
        )


RULES: tuple[Rule[WayView], ...] = (cover_rule, ribbon_rule, marks_rule)
