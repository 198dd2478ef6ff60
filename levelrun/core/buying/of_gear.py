"""What panels, breakers, electrodes and the service take."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

from shapely import Point

from levelrun.core.buying.items import breaker, each, wire
from levelrun.core.buying.items import panel as cabinet
from levelrun.core.buying.lines import At, Line, Lines
from levelrun.core.buying.of_boxes import cable_connectors
from levelrun.core.circuits.spaces import label
from levelrun.core.codebook import Codebook
from levelrun.core.job import Circuit, Electrode, Panel
from levelrun.core.rulebook import keeping
from levelrun.core.trench.electrodes import GroundFacts

DOWN_IN = 72.0  # down the wall and along it to where the conductor of an electrode goes out, a planning figure
WORDS = {"plain": "", "gfci": " GFCI", "afci": " arc-fault", "dual": " dual-function"}


def lines_of_circuit(circuit: Circuit, panel: Panel, partner: Circuit | None, at: At, old: bool) -> Lines:
    """Its breaker, its half of a tandem, a tie, a lock, antioxidant. `old`: it was there before; its breaker is
    changed where it is to protect what it did not."""
    if old and circuit.protection == "plain":
        return ()
    return tuple(_of_circuit(circuit, panel, partner, at))


def _of_circuit(circuit: Circuit, panel: Panel, partner: Circuit | None, at: At) -> Iterator[Line]:
    amps = f"{circuit.breaker_a:g} A"
    if circuit.half == "b":
        pass  # its upper half brings the tandem
    elif circuit.half == "a":
        yield Line(breaker(f"tandem {amps}", panel.make), 1, at, f"space {label(circuit)}")
    else:
        kind = f"{circuit.poles}-pole {amps}{WORDS[circuit.protection]}"
        yield Line(breaker(kind, panel.make), 1, at, f"space {label(circuit)}")
    if partner is not None and circuit.tied and circuit.id < partner.id:
        yield Line(each("panels", "handle tie"), 1, at, f"with {partner.name} (210.4(B))")
    if circuit.locks:
        yield Line(each("panels", "breaker lock"), 1, at, "stays on it (110.25)")
    if circuit.material == "al":
        yield Line(each("small", "antioxidant, ends"), 2 * (2 + circuit.neutral), at, "aluminum ends, as listed")


def is_new(panel: Panel, circuits: Sequence[Circuit]) -> bool:
    """Whether a panel is bought for this job: a circuit of it feeds it, and no breaker of other work stands in it."""
    fed = any(circuit.feeds == panel.id for circuit in circuits)
    return fed and not panel.taken and panel.free_said is None


@keeping(256)
def lines_of_panel(
    book: Codebook, panel: Panel, new: bool, cables: tuple[str, ...], clamps: int, at: At
) -> Lines:  # fmt: skip
    """The panel where it is new, its ground bar, connectors of the cables that come in (`cables`)."""
    found: list[Line] = []
    if new:
        item = cabinet(panel.spaces, panel.main_a or panel.bus_a, bool(panel.main_a), panel.make)
        found.append(Line(item, 1, at, "fed by this job"))
        found.append(Line(each("panels", "panel directory"), 1, at, "every circuit told apart (408.4)"))
    if new and not panel.bonded:
        found.append(Line(each("ground", "ground bar"), 1, at, "apart from the neutral (250.32(B))"))
    return (*found, *cable_connectors(book, cables, at, clamps))


def lines_of_grounds(grounds: Mapping[str, GroundFacts]) -> Iterator[Line]:
    """Electrodes to drive, their clamps and conductors; bonds of the service."""
    for ident, facts in grounds.items():
        at = At("structure", ident, facts.structure.name, "", facts.structure.name, "", "trench")
        for item in facts.electrodes:
            if item.driven_on:
                continue
            size = item.wire or facts.usual_wire(item)
            if item.kind == "rod":
                yield Line(each("ground", f"ground rod {item.length_in / 12:g} ft"), 1, at, "driven flush or below")
                yield Line(each("ground", "rod clamp, direct burial"), 1, at, "listed for earth (250.70)")
            elif item.kind in ("plate", "ring"):
                yield Line(each("ground", f"ground {item.kind}"), 1, at, "")
            else:
                yield Line(each("ground", f"clamp to {item.kind.replace('_', ' ')}"), 1, at, "listed for it (250.70)")
            yield Line(
                wire(f"{size} bare", "copper"), float(-(-_run_in(facts, item) // 12)), at, "electrode conductor"
            )
        yield from _service(facts, at)


def _run_in(facts: GroundFacts, item: Electrode) -> float:
    """How far the conductor of an electrode runs: from the wall to it, down the wall, and the panel's make-up."""
    away = facts.building.shape.distance(Point(item.x_in, item.y_in)) if facts.building is not None else 24.0
    return max(float(away), 12.0) + DOWN_IN + facts.job.habits.panel_makeup_in


def _service(facts: GroundFacts, at: At) -> Iterator[Line]:
    service = facts.service
    if service is None:
        return
    if service.intersystem is not True:
        yield Line(each("ground", "intersystem bonding bar"), 1, at, "250.94")
    if service.surge is not True:
        yield Line(each("panels", "surge protection, type 1 or 2"), 1, at, "230.67")
    for kind, said in (("water", service.water_bond), ("gas", service.gas_bond)):
        if said is False:
            yield Line(each("ground", f"clamp to {kind} pipe"), 1, at, "250.104")
