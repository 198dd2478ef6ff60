"""What comes into a building, what two hots in a cable say, where equipment is turned off, with near misses."""

from __future__ import annotations

import pytest

from levelrun.core.circuits.cables import cable_needs
from levelrun.core.circuits.chain import tree_of
from levelrun.core.edits import Looked, said_on
from levelrun.core.job import Job
from levelrun.core.plan import plan
from tests.conftest import built, edited, found
from tests.core.circuits.home import case
from tests.core.circuits.test_circuit_rules import CASES

FED = "feed Q from 1 60a"


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ("", False),
        ("; circuit in P 5 20a gfci Store: SH", True),
        ("; circuit in Q 1 20a gfci Store: SH", False),  # from its own panel
        ("; circuit 5 20a gfci Store: SH", False),  # nothing said: from its own panel
    ],
)
def test_one_supply_to_a_building(more: str, said: bool) -> None:
    assert bool(found(case(FED + more), "supply-two")) is said


def test_a_circuit_of_another_building_is_in_the_panel_there_where_one_is_fed() -> None:
    """No panel is said, the one looked at is P: what stands all in the shed is fed from Q, and that is told."""
    job, looked = said_on(case(FED), "circuit 5 20a gfci Store: SH", Looked())
    panels = {panel.id: panel.name for panel in job.panels}
    assert panels[job.circuits[-1].panel] == "Q" and "Store is in Q, where its boxes stand" in looked.told[0]
    for text in ("circuit 5 20a gfci Both: R-1 SH", "circuit 5 20a gfci None", "circuit 5 20a dual Den: R-1"):
        job, looked = said_on(case(FED), text, Looked())
        assert panels[job.circuits[-1].panel] == "P" and not looked.told, text
    unfed, _ = said_on(case("3 20a Den: R-1"), "circuit 5 20a gfci Store: SH", Looked())
    assert panels[unfed.circuits[-1].panel] == "P"


def test_two_that_share_a_neutral_are_one_supply_and_two_voltages_may_come() -> None:
    two = built("set receptacle in Store north 3' as S2", case("5 20a gfci A: SH; circuit 7 20a gfci B"))
    two = built("chain S2 on B", two)
    assert found(two, "supply-two")
    a, b = (c.id for c in two.circuits)
    shared = edited(
        two, *({"op": "set", "kind": "circuit", "id": x, "set": {"partner": y}} for x, y in ((a, b), (b, a)))
    )
    assert not found(shared, "supply-two")
    other = edited(two, {"op": "set", "kind": "circuit", "id": b, "set": {"volts": 240, "poles": 2}})
    assert not found(other, "supply-two")


@pytest.mark.parametrize(
    ("circuits", "main", "least"),
    [(1, 20.0, ""), (2, 20.0, "30 A"), (2, 30.0, ""), (3, 30.0, "60 A"), (3, 59.0, "60 A"), (3, 60.0, "")],
)
def test_the_disconnect_of_a_building_by_the_count_of_its_circuits(circuits: int, main: float, least: str) -> None:
    """225.39: one circuit 15 A, two 30 A, more 60 A."""
    own = "; ".join(f"circuit in Q {n} 20a gfci S{n}" for n in range(1, circuits + 1))
    job = built(own, case(FED, ("panel", "Q", {"main_a": main})))
    assert [item.limit for item in found(job, "supply-small")] == ([least] if least else [])


@pytest.mark.parametrize(("method", "said"), [("NM-B", True), ("UF-B", False), ("MC", False), ("raceway", False)])
def test_building_cable_to_another_building(method: str, said: bool) -> None:
    job = case("5 20a gfci Store: SH", ("circuit", "Store", {"method": method}))
    assert bool(found(job, "cable-across")) is said
    assert not found(case("5 20a dual Den: R-1", ("circuit", "Den", {"method": method})), "cable-across")


@pytest.mark.parametrize(
    ("protections", "poles", "said"),
    [
        (("gfci", "afci"), 1, True),
        (("dual", "dual"), 1, True),
        (("dual", "plain"), 1, False),
        (("dual", "dual"), 2, False),
    ],
)
def test_protected_breakers_that_share_a_neutral(protections: tuple[str, str], poles: int, said: bool) -> None:
    job = CASES["multiwire-tie"]
    for circuit, protection in zip(job.circuits[:2], protections, strict=True):
        values = {"protection": protection, "poles": poles}
        job = edited(job, {"op": "set", "kind": "circuit", "id": circuit.id, "set": values})
    assert bool(found(job, "multiwire-device")) is said


def test_the_white_of_a_two_wire_cable_at_240_volts_is_a_hot() -> None:
    two = case("1/3 30a Heater: GE")
    (said,) = found(two, "white-hot")
    assert said.severity == "note" and "a hot" in said.title
    chain = [{"box": next(b.id for b in two.boxes if b.name == "GE"), "conductors": 3}]
    spare = edited(two, {"op": "set", "kind": "circuit", "id": two.circuits[0].id, "set": {"chain": chain}})
    assert "spare" in found(spare, "white-hot")[0].title
    for silent in ("1/3 30a with neutral Heater: GE", "1 20a Heater: GE"):
        assert not found(case(silent), "white-hot")
    assert not found(case("1/3 30a Heater: GE", ("circuit", "Heater", {"method": "raceway"})), "white-hot")


