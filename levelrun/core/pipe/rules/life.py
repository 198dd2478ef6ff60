"""Rules about what holds pipe and lets it live long: straps, expansion on the day, metal between plastic."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.findings import Finding, Mend
from levelrun.core.measure import show_inches
from levelrun.core.pipe.codes import finding
from levelrun.core.pipe.facts import PipeView
from levelrun.core.rulebook import Rule
from levelrun.core.trade.methods.conditions import is_buried, is_in_air
from levelrun.core.ways.facts import OPEN
from levelrun.core.ways.holding import held
from levelrun.core.ways.mends import set_leg
from levelrun.core.ways.rules.cover import needed_cover

NOTHING = ("equipment_tail", "overhead")  # places where no structure stands beside the pipe
METAL, PLASTIC = ("steel",), ("pvc",)
ISOLATED_IN = 18.0  # of cover over metal that may stay unbonded (250.86 exception 3)
WARM_F, COLD_F = 70, 40


def day_rule(pipe: PipeView) -> Iterator[Finding]:
    """How far an expansion fitting is opened hangs on the temperature of the day."""
    fitted = [i for i in pipe.legs if pipe.view.way.legs[i].expansion]
    if fitted and pipe.view.way.day_f is None:
        days = [Mend(f"{day} °F", [_day(pipe, day)]) for day in (WARM_F, COLD_F)]
        yield finding(
            "expansion-day", pipe.way, fitted[0], "How warm is it when the pipe goes up?",
            "An expansion fitting is pulled open by what the pipe will still grow: less on a hot day, more on a cold "
            "one.", "352.44", mends=days,
        )  # fmt: skip


def _day(pipe: PipeView, day_f: float) -> dict[str, object]:
    return {"op": "set", "kind": "way", "id": pipe.way, "set": {"day_f": float(day_f)}}


def bond_rule(pipe: PipeView) -> Iterator[Finding]:
    """Metal pipe between plastic on both sides belongs to no ground path of its own."""
    view = pipe.view
    for pull in pipe.pulls:
        for index in range(pull.first + 1, pull.last):
            families = [view.methods[i].family for i in (index - 1, index, index + 1)]
            if families[1] not in METAL or families[0] not in PLASTIC or families[2] not in PLASTIC:
                continue
            leg = view.way.legs[index]
            if is_buried(view.facts[index]) and (leg.depth_in or 0.0) >= ISOLATED_IN:
                continue
            yield finding(
                "bond-metal", pipe.way, index, f"Leg {index + 1}: metal between plastic",
                f"{view.methods[index].name} with plastic at both ends: a grounding bushing and a jumper to the "
                "ground that runs in it, unless it lies 18″ down or in 2″ of concrete.", "250.86, 250.96",
                mends=_plastic(pipe, index),
            )  # fmt: skip


def _plastic(pipe: PipeView, index: int) -> list[Mend]:
    """Plastic instead of metal, where it lies deep enough for that."""
    view, key = pipe.view, pipe.view.way.legs[index - 1].method
    needed = needed_cover(view, index, key)
    depth = view.way.legs[index].depth_in
    if needed is not None and (depth is None or depth < needed.cover_in):
        return []
    return [Mend("Plastic here too", [set_leg(view, index, method=key)])]


def strap_rule(pipe: PipeView) -> Iterator[Finding]:
    """Where a strap is due something stands to take it."""
    view = pipe.view
    for index in pipe.legs:
        leg = view.way.legs[index]
        if leg.place not in NOTHING or is_in_air(view.facts[index]) or view.methods[index].family == "flexible":
            continue
        hold = held(view, index)
        if hold.kind == "strap" and hold.positions_in:
            yield finding(
                "strap-air", pipe.way, index, f"Leg {index + 1}: nothing to strap it to",
                f"{len(hold.positions_in)} straps are due on {view.methods[index].name} that goes through the air to "
                "its machine: a strut or a post, or a flexible whip.", hold.rule,
                measured="no structure", limit=f"{len(hold.positions_in)} straps",
            )  # fmt: skip


def flat_rule(pipe: PipeView) -> Iterator[Finding]:
    """Pipe on an outside wall whose siding is still to come stands off by its thickness."""
    view = pipe.view
    for index in pipe.legs:
        leg = view.way.legs[index]
        if leg.place != "outside_wall" or leg.go not in ("up", "down") or leg.stands_off:
            continue
        been_out = any(item.place in OPEN for item in view.way.legs[:index])
        node = view.end if been_out else view.start
        structure = view.structures.get(node.structure) if node else None
        siding = structure.siding_in if structure else None
        if not siding:
            continue
        yield finding(
            "strap-flat", pipe.way, index, f"Stand it off by {show_inches(siding)}",
            f"Siding comes {show_inches(siding)} proud of the studs of {structure.name if structure else ''}: straps "
            "on strut or blocks, so that it goes on behind the pipe.", "common practice, no source",
            limit=show_inches(siding),
            mends=[Mend("It stands off", [set_leg(view, index, stands_off=True)])],
        )  # fmt: skip
        return


RULES: tuple[Rule[PipeView], ...] = (day_rule, bond_rule, strap_rule, flat_rule)
