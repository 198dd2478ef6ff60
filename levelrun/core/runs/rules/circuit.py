"""Rules about the circuit that a run carries: wire, cable count, load, drop."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from levelrun.core.codebook.lookups import cable, cable_sizes, small_conductor_limit, wire_sizes
from levelrun.core.errors import LevelRunError, UnknownKeyError
from levelrun.core.findings import Finding, Mend
from levelrun.core.rulebook import Rule
from levelrun.core.runs.codes import finding
from levelrun.core.runs.facts import RunView
from levelrun.core.runs.mends import Edit, facts_with, rewire, set_leg, set_run, wire_name
from levelrun.core.runs.voltage import branch_percent, feeder_percent
from levelrun.core.trade.conductors.sizing import choose, next_rating, usable


def breaker_rule(view: RunView) -> Iterator[Finding]:
    """Small conductors against their breaker."""
    run = view.run
    if run.wire_size not in wire_sizes(view.book):
        yield finding(
            "size-unknown",
            run.id,
            None,
            f"No wire of size {run.wire_size or 'none'}",
            "Wire sizes run from 14 to 1 by gauge, 1/0 to 4/0, then 250 to 1000.",
            "ch. 9 table 8",
            measured=run.wire_size or "none",
            limit="14 to 1000",
        )
        return
    limit = small_conductor_limit(view.book, run.wire_size, run.material)
    if limit is None or run.nameplate or run.breaker_a <= limit:
        return
    sizes = wire_sizes(view.book)
    bigger = next(
        size
        for size in sizes[sizes.index(run.wire_size) :]
        if (small_conductor_limit(view.book, size, run.material) or 400) >= run.breaker_a
        and not (run.material == "al" and size == "14")
    )
    yield finding(
        "breaker-over-wire",
        run.id,
        None,
        f"{run.breaker_a:g} A breaker on {wire_name(view, run.wire_size)}",
        f"{wire_name(view, run.wire_size)} is protected at {limit:g} A at most.",
        "240.4(D)",
        measured=f"{run.breaker_a:g} A",
        limit=f"{limit:g} A",
        mends=[
            Mend(f"Wire it in {wire_name(view, bigger)}", rewire(view, bigger)),
            Mend(f"Breaker {limit:g} A", [set_run(view, breaker_a=limit)]),
        ],
    )


def ampacity_rule(view: RunView) -> Iterator[Finding]:
    """The wire as it lies, leg by leg, against load and breaker; the weakest leg speaks."""
    run = view.run
    weakest: tuple[float, int] | None = None
    for index in range(len(run.legs)):
        try:
            amps = usable(view.book, view.demand(index), run.wire_size)
        except UnknownKeyError:
            continue  # a size that is not made: said elsewhere
        except LevelRunError:
            amps = 0.0  # hotter than its insulation takes
        if weakest is None or amps < weakest[0]:
            weakest = (amps, index)
    if weakest is None:
        return
    amps, index = weakest
    over_load = run.load_a > amps + 1e-9
    over_breaker = not run.nameplate and next_rating(view.book, amps) < run.breaker_a
    if not (over_load or over_breaker):
        return
    facts = view.facts[index]
    yield finding(
        "ampacity-short",
        run.id,
        index,
        f"{wire_name(view, run.wire_size)} carries {amps:.0f} A here",
        f"{'The load is' if over_load else 'The breaker is'} {run.load_a if over_load else run.breaker_a:g} A. "
        f"{facts.title} at {view.heat_c(index):g} °C, {view.current_carrying} wires that carry current.",
        "310.16, 110.14(C), 240.4",
        measured=f"{amps:.1f} A",
        limit=f"{run.load_a if over_load else run.breaker_a:g} A",
        mends=_wire_for(view, index),
    )


def _wire_for(view: RunView, index: int) -> list[Mend]:
    demand = view.demand(index)
    try:
        size = choose(view.book, replace(demand, breaker_a=max(demand.breaker_a or 0, demand.load_a))).size
    except LevelRunError:
        return []
    return [Mend(f"Wire it in {wire_name(view, size)}", rewire(view, size))]


def ground_rule(view: RunView) -> Iterator[Finding]:
    """A cable's own ground against what the run wants, grown with wires that grew for drop."""
    order = wire_sizes(view.book)
    for index, leg in enumerate(view.run.legs):
        if view.methods[index].kind != "cable" or leg.size not in cable_sizes(view.book, leg.method):
            continue
        own = cable(view.book, leg.method, leg.size).ground
        if view.run.wire_size in order and order.index(own) < order.index(view.ground):
            yield finding(
                "ground-small",
                view.run.id,
                index,
                f"{leg.size} carries a {own} ground",
                f"Wires grown for drop want their ground grown too: {view.ground} here. "
                "Single wires in pipe bring it.",
                "250.122(B)",
                measured=own,
                limit=view.ground,
            )


