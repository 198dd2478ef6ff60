"""Rules about a panel: its spaces, its bonding, its bars, its load, its feeder."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from levelrun.core.circuits.codes import finding
from levelrun.core.circuits.service import LoadCalculation
from levelrun.core.circuits.spaces import Occupied, called, label, leg_of, spaces_of
from levelrun.core.findings import Finding, Mend
from levelrun.core.job import Circuit, Panel
from levelrun.core.rulebook import Rule

HOUSE_MAIN_A = 100.0
MOST_THROWS = 6
SIZES = (12, 20, 24, 30, 40, 42, 60)


@dataclass(frozen=True, kw_only=True)
class PanelFacts:
    """A panel with its spaces, its calculated load and the feeder that brings its power, None for a main panel.

    `amps`: of the load as it is compared; `bigger`: breaker and wire of a feeder that would carry the load;
    `detached`: fed from another building; `order`: wire sizes, smallest first.
    """

    panel: Panel
    where: Occupied
    circuits: tuple[Circuit, ...]
    feeder: Circuit | None
    fed: bool
    load: LoadCalculation
    amps: float
    bigger: tuple[float, str] | None = None
    house: bool = False
    detached: bool = False
    order: tuple[str, ...] = ()

    @property
    def untouched(self) -> bool:
        """Nothing is said of it yet: a main panel without circuits, of which there is nothing to judge."""
        said = self.panel.disconnect_elsewhere is not None
        return not self.circuits and not self.fed and self.panel.bonded and not said


def about(facts: PanelFacts, code: str, title: str, text: str, section: str, **more: object) -> Finding:
    """A finding about this panel."""
    room = facts.panel.room or ""
    return finding(code, facts.panel.id, None, title, text, section, about="panel", room=room, **more)


def change(panel: Panel, **values: object) -> dict[str, Any]:
    """Edit that changes fields of a panel."""
    return {"op": "set", "kind": "panel", "id": panel.id, "set": values}


def put(circuit: Circuit, space: int, half: str = "") -> dict[str, Any]:
    """Edit that puts a breaker on a space."""
    return {"op": "put", "circuit": circuit.id, "space": space, "half": half}


def spaces_rule(facts: PanelFacts) -> Iterator[Finding]:
    panel = facts.panel
    for space, here in sorted(facts.where.at.items()):
        top = here[-1]
        if space in panel.taken:
            yield about(
                facts, "space-taken", f"{top.name} stands where another breaker is",
                f"Space {space} of {panel.name} is said to be in use.", "408.54", mends=_elsewhere(facts, top),
            )  # fmt: skip
        if space > panel.spaces:
            yield about(
                facts, "space-past", f"{called(top)} is past space {panel.spaces}",
                f"{panel.name} has {panel.spaces} spaces.", "408.54", mends=_elsewhere(facts, top),
            )  # fmt: skip
        halves = sorted(circuit.half for circuit in here)
        if len(here) > 1 and halves != ["a", "b"]:
            yield about(
                facts, "space-taken", f"{top.name} stands on {here[0].name}",
                f"Both want space {space}.", "408.54", mends=_elsewhere(facts, top),
            )  # fmt: skip
        if any(halves) and space not in panel.tandem_spaces:
            allowed = ", ".join(str(s) for s in panel.tandem_spaces) or "none"
            yield about(
                facts, "tandem-plain", f"A tandem on space {space}", f"This panel takes tandems on: {allowed}.",
                "408.54, 110.3(B)", measured=str(space), limit=allowed, mends=_elsewhere(facts, top),
            )  # fmt: skip


def _elsewhere(facts: PanelFacts, circuit: Circuit) -> list[Mend]:
    place = facts.where.place_for(circuit)
    return [Mend(f"Put it on {place[0]}{place[1]}", [put(circuit, *place)])] if place else []


def short_rule(facts: PanelFacts) -> Iterator[Finding]:
    panel, where = facts.panel, facts.where
    if not where.unplaced:
        return
    if where.asked:
        yield from _by_count(facts)
        return
    edits: list[dict[str, Any]] = []
    left = Occupied(panel, dict(where.at), [])
    unfit: list[Circuit] = []
    for circuit in sorted(where.unplaced, key=lambda c: -c.poles):
        place = left.place_for(circuit)
        if place is None:
            unfit.append(circuit)
            continue
        placed = circuit.model_copy(update={"space": place[0], "half": place[1]})
        for space in spaces_of(placed):
            left.at.setdefault(space, []).append(placed)
        edits.append(put(circuit, *place))
    if not unfit:
        names, count = ", ".join(circuit.name for circuit in where.unplaced[:4]), len(where.unplaced)
        yield about(
            facts, "circuit-unplaced", f"{count} circuit{'s have' if count > 1 else ' has'} no space yet",
            f"{names}. {len(where.free)} spaces are free.", "common practice, no source",
            measured=str(len(where.unplaced)), limit="0",
            mends=[Mend("Put them on free spaces", edits)],
        )  # fmt: skip
        return
    needed = sum(circuit.poles for circuit in unfit)
    yield about(
        facts, "panel-short", f"{panel.name} is short of {needed} space{'s' * (needed > 1)}",
        f"{', '.join(c.name for c in unfit[:4])} fit{'s' * (len(unfit) == 1)} nowhere: {len(where.free)} free, "
        f"{len(where.free_pairs)} of them with a pair below.", "408.54", measured=f"{len(where.free)} free",
        limit=f"{sum(c.poles for c in where.unplaced)} wanted", mends=_room(facts, unfit, edits, left),
    )  # fmt: skip


def _by_count(facts: PanelFacts) -> Iterator[Finding]:
    """Only how many spaces are free is known: enough of them or not, and for two poles whether two stand together."""
    panel, waiting = facts.panel, facts.where.unplaced
    free, wanted = panel.free_said or 0, sum(circuit.poles for circuit in facts.where.unplaced)
    if wanted > free:
        yield about(
            facts, "panel-short", f"{panel.name} is short of {wanted - free} space{'s' * (wanted - free > 1)}",
            f"{wanted} wanted, {free} said to be free. A tandem where listed, or a sub-panel first.",
            "408.54", measured=f"{free} free", limit=f"{wanted} wanted",
        )  # fmt: skip
        return
    pairs = [circuit.name for circuit in waiting if circuit.poles == 2]
    together = f" Two below each other for {', '.join(pairs)}?" if pairs else ""
    yield about(
        facts, "space-unsaid", f"Which spaces of {panel.name} are free?",
        f"{free} said to be free, {wanted} wanted.{together} Say which are taken, and each breaker gets its place.",
        "408.54", measured="not said", limit=f"{wanted} spaces",
    )  # fmt: skip


def _room(facts: PanelFacts, unfit: list[Circuit], edits: list[dict[str, Any]], left: Occupied) -> list[Mend]:
    """Ways to make room: tandems where the panel takes them, or the next bigger panel."""
    panel = facts.panel
    mends: list[Mend] = []
    single = [c for c in unfit if c.poles == 1]
    pairs = [
        (space, left.at[space][0])
        for space in panel.tandem_spaces
        if len(left.at.get(space, [])) == 1
        and left.at[space][0].half == ""
        and left.at[space][0].poles == 1
        and left.at[space][0].protection == "plain"
    ]
    plain = [c for c in single if c.protection == "plain"]
    if single and len(plain) == len(unfit) and len(pairs) >= len(plain):
        doubled = list(edits)
        for circuit, (space, there) in zip(plain, pairs, strict=False):
            doubled += [put(there, space, "a"), put(circuit, space, "b")]
        spots = ", ".join(str(space) for space, _ in pairs[: len(plain)])
        mends.append(Mend(f"Tandem on {spots}", doubled))
    wanted = panel.spaces + 2 * sum(c.poles for c in unfit)
    bigger = next((size for size in SIZES if size >= wanted), 84)
    grown = Occupied(panel.model_copy(update={"spaces": bigger}), dict(left.at), [])
    moved = [change(panel, spaces=bigger, neutral_holes=max(panel.neutral_holes, bigger)), *edits]
    for circuit in sorted(unfit, key=lambda c: -c.poles):
        place = grown.place_for(circuit)
        if place is None:
            return mends
        placed = circuit.model_copy(update={"space": place[0], "half": place[1]})
        for space in spaces_of(placed):
            grown.at.setdefault(space, []).append(placed)
        moved.append(put(circuit, *place))
    mends.append(Mend(f"A panel of {bigger} spaces", moved))
    return mends


def multiwire_rule(facts: PanelFacts) -> Iterator[Finding]:
    by_id = {circuit.id: circuit for circuit in facts.circuits}
    for circuit in facts.circuits:
        other = by_id.get(circuit.partner or "")
        if other is None or circuit.id > other.id or circuit.space is None or other.space is None:
            continue
        if leg_of(circuit.space) != leg_of(other.space):
            continue
        place = facts.where.place_for(other, beside=circuit.space)
        yield about(
            facts, "multiwire-leg",
            f"{label(circuit)} and {label(other)} share a neutral on leg {leg_of(circuit.space)}",
            "The neutral would carry both; on opposite legs it carries the difference.", "200.4, 300.13(B)",
            mends=[Mend(f"Put {label(other)} on {place[0]}", [put(other, *place)])] if place else [],
        )  # fmt: skip


def bonding_rule(facts: PanelFacts) -> Iterator[Finding]:
    panel = facts.panel
    ahead = facts.fed or panel.disconnect_elsewhere is True
    if ahead and panel.bonded:
        yield about(
            facts, "bonded-sub", f"{panel.name}: the bonding screw is in",
            "Past the service disconnect neutral and ground stay apart. Take the screw right out, not just loose.",
            "250.24(B), 408.40", mends=[Mend("Screw out", [change(panel, bonded=False)])],
        )  # fmt: skip
    if not ahead and not panel.bonded and panel.disconnect_elsewhere is None:
        yield about(
            facts, "service-unsaid", f"Is the service disconnect of {panel.name} elsewhere?",
            "Its bonding screw is out: right where a disconnect stands ahead of it, outdoors or at the meter; wrong "
            "where this is the first.", "250.24, 250.142(B), 230.85",
            mends=[
                Mend("Yes, ahead of it", [change(panel, disconnect_elsewhere=True)]),
                Mend("No, this is the first: screw in", [change(panel, disconnect_elsewhere=False, bonded=True)]),
            ],
        )  # fmt: skip
    elif not ahead and not panel.bonded:
        yield about(
            facts, "main-unbonded", f"{panel.name}: the bonding screw is out",
            "In the main panel neutral and ground are joined.", "250.28",
            mends=[Mend("Screw in", [change(panel, bonded=True)])],
        )  # fmt: skip
    if ahead and not panel.ground_bar:
        yield about(
            facts, "ground-bar", f"{panel.name} has no ground bar of its own",
            "Grounds on the neutral bar join the two again.", "408.40",
            mends=[Mend("Add a ground bar", [change(panel, ground_bar=True)])],
        )  # fmt: skip
    neutrals = sum(circuit.neutral for circuit in facts.circuits)
    if neutrals > panel.neutral_holes:
        yield about(
            facts, "neutral-holes", f"{neutrals} neutrals, {panel.neutral_holes} holes",
            "One neutral under each screw.", "408.41", measured=str(neutrals), limit=str(panel.neutral_holes),
            mends=[Mend("A second neutral bar", [change(panel, neutral_holes=panel.neutral_holes + 12)])],
        )  # fmt: skip


def bars_rule(facts: PanelFacts) -> Iterator[Finding]:
    """Grounds on the ground bar, and the thickest wire on either: as its bars were counted."""
    panel = facts.panel
    own = [*facts.circuits, *([facts.feeder] if facts.feeder else [])]
    grounds = sum(circuit.equipment_ground for circuit in own)
    if panel.ground_holes is not None and grounds > panel.ground_holes:
        yield about(
            facts, "ground-holes", f"{grounds} grounds, {panel.ground_holes} holes",
            "One under each screw, unless the label says two of a size.", "110.14(A), 408.40",
            measured=str(grounds), limit=str(panel.ground_holes),
            mends=[Mend("A second ground bar", [change(panel, ground_holes=panel.ground_holes + 12)])],
        )  # fmt: skip
    thick = [c for c in facts.circuits if facts.order and c.neutral and _thicker(facts, c.wire_size)]
    if thick:
        yield about(
            facts, "hole-small", f"{called(thick[0])}: {thick[0].wire_size} into a bar of holes for "
            f"{panel.hole_max}", "A neutral of this size lands on a lug of its own.", "110.14(A)",
            measured=thick[0].wire_size, limit=panel.hole_max,
            mends=[Mend(f"A lug for {thick[0].wire_size} on the bar", [change(panel, hole_max=thick[0].wire_size)])],
        )  # fmt: skip


def _thicker(facts: PanelFacts, size: str) -> bool:
    most = facts.panel.hole_max
    return size in facts.order and most in facts.order and facts.order.index(size) > facts.order.index(most)


def load_rule(facts: PanelFacts) -> Iterator[Finding]:
    panel, amps = facts.panel, facts.amps
    if panel.main_a is not None and panel.main_a > panel.bus_a + 1e-9:
        yield about(
            facts, "bus-small", f"{panel.name}: a {panel.main_a:g} A main on a bus of {panel.bus_a:g} A",
            "The bus carries its rating, whatever the main lets through.", "408.36, 408.30",
            measured=f"{panel.main_a:g} A", limit=f"{panel.bus_a:g} A",
            mends=[
                Mend(f"A panel with a {panel.main_a:g} A bus", [change(panel, bus_a=panel.main_a)]),
                Mend(f"Main of {panel.bus_a:g} A", [change(panel, main_a=panel.bus_a)]),
            ],
        )  # fmt: skip
    if facts.feeder is not None:
        if amps > facts.feeder.breaker_a + 1e-9:
            yield about(
                facts, "feeder-small",
                f"{panel.name} calculates to {amps:.0f} A on a {facts.feeder.breaker_a:g} A feeder",
                "Calculated by article 220 from what is on it.", facts.load.rule, measured=f"{facts.load.amps:.1f} A",
                limit=f"{facts.feeder.breaker_a:g} A", mends=_bigger_feeder(facts, facts.feeder),
            )  # fmt: skip
    elif panel.main_a is not None and amps > panel.main_a + 1e-9:
        mends = []
        if panel.calculation == "standard":
            mends.append(Mend("Calculate by the optional method", [change(panel, calculation="optional")]))
        yield about(
            facts, "main-over", f"{panel.name} calculates to {amps:.0f} A on a {panel.main_a:g} A main",
            f"By the {facts.load.method} method.", facts.load.rule, measured=f"{facts.load.amps:.1f} A",
            limit=f"{panel.main_a:g} A", mends=mends,
        )  # fmt: skip


def service_rule(facts: PanelFacts) -> Iterator[Finding]:
    """The main of a house, and how a panel in another building is turned off (230.79(C), 225.33)."""
    panel = facts.panel
    own = not facts.fed and panel.disconnect_elsewhere is not True
    if facts.house and own and panel.main_a is not None and panel.main_a < HOUSE_MAIN_A:
        yield about(
            facts, "service-small", f"{panel.name}: a {panel.main_a:g} A main in a house",
            "A one-family dwelling's service disconnect is 100 A at least where it is new.", "230.79(C)",
            measured=f"{panel.main_a:g} A", limit=f"{HOUSE_MAIN_A:g} A",
            mends=[Mend("100 A main", [change(panel, main_a=HOUSE_MAIN_A, bus_a=max(panel.bus_a, HOUSE_MAIN_A))])],
        )  # fmt: skip
    if facts.detached and panel.main_a is None and len(facts.circuits) > MOST_THROWS:
        rating = facts.feeder.breaker_a if facts.feeder else panel.bus_a
        yield about(
            facts, "disconnects-many", f"{panel.name}: {len(facts.circuits)} throws turn the building off",
            "Six at most, or one main.", "225.33", measured=str(len(facts.circuits)), limit=str(MOST_THROWS),
            mends=[Mend(f"Main of {rating:g} A in it", [change(panel, main_a=rating)])],
        )  # fmt: skip


def _bigger_feeder(facts: PanelFacts, feeder: Circuit) -> list[Mend]:
    if facts.bigger is None:
        return []
    breaker, size = facts.bigger
    edits: list[dict[str, Any]] = [
        {"op": "set", "kind": "circuit", "id": feeder.id, "set": {"breaker_a": breaker}},
        {"op": "rewire", "circuit": feeder.id, "size": size},
    ]
    if facts.panel.main_a is not None and facts.panel.main_a < breaker:
        edits.append(change(facts.panel, main_a=breaker, bus_a=max(facts.panel.bus_a, breaker)))
    return [Mend(f"{breaker:g} A feeder on {size}", edits)]


RULES: tuple[Rule[PanelFacts], ...] = (
    spaces_rule,
    short_rule,
    multiwire_rule,
    bonding_rule,
    bars_rule,
    load_rule,
    service_rule,
)
