"""Drop of a run with what lies before it, by both schools: at the breaker rating and at the load expected."""

from __future__ import annotations

from dataclasses import dataclass

from levelrun.core.codebook.lookups import wire_sizes
from levelrun.core.findings import Figure
from levelrun.core.runs.facts import RunView
from levelrun.core.trade.drop import drop


@dataclass(frozen=True)
class RunDrop:
    """Drop in percent of the circuit's volts, over this run and over the branch from its panel."""

    at_breaker: Figure
    as_loaded: Figure


def run_drop(view: RunView) -> RunDrop | None:
    """Both figures of a run, or None while it has no legs or its wire is in no table."""
    run = view.run
    if not run.legs or run.wire_size not in wire_sizes(view.book):
        return None
    return RunDrop(_figure(view, "breaker", run.breaker_a), _figure(view, "load", run.load_a))


def branch_percent(view: RunView, amps: float, by_breaker: bool, size: str | None = None) -> float:
    """Percent over the branch: the runs before it on the same circuit, and this one at `amps`."""
    run = view.run
    length_ft = sum(leg.length_in for leg in run.legs) / 12
    own = drop(view.book, run.volts, amps, length_ft, size or run.wire_size, run.material).drop_percent
    before = sum(
        drop(
            view.book, up.volts, up.breaker_a if by_breaker else up.load_a, up.length_ft, up.size, up.material
        ).drop_percent
        for up in view.context.upstream
        if not up.feeder
    )
    return own + before


def feeder_percent(view: RunView) -> float:
    """Percent over the feeders before the branch, at their expected loads."""
    return sum(
        drop(view.book, up.volts, up.load_a, up.length_ft, up.size, up.material).drop_percent
        for up in view.context.upstream
        if up.feeder
    )


def _figure(view: RunView, kind: str, amps: float) -> Figure:
    run = view.run
    by_breaker = kind == "breaker"
    percent = branch_percent(view, amps, by_breaker)
    limit = view.book.scalar("drop_branch_percent")
    length_ft = sum(leg.length_in for leg in run.legs) / 12
    own = drop(view.book, run.volts, amps, length_ft, run.wire_size, run.material)
    before = {
        f"before it: {up.name}": f"{up.length_ft:.0f} ft of {up.size} at "
        f"{up.breaker_a if by_breaker else up.load_a:g} A"
        for up in view.context.upstream
        if not up.feeder
    }
    fed = feeder_percent(view)
    return Figure(
        key=f"drop-{kind}",
        label=f"Drop at {amps:g} A, {'breaker' if by_breaker else 'expected'}",
        value=percent,
        text=f"{percent:.1f} %",
        unit="%",
        formula="2 · I · L · R / 1000, as a share of the circuit's volts",
        inputs={
            "I": f"{amps:g} A",
            "L, one way": f"{length_ft:.1f} ft",
            "R": f"{own.ohm_per_kft:g} Ω per 1,000 ft, {run.wire_size} {run.material}, 75 °C",
            "volts": f"{run.volts} V",
            "this run": f"{own.drop_v:.2f} V",
            **before,
            **({"feeder before it, as loaded": f"{fed:.1f} %"} if fed else {}),
            "unrounded": f"{percent:.4f} %",
        },
        rule=own.rule,
        basis=view.book.table("ch9-table8").head.basis,
        limit=limit.value,
        limit_text=f"{limit.value:g} %",
    )
