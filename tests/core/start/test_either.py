"""Amperes that stand bare by a machine: of its breaker or its own, by the wire that is said. Common practice, no
source; what the wire bears is table 310.16 at 60 C for building cable, the quarter more 210.20(A) and 625.42."""

from __future__ import annotations

import pytest

from levelrun.core.edits import Looked, said_on
from levelrun.core.plan import plan
from tests.conftest import built

HOUSE = built("panel H 200a 30 spaces taken 1-4")


@pytest.mark.parametrize(
    ("said", "breaker_a", "wire", "told"),
    [
        ("water heater 30a 10-2 15' basement", 30, "10", "its breaker"),
        ("30a water heater 15' basement", 30, "10", "its breaker"),
        ("20a wall heater 12-2 25' crawl", 20, "12", "its breaker"),
        ("two baseboard heaters 20a 240v 35' crawl", 20, "12", "its breaker"),
        ("sauna 40a 8-2 35' basement", 40, "8", "its breaker"),  # 40 A for hours wants 50 A and No. 6
        ("kiln 50a 6-2 30' basement", 50, "6", "its breaker"),
        ("air handler 60a 6-2 20' attic", 60, "6", "its breaker"),  # over the 55 A of No. 6, by 240.4(B)
        ("charger 60a 30' garage wall in emt", 60, "6", "its breaker"),  # nobody makes one that draws 60 A
        ("charger 240v 50a 30' garage wall in emt", 50, "8", "its breaker"),
        # Its own: the wire bears it, or none is said and it would come out too small.
        ("kiln 40a 6-2 30' basement", 50, "6", "what it draws"),
        ("kiln 40a 30' basement", 50, "6", "what it draws"),
        ("charger 40a 30' garage wall in emt", 50, "8", "what it draws"),
    ],
)
def test_by_what_its_wire_bears(said: str, breaker_a: float, wire: str, told: str) -> None:
    job, looked = said_on(HOUSE, f"from {said}", Looked())
    assert (job.circuits[0].breaker_a, job.circuits[0].wire_size) == (breaker_a, wire)
    assert told in " ".join(looked.told)
    assert [item.title for item in plan(job).findings if item.severity == "stop"] == []


@pytest.mark.parametrize("said", ["kiln of 40 amps 8-2 30' basement", "charger 40a 8-3 25' garage wall"])
def test_what_draws_more_than_its_wire_bears_still_stops(said: str) -> None:
    job, _ = said_on(HOUSE, f"from {said}", Looked())
    assert job.circuits[0].breaker_a == 50
    assert "breaker-wire" in {item.code for item in plan(job).findings if item.severity == "stop"}


def test_a_machine_behind_its_breaker_is_taken_to_draw_what_that_bears() -> None:
    """40 A over 1.25 for a kiln that is on for hours; a water heater of 4,500 W is the same behind any breaker."""
    kiln, _ = said_on(HOUSE, "from kiln 40a breaker 8-2 30' basement", Looked())
    assert not [item.title for item in plan(kiln).findings if item.code == "circuit-over"]
    assert kiln.boxes[0].load_w == 32 * 240
    heater, _ = said_on(HOUSE, "from water heater 20a 12-2 15' basement", Looked())
    assert "18.8 A continuous on 20 A" in {item.title for item in plan(heater).findings}


def test_a_motor_of_120_volts_over_20_amperes_has_a_receptacle_that_bears_it() -> None:
    """2 hp at 120 V is 24 A (table 430.248, from memory), 30 A with the quarter of 430.22: no 5-15 bears that."""
    job, _ = said_on(HOUSE, "from dust collector 2 hp 120v 25' shop wall", Looked())
    assert (job.boxes[0].nema, job.circuits[0].breaker_a) == ("L5-30", 30)
    assert [item.title for item in plan(job).findings if item.severity == "stop"] == []
    small, _ = said_on(HOUSE, "from dust collector 1 hp 120v 25' shop wall", Looked())
    assert (small.boxes[0].nema, small.circuits[0].breaker_a) == ("", 20)