@pytest.mark.parametrize(
    ("serves", "locks", "said"),
    [
        ("water_heater", False, True),
        ("water_heater", True, False),
        ("air_conditioner", True, True),
        ("kiln", False, False),
    ],
)
def test_where_equipment_is_turned_off(serves: str, locks: bool, said: bool) -> None:
    job = case("1/3 30a Heater: GE", ("box", "GE", {"serves": serves}), ("circuit", "Heater", {"locks": locks}))
    assert bool(found(job, "disconnect-sight")) is said


def test_a_disconnect_before_it_answers_where_it_is_turned_off() -> None:
    job = case("1/3 30a Heater: GE", ("box", "GE", {"serves": "air_conditioner"}))
    item = {"id": "ds", "kind": "disconnect", "structure": job.boxes[0].structure, "name": "DS-9"}
    ge = next(b.id for b in job.boxes if b.name == "GE")
    chain = [{"box": "ds"}, {"box": ge, "after": "ds"}]
    job = edited(job, {"op": "add", "kind": "box", "item": item},
                 {"op": "set", "kind": "circuit", "id": job.circuits[0].id, "set": {"chain": chain}})  # fmt: skip
    assert not found(job, "disconnect-sight")


def test_a_guessed_load_over_its_breaker_asks_for_the_nameplate_and_a_said_one_stops() -> None:
    """A welder is taken for 11,000 W where nothing is said: 46 A at 240 V on 30 A."""
    guess = case("1/3 30a Welder: GE", ("box", "GE", {"serves": "welder"}))
    (asked,) = found(guess, "circuit-over")
    assert asked.severity == "check" and "nameplate" in asked.text
    said = edited(guess, {"op": "set", "kind": "circuit", "id": guess.circuits[0].id, "set": {"load_a": 46.0}})
    assert found(said, "circuit-over")[0].severity == "stop"


def needs(job: Job, box: str) -> tuple[str, ...]:
    circuit = job.circuits[0]
    boxes = {item.id: item for item in job.boxes}
    ident = next(b.id for b in job.boxes if b.name == box)
    return cable_needs(circuit, tree_of(circuit, {}), boxes)[ident].words


def test_smoke_alarms_are_joined_by_a_third_wire() -> None:
    job = built("room Bed 12' x 12'; panel west 4' as P; set smoke 3' x 3' as SM-1; set smoke 9' x 9' as SM-2; "
                "circuit in P 1 15a afci as Alarms: SM-1 SM-2")  # fmt: skip
    assert sorted(needs(job, "SM-2")) == ["hot", "interconnect", "neutral"] and len(needs(job, "SM-1")) == 2


def test_a_fan_with_light_and_heater_takes_a_hot_for_each_switch() -> None:
    job = built("room Bath 9' x 8'; panel west 4' as P; set switch north 17 5/8\" 3 gangs as S-1; "
                "set fan centre as F-1; "
                "change F-1: serves bath heater; circuit in P 1 20a gfci as Bath: S-1 F-1")  # fmt: skip
    assert needs(job, "F-1").count("switched hot") == 3
    plain = built("change F-1: serves none; change S-1: gangs 2", job)
    assert needs(plain, "F-1").count("switched hot") == 2


def test_a_light_on_the_first_of_two_three_ways_sends_its_hot_back() -> None:
    job = built("room Hall 20' x 4'; panel west 2' as P; set three-way north 17 5/8\" as A; "
                "set three-way north 15' as B; "
                "set light centre as L; circuit in P 1 15a afci as Hall: A")  # fmt: skip
    first = built("chain B on Hall after A; chain L on Hall after A", job)
    assert sorted(needs(first, "B")) == ["neutral", "switched hot", "traveller", "traveller"]
    last = built("chain B on Hall after A; chain L on Hall after B", job)
    assert sorted(needs(last, "B")) == ["neutral", "traveller", "traveller"]
    assert plan(last).circuits


@pytest.mark.parametrize(("existing", "told"), [(True, True), (False, False)])
def test_what_replaces_an_old_outlet_is_told_of_a_building_that_stands(existing: bool, told: bool) -> None:
    job = case("1 20a dual Den: R-1")
    job = edited(job, *({"op": "set", "kind": "structure", "id": item.id, "set": {"existing": existing}}
                        for item in job.structures))  # fmt: skip
    assert bool(found(job, "old-outlets")) is told
    lights = case("1 15a afci Lights: L-1")
    lit = edited(lights, *({"op": "set", "kind": "structure", "id": item.id, "set": {"existing": existing}}
                           for item in lights.structures))  # fmt: skip
    assert not found(lit, "old-outlets")