def cable_rule(view: RunView) -> Iterator[Finding]:
    """Every cable has the gauge and the count of wires of its circuit."""
    order = wire_sizes(view.book)
    run = view.run
    for index, leg in enumerate(run.legs):
        gauge, _, count = leg.size.partition("-")
        if view.methods[index].kind == "raceway" or gauge not in order or run.wire_size not in order:
            continue
        wanted = f"{run.wire_size}-{max(run.conductors, int(count or 0))}"
        made = wanted in cable_sizes(view.book, leg.method)
        mends = (
            [Mend(f"Use {wanted} {view.methods[index].name}", [set_leg(view, index, size=wanted)])] if made else []
        )
        if order.index(gauge) < order.index(run.wire_size):
            yield finding(
                "wire-smaller",
                run.id,
                index,
                f"{leg.size} on a {run.wire_size} circuit",
                f"This leg is {gauge}, the circuit is {run.wire_size}: same gauge all the way, whips too.",
                "240.4, 110.14",
                measured=gauge,
                limit=run.wire_size,
                mends=mends,
            )
        if int(count or 0) < run.conductors:
            yield finding(
                "wires-short",
                run.id,
                index,
                f"{leg.size} is a wire short",
                f"The circuit needs {run.conductors} wires and ground; this cable has {count or 0}.",
                "300.3(B), 200.7",
                measured=count or "0",
                limit=f"{run.conductors}",
                mends=mends,
            )


def load_rule(view: RunView) -> Iterator[Finding]:
    """Expected load against 80 % of the breaker."""
    share = view.book.scalar("continuous_percent")
    most = view.run.breaker_a * share.value / 100
    if view.run.load_a > most + 1e-9 and not view.run.nameplate:
        yield finding(
            "load-high",
            view.run.id,
            None,
            f"{view.run.load_a:g} A expected on a {view.run.breaker_a:g} A breaker",
            f"Plan for {most:g} A where the load stays on for three hours or more.",
            share.section,
            measured=f"{view.run.load_a:g} A",
            limit=f"{most:g} A",
        )


def drop_rule(view: RunView) -> Iterator[Finding]:
    """Drop as loaded and at the breaker rating, branch and feeder."""
    run = view.run
    if not run.legs or run.wire_size not in wire_sizes(view.book):
        return
    branch, total = view.book.scalar("drop_branch_percent"), view.book.scalar("drop_total_percent")
    loaded, rated = branch_percent(view, run.load_a, False), branch_percent(view, run.breaker_a, True)
    fed = feeder_percent(view)
    if loaded > branch.value or loaded + fed > total.value:
        over_branch = loaded > branch.value
        shown, limit = (loaded, branch) if over_branch else (loaded + fed, total)
        yield finding(
            "drop-high",
            run.id,
            None,
            f"Drops {shown:.1f} % at {run.load_a:g} A",
            f"{limit.value:g} % is the advice{' for a branch' if over_branch else ', feeder and branch together'}.",
            limit.section,
            measured=f"{shown:.2f} %",
            limit=f"{limit.value:g} %",
            mends=_bigger_wire(view, branch.value, total.value - fed),
        )
    elif rated > branch.value:
        yield finding(
            "drop-at-breaker",
            run.id,
            None,
            f"Would drop {rated:.1f} % at the full {run.breaker_a:g} A",
            f"As loaded it drops {loaded:.1f} %. Some compute at the breaker, some at the load: here are both.",
            branch.section,
            measured=f"{rated:.2f} %",
            limit=f"{branch.value:g} %",
        )


def _bigger_wire(view: RunView, branch: float, rest: float) -> list[Mend]:
    sizes = wire_sizes(view.book)
    for size in sizes[sizes.index(view.run.wire_size) + 1 :]:
        percent = branch_percent(view, view.run.load_a, False, size)
        if percent <= min(branch, rest) and _grounds_grow(view, size):
            return [Mend(f"Wire it in {wire_name(view, size)} ({percent:.1f} %)", rewire(view, size))]
    return []


def roof_rule(view: RunView) -> Iterator[Finding]:
    """Pipe and cable on a roof in the sun: how high over it decides how hot they get (310.15(B)(2))."""
    legs = view.run.legs
    low = [i for i in range(len(legs)) if view.on_sunny_roof(i) and legs[i].facts.above_roof_in is None]
    if not low:
        return
    adder, least = view.book.scalar("roof_adder_c"), view.book.number("roof_low_in")

    def raised(to: float) -> list[Edit]:
        return [set_leg(view, i, facts=facts_with(view, i, above_roof_in=to)) for i in low]

    yield finding(
        "roof-heat",
        view.run.id,
        low[0],
        "How far is it off the roof?",
        f"Under {least:g} in over a roof in the sun it lies {adder.value:g} °C hotter: its wire carries far less.",
        adder.section,
        last=low[-1],
        mends=[Mend("On blocks, 3″ up", raised(3.0)), Mend("Flat on the roof", raised(0.0))],
    )


def _grounds_grow(view: RunView, size: str) -> bool:
    """Whether every cable is made in that size, with the ground that wires grown for drop want (250.122(B))."""
    order = wire_sizes(view.book)
    grown = view.ground_for(size)
    for index, leg in enumerate(view.run.legs):
        if view.methods[index].kind != "cable":
            continue
        wanted = f"{size}-{leg.size.partition('-')[2]}"
        made = wanted in cable_sizes(view.book, leg.method)
        if not made or order.index(cable(view.book, leg.method, wanted).ground) < order.index(grown):
            return False
    return True


RULES: tuple[Rule[RunView], ...] = (
    roof_rule,
    breaker_rule,
    ampacity_rule,
    cable_rule,
    ground_rule,
    load_rule,
    drop_rule,
)
