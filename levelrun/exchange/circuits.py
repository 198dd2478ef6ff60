"""Circuits as CSV: the directory of each panel, with cable and cable letters."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from levelrun.core.circuits.circuit_plan import CircuitPlan
from levelrun.exchange.sheet import as_csv

COLUMNS = (
    "panel", "space", "circuit", "poles", "breaker_a", "protection", "wire", "leg", "outlets", "expected_a",
    "drop_percent", "cable", "boxes", "cable_letters", "verdict",
)  # fmt: skip


def write_circuits(circuits: Sequence[CircuitPlan], panels: Mapping[str, str]) -> str:
    """One row a circuit, panel by panel, in the order of the spaces."""
    ordered = sorted(circuits, key=lambda c: (c.summary.panel, c.summary.space or 999, c.summary.half))
    return as_csv(COLUMNS, [_row(item, panels) for item in ordered])


def _row(item: CircuitPlan, panels: Mapping[str, str]) -> list[str]:
    row = item.summary
    facts = {fact.label: fact.text for fact in item.facts}
    drop = next((figure for figure in item.figures if figure.key == "drop"), None)
    return [
        panels.get(row.panel, ""), row.label, row.name, str(row.poles), f"{row.breaker_a:g}", row.protection,
        facts.get("Wire", ""), row.leg, str(row.boxes), f"{row.load_a:.1f}", f"{drop.value:.2f}" if drop else "",
        "; ".join(item.cables), "; ".join(link.name for link in item.chain),
        facts.get("Cable letters, both ends", ""), row.verdict,
    ]  # fmt: skip
