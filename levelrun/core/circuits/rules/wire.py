"""Rules about a circuit's wire: breaker, aluminum, whip, drop, and how it is loaded."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace
from typing import Any

from levelrun.core.circuits.codes import finding
from levelrun.core.circuits.facts import CircuitView
from levelrun.core.circuits.usual import nema_of
from levelrun.core.codebook import Scalar
from levelrun.core.codebook.lookups import made_size, method, wire_sizes
from levelrun.core.errors import LevelRunError
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Box
from levelrun.core.measure import show
from levelrun.core.rulebook import Rule
from levelrun.core.trade.conductors.sizing import (
    Demand,
    breaker_ratings,
    choose,
    rating_under,
    standard_breaker,
    usable,
)

SMALL_AL_A = 30.0
# Screws of 15 and 20 A devices take 10 at most: common practice, no source.
DEVICE_SIZE, DEVICE_A = "10", 20.0


def about(view: CircuitView, code: str, title: str, text: str, section: str, **more: object) -> Finding:
    """A finding about this circuit."""
    return finding(code, view.circuit.id, None, title, text, section, about="circuit", **more)


def change(view: CircuitView, **values: object) -> dict[str, Any]:
    """Edit that changes fields of this circuit."""
    return {"op": "set", "kind": "circuit", "id": view.circuit.id, "set": values}


def fitting_wire(view: CircuitView, breaker_a: float) -> str:
    """The wire of this circuit for another breaker; as it is where none fits."""
    try:
        return choose(view.book, replace(demand(view), breaker_a=breaker_a)).size
    except LevelRunError:
        return view.circuit.wire_size


def rewired(view: CircuitView, size: str, **values: object) -> list[dict[str, Any]]:
    """Edits that take another wire on the whole circuit, along its ways too; empty where one of its cables is not
    made in that size."""
    for box, methods in view.methods.items():
        count = view.wires[box].conductors
        cables = {key for key in methods if method(view.book, key).kind == "cable"}
        if any(made_size(view.book, key, size, count) is None for key in cables):
            return []
    first = [change(view, **values)] if values else []
    return [*first, {"op": "rewire", "circuit": view.circuit.id, "size": size}]


def mended(label: str, edits: list[dict[str, Any]]) -> list[Mend]:
    """A mend, where there is something that it does."""
    return [Mend(label, edits)] if edits else []


def demand(view: CircuitView, drop_limit: float | None = None, length_ft: float = 0.0) -> Demand:
    """What the circuit's wire must carry: its load, a quarter more of what is continuous, within the breaker (what is
    over it is the load's finding, not the wire's)."""
    c = view.circuit
    return Demand(
        load_a=min(view.load_a, c.breaker_a),
        continuous_a=max(min(view.continuous_a, 4 * (c.breaker_a - view.load_a)), 0.0),
        breaker_a=c.breaker_a,
        volts=float(c.volts),
        material=c.material,
        wiring=c.method,
        length_ft=length_ft,
        drop_limit_percent=drop_limit,
    )


def wire_rule(view: CircuitView) -> Iterator[Finding]:
    """The breaker over its wire (240.4); where a nameplate decides (240.4(G)), wire and breaker by the nameplate."""
    c = view.circuit
    if c.wire_size not in wire_sizes(view.book):
        yield about(view, "breaker-wire", f"{c.wire_size!r} is no wire size", "Choose a listed size.", "310.16")
        return
    if c.nameplate:
        yield from _nameplate(view)
        return
    try:
        wanted = choose(view.book, demand(view)).size
        amps = usable(view.book, demand(view), c.wire_size)
    except LevelRunError as error:
        yield about(view, "breaker-wire", f"No wire for {c.breaker_a:g} A", error.message, "240.4")
        return
    order = wire_sizes(view.book)
    if order.index(c.wire_size) >= order.index(wanted):
        return
    dwelling = dwelling_feeder(view)
    if dwelling is not None and order.index(c.wire_size) >= order.index(dwelling):
        return
    metal = " aluminum" if c.material == "al" else ""
    mends = mended(f"Wire it in {wanted}{metal}", rewired(view, wanted))
    if (least := _breaker_for(view)) is not None:
        mends.append(Mend(f"{least:g} A breaker", [change(view, breaker_a=least)]))
    yield about(
        view,
        "breaker-wire",
        f"{c.breaker_a:g} A breaker on {c.wire_size}{metal}",
        f"As it lies it carries {amps:.0f} A; {c.breaker_a:g} A wants {wanted}.",
        "240.4(D), 310.16" if order.index(c.wire_size) <= order.index("10") else "240.4(B), 310.16",
        measured=f"{c.wire_size}{metal}",
        limit=wanted,
        mends=mends,
    )


def dwelling_feeder(view: CircuitView) -> str | None:
    """The wire of a feeder that carries all of a dwelling, 100 to 400 A, by table 310.12(A); None where it does not
    apply: less, or in heat, or part of a dwelling."""
    c = view.circuit
    if not view.context.whole_dwelling or c.volts != 240:
        return None
    row = view.book.table("310-12-dwelling").find(f"{c.breaker_a:g}")
    return row[c.material] if row else None


def _nameplate(view: CircuitView) -> Iterator[Finding]:
    """The least ampacity gives the wire, the greatest breaker the breaker (430.22, 430.52, 440.22, 440.33)."""
    c = view.circuit
    need = max(view.load_a, c.least_ampacity_a or 0.0)
    probe = Demand(
        load_a=min(view.load_a, need) or need, breaker_a=c.breaker_a, material=c.material, wiring=c.method,
        minimum_ampacity_a=need or 1.0,
    )  # fmt: skip
    carries = usable(view.book, probe, c.wire_size)
    if carries < need - 1e-9:
        mends = []
        with suppress(LevelRunError):
            size = choose(view.book, replace(probe, load_a=min(probe.load_a, c.breaker_a))).size
            mends = mended(f"Wire it in {size}", rewired(view, size))
        wants = "Its nameplate" if c.least_ampacity_a else "Its load"
        yield about(
            view, "nameplate-wire", f"{c.wire_size} carries {carries:.0f} A, {wants.lower()} wants {need:g}",
            f"{wants} decides the wire; 240.4(G) frees the breaker only.", "430.22, 440.33, 240.4(G)",
            measured=f"{carries:.0f} A", limit=f"{need:g} A", mends=mends,
        )  # fmt: skip
    if c.largest_breaker_a is not None and c.breaker_a > c.largest_breaker_a + 1e-9:
        most = rating_under(view.book, c.largest_breaker_a)
        yield about(
            view, "nameplate-breaker", f"{c.breaker_a:g} A breaker, {c.largest_breaker_a:g} A on the nameplate",
            "The plate names the greatest breaker that it was tested with.", "430.52, 440.22, 110.3(B)",
            measured=f"{c.breaker_a:g} A", limit=f"{c.largest_breaker_a:g} A",
            mends=[Mend(f"{most:g} A breaker", _under(view, probe, most))],
        )  # fmt: skip
    if c.least_ampacity_a is None or c.largest_breaker_a is None:
        yield about(
            view, "nameplate-unsaid", f"The nameplate of {c.name} is not read in",
            "Type its least circuit ampacity and its greatest breaker: wire by the one, breaker by the other. "
            f"Until then {view.load_a:.1f} A is a guess.", "440.4(B), 430.7",
        )  # fmt: skip


def _under(view: CircuitView, probe: Demand, breaker_a: float) -> list[dict[str, Any]]:
    """Edits that take a smaller breaker, and in cable the wire that goes with it: the ground in a cable does not grow
    with a wire that is larger than it must be (250.122(B))."""
    c, order = view.circuit, wire_sizes(view.book)
    with suppress(LevelRunError):
        least = choose(view.book, replace(probe, breaker_a=breaker_a)).size
        if c.method != "raceway" and order.index(least) < order.index(c.wire_size):
            return rewired(view, least, breaker_a=breaker_a) or [change(view, breaker_a=breaker_a)]
    return [change(view, breaker_a=breaker_a)]


def _breaker_for(view: CircuitView) -> float | None:
    """The biggest standard breaker that the wire takes and that still carries the load."""
    c = view.circuit
    ratings = breaker_ratings(view.book)
    order = wire_sizes(view.book)
    for rating in sorted((r for r in ratings if r < c.breaker_a), reverse=True):
        if rating < max(view.load_a, 15):
            return None
        probe = replace(demand(view), load_a=view.load_a, continuous_a=view.continuous_a, breaker_a=rating)
        try:
            if order.index(choose(view.book, probe).size) <= order.index(c.wire_size):
                return rating
        except LevelRunError:
            continue
    return None


def aluminum_rule(view: CircuitView) -> Iterator[Finding]:
    """Never 12 or 10 aluminum on a branch circuit."""
    c = view.circuit
    order = wire_sizes(view.book)
    floor = f"{view.book.number('aluminum_floor'):g}"
    if c.material == "al" and c.wire_size in order and order.index(c.wire_size) < order.index(floor):
        copper = choose(view.book, Demand(load_a=view.load_a, breaker_a=c.breaker_a, wiring=c.method)).size
        yield about(
            view,
            "aluminum-branch",
            f"{c.wire_size} aluminum on a branch circuit",
            "Small aluminum loosens under its screws. Feeders and ranges only, with listed lugs.",
            "110.14, common practice",
            measured=f"{c.wire_size} aluminum",
            limit=f"{floor} aluminum",
            mends=mended(f"{copper} copper", rewired(view, copper, material="cu")),
        )


def whip_rule(view: CircuitView) -> Iterator[Finding]:
    """Same gauge all the way, the whip too."""
    c, order = view.circuit, wire_sizes(view.book)
    if c.whip_size in order and c.wire_size in order and order.index(c.whip_size) < order.index(c.wire_size):
        yield about(
            view,
            "whip-small",
            f"A {c.whip_size} whip on a {c.wire_size} circuit",
            f"The breaker is {c.breaker_a:g} A; the thin part burns first.",
            "240.4, 110.14",
            measured=c.whip_size,
            limit=c.wire_size,
            mends=[Mend(f"Whip in {c.wire_size}", [change(view, whip_size=c.wire_size)])],
        )


def hop_rule(view: CircuitView) -> Iterator[Finding]:
    """A hop in wire of its own is no thinner than the breaker asks: thicker, and spliced down again, is fine."""
    c, order = view.circuit, wire_sizes(view.book)
    if c.nameplate or c.wire_size not in order:
        return
    try:
        wanted = choose(view.book, demand(view)).size
    except LevelRunError:
        return
    for hop in c.chain:
        if hop.wire_size not in order or order.index(hop.wire_size) >= order.index(wanted):
            continue
        own = [{**h.model_dump(), "wire_size": "" if h.box == hop.box else h.wire_size} for h in c.chain]
        yield about(
            view,
            "whip-small",
            f"{hop.wire_size} to {view.name_of(hop.box)} on a {c.breaker_a:g} A breaker",
            f"This stretch is thinner than {wanted}; it burns first.",
            "240.4(D), 110.14",
            measured=hop.wire_size,
            limit=wanted,
            mends=[Mend(f"In {c.wire_size} as the circuit", [change(view, chain=own)])]
            if order.index(c.wire_size) >= order.index(wanted)
            else [],
        )


def load_rule(view: CircuitView) -> Iterator[Finding]:
    """Expected load against the breaker, continuous load against 80 % of it (210.20, 210.19)."""
    c = view.circuit
    if c.nameplate:
        return
    share = view.book.scalar("continuous_percent")
    if view.load_a > c.breaker_a + 1e-9:
        guessed = _guessed(view)
        said = about(
            view,
            "circuit-over",
            f"{view.load_a:.1f} A expected on {c.breaker_a:g} A",
            "More is expected at once than the breaker carries."
            if not guessed
            else f"As usual for {guessed.name}; its nameplate is not read in. Type its watts, or what it draws.",
            "210.20",
            measured=f"{view.load_a:.1f} A",
            limit=f"{c.breaker_a:g} A",
            mends=_bigger(view, view.load_a),
        )
        yield replace(said, severity="check") if guessed else said
        return
    most = c.breaker_a * share.value / 100
    if view.continuous_a > most + 1e-9:
        yield about(
            view,
            "circuit-high",
            f"{view.continuous_a:.1f} A continuous on {c.breaker_a:g} A",
            f"Three hours and more: plan for {most:g} A.",
            share.section,
            measured=f"{view.continuous_a:.1f} A",
            limit=f"{most:g} A",
            mends=_bigger(view, view.continuous_a * 100 / share.value),
        )


def _guessed(view: CircuitView) -> Box | None:
    """A box whose load is as usual, where nothing was said of what the circuit carries: its nameplate is asked."""
    if view.circuit.load_a is not None or view.circuit.feeds is not None:
        return None
    guessed = [box for box in view.context.boxes if box.serves and box.load_w is None and view.loads.get(box.id)]
    return max(guessed, key=lambda box: view.loads[box.id], default=None)


def _bigger(view: CircuitView, amps: float) -> list[Mend]:
    """A bigger breaker with its wire: for one appliance alone, never for a circuit of outlets."""
    if len(view.context.boxes) != 1 or view.circuit.feeds is not None:
        return []
    try:
        rating = standard_breaker(view.book, amps)
        if any(_plug_a(view, box) < rating for box in view.plugs):
            return []  # the receptacle would be under its circuit (210.21(B)(1))
        probe = replace(demand(view), load_a=view.load_a, continuous_a=view.continuous_a, breaker_a=rating)
        size = choose(view.book, probe).size
    except LevelRunError:
        return []
    return mended(f"{rating:g} A on {size}", rewired(view, size, breaker_a=rating))


def _plug_a(view: CircuitView, box: Box) -> float:
    """What a receptacle is rated; 50 A for one that is not said."""
    row = view.book.table("nema").find(nema_of(view.book, box))
    return float(row["amps"]) if row else 50.0


def drop_rule(view: CircuitView) -> Iterator[Finding]:
    """Drop along the chain to its worst box, feeder and branch together (210.19, 215.2 notes)."""
    worst = view.farthest
    if worst is None:
        return
    branch, total = view.book.scalar("drop_branch_percent"), view.book.scalar("drop_total_percent")
    box, percent = worst
    whole = percent + view.context.feeder_percent
    over_branch = percent > branch.value
    if not over_branch and whole <= total.value:
        yield from _at_breaker(view, box, percent, branch)
        return
    shown, limit = (percent, branch) if over_branch else (whole, total)
    feet = sum(link.length_in or 0.0 for link in view.tree.path(box)) / 12
    yield about(
        view,
        "circuit-drop",
        f"Drops {shown:.1f} % to {view.name_of(box)}",
        f"{feet:.0f} ft of {view.circuit.wire_size}, {view.load_a:.1f} A expected; {limit.value:g} % is the advice"
        f"{'' if over_branch else ', feeder and branch together'}.",
        limit.section,
        measured=f"{shown:.2f} %",
        limit=f"{limit.value:g} %",
        mends=_thicker(view, box, min(branch.value, total.value - view.context.feeder_percent)),
    )


def _at_breaker(view: CircuitView, box: str, loaded: float, branch: Scalar) -> Iterator[Finding]:
    rated = view.percent_at(box, True)
    if rated is not None and rated > branch.value:
        yield about(
            view,
            "drop-at-breaker",
            f"Would drop {rated:.1f} % at the full {view.circuit.breaker_a:g} A",
            f"As loaded it drops {loaded:.1f} %. Some compute at the breaker, some at the load: here are both.",
            branch.section,
            measured=f"{rated:.2f} %",
            limit=f"{branch.value:g} %",
        )


def _thicker(view: CircuitView, box: str, most: float) -> list[Mend]:
    """The next size that will do, with what it costs in copper; none that the screws of a device do not take."""
    sizes = wire_sizes(view.book)
    area = {row["size"]: float(row["area_cmil"]) for row in view.book.table("ch9-table8").rows}
    small = any(box.kind in ("receptacle", "switch", "device") for box in view.context.boxes)
    thickest = DEVICE_SIZE if small and view.circuit.breaker_a <= DEVICE_A else sizes[-1]
    for size in sizes[sizes.index(view.circuit.wire_size) + 1 : sizes.index(thickest) + 1]:
        percent = view.percent_at(box, False, size)
        if percent is not None and percent <= most:
            more = area[size] / area[view.circuit.wire_size]
            label = f"Wire it in {size} ({percent:.1f} %, {more:.1f} × the metal over {show(round(view.length_in))})"
            return mended(label, rewired(view, size))
    return []


RULES: tuple[Rule[CircuitView], ...] = (wire_rule, aluminum_rule, whip_rule, hop_rule, load_rule)
