"""The colours of hots in pipe: those of a circuit from its panel to its last box, apart from what lies beside it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from levelrun.core.circuits.loads import HOTS, CircuitLoads
from levelrun.core.ways.facts import WayView


def hues(loads: Mapping[str, CircuitLoads], views: Iterable[WayView]) -> dict[str, int]:
    """Where the colours of each circuit begin: at the first that no circuit before it has which lies in a pipe with
    it, or shares its neutral. Where no colour is left they begin anew. Common practice, no source: only the wires of
    more than one system of voltage are to be told apart (210.5(C))."""
    beside: dict[str, set[str]] = {}
    for view in views:
        for index in view.indexes if len(view.context.carried) > 1 else ():
            if view.piped(index):
                here = {item.wires.circuit for item in view.lying(index)}
                for name in here:
                    beside.setdefault(name, set()).update(here)
    found: dict[str, int] = {}
    for name, item in loads.items():
        near = {*beside.get(name, ()), item.circuit.partner} & found.keys()
        taken = {(found[other] + n) % len(HOTS) for other in near for n in range(_wide(loads[other]))}
        free = (hue for hue in range(len(HOTS)) if not taken & {(hue + n) % len(HOTS) for n in range(_wide(item))})
        found[name] = next(free, 0)
    return found


def _wide(item: CircuitLoads) -> int:
    return max((wires.conductors - wires.neutral for wires in item.wires.values()), default=1)
