"""Load calculations against the examples of annex D of NFPA 70, their figures from memory."""

from __future__ import annotations

import pytest

from levelrun.core.circuits.count import count_circuits
from levelrun.core.circuits.service import Appliance, Dwelling, optional, standard
from levelrun.core.codebook import Codebook
from levelrun.core.errors import LevelRunError

RANGE = Appliance("range", 12_000)


def test_annex_d_example_d1a_standard_method(book: Codebook) -> None:
    """D1(a): 1,500 ft2, a 12 kW range, a 5.5 kW dryer. 18,600 VA, 78 A; neutral 14,550 VA, 61 A (from memory)."""
    home = Dwelling(1500, 2, 1, (RANGE, Appliance("dryer", 5500)))
    found = standard(book, home)
    lighting = [step.counted_va for step in found.steps[:2]]
    assert lighting == [3000, 2100]
    assert found.total_va == 18_600
    assert round(found.amps) == 78
    assert found.neutral_va == pytest.approx(14_550)
    assert round(found.neutral_a) == 61


def test_annex_d_example_d2a_optional_method(book: Codebook) -> None:
    """D2(a): D1(a)'s house with 9 kW of heat in five rooms, water heater 2.5, dishwasher 1.2, range 12, dryer 5 kW:
    17,880 VA and 3,600 VA of heat, 21,480 VA, 90 A (from memory)."""
    heat = tuple(Appliance("space_heater", 1800) for _ in range(5))
    more = (RANGE, Appliance("water_heater", 2500), Appliance("dishwasher", 1200), Appliance("dryer", 5000))
    found = optional(book, Dwelling(1500, 2, 1, (*more, *heat)))
    assert [round(step.counted_va) for step in found.steps] == [10_000, 7_880, 3_600]
    assert round(found.total_va) == 21_480
    assert round(found.amps) in (89, 90)


def test_a_range_over_12_kw_grows_5_percent_a_kilowatt(book: Codebook) -> None:
    """Note 1 of table 220.55: 16 kW counts 8 kW x 1.20 = 9.6 kW (arithmetic)."""
    found = standard(book, Dwelling(0, 0, 0, (Appliance("range", 16_000),)))
    assert found.total_va == pytest.approx(9_600)


def test_four_fixed_appliances_count_three_quarters(book: Codebook) -> None:
    """220.53: at 75 % from four on (arithmetic)."""
    uses = ("water_heater", "dishwasher", "disposer", "microwave")
    for count, share in ((3, 1.0), (4, 0.75)):
        own = tuple(Appliance(use, 1000) for use in uses[:count])
        steps = standard(book, Dwelling(0, 0, 0, own)).steps
        counted = [step.counted_va for step in steps if step.section == "220.53"]
        assert counted == [1000 * share] * count


def test_a_bigger_house_never_calculates_to_less(book: Codebook) -> None:
    for method in (standard, optional):
        amps = [method(book, Dwelling(area, 2, 1, (RANGE,))).amps for area in range(0, 6000, 250)]
        assert amps == sorted(amps)


def test_negative_loads_are_refused_by_name(book: Codebook) -> None:
    with pytest.raises(LevelRunError, match="range: a load is 0 or more"):
        standard(book, Dwelling(1500, 2, 1, (Appliance("range", -1),)))
    with pytest.raises(LevelRunError, match="baths -1"):
        count_circuits(book, 1000, baths=-1)
    with pytest.raises(LevelRunError, match="'sauna' is not known"):
        count_circuits(book, 1000, appliances=("sauna",))


def test_the_bare_count_of_a_small_house(book: Codebook) -> None:
    """1,200 ft2: two kitchen, bath, laundry, outdoors, two of lights, three of outlets, range on two spaces and
    refrigerator on one (common practice, no source): 12 circuits on 13 spaces, a 20-space panel."""
    found = count_circuits(book, 1200, appliances=("range", "refrigerator"))
    assert (found.circuits, found.spaces, found.panel_spaces) == (12, 13, 20)
