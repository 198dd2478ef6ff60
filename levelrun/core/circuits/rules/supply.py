"""Rules about what comes into a building from outside: one supply, a disconnect big enough, no indoor cable."""

from __future__ import annotations

from collections.abc import Iterator

from levelrun.core.circuits.codes import finding
from levelrun.core.circuits.rules.house import House, Wired
from levelrun.core.circuits.spaces import called
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Circuit, Panel
from levelrun.core.rulebook import Rule

INDOORS = ("NM-B", "AC")
ONE_A, TWO_A, MORE_A = 15.0, 30.0, 60.0


def _into(house: House) -> dict[str, list[Circuit]]:
    """The circuits that come into each building from a panel outside of it, by structure id."""
    panels = house.panels
    found: dict[str, list[Circuit]] = {}
    for circuit in house.circuits:
        home = panels[circuit.panel].structure
        ends = {house.boxes[hop.box].structure for hop in circuit.chain if hop.box in house.boxes}
        if circuit.feeds is not None:
            ends.add(panels[circuit.feeds].structure)
        for structure in sorted(ends - {home}):
            found.setdefault(structure, []).append(circuit)
    return found


def one_supply_rule(house: House) -> Iterator[Finding]:
    """A building is fed by one feeder or branch circuit; two that share a neutral are one, and a circuit of another
    voltage or for control may come beside it (225.30)."""
    structures = {item.id: item for item in house.structures}
    for ident, circuits in _into(house).items():
        structure = structures[ident]
        mates = {circuit.partner for circuit in circuits}
        alike = [c for c in circuits if c.id not in mates or c.id < (c.partner or "")]
        feeder = next((c for c in alike if c.feeds), None)
        differ = feeder is None and len({c.volts for c in alike}) == len(alike)
        if structure.kind == "yard" or len(alike) < 2 or differ:
            continue
        extra = [c for c in alike if c is not (feeder or alike[0])]
        yield finding(
            "supply-two", structure.id, None, f"{structure.name} is fed by {len(alike)} circuits",
            f"{' and '.join(called(c) for c in alike[:3])}: one supply, so that one handle "
            "turns the building off.", "225.30", about="structure", measured=str(len(alike)), limit="1",
            mends=_moved(house, extra[0], feeder) if feeder and extra else [],
        )  # fmt: skip


def _moved(house: House, circuit: Circuit, feeder: Circuit) -> list[Mend]:
    """The circuit comes from the panel that the feeder feeds, where it is not walked from the other."""
    if circuit.feeds or any(hop.path for hop in circuit.chain):
        return []
    panel = house.panels[feeder.feeds or ""]
    edit = {"op": "set", "kind": "circuit", "id": circuit.id, "set": {"panel": panel.id, "space": None}}
    return [Mend(f"Feed {circuit.name} from {panel.name}", [edit])]


def disconnect_rule(house: House) -> Iterator[Finding]:
    """How big the disconnect of another building is at least: 15 A for one circuit, 30 A for two, 60 A for more
    (225.39)."""
    panels = house.panels
    for circuit in house.circuits:
        fed = panels.get(circuit.feeds or "")
        if fed is None or panels[circuit.panel].structure == fed.structure:
            continue
        own = [c for c in house.circuits if c.panel == fed.id]
        least = ONE_A if len(own) <= 1 else TWO_A if len(own) == 2 else MORE_A
        rating = min(circuit.breaker_a, fed.main_a or circuit.breaker_a)
        if rating >= least - 1e-9 or not own:
            continue
        yield finding(
            "supply-small", fed.id, None, f"{fed.name}: a {rating:g} A disconnect for {len(own)} circuits",
            "The disconnect of a building is 60 A at least where it has more than two circuits.", "225.39",
            about="panel", room=fed.room or "", measured=f"{rating:g} A", limit=f"{least:g} A",
            mends=_bigger(circuit, fed, least),
        )  # fmt: skip


def _bigger(circuit: Circuit, fed: Panel, least: float) -> list[Mend]:
    """A main of that size in it, where the feeder behind is big enough; a main protects no more than it is fed by."""
    if fed.main_a is None or circuit.breaker_a < least:
        return []
    values = {"main_a": least, "bus_a": max(fed.bus_a, least)}
    return [Mend(f"Main of {least:g} A", [{"op": "set", "kind": "panel", "id": fed.id, "set": values}])]


def across_rule(house: House) -> Iterator[Finding]:
    """Building cable does not cross to another building: a hop that nobody walked is asked for its way."""
    nodes: dict[str, Panel | Wired] = {**house.panels, **house.boxes}
    for circuit in house.circuits:
        if circuit.method not in INDOORS:
            continue
        for hop in circuit.chain:
            start, end = nodes.get(hop.after or circuit.panel), nodes.get(hop.box)
            if hop.path or start is None or end is None or start.structure == end.structure:
                continue
            edit = {"op": "set", "kind": "circuit", "id": circuit.id, "set": {"method": "UF-B"}}
            yield finding(
                "cable-across", circuit.id, None,
                f"{circuit.method} from {start.name} to {end.name}, another building",
                "Building cable stays dry and indoors. Walk its way: pipe, underground cable, or a span.",
                "334.12(B)(4), 300.5(B)" if circuit.method == "NM-B" else "320.12", about="circuit",
                measured=circuit.method, limit="UF-B, or wires in pipe", mends=[Mend("UF-B", [edit])],
            )  # fmt: skip
            break


RULES: tuple[Rule[House], ...] = (one_supply_rule, disconnect_rule, across_rule)
