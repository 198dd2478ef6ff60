"""Panels and nameplates: the case that must speak and the near miss that must stay silent.

Source: NFPA 70 (NEC) 2023, 250.24, 408.36, 210.21(B), 220.55, 430.22, 440.22, 440.33; from memory.
"""

from __future__ import annotations

import pytest

from levelrun.core.circuits.service import Appliance, Dwelling, feeder, standard
from levelrun.core.codebook import Codebook
from tests.conftest import built, edited, found
from tests.core.circuits.home import case, home

# what is said of the panel: the findings about its bond
BONDS = {
    "nothing said, screw in": ({}, set()),
    "screw out, nobody said where the disconnect is: a question": ({"bonded": False}, {"service-unsaid"}),
    "screw out, the disconnect is in it": ({"bonded": False, "disconnect_elsewhere": False}, {"main-unbonded"}),
    "screw in, the disconnect is in it": ({"bonded": True, "disconnect_elsewhere": False}, set()),
    "screw out, the disconnect is outdoors": ({"bonded": False, "disconnect_elsewhere": True}, set()),
    "screw in, the disconnect is outdoors": ({"bonded": True, "disconnect_elsewhere": True}, {"bonded-sub"}),
    "the disconnect is outdoors, no ground bar": (
        {"bonded": False, "disconnect_elsewhere": True, "ground_bar": False},
        {"ground-bar"},
    ),
}


@pytest.mark.parametrize("name", BONDS)
def test_the_bonding_screw_is_asked_never_asserted(name: str) -> None:
    values, wanted = BONDS[name]
    job = case("1 20a dual Den: R-1", P=values)
    panel = next(p.id for p in job.panels if p.name == "P")
    codes = {"service-unsaid", "main-unbonded", "bonded-sub", "ground-bar"}
    assert {code for code in codes if any(f.subject == panel for f in found(job, code))} == wanted


def test_a_panel_said_to_be_a_sub_is_believed() -> None:
    job = built("panel east 4' sub as X", home(), room=home().rooms[0].id)
    made = next(p for p in job.panels if p.name == "X")
    assert (made.bonded, made.disconnect_elsewhere) == (False, True)
    assert not any(f.subject == made.id for f in found(job, "service-unsaid") + found(job, "main-unbonded"))


@pytest.mark.parametrize(
    ("main", "bus", "wrong"), [(200.0, 125.0, True), (125.0, 125.0, False), (100.0, 200.0, False)]
)
def test_the_bus_carries_its_main(main: float, bus: float, wrong: bool) -> None:
    job = home("1 20a dual Den: R-1", P={"main_a": main, "bus_a": bus})
    assert bool(found(job, "bus-small")) is wrong


# breaker, volts, configuration: whether it may stand there
PLUGS = {
    "14-50 on 50 A": (50, "14-50", True),
    "14-50 on 40 A, table 210.21(B)(3)": (40, "14-50", True),
    "14-50 on 60 A: nothing under 60 A may": (60, "14-50", False),
    "14-30 on 30 A": (30, "14-30", True),
    "14-30 on 40 A": (40, "14-30", False),
    "6-50 on 50 A": (50, "6-50", True),
}


@pytest.mark.parametrize("name", PLUGS)
def test_a_receptacle_is_never_under_its_circuit(name: str) -> None:
    amps, nema, fits = PLUGS[name]
    job = case(f"1/3 {amps}a gfci with neutral Range: RG", ("box", "RG", {"nema": nema}))
    said = found(job, "plug-rating")
    assert bool(said) is not fits
    for mend in said[0].mends if said else []:
        assert not found(edited(job, *mend.edits), "plug-rating"), mend.label


# least ampacity, greatest breaker, breaker, wire, load in watts: codes
PLATES = {
    "10 on 40 A for 24 and 40": (24.0, 40.0, 40, "10", 4000.0, set()),
    "14 on 40 A for 24 and 40": (24.0, 40.0, 40, "14", 4000.0, {"nameplate-wire"}),
    "10 on 50 A for 24 and 40": (24.0, 40.0, 50, "10", 4000.0, {"nameplate-breaker"}),
    "plate not read, wire under the load": (None, None, 60, "14", 9600.0, {"nameplate-wire", "nameplate-unsaid"}),
    "plate not read, wire over the load": (None, None, 60, "6", 9600.0, {"nameplate-unsaid"}),
    "half of the plate read": (24.0, None, 40, "10", 4000.0, {"nameplate-unsaid"}),
}


