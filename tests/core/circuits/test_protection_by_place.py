"""Ground-fault and arc-fault protection by place, over the rule sets: what is asked, and the near miss that is not.

Source: NFPA 70 (NEC), 210.8 and 210.12 of the 2023 and 2020 editions, from memory.
"""

from __future__ import annotations

import pytest

from levelrun.core.job import Job
from tests.conftest import built, edited, found
from tests.core.circuits.rooms import HOME, on_circuit


def asked(job: Job, kind: str, rules: str = "us-2023") -> bool:
    return bool(found(job.model_copy(update={"rules": rules}), f"{kind}-missing"))


# box, amperes, volts: asked in 2023, asked in 2020
GROUND_FAULT: dict[str, tuple[str, float, int, bool, bool]] = {
    "bath receptacle": ("B-1", 20, 120, True, True),
    "garage receptacle": ("G-1", 20, 120, True, True),
    "outdoor receptacle": ("O-1", 20, 120, True, True),
    "laundry receptacle": ("W-1", 20, 120, True, True),
    "counter receptacle": ("K-1", 20, 120, True, True),
    "kitchen receptacle away from the counter": ("K-2", 20, 120, True, False),
    "within 6 ft of the shower, more than 3": ("D-1", 20, 120, True, True),
    "den receptacle far from water": ("D-2", 20, 120, False, False),
    "bedroom receptacle": ("S-1", 20, 120, False, False),
    "dishwasher wired fast": ("K-3", 20, 120, True, True),
    "wall oven wired fast": ("K-4", 30, 240, True, False),
    "range receptacle, far from the sink": ("K-5", 50, 240, True, False),
    "dryer receptacle in the laundry": ("W-2", 30, 240, True, True),
    "outdoor equipment wired fast": ("O-2", 30, 240, True, True),
    "outdoor light": ("O-3", 15, 120, False, False),
    "indoor equipment wired fast": ("D-3", 20, 120, False, False),
    "garage light": ("G-2", 15, 120, False, False),
    "outdoor equipment over 50 A": ("O-2", 60, 240, False, False),
}


@pytest.mark.parametrize("name", GROUND_FAULT)
@pytest.mark.parametrize("edition", ["us-2023", "us-2020"])
def test_ground_fault_protection_by_place(name: str, edition: str) -> None:
    box, amps, volts, in_2023, in_2020 = GROUND_FAULT[name]
    assert asked(on_circuit(box, amps, volts), "gfci", edition) is (in_2023 if edition == "us-2023" else in_2020)


def test_a_finished_basement_asks_and_the_floor_over_it_does_not() -> None:
    """210.8(A)(5): basements, finished or not, whatever the room is for."""
    job = built("level basement below 8'; room Office 12' x 12' as common; set receptacle south 6' as U-1", HOME)
    assert asked(on_circuit("U-1", job=job), "gfci")
    assert not asked(on_circuit("D-2", job=job), "gfci")


def test_a_damp_room_asks_where_it_is_said_damp() -> None:
    den = next(room.id for room in HOME.rooms if room.name == "Den")
    for moisture, wanted in (("damp", True), ("wet", True), ("dry", False)):
        job = edited(HOME, {"op": "set", "kind": "room", "id": den, "set": {"moisture": moisture}})
        assert asked(on_circuit("D-2", job=job), "gfci") is wanted


@pytest.mark.parametrize("serves", ["generator", "heat_cable"])
def test_what_is_no_outdoor_outlet_is_not_asked(serves: str) -> None:
    one = next(item.id for item in HOME.boxes if item.name == "O-2")
    job = edited(HOME, {"op": "set", "kind": "box", "id": one, "set": {"serves": serves}})
    assert not asked(on_circuit("O-2", 20, 240, job), "gfci")


@pytest.mark.parametrize(
    ("room", "gear", "wanted"),
    [
        ("Machines 8' x 8' south of Bed as utility", "furnace", True),
        ("Machines 8' x 8' south of Bed as utility", "water heater", False),  # no heating of rooms
        ("Guest 12' x 12' south of Bed as bedroom", "air conditioner", False),  # lived in: any outlet will do
    ],
)
def test_the_outlet_for_whoever_mends_a_furnace_asks(room: str, gear: str, wanted: bool) -> None:
    """210.8(E) with 210.63(A), in rooms where nobody lives."""
    job = built(f"room {room}; set receptacle south 3' as M-1; set equipment south 6' for {gear} as M-2", HOME)
    assert asked(on_circuit("M-1", job=job), "gfci") is wanted


@pytest.mark.parametrize("edition", ["us-2023", "us-2020"])
def test_a_receptacle_for_a_vehicle_asks_wherever_it_stands_and_a_wired_charger_does_not(edition: str) -> None:
    """625.54: receptacles for charging a vehicle."""
    for box, wanted in (("D-2", True), ("D-3", False)):
        one = next(item.id for item in HOME.boxes if item.name == box)
        job = edited(HOME, {"op": "set", "kind": "box", "id": one, "set": {"serves": "vehicle"}})
        assert asked(on_circuit(box, 50, 240, job), "gfci", edition) is wanted


ARC_FAULT = {
    "bedroom receptacle": ("S-1", 15, True),
    "bedroom light": ("S-2", 15, True),
    "den receptacle": ("D-2", 20, True),
    "kitchen receptacle": ("K-1", 20, True),
    "laundry receptacle": ("W-1", 20, True),
    "bath receptacle": ("B-1", 20, False),
    "garage receptacle": ("G-1", 20, False),
    "outdoor receptacle": ("O-1", 20, False),
    "den receptacle on 30 A": ("D-2", 30, False),
}


@pytest.mark.parametrize("name", ARC_FAULT)
@pytest.mark.parametrize("edition", ["us-2023", "us-2020"])
def test_arc_fault_protection_by_place(name: str, edition: str) -> None:
    box, amps, wanted = ARC_FAULT[name]
    job = on_circuit(box, amps)
    assert asked(job, "afci", edition) is wanted
    assert not asked(on_circuit(box, amps, protection="dual"), "afci", edition)
    if wanted:
        section = found(job.model_copy(update={"rules": edition}), "afci-missing")[0].section
        assert section == {"us-2023": "210.12(B)", "us-2020": "210.12(A)"}[edition]


@pytest.mark.parametrize(("method", "counts"), [("NM-B", False), ("MC", True), ("AC", True), ("raceway", True)])
def test_an_arc_fault_outlet_counts_only_behind_a_metal_home_run(method: str, counts: bool) -> None:
    """210.12(A): an outlet first in the circuit wants steel pipe, MC or AC up to it; of pipe it is asked which."""
    one = next(item.id for item in HOME.boxes if item.name == "D-2")
    job = edited(HOME, {"op": "set", "kind": "box", "id": one, "set": {"protects": "afci"}})
    job = on_circuit("D-2", job=job, method=method)
    assert asked(job, "afci") is not counts
    assert bool(found(job, "afci-outlet")) is (method == "raceway")


def test_a_mend_that_cannot_be_built_is_not_offered() -> None:
    """No arc-fault outlet behind cable; no ground-fault outlet at 50 A, 240 V."""
    afci = found(on_circuit("D-2"), "afci-missing")[0]
    assert [mend.label for mend in afci.mends] == ["Arc-fault breaker"]
    gfci = found(on_circuit("K-5", 50, 240), "gfci-missing")[0]
    assert [mend.label for mend in gfci.mends] == ["GFCI breaker"]
    bath = found(on_circuit("B-1"), "gfci-missing")[0]
    assert [mend.label for mend in bath.mends] == ["GFCI breaker", "At first outlet B-1"]