@pytest.mark.parametrize("name", PLATES)
def test_a_nameplate_frees_the_breaker_never_the_wire(name: str) -> None:
    least, most, amps, wire, watts, wanted = PLATES[name]
    values = {"wire_size": wire, "least_ampacity_a": least, "largest_breaker_a": most}
    job = case(f"1/3 {amps}a nameplate Pump: GE", ("box", "GE", {"load_w": watts, "serves": "air_conditioner"}),
               ("circuit", "Pump", values))  # fmt: skip
    codes = {"nameplate-wire", "nameplate-breaker", "nameplate-unsaid", "breaker-wire"}
    assert {code for code in codes if found(job, code)} == wanted
    for code in wanted - {"nameplate-unsaid"}:
        for mend in found(job, code)[0].mends:
            assert not found(edited(job, *mend.edits), code), mend.label


def test_a_nameplate_is_said_on_the_line() -> None:
    job = home("1/3 40a mca 24 mocp 40 Heat pump: GE")
    circuit = job.circuits[0]
    assert (circuit.nameplate, circuit.least_ampacity_a, circuit.largest_breaker_a) == (True, 24, 40)
    assert circuit.name == "Heat pump"


def test_a_kiln_is_continuous() -> None:
    """It fires for hours: 48 A want 60, and 125 % in the feeder (210.20, 215.2)."""
    job = case("1/3 50a Kiln: GE", ("box", "GE", {"serves": "kiln", "load_w": 11_520.0}))
    assert found(job, "circuit-high")[0].limit == "40 A"
    assert not found(edited(job, *found(job, "circuit-high")[0].mends[0].edits), "circuit-high")
    kiln = edited(job, *found(job, "circuit-high")[0].mends[0].edits).circuits[-1]
    assert (kiln.breaker_a, kiln.wire_size) == (60.0, "4")


def test_a_kiln_counts_a_quarter_more_in_a_feeder(book: Codebook) -> None:
    found = feeder(book, 0, [Appliance("kiln", 11_520, "Kiln")])
    assert found.total_va == pytest.approx(14_400)
    assert found.amps == pytest.approx(60)


# nameplate, demand by table 220.55 with note 1
RANGES = {12_000: 8_000, 12_300: 8_000, 12_499: 8_000, 12_500: 8_400, 13_400: 8_400, 13_500: 8_800, 16_000: 9_600}


@pytest.mark.parametrize("watts", RANGES)
def test_a_range_over_12_kw_counts_whole_kilowatts_and_major_fractions(book: Codebook, watts: int) -> None:
    home_ = Dwelling(0, 0, 0, (Appliance("range", watts, "Range"),))
    step = next(step for step in standard(book, home_).steps if step.section == "table 220.55")
    assert step.counted_va == pytest.approx(RANGES[watts])


@pytest.mark.parametrize(
    ("main", "bus", "wire", "code"),
    [
        (200.0, 200.0, "4/0", ""),  # a 200 A panel takes 250 as usual: no stop at 1/0
        (200.0, 200.0, "300", "lug-asked"),
        (100.0, 125.0, "1/0", ""),
        (100.0, 125.0, "2/0", "lug-asked"),
        (None, 125.0, "2/0", ""),  # lugs only: by its bus
        (None, 400.0, "500", ""),  # over what is known: nothing is guessed
    ],
)
def test_lugs_follow_the_main_unless_they_are_said(main: float | None, bus: float, wire: str, code: str) -> None:
    """Typical lugs; common practice, no source. What is said is a stop, what is usual is asked."""
    job = case(f"feed Q from 1 200a wire {wire}", ("panel", "Q", {"main_a": main, "bus_a": bus}))
    fed = [f.code for f in (*found(job, "lug-asked"), *found(job, "lug-small")) if "lugs of Q" in f.title]
    assert fed == ([code] if code else [])
    panel = next(item.id for item in job.panels if item.name == "Q")
    said = edited(job, {"op": "set", "kind": "panel", "id": panel, "set": {"lug_max": "1"}})
    assert found(said, "lug-small")


@pytest.mark.parametrize(
    ("breaker", "wire", "asked"), [(20, "8", False), (20, "6", True), (60, "4", False), (60, "2", True)]
)
def test_a_wire_grown_for_drop_still_goes_under_its_breaker(breaker: int, wire: str, asked: bool) -> None:
    job = case(f"1/3 {breaker}a wire {wire} Heater: GE")
    assert bool(found(job, "lug-asked")) is asked
